"""A stitch with how often and where it is worked, in whatever order that is said."""

from __future__ import annotations

import itertools

from craft.rounds.stitches import MOST_TOGETHER, STITCHES
from craft.text.freehand.cursor import PLACES, SEPARATORS
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.places import Places

LEAST_ORDER = 3
"""Stitches into one, or together, that a number behind 'inc' or 'dec' tells; two need none."""


_PLAIN = ("sc", "hdc", "dc", "tr")
"""Stitches that one place of a round goes on with where it names none: '1 dc in the first, two in the next'."""

_GETS = ("get", "gets", "receive", "receives")


class Stitches(Places):
    """Readers of a stitch and its place; each takes what it reads, or gives None."""

    def work(self) -> str | None:
        if (given := self.given()) is not None:
            return given
        n = self.eat(Sort.NUMBER)
        if n is not None and self.sort() in (Sort.BACK, Sort.FRONT) and self.sort(1) is Sort.STITCH:
            loops = "BLO" if self.take().sort is Sort.BACK else "FLO"
            return f"in {loops} {n.value} {name_of(self.take().value)}"  # '24 BLO sc'
        stitch = self.eat(Sort.STITCH)
        if stitch is None:
            return self.unsaid(n)
        self.usual = str(stitch.value) if stitch.value in _PLAIN else self.usual
        shaped = self.peek()
        if (
            self.way.tight
            and n is None
            and stitch.value == "sc"
            and shaped is not None
            and shaped.value in ("inc", "dec")
        ):
            self.take()  # 'dc inc x 6', where single crochets are called dc
            return self.placed(n, str(shaped.value))
        if self.way.tight and shaped is not None and f"{stitch.value}-{shaped.value}" in STITCHES:
            self.take()  # 'Stb zun3'
            return self.placed(n, f"{stitch.value}-{self._tight(str(shaped.value))}")
        return self.placed(n, str(stitch.value))

    def given(self) -> str | None:
        """'every stitch gets two', 'two stitches get one sc each, the next gets two': the place before what is worked there."""
        start = self.at
        each = self.eat(Sort.EACH, Sort.EVERY) is not None
        self.eat(Sort.NEXT)
        places = self.eat(Sort.NUMBER)
        placed = self.eat(Sort.PLACE) is not None or self.at > start
        gets = self.peek()
        if placed and gets is not None and str(gets.value).lower() in _GETS:
            self.take()
            many, stitch = self.eat(Sort.NUMBER), self.eat(Sort.STITCH)
            self.eat(Sort.EACH)
            if many is not None:
                name, n = name_of(stitch.value) if stitch else "sc", int(places.value) if places else 1
                if each:
                    return f"{many.value} {name} in each st around" if many.value != 1 else f"{name} around"
                if many.value == 1:
                    return f"{n} {name}"
                return f"{many.value} {name} in next st" if n == 1 else f"{many.value} {name} in each of next {n} sts"
        self.at = start
        return None

    def unsaid(self, n: Token | None) -> str | None:
        """'2 in each', '6 in the ring', '2 together', 'in each st 1 sc': the stitch stands behind, or is single crochet."""
        if n is not None and self.limbs and self.sort() is Sort.MORE and self._around_it():
            return f"{n.value} sc around the {self.limbs[-1]}"  # '… and then 14 more around it'
        if n is not None:
            start = self.at
            self.eat(Sort.NEXT)
            self.eat(Sort.PLACE)
            if self.eat(Sort.TOGETHER):
                return "dec" if n.value == 2 else f"dec{n.value}"
            if self.at > start and self.eat(Sort.DOUBLE):
                return f"{n.value} inc"
            if self.at > start and self.sort() is Sort.IN and self.sort(1) is Sort.RING:
                self.at += 2
                return f"{n.value} sc in ring"  # '6 sts in magic ring'
            if self.at > start and self._into_one():
                return "dec" if n.value == 2 else f"dec{n.value}"
            if self.at > start and (shaping := self.peek()) is not None and shaping.value in ("inc", "dec"):
                self.take()  # '6 M abnehmen'
                return f"{n.value} {shaping.value}"
            self.at = start
            into_next = (self.sort(1), self.sort(2), self.sort(3)) == (Sort.NUMBER, Sort.IN, Sort.NEXT)
            if self.sort() in (Sort.COMMA, Sort.AND) and (self._shapes(1) or into_next):
                self.numbers = True  # '1, 2 in next'
                return f"{n.value} {name_of(self.usual or 'sc')}"
            if self.sort() in (None, Sort.CLOSE, *SEPARATORS) and self._numbers_are_stitches():
                self.numbers = True
                return f"{n.value} sc"
        if self.sort() is Sort.IN and (n is not None or self.stitch_behind() or self.sort(1) is Sort.NEXT):
            if n is None:
                return self.placed_first()
            return self.placed(n, self.usual or "sc")
        if n is None and self.sort() in (Sort.EACH, Sort.EVERY):
            return self.placed_first()
        if n is not None and self.sort() in (Sort.EACH, Sort.RING, Sort.BACK, Sort.FRONT):
            return self.placed(n, self.usual or "sc")
        return None

    def _numbers_are_stitches(self) -> bool:
        """'1, inc, (2, inc) x 5, 1': whether all stitches that are named are increases or decreases, and what is repeated is
        repeated so many times: behind 'around' a number is a count."""
        if any(t.sort is Sort.AROUND or t.sort is Sort.ROUND for t in self.tokens):
            return False
        named = {t.value for t in self.tokens if t.sort is Sort.STITCH}
        return bool(named) and named <= {"inc", "dec"}

    def _into_one(self) -> bool:
        """'[squeeze 2 stitches] into 1': the words are taken."""
        one = self.peek(1)
        if self.sort() is not Sort.IN or one is None or one.sort is not Sort.NUMBER or one.value != 1:
            return False
        self.at += 2
        return True

    def _shapes(self, ahead: int) -> bool:
        """Whether an increase or a decrease stands there: 'inc', 'a double six times'."""
        token = self.peek(ahead)
        if token is None:
            return False
        often = self.sort(ahead + 1) in (Sort.NUMBER, Sort.OFTEN, Sort.TIMES, Sort.REPEAT, Sort.AROUND)
        return token.value in ("inc", "dec") if token.sort is Sort.STITCH else token.sort is Sort.DOUBLE and often

    def _stitch_comes(self) -> bool:
        """Whether a stitch stands behind a comma: 'in the next 4 sts, 1 sc'."""
        return self.sort() is Sort.COMMA and Sort.STITCH in (self.sort(1), self.sort(2))

    def stitch_behind(self) -> bool:
        for k in range(1, 6):
            sort = self.sort(k)
            if sort is Sort.STITCH:
                return True
            if sort not in PLACES and sort is not Sort.NUMBER:
                return False
        return False

    def placed_first(self) -> str | None:
        """'in each st 1 sc': the place stands before the stitch."""
        self.eat(Sort.IN)
        each = self.eat(Sort.EACH, Sort.EVERY) is not None
        following = self.eat(Sort.NEXT, Sort.LAST)
        many = (
            self.take()
            if not each and self.sort() is Sort.NUMBER and self.sort(1) in (Sort.PLACE, Sort.CHAIN)
            else None
        )
        if self.eat(Sort.PLACE, Sort.CHAIN) is None and not each and following is None:
            return None
        if each and self.sort() is Sort.STITCH and self.sort(1) is Sort.NUMBER:
            self.take()  # 'in elke v 2 v'
        if (
            many is not None
            and self.usual
            and self.sort() in (None, Sort.CLOSE, *SEPARATORS)
            and not self._stitch_comes()
        ):
            return f"{many.value} {name_of(self.usual)}"  # '… in 2nd ch from hook & in next 4 ch'
        self.eat(Sort.AROUND)
        self.eat(Sort.COMMA)
        n = self.eat(Sort.NUMBER)
        stitch = self.eat(Sort.STITCH)
        if stitch is None:
            if n is None and self.eat(Sort.DOUBLE):
                return "inc around"
            if n is not None and following is not None and many is None:
                return f"{n.value} {name_of(self.usual or 'sc')} in next st"
            return None
        one = 1 if n is None else int(n.value)
        if each:
            return f"{one} {name_of(stitch.value)} in each st around" if one > 1 else f"{name_of(stitch.value)} around"
        if following is not None and many is None:
            return f"{one} {name_of(stitch.value)} in next st" if one > 1 else f"1 {name_of(stitch.value)}"
        return None

    def placed(self, n: Token | None, key: str) -> str | None:
        """A stitch with its number and its place, in whatever order they stand."""
        key = self._tight(key)
        name = name_of(key)
        count = int(n.value) if n is not None else None
        if count is None and self.sort() is Sort.NUMBER and not self.counts_what_follows():
            count = int(self.take().value)
        elif count is None and not self.way.sweeping and self.sort() is Sort.TIMES and self.sort(1) is Sort.NUMBER:
            self.take()
            count = int(self.take().value)
        if (
            key in ("inc", "dec")
            and count == 1
            and self.sort() is Sort.STITCH
            and self.sort(1) in (Sort.IN, Sort.THROUGH)
        ):
            self.take()  # 'dec 1 sc over next 2 sc'
        if self._spreads(key, count):
            return ""
        if self.eat(Sort.TOGETHER):
            return "dec"
        if count is None and (pair := self._pair(key)) is not None:
            return pair
        if self.sort() is Sort.NUMBER and self.sort(1) is Sort.TOGETHER:
            many = int(self.take().value)
            self.take()
            return "dec" if many == 2 and key == "sc" else f"{name}{many}tog"
        if key == "bobble":
            of = self.sort() is Sort.OF
            if self.sort(of) is Sort.NUMBER and self.sort(of + 1) is Sort.STITCH:
                self.at += of + 2
        if (colour := self.eat(Sort.COLOUR)) is not None:
            return f"with {colour.value}, {count or 1} {name}"
        loops = self._loops()
        made = self._at_place(name, key, count)
        return f"{loops}{made}"

    def _spreads(self, key: str, count: int | None) -> bool:
        """'[dec 2] sts evenly', '[dec] twice, evenly spaced', '[dec] 2 times evenly': so many, spread over the round."""
        start = self.at
        self.eat(Sort.PLACE)
        if count is None and (often := self.eat(Sort.OFTEN)) is not None:
            count = int(often.value)
        elif self.sort() is Sort.NUMBER and self.sort(1) is Sort.TIMES:
            count = int(self.take().value)
            self.take()
        self.eat(Sort.COMMA)
        if self.eat(Sort.EVENLY):
            self.evenly = (key, count or 1)
            return True
        self.at = start
        return False

    def _tight(self, key: str) -> str:
        """The increase or decrease of 'aug3', where it is taken for one stitch; its number is taken then."""
        number = self.peek()
        if not self.way.tight or key not in ("inc", "dec") or number is None or number.sort is not Sort.NUMBER:
            return key
        if number.start != self.tokens[self.at - 1].end or not LEAST_ORDER <= int(number.value) <= MOST_TOGETHER:
            return key
        self.take()
        return f"{key}{number.value}"

    def _pair(self, key: str) -> str | None:
        """'[over] the 1st and the 4th st [together]': two that are worked as one; 'dec in the last st and the joining st':
        the second is the seam's, which is no stitch of the round, so that one is used up and one made."""
        start = self.at
        self.eat(Sort.IN, Sort.THROUGH)
        if self.eat(Sort.ORDINAL, Sort.NEXT, Sort.LAST):
            self.eat(Sort.PLACE)
            if self.eat(Sort.AND):
                seam = self.peek()
                if key == "dec" and seam is not None and seam.value == "joining":
                    self.take()
                    self.eat(Sort.STITCH, Sort.PLACE, Sort.JOIN)
                    return "1 sc"
                second = self.eat(Sort.ORDINAL)
                self.eat(Sort.PLACE)
                if second is not None and (self.eat(Sort.TOGETHER) or key == "dec"):
                    self.eat(Sort.AROUND)  # 'across the hole'
                    return "1 dec"
        self.at = start
        return None

    def counts_what_follows(self) -> bool:
        """Whether the number here belongs to the stitch behind it: '4 sc, inc 3 sc', but 'dec 1 sc over the next 2'."""
        if self.sort(1) is Sort.MORE and self.sort(2) is Sort.AROUND:
            return False  # 'sc 11 more around it'
        if self.sort(1) in (Sort.TIMES, Sort.TOGETHER, Sort.MORE):
            return True
        if self.sort(1) is Sort.STITCH and self.sort(2) in (Sort.IN, Sort.THROUGH) and self.tokens[self.at].value == 1:
            return self.tokens[self.at - 1].value not in ("inc", "dec")
        return not self.way.after and self.sort(1) in (Sort.STITCH, Sort.CHAIN)

    def each_more(self) -> str | None:
        """'[and in] each ch after it': the stitch before it in every place that is left."""
        goes_on, along = self.at and self.tokens[self.at - 1].sort is Sort.AND, self.eat(Sort.IN) is not None
        if self.at and self.eat(Sort.EACH, Sort.EVERY) and self.eat(Sort.PLACE, Sort.CHAIN):
            self.eat(Sort.AROUND)
            return "and in each ch"
        if goes_on and self._began_in_chain() and self.eat(Sort.CHAIN if along else Sort.AROUND):
            return "and in each ch"  # 'sc in 2nd ch from hook and down the chain', '… and across'
        return None

    def _began_in_chain(self) -> bool:
        """Whether a chain that is counted from the hook was named before."""
        pairs = itertools.pairwise(t.sort for t in self.tokens[: self.at])
        return (Sort.ORDINAL, Sort.CHAIN) in pairs
