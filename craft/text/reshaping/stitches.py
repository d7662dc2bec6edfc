"""One round's stitches moved along, or reversed for the other of a pair."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.errors import CraftError, require
from craft.rounds.arithmetic import MOST_STITCHES, is_single, round_sum, settled
from craft.rounds.pattern import Chain, Cluster, Colour, Instruction, Join, Repeat, Work
from craft.rounds.stitches import stitch


def _single(body: tuple[Instruction, ...]) -> None:
    if not is_single(settled(body)):
        raise CraftError("Only a round that goes once around in plain stitches can be moved or reversed.")


def written_out(body: Sequence[Instruction], live: int) -> list[Instruction]:
    """Every stitch of a round on its own, repeats written out."""
    out: list[Instruction] = []
    fill = round_sum(tuple(body), live).fill or 0
    for item in body:
        if isinstance(item, Repeat):
            once = written_out(item.body, live)
            out += once * (fill if item.times is None else item.times)
        elif isinstance(item, Work):
            out += [replace(item, count=1)] * item.count
        else:
            out.append(item)
        if len(out) > MOST_STITCHES:
            raise CraftError("This round has too many stitches to be moved.")
    return out


def gathered(items: Sequence[Instruction]) -> tuple[Instruction, ...]:
    """Stitches said again in the shortest way: equal ones counted, then the shortest repeat."""
    plain = _counted(items)
    best: tuple[Instruction, ...] = tuple(plain)
    many = len(items)
    for unit in range(1, many // 2 + 1):
        if many % unit == 0 and list(items[:unit]) * (many // unit) == list(items):
            times = many // unit
            return (Repeat(tuple(_counted(items[:unit])), times),) if unit > 1 else best
    return best


def _counted(items: Sequence[Instruction]) -> list[Instruction]:
    out: list[Instruction] = []
    for item in items:
        above = out[-1] if out else None
        if isinstance(item, Work) and isinstance(above, Work) and replace(item, count=above.count) == above:
            out[-1] = replace(above, count=above.count + item.count)
        else:
            out.append(item)
    return out


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
