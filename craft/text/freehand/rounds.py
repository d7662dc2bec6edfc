"""The rounds of a text as they are read: each by its evidence, written in the notation behind those before it."""

from __future__ import annotations

import re
from dataclasses import replace

from craft.text.freehand.attached import attached
from craft.text.freehand.by_counts import LEAST_LISTED, follows, is_count_alone
from craft.text.freehand.choosing import Choosing
from craft.text.freehand.corrections import Taken
from craft.text.freehand.counts import Tail, sentences, tails
from craft.text.freehand.evidence import Chosen
from craft.text.freehand.labels import Label, label_at
from craft.text.freehand.measured import MEASURED
from craft.text.freehand.row import Row
from craft.text.freehand.so_far import Line, Worked

MOST_REPEATED = 200
"""Rounds that one reference writes out."""

NEAR = 3
"""Rows before and behind a round that tell how its text tells rounds."""

_TIMES_IN_BRACKETS = re.compile(
    r"(?i)\s*[(\[]\s*((?:x\s?\d{1,2})|(?:(?:rep(?:eat)?|wdh|répéter|repetir|ripetere|herhaal)\.?\s*)?"
    r"\d{1,2}\s?(?:x|times|fois|mal|veces|volte|keer))\s*[)\]]"
)
"""'1 pb, 1 aum (x6) = 18': how often, and no remark."""

_RING_COUNT = re.compile(r"(?:[3-9]|1[0-2])\.?")
"""A number that is all that a first round says: the stitches of its ring."""

_LOOPS_NAMED = re.compile(r"(?i)\s*(?:in\s+)?(?P<loops>[bf]lo|(?:front|back)\s+loops?(?:\s+only)?)\s*[:,-]?\s*(?=\d)")
"""'flo: 24': a round of which the loops and the count are said."""


class Rounds(Choosing):
    """Reads rounds one after the other and writes them in the notation."""

    def round(self, row: Row, label: Label, first: int, last: int, rest: str) -> None:
        rest = _TIMES_IN_BRACKETS.sub(r" \1", rest)
        if (loops := self.as_many(rest)) is not None:
            rest = (
                f"{loops} sc around [{self.part.live}]" if loops else f"[{self.part.live}]"
            )  # 'R5-8: 24', as many as before
        if first == 1 and self.part.ringless and _RING_COUNT.fullmatch(rest.strip()):
            rest = f"{rest.strip(' .')} sc in ring"  # 'r1 = 6'
        if first == last and (first == 1 or self.part.rounds) and self._is_told_by_count(rest):
            rest = f"[{rest.strip(' .')}]"
        joined = attached(rest, self.parts, self.part)
        rest = joined[1] if joined is not None else rest
        measured = MEASURED.search(rest) if last > first else None
        if measured is not None:
            rest = rest.replace(measured.group(0), "", 1)  # how many rounds that is, the label says
        chosen, tail, ways = self.chosen(rest, label)
        if chosen is None:
            self.unread(row, first, last, rest)
            return
        if label.loops and not chosen.work.startswith(("BLO", "FLO")):
            chosen = replace(chosen, work=f"{'BLO' if label.loops == 'b' else 'FLO'}: {chosen.work}")
        if tail.fold is not None and first == last and tail.fold > 1:
            last = first + tail.fold - 1
        self.write(row, first, last, chosen, tail, fold=tail.fold if tail.fold and last > first else None)
        if ways:
            self.part.candidates = ways
        self.behind = [replace(row, text=sentence) for sentence in sentences(tail.remark)]
        if joined is not None:
            self.behind.append(replace(row, text=joined[0], taken=Taken.NOTE))
        if measured is not None:
            self.behind.append(replace(row, text=measured.group(0).strip(" ,;"), taken=Taken.NOTE))

    def _is_told_by_count(self, rest: str) -> bool:
        """Whether a round's label is followed by a number alone, 'R3: 18', as in other rounds of its text, and the round can be
        shaped evenly to it."""
        live = self.part.live or 0
        if not live or not rest.strip(" .").isdigit() or not follows(live, int(rest.strip(" ."))):
            return False
        near = self.rows[max(self.at - NEAR, 0) : self.at + NEAR + 1]
        labels = ((row, label_at(row.text)) for row in near)
        return sum(label is not None and is_count_alone(row.text[label.end :]) for row, label in labels) >= LEAST_LISTED

    def chosen_fits(self, text: str) -> bool:
        """Whether words without a label work out as a round of their own."""
        chosen, _, _ = self.chosen(text, Label(None, None, 0, 0))
        return chosen is not None and chosen.fits

    def as_many(self, text: str, live: int | None = None) -> str | None:
        """The loops that are named, if any, where words say nothing beside them but how many stitches there are already:
        '24', 'flo: 24'; None where they say more. live: how many that are, the part's own unless said."""
        live = live or self.part.live
        named = _LOOPS_NAMED.match(text)
        loops = named["loops"] if named is not None else ""
        numbers = text[named.end() if named is not None else 0 :].replace(".", " ").split()
        if not numbers or not live or any(n != str(live) for n in numbers):
            return None
        return loops

    def write(self, row: Row, first: int, last: int, chosen: Chosen, tail: Tail, *, fold: int | None) -> None:
        word = "Row " if self.part.flat else "R"
        label = f"{word}{first}" if last == first else f"{word}{first}-{'' if self.part.flat else 'R'}{last}"
        count = f" [{tail.count}]" if tail.count is not None else ""
        said_rounds = f" ({fold} rounds)" if fold is not None else ""
        self.out.append(Line(f"{label}: {chosen.work}{count}{said_rounds}", row.span, chosen.why))
        if "turn" not in chosen.work:
            self.part.short = False
        self.part.live = tail.count if tail.count is not None else chosen.live
        for number in range(first, min(last, first + MOST_REPEATED) + 1):
            self.part.rounds.append(Worked(number, chosen.work, tail.count, self.part.live))
        self.part.chained, self.part.lead, self.part.bridge = False, "", 0

    def unread(self, row: Row, first: int, last: int, rest: str) -> None:
        """What no reading fits stands as it was written: the notation's reader then says what is wrong with it."""
        label = f"R{first}" if last == first else f"R{first}-R{last}"
        count = next((t.count for t in tails(rest, self.language) if t.count is not None), None)
        self.out.append(Line(f"{label}: {rest}", row.span))
        self.part.rounds.append(Worked(last, rest, count))
        self.part.live = count
