"""Reading on in a round's tokens, and the small phrases that stand in many others."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.rounds.numbers import CARDINALS
from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort

SEPARATORS = {Sort.COMMA, Sort.AND, Sort.STOP}
ORDINALS = ("first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth")
PLACES = {Sort.EACH, Sort.EVERY, Sort.NEXT, Sort.SAME, Sort.LAST, Sort.REST, Sort.PLACE, Sort.CHAIN, Sort.ORDINAL}


_OTHERS = ("other", "others", "andere", "anderen", "autres", "otros", "altre", "overige")
"""Words for the stitches that were not worked yet."""


FIRSTS = frozenset((
    "first", "erste", "ersten", "erstes", "premier", "première", "premiers", "premières", "primer", "primera", "primero",
    "prima", "primo", "eerste",
))  # fmt: skip
"""'First' in every language that is read."""


class UnreadableError(Exception):
    """These tokens say nothing that can be worked this way."""


@dataclass(slots=True)
class Way:
    """How ambiguous words are taken. after: numbers stand behind their stitches. whole: 'six times' at the end
    of a list means all of it. sweeping: so does 'x 6' right behind the last stitch. besides: 'repeat 5 times' counts
    those behind the first, as 'repeat 5 more times' always does. tight: 'aug3' is one stitch, and not three."""

    after: bool = False
    whole: bool = True
    sweeping: bool = False
    besides: bool = False
    tight: bool = False


class Cursor:
    """A place in a round's tokens. noise: words passed over. limbs: pieces named so far. starts: the chain that the
    round begins in, where that is said at its end. numbers: a number stood for so many single crochets. held: the
    stitches that it is worked on were left before. behind: how many stitches back from the hook it begins. usual: the plain
    stitch that was named last, which '2 in the next' means."""

    def __init__(self, tokens: Sequence[Token], text: str, way: Way) -> None:
        self.tokens = [t for t in tokens if t.sort is not Sort.QUIET]
        self.text = text
        self.way = way
        self.at = 0
        self.noise: list[str] = []
        self.evenly: tuple[str, int] | None = None
        self.again = False
        self.layers = False
        self.limbs: list[str] = []
        self.onto = ""
        self.starts = 0
        self.numbers = False
        self.held = False
        self.behind = 0
        self.usual = ""

    def peek(self, ahead: int = 0) -> Token | None:
        at = self.at + ahead
        return self.tokens[at] if at < len(self.tokens) else None

    def sort(self, ahead: int = 0) -> Sort | None:
        token = self.peek(ahead)
        return token.sort if token is not None else None

    def take(self) -> Token:
        token = self.tokens[self.at]
        self.at += 1
        return token

    def eat(self, *sorts: Sort) -> Token | None:
        if self.sort() in sorts:
            return self.take()
        return None

    def up_to(self, end: int) -> None:
        """Take what stands before a place of the text."""
        while (token := self.peek()) is not None and token.start < end:
            self.at += 1

    def times(self) -> int | None:
        """'x 6', '6x', '6 times', 'repeat 6 times', 'twice'; None and nothing taken when it is none of them."""
        start = self.at
        self.eat(Sort.REPEAT)
        repeated = self.at > start
        self.from_star()
        besides = int(repeated and self.way.besides)
        early = 0
        if self.sort() is Sort.MORE and self.sort(1) in (Sort.NUMBER, Sort.OFTEN):
            early = self._more()  # 'herhaal nog 5 keer', 'noch 5 mal'
        if token := self.eat(Sort.OFTEN):
            return int(token.value) + (self._more() or early or besides)
        if self.sort() is Sort.TIMES and self.sort(1) is Sort.NUMBER:
            self.take()
            return int(self.take().value)
        n = self.eat(Sort.NUMBER)
        more = (self._more() or early) if n is not None else 0
        if n is not None and self.eat(Sort.TIMES):
            more = more or self._more()
            ahead = self.sort(1 if self.sort() is Sort.NUMBER else 0)
            if ahead in (Sort.OPEN, Sort.STITCH, Sort.STAR) and not repeated and not more:
                self.at = start
                return None  # it stands before what is repeated: '3 fM, 3x 2 fM in 1 M'
            if self.sort() in (Sort.REPEAT, Sort.AGAIN) and self.sort(1) in (None, Sort.CLOSE, *SEPARATORS):
                self.take()  # '5 mal wiederholen'
                besides = besides or int(self.way.besides)
            return int(n.value) + (more or besides)
        if repeated and n is not None:
            return int(n.value) + (more or besides)
        self.at = start
        return None

    def from_star(self) -> None:
        """'[repeat] from * to *', 'between * and *': what is repeated, which the stars say themselves."""
        self.eat(Sort.FROM)
        if not self.eat(Sort.STAR):
            return
        if (plural := self.peek()) is not None and plural.value == "s":
            self.take()  # 'between the *s'
        if self.sort() in (Sort.TO, Sort.AND) and self.sort(1) is Sort.STAR:
            self.at += 2
        else:
            self.eat(Sort.STAR)  # 'da * a *', '*-*': where the word between them says nothing

    def _more(self) -> int:
        """1 for the word 'more', which is taken: what stands there was worked once before."""
        return 1 if self.eat(Sort.MORE) else 0

    def others(self) -> bool:
        """'remaining', 'the other': which stitches are meant; the word is taken."""
        if self.eat(Sort.REST) is not None:
            return True
        other = self.peek()
        if other is None or str(other.value).lower() not in _OTHERS:
            return False
        self.take()
        return True

    def past_hook(self) -> None:
        """'from [the] hook', behind the 2nd chain."""
        if self.sort() is Sort.FROM and self.sort(1) is Sort.NOISE:
            self.at += 2

    def hook_behind(self, ahead: int) -> bool:
        """Whether 'à partir du crochet' stands there: a stitch before it is one of the chain."""
        return self.sort(ahead) is Sort.FROM and self.sort(ahead + 1) is Sort.NOISE

    def limb(self, piece: Token) -> str:
        """The piece that is meant: 'the next leg' is the one after those that were named already."""
        said = str(piece.value)
        if said.startswith(("next ", "other ")):
            said = f"{ORDINALS[min(len(self.limbs), 7)]} {said.split(' ', 1)[1]}"
        self.limbs.append(said)
        return said

    def of_piece(self) -> str | None:
        start = self.at
        self.eat(Sort.OF)
        if (piece := self.eat(Sort.PIECE)) is not None:
            return self.limb(piece)
        if self.at > start and self.sort() is Sort.ORDINAL and self.limbs:
            nth = int(self.take().value)
            self.limbs.append(f"{ORDINALS[min(nth, 8) - 1]} {self.limbs[-1].split()[-1]}")
            return self.limbs[-1]
        self.at = start
        return None

    def like_named(self) -> str | None:
        """'12 sc on the first leg, 12 sc on the second': a piece that only its number names; its words are taken."""
        nth = self.peek()
        if nth is None or not self.limbs or not (nth.sort is Sort.ORDINAL or self._says_first(nth)):
            return None
        if self.sort(1) not in (None, Sort.CLOSE, *SEPARATORS):
            return None
        self.take()
        nouns = [w for w in self.limbs[-1].split() if w.lower() not in CARDINALS and not w.isdigit()]
        number = int(nth.value) if nth.sort is Sort.ORDINAL else 1
        self.limbs.append(f"{ORDINALS[min(number, 8) - 1]} {nouns[-1] if nouns else self.limbs[-1]}")
        return self.limbs[-1]

    def _says_first(self, token: Token) -> bool:
        """'the first', which is the next stitch elsewhere."""
        return token.sort is Sort.NEXT and self.text[token.start : token.end].lower() in FIRSTS

    def of_chain(self) -> int | None:
        """'[of] the 3 ch': how many chains, when they are counted."""
        self.eat(Sort.OF)
        if self.sort() is Sort.BOTH and self.sort(1) is Sort.CHAIN:
            self.at += 2
            return 2  # 'of both chains'
        if self.sort() is Sort.EACH and self.sort(1) in (Sort.OF, Sort.NUMBER, Sort.CHAIN):
            self.take()  # 'of each of the 3 chains'
            self.eat(Sort.OF)
        n = self.take() if self.sort() is Sort.NUMBER and self.sort(1) is Sort.CHAIN else None
        if self.eat(Sort.CHAIN) and n is None:
            n = self.eat(Sort.NUMBER)  # 'of the ch 3'
        return int(n.value) if n else None


def ordinal(n: int) -> str:
    """A chain's place from the hook: '2nd', '3rd', '4th'."""
    return {2: "2nd", 3: "3rd"}.get(n, f"{n}th")
