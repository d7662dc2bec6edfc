"""What words mean in written patterns: one table a language in `words/`, of phrases with their meanings."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from importlib import resources
from types import MappingProxyType
from typing import Any

from craft.rounds.numbers import CARDINALS, ORDINALS
from craft.rounds.stitches import STITCHES, Terms


class Sort(StrEnum):
    """What a token is in the work of a round."""

    NUMBER = "number"
    ORDINAL = "ordinal"
    TIMES = "times"
    OFTEN = "often"
    STITCH = "stitch"
    PLACE = "place"
    CHAIN = "chain"
    RING = "ring"
    IN = "in"
    EACH = "each"
    EVERY = "every"
    NEXT = "next"
    SAME = "same"
    LAST = "last"
    REST = "rest"
    TO = "to"
    OF = "of"
    AROUND = "around"
    EVENLY = "evenly"
    AGAIN = "again"
    PLAIN = "plain"
    DOUBLE = "double"
    TOGETHER = "together"
    ALWAYS = "always"
    BACK = "back"
    FRONT = "front"
    FREE = "free"
    FREE_BACK = "free-back"
    SKIP = "skip"
    LEAVE = "leave"
    UNWORKED = "unworked"
    REJOIN = "rejoin"
    BACKWARDS = "backwards"
    SHIFT = "shift"
    TURN = "turn"
    JOIN = "join"
    REPEAT = "repeat"
    FROM = "from"
    MORE = "more"
    OTHER_SIDE = "other-side"
    BOTH = "both"
    THROUGH = "through"
    PAIRS = "pairs"
    PIECE = "piece"
    COLOUR = "colour"
    ROUND = "round"
    AND = "and"
    COMMA = "comma"
    STOP = "stop"
    OPEN = "open"
    CLOSE = "close"
    STAR = "star"
    QUIET = "quiet"
    NOISE = "noise"
    ODD = "odd"
    ODD_RING = "odd-ring"


@dataclass(frozen=True, slots=True)
class Meaning:
    """What a phrase is, with its number or its stitch's key."""

    sort: Sort
    value: int | str = 0


LANGUAGES = MappingProxyType(
    {"en": "english", "de": "german", "fr": "french", "es": "spanish", "it": "italian", "nl": "dutch"}
)
"""Languages that are read, with the names of their tables in `words/`."""

_NUMBERED = {"numbers": Sort.NUMBER, "ordinals": Sort.ORDINAL, "oftens": Sort.OFTEN}


@cache
def words_file(language: str) -> dict[str, Any]:
    """The tables of a language as its file has them."""
    return tomllib.loads(
        resources.files(__package__).joinpath("words", f"{LANGUAGES[language]}.toml").read_text("utf-8")
    )


_TENS = ("twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
_COMPOUND = {ten: 10 * k for k, ten in enumerate(_TENS, 2)} | {
    f"{ten}{mark}{one}": 10 * k + CARDINALS[one]
    for k, ten in enumerate(_TENS, 2)
    for one in ("one", "two", "three", "four", "five", "six", "seven", "eight", "nine")
    for mark in ("-", " ")
}
"""'thirty', 'twenty-four', 'twenty four'."""

LEAST_LEANT = 3
_ARTICLE = re.compile(r"\bthe ")
"""Words of a phrase that is read without its articles, too: 'turn to [the] other side of [the] chain'."""

COUNTING_FROM = 21
"""The first number of a language's list of those that are made of two."""


def _counting(words: Sequence[str]) -> Iterator[tuple[str, int]]:
    """Numbers of two words, as they are spelt and as they are typed: 'vingt et un' and 'vingt-et-un', 'ventitré'."""
    for n, word in enumerate(words, COUNTING_FROM):
        for typed in dict.fromkeys(
            (word, word.replace(" et ", "-et-"), word.replace("-", " "), word.replace("é", "e"))
        ):
            yield typed, n


@cache
def words_of(language: str) -> Mapping[str, Meaning]:
    """Phrases of a language in small letters, and their meanings."""
    found = words_file(language)
    table: dict[str, Meaning] = {}
    if language == "en":
        table |= {word: Meaning(Sort.NUMBER, n) for word, n in (*CARDINALS.items(), *_COMPOUND.items())}
        table |= {word: Meaning(Sort.ORDINAL, n) for word, n in ORDINALS.items() if word != "first"}
    table |= {word: Meaning(Sort.NUMBER, n) for word, n in _counting(found.get("counting", ()))}
    for sort, phrases in found["phrases"].items():
        table |= dict.fromkeys(phrases, Meaning(Sort(sort)))
    for phrase, meaning in list(table.items()) if language == "en" else ():
        if len(phrase.split()) >= LEAST_LEANT and (leaner := _ARTICLE.sub("", phrase)) != phrase:
            table.setdefault(leaner, meaning)
    for key, phrases in found["stitches"].items():
        table |= dict.fromkeys(phrases, Meaning(Sort.STITCH, key))
    for name, sort in _NUMBERED.items():
        table |= {phrase: Meaning(sort, n) for phrase, n in found.get(name, {}).items()}
    return MappingProxyType(table)


MOST_ENDING = 6
"""Letters behind a stem that are its ending, and no other word's: 'disminu-iremos'."""


@cache
def _stems(language: str) -> tuple[tuple[str, Meaning], ...]:
    """Beginnings of words with what all their forms mean, by how they stand in the language's table."""
    sorts = {sort.value for sort in Sort}
    return tuple(
        (stem, Meaning(Sort(kind)) if kind in sorts else Meaning(Sort.STITCH, kind))
        for kind, stems in words_file(language)["stems"].items()
        for stem in stems
    )


def by_stem(word: str, language: str) -> Meaning | None:
    """What a word in small letters means that no table has, by the verb that it is a form of; None for no form of any."""
    return next(
        (m for stem, m in _stems(language) if word.startswith(stem) and len(word) <= len(stem) + MOST_ENDING), None
    )


_PLAIN_ENGLISH = frozenset((
    "the", "and", "round", "rounds", "sc", "inc", "dec", "stitch", "stitches", "each", "every", "into", "next", "twice",
    "around", "with",
))  # fmt: skip
_LABELS = frozenset(("rnd", "rnds", "rd", "rds"))
"""What designers of several languages number their rounds with: told once, however many rounds there are."""


@cache
def stitch_words() -> frozenset[str]:
    """Single words that are stitches or shapings in any language and in any terms."""
    terms = (word.lower() for entry in STITCHES.values() for t in (Terms.US, Terms.UK) for word in entry.spellings(t))
    phrases = (w for code in LANGUAGES for w, m in words_of(code).items() if m.sort is Sort.STITCH)
    tables = (words_file(code)["carrying"] for code in LANGUAGES)
    shapes = (word for table in tables for word in (*table["increase"], *table["decrease"]))
    return frozenset(word for word in (*terms, *phrases, *shapes) if " " not in word)


@cache
def work_words() -> frozenset[str]:
    """Single words that are work in any language, whatever stands around them: stitches, rings, words for a plain round."""
    sorts = (Sort.STITCH, Sort.RING, Sort.PLAIN)
    words = (w for code in LANGUAGES for w, m in words_of(code).items() if m.sort in sorts)
    return stitch_words() | {word for word in words if " " not in word}


LEAST_TELLING = 4
"""Letters of a word of the work that tells its language without being listed as telling."""


@cache
def _telling(language: str) -> frozenset[str]:
    """Words that tell a language: those that its file lists, and words of the work that English does not have."""
    own = {w for w in words_of(language) if len(w) >= LEAST_TELLING and w.isalpha() and w not in words_of("en")}
    tints = frozenset(words_file(language)["colours"]) - frozenset(words_file("en")["colours"])
    return frozenset(words_file(language)["telling"]) | own | tints


def language_of(words: Sequence[str]) -> str:
    """The language of most of the telling words, English when few are of any other."""
    telling = {code: _telling(code) for code in LANGUAGES if code != "en"}
    counted = [w for w in words if w not in _LABELS]
    labels = _LABELS & set(words)
    counts = {code: sum(w in own for w in counted) + len(labels & own) for code, own in telling.items()}
    best = max(counts, key=lambda code: counts[code])
    english = sum(w in _PLAIN_ENGLISH for w in words)
    english += len(labels) if english else 0
    # A word of one letter is a stitch in many a private hand.
    sure = any(len(w) > 1 and w in telling[best] for w in words)
    return best if sure and counts[best] > english else "en"


@cache
def table_of(language: str, terms: Terms) -> dict[str, Meaning]:
    """Every phrase of a language; with English stitches in `terms` where no word of the language says otherwise."""
    table = {k: v for k, v in words_of("en").items() if language == "en" or v.sort not in (Sort.QUIET, Sort.PLACE)}
    for entry in STITCHES.values():
        if entry.key != "ch":
            for word in entry.spellings(Terms.US if terms is Terms.LETTERS else terms):
                table[word.lower()] = Meaning(Sort.STITCH, entry.key)
    if terms is Terms.LETTERS:
        for letter, key in (
            ("x", "sc"),
            ("v", "inc"),
            ("a", "dec"),
            ("w", "inc3"),
            ("m", "dec3"),
            ("t", "hdc"),
            ("f", "dc"),
        ):
            table[letter] = Meaning(Sort.STITCH, key)
    for phrase in ("inc", "increase", "dec", "decrease", "inv dec", "invdec"):
        table[phrase] = words_of("en")[phrase]
    return table | (dict(words_of(language)) if language != "en" else {})


@cache
def first_words(language: str, terms: Terms) -> frozenset[str]:
    """The words that phrases of a language begin with."""
    return frozenset(phrase.split(" ", 1)[0] for phrase in table_of(language, terms))
