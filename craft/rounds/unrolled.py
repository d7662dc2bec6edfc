"""A round's work stitch by stitch, and said again in the shortest way."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.errors import CraftError
from craft.rounds.arithmetic import MOST_STITCHES, round_sum
from craft.rounds.pattern import Instruction, Repeat, Work


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
            raise CraftError("This round has too many stitches to be written out.")
    return out


def gathered(items: Sequence[Instruction]) -> tuple[Instruction, ...]:
    """Stitches said again in the shortest way: equal ones counted, then the shortest repeat."""
    plain = counted(items)
    best: tuple[Instruction, ...] = tuple(plain)
    many = len(items)
    for unit in range(1, many // 2 + 1):
        if many % unit == 0 and list(items[:unit]) * (many // unit) == list(items):
            times = many // unit
            return (Repeat(tuple(counted(items[:unit])), times),) if unit > 1 else best
    return best


def counted(items: Sequence[Instruction]) -> list[Instruction]:
    """Stitches that go on alike as one run with their number: 'sc in 2nd ch, 7 sc' as 8 sc."""
    out: list[Instruction] = []
    for item in items:
        above = out[-1] if out else None
        if isinstance(item, Work) and isinstance(above, Work) and replace(item, count=above.count) == above:
            out[-1] = replace(above, count=above.count + item.count)
        else:
            out.append(item)
    return out
