"""One round's stitches moved along, or reversed for the other of a pair."""

from __future__ import annotations

from craft.errors import CraftError, require
from craft.rounds.arithmetic import is_single, settled
from craft.rounds.pattern import Chain, Cluster, Colour, Instruction, Join, Work
from craft.rounds.stitches import stitch
from craft.rounds.unrolled import gathered, written_out


def _single(body: tuple[Instruction, ...]) -> None:
    if not is_single(settled(body)):
        raise CraftError("Only a round that goes once around in plain stitches can be moved or reversed.")


def _core(body: tuple[Instruction, ...]) -> tuple[list[Instruction], list[Instruction], list[Instruction]]:
    """What leads the round in, its stitches, and what closes it."""
    items = list(body)
    lead: list[Instruction] = []
    while items and isinstance(items[0], Chain | Colour):
        lead.append(items.pop(0))
    tail: list[Instruction] = []
    while items and isinstance(items[-1], Join):
        tail.insert(0, items.pop())
    return lead, items, tail


def rotated_body(body: tuple[Instruction, ...], live: int, by: int) -> tuple[Instruction, ...]:
    """The round with its shaping moved along by `by` stitches of the round below, on `live` stitches.

    CraftError when the move would cut an increase or a decrease apart, or the round is no plain one.
    """
    _single(body)
    lead, core, tail = _core(body)
    require(
        not any(isinstance(i, Colour) for i in written_out(core, live)), "A round with colour changes stays as it is."
    )
    stitches = written_out(core, live)
    if not stitches or not live:
        return body
    wanted = (-by) % live
    at, taken = 0, 0
    while at < len(stitches) and taken < wanted:
        taken += _takes(stitches[at])
        at += 1
    if taken != wanted:
        # The start would fall inside a decrease: begin behind it.
        at = min(at, len(stitches))
    return (*lead, *gathered(stitches[at:] + stitches[:at]), *tail)


def _takes(item: Instruction) -> int:
    return stitch(item.stitch).takes if isinstance(item, Work) else 1 if isinstance(item, Cluster) else 0


def mirrored_body(body: tuple[Instruction, ...], live: int) -> tuple[Instruction, ...]:
    """The round worked in the opposite order, for the other limb of a pair made by the same hand."""
    _single(body)
    lead, core, tail = _core(body)
    stitches = written_out(core, live)
    require(not any(isinstance(i, Colour) for i in stitches), "A round with colour changes cannot be reversed.")
    return (*lead, *gathered(stitches[::-1]), *tail)
