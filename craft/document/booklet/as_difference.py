"""A booklet as the difference from a base: what to work as there, and what otherwise. It holds no line of the base."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from difflib import SequenceMatcher
from functools import cached_property

from craft.design.design import Design
from craft.design.remix import compared, credits_of, in_terms, sums_said
from craft.design.running import run_parts
from craft.document.booklet.compose import compose
from craft.document.booklet.document import Bullets, CountTable, Document, Paragraph, RoundLine, Rounds, Section, Steps
from craft.document.booklet.from_design import manuscript_of
from craft.document.booklet.manuscript import Imprint
from craft.errors import require
from craft.text.catalogue import ENGLISH, Words


@dataclass(frozen=True, slots=True)
class TheBase:
    """What the maker needs first: the base's title, its version and whose it is; the last two may be empty."""

    title: str
    version: str = ""
    designer: str = ""

    def said(self, words: Words = ENGLISH) -> str:
        """'Moth, version 1.2, by Odo'."""
        what = (
            words.say("{title}, version {version}", title=self.title, version=self.version)
            if self.version
            else self.title
        )
        return words.say("{what}, by {designer}", what=what, designer=self.designer) if self.designer else what


def edition_as_difference(base: Design, mine: Design, the_base: TheBase, imprint: Imprint) -> Document:
    """The booklet of `mine` for whoever has `base`. CraftError where the base's terms allow no such thing, with the reason."""
    private = credits_of(mine).private
    require(not private, f"This may not be published, not even as a difference: {' '.join(private)}", field="edition")
    words = imprint.words
    here, there = (_booklet(d, imprint) for d in (_own_words(mine, base, words), in_terms(base, mine.terms)))
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
        left_out = Section("left-out", words.say("Not worked"), (Bullets(tuple(gone)),), 2)
        sections.insert(_before(sections, "assembly"), left_out)
    sections.insert(0, _first(base, mine, the_base, words))
    return replace(here.document, sections=tuple(sections))


def _own_words(mine: Design, base: Design, words: Words) -> Design:
    """Her design without the prose that is the base's."""
    said, there = mine.printed, base.printed

    def own(text: str, other: str) -> str:
        theirs = {line.strip() for line in other.splitlines()}
        return "\n".join(line for line in text.splitlines() if line.strip() not in theirs)

    printed = replace(
        said,
        permissions=words.say("As there.")
        if said.permissions and said.permissions == there.permissions
        else said.permissions,
        credits=own(said.credits, there.credits),
        notes=own(said.notes, there.notes),
        changes=own(said.changes, there.changes),
    )
    return replace(mine, printed=printed, brief=replace(mine.brief, intro=own(mine.brief.intro, base.brief.intro)))


def _before(sections: Sequence[Section], key: str) -> int:
    keys = [s.key for s in sections]
    return keys.index(key) if key in keys else len(keys)


def _first(base: Design, mine: Design, the_base: TheBase, words: Words) -> Section:
    """What is needed first, and what all in all is more or less than there."""
    needed = words.say(
        "You need {base}. This booklet holds only what is worked otherwise, and no line of that pattern: 'as there' means "
        "as it is written in it.",
        base=the_base.said(words),
    )
    sums = ", ".join(sums_said(*compared(base, mine).comes, words))
    blocks = [
        Paragraph(needed),
        *([Paragraph(words.say("All in all, and estimated: {sums}.", sums=sums))] if sums else []),
    ]
    return Section("base", words.say("What you need first"), tuple(blocks))


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

    @property
    def words(self) -> Words:
        """Our own sentences in its language."""
        return self.document.words

    @cached_property
    def places(self) -> dict[str, str]:
        """Where each line stands, in words, by its text: as it is printed, and as it would be in the usual words."""
        found: dict[str, str] = {}
        for part in self.parts.values():
            above = self.words.say("the start")
            for line in part.lines:
                spot = line.shown.label or self.words.say("what stands behind {above}", above=above)
                place = self.words.say("{spot} of {part}", spot=spot, part=part.name)
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
            name = next((p.part.name for p in manuscript.parts if f"part-{p.part.name or 'part'}" == section.key), None)
            parts[section.key] = _PartLines(section.title, name or section.title, lines)
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
        make = section.title.rpartition("(")[2].rstrip(")")
        say = base.words.say
        same = say("Work as there.") if old.title == section.title else say("Work as there, {make}.", make=make)
        return Section(section.key, section.title, (Paragraph(same),), section.level)
    lines = tuple(_otherwise(before, part.lines, base))
    kept = [replace(b, lines=lines) if isinstance(b, Rounds) else b for b in section.blocks]
    return replace(section, blocks=tuple(b for b in kept if not isinstance(b, CountTable)))


def _otherwise(before: Sequence[_Line], after: Sequence[_Line], base: _Booklet) -> Iterator[RoundLine]:
    steps = SequenceMatcher(None, [x.told for x in before], [x.told for x in after], autojunk=False).get_opcodes()
    for tag, a, z, first, last in steps:
        if tag == "equal":
            yield RoundLine("step", _as_there(before[a:z], after[first:last], base.words))
            continue
        yield from (_not_again(line.shown, base) for line in after[first:last])
        if tag == "delete" and (gone := _labels(before[a:z], base.words)):
            yield RoundLine("step", base.words.say("Leave out {rounds} of there.", rounds=gone))


AS_THERE = {
    (False, 0): "{there}: work as there.",
    (False, 1): "{there}: work as there; here it is {here}.",
    (False, 2): "{there}: work as there; here they are {here}.",
    (True, 0): "{there}: work as there, with what stands between.",
    (True, 1): "{there}: work as there, with what stands between; here it is {here}.",
    (True, 2): "{there}: work as there, with what stands between; here they are {here}.",
}
"""A run of the base's lines: by whether directions stand between its rounds, and how many of them are numbered anew."""


def _as_there(before: Sequence[_Line], after: Sequence[_Line], words: Words) -> str:
    """A run of lines that are the base's."""
    there, here = _labels(before, words), _labels(after, words)
    if not there:
        return words.say("Then as there, up to the next round.")
    between = any(x.told[0] != "round" for x in before)
    ends = _ends(after)
    numbered = 0 if there == here else 1 if ends is not None and ends[0] == ends[1] else 2
    return words.say(AS_THERE[between, numbered], there=there, here=here)


def _ends(lines: Iterable[_Line]) -> tuple[str, str] | None:
    """The first and the last round of some lines, in the words of the lines' own labels; None where there is none."""
    labels = [x.shown.label for x in lines if x.shown.kind == "round" and x.shown.label]
    return (labels[0].partition("-")[0], labels[-1].rpartition("-")[2]) if labels else None


def _labels(lines: Iterable[_Line], words: Words) -> str:
    """'R4 to R12'."""
    ends = _ends(lines)
    if ends is None:
        return ""
    return ends[0] if ends[0] == ends[1] else words.say("{first} to {last}", first=ends[0], last=ends[1])


def _not_again(line: RoundLine, base: _Booklet) -> RoundLine:
    """A line as it is, or told by where the same one stands in the base."""
    place = base.places.get(line.text)
    if place is None:
        return line
    if line.kind == "round":
        return RoundLine("step", base.words.say("{label}: as {place} there.", label=line.label, place=place))
    return RoundLine("step", base.words.say("As there: {place}.", place=place))


def _assembly(section: Section, base: _Booklet) -> Section:
    """Steps that are the base's are told by their numbers."""
    known = {text: n for n, text in reversed(list(enumerate(base.steps, 1)))}
    own = [text for b in section.blocks if isinstance(b, Steps) for text in b.lines]
    say = base.words.say
    lines = [say("As step {n} there.", n=known[text]) if text in known else text for text in own]
    gone = [str(n) for n, text in enumerate(base.steps, 1) if text not in own]
    if gone:
        lines.append(say("Not worked: step {steps} of there.", steps=", ".join(gone)))
    return replace(section, blocks=(Steps(tuple(lines)),))
