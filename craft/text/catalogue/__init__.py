"""Sentences of our own in other languages: gettext catalogues, one a language, asked by the English sentence.

English needs none. A sentence that a catalogue lacks stays English; tests hold that no sentence of a booklet is lacking.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from pathlib import Path

from babel.messages.catalog import Catalog
from babel.messages.pofile import read_po

from craft.rounds.stitches import Language

HERE = Path(__file__).parent


@cache
def catalogue(language: Language) -> Catalog:
    """The catalogue of a language, read once."""
    with (HERE / f"{language.value}.po").open("rb") as raw:
        return read_po(raw, locale=language.value)


@dataclass(frozen=True, slots=True)
class Words:
    """Sentences in a language, None for English."""

    language: Language | None = None

    @property
    def code(self) -> str:
        """The language's code, as pages tell it: 'en', 'de'."""
        return self.language.value if self.language is not None else "en"

    def say(self, sentence: str, **values: object) -> str:
        """A sentence with its values put in where their names stand in braces."""
        return self._found(sentence).format(**values) if values else self._found(sentence)

    def many(self, one: str, more: str, n: float, **values: object) -> str:
        """A sentence about a number `n`, in the form that it takes in the language."""
        return self.say(one if n == 1 else more, n=f"{n:g}", **values)

    def knows(self, sentence: str) -> bool:
        """Whether a sentence needs no translation, or has one."""
        return self.language is None or self._found(sentence) != sentence

    def round(self, number: object) -> str:
        """A round by its number: 'R8'."""
        return self.say("R{n}", n=number)

    def label(self, label: str) -> str:
        """A label as rounds have it, 'R8' or 'Row 3', in the language."""
        if self.language is None:
            return label
        if label.startswith("Row ") and label[4:].isdigit():
            return self.say("Row {n}", n=label[4:])
        return self.round(label[1:]) if label[:1] == "R" and label[1:].isdigit() else label

    def listed(self, names: list[str] | tuple[str, ...]) -> str:
        """Names in a row: 'Body, Ear and Foot'."""
        if len(names) < 2:
            return "".join(names)
        return self.say("{first} and {last}", first=", ".join(names[:-1]), last=names[-1])

    def _found(self, sentence: str) -> str:
        if self.language is None:
            return sentence
        message = catalogue(self.language).get(sentence)
        return str(message.string) if message is not None and message.string else sentence


ENGLISH = Words()
