"""Where stitches are worked: rings, chains, pieces, loops, and which stitches of the edge below."""

from __future__ import annotations

import itertools
import re

from craft.rounds.stitches import Terms, stitch
from craft.text.freehand.cursor import PLACES, SEPARATORS, ordinal
from craft.text.freehand.edges import Edges
from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort
from craft.text.notation import stitch_key


def _takes(name: str) -> int:
    """How many stitches of the round below a stitch uses up, by its name in the notation."""
    found = stitch_key(name, Terms.US)
    return stitch(found).takes if found is not None else 1


_IT = re.compile(r"(?i)\s+it\b")


class Places(Edges):
    """Readers of the place behind a stitch; each takes what it reads, or gives None."""

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
        if (both := self._around_both(name)) is not None:
            return both
        if self.sort() is Sort.AROUND and self.sort(1) is Sort.NUMBER and self.sort(2) in (Sort.PLACE, Sort.STITCH):
            self.take()  # 'sc across 8 sts of the second fluke'
            if (across := self._place(name, count)) is not None:
                return across
            self.at = start
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

    def _around_both(self, name: str) -> str | None:
        """'sc around both legs', 'sc in every st of both legs': all of the first, then all of the second; the words are
        taken."""
        start = self.at
        along = self.eat(Sort.AROUND, Sort.IN)
        if self.eat(Sort.EACH, Sort.EVERY):
            self.eat(Sort.PLACE)
            self.eat(Sort.OF)
        if along is None or self.eat(Sort.BOTH) is None or self.sort() is not Sort.PIECE:
            self.at = start
            return None
        said = str(self.take().value)
        noun = said.removeprefix("next ") if said.startswith("next ") else said.removesuffix("s").removesuffix("S")
        self.limbs += [f"first {noun}", f"second {noun}"]
        return f"around the first {noun}, {name} around, around the second {noun}, {name} around"

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

    def _goes_on_around(self, piece: Token) -> bool:
        """'sc into leg one, sc 11 more around it', '… , sc in next 11 sts of leg one': whether what follows goes on along
        the same piece."""
        start = self.at
        if self.eat(Sort.COMMA, Sort.AND) is not None:
            clause = itertools.takewhile(lambda token: token.sort not in SEPARATORS, self.tokens[self.at :])
            if any(token.sort is Sort.PIECE and token.value == piece.value for token in clause):
                self.at = start
                return True
        counted = self.eat(Sort.NUMBER)
        self.eat(Sort.STITCH)
        goes_on = (counted or self.eat(Sort.NUMBER)) is not None and self._around_it()
        self.at = start
        return goes_on

    def _counted_there(self) -> int:
        """The '(12)' of 'sc around the second leg (12)': how many stitches that is; 0 where it is not said."""
        unit = int(self.sort(2) in (Sort.STITCH, Sort.PLACE))
        if self.sort() is not Sort.OPEN or self.sort(1) is not Sort.NUMBER or self.sort(2 + unit) is not Sort.CLOSE:
            return 0
        many = int(self.tokens[self.at + 1].value)
        self.at += 3 + unit
        return many

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
        of_chain = self.sort(1) is Sort.CHAIN or (self.sort(1) is Sort.PLACE and self.hook_behind(2))
        if self.sort() is Sort.ORDINAL and of_chain and 1 < int(self.peek().value) < 10:  # type: ignore[union-attr]
            nth = int(self.take().value)
            self.take()
            self.past_hook()
            return f"{many} in {ordinal(nth)} ch from hook"
        if self._first_of_two_chains():
            return f"{many} in 2nd ch from hook"
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
        if piece is not None and (counted := self._counted_there()):
            return f"{counted} {name} around the {self.limb(piece)}"
        if piece is not None and (count is not None or self._goes_on_around(piece)):
            return f"{many} around the {self.limb(piece)}"
        if count is not None and (other := self.like_named()) is not None:
            return f"{many} around the {other}"
        return None if piece is None else ""

    def _first_of_two_chains(self) -> bool:
        """'2 ch, 6 sc in the first ch': the one that is the second from the hook; its words are taken."""
        nth = self.peek()
        first = nth is not None and (
            (nth.sort is Sort.ORDINAL and nth.value == 1) or self.text[nth.start : nth.end].lower() == "first"
        )
        ahead = [(t.sort, t.value) for t in self.tokens[: self.at]]
        two = any((Sort.NUMBER, 2) in pair and (Sort.CHAIN, 0) in pair for pair in itertools.pairwise(ahead))
        if not (first and two and self.sort(1) is Sort.CHAIN):
            return False
        self.at += 2
        self.past_hook()
        return True

    def _one_after_the_other(self) -> Token | None:
        """'sc in the first stitch, then two in the second': the next stitch, by its place in what is repeated."""
        behind = self.sort(1) in (None, Sort.PLACE, Sort.NUMBER, Sort.CLOSE, *SEPARATORS)
        return self.take() if self.sort() is Sort.ORDINAL and behind and not self.limbs else None

    def _along_piece(self, name: str, n: int, number: Token | None, *, each: bool, placed: bool) -> str | None:
        """'in 12 sts of the first leg', 'in each st of the first leg': the stitches of a piece; None where none is named."""
        if number is not None:
            limb = self.of_piece()
            return None if limb is None else f"{number.value} {name} around the {limb}"
        if each and n == 1 and (limb := self.of_piece()) is not None:
            return f"around the {limb}, {name} around"
        if placed and n == 1 and (along := self._and_on_along()) is not None:
            return f"1 {name} around the {along}"
        return None

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
        following = not last and (self.eat(Sort.NEXT) or self._one_after_the_other()) is not None
        same = self.eat(Sort.SAME) is not None
        number = self.eat(Sort.NUMBER)
        if number is not None and self.sort(1) in PLACES:
            self.eat(Sort.MORE)  # 'in 11 more sts'
        if number is not None and not last and self.eat(Sort.NEXT):
            following = True  # 'en los 2 siguientes'
        free = self.eat(Sort.FREE, Sort.FREE_BACK)
        if number is not None and self._waiting():
            self.held = True
            return f"{n * int(number.value)} {name}" if n == 1 else f"{many} in each of next {number.value} sts"
        place = self.eat(Sort.PLACE, Sort.CHAIN)
        if place is not None and place.sort is Sort.CHAIN and number is None and not (each or following or last):
            number = self.eat(Sort.NUMBER)  # 'sc in the ch 3'
        if place is None and (each or following or last) and self.sort(1) not in (Sort.NUMBER, Sort.EACH):
            place = self.eat(Sort.STITCH)
        if place is None and number is not None and self.sort(1) in (None, Sort.CLOSE, *SEPARATORS):
            place = self.eat(Sort.STITCH)  # '1 sc in 1 sc'
        if number is not None and place is not None and self.eat(Sort.TOGETHER):
            return "dec" if number.value == 2 and name == "sc" else f"{name}{number.value}tog"
        if (
            along := self._along_piece(name, n, number, each=each, placed=place is not None or bool(following))
        ) is not None:
            return along
        if each and self.sort() is Sort.AND and self.sort(1) is Sort.CHAIN and self.sort(2) is not Sort.NUMBER:
            self.at += 2  # 'in each st and ch'
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
