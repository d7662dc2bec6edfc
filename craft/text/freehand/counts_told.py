"""Counts told in words, as a sentence says how many stitches there are: 'so you have 18 stitches', '18 Maschen insgesamt',
'vous devez avoir 18 mailles'. What each language says them with is in the `[counts]` of its words."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.lexicon import LANGUAGES, Sort, words_file, words_of

UNIT = (
    r"(?:d\.\s?c|s\.\s?c|h\.\s?d\.\s?c|stitches|sts?|h?[sd]cs|sc|dc|hdc|htr|d?tr|brs?|d?stb|hstb|stk|pa|x|m"
    r"|maschen?|fm|mailles?|ms|pts?|ptos?|p|punt(?:os?|i)|pb|mp|maglie|m\.?b|p\.\s?b|m\.\s?s|steken|v|vasten|loops|st"
    r"|made|sts?\s+each\s+round"
    r"|(?:in\s+)?each(?:\s+(?:round|rnd|rd|time|of\s+them))?)(?![^\W\d_])\.?"
)
"""What a number of stitches is one of, in any language."""

MOST_WORDS = 8
"""Words of a clause before its number, and behind it."""


@dataclass(frozen=True, slots=True)
class Told:
    """A count in words. start, end: where its clause stands."""

    count: int
    start: int
    end: int


@cache
def number_words(language: str) -> str:
    """A pattern of numbers in digits, and in the words of a language and of English."""
    words = [w for table in (words_of("en"), words_of(language)) for w, m in table.items() if m.sort is Sort.NUMBER]
    return rf"(?:\d{{1,5}}|(?:{_any(words)})(?![^\W\d_]))"


def number_of(said: str, language: str) -> int:
    """A number in digits or in a language's words; 0 for another word."""
    if said.isdigit():
        return int(said)
    for table in (words_of(language), words_of("en")):
        meaning = table.get(said.lower())
        if meaning is not None and meaning.sort is Sort.NUMBER:
            return int(meaning.value)
    return 0


def counts_told(text: str, language: str) -> Iterator[Told]:
    """The clauses of a text that say how many stitches there are, and nothing else."""
    return _told(text, language) if _tells_at_all(language, _spoken(text)) else iter(())


def _told(text: str, language: str) -> Iterator[Told]:
    for m in _clauses(language).finditer(text):
        opened = _OPENS.search(text[: m.start()]) is not None
        said = _told_by(language, "say").search(m["ahead"])
        if said is None and (m["unit"] or m["behind"].strip()):
            said = _told_by(language, "until").search(m["ahead"])
        if said is None and not (opened and (m["behind"].strip() or _told_by(language, "named").search(m["ahead"]))):
            continue
        ahead = 0 if opened or said is None else _past_work(m["ahead"], language)
        yield Told(number_of(m["n"], language), m.start() + ahead, m.end())


def clauses_told(text: str) -> Iterator[Told]:
    """The clauses of a text in any language, from one sign to the next, that say how many stitches there are."""
    spoken = _spoken(text)
    for language in LANGUAGES:
        if _tells_at_all(language, spoken):
            yield from (told for told in _told(text, language) if _OPENS.search(text[: told.start]) is not None)


def _spoken(text: str) -> frozenset[str]:
    """The words of a text, in small letters."""
    return frozenset(_SPOKEN.findall(text.lower()))


def _tells_at_all(language: str, spoken: frozenset[str]) -> bool:
    """Whether a text has any word that such a clause needs: work in the notation has none, and is not searched."""
    return not spoken.isdisjoint(_heads(language))


_SPOKEN = re.compile(r"[^\W\d_]+")


@cache
def _heads(language: str) -> frozenset[str]:
    """The first words of what tells a count."""
    counts = words_file(language)["counts"]
    phrases = (phrase for kind in ("say", "named", "until", "behind") for phrase in counts[kind])
    return frozenset(found[0] for phrase in phrases if (found := _SPOKEN.search(phrase.lower())))


def before_count(language: str) -> str:
    """A pattern of the words that may stand before a count: '(total 24)', '[so you have 24]'."""
    say, others = _words(language, "say"), _words(language, "named", "until", "beside")
    return rf"(?:(?:{say}){_WHOLE}\s*[:=,]?\s*|(?:{others}){_WHOLE}\s*[:=]?\s*){{0,{MOST_WORDS}}}+"


def behind_count(language: str) -> str:
    """A pattern of the words that may stand behind a count: '(24 in all)'."""
    return rf"(?:\s*(?:{_words(language, 'behind')}){_WHOLE}){{0,{MOST_WORDS}}}+"


_WHOLE = r"(?:(?<=')|(?![^\W\d_]))"
"""Where a word ends: 'afin d'obtenir'."""

_OPENS = re.compile(r"(?:^|[.,;:!?()\[\]\n]|(?:\s|(?<=[^\W\d_)\]]))[-\u2013\u2014])\s*$")
"""What stands before a clause: nothing, or a sign."""


def _past_work(ahead: str, language: str) -> int:
    """Where the words that tell a count begin behind work: its own '… sts' are none of them."""
    named = re.match(rf"(?i)(?:(?:{_words(language, 'named')}){_WHOLE}\s*)+", ahead)
    return named.end() if named is not None else 0


@cache
def _clauses(language: str) -> re.Pattern[str]:
    """Words that may tell a count, a number, and words behind it, up to a sign."""
    return re.compile(
        rf"(?im)(?<![^\W_])(?P<ahead>{before_count(language)})(?P<n>{number_words(language)})(?P<unit>(?:\s*{UNIT}){{0,2}})"
        rf"(?P<behind>{behind_count(language)})(?=\s*(?:[.!?;,:)\]]|-\s|$))"
    )


@cache
def _told_by(language: str, kind: str) -> re.Pattern[str]:
    return re.compile(rf"(?i)(?<![^\W\d_])(?:{_words(language, kind)}){_WHOLE}")


@cache
def _words(language: str, *kinds: str) -> str:
    return _any({word for kind in kinds for word in words_file(language)["counts"][kind]})


def _any(words: Iterable[str]) -> str:
    return "|".join(sorted(map(re.escape, words), key=lambda w: (-len(w), w)))
