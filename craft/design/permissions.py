"""What a designer allows: plain choices with a free sentence. Not legal advice."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from craft.errors import require

MOST_SENTENCE = 500

NO_ADVICE = (
    "These are the designers' own choices as they were noted. They are no legal advice; ask the designer when in doubt."
)


class Selling(StrEnum):
    """Whether what is made from a pattern may be sold."""

    YES = "yes"
    CREDITED = "credited"
    ASK = "ask"
    NO = "no"


@dataclass(frozen=True, slots=True)
class Permissions:
    """What may be done with a pattern or a piece. change: it may be changed. rounds: its rounds may be published again.

    difference: changes to it may be published without its rounds. alike: what is made of it is passed on under the same
    permissions. credit: line that names its designer. words: a free sentence.
    """

    change: bool = True
    selling: Selling = Selling.CREDITED
    rounds: bool = False
    difference: bool = True
    alike: bool = False
    credit: str = ""
    words: str = ""

    def __post_init__(self) -> None:
        for text, name in ((self.credit, "credit"), (self.words, "words")):
            require(
                len(text) <= MOST_SENTENCE, f"A sentence of terms is at most {MOST_SENTENCE} characters.", field=name
            )

    @property
    def sentences(self) -> tuple[str, ...]:
        """In words."""
        sold = {
            Selling.YES: "What is made may be sold.",
            Selling.CREDITED: "What is made may be sold with credit.",
            Selling.ASK: "Ask before selling what is made.",
            Selling.NO: "What is made may not be sold.",
        }[self.selling]
        said = [
            "May be changed." if self.change else "May not be changed.",
            sold,
            "Its rounds may be published again." if self.rounds else "Its rounds may not be published again.",
        ]
        if not self.difference:
            said.append("Changes to it may not be published.")
        if self.alike:
            said.append("What is made of it is passed on under the same terms.")
        return (*said, *filter(None, (self.words,)))
