"""What was read of a text so far: its lines in the notation, and the part under way."""

from __future__ import annotations

import itertools
import re
from dataclasses import dataclass, field

from craft.problems import Span
from craft.text.freehand.phrases import Said

_CLOSING_LINE = re.compile(r"\d+ [^,;]+ through both layers \[\d+\]$")
_ROUND_LINE = re.compile(r"(?:R|Row )\d")


@dataclass(frozen=True, slots=True)
class Line:
    """A line in the notation, where it comes from, and the judgement that it needed."""

    text: str
    span: Span
    why: str = ""

    @property
    def makes_round(self) -> bool:
        """Whether it is a round or a row, and not words."""
        return _ROUND_LINE.match(self.text) is not None

    @property
    def closes_flat(self) -> bool:
        """Whether it closes a part by work through both its layers, and is no numbered round."""
        return _CLOSING_LINE.match(self.text) is not None


@dataclass(slots=True)
class Worked:
    """A round of a part as it was read, to be worked again elsewhere. count: as it is printed; live: stitches after it."""

    number: int
    work: str
    count: int | None
    live: int | None = None


@dataclass(slots=True)
class PartSoFar:
    """A part under way. live: stitches of its last round, None when not known; chained: a chain waits to be worked along.

    candidates: what its last round may say; lead: where its first round is worked.
    bridge: chains told between two rounds, which pieces are joined by. ringed: a ring was told before its first round.
    short: short rows are under way. unlabelled: its last round had no label. bare: none of its rounds has one.
    """

    name: str = ""
    make: int = 1
    rounds: list[Worked] = field(default_factory=list)
    live: int | None = 0
    chained: bool = False
    candidates: list[Said] = field(default_factory=list)
    flat: bool = False
    lead: str = ""
    short: bool = False
    unlabelled: bool = False
    bare: bool = False
    ringed: bool = False
    bridge: int = 0

    @property
    def ringless(self) -> bool:
        """Whether nothing of it is worked yet, and no chain or loops wait to be worked along."""
        return not self.rounds and not self.chained and not self.lead and not self.live

    @property
    def changes(self) -> list[int | None]:
        """By how many stitches each of its rounds but the first changed it, None where that is not known."""
        lives = itertools.pairwise(worked.live for worked in self.rounds)
        return [None if a is None or b is None else b - a for a, b in lives]

    @property
    def last(self) -> int:
        return self.rounds[-1].number if self.rounds else 0
