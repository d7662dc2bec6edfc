"""The designer's own prose in a booklet, piece by piece, as it is to be translated."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from craft.design.design import Design
from craft.design.running import RunPart
from craft.document.booklet.from_design import manuscript_of
from craft.document.booklet.manuscript import Imprint
from craft.rounds.pattern import Note, Section, Step
from craft.text.notation import print_item


@dataclass(frozen=True, slots=True)
class Prose:
    """A piece of prose. where: in which part of the booklet it stands. text: as it is written."""

    where: str
    text: str


def prose_of(design: Design, parts: Sequence[RunPart], imprint: Imprint) -> tuple[Prose, ...]:
    """Every piece of her own prose in the booklet, each once, in its order. imprint: of the English booklet."""
    found: dict[str, Prose] = {}
    for piece in _pieces(design, parts, imprint):
        if piece.text.strip():
            found.setdefault(piece.text, piece)
    return tuple(found.values())


def _pieces(design: Design, parts: Sequence[RunPart], imprint: Imprint) -> Iterator[Prose]:
    m = manuscript_of(design, tuple(parts), imprint)
    yield Prose("About this figure", m.intro)
    for notion in design.printed.notions:
        yield Prose("Also needed", notion)
    for note in m.notes:
        yield Prose("Notes", note)
    for line in m.parts:
        for item in line.part.items:
            if isinstance(item, Section):
                yield Prose(line.part.name or "Part", item.name)
            elif isinstance(item, Step | Note):
                yield Prose(line.part.name or "Part", print_item(item, m.terms))
    for number, step in enumerate(design.steps, 1):
        yield Prose(f"Step {number}", step.text)
    yield Prose("Permissions", m.permissions)
    yield Prose("Credits", m.credits)
    for change in m.changes:
        yield Prose("Changes", change)
