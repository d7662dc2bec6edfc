"""What follows the work of a round: its count, the number of rounds of a fold, a remark."""

from __future__ import annotations

import re
from dataclasses import dataclass

from craft.problems import Span
from craft.remembered import of_short

_ALL = r"in\s+(?:all|total)"
_UNIT = (
    rf"(?:(?:sts?\.?|stitch(?:es)?|sc|dc|hdc|htr|x|total|live|{_ALL})"
    rf"(?:\s+(?:each|live|total|{_ALL}|on\s+each\s+\w+))?)?"
)
_AGAIN = (
    r"[x×*]\s*\d|\d+\s*(?:times|x\b)|around|once\b|twice\b|thrice\b|repeat"
    r"|in\s+(?:the\s+)?(?:last|next|same|each|every|first|one)\b"
)
_COUNT = re.compile(rf"(?i)[\[({{<]\s*(?:=\s*(?!1\b))?(\d{{1,9}})\s*{_UNIT}\s*[\])}}>](?!\s*(?:{_AGAIN}))")
_EQUALS = re.compile(rf"(?i)(?:=|→|->)\s*(\d{{1,9}})\s*{_UNIT}(?![\w(])")
_DASH = re.compile(r"(?i)[-–—,]\s*(\d{1,9})\s*(?:sts|stitches)\b\.?(?=\s*$)|(?<=\s)[-–—]\s*(\d{1,9})(?=\s*\.?\s*$)")
_FOLD = re.compile(
    r"(?i)[\[(]\s*(?:for\s+)?(\d{1,9})\s*(?:rounds?|rnds?|rows?)\s*(?:in\s+(?:all|total))?\s*[\])]"
    r"|\bfor\s+(\d{1,9})\s*(?:rounds|rnds|rows)\b|[x×]\s*(\d{1,9})\s*(?:rounds|rnds|rows)\b"
)
_DONE = re.compile(
    r"(?i)(?:[,;.]|\band\b|\bthen\b|\band\s+then\b)\s*((?:then\s+)?(?:fasten\s+off|finish\s+off|cut\s+(?:the\s+)?yarn|f\.?o\b|leav(?:e|ing)\s+a\s+(?:long\s+|short\s+)?(?:tail|end|thread)|"
    r"stuff\b|close\s+(?:the\s+(?:hole|opening|piece)|up|off)|do\s+not\s+(?:fasten|stuff|cut|join)|don[’']t\s+(?:fasten|stuff|cut)|place\s+(?:a\s+)?marker|mark\s+the\b).*)$",
    re.DOTALL,
)
_SENTENCE = re.compile(r"(?<=[\w)\]])\.\s+(?=[A-Z][a-z]{2,})(?!(?i:sc|inc|dec|join)\b)")


@dataclass(frozen=True, slots=True)
class Tail:
    """A round's line cut up; spans count from the text given to `tail_of`.

    body: where the work ends. count, fold: the numbers said. remark: what stands behind.
    """

    body_end: int
    count: int | None = None
    count_span: Span | None = None
    fold: int | None = None
    fold_span: Span | None = None
    remark: Span | None = None


def _top_level(text: str) -> list[bool]:
    depth, flags = 0, []
    for sign in text:
        if sign in ")]}>" and depth:
            depth -= 1
        flags.append(depth == 0)
        if sign in "([{":
            depth += 1
    return flags


@of_short(4_096)
def tail_of(text: str) -> Tail:
    """Cut what follows a round's label into work, count, fold and remark; never raises."""
    top = _top_level(text)
    fold = _FOLD.search(text)
    count = next((m for m in _COUNT.finditer(text) if top[m.start()] and text[: m.start()].strip()), None)
    if count is None:
        count = next((m for m in (*_EQUALS.finditer(text), *_DASH.finditer(text)) if top[m.start()]), None)
    ends = [m.start() for m in (count, fold) if m is not None]
    behind = max((m.end() for m in (count, fold) if m is not None), default=None)
    body_end = min(ends, default=len(text))
    remark: Span | None = None
    if behind is None:
        if sentence := _SENTENCE.search(text):
            body_end, remark = sentence.start(), Span(sentence.end(), len(text))
        elif done := _DONE.search(text):
            body_end, remark = done.start(), Span(done.start(1), len(text))
    else:
        rest = re.compile(r"[\s.,;:·–—-]*(?:and\s+then\s+)?(.*?)\s*$", re.DOTALL).match(text, behind)
        if rest and rest.group(1):
            remark = Span(rest.start(1), rest.end(1))
    return Tail(
        body_end,
        int(count.group(count.lastindex or 1)) if count else None,
        Span(*count.span(count.lastindex or 1)) if count else None,
        int(fold.group(1) or fold.group(2) or fold.group(3)) if fold else None,
        Span(*fold.span()) if fold else None,
        remark,
    )
