"""The registry of stitches: what each takes, gives, needs and is called.

Adding a stitch is adding one entry to `STITCHES`; notation, fabric, yarn use and word lists
follow from it. Heights and yarn factors are common practice, quoted from memory.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum
from types import MappingProxyType

from craft.errors import CraftError, require


class Terms(StrEnum):
    """The vocabulary in which rounds are written."""

    US = "us"
    UK = "uk"
    LETTERS = "letters"


class Loops(StrEnum):
    """Which loops of the round below are worked, as the maker sees them."""

    BOTH = "both"
    FRONT = "front"
    BACK = "back"


@dataclass(frozen=True, slots=True)
class Stitch:
    """One entry.

    takes, gives: stitches of the live edge used up and put back.
    height: height of the stitch in single crochets. yarn: yarn used in single crochets.
    front_loops: worked through the two front loops only, whatever the round says.
    us, uk: the printed abbreviation first, then all other spellings, lower case.
    letter: sign in letter notation, None where the notation has none.
    title: plain name by terms; how: one sentence telling how to work it, in US and UK terms.
    """

    key: str
    takes: int
    gives: int
    us: tuple[str, ...]
    uk: tuple[str, ...]
    title: tuple[str, str]
    how: tuple[str, str]
    letter: str | None = None
    height: float = 1.0
    yarn: float = 1.0
    front_loops: bool = field(default=False)

    def __post_init__(self) -> None:
        require(self.takes >= 0 and self.gives >= 0, f"{self.key}: a stitch takes and gives none or more.")
        require(bool(self.us) and bool(self.uk), f"{self.key}: a stitch has a name in US and in UK terms.")

    @property
    def change(self) -> int:
        """Growth of the live edge: 1 for an increase, -1 for a decrease."""
        return self.gives - self.takes

    def name(self, terms: Terms) -> str:
        """The printed abbreviation in `terms`; without a letter of its own, the US one."""
        if terms is Terms.LETTERS and self.letter:
            return self.letter
        return self.uk[0] if terms is Terms.UK else self.us[0]

    def spellings(self, terms: Terms) -> tuple[str, ...]:
        """Everything that is read as this stitch in `terms`, lower case except letters."""
        if terms is Terms.LETTERS:
            words = tuple(w for w in self.us if len(w) > 1)
            return ((self.letter,) if self.letter else ()) + words
        return self.uk if terms is Terms.UK else self.us

    def called(self, terms: Terms) -> str:
        """The plain name in `terms`."""
        return self.title[1 if terms is Terms.UK else 0]

    def explained(self, terms: Terms) -> str:
        """How to work it, in `terms`."""
        return self.how[1 if terms is Terms.UK else 0]


def _plain(
    key: str, us: tuple[str, ...], uk: tuple[str, ...], height: float, yarn: float, how: str, letter: str | None = None
) -> Stitch:
    return Stitch(key, 1, 1, us, uk, (us[1], uk[1]), (how, how), letter, height, yarn)


_ENTRIES = (
    _plain(
        "sc",
        ("sc", "single crochet", "single crochets", "scs"),
        ("dc", "double crochet", "double crochets", "dcs"),
        1.0,
        1.0,
        "Insert the hook, yarn over, draw up a loop, yarn over, draw through both loops.",
        "X",
    ),
    _plain(
        "hdc",
        ("hdc", "half double crochet", "half double crochets"),
        ("htr", "half treble crochet", "half treble crochets", "half treble"),
        1.5,
        1.3,
        "Yarn over, insert the hook, draw up a loop, yarn over, draw through all three loops.",
        "T",
    ),
    _plain(
        "dc",
        ("dc", "double crochet", "double crochets"),
        ("tr", "treble crochet", "treble crochets", "treble"),
        2.0,
        1.7,
        "Yarn over, insert the hook, draw up a loop, then twice yarn over and draw through two loops.",
        "F",
    ),
    _plain(
        "tr",
        ("tr", "treble crochet", "treble crochets", "treble"),
        ("dtr", "double treble crochet", "double treble crochets", "double treble"),
        3.0,
        2.3,
        "Yarn over twice, insert the hook, draw up a loop, then three times yarn over and draw through two.",
    ),
    _plain(
        "slst",
        ("sl st", "slip stitch", "slip stitches", "slst", "sl sts", "ss"),
        ("ss", "slip stitch", "slip stitches", "sl st", "slst", "sl sts"),
        0.2,
        0.5,
        "Insert the hook, yarn over, draw through the fabric and the loop on the hook.",
    ),
    Stitch(
        "inc",
        1,
        2,
        ("inc", "increase", "increases", "incs", "inc2"),
        ("inc", "increase", "increases", "incs", "inc2"),
        ("increase", "increase"),
        ("Work 2 sc into the same stitch.", "Work 2 dc into the same stitch."),
        "V",
        yarn=2.0,
    ),
    Stitch(
        "inc3",
        1,
        3,
        ("inc3", "triple increase", "triple inc"),
        ("inc3", "triple increase", "triple inc"),
        ("double increase", "double increase"),
        ("Work 3 sc into the same stitch.", "Work 3 dc into the same stitch."),
        "W",
        yarn=3.0,
    ),
    Stitch(
        "dec",
        2,
        1,
        ("dec", "sc2tog", "decrease", "decreases", "decs", "dec2"),
        ("dec", "dc2tog", "decrease", "decreases", "decs", "dec2"),
        ("decrease", "decrease"),
        ("Draw up a loop in each of the next 2 stitches, yarn over, draw through all three loops.",) * 2,
        "A",
        yarn=1.4,
    ),
    Stitch(
        "invdec",
        2,
        1,
        ("inv dec", "invisible decrease", "invisible decreases", "invdec", "inv-dec"),
        ("inv dec", "invisible decrease", "invisible decreases", "invdec", "inv-dec"),
        ("invisible decrease", "invisible decrease"),
        (
            "Pick up the front loops of the next 2 stitches together, then finish as a sc.",
            "Pick up the front loops of the next 2 stitches together, then finish as a dc.",
        ),
        yarn=1.2,
        front_loops=True,
    ),
    Stitch(
        "dec3",
        3,
        1,
        ("dec3", "sc3tog", "double decrease"),
        ("dec3", "dc3tog", "double decrease"),
        ("double decrease", "double decrease"),
        ("Draw up a loop in each of the next 3 stitches, yarn over, draw through all four loops.",) * 2,
        "M",
        yarn=1.9,
    ),
)

STITCHES: MappingProxyType[str, Stitch] = MappingProxyType({entry.key: entry for entry in _ENTRIES})
"""Every stitch by its key, in printing order."""


def stitch(key: str) -> Stitch:
    """The registry entry of `key`; CraftError when there is none."""
    try:
        return STITCHES[key]
    except KeyError:
        raise CraftError(f"No stitch is called {key!r}.") from None
