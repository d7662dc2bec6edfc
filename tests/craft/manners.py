"""Patterns put together of the manners in which people write: every label with every repeat, count, remark and heading."""

from __future__ import annotations

import random
import tomllib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from craft.rounds.numbers import CARDINALS

_FOLDER = Path(__file__).parent / "wild" / "manners"
LANGUAGES = tuple(sorted(path.stem for path in _FOLDER.glob("*.toml")))

UNCOUNTED = 0.3
"""How many of the patterns leave the counts of their plain rounds out."""


@cache
def manners_of(language: str) -> Mapping[str, Any]:
    """The manners of a language, by what they write."""
    return tomllib.loads((_FOLDER / f"{language}.toml").read_text(encoding="utf-8"))


def _nth(n: int) -> str:
    return {1: "1st", 2: "2nd", 3: "3rd"}.get(n, f"{n}th")


def _word(n: int) -> str:
    return next(word for word, value in CARDINALS.items() if value == n).upper()


@dataclass
class _Label:
    """A manner of numbering rounds."""

    one: str
    several: str

    @property
    def pairs(self) -> bool:
        """Whether it names both of two rounds, 'R5, R6:'."""
        return "{b2}" in self.several

    def of(self, first: int, last: int) -> str:
        if first == last:
            return self.one.format(n=first, nth=_nth(first), N=_word(first))
        numbers = {"a": first, "b": last, "b2": last, "ath": _nth(first), "bth": _nth(last)}
        return self.several.format(**numbers, A=_word(first), B=_word(last))


@dataclass
class Written:
    """A pattern under way: its lines, and the count after every round."""

    label: _Label
    count: str
    lines: list[str] = field(default_factory=list)
    counts: list[int] = field(default_factory=list)

    def round(self, work: str, count: int, *, many: int = 1, counted: bool = True) -> None:
        first = len(self.counts) + 1
        said = self.count.format(c=count) if counted else ""
        self.lines.append(f"{self.label.of(first, first + many - 1)} {work}{said}".strip())
        self.counts += [count] * many

    def behind(self, remark: str, *, on_the_line: bool) -> None:
        if on_the_line and remark:
            self.lines[-1] += f"{'' if self.lines[-1][-1] in '.)]' else '.'} {remark}"
        elif remark:
            self.lines.append(remark)


def pattern(language: str, number: int) -> tuple[str, tuple[int, ...]]:
    """The text of one pattern, and what its rounds count: a ball whose manners the number draws."""
    draw = random.Random(f"{language} {number}")
    manners = manners_of(language)

    def one(kind: str) -> str:
        choices: Sequence[str] = manners[kind]
        return draw.choice(choices)

    written = Written(_Label(*draw.choice(manners["labels"])), one("counts"))
    counted = draw.random() > UNCOUNTED
    plain, increase, decrease = one("plain"), one("increases"), one("decreases")
    written.round(one("rings"), 6)
    written.round(one("doubled"), 12)
    written.round(increase.format(k=1, k1=2, k1th="2nd"), 18)
    written.round(one("begun_in_the_middle"), 24)
    written.round(plain, 24, counted=counted)
    written.round(one("back_loops"), 24, counted=counted)
    if draw.random() > UNCOUNTED:
        written.round(one("again"), 24, counted=False)
    written.round(plain, 24, many=2 if written.label.pairs else 4, counted=counted)
    written.round(decrease.format(k=2, k1=3, k2=4), 18)
    written.behind(one("remarks"), on_the_line=draw.random() > 1 / 2)
    written.round(decrease.format(k=1, k1=2, k2=3), 12)
    written.round(one("halved"), 6)
    return f"{one('headings')}\n{one('leads')}" + "\n".join(written.lines) + "\n", tuple(written.counts)


SMALL_PARTS = MappingProxyType(
    {"oval": (12, 18, 18), "rows": (6, 6, 4, 4, 2), "joined": (6, 12, 18, 18), "colours": (6, 12, 12, 12, 12)}
)
"""What the rounds of small parts of every kind count."""


LEGS = ((6, 12, 12, 12, 12), (6, 12, 12, 12, 12), (24, 24))
"""What the rounds of two legs and of the body worked on them count."""


def legs(language: str, number: int) -> tuple[str, tuple[tuple[int, ...], ...]]:
    """The text of two legs and a body worked on them, with a pair of ears before or behind, and what their rounds count."""
    draw = random.Random(f"{language} legs {number}")
    manners = manners_of(language)
    said = {kind: draw.choice(of) for kind, of in manners["legs"].items()}
    label, count = _Label(*draw.choice(manners["labels"])), draw.choice(manners["counts"])
    ring, doubled, plain = (draw.choice(manners[kind]) for kind in ("rings", "doubled", "plain"))

    def piece(heading: str, behind: str) -> list[str]:
        written = Written(label, count)
        written.round(ring, 6)
        written.round(doubled, 12)
        written.round(plain.replace("24", "12"), 12, many=2 if label.pairs else 3)
        return [heading, *written.lines, behind, ""]

    body = Written(label, count, counts=[0] * (4 if label.pairs else 5))
    body.round(said["round"], 24)
    body.round(plain, 24)
    ears = piece(draw.choice(manners["pairs"]["headings"]), said["cut"])
    lines = [
        *piece(said["first"], said["cut"]),
        *piece(said["second"], said["not_cut"]),
        said["together"],
        *body.lines,
        "",
    ]
    ahead = draw.random() > 1 / 2
    of_leg = LEGS[0][:4] if label.pairs else LEGS[0]
    counts = (of_leg, of_leg, LEGS[2])
    text = [*ears, *lines] if ahead else [*lines, *ears]
    return "\n".join(text) + "\n", (of_leg, *counts) if ahead else (*counts, of_leg)


def small_part(language: str, kind: str, number: int) -> tuple[str, tuple[int, ...]]:
    """The text of one small part of a kind, and what its rounds count."""
    draw = random.Random(f"{language} {kind} {number}")
    manners = manners_of(language)
    labels = [(label, label) for label in manners["row_labels"]] if kind == "rows" else manners["labels"]
    written = Written(_Label(*draw.choice(labels)), draw.choice(manners["counts"]))
    for n, count in enumerate(SMALL_PARTS[kind], 1):
        written.round(draw.choice(manners[kind][f"r{n}"]), count)
    chain = [draw.choice(manners[kind]["chain"])] if "chain" in manners[kind] else []
    return "\n".join([manners["small_part"], *chain, *written.lines]) + "\n", tuple(written.counts)


def told(language: str, kind: str, number: int) -> tuple[str, tuple[int, ...]]:
    """The text of one hat, in shorthand ('terse') or in whole sentences ('prose'), and what its rounds count."""
    draw = random.Random(f"{language} {kind} {number}")
    manners: Mapping[str, Any] = manners_of(language)[kind]
    said = {key: draw.choice(of) for key, of in manners.items() if key not in ("nths", "words", "one_of_many")}
    written = Written(_told_label(manners, *said["labels"]), said["counts"])
    counted = draw.random() > UNCOUNTED
    many = 2 if "+" in said["labels"][1] else 4
    written.round(said["rings"], 6, counted=draw.random() > 1 / 2)
    written.round(said["doubled"], 12)
    for k in (1, 2):
        written.round(_shaped(manners, said["increases"], k), 12 + 6 * k)
    written.round(said["plain"], 24, many=many, counted=counted and said["plain"] != "24")
    written.round(_shaped(manners, said["decreases"], 2), 18)
    written.behind(said["stuffed"], on_the_line=False)
    written.round(_shaped(manners, said["decreases"], 1), 12)
    written.round(said["halved"], 6)
    written.behind(said["closed"], on_the_line=False)
    if kind == "prose":
        written.lines = [_sentence(line) for line in written.lines]
    return "\n".join([said["headings"], *written.lines]) + "\n", tuple(written.counts)


def _shaped(manners: Mapping[str, Any], work: str, k: int) -> str:
    said = work.format(k=k, k1=k + 1, k2=k + 2, k1th={1: "second", 2: "third"}[k])
    many, one = manners.get("one_of_many") or ("", "")
    return said.replace(f"1 {many}", f"1 {one}") if many and k == 1 else said


def _sentence(line: str) -> str:
    """A line as a sentence: begun with a capital, ended by a stop."""
    return f"{line[:1].upper()}{line[1:]}{'' if line.endswith('.') else '.'}"


@dataclass
class _ToldLabel(_Label):
    """A manner of numbering rounds in words. nths, words: which one it is, and its number; unsaid: 'next round' and its like,
    which the first of all is not called."""

    nths: Sequence[str] = ()
    words: Sequence[str] = ()
    unsaid: bool = False

    def of(self, first: int, last: int) -> str:
        if self.unsaid and first == 1:
            return ""
        nths, words = ("", *self.nths), ("", *self.words)
        numbers: dict[str, object] = {"n": first, "a": first, "b": last}
        if self.nths:
            numbers |= {"nth": nths[first], "ath": nths[first], "bth": nths[last]}
            numbers |= {"Nth": nths[first].capitalize(), "Ath": nths[first].capitalize()}
            numbers |= {"word": words[first], "aword": words[first], "bword": words[last]}
        return (self.one if first == last else self.several).format(**numbers)


def _told_label(manners: Mapping[str, Any], one: str, several: str) -> _ToldLabel:
    return _ToldLabel(one, several, manners.get("nths", ()), manners.get("words", ()), unsaid="{" not in one)
