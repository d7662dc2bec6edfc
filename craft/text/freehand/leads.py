"""Where a round, or what follows in it, is worked, as it is said before its stitches: in back loops, along a chain."""

from __future__ import annotations

from craft.text.freehand.cursor import SEPARATORS, ordinal
from craft.text.freehand.going_on import GoingOn
from craft.text.freehand.lexicon import Sort


class Leads(GoingOn):
    """Readers of a place that stands before its stitches; each takes what it reads, or gives None."""

    def lead(self) -> str | None:
        start = self.at
        if (free := self.on_free()) is not None:
            return free
        self.at = start
        if [self.sort(k) for k in range(3)] == [Sort.OPEN, Sort.OTHER_SIDE, Sort.CLOSE]:
            self.at += 3
            self.eat(Sort.STOP, Sort.COMMA)
            return "along the other side "  # '(other side) 4 sc'
        self.turned()
        self.eat(Sort.IN)
        if self.eat(Sort.BACK):
            self.eat(Sort.STOP, Sort.COMMA)
            return "BLO: " if not start else "in BLO "
        if self.eat(Sort.FRONT):
            self.eat(Sort.STOP, Sort.COMMA)
            return "FLO: " if not start else "in FLO "
        if self.eat(Sort.OTHER_SIDE):
            self.of_chain()
            self.eat(Sort.STOP, Sort.COMMA)
            return "along the other side "
        if self.on_held():
            self.held = True
            return ""
        self.at = start
        start_at = self.from_hook()
        return start_at if start_at is not None else self.onto_piece()

    def turned(self) -> None:
        """'turn to work on the other side', 'turn and continue along the other side': no row ends there."""
        ahead = 1 if self.sort() is Sort.TURN else 0
        while ahead and self.sort(ahead) in (Sort.TO, Sort.AND, Sort.IN, Sort.COMMA, Sort.NOISE):
            ahead += 1
        if not ahead or self.sort(ahead) is not Sort.OTHER_SIDE:
            return
        for _ in range(ahead):
            word = self.take()
            self.noise += [str(word.value)] if word.sort is Sort.NOISE else []

    def onto_piece(self) -> str | None:
        """'on to the left leg and sc 12 there'."""
        start = self.at
        while self.eat(Sort.IN, Sort.TO, Sort.THROUGH):
            pass
        if (
            self.at > start
            and (piece := self.eat(Sort.PIECE)) is not None
            and self.sort() in (Sort.AND, Sort.COMMA, Sort.STOP)
        ):
            self.take()
            self.onto = self.limb(piece)
            return ""
        self.at = start
        return None

    def from_hook(self) -> str | None:
        """'from the 2nd ch [from hook]'."""
        start = self.at
        behind = self.sort() is Sort.FROM and self.at > 0
        came = self.eat(Sort.FROM, Sort.IN)
        chain = self.sort(1) is Sort.CHAIN or (
            self.sort(1) is Sort.PLACE and came is not None and (came.sort is Sort.FROM or self.hook_behind(2))
        )
        if came is not None and self.sort() is Sort.ORDINAL and chain:
            nth = int(self.take().value)
            self.take()
            self.past_hook()
            begun = behind and self.tokens[start - 1].sort is Sort.STITCH and self.sort() in SEPARATORS
            if ((behind and self.peek() is None) or begun) and 1 < nth < 5:
                self.starts = nth
                return ""
            self.eat(Sort.STOP, Sort.COMMA)
            return f"in {ordinal(nth)} ch from hook " if 1 < nth < 5 else None
        self.at = start
        return None
