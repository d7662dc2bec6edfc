"""Judging a round: whether what it used, made and says agree, and with which edge to go on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from craft.problems import Place, Problem
from craft.rounds.arithmetic import RoundSum, Sum, is_single, round_sum, settled
from craft.rounds.fabric.edges import CHAIN_NAME, NOTHING, Held, Line
from craft.rounds.fabric.graph import Numbers
from craft.rounds.fabric.hook import Hook
from craft.rounds.fabric.moves import RoundRun
from craft.rounds.fabric.outcome import Outcome
from craft.rounds.fabric.plan import Stretch
from craft.rounds.fabric.verdict import Verdict, misfit, wrong_sum
from craft.rounds.pattern import (
    Chain,
    Cluster,
    Instruction,
    Leave,
    Onto,
    Repeat,
    Round,
    Same,
    Shift,
    Start,
    Unread,
    Way,
    Work,
)
from craft.rounds.stitches import Loops, stitch

LEAST_WAITING = 3
"""Stitches in a row that are passed by without a bridge count as waiting, not as a hole, from here on."""

LEAST_SHORT = 2
"""Stitches that a turned row leaves before it is taken for a short row and not for a slip."""


@dataclass(slots=True)
class Judged:
    """What to go on with. live: the edge; rest: stitches the round did not reach; held: put aside."""

    line: Line
    rest: int
    held: int


def counts_as_stitch(made: Round, live: int) -> bool:
    """Whether a turning chain of which nothing is said counts, because only then the round comes out."""
    lead = next((i for i in made.body if not isinstance(i, Onto)), None)
    chains = [i for i in made.body[:3] if isinstance(i, Chain) and i.counts is None and i.count >= 2]
    if not chains or (not isinstance(lead, Chain) and not isinstance(made.body[0], Onto)):
        return False
    if any(isinstance(i, Start) for i in made.body):
        gives = sum(i.count for i in made.body if isinstance(i, Start))
        return made.count == gives + 1
    if not is_single(settled(made.body)) or not live:
        return False
    plain, counted = round_sum(made.body, live), round_sum(made.body, live, counted=True)

    def fits(sums: RoundSum) -> bool:
        return sums.rest == 0 and made.count in (None, sums.total.gives)

    return not fits(plain) and fits(counted)


def _plural(n: int) -> str:
    return "stitch" if n == 1 else "stitches"


def judge(hook: Hook, made: Round, label: str, run: RoundRun, below: Round | None, *, counted: bool) -> Judged:
    """Tell what is wrong with the round, and decide which edge to go on with.

    below: the written round that comes next, for its vote.
    """
    fresh = np.concatenate([NOTHING, *run.fresh])
    rest = run.main.spots[run.main.at : run.main.end]
    if any(isinstance(i, Unread) for i in made.body) or not made.body:
        live = made.count if made.count is not None else len(fresh) + len(rest)
        return Judged(_resized(Line(np.concatenate([fresh, rest]), label), live), 0, 0)
    if not any(isinstance(m, Stretch | Start | Shift) for m in run.moves):
        return Judged(Line(rest, run.main.name, run.main.closed), 0, 0)
    judged = _rest(hook, made, label, run, fresh, rest)
    go_on = _disagreement(hook, made, label, run, judged, below, counted=counted)
    if go_on is not None:
        judged.line = _resized(judged.line, go_on)
    return judged


def _rest(hook: Hook, made: Round, label: str, run: RoundRun, fresh: Numbers, rest: Numbers) -> Judged:
    """The edge after the round, where stitches that it did not reach may stay on it or wait."""
    out = run.out
    held = _waiting(hook, label, out, joined=out.joined)
    line = Line(fresh, label, _closed(hook, run))
    if not len(rest) or not _may_leave(hook, made, run, len(fresh), len(rest)):
        return Judged(line, 0, held)
    aside = out.joined or (made.count == len(fresh) and not out.ends_turned and not hook.short)
    if out.leave is not None and not run.main.closed and made.count in (None, len(fresh)):
        aside = True
    if aside:
        hook.held.append(Held(Line(rest, label), label, meant=run.main.closed))
        return Judged(line, 0, held + len(rest))
    hook.short = True
    return Judged(Line(np.concatenate([fresh, rest]), label, run.main.closed), len(rest), held)


def _closed(hook: Hook, run: RoundRun) -> bool:
    if run.out.joined or any(isinstance(m, Start) for m in run.moves):
        return True
    if hook.chain is not None and run.main.name == CHAIN_NAME:
        return run.main.closed or hook.chain.under_used
    if any(isinstance(m, Onto) for m in run.moves) and run.out.pieces:
        return True
    folded = any(w.through == "" for m in run.moves for w in _works_of(m))
    return run.main.closed and not folded


def _works_of(move: object) -> list[Work]:
    return [i for i in getattr(move, "items", ()) if isinstance(i, Work)]


def _may_leave(hook: Hook, made: Round, run: RoundRun, fresh: int, rest: int) -> bool:
    """Whether stitches of the edge may stay unworked: it says so, or the round turns back before them."""
    if run.out.leave is not None:
        return True
    if run.out.missing or run.out.joined:
        return False
    if not run.out.turned and not (hook.short and hook.turned):
        return False
    if hook.short:
        return made.count in (None, fresh, fresh + rest)
    if rest < LEAST_SHORT or fresh == 0:
        return False
    return made.count in (None, fresh + rest)


def _waiting(hook: Hook, label: str, out: Outcome, *, joined: bool) -> int:
    """Put long runs of passed stitches aside; how many stitches wait."""
    many = 0
    for spots in out.passed:
        if len(spots) >= LEAST_WAITING or (joined and len(spots)):
            hook.held.append(Held(Line(spots, label), label, meant=len(spots) >= LEAST_WAITING))
            many += len(spots)
    return many


def _resized(line: Line, live: int) -> Line:
    """The edge with another number of stitches, as evidence says that it has."""
    have = line.end - line.at
    if live == have or live < 0:
        return line
    spots = line.spots[line.at : line.end]
    if not have:
        return Line(np.full(live, -1, np.int64), line.name, line.closed)
    return Line(spots[np.arange(live) * have // live] if live else NOTHING, line.name, line.closed)


def _disagreement(
    hook: Hook, made: Round, label: str, run: RoundRun, judged: Judged, below: Round | None, *, counted: bool
) -> int | None:
    """Tell a disagreement of counts; the live count to go on with, None when all agrees."""
    out = run.out
    live = len(judged.line.spots)
    stated = made.count
    fresh = sum(len(f) for f in run.fresh) + out.gives
    nothing = not hook.tallies and not out.begun and not len(run.main.spots) and not out.pieces
    if nothing and made.way is not Way.LINE:
        said = f"{label} has nothing to be worked into: start with '6 sc in ring'."
        hook.tell("no-start", said, label, made.body_span)
        return stated if stated is not None else live
    left = 0 if judged.rest or judged.held or _is_left(out) else max(run.main.left, 0)
    bad = bool(out.missing or out.over or left)
    single = is_single(settled(made.body, counted)) and not out.begun and not out.pieces
    says_wrong = stated is not None and stated != live and not (judged.rest and stated == fresh)
    if not bad and not says_wrong:
        return None
    if single:
        return _single_verdict(hook, made, label, below, counted=counted)
    verdict = _edges(made, label, run, left, live) if bad else _stated(made, label, run, below, live)
    _tell(hook, made, label, verdict)
    return verdict.live


def _is_left(out: Outcome) -> bool:
    return isinstance(out.leave, Leave)


def _single_verdict(hook: Hook, made: Round, label: str, below: Round | None, *, counted: bool) -> int:
    before = len(hook.live.spots)
    sums = round_sum(made.body, before, counted)
    verdict = misfit(made, sums, before, hook.above, label) if sums.rest else wrong_sum(made, sums, below, label)
    _tell(hook, made, label, verdict)
    return max(verdict.live, 0)


def _tell(hook: Hook, made: Round, label: str, verdict: Verdict) -> None:
    span = made.body_span if verdict.code != "sum" else made.count_span or made.body_span
    place = Place(hook.part.name, label or None, span=span)
    hook.problems.append(Problem(verdict.code, place, verdict.message, verdict.fix))


def _edges(made: Round, label: str, run: RoundRun, left: int, live: int) -> Verdict:
    """A round that works several edges and does not use one of them up, or asks too much of it."""
    go_on = made.count if made.count is not None else live
    out = run.out
    if out.missing:
        name, many = next(iter(out.missing.items()))
        return Verdict("short", f"{label} asks {many} more {_plural(many)} of {name} than there are.", go_on)
    name, many = next(iter(out.over.items())) if out.over else (run.main.name, left)
    verb = "is" if many == 1 else "are"
    code = "underside" if "chain" in name and made.count is not None else "left-over"
    return Verdict(code, f"{label} leaves {many} {_plural(many)} of {name}, which {verb} not used.", go_on)


def _stated(made: Round, label: str, run: RoundRun, below: Round | None, live: int) -> Verdict:
    stated = made.count or 0
    chain = run.hook.chain
    forgotten = (
        chain is not None
        and chain.tops_used
        and not chain.under_used
        and not chain.joined
        and run.main.name == CHAIN_NAME
        and made.way is Way.ROUND
        and stated > live
    )
    if forgotten:
        return Verdict(
            "underside",
            f"{label} says {stated}, but works only one side of the chain and makes {live}: the other side "
            "is forgotten.",
            stated,
        )
    return wrong_sum(made, RoundSum(Sum(0, live), 0), below, label)


def style(hook: Hook, made: Round, label: str, before: int, live: int) -> None:
    """Faults and hints of a round that are not about sums."""
    if made.loops is Loops.BACK and _front_only(made.body):
        hook.tell(
            "loops",
            f"{label} works in back loops only, but an invisible decrease picks up the front loops, which then "
            "are not free; use dec there.",
            label,
            made.body_span,
        )
    plain = is_single(settled(made.body))
    if before and hook.tallies and live and plain and (live > 2 * before or 2 * live < before):
        hook.tell(
            "steep",
            f"{label} goes from {before} to {live} stitches at once: it will ruffle or pucker, which may be meant.",
            label,
            made.body_span,
        )


def _front_only(body: Sequence[Instruction]) -> bool:
    for item in body:
        match item:
            case Work():
                if stitch(item.stitch).loops is Loops.FRONT and item.loops in (None, Loops.BACK):
                    return True
            case Repeat() | Cluster():
                if _front_only(item.body):
                    return True
            case Same():
                pass
            case _:
                pass
    return False
