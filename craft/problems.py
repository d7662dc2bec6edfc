"""Problems: what is wrong with a written pattern, where, and what would mend it.

A problem is a value and never an exception. Codes are part of the public command line and
never change their meaning.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from craft.errors import require


class Severity(StrEnum):
    """How bad: a fault makes the pattern wrong, a warning is likely a mistake, a hint may be meant."""

    FAULT = "fault"
    WARNING = "warning"
    HINT = "hint"


@dataclass(frozen=True, slots=True, order=True)
class Span:
    """A run of the raw text: code point offsets, `end` exclusive."""

    start: int
    end: int

    def __post_init__(self) -> None:
        require(0 <= self.start <= self.end, "A span runs forwards from zero or later.")


@dataclass(frozen=True, slots=True)
class Mend:
    """Replace the raw text from `start` to `end` (code points) by `text`; `label` says so in words."""

    start: int
    end: int
    text: str
    label: str


@dataclass(frozen=True, slots=True)
class Place:
    """Where: part name, round label as written, 1-based line and column, and the raw span."""

    part: str | None = None
    round: str | None = None
    line: int = 1
    column: int = 1
    span: Span = Span(0, 0)


@dataclass(frozen=True, slots=True)
class Problem:
    """One problem: a known code, its place, one sentence, and a mend where one is clear."""

    code: str
    place: Place
    message: str
    fix: Mend | None = None

    def __post_init__(self) -> None:
        require(self.code in CODES, f"{self.code} is no known problem code.")

    @property
    def severity(self) -> Severity:
        """The severity that belongs to the code."""
        return CODES[self.code][0]


def faulty(problems: Iterable[Problem]) -> bool:
    """Whether any of them is a fault; warnings and hints are none."""
    return any(p.severity is Severity.FAULT for p in problems)


CODES: dict[str, tuple[Severity, str]] = {
    "unread": (Severity.FAULT, "Words inside a round that are no stitch and no repeat."),
    "bracket": (Severity.FAULT, "A bracket that is opened and not closed, or closed and not opened."),
    "too-large": (Severity.FAULT, "More text, rounds, stitches or nesting than is worked out."),
    "no-work": (Severity.WARNING, "A round label with nothing to work behind it."),
    "sum": (Severity.FAULT, "The count in brackets is not what the round makes."),
    "short": (Severity.FAULT, "The round needs more stitches than the round below gives."),
    "left-over": (Severity.FAULT, "The round ends before every stitch of the round below is used."),
    "misfit": (Severity.FAULT, "A repeat that goes around does not come out even."),
    "rep-from": (Severity.WARNING, "'Repeat from *' fits in neither or in both of its readings."),
    "fold": (Severity.FAULT, "The number of rounds that is said is not the number that is labelled."),
    "skipped-number": (Severity.WARNING, "A round number is missing."),
    "double-number": (Severity.WARNING, "A round number stands twice."),
    "backward-range": (Severity.FAULT, "A range of rounds that ends before it starts."),
    "no-start": (Severity.FAULT, "The first round has nothing to be worked into."),
    "second-start": (Severity.FAULT, "A ring or starting chain in the middle of a part."),
    "underside": (Severity.FAULT, "The other side of a chain is forgotten, or not used up."),
    "no-chain": (Severity.FAULT, "A round works along a chain where there is none."),
    "free-loops": (Severity.FAULT, "Loops of an earlier round are worked that are not free."),
    "no-held": (Severity.FAULT, "Waiting stitches are worked where none wait."),
    "held-left": (Severity.WARNING, "Stitches that were left waiting are never worked."),
    "no-piece": (Severity.WARNING, "A piece is worked in that no part before is called."),
    "piece-spent": (Severity.FAULT, "A piece is worked in more often than it is made."),
    "layers": (Severity.FAULT, "Stitches through two edges that have different numbers of stitches."),
    "spur": (Severity.FAULT, "A chain that stands off the edge is not worked back along exactly."),
    "chain-counts": (Severity.HINT, "A turning chain is taken for a stitch, because only then the round comes out."),
    "no-such-round": (Severity.FAULT, "A round is repeated that is not there."),
    "no-thread-place": (Severity.FAULT, "A thread is sewn through a stitch that is not there."),
    "no-coil-round": (Severity.FAULT, "A coil begins or ends at a round that is not there."),
    "unexplained": (Severity.WARNING, "A stitch that the pattern's own list of abbreviations does not explain."),
    "loops": (Severity.WARNING, "An invisible decrease picks up front loops, which a back-loop round leaves."),
    "eyes-late": (Severity.WARNING, "Eyes are placed when the opening is already small."),
    "eyes-beyond": (Severity.WARNING, "Eyes are placed at a round that no part has."),
    "eyes-elsewhere": (Severity.HINT, "The direction for the eyes names another place than that where they are put."),
    "after-close": (Severity.FAULT, "Something has to go inside after the piece is closed."),
    "repeats-otherwise": (
        Severity.WARNING,
        "A 'repeat n times' that fits only counted otherwise than the others of its text: in all, or beside the first.",
    ),
    "guessed-stitch": (
        Severity.WARNING,
        "A word that nothing explains is taken for the plain stitch, as all rounds fit so.",
    ),
    "unused-colour": (Severity.HINT, "A colour that the list of yarns names and no round works in."),
    "unlisted-colour": (Severity.WARNING, "A colour that the list of yarns does not name."),
    "steep": (Severity.HINT, "A round with more than twice or less than half the stitches of the one below."),
    "make-one": (Severity.HINT, "A part with a plural name is made once."),
    "made-too-few": (Severity.WARNING, "A part is used more often than it is made."),
    "unknown-direction": (Severity.HINT, "A stage direction that is kept, but not understood."),
    "odd-term": (Severity.WARNING, "A round uses a word that the terms of the text use otherwise, or not at all."),
    "count-table": (Severity.WARNING, "A table of counts says otherwise than its round."),
    "mixed-terms": (Severity.WARNING, "Words of US and of UK terms stand in one text."),
    "passed-over": (Severity.FAULT, "A line tells stitches and ends in a count, as rounds do, and is not read as one."),
    "no-rounds": (Severity.FAULT, "No round was found in the text."),
    "freehand": (Severity.HINT, "How a round that is written freely was understood, and by which evidence."),
}
