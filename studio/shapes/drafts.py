"""Shapes drafted into rounds, with everything the Shapes stop shows of them."""

from __future__ import annotations

from typing import Any

import numpy as np

from craft.gauge import Gauge
from craft.rounds.pattern import StartKind
from craft.rounds.stitches import Terms
from craft.shape.drafting import Draft, Recipe, SewnThrough, Shaping, draft, prices, suggested_start
from craft.shape.target import Form, Modifier, Shell, Solid, cut
from craft.text.notation import print_rounds
from studio.bench.previews import craft_gauge, preview
from studio.bench.schemas import PreviewIn
from studio.shapes.schemas import PieceOut, PriceOut, RecipeIn, ShapeIn, ShapeOut, SideOut

LEAST_DISC_MM = 15.0
"""Across the smallest base disc that is worth cutting out."""

ROWS = 64
"""Heights at which a shape's reach is told."""


def form_of(given: RecipeIn) -> Form:
    """The form of a question; CraftError says what is wrong with it."""
    modifiers = tuple(Modifier.from_json(m) for m in given.modifiers)
    if given.form is not None:
        return Form(Form.from_json({**given.form, "modifiers": []}).base, modifiers)
    solid = Solid(given.kind, given.height_mm, given.width_mm, given.open, given.opening_mm, given.point)
    return Form(solid, modifiers)


def recipe_of(given: RecipeIn, gauge: Gauge) -> Recipe:
    """The craft's recipe; a start of 0 is chosen by the shape."""
    form = form_of(given)
    return Recipe(
        form,
        given.start or suggested_start(form, gauge),
        given.ease,
        Shaping(given.stacked, given.first, given.decrease),
        StartKind(given.start_kind),
        Shell.from_json(given.redrawn) if given.redrawn else None,
        tuple(SewnThrough.from_json(t) for t in given.threads),
        given.split,
        given.short_rows,
    )


def _price(name: str, ease: float, made: Draft) -> PriceOut:
    return PriceOut(
        name=name,
        ease=ease,
        rounds=len(made.counts),
        stitches=sum(made.counts),
        different=made.different_rounds,
        off_mm=made.radius_rms_mm,
    )


def _outline(form: Form) -> list[tuple[float, float]]:
    outline = form.outline
    if outline is None:
        return []
    every = max(1, len(outline.r) // 120)
    points = [
        (round(float(r), 2), round(float(z), 2)) for r, z in zip(outline.r[::every], outline.z[::every], strict=True)
    ]
    return [*points, (round(float(outline.r[-1]), 2), round(float(outline.z[-1]), 2))]


def sides_of(shell: Shell) -> list[SideOut]:
    """How far a shell reaches to every side at even heights, from where its edges cross them."""
    a, b = shell.x[shell.sides[:, 0]], shell.x[shell.sides[:, 1]]
    low, high = float(shell.x[:, 2].min()), float(shell.x[:, 2].max())
    found: list[SideOut] = []
    for z in np.linspace(low + (high - low) * 0.004, high - (high - low) * 0.004, ROWS):
        hit = (a[:, 2] < z) != (b[:, 2] < z)
        share = (z - a[hit, 2]) / (b[hit, 2] - a[hit, 2])
        at = a[hit] + (b[hit] - a[hit]) * share[:, None]
        if len(at):
            reach = (at[:, 0].min(), at[:, 0].max(), at[:, 1].min(), at[:, 1].max())
            found.append((round(float(z), 1), *(round(float(v), 1) for v in reach)))  # type: ignore[arg-type]
    return found


def cut_pieces(given: RecipeIn, height_mm: float) -> list[PieceOut]:
    """The pieces of a shape cut at a height; CraftError says why it cannot be."""
    whole = form_of(given).shell
    found = []
    for piece in cut(whole, float(whole.x[:, 2].min()) + height_mm):
        width, depth, height = piece.shell.size_mm
        found.append(
            PieceOut(
                form=Form(piece.shell).to_json(),
                size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
                above=piece.above,
                open=piece.shell.open,
            )
        )
    return found


def shape(question: ShapeIn) -> ShapeOut:
    """Draft a shape; CraftError says why one cannot be."""
    gauge = craft_gauge(question.gauge)
    recipe = recipe_of(question.recipe, gauge)
    made = draft(recipe, gauge)
    text = print_rounds(made.part, Terms(question.terms))
    as_json: dict[str, Any] = recipe.to_json()
    asked = PreviewIn.model_construct(
        text=text, **{n: getattr(question, n) for n in ("terms", "gauge", "colours", "colour", "number")}, others=[]
    )
    form = recipe.form
    width, depth, height = form.size_mm
    flat_end = form.outline.flat_end_mm() if form.outline is not None else 0.0
    return ShapeOut.model_construct(
        number=question.number,
        text=text,
        recipe=as_json,
        start=recipe.start,
        outline=_outline(form),
        sides=[] if form.outline is not None else sides_of(form.shell),
        size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
        preview=preview(asked),
        prices=[_price(*p) for p in prices(recipe, gauge)],
        off_mm=made.radius_rms_mm,
        different=made.different_rounds,
        uneven=round(made.uneven, 3),
        disc_mm=disc if (disc := flat_end - gauge.stitch_mm) >= LEAST_DISC_MM else None,
    )
