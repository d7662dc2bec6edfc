"""How much a booklet explains: everything, how stitches are called, the rounds alone, or counts instead of rounds."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from enum import StrEnum

from craft.document.booklet.document import (
    Block,
    Bullets,
    CountTable,
    Document,
    Facts,
    Paragraph,
    Rounds,
    Section,
    Steps,
)
from craft.text.catalogue import Words


class Explained(StrEnum):
    """FULL: everything. SHORT: stitches by their names, without how they are worked. ROUNDS: what is needed, safety, rounds
    and putting together. COUNTS: the same with a table of counts in the place of rounds, which reads in any language."""

    FULL = "full"
    SHORT = "short"
    ROUNDS = "rounds"
    COUNTS = "counts"


_NEEDED = {"private", "base", "sizes", "materials", "cautions", "assembly", "permissions"}
"""Sections that no edition is without."""


def explained_less(document: Document, how: Explained, words: Words) -> Document:
    """A booklet that explains less. Of safety, of what is done and of what is allowed nothing is left out.

    For COUNTS the tables have to be in the booklet already.
    """
    if how is Explained.FULL:
        return document
    if how is Explained.SHORT:
        return replace(document, sections=tuple(_short(s) for s in document.sections if s.key != "techniques"))
    kept = [s for s in document.sections if s.key in _NEEDED or s.level == 2]
    return replace(document, sections=tuple(_plain(s, how, words) for s in kept))


def _short(section: Section) -> Section:
    if section.key == "terms":
        blocks: list[Block] = [
            Facts(tuple((name, meaning.partition(". ")[0]) for name, meaning in b.rows)) if isinstance(b, Facts) else b
            for b in section.blocks
        ]
        return replace(section, blocks=tuple(blocks))
    if section.key == "gauge":
        first = [Paragraph(f"{b.text.partition('. ')[0]}.") for b in section.blocks if isinstance(b, Paragraph)]
        return replace(section, blocks=tuple(first))
    return section


def _plain(section: Section, how: Explained, words: Words) -> Section:
    """A section without pictures on the way; a part's rounds as they are, or as counts with what is done between them."""
    kept: list[Block] = []
    counted = how is Explained.COUNTS and any(isinstance(b, CountTable) for b in section.blocks)
    for block in section.blocks:
        if isinstance(block, Rounds) and counted:
            if done := tuple(_between(block, words)):
                kept.append(Bullets(done))
        elif isinstance(block, CountTable) and not counted:
            continue
        elif isinstance(block, Rounds | CountTable | Bullets | Steps) or section.level == 1:
            kept.append(block)
    return replace(section, blocks=tuple(kept))


def _between(rounds: Rounds, words: Words) -> Iterator[str]:
    """What is done between the rounds, each with the round that it follows."""
    label = ""
    for line in rounds.lines:
        if line.kind == "round":
            label = line.label
        elif line.kind != "heading":
            yield f"{words.say('After {label}', label=label)}: {line.text}" if label else line.text
