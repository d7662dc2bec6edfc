"""Shaping that a sentence carries on round by round: 'continue to increase 6 sts in every round until you have 48 sts'."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.lexicon import LANGUAGES, Sort, words_file, words_of

MOST_CARRIED = 60
"""Rounds that one sentence carries on."""

LEAST_ALIKE = 2
"""Rounds that changed alike, before 'like this' says how the next ones do."""


@dataclass(frozen=True, slots=True)
class Carried:
    """What such a sentence says. grows: whether it increases, None when only 'in this way' is said. by: stitches a round;
    until: stitches of the last one; rounds: how many; every: 1, or 2 for every other round. None for what is unsaid."""

    grows: bool | None
    by: int | None
    until: int | None
    rounds: int | None
    every: int = 1

    def counts(self, live: int, changes: Sequence[int | None]) -> tuple[int, ...] | None:
        """The counts of its rounds on `live` stitches, the last one as it is said; None where what is said does not tell
        them. changes: by how much the rounds before it changed, None where that is not known; the last one last."""
        shaped = bool(changes and changes[-1])
        if self.grows is None and self.until is None:
            return self._as_the_last(live, changes)
        by = self._change(next((change for change in reversed(changes) if change), None))
        if by is None or (self.until is not None and (self.until - live) * by <= 0):
            return None
        found: list[int] = []
        now = live
        plain = self.every > 1 and shaped
        while len(found) < MOST_CARRIED and not self._is_done(found, now):
            now = now if plain else now + by
            if now < 2 or (self.until is not None and (self.until - now) * by < 0):
                return None
            found.append(now)
            plain = self.every > 1 and not plain
        return tuple(found) if found and self._agrees(found) else None

    def _as_the_last(self, live: int, changes: Sequence[int | None]) -> tuple[int, ...] | None:
        """'Continue like this for 4 rounds': as the last two changed, where they changed alike."""
        if len(changes) < LEAST_ALIKE or changes[-1] is None or changes[-1] != changes[-2] or self.every > 1:
            return None
        return tuple(live + changes[-1] * k for k in range(1, (self.rounds or 0) + 1))

    def _change(self, step: int | None) -> int | None:
        if self.by is None or self.grows is None:
            same_way = step is not None and step != 0 and self.grows in (None, step > 0)
            return step if same_way and (self.by is None or self.by == abs(step or 0)) else None
        return self.by if self.grows else -self.by

    def _is_done(self, found: Sequence[int], now: int) -> bool:
        return now == self.until if self.until is not None else len(found) == self.rounds

    def _agrees(self, found: Sequence[int]) -> bool:
        """Whether the count and the number of rounds, where both are said, say the same."""
        return (self.until is None or found[-1] == self.until) and self.rounds in (None, len(found))


def carried_on(text: str, vocabulary: Vocabulary, rounds: int | None = None) -> Carried | None:
    """What a sentence carries on, None when it carries nothing on. rounds: how many its label says."""
    words = _in_digits(text, vocabulary)
    say = _patterns(vocabulary.language)
    grows = say["increase"].search(words)
    shrinks = say["decrease"].search(words)
    if grows is not None and shrinks is not None:
        return None
    every_other, each, like = (say[key].search(words) for key in ("other", "each", "like"))
    shape = grows if grows is not None else shrinks
    if not (each or every_other or like) or (shape is None and like is None):
        return None
    until = next((n for key in ("until", "up_to", "counted") if (n := _number(say[key], words)) is not None), None)
    many = _number(say["many"], words) if rounds is None else rounds
    if until is None and many is None:
        return None
    by = _number(say["by"], words[shape.start() :]) if shape is not None else None
    if shape is not None and by is None:
        by = _number(say["before"], words)
    kept = shape is None or by is not None or like is not None
    return Carried(grows is not None if shape else None, by, until, many, 2 if every_other else 1) if kept else None


def tells_shaping(text: str, vocabulary: Vocabulary) -> bool:
    """Whether a sentence says to increase or decrease until there are so many, or to so many: work, though nothing else of
    it is read."""
    words = _in_digits(text, vocabulary)
    say = _patterns(vocabulary.language)
    shaped = say["increase"].search(words) or say["decrease"].search(words)
    return shaped is not None and any(say[key].search(words) is not None for key in ("until", "up_to"))


def plain_rounds_in(text: str, vocabulary: Vocabulary) -> int:
    """How many rounds a sentence says are plain, 'Work two more rounds with no increases', 'noch 3 Runden ohne Zunahmen'; 0
    where it says more than that, or does not say how many."""
    words = tokens(text, vocabulary)
    sorts = {t.sort for t in words}
    named = {t.value for t in words if t.sort is Sort.STITCH} - {"sc"}
    unknown = [str(t.value).lower() for t in words if t.sort is Sort.NOISE]
    if Sort.PLAIN not in sorts or named or sorts & _SHAPES or Sort.ORDINAL in sorts:
        return 0
    if len(unknown) > MOST_UNKNOWN or not _WHEN.isdisjoint(re.findall(r"[^\W\d_]+", text.lower())):
        return 0
    return _number(_patterns(vocabulary.language)["many"], _in_digits(text, vocabulary)) or 0


def rounds_of_count(text: str, vocabulary: Vocabulary, live: int) -> int:
    """'24 for 4 more rounds', '18 M über 3 Runden' on as many stitches: how many plain rounds; 0 for another line."""
    words = _in_digits(text, vocabulary)
    led = re.match(rf"\W*{live}(?!\w)", words)
    sorts = {t.sort for t in tokens(text, vocabulary)}
    made = {t.value for t in tokens(text, vocabulary) if t.sort is Sort.STITCH} - {"sc"}
    unknown = sum(t.sort is Sort.NOISE for t in tokens(text, vocabulary))
    if led is None or made or sorts & (_SHAPES | {Sort.ORDINAL}) or unknown > MOST_UNKNOWN:
        return 0
    return _number(_patterns(vocabulary.language)["many"], words[led.end() :]) or 0


MOST_UNKNOWN = 2
"""Words without a meaning of a sentence that tells plain rounds and nothing else."""

_WHEN = frozenset((
    "after", "when", "once", "if", "before", "nach", "wenn", "bevor", "après", "quand", "avant", "después", "cuando", "antes",
    "dopo", "quando", "prima", "na", "wanneer", "voor",
))  # fmt: skip
"""'After 3 rounds without increases, insert the eyes': said of rounds that stand elsewhere."""

_SHAPES = {Sort.DOUBLE, Sort.TOGETHER, Sort.TURN, Sort.CHAIN, Sort.REPEAT, Sort.SKIP, Sort.LEAVE, Sort.RING, Sort.PIECE}
"""What a sentence of plain rounds does not speak of."""


def tells_rounds(text: str) -> bool:
    """Whether words have a number of rounds in any language, '4 more rounds', 'quattro giri'."""
    return _some_rounds().search(text.lower()) is not None


def tells_plain_rounds(text: str) -> bool:
    """Whether words tell a number of plain rounds in any language, and nothing else."""
    return tells_rounds(text) and any(plain_rounds_in(text, Vocabulary(code)) for code in LANGUAGES)


@cache
def _some_rounds() -> re.Pattern[str]:
    tables = [words_file(code)["carrying"] for code in LANGUAGES]
    rounds, more = (any_of([word for table in tables for word in table[key]]) for key in ("rounds", "more"))
    numbers = [w for code in LANGUAGES for w, m in words_of(code).items() if m.sort is Sort.NUMBER]
    return re.compile(rf"(?<!\w)(?:\d{{1,3}}|{any_of(numbers)})\s+(?:{more}\s+)?{rounds}(?!\w)")


_COUNTED = re.compile(
    r"(?:[\[(={]|[.,:;–-]\s)\s*(?:\d{1,4}\s*,\s*)*(?P<n>\d{1,4})\s*(?:[^\W\d_]+\.?\s*){0,2}[\])}]?\s*\.?\s*$"
)
"""'(12, 18, 24)', '. 24 sts': the count of the last round, at the end."""


def _in_digits(text: str, vocabulary: Vocabulary) -> str:
    """A sentence in small letters with its numbers in digits."""
    words = text.lower().replace("’", "'")
    for token in reversed(tokens(text, vocabulary)):
        if token.sort is Sort.NUMBER and not text[token.start : token.end].isdigit():
            words = f"{words[: token.start]}{token.value}{words[token.end :]}"
    return words


def _number(pattern: re.Pattern[str], words: str) -> int | None:
    found = pattern.search(words)
    return int(found["n"]) if found is not None else None


@cache
def _patterns(language: str) -> dict[str, re.Pattern[str]]:
    """The patterns of a language, of the words in its table."""
    table = words_file(language)["carrying"]
    say = {key: any_of(phrases) for key, phrases in table.items()}
    rounds, units = say["rounds"], say["count"]
    number = r"(?P<n>\d{1,4})"
    beside = rf"(?:\s+(?!(?:{say['until']}|{say['up_to']})(?!\w))[^\W\d_]+){{0,2}}?\s+"
    other = rf"(?!\s*(?:{say['more']}\s+)?{rounds})(?!\s*(?:cm|mm|in(?!\s+(?:the|each|every|all|next)\b))\b)"
    return {
        "increase": re.compile(rf"(?<!\w){say['increase']}(?!\w)"),
        "decrease": re.compile(rf"(?<!\w){say['decrease']}(?!\w)"),
        "other": re.compile(rf"(?<!\w)(?:{say['other']}\s+{rounds}|{say['turns']})(?!\w)"),
        "each": re.compile(rf"(?<!\w){say['each']}\s+{rounds}(?!\w)"),
        "like": re.compile(rf"(?<!\w){say['like']}(?!\w)"),
        "until": re.compile(rf"(?<!\w){say['until']}(?:\s+[^\W\d_]+){{0,3}}?\s+{number}{other}"),
        "up_to": re.compile(rf"(?<!\w){say['up_to']}\s+{number}{other}"),
        "counted": _COUNTED,
        "many": re.compile(rf"(?<!\w){number}\s+(?:{say['more']}\s+)?{rounds}(?!\w)"),
        "by": re.compile(rf"^[^\W\d_]+{beside}{number}{other}(?!\w)"),
        "before": re.compile(rf"(?<!\w){number}\s+(?:{units}\s+)?(?:{say['increase']}|{say['decrease']})(?!\w)"),
    }  # fmt: skip


def any_of(phrases: Sequence[str]) -> str:
    """A pattern of any of so many phrases, the longest first."""
    ordered = sorted(phrases, key=len, reverse=True)
    return "(?:" + "|".join(re.escape(phrase).replace(r"\ ", r"\s+") for phrase in ordered) + ")"
