"""A design as plain JSON values and back: docs/schemas/design.json, docs/file-format.md.

The fields are those of the values themselves; cattrs reads and writes them, so that a new field has one place.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from cattrs import Converter

from craft.design.design import Design
from craft.design.upgrades import FORMAT, STEPS
from craft.errors import CraftError
from craft.fitting.panels import PanelRecipe, recipe_json, recipe_of
from craft.formats import strict_converter, structured, upgraded
from craft.shape.drafting import Recipe

KIND = "design"
"""What a design's file says it is."""

MOST_JSON = 20_000_000
"""Code points of a design's file."""


def _converter() -> Converter:
    made = strict_converter()
    recipes = Recipe | PanelRecipe | None
    made.register_structure_hook(recipes, lambda data, _: None if data is None else recipe_of(data))
    made.register_unstructure_hook(recipes, lambda recipe: None if recipe is None else recipe_json(recipe))
    return made


_CONVERTER = _converter()


def to_json(design: Design) -> dict[str, Any]:
    """The design as plain JSON values, with `format` and `kind`."""
    return {"format": FORMAT, "kind": KIND, **_CONVERTER.unstructure(design)}


def from_json(data: object) -> Design:
    """The design of plain JSON values, of this format or an earlier one; CraftError names what is wrong, and where."""
    if not isinstance(data, Mapping) or data.get("kind") != KIND:
        raise CraftError("This is no Spirrel design.")
    values = upgraded(data, STEPS, "This design")
    values = {k: v for k, v in values.items() if k not in ("format", "kind")}
    return structured(_CONVERTER, values, Design, "The design's file")


def written(design: Design) -> str:
    """The design as the text of its file."""
    return json.dumps(to_json(design), ensure_ascii=False, indent=1) + "\n"


def is_design(text: str) -> bool:
    """Whether a text looks like a design's file and not like written rounds."""
    return text.lstrip()[:1] == "{" and f'"kind": "{KIND}"' in text[:400]


def read_design(text: str) -> Design:
    """The design of a file's text; CraftError when it is none."""
    if len(text) > MOST_JSON:
        raise CraftError("That file is larger than any design.")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise CraftError("This is no readable JSON.") from None
    return from_json(data)
