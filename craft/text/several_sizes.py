"""One written pattern for several sizes, 'S (M, L)': written from those of each size, and read back for any of them.

The head says `Sizes: S (M, L)`. After it, wherever sizes differ, the first one's number stands before those of the
others, '12 (18, 24)', and '-' for a size that has none; so do the numbers of rounds, 'R5-R8 (R6-R9, -)'. Work that is
said in other words stands size by size, 'S: …; M: …', and a line of some sizes only begins with their names.
"""

from __future__ import annotations

import itertools
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache

from craft.errors import CraftError, require
from craft.rounds.pattern import Colour, Part, Round, Section
from craft.rounds.stitches import Language, Terms
from craft.text.notation import Wording, print_item, print_label, print_round

MOST_AT_ONCE = 12
"""Sizes that one pattern is written for."""

_HEAD = re.compile(r"(?im)^sizes:\s*(?P<first>[^\s(),:;][^(),:;\n]*?)\s*\((?P<others>[^()\n]+)\)\s*$")
_NAME = re.compile(r"[^\s(),:;][^(),:;\n]{0,39}")
_NAMED = r"Rd|Rows?|Reihen?|Rangs?|Hileras?|Rig(?:a|he)|Rij(?:en)?"
_LABEL = rf"(?:[RTVG]\d+(?:-[RTVG]\d+)?|(?:{_NAMED}) \d+(?:-\d+)?|{{next}}|-)"
GAP, OTHER_WORDS, OTHER_WAY, NO_START = 0.45, 0.3, 0.8, 0.8
"""What it costs that a size lacks a row, says it in other words, grows where another shrinks, or has begun already."""


def names_in(text: str) -> tuple[str, ...]:
    """The sizes that a text is written for, the first one first; none when it is written for one."""
    head = _HEAD.search(text)
    if head is None:
        return ()
    return (head["first"].strip(), *(n.strip() for n in head["others"].split(",")))


# --- reading ----------------------------------------------------------------------------------------


def of_size(text: str, name: str, *, keep_lines: bool = False) -> str:
    """The pattern of one of its sizes; CraftError when it is not written for that one.

    keep_lines: lines of other sizes are left empty, so that every line has its number still.
    """
    names = names_in(text)
    if name not in names:
        known = ", ".join(names) if names else "one only"
        raise CraftError(f"This pattern has no size {name!r}; its sizes are {known}.", field="size")
    k, many = names.index(name), len(names)
    read = (None if _HEAD.match(line) else _line_of(line, k, many, names) for line in text.splitlines())
    return "".join(f"{line or ''}\n" for line in read if line is not None or keep_lines)


def _line_of(line: str, k: int, many: int, names: Sequence[str]) -> str | None:
    """A line for the size number `k`; None when it has none."""
    who, colon, rest = line.partition(": ")
    said = [w.strip() for w in who.split(",")]
    if colon and set(said) <= set(names):
        return rest if names[k] in said else None
    one = _label()
    label = re.match(rf"({one}) \(({one}(?:, {one}){{{many - 2}}})\): ", line)
    if label is not None:
        mine = [label[1], *label[2].split(", ")][k]
        return None if mine == "-" else f"{mine}: {_work_of(line[label.end() :], k, many, names)}"
    plain = re.match(rf"{one}: ", line)
    lead = plain[0] if plain is not None else ""
    return lead + _work_of(line[len(lead) :], k, many, names)


@cache
def _label() -> str:
    """A label in English or in any of the languages that patterns are printed in."""
    says = [Wording(Terms.US), *(Wording(Terms.US, language=language) for language in Language)]
    nexts = {re.escape(say.say(key)) for say in says for key in ("next-round", "next-row")}
    return _LABEL.format(next="|".join(sorted(nexts)))


def _work_of(work: str, k: int, many: int, names: Sequence[str]) -> str:
    pieces = re.split(rf"(?:^|; )(?=(?:{'|'.join(map(re.escape, names))})(?:, |: ))", work)
    for piece in pieces:
        who, colon, rest = piece.partition(": ")
        if colon and names[k] in (w.strip() for w in who.split(",")):
            return rest
    group = re.compile(rf"(?<![\d.])(\d+|-) \(((?:\d+|-)(?:, (?:\d+|-)){{{many - 2}}})\)")
    return group.sub(lambda m: [m[1], *m[2].split(", ")][k], work)


# --- writing ----------------------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class _Unit:
    """A line of one size. label: of a round, with its colon left out; text: the rest. way: whether it grows (1), shrinks
    (-1) or neither. at: its share of the part's rounds. opens: it is the part's first round."""

    label: str
    text: str
    way: int
    at: float
    is_round: bool
    opens: bool = False

    @property
    def words(self) -> str:
        """What it says apart from its numbers."""
        return re.sub(r"\d+", "#", self.text)


Prose = Callable[[str], str]
"""How her own sentences are said."""


def _units(part: Part, how: Wording | Terms, prose: Prose) -> list[_Unit]:
    whole = max(sum(r.repeats for r in part.rounds), 1)
    done, live = 0, 0
    out: list[_Unit] = []
    for item in part.items:
        if not isinstance(item, Round):
            said = print_item(item, how)
            said = said if isinstance(item, Colour | Section) else prose(said)
            out.append(_Unit("", said, 0, done / whole, is_round=False))
            continue
        count = item.count if item.count is not None else live
        way = (count > live) - (count < live)
        label = print_label(item, how)[:-2]
        text, at = print_round(item, how, label=False), (done + item.repeats / 2) / whole
        opens = bool(label) and not any(unit.label for unit in out)
        out.append(_Unit(label, text, way, at, is_round=True, opens=opens))
        done, live = done + item.repeats, count
    return out


def _cost(a: _Unit, b: _Unit) -> float:
    """What it costs to set two lines side by side; infinite for what cannot stand there."""
    if a.is_round != b.is_round or (not a.label) != (not b.label):
        return float("inf")
    if not a.is_round:
        return 0.0 if a.words == b.words else float("inf")
    words = 0.0 if a.words == b.words else OTHER_WORDS
    words += 0.0 if a.opens == b.opens else NO_START
    return words + (0.0 if a.way == b.way else OTHER_WAY) + 2 * abs(a.at - b.at)


Rows = list[list[_Unit | None]]


def _side_by_side(rows: Rows, more: Sequence[_Unit]) -> Rows:
    """The rows with another size beside them, aligned by what lines say and how far up they stand."""
    like = [next(u for u in reversed(row) if u is not None) for row in rows]
    n, m = len(rows), len(more)
    best = [[GAP * (i + j) for j in range(m + 1)] for i in range(n + 1)]
    step = [["left" if not i else "up" for _ in range(m + 1)] for i in range(n + 1)]
    for i, j in itertools.product(range(1, n + 1), range(1, m + 1)):
        ways = {
            "both": best[i - 1][j - 1] + _cost(like[i - 1], more[j - 1]),
            "up": best[i - 1][j] + GAP,
            "left": best[i][j - 1] + GAP,
        }
        step[i][j] = min(ways, key=lambda way: ways[way])
        best[i][j] = ways[step[i][j]]
    out: Rows = []
    i, j = n, m
    while i or j:
        way = step[i][j]
        i, j = i - (way != "left"), j - (way != "up")
        before = rows[i] if way != "left" else [None] * len(rows[0])
        out.append([*before, more[j] if way != "up" else None])
    return out[::-1]


@dataclass(frozen=True, slots=True)
class SizedLine:
    """A line for all sizes. label: of a round, for each size where they differ; '' of a sentence. said: the rest of it."""

    label: str
    said: str

    @property
    def text(self) -> str:
        """The line as it is written."""
        return f"{self.label}: {self.said}" if self.label else self.said


def part_for_all(parts: Sequence[Part], names: Sequence[str], how: Wording | Terms) -> str:
    """A part's lines for all sizes, without its heading. parts: of each size, in the order of `names`."""
    return "".join(f"{line.text}\n" for line in lines_for_all(parts, names, how))


def lines_for_all(
    parts: Sequence[Part], names: Sequence[str], how: Wording | Terms, prose: Prose = str
) -> tuple[SizedLine, ...]:
    """A part's lines for all sizes. parts: of each size, in the order of `names`. how: in which words and language its
    rounds are said. prose: how her own sentences are."""
    require(2 <= len(parts) == len(names) <= MOST_AT_ONCE, "A pattern is written for 2 to 12 sizes.", field="sizes")
    for name in names:
        require(
            _NAME.fullmatch(name) is not None,
            f"A size's name has no brackets, commas or colons: {name!r}.",
            field="name",
        )
    require(len(set(names)) == len(names), "Two sizes have one name.", field="name")
    rows: Rows = [[u] for u in _units(parts[0], how, prose)]
    for part in parts[1:]:
        rows = _side_by_side(rows, _units(part, how, prose))
    return tuple(line for row in rows for line in _lines(row, names))


def _lines(row: Sequence[_Unit | None], names: Sequence[str]) -> list[SizedLine]:
    there = [u for u in row if u is not None]
    if not there[0].label:
        return [SizedLine("", said) for said in _unlabelled(row, names)]
    labels = [u.label if u is not None else "-" for u in row]
    label = labels[0] if len(set(labels)) == 1 else f"{labels[0]} ({', '.join(labels[1:])})"
    if len({u.words for u in there}) == 1:
        work = _numbers([u.text if u is not None else None for u in row])
    else:
        work = "; ".join(f"{', '.join(who)}: {text}" for text, who in _by_text(row, names).items())
    return [SizedLine(label, work)]


def _unlabelled(row: Sequence[_Unit | None], names: Sequence[str]) -> list[str]:
    """A sentence, a heading or a line of work that has no number."""
    there = [u for u in row if u is not None]
    if len(there) == len(row) and len({u.words for u in there}) == 1:
        return [_numbers([u.text for u in there])]
    return [f"{', '.join(who)}: {text}" for text, who in _by_text(row, names).items()]


def _by_text(row: Sequence[_Unit | None], names: Sequence[str]) -> dict[str, list[str]]:
    """The sizes that say the same, by what they say."""
    found: dict[str, list[str]] = {}
    for name, unit in zip(names, row, strict=True):
        if unit is not None:
            found.setdefault(unit.text, []).append(name)
    return found


def _numbers(texts: Sequence[str | None], number: str = r"\d+") -> str:
    """Texts that differ in their numbers only, as one: '12' where all agree, else '12 (18, 24)'."""
    there = next(t for t in texts if t is not None)
    words = re.split(number, there)
    many = len(words) - 1
    found = [re.findall(number, t) if t is not None else ["-"] * many for t in texts]
    out = [words[0]]
    for k in range(many):
        said = [numbers[k] for numbers in found]
        alike = {s for s in said if s != "-"}
        out.append(said[0] if len(set(said)) == 1 else f"{said[0]} ({', '.join(said[1:])})")
        if len(alike) == 1:
            out[-1] = alike.pop()
        out.append(words[k + 1])
    return "".join(out)


MEASURE = r"\d+(?:[.,]\d+)?[¼½¾⅓⅔⅛]?|[¼½¾⅓⅔⅛]"
"""A number with its decimals or its fraction."""


def said_for_all(texts: Sequence[str | None], names: Sequence[str]) -> str:
    """A sentence of each size as one: '12.5 (18, 24.1) cm tall' where only measures differ, else size by size.

    None for a size that has none.
    """
    there = [t for t in texts if t is not None]
    if len(there) == len(texts) and len({re.sub(MEASURE, "#", t) for t in there}) == 1:
        return _numbers(texts, MEASURE)
    by_text: dict[str, list[str]] = {}
    for name, text in zip(names, texts, strict=True):
        if text is not None:
            by_text.setdefault(text, []).append(name)
    return "; ".join(f"{', '.join(who)}: {text}" for text, who in by_text.items())


def head_line(names: Sequence[str]) -> str:
    """The line of the head that names the sizes."""
    return f"Sizes: {names[0]} ({', '.join(names[1:])})"
