"""Labels told in words, as a sentence names its round: 'In the third round', 'Nächste Runde', 'Du cinquième au huitième
tour', 'Las cuatro vueltas siguientes'. What each language says them with is in the `[labels]` of its words."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.lexicon import LANGUAGES, Sort, words_file, words_of

_NTH = r"(?:\.|\.?(?:st|nd|rd|th|ème|ère|er|e|º|ª|°|a|o))"
"""What makes a number in digits the one of a round: '3 Runden' are so many."""
_END = r"(?!\w)\s*(?:->|[:;.,)=>-])*\s*"


SAID_OF = re.compile(
    r"(?i)(?:is|are|was|were|will\s+be)\s+(?:now\s+|then\s+)?(?:finished|done|complete[d]?|closed|ended|over|your\s+last|the\s+last)\b"
    r"|(?:ist|sind|est|sont|está|è|sono|is|zijn)\s+(?:nun\s+|jetzt\s+)?(?:fertig|beendet|geschafft|termin[ée]e?s?|finie?s?|terminad[ao]s?"
    r"|finit[oaei]|klaar)\b"
)
"""'Rd 8 is finished with a sl st': said of a round that stands elsewhere."""


@dataclass(frozen=True, slots=True)
class Told:
    """A label in words. first, last: its rounds, None for whichever come next; many: how many those are; end: where its
    words end."""

    first: int | None
    last: int | None
    many: int
    end: int


def label_told(text: str) -> Told | None:
    """The label that a text begins with, in any language; None where it begins with none."""
    first = _FIRST_WORD.match(text)
    if first is None:
        return None
    for code in _languages_of(first.group(0).lower()):
        for form in _forms(code):
            if (m := form.match(text)) is not None:
                return _told(m, code)
    return None


def _told(m: re.Match[str], language: str) -> Told:
    said = m.groupdict()
    numbers = _numbers(language)
    if (many := said.get("many")) is not None:
        return Told(None, None, _number(many, numbers), m.end())
    if said.get("a") is None:
        return Told(None, None, 1, m.end())
    first = _number(said["a"], numbers)
    last = _number(said["b"], numbers) if said.get("b") else first
    return Told(first, max(first, last), 1, m.end())


def _number(said: str, numbers: dict[str, int]) -> int:
    digits = re.match(r"\d+", said)
    word = said.lower()
    return int(digits.group(0)) if digits is not None else numbers.get(word) or numbers[word[:-1]]


@cache
def _numbers(language: str) -> dict[str, int]:
    """Numbers and ordinals in words."""
    numbered = (Sort.NUMBER, Sort.ORDINAL)
    found = {word: int(m.value) for word, m in words_of(language).items() if m.sort in numbered}
    return found | ({"first": 1} if language == "en" else {})


def _is(sort: Sort, word: str, language: str) -> bool:
    """Whether a number in words is of a sort; 'first' is a place in English, too, and no number of stitches."""
    meaning = words_of(language)[word]
    return (Sort.NUMBER if meaning.sort is Sort.NUMBER else Sort.ORDINAL) is sort


def _rounds(language: str) -> tuple[str, ...]:
    return (*words_file(language)["labels"].get("round", ()), *words_file(language)["carrying"]["rounds"])


_FIRST_WORD = re.compile(r"[^\W_]+'?")


@cache
def _first_words(language: str) -> frozenset[str]:
    """What labels of a language begin with; a number in digits is told by `label_at` as well."""
    say = words_file(language)["labels"]
    kinds = (say["then"], say["work"], say["lead"], say["article"], say["next"], _rounds(language))
    endings = ("", *say["ending"].strip("[]?"))
    ordinals = (f"{word}{ending}" for word in _numbers(language) for ending in endings)
    return frozenset(word.split(" ", maxsplit=1)[0] for words in (*kinds, ordinals) for word in words)


@cache
def _languages_of(word: str) -> tuple[str, ...]:
    return tuple(code for code in LANGUAGES if word in _first_words(code))


def _any(words: Iterable[str]) -> str:
    return "|".join(sorted(map(re.escape, words), key=lambda w: (-len(w), w)))


@cache
def _forms(language: str) -> tuple[re.Pattern[str], ...]:
    """The ways in which a language names rounds in a sentence, likeliest first."""
    say, numbers = words_file(language)["labels"], _numbers(language)
    cardinals, ordinals = (_any(w for w in numbers if _is(sort, w, language)) for sort in (Sort.NUMBER, Sort.ORDINAL))
    rounds = rf"(?:{_any(_rounds(language))})\.?"
    number = rf"(?:\d{{1,3}}|(?:{cardinals})(?!\w))"
    nth = rf"(?:\d{{1,3}}\s*{_NTH}(?!\w)|(?:{ordinals}){say['ending']}(?!\w))"
    upcoming = rf"(?:{_any(say['next'])})(?!\w)"
    lead = rf"(?:(?:{_any((*say['lead'], *say['article']))})(?:\s+|(?<=')))"
    to = rf"(?:\s*[-/&+]\s*|\s+(?:{_any(say['until'])})(?:\s+|(?<='))){lead}*"
    ways = (
        rf"{lead}*{upcoming}\s+(?P<many>{number})\s+{rounds}",  # 'the next four rounds'
        rf"{lead}+(?P<many>{number})\s+{upcoming}\s+{rounds}",  # 'les quatre prochains tours'
        rf"{lead}*(?P<many>{number})\s+{rounds}\s+{upcoming}",  # 'los cuatro giros siguientes'
        rf"{lead}*(?P<a>{nth})(?:(?:\s*,\s*{nth})*{to}(?P<b>{nth}))?\s*{rounds}",  # 'from the fifth to the eighth round'
        rf"{lead}*(?P<a>{nth})\s*{rounds}{to}(?P<b>{nth})\s*{rounds}",
        rf"{lead}*(?:{upcoming}\s+{rounds}|{rounds}\s+{upcoming})",  # 'next round', 'tour suivant'
    )
    of_another = rf"(?!\w|\s+(?:{_any(say['of'])})\s)"  # 'round 10 of the cap' is spoken of, and not worked there
    several = rf"(?:(?:\s*,\s*{number})*{to}(?:{rounds}\s+)?(?P<b>{number}))?"
    by_number = rf"{rounds}\s+{lead}*(?P<a>{number}){several}{of_another}"  # 'in round 4', 'now round 4'
    then = rf"(?:(?:{_any((*say['then'], *say['work']))})[\s,]+)"
    tells = rf"\s+(?!{SAID_OF.pattern.removeprefix('(?i)')})(?:{_any(say['tells'])})(?!\w)"  # 'round two is …'
    told = (
        *(rf"{then}*{way}" for way in ways),
        rf"{then}*{lead}*{by_number}{tells}",
        rf"(?:{then}+{lead}*|{lead}+){by_number}",
    )
    return tuple(re.compile(rf"(?i){way}{_END}") for way in told)
