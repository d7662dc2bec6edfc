"""Lines of a written pattern: which is a heading, a round, a stage direction, a note.

Nothing here reads a round's body; see bodies.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from enum import StrEnum

from craft.problems import Span
from craft.remembered import of_short
from craft.rounds.numbers import CARDINAL, CARDINALS
from craft.rounds.pattern import StepKind
from craft.text.notation.coils import COIL_WORDS
from craft.text.notation.names import NOUNS
from craft.text.notation.threads import THREAD_WORDS


class LineKind(StrEnum):
    """What a line of the raw text is."""

    HEAD = "head"
    HEADING = "heading"
    ROUND = "round"
    STEP = "step"
    COLOUR = "colour"
    WORK = "work"
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
    """A label such as `R7-R12:`; `body_at` is the column offset of what follows it in the line.

    row: called a row. or_to: the last number of a longer variant. count, colour: said in the label.
    """

    first: int | None
    last: int | None
    span: Span
    body_at: int
    row: bool = False
    or_to: int | None = None
    count: int | None = None
    count_span: Span | None = None
    colour: str = ""
    colour_span: Span | None = None


HEAD_KEYS = ("name", "yarn", "hook", "terms", "gauge", "eyes", "notions", "level", "by", "abbreviation")
"""Keys of the head block."""

_HEAD = re.compile(rf"(?i)^\s*(?:[-•*]\s+)?({'|'.join(HEAD_KEYS)})s?\s*:\s*(\S.*?)\s*$")
_BULLET = r"^\s*(?:[-•‣·*]\s+)?(?:\[[ xX]?\]\s*|[☐☑]\s*)?(?:\*\*)?"
_ROUND_WORD = r"(?:rounds?|rnds?|rds?|rows?|r)\.?"
_DASHES = r"[-–—]"
_OR_TO = (
    rf"(?:\s*[,(\[]?\s*or\s+(?:on\s+)?(?:to\s+)?{_ROUND_WORD}\s*(?P<or>\d{{1,6}})"
    r"(?:\s+for\s+(?:a\s+|the\s+)?(?:long(?:er)?|tall(?:er)?|big(?:ger)?)[^:)\]]{0,30})?\s*[)\]]?)?"
)
_IN_LABEL = (
    r"(?:\s*(?:[\[(]\s*(?P<count>\d{1,6})\s*(?:sts?|stitches)?\s*[\])]\s*(?=[:.])"
    r"|[\[(]\s*\d{1,4}\s*(?:rounds|rnds|rows)\s*[\])]\s*(?=[:.])|[\[(]\s*(?-i:[a-z])[^()\[\]\d:]{0,40}[\])]\s*(?=:)"
    r"|[\[(]\s*(?:(?:in|with)\s+)?(?P<colour>(?-i:[A-Z])[\w' -]{0,38}?)\s*[\])]\s*(?=[:.])"
    r"|(?:in|with|[-–—])\s+(?P<incolour>(?-i:[A-Z])[\w' -]{0,38}?)\s*(?=:)))?"
)
_LABEL = re.compile(
    rf"(?i){_BULLET}{_ROUND_WORD}\s*(?:#|no\.?\s*)?(\d{{1,15}})"
    # A dash with blanks about it and no second label parts the label from the work: "Rnd 1 - 6 sc in ring".
    rf"(?:\s*(?:{_DASHES}\s*{_ROUND_WORD}\s*|(?<=\d){_DASHES}(?=\d)|\s(?:to|through|thru|until|and|&)\s+(?:{_ROUND_WORD})?)\s*(\d{{1,15}})"
    rf"|\s+{_DASHES}\s+(\d{{1,15}})(?=\s*[:.)]))?(?!\w){_OR_TO}{_IN_LABEL}\s*(?:\*\*)?\s*[:.)\-–—]?\s*(?:\*\*)?\s*"
)
_BARE = re.compile(rf"{_BULLET}(\d{{1,4}})(?:\s*[-–]\s*(\d{{1,4}}))?\s*(?:\.|:|\))(?!\d)\s*")
_NEXT = re.compile(rf"(?i){_BULLET}(?:next|last|final|joining|following)\s+{_ROUND_WORD}(?!\w)\s*[:.)\-–—]?\s*")
_WORK = re.compile(
    r"(?i)^\s*(?:[-•‣·*]\s+)?(?:\[[ xX]?\]\s*|[☐☑]\s*)?(?:(?:start|begin)(?:\s+with)?\s+(?:a\s+)?)?(?:(?:make|work)\s+(?:a\s+)?)?"
    r"(?:(?:chain|ch)\s*\d|\d{1,6}\s*(?:chains?|chs?)\b|\d{1,6}\s*f(?:sc|dc)\b|f(?:sc|dc)\s*\d|re-?join\b|re-?attach\b|(?:join|attach)\s+(?:(?:the|a|new|your)\s+)*(?:yarn|thread)"
    r"|(?:fold|press|flatten|pinch|lay)\b.{0,60}\bthrough\b|\d{1,6}\s*\w+(?:\s\w+){0,2}\s+through\s+both\b|[\[(*]?\d{1,6}\s*[A-Za-z].*[\[(]\s*\d{1,6}\s*[\])]\s*\.?\s*$|shift\s+\d|turn\s*\.?\s*$)"
)
_CLOSED = re.compile(r"(?i)\bthrough\s+both\s+\w+[^.;:\d]{0,20}:\s*\d")
"""'sc through both layers across: 6 sc': how many that makes is said behind it; a direction, and no work of so many."""

_LEAD = re.compile(r"\s*(?:[-•‣·*]\s+)?(?:\[[ xX]?\]\s*|[☐☑]\s*)?")
_FOLDED = re.compile(
    r"(?i)^\s*(?:[-•‣·*]\s+)?(?:\[[ xX]?\]\s*)?(?:fold|press|flatten|pinch|lay)\b(?:(?!\bthrough\b)[^,;:.])*?"
    r"(?:\s+and\s+|[,;:.]\s*(?:and\s+)?)(?=(?:work\s+|make\s+)?\d)"
)
_MARK_HEADING = re.compile(r"^\s*#{1,6}\s+(.*?)\s*#*\s*$")
_MAKE = re.compile(
    rf"(?i)[\s(\[,:–—-]*\b(?:make|x|×)\s*(\d{{1,3}}|{CARDINAL})(?:\s+times)?"
    r"(?:\s*,[^()\[\]]{1,40}(?=[)\]]))?\s*[)\]]?\s*:?\s*$"
)
_COLOUR_LINE = re.compile(
    r"(?i)^\s*(?:(?:change|switch)\s+(?:colou?r\s+)?to\s+|colou?r\s*:\s*|with\s+(?=[^:,]*[:,]\s*$))"
    r"([^\W\d_][\w' -]{0,38}?)\s*[.:,]?\s*$"
)
_WITH_LINE = re.compile(r"(?i)^\s*(?:[-•‣·*]\s+)?with\s+([^\W\d_][\w'-]*(?:\s[\w'-]+){0,2})\s*\.?\s*$")
"""'With Oat' right above a part's first round, which is no heading."""

_STEPS: tuple[tuple[StepKind, re.Pattern[str]], ...] = (
    (StepKind.THREAD, THREAD_WORDS),
    (StepKind.COIL, COIL_WORDS),
    # "Do not stuff the tip; stuff the rest lightly": filling goes in all the same.
    (
        StepKind.STUFF,
        re.compile(r"(?i)(?:^|[;,.]|\bbut|\band)\s*stuff\s+(?:only\s+)?the\s+(?:rest|remainder|others?)\b"),
    ),
    (
        StepKind.EMPTY,
        re.compile(
            r"(?i)\b(do\s+not|don[’']?t|never|no\s+need\s+to)\s+(over)?stuff|\bleave\b.{0,20}\b(empty|unstuffed)"
        ),
    ),
    (
        StepKind.GO_ON,
        re.compile(r"(?i)\b(do\s+not|don[’']?t)\s+(fasten|cut|break|finish)|\bcontinue\s+(with|from|on)\s+the\s+same"),
    ),
    (StepKind.EYES, re.compile(r"(?i)\b(?:put|insert|attach|place|fit)\b[^.]{0,30}\beyes\b")),
    (StepKind.INSIDE_OUT, re.compile(r"(?i)\binside[\s-]+out\b|\bturn\b.{0,20}\bright\s+side\s+out")),
    (StepKind.WIRE, re.compile(r"(?i)\bwires?\b|\bpipe\s+cleaners?\b")),
    (
        StepKind.DISC,
        re.compile(
            r"(?i)\b(base|plastic|cardboard|felt)\s+(disc|disk|circle)\b|\bdis[ck]\b.{0,30}\bbase\b|\b(insert|place|put)\b.{0,30}\bdis[ck]\b"
        ),
    ),
    (StepKind.EMBROIDER, re.compile(r"(?i)\bembroider")),
    (StepKind.SEW, re.compile(r"(?i)\bsew\b")),
    (
        StepKind.EYES,
        re.compile(
            r"(?i)\beyes?\b|augen?\b.{0,40}\b(?:einsetzen|anbringen|befestigen)"
            r"|\b(?:sicherheitsaugen|yeux|ojos|occhi|veiligheidsogen|ogen)\b|\bnoses?\b.*\b(insert|place|attach|fit)|\b(insert|place|attach|fit).*\bnose"
        ),
    ),
    (
        StepKind.CLOSE,
        re.compile(
            r"(?i)\bclose\b|\bzusammenziehen\b|\böffnung\s+schließen|^\s*(?:fermer|cerrar|chiudere|sluiten|schließen)\b"
            r"(?!\s+(?:la|le|el|il|de|die|das)\s+(?:première|premier|primera|primer|prima|primo|eerste|erste)\b)"
            r"|\b(?:draw|pull) (?:it |the (?:\w+ )?\w+ )?(?:tight|closed|shut)|\bcinch"
            r"|front loops? of the (last|remaining)"
        ),
    ),
    (
        StepKind.STUFF,
        re.compile(
            r"(?i)\bstuff|\b(?:aus)?(?:füllen|stopfen)\b|\brembourrer\b|\brellenar\b|\bimbottire\b|\bopvullen\b|\bfill(ing)?\b|\bpellets?\b"
        ),
    ),
    (
        StepKind.FASTEN_OFF,
        re.compile(r"(?i)\bfasten\s+off|\bf\.?o\b\.?(?=\s*(?:$|[,.;]|and))|\bcut the yarn|\bfinish off|\bbind off"),
    ),
    (StepKind.STRANDS, re.compile(r"(?i)\b(two|2|both)\s+strands\b|\bheld\s+double\b|\bdouble\s+strand")),
    (StepKind.TAIL, re.compile(r"(?i)\bleav(e|ing)\b.{0,30}\b(tail|end)\b|\bweave in\b")),
    (StepKind.MARKER, re.compile(r"(?i)\bmarkers?\b|\bmark the\b|\brunning thread\b")),
    (StepKind.SEW, re.compile(r"(?i)\bstitch (it|them) (to|on)")),
)
_STAGE = re.compile(r"^\s*\(\(.*\)\)\s*$|^\s*>\s+")


_STEMS = re.compile(
    r"(?i)not|don[’']?t|never|need|leav|continue|inside|right\s+side|wire|pipe|dis[ck]|circle|embroider|sew|eye|auge|yeux|ojos|occhi"
    r"|ogen|nose|close|zusammen|schlie|ferme|cerra|chiude|sluit|draw|cinch|pull|loop|stuff|füllen|stopfen|bourr|rellen|imbott|opvull"
    r"|fill|pellet|fasten|f\.?o\b|cut|finish|bind|strand|double|weave|mark|running|stitch|thread"
)
"""A piece of a word in everything that `_STEPS` looks for: a line without any of them need not be looked at closely."""


@of_short(4_096)
def step_kind(text: str) -> StepKind | None:
    """What a stage direction asks for, None when the text is plain prose."""
    if not _STEMS.search(text):
        return StepKind.OTHER if _STAGE.match(text) else None
    return next((kind for kind, words in _STEPS if words.search(text)), StepKind.OTHER if _STAGE.match(text) else None)


_COLOUR_FIRST = re.compile(rf"(?i)^\s*(?:with|in)\s+([^\W\d_][\w' -]{{0,38}}?)\s*[:,]\s*(?={_ROUND_WORD}\s*\d)")
"""A colour in front of a label: 'With white: R1: 4 sc in ring'."""


def _shifted(label: RoundLabel, by: int) -> RoundLabel:
    def moved(span: Span | None) -> Span | None:
        return span and Span(span.start + by, span.end + by)

    return replace(
        label,
        span=Span(label.span.start + by, label.span.end + by),
        body_at=label.body_at + by,
        count_span=moved(label.count_span),
        colour_span=moved(label.colour_span),
    )


@of_short(4_096)
def _label(text: str) -> RoundLabel | None:
    if lead := _COLOUR_FIRST.match(text):
        behind = _label(text[lead.end() :])
        if behind is None or behind.colour:
            return behind and _shifted(behind, lead.end())
        return replace(_shifted(behind, lead.end()), colour=lead.group(1).strip(), colour_span=Span(*lead.span(1)))
    if m := _LABEL.match(text):
        first = int(m.group(1))
        last = int(next((end for end in m.groups()[1:3] if end), m.group(1)))
        row = bool(re.match(rf"(?i){_BULLET}rows?\b", text))
        colour = "colour" if m.group("colour") else "incolour"
        return RoundLabel(
            first=first,
            last=last,
            span=Span(*_tight(text, m)),
            body_at=m.end(),
            row=row,
            or_to=int(m.group("or")) if m.group("or") else None,
            count=int(m.group("count")) if m.group("count") else None,
            count_span=Span(*m.span("count")) if m.group("count") else None,
            colour=m.group(colour).strip() if m.group(colour) else "",
            colour_span=Span(*m.span(colour)) if m.group(colour) else None,
        )
    if m := _BARE.match(text):
        first = int(m.group(1))
        return RoundLabel(first, int(m.group(2) or first), Span(*_tight(text, m)), m.end())
    if m := _NEXT.match(text):
        row = bool(re.match(rf"(?i){_BULLET}next\s+rows?\b", text))
        return RoundLabel(None, None, Span(*_tight(text, m)), m.end(), row)
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
        or (sure and _PART_WORDS.match(body))
    ):
        number = made.group(1).lower() if made else "1"
        return name, min(200, max(1, CARDINALS.get(number) or int(number)))
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
        below = [_below(row[2]) for row in filled[i + 1 : i + 1 + LINES_TO_A_ROUND]]
        line = _classify(number, start, piece, seen_part, below)
        seen_part = seen_part or line.kind in (LineKind.HEADING, LineKind.ROUND)
        lines.append(line)
    return tuple(lines)


class _Below(StrEnum):
    """What the line below begins with."""

    START = "start"
    ROUND = "round"
    OTHER = "other"


def _below(text: str) -> _Below:
    label = _label(text)
    if (label is not None and label.first == 1) or (label is None and _WORK.match(text)):
        return _Below.START
    return _Below.OTHER if label is None else _Below.ROUND


_PART_WORDS = re.compile(
    rf"(?i)^(?:(?:the|first|second|third|fourth|left|right|front|back|upper|lower|inner|outer|other|1st|2nd)\s+)*(?:{'|'.join(NOUNS)})"
    r"(?:\s+(?:one|two|\d{1,2}|a|b))?\s*:?$"
)


LINES_TO_A_ROUND = 3
"""A line that is only a part's name is its heading when rounds begin within so many lines."""


def _classify(number: int, start: int, piece: str, seen_part: bool, below: list[_Below]) -> Line:
    span = Span(start, start + len(piece))
    if (label := _label(piece)) is not None:
        return Line(number, span, piece, LineKind.ROUND, label=label)
    if not seen_part and (head := _HEAD.match(piece)):
        return Line(number, span, piece, LineKind.HEAD, name=head.group(1).lower(), value=head.group(2))
    if _WORK.match(piece) and not _MARK_HEADING.match(piece) and not _CLOSED.search(piece):
        folded = _FOLDED.match(piece)
        at = folded.end() if folded else len(_LEAD.match(piece).group(0))  # type: ignore[union-attr]
        return Line(number, span, piece, LineKind.WORK, label=RoundLabel(None, None, Span(0, 0), at))
    if _MARK_HEADING.match(piece) and (heading := _heading(piece, sure=True)):
        return Line(number, span, piece, LineKind.HEADING, name=heading[0], make=heading[1])
    soon = any(b is not _Below.OTHER for b in below)
    named = soon and bool(_PART_WORDS.match(piece.strip().strip("*_").strip()))
    sure = below[:1] == [_Below.START] or named
    if below[:1] == [_Below.START] and (colour := _WITH_LINE.match(piece)):
        return Line(number, span, piece, LineKind.COLOUR, name=colour.group(1).strip())
    if (step_kind(piece) is None or sure) and not _COLOUR_LINE.match(piece) and not _STAGE.match(piece):
        heading = _heading(piece, sure=sure)
        if heading:
            return Line(number, span, piece, LineKind.HEADING, name=heading[0], make=heading[1])
    return prose(Line(number, span, piece, LineKind.NOTE))


def prose(line: Line) -> Line:
    """The line as a change of colour, a stage direction or a note."""
    if colour := _COLOUR_LINE.match(line.text):
        return Line(line.number, line.span, line.text, LineKind.COLOUR, name=colour.group(1).strip())
    if (kind := step_kind(line.text)) is not None:
        return Line(line.number, line.span, line.text, LineKind.STEP, step=kind)
    return Line(line.number, line.span, line.text, LineKind.NOTE)
