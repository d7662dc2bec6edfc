"""Parts that are told in one line: 'Ears x2: mr 6; (2 sc, inc) x2 = 8; sc 8', 'body: 6 / 12 / 18 x3 / close'."""

from __future__ import annotations

import re
from dataclasses import replace

from craft.text.freehand.clauses import is_direction
from craft.text.freehand.counts import sentences, tails
from craft.text.freehand.evidence import choose
from craft.text.freehand.headings import heading_of
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.numbered_rows import NumberedRows

LEAST_LISTED = 3
"""Rounds of a part that is told in one line."""

LEAST_DASHED = 2
"""Rounds between dashes, of which the first is a ring."""

LEAST_RUN_ON = 4
"""Commas of a line that is a whole part and has no name before it: 'mr 6, inc around 12, sc inc around 18, …'."""

_BETWEEN_ROUNDS = (";", " // ", " / ", ". ")
_COUNTED_DASH = re.compile(r"(?<=[)\]])\s+-\s+(?=\S)")
"""'6 fM im Fadenring (6) - 6x Zun (12) - …': dashes behind counts."""
_THEN = re.compile(
    r"(?i)\s*,\s*(?:and\s+)?(?:then|dann|danach|puis|ensuite|luego|después|poi|dopo|dan|daarna)\s+(?=\S)"
)
""", dann': between rounds of a part that is told in one sentence."""

_FIRST_LABEL = re.compile(r"(?i)(?<=\S)\s+(?:rounds?|rnds?|rds?|r)\.?\s*1\s*$")
"""'BELLY (cream) R1: MR6. R2: …': the first round's number behind a part's name."""

_RING_OF = re.compile(r"(\d+) \S+(?: \S+)? in ring")
_WORKS = (Sort.STITCH, Sort.NUMBER, Sort.DOUBLE, Sort.EACH, Sort.AROUND, Sort.RING)
_ENDS_ROUNDS = re.compile(r"(?i)(?:ss|sl\s?st|slst|fo|f/o|off|stuff|close)")
"""What ends a part that is told in one line."""


class OneLine(NumberedRows):
    """Takes a part in one line apart into its rounds."""

    def listed_rounds(self, text: str) -> tuple[str, list[str]] | None:
        """'Ears x2: mr 6; (2 sc, inc) x2 = 8; sc 8': a whole part in one line, its first round in a ring."""
        name, colon, rest = text.partition(":")
        name = _FIRST_LABEL.sub("", name)
        if not colon:
            items = self._whole_rounds(text) if text.count(",") >= LEAST_RUN_ON else []
            return ("", items) if items else None
        if heading_of(name) is None or label_at(name + colon) is not None:
            return None
        rest, behind = self._without_directions_behind(rest)
        sign, least, pieces = self._taken_apart(rest)
        items = [piece.strip(" .") for piece in pieces if piece.strip(" .")]
        first = label_at(items[0]) if items else None
        if len(items) < least or (first is not None and (sign == ". " or first.first != 1)):
            return None
        worked = [
            item
            for item in items
            if (item.isdigit() and sign != ". ") or any(t.sort is Sort.STITCH for t in tokens(item, self.vocabulary()))
        ]
        starts = items[0][first.end :] if first is not None else items[0]
        return (name, [*items, *behind]) if self.rings(starts) and len(worked) >= len(items) - 2 else None

    def _taken_apart(self, rest: str) -> tuple[str, int, list[str]]:
        """What stands between the rounds of a line, how many at least it then tells, and their words."""
        sign = next((sign for sign in _BETWEEN_ROUNDS if sign in rest), ",")
        dashed = _COUNTED_DASH.split(rest)
        if len(dashed) >= LEAST_DASHED and sign in (",", ". "):
            return " - ", LEAST_DASHED, dashed
        pieces = (_counted_items(rest) or self._whole_rounds(rest)) if sign == "," else rest.split(sign)
        told = _THEN.split(rest)
        return sign, LEAST_LISTED, told if len(told) >= LEAST_LISTED and len(told) > len(pieces) else pieces

    def _without_directions_behind(self, rest: str) -> tuple[str, list[str]]:
        """The words of a part without the sentences at its end that tell no stitches: 'Fasten off.', 'Do not cut the yarn.'"""
        told = sentences(rest)
        behind: list[str] = []
        while len(told) > 1 and not any(t.sort in _WORKS for t in tokens(told[-1], self.vocabulary())):
            behind.insert(0, told.pop())
        return (" ".join(told), behind) if behind else (rest, [])

    def _whole_rounds(self, text: str) -> list[str]:
        """'mr6, 6inc, blo 12, fo': items between commas each of which uses up the stitches of the one before, all of them;
        none where one does not, as the items of one round do not."""
        first, *items = [item.strip(" .") for item in text.split(",")]
        rung = [m for way in self.candidates(first) if (m := _RING_OF.fullmatch(way.work)) is not None]
        found, live = [first], int(rung[0][1]) if rung else 0
        for item in items:
            if _ENDS_ROUNDS.fullmatch(item) or is_direction(item):
                found.append(item)
                continue
            if (loops := self.as_many(item, live or -1)) is not None:
                found.append(f"{loops} sc ({live})".strip())
                continue
            made = self._made_of(item, live)
            if not made:
                return []
            found, live = [*found, item], made
        return found if live and len(found) > LEAST_LISTED else []

    def _made_of(self, item: str, live: int) -> int:
        """Stitches of an item that is a whole round on `live` stitches, with its count behind it or without; 0 for none."""
        below = replace(self.below(), live=live, chained=False, lead="", opening=False, ringed=False)
        for tail in tails(item, self.language) if live else ():
            chosen = choose(self.candidates(tail.work), below, tail.count) if tail.work and not tail.remark else None
            if chosen is not None and chosen.fits and chosen.live:
                return chosen.live
        return 0

    def ends_part_in_line(self, item: str) -> bool:
        """Whether an item of such a line is no round but what ends the part: 'ss', 'SL ST, FO'."""
        return _ENDS_ROUNDS.fullmatch(item) is not None or self.only_slips(item)

    def only_slips(self, text: str) -> bool:
        """'SL ST, FO.': one slip stitch that ends a part, and no round of them."""
        words = tokens(text, self.vocabulary())
        made = {t.value for t in words if t.sort is Sort.STITCH}
        return made == {"slst"} and not any(t.sort in (Sort.EACH, Sort.EVERY, Sort.AROUND, Sort.NUMBER) for t in words)


def _counted_items(text: str) -> list[str]:
    """'mr 6, inc (12), sc inc (18)': rounds between commas, each but a ring at the first ending in its count; none else."""
    ring, comma, rest = text.partition(",")
    items: list[str] = []
    for told in re.split(r"(?<=[)\]])\s*,", rest):
        item = told
        count = _COUNT_AT_END.search(items[-1]) if items else None
        while count is not None and (plain := re.match(rf"\s*{count['n']}\s*(?:,|$)", item)) is not None:
            items.append(f"sc ({count['n']})")  # '…, inc x6 (24), 24, 24, …': as many as before
            item = item[plain.end() :]
        items += [item] if item.strip() else []
    counted = all(_COUNT_AT_END.search(item) for item in items)
    return [ring, *items] if comma and counted and len(items) + 1 >= LEAST_LISTED else []


_COUNT_AT_END = re.compile(r"[(\[]\s*(?P<n>\d{1,4})\s*[)\]]\s*\.?\s*$")
