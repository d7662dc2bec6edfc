"""Drafting: a solid and a gauge become written rounds."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from craft.errors import require
from craft.gauge import Gauge
from craft.rounds.pattern import (
    Instruction,
    Item,
    Part,
    Repeat,
    Round,
    Start,
    StartKind,
    Step,
    StepKind,
    Work,
    folded,
    thread_direction,
)
from craft.shape.drafting.around import Laid, laid_rounds
from craft.shape.drafting.counts import best_counts, evened
from craft.shape.drafting.directions import FLAT, FLAT_FOR_SEWING, STUFF_AS_IT_GROWS, closing
from craft.shape.drafting.on_mesh import course_of
from craft.shape.drafting.one_layer import one_layer, write_rows
from craft.shape.drafting.rings import Rings
from craft.shape.drafting.sewn import MOST_SEWN, SewnThrough, written
from craft.shape.drafting.short_rows import Straightened, straightened, write_short_rows
from craft.shape.drafting.split import SplitCourse, split_course, write_split
from craft.shape.drafting.spread import Shaping, shaped_rounds
from craft.shape.drafting.true_size import true_to_size
from craft.shape.drafting.two_layers import two_layers
from craft.shape.target import Form, Solid, TriangleMesh, as_form

Vector = NDArray[np.float64]

SimplicityName = Literal["true", "balanced", "easy"]

SIMPLICITY_PRESETS: tuple[tuple[SimplicityName, float], ...] = (("true", 0.0), ("balanced", 0.5), ("easy", 0.85))
"""Names of the presets with their simplicity."""

LEAST_START, MOST_START = 3, 60


@dataclass(frozen=True, slots=True)
class Recipe:
    """How to draft: the shape, stitches to start with, simplicity 0 to 1, layout and start.

    redrawn: the surface to lay rounds on instead of the shape's own, so that it settles to the shape.
    threads: sewn through the filling, to keep a flat shape flat; a round shape takes none. split: a shape that
    divides is worked in one piece, its trunk's stitches shared out among its limbs.
    short_rows: a body of revolution with a bend is worked straight, and bent by short rows. empty: it takes no filling
    and lies flat, two layers on each other. one_layer: it is flat, and worked in rows instead.
    """

    shape: Form | Solid
    start: int = 6
    simplicity: float = 0.85
    shaping: Shaping = Shaping()
    start_kind: StartKind = StartKind.RING
    redrawn: TriangleMesh | None = None
    threads: tuple[SewnThrough, ...] = ()
    split: bool = False
    short_rows: bool = False
    empty: bool = False
    one_layer: bool = False

    def __post_init__(self) -> None:
        require(
            isinstance(self.start, int) and LEAST_START <= self.start <= MOST_START,
            f"A start has from {LEAST_START} to {MOST_START} stitches.",
            field="start",
        )
        require(self.empty or not self.one_layer, "One layer takes no filling.", field="one_layer")
        require(len(self.threads) <= MOST_SEWN, f"A piece takes up to {MOST_SEWN} threads.", field="threads")
        require(0 <= self.simplicity <= 1, "Simplicity lies between 0 and 1.", field="simplicity")

    def scaled(self, factor: float) -> Recipe:
        """The same recipe for the form at another size."""
        redrawn = None if self.redrawn is None else self.redrawn.scaled(factor)
        threads = tuple(t.scaled(factor) for t in self.threads)
        return replace(self, shape=self.form.scaled(factor), redrawn=redrawn, threads=threads)

    @property
    def form(self) -> Form:
        """The shape as a form."""
        return as_form(self.shape)


@dataclass(frozen=True, slots=True)
class Draft:
    """Drafted rounds with what they cost.

    count_rms: error of the counts against the rings, in stitches. radius_rms_mm: the same as
    radius. different_rounds: rounds that read differently, all plain ones counted as one. uneven: by
    how much the height of rounds has to differ, as a share; 0 for most shapes. places: of every round
    laid on a shape that is not round, the share of the way around at which each stitch lies.
    """

    part: Part
    counts: tuple[int, ...]
    rings: Rings
    count_rms: float
    radius_rms_mm: float
    different_rounds: int
    uneven: float = 0.0
    places: tuple[Vector, ...] = field(default=(), compare=False)


def _start_round(recipe: Recipe) -> Round:
    return Round(1, 1, (Start(recipe.start_kind, recipe.start),), recipe.start)


def _stuffing(counts: Sequence[int], recipe: Recipe) -> dict[int, Step]:
    """Stage directions by the number of the round they follow."""
    widest = max(counts)
    steps: dict[int, Step] = {}
    width, _, length = recipe.form.size_mm
    slim = widest < 24 or length > 2.5 * width
    if recipe.empty:
        steps[len(counts)] = FLAT_FOR_SEWING if recipe.form.open else FLAT
        return steps
    if recipe.form.open:
        last = len(counts)
        steps[last] = Step(StepKind.STUFF, "Stuff, and leave a long tail for sewing.")
        return steps
    if slim:
        at = next((i for i, n in enumerate(counts, 1) if n == widest), 1)
        steps[min(at + 3, len(counts) - 1)] = STUFF_AS_IT_GROWS
    else:
        peak = max(i for i, n in enumerate(counts, 1) if n == widest)
        at = next((i for i, n in enumerate(counts, 1) if i > peak and n <= 24), len(counts) - 1)
        steps[min(at, len(counts) - 1)] = Step(StepKind.STUFF, "Stuff firmly, a little more than seems needed.")
    return steps


def write_rounds(
    counts: Sequence[int],
    recipe: Recipe,
    bodies: Sequence[tuple[Instruction, ...]] | None = None,
    *,
    steps: bool = True,
) -> tuple[Item, ...]:
    """Items of a part with these live counts, folded, with directions to stuff and close.

    bodies: the work of every round after the first, evenly spread if not given.
    """
    items: list[Item] = [_start_round(recipe)]
    stuffing = _stuffing(counts, recipe) if steps else {}
    for number, (body, count) in enumerate(
        zip(bodies or shaped_rounds(counts, recipe.shaping), counts[1:], strict=True), 2
    ):
        items.append(Round(number, number, body, count))
        if step := stuffing.get(number):
            items.append(step)
    if steps and not recipe.form.open:
        items.append(closing(counts[-1]))
    return folded(items)


def different_rounds(items: Sequence[Item]) -> int:
    """How many rounds read differently; all rounds of plain stitches are one."""
    plain = (Repeat((Work("sc"),), None),)
    return len({item.body if item.body != plain else plain for item in items if isinstance(item, Round)})


def _counts_of(rings: Rings, recipe: Recipe, *, closed: bool) -> tuple[int, ...]:
    """Counts for rounds laid on a surface that is not round."""
    true = [float(n) for n in rings.stitches]
    # An opening of a mesh fits whatever was cut off there: both have what its length truly holds.
    last = None if closed else 2 * round(true[-1] / 2)
    counts = best_counts(true, recipe.start, recipe.simplicity, closed=closed, last=last)
    return evened(counts, true, mirrored=recipe.form.mirrored_ends) if closed else counts


def draft(recipe: Recipe, gauge: Gauge, name: str | None = None, make: int = 1) -> Draft:
    """Draft a part. CraftError says when the solid is too small or too large at this gauge."""
    if recipe.one_layer:
        return _rows_draft(recipe, gauge, name, make)
    laid_on = recipe.form if recipe.redrawn is None else Form(recipe.redrawn)
    if recipe.split and laid_on.outline is None:
        divided = split_course(laid_on, gauge, recipe.start, recipe.simplicity, recipe.shaping)
        if divided is not None:
            return _split_draft(divided, recipe, gauge, name, make)
    if recipe.short_rows and (straight := straightened(recipe.form)) is not None:
        return _bent_draft(straight, recipe, gauge, name, make)
    course = None if laid_on.outline is not None else course_of(laid_on, gauge, recipe.start)
    closed = not recipe.form.open
    if course is None and recipe.empty:
        rings, counts = two_layers(recipe.form, gauge, recipe.start, recipe.simplicity)
    elif course is None:
        rings, counts = true_to_size(recipe.form, gauge, recipe.start, recipe.simplicity)
    else:
        rings, counts = course.rings, _counts_of(course.rings, recipe, closed=closed)
    if course is None:
        laid = Laid(tuple(shaped_rounds(counts, recipe.shaping)), ())
    else:
        laid = laid_rounds(counts, course.growth, recipe.shaping, gauge.lean, mirrored=course.mirrored)
    items = write_rounds(counts, recipe, laid.bodies)
    if laid.places and (threads := written(recipe.threads, laid.places)):
        items = (*items, Step(StepKind.THREAD, thread_direction(threads), threads=tuple(threads)))
    miss = np.asarray(counts, float) - rings.stitches
    inner = miss[1:-1] if closed and len(miss) > 2 else miss[1:]
    rms = float(np.sqrt(np.mean(inner**2))) if len(inner) else 0.0
    return Draft(
        Part(name, items, make),
        counts,
        rings,
        rms,
        rms * gauge.stitch_mm / (2 * math.pi),
        different_rounds(items),
        0.0 if course is None else course.uneven,
        laid.places,
    )


def _rows_draft(recipe: Recipe, gauge: Gauge, name: str | None, make: int) -> Draft:
    """Draft a flat piece of one layer, in rows."""
    rows, counts = one_layer(recipe.form, gauge, recipe.simplicity)
    items = write_rows(counts)
    rms = float(np.sqrt(np.mean((np.asarray(counts, float) - rows.stitches) ** 2)))
    return Draft(Part(name, items, make), counts, rows, rms, rms * gauge.stitch_mm / 2, different_rounds(items))


def _split_draft(course: SplitCourse, recipe: Recipe, gauge: Gauge, name: str | None, make: int) -> Draft:
    trunk = write_rounds(course.counts, recipe, course.bodies, steps=False)
    items = write_split(course, trunk)
    miss = np.asarray(course.counts, float)[1:] - course.rings.stitches[1:]
    rms = float(np.sqrt(np.mean(miss**2)))
    counts = (*course.counts, *(n for limb in course.limbs for n in limb.counts))
    off = rms * gauge.stitch_mm / (2 * math.pi)
    return Draft(Part(name, items, make), counts, course.rings, rms, off, different_rounds(items))


def _bent_draft(straight: Straightened, recipe: Recipe, gauge: Gauge, name: str | None, make: int) -> Draft:
    """Draft the straight body, and bend it with short rows."""
    plain = replace(recipe, shape=straight.form, redrawn=None, threads=(), short_rows=False)
    made = draft(plain, gauge)
    bodies = shaped_rounds(made.counts, recipe.shaping)
    items = write_short_rows(
        made.counts, bodies, _start_round(recipe), straight.degrees, gauge, closed=not recipe.form.open
    )
    return replace(made, part=Part(name, items, make), different_rounds=different_rounds(items))


def prices(recipe: Recipe, gauge: Gauge, made: Draft | None = None) -> tuple[tuple[str, float, Draft], ...]:
    """Every simplicity preset with its draft, so that its price can be shown. made: the recipe's own, where it is there."""
    return tuple(
        (
            name,
            simplicity,
            made
            if made is not None and simplicity == recipe.simplicity
            else draft(replace(recipe, simplicity=simplicity), gauge),
        )
        for name, simplicity in SIMPLICITY_PRESETS
    )
