"""How a panel was drafted, so that it can be drafted again at another size."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from craft.errors import CraftError
from craft.fitting.panels.draft import Panels, draft_panels
from craft.formats import structured
from craft.gauge import Gauge
from craft.rounds.pattern import Part, Step, StepKind
from craft.shape.drafting import Recipe
from craft.shape.stored import FORMAT, PANEL, rounds_json, rounds_of, shape_converter, upgraded_recipe
from craft.shape.target import Form, patches_of


@dataclass(frozen=True)
class PanelRecipe:
    """One panel of a shape by its name. seams: its directions say how all panels are sewn together."""

    form: Form
    panel: str
    seams: bool = False

    def scaled(self, factor: float) -> PanelRecipe:
        """The same panel of the shape at another size."""
        return replace(self, form=self.form.scaled(factor))

    def part(self, gauge: Gauge, name: str | None = None, make: int = 1) -> Part:
        """The panel drafted. CraftError when the shape has none of that name at this size and gauge."""
        panels = draft_panels(patches_of(self.form.mesh), gauge)
        panel = next((p for p in panels.panels if p.name == self.panel), None)
        if panel is None:
            raise CraftError(f"At this size the shape has no panel '{self.panel}'.", field="form")
        sewn = (Step(StepKind.SEW, seams_direction(panels)),) if self.seams else ()
        return Part(name, (*panel.part.items, *sewn), make)


def seams_direction(panels: Panels) -> str:
    """How the panels are sewn together, in one line."""
    seams = "; ".join(f"{a} to {b}, {n} stitches ({letter})" for letter, a, b, n in panels.seams)
    return f"Sew the panels together, stitch to stitch, right sides out: {seams}."


_CONVERTER = shape_converter()


def recipe_json(recipe: Recipe | PanelRecipe) -> dict[str, Any]:
    """The recipe of a part as plain JSON values, with `format` and `kind`."""
    if isinstance(recipe, Recipe):
        return rounds_json(recipe)
    return {"format": FORMAT, "kind": PANEL, **_CONVERTER.unstructure(recipe)}


def recipe_of(data: object) -> Recipe | PanelRecipe:
    """The recipe of a part as it is kept, of rounds or of a panel, in any format; CraftError when it is none."""
    if not isinstance(data, Mapping):
        raise CraftError("The recipe of the shape is damaged.", field="recipe")
    newest = upgraded_recipe(data)
    if newest.get("kind") != PANEL:
        return rounds_of(newest)
    values = {k: v for k, v in newest.items() if k not in ("format", "kind")}
    return structured(_CONVERTER, values, PanelRecipe, "The recipe of the panel", placed=False)
