"""Spread: where in a round its increases and decreases go, said as the shortest repeat."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from craft.errors import require
from craft.rounds.pattern import Instruction, Repeat, Work

STAGGER_FROM = 18
"""Stitches from which increases are staggered by default."""


@dataclass(frozen=True, slots=True)
class Shaping:
    """How shaping is laid out. stacked: one above the other. first: the increase before the plain
    stitches. decrease: 'dec' or 'invdec'."""

    stacked: bool = False
    first: bool = False
    decrease: str = "dec"

    def __post_init__(self) -> None:
        require(self.decrease in ("dec", "invdec"), "A decrease is dec or inv dec.", field="decrease")


def _plain(n: int) -> list[Instruction]:
    return [Work("sc", n)] if n else []


def _gaps(plain: int, shaped: int) -> list[int]:
    """`plain` stitches shared among `shaped` places, as evenly as whole stitches go (Bresenham)."""
    return [(i + 1) * plain // shaped - i * plain // shaped for i in range(shaped)]


def _sequence(gaps: Sequence[int], key: str, *, lead: int, first: bool) -> list[Instruction]:
    """Gaps each followed by a shaped stitch; `lead` stitches of the first gap's share come at the end."""
    out: list[Instruction] = []
    for i, gap in enumerate(gaps):
        plain = gap - lead if i == 0 else gap
        out += [Work(key), *_plain(plain)] if first and not lead else [*_plain(plain), Work(key)]
    return _merged([*out, *_plain(lead)])


def _merged(items: list[Instruction]) -> list[Instruction]:
    out: list[Instruction] = []
    for item in items:
        above = out[-1] if out else None
        if isinstance(item, Work) and isinstance(above, Work) and above.stitch == item.stitch:
            out[-1] = Work(item.stitch, above.count + item.count)
        else:
            out.append(item)
    return out


def shaped_round(before: int, after: int, shaping: Shaping, *, shifted: bool = False) -> tuple[Instruction, ...]:
    """The work of a round from `before` to `after` stitches, evenly spread.

    shifted: moved by half a gap, so that shaping falls between that of the round below.
    CraftError beyond double or half: such a round has no even spread of inc and dec.
    """
    require(
        before > 0 and math.ceil(before / 2) <= after <= 2 * before,
        f"A round cannot go evenly from {before} to {after} stitches.",
    )
    if before == after:
        return (Repeat((Work("sc"),), None),)
    growing = after > before
    places = abs(after - before)
    key = "inc" if growing else shaping.decrease
    plain = before - places * (1 if growing else 2)
    groups = math.gcd(places, plain) if plain else places
    in_group = places // groups
    if plain == 0:
        return (Work(key, places),)
    gaps = _gaps(plain // groups, in_group)
    lead = (gaps[0] + 1) // 2 if shifted and not shaping.stacked else 0
    body = _sequence(gaps, key, lead=lead, first=shaping.first)
    if groups == 1:
        return tuple(body)
    return (Repeat(tuple(body), groups),)


def shaped_rounds(counts: Sequence[int], shaping: Shaping) -> list[tuple[Instruction, ...]]:
    """The work of every round after the first; every second shaped round is shifted from 18 stitches on."""
    rounds: list[tuple[Instruction, ...]] = []
    shifted = False
    for before, after in itertools.pairwise(counts):
        if before == after:
            rounds.append(shaped_round(before, after, shaping))
            continue
        shifted = not shifted and max(before, after) > STAGGER_FROM
        rounds.append(shaped_round(before, after, shaping, shifted=shifted))
    return rounds
