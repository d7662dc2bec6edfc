"""What she says of a text's lines where they were misread: what a line is, where lines part and join, what a word means."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from types import MappingProxyType

from craft.errors import require

MOST_CORRECTIONS, MOST_WORDS = 500, 100
"""Corrections of a text's lines, and words that are explained."""


class Taken(StrEnum):
    """What a line of a written pattern is taken for."""

    TITLE = "title"
    MATERIALS = "materials"
    GAUGE = "gauge"
    ABBREVIATIONS = "abbreviations"
    PART = "part"
    ROUND = "round"
    COLOUR = "colour"
    DIRECTION = "direction"
    NOTE = "note"
    ASSEMBLY = "assembly"
    SAFETY = "safety"
    PERMISSIONS = "permissions"
    CREDITS = "credits"
    NOTHING = "nothing"


@dataclass(frozen=True, slots=True)
class Correction:
    """One line's correction. line: its number in the text, from 1. column: code points of the line before the row
    that is meant; one of more than 0 makes it a row of its own. taken: what it is, None as it is read. joined: it
    goes on in the next row.
    """

    line: int
    column: int = 0
    taken: Taken | None = None
    joined: bool = False

    def __post_init__(self) -> None:
        require(self.line >= 1 and self.column >= 0, "A correction names a line from 1 on.", field="line")


@dataclass(frozen=True)
class Corrections:
    """All corrections of a text. words: words that the notation does not know, with what they mean."""

    lines: tuple[Correction, ...] = ()
    words: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))

    def __post_init__(self) -> None:
        require(len(self.lines) <= MOST_CORRECTIONS, f"At most {MOST_CORRECTIONS} lines are corrected.", field="lines")
        require(len(self.words) <= MOST_WORDS, f"At most {MOST_WORDS} words are explained.", field="words")
        places = [(c.line, c.column) for c in self.lines]
        require(len(set(places)) == len(places), "A line is corrected twice.", field="lines")

    def __bool__(self) -> bool:
        return bool(self.lines or self.words)

    def of_line(self, line: int) -> tuple[Correction, ...]:
        """The corrections of a line, from its start on."""
        return tuple(sorted((c for c in self.lines if c.line == line), key=lambda c: c.column))


NO_CORRECTIONS = Corrections()


def cut_at(text: str, corrections: Iterable[Correction]) -> list[tuple[int, str, Correction | None]]:
    """A line's rows with where each begins, and its correction."""
    by_column = {c.column: c for c in corrections if c.column < max(len(text), 1)}
    starts = sorted({0, *by_column})
    return [
        (start, text[start : starts[k + 1] if k + 1 < len(starts) else len(text)], by_column.get(start))
        for k, start in enumerate(starts)
    ]
