"""Which count is guilty when counts disagree: the bracket, the work, or nobody can know.

The statement, the arithmetic and what the next round needs vote.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.problems import Mend
from craft.rounds.arithmetic import RoundSum, is_single, round_sum, settled, sum_of
from craft.rounds.numbers import often
from craft.rounds.pattern import Instruction, Repeat, Round, Unread, Work
from craft.rounds.stitches import stitch


@dataclass(frozen=True, slots=True)
class Verdict:
    """A disagreement: code, sentence, mend, and the live count to go on with."""

    code: str
    message: str
    live: int
    fix: Mend | None = None


def fits(made: Round | None, live: int) -> bool | None:
    """Whether a round comes out on `live` stitches; None when it would on any number."""
    if made is None or any(isinstance(i, Unread) for i in made.body) or not made.body:
        return None
    if not is_single(settled(made.body)):
        return None
    sums = round_sum(made.body, live)
    if made.count is not None:
        return sums.rest == 0 and sums.total.gives == made.count
    if sums.unit is not None and sums.unit.takes == 1 and sums.rest == 0:
        return None
    return sums.rest == 0


def wrong_sum(made: Round, sums: RoundSum, below: Round | None, said: str) -> Verdict:
    """The bracket and the work disagree, though the work fits the round below. said: what the round is called."""
    stated, gives = made.count or 0, sums.total.gives
    plain = f"{said} says {stated}, but its stitches make {gives}"
    with_work, with_bracket = fits(below, gives), fits(below, stated)
    if with_bracket and not with_work:
        return Verdict(
            "sum",
            f"{plain}; {below.label if below else 'the next round'} needs {stated}, so the stitches are wrong.",
            stated,
        )
    fix = None
    if made.count_span is not None:
        fix = Mend(made.count_span.start, made.count_span.end, str(gives), f"let the bracket say {gives}")
    if with_work and not with_bracket:
        return Verdict(
            "sum",
            f"{plain}; {below.label if below else 'the next round'} needs {gives}, so the bracket is wrong.",
            gives,
            fix,
        )
    return Verdict("sum", f"{plain}. They fit what is below, so the bracket is the likelier slip.", gives, fix)


def _with_times(body: Sequence[Instruction], at: int, times: int) -> tuple[Instruction, ...]:
    item = body[at]
    assert isinstance(item, Repeat | Work)
    changed: Instruction = replace(item, times=times) if isinstance(item, Repeat) else replace(item, count=times)
    return (*body[:at], changed, *body[at + 1 :])


def _mended_repeat(made: Round, live: int) -> tuple[str, Mend] | None:
    """The one repeat whose other number of times makes the round fit `live` and its bracket."""
    for at, item in enumerate(made.body):
        if not isinstance(item, Repeat) or item.times is None or item.times_span is None:
            continue
        unit = sum_of(item.body).takes
        room = live - (sum_of(made.body).takes - unit * item.times)
        if unit <= 0 or room <= 0 or room % unit:
            continue
        times = room // unit
        total = round_sum(_with_times(made.body, at, times), live).total.gives
        if made.count is None or total == made.count:
            place = made.within(item.times_span)
            fix = Mend(place.start, place.end, str(times), f"repeat {times} times")
            return f" The repeat of {unit} fits {room} {often(times)}: x {times}?", fix
    return None


def _mended_work(made: Round, live: int) -> tuple[str, Mend] | None:
    """A round of one plain kind of stitch whose number can only be the round below's."""
    if len(made.body) != 1 or not isinstance(item := made.body[0], Work) or made.count is None:
        return None
    entry = stitch(item.stitch)
    if entry.takes and live % entry.takes == 0 and live // entry.takes * entry.gives == made.count:
        count = live // entry.takes
        text = f"{count} {entry.us[0]}" if not entry.change else f"{entry.us[0]} x {count}"
        place = made.within(item.span)
        return f" {count} of them fit.", Mend(place.start, place.end, text, f"write {text}")
    return None


def misfit(made: Round, sums: RoundSum, live: int, above: str, said: str) -> Verdict:
    """The work does not use the live stitches of the round below exactly. said: what the round is called."""
    go_on = made.count if made.count is not None else max(sums.total.gives, 1)
    if sums.unit is not None and sums.rest > 0:
        return Verdict(
            "misfit",
            f"{said}: the repeat of {sums.unit.takes} does not come out even on {live} "
            f"stitches: {sums.fill} times use {live - sums.rest}, {sums.rest} are left.",
            go_on,
        )
    found = _mended_repeat(made, live) or _mended_work(made, live)
    words, fix = found if found else ("", None)
    if sums.rest < 0:
        return Verdict(
            "short", f"{said} needs {live - sums.rest} stitches, but {above} gives {live}.{words}", go_on, fix
        )
    return Verdict(
        "left-over",
        f"{said} uses {live - sums.rest} of the {live} stitches of {above}; "
        f"{sums.rest} {'is' if sums.rest == 1 else 'are'} left.{words}",
        go_on,
        fix,
    )
