"""Steps of putting together as the rounds are now: places, seams, order, what is in their way, and what is still loose."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from craft.design.assembly import Assembled, parts_with_wire
from craft.design.design import Design, Posture, Step
from craft.design.hazards import hazards_of
from craft.design.joins import Join, Manner, as_worked, left_over, meeting, seam_stitches
from craft.design.saying import disagrees, step_said
from craft.design.seating import begins_at_top, seats_of
from craft.figure.materials import tail_mm
from craft.figure.placement import (
    Job,
    Proposal,
    arranged,
    clear_of,
    is_head,
    misplaced,
    necks,
    propose_seat,
    room,
    sits_on_head,
)


@dataclass(frozen=True, slots=True)
class StepNow:
    """A step as the rounds are now.

    moved: they say its place otherwise than when it was set. seam_mm, tail_mm: of its seam. first, last: places in the
    list (from 0) it can be moved to. fault: why it stands too late. notes: what to know about it. said: the step in
    words, as it was placed. differs: where her own words say otherwise.
    """

    key: str
    round: int | None
    stitch: float
    moved: bool
    seam_mm: float | None
    tail_mm: float | None
    first: int
    last: int
    fault: str | None
    notes: tuple[str, ...]
    guess: Proposal | None
    said: str
    differs: str | None


def _jobs(design: Design) -> list[Job]:
    jobs = []
    for step in design.steps:
        join = design.join(step.join)
        on = join.host if join else step.place.on if step.place else None
        jobs.append(Job(step.text, step.part, on, step.before_closing))
    return jobs


def order_of_work(design: Design) -> tuple[str, ...]:
    """Keys of the steps in the order that a maker would choose."""
    names = {p.key: p.name for p in design.parts}
    wanted = arranged(_jobs(design), [names.get(s.part or "", "") for s in design.steps])
    return tuple(design.steps[i].key for i in wanted)


def steps_now(found: Assembled) -> tuple[StepNow, ...]:
    """Every step with its place, its seam and what is in its way."""
    design = found.design
    jobs = _jobs(design)
    late = {m.step: m for m in misplaced(jobs)}
    risky = hazards_of(design, found.parts)
    narrow = necks(found.surfaces, seats_of(design.joins, found.worked, design.posture))
    rows: list[StepNow] = []
    for i, step in enumerate(design.steps):
        join = _join_of(found, step)
        at = join.place if join else step.place
        now = at.now(found.worked) if at else None
        first, last = room(jobs, i)
        seam = seam_stitches(join, found.worked) if join else None
        seam_mm = None if seam is None or join is None else seam * design.gauge_of(join.part).stitch_mm
        fault = f"This must come before step {late[i].before + 1}: {late[i].why}." if i in late else None
        rows.append(
            StepNow(
                key=step.key,
                round=now.round if now else None,
                stitch=now.stitch if now else 0.0,
                moved=now.moved if now else False,
                seam_mm=seam_mm,
                tail_mm=None if seam_mm is None else tail_mm(seam_mm),
                first=first,
                last=last,
                fault=fault,
                notes=(*_notes(found, step, narrow), *(f"Under three: {h.what}." for h in risky if h.step == step.key)),
                guess=_seat_proposed(found, step),
                said=step_said(design, step, found.worked),
                differs=disagrees(step.text, now.round) if now else None,
            )
        )
    return tuple(rows)


def _join_of(found: Assembled, step: Step) -> Join | None:
    """A step's join, worked in where the rounds have it so."""
    join = found.design.join(step.join)
    return None if join is None else as_worked(join, found.worked)


_TAKEN_IN = "The rounds of {} take {} in already: nothing is sewn here. Work it in to have the step say so."

_STANDS_BY_ITSELF = (
    "Worked in, it stands as the rounds make it: its tilt and turn are kept, but count only when it is sewn on again."
)


_NO_WIRE = (
    "Only wire keeps a bend: say 'insert the wire' between the rounds of the part, or in a step about it. Until then it is shown "
    "straight."
)


def _notes(found: Assembled, step: Step, narrow: Mapping[str, str]) -> tuple[str, ...]:
    """What to know about a step's neck, and the edges that it joins."""
    join = _join_of(found, step)
    if join is None:
        return ()
    notes = [narrow[join.part]] if join.part in narrow else []
    if join is not found.design.join(step.join):
        notes.append(_TAKEN_IN.format(found.worked[join.host].name, found.worked[join.part].name))
    if join.host in found.worked and join.host not in found.bodies and join.part in found.bodies:
        names = {p.key: p.name for p in found.design.parts}
        part, host = names.get(join.part, "This part"), names.get(join.host, "its host")
        notes.append(f"{host} is worked in, so the picture shows {part} beside the figure; the step holds as it is.")
    if join.worked and (join.tilt or join.turn):
        notes.append(_STANDS_BY_ITSELF)
    if join.bends and join.part not in parts_with_wire(found.design, found.worked):
        notes.append(_NO_WIRE)
    met = meeting(join, found.worked) if join.sewn else None
    if met is None:
        return tuple(notes)
    if problem := met.problem:
        notes.append(problem)
    elif met.manner is Manner.EDGE:
        notes.append(f"Both openings have {met.part} stitches: join them stitch to stitch.")
    return tuple(notes)


def _seat_proposed(found: Assembled, step: Step) -> Proposal | None:
    join = _join_of(found, step)
    if join is None or step.part not in found.worked or join.manner is Manner.WORKED_IN:
        return None
    return _proposal(found, step.part or "", join.host, besides=join.key)


def _proposal(found: Assembled, part: str, host: str, besides: str = "", many: int | None = None) -> Proposal | None:
    """Where a part mostly sits on a host, clear of what sits there already. besides: key of a join that is the part's own.
    many: how many of it have no place yet; all, unless said."""
    on, own = found.worked.get(host), found.worked.get(part)
    if on is None or own is None:
        return None
    counts = [t.live for t in on.trunk if t.live > 0]
    sitting = found.design.posture is Posture.SITTING
    usual = propose_seat(
        own.name or "", counts, sitting=sitting, from_top=begins_at_top(found.design.joins, host, found.worked)
    )
    if (many or own.make) == 1 and usual.paired and usual.stitch:
        usual = replace(usual, paired=False)
    taken: list[tuple[int, float]] = []
    for join in found.design.joins:
        if join.host != host or join.key == besides or join.place is None or join.part not in found.worked:
            continue
        now = join.place.now(found.worked)
        taken += [(now.round, now.stitch), *([(now.round, -now.stitch)] if join.paired else [])]
    return clear_of(usual, counts, taken)


@dataclass(frozen=True, slots=True)
class Loose:
    """A part of which pieces are not placed yet, and where they mostly go. host: key of the part that they go on. many:
    how many of its pieces that are."""

    part: str
    host: str | None
    guess: Proposal | None
    many: int


def loose_parts(found: Assembled) -> tuple[Loose, ...]:
    """Every part that lies beside the figure: all but the one that carries the others, and what is joined or worked in; of
    those that are joined, what their places do not hold."""
    joined = {j.part: j.host for j in reversed(found.design.joins) if j.place is not None and j.host in found.worked}
    over = left_over(found.design.joins, found.worked)
    more = tuple(
        Loose(key, joined[key], _proposal(found, key, joined[key], many=many), many) for key, many in over.items()
    )
    free = [key for key in found.bodies if key not in joined]
    if len(free) < 2 and not (free and found.worked[free[0]].make > 1):
        return more
    root = _root(found, free)
    heads = [key for key, w in found.worked.items() if is_head(w.name or "") and key in found.bodies]
    rows = []
    for key in free:
        if key == root:
            continue
        name = found.worked[key].name or ""
        host = next((h for h in heads if h != key), root) if sits_on_head(name) else root
        rows.append(Loose(key, host, _proposal(found, key, host), found.worked[key].make))
    return (*rows, *more)


def _root(found: Assembled, free: Sequence[str]) -> str:
    """The part that carries the others: the one that most are joined to, else the largest that is no head."""
    carried = {key: sum(j.host == key for j in found.design.joins) for key in free}
    return max(free, key=lambda k: (carried[k], not is_head(found.worked[k].name or ""), len(found.worked[k].graph)))
