"""Parts in their places: seats from joins, and the figure put together by its estimated bodies."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from craft.design.anchors import Place, round_sizes
from craft.design.design import Design, Posture
from craft.design.joins import EdgeOf, Join, Manner, left_over
from craft.design.running import RunPart, worked_parts
from craft.figure.body import Body, Placed, body_of
from craft.figure.placement import Seat, swings_when_sitting
from craft.figure.placement import place as placed_by
from craft.rounds.fabric import WorkedPart


def seats_of(joins: Sequence[Join], worked: Mapping[str, WorkedPart], posture: Posture) -> tuple[Seat, ...]:
    """Places of parts on parts as the rounds are now."""
    return tuple(_seat(j, j.place, worked, posture) for j in joins if j.place is not None and j.part != j.host)


def begins_at_top(joins: Sequence[Join], key: str, worked: Mapping[str, WorkedPart]) -> bool:
    """Whether a part's first round is its top: its last one is joined on top of another part, as most heads are."""
    on = next((j for j in joins if j.part == key and j.place is not None), None)
    if on is None or on.place is None or on.worked or on.edge is not EdgeOf.END or on.host not in worked:
        return False
    return on.place.now(worked).round >= len(round_sizes(worked[on.host])[0])


def _seat(join: Join, place: Place, worked: Mapping[str, WorkedPart], posture: Posture) -> Seat:
    now = place.now(worked)
    host = len(round_sizes(worked[join.host])[0]) if join.host in worked else 1
    part = worked.get(join.part)
    bends = join.manner in (None, Manner.PINCHED)
    leg = part is not None and swings_when_sitting(part.name or "", "" if bends else "open", now.round / max(host, 1))
    return Seat(
        join.part,
        join.host,
        now.round,
        now.stitch,
        join.paired,
        join.tilt,
        join.turn,
        laid=join.manner is Manner.LAID and join.edge is not EdgeOf.START,
        on_start=join.edge is EdgeOf.START,
        swings=leg and posture is Posture.SITTING,
        key=join.key,
        spread=join.spread,
        bends=join.bends,
    )


def estimated_figure(design: Design, parts: Sequence[RunPart]) -> tuple[Mapping[str, Body], tuple[Placed, ...]]:
    """Bodies of all parts that have rounds, and every piece in its place, by the estimate.

    An estimated body shows no limbs that are worked in, so they are placed like sewn ones.
    """
    worked = worked_parts(parts)
    bodies = {key: body_of(w, design.gauge_of(key), firmness=design.gauge.firmness) for key, w in worked.items()}
    makes = {p.key: p.part.make for p in parts}
    seats = seats_of(design.joins, worked, design.posture)
    return bodies, placed_by(bodies, makes, seats, left_over(design.joins, worked))
