"""What a round must be whose words no grammar fits, when its count, the round below and every number in it agree.

'Aumentar cada 2 puntos (18)' on 12: one round alone makes 18 of 12 evenly with an increase, every number that is said
is one of its numbers, and nothing is said that it has not. One number too many, one other stitch, and it is not read.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from craft.text.freehand.evidence import MOST_IN_RING, Chosen
from craft.text.freehand.lexer import Token
from craft.text.freehand.lexicon import Sort, stitch_words

WHY = "word by word it is not understood; its count and every number in it fit"

_PLAIN_SORTS = frozenset({
    Sort.NUMBER, Sort.ORDINAL, Sort.TIMES, Sort.OFTEN, Sort.STITCH, Sort.PLACE, Sort.IN, Sort.EACH, Sort.EVERY, Sort.NEXT,
    Sort.SAME, Sort.LAST, Sort.REST, Sort.TO, Sort.OF, Sort.AROUND, Sort.EVENLY, Sort.AGAIN, Sort.PLAIN, Sort.DOUBLE,
    Sort.TOGETHER, Sort.ALWAYS, Sort.REPEAT, Sort.FROM, Sort.PAIRS, Sort.ROUND, Sort.AND, Sort.COMMA, Sort.STOP,
    Sort.OPEN, Sort.CLOSE, Sort.STAR, Sort.QUIET, Sort.NOISE, Sort.MORE,
})  # fmt: skip
"""What an evenly shaped round of single crochet may be told with: no loops, chains, colours, pieces or turns."""

_AFTER = frozenset(("after", "nach", "après", "después", "tras", "dopo", "na"))

_TURNING = frozenset(("except", "instead", "less", "not", "no", "without", "skip", "only"))
"""Words that turn what stands around them: nothing is inferred from such a round."""

TWO = 2
"""The number that tells an increase, 'two in one stitch', and much else."""

MOST_APART = 40
"""Single crochets between two increases that are still told by one number."""


@dataclass(frozen=True, slots=True)
class _Said:
    """What a round's words tell without any grammar. times: the numbers beside every word that says how often, or in it: one of
    them does. ones, twos: how often the numbers one and two stand there, 'two (2)' once. after: the shaping is behind so many
    stitches, 'decrease after every second stitch'."""

    numbers: frozenset[int]
    ordinals: frozenset[int]
    times: tuple[frozenset[int], ...]
    stitches: frozenset[str]
    sorts: frozenset[Sort]
    ones: int
    twos: int
    after: bool = False

    @property
    def shaped_by_two(self) -> bool:
        """Whether 'two in one stitch' is how the increase is told: that two tells nothing else."""
        return (
            "inc" not in self.stitches and Sort.DOUBLE not in self.sorts and not self.shrinks and not self.leaves_shape
        )

    @property
    def leaves_shape(self) -> bool:
        """Whether the place of the shaping is said, 'jede zweite', and nothing of how it is shaped."""
        how = {Sort.DOUBLE, Sort.TOGETHER, Sort.PAIRS, Sort.NOISE, Sort.STITCH} & self.sorts
        return bool(self.ordinals) and not self.numbers and not how

    def explains_twos(self, between: int, many: int, takes: int) -> bool:
        """Whether every two that is said is said of something, and the one that tells the increase of nothing else."""
        apart = between == TWO and not self.spaces and self.ones < TWO
        spaced = self.spaces and TWO in range(between + 1, between + takes + 1)
        others = int(between == TWO) + int(many == TWO) + int(spaced)
        return int(self.shaped_by_two) + int(apart) <= self.twos <= 1 + others

    @property
    def grows(self) -> bool:
        return "inc" in self.stitches or Sort.DOUBLE in self.sorts or 2 in self.numbers

    @property
    def shrinks(self) -> bool:
        return "dec" in self.stitches or bool({Sort.TOGETHER, Sort.PAIRS} & self.sorts)

    @property
    def spaces(self) -> bool:
        """'every third', 'cada 3 puntos': numbers count the stitch itself as well."""
        return bool({Sort.EVERY, Sort.EACH} & self.sorts) or bool(self.ordinals)


def inferred(tokens: Sequence[Token], live: int | None, count: int | None) -> Chosen | None:
    """The one evenly shaped round that everything said agrees with; None when anything does not.

    live: stitches of the round below. count: those that are printed.
    """
    if live == 0:
        return _ring(tokens, count)
    said = _told(tokens)
    if said is None or not live or not count:
        return None
    if count == live:
        return _even(said, live)
    shaped = "inc" if count > live else "dec"
    many, takes = abs(count - live), 1 if count > live else 2
    between, over = divmod(live, many)
    between -= takes
    if (
        over
        or between < 0
        or between > MOST_APART
        or not _shapes(said, shaped, between + takes)
        or not all(many in near for near in said.times if near)
    ):
        return None
    if not said.numbers <= _numbers(said, between, takes) | {many, count, live}:
        return None
    if not said.ordinals <= set(range(1, between + takes + 1)) or not _tells(said, between, takes):
        return None
    if not said.explains_twos(between, many, takes):
        return None
    work = f"({between} sc, {shaped}) x {many}" if between else f"{many} {shaped}"
    return Chosen(work, fits=True, live=count, why=WHY)


def _ring(tokens: Sequence[Token], count: int | None) -> Chosen | None:
    """'6 (magic ring)', '(6) sc in ring', 'white: ring (6)': a first round of which the ring and the count are said, and no
    number beside them."""
    tint = next((f"with {t.value}, " for t in tokens[:1] if t.sort is Sort.COLOUR), "")
    tokens = [t for t in tokens[bool(tint) :] if not tint or t.sort not in (Sort.COMMA, Sort.STOP)]
    sorts = {t.sort for t in tokens}
    others = {t.value for t in tokens if t.sort is Sort.STITCH} - {"sc"}
    plain = {Sort.RING, Sort.QUIET, Sort.IN, Sort.STITCH}
    if not count or count > MOST_IN_RING or Sort.RING not in sorts or others or not sorts <= plain:
        return None
    return Chosen(f"{tint}{count} sc in ring", fits=True, live=count, why="only the ring and the count are said")


def _told(tokens: Sequence[Token]) -> _Said | None:
    """Numbers and stitches of a round's words, None when they tell anything that an even round has not."""
    for token in tokens:
        word = str(token.value).lower()
        other = token.sort is Sort.NOISE and (len(word) == 1 or word in stitch_words())
        if token.sort not in _PLAIN_SORTS or other or word in _TURNING:
            return None
    stitches = frozenset(str(t.value) for t in tokens if t.sort is Sort.STITCH)
    if not stitches <= {"sc", "inc", "dec"}:
        return None
    numbers = frozenset(int(t.value) for t in tokens if t.sort in (Sort.NUMBER, Sort.OFTEN))
    ordinals = frozenset(int(t.value) for t in tokens if t.sort is Sort.ORDINAL)
    beside = [tokens[max(k - 1, 0) : k + 2] for k, t in enumerate(tokens) if t.sort is Sort.TIMES]
    # 'Twice into each' tells an increase, where 'sc2tog twice' tells two.
    often = (frozenset((int(t.value),)) for t in tokens if t.sort is Sort.OFTEN and "dec" in stitches)
    times = (*(frozenset(int(t.value) for t in near if t.sort is Sort.NUMBER) for near in beside), *often)
    said = _each_once(tokens)
    after = any(str(t.value).lower() in _AFTER for t in tokens)
    return _Said(
        numbers, ordinals, times, stitches, frozenset(t.sort for t in tokens), said.count(1), said.count(TWO), after
    )


def _each_once(tokens: Sequence[Token]) -> list[int]:
    """The numbers in their order, 'two (2)' as one."""
    numbers = [(k, int(t.value)) for k, t in enumerate(tokens) if t.sort in (Sort.NUMBER, Sort.OFTEN)]
    at = dict(numbers)
    return [n for k, n in numbers if not (k > 1 and tokens[k - 1].sort is Sort.OPEN and at.get(k - 2) == n)]


def _shapes(said: _Said, shaped: str, apart: int) -> bool:
    """Whether the words shape so, or tell where and leave it to the count how: 'in der dritten jede zweite (18)'. apart: the
    place of the last stitch that is shaped."""
    if said.leaves_shape:
        return max(said.ordinals) == apart
    if shaped == "dec":
        return said.shrinks and "inc" not in said.stitches and Sort.DOUBLE not in said.sorts
    return said.grows and not said.shrinks


def _numbers(said: _Said, between: int, takes: int) -> set[int]:
    own = {between, 1, 2}
    return own | set(range(between + 1, between + takes + 1)) if said.spaces else own


def _tells(said: _Said, between: int, takes: int) -> bool:
    """Whether the distance of the shaping is said: by its number, or by the place of the stitch that is shaped."""
    spaced = set(range(between + 1, between + takes + 1))
    if said.after:
        return between in said.ordinals | said.numbers or (between == 1 and not said.ordinals)
    one_apart = between == 1 and "sc" in said.stitches
    told = between in said.numbers or bool(said.spaces and spaced & (said.numbers | said.ordinals))
    return between == 0 or one_apart or told


def _even(said: _Said, live: int) -> Chosen | None:
    around = {Sort.EACH, Sort.EVERY, Sort.AROUND, Sort.PLAIN, Sort.AGAIN} & said.sorts
    if said.shrinks or "inc" in said.stitches or Sort.DOUBLE in said.sorts or said.ordinals:
        return None
    if not said.numbers <= {1, live} or not (around or live in said.numbers):
        return None
    return Chosen("sc around", fits=True, live=live, why=WHY)
