"""Runs a part: round by round over the live edge, to tallies, a stitch graph and problems."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

import numpy as np

from craft.problems import Problem
from craft.rounds.fabric.coils import Rolling, rolling_of
from craft.rounds.fabric.edges import CHAIN_NAME, NOTHING, Line, Piece
from craft.rounds.fabric.graph import EdgeKind, Numbers, StitchGraph
from craft.rounds.fabric.hook import Hook, Tally, WorkedStep, pieces_of
from craft.rounds.fabric.judge import LEAST_WAITING, Judged, counts_as_stitch, judge, style
from craft.rounds.fabric.moves import RoundRun
from craft.rounds.fabric.plan import plan
from craft.rounds.fabric.simple import work_simple
from craft.rounds.fabric.threads import Thread, threads_of
from craft.rounds.pattern import Again, Chain, Colour, Join, Part, Round, Section, Start, Step, StepKind, Turn, Way

MAIN_COLOUR = "Main"
"""The colour that is on the hook before any is named."""


MOST_EDGING = 3
"""Rounds around a flat piece; more of them are walls."""


@dataclass(frozen=True, slots=True)
class WorkedPart:
    """A part that has been run. closed: a step says that the opening is drawn together.

    edge: indices in `graph` of the stitches that are live at the end. empty: names of the pieces taken
    in that hold no filling. threads: sewn through it. rolled: which of its rounds are rolled up and sewn to each other.
    """

    name: str | None
    make: int
    rounds: tuple[Tally, ...]
    steps: tuple[WorkedStep, ...]
    graph: StitchGraph
    closed: bool
    edge: Numbers
    empty: tuple[str, ...] = ()
    threads: tuple[Thread, ...] = ()
    rolled: Rolling | None = None

    @property
    def nbytes(self) -> int:
        """About how many bytes it takes."""
        return self.graph.nbytes + 1_200 * len(self.rounds) + 400 * len(self.steps)

    @property
    def counts(self) -> tuple[int, ...]:
        """Live stitches after each round."""
        return tuple(t.live for t in self.rounds)

    @property
    def trunk(self) -> tuple[Tally, ...]:
        """The rounds of the first tube or panel: up to where the part goes on at another edge or starts anew."""
        end = next(
            (i for i, t in enumerate(self.rounds) if i and (t.start or t.section != self.rounds[0].section)), None
        )
        return self.rounds[:end]

    @property
    def piece(self) -> Piece:
        """The part as something that others can work in."""
        edge = NOTHING if self.closed else self.edge[self.edge >= 0]
        return Piece(self.name or "", self.make, self.graph, edge, self.closed, self.stuffed)

    @property
    def stuffed(self) -> bool:
        """Whether it takes filling: it says so, or it is closed and does not say that it stays empty."""
        kinds = {s.kind for s in self.steps}
        return StepKind.EMPTY not in kinds and (StepKind.STUFF in kinds or self.closed)

    @property
    def pressed(self) -> bool:
        """Whether it lies flat, two layers on each other: it takes no filling, and is worked together flat or told to lie so."""
        folded = bool(self.rounds) and self.rounds[-1].way is Way.LINE and self.rounds[-1].flat
        return not self.stuffed and (folded or any(_FLAT.search(s.text) for s in self.steps))

    @property
    def leading_rows(self) -> tuple[Tally, ...]:
        """The rows that it begins with, where it is a flat piece of one layer, but for an edging; none where it is not."""
        rounds = [t for t in self.rounds if t.live > 0]
        rows = tuple(itertools.takewhile(lambda t: t.flat, rounds))
        return rows if len(rows) > 1 and len(rounds) - len(rows) <= MOST_EDGING else ()

    @property
    def inside_out(self) -> bool:
        """Whether it is used with its wrong side out: what leaned to the right leans to the left."""
        return _turned(self.steps)


_FLAT = re.compile(r"(?i)\b(?:press(?:ed)?|l(?:ay|aid|ies?)|keep|fold(?:ed)?|stays?)\b[^.;]{0,20}\bflat\b|\bflatten")
"""How a direction leaves a piece flat."""


def _turned(steps: tuple[WorkedStep, ...]) -> bool:
    """Whether directions leave the wrong side out: turned an odd number of times, not to bring the right side out."""
    kinds = [s for s in steps if s.kind is StepKind.INSIDE_OUT and "right side" not in s.text.lower()]
    return len(kinds) % 2 == 1


def _worked_rounds(part: Part) -> Iterator[tuple[int, Round, Round, int, Round | None]]:
    """Index of the written round, the written round, what is worked for it, which of a fold, and what comes next."""
    rounds = part.rounds
    by_number: dict[int, Round] = {}
    for source, made in enumerate(rounds):
        after = rounds[source + 1] if source + 1 < len(rounds) else None
        again = next((i for i in made.body if isinstance(i, Again)), None)
        for k in range(made.repeats):
            worked = made
            if again is not None:
                origin = by_number.get(again.first + k % (again.last - again.first + 1))
                if origin is not None and origin is not made:
                    # Elsewhere the same words may make another count: only the last of them has one that is said here.
                    same = k == made.repeats - 1 or origin.count == made.count
                    worked = replace(made, body=origin.body, loops=origin.loops, count=made.count if same else None)
            if made.first is not None:
                by_number[made.first + k] = worked
            yield source, made, worked, k, (after if k == made.repeats - 1 else made if again is None else None)


def _work(hook: Hook, made: Round, source: int, label: str, number: int | None, below: Round | None) -> None:
    """Work one round on the hook, and judge it."""
    before = len(hook.live.spots)
    on_chain = hook.live.name == CHAIN_NAME
    _turn_of_row(hook, made)
    counted = counts_as_stitch(made, before)
    said = made.label or f"the line after {hook.tallies[-1].label}" if hook.tallies else made.label or "The first line"
    moves = plan(made.body, empty=not before, counted=counted)
    run = RoundRun(hook, made, said, moves)
    if before and any(isinstance(m, Start) for m in moves):
        _second_start(hook, made, said)
        run.main = run.source = hook.live
    out = run.run()
    front_before = hook.front
    judged = judge(hook, made, said, run, below, counted=counted)
    style(hook, made, said, before, len(judged.line.spots) + judged.held)
    if counted:
        hook.tell(
            "chain-counts", f"{said}: its chain is taken for a stitch; say '(counts as a stitch)'.", said, made.span
        )
    _go_on(hook, made, run, judged, label)
    if made.way is Way.LINE and not out.made - len([m for m in moves if isinstance(m, Chain)]):
        return
    if made.way is Way.LINE and not any(len(f) for f in run.fresh):
        return
    hook.graph.edge(hook.live.spots, EdgeKind.ROUND if hook.live.closed else EdgeKind.OPEN)
    hook.tallies.append(
        Tally(
            label=label,
            number=number,
            source=source,
            taken=out.taken,
            made=out.made,
            live=len(hook.live.spots),
            stated=made.count,
            marks=tuple(out.marks),
            colours=tuple(out.colours) or (hook.colour,),
            loops=made.loops,
            height=out.height,
            start=on_chain or (out.begun and any(isinstance(m, Start | Chain) for m in moves)),
            joined=out.joined,
            first=out.first,
            end=hook.graph.size,
            flat=not hook.live.closed,
            front=front_before,
            rest=judged.rest,
            held=judged.held,
            holes=tuple(out.holes),
            section=hook.section,
            way=made.way,
            span=made.span,
        )
    )


def _second_start(hook: Hook, made: Round, label: str) -> None:
    """A new ring: fine on a piece that is cut off, a slip in the middle of one."""
    if hook.live.name == CHAIN_NAME:
        # Two chains on a line of their own, and the ring in the second of them.
        hook.live, hook.chain = Line(NOTHING, "the start"), None
        return
    if hook.yarn_cut or (hook.section and hook.live.name == "the start"):
        hook.put_aside(label)
        return
    hook.tell("second-start", f"{label} starts a new ring in the middle of the part.", made.label, made.span)
    hook.live = Line(NOTHING, "the start")


def _turn_of_row(hook: Hook, made: Round) -> None:
    """Rows go back and forth, though the text says so only once."""
    is_row = made.way is Way.ROW
    turns = any(isinstance(i, Turn) for i in made.body[:2])
    if is_row and hook.last_row and not hook.turned and not turns and len(hook.live.spots):
        hook.live = Line(hook.live.spots[::-1], hook.live.name, hook.live.closed)
        hook.front = not hook.front
        hook.turned = True
    if made.way is not Way.LINE:
        hook.last_row = is_row
        hook.turned = (hook.turned and is_row) or (hook.short and hook.turned)


def _go_on(hook: Hook, made: Round, run: RoundRun, judged: Judged, label: str) -> None:
    """Leave the hook as the round leaves it."""
    out = run.out
    line = judged.line
    if not judged.rest and not out.turned:
        hook.short = False
    hook.turned = out.ends_turned
    if out.ends_turned:
        fresh = sum(len(f) for f in run.fresh)
        line = Line(np.concatenate([line.spots[:fresh][::-1], line.spots[fresh:][::-1]]), line.name, line.closed)
    if out.shift and len(line.spots):
        hook.graph.edge(line.spots, EdgeKind.ROUND if line.closed else EdgeKind.OPEN)
        line = _shifted(hook, line, out.shift)
    if out.sideways and hook.base is not None and not hook.base.left:
        hook.base = None
    if made.way is not Way.LINE or any(len(f) for f in run.fresh) or out.begun:
        hook.live = line
        hook.live.name = label if run.fresh else line.name
        hook.side = run.side and not run.fresh
        hook.yarn_cut = False


def _shifted(hook: Hook, line: Line, many: int) -> Line:
    """The edge after `many` plain stitches more, which move its start."""
    many = min(many, len(line.spots))
    n = np.ones(many, np.int64)
    kinds = np.zeros(many, np.uint8)
    colours = hook.graph.colour_numbers((hook.colour,), many)
    spots = line.spots[:many]
    known = spots >= 0
    ids = hook.graph.add(
        kinds, colours, np.zeros(many, np.uint8), n * known, spots[known], None, round_at=len(hook.tallies), front=hook.front
    )  # fmt: skip
    return Line(np.concatenate([line.spots[many:], ids]), line.name, line.closed)


def _line_of_chain(hook: Hook, made: Round) -> bool:
    """A line that only makes a chain: it waits for what is worked along it."""
    chains = [i for i in made.body if isinstance(i, Chain)]
    others = [i for i in made.body if not isinstance(i, Chain | Turn | Join)]
    if len(chains) != 1 or others or made.way is not Way.LINE:
        return False
    joined = any(isinstance(i, Join) for i in made.body)
    if not len(hook.live.spots) or hook.yarn_cut:
        return False
    if chains[0].count > 1 and not joined:
        hook.pending = chains[0].count
    return chains[0].count > 1 and not joined


def _step(hook: Hook, step: Step) -> None:
    live = len(hook.live.spots)
    hook.steps.append(WorkedStep(step.kind, step.text, len(hook.tallies), live))
    if step.kind is StepKind.FASTEN_OFF:
        hook.yarn_cut = True
    elif step.kind is StepKind.INSIDE_OUT:
        hook.front = not hook.front
    elif step.kind is StepKind.CLOSE:
        hook.yarn_cut = True
        if hook.live.closed:
            hook.graph.edge(hook.live.spots, EdgeKind.SHUT)


def _told_once(problems: list[Problem]) -> list[Problem]:
    """A fold's problems without those that every further round of it repeats."""
    return list({(p.code, p.place.span): p for p in reversed(problems)}.values())[::-1]


def _loose_ends(hook: Hook) -> None:
    """Tell of stitches that wait and are never worked."""
    for held in hook.held:
        many = held.line.left
        if held.meant and not held.used and many >= LEAST_WAITING:
            said = f"{many} stitches left waiting in {held.label} are never worked."
            span = next((t.span for t in hook.tallies if t.label == held.label), hook.part.span)
            hook.tell("held-left", said, held.label, span)
    if hook.base is not None and hook.base.left:
        said = f"{hook.base.left} stitches of {hook.base.name} still wait for the rows that hang on them."
        hook.tell("held-left", said, hook.base.name, hook.tallies[-1].span if hook.tallies else hook.part.span)
    for copies in hook.copies.values():
        for copy in copies:
            if copy.line.at and copy.line.left and len(copy.piece.graph):
                verb = "stitch of {} is" if copy.line.left == 1 else "stitches of {} are"
                said = f"{copy.line.left} {verb.format(copy.line.name)} not worked in."
                hook.tell("left-over", said, None, hook.tallies[-1].span if hook.tallies else hook.part.span)


def run_part(
    part: Part, colour: str = MAIN_COLOUR, pieces: Mapping[str, Piece] | None = None, onto: Piece | None = None
) -> tuple[WorkedPart, tuple[Problem, ...]]:
    """Work a part stitch by stitch, with `colour` on the hook at first; never raises on a faulty one.

    pieces: finished parts that this one may work in, by name. onto: the piece still on the hook, on
    which a part without a start goes on. Faults are told where they are, and the work goes on with
    the count that most evidence is for, so that one slip is one problem. Time and memory are linear
    in the stitches.
    """
    hook = Hook(part, pieces_of(pieces or {}), colour)
    if onto is not None and len(onto.edge):
        first = hook.graph.take_in(onto.graph, onto.name)
        hook.live = Line(onto.edge + first, onto.name)
    rounds = _worked_rounds(part)
    threads: list[Thread] = []
    rolled: Rolling | None = None
    for item in part.items:
        match item:
            case Round():
                _fold(hook, item, rounds)
            case Colour():
                hook.colour = item.name
            case Step():
                _step(hook, item)
                if item.kind is StepKind.THREAD:
                    threads += threads_of(hook, item)
                elif item.kind is StepKind.COIL:
                    rolled = rolling_of(hook, item)
            case Section():
                if hook.yarn_cut:
                    hook.put_aside(hook.tallies[-1].label if hook.tallies else "")
                hook.section = item.name
            case _:
                pass
    _loose_ends(hook)
    closed = any(s.kind is StepKind.CLOSE for s in hook.steps)
    worked = WorkedPart(
        name=part.name,
        make=part.make,
        rounds=tuple(hook.tallies),
        steps=tuple(hook.steps),
        graph=hook.graph.build(),
        closed=closed,
        edge=hook.live.spots,
        empty=tuple(hook.empty),
        threads=tuple(threads),
        rolled=rolled,
    )
    return worked, tuple(hook.problems)


def _fold(hook: Hook, item: Round, rounds: Iterator[tuple[int, Round, Round, int, Round | None]]) -> None:
    told = len(hook.problems)
    for _ in range(item.repeats):
        source, _written, worked, k, below = next(rounds)
        if _line_of_chain(hook, worked):
            continue
        again = next((i for i in worked.body if isinstance(i, Again)), None)
        if again is not None:
            hook.tell(
                "no-such-round", f"{item.label} repeats R{again.first}, which is not above it.", item.label, item.span
            )
        number = None if item.first is None else item.first + k
        if item.way is Way.LINE:
            label = f"{hook.tallies[-1].label}+" if hook.tallies else "start"
        else:
            label = item.label if number is None else item.labelled(number, number)
        if not work_simple(hook, worked, source, label, number):
            _work(hook, worked, source, label, number, below)
    hook.problems[told:] = _told_once(hook.problems[told:])
