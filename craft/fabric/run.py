"""Runs a part: round by round over the live edge, to tallies, a stitch graph and problems."""

from __future__ import annotations

from dataclasses import dataclass, field

from craft.arithmetic import round_sum
from craft.fabric.graph import GraphBuilder, StitchGraph
from craft.fabric.hook import movements
from craft.fabric.verdict import misfit, wrong_sum
from craft.pattern import Colour, Instruction, Part, Repeat, Round, Start, Step, StepKind, Unread, Work
from craft.problems import Place, Problem, Span
from craft.stitches import Loops

MAIN_COLOUR = "Main"
"""The colour that is on the hook before any is named."""


@dataclass(frozen=True, slots=True)
class Tally:
    """One worked round.

    label: as printed, 'R8' for a round of the fold R7-R9. source: index of the written round
    among the part's rounds. taken: stitches used of the round below. made: stitches worked.
    live: stitches of the edge afterwards. stated: the bracket. marks: (place among the made
    stitches, change) of every increase and decrease. colours: the colours worked, first first.
    height: the tallest stitch's height in single crochets.
    """

    label: str
    number: int | None
    source: int
    taken: int
    made: int
    live: int
    stated: int | None
    marks: tuple[tuple[int, int], ...]
    colours: tuple[str, ...]
    loops: Loops
    height: float
    start: bool
    joined: bool
    span: Span = field(compare=False)


@dataclass(frozen=True, slots=True)
class WorkedStep:
    """A step with its place: after so many worked rounds, with so many stitches live."""

    kind: StepKind
    text: str
    after: int
    live: int


@dataclass(frozen=True, slots=True)
class WorkedPart:
    """A part that has been run. closed: a step says that the opening is drawn together."""

    name: str | None
    make: int
    rounds: tuple[Tally, ...]
    steps: tuple[WorkedStep, ...]
    graph: StitchGraph
    closed: bool

    @property
    def counts(self) -> tuple[int, ...]:
        """Live stitches after each round."""
        return tuple(t.live for t in self.rounds)


@dataclass(slots=True)
class _Edge:
    """The state of the hook between rounds."""

    part: Part
    graph: GraphBuilder = field(default_factory=GraphBuilder)
    live: int = 0
    colour: str = MAIN_COLOUR
    number_of: dict[str, int] = field(default_factory=dict)
    tallies: list[Tally] = field(default_factory=list)
    steps: list[WorkedStep] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    above: str = "the start"

    def tell(self, code: str, message: str, label: str | None, span: Span) -> None:
        self.problems.append(Problem(code, Place(self.part.name, label, span=span), message))


def _uses(body: tuple[Instruction, ...], key: str) -> bool:
    return any(
        (isinstance(i, Work) and i.stitch == key) or (isinstance(i, Repeat) and _uses(i.body, key)) for i in body
    )


def _judge(edge: _Edge, made: Round, below: Round | None) -> int:
    """Tell what is wrong with the round's counts; the live count to go on with."""
    sums = round_sum(made.body, edge.live)
    start = any(isinstance(i, Start) for i in made.body)
    unread = any(isinstance(i, Unread) for i in made.body)
    stated = made.count
    if unread or not made.body:
        return stated if stated is not None else edge.live
    if start and edge.tallies:
        edge.tell("second-start", f"{made.label} starts a new ring in the middle of the part.", made.label, made.span)
        return stated if stated is not None else sums.total.gives
    if not start and not edge.tallies:
        edge.tell(
            "no-start",
            f"{made.label} has nothing to be worked into: start with '6 sc in ring'.",
            made.label,
            made.body_span,
        )
        return stated if stated is not None else sums.total.gives
    if sums.rest and not start:
        verdict = misfit(made, sums, edge.live, edge.above)
    elif stated is not None and stated != sums.total.gives:
        verdict = wrong_sum(made, sums, below)
    else:
        return sums.total.gives
    place = Place(
        edge.part.name, made.label, span=made.body_span if verdict.code != "sum" else made.count_span or made.body_span
    )
    edge.problems.append(Problem(verdict.code, place, verdict.message, verdict.fix))
    return max(verdict.live, 0)


def _style(edge: _Edge, made: Round, live: int) -> None:
    """Faults and hints of a round that are not about sums."""
    if made.loops is Loops.BACK and _uses(made.body, "invdec"):
        edge.tell(
            "loops",
            f"{made.label} works in back loops only, where an invisible decrease, which picks up the "
            "front loops, is not possible; use dec.",
            made.label,
            made.body_span,
        )
    if edge.live and edge.tallies and (live > 2 * edge.live or 2 * live < edge.live) and live:
        edge.tell(
            "steep",
            f"{made.label} goes from {edge.live} to {live} stitches at once: it will ruffle or pucker, "
            "which may be meant.",
            made.label,
            made.body_span,
        )


def _work_round(edge: _Edge, made: Round, source: int, label: str, number: int | None, live: int) -> None:
    moves = movements(made.body, edge.live, edge.colour, edge.number_of)
    start = moves.start or not edge.tallies
    edge.graph.add_round(moves.kinds, moves.takes, moves.gives, moves.colours, made.loops, start=start, live=edge.live)
    names = list(edge.number_of)
    plain = len(moves.colours) and (moves.colours == moves.colours[0]).all()
    worked_in = moves.colours[:1] if plain else moves.colours
    colours = tuple(dict.fromkeys(names[c] for c in worked_in.tolist())) or (edge.colour,)
    edge.tallies.append(
        Tally(
            label,
            number,
            source,
            int(moves.takes.sum()),
            int(moves.gives.sum()),
            live,
            made.count,
            moves.marks,
            colours,
            made.loops,
            moves.height,
            moves.start,
            made.joined,
            made.span,
        )
    )
    edge.live, edge.colour, edge.above = live, moves.last_colour, label


def _told_once(problems: list[Problem]) -> list[Problem]:
    """A fold's problems without those that every further round of it repeats."""
    return list({(p.code, p.place.span): p for p in reversed(problems)}.values())[::-1]


def run_part(part: Part, colour: str = MAIN_COLOUR) -> tuple[WorkedPart, tuple[Problem, ...]]:
    """Work a part stitch by stitch, with `colour` on the hook at first; never raises on a faulty one.

    Faults are told where they are, and the work goes on with the count that most evidence is
    for, so that one slip is one problem. Time and memory are linear in the stitches.
    """
    edge = _Edge(part, colour=colour)
    rounds = part.rounds
    source = -1
    for item in part.items:
        match item:
            case Round():
                source += 1
                below = rounds[source + 1] if source + 1 < len(rounds) else None
                told = len(edge.problems)
                for k in range(item.repeats):
                    live = _judge(edge, item, below if k == item.repeats - 1 else item)
                    if k == 0:
                        _style(edge, item, live)
                    number = None if item.first is None else item.first + k
                    label = item.label if number is None else f"R{number}"
                    _work_round(edge, item, source, label, number, live)
                edge.problems[told:] = _told_once(edge.problems[told:])
            case Colour():
                edge.colour = item.name
            case Step():
                edge.steps.append(WorkedStep(item.kind, item.text, len(edge.tallies), edge.live))
            case _:
                pass
    edge.graph.colours = list(edge.number_of)
    closed = any(s.kind is StepKind.CLOSE for s in edge.steps)
    worked = WorkedPart(part.name, part.make, tuple(edge.tallies), tuple(edge.steps), edge.graph.build(), closed)
    return worked, tuple(edge.problems)
