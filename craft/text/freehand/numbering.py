"""A text's own way of numbering its rounds, told by the numbers going on: 'Tr1', 'R.1', '1 Six sc in ring', 'Lap 1'.

Whatever stands around a number that counts up from line to line, before words that are stitches, is a label: no list
of what designers call a round is ever complete.
"""

from __future__ import annotations

import itertools
import re
from collections import Counter
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass, replace

from craft.text.freehand.counts_told import UNIT
from craft.text.freehand.labels import ROUNDS, label_at, roman
from craft.text.freehand.lexicon import stitch_words, work_words

LEAST_RUN = 3
"""Numbers that go on one after the other, before what stands around them is taken for a label."""

MOST_ASTRAY = 5
"""Of so many numbers without a word one may not go on, or they are no labels."""

MOST_FIRST = 2
"""The first of such numbers, where the ring has none."""

_WORD = r"[^\W\d_]{1,12}"
_NTH = r"(?:st|nd|rd|th|ème|ère|er|e|ª|º|°|\^a|\^o|g|t|v)(?![^\W\d_])"
_FROM = (
    r"(?:(?:work|for|from|on|dal|dalla|dai|da|von|du|des|de\s+la|del|de|van|les|los|las|le|i|desde)\s+"
    r"(?:les\s+|los\s+|la\s+|el\s+|le\s+)?)?"
)
_TO = r"\s*(?:-|(?:to|through|thru|until|bis(?:\s+zu)?|à|au|a|al|alla|hasta|t/m|tot(?:\s+en\s+met)?)(?![^\W\d_]))\s*"
_AND = r"\s*(?:,|/|&|\+|(?:and|und|et|y|e|en)(?![^\W\d_]))\s*"
_MORE = rf"(?:(?P=pre))?\d{{1,3}}(?:\.?{_NTH}|\.)?(?![\w])"
_OPENED = r"(?:[(\[{](?=[^()\[\]{}]{0,8}\d\s*[)\]}]))?"
"""'(3) sc', '[R3] sc': a bracket around the label, and none around work."""

_LINE = re.compile(
    rf"(?i)^[^\w(\[{{]{{0,4}}{_OPENED}{_FROM}(?P<pre>(?:{_WORD}[.:°#-]?\s*){{0,2}})(?P<a>\d{{1,3}})(?P<nth>\.?{_NTH}|\.)?"
    rf"(?P<more>{_TO}{_MORE}|(?:{_AND}{_MORE})*)(?P<word>\s+{_WORD}\.?(?=\s*[:.)=,-]))?"
    r"(?P<end>\s*[:.)\]=,|>/-]*(?:\s+|(?<=[:=>-])(?=[(\[*a-z])))(?P<rest>\S.*)$"
)


@dataclass(frozen=True, slots=True)
class _Numbered:
    """A line that begins with a number, and what stands around it.

    first, last: its rounds; ranged: the last where the numbers behind the first are a range, and what follows then is
    the rest; singly: what follows when they are not. told: a label that needs no other lines. dashed: a dash ends it;
    apart: a dash with spaces is all that stands between two numbers.
    """

    at: int
    key: tuple[str, str]
    first: int
    last: int
    ranged: int
    rest: str
    singly: str
    told: bool
    dashed: bool = False
    apart: bool = False

    def before(self, below: _Numbered | None, dashed: Collection[tuple[str, str]]) -> _Numbered:
        """This line with the range that the number of the next one tells: '6-9 Sc' before 10, '1 - 5 sc' before 2. dashed:
        the keys whose numbers end in dashes elsewhere; the last of those is no range."""
        if self.ranged == self.first:
            return self
        if below is None or below.key != self.key or below.first <= self.first:
            singly = self.apart and self.key in dashed
            return replace(self, last=self.first, rest=self.singly, told=False) if singly else self
        if below.first == self.ranged + 1 and self.last != self.ranged:
            return replace(self, last=self.ranged, told=False)
        if below.first == self.first + 1 and self.last != self.first:
            return replace(self, last=self.first, rest=self.singly, told=False)
        return self


_COUNTED_UP = re.compile(
    r"(?i)^(?P<lead>\W{0,4}(?:r|rnd|rd|round)s?\.?\s*)(?P<all>\d{1,3}(?:\s+\d{1,3}){2,})(?=\s+[a-z(\[*])"
)


def _counted_up(text: str) -> str:
    """'r5 6 7 sc': the numbers of rounds, one after the other, where each is one more."""
    m = _COUNTED_UP.match(text)
    numbers = [int(n) for n in m["all"].split()] if m is not None else []
    if m is None or any(b != a + 1 for a, b in itertools.pairwise(numbers)):
        return text
    return f"{m['lead']}{numbers[0]}-{numbers[-1]}: {text[m.end() :].strip()}"


def numbered(texts: Sequence[str]) -> list[str]:
    """The lines with those labels written plainly that only the run of their numbers tells."""
    texts = _ring_started(texts)
    texts = _counted_behind_label(_counted_ahead(_pieces_counted([_grown_to(text) for text in texts])))
    texts = _lettered(_labelled_behind([_counted_up(text) for text in texts]))
    found = [line for at, text in enumerate(texts) if (line := _line(at, text)) is not None]
    dashed = {line.key for line in found if line.dashed}
    lines = [line.before(below, dashed) for line, below in itertools.zip_longest(found, found[1:])]
    keys = {key for key, many in Counter(line.key for line in lines).items() if many >= LEAST_RUN}
    keys = {key for key in keys if _runs([line for line in lines if line.key == key])}
    out = list(texts)
    alone = _alone([line for line in lines if line.key == _NUMBER_ALONE])
    for line in lines:
        if line.key in keys and not line.told and line.at not in alone:
            said = f"R{line.first}" if line.last == line.first else f"R{line.first}-R{line.last}"
            out[line.at] = f"{said}: {line.rest}"
    return out


_NUMBER_ALONE = ("", "")
"""The key of a number with nothing around it."""


def _alone(lines: Sequence[_Numbered]) -> set[int]:
    """Which lines begin with a number that neither goes on from the one above nor to the one below: '9 ch.'"""
    on = [False, *(a.last + 1 == b.first for a, b in itertools.pairwise(lines)), False]
    return {line.at for k, line in enumerate(lines) if line.first > 1 and not on[k] and not on[k + 1]}


MOST_NAME = 24
"""Code points of a line that names a piece and says nothing else."""

_NOUN = re.compile(r"[^\W\d_]{3,20}")
_PIECE_COUNTED = re.compile(
    r"^\W*(?P<n>[1-4])\s*(?:\.|º|ª|°|st|nd|rd|th|e|er|ère|ème)\s+(?P<noun>[^\W\d_]{3,20})\s*[:.]?\s*$"
)


def _pieces_counted(texts: Sequence[str]) -> list[str]:
    """'1. Bein' and '2. Bein:' as 'Bein 1' and 'Bein 2': headings of like pieces, where another short line names that
    noun, too."""
    found = {at: m for at, text in enumerate(texts) if (m := _PIECE_COUNTED.match(text)) is not None}
    if not found:
        return list(texts)
    short = Counter(word for text in texts if len(text) <= MOST_NAME for word in set(_NOUN.findall(text.lower())))
    return [
        f"{m['noun']} {m['n']}:" if (m := found.get(at)) and short[m["noun"].lower()] > 1 else text
        for at, text in enumerate(texts)
    ]


_BEHIND = re.compile(
    rf"(?i)^(?P<work>\W*\w.*?)\s*(?:[-\u2013\u2014,:|]|\.\s)\s*(?P<label>(?:{ROUNDS})\.?\s*(?P<a>\d{{1,3}})(?:\s*(?:-|to|and|&|bis|und|et|à|a|y|e|al|en"
    r"|t/m)\s*(?P<b>\d{1,3}))?)\s*(?P<count>[(\[][^()\[\]]{1,16}[)\]])?\s*\.?$"
)
"""'(sc, inc) x 6 – round 3 (18)': the label behind the work."""


def _labelled_behind(texts: Sequence[str]) -> list[str]:
    """Lines whose labels stand behind their work, written with them before it, where their numbers go on."""
    found = [
        (at, m) for at, text in enumerate(texts) if label_at(text) is None and (m := _BEHIND.match(text)) is not None
    ]
    on = sum(int(b["a"]) == int(a["b"] or a["a"]) + 1 for (_, a), (_, b) in itertools.pairwise(found))
    if on + 1 < LEAST_RUN:
        return list(texts)
    out = list(texts)
    for at, m in found:
        out[at] = f"{m['label']}: {m['work']} {m['count'] or ''}".strip()
    return out


_STARTED = re.compile(
    r"(?i)^\W*(?:start(?:ing)?|begin(?:ning)?|cast\s+on|set[- ]?up|foundation|ring|mr|mc|fr|fadenring|anfang|beginn|départ|début"
    r"|inicio|anillo|am|inizio|anello|begin)\s*(?:[:=-]\s*|with\s+|mit\s+|avec\s+|con\s+|met\s+)?(?P<n>\d{1,2})\s*(?:sc|sts?|fm|m|ms|pb|mb|v)?\W*$"
)
"""'Start: 6' above 'R2: 12'."""


def _ring_started(texts: Sequence[str]) -> list[str]:
    """The lines with the stitches that a text starts with as its first round, where the second is the first that it numbers."""
    out = list(texts)
    told = [at for at, text in enumerate(texts) if text.strip()]
    for above, at in itertools.pairwise(told):
        started, label = _STARTED.match(texts[above]), label_at(texts[at])
        if started is not None and label is not None and label.first == 2 and label_at(texts[above]) is None:
            out[above] = f"R1: {started['n']} sc in ring"
    return out


_COUNT_AHEAD = re.compile(
    r"^\W{0,3}?(?:[(\[{](?P<n>\d{1,3})[)\]}]\s*[:.-]?\s+"
    rf"|(?P<said>\d{{1,3}})\s*(?i:{UNIT})\s*[:=,-]\s*)(?P<work>\S.*)$"
)
"""'[18] (sc, inc) around', '18 stitches: one, then two': a count before the work."""

_RINGED = re.compile(rf"(?i)^\W*\d{{1,2}}\s*(?:{UNIT})\s+(?:in|into|im|dans|en|nell?['o]?)\b")
"""'6 stitches in a ring': the first of such lines, in which the count is the work."""

MOST_RING = 12
"""Stitches of a ring that such numbers begin with."""


def _counted_ahead(texts: Sequence[str]) -> list[str]:
    """'[6] Magic loop with 6 sc', '[12] 2 sc in each', '[12] sc around': lines of which a bracket ahead is the count, and no
    number of a round, written with it behind the work."""
    found = [m if (m := _COUNT_AHEAD.match(text)) and label_at(m["work"]) is None else None for text in texts]
    out = list(texts)
    for run in _runs_of(found):
        numbers = [int(m["n"] or m["said"]) for m in run.values()]
        on = sum(b == a + 1 for a, b in itertools.pairwise(numbers))
        above = next((texts[k] for k in range(min(run) - 1, -1, -1) if texts[k].strip()), "")
        begun = _RINGED.match(above) is not None
        if len(run) < LEAST_RUN or on * 2 >= len(run) - 1 or not (begun or 1 < numbers[0] <= MOST_RING):
            continue
        for nth, (at, m) in enumerate(run.items()):
            label = "R1" if not nth and not begun else "Next round"
            out[at] = f"{label}: {m['work'].rstrip(' .')} [{numbers[nth]}]"
    return out


_COUNT_BEHIND_LABEL = re.compile(
    rf"(?i)^(?P<label>\W*(?:{ROUNDS}|r|t|v|g)\.?\s*\d{{1,3}}(?:\s*-\s*\d{{1,3}})?)\s*(?P<count>[(\[]\d{{1,4}}[)\]])\s+(?P<work>[^:=]{{1,200}})$"
)
"""'R2 (12) 6 aug': the count between a round's number and its work, where no sign parts them."""


_FROM_TO = re.compile(r"(?P<before>\d{1,4})\s*(?:=>?|->)\s*(?P<count>\d{1,4})\s*[:;]\s*(?P<work>\S.*)$")
"""'R3. 12 -> 18: (1, inc) x 6': from how many stitches to how many, before the work."""


def _grown_to(text: str) -> str:
    """A labelled line that says what it comes to before its work, with that count behind it."""
    label = label_at(text)
    if label is None or (told := _FROM_TO.match(text, label.end)) is None:
        return text
    return f"{text[: label.end]}{told['work'].rstrip(' .;,')} [{told['count']}]"


_ENDS_COUNTED = re.compile(r"[(\[]\s*\d{1,4}\s*[)\]]\W*$")


def _counted_behind_label(texts: Sequence[str]) -> list[str]:
    """Lines that have their counts right behind their labels with them behind the work, where several have and none says
    another there."""
    found = {at: m for at, text in enumerate(texts) if (m := _COUNT_BEHIND_LABEL.match(text)) is not None}
    counted_behind = any(_ENDS_COUNTED.search(m["work"]) for m in found.values())
    if len(found) < LEAST_RUN or counted_behind:
        return list(texts)
    return [
        f"{m['label']}: {m['work'].rstrip(' .;,')} {m['count']}" if (m := found.get(at)) else text
        for at, text in enumerate(texts)
    ]


def _runs_of(found: Sequence[re.Match[str] | None]) -> Iterator[dict[int, re.Match[str]]]:
    """The runs of lines, one below the other, that were found, by their places."""
    run: dict[int, re.Match[str]] = {}
    for at, m in enumerate([*found, None]):
        if m is not None:
            run[at] = m
        elif run:
            yield run
            run = {}


_LETTER = re.compile(r"^\W{0,3}(?P<letter>[A-Z])\s?(?P<n>\d{1,3})(?:-(?P<to>\d{1,3}))?[.:)]\s+(?=\S)")


_LETTERS_OF_ROUNDS = frozenset("RTVG")
"""What rounds begin with in one language or another: no colours, where there are no other letters."""


def _lettered(texts: Sequence[str]) -> list[str]:
    """'A3. sc' and then 'B 4-5. sc': letters of colours before numbers that go on, which stand behind them then."""
    found = [(at, m) for at, text in enumerate(texts) if (m := _LETTER.match(text)) is not None]
    on = [a["letter"] != b["letter"] for (_, a), (_, b) in itertools.pairwise(found) if _goes_on(a, b)]
    out = list(texts)
    if {m["letter"] for _, m in found} <= _LETTERS_OF_ROUNDS:
        return out
    for at, m in found if any(on) and len(on) >= LEAST_RUN - 1 else ():
        last = f"-R{m['to']}" if m["to"] else ""
        out[at] = f"R{m['n']}{last}: {m['letter']}: {texts[at][m.end() :]}"
    return out


def _goes_on(above: re.Match[str], below: re.Match[str]) -> bool:
    return int(below["n"]) == int(above["to"] or above["n"]) + 1


_SHORT = re.compile(r"(?i)(?P<word>g|r|t|v|rd|rg|tr|vt|vta|rij)\.?\s+(?=\S)")
"""'2° g. aumentare': what a round is called, cut short behind its number."""

_ROMAN = re.compile(
    r"(?i)^\W{0,4}(?P<a>[ivx]{1,5})(?P<more>(?:\s*(?:-|,|/|&|to|and|bis|und|à|et|a|al|y|e|tot|en)\s*[ivx]{1,5})*)"
    rf"(?:\s*\.?\s*(?:{ROUNDS}))?\s*[.:)]\s+(?P<rest>\S.*)$"
)


def _roman_line(at: int, text: str) -> _Numbered | None:
    """'iv. 2 sc, inc': numbers of old books, large or small."""
    m = _ROMAN.match(text)
    if m is None or label_at(text) is not None:
        return None
    first = roman(m["a"])
    last = roman((re.findall(r"(?i)[ivx]+(?![^\W\d_])", m["more"]) or [m["a"]])[-1])
    return _Numbered(at, ("roman", ""), first, last, last, m["rest"], m["rest"], told=False) if last >= first else None


_BRACKETED = re.compile(
    r"^(?P<lead>\W*?)(?P<all>[(\[{]\d{1,3}[)\]}](?:\s*(?:,|&|\+|and|-|to)?\s*[(\[{]\d{1,3}[)\]}])+)(?=\s)"
)


_CHAIN_ALONE = re.compile(
    r"(?i)\W*\d{1,3}\s+(?:chs?|chains?|lm|luftmaschen?|ml|mailles?\s+en\s+l['’]air|cad(?:enas?|enetas?)?|cat(?:enelle)?|l|lossen?)(?:\s+(?:anschlagen|häkeln|opzetten|haken|to\s+start|to\s+begin))?\W*$"
)
"""'6 cat.': a chain, whatever number it has."""

_COUNT_BEHIND_BAR = re.compile(r"\|\s*\d{1,4}\s*$")
"""'lap 3: 2 sc in each | 12': one bar, before a count."""

_STAGED = re.compile(r"^\W*(?P<stage>[^\W\d_]+(?: [^\W\d_]+)?)\s*:\s*(?=[(\[]\d{1,3}(?:-\d{1,3})?[)\]]\s)")
"""'neck: (9) sc all': the name of a stage before a label, which is kept as a remark behind it."""


def _ranged(m: re.Match[str]) -> str:
    """'(5), (6), (7) Sc' as '(5-7) Sc', where the numbers go on."""
    numbers = [int(n) for n in re.findall(r"\d+", m["all"])]
    gaps = {b - a for a, b in itertools.pairwise(numbers)}
    return f"{m['lead']}({numbers[0]}-{numbers[-1]})" if gaps == {1} or len(numbers) == 2 else m.group(0)


def _line(at: int, text: str) -> _Numbered | None:
    if (by_letters := _roman_line(at, text)) is not None:
        return by_letters
    text = _BRACKETED.sub(_ranged, text)
    if (staged := _STAGED.match(text)) is not None:
        text = f"{text[staged.end() :].rstrip(' .')}. {staged['stage'].capitalize()}."
    if _CHAIN_ALONE.match(text):
        return None
    tabled = "\t" in text or "|" in _COUNT_BEHIND_BAR.sub("", text)
    if tabled or (m := _LINE.match(text)) is None:
        return None
    first = int(m["a"])
    ranged = int((re.findall(r"\d+", m["more"]) or [first])[-1])
    label = label_at(text)
    if label is not None and label.first != first:
        return None
    rest, singly, word = m["rest"], text[m.start("more") :].strip(" -"), re.sub(r"\W+", "", (m["word"] or "").lower())
    if ranged < first or (ranged == first and m["more"]):  # '2 - 2 sc in every st'
        ranged, rest, word = first, singly, ""  # 'R3 - 1 single crochet': a number of stitches
    told = label is not None and (not label.bare or label.last != first or label.last == ranged)
    last = label.last or first if told and label is not None else ranged
    if word in work_words():
        word, rest = "", text[m.start("word") :].strip()  # '12-14 Sc - 36'
    elif not word and (short := _SHORT.match(rest)) is not None and short["word"].lower() not in stitch_words():
        word, rest = short["word"].lower(), rest[short.end() :]
    key = (re.sub(r"\W+", "", m["pre"].lower()).rstrip("s"), word.rstrip("s"))
    dashed, apart = "-" in m["end"], re.match(r"\s+-\s", m["more"]) is not None
    return _Numbered(at, key, first, last, ranged, rest, singly, told, dashed, apart and not dashed)


def _runs(lines: Sequence[_Numbered]) -> bool:
    """Whether numbers go on from line to line, before stitches."""
    best = run = 1
    astray = 0
    for above, line in itertools.pairwise(lines):
        goes_on = line.first == above.last + 1
        run = run + 1 if goes_on else 1
        best = max(best, run)
        astray += not goes_on and line.first != 1
    if lines[0].key == _NUMBER_ALONE and (astray * MOST_ASTRAY > len(lines) or lines[0].first > MOST_FIRST):
        return False  # '1 sc 1 inc', '2 sc 1 inc', … '2 sc 1 dec': numbers of stitches
    worked = sum(_is_shorthand(line.rest) or _names_stitch(line.rest) for line in lines)
    return best >= LEAST_RUN and worked * 2 >= len(lines)


_SHORTHAND = re.compile(
    r"\W*(?:\d{1,3}\s*[x*×]?\s*)?[(\[]\s*\d{1,2}\W+[^\W\d_]{1,4}\s*[)\]]"
    r"|(?:\d{1,3}\s*x?|x)?\s*[A-Z](?=\W*x?\d|\W*$)"
)
"""'6(1,V) 18', '6A': work of which the stitches are letters."""


def _is_shorthand(rest: str) -> bool:
    return _SHORTHAND.match(rest) is not None


def _names_stitch(rest: str) -> bool:
    return any(word in stitch_words() for word in re.findall(r"[^\W\d_]+", rest.lower()))
