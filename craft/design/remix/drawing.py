"""Figures drawn by lot: a piece for every slot, chosen by numbers that can be shared, put together where it belongs."""

from __future__ import annotations

import math
import random
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from craft.design.anchors import Place
from craft.design.design import Design
from craft.design.parts import GaugeFrom, GaugeInForce
from craft.design.remix.pieces import ShelfPiece, Slot, Use, put_in
from craft.design.running import run_parts
from craft.design.seating import begins_at_top
from craft.errors import require
from craft.figure.placement import propose_seat
from craft.rounds.fabric import WorkedPart

SLOTS = (Slot.BODY, Slot.HEAD, Slot.LIMB, Slot.ON_TOP, Slot.HELD)
"""What is drawn, in the order in which it is put together."""

MOST_SEED = 9_999

THIRD = 1 / 3
"""The largest share of its body's widest round that a limb may have."""

NEAR = 0.1
"""By how large a share a hat may be wider or narrower than what it sits on."""


@dataclass(frozen=True, slots=True)
class Lot:
    """What was drawn for a slot. at: place of the piece in the list that it was drawn from, None for nothing.

    among: how many there were to draw from. misfit: what would have to be designed to make it fit, '' where it does.
    """

    slot: Slot
    at: int | None
    among: int
    misfit: str = ""


@dataclass(frozen=True)
class Drawn:
    """A drawn figure. lots: of every slot. told: what came of putting it together."""

    design: Design
    lots: tuple[Lot, ...]
    told: tuple[str, ...] = field(default=())


def drawn(
    name: str,
    pieces: Sequence[ShelfPiece],
    seeds: Mapping[Slot, int],
    held: Mapping[Slot, int] | None = None,
    *,
    misfits: bool = False,
) -> Drawn:
    """A figure of pieces. seeds: a number for each slot that is drawn; the same numbers draw the same from the same
    pieces, and a slot without one stays empty. held: places in the list of pieces that stay whatever is drawn beside them.
    misfits: also what does not fit, told with what would have to be designed.

    CraftError for a number that is none.
    """
    held = held or {}
    for slot, at in held.items():
        fits = 0 <= at < len(pieces) and pieces[at].slot is slot and _sound(pieces[at])
        require(fits, "What is held is not there any more.", field="held")
    for number in seeds.values():
        require(0 <= number <= MOST_SEED, f"A number to draw by is from 0 to {MOST_SEED:,}.", field="seeds")
    lots: list[Lot] = []
    chosen: dict[Slot, ShelfPiece] = {}
    for slot in SLOTS:
        if slot in held:
            piece = pieces[held[slot]]
            lots.append(Lot(slot, held[slot], 1, _misfit(slot, piece, chosen)))
            chosen[slot] = piece
            continue
        if slot not in seeds:
            continue
        found = [(k, p, _misfit(slot, p, chosen)) for k, p in enumerate(pieces) if p.slot is slot and _sound(p)]
        if not misfits:
            found = [f for f in found if not f[2]]
        if not found:
            lots.append(Lot(slot, None, 0))
            continue
        # The seed is made of words so that a slot's draw hangs on no other slot's number.
        at, piece, misfit = random.Random(f"{slot.value} {seeds[slot]}").choice(found)  # noqa: S311
        lots.append(Lot(slot, at, len(found), misfit))
        chosen[slot] = piece
    return _put_together(name, lots, chosen)


def _sound(piece: ShelfPiece) -> bool:
    runs = run_parts(piece.design)
    return all(p.worked is not None and not p.faults for p in runs)


def _main(piece: ShelfPiece) -> WorkedPart:
    worked = next(p.worked for p in run_parts(piece.design) if p.key == piece.main)
    assert worked is not None
    return worked


def _end(worked: WorkedPart) -> int:
    """Stitches of an open end, 0 for a closed one."""
    return 0 if worked.closed else worked.rounds[-1].live


def _misfit(slot: Slot, piece: ShelfPiece, chosen: Mapping[Slot, ShelfPiece]) -> str:
    """What would have to be designed for a piece to fit those that are there; '' when nothing."""
    own = _main(piece)
    body, head = chosen.get(Slot.BODY), chosen.get(Slot.HEAD)
    if slot is Slot.HEAD and body is not None:
        a, b = _end(_main(body)), _end(own)
        return f"its neck has {b} stitches, the body {a}: adapter rounds between them" if a and b and a != b else ""
    if slot is Slot.LIMB and body is not None:
        most = max(_main(body).counts) * THIRD * math.pi / 2
        wide = max(own.counts)
        return f"{wide} stitches around are too many for this body: the limb graded smaller" if wide > most else ""
    if slot is Slot.ON_TOP and head is not None:
        under, over = max(_main(head).counts), _end(own) or max(own.counts)
        if abs(over - under) > NEAR * under:
            return f"it is {over} stitches wide, the head {under}: the piece graded to the head"
    return ""


def _put_together(name: str, lots: Sequence[Lot], chosen: Mapping[Slot, ShelfPiece]) -> Drawn:
    """The pieces in one figure, each in its own colours: heads on bodies, limbs at their sides, hats on heads, what is
    held in a hand, or before the body where there is none."""
    design = Design(name, gauge=GaugeInForce(GaugeFrom.ESTIMATE, 3.0))
    keys: dict[Slot, str] = {}
    told: list[str] = []
    for slot, piece in chosen.items():
        known = {y.name for y in design.yarns}
        more = tuple(y for y in piece.design.yarns if y.name not in known)
        design = replace(design, yarns=(*design.yarns, *more))
        on = _host(slot, chosen)
        place = None if on is None or on not in keys else _place(design, keys[on], slot, piece, of=on)
        colours = {y.name: y.name for y in piece.design.yarns}
        made = put_in(design, piece, Use(colours, on=place))
        design, told = made.design, [*told, *made.told]
        part = piece.design.part(piece.main)
        at = 0 if part is None else piece.design.parts.index(part)
        keys[slot] = made.keys[at]
    return Drawn(design, tuple(lots), tuple(told))


_HAND = re.compile(r"(?i)\b(?:arm|hand|paw|wing|sleeve)s?\b")
"""Names and tags of limbs that can hold something; a leg or a tail cannot."""


def _host(slot: Slot, chosen: Mapping[Slot, ShelfPiece]) -> Slot | None:
    """On which of the others a piece of a slot sits."""
    if slot is Slot.HELD:
        limb = chosen.get(Slot.LIMB)
        grips = limb is not None and _HAND.search(f"{limb.title} {' '.join(limb.tags)}") is not None
        return Slot.LIMB if grips else Slot.BODY
    return {Slot.HEAD: Slot.BODY, Slot.LIMB: Slot.BODY, Slot.ON_TOP: Slot.HEAD}.get(slot)


def _place(design: Design, host: str, slot: Slot, piece: ShelfPiece, *, of: Slot) -> Place:
    """Where a piece of a slot belongs on its host, which is of the slot `of`."""
    worked = {p.key: w for p in run_parts(design) if (w := p.worked) is not None}
    counts = worked[host].counts
    if slot is Slot.HEAD:
        at, stitch = len(counts), 0.0
    elif slot is Slot.LIMB:
        part = piece.design.part(piece.main)
        found = propose_seat(part.name if part else "", counts, from_top=begins_at_top(design.joins, host, worked))
        at, stitch = found.round, found.stitch
    elif slot is Slot.HELD and of is Slot.BODY:
        at, stitch = max(1, len(counts) // 2), 0.0
    else:
        at, stitch = 1, 0.0
    return Place(host, at, stitch).anchored(None, worked)
