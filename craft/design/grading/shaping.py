"""Shaping where it lay: where rounds of the first size grow and shrink, and fresh rounds that do so at the same places."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from craft.design.grading.painting import takes_and_gives
from craft.design.grading.source import SourceRound
from craft.errors import CraftError
from craft.remembered import of_short
from craft.rounds.pattern import Colour, Instruction, Repeat, Work
from craft.rounds.unrolled import written_out
from craft.shape.drafting import STAGGER_FROM, Shaping, said, shaped_round

EVEN_GAPS = 1.01
"""By how much gaps between shaped stitches of an evenly spread round may differ, in stitches."""


@dataclass(frozen=True, slots=True)
class Shaped:
    """Where a round is shaped: (grows, share of the way around or across); even: it is spread evenly all around."""

    places: tuple[tuple[bool, float], ...]
    even: bool


NEAR_EDGE = 2
"""Stitches from a row's edge within which shaping belongs to that edge."""


@lru_cache(maxsize=4_096)
def shaped_in(made: SourceRound) -> Shaped:
    """Where a round is shaped; of a row, places near an edge belong to that edge."""
    if made.begins or _is_even(made):
        return Shaped((), even=True)
    flat = made.tally is not None and made.tally.flat
    found: list[tuple[bool, float]] = []
    done, before = 0, made.before
    for item in _outward(made):
        takes, gives = takes_and_gives(item)
        if takes != gives:
            edge = 0.0 if done < NEAR_EDGE else 1.0 if done + takes > before - NEAR_EDGE else None
            place = edge if flat and edge is not None else _share(done, takes, before)
            found += [(gives > takes, place)] * abs(gives - takes)
        done += takes
    return Shaped(tuple(found), even=not found and not flat)


def _share(done: int, takes: int, before: int) -> float:
    """Where a shaped stitch stands among the plain ones of its round: 0 for the first thing in it, 1 for the last."""
    return done / (before - takes) if before > takes else 0.5


def _outward(made: SourceRound) -> Sequence[Instruction]:
    """A round's stitches as they lie on the right side: a row that was worked back stands the other way round."""
    stitches = [i for i in made.stitches() if not isinstance(i, Colour)]
    back = made.tally is not None and made.tally.flat and not made.tally.front
    return stitches[::-1] if back else stitches


def _is_even(made: SourceRound) -> bool:
    """Whether a round's shaping is spread evenly around."""
    if made.tally is None or made.tally.flat:
        return False
    places = [m[0] for m in made.tally.marks]
    if len(places) < 2:
        return False
    gaps = np.diff([*places, places[0] + made.tally.made])
    return bool(gaps.max() - gaps.min() <= EVEN_GAPS)


def bodies(
    counts: Sequence[int], at: Sequence[float], rounds: Sequence[SourceRound], shaping: Shaping
) -> list[tuple[Instruction, ...]]:
    """The work of every round after the first: spread evenly where hers were, else shaped where hers were.

    at: where each lies among those of the first size, the first one's too.
    """
    shaped = [shaped_in(r) for r in rounds]
    like = {grows: [k for k, s in enumerate(shaped) if any(g is grows for g, _ in s.places)] for grows in (True, False)}
    flat = is_flat(rounds)
    bodies: list[tuple[Instruction, ...]] = []
    shifted = False
    for (before, after), (t0, t1) in zip(itertools.pairwise(counts), itertools.pairwise(at), strict=True):
        places = _places(shaped, like[after > before], t0, t1, grows=after > before)
        if flat or (places and before != after):
            bodies.append(_shaped_at(before, after, places, shaping))
            continue
        shifted = shifted != (before != after and max(before, after) > STAGGER_FROM)
        bodies.append(shaped_round(before, after, shaping, shifted=shifted and before != after))
    return bodies


def _places(shaped: Sequence[Shaped], like: Sequence[int], t0: float, t1: float, *, grows: bool) -> list[float]:
    """Where the rounds that a fresh one stands for, else the nearest, grow or shrink; none when that is evenly.

    like: the rounds that are shaped in the same way.
    """
    first, last = int(np.floor(t0 + 1e-6)), int(np.ceil(t1 - 1e-6))
    over = [k for k in range(first, max(last, first + 1)) if k < len(shaped)]
    here = [k for k in over if any(g is grows for g, _ in shaped[k].places)]
    if not here and not any(shaped[k].even and shaped[k].places == () for k in over if not shaped[k].even):
        here = sorted(like, key=lambda k: abs(k + 0.5 - (t0 + t1) / 2))[:1]
    return sorted(p for k in here for g, p in shaped[k].places if g is grows)


def _shaped_at(before: int, after: int, places: Sequence[float], shaping: Shaping) -> tuple[Instruction, ...]:
    """A round from `before` to `after` stitches that is shaped at `places`, the same ones again where it needs more."""
    many, takes = abs(after - before), 1 if after > before else 2
    if many * takes > before:
        raise CraftError(f"A round cannot go from {before} to {after} stitches.", field="scale")
    if not many:
        return (Repeat((Work("sc"),), None),)
    plain = before - many * takes
    from_places = places or [0.5]
    ops: list[int] = []
    done = 0
    for k in range(many):
        place = from_places[min(int((k + 0.5) * len(from_places) / many), len(from_places) - 1)]
        upto = max(done, round(place * plain))
        ops += [0] * (upto - done) + [1 if after > before else 2]
        done = upto
    return said([*ops, *[0] * (plain - done)], shaping)


@of_short(256)
def manner_of(rounds: tuple[SourceRound, ...]) -> Shaping:
    """Her manner of shaping: decreases plain or invisible, stacked, the increase first."""
    keys = Counter(i.stitch for r in rounds for i in r.stitches() if isinstance(i, Work))
    decrease = "invdec" if keys["invdec"] > keys["dec"] else "dec"
    best, most = Shaping(decrease=decrease), -1
    steps = [r for r in rounds if r.live != r.before and _is_even(r)]
    for stacked, first in ((False, False), (True, False), (True, True), (False, True)):
        manner = Shaping(stacked=stacked, first=first, decrease=decrease)
        alike = sum(_is_said(r, manner) for r in steps)
        if alike > most:
            best, most = manner, alike
    return best


def _is_said(made: SourceRound, manner: Shaping) -> bool:
    try:
        as_said = shaped_round(made.before, made.live, manner, shifted=not manner.stacked)
    except CraftError:
        return False
    return written_out(as_said, made.before) == [replace(i, span=i.span) for i in made.stitches()]


def is_flat(rounds: Sequence[SourceRound]) -> bool:
    """Whether rounds are rows: the edge has two ends."""
    return any(r.tally is not None and r.tally.flat for r in rounds)
