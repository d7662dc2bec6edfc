"""A text that has been read and run."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from craft.problems import Problem, faulty
from craft.rounds.fabric import WorkedPart
from craft.text import freehand
from craft.text.freehand.corrections import NO_CORRECTIONS, Corrections
from craft.text.notation import Reading


@dataclass(frozen=True, slots=True)
class Checked:
    """A text that has been read and run; `problems` in the order of the text.

    translation: the text in the notation, when it was read freehand. corrections: what she said of its lines.
    """

    reading: Reading
    parts: tuple[WorkedPart, ...]
    problems: tuple[Problem, ...]
    translation: freehand.Translation | None = None
    corrections: Corrections = NO_CORRECTIONS

    @property
    def nbytes(self) -> int:
        """About how many bytes it takes: what was run, and what was read, some times the text itself."""
        lines = self.reading.lines
        length = lines[-1].span.end if lines else 0
        return 2_000 + sum(p.nbytes for p in self.parts) + 6 * length + 400 * len(lines) + 600 * len(self.problems)

    @property
    def sound(self) -> bool:
        """No fault; warnings and hints may remain."""
        return not faulty(self.problems)


def ordered(problems: Iterable[Problem]) -> tuple[Problem, ...]:
    """Problems in the order of the text."""
    return tuple(sorted(problems, key=lambda p: (p.place.span.start, p.place.span.end, p.code)))
