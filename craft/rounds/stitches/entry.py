"""What an entry of the registry says of a stitch, and the words that entries are made of."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from craft.errors import require


class Terms(StrEnum):
    """The vocabulary in which rounds are written."""

    US = "us"
    UK = "uk"
    LETTERS = "letters"


class Language(StrEnum):
    """Other languages that rounds, and only rounds, can be printed in."""

    GERMAN = "de"
    FRENCH = "fr"
    SPANISH = "es"
    ITALIAN = "it"
    DUTCH = "nl"


class Loops(StrEnum):
    """Where the hook goes in, as the maker sees it: loops of the stitch below, or around its post."""

    BOTH = "both"
    FRONT = "front"
    BACK = "back"
    FRONT_POST = "front-post"
    BACK_POST = "back-post"


class Sign(StrEnum):
    """Published chart symbols; increases and decreases are drawn from their base stitch's."""

    CHAIN = "chain"
    DOT = "dot"
    CROSS = "cross"
    REVERSE = "reverse"
    POST = "post"
    POST1 = "post-1"
    POST2 = "post-2"
    POST3 = "post-3"
    BOBBLE = "bobble"
    PUFF = "puff"
    POPCORN = "popcorn"
    PICOT = "picot"
    LOOP = "loop"
    SPIKE = "spike"


@dataclass(frozen=True, slots=True)
class Stitch:
    """One entry.

    takes, gives: stitches of the live edge used up and put back.
    height, width: of the stitch in single crochets. yarn: yarn used in single crochets.
    loops: where it goes in whatever the round says, None to follow the round.
    postable: can be worked around a post. foundation: makes its own chain, so needs nothing below.
    base, order: of an increase or decrease, the stitch it is made of and how many of it.
    us, uk: the printed abbreviation first, then all other spellings, lower case.
    letter: sign in letter notation, None where the notation has none.
    title: plain name in US and UK terms; how: how to work it; brief: the line of an abbreviation
    list when it needs more than the name. abroad: abbreviations in the languages in their order.
    """

    key: str
    takes: int
    gives: int
    us: tuple[str, ...]
    uk: tuple[str, ...]
    title: tuple[str, str]
    how: tuple[str, str]
    abroad: tuple[str, ...]
    sign: Sign = Sign.CROSS
    letter: str | None = None
    height: float = 1.0
    width: float = 1.0
    yarn: float = 1.0
    loops: Loops | None = None
    postable: bool = False
    foundation: bool = False
    base: str | None = None
    order: int = field(default=1)

    def __post_init__(self) -> None:
        require(self.takes >= 0 and self.gives >= 0, f"{self.key}: a stitch takes and gives none or more.")
        require(bool(self.us) and bool(self.uk), f"{self.key}: a stitch has a name in US and in UK terms.")

    @property
    def change(self) -> int:
        """Growth of the live edge: 1 for an increase, -1 for a decrease; none for stitches that take nothing."""
        return self.gives - self.takes if self.takes else 0

    def name(self, terms: Terms) -> str:
        """The printed abbreviation in `terms`; without a letter of its own, the US one."""
        if terms is Terms.LETTERS and self.letter:
            return self.letter
        return self.uk[0] if terms is Terms.UK else self.us[0]

    def spellings(self, terms: Terms) -> tuple[str, ...]:
        """Everything that is read as this stitch in `terms`, lower case except letters."""
        if terms is Terms.LETTERS:
            words = tuple(w for w in (*self.us, self.title[0]) if len(w) > 1)
            return tuple(dict.fromkeys(((self.letter,) if self.letter else ()) + words))
        words = (*self.uk, self.title[1]) if terms is Terms.UK else (*self.us, self.title[0])
        return tuple(dict.fromkeys(words))

    def called(self, terms: Terms) -> str:
        """The plain name in `terms`."""
        return self.title[1 if terms is Terms.UK else 0]

    def explained(self, terms: Terms) -> str:
        """How to work it, in `terms`."""
        return self.how[1 if terms is Terms.UK else 0]

    def abbreviated(self, language: Language) -> str:
        """The abbreviation in another language."""
        return self.abroad[list(Language).index(language)]
