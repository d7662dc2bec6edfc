"""A stitch with how often and where it is worked, in whatever order that is said."""

from __future__ import annotations

import itertools
import re

from craft.rounds.stitches import MOST_TOGETHER, STITCHES, Terms, stitch
from craft.text.freehand.cursor import PLACES, SEPARATORS, ordinal
from craft.text.freehand.edges import Edges
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort
from craft.text.notation import stitch_key

LEAST_ORDER = 3
"""Stitches into one, or together, that a number behind 'inc' or 'dec' tells; two need none."""


def _takes(name: str) -> int:
    """How many stitches of the round below a stitch uses up, by its name in the notation."""
    found = stitch_key(name, Terms.US)
    return stitch(found).takes if found is not None else 1


_IT = re.compile(r"(?i)\s+it\b")


class Stitches(Edges):
    """Readers of a stitch and its place; each takes what it reads, or gives None."""

    def work(self) -> str | None:
        n = self.eat(Sort.NUMBER)
        stitch = self.eat(Sort.STITCH)
        if stitch is None:
            return self.unsaid(n)
        shaped = self.peek()
        if self.way.tight and shaped is not None and f"{stitch.value}-{shaped.value}" in STITCHES:
            self.take()  # 'Stb zun3'
            return self.placed(n, f"{stitch.value}-{self._tight(str(shaped.value))}")
        return self.placed(n, str(stitch.value))

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
            self.at = start
            behind = self.peek(1)
            shapes = behind is not None and behind.sort is Sort.STITCH and behind.value in ("inc", "dec")
            if self.sort() is Sort.COMMA and shapes:
                self.numbers = True
                return f"{n.value} sc"
        if self.sort() is Sort.IN and (n is not None or self.stitch_behind() or self.sort(1) is Sort.NEXT):
            if n is None:
                return self.placed_first()
            return self.placed(n, "sc")
        if n is None and self.sort() in (Sort.EACH, Sort.EVERY):
            return self.placed_first()
        if n is not None and self.sort() in (Sort.EACH, Sort.RING, Sort.BACK, Sort.FRONT):
            return self.placed(n, "sc")
        return None

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
        self.eat(Sort.AROUND)
        self.eat(Sort.COMMA)
        n = self.eat(Sort.NUMBER)
        stitch = self.eat(Sort.STITCH)
        if stitch is None:
            if n is None and self.eat(Sort.DOUBLE):
                return "inc around"
            if n is not None and following is not None and many is None:
                return f"{n.value} sc in next st"
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
        if self.sort() is Sort.PLACE and self.sort(1) is Sort.EVENLY:
            self.take()
        if self.eat(Sort.EVENLY):
            self.evenly = (key, count or 1)
            return ""
        if self.sort() is Sort.NUMBER and self.sort(1) is Sort.TIMES and self.sort(2) is Sort.EVENLY:
            self.evenly = (key, int(self.take().value))
            self.at += 2
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

    def _loops(self) -> str:
        start = self.at
        self.eat(Sort.COMMA)
        self.eat(Sort.IN)
        if self.eat(Sort.BACK):
            self.eat(Sort.OF)
            return "in BLO "
        if self.eat(Sort.FRONT):
            self.eat(Sort.OF)
            return "in FLO "
        self.at = start
        return ""

    def _at_place(self, name: str, key: str, count: int | None) -> str:
        start = self.at
        if self.sort() is Sort.AROUND and self.sort(1) is Sort.PIECE:
            self.take()
            return f"{count or 1} {name} around the {self.limb(self.take())}"
        if self.sort() is Sort.AROUND and self.sort(1) is Sort.THROUGH:
            self.take()  # 'sc 12 across through both sides'
        if self.limbs and self._around_it():
            return f"{count or 1} {name} around the {self.limbs[-1]}"
        if self.eat(Sort.AROUND):
            return f"{name} around" if (count or 1) == 1 else f"{count} {name} in each st around"
        if self.sort() is Sort.TO and self.sort(1) is Sort.LAST:
            self.at += 2
            n = self.eat(Sort.NUMBER)
            self.eat(Sort.PLACE, Sort.CHAIN, Sort.STITCH)
            return f"{name} to last {n.value if n else 1} sts"
        if self.eat(Sort.SAME):
            return f"{count or 1} {name} in next st"
        if self.sort() is Sort.OTHER_SIDE:
            self.take()
            many = self.of_chain()
            if self.sort() is not Sort.STITCH and not (self.sort() is Sort.NUMBER and self.sort(1) is Sort.STITCH):
                return f"along the other side of the chain {many or count or 1} {name}"
            self.at = start
        if self.sort() is Sort.ROUND and self.sort(1) is Sort.PIECE:
            self.take()  # 'sc 12 round leg 2'
            return f"{count or 1} {name} around the {self.limb(self.take())}"
        through = self.sort() is Sort.THROUGH
        inside = self.eat(Sort.IN, Sort.THROUGH, Sort.TO) is not None
        if through and (piece := self.eat(Sort.PIECE)) is not None:
            if self.sort() is Sort.AND and self.sort(1) in (Sort.PIECE, Sort.NOISE):
                self.take()  # 'and body', 'und dieses Teil'
                while self.eat(Sort.PIECE, Sort.NOISE):
                    pass
            return f"{count or 1} {name} through the {self.limb(piece)} and body"
        if inside or self.sort() in (Sort.EACH, Sort.RING, Sort.NEXT) or self._of_all():
            found = self._place(name, count)
            if found is not None:
                self.eat(Sort.AROUND)
                return found
        self.at = start
        if count is None:
            return name
        return f"{count} {name}"

    def _and_on_along(self) -> str | None:
        """'[sc in any st] of the first leg, sc in the next 11 sts of the first leg': the piece, where the clause behind
        goes on along it; its name is taken."""
        of = self.sort() is Sort.OF
        piece = self.peek(of)
        if piece is None or piece.sort is not Sort.PIECE or self.sort(of + 1) is not Sort.COMMA:
            return None
        for token in self.tokens[self.at + of + 2 :]:
            if token.sort in SEPARATORS:
                break
            if token.sort is Sort.PIECE and token.value == piece.value:
                self.at += of + 1
                return self.limb(piece)
        return None

    def _goes_on_around(self) -> bool:
        """'sc into leg one, sc 11 more around it': whether what follows goes on along the same piece."""
        start = self.at
        self.eat(Sort.COMMA, Sort.AND)
        self.eat(Sort.STITCH)
        goes_on = self.eat(Sort.NUMBER) is not None and self._around_it()
        self.at = start
        return goes_on

    def _around_it(self) -> bool:
        """'sc 11 more around it': along the piece that was named last; the words are taken."""
        more = self.sort() is Sort.MORE
        around = self.peek(more)
        if around is None or around.sort is not Sort.AROUND or not _IT.match(self.text, around.end):
            return False
        self.at += more + 1
        return True

    def _of_all(self) -> bool:
        """'in the back loop of every st': the place stands behind its loop."""
        return self.at > 0 and self.tokens[self.at - 1].sort is Sort.OF and self.sort() is Sort.EVERY

    def _place(self, name: str, count: int | None) -> str | None:
        named = self._named_place(name, count)
        return self._among_stitches(name, count or 1) if named is None else named or None

    def _named_place(self, name: str, count: int | None) -> str | None:
        """A place with a name of its own: a ring, a chain, both layers, a piece; empty for a piece that is no place here,
        None where the place is told among the stitches below."""
        n = count or 1
        many = f"{n} {name}"
        if self.sort() is Sort.NUMBER and self.sort(1) is Sort.RING:
            self.take()
        if self.eat(Sort.RING):
            return f"{many} in ring"
        if self.sort() is Sort.ORDINAL and self.sort(1) is Sort.CHAIN and 1 < int(self.peek().value) < 10:  # type: ignore[union-attr]
            nth = int(self.take().value)
            self.take()
            self.past_hook()
            return f"{many} in {ordinal(nth)} ch from hook"
        if self.behind and (first := self.peek()) is not None and first.value == self.behind and n == 1:
            self.take()
            self.eat(Sort.PLACE)
            return many  # 'count back 10 sts, sc in the 10th'
        if self.eat(Sort.OTHER_SIDE):
            return f"along the other side of the chain {self.of_chain() or n} {name}"
        if self.sort() is Sort.BOTH and self.sort(1) is Sort.CHAIN:
            self.at += 2  # 'in both chains'
            return f"{2 * n} {name} along the chain"
        if self.eat(Sort.BOTH):
            return f"{many} through both layers"
        piece = self.eat(Sort.PIECE)
        if piece is not None and (count is not None or self._goes_on_around()):
            return f"{many} around the {self.limb(piece)}"
        if count is not None and (other := self.like_named()) is not None:
            return f"{many} around the {other}"
        return None if piece is None else ""

    def _among_stitches(self, name: str, n: int) -> str | None:
        """'in each st', 'in the next 4 sts', 'in the last': which stitches of the edge below."""
        many = f"{n} {name}"
        if self.sort(1) in (Sort.EACH, Sort.EVERY):
            self.eat(Sort.OF)  # 'in both loops of every sc'
        each = self.eat(Sort.EACH, Sort.EVERY) is not None
        if each and self.sort() is Sort.NUMBER and self.sort(1) is Sort.OF and self.take().value != 1:
            return None  # 'every one of the 12'; 'every 2 of the 12' is something else
        self.eat(Sort.OF)
        rest = self.others()
        last = self.eat(Sort.LAST) is not None
        following = not last and self.eat(Sort.NEXT) is not None
        same = self.eat(Sort.SAME) is not None
        number = self.eat(Sort.NUMBER)
        if number is not None and self.sort(1) in PLACES:
            self.eat(Sort.MORE)  # 'in 11 more sts'
        free = self.eat(Sort.FREE, Sort.FREE_BACK)
        if number is not None and self._waiting():
            self.held = True
            return f"{n * int(number.value)} {name}" if n == 1 else f"{many} in each of next {number.value} sts"
        place = self.eat(Sort.PLACE, Sort.CHAIN)
        if place is not None and place.sort is Sort.CHAIN and number is None and not (each or following or last):
            number = self.eat(Sort.NUMBER)  # 'sc in the ch 3'
        if place is None and (each or following or last) and self.sort(1) not in (Sort.NUMBER, Sort.EACH):
            place = self.eat(Sort.STITCH)
        if number is not None and place is not None and self.eat(Sort.TOGETHER):
            return "dec" if number.value == 2 and name == "sc" else f"{name}{number.value}tog"
        if number is not None and (limb := self.of_piece()) is not None:
            return f"{number.value} {name} around the {limb}"
        if (
            number is None
            and (place is not None or following)
            and n == 1
            and (along := self._and_on_along()) is not None
        ):
            return f"1 {name} around the {along}"
        if (each or rest) and number is None:
            return f"{n} {name} in each st around" if n > 1 else f"{name} around"
        if same:
            return f"{many} in same st"
        if number is not None and n == 1 and number.value == _takes(name) > 1 and not each:
            return many  # 'sc2tog over next 2 sts' is one of them
        if number is not None and (following or each or last or place is not None or free is not None):
            between = bool(self.limbs) and each  # 'sc in each of the 3 chs', where pieces are joined by them
            if place is not None and place.sort is Sort.CHAIN and (between or not (following or each or last)):
                return f"{number.value} {name} along the chain"
            return f"{number.value} {name}" if n == 1 else f"{many} in each of next {number.value} sts"
        if number is not None and (number.value == n or (n == 1 and self.sort() in (None, *SEPARATORS, Sort.CLOSE))):
            return f"{number.value} {name}"  # 'single crochet in three, …'
        if following or last or place is not None:
            if place is not None and place.sort is Sort.CHAIN and not (following or last):
                return f"{many} along the chain"
            return f"{many} in {'last' if last else 'next'} st" if n > 1 else many
        return None

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
