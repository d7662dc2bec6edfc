"""The stored form: a pattern as plain JSON values and back; see docs/file-format.md.

Schema 1, which knew fewer instructions, is still read: what it left out has one meaning.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import astuple, fields
from functools import cache
from typing import Any

from cattrs import Converter, override
from cattrs.gen import make_dict_structure_fn, make_dict_unstructure_fn

from craft.errors import CraftError
from craft.formats import strict_converter, structured
from craft.rounds.pattern.instructions import (
    Again,
    Chain,
    Cluster,
    Colour,
    FromHook,
    Instruction,
    Join,
    Leave,
    Onto,
    Repeat,
    Same,
    Shift,
    Skip,
    Spur,
    Start,
    Turn,
    Unread,
    Work,
)
from craft.rounds.pattern.parts import Item, Note, Part, Pattern, Round, Section, Step
from craft.rounds.pattern.threads import SewnThread

SCHEMA_VERSION = 2
"""Version of the JSON form."""

_OLDER = (1,)


INSTRUCTIONS: Mapping[str, type[Instruction]] = {
    "start": Start,
    "work": Work,
    "repeat": Repeat,
    "cluster": Cluster,
    "same": Same,
    "skip": Skip,
    "chain": Chain,
    "from-hook": FromHook,
    "spur": Spur,
    "join": Join,
    "turn": Turn,
    "leave": Leave,
    "shift": Shift,
    "onto": Onto,
    "again": Again,
    "colour": Colour,
    "unread": Unread,
}
"""What an instruction is called in `do`."""

ITEMS: Mapping[str, type[Item]] = {"round": Round, "step": Step, "note": Note, "colour": Colour, "section": Section}
"""What an item of a part is called in `item`."""


_ENDS: Any = tuple[int, int, int, int, float]


def _thread(ends: tuple[int, int, int, int, float]) -> SewnThread:
    return SewnThread(*ends)


def _tagged(made: Converter, union: Any, tag: str, kinds: Mapping[str, type[Any]], says: str) -> None:
    """Members of a union carry their name beside their fields. says: the refusal of a name that is none.

    Instructions hold instructions, so that each is looked up when it is met, not when the converter is made.
    """
    names = {kind: name for name, kind in kinds.items()}

    def structure(data: Any, _: Any) -> Any:
        if not isinstance(data, Mapping):
            raise CraftError(says.format(str(data)[:40]))
        values = dict(data)
        name = values.pop(tag, None)
        if not isinstance(name, str) or name not in kinds:
            raise CraftError(says.format(str(name)[:40]))
        return made.structure(values, kinds[name])

    made.register_structure_hook(union, structure)
    made.register_unstructure_hook(union, lambda value: {tag: names[type(value)], **made.unstructure(value)})


@cache
def _converter() -> Converter:
    made = strict_converter()
    made.register_structure_hook(SewnThread, lambda data, _: _thread(made.structure(data, _ENDS)))
    made.register_unstructure_hook(SewnThread, lambda thread: list(astuple(thread)))
    _tagged(made, Instruction, "do", INSTRUCTIONS, "No instruction is called '{}'.")
    _tagged(made, Item, "item", ITEMS, "A part holds no '{}'.")
    for kind in {*INSTRUCTIONS.values(), *ITEMS.values(), Part}:
        # Where something stood in a text belongs to that text.
        spans: dict[str, Any] = {f.name: override(omit=True) for f in fields(kind) if f.name.endswith("span")}
        if kind is Step:
            spans["threads"] = spans["coil"] = override(omit_if_default=True)
        made.register_structure_hook(kind, make_dict_structure_fn(kind, made, **spans))
        made.register_unstructure_hook(kind, make_dict_unstructure_fn(kind, made, **spans))
    return made


def to_json(pattern: Pattern) -> dict[str, Any]:
    """The pattern as plain JSON values, with `schema`."""
    return {"schema": SCHEMA_VERSION, **_converter().unstructure(pattern)}


def from_json(data: object) -> Pattern:
    """The pattern of plain JSON values; CraftError names what is wrong with them, and where."""
    if not isinstance(data, Mapping) or data.get("schema") not in (SCHEMA_VERSION, *_OLDER):
        raise CraftError(f"This is no Spirrel pattern of schema {SCHEMA_VERSION}.")
    values = {k: v for k, v in data.items() if k != "schema"}
    try:
        return structured(_converter(), values, Pattern, "The pattern file", placed=False)
    except RecursionError:
        raise CraftError("The pattern file is damaged: repeats lie too deep in each other.") from None
