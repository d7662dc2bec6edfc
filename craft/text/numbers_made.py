"""Whether parts are made as often as the directions use them: 'sew one ear to each side' needs two ears."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from functools import lru_cache

from craft.problems import Place, Problem
from craft.rounds.numbers import CARDINALS, often
from craft.rounds.pattern import Note, Part, Pattern, Step
from craft.text.freehand.lexicon import LANGUAGES, Sort, words_of

_EACH_SIDE = re.compile(
    r"(?i)\b(?:one|une?|eine?n?|una|een)\s+(?P<name>[^\W\d_]+)\s+(?:to|on|at|de|an|auf|a|en|aan)\s+"
    r"(?:each|either|chaque|jede[rn]?|cada|ogni|elke)\s+(?:side|c[oô]té|seite|lado|lato|kant)"
    r"|\b(?:one|une?|eine?n?|una|een)\s+(?P<other>[^\W\d_]+)\s+(?:de|auf)\s+(?:chaque|jeder)\s+\w+"
)
_MANY = re.compile(r"(?i)\b(?:(?P<many>both|[^\W\d_]+|\d{1,2})\s+)(?P<name>[^\W\d_]+s|feet)\b")


def _number(word: str) -> int | None:
    small = word.lower()
    if small == "both":
        return 2
    if small.isdigit():
        return int(small)
    for language in LANGUAGES:
        meaning = words_of(language).get(small)
        if meaning is not None and meaning.sort is Sort.NUMBER:
            return int(meaning.value)
    return CARDINALS.get(small)


@lru_cache(maxsize=1024)
def _stem(word: str) -> str:
    """A word in the singular."""
    small = word.lower()
    return "foot" if small == "feet" else small.rstrip("s")


@lru_cache(maxsize=1024)
def _called(name: str | None) -> str:
    """What a part is called, in the singular: the last word of its name."""
    words = re.findall(r"[^\W\d_]+", name or "")
    return _stem(words[-1]) if words else ""


def _same(word: str, part: Part) -> bool:
    """Whether a word is a part's name, in the singular or the plural."""
    return bool(part.name) and _called(part.name) == _stem(word)


def made_too_few(pattern: Pattern) -> Iterator[Problem]:
    """A warning for every part that the directions use more often than it is made."""
    directions = [item for part in pattern.parts for item in part.items if isinstance(item, Step | Note)]
    calls = Counter(_called(part.name) for part in pattern.parts)
    for part in pattern.parts:
        if part.name is None or calls[_called(part.name)] > 1:
            continue
        for item in directions:
            many = max((n for n in _uses(item.text, part)), default=0)
            if many > part.make:
                made = often(part.make)
                said = f"{part.name} is made {made}, but {many} are used: '{item.text[:60]}'."
                yield Problem("made-too-few", Place(part.name, None, 1, 1, part.span), said)
                break


def _uses(text: str, part: Part) -> Iterator[int]:
    for m in _EACH_SIDE.finditer(text):
        if _same(m.group("name") or m.group("other"), part):
            yield 2
    for m in _MANY.finditer(text):
        if _same(m.group("name"), part) and (n := _number(m.group("many"))) is not None and n < 20:
            yield n
