"""Which reading of a round all its evidence supports: the words, the printed count, the round below."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from craft.remembered import of_short
from craft.rounds.arithmetic import round_sum
from craft.rounds.pattern import Leave, Onto, Start, Turn
from craft.rounds.stitches import Terms
from craft.text.freehand.cursor import ordinal
from craft.text.freehand.lexer import name_of
from craft.text.freehand.phrases import Said
from craft.text.notation.bodies import NO_NAMES, Body, read_body
from craft.text.notation.names import Names

MOST_STITCHES_AROUND = 2_000
"""Stitches of a round that is still spread evenly."""


MOST_IN_RING = 20
"""Stitches of a first round whose ring is unsaid."""

_ONCE = re.compile(r"\b(?:ch|join|turn|skip|with|ring|hook|along|through|leave)\b")
"""What is worked once in a round, and never repeated to its end unsaid."""


@dataclass(frozen=True, slots=True)
class Chosen:
    """A reading of a round. work: in the notation. live: stitches after it. why: the judgement that it needed."""

    work: str
    fits: bool
    live: int | None
    why: str = ""

    @property
    def passes_over(self) -> bool:
        """Whether words were passed over that carry no stitches."""
        return self.why.endswith(_NO_STITCHES)


_NO_STITCHES = "carries no stitches"

Trial = Callable[[str, int | None], int | None]
"""Works a round whose sum alone does not tell: stitches after it, None when it does not work out."""


@dataclass(frozen=True, slots=True)
class Below:
    """What a round is worked on. live: stitches of the round below, 0 at a part's start; None when not known.

    chained: a chain waits to be worked along. trial: for rounds that use other pieces or chains. lead: where
    the part's first round is worked, such as 'in the free front loops of R5, '. opening: it is a part's first round.
    ringed: a ring was told before it.
    """

    live: int | None
    chained: bool
    trial: Trial
    names: Names = NO_NAMES
    lead: str = ""
    opening: bool = True
    ringed: bool = False


@of_short(4_096)
def _body(work: str, names: Names) -> Body:
    return read_body(work, Terms.US, names)


def _sum(work: str, below: Below) -> tuple[int, int] | None:
    """Stitches left over of the round below, and stitches made; None when the sum cannot be told."""
    body = _body(work, below.names)
    if body.problems or body.plain is None or below.live is None:
        return None
    if any(isinstance(i, Onto | Turn | Leave) for i in body.plain) or "through" in work:
        return None
    starts = any(isinstance(i, Start) for i in body.plain)
    if starts != (below.live == 0):
        return None
    sums = round_sum(body.plain, below.live)
    return sums.rest, sums.total.gives


def _readable(work: str, names: Names) -> bool:
    return not _body(work, names).problems


def _spread(key: str, many: int, live: int) -> str | None:
    """`many` of a stitch evenly spread over `live` stitches."""
    takes = 2 if "dec" in key else 1
    plain = live - takes * many
    if many < 1 or plain < 0 or live > MOST_STITCHES_AROUND:
        return None
    name = name_of(key)
    each, more = divmod(plain, many)
    if not more:
        return f"({each} sc, {name}) x {many}" if each else f"{many} {name}"
    units = []
    for i in range(many):
        before = (i + 1) * plain // many - i * plain // many
        units.append(f"{before} sc, {name}" if before else name)
    return ", ".join(units)


_PLAIN_SC = "a number alone is so many single crochets"
_ALL_AROUND, _TO_THE_END, _RING = (
    "all around is unsaid",
    "what stands there is repeated to the end",
    "the ring is unsaid",
)
_RINGED = re.compile(r"(?:[4-9]|1[0-2]) sc")
_RING_PLAIN = f"{_RING}: a first round of four to twelve stitches and nothing else is worked into one"
"""Common practice, no source."""
_NEEDS_COUNT = (_TO_THE_END, _RING)
"""Readings for which the round below is no evidence: only a printed count is."""


def _forms(said: Said, below: Below, count: int | None) -> list[tuple[str, str]]:
    """What a candidate may mean here, with the judgement that each needs."""
    noise = f"'{' '.join(said.noise)}' {_NO_STITCHES}" if said.noise else _PLAIN_SC if said.unsaid else ""
    if said.evenly is not None:
        spread = _spread(said.evenly[0], said.evenly[1], below.live or 0)
        return [(spread, "spread evenly")] if spread else []
    opens = below.opening and (count or MOST_IN_RING) <= MOST_IN_RING
    chains = _CHAINS_ITSELF.match(said.work) is not None
    if below.live == 0 and opens and not below.chained and not below.lead and not chains and "ring" not in said.work:
        if (rung := _CHAIN_RING.match(said.work)) is not None:
            counted = f"{rung[1].lower()} (counts as a stitch), {rung[2]} in ring, join"
            return [
                (counted, "the chain stands for the ring and the first stitch, as the count tells"),
                (said.work, noise),
            ]
        plainly = _RING_PLAIN if count is None and _RINGED.fullmatch(said.work) else _RING
        unsaid = "the ring was told before" if below.ringed else plainly
        return [(f"{said.work} in ring", noise or unsaid), (said.work, noise)]
    seam = re.fullmatch(r"(?:1 )?(sc|dc|hdc|sl st) through both layers", said.work)
    if seam and count is not None:
        return [(f"{count} {seam.group(1)} through both layers", noise or "as many as are counted")]
    if said.behind:
        others = (below.live or 0) - said.behind
        return [(f"skip {others}, {said.work}", noise)] if others > 0 else []
    return [
        *_likelier(said.work, below, noise),
        (said.work, noise),
        *_other_words(said, below, count, noise),
        *_repeated(said.work, noise),
    ]


_FROM_HOOK = re.compile(r"in \w+ ch from hook ")
"""A first row: the chain that it is worked along is its own, and not one that pieces are joined by."""
_CHAINS_ITSELF = re.compile(r"(?i)ch(?:ain)? (?:[5-9]|\d\d+)\W.*\bch(?:ain)? from (?:the )?hook\b")
"""'ch 11, sc in 2nd ch from hook and in each ch across': a chain with what is worked along it, and no ring."""

_LOOPS_ALONE = ("BLO", "FLO")
"""Loops and no stitch: the plain one, where as many are counted."""

_ALONE = ("sc", "inc", "dec", "sl st", "hdc", "dc", "BLO: sc", "FLO: sc", "in BLO sc", "in FLO sc", "1 sc")
"""A stitch and nothing else: all around, where it is a whole round."""


_CHAIN_START = re.compile(r"(?i)(ch [2-4])( \(counts as a stitch\))?, (?=\d|\(|\S+ (?:in|around))")
"""'ch 3, 11 dc in ring': a chain as high as a tall stitch."""
_CHAIN_RING = re.compile(
    r"(?i)(ch [2-5])(?: \(counts as a stitch\))?, (\d+ (?:hdc|dc|tr)) in [2345](?:nd|rd|th) ch from hook"
)
"""'ch 4, 11 dc in 4th ch from hook' that are counted as twelve."""
_SKIPPED = {"hdc": 2, "dc": 3, "tr": 4}
"""Chains as high as a tall stitch, which the first row along a chain skips. Common practice, no source."""
_TALL_FIRST = re.compile(r"(1 (hdc|dc|tr)) in (\w+) ch from hook")
"""'dc in 4th ch from hook and in each ch across'."""
_INTO_NEXT = re.compile(r"^(1 \S+) in next st")
"""'1 dc in the same place' behind that chain: where the chain stands."""


def _likelier(work: str, below: Below, noise: str) -> Iterator[tuple[str, str]]:
    """What is tried before the words as they stand: a stitch alone goes all around, a gap's chain counts as stitches."""
    if (lone := re.fullmatch(r"(with [^,]+, )(?:1 )?(sc|inc|dec|hdc|dc)", work)) is not None:
        yield f"{lone.group(1)}{lone.group(2)} around", noise or _ALL_AROUND
    elif work in _ALONE:
        alone = not work.startswith("1 ") and below.live != 0
        yield f"{work.removeprefix('1 ')} around", noise or (_ALL_AROUND if alone else _TO_THE_END)
    if "along the chain" in work and below.chained and _FROM_HOOK.match(work):
        yield work.replace(" along the chain", ""), noise
    if "along the chain" in work and below.live and not below.chained and "ch " not in work:
        yield work.replace(" along the chain", ""), noise or "the chain of the round below is worked as its stitches"
    first = re.fullmatch(r"in (\w+) ch from hook 1 (sc|hdc|dc)(, turn)?", work)
    if below.chained and first is not None:
        yield f"from {first[1]} ch, {first[2]} around{first[3] or ''}", noise or _ALL_AROUND
    if below.live == 2 and (both := re.fullmatch(r"(.*?)1 (inc|sc) through both layers(.*)", work)):
        yield f"{both.group(1)}2 {both.group(2)}{both.group(3)}", noise or "both stitches of the row below"


def _other_words(said: Said, below: Below, count: int | None, noise: str) -> Iterator[tuple[str, str]]:
    """What the same words mean elsewhere: tried where they do not fit as they stand."""
    work = said.work
    if count is not None and below.chained and (tall := _TALL_FIRST.match(work)) is not None:
        before = f"{tall[1]} in {ordinal(_SKIPPED[tall[2]])} ch from hook"
        if tall[3] == ordinal(_SKIPPED[tall[2]] + 1):
            yield (
                f"{before}{work[tall.end() :]}",
                "the chains that are skipped count as a stitch, shown in the last of them",
            )
    if count is not None and (numbered := _NUMBERED_SHAPE.fullmatch(work)) is not None:
        k, shape, many = numbered.groups()
        yield (
            f"({k} sc, {shape}) x {many}",
            "the number before the shaping is so many single crochets, as the count tells",
        )
    if said.held:
        yield f"on the held stitches, {work}", noise
    if work in _LOOPS_ALONE and count is not None and set(said.noise) <= {"around"}:
        yield f"{work}: sc around", noise or _ALL_AROUND  # 'BLO around (30)'
    if "in same st" in work:
        yield work.replace("in same st", "in next st"), noise or "'the same stitch' is one stitch"
    if count is not None and (last := re.fullmatch(r"(.*\(.+), ([2-4]) sc\) around(.*)", work)) is not None:
        into_one = f"{last[1]}, {last[2]} sc in next st) around{re.sub(', sl st$', ', join', last[3])}"
        yield into_one, f"the last {last[2]} of the repeat go into one stitch, as the count tells"
    if below.chained and (skips := re.match(r"skip (\d), ", work)):
        rest = work[skips.end() :]
        yield f"from {ordinal(int(skips[1]) + 1)} ch, {rest}", noise or "the chain skipped is the first"
    if work.endswith(", sl st"):
        yield f"{work.removesuffix(', sl st')}, join", noise or "the slip stitch at the end closes the round"
    if (chained := _CHAIN_START.match(work)) is not None:
        behind = work[chained.end() :].removesuffix(", sl st").removesuffix(", join")
        why = noise if chained[2] else "the chain stands for the first stitch, as the count tells"
        closed = chained.end() + len(behind) < len(work)
        for rest in (behind, _INTO_NEXT.sub(r"\1 in same st", behind)):
            if not closed:
                yield f"{chained[1]} (counts as a stitch), {rest}", why
            yield f"{chained[1]} (counts as a stitch), {rest}, join", why
    if "turn, ch 1, " in work:
        yield work.replace("turn, ch 1, ", "turn, "), noise or "the turning chain is no stitch"


_NUMBERED_SHAPE = re.compile(r"\((\d{1,2}) (inc|dec)\) x (\d{1,2})")
"""'[2 inc] x 6' that is counted as 24 on 18."""

_LEADS = re.compile(r"(?:with [^,()]+, )?(?:[BF]LO: )?")
"""What is said of a whole round before its work: its colour, its loops."""


_BRACKETED = re.compile(r"\([^()]*\)")


def _repeated(work: str, noise: str) -> Iterator[tuple[str, str]]:
    """All of it to the round's end, unsaid."""
    lone = work in _ALONE or re.fullmatch(r"with [^,]+, (?:1 )?(?:sc|inc|dec|hdc|dc)", work) is not None
    work = work.removesuffix(" x 1")
    lead = _LEADS.match(work).group(0)  # type: ignore[union-attr]
    rest = work.removeprefix(lead)
    if lone or "around" in work or " x " in work[-5:] or _ONCE.search(rest):
        return
    unit = rest if _BRACKETED.fullmatch(rest) else f"({rest})"
    yield f"{lead}{unit} around", noise or _TO_THE_END


def choose(candidates: Sequence[Said], below: Below, count: int | None) -> Chosen | None:
    """The reading that fits, else the likeliest that can be read at all; None when there is none."""
    spare: Chosen | None = None
    for said in candidates:
        for form, why in _forms(said, below, count):
            work = f"{below.lead}{form}"
            if not _readable(work, below.names):
                continue
            chosen = _judged(work, why, below, count)
            if chosen.fits:
                return chosen
            if spare is None and not said.noise and why not in _NEEDS_COUNT:
                spare = chosen
    told = any(c.work or c.evenly is not None for c in candidates)
    if spare is None and count is not None and candidates and not told:
        return even(below, count)
    return spare


def _judged(work: str, why: str, below: Below, count: int | None) -> Chosen:
    sums = _sum(work, below)
    if sums is None:
        live = below.trial(work, count)
        return Chosen(work, live is not None, live if live is not None else count, why)
    left, gives = sums
    fits = left == 0 and (count is None or gives == count)
    if fits and count is None and why in _NEEDS_COUNT:
        fits = False
    return Chosen(work, fits, count if count is not None else gives, why)


def even(below: Below, count: int) -> Chosen | None:
    """A round of which only the count is said: increases or decreases evenly spread."""
    live = below.live
    if live is None:
        return None
    if live == 0:
        return (
            Chosen(f"{count} sc in ring", fits=True, live=count, why="only the count is said")
            if 2 <= count <= 24
            else None
        )
    if count == live:
        return Chosen("sc around", fits=True, live=count, why="only the count is said")
    spread = _spread("inc", count - live, live) if count > live else _spread("dec", live - count, live)
    return Chosen(spread, fits=True, live=count, why="only the count is said; spread evenly") if spread else None
