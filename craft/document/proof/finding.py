"""What a proof-reader finds in a booklet before it is printed."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from craft.errors import require


class Weight(StrEnum):
    """What a finding means for a release: others' terms forbid it, it blocks it unless she says why not, or is to be
    looked at."""

    FORBIDS = "forbids"
    BLOCKS = "blocks"
    LOOK = "look"


class Stop(StrEnum):
    """Where a finding is mended."""

    BRIEF = "brief"
    GAUGE = "gauge"
    ROUNDS = "rounds"
    ASSEMBLY = "assembly"
    SIZES = "sizes"
    BOOKLET = "booklet"
    BASES = "bases"
    PROVING = "proving"


CODES: dict[str, tuple[Weight, str]] = {
    "count": (Weight.BLOCKS, "A count does not add up."),
    "no-rounds": (Weight.BLOCKS, "There is nothing to make, or a part without rounds."),
    "terms-conflict": (Weight.BLOCKS, "Terms of what it was made from contradict each other."),
    "terms-rounds": (
        Weight.FORBIDS,
        "Terms of what it was made from forbid to publish its rounds; what differs may be.",
    ),
    "terms-private": (Weight.FORBIDS, "Terms of what it was made from forbid to publish it at all."),
    "caution": (Weight.BLOCKS, "Something that is not for a child under three, in a pattern for one."),
    "eyes-after-closing": (Weight.BLOCKS, "Eyes that go in from inside come after the part is closed."),
    "blocker": (Weight.BLOCKS, "She says herself that it still blocks the release."),
    "picture-promised": (Weight.BLOCKS, "A step where she says that words do not suffice, and no picture shows it."),
    "round-doubt": (Weight.LOOK, "The check of a part's rounds has a doubt."),
    "unexplained": (Weight.LOOK, "An abbreviation that the booklet does not explain."),
    "unused": (Weight.LOOK, "An abbreviation that is explained and never used."),
    "colour-unlisted": (Weight.LOOK, "A colour that no yarn of the list has."),
    "colour-unused": (Weight.LOOK, "A yarn of the list that no round is worked in."),
    "made-differently": (Weight.LOOK, "A part is made more or less often than it is put on."),
    "next-round": (Weight.LOOK, "'Next round' without a number stands more than once in a part."),
    "no-place": (Weight.LOOK, "A step that words alone do not place."),
    "no-step": (Weight.LOOK, "A part that nothing says how to put on."),
    "no-tail": (Weight.LOOK, "A part that is sewn on, and no tail is kept for it."),
    "hook-untold": (Weight.LOOK, "A part of a thicker or finer yarn is reckoned as the figure's fabric."),
    "hook-inside": (
        Weight.LOOK,
        "A part on a hook of its own is worked into another: pictures show it as that one's fabric.",
    ),
    "tail-length": (Weight.LOOK, "A tail is to be left, and nothing says how long."),
    "no-stuffing": (Weight.LOOK, "Nothing says whether and when a part is stuffed."),
    "film-address": (Weight.LOOK, "What is typed as the address of a film clip is none, and is not printed."),
    "no-picture": (Weight.LOOK, "A step where words do not suffice, without a photograph or film clip."),
    "level": (Weight.LOOK, "The level that is said is not that of what is used."),
    "measure": (Weight.LOOK, "A measure disagrees with another."),
    "step-differs": (Weight.LOOK, "A step's own words say another place than where the part sits."),
    "gauge-assumed": (Weight.LOOK, "The gauge is neither measured nor estimated from a yarn."),
    "no-permissions": (Weight.LOOK, "Nothing says what may be done with the pattern."),
    "no-yarn": (Weight.LOOK, "No yarn is named."),
}
"""Every code with its weight and what it means; codes never change their meaning."""


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing to look at. text: a sentence. stop: where it is mended. part: key of the part. round: number of the round.
    step: key of the step."""

    code: str
    text: str
    stop: Stop
    part: str | None = None
    round: int | None = None
    step: str | None = None

    def __post_init__(self) -> None:
        require(self.code in CODES, f"{self.code} is no known finding.")

    @property
    def weight(self) -> Weight:
        """Whether it blocks a release."""
        return CODES[self.code][0]
