"""Parts of one design put into another: keys and names that are free there, yarns by their names there."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from itertools import count

from craft.design.design import Design
from craft.design.parts import DesignYarn, Part
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import Cluster, Colour, Edge, Instruction, Item, Onto, Repeat, Round, Spur, Work
from craft.rounds.stitches import Terms
from craft.text.notation import print_rounds, read


def free_key(key: str, taken: Iterable[str]) -> str:
    """The key, or one like it that nothing has."""
    used = set(taken)
    return next(k for n in count() if (k := key if not n else f"{key[:12]}{n}") not in used)


def fresh(design: Design, parts: Iterable[Part]) -> tuple[dict[str, str], dict[str, str]]:
    """Keys and names for parts that come into a design, by those that they have; no two are one."""
    keys, names = {p.key for p in design.parts}, {p.name for p in design.parts}
    new_keys: dict[str, str] = {}
    new_names: dict[str, str] = {}
    for part in parts:
        key = free_key(part.key, keys)
        name = next(k for n in count(1) if (k := part.name if n == 1 else f"{part.name[:56]} {n}") not in names)
        keys.add(key)
        names.add(name)
        new_keys[part.key], new_names[part.name] = key, name
    return new_keys, new_names


def yarns_with(
    design: Design, other: Design, colours: Mapping[str, str], used: Iterable[str | None]
) -> tuple[DesignYarn, ...]:
    """The design's yarns and those of the other that are used in it now, under the names that they have here."""
    have = {y.name for y in design.yarns}
    wanted = {name for name in used if name and name not in have and name != MAIN_COLOUR}
    more = [replace(y, name=colours.get(y.name, y.name)) for y in other.yarns]
    return (*design.yarns, *(y for y in more if y.name in wanted))


def recoloured(text: str, colours: Mapping[str, str], terms: Terms, names: Mapping[str, str]) -> str:
    """Rounds with other names of yarns and of the parts they take in; the same text when none is in it."""
    changed = {a: b for a, b in colours.items() if a != b}
    renamed = {a: b for a, b in names.items() if a != b}
    if not changed and not renamed:
        return text
    pattern = read(text, terms, tuple(colours), tuple(names)).pattern
    if len(pattern.parts) != 1:
        return text
    part = pattern.parts[0]
    items = tuple(_item(i, changed, renamed) for i in part.items)
    return text if items == part.items else print_rounds(replace(part, items=items), terms)


def _item(item: Item, colours: Mapping[str, str], names: Mapping[str, str]) -> Item:
    match item:
        case Round():
            return replace(item, body=tuple(renamed_in(i, colours, names) for i in item.body))
        case Colour():
            return replace(item, name=colours.get(item.name, item.name))
    return item


def renamed_in(item: Instruction, colours: Mapping[str, str], names: Mapping[str, str]) -> Instruction:
    """An instruction with other names of yarns, and of parts that it takes in."""
    match item:
        case Onto(edge=Edge.PIECE):
            return replace(item, name=names.get(item.name, item.name))
        case Work(through=str(name)) if name:
            return replace(item, through=names.get(name, name))
        case Colour():
            return replace(item, name=colours.get(item.name, item.name))
        case Repeat() | Spur():
            return replace(item, body=tuple(renamed_in(i, colours, names) for i in item.body))
        case Cluster():
            return item
    return item
