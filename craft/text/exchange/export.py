"""A checked pattern as a file."""

from __future__ import annotations

import csv
import io
import re
from bisect import bisect_left
from dataclasses import dataclass, replace
from functools import cached_property

from craft.errors import CraftError
from craft.problems import Span
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Item, Part, Pattern, Round, Way, folded
from craft.rounds.stitches import Terms, stitch
from craft.text.check import Checked
from craft.text.exchange import json_pattern
from craft.text.exchange.inert import cell, markdown
from craft.text.notation import (
    Highlight,
    Reading,
    Wording,
    highlights,
    left_handed,
    print_label,
    print_pattern,
    print_work,
    stitch_key,
)

TEXT_FORMATS = {"text": "txt", "md": "md", "json": "json", "csv": "csv"}
"""Formats that words make, by name, with the ending of their files."""


def as_written(
    checked: Checked, text: str, to: str, *, wording: Wording | None = None, left: bool = False, tidy: bool = False
) -> str:
    """The pattern in the format `to`.

    text: what was checked, kept as she wrote it as far as what is asked for allows. wording: other
    words; left: the left-handed edition; tidy: the canonical form, equal rounds folded.
    """
    pattern = checked.reading.pattern
    say = wording or Wording(pattern.terms)
    if tidy:
        pattern = replace(pattern, parts=tuple(replace(p, items=folded(p.items)) for p in pattern.parts))
    if left:
        pattern = left_handed(pattern)
    match to:
        case "text":
            as_typed = not (tidy or left or say.spelled or say.language)
            if as_typed and (kept := reworded(checked, text, say.terms)) is not None:
                return kept
            return print_pattern(pattern, say)
        case "json":
            return json_pattern.written(replace(pattern, terms=say.terms))
        case "csv":
            # A row for every worked round: folding has nothing to fold here.
            return _csv(checked.reading.pattern, checked.parts, say)
        case "md":
            return _markdown(pattern, say)
    raise CraftError(f"{to!r} is no format: {', '.join(TEXT_FORMATS)}.")


_TERMS_LINE = re.compile(r"(?im)^(\W*terms?(?:inology)?\W*:\s*)(us|u\.s\.|american|uk|u\.k\.|british)\b")


def reworded(checked: Checked, text: str, terms: Terms) -> str | None:
    """Her own text with the stitches' names in other terms, None when that needs more than words.

    Between US and UK terms only names change; everything else stays as she typed it.
    """
    used = checked.reading.pattern.terms
    if terms is used:
        return text
    if Terms.LETTERS in (terms, used):
        return None
    said = InTerms(checked.reading, text, terms).said(Span(0, len(text)))
    name = "UK" if terms is Terms.UK else "US"
    return _TERMS_LINE.sub(lambda m: m.group(1) + name, said) if _TERMS_LINE.search(said) else f"Terms: {name}\n{said}"


@dataclass(frozen=True)
class InTerms:
    """Her own text with the stitches' names in other terms; all else stays as she typed it.

    Only between US and UK terms: letters need more than other words.
    """

    reading: Reading
    text: str
    terms: Terms

    @cached_property
    def _marks(self) -> list[Highlight]:
        return [h for h in highlights(self.reading) if h.kind in ("stitch", "increase", "decrease")]

    @property
    def possible(self) -> bool:
        """Whether other names are enough."""
        used = self.reading.pattern.terms
        return self.terms is used or Terms.LETTERS not in (self.terms, used)

    def said(self, span: Span) -> str:
        """A run of the text."""
        used = self.reading.pattern.terms
        if self.terms is used:
            return self.text[span.start : span.end]
        out: list[str] = []
        at = span.start
        first = bisect_left(self._marks, span.start, key=lambda h: h.start)
        for mark in self._marks[first:]:
            if mark.end > span.end:
                break
            out += [self.text[at : mark.start], _other_name(self.text[mark.start : mark.end], used, self.terms)]
            at = mark.end
        return "".join([*out, self.text[at : span.end]])


def _other_name(word: str, used: Terms, terms: Terms) -> str:
    """A stitch's name in other terms, in the same place of the list of spellings."""
    key = stitch_key(word, used)
    if key is None:
        return word
    raised = re.match(r"(?i)(fp|bp|front post|back post|raised front|raised back)\s*", word)
    plain = word[raised.end() :] if raised else word
    before, after = stitch(key).spellings(used), stitch(key).spellings(terms)
    flat = [w.replace(" ", "") for w in before]
    at = flat.index(plain.lower().replace(" ", "")) if plain.lower().replace(" ", "") in flat else 0
    return (word[: raised.end()] if raised else "") + after[min(at, len(after) - 1)]


def count_table(part: WorkedPart) -> list[tuple[str, int, int]]:
    """Rounds, live stitches and the change from the round before: it reads in any language."""
    rows: list[tuple[str, int, int]] = []
    before = 0
    for tally in part.rounds:
        rows.append((tally.label, tally.live, tally.live - before))
        before = tally.live
    return rows


def _csv(pattern: Pattern, worked: tuple[WorkedPart, ...], say: Wording) -> str:
    out = io.StringIO()
    rows = csv.writer(out, lineterminator="\n")
    rows.writerow(["part", "make", "round", "work", "stitches", "change", "taken", "made", "stated"])
    for part, run in zip(pattern.parts, worked, strict=True):
        before = 0
        tallies = list(zip(run.rounds, count_table(run), strict=True))
        for at, made in enumerate(part.rounds):
            work = print_work(made, say)
            own = [t for t in tallies if t[0].source == at]
            if made.way is Way.LINE and not own:
                # A chain, or a thread that is joined anew: work that is no round, and that rounds begin with.
                rows.writerow([cell(part.name or ""), part.make, "", cell(work), "", "", "", "", ""])
            for tally, (label, live, _) in own:
                at_round = "" if made.way is Way.LINE else label
                rows.writerow(
                    [
                        cell(part.name or ""),
                        part.make,
                        cell(at_round),
                        cell(work),
                        live,
                        live - before,
                        tally.taken,
                        tally.made,
                        tally.stated,
                    ]
                )
                before = live
    return out.getvalue()


def _markdown(pattern: Pattern, say: Wording) -> str:
    parts = [
        f"## {say.say('make', p.name or 'Part', p.make)}\n\n" + "".join(f"{_bullet(i, say)}\n" for i in p.items)
        for p in pattern.parts
    ]
    title = pattern.entry("name")
    head = f"# {title}\n\n" if title else ""
    facts = "".join(f"- {e.key.capitalize()}: {e.value}\n" for e in pattern.head if e.key != "name")
    return markdown(head + (facts + "\n" if facts else "") + "\n".join(parts))


def _bullet(item: Item, say: Wording) -> str:
    if isinstance(item, Round):
        count = f" [{item.count}]" if item.count is not None else ""
        return f"- [ ] {print_label(item, say)}{print_work(item, say)}{count}"
    line = print_pattern(Pattern((Part(None, (item,)),)), say).splitlines()[-1]
    return f"- {line}" if not line.startswith("#") else f"\n#{line}\n"
