"""What the stitches of a round look like around it: which stitch, which loops, which colour; and motifs among them."""

from __future__ import annotations

import itertools
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from craft.design.grading.source import SourceRound
from craft.remembered import by_bytes
from craft.rounds.pattern import Cluster, Colour, Instruction, Start, Work
from craft.rounds.stitches import STITCHES, Loops, Sign, stitch

Vector = NDArray[np.float64]

TIE = 1e-6
"""A share between two stitches is the later one's."""

_MOTIFS = (Sign.BOBBLE, Sign.PUFF, Sign.POPCORN, Sign.PICOT, Sign.SPIKE)


def is_motif(item: Instruction) -> bool:
    """Whether a stitch stands for itself, as a nose or a button does, and is no fabric."""
    return isinstance(item, Work) and stitch(item.stitch).sign in _MOTIFS


def base_of(key: str) -> str:
    """The stitch that an increase or decrease is made of."""
    return stitch(key).base or key


def takes_and_gives(item: Instruction) -> tuple[int, int]:
    """Stitches used up and put back by one stitch; none for what is no stitch."""
    if isinstance(item, Work):
        entry = stitch(item.stitch)
        return entry.takes, entry.gives
    if isinstance(item, Cluster):
        return 1, sum(stitch(w.stitch).gives * w.count for w in item.body)
    return 0, 0


@dataclass(frozen=True, slots=True)
class Motif:
    """A stitch that stands for itself. at: its round among those of the segment, from 0. share: of the way around."""

    what: Work
    at: int
    share: float


@dataclass(frozen=True, slots=True)
class Paint:
    """A round's look around it. fabric: the stitch that most of it is made of. ends: (n,) share of the way around at which
    each stitch ends; then what each is."""

    fabric: str
    ends: Vector
    bases: tuple[str, ...]
    loops: tuple[Loops | None, ...]
    colours: tuple[str, ...]

    @property
    def plain(self) -> bool:
        """Whether it is the same all around."""
        return len(set(self.bases)) == len(set(self.loops)) == len(set(self.colours)) == 1

    def at(self, share: float) -> tuple[str, Loops | None, str]:
        """What lies at a share of the way around."""
        k = min(int(np.searchsorted(self.ends, share, side="right")), len(self.bases) - 1)
        return self.bases[k], self.loops[k], self.colours[k]


@lru_cache(maxsize=1_024)
def main_base(made: SourceRound) -> str:
    """The stitch that most of a round is made of."""
    keys = [
        base_of(i.stitch) for i in made.stitches() if isinstance(i, Start) or (isinstance(i, Work) and not is_motif(i))
    ]
    return Counter(keys).most_common(1)[0][0] if keys else "sc"


@by_bytes(8 * 2**20, lambda painted: 400 + 64 * len(painted[0].bases))
def paint_of(made: SourceRound, at: int) -> tuple[Paint, tuple[Motif, ...]]:
    """How a round looks, and its motifs."""
    fabric = main_base(made)
    colour, done = made.colour, 0
    ends: list[int] = []
    bases: list[str] = []
    loops: list[Loops | None] = []
    colours: list[str] = []
    motifs: list[tuple[Work, float]] = []
    for item in made.stitches():
        if isinstance(item, Colour):
            colour = item.name
            continue
        gives = item.count if isinstance(item, Start) else takes_and_gives(item)[1]
        if isinstance(item, Work) and is_motif(item):
            motifs.append((item, done + gives / 2))
        done += gives
        ends.append(done)
        woven = isinstance(item, Work) and not is_motif(item)
        bases.append(base_of(item.stitch) if isinstance(item, Work) and woven else fabric)
        loops.append(item.loops if isinstance(item, Work) and woven else None)
        colours.append(colour)
    many = max(done, 1)
    paint = Paint(fabric, np.array(ends) / many, tuple(bases), tuple(loops), tuple(colours))
    return paint, tuple(Motif(what, at, place / many) for what, place in motifs)


def shaped(base: str, change: int, decrease: str) -> str:
    """The stitch made of `base` that grows by `change`; decreases of single crochet as `decrease` says."""
    if not change:
        return base
    if change < 0 and base == "sc":
        return decrease
    wanted = (1, 2) if change > 0 else (2, 1)
    found = (k for k, e in STITCHES.items() if (e.base or "") == base and (e.takes, e.gives) == wanted)
    return next(found, "inc" if change > 0 else decrease)


def painted(ops: Sequence[int], paint: Paint, colour: str, decrease: str) -> tuple[list[Instruction], str]:
    """Stitches that grow by `ops` (0, 1 or -1 each) in the look of `paint`, and the colour on the hook behind them."""
    gives = np.cumsum([0, *(2 if op > 0 else 1 for op in ops)])
    out: list[Instruction] = []
    for op, (start, end) in zip(ops, itertools.pairwise(gives), strict=True):
        base, loops, wanted = paint.at((start + end) / 2 / gives[-1])
        if wanted != colour:
            out.append(Colour(wanted))
            colour = wanted
        out.append(Work(shaped(base, op, decrease), 1, loops))
    return out, colour


def with_motifs(stitches: Sequence[Instruction], motifs: Sequence[Motif]) -> tuple[list[Instruction], list[Motif]]:
    """The stitches with motifs in the place of plain ones, each as near to its share as there is room; and those that
    found none."""
    out = list(stitches)
    plain = [k for k, i in enumerate(out) if isinstance(i, Work) and takes_and_gives(i) == (1, 1)]
    shares = _shares(out)
    homeless: list[Motif] = []
    for motif in motifs:
        if not plain or takes_and_gives(motif.what) != (1, 1):
            homeless.append(motif)
            continue
        k = min(plain, key=lambda at: abs(shares[at] - motif.share - TIE))
        plain.remove(k)
        out[k] = replace(motif.what, count=1)
    return out, homeless


def _shares(items: Sequence[Instruction]) -> list[float]:
    gives = np.cumsum([0, *(takes_and_gives(i)[1] for i in items)])
    middle = (gives[:-1] + gives[1:]) / 2 / max(gives[-1], 1)
    return [float(m) for m in middle]
