"""Forms and recipes as plain JSON values and back: docs/file-format.md.

The fields are those of the values themselves; a base of a shape is told by its tag.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cattrs import Converter, override
from cattrs.gen import make_dict_structure_fn, make_dict_unstructure_fn
from cattrs.strategies import configure_tagged_union

from craft.errors import CraftError
from craft.formats import strict_converter, structured, upgraded
from craft.shape.drafting import Recipe, SewnThrough
from craft.shape.target import BASES, Form, Modifier, PackedMesh, Solid, TriangleMesh, as_form

ROUNDS, PANEL = "rounds", "panel"
"""The kinds of recipes, by their tag `kind`."""


def _from_solid(old: dict[str, Any]) -> dict[str, Any]:
    """Format 1 kept a plain solid under its own name, how to lay out shaping beside it, and "ease" for simplicity."""
    out = {k: v for k, v in old.items() if k not in ("solid", "ease", "stacked", "first", "decrease")}
    if "panel" in old:
        return {**old, "kind": PANEL}
    if isinstance(old.get("solid"), Mapping):
        out["form"] = {"base": "solid", **old["solid"], "modifiers": []}
    if "ease" in old:
        out["simplicity"] = old["ease"]
    out["shaping"] = {k: old[k] for k in ("stacked", "first", "decrease") if k in old}
    return {**out, "kind": ROUNDS}


STEPS = (_from_solid,)
"""From each format of a recipe to the next."""

FORMAT = len(STEPS) + 1


def shape_converter() -> Converter:
    """Between shapes, forms and recipes and plain JSON: for what holds them."""
    made = strict_converter()
    made.register_structure_hook(TriangleMesh, lambda data, _: made.structure(data, PackedMesh).mesh())
    made.register_unstructure_hook(TriangleMesh, lambda mesh: made.unstructure(mesh.packed()))
    made.register_structure_hook(SewnThrough, lambda data, _: SewnThrough.of(data))
    made.register_unstructure_hook(SewnThrough, lambda thread: list(thread.numbers()))
    made.register_structure_hook(Modifier, lambda data, _: _modifier(data))
    made.register_unstructure_hook(Modifier, lambda m: {"kind": m.kind, **m.values})
    base = Solid
    for kind in BASES.values():
        base = base | kind  # type: ignore[assignment]
    names = {kind: name for name, kind in BASES.items()}
    configure_tagged_union(base, made, tag_name="base", tag_generator=lambda kind: names[kind])

    def form(data: Any, _: Any) -> Form:
        values = dict(data) if isinstance(data, Mapping) else {}
        tag = values.get("base")
        if not isinstance(tag, str) or tag not in BASES:
            raise CraftError(f"No base of a shape is called {str(tag)[:40]!r}.", field="form")
        modifiers = made.structure(values.pop("modifiers", None) or [], tuple[Modifier, ...])
        return Form(made.structure(values, base), modifiers)

    def form_json(shape: Form | Solid) -> dict[str, Any]:
        whole = as_form(shape)
        modifiers = [made.unstructure(m) for m in whole.modifiers]
        return {**made.unstructure(whole.base, base), "modifiers": modifiers}

    for either in (Form, Form | Solid):
        made.register_structure_hook(either, form)
        made.register_unstructure_hook(either, form_json)
    named = override(rename="form")
    made.register_structure_hook(Recipe, make_dict_structure_fn(Recipe, made, shape=named))
    made.register_unstructure_hook(Recipe, make_dict_unstructure_fn(Recipe, made, shape=named))
    return made


def _modifier(data: Any) -> Modifier:
    if not isinstance(data, Mapping) or not isinstance(data.get("kind"), str):
        raise CraftError("A modifier has a kind.", field="modifiers")
    return Modifier(data["kind"], {k: _knob(v) for k, v in data.items() if k != "kind"})


def _knob(value: Any) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise CraftError("A modifier's values are numbers.", field="modifiers")
    return float(value)


_CONVERTER = shape_converter()


def form_json(form: Form) -> dict[str, Any]:
    """A form as plain JSON values: its base's fields beside their tag `base`, and its modifiers."""
    return dict(_CONVERTER.unstructure(form))


def form_of(data: object) -> Form:
    """The form of plain JSON values; CraftError when they make none."""
    return structured(_CONVERTER, data, Form, "The shape", placed=False)


def mesh_of(data: object) -> TriangleMesh:
    """The packed skin of plain JSON values; CraftError when they make none."""
    return structured(_CONVERTER, data, TriangleMesh, "The stored shape", placed=False)


def rounds_json(recipe: Recipe) -> dict[str, Any]:
    """A recipe of rounds as plain JSON values, with `format` and `kind`."""
    return {"format": FORMAT, "kind": ROUNDS, **_CONVERTER.unstructure(recipe)}


def upgraded_recipe(data: Mapping[str, Any]) -> dict[str, Any]:
    """The plain JSON values of a recipe of any format in the newest one; nothing else is looked at."""
    return upgraded(data, STEPS, "The recipe of the shape")


def rounds_of(data: Mapping[str, Any]) -> Recipe:
    """The recipe of plain JSON values of any format; CraftError when they make none."""
    values = {k: v for k, v in upgraded_recipe(data).items() if k not in ("format", "kind")}
    return structured(_CONVERTER, values, Recipe, "The recipe of the shape", placed=False)
