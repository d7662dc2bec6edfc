"""Recipes as they are kept: one JSON form, numbered, strict, and every earlier one still read."""

from __future__ import annotations

import json
from typing import Any

import pytest

from craft.errors import CraftError
from craft.fitting.panels import PanelRecipe, recipe_json, recipe_of
from craft.rounds.pattern import StartKind
from craft.shape.drafting import Recipe, SewnThrough, Shaping
from craft.shape.stored import FORMAT, form_json, form_of
from craft.shape.target import BASES, MODIFIERS, Box, Form, Modifier, Solid, Stack, Traced

EGG = Solid("egg", 80, 60, point=0.3)
OUTLINE = Traced(((0, 0), (30, 10), (40, 45), (25, 80), (0, 95)), axis=((0, 0), (6, 90)))
MESH = Form(EGG).mesh
SHAPES = (EGG, OUTLINE, Stack((EGG, Solid("sphere", 40, 40))), Box(50, 40, 60), MESH)
RECIPES = [
    *(Recipe(Form(shape)) for shape in SHAPES),
    Recipe(EGG, 8, 0.4, Shaping(True, True, "invdec"), StartKind.CHAIN2, split=True, short_rows=True),
    Recipe(Form(EGG, tuple(Modifier(kind, {}) for kind in MODIFIERS))),
    Recipe(EGG, redrawn=MESH, threads=(SewnThrough.of([0.5, 0, 0.5, 0.5, 20]),)),
    PanelRecipe(Form(Box(50, 40, 60)), "Front", seams=True),
]


@pytest.mark.parametrize("recipe", RECIPES)
def test_a_recipe_is_kept_as_plain_json_and_read_back(recipe: Recipe | PanelRecipe) -> None:
    kept = json.loads(json.dumps(recipe_json(recipe)))
    assert kept["format"] == FORMAT
    assert json.loads(json.dumps(recipe_json(recipe_of(kept)))) == kept


def test_every_kind_of_base_is_kept_under_its_tag() -> None:
    assert {form_json(Form(shape))["base"] for shape in SHAPES} == set(BASES)


HOW = {"start": 7, "ease": 0.4, "stacked": True, "first": False, "decrease": "invdec", "start_kind": "ring"}
SOLID = {"kind": "egg", "height_mm": 50, "width_mm": 40, "open": False, "opening_mm": None, "point": 0.2}


@pytest.mark.parametrize(
    ("old", "form"),
    [
        ({"solid": SOLID, **HOW}, Form(Solid("egg", 50, 40))),
        ({"solid": {"kind": "egg", "height_mm": 50, "width_mm": 40}, **HOW}, Form(Solid("egg", 50, 40))),
        (
            {"form": {"base": "solid", **SOLID, "modifiers": [{"kind": "bend", "degrees": 30}]}, **HOW},
            Form(Solid("egg", 50, 40), (Modifier("bend", {"degrees": 30}),)),
        ),
        (
            {"form": {"base": "traced", "front": [[0, 0], [30, 10], [0, 40]], "modifiers": []}, "split": True, **HOW},
            Form(Traced(((0, 0), (30, 10), (0, 40)))),
        ),
    ],
)
def test_the_first_format_opens_for_ever(old: dict[str, Any], form: Form) -> None:
    """A plain solid stood under its own name, simplicity was called ease, and shaping lay beside them."""
    read = recipe_of(old)
    assert isinstance(read, Recipe)
    assert read.form == form
    assert (read.start, read.simplicity, read.shaping) == (7, 0.4, Shaping(True, False, "invdec"))
    assert read.split == bool(old.get("split"))


def test_panels_of_the_first_format_open() -> None:
    box = {"base": "box", "width_mm": 50, "depth_mm": 40, "height_mm": 60, "modifiers": []}
    old = {"panel": "Front", "form": box, "seams": True}
    assert recipe_of(old) == PanelRecipe(Form(Box(50, 40, 60)), "Front", seams=True)


GOOD = json.loads(json.dumps(recipe_json(Recipe(EGG))))


@pytest.mark.parametrize(
    ("damage", "says", "field"),
    [
        ({"form": {"base": "solid", "kind": "egg"}}, "height_mm: is missing", None),
        ({"form": {**GOOD["form"], "height_mm": "8"}}, "height_mm: is no number", None),
        ({"form": {**GOOD["form"], "height_mm": True}}, "height_mm: is no number", None),
        ({"form": {**GOOD["form"], "colour": "red"}}, "unknown: colour", None),
        ({"form": {"base": "sponge"}}, "No base of a shape is called 'sponge'", "form"),
        ({"form": {**GOOD["form"], "height_mm": -1}}, "Height", "height_mm"),
        ({"form": {**GOOD["form"], "modifiers": [{"kind": "bend", "degrees": 999}]}}, "from -150 to 150", "degrees"),
        ({"form": {**GOOD["form"], "modifiers": [{"kind": "bend", "degrees": "far"}]}}, "are numbers", "modifiers"),
        ({"form": {**GOOD["form"], "modifiers": ["bend"]}}, "has a kind", "modifiers"),
        ({"start": 2}, "from 3 to 60", "start"),
        ({"start": "six"}, "no whole number", None),
        ({"simplicity": None}, "simplicity: is no number", None),
        ({"start_kind": "moebius"}, "is none of", None),
        ({"split": 1}, "neither true nor false", None),
        ({"format": FORMAT + 1}, "newer Spirrel", "format"),
    ],
)
def test_what_is_damaged_is_told_where(damage: dict[str, Any], says: str, field: str | None) -> None:
    with pytest.raises(CraftError, match=says) as refused:
        recipe_of({**GOOD, **damage})
    assert refused.value.field == field


@pytest.mark.parametrize("damaged", [None, 5, [], {}, {"solid": 5}, {"panel": 5}, {"kind": "panel"}])
def test_what_is_no_recipe_is_refused(damaged: object) -> None:
    with pytest.raises(CraftError):
        recipe_of(damaged)


def test_a_form_stands_alone() -> None:
    assert form_of(form_json(Form(OUTLINE))) == Form(OUTLINE)
