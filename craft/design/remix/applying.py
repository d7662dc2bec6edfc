"""Changes put into a design."""

from __future__ import annotations

import copy
from collections.abc import Iterable, Sequence
from typing import Any

from craft.design.design import Design
from craft.design.remix.changes import FIELDS, KEYED, PLAIN, WHOLE, Change, Difference, Kind
from craft.design.remix.likeness import Json, renamed
from craft.design.stored import from_json, to_json
from craft.errors import CraftError, require
from craft.rounds.stitches import Terms
from craft.text.reshaping import renumbered


def applied(difference: Difference, base: Design) -> Design:
    """`base` with all changes. CraftError names the first thing that is not in it as the difference found it."""
    made = copy.deepcopy(to_json(base))
    for change in difference.changes:
        _expect(made, change)
    return from_json(put_into(made, difference.changes))


def put_into(design: Json, changes: Sequence[Change]) -> Json:
    """A design's JSON, which is changed, with all changes: fields, then rounds, then what goes, comes and moves, and
    other keys at last."""
    terms = Terms(design["terms"])
    rounds = [c for c in changes if c.kind is Kind.ROUNDS]
    for key in dict.fromkeys(c.key for c in rounds):
        _rounds(design, key, [c for c in rounds if c.key == key], terms)
    for change in changes:
        if change.kind is Kind.CHANGED:
            _field(design, change)
        elif change.kind is Kind.SHAPE:
            _member(design, change).update(change.after)
    for page in KEYED:
        _order(design, page, [c for c in changes if c.page == page])
    names = {c.page: c.after for c in changes if c.kind is Kind.KEYS}
    return renamed(design, names) if names else design


def _gone(change: Change) -> CraftError:
    what = change.part or change.key or change.page
    return CraftError(
        f"{what}: it is not there as the difference found it; it was made for another base.", field="base"
    )


def _members(design: Json, change: Change) -> list[Json]:
    return list(design[change.page])


def _member(design: Json, change: Change) -> Json:
    by = KEYED.get(change.page, "")
    found: Json | None = next((m for m in design[change.page] if by and m[by] == change.key), None)
    if found is None:
        raise _gone(change)
    return found


def _expect(design: Json, change: Change) -> None:
    """Refuse a change of something that is not as it was."""
    match change.kind:
        case Kind.CHANGED:
            holder, name = _holder(design, change)
            fits = name in holder and holder[name] == change.before
        case Kind.REMOVED:
            fits = _member(design, change) == change.before
        case Kind.MOVED:
            fits = bool(_member(design, change))
        case Kind.SHAPE:
            was = _member(design, change)
            fits = all(was[name] == value for name, value in change.before.items())
        case Kind.ROUNDS:
            a, z = change.span
            fits = _member(design, change)["text"].split("\n")[a:z] == change.before
        case Kind.ADDED:
            by = KEYED[change.page]
            fits = isinstance(change.after, dict) and all(m[by] != change.key for m in design[change.page])
        case Kind.KEYS:
            fits = change.page in KEYED
    if not fits:
        raise _gone(change)


def _holder(design: Json, change: Change) -> tuple[Json, str]:
    """The object that a changed field is of, and the field's name."""
    if change.page in PLAIN or change.key == WHOLE:
        return design, change.page
    if change.page in FIELDS:
        return design[change.page], change.field
    return _member(design, change), change.field


def _field(design: Json, change: Change) -> None:
    holder, name = _holder(design, change)
    require(name in holder, f"A design has no {name!r} there.", field="field")
    holder[name] = change.after


def _rounds(design: Json, key: str, changes: Sequence[Change], terms: Terms) -> None:
    member = _member(design, changes[0])
    lines = member["text"].split("\n")
    for change in sorted(changes, key=lambda c: c.span, reverse=True):
        a, z = change.span
        lines[a:z] = change.after
    text = "\n".join(lines)
    member["text"] = renumbered(text, terms) if any(c.numbers for c in changes) else text


def _order(design: Json, page: str, changes: Sequence[Change]) -> None:
    """Members that go, come and move."""
    by = KEYED[page]
    gone = {c.key for c in changes if c.kind is Kind.REMOVED}
    moving = {c.key: c for c in changes if c.kind in (Kind.ADDED, Kind.MOVED)}
    if not gone and not moving:
        return
    there = {m[by]: m for m in design[page]}
    left = [m for m in design[page] if m[by] not in gone and m[by] not in moving]
    for key, change in moving.items():
        member = change.after if change.kind is Kind.ADDED else there.get(key)
        if member is not None:
            left.insert(_place(left, by, change.behind), member)
    design[page] = left


def _place(members: Iterable[Json], by: str, behind: str | None) -> int:
    """Behind which number of members; last where the one it stood behind is gone."""
    keys: list[Any] = [m[by] for m in members]
    if behind is None:
        return 0
    return keys.index(behind) + 1 if behind in keys else len(keys)
