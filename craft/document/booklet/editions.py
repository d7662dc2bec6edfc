"""Editions of a booklet: as the design is, at one of its sizes, or one text for all of them, 'S (M, L)'."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence
from dataclasses import replace

from craft.design.grading import Sized, sized_design
from craft.design.running import run_parts
from craft.document.booklet.compose import compose
from craft.document.booklet.document import (
    Block,
    Bullets,
    Cautions,
    CountTable,
    Document,
    Drawing,
    Facts,
    Paragraph,
    Pictures,
    RoundLine,
    Rounds,
    Section,
    Steps,
)
from craft.document.booklet.from_design import NOTHING, manuscript_of
from craft.document.booklet.manuscript import Imprint, Observed
from craft.errors import require
from craft.text.catalogue import Words
from craft.text.notation import Wording
from craft.text.several_sizes import SizedLine, lines_for_all, said_for_all


def edition_of(sized: Sized, imprint: Imprint, observed: Observed = NOTHING) -> Document:
    """The booklet of one size, as if it were a design of its own."""
    design = sized_design(sized)
    return compose(manuscript_of(design, run_parts(design), imprint, observed))


def edition_for_all(sizes: Sequence[Sized], names: Sequence[str], imprint: Imprint) -> Document:
    """One booklet for several sizes: numbers that differ stand in their order, a round that a size lacks is '-'.

    CraftError for fewer than two sizes, or names that cannot stand in a pattern.
    """
    require(2 <= len(sizes) == len(names), "A booklet for all sizes needs two or more.", field="size")
    found = [edition_of(sized, imprint) for sized in sizes]
    rounds = _rounds_for_all(sizes, names, imprint)
    sections = []
    for key in _in_order([[s.key for s in d.sections] for d in found]):
        at = [next((s for s in d.sections if s.key == key), None) for d in found]
        sections.append(_section(at, names, rounds))
    sections.insert(1, _how_to_read(names, imprint.words))
    return replace(found[0], sections=tuple(sections))


def _how_to_read(names: Sequence[str], words: Words) -> Section:
    how = words.say(
        "Written for {n} sizes: {first} ({others}). One number alone is for all of them. Where they differ, the first "
        "number is for {first} and those in brackets for {others}, in this order; '-' is a size that has no such round. "
        "It helps to mark yours all through before you begin.",
        n=len(names),
        first=names[0],
        others=", ".join(names[1:]),
    )
    return Section("sizes", words.say("Sizes"), (Paragraph(how),))


def _rounds_for_all(sizes: Sequence[Sized], names: Sequence[str], imprint: Imprint) -> dict[str, Rounds]:
    """The lines of every part for all sizes, by the key of its section."""
    how = Wording(imprint.terms, language=imprint.language)
    found = {}
    for parts in zip(*(sized.parts for sized in sizes), strict=True):
        lines = lines_for_all([p.written for p in parts], names, how, imprint.prose)
        found[f"part-{parts[0].source.name or 'part'}"] = Rounds(tuple(_round_line(line) for line in lines))
    return found


_COUNTED = re.compile(r"(?P<work>.*?)\s(?P<count>[\[(](?:\d+|-)[^\[\]]*[\])])")


def _round_line(line: SizedLine) -> RoundLine:
    if not line.label:
        return RoundLine("step", line.said)
    by_size = "]; " in line.said or "); " in line.said  # said size by size, each with its own count
    counted = None if by_size else _COUNTED.fullmatch(line.said)
    if counted is None:
        return RoundLine("round", line.text, line.label, line.said)
    return RoundLine("round", line.text, line.label, counted["work"], counted["count"])


def _in_order(keys: Sequence[Sequence[str]]) -> list[str]:
    """Keys of all lists, each once, those of the first in its order."""
    return list(dict.fromkeys(itertools.chain.from_iterable(keys)))


def _section(at: Sequence[Section | None], names: Sequence[str], rounds: dict[str, Rounds]) -> Section:
    first = next(s for s in at if s is not None)
    texts = [None if s is None else _without_pictures(s) for s in at]
    alike = [type(b) for b in _without_pictures(first)]
    if all(t is not None and [type(b) for b in t] == alike for t in texts):
        columns = zip(*(t for t in texts if t is not None), strict=True)
        blocks = [b for column in columns for b in _blocks(column, names, rounds.get(first.key))]
    else:
        blocks = [b for name, t in zip(names, texts, strict=True) if t is not None for b in (Paragraph(f"{name}:"), *t)]
    shown = [b for b in first.blocks if isinstance(b, Pictures | Drawing)]  # of the first size, as the cover is
    return Section(first.key, first.title, (*blocks, *shown), first.level)


def _without_pictures(section: Section) -> list[Block]:
    """A section's texts: how many pictures there are differs from size to size."""
    return [b for b in section.blocks if not isinstance(b, Pictures | Drawing)]


def _blocks(column: Sequence[Block], names: Sequence[str], rounds: Rounds | None) -> list[Block]:
    """Blocks of one kind, one of each size, as those that are for all."""
    match column[0]:
        case Rounds() if rounds is not None:
            return [rounds]
        case Paragraph():
            return [Paragraph(said_for_all([b.text for b in column if isinstance(b, Paragraph)], names))]
        case Facts():
            return [_facts([b for b in column if isinstance(b, Facts)], names)]
        case Bullets() | Cautions() | Steps() as first:
            listed = [b.lines for b in column if isinstance(b, Bullets | Cautions | Steps)]
            return [replace(first, lines=_lines(listed, names))]
        case CountTable():
            return [b for name, table in zip(names, column, strict=True) for b in (Paragraph(f"{name}:"), table)]
        case _:
            return list(column)


def _facts(blocks: Sequence[Facts], names: Sequence[str]) -> Facts:
    by_size = [dict(b.rows) for b in blocks]
    keys = _in_order([list(rows) for rows in by_size])
    return Facts(tuple((key, said_for_all([rows.get(key) for rows in by_size], names)) for key in keys))


def _lines(listed: Sequence[tuple[str, ...]], names: Sequence[str]) -> tuple[str, ...]:
    if len({len(lines) for lines in listed}) == 1:
        return tuple(said_for_all(line, names) for line in zip(*listed, strict=True))
    every = _in_order(listed)
    return tuple(said_for_all([line if line in lines else None for lines in listed], names) for line in every)
