"""What goes on from the stitches that stand last: all around, along another piece, in a colour said behind them."""

from __future__ import annotations

import re

from craft.text.freehand.cursor import SEPARATORS
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.units import Units

BARE = re.compile(r"(?:in [BF]LO )?[a-z]+(?: [a-z]+)?")
"""A stitch without a number."""

_ALONG = re.compile(r"(?:\d+ )?(?P<stitch>\S+) around the .+|around the .+, (?P<all>\S+) around")
"""Stitches along a piece: all of its stitches, or so many."""

_ALONG_PIECE = re.compile(r"(\d+) (\S+) around the (.+)")


def with_limb(units: list[str], unit: str) -> list[str]:
    """The units with one more; stitches along one piece that are told in two steps are one step."""
    more, before = _ALONG_PIECE.fullmatch(unit), _ALONG_PIECE.fullmatch(units[-1]) if units else None
    if more is None or before is None or more.groups()[1:] != before.groups()[1:]:
        return [*units, unit]
    return [*units[:-1], f"{int(before[1]) + int(more[1])} {more[2]} around the {more[3]}"]


def around(units: list[str]) -> list[str]:
    """The units, those behind the last that is worked once repeated to the round's end."""
    first = next((k for k in range(len(units), 0, -1) if not repeatable(units[k - 1])), 0)
    return [*units[:first], f"({', '.join(units[first:])}) around"] if first < len(units) else units


def repeatable(unit: str) -> bool:
    """Whether what is said of a list behind it may be said of this unit, too: of work, and of no colour or turn."""
    return not unit.startswith(("with ", "ch ", "turn", "join"))


class GoingOn(Units):
    """Readers of words behind a unit, which change it or repeat it elsewhere; each tells whether it took them."""

    def in_colour(self, units: list[str]) -> bool:
        """'6 sc in white, 6 sc (blue)': whether the colour of what stands last is said behind it; the words are taken."""
        if not units or self.at == 0 or self.tokens[self.at - 1].sort in (*SEPARATORS, Sort.OPEN):
            return False
        start = self.at
        opened = self.eat(Sort.OPEN) is not None
        self.eat(Sort.IN)
        colour = self.eat(Sort.COLOUR)
        closed = self.eat(Sort.CLOSE) is not None if opened else True
        if colour is None or not closed or self.sort() not in (None, Sort.CLOSE, *SEPARATORS):
            self.at = start
            return False
        units.insert(-1, f"with {colour.value}")
        return True

    def along_another(self, units: list[str]) -> bool:
        """'8 sc on the second fluke, then 8 [sts] of the first': whether the stitch that stands last is worked along another
        piece, too; the words are taken."""
        before = _ALONG.fullmatch(units[-1]) if units else None
        if before is None:
            return False
        start = self.at
        self.eat(Sort.IN, Sort.AROUND)
        many = self.eat(Sort.NUMBER, Sort.EACH, Sort.EVERY)
        if many is not None:
            self.eat(Sort.PLACE)
            self.eat(Sort.OF, Sort.IN, Sort.AROUND)
            if (limb := self.of_piece() or self.like_named()) is not None:
                stitch = before["stitch"] or before["all"]
                told = f"{many.value} {stitch} around the {limb}", f"around the {limb}, {stitch} around"
                units.append(told[many.sort is not Sort.NUMBER])
                return True
        self.at = start
        return False

    def all_around(self, units: list[str]) -> bool:
        """'inc around', 'all the way to the end': whether what stands last goes on around; the words are taken."""
        if self.sort() is not Sort.AROUND or not units:
            return False
        whole = units[-1].endswith(" around")
        if not whole and not BARE.fullmatch(units[-1]):
            return False
        listed = self.tokens[self.at - 1].sort is Sort.COMMA and self.sort(1) in (None, Sort.CLOSE, *SEPARATORS)
        self.take()
        if listed and not whole:
            units[:] = around(units)  # '2 sc, dec, around', where 'dec around' is that alone
        else:
            units[-1] += "" if whole else " around"
        return True
