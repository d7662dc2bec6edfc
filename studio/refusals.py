"""What is wrong with a value that was sent, in words: no library's phrase and no pattern of ours reaches anybody."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from itertools import pairwise
from typing import Any

Context = Mapping[str, Any]


def _number(value: Any) -> str:
    return f"{value:,g}" if isinstance(value, int | float) else str(value)


_PATTERNS = {
    "#": "A colour is written like #7a5238.",
    r"[^\W\d_]": "It begins with a letter; then letters, digits, blanks, hyphens and apostrophes.",
    "a-z0-9": "This is no key of a part or step.",
}
"""What a pattern of ours asks for, by a piece of it."""


def _pattern(context: Context) -> str:
    pattern = str(context.get("pattern", ""))
    return next((said for piece, said in _PATTERNS.items() if piece in pattern), "It is not written as it should be.")


_SAID: dict[str, Callable[[Context], str]] = {
    "missing": lambda c: "It is missing.",
    "extra_forbidden": lambda c: "Nobody knows what this is.",
    "string_type": lambda c: "It is no text.",
    "string_too_short": lambda c: (
        "It is empty." if c["min_length"] == 1 else f"It has at least {c['min_length']} signs."
    ),
    "string_too_long": lambda c: f"It has at most {_number(c['max_length'])} signs.",
    "string_pattern_mismatch": _pattern,
    "int_type": lambda c: "It is no whole number.",
    "int_parsing": lambda c: "It is no whole number.",
    "int_parsing_size": lambda c: "The number is too large.",
    "int_from_float": lambda c: "It is no whole number.",
    "float_type": lambda c: "It is no number.",
    "float_parsing": lambda c: "It is no number.",
    "finite_number": lambda c: "It is no finite number.",
    "bool_type": lambda c: "It is neither true nor false.",
    "bool_parsing": lambda c: "It is neither true nor false.",
    "greater_than": lambda c: f"It must be more than {_number(c['gt'])}.",
    "greater_than_equal": lambda c: f"It must be at least {_number(c['ge'])}.",
    "less_than": lambda c: f"It must be less than {_number(c['lt'])}.",
    "less_than_equal": lambda c: f"It must be at most {_number(c['le'])}.",
    "literal_error": lambda c: f"It is none of {c['expected']}.",
    "enum": lambda c: f"It is none of {c['expected']}.",
    "too_long": lambda c: f"There are at most {_number(c['max_length'])} of these.",
    "too_short": lambda c: f"There is at least {_number(c['min_length'])} of these.",
    "list_type": lambda c: "It is no list.",
    "tuple_type": lambda c: "It is no list.",
    "dict_type": lambda c: "It is no object.",
    "model_type": lambda c: "It is no object.",
    "model_attributes_type": lambda c: "It is no object.",
    "uuid_parsing": lambda c: "This is no id.",
    "uuid_type": lambda c: "This is no id.",
    "date_from_datetime_parsing": lambda c: "A day is written like 2026-10-02.",
    "date_parsing": lambda c: "A day is written like 2026-10-02.",
    "date_type": lambda c: "A day is written like 2026-10-02.",
    "date_from_datetime_inexact": lambda c: "A day is written like 2026-10-02.",
    "union_tag_invalid": lambda c: f"Nobody knows the kind {str(c['tag'])[:40]!r}; there are {c['expected_tags']}.",
    "union_tag_not_found": lambda c: "It does not say of which kind it is.",
}


def sentence_of(error: Mapping[str, Any]) -> str:
    """One error of a validation, as a sentence."""
    context = error.get("ctx") or {}
    if error["type"] == "value_error":  # a sentence of the craft's own
        return str(context.get("error") or error["msg"]).removeprefix("Value error, ")
    said = _SAID.get(str(error["type"]))
    return said(context) if said else "It is not written as it should be."


_OUTER = ("body", "payload", "query", "path", "form", "file")
_TOLD_BY_KIND = ("recipe", "form", "modifiers")
"""Fields that hold one of several kinds: what follows them is which kind was tried, and no field."""
_KINDS = frozenset(
    [
        *("rounds", "panel"),
        *("solid", "traced", "stack", "box", "mesh"),
        *("bend", "taper", "flatten", "square", "belly", "brow", "ridge", "dent"),
    ]
)


def field_of(error: Mapping[str, Any]) -> str:
    """Which value of what was sent is meant: 'steps.0.round'."""
    loc = list(error["loc"])
    while loc and loc[0] in _OUTER:
        loc.pop(0)
    # A page of notes: its name, then `data`, then the field of the page.
    if len(loc) > 2 and loc[1] == "data":
        loc = loc[2:]
    named = [(at, p) for at, p in enumerate(loc) if not isinstance(p, int)]
    kinds = {at for (_, held), (at, p) in pairwise(named) if held in _TOLD_BY_KIND and p in _KINDS}
    return ".".join(str(p) for at, p in enumerate(loc) if at not in kinds)


def placed_sentence(error: Mapping[str, Any]) -> str:
    """One error with the value it is about, as a sentence."""
    field = field_of(error)
    return f"{field}: {sentence_of(error)}" if field else sentence_of(error)
