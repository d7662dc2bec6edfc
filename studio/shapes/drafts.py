"""Shapes drafted into rounds, with everything the Shapes stop shows of them."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from craft.gauge import Gauge
from craft.rounds.stitches import Terms
from craft.shape.drafting import LEAST_START, Draft, Recipe, draft, prices, suggested_start
from craft.shape.stored import form_json, rounds_json, rounds_of
from craft.shape.target import Form, TriangleMesh, cut
from craft.text.notation import print_rounds
from studio.bench.previews import craft_gauge, preview
from studio.bench.schemas import PreviewIn
from studio.designs.recipes import MeshForm, RoundsRecipe
from studio.shapes.schemas import PieceOut, PriceOut, ShapeIn, ShapeOut, SideOut

LEAST_DISC_MM = 15.0
"""Across the smallest base disc that is worth cutting out."""

ROWS = 64
"""Heights at which a shape's reach is told."""


def recipe_of(given: RoundsRecipe, gauge: Gauge | None = None) -> Recipe:
    """The craft's recipe; a start of 0 is chosen by the shape at the gauge. CraftError says what is wrong with it."""
    values = given.model_dump(mode="json")
    chosen = rounds_of({**values, "start": values["start"] or LEAST_START})
    if values["start"] or gauge is None:
        return chosen
    return replace(chosen, start=suggested_start(chosen.form, gauge))


def _price(name: str, simplicity: float, made: Draft) -> PriceOut:
    return PriceOut(
        name=name,
        simplicity=simplicity,
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


def sides_of(mesh: TriangleMesh) -> list[SideOut]:
    """How far a mesh reaches to every side at even heights, from where its edges cross them."""
    a, b = mesh.x[mesh.sides[:, 0]], mesh.x[mesh.sides[:, 1]]
    low, high = float(mesh.x[:, 2].min()), float(mesh.x[:, 2].max())
    found: list[SideOut] = []
    for z in np.linspace(low + (high - low) * 0.004, high - (high - low) * 0.004, ROWS):
        hit = (a[:, 2] < z) != (b[:, 2] < z)
        share = (z - a[hit, 2]) / (b[hit, 2] - a[hit, 2])
        at = a[hit] + (b[hit] - a[hit]) * share[:, None]
        if len(at):
            reach = (at[:, 0].min(), at[:, 0].max(), at[:, 1].min(), at[:, 1].max())
            found.append((round(float(z), 1), *(round(float(v), 1) for v in reach)))  # type: ignore[arg-type]
    return found


def cut_pieces(given: RoundsRecipe, height_mm: float) -> list[PieceOut]:
    """The pieces of a shape cut at a height; CraftError says why it cannot be."""
    whole = recipe_of(given).form.mesh
    found = []
    for piece in cut(whole, float(whole.x[:, 2].min()) + height_mm):
        width, depth, height = piece.mesh.size_mm
        found.append(
            PieceOut(
                form=MeshForm.model_validate(form_json(Form(piece.mesh))),
                size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
                above=piece.above,
                open=piece.mesh.open,
            )
        )
    return found


def shape(question: ShapeIn) -> ShapeOut:
    """Draft a shape; CraftError says why one cannot be."""
    gauge = craft_gauge(question.gauge)
    recipe = recipe_of(question.recipe, gauge)
    made = draft(recipe, gauge)
    text = print_rounds(made.part, Terms(question.terms))
    asked = PreviewIn.model_construct(
        text=text, **{n: getattr(question, n) for n in ("terms", "gauge", "colours", "colour", "number")}, others=[]
    )
    form = recipe.form
    width, depth, height = form.size_mm
    flat_end = form.outline.flat_end_mm() if form.outline is not None else 0.0
    return ShapeOut.model_construct(
        number=question.number,
        text=text,
        recipe=RoundsRecipe.model_validate(rounds_json(recipe)),
        start=recipe.start,
        outline=_outline(form),
        sides=[] if form.outline is not None else sides_of(form.mesh),
        size_mm=(round(width, 1), round(depth, 1), round(height, 1)),
        preview=preview(asked),
        prices=[_price(*p) for p in prices(recipe, gauge, made)],
        off_mm=made.radius_rms_mm,
        different=made.different_rounds,
        uneven=round(made.uneven, 3),
        disc_mm=disc if (disc := flat_end - gauge.stitch_mm) >= LEAST_DISC_MM else None,
    )
