"""Another size in the same yarn: counts anew, so that the shape stays.

A part whose rounds are still the drafted ones is drafted again from its solid; any other is
resampled from its own counts. What could not be kept is said.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError, require
from craft.fitting.panels import PanelRecipe
from craft.gauge import Gauge
from craft.rounds.arithmetic import MOST_ROUNDS
from craft.rounds.fabric import WorkedPart, run_part
from craft.rounds.pattern import (
    Colour,
    Instruction,
    Item,
    Note,
    Part,
    Repeat,
    Round,
    Start,
    Step,
    Work,
    folded,
    unfolded,
)
from craft.rounds.stitches import Loops
from craft.shape.drafting import Recipe, Shaping, best_counts, draft, shaped_rounds

Vector = NDArray[np.float64]

KEEP_SHAPE = 0.6
"""Simplicity of resampled counts: her shape counts for more than easy rounds."""

LEAST_AROUND = 5
"""The fewest stitches a tube can be worked on with any comfort."""


@dataclass(frozen=True, slots=True)
class Regraded:
    """A part at another size. how: 'drafted' or 'resampled'. notes: what was not kept, in words."""

    part: Part
    worked: WorkedPart
    how: str
    notes: tuple[str, ...]


def regrade(part: Part, scale: float, gauge: Gauge, recipe: Recipe | PanelRecipe | None = None) -> Regraded:
    """`part` at `scale` times its size in the same yarn.

    recipe: how the part was drafted, while its rounds are still the drafted ones; None resamples.
    CraftError when the part would get too small or too large to work.
    """
    require(
        math.isfinite(scale) and 0.2 <= scale <= 5, "A size is from a fifth to five times the first.", field="scale"
    )
    if recipe is not None:
        made = _drafted(recipe.scaled(scale), part, gauge)
        return Regraded(made, run_part(made)[0], "drafted", _lost_words(part, made))
    return _resampled(part, scale)


def _drafted(recipe: Recipe | PanelRecipe, part: Part, gauge: Gauge) -> Part:
    if isinstance(recipe, PanelRecipe):
        return recipe.part(gauge, part.name, part.make)
    return draft(recipe, gauge, part.name, part.make).part


def _lost_words(before: Part, after: Part) -> tuple[str, ...]:
    kept = {i.text for i in after.items if isinstance(i, Step | Note)}
    lost = [i.text for i in before.items if isinstance(i, Note) and i.text not in kept]
    return tuple(f"{before.name or 'Part'}: the note '{text[:60]}' was not carried over." for text in lost)


def _resampled(part: Part, scale: float) -> Regraded:
    worked, _ = run_part(part)
    if not _is_plain(part, worked):
        raise CraftError(
            f"{part.name or 'The part'} has more than plain rounds (rows, a split, other edges): size it with another "
            "yarn and hook, or write its rounds anew.",
            field="scale",
        )
    counts = np.array(worked.counts, float)
    if len(counts) < 2 or counts.min() < 1:
        raise CraftError(f"{part.name or 'The part'} has too few rounds to be resized.", field="scale")
    start = int(counts[0])
    closed = worked.closed and counts[-1] <= 2 * start
    many = max(2, math.floor(scale * (len(counts) + 1)) - 1 if closed else round(len(counts) * scale))
    if many > MOST_ROUNDS:
        raise CraftError("That would be more rounds than one pattern may have.", field="scale")
    at = np.arange(1, many + 1) / scale
    true = scale * _count_along(counts, at, closed=closed)
    if true.max() < LEAST_AROUND:
        raise CraftError(
            f"{part.name or 'The part'} would have {true.max():.0f} stitches around; "
            "it cannot get so small in this yarn.",
            field="scale",
        )
    fresh = best_counts([float(t) for t in true], max(3, start), KEEP_SHAPE, closed=closed and counts[-1] == start)
    notes: list[str] = []
    body = _bodies(part, worked, fresh, at, notes)
    items = _with_words(part, worked, body, many)
    made = Part(part.name, folded(items), part.make)
    return Regraded(made, run_part(made)[0], "resampled", tuple(notes))


def _is_plain(part: Part, worked: WorkedPart) -> bool:
    """Whether a part is one tube of rounds from a ring, which its counts describe in full."""
    begins = bool(part.rounds) and any(isinstance(i, Start) for i in part.rounds[0].body)
    return begins and len(worked.trunk) == len(worked.rounds) and not any(t.flat or t.rest for t in worked.rounds)


def _count_along(counts: Vector, at: Vector, *, closed: bool) -> Vector:
    """Counts at distances `at` from the pole, in rounds: none at the pole, and at that of a closed end."""
    ends = [0.0] if closed else []
    along = np.concatenate([[0.0], counts, ends])
    found: Vector = np.interp(at, np.arange(len(along)), along)
    return found


def _plain_shaping(part: Part) -> Shaping:
    invisible = any(_has(r.body, "invdec") for r in part.rounds)
    return Shaping(decrease="invdec" if invisible else "dec")


def _has(body: Sequence[Instruction], key: str) -> bool:
    return any((isinstance(i, Work) and i.stitch == key) or (isinstance(i, Repeat) and _has(i.body, key)) for i in body)


def _bodies(part: Part, worked: WorkedPart, counts: Sequence[int], at: Vector, notes: list[str]) -> list[Round]:
    """Fresh rounds for `counts`; loops follow the round they came from."""
    before = [r for r in unfolded(part.items) if isinstance(r, Round)]
    shaping = _plain_shaping(part)
    first = next((i for r in before[:1] for i in r.body if isinstance(i, Start)), None)
    start = Start(first.start, counts[0]) if first else None
    rounds = [Round(1, 1, (start,) if start else (Work("sc", counts[0]),), counts[0])]
    in_loops = _loops_at(before, at)
    for number, (body, count) in enumerate(zip(shaped_rounds(counts, shaping), counts[1:], strict=True), 2):
        rounds.append(Round(number, number, body, count, in_loops.get(number - 1, Loops.BOTH)))
    name = part.name or "Part"
    if any(r.joined for r in before):
        notes.append(f"{name}: joined rounds became a spiral; close them again if you need them.")
    if any(isinstance(i, Colour) for r in before for i in r.body):
        notes.append(f"{name}: colour changes inside a round were not kept.")
    if _bunched(worked):
        notes.append(f"{name}: increases that were bunched to one or two sides are spread evenly now.")
    return rounds


def _loops_at(before: Sequence[Round], at: Vector) -> dict[int, Loops]:
    """The new round nearest to each old one that was worked in one loop."""
    found: dict[int, Loops] = {}
    for i, made in enumerate(before):
        if made.loops is not Loops.BOTH:
            found[int(np.argmin(np.abs(at - 1 - i)))] = made.loops
    return found


def _bunched(worked: WorkedPart) -> bool:
    """Whether any round has three or more shaped stitches far from evenly spread."""
    for tally in worked.rounds:
        if len(tally.marks) >= 3 and tally.made:
            at = np.array([m[0] for m in tally.marks]) / tally.made
            gaps = np.diff(np.append(at, at[0] + 1))
            if gaps.max() > 2.2 / len(at) and gaps.max() * tally.made > 4:
                return True
    return False


def _with_words(part: Part, worked: WorkedPart, rounds: Sequence[Round], many: int) -> list[Item]:
    """Steps, notes and colour changes at the same share of the way up as before."""
    old = len(worked.rounds)
    before: dict[int, list[Item]] = {}
    done = 0
    for item in part.items:
        if isinstance(item, Round):
            done += item.repeats
            continue
        place = many if done >= old else max(1 if done else 0, min(many - 1, round(done / old * many)))
        before.setdefault(place, []).append(item)
    items: list[Item] = [*before.get(0, [])]
    for number, made in enumerate(rounds, 1):
        items += [made, *before.get(number, [])]
    return items


def proportional_scale(parts: Sequence[tuple[str, float]], height_mm: float, name: str | None = None) -> float:
    """The one scale that brings the named part (else the tallest) to `height_mm`.

    parts: names with their present heights in mm.
    """
    require(bool(parts), "There is no part to size.", field="part")
    chosen = next((p for p in parts if p[0] == name), None) if name else max(parts, key=lambda p: p[1])
    if chosen is None:
        raise CraftError(f"No part is called {name!r}.", field="part")
    require(chosen[1] > 0, "The part has no height yet.", field="part")
    return height_mm / chosen[1]
