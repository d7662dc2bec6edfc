"""Edges that meet, at another size: both come to one count, and an edge that is pressed flat to an even one."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from craft.design.design import Design
from craft.design.grading.easy import shared_count
from craft.design.grading.report import Feature, State
from craft.design.joins import Join, Manner, meeting
from craft.rounds.fabric import WorkedPart


@dataclass(frozen=True, slots=True)
class Ends:
    """What the open ends of parts have to come to, by key: a count, or an even one."""

    last: Mapping[str, int] = field(default_factory=dict)
    even: frozenset[str] = frozenset()


def ends_at(joins: Sequence[Join], worked: Mapping[str, WorkedPart], scale: float) -> Ends:
    """The ends of all parts that are joined edge to edge or pressed flat, at `scale` times their size."""
    last: dict[str, int] = {}
    even: set[str] = set()
    for join in joins:
        met = meeting(join, worked) if join.sewn else None
        if met is None:
            continue
        if met.manner is Manner.PINCHED:
            even.add(join.part)
        elif met.manner is Manner.EDGE and met.host == met.part:
            known = last.get(join.part, last.get(join.host))
            last[join.part] = last[join.host] = known or shared_count(met.part, scale, _start(worked[join.part]))
    return Ends(last, frozenset(even - set(last)))


def _start(worked: WorkedPart) -> int:
    return next((t.live for t in worked.rounds if t.live), 6)


def joins_reported(
    design: Design, before: Mapping[str, WorkedPart], after: Mapping[str, WorkedPart], joins: Sequence[Join]
) -> tuple[Feature, ...]:
    """Every join whose edges meet, at both sizes. joins: with their places kept on the surface."""
    names = {p.key: p.name for p in design.parts}
    rows: list[Feature] = []
    for join, kept in zip(design.joins, joins, strict=True):
        was, now = (meeting(join, before), meeting(kept, after)) if join.sewn else (None, None)
        if was is None or now is None:
            continue
        state = State.KEPT if now.problem is None or was.problem is not None else State.CHANGED
        name = f"{names.get(join.part, 'Part')} on {names.get(join.host, 'part')}"
        a, b = (f"{m.part} on {m.host}" if m.host else f"{m.part}" for m in (was, now))
        rows.append(Feature(name, "join", state, a, b, now.problem if state is State.CHANGED and now.problem else ""))
    return tuple(rows)
