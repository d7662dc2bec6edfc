"""Types on the wire made of the craft's own values."""

from __future__ import annotations

import json
from dataclasses import dataclass, fields
from enum import StrEnum
from pathlib import Path
from typing import get_args

import pytest
from ninja import Schema
from pydantic import TypeAdapter, ValidationError

import studio.api  # noqa: F401  (loads every type)
from craft.fitting.panels import PanelRecipe, recipe_json, recipe_of
from craft.shape.drafting import Recipe
from craft.shape.target import BASES, MODIFIERS, SOLIDS, Box, Form, Modifier, ModifierKey, Solid, Traced
from studio.designs.recipes import AnyForm, AnyRecipe, RoundsRecipe, form_out, recipe_out
from studio.refusals import field_of
from studio.wire import schema_of


class Hue(StrEnum):
    MOSS = "moss"


@dataclass(frozen=True)
class Leaf:
    """A leaf."""

    long_mm: float
    hue: Hue = Hue.MOSS


@dataclass(frozen=True)
class Twig:
    """A twig with its leaves."""

    leaves: tuple[Leaf, ...]
    ends: tuple[float, float] = (0.0, 1.0)
    tip: Leaf | None = None
    bud: Leaf = Leaf(1.0)


TWIG = schema_of(Twig, tags={"kind": "twig"}, renamed={"tip": "top"}, more={"format": (int, 2)})


def test_a_schema_has_the_fields_of_its_value() -> None:
    described = TWIG.model_json_schema()
    assert set(described["properties"]) == {"kind", "leaves", "ends", "top", "bud", "format"}
    assert set(described["required"]) == {"kind", "leaves"}
    assert described["description"] == "A twig with its leaves."
    assert described["additionalProperties"] is False
    assert described["properties"]["kind"]["const"] == "twig"
    assert described["$defs"]["Leaf"]["properties"]["long_mm"]["type"] == "number"


def test_defaults_are_values_of_their_fields_kind() -> None:
    made = TWIG.model_validate({"kind": "twig", "leaves": [{"long_mm": 2}]})
    assert made.model_dump(mode="json") == {
        "kind": "twig",
        "leaves": [{"long_mm": 2.0, "hue": "moss"}],
        "ends": [0.0, 1.0],
        "top": None,
        "bud": {"long_mm": 1.0, "hue": "moss"},
        "format": 2,
    }


@pytest.mark.parametrize(
    ("sent", "field"),
    [
        ({"kind": "branch", "leaves": []}, "kind"),
        ({"kind": "twig"}, "leaves"),
        ({"kind": "twig", "leaves": [{"long_mm": "far"}]}, "leaves.0.long_mm"),
        ({"kind": "twig", "leaves": [], "tip": None}, "tip"),
        ({"kind": "twig", "leaves": [], "ends": [1]}, "ends.1"),
    ],
)
def test_what_does_not_fit_is_refused_at_its_field(sent: dict[str, object], field: str) -> None:
    with pytest.raises(ValidationError) as refused:
        TWIG.model_validate(sent)
    assert field_of(refused.value.errors()[0]) == field


def test_another_type_may_go_over_the_wire_instead() -> None:
    short = schema_of(Twig, instead={Leaf: float, (Twig, "ends"): str})
    assert short.model_json_schema()["properties"]["leaves"]["items"] == {"type": "number"}
    assert short.model_json_schema()["properties"]["ends"]["type"] == "string"


def test_a_recipe_has_every_field_of_the_crafts() -> None:
    wire = set(RoundsRecipe.model_fields) - {"format", "kind"}
    assert wire == {"form" if f.name == "shape" else f.name for f in fields(Recipe)}


def test_every_base_solid_and_modifier_is_known_on_the_wire() -> None:
    described = TypeAdapter(AnyForm).json_schema()
    assert set(described["discriminator"]["mapping"]) == set(BASES)
    assert set(described["$defs"]["SolidForm"]["properties"]["kind"]["enum"]) == set(SOLIDS)
    mapping = described["$defs"]["SolidForm"]["properties"]["modifiers"]["items"]["discriminator"]["mapping"]
    assert set(mapping) == set(MODIFIERS) == set(get_args(ModifierKey))
    for kind in MODIFIERS.values():
        knobs = described["$defs"][mapping[kind.key].split("/")[-1]]["properties"]
        assert {name: knobs[name]["default"] for name in kind.knobs} == {n: k.usual for n, k in kind.knobs.items()}


FORMS = (
    Form(Solid("egg", 60, 40), (Modifier("bend", {"degrees": 30}),)),
    Form(Traced(((0, 0), (30, 10), (0, 40)))),
    Form(Box(50, 40, 30)),
    Form(Form(Solid("dome", 30, 40, open=True)).mesh),
)


@pytest.mark.parametrize("form", FORMS, ids=["solid", "traced", "box", "mesh"])
def test_forms_and_recipes_go_over_the_wire_and_come_back(form: Form) -> None:
    out = form_out(form).model_dump(mode="json")
    assert TypeAdapter(AnyForm).validate_python(out).model_dump(mode="json") == out
    for recipe in (Recipe(form), PanelRecipe(form, "Front")):
        sent = recipe_out(recipe_json(recipe)).model_dump(mode="json")
        again = TypeAdapter(AnyRecipe).validate_python(sent).model_dump(mode="json")
        assert recipe_json(recipe_of(again)) == recipe_json(recipe)


def test_a_recipe_of_the_first_format_goes_out_in_the_newest() -> None:
    old = {"solid": {"kind": "egg", "height_mm": 50, "width_mm": 40}, "ease": 0.4, "start": 7}
    out = recipe_out({**old, "stacked": True, "first": False, "decrease": "dec", "start_kind": "ring"})
    assert (out.kind, out.form.base, out.simplicity, out.shaping.stacked) == ("rounds", "solid", 0.4, True)


@pytest.mark.parametrize(
    ("loc", "field"),
    [
        (("body", "payload", "recipe", "rounds", "form", "solid", "height_mm"), "recipe.form.height_mm"),
        (("body", "payload", "recipe", "form", "stack", "solids", 1, "kind"), "recipe.form.solids.1.kind"),
        (("body", "payload", "recipe", "form", "box", "modifiers", 0, "bend", "degrees"), "recipe.form.modifiers.0.degrees"),
        (("body", "payload", "gauge", "data", "yarns", 0, "wraps"), "yarns.0.wraps"),
        (("body", "payload", "gauge", "stitch_mm"), "gauge.stitch_mm"),
        (("body", "payload", "recipe", "panel", "panel"), "recipe.panel"),
        (("query", "terms"), "terms"),
    ],
)  # fmt: skip
def test_a_field_is_named_as_the_screen_knows_it(loc: tuple[object, ...], field: str) -> None:
    assert field_of({"loc": loc}) == field


def test_the_published_schema_of_a_design_holds_recipes_as_they_are() -> None:
    """docs/schemas/design.schema.json names every field of a recipe; it is made from the same values."""
    published = json.loads((Path(__file__).parents[2] / "docs/schemas/design.schema.json").read_text())["$defs"]
    made = TypeAdapter(AnyRecipe).json_schema(mode="serialization")
    assert {name: published.get(name) for name in made["$defs"]} == made["$defs"]
    assert published["Recipe"]["discriminator"] == made["discriminator"]


def test_no_two_types_on_the_wire_have_one_name() -> None:
    """Of two with one name only the last is described, and the screens are made for the wrong one."""
    every = [kind for base in (Schema, *Schema.__subclasses__()) for kind in base.__subclasses__()]
    named: dict[str, set[str]] = {}
    for kind in every:
        if kind.__module__.startswith("studio.") and "[" not in kind.__name__:
            named.setdefault(kind.__name__, set()).add(kind.__module__)
    assert {name: found for name, found in named.items() if len(found) > 1} == {}
