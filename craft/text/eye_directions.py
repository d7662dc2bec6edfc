"""The direction for the eyes in a written part: what it says of their place, and how it is said anew.

"Insert the 8 mm eyes between R7 and R8, with 6 stitches visible between." names the round below,
the stitches between and the size. Her own words around them stay as they are.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from craft.errors import require
from craft.problems import Span

_EYES = re.compile(r"(?i)\beyes?\b")
_ROUND = r"(?:rounds?|rows?|rnds?\.?|r)\s*"
_BETWEEN = re.compile(rf"(?i)\bbetween\s+{_ROUND}(\d{{1,4}})\s*(?:and|&|\+|-|–|/)\s*(?:{_ROUND})?(\d{{1,4}})")
_ABOVE = re.compile(rf"(?i)\b(?:above|over|after)\s+{_ROUND}(\d{{1,4}})\b")
_GAP = re.compile(
    r"(?i)(?<![\d.,])(\d{1,4})(\s+(?:visible\s+)?(?:stitch(?:es)?|sts?)\.?)(?=(?:\s+\w+){0,3}?\s+(?:between|apart|visible)\b)"
)
_SIZE = re.compile(r"(?i)(?<![\d.,])(\d{1,2}(?:[.,]\d)?)(?=\s*-?\s*mm\b)")
_NOWHERE = re.compile(
    r"(?im)^(?:insert|place|attach|add|put(?: in)?|fit|embroider)\s+(?:the\s+)?(?:\d+\s*mm\s+)?(?:safety\s+)?eyes"
    r"(?:\s+(?:now|here|in))?[.!]?(?=\s*$)"
)
_ONE, _MANY = "stitch", "stitches"


@dataclass(frozen=True, slots=True)
class EyeWords:
    """What a direction says. below: number of the round below the eyes; None what it does not say."""

    below: int | None = None
    between: int | None = None
    eye_mm: float | None = None
    embroidered: bool = False


@dataclass(frozen=True, slots=True)
class EyeDirection:
    """A direction in a text: the span of its line (code points), and what it says."""

    span: Span
    said: EyeWords


def _said(line: str) -> EyeWords:
    below = _BETWEEN.search(line) or _ABOVE.search(line)
    first, last = (int(below.group(1)), int(below.group(below.lastindex or 1))) if below else (0, 0)
    gap, size = _GAP.search(line), _SIZE.search(line)
    return EyeWords(
        min(first, last) or None,
        int(gap.group(1)) if gap and int(gap.group(1)) > 0 else None,
        float(size.group(1).replace(",", ".")) if size else None,
        "embroider" in line.lower(),
    )


def rounds_named(words: str) -> tuple[int, ...]:
    """The rounds that a direction for the eyes names."""
    found = _BETWEEN.search(words) or _ABOVE.search(words)
    return tuple(int(n) for n in found.groups() if n) if found else ()


def find_direction(text: str) -> EyeDirection | None:
    """The first line of a part's text that says between which rounds the eyes lie, None without one."""
    at = 0
    for line in text.splitlines(keepends=True):
        if _EYES.search(line) and (said := _said(line)).below is not None:
            return EyeDirection(Span(at, at + len(line.rstrip("\r\n"))), said)
        at += len(line)
    return None


def rewrite_direction(text: str, words: EyeWords) -> str:
    """The text with its direction saying `words` instead; what she did not say is not added.

    A text without a direction stays as it is.
    """
    found = find_direction(text)
    if found is None or words.below is None:
        return text
    start, end = found.span.start, found.span.end
    line = text[start:end]
    if m := _BETWEEN.search(line):
        line = _put(line, [(m.span(1), str(words.below)), (m.span(2), str(words.below + 1))])
    elif m := _ABOVE.search(line):
        line = _put(line, [(m.span(1), str(words.below))])
    if words.between is not None and (m := _GAP.search(line)):
        noun = re.sub(r"(?i)\bstitch(es)?\b", _ONE if words.between == 1 else _MANY, m.group(2))
        line = _put(line, [(m.span(1), str(words.between)), (m.span(2), noun)])
    if words.eye_mm is not None and not words.embroidered and (m := _SIZE.search(line)):
        line = _put(line, [(m.span(1), f"{words.eye_mm:g}")])
    return text[:start] + line + text[end:]


def _put(line: str, changes: list[tuple[tuple[int, int], str]]) -> str:
    for (start, end), new in sorted(changes, reverse=True):
        line = line[:start] + new + line[end:]
    return line


def eye_direction(words: EyeWords) -> str:
    """A whole direction in the trade's words, for a part that has none."""
    require(words.below is not None, "Eyes that lie nowhere can't be told.", field="below")
    assert words.below is not None
    verb = "Embroider the" if words.embroidered else "Insert the"
    size = "" if words.eye_mm is None or words.embroidered else f" {words.eye_mm:g} mm"
    place = f"between R{words.below} and R{words.below + 1}"
    gap = ""
    if words.between is not None:
        gap = f", with {words.between} {_ONE if words.between == 1 else _MANY} visible between"
    return f"{verb}{size} eyes {place}{gap}."


def insert_direction(text: str, words: EyeWords, after_line: int) -> str:
    """The text with a direction of its own behind line `after_line` (from 1), or with the one it has said anew.

    A line that only says that eyes go in ("Insert the eyes.") is the direction's place.
    """
    if find_direction(text) is not None:
        return rewrite_direction(text, words)
    if bare := _NOWHERE.search(text):
        return text[: bare.start()] + eye_direction(words) + text[bare.end() :]
    lines = text.splitlines(keepends=True)
    at = min(max(after_line, 0), len(lines))
    if at and not lines[at - 1].endswith("\n"):
        lines[at - 1] += "\n"
    return "".join([*lines[:at], eye_direction(words) + "\n", *lines[at:]])


def round_for_eyes(counts: list[int], below: int, needed: int = 24) -> int:
    """After which round (from 1) eyes are best put in: before the part narrows, while a hand still goes in.

    counts: live stitches of every round. below: the round below them. needed: stitches that let a hand
    in (common practice, no source).
    """
    require(1 <= below <= max(len(counts), 1), "Eyes lie above a round of the part.", field="below")
    at = min(below + 1, len(counts))
    while at < len(counts) and counts[at] >= counts[at - 1] and counts[at] >= needed:
        at += 1
    return at
