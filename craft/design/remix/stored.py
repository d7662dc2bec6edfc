"""A difference as plain JSON values and back: docs/schemas/diff.schema.json."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from craft.design.remix.changes import Change, Difference, Kind
from craft.errors import CraftError
from craft.formats import upgraded

KIND = "difference"

MOST_JSON = 40_000_000
"""Code points of a difference's file."""

_FIELDS = ("kind", "page", "key", "field", "before", "after", "at", "behind", "numbers", "part")


def to_json(difference: Difference) -> dict[str, Any]:
    """The difference as plain JSON values, with `format` and `kind`."""
    changes = [
        {"kind": c.kind.value, **{name: getattr(c, name) for name in _FIELDS if name != "kind"}}
        for c in difference.changes
    ]
    return {"format": 1, "kind": KIND, "base": difference.base, "changes": changes}


def from_json(data: object) -> Difference:
    """The difference of plain JSON values; CraftError names what is wrong. What is said for people beside it is left."""
    if not isinstance(data, Mapping) or data.get("kind") != KIND:
        raise CraftError("This is no difference between designs.")
    values = upgraded(data, (), "This difference")
    changes = values.get("changes")
    if not isinstance(changes, list):
        raise CraftError("The difference is damaged: changes: is no list.")
    return Difference(str(values.get("base", "")), tuple(_change(c, at) for at, c in enumerate(changes)))


def _change(data: object, at: int) -> Change:
    if not isinstance(data, Mapping):
        raise CraftError(f"The difference is damaged: changes[{at}]: is not what stands there.")
    try:
        kind = Kind(str(data.get("kind")))
    except ValueError:
        raise CraftError(f"The difference is damaged: changes[{at}].kind: there is no such change.") from None
    rest = {name: data[name] for name in _FIELDS if name in data and name != "kind"}
    for name, fit in (("page", str), ("key", str), ("field", str), ("numbers", bool)):
        if name in rest and not isinstance(rest[name], fit):
            raise CraftError(f"The difference is damaged: changes[{at}].{name}: is not what stands there.")
    line, behind = rest.get("at"), rest.get("behind")
    if line is not None and (isinstance(line, bool) or not isinstance(line, int)):
        raise CraftError(f"The difference is damaged: changes[{at}].at: is no whole number.")
    if behind is not None and not isinstance(behind, str):
        raise CraftError(f"The difference is damaged: changes[{at}].behind: is no text.")
    if "page" not in rest:
        raise CraftError(f"The difference is damaged: changes[{at}].page: is missing.")
    return Change(kind, **rest)


def read_difference(text: str) -> Difference:
    """The difference of a file's text; CraftError when it is none."""
    if len(text) > MOST_JSON:
        raise CraftError("That file is larger than any difference.")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise CraftError("This is no readable JSON.") from None
    return from_json(data)
