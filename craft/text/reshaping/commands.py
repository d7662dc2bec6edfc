"""Changes of rounds as they are asked for: frozen values, one a command."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Widen:
    """Give the round on `line` `count` stitches; it and the next are spread anew."""

    line: int
    count: int


@dataclass(frozen=True, slots=True)
class Rotate:
    """Move the shaping of the rounds on lines `first` to `last` along by `by` stitches."""

    first: int
    last: int
    by: int


@dataclass(frozen=True, slots=True)
class Spread:
    """Spread the shaping of the rounds on lines `first` to `last` evenly, stacked or staggered."""

    first: int
    last: int
    stacked: bool


@dataclass(frozen=True, slots=True)
class Insert:
    """Put `many` straight rounds after the round on `line`."""

    line: int
    many: int


@dataclass(frozen=True, slots=True)
class Copy:
    """Put the rounds on lines `first` to `last` again after `after`; mirrored runs the counts back down."""

    first: int
    last: int
    after: int
    mirrored: bool = False


@dataclass(frozen=True, slots=True)
class Swap:
    """Turn every round of the part into that of the other limb of a pair: stitches in reverse order."""


@dataclass(frozen=True, slots=True)
class Recolour:
    """Call the colour `old` by another name in every round."""

    old: str
    new: str


@dataclass(frozen=True, slots=True)
class Decreases:
    """Work every decrease of the part invisibly, or plainly."""

    invisible: bool


@dataclass(frozen=True, slots=True)
class Joining:
    """Close every round of the part with a join, or work it as a spiral."""

    join: bool


@dataclass(frozen=True, slots=True)
class CloseEnd:
    """Draw the open end in and close it."""


@dataclass(frozen=True, slots=True)
class OpenEnd:
    """End the part open behind a round, counted from 1 as worked."""

    round: int


@dataclass(frozen=True, slots=True)
class StartOn:
    """Begin the part on `count` stitches; the rounds that grow from its start come to where they came before."""

    count: int


@dataclass(frozen=True, slots=True)
class Stripes:
    """Work the rounds `first` to `last`, counted from 1 as worked, in `colours` by turns, `each` rounds of one; then go on
    in the colour that was in hand there, `main` where the text names none.
    """

    first: int
    last: int
    colours: tuple[str, ...]
    each: int
    main: str


@dataclass(frozen=True, slots=True)
class Divide:
    """Share the stitches behind a round, counted from 1 as worked, out among two legs of `rounds` straight rounds, each
    drawn in and closed; `shift` plain stitches first bring the start back to where the legs part. bridge: chains between
    the legs, which each takes on its own side and is so much wider for."""

    round: int
    rounds: int
    shift: int = 0
    bridge: int = 0


Change = (
    Widen
    | Rotate
    | Spread
    | Insert
    | Copy
    | Swap
    | Recolour
    | Decreases
    | Joining
    | CloseEnd
    | OpenEnd
    | StartOn
    | Stripes
    | Divide
)
