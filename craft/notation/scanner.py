"""Lines of a written pattern: which is a heading, a round, a stage direction, a note.

Nothing here reads a round's body; see bodies.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from enum import StrEnum

from craft.pattern import StepKind
from craft.problems import Span


class LineKind(StrEnum):
    """What a line of the raw text is."""

    HEAD = "head"
    HEADING = "heading"
    ROUND = "round"
    STEP = "step"
    COLOUR = "colour"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Line:
    """One raw line: number from 1, span without the line break, kind and the kind's own fields."""

    number: int
    span: Span
    text: str
    kind: LineKind
    name: str = ""
    value: str = ""
    make: int = 1
    step: StepKind = StepKind.OTHER
    label: RoundLabel | None = None


@dataclass(frozen=True, slots=True)
class RoundLabel:
    """A label such as `R7-R12:`; `body_at` is the column offset of what follows it in the line."""

    first: int | None
    last: int | None
    span: Span
    body_at: int


HEAD_KEYS = ("name", "yarn", "hook", "terms", "gauge", "eyes", "notions", "level", "by")
"""Keys of the head block."""

_HEAD = re.compile(rf"(?i)^\s*({'|'.join(HEAD_KEYS)})s?\s*:\s*(\S.*?)\s*$")
_BULLET = r"^\s*(?:[-•‣·*]\s+)?(?:\*\*)?"
_ROUND_WORD = r"(?:rounds?|rnds?|rds?|rows?|r)\.?"
_DASHES = r"[-–—]"
_LABEL = re.compile(
    rf"(?i){_BULLET}{_ROUND_WORD}\s*(\d{{1,15}})"
    # A dash with blanks about it and no second label parts the label from the work: "Rnd 1 - 6 sc in ring".
    rf"(?:\s*(?:{_DASHES}\s*{_ROUND_WORD}\s*|(?<=\d){_DASHES}(?=\d)|\s(?:to|through|thru|until)\s+(?:{_ROUND_WORD})?)\s*(\d{{1,15}})"
    rf"|\s+{_DASHES}\s+(\d{{1,15}})(?=\s*[:.)]))?(?!\w)\s*(?:\*\*)?\s*[:.)\-–—]?\s*(?:\*\*)?\s*"
)
_BARE = re.compile(rf"{_BULLET}(\d{{1,4}})(?:\s*[-–]\s*(\d{{1,4}}))?\s*(?:\.|:|\))(?!\d)\s*")
_NEXT = re.compile(rf"(?i){_BULLET}next\s+{_ROUND_WORD}(?!\w)\s*[:.)\-–—]?\s*")
_MARK_HEADING = re.compile(r"^\s*#{1,6}\s+(.*?)\s*#*\s*$")
_MAKE = re.compile(
    r"(?i)[\s(\[,:–—-]*\b(?:make|x|×)\s*(\d{1,3}|one|two|three|four|five|six)(?:\s+times)?\s*[)\]]?\s*:?\s*$"
)
_WORD_NUMBER = {"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6}
_COLOUR_LINE = re.compile(
    r"(?i)^\s*(?:(?:change|switch)\s+(?:colou?r\s+)?to\s+|colou?r\s*:\s*|with\s+(?=[^:,]*[:,]\s*$))"
    r"([^\W\d_][\w' -]{0,38}?)\s*[.:,]?\s*$"
)

_STEPS: tuple[tuple[StepKind, re.Pattern[str]], ...] = (
    (StepKind.SEW, re.compile(r"(?i)\bembroider|\bsew\b")),
    (
        StepKind.EYES,
        re.compile(r"(?i)\beyes?\b|\bnoses?\b.*\b(insert|place|attach|fit)|\b(insert|place|attach|fit).*\bnose"),
    ),
    (
        StepKind.CLOSE,
        re.compile(
            r"(?i)\bclose\b|\bdraw (it |the \w+ )?(tight|closed)|\bcinch|\bpull (it )?tight"
            r"|front loops? of the (last|remaining)"
        ),
    ),
    (StepKind.STUFF, re.compile(r"(?i)\bstuff|\bfill(ing)?\b")),
    (StepKind.FASTEN_OFF, re.compile(r"(?i)\bfasten\s+off|\bfo\b|\bcut the yarn|\bfinish off")),
    (StepKind.MARKER, re.compile(r"(?i)\bmarker\b|\bmark the\b")),
    (StepKind.SEW, re.compile(r"(?i)\bstitch (it|them) (to|on)")),
)
_STAGE = re.compile(r"^\s*\(\(.*\)\)\s*$|^\s*>\s+")


def step_kind(text: str) -> StepKind | None:
    """What a stage direction asks for, None when the text is plain prose."""
    return next((kind for kind, words in _STEPS if words.search(text)), StepKind.OTHER if _STAGE.match(text) else None)


def _label(text: str) -> RoundLabel | None:
    if m := _LABEL.match(text) or _BARE.match(text):
        first = int(m.group(1))
        last = int(next((end for end in m.groups()[1:] if end), m.group(1)))
        return RoundLabel(first, last, Span(*_tight(text, m)), m.end())
    if m := _NEXT.match(text):
        return RoundLabel(None, None, Span(*_tight(text, m)), m.end())
    return None


def _tight(text: str, m: re.Match[str]) -> tuple[int, int]:
    start = len(text) - len(text.lstrip())
    return start, max(start, len(text[: m.end()].rstrip()))


def _heading(text: str, sure: bool) -> tuple[str, int] | None:
    """Name and number to make, when the line is a heading; `sure` when rounds start right below."""
    marked = _MARK_HEADING.match(text)
    body = marked.group(1) if marked else text.strip().strip("*_").strip()
    made = _MAKE.search(body)
    name = (body[: made.start()] if made else body).strip(" :-–—*_([,")
    if not name or len(name) > 60:
        return None
    if (
        marked
        or (made and len(name.split()) <= 6)
        or (sure and len(name.split()) <= 5 and not re.search(r"[.;!?]$|\d", body))
    ):
        number = made.group(1).lower() if made else "1"
        return name, min(200, max(1, _WORD_NUMBER.get(number) or int(number)))
    return None


def scan(text: str) -> tuple[Line, ...]:
    """Every line of `text` that is not blank, in order, with line numbers of the raw text."""
    raw: list[tuple[int, int, str]] = []
    at = 0
    for number, piece in enumerate(re.split(r"\r\n|\n|\r", text), 1):
        raw.append((number, at, piece))
        at += len(piece) + (2 if text.startswith("\r\n", at + len(piece)) else 1)
    filled = [row for row in raw if row[2].strip()]
    lines: list[Line] = []
    seen_part = False
    for i, (number, start, piece) in enumerate(filled):
        below = _label(filled[i + 1][2]) if i + 1 < len(filled) else None
        line = _classify(number, start, piece, seen_part, starts_below=below is not None and below.first == 1)
        seen_part = seen_part or line.kind in (LineKind.HEADING, LineKind.ROUND)
        lines.append(line)
    return tuple(lines)


def _classify(number: int, start: int, piece: str, seen_part: bool, *, starts_below: bool) -> Line:
    span = Span(start, start + len(piece))
    if (label := _label(piece)) is not None:
        return Line(number, span, piece, LineKind.ROUND, label=label)
    if not seen_part and (head := _HEAD.match(piece)):
        return Line(number, span, piece, LineKind.HEAD, name=head.group(1).lower(), value=head.group(2))
    if colour := _COLOUR_LINE.match(piece):
        return Line(number, span, piece, LineKind.COLOUR, name=colour.group(1).strip())
    if _MARK_HEADING.match(piece) and (heading := _heading(piece, sure=True)):
        return Line(number, span, piece, LineKind.HEADING, name=heading[0], make=heading[1])
    kind = step_kind(piece)
    if kind is None or starts_below:
        heading = _heading(piece, sure=starts_below)
        if heading:
            return Line(number, span, piece, LineKind.HEADING, name=heading[0], make=heading[1])
    if kind is not None:
        return Line(number, span, piece, LineKind.STEP, step=kind)
    return Line(number, span, piece, LineKind.NOTE)
