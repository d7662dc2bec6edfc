"""Parts of a text as they begin and go on: their headings, and the words between their rounds."""

from __future__ import annotations

import re
from dataclasses import replace

from craft.problems import Span
from craft.rounds.pattern import Way
from craft.rounds.stitches import Terms
from craft.text.freehand.headings import Heading, heading_of
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort, table_of
from craft.text.freehand.rounds import Line, PartSoFar, Rounds
from craft.text.freehand.source import Row
from craft.text.notation import print_body, read

SURE_HEADING = 4
"""The weight of a heading that nothing else looks like: marked, or with a number to make."""

_REJOINED = re.compile(r"(?i)^[-•*\s]*(?:re-?join|re-?attach)\b")


class Parts(Rounds):
    """Begins parts, and writes the words that wait for what follows them."""

    def begin(self, row: Row) -> None:
        """A part begins: its heading is the nearest line above that looks like one."""
        best: tuple[int, Heading] | None = None
        for back, above in enumerate(reversed(self.waiting[-8:])):
            heading = heading_of(above.text) if above.taken is None else None
            # A line of a list is a heading only right above the rounds, and when it lists nothing.
            if heading is not None and above.listed and (back or "," in above.text) and heading.weight < SURE_HEADING:
                continue
            if heading is None or table_of(self.language, self.terms).get(heading.name.lower()) is not None:
                continue
            weight = heading.weight * 2 - back
            if heading.weight > 0 and (best is None or weight > best[0] + 2):
                best = (weight, heading)
                at = len(self.waiting) - 1 - back
        if best is None:
            above_rows, below_rows = self.waiting, []
            name, make, span = "", 1, row.span
        else:
            above_rows, below_rows = self.waiting[:at], self.waiting[at + 1 :]
            heading = best[1]
            name, make, span = heading.name, heading.make, self.waiting[at].span
            if heading.rest.strip(" .,;:()[]"):
                below_rows = [replace(self.waiting[at], text=heading.rest), *below_rows]
        for waiting in above_rows:
            self.prose(waiting)
        self.waiting = []
        self.begin_called(Heading(name, make, "", 0), span)
        for waiting in below_rows:
            self._lead_in(waiting)
            self.prose(waiting)

    def begin_called(self, heading: Heading, span: Span) -> None:
        """A part with this heading begins."""
        self.part = PartSoFar(heading.name, heading.make)
        self.parts.append(self.part)
        self.closed = False
        if heading.name or len(self.parts) > 1:
            shown = heading.name or f"Part {len(self.parts)}"
            self.out.append(Line(f"## {shown}{f' (make {heading.make})' if heading.make > 1 else ''}", span))

    def _lead_in(self, row: Row) -> None:
        """'in the free loops of 5b': where the part's first round is worked."""
        found = re.search(r"(?i)free\s+(front|back)?\s*loops?\b", row.text)
        if found:
            number = re.search(r"(?i)(?:round|rnd|rd|r|row|of|by)\.?\s*(\d{1,3})", row.text[found.end() :])
            side = f"{found.group(1).lower()} " if found.group(1) else ""
            self.part.lead = f"in the free {side}loops{f' of R{number.group(1)}' if number else ''}, "

    def prose(self, row: Row) -> None:
        text = row.text.strip()
        if not text:
            return
        if row.taken is not None:
            self.out.append(Line(f"> {text}", row.span))
            return
        alone = read(text, self.terms).pattern
        worked = next((r for p in alone.parts for r in p.rounds if r.way is Way.LINE), None)
        if worked is not None and self.parts:
            bracket = f" [{worked.count}]" if worked.count is not None else ""
            self.out.append(Line(f"{print_body(worked.body, Terms.US)}{bracket}", row.span))
            return
        before_a_round = read(f"{text}\nR1: 6 sc in ring\n").pattern
        if (
            any(p.name for p in before_a_round.parts)
            or any(p.rounds for p in alone.parts)
            or label_at(text) is not None
        ):
            text = f"> {text}"
        self.out.append(Line(text, row.span))

    def flush(self) -> None:
        for waiting in self.waiting:
            self.prose(waiting)
        self.waiting = []

    def _joins_pieces(self, rest: str) -> bool:
        """Whether a round below a heading works along parts that were made before: 'Body', 'R6 - sc in 12 of leg two'."""
        heading = heading_of(self.waiting[-1].text) if self.waiting and self.part.rounds else None
        if heading is None or self.waiting[-1].taken is not None:
            return False
        named = {t.value for t in tokens(rest, self.vocabulary()) if t.sort is Sort.PIECE}
        return len(named) > 1

    def _taken_up_again(self) -> bool:
        """Whether the part goes on at stitches that were left: 'Back', 'Rejoin at the held stitches.'; its name then
        heads a section of the same part."""
        at = next((k for k, w in enumerate(self.waiting) if _REJOINED.match(w.text)), None)
        if at is None:
            return False
        heading = heading_of(self.waiting[at - 1].text) if at else None
        if heading is not None and self.waiting[at - 1].taken is None:
            for row in self.waiting[: at - 1]:
                self.prose(row)
            self.out.append(Line(f"## {heading.name}", self.waiting[at - 1].span))
            self.waiting = self.waiting[at:]
        return True
