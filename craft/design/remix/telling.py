"""Changes in words, for people."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from craft.design.design import Design
from craft.design.remix.changes import WHOLE, Change, Kind

MOST_SAID = 60
"""Code points of a text that is quoted in a sentence."""

_PAGES = {
    "name": "Name", "terms": "Terms", "hand": "Hand", "posture": "Posture", "sources": "Sources", "gauge": "Gauge",
    "eyes": "Eyes", "brief": "Brief", "printed": "Booklet", "parts": "Parts", "joins": "Joins", "steps": "Steps",
    "marks": "Face", "sizes": "Sizes", "yarns": "Yarns",
}  # fmt: skip

_FIELDS = {
    "hook_mm": "hook, mm", "stitch_mm": "stitch width, mm", "round_mm": "round height, mm", "lean": "lean a round",
    "yarn_per_stitch_mm": "yarn a stitch, mm", "source": "comes from", "mm": "across, mm", "between": "stitches between",
    "height_mm": "height, mm", "make": "number to make", "own_hook": "hook of its own",
    "colour": "yarn it begins with", "count_table": "table of counts",
    "charts": "charts", "order": "order of parts",
    "skein_m": "metres a skein", "skein_g": "grams a skein", "recipe": "shape", "drafted": "rounds as they were drafted",
    "host": "sits on", "tilt": "tilt, degrees", "turn": "turn, degrees",
    "bends": "bends of the wire", "wide": "stitches covered", "paired": "on both sides",
    "before_closing": "before closing", "part": "which part", "film": "film clip", "to": "line to",
}  # fmt: skip

_ONE = {
    "parts": "part", "joins": "join", "steps": "step", "marks": "mark of the face", "sizes": "size", "yarns": "yarn",
}  # fmt: skip


def said(change: Change, base: Design, new: Design) -> str:
    """A change as a sentence. base, new: the designs that it lies between, for the names of their parts."""
    names = {p.key: p.name for p in (*new.parts, *base.parts)}
    subject = _subject(change, base, new, names)
    match change.kind:
        case Kind.ADDED:
            return f"{subject}: new."
        case Kind.REMOVED:
            return f"{subject}: taken out."
        case Kind.MOVED:
            return f"{subject}: stands elsewhere in the list."
        case Kind.SHAPE:
            return f"{subject}: drafted otherwise, with all its rounds."
        case Kind.KEYS:
            return f"{_PAGES[change.page]}: kept under other names; nothing that is worked differs."
        case Kind.ROUNDS:
            return f"{subject}: {_lines(change)}"
    field = f", {_field(change.field)}" if change.field else ""
    if change.key == WHOLE or _long(change.before) or _long(change.after):
        return f"{subject}{field}: changed."
    return f"{subject}{field}: {_value(change.before, names)} → {_value(change.after, names)}."


def _lines(change: Change) -> str:
    gone, came = len([t for t in change.before if t.strip()]), len([t for t in change.after if t.strip()])
    if not gone and not came:
        return "its rounds have other numbers." if change.numbers else "an empty line."
    if not gone:
        return f"{_many(came)} more."
    if not came:
        return f"{_many(gone)} taken out."
    return f"{_many(gone)} written otherwise." if gone == came else f"{_many(came)} in place of {_many(gone)}."


def _many(n: int) -> str:
    return "1 line" if n == 1 else f"{n} lines"


def _field(name: str) -> str:
    return _FIELDS.get(name, name.replace("_", " "))


def _subject(change: Change, base: Design, new: Design, names: Mapping[str, str]) -> str:
    if change.page == "parts" and change.key != WHOLE:
        return change.part or change.key
    if not change.key or change.key == WHOLE:
        return _PAGES[change.page]
    member = next((m for d in (base, new) for m in getattr(d, change.page) if _key(m) == change.key), None)
    what = _ONE[change.page]
    if change.page == "joins" and member is not None:
        return f"{names.get(member.part, 'a part')} on {names.get(member.host, 'a part')}"
    if change.page == "steps" and member is not None:
        words = member.text or names.get(member.part or "", "")
        return f"Step “{_short(words)}”" if words else "A step"
    name = getattr(member, "name", "")
    return f"{what.capitalize()} {name}" if name else f"A {what}"


def _key(member: Any) -> str:
    return str(getattr(member, "key", None) or member.name)


def _long(value: Any) -> bool:
    return isinstance(value, list) or (isinstance(value, dict) and "round" not in value)


def _value(value: Any, names: Mapping[str, str]) -> str:
    if value is None or value == "":
        return "none"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:g}"
    if isinstance(value, list | tuple):
        return ", ".join(_value(item, names) for item in value) or "none"
    if isinstance(value, dict) and "degrees" in value:
        return f"{value['degrees']:g}° to the {value['towards']} at R{value['round']}"
    if isinstance(value, dict):
        stitch = f", {value['stitch']:g} stitches from the front" if value.get("stitch") else ""
        return f"R{value['round']} of {names.get(value['on'], 'a part')}{stitch}"
    return _short(names.get(value, value) if isinstance(value, str) else str(value))


def _short(text: str) -> str:
    line = " ".join(text.split())
    return line if len(line) <= MOST_SAID else f"{line[: MOST_SAID - 1]}…"
