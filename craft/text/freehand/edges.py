"""Edges that a round is worked on beside the live one, as words tell them: stitches that are left and taken up again,
loops left free, a start some stitches back; and where a round is joined."""

from __future__ import annotations

from craft.text.freehand.cursor import SEPARATORS, Cursor
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort

_IN_FRONT = ("front", "vorder", "vmg", "avant", "delanter", "anterior", "davanti", "voorste")
"""Beginnings of words for the front loop, in six languages."""


NEAR = 6
"""Tokens behind 'join to leg one' among which that leg is named again."""


class Edges(Cursor):
    """Readers of what is left, what is taken up, and what is joined; each takes what it reads, or gives None."""

    def left(self) -> str | None:
        """'leave the other 12 sts unworked', 'die restlichen 12 M stilllegen', 'laisser les 12 m restantes en attente'."""
        told = self.eat(Sort.LEAVE) is not None
        held = self.eat(Sort.UNWORKED) is not None
        others = self.others()
        self.eat(Sort.LAST, Sort.NEXT)
        n = self.eat(Sort.NUMBER)
        others = self.others() or others
        stitches = self.eat(Sort.PLACE) is not None
        others = self.others() or others
        held = self.eat(Sort.UNWORKED, Sort.LEAVE) is not None or held
        if not (told or held) or not (stitches or others) or (n is None and not others):
            return None
        self.eat(Sort.LEAVE)
        return f"leave {n.value} sts" if n is not None else "leave the rest"

    def shifted(self) -> str | None:
        """'6 Versatzmaschen': stitches that move the round's start, and belong to the next one."""
        n = self.eat(Sort.NUMBER)
        if n is not None and self.eat(Sort.SHIFT):
            return f"shift {n.value}"
        return None

    def backwards(self) -> str | None:
        """'count back 10 sts from the hook': where the round begins, some stitches before the end of the one below."""
        if not self.eat(Sort.BACKWARDS) or (n := self.eat(Sort.NUMBER)) is None:
            return None
        self.eat(Sort.PLACE, Sort.STITCH)
        self.eat(Sort.FROM)
        while self.sort() is Sort.NOISE:
            self.noise.append(str(self.take().value))
        self.behind = int(n.value)
        return ""

    def these_only(self) -> str | None:
        """'… on these 10 sts', '… working into the chains': said again behind the work; the count is the evidence."""
        if not self.at or not self.eat(Sort.IN):
            return None
        self.eat(Sort.OF)
        chains = self.sort() is Sort.CHAIN or (self.sort() is Sort.NUMBER and self.sort(1) is Sort.CHAIN)
        again = self.eat(Sort.NUMBER) is not None and self.eat(Sort.PLACE) is not None
        if chains and self.eat(Sort.CHAIN) and self.sort() in (None, Sort.CLOSE, *SEPARATORS):
            self.noise.append("into the chains")
            return ""
        return "" if again and self.peek() is None else None

    def on_free(self) -> str | None:
        """'join the yarn in the free front loops of R3, …': where the round is worked."""
        joined = self.eat(Sort.REJOIN) is not None
        self.eat(Sort.IN, Sort.TO)
        free = self.eat(Sort.FREE, Sort.FREE_BACK)
        if free is None and (free := self.eat(Sort.FRONT, Sort.BACK)) is not None and not self.eat(Sort.UNWORKED):
            return None
        if free is None:
            return None
        words = self.text[free.start : free.end].lower()
        side = (
            "back "
            if free.sort in (Sort.FREE_BACK, Sort.BACK)
            else "front "
            if any(w in words for w in _IN_FRONT)
            else ""
        )
        self.eat(Sort.OF, Sort.FROM)
        self.eat(Sort.PIECE)  # 'of body Rnd 3'
        of = ""
        label, number = self.peek(), self.peek(1)
        if label is not None and number is not None and number.sort is Sort.NUMBER and self._is_label(label):
            self.at += 2
            of = f" of R{number.value}"
        if not joined and not of and self.sort() not in SEPARATORS:
            return None  # 'in the free loops sc around' has a place of its own
        self.eat(Sort.COMMA, Sort.STOP)
        return f"in the free {side}loops{of}, "

    def _is_label(self, token: Token) -> bool:
        """Whether a token before a number is what a round is called: 'Rd', 'T', 'V'."""
        said_word = self.text[token.start : token.end].lower()
        return token.sort is Sort.ROUND or said_word in ("r", "t", "v", "g", "rd")

    def on_held(self) -> bool:
        """'on the 12 unworked sts, …': what follows is worked on stitches that were left before."""
        self.eat(Sort.REJOIN)
        if not self.eat(Sort.IN, Sort.TO, Sort.THROUGH):
            return False
        self.eat(Sort.NEXT)
        self.eat(Sort.NUMBER)
        return self._waiting() and self.sort() in (*SEPARATORS, Sort.NUMBER, Sort.STITCH, Sort.OPEN, Sort.STAR)

    def _waiting(self) -> bool:
        """'unworked sts', 'skipped stitches', 'mailles en attente': stitches that were left before; they are taken."""
        start = self.at
        left = self.eat(Sort.UNWORKED, Sort.SKIP) is not None
        stitches = self.eat(Sort.PLACE) is not None
        left = self.eat(Sort.UNWORKED) is not None or left
        if not left or not stitches:
            self.at = start
            return False
        return True

    def slip_to_first(self) -> bool:
        """'sl st into first ch to make a ring', 'sl st to join': a joining told by its stitch; its words are taken."""
        start = self.at
        self.eat(Sort.NUMBER)
        made = self.eat(Sort.STITCH)
        if made is not None and made.value == "slst" and self.eat(Sort.IN, Sort.TO):
            if self.eat(Sort.JOIN):
                return True
            placed = self.eat(Sort.NEXT, Sort.ORDINAL) and self.eat(Sort.PLACE, Sort.STITCH, Sort.CHAIN)
            if placed and not self.hook_behind(0):
                while self.eat(Sort.TO, Sort.IN, Sort.JOIN, Sort.RING):
                    pass
                return True
        self.at = start
        return False

    def joined_to(self) -> str | None:
        """'join to leg 1 with a sc': the first stitch along another piece."""
        start = self.at
        self.eat(Sort.TO, Sort.IN)
        piece = self.eat(Sort.PIECE)
        if piece is not None and self.at > start + 1 and self.sort() in SEPARATORS and self._is_said_behind(piece):
            return ""  # 'join to leg one, sc 6 around leg one'
        if piece is not None and (made := self.eat(Sort.STITCH)) is not None:
            at = self.at
            if not (self.eat(Sort.IN) and self.eat(Sort.NEXT) and self.eat(Sort.PLACE)):
                self.at = at  # 'with a sc in any stitch'
            return f"1 {name_of(made.value)} around the {self.limb(piece)}"
        self.at = start
        return None

    def _is_said_behind(self, piece: Token) -> bool:
        """Whether what follows says that it is worked along the same piece."""
        return any(t.sort is Sort.PIECE and t.value == piece.value for t in self.tokens[self.at : self.at + NEAR])

    def where_joined(self) -> str:
        """'… to the first of these 12 sts': where a round is joined is where it began."""
        start = self.at
        if self.sort() in (Sort.TO, Sort.IN) and self.sort(1) is Sort.RING:
            self.at += 2  # 'join to a ring with a sl st'
        if (slipped := self.peek()) is not None and slipped.sort is Sort.STITCH and slipped.value == "slst":
            self.take()
            return "join"
        if not self.eat(Sort.TO, Sort.IN):
            return "join"
        found = self.eat(Sort.NEXT, Sort.ORDINAL, Sort.LAST) is not None
        self.eat(Sort.OF)
        self.eat(Sort.NUMBER)
        if not self.eat(Sort.PLACE, Sort.STITCH, Sort.CHAIN, Sort.RING) or not found:
            self.at = start
        return "join"
