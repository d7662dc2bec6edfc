"""Recipes on the wire: forms by their base, modifiers by their kind, as docs/file-format.md keeps them."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field, TypeAdapter, create_model

from craft.fitting.panels import PanelRecipe
from craft.shape.drafting import Recipe, SewnThrough
from craft.shape.stored import FORMAT, PANEL, ROUNDS, form_json, upgraded_recipe
from craft.shape.target import BASES, MODIFIERS, SOLIDS, Form, ModifierKind, PackedMesh, Solid, TriangleMesh
from studio.wire import schema_of

ThreadNumbers = tuple[float, float, float, float, float]
"""A thread: where it begins and ends (along, around, from 0 to 1), and its length in mm."""

_INSTEAD: dict[Any, Any] = {
    (Solid, "kind"): Literal[tuple(SOLIDS)],
    SewnThrough: ThreadNumbers,
    TriangleMesh: schema_of(PackedMesh),
}


def _modifier(kind: ModifierKind) -> type[Schema]:
    fields: dict[str, Any] = {name: (float, knob.usual) for name, knob in kind.knobs.items()}
    fields["kind"] = (Literal[kind.key], ...)
    name = f"{kind.title.replace(' ', '')}Modifier"
    return create_model(name, __base__=Schema, __doc__=f"For {kind.use}.", **fields)


_MODIFIER: Any = Annotated[reduce(or_, map(_modifier, MODIFIERS.values())), Field(discriminator="kind")]


def _form(tag: str) -> Any:
    base = PackedMesh if tag == "mesh" else BASES[tag]
    more: dict[str, Any] = {"modifiers": (list[_MODIFIER], [])}
    return schema_of(base, tags={"base": tag}, more=more, instead=_INSTEAD)


class SolidForm(_form("solid")):  # type: ignore[misc]
    """A solid, and what is done to it."""


class TracedForm(_form("traced")):  # type: ignore[misc]
    """A traced outline, and what is done to it."""


class StackForm(_form("stack")):  # type: ignore[misc]
    """Solids on each other, and what is done to them."""


class BoxForm(_form("box")):  # type: ignore[misc]
    """A box, and what is done to it."""


class MeshForm(_form("mesh")):  # type: ignore[misc]
    """A mesh, and what is done to it."""


AnyForm = Annotated[SolidForm | TracedForm | StackForm | BoxForm | MeshForm, Field(discriminator="base")]
"""A shape, told from others by its base."""

_ANY_FORM: TypeAdapter[AnyForm] = TypeAdapter(AnyForm)


def form_out(form: Form) -> AnyForm:
    """A shape to go over the wire."""
    return _ANY_FORM.validate_python(form_json(form))


def _recipe(recipe: type, kind: str) -> Any:
    return schema_of(
        recipe,
        tags={"kind": kind},
        more={"format": (Literal[FORMAT], FORMAT)},
        renamed={"shape": "form"},
        instead={**_INSTEAD, Form: AnyForm, Form | Solid: AnyForm},
    )


class RoundsRecipe(_recipe(Recipe, ROUNDS)):  # type: ignore[misc]
    """How a part was drafted in rounds."""


class FlatRecipe(_recipe(PanelRecipe, PANEL)):  # type: ignore[misc]
    """How a part was drafted as a flat panel."""


AnyRecipe = Annotated[RoundsRecipe | FlatRecipe, Field(discriminator="kind")]
"""How a part was drafted, told by its kind."""

_ANY_RECIPE: TypeAdapter[AnyRecipe] = TypeAdapter(AnyRecipe)


def recipe_out(kept: dict[str, Any]) -> AnyRecipe:
    """A recipe as it was kept, of any format, to go over the wire."""
    return _ANY_RECIPE.validate_python(upgraded_recipe(kept))
