"""Tokens of a round to what they may say, in the notation: one candidate for each way of taking them."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from craft.remembered import of_short
from craft.text.freehand.cursor import SEPARATORS, UnreadableError, Way, ordinal
from craft.text.freehand.explanations import LEAST_TALK, unbracketed, without_explanations
from craft.text.freehand.going_on import BARE, around, repeatable, with_limb
from craft.text.freehand.leads import Leads
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort


@dataclass(frozen=True, slots=True)
class Said:
    """A way of taking a round's words: its work in the notation, and the words that carry no stitches.

    evenly: (stitch, how often) that are to be spread over the round. again: the round before once more. unsaid: a
    number stands for so many single crochets. held: it is worked on stitches that were left before.
    behind: how many stitches back from the hook it begins, the others being left.
    """

    work: str
    noise: tuple[str, ...] = ()
    evenly: tuple[str, int] | None = None
    again: bool = False
    unsaid: bool = False
    held: bool = False
    behind: int = 0


MOST_TOKENS = 240
"""Tokens of a round that is read freehand."""


@of_short(4_096)
def said(tokens: tuple[Token, ...], text: str) -> tuple[Said, ...]:
    """What the tokens may say, likeliest first; none when nothing of it is work."""
    found: list[Said] = []
    if len(tokens) > MOST_TOKENS:
        return ()
    tokens, explained = without_explanations(unbracketed(tokens), text)
    for way in (
        Way(),
        Way(after=True),
        Way(whole=False),
        Way(sweeping=True),
        Way(after=True, sweeping=True),
        Way(besides=True),
        Way(tight=True),
    ):
        try:
            one = _Parser(tokens, text, way).round()
        except UnreadableError:
            continue
        if explained:
            one = replace(one, noise=(*one.noise, *explained))
        if one not in found:
            found.append(one)
    return tuple(found)


_TURNING = ("except", "instead", "less")
"""Words that turn what is said around them: never noise."""


class _Parser(Leads):
    """One pass over a round's tokens in one way of taking them."""

    def round(self) -> Said:
        units = _closed([u for u in self.sequence(closing=False) if u])
        if self.at < len(self.tokens):
            raise UnreadableError
        if self.again and all(u.startswith("with ") for u in units):
            return Said("", tuple(self.noise), None, again=True)
        if self.way.sweeping and len(units) > 1 and (last := re.fullmatch(r"(?:1 )?(\S+) around", units[-1])):
            units = [f"({', '.join([*units[:-1], last.group(1)])}) around"]
        if self.evenly is not None:
            return Said(", ".join(units), tuple(self.noise), self.evenly, self.again)
        if not units:
            raise UnreadableError
        if (
            self.layers
            and len(units) == 1
            and re.fullmatch(r"\d* ?[a-z ]+", units[0])
            and "both layers" not in units[0]
        ):
            units = [f"{units[0]} through both layers"]
        start = f"from {ordinal(self.starts)} ch, " if self.starts else ""
        return Said(
            f"{start}{', '.join(units)}", tuple(self.noise), unsaid=self.numbers, held=self.held, behind=self.behind
        )

    def sequence(self, *, closing: bool) -> list[str]:
        units: list[str] = []
        lead = ""
        parted = False
        while (token := self.peek()) is not None:
            if token.sort in SEPARATORS:
                parted = True
                self.take()
                continue
            if token.sort is Sort.CLOSE:
                if closing:
                    break
                raise UnreadableError
            if units and (times := self.times()) is not None:
                units = self._again(units, times, parted)
                continue
            if units and token.sort is Sort.REPEAT and self.sort(1) in (None, Sort.CLOSE, *SEPARATORS):
                self.take()
                units = around(units)  # '2 sc, 2 sc in next, repeat, join'
                continue
            if (found := self.lead()) is not None:
                lead += found
                continue
            if token.sort is Sort.PLAIN and units:
                self.noise.append(self.text[token.start : self.take().end])  # '30 sc, no increases'
                continue
            if self.all_around(units) or self.along_another(units) or self.in_colour(units):
                continue
            if (unit := self.unit()) is not None:
                if unit == "and in each ch" and units and BARE.fullmatch(units[-1]):
                    units[-1] += " around"
                    continue
                if unit == "join" and units[-1:] == ["join"]:
                    continue
                if units[-1:] == [unit] and unit.endswith(" around"):
                    continue  # 'plain: sc in each st', the whole round said twice
                if self.onto and unit[:1].isdigit() and " around the " not in unit:
                    unit, self.onto = f"{unit} around the {self.onto}", ""
                if not unit:
                    continue
                units = with_limb(units, lead + unit)
                lead, parted = "", False
            else:
                self.skip_noise()
        if lead.strip():
            if lead.startswith(("BLO", "FLO")) and units:
                units[0] = lead + units[0]
            else:
                units.append(lead.strip(" :,"))
        return units

    def _again(self, units: list[str], times: int, parted: bool) -> list[str]:
        """'…, six times': of everything said so far, or of the last of it only."""
        if times == 1:
            return units  # 'decrease once'
        if self.way.whole and (parted or self.way.sweeping) and len(units) > 1:
            sure = not self.way.sweeping
            first = next((k for k in range(len(units), 0, -1) if sure and not repeatable(units[k - 1])), 0)
            return [*units[:first], f"({', '.join(units[first:])}) x {times}"]
        return [*units[:-1], f"({units[-1]}) x {times}"]

    def skip_noise(self) -> None:
        token = self.take()
        if token.sort is Sort.NUMBER and self.sort() is Sort.ROUND:
            self.noise.append(self.text[token.start : self.take().end])
            return
        counts = token.sort in (Sort.NUMBER, Sort.STITCH, Sort.SKIP, Sort.STAR, Sort.ODD, Sort.ODD_RING)
        grouped = self.at > 1 and self.tokens[self.at - 2].sort is Sort.CLOSE
        counts = counts or (token.sort is Sort.TIMES and (grouped or self.sort() is Sort.NUMBER))
        if counts or (token.sort is Sort.ORDINAL and self.sort() is not Sort.ROUND):
            raise UnreadableError
        if token.sort is Sort.OPEN:
            self._aside(token)
            return
        self.layers = self.layers or token.sort is Sort.BOTH
        if str(token.value).lower() in _TURNING:
            raise UnreadableError
        said_word = self.text[token.start : token.end]
        if len(said_word) == 1 and said_word.isupper():
            raise UnreadableError  # a letter that nothing explains is a stitch or a colour of this text's own
        self.noise.append(said_word)

    def _aside(self, opened: Token) -> None:
        """Brackets that hold no work: a remark."""
        depth = 1
        while depth:
            if self.peek() is None:
                raise UnreadableError
            token = self.take()
            depth += (token.sort is Sort.OPEN) - (token.sort is Sort.CLOSE)
            if token.sort is Sort.STITCH:
                raise UnreadableError
        said_aside = self.text[opened.start : token.end]
        leads = not re.search(r"\w", self.text[: opened.start])
        if leads and re.search(r"\d", said_aside) and len(re.findall(r"[^\W\d_]{3,}", said_aside)) < LEAST_TALK:
            raise UnreadableError  # '(4)', '{R5-R6}': a number that counts something
        self.noise.append(said_aside)

    def unit(self) -> str | None:
        start = self.at
        readers = (self.group, self.starred, self.several_groups, self.ringed, self.plain, self.everys, self.chain)
        held = (self.left, self.backwards, self.these_only, self.shifted)
        for reader in (*readers, self.skip, *held, self.bare, self.move, self.work, self.each_more):
            if (found := reader()) is not None:
                return found
            self.at = start
        return None

    def group(self) -> str | None:
        if not self.eat(Sort.OPEN):
            return None
        noise = len(self.noise)
        try:
            inner = self.sequence(closing=True)
        except UnreadableError:
            del self.noise[noise:]
            return None
        if not self.eat(Sort.CLOSE) or not inner:
            del self.noise[noise:]
            return None
        if len(inner) == 1 and inner[0].startswith("with "):
            return inner[0]  # '(B) sc around'
        return self._many(inner)

    def starred(self) -> str | None:
        if not self.eat(Sort.STAR):
            return None
        end = next((k for k in range(self.at, len(self.tokens)) if self.tokens[k].sort is Sort.STAR), None)
        repeat = next((k for k in range(self.at, len(self.tokens)) if self.tokens[k].sort is Sort.REPEAT), None)
        stop = min(k for k in (end, repeat, len(self.tokens)) if k is not None)
        inner = _Parser(self.tokens[self.at : stop], self.text, self.way)
        units = inner.sequence(closing=False)
        self.noise += inner.noise
        self.at = stop
        self.eat(Sort.STAR)
        if not units:
            raise UnreadableError
        return self._many(units, around=True)

    def several_groups(self) -> str | None:
        """'6 x (sc, inc)', '8x inc', 'x6 inc', '5 x *…*', 'repeat 6 times: 1 sc, 1 inc'."""
        if not self.at and self.sort() is Sort.REPEAT:
            return self._repeated_first()
        ahead = not self.at and self.eat(Sort.TIMES) is not None
        n = self.eat(Sort.NUMBER)
        if n is None or (not ahead and not self.eat(Sort.TIMES) and self.sort() is not Sort.OPEN):
            return None
        if self.sort() is Sort.STOP and self.at == 2:
            self.take()  # '6 volte: 1 mb, 1 aum'
            inner = self.sequence(closing=False)
            return f"({', '.join(inner)}) x {n.value}" if inner else None
        if self.sort() is Sort.OPEN:
            self.take()
            inner = self.sequence(closing=True)
            if not self.eat(Sort.CLOSE) or not inner:
                return None
            return f"({', '.join(inner)}) x {n.value}"
        if self.sort() is Sort.NUMBER and self.at == 2 and self.way.sweeping:
            inner = self.sequence(closing=False)
            return f"({', '.join(inner)}) x {n.value}" if inner else None  # '6 x 2 fM, 1 Abn'
        if self.sort() is Sort.NUMBER and (one := self.work()) is not None:
            return f"({one}) x {n.value}"
        if self.sort() is Sort.STAR and (starred := re.fullmatch(r"(\(.+\)) around", self.starred() or "")) is not None:
            return f"{starred[1]} x {n.value}"  # '6 x *1 fM, Zun*'
        if self.eat(Sort.DOUBLE):
            return f"{n.value} inc"  # '6x verdoppeln'
        if (token := self.eat(Sort.STITCH)) is not None:
            return f"{n.value} {name_of(token.value)}"
        return None

    def _repeated_first(self) -> str | None:
        """'repetir 6 veces: 1 pb, 1 aum': how often stands before what is repeated."""
        times = self.times()
        if times is None or not self.eat(Sort.STOP, Sort.COMMA):
            return None
        inner = self.sequence(closing=False)
        return f"({', '.join(inner)}) x {times}" if inner else None

    def _many(self, inner: list[str], *, around: bool = False) -> str:
        body = ", ".join(inner)
        start = self.at
        self.eat(Sort.COMMA)
        if (n := self.times()) is not None:
            return f"({body}) x {n}"
        if self.eat(Sort.REPEAT):
            self.from_star()
            around = True
        if self.eat(Sort.AROUND, Sort.ROUND):
            return f"({body}) around"
        if self.sort() is Sort.TO and self.sort(1) is Sort.LAST:
            self.at += 2
            last = self.eat(Sort.NUMBER)
            self.eat(Sort.PLACE, Sort.CHAIN, Sort.STITCH)
            return f"({body}) to last {last.value if last else 1} sts"
        self.at = start
        if (
            not around
            and self.sort() is Sort.NUMBER
            and self.sort(1) not in (Sort.STITCH, Sort.OPEN, Sort.TIMES, Sort.PLACE)
        ):
            return f"({body}) x {self.take().value}"
        return f"({body}) around" if around else f"({body})"


def _closed(units: list[str]) -> list[str]:
    """'1 Lm, 12 fM, 1 Km': the slip stitch at the end of a round that began with its chain joins it."""
    if len(units) > 1 and units[-1] in ("sl st", "1 sl st") and (units[0] == "ch 1" or "in ring" in units[-2]):
        return [*units[:-1], "join"]
    return units
