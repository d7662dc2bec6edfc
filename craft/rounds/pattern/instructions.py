"""Instructions: what the hook is told to do within a round.

Equality is by value; places (`span`, from the start of the round's body) are left out of it, so
that the same words mean the same value wherever they stand.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from enum import StrEnum

from craft.errors import require
from craft.problems import Span
from craft.rounds.stitches import Loops, stitch

MOST_COUNT = 100_000
"""The largest number of stitches any single number in a pattern may mean."""

NOWHERE = Span(0, 0)
_COLOUR_NAME = re.compile(r"[^\W\d_](?:[\w' -]{0,37}[\w'-])?")


class StartKind(StrEnum):
    """How a closed round begins from nothing; both give the same count."""

    RING = "ring"
    CHAIN2 = "chain2"


class Edge(StrEnum):
    """An edge that can be worked besides the live one.

    MAIN: back to the piece in work. CHAIN: the side of the last chain that is still unworked.
    PIECE: the open edge of another part, by name. HELD: stitches left unworked earlier.
    FREE: loops left free by an earlier round. SIDE: row ends or any finished edge, picked up.
    BASE: the edge that sideways rows hang on.
    """

    MAIN = "main"
    CHAIN = "chain"
    PIECE = "piece"
    HELD = "held"
    FREE = "free"
    SIDE = "side"
    BASE = "base"


def counted(n: int, least: int, what: str) -> None:
    """Refuse a number that no pattern means."""
    require(isinstance(n, int) and least <= n <= MOST_COUNT, f"{what} must be from {least} to {MOST_COUNT:,}.")


@dataclass(frozen=True, slots=True)
class Start:
    """`count` stitches into a ring or into the second chain from the hook."""

    start: StartKind
    count: int
    stitch: str = "sc"
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        stitch(self.stitch)
        counted(self.count, 1, "A start")


@dataclass(frozen=True, slots=True)
class Work:
    """`count` times the stitch `stitch` (a registry key).

    loops: where the hook goes in, None as the round says. through: name of the piece whose edge is
    worked in with the same stitches, '' for both layers of this one folded flat, None for neither.
    """

    stitch: str
    count: int = 1
    loops: Loops | None = None
    through: str | None = None
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        stitch(self.stitch)
        counted(self.count, 1, "A number of stitches")


@dataclass(frozen=True, slots=True)
class Repeat:
    """`body` again and again: `times` in all, or None for as often as fits around.

    leave: live stitches that stay for what follows, as in 'to last 4 sts'; None when unsaid.
    `times_span` is the raw place of the number, for mends.
    """

    body: tuple[Instruction, ...]
    times: int | None = None
    leave: int | None = None
    span: Span = field(default=NOWHERE, compare=False)
    times_span: Span | None = field(default=None, compare=False)

    def __post_init__(self) -> None:
        require(bool(self.body), "A repeat has something to repeat.")
        require(self.leave is None or self.times is None, "What goes up to the last stitches has no number of times.")
        if self.times is not None:
            counted(self.times, 1, "A number of repeats")
        if self.leave is not None:
            counted(self.leave, 1, "A number of last stitches")


@dataclass(frozen=True, slots=True)
class Cluster:
    """Different stitches into one and the same place: takes one."""

    body: tuple[Work, ...]
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        require(bool(self.body), "A cluster has stitches.")


@dataclass(frozen=True, slots=True)
class Same:
    """Further stitches into the place of the last one: take none.

    As the first work of a round: into the place where the round is joined, which takes that one.
    """

    stitch: str
    count: int = 1
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        stitch(self.stitch)
        counted(self.count, 1, "A number of stitches")


@dataclass(frozen=True, slots=True)
class Skip:
    """Pass `count` stitches without working them; 0 passes the slip stitches of sideways rows."""

    count: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        counted(self.count, 0, "A number of stitches to skip")


@dataclass(frozen=True, slots=True)
class Chain:
    """`count` chains: a start, a turning chain, or a bridge, by where they stand.

    counts: whether a turning chain counts as a stitch; None when the text does not say.
    """

    count: int
    counts: bool | None = None
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        counted(self.count, 1, "A chain")


@dataclass(frozen=True, slots=True)
class FromHook:
    """Begin in the `nth` chain from the hook: the chains before it only turn."""

    nth: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        counted(self.nth, 2, "A chain from the hook")


@dataclass(frozen=True, slots=True)
class Spur:
    """A chain that stands off the edge and is worked back along: a curl, a spike, a strand of hair.

    Takes nothing of the edge and gives it nothing; `body` works the chains from the `nth` on.
    """

    chain: int
    nth: int
    body: tuple[Instruction, ...]
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        counted(self.chain, 2, "A chain")
        require(2 <= self.nth <= self.chain, "A spur begins within its chain.")
        require(bool(self.body), "A spur is worked back along.")

    @property
    def room(self) -> int:
        """Chains to be worked."""
        return self.chain - self.nth + 1


@dataclass(frozen=True, slots=True)
class Join:
    """The slip stitch that closes a joined round: takes none, gives none."""

    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Turn:
    """Turn the work over and go back."""

    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, slots=True)
class Leave:
    """The rest of the round stays unworked; `count` says how many, None when unsaid."""

    count: int | None = None
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        if self.count is not None:
            counted(self.count, 1, "A number of stitches left")


@dataclass(frozen=True, slots=True)
class Shift:
    """Plain stitches that only move the start of the round; not counted."""

    count: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        counted(self.count, 1, "A number of shift stitches")


@dataclass(frozen=True, slots=True)
class Onto:
    """From here on along another edge.

    name: of a PIECE, as written. loops and round: of FREE loops, which side and of which round.
    rejoin: with a new yarn, joined there.
    """

    edge: Edge
    name: str = ""
    loops: Loops | None = None
    round: int | None = None
    rejoin: bool = False
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        require((self.edge is Edge.PIECE) == bool(self.name), "A piece, and only a piece, has a name.")


@dataclass(frozen=True, slots=True)
class Again:
    """The rounds from `first` to `last` once more, in turn."""

    first: int
    last: int
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        require(1 <= self.first <= self.last, "Rounds to repeat run forwards.")


@dataclass(frozen=True, slots=True)
class Colour:
    """From here on in the colour `name`."""

    name: str
    span: Span = field(default=NOWHERE, compare=False)

    def __post_init__(self) -> None:
        require(
            bool(_COLOUR_NAME.fullmatch(self.name)),
            "A colour's name is letters, digits, blanks, - and ', starts with a letter, and is short.",
        )


@dataclass(frozen=True, slots=True)
class Unread:
    """Words of a round that are not understood; kept as they stand."""

    text: str
    span: Span = field(default=NOWHERE, compare=False)


Instruction = (
    Start
    | Work
    | Repeat
    | Cluster
    | Same
    | Skip
    | Chain
    | FromHook
    | Spur
    | Join
    | Turn
    | Leave
    | Shift
    | Onto
    | Again
    | Colour
    | Unread
)
