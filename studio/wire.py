"""Types on the wire made of the craft's own values, so that a field of a value has one place.

What a schema made here lets through has the right fields of the right kinds; the craft then reads it and keeps its rules.
"""

from __future__ import annotations

import types
from collections.abc import Mapping
from dataclasses import MISSING, Field, asdict, fields, is_dataclass
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel, ConfigDict, create_model


class Strict(BaseModel):
    """Fields that it does not have are refused, not dropped."""

    model_config = ConfigDict(extra="forbid", validate_default=True)


Instead = Mapping[Any, Any]
"""Types that go over the wire as another type."""


def schema_of(
    value: Any,
    *,
    name: str | None = None,
    tags: Mapping[str, Any] | None = None,
    more: Mapping[str, Any] | None = None,
    renamed: Mapping[str, str] | None = None,
    instead: Instead | None = None,
) -> Any:
    """The schema of a dataclass: its fields, their kinds and defaults; nothing else is taken.

    tags: fields more with one value each, by which a schema is told from others. more: others, with their defaults.
    renamed: fields with another name on the wire. instead: for a type (or a pair of a dataclass and a field's name)
    what goes over the wire for it.
    """
    hints = get_type_hints(value)
    made: dict[str, Any] = {tag: (Literal[said], ...) for tag, said in (tags or {}).items()}
    for one in fields(value):
        kind = (instead or {}).get((value, one.name)) or wired(hints[one.name], instead or {})
        made[(renamed or {}).get(one.name, one.name)] = (kind, _default(one))
    return create_model(name or value.__name__, __base__=Strict, __doc__=value.__doc__, **made, **(more or {}))


def _default(one: Field[Any]) -> Any:
    if one.default is not MISSING:
        if isinstance(one.default, tuple):
            return list(one.default)
        return asdict(one.default) if is_dataclass(one.default) and not isinstance(one.default, type) else one.default
    return ...


def wired(kind: Any, instead: Instead) -> Any:
    """The type that goes over the wire for a type of the craft's."""
    if kind in instead:
        return instead[kind]
    if is_dataclass(kind):
        return schema_of(kind, instead=instead)
    origin, inner = get_origin(kind), get_args(kind)
    if origin in (Union, types.UnionType):
        return Union[tuple(wired(k, instead) for k in inner)]  # noqa: UP007 - of a tuple that is made here
    if origin is tuple and len(inner) == 2 and inner[1] is Ellipsis:
        return list[wired(inner[0], instead)]  # type: ignore[misc]
    if origin is tuple:
        return tuple.__class_getitem__(tuple(wired(k, instead) for k in inner))
    return kind
