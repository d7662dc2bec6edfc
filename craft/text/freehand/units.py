"""What a round is made of beside stitches in their places: rings, chains, colours, 'every third', straight rounds."""

from __future__ import annotations

from craft.text.freehand.chain_starts import closes_at, counts_at
from craft.text.freehand.cursor import SEPARATORS
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.stitches import Stitches

_ALL = ("all", "alle", "allen", "todos", "todas", "tous", "toutes", "tutte", "tutti")
"""'in all 6 sts' is how many there are, where 'in every 3 sts' counts on."""

MOST_PASSED = 3
"""Words between a ring and its stitches that are passed over."""


def spaced(stitch: str, between: int) -> str:
    """A stitch around the round, with so many single crochets before each."""
    if between < 1:
        return f"{stitch} around"
    return f"({between} sc, {stitch}) around"


class Units(Stitches):
    """Readers of the smaller units of a round."""

    def ringed(self) -> str | None:
        """'magic ring, 6 sc', 'ring with 6 sc', 'RING 6 SC'."""
        if self.sort() is Sort.NUMBER and self.peek().value == 1 and self.sort(1) is Sort.RING:  # type: ignore[union-attr]
            self.take()
        if self.sort() is Sort.OPEN and self.sort(1) is Sort.RING and self.sort(2) is Sort.CLOSE:
            self.at += 3  # '(MR) 6'
        elif not self.eat(Sort.RING):
            return None
        self.eat(Sort.OF)
        self.eat(Sort.COMMA, Sort.STOP, Sort.AND)
        if self.sort() is Sort.CHAIN and self.sort(1) is Sort.NUMBER:
            self.at += 2  # 'and chain 1': what holds the ring
            self.eat(Sort.COMMA, Sort.STOP, Sort.AND)
        if self.sort() is Sort.TIMES and self.sort(1) is Sort.NUMBER:
            self.take()  # 'MR x6'
        passed = 0
        while self.sort() in (Sort.NOISE, Sort.IN, Sort.AND) and passed < MOST_PASSED:
            passed += 1  # 'y teje dentro 6 puntos', 'Fadenring an und häkeln 6 feste Maschen'
            word = self.take()
            self.noise += [str(word.value)] if word.sort is Sort.NOISE else []
        n = self.eat(Sort.NUMBER)
        stitch = self.eat(Sort.STITCH)
        n = n or self.eat(Sort.NUMBER)
        if n is None:
            return None
        if self.sort() is Sort.IN and self.sort(1) is Sort.RING:
            self.at += 2
        return f"{n.value} {name_of(stitch.value) if stitch else 'sc'} in ring"

    def plain(self) -> str | None:
        if self.eat(Sort.PAIRS):
            return "dec around"
        if self.eat(Sort.PLAIN) or (self.at == 0 and self.eat(Sort.AROUND)):
            self.eat(Sort.AROUND)
            if self.sort() is Sort.IN and (stitch := self.peek(1)) is not None and stitch.sort is Sort.STITCH:
                self.at += 2  # 'work even in dc'
                return f"{name_of(stitch.value)} around"
            return "sc around"
        if self.sort() is Sort.EACH and self.sort(1) in (None, Sort.STOP, Sort.COMMA):
            self.take()  # 'one in each'
            return "sc around"
        if self.sort() is Sort.SAME and self.sort(1) in (None, Sort.STOP, Sort.COMMA):
            self.take()
            self.again = True
            return ""
        parted = not self.at or self.tokens[self.at - 1].sort in SEPARATORS
        if parted and self.eat(Sort.AGAIN):
            if self.sort() in (Sort.STITCH, Sort.NUMBER):
                return None
            self.again = True
            return ""
        return None

    def everys(self) -> str | None:
        """'2 in every second', 'inc in every 3rd st', 'every fifth and sixth together', 'double every 2nd st'."""
        if (
            self.at > 1
            and self.tokens[self.at - 2].sort is Sort.NUMBER
            and self.sort() is Sort.DOUBLE
            and self._shapes(0)
        ):
            self.take()
            return "inc"  # 'one and a double six times'
        n = self.eat(Sort.NUMBER)
        stitch = self.eat(Sort.STITCH)
        inside = self.eat(Sort.IN) is not None
        always = self.eat(Sort.ALWAYS)
        doubled = self.eat(Sort.DOUBLE) is not None
        if doubled and self.sort() is Sort.IN and self.sort(1) is Sort.NUMBER and self.sort(2) in (None, *SEPARATORS):
            self.take()
            return spaced("inc", int(self.take().value) - 1)  # 'doubler 1 maille sur 2'
        whole = inside and self._says_all()
        each = self.eat(Sort.EACH, Sort.EVERY) is not None
        if not always and not each and not doubled:
            return self._pair_again() if n is None and stitch is None else None
        if always:
            two = self.eat(Sort.NUMBER)
            self.eat(Sort.PLACE)
            return "dec around" if two and two.value == 2 and self.eat(Sort.TOGETHER) else None
        first = self.eat(Sort.ORDINAL)
        shaped = doubled or (stitch is not None and stitch.value in ("inc", "dec"))
        if first is None and each and shaped and self.sort() is Sort.NUMBER and self.sort(1) is Sort.PLACE:
            counted = self.take()
            if whole:
                self.take()
                return f"{counted.value} {'inc' if stitch is None else stitch.value}"  # 'inc in all 6 sts'
            first = counted  # '1 aum cada 3 puntos'
        second = self._second_of_pair()
        if (
            first is not None
            and stitch is None
            and (shape := self.peek()) is not None
            and shape.value in ("inc", "dec")
        ):
            stitch = self.take()  # 'jede 2. V'
        self.eat(Sort.PLACE, Sort.CHAIN)
        doubled = self.eat(Sort.DOUBLE) is not None or doubled
        together = self.eat(Sort.TOGETHER) is not None
        if second is not None and first is not None and together:
            return spaced("dec", int(second.value) - 2)
        increases = doubled or (stitch is not None and stitch.value == "inc") or (n is not None and n.value == 2)
        if first is not None and increases:
            return spaced("inc", int(first.value) - 1)
        if first is not None and stitch is not None and stitch.value == "dec":
            return spaced("dec", int(first.value) - 1)
        return self._doubled(each) if first is None and doubled else None

    def _second_of_pair(self) -> Token | None:
        """The '4.' of 'jede 3. u. 4. M', behind the third; it is taken."""
        if self.sort() is Sort.AND and self.sort(1) is Sort.STOP and self.sort(2) is Sort.ORDINAL:
            self.take()
        if self.sort() not in (Sort.AND, Sort.STOP) or self.sort(1) is not Sort.ORDINAL:
            return None
        self.take()
        return self.take()

    def _doubled(self, each: bool) -> str:
        """'double the next one', or all of them."""
        if each or not self.eat(Sort.NEXT):
            return "inc around"
        if self.eat(Sort.PLACE) is None and (one := self.peek()) is not None and one.value == 1:
            self.take()
        return "inc"

    def _says(self, token: Token, word: str) -> bool:
        return self.text[token.start : token.end].lower() == word

    def _says_all(self) -> bool:
        """Whether 'all' is what stands here, and not 'every' or 'each'."""
        token = self.peek()
        return token is not None and self.text[token.start : token.end].lower().split()[0] in _ALL

    def _pair_again(self) -> str | None:
        """'the 2nd and 3rd st together, repeat 8 times': what stands before the pair is worked plainly."""
        first, joined, second = self.eat(Sort.ORDINAL), self.eat(Sort.AND), self.eat(Sort.ORDINAL)
        self.eat(Sort.PLACE)
        if first is None or joined is None or second is None or int(second.value) != int(first.value) + 1:
            return None
        if not self.eat(Sort.TOGETHER):
            return None
        self.eat(Sort.COMMA)
        times = self.times()
        return f"({int(first.value) - 1} sc, dec) x {times}" if times and int(first.value) > 1 else None

    def chain(self) -> str | None:
        n = self.eat(Sort.NUMBER)
        if not self.eat(Sort.CHAIN):
            return None
        if n is None and self.sort() is Sort.STOP and Sort.CHAIN in (self.sort(1), self.sort(2)):
            self.take()  # 'Foundation chain: ch 6'
            n = self.eat(Sort.NUMBER)
            self.eat(Sort.CHAIN)
        one = n is None or n.value == 1  # 'a chain of 7', 'una cadena de 7'
        if one and self.sort() is Sort.OF and self.sort(1) is Sort.NUMBER:
            self.take()
        ends = (None, Sort.STOP, Sort.COMMA)
        if one and self.sort() is Sort.NUMBER and (n is None or self.sort(1) in (*ends, Sort.CHAIN, Sort.PLACE)):
            n = self.take()
            if self.sort(1) in ends:
                self.eat(Sort.CHAIN, Sort.PLACE)  # 'chaînette de 5 ml', 'Kette aus 6 Luftmaschen'
        if self.sort() is Sort.IN and self.sort(1) in ends:
            self.take()  # 'zet 6 lossen op'
        if self.sort() is Sort.EACH or (self.sort() is Sort.IN and self.sort(1) is not Sort.COLOUR):
            return None
        said = counts_at(self.text, self.tokens[self.at - 1].end)
        if said is None:
            return f"ch {n.value if n else 1}"
        self.up_to(said[1])
        return f"ch {n.value if n else 1}{' (counts as a stitch)' if said[0] else ''}"

    def skip(self) -> str | None:
        n = self.eat(Sort.NUMBER)
        if n is not None:
            self.eat(Sort.PLACE)
        if not self.eat(Sort.SKIP):
            return None
        if (
            not self.eat(Sort.NEXT, Sort.LAST, Sort.REST)
            and (said := self.peek()) is not None
            and said.value == "other"
        ):
            self.take()
        n = n or self.eat(Sort.NUMBER)
        self.eat(Sort.PLACE, Sort.CHAIN, Sort.STITCH)
        return f"skip {n.value if n else 1}"

    def move(self) -> str | None:
        if self.sort() is Sort.NUMBER and self.sort(1) is Sort.TURN and self.peek().value == 1:  # type: ignore[union-attr]
            self.take()  # '1 Wende-LM'
        if self.eat(Sort.TURN):
            return "turn"
        if (
            (token := self.peek()) is not None
            and token.sort is Sort.TIMES
            and token.value == 0
            and self._says(token, "keer")
        ):
            self.take()  # '1 l, keer': what is 'times' behind a number
            return "turn"
        if (token := self.peek()) is not None and (closed := closes_at(self.text, token.start)) is not None:
            self.up_to(closed)
            return "join"
        if self.slip_to_first():
            return "join"
        if self.sort() is Sort.NUMBER and self.sort(1) is Sort.JOIN and self.peek().value == 1:  # type: ignore[union-attr]
            self.take()  # '1 mc dans la première ms'
        if self.eat(Sort.JOIN):
            joined = self.joined_to()
            return self.where_joined() if joined is None else joined
        if self.sort() is Sort.REJOIN:
            self.take()
            return self.joined_to()
        if (token := self.eat(Sort.COLOUR)) is not None:
            return f"with {token.value}"
        return None

    def bare(self) -> str | None:
        """Colours with numbers: '3 B, 3 Y'; a colour all round."""
        n = self.eat(Sort.NUMBER)
        if n is not None and self.sort(1) is Sort.COLOUR:
            self.eat(Sort.IN)  # 'sc 6 in white and 6 in blue'
        colour = self.eat(Sort.COLOUR)
        if n is None and colour is not None and self.eat(Sort.AROUND):
            return f"with {colour.value}, sc around"
        if n is None and colour is None and self.eat(Sort.EACH) and (colour := self.eat(Sort.COLOUR)) is not None:
            return f"with {colour.value}, sc around"
        if n is None and colour is not None and self.sort() is Sort.NUMBER and self._is_bare_number():
            n = self.take()  # 'O 7, W 6'
        if n is not None and colour is not None:
            return f"with {colour.value}, {n.value} sc"
        return None

    def _is_bare_number(self) -> bool:
        """Whether a number counts nothing that stands behind it."""
        return self.sort(1) in (None, Sort.COMMA, Sort.STOP, Sort.AND, Sort.COLOUR, Sort.CLOSE)
