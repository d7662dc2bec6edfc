"""The difference of two designs. `applied(difference(a, b), a) == b`; of a design and itself it is empty."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from difflib import SequenceMatcher
from typing import Any

from craft.design.design import Design
from craft.design.remix.changes import FIELDS, KEYED, PLAIN, WHOLE, Change, Difference, Kind
from craft.design.remix.likeness import Json, names_like, renamed, turned
from craft.design.stored import to_json
from craft.rounds.stitches import Terms
from craft.text.reshaping import numberless, renumbered


def difference(a: Design, b: Design) -> Difference:
    """What has to be changed in `a` to have `b`."""
    base, new = to_json(a), to_json(b)
    names = names_like(new, base)
    new = renamed(new, names)
    changes = [*_plain(base, new), *_lists(base, new, a.terms)]
    changes += [Change(Kind.KEYS, page, after=back) for page, back in turned(names).items()]
    return Difference(a.name, tuple(changes))


def _plain(base: Json, new: Json) -> Iterator[Change]:
    for page in PLAIN:
        if base[page] != new[page]:
            yield Change(Kind.CHANGED, page, before=base[page], after=new[page])
    for page in FIELDS:
        yield from _fields(base[page], new[page], page)


def _fields(before: Json, after: Json, page: str, key: str = "", leave: Sequence[str] = ()) -> Iterator[Change]:
    part = before["name"] if page == "parts" else None
    for name, value in after.items():
        if name not in leave and before[name] != value:
            yield Change(Kind.CHANGED, page, key, name, before[name], value, part=part)


def _lists(base: Json, new: Json, terms: Terms) -> Iterator[Change]:
    for page, by in KEYED.items():
        before, after = base[page], new[page]
        if before == after:
            continue
        if not _distinct(before, by) or not _distinct(after, by):
            yield Change(Kind.CHANGED, page, WHOLE, before=before, after=after)
            continue
        yield from _members(page, {m[by]: m for m in before}, {m[by]: m for m in after}, terms)


def _distinct(members: Sequence[Json], by: str) -> bool:
    keys = [m[by] for m in members]
    return len(set(keys)) == len(keys) and all(k and k != WHOLE for k in keys)


def _members(page: str, before: Mapping[str, Json], after: Mapping[str, Json], terms: Terms) -> Iterator[Change]:
    for key, member in before.items():
        if key not in after:
            yield Change(Kind.REMOVED, page, key, before=member, part=_name(page, member))
    stays = _in_order([k for k in before if k in after], [k for k in after if k in before])
    behind = None
    for key, member in after.items():
        if key not in before:
            yield Change(Kind.ADDED, page, key, after=member, behind=behind, part=_name(page, member))
        elif key not in stays:
            yield Change(Kind.MOVED, page, key, behind=behind, part=_name(page, member))
        behind = key
    for key, member in after.items():
        if key in before and before[key] != member:
            yield from _member(page, key, before[key], member, terms)


def _name(page: str, member: Json) -> str | None:
    return member["name"] if page == "parts" else None


def _in_order(before: list[str], after: list[str]) -> set[str]:
    """The members that need not move."""
    blocks = SequenceMatcher(None, before, after, autojunk=False).get_matching_blocks()
    return {key for b in blocks for key in before[b.a : b.a + b.size]}


def _member(page: str, key: str, before: Json, after: Json, terms: Terms) -> Iterator[Change]:
    """Changes of one member's fields; of a part, of its rounds."""
    if page != "parts":
        yield from _fields(before, after, page, key)
        return
    shape = ("text", "recipe", "drafted")
    yield from _fields(before, after, page, key, leave=shape)
    if after["drafted"] and any(before[f] != after[f] for f in shape):
        was, will = ({f: m[f] for f in shape} for m in (before, after))
        yield Change(Kind.SHAPE, page, key, "text", was, will, part=before["name"])
        return
    yield from _fields(before, after, page, key, leave=tuple(f for f in after if f not in ("recipe", "drafted")))
    if before["text"] != after["text"]:
        yield from rounds_changed(before["text"], after["text"], terms, key, before["name"])


def rounds_changed(before: str, after: str, terms: Terms, key: str, part: str) -> list[Change]:
    """The runs of lines that differ between two texts of a part. Rounds that only have other numbers are the same, where
    numbering in order gives those numbers."""
    old, new = before.split("\n"), after.split("\n")
    hunks = _hunks(numberless(before, terms), numberless(after, terms))
    lines = list(old)
    for a, z, first, last in reversed(hunks):
        lines[a:z] = new[first:last]
    numbers = renumbered("\n".join(lines), terms) == after
    if not numbers:
        hunks = _hunks(old, new)
    elif not hunks:
        hunks = [(0, 0, 0, 0)]
    return [
        Change(Kind.ROUNDS, "parts", key, "text", old[a:z], new[first:last], at=a, numbers=numbers, part=part)
        for a, z, first, last in hunks
    ]


def _hunks(old: Sequence[Any], new: Sequence[Any]) -> list[tuple[int, int, int, int]]:
    found = SequenceMatcher(None, old, new, autojunk=False).get_opcodes()
    return [(a, z, first, last) for tag, a, z, first, last in found if tag != "equal"]
