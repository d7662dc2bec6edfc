"""Rounds told in one sentence that names only the first of them: 'In der zweiten Runde jede M verdoppeln (12), in der
dritten jede zweite (18)'. Each is written with its label."""

from __future__ import annotations

import itertools
import re
from collections.abc import Sequence

from craft.text.freehand.labels import NTHS, ROUNDS, spelled

_IN = r"(?:in\s+der|in\s+den|in|im|dans\s+le|dans|au|en\s+la|en|nel|nella|in\s+de|in\s+the|for\s+the|on\s+the)"
_AND = r"(?:and|und|et|y|e|en|then|dann|puis|luego|poi|dan)"
_IN_NTH = re.compile(
    rf"(?i)(?:(?P<ahead>[.;,:!])|^|(?<=[)\]]))\s*(?:{_AND}\s+)?{_IN}\s+(?:(?P<nth>{NTHS}|\d{{1,3}}\s?(?:\.|ª|º|°|th|rd|nd|e|ème))"
    rf"(?:\s+(?P<word>{ROUNDS}))?|(?P<before>{ROUNDS})\.?\s+(?P<n>\d{{1,3}}))(?![^\W_])"
    rf"(?!\s*(?:and|und|et|y|e|en|to|bis|à|a|al|-|&)\s+(?:the\s+)?(?:\d|{NTHS}))\s*[,:]?\s+"
)
"""'in der dritten', 'En la tercera vuelta,', ', in Runde 11': the number of a round behind its preposition."""

LEAST_TOLD = 2
"""Rounds of a text's line that are numbered so, before a number without the word for a round is one's label."""


def unfolded(text: str) -> str:
    """A line whose rounds all have their labels; the line itself where no number of a round is left without its word, or
    where they do not go on by one."""
    run = _run([*_IN_NTH.finditer(text)])
    if len(run) < LEAST_TOLD or all(_is_whole(m) for m in run):
        return text
    out, at = [], 0
    for m in run:
        # What ends in a comma there ends a round.
        ahead = m["ahead"] if m["ahead"] not in (None, ",") else "."
        out.append(f"{text[at : m.start()]}{ahead if m.start() else ''} Rnd {_number(m)}: ")
        at = m.end()
    return "".join((*out, text[at:])).strip()


def _number(m: re.Match[str]) -> int:
    return int(m["n"]) if m["n"] else spelled(re.sub(r"(?<=\d)\D+$", "", m["nth"]))


def _is_whole(m: re.Match[str]) -> bool:
    """Whether a number stands with the word for a round, at the beginning of a sentence."""
    return (m["word"] or m["before"]) is not None and m["ahead"] != ","


def _run(found: Sequence[re.Match[str]]) -> list[re.Match[str]]:
    """The first number that has the word for a round, and those that go on from it, with the word or by one."""
    begun = itertools.dropwhile(lambda m: not (m["word"] or m["before"]), found)
    run: list[re.Match[str]] = []
    for m in begun:
        on = not run or _number(m) == _number(run[-1]) + 1
        later = (m["word"] or m["before"]) and run and _number(m) > _number(run[-1])
        if on or later:
            run.append(m)
    return run
