"""Rounds of which nothing but the counts is told: '6 / 12 / 18 x3', 'increase to 12, 18, 24 and 30 in the next rounds',
'18', 'even'. The work between two counts is spread evenly by who writes the rounds out."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence
from functools import cache

from craft.text.freehand.carried_on import any_of
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.lexicon import Sort, words_file

LEAST_CHANGE = 3
"""Stitches by which a count alone tells an increase or a decrease; fewer are a slip."""

LEAST_LISTED = 3
"""Counts of a line that is a part by itself."""

MOST_RING = 12
"""Stitches in a ring that a list of counts begins with."""

_ALONE = re.compile(
    r"(?i)(?:(?:inc(?:rease)?|dec(?:rease)?)\s+(?:back\s+|up\s+|down\s+|again\s+)?to\s+)?\d{1,3}(?:\s*x\s*\d{1,2})?"
    r"(?:\s*(?:,|and|then)(?:\s*(?:and|then))*\s*(?:(?:back|up|down)\s+)?(?:to\s+)?\d{1,3}(?:\s*x\s*\d{1,2})?)*"
    r"\s*(?:sts|stitches)?\.?"
)
"""'18', '30 x3', 'decrease back to 18, then to 12'."""

_COUNT = re.compile(r"\d{1,4}(?:\s*x\s*\d{1,3})?")
_SIGNS = re.compile(r"\s*(?:/|->|=>|>|\u2192)\s*")
_NUMBER = re.compile(r"\d{1,4}")


def counts_alone(text: str, live: int) -> tuple[str, ...]:
    """'24', '30 x3', 'decrease back to 18, then to 12' on `live` stitches: the counts of rounds that have no label, '30 x3'
    for three of them; none where the text says more, or a count is too far from the one before to be its round's."""
    items = tuple(_COUNT.findall(text)) if _ALONE.fullmatch(text.strip()) else ()
    counts = [live, *(_of(item) for item in items)]
    same = any(a == b for (a, b), item in zip(itertools.pairwise(counts), items, strict=True) if "x" not in item)
    return items if not same and _follow(live, counts[1:]) else ()


def is_count_alone(text: str) -> bool:
    """Whether a line is a number of stitches, with how many rounds have it or without, and nothing else."""
    return _COUNT.fullmatch(text.strip(" .")) is not None


def follows(live: int, count: int) -> bool:
    """Whether a round of `count` stitches can be shaped evenly on one of `live`: no slip of one or two, and at most twice or
    half as many."""
    return _follow(live, (count,))


def _of(item: str) -> int:
    return int(item.split("x", maxsplit=1)[0])


def counts_gone_to(text: str, vocabulary: Vocabulary, live: int) -> tuple[str, ...]:
    """'Then decrease to 24, 18, 12 and 6', 'in den nächsten Runden auf 12, 18, 24 zunehmen' on `live` stitches: the counts
    of the rounds that a sentence goes to one by one, by as many stitches each; none where it is another sentence, or they do
    not go its way."""
    words = text.lower().replace("’", "'")
    say = _patterns(vocabulary.language)
    grows, shrinks = (say[key].search(words) is not None for key in ("increase", "decrease"))
    listed = say["listed"].search(words)
    if grows == shrinks or listed is None:
        return ()
    counts = tuple(int(n) for n in _NUMBER.findall(listed["list"]))
    steps = {b - a for a, b in itertools.pairwise((live, *counts))}
    one_way = len(steps) == 1 and (max(steps) > 0) is grows
    beside = {int(n) for n in _NUMBER.findall(words[: listed.start("list")] + words[listed.end("list") :])}
    said = {abs(step) for step in steps} | {len(counts)}
    return tuple(map(str, counts)) if one_way and beside <= said and _follow(live, counts) else ()


def plain_alone(text: str, vocabulary: Vocabulary) -> int:
    """'even', 'plain, plain': as many plain rounds as it says the word; 0 where it says another."""
    sorts = [t.sort for t in tokens(text, vocabulary)]
    plain = sorts.count(Sort.PLAIN)
    return plain if set(sorts) <= {Sort.PLAIN, Sort.COMMA, Sort.STOP, Sort.AND} else 0


def counts_listed(text: str, *, named: bool) -> tuple[str, list[str]] | None:
    """'body: 6 / 12 / 18 x3 / close', '6 → 12 → 18 → 18 → 12': the name and the items of a part told by its counts alone;
    None for any other line. named: its name stands above it, so that it need not stand before the counts."""
    name, colon, rest = text.partition(":")
    if not colon:
        name, rest = "", text
    items = [item.strip(" .") for item in _SIGNS.split(rest)]
    counts = [item for item in items if _COUNT.fullmatch(item)]
    mostly = len(items) >= LEAST_LISTED and len(counts) >= 2 and len(counts) * 2 >= len(items) - 1
    if not mostly or not (colon or (named and _is_a_part(counts) and counts[0] == items[0])):
        return None
    return name, items


def _is_a_part(counts: Sequence[str]) -> bool:
    """Whether counts begin with a ring and each can follow the one before."""
    told = [_of(count) for count in counts]
    return told[0] <= MOST_RING and len(told) > LEAST_LISTED and _follow(told[0], told[1:])


def _follow(live: int, counts: Sequence[int]) -> bool:
    """Whether each count can be the round's behind the one before: as many, or neither a slip nor more than twice or half."""
    return all(
        a == b or (abs(b - a) >= LEAST_CHANGE and a <= 2 * b <= 4 * a) for a, b in itertools.pairwise((live, *counts))
    )


@cache
def _patterns(language: str) -> dict[str, re.Pattern[str]]:
    many = {key: any_of(words) for key, words in words_file(language)["carrying"].items()}
    joint = r"\s*(?:,|->|\u2192|/|\b(?:and|then|und|dann|et|puis|y|luego|e|poi|en|dan)\b)"
    again = rf"(?:{joint})+\s*(?:(?:{many['up_to']})\s+)?"
    units = rf"(?:\s*(?:{many['count']})(?!\w))?"
    return {
        "increase": re.compile(rf"(?<!\w)(?:{many['increase']})(?!\w)"),
        "decrease": re.compile(rf"(?<!\w)(?:{many['decrease']})(?!\w)"),
        "listed": re.compile(
            rf"(?<!\w)(?:{many['up_to']}|{many['until']})\s+(?P<list>\d{{1,3}}{units}(?:{again}\d{{1,3}}{units})+)(?!\w)"
        ),
    }
