"""A design as plain JSON values and back: docs/schemas/design.json, docs/file-format.md.

The fields are those of the values themselves; cattrs reads and writes them, so that a new field has one place.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from enum import Enum, StrEnum
from typing import Any

from cattrs import Converter, transform_error
from cattrs.errors import ClassValidationError, ForbiddenExtraKeysError, IterableValidationError

from craft.design.design import Design
from craft.design.upgrades import FORMAT, STEPS
from craft.errors import CraftError
from craft.fitting.panels import PanelRecipe, recipe_of
from craft.formats import upgraded
from craft.shape.drafting import Recipe

KIND = "design"
"""What a design's file says it is."""

MOST_JSON = 20_000_000
"""Code points of a design's file."""


def _converter() -> Converter:
    made = Converter(forbid_extra_keys=True)
    # An enumeration is a kind of text, and true a kind of number: the nearest of these is the one that is used.
    for kind, hook in ((float, _number), (int, _whole), (bool, _truth), (str, _words), (StrEnum, _one_of)):
        made.register_structure_hook(kind, hook)
    recipes = Recipe | PanelRecipe | None
    made.register_structure_hook(recipes, lambda data, _: None if data is None else recipe_of(data))
    made.register_unstructure_hook(recipes, lambda recipe: None if recipe is None else recipe.to_json())
    return made


def _number(data: Any, _: Any) -> float:
    if isinstance(data, bool) or not isinstance(data, int | float) or not abs(data) < 1e9:
        raise CraftError("is no number")
    return float(data)


def _whole(data: Any, _: Any) -> int:
    if isinstance(data, bool) or not isinstance(data, int) or abs(data) > 10**9:
        raise CraftError("is no whole number")
    return data


def _truth(data: Any, _: Any) -> bool:
    if not isinstance(data, bool):
        raise CraftError("is neither true nor false")
    return data


def _words(data: Any, _: Any) -> str:
    if not isinstance(data, str):
        raise CraftError("is no text")
    return data


def _one_of(data: Any, kind: type[StrEnum]) -> StrEnum:
    return kind(data)


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
    try:
        return _CONVERTER.structure(values, Design)
    except (ClassValidationError, IterableValidationError) as error:
        raise CraftError(f"The design's file is damaged: {_first(error)}") from None


def _first(error: BaseException) -> str:
    """The first thing that is wrong, as one sentence with its place."""
    said = transform_error(error, format_exception=_said)
    first = str(said[0]) if said else "it cannot be read"
    words, _, place = first.partition(" @ $")
    return f"{place.lstrip('.') or 'the file'}: {words.rstrip('.')}."


def _said(error: BaseException, wanted: Any) -> str:
    if isinstance(wanted, type) and issubclass(wanted, Enum):
        return f"is none of {', '.join(str(v.value) for v in wanted)}"
    if isinstance(error, KeyError):
        return "is missing"
    if isinstance(error, ForbiddenExtraKeysError):
        return f"unknown: {', '.join(sorted(error.extra_fields))}"
    if isinstance(error, CraftError):
        return error.message
    return "is not what stands there in a design"


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
