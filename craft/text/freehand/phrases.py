"""Tokens of a round to what they may say, in the notation: one candidate for each way of taking them."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from craft.remembered import of_short
from craft.text.freehand.cursor import SEPARATORS, UnreadableError, Way, ordinal
from craft.text.freehand.explanations import LEAST_TALK, unbracketed, without_explanations
from craft.text.freehand.lexer import Token, name_of
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.units import Units


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


class _Parser(Units):
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
                units = _around(units)  # '2 sc, 2 sc in next, repeat, join'
                continue
            if (found := self.lead()) is not None:
                lead += found
                continue
            if token.sort is Sort.PLAIN and units:
                self.noise.append(self.text[token.start : self.take().end])  # '30 sc, no increases'
                continue
            if self._all_around(units) or self._along_another(units) or self._in_colour(units):
                continue
            if (unit := self.unit()) is not None:
                if unit == "and in each ch" and units and _BARE.fullmatch(units[-1]):
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
                units = _with_limb(units, lead + unit)
                lead, parted = "", False
            else:
                self.skip_noise()
        if lead.strip():
            if lead.startswith(("BLO", "FLO")) and units:
                units[0] = lead + units[0]
            else:
                units.append(lead.strip(" :,"))
        return units

    def _in_colour(self, units: list[str]) -> bool:
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

    def _along_another(self, units: list[str]) -> bool:
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

    def _all_around(self, units: list[str]) -> bool:
        """'inc around', 'all the way to the end': whether what stands last goes on around; the words are taken."""
        if self.sort() is not Sort.AROUND or not units:
            return False
        whole = units[-1].endswith(" around")
        if not whole and not _BARE.fullmatch(units[-1]):
            return False
        listed = self.tokens[self.at - 1].sort is Sort.COMMA and self.sort(1) in (None, Sort.CLOSE, *SEPARATORS)
        self.take()
        if listed and not whole:
            units[:] = _around(units)  # '2 sc, dec, around', where 'dec around' is that alone
        else:
            units[-1] += "" if whole else " around"
        return True

    def _again(self, units: list[str], times: int, parted: bool) -> list[str]:
        """'…, six times': of everything said so far, or of the last of it only."""
        if times == 1:
            return units  # 'decrease once'
        if self.way.whole and (parted or self.way.sweeping) and len(units) > 1:
            sure = not self.way.sweeping
            first = next((k for k in range(len(units), 0, -1) if sure and not _repeatable(units[k - 1])), 0)
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


_BARE = re.compile(r"(?:in [BF]LO )?[a-z]+(?: [a-z]+)?")
"""A stitch without a number."""


_ALONG = re.compile(r"(?:\d+ )?(?P<stitch>\S+) around the .+|around the .+, (?P<all>\S+) around")
"""Stitches along a piece: all of its stitches, or so many."""

_ALONG_PIECE = re.compile(r"(\d+) (\S+) around the (.+)")


def _with_limb(units: list[str], unit: str) -> list[str]:
    """The units with one more; stitches along one piece that are told in two steps are one step."""
    more, before = _ALONG_PIECE.fullmatch(unit), _ALONG_PIECE.fullmatch(units[-1]) if units else None
    if more is None or before is None or more.groups()[1:] != before.groups()[1:]:
        return [*units, unit]
    return [*units[:-1], f"{int(before[1]) + int(more[1])} {more[2]} around the {more[3]}"]


def _around(units: list[str]) -> list[str]:
    """The units, those behind the last that is worked once repeated to the round's end."""
    first = next((k for k in range(len(units), 0, -1) if not _repeatable(units[k - 1])), 0)
    return [*units[:first], f"({', '.join(units[first:])}) around"] if first < len(units) else units


def _closed(units: list[str]) -> list[str]:
    """'1 Lm, 12 fM, 1 Km': the slip stitch at the end of a round that began with its chain joins it."""
    if len(units) > 1 and units[-1] in ("sl st", "1 sl st") and (units[0] == "ch 1" or "in ring" in units[-2]):
        return [*units[:-1], "join"]
    return units


def _repeatable(unit: str) -> bool:
    return not unit.startswith(("with ", "ch ", "turn", "join"))
