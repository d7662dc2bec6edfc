"""Which members of two designs are the same ones: by key, else by what they are called."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from craft.design.remix.putting_in import free_key

Json = dict[str, Any]
Names = Mapping[str, Mapping[str, str]]
"""Of each list of a design, other keys by the keys that its members have."""

_BY_PART = ("part", "on", "host", "fits")
"""Fields of joins, steps, sizes and places that name a part."""


def names_like(design: Json, like: Json) -> dict[str, dict[str, str]]:
    """Keys for the members of `design` under which they are those of `like`. Every key gets a different one."""
    parts = _paired(design["parts"], like["parts"], lambda p: p["name"])
    mentioned = {key for page in ("joins", "steps", "sizes", "marks", "eyes") for key in _parts_named(design[page])}
    names = {"parts": _one_to_one(parts, _keys(design["parts"], mentioned), _keys(like["parts"]))}
    for page, said in _SAID.items():
        known = names["parts"]
        pairs = _paired(
            [_renamed(member, known) for member in design[page]],
            like[page],
            said,
            keys=[m["key"] for m in design[page]],
        )
        mention = {s["join"] for s in design["steps"] if s["join"]} if page == "joins" else set()
        names[page] = _one_to_one(pairs, _keys(design[page], mention), _keys(like[page]))
    return {page: {a: b for a, b in found.items() if a != b} for page, found in names.items()}


_SAID = {
    "joins": lambda j: (j["part"], j["host"]),
    "steps": lambda s: (s["text"], s["part"]),
    "marks": lambda m: m["name"],
    "sizes": lambda z: z["name"],
}


def renamed(design: Json, names: Names) -> Json:
    """The design with other keys, wherever they stand."""
    parts, joins = names.get("parts", {}), names.get("joins", {})
    out = {page: _renamed(value, parts) if page != "parts" else value for page, value in design.items()}
    for page, found in names.items():
        out[page] = [{**m, "key": found.get(m["key"], m["key"])} for m in out[page]]
    out["steps"] = [{**s, "join": joins.get(s["join"], s["join"])} for s in out["steps"]]
    return out


def turned(names: Names) -> dict[str, dict[str, str]]:
    """The way back."""
    return {page: {b: a for a, b in found.items()} for page, found in names.items() if found}


def _renamed(value: Any, parts: Mapping[str, str]) -> Any:
    """A value in which parts have other keys."""
    if isinstance(value, list):
        return [_renamed(v, parts) for v in value]
    if isinstance(value, dict):
        return {
            k: parts.get(v, v) if k in _BY_PART and isinstance(v, str) else _renamed(v, parts) for k, v in value.items()
        }
    return value


def _parts_named(value: Any) -> Iterable[str]:
    if isinstance(value, list):
        for v in value:
            yield from _parts_named(v)
    elif isinstance(value, dict):
        for k, v in value.items():
            if k in _BY_PART and isinstance(v, str):
                yield v
            else:
                yield from _parts_named(v)


def _keys(members: Sequence[Json], more: Iterable[str] = ()) -> list[str]:
    return list(dict.fromkeys([*(m["key"] for m in members), *more]))


def _paired(mine: Sequence[Json], theirs: Sequence[Json], said: Any, keys: Sequence[str] = ()) -> dict[str, str]:
    """Keys of members that are the same: those of one key and one name, then of one name, then of one key."""
    own = list(keys) or [m["key"] for m in mine]
    a = {k: said(m) for k, m in zip(own, mine, strict=True)}
    b = {m["key"]: said(m) for m in theirs}
    found = {k: k for k in a if k in b and a[k] == b[k]}
    for key, name in a.items():
        alike = [k for k, n in b.items() if n == name and k not in found.values()]
        if key not in found and len(alike) == 1 and sum(n == name for n in a.values()) == 1:
            found[key] = alike[0]
    taken = set(found.values())
    return found | {k: k for k in a if k not in found and k in b and k not in taken}


def _one_to_one(pairs: Mapping[str, str], keys: Sequence[str], taken: Sequence[str]) -> dict[str, str]:
    """The pairs, and for every other key itself, or a fresh one where that is another member's now."""
    given = set(pairs.values())
    out = dict(pairs) | {key: key for key in keys if key not in pairs and key not in given}
    used = {*out.values(), *taken, *keys}
    for key in keys:
        if key not in out:
            out[key] = free_key(key, used)
            used.add(out[key])
    return out
