"""Labels of rounds in every form: 'Rnd 3', '3. Rd', '3)', 'III.', '24 = 3rd rnd', 'In round 3 we …'."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from craft.remembered import of_short
from craft.rounds.numbers import CARDINALS, ORDINALS
from craft.text.freehand.labels_told import SAID_OF, label_told
from craft.text.freehand.lexicon import LANGUAGES, Sort, words_of

_ROWS = r"rows?|reihen?|rh|rangs?|rgs?|hileras?|rig(?:a|he)|rij(?:en)?"
ROUNDS = rf"rounds?|steps?|lines?|circles?|rnds?|rds?|rdn|runden?|tours?|vueltas?|vtas?|gir[oi]|toer(?:en)?|rondes?|rondas?|{_ROWS}"
_WORD = rf"(?:{ROUNDS})\.?"
_SHORT = rf"(?:{ROUNDS}|tr(?=\.?\s*\d{{1,3}}\s*:)|r|t|v|g|h)\.?"
_UNTIL = (
    r"to|through|thru|until|till|bis(?:\s+zur)?|à|au|a|a\s+la|al|alla|tot\s+en\s+met|t/m|tot|en|and|und|et|y|e|&|\+|/|,"
)
_TO = rf"(?:\s*-\s*|\s*(?:{_UNTIL})\s+)"
_STITCHES = (
    r"[hs]?dc|sc|x|ch|v|st|single|half|double|treble|inc\w*|dec\w*|fm|km|lm|feste\w*|zun\w*|abn\w*|m[scb]|maille\w*|aug\w*|dim\w*"
    r"|times|mal|fois|veces|volte|keer|m?p[bar]?|punto\w*|cad(?:enas?)?|cat(?:enelle)?|ml|losse[n]?|l|luftmasche\w*|aum\w*|dism\w*|magli[ae]|vaste\w*|meerd\w*|mind\w*|hv"
)
_RINGS = r"mr|mc|am|fr|cm|ml|rings?|anillo|anello|cercle|fadenring"
"""Rings, as slips of paper name them: 'v1 - 6 AM'."""
_WORDTO = rf"\s*(?:{_UNTIL}(?!\s*\d{{1,4}}\s*(?:{_STITCHES})(?![^\W\d_])))\s+"
_DASHTO = (
    r"(?:(?<=\d)[-+&](?=\d)|(?<=\d)[+&](?=[a-zA-Z]{1,3}\.?\d)|\s*-\s*(?=#\d)"
    rf"|\s*-\s*(?=[a-zA-Z]+\.?\s*\d|\d{{1,4}}(?!\d|\s*[(\[]|\s*(?:{_STITCHES}|{_RINGS})(?![^\W\d_]))))"
)
"""'R2-6', 'Round 2 - Round 6', but 'Round 2 - 6 sc'."""
_NTH = r"(?:st|nd|rd|th|e|ème|er|ère|ª|º|°|\^[ao]?|a|o|[rdtmvn][ao])?"
_END = r"\s*(?:[:;.)=|>]|->|[-,](?=\s)|-(?=[a-zA-Z(\[]))?\s*"

_FORMS = (
    re.compile(rf"(?i)(?:(?:then|work|for)\s+)?{_SHORT}\s*(?:no\.?\s*|n[º°r.]{{1,2}}\s*|número\s+|numero\s+|nummer\s+|#\s*|(?:da|dal|du|von|vom|van|from|del?|desde)\s+)?(?P<a>\d{{1,4}})(?P<loops>b|f)?(?:\)(?=\s*-\s*(?:[a-zA-Z]+\d|\d{{1,3}}\))))?(?:(?:{_WORDTO}|{_DASHTO})(?:{_SHORT}\s*)?(?:#\s*)?(?P<b>\d{{1,4}}))?(?P<more>(?:\s*,\s*(?:{_SHORT}\s*)?\d{{1,4}}(?!\s*(?:{_STITCHES})(?![^\W\d_]))|/(?:{_SHORT})?\d{{1,4}}|\s+(?:{ROUNDS}|r)\.?\s*\d{{1,3}}(?=\s))*(?:,?\s+(?:and|und|et|y|e|en|&)\s+(?:{_SHORT}\s*)?\d{{1,4}})?)(?!\w){_END}"),
    re.compile(rf"(?i)(?P<a>\d{{1,4}})\s*\.?{_NTH}(?P<more>(?:\s*,\s*\d{{1,4}}\s*\.?{_NTH})*)(?:{_TO}(?P<b>\d{{1,4}})\s*\.?{_NTH})?\s*{_WORD}(?!\w)(?!\s*\d+\s*(?:wiederhol|wdh|herhal))\s*(?:is\s+for\s+[^:]*)?{_END}"),
    re.compile(r"(?P<a>\d{1,4})\s*\.(?:\s*(?:-|bis|und|u\.)\s*(?P<b>\d{1,4})\s*\.)?\s*[RrTVG](?:\.\s*:?|\s*:)\s*"),
    re.compile(r"(?P<a>\d{1,3})[vg]\.?(?:\s*-\s*(?P<b>\d{1,3})[vg]\.?)?\s*[:)]\s*(?!\d*\s*(?:/|$))"),
    re.compile(r"(?P<a>\d{1,3})[°ºª](?:\s*[gvt])?\.?(?:\s*-\s*(?P<b>\d{1,3})[°ºª])?(?<=[°ºª])\s*[gvt]?\.?\s*[:.)]\s*"),
    re.compile(r"#\s*(?P<a>\d{1,3})(?:\s*-\s*#?\s*(?P<b>\d{1,3}))?\s*[:.)]?\s+"),
    re.compile(r"[\[{]\s*(?P<a>\d{1,4})(?:\s*-\s*(?P<b>\d{1,4}))?\s*[\]}]\s*[:.]?\s*"),
    re.compile(rf"(?i)[(\[{{]\s*(?:{ROUNDS}|r|t|v)\.?\s*(?P<a>\d{{1,4}})(?:\s*-\s*(?:{ROUNDS}|r|t|v)?\.?\s*(?P<b>\d{{1,4}}))?\s*[)\]}}]\s*[:.]?\s*"),
    re.compile(r"(?P<a>\d{1,4})(?P<loops>b|f)?(?:\)(?:\s*(?:[-–&+,]|(?:to|a|al|bis|à|y|and|und|et|e)(?=\s))\s*(?P<b>\d{1,4})\))?|\s?-\s?(?P<to>\d{1,4})\))\s*"),
    re.compile(r"(?P<a>\d{1,3})\s+(?:a|al|y|to|bis|à|au|t/m|tot)\s+(?P<b>\d{1,3})\)\s*"),
    re.compile(r"(?P<a>\d{1,3})\s*\.?-?\s*(?:a|al|y|to|bis|à|et)\s+(?P<b>\d{1,3})\s*\.-\s*"),
    re.compile(r"(?P<a>\d{1,3})(?:\s*(?:-|to|bis|à|a|al|t/m|tot|and|[+&]|und|et|y|e|en)\s*(?P<b>\d{1,3}))?(?:\.\s+|:\s+)(?!\d+\s*(?:mm|cm)\b)"),
)  # fmt: skip
_SPELT = "|".join(CARDINALS)
_FOREIGNNTHS = {w: int(m.value) for code in LANGUAGES for w, m in words_of(code).items() if m.sort is Sort.ORDINAL}
NTHS = "|".join(sorted({*ORDINALS, *_FOREIGNNTHS}, key=lambda w: (-len(w), w)))
_ARE = re.compile(
    rf"(?i){_WORD}\s+(?P<a>{_SPELT}|\d{{1,3}})(?:\s+(?:and|to|through)\s+(?P<b>{_SPELT}|\d{{1,3}}))?\s+(?:(?:is|are)\s+(?:worked\s+)?(?=plain|even|straight|just|all|\d|(?:{_SPELT})\b)|(?=alternates?\b))"
)
_COUNT_FIRST = re.compile(
    rf"(?i)(?P<count>\d{{1,4}})\s*=\s*(?P<a>\d{{1,4}}){_NTH}(?:{_TO}(?P<b>\d{{1,4}}){_NTH})?\s*{_WORD}\s*:?\s*"
)
_COUNT_COLON = re.compile(
    r"(?i)(?P<count>\d{1,4})\s*:\s*(?:r|rnd|round)\.?\s*(?P<a>\d{1,4})(?:\s*-\s*(?:r|rnd|round)?\.?\s*(?P<b>\d{1,4}))?(?!\w)\s*[:.-]?\s*"
)
"""'24: r4-5 sc'."""

_ROMAN = re.compile(rf"(?P<word>(?i:{_WORD})\s+)?(?P<a>[IVX]{{1,6}})(?:{_TO}(?P<b>[IVX]{{1,6}}))?\s*[.:)]\s+")
_NEXT = re.compile(
    rf"(?i)(?:(?:increase|decrease|inc|dec|even|plain|straight|closing)\s+{_WORD}|foundation\s+(?:round|rnd|rd)\.?)(?!\w)\s*\d{{0,2}}\s*[:.-]\s*|(?:next|last|final)\s+one\s*:\s*|(?:and\s+|und\s+|et\s+|y\s+|e\s+|en\s+)?(?:another\s+round|one\s+more\s+round|noch\s+eine\s+runde|encore\s+un\s+(?:tour|rang)|otra\s+vuelta(?:\s+más)?|un\s+altro\s+giro|nog\s+een\s+toer)\s*[,:.-]\s*|(?:next|then|after\s+that)\s*:\s*"
)
_NAMED_ROUND = re.compile(
    r"(?i)(?:(?!(?:every|each|all|any|this|that|the|of|same|previous|above|below|whole|one|an?|per|odd|in|on|at|from)\b)"
    r"[^\W\d_]+(?:-[^\W\d_]+)?\s+){1,2}(?:round|rnd|rd|row)\.?\s*:\s*"
    r"|(?!jede|alle)[^\W\d_]{4,}(?:runde|reihe|rd|toer|ronde|rij)\.?\s*:\s*"
    r"|(?:tour|rang|vuelta|giro|riga|hilera)\s+(?:de\s+|d['’]|di\s+|del\s+)[^\W\d_]+\s*:\s*"
)
"""'Joining rnd:', 'Verbindungsrunde:', 'Tour de jonction :': a round by its name, and by no number."""
_FOREIGN_NUMBERS = {w: int(m.value) for code in LANGUAGES for w, m in words_of(code).items() if m.sort is Sort.NUMBER}
CARDINAL = "|".join(sorted({*CARDINALS, *_FOREIGN_NUMBERS}, key=lambda w: (-len(w), w)))
_MANY = re.compile(
    rf"(?i)(?:(?:then|now|and|dann|puis|luego|poi|dan)\s+)*(?:(?:altri|altre|otras?|autres|weitere|noch|nog|another)\s+)?"
    rf"(?:(?P<n>\d{{1,3}}|{CARDINAL})\s+(?:more\s+)?(?:rounds|rnds|runden|vueltas|tours|giri|toeren)|(?P<one>1|one)\s+(?:more\s+)?(?:round|rnd)"
    r"|(?P<short>\d{1,2})\s+(?:rdn?|rnd|rgs?|vtas?)\.?(?=\s+(?:even|plain|straight|without|ohne|sans|sin|senza|zonder)\b))(?!\w)"
    rf"(?:\s*[:-]\s*|\s+(?:of|in|with|at|mit|auf|zu|de|di|van|en|a|à|-)\s+|\s+(?=(?:even|plain|straight|sc|dc|all|without|no|just|normal|fm|ms|pb|mb|v|ohne|sans|sin|senza|zonder)\b|\d{{1,3}}\s*$))"
)
"""'4 rounds of sc', '3 Runden 18'."""

_BULLET = re.compile(r"\s*(?:[-•‣·*^>»▪◦+]+\s+)?(?:\[[ xX]?\]\s*|[☐☑]\s*)?(?:\*\*)?\s*")
_ORDINAL = NTHS
_SPELLED = re.compile(
    rf"(?i)(?:{_WORD}\s+(?P<a>{CARDINAL})(?:(?:[\s,]+(?:{CARDINAL}))*\s*,?\s*(?:-|,|/|(?:{_UNTIL})\s)\s*(?P<b>{CARDINAL}))?"
    rf"|(?P<c>{_ORDINAL})(?:\s*(?:to|through|and|und|et|y|e|en|bis|a|à|al|tot|-)\s*(?P<d>{_ORDINAL}))?\s+(?:{ROUNDS}))(?!\w)\s*[:.),=-]\s*"
)
_SPELLED_ALONE = re.compile(
    rf"(?i)(?:(?:and|then|now)\s+)*{_WORD}\s+(?P<a>{CARDINAL})(?:(?:[\s,]+(?:{CARDINAL}))*\s*,?\s*(?:{_UNTIL})\s*(?P<b>{CARDINAL}))?\s+"
    rf"(?:(?:(?:is|are)|(?:(?:you|we|i)\s+)?just|(?:you|we|i)(?:'ll|\s+will)?)\s+)*(?=\d|(?:{CARDINAL}|{_STITCHES})(?!\w))"
)
"""'ROUND ONE 8 sc', 'ROUNDS FOUR FIVE AND SIX sc around'."""
_NTH_ALONE = re.compile(rf"(?i)(?P<a>{NTHS})\s*[:)]\s+")
"""'fourth: plain, 15'."""
_BRACKET_FIRST = re.compile(r"[(\[]\s*(\d{1,4})\s*(?:sts?)?\s*[)\]]\s*(?=[A-Za-z])")


_COUNT_BEHIND = re.compile(rf"(?i)[(\[]\s*(\d{{1,4}})\s*(?!{ROUNDS})(?:[^\W\d_]{{1,8}}\.?\s*)?[)\]]\s*[:.=-]\s*")
"""'Tour 1 (6 m) : …': the count between a round's number and its work."""


def spelled(word: str) -> int:
    """The number that digits or a word of any language say; the word is one of them."""
    small = word.lower()
    if small.isdigit():
        return int(small)
    return next(table[small] for table in (CARDINALS, ORDINALS, _FOREIGNNTHS, _FOREIGN_NUMBERS) if small in table)


_IS_ROW = re.compile(rf"(?i)\b(?:{_ROWS})\b")


@dataclass(frozen=True, slots=True)
class Label:
    """A round's label. first: None for 'next'. count: said in the label. loops: 'b' or 'f' behind the number.

    start, end: where it stands in its line; what follows is the work. bare: a number without a word, which may be
    a number of a list. row: called a row. many: of how many rounds, when the label gives no numbers.
    """

    first: int | None
    last: int | None
    start: int
    end: int
    count: int | None = None
    loops: str = ""
    bare: bool = False
    row: bool = False
    many: int = 1


def roman(said: str) -> int:
    """The number that Roman signs say, in large or small letters: 'XIV', 'iv'."""
    values = [{"I": 1, "V": 5, "X": 10}[sign] for sign in said.upper()]
    return sum(-v if i + 1 < len(values) and v < values[i + 1] else v for i, v in enumerate(values))


_ITEM = re.compile(
    rf"(?i)\d{{1,3}}[.)]\s+(?={_WORD}\s*\d{{1,3}}(?:\s?-\s?\d{{1,3}})?\s*(?:[:.)]|$|-\s|(?:\d{{1,3}}\s*)?[(\[]))"
)
"""'1. Round 1': the number of a list's item before a label."""


def label_at(line: str, at: int = 0) -> Label | None:
    """The label that stands at a place of a line, behind a bullet or a tick box; None when there is none."""
    lead = _BULLET.match(line, at)
    start = lead.end() if lead else at
    if (item := _ITEM.match(line, start)) is not None:
        start = item.end()
    label = _label(line[start:], start)
    if label is not None and SAID_OF.match(line, label.end) is not None:
        return None
    if label is not None and label.count is None and (m := _COUNT_BEHIND.match(line, label.end)) is not None:
        return replace(label, end=m.end(), count=int(m.group(1)))
    return label


@of_short(4_096)
def _label(text: str, by: int) -> Label | None:
    if m := _SPELLED_ALONE.match(text):
        return _made(m, by)
    if m := _SPELLED.match(text):
        first = spelled(m.group("a") or m.group("c"))
        last = spelled(m.group("b") or m.group("d")) if m.group("b") or m.group("d") else first
        return Label(first, last, by, by + m.end(), row=bool(_IS_ROW.search(m.group(0))))
    if (m := _BRACKET_FIRST.match(text)) and (behind := _label(text[m.end() :], 0)) is not None and not behind.bare:
        return Label(
            behind.first, behind.last, by, by + m.end() + behind.end, int(m.group(1)), behind.loops, row=behind.row
        )
    if m := _COUNT_FIRST.match(text) or _COUNT_COLON.match(text):
        return _made(m, by, count=int(m.group("count")))
    if m := _MANY.match(text):
        return Label(None, None, by, by + m.end(), many=spelled(m["n"] or m["one"] or m["short"]))
    for k, form in enumerate(_FORMS):
        if m := form.match(text):
            return _made(m, by, bare=k > 7)
    if m := _ARE.match(text):
        return _made(m, by)
    if (told := label_told(text)) is not None:
        row = bool(_IS_ROW.search(text[: told.end]))
        return Label(told.first, told.last, by, by + told.end, row=row, many=told.many)
    if m := _NTH_ALONE.match(text):
        first = spelled(m["a"])
        return Label(first, first, by, by + m.end(), bare=True)
    if m := _ROMAN.match(text):
        first = roman(m.group("a"))
        last = roman(m.group("b")) if m.group("b") else first
        return Label(first, last, by, by + m.end(), bare=m.group("word") is None)
    if m := _NEXT.match(text) or _NAMED_ROUND.match(text):
        return Label(None, None, by, by + m.end(), row=bool(_IS_ROW.search(m.group(0))))
    return None


def _made(m: re.Match[str], by: int, *, count: int | None = None, bare: bool = False) -> Label:
    groups = m.groupdict()
    first = spelled(groups["a"])
    more = [int(n) for n in re.findall(r"\d+", groups.get("more") or "")]
    if more and min(more) < first and not groups.get("b"):
        return Label(first, first, by, by + m.start("more"), count, bare=bare)  # 'Rd 7 Rd 5 wiederholen'
    end = groups.get("b") or groups.get("to")
    last = max([*more[-1:], *([spelled(end)] if end else [])], default=first)
    if groups.get("b") and not more and last <= first:
        return Label(first, first, by, by + m.start("b") - 1, count, bare=bare)  # 'R9-6 sc': a dash, and no range
    row = bool(_IS_ROW.search(m.group(0)))
    return Label(first, last, by, by + m.end(), count, (groups.get("loops") or "").lower(), bare, row)


_BEGIN = re.compile(r"(?:(?<=[.;:!?])|(?<=[.)\]]))\s+(?=(?:[Tt]hen\s+)?(?:\d|[A-Za-z]|[(\[][A-Za-z]{1,6}\.?\s*\d))")


_LISTED = re.compile(r"(?<=[,/|])\s*(?=(?:then\s+)?[A-Za-z]{1,6}\.?\s*\d)|(?<=\w)\s+(?=[A-Za-z]{1,6}\.?\s*\d{1,3}\s*:)")
"""Rounds in a list: 'R1 6 sc (6), R2 inc x 6 (12)', 'R4: 18X R5: …'. Only the one that comes next is such a label."""

_NAMED = re.compile(rf"(?:[A-ZÀ-Ý][^\W\d_]*['\s-]+){{1,4}}(?=(?i:{ROUNDS}|r)\.?\s*1\s*[:.)])")
"""'BODY Rnd 1:': a heading with its first round behind it."""


def _restarts(line: str, found: list[Label]) -> bool:
    """Whether a line names another part and begins it with a round that has no label."""
    return not found and ":" in line


def labels_in(line: str, expected: int) -> list[Label]:
    """All labels of a line: the one at its start, and others at the starts of sentences whose numbers go on.

    expected: the number that comes next. References to rounds inside of sentences are no labels.
    """
    found: list[Label] = []
    first = label_at(line)
    if first is None and (name := _NAMED.match(line)) is not None:
        first = label_at(line, name.end())
        first = first if first is not None and first.first == 1 and not first.bare else None
    if first is not None:
        found.append(first)
        expected = (first.last or expected) + 1
    for m in sorted([*_BEGIN.finditer(line), *_LISTED.finditer(line)], key=lambda m: m.end()):
        at = m.end()
        label = label_at(line, at)
        begun = bool(found) or (expected == 1 and label is not None and label.first == 2)  # the ring has no label
        after = (expected, 2) if not found else (expected,)
        if m.re is _LISTED and (not begun or label is None or label.bare or label.first not in after):
            continue
        named = not found and line[: m.start()].endswith(":") and label is not None and label.first == expected
        if label is None or (label.bare and not named) or label.start < (found[-1].end if found else 0):
            continue
        if (
            label.first is None
            or label.first in (expected, 1)
            or (label.first == 2 and (expected == 1 or _restarts(line, found)))
        ):
            found.append(label)
            expected = (label.last or expected) + 1
    return found
