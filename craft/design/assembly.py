"""A design put together on its settled surfaces: eyes, marks, steps with what is in their way, the centre line."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Mark, Posture, Step
from craft.design.hazards import hazards_of
from craft.design.joins import Manner, made_alone, meeting, seam_stitches
from craft.design.running import RunPart, worked_parts
from craft.design.saying import disagrees, step_said
from craft.design.seating import estimated_figure, seats_of
from craft.errors import CraftError
from craft.figure.body import Body, Placed
from craft.figure.materials import tail_mm
from craft.figure.placement import (
    EyePlace,
    Job,
    Posable,
    Proposal,
    Surface,
    Warned,
    arranged,
    centre_line,
    clear_of,
    drift,
    extent,
    is_head,
    misplaced,
    necks,
    place,
    place_eyes,
    propose,
    propose_seat,
    room,
    sits_on_head,
)
from craft.figure.settling import shows_filling_above
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import StepKind
from craft.text.eye_directions import find_direction

Point = tuple[float, float, float]

USUAL_EYE_MM = 8.0
"""An eye whose size is not said yet."""


@dataclass(frozen=True)
class Assembled:
    """Everything that putting together goes by. surfaces: of the parts that are settled, by key."""

    design: Design
    parts: tuple[RunPart, ...]
    worked: Mapping[str, WorkedPart]
    surfaces: Mapping[str, Surface]
    bodies: Mapping[str, Body]
    placed: tuple[Placed, ...]

    @property
    def gauge(self) -> Gauge:
        """The gauge to reckon with."""
        return self.design.gauge_now

    @property
    def whole(self) -> bool:
        """Whether every part that is placed is settled."""
        return bool(self.surfaces) and set(self.bodies) <= set(self.surfaces)

    @property
    def posed(self) -> dict[str, Posable]:
        """What pieces are placed by: settled where that is done, else estimated."""
        return {key: self.surfaces.get(key, body) for key, body in self.bodies.items()}

    @property
    def joined(self) -> bool:
        """Whether the pieces make one figure: nothing lies loose beside another."""
        hosts = {j.part: j.host for j in self.design.joins if j.part in self.bodies and j.host in self.bodies}
        roots = {key for key in self.bodies if key not in hosts}
        loose = [p for p in self.parts if p.key in roots and p.part.make > 1]
        return len(roots) == 1 and not loose

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Width, depth and height of all that is placed."""
        return extent(self.posed, self.placed)


def put_together(design: Design, parts: Sequence[RunPart], surfaces: Mapping[str, Surface]) -> Assembled:
    """The figure as far as its parts are settled; by the estimate while none is."""
    worked = worked_parts(parts)
    bodies, placed = estimated_figure(design, parts)
    if surfaces:
        bodies = {key: body for key, body in bodies.items() if key in made_alone(worked)}
        posed: dict[str, Posable] = {key: surfaces.get(key, body) for key, body in bodies.items()}
        seats = seats_of(design.joins, worked, design.posture)
        placed = place(posed, {p.key: p.part.make for p in parts}, seats)
    return Assembled(design, tuple(parts), worked, surfaces, bodies, placed)


def _point(at: NDArray[np.float64]) -> Point:
    return round(float(at[0]), 2), round(float(at[1]), 2), round(float(at[2]), 2)


# --- eyes and face ------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class EyesPlaced:
    """Eyes in place: points on the part in mm, which way they look, and the place in words.

    moved: the rounds changed, and these are not the rounds it was set at. off_centre: stitches by which their middle
    misses the front. in_text: the part's rounds have a direction for them.
    """

    part: str
    round: int
    between: int
    eye_mm: float
    points: tuple[Point, ...]
    out: tuple[Point, ...]
    after: tuple[int, int]
    off_centre: float
    words: str
    in_text: bool
    moved: bool
    warnings: tuple[Warned, ...]


def eyes_placed(found: Assembled) -> EyesPlaced | None:
    """Where the eyes are on the settled part, None while they are nowhere or it is not settled."""
    eyes = found.design.eyes
    if eyes.place is None or eyes.place.on not in found.surfaces:
        return None
    key = eyes.place.on
    surface, worked = found.surfaces[key], found.worked[key]
    now = eyes.place.now(found.worked)
    step = next((s for s in worked.steps if s.kind is StepKind.EYES), None)
    opening = None if step is None else step.live * found.gauge.stitch_mm / np.pi
    size = eyes.mm or USUAL_EYE_MM
    told = any(find_direction(p.part.text) is not None for p in found.parts if p.key == key)
    try:
        at = place_eyes(
            surface,
            EyePlace(now.round, eyes.between, size),
            opening_mm=opening,
            stitch_mm=found.gauge.stitch_mm,
            embroidered=eyes.kind is EyeKind.EMBROIDERED,
            shows_above=shows_filling_above(found.design.gauge.hook_to_yarn(found.design.yarn)),
        )
    except CraftError as error:
        no_room = (Warned("no-room", error.message),)
        return EyesPlaced(
            part=key,
            round=now.round,
            between=eyes.between,
            eye_mm=size,
            points=(),
            out=(),
            after=(0, 0),
            off_centre=0.0,
            words="",
            in_text=told,
            moved=now.moved,
            warnings=no_room,
        )
    return EyesPlaced(
        part=key,
        round=now.round,
        between=eyes.between,
        eye_mm=size,
        points=tuple(_point(p) for p in at.points),
        out=tuple(_point(p) for p in at.out),
        after=at.after,
        off_centre=round(at.off_centre, 2),
        words=at.words,
        in_text=told,
        moved=now.moved,
        warnings=at.warnings,
    )


def proposed_eyes(found: Assembled) -> tuple[str, EyePlace] | None:
    """Where eyes mostly go: the key of the part that is most likely a head, and the place on it."""
    alone = [p for p in found.parts if p.key in found.surfaces and p.part.make == 1]
    if not alone:
        return None
    named = [p for p in alone if any(word in p.name.lower() for word in ("head", "face"))]
    part = named[0] if named else max(alone, key=lambda p: found.surfaces[p.key].half_width)
    return part.key, propose(found.surfaces[part.key])


@dataclass(frozen=True, slots=True)
class MarkPlaced:
    """A mark on its settled part: points, and the other ends when it is a line."""

    mark: Mark
    points: tuple[Point, ...]
    ends: tuple[Point, ...]


def marks_placed(found: Assembled) -> tuple[MarkPlaced, ...]:
    """Every mark whose part is settled, where the rounds say it now."""
    marks: list[MarkPlaced] = []
    for mark in found.design.marks:
        surface = found.surfaces.get(mark.place.on)
        if surface is None:
            continue
        sides = (1, -1) if mark.paired else (1,)
        points = tuple(_on(surface, mark.place, found.worked, side) for side in sides)
        ends = () if mark.to is None else tuple(_on(surface, mark.to, found.worked, side) for side in sides)
        marks.append(MarkPlaced(mark, points, ends))
    return tuple(marks)


def _on(surface: Surface, at: Place, worked: Mapping[str, WorkedPart], side: int) -> Point:
    now = at.now(worked)
    row = min(now.round, surface.rounds) - 1
    return _point(surface.spot(row, 2 * np.pi * now.stitch * side / max(surface.count_of(row), 1))[0])


@dataclass(frozen=True, slots=True)
class Centre:
    """The centre line of a part and the starts of its rounds; what brings the start back at the end of each round.

    place: where in each round the front middle lies, in stitches after the top of its first.
    """

    place: tuple[float, ...]
    front: tuple[Point, ...]
    starts: tuple[Point, ...]
    degrees: tuple[float, ...]
    shift: tuple[int, ...]


def centre_of(surface: Surface, lean: float) -> Centre:
    """The centre line of a settled part."""
    line = centre_line(surface)
    moved = drift([len(r) for r in surface.rings], lean)
    return Centre(
        tuple(round(surface.front_place(at), 3) for at in range(surface.rounds)),
        line.front,
        line.starts,
        tuple(round(d.degrees, 1) for d in moved),
        tuple(d.stitches for d in moved),
    )


# --- steps --------------------------------------------------------------------------------


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
        join = design.join(step.join)
        at = join.place if join else step.place
        now = at.now(found.worked) if at else None
        first, last = room(jobs, i)
        seam = seam_stitches(join, found.worked) if join else None
        seam_mm = None if seam is None else seam * found.gauge.stitch_mm
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


def _notes(found: Assembled, step: Step, narrow: Mapping[str, str]) -> tuple[str, ...]:
    """What to know about a step's neck, and the edges that it joins."""
    join = found.design.join(step.join)
    if join is None:
        return ()
    notes = [narrow[join.part]] if join.part in narrow else []
    met = meeting(join, found.worked) if join.sewn else None
    if met is None:
        return tuple(notes)
    if problem := met.problem:
        notes.append(problem)
    elif met.manner is Manner.EDGE:
        notes.append(f"Both openings have {met.part} stitches: join them stitch to stitch.")
    return tuple(notes)


def _seat_proposed(found: Assembled, step: Step) -> Proposal | None:
    join = found.design.join(step.join)
    if join is None or step.part not in found.worked or join.manner is Manner.WORKED_IN:
        return None
    return _proposal(found, step.part or "", join.host, besides=join.key)


def _proposal(found: Assembled, part: str, host: str, besides: str = "") -> Proposal | None:
    """Where a part mostly sits on a host, clear of what sits there already. besides: key of a join that is the part's own."""
    on, own = found.worked.get(host), found.worked.get(part)
    if on is None or own is None:
        return None
    counts = [t.live for t in on.trunk if t.live > 0]
    usual = propose_seat(own.name or "", counts, sitting=found.design.posture is Posture.SITTING)
    if own.make == 1 and usual.paired and usual.stitch:
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
    """A part that is not placed yet, and where it mostly goes. host: key of the part that it goes on."""

    part: str
    host: str | None
    guess: Proposal | None


def loose_parts(found: Assembled) -> tuple[Loose, ...]:
    """Every part that lies beside the figure: all but the one that carries the others, and what is joined or worked in."""
    joined = {j.part for j in found.design.joins if j.place is not None and j.host in found.worked}
    free = [key for key in found.bodies if key not in joined]
    if len(free) < 2 and not (free and found.worked[free[0]].make > 1):
        return ()
    root = _root(found, free)
    heads = [key for key, w in found.worked.items() if is_head(w.name or "") and key in found.bodies]
    rows = []
    for key in free:
        if key == root:
            continue
        name = found.worked[key].name or ""
        host = next((h for h in heads if h != key), root) if sits_on_head(name) else root
        rows.append(Loose(key, host, _proposal(found, key, host)))
    return tuple(rows)


def _root(found: Assembled, free: Sequence[str]) -> str:
    """The part that carries the others: the one that most are joined to, else the largest that is no head."""
    carried = {key: sum(j.host == key for j in found.design.joins) for key in free}
    return max(free, key=lambda k: (carried[k], not is_head(found.worked[k].name or ""), len(found.worked[k].graph)))
