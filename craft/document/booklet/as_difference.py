"""A booklet as the difference from a base: what to work as there, and what otherwise. It holds no line of the base."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from difflib import SequenceMatcher
from functools import cached_property

from craft.design.design import Design
from craft.design.remix import compared, credits_of, in_terms
from craft.design.running import run_parts
from craft.document.booklet.compose import compose
from craft.document.booklet.document import (
    Block,
    Bullets,
    CountTable,
    Document,
    Paragraph,
    RoundLine,
    Rounds,
    Section,
    Steps,
)
from craft.document.booklet.from_design import manuscript_of
from craft.document.booklet.manuscript import Imprint
from craft.errors import require


@dataclass(frozen=True, slots=True)
class TheBase:
    """What the maker needs first: the base's title, its version and whose it is; the last two may be empty."""

    title: str
    version: str = ""
    designer: str = ""

    @property
    def said(self) -> str:
        """'Moth, version 1.2, by Odo'."""
        version = f", version {self.version}" if self.version else ""
        return f"{self.title}{version}{f', by {self.designer}' if self.designer else ''}"


def edition_as_difference(base: Design, mine: Design, the_base: TheBase, imprint: Imprint) -> Document:
    """The booklet of `mine` for whoever has `base`. CraftError where the base's terms allow no such thing, with the reason."""
    private = credits_of(mine).private
    require(not private, f"This may not be published, not even as a difference: {' '.join(private)}", field="edition")
    here, there = (_booklet(d, imprint) for d in (_own_words(mine, base), in_terms(base, mine.terms)))
    sections: list[Section] = []
    for section in here.document.sections:
        if section.key in here.parts:
            sections.append(_part(section, here.parts[section.key], there))
        elif section.key == "assembly":
            sections.append(_assembly(section, there))
        elif section.key != "private":
            sections.append(section)
    gone = [p.title for key, p in there.parts.items() if key not in here.parts]
    if gone:
        sections.insert(_before(sections, "assembly"), Section("left-out", "Not worked", (Bullets(tuple(gone)),), 2))
    sections.insert(0, _first(base, mine, the_base))
    made = here.document
    return Document(made.title, made.byline, made.stamp, made.terms, tuple(sections))


def _own_words(mine: Design, base: Design) -> Design:
    """Her design without the prose that is the base's."""
    said, there = mine.printed, base.printed

    def own(text: str, other: str) -> str:
        theirs = {line.strip() for line in other.splitlines()}
        return "\n".join(line for line in text.splitlines() if line.strip() not in theirs)

    printed = replace(
        said,
        permissions="As there." if said.permissions and said.permissions == there.permissions else said.permissions,
        credits=own(said.credits, there.credits),
        notes=own(said.notes, there.notes),
        changes=own(said.changes, there.changes),
    )
    return replace(mine, printed=printed, brief=replace(mine.brief, intro=own(mine.brief.intro, base.brief.intro)))


def _before(sections: Sequence[Section], key: str) -> int:
    keys = [s.key for s in sections]
    return keys.index(key) if key in keys else len(keys)


def _first(base: Design, mine: Design, the_base: TheBase) -> Section:
    """What is needed first, and what all in all is more or less than there."""
    words = (
        f"You need {the_base.said}. This booklet holds only what is worked otherwise, and no line of that pattern: "
        "'as there' means as it is written in it."
    )
    found = compared(base, mine)
    blocks: list[Block] = [Paragraph(words)]
    if found.sums:
        blocks.append(Paragraph(f"All in all, and estimated: {', '.join(found.sums)}."))
    return Section("base", "What you need first", tuple(blocks))


@dataclass(frozen=True, slots=True)
class _Line:
    """A line as it is printed, and what it is, whatever its number and its words."""

    shown: RoundLine
    told: tuple[str, str, str, int]


@dataclass(frozen=True, slots=True)
class _PartLines:
    """A part of a booklet."""

    title: str
    name: str
    lines: tuple[_Line, ...]


@dataclass(frozen=True)
class _Booklet:
    """A booklet with its parts by the keys of their sections. steps: of putting together."""

    document: Document
    parts: dict[str, _PartLines]
    steps: tuple[str, ...]

    @cached_property
    def places(self) -> dict[str, str]:
        """Where each line stands, in words, by its text: as it is printed, and as it would be in the usual words."""
        found: dict[str, str] = {}
        for part in self.parts.values():
            above = "the start"
            for line in part.lines:
                place = f"{line.shown.label or f'what stands behind {above}'} of {part.name}"
                kind, work, count, _ = line.told
                usual = f"{line.shown.label}: {work} {count}" if kind == "round" else work
                for text in (line.shown.text, usual):
                    found.setdefault(text, place)
                above = line.shown.label or above
        return found


def _booklet(design: Design, imprint: Imprint) -> _Booklet:
    """A design's booklet, each line of rounds with what it is in the usual words."""
    manuscript = manuscript_of(design, run_parts(design), imprint)
    usual = compose(replace(manuscript, parts=tuple(replace(p, said=None) for p in manuscript.parts)))
    shown = compose(manuscript)
    parts = {}
    for section, plain in zip(shown.sections, usual.sections, strict=True):
        if section.key.startswith("part-"):
            lines = tuple(_Line(a, _told(b)) for a, b in zip(_lines(section), _lines(plain), strict=True))
            parts[section.key] = _PartLines(section.title, section.title.rpartition(" (make")[0], lines)
    steps = [b for s in shown.sections if s.key == "assembly" for b in s.blocks if isinstance(b, Steps)]
    return _Booklet(shown, parts, tuple(line for block in steps for line in block.lines))


def _lines(section: Section) -> tuple[RoundLine, ...]:
    return next((b.lines for b in section.blocks if isinstance(b, Rounds)), ())


def _told(line: RoundLine) -> tuple[str, str, str, int]:
    if line.kind == "round":
        return line.kind, line.work, line.count, line.fold
    return line.kind, line.text, "", 0


def _part(section: Section, part: _PartLines, base: _Booklet) -> Section:
    """A part: runs of lines that are the base's are told by where they stand, the others are printed."""
    old = base.parts.get(section.key)
    before = old.lines if old else ()
    if old is not None and [x.told for x in before] == [x.told for x in part.lines]:
        make = "" if old.title == section.title else f", {section.title.rpartition('(')[2].rstrip(')')}"
        return Section(section.key, section.title, (Paragraph(f"Work as there{make}."),), section.level)
    lines = tuple(_otherwise(before, part.lines, base))
    kept = [replace(b, lines=lines) if isinstance(b, Rounds) else b for b in section.blocks]
    return replace(section, blocks=tuple(b for b in kept if not isinstance(b, CountTable)))


def _otherwise(before: Sequence[_Line], after: Sequence[_Line], base: _Booklet) -> Iterator[RoundLine]:
    steps = SequenceMatcher(None, [x.told for x in before], [x.told for x in after], autojunk=False).get_opcodes()
    for tag, a, z, first, last in steps:
        if tag == "equal":
            yield from _as_there(before[a:z], after[first:last])
            continue
        yield from (_not_again(line.shown, base) for line in after[first:last])
        if tag == "delete" and (gone := _labels(before[a:z])):
            yield RoundLine("step", f"Leave out {gone} of there.")


def _as_there(before: Sequence[_Line], after: Sequence[_Line]) -> Iterator[RoundLine]:
    """A run of lines that are the base's."""
    there, here = _labels(before), _labels(after)
    if not there:
        yield RoundLine("step", "Then as there, up to the next round.")
        return
    inside = ", with what stands between" if any(x.told[0] != "round" for x in before) else ""
    plural = " to " in here
    now = "" if there == here else f"; here {'they are' if plural else 'it is'} {here}"
    yield RoundLine("step", f"{there}: work as there{inside}{now}.")


def _labels(lines: Iterable[_Line]) -> str:
    """'R4 to R12', in the words of the lines' own labels."""
    labels = [x.shown.label for x in lines if x.shown.kind == "round" and x.shown.label]
    if not labels:
        return ""
    first, last = labels[0].partition("-")[0], labels[-1].rpartition("-")[2]
    return first if first == last else f"{first} to {last}"


def _not_again(line: RoundLine, base: _Booklet) -> RoundLine:
    """A line as it is, or told by where the same one stands in the base."""
    place = base.places.get(line.text)
    if place is None:
        return line
    if line.kind == "round":
        return RoundLine("step", f"{line.label}: as {place} there.")
    return RoundLine("step", f"As there: {place}.")


def _assembly(section: Section, base: _Booklet) -> Section:
    """Steps that are the base's are told by their numbers."""
    known = {text: n for n, text in reversed(list(enumerate(base.steps, 1)))}
    own = [text for b in section.blocks if isinstance(b, Steps) for text in b.lines]
    lines = [f"As step {known[text]} there." if text in known else text for text in own]
    gone = [str(n) for n, text in enumerate(base.steps, 1) if text not in own]
    if gone:
        lines.append(f"Not worked: step {', '.join(gone)} of there.")
    return replace(section, blocks=(Steps(tuple(lines)),))
