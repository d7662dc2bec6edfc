"""The hook: everything that is carried from one round to the next."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from craft.problems import Mend, Place, Problem, Span
from craft.rounds.fabric.edges import NOTHING, Copy, Foundation, Held, Line, Piece, find_piece, ordinal
from craft.rounds.fabric.graph import LOOP_NUMBER, GraphBuilder, Numbers
from craft.rounds.fabric.laying import Hole
from craft.rounds.pattern import Part, StepKind, Way
from craft.rounds.stitches import Loops


@dataclass(frozen=True, slots=True)
class Tally:
    """One worked round.

    label: as printed, 'R8' for a round of the fold R7-R9. source: index of the written round
    among the part's rounds. taken: stitches used of the round below. made: stitches worked.
    live: stitches of the edge afterwards. stated: the bracket. marks: (place among the made
    stitches, change) of every increase and decrease. colours: the colours worked, first first.
    height: the tallest stitch's height in single crochets. first, end: its stitches in the graph.
    flat: the edge has two ends. front: the outside faces the maker. rest: stitches of the edge that
    this round did not reach. held: stitches put aside by it. section: the heading it stands under.
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
    first: int
    end: int
    flat: bool
    front: bool
    rest: int
    held: int
    holes: tuple[Hole, ...]
    section: str
    way: Way
    span: Span = field(compare=False)


@dataclass(frozen=True, slots=True)
class WorkedStep:
    """A step with its place: after so many worked rounds, with so many stitches live."""

    kind: StepKind
    text: str
    after: int
    live: int


@dataclass(slots=True)
class Hook:
    """State between rounds.

    part: what is worked. pieces: others that it may take in, by lower-case name. colour: of the yarn on the hook.
    graph: every stitch so far. live: the edge that the next round goes into.
    side: the live edge is picked up, so takes any number of stitches. cut: the yarn was fastened off. front: the
    outside faces the maker. short: the live edge still holds stitches that a short row left. turned: the work was
    turned at the end of the last round. last_row: the last round was a row.
    chain: the chain that is worked along, None once it is used up. pending: chains made and not yet known to be a
    chain to work along. sides: the other sides of chains and bridges, the latest last. base: the edge that waits while
    sideways rows are worked onto it. held: stitches put aside. copies: of each piece, those taken in. tallies, steps,
    problems: what was worked, was to be done beside it, and went wrong. section: the heading it stands under. empty:
    names of pieces taken in that are not stuffed.
    """

    part: Part
    pieces: dict[str, Piece]
    colour: str
    graph: GraphBuilder = field(default_factory=GraphBuilder)
    live: Line = field(default_factory=lambda: Line(NOTHING, "the start"))
    side: bool = False
    yarn_cut: bool = False
    front: bool = True
    short: bool = False
    turned: bool = False
    last_row: bool = False
    chain: Foundation | None = None
    pending: int = 0
    sides: list[Numbers] = field(default_factory=list)
    base: Line | None = None
    held: list[Held] = field(default_factory=list)
    copies: dict[str, list[Copy]] = field(default_factory=dict)
    tallies: list[Tally] = field(default_factory=list)
    steps: list[WorkedStep] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)
    section: str = ""
    empty: list[str] = field(default_factory=list)

    def tell(self, code: str, message: str, label: str | None, span: Span, fix: Mend | None = None) -> None:
        """Note a problem."""
        self.problems.append(Problem(code, Place(self.part.name, label, span=span), message, fix))

    @property
    def above(self) -> str:
        """What the next round is worked into, in words."""
        return self.live.name

    def put_aside(self, label: str) -> None:
        """Leave the live edge where it is; it can be found again as held stitches or by its section's name."""
        if len(self.live.spots) and self.live.left:
            if self.section:
                piece = Piece(self.section, 1, _EMPTY, NOTHING, shut=False)
                self.pieces.setdefault(self.section.lower(), piece)
                line = Line(self.live.spots, self.section, self.live.closed)
                self.copies.setdefault(self.section.lower(), []).append(Copy(piece, line))
            self.held.append(Held(self.live, label, meant=False))
        self.live = Line(NOTHING, "the start")
        self.yarn_cut, self.side = False, False

    def copy_of(self, name: str) -> Copy | None:
        """The copy of the piece that `name` means, taken in when first asked for; None when there is none.

        Without a first or second in its name, the one begun already, else the next.
        """
        piece = find_piece(name, self.pieces)
        if piece is None:
            return None
        taken = self.copies.setdefault(piece.name.lower(), [])
        which = ordinal(name) if ordinal(piece.name) is None else None
        if which is None:
            begun = next((c for c in taken if 0 < c.line.left < len(c.line.spots)), None)
            fresh = next((c for c in taken if c.line.left == len(c.line.spots) and c.line.left), None)
            if begun or fresh:
                return begun or fresh
            which = len(taken)
        while len(taken) <= which and len(taken) < _MOST_COPIES:
            name = f"{piece.name} {len(taken) + 1}" if piece.make > 1 else piece.name
            first = self.graph.take_in(piece.graph, name) if len(piece.graph) else 0
            if not piece.stuffed and len(piece.graph):
                self.empty.append(name)
            taken.append(Copy(piece, Line(piece.edge + first, name)))
        return taken[min(which, len(taken) - 1)]

    def free_loops(self, number: int | None, loops: Loops | None) -> Line | None:
        """Stitches of round `number` that have a loop free on the side of `loops`, None when there are none."""
        tally = next((t for t in reversed(self.tallies) if t.number == number), None)
        if tally is None:
            tally = next((t for t in reversed(self.tallies) if number is None and t.loops is not Loops.BOTH), None)
        if tally is None:
            return None
        at = self.tallies.index(tally)
        if number is None:
            at -= 1
        for k in (at, at - 1):
            if k < 0:
                continue
            found = self._free(self.tallies[k], loops)
            if len(found):
                return Line(found, f"the free loops of {self.tallies[k].label}", not self.tallies[k].flat)
        return None

    def _free(self, tally: Tally, loops: Loops | None) -> Numbers:
        """Stitches of a round whose front or back loop no stitch has used yet."""
        graph = self.graph.build()
        worked_into = np.repeat(graph.loops, np.diff(graph.first_parent))
        used = {Loops.FRONT: np.zeros(len(graph), np.bool_), Loops.BACK: np.zeros(len(graph), np.bool_)}
        for side, mark in used.items():
            hits = (worked_into == LOOP_NUMBER[side]) | (worked_into == LOOP_NUMBER[Loops.BOTH])
            mark[graph.parents[hits]] = True
        touched = np.zeros(len(graph), np.bool_)
        touched[graph.parents] = True
        wanted = [loops] if loops in used else list(used)
        stitches = np.arange(tally.first, tally.end)
        stitches = stitches[graph.live[stitches]]
        free = np.zeros(len(stitches), np.bool_)
        for side in wanted:
            assert side is not None
            free |= ~used[side][stitches]
        return stitches[free & touched[stitches]]


_MOST_COPIES = 200
_EMPTY = GraphBuilder().build()


def pieces_of(pieces: Mapping[str, Piece]) -> dict[str, Piece]:
    """A store of pieces by their names in lower case."""
    return {name.lower(): piece for name, piece in pieces.items()}
