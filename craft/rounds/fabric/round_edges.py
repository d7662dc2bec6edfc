"""The edges that a round is worked on: the live one, and pieces, chains, stitches that wait, free loops and row ends."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from craft.problems import Span
from craft.rounds.arithmetic import sum_of
from craft.rounds.fabric.edges import CHAIN_NAME, NOTHING, Copy, Foundation, Line
from craft.rounds.fabric.graph import EdgeKind, Numbers
from craft.rounds.fabric.hook import Hook
from craft.rounds.fabric.laying import lay
from craft.rounds.fabric.outcome import Outcome
from craft.rounds.fabric.plan import Move
from craft.rounds.fabric.row_ends import ALL_AROUND, row_ends, spread_over
from craft.rounds.pattern import Edge, Instruction, Onto, Round, Work
from craft.rounds.stitches import Loops


class RoundEdges:
    """Where a round's next stitches go. main: the live edge; source: the edge worked along now; fresh: stitches made so
    far that are live; bridges: chains made over a gap; others: edges used beside the live one."""

    def __init__(self, hook: Hook, made: Round, label: str, moves: Sequence[Move]) -> None:
        self.hook = hook
        self.round = made
        self.label = label
        self.out = Outcome(first=hook.graph.size)
        self.main = hook.live
        self.source = hook.live
        self.fresh: list[Numbers] = []
        self.bridges: list[Numbers] = []
        self.others: list[Line] = []
        self.side = hook.side
        self.hanging = False
        self.picked = ""
        self.bottom = NOTHING
        self.moves = moves

    def _onto(self, move: Onto, items: tuple[Instruction, ...]) -> None:
        self.hanging = False
        begins = not self.fresh and self.source is self.main
        if begins and move.edge is Edge.PIECE:
            self._bridge_instead()
        match move.edge:
            case Edge.MAIN:
                self.source = self.main
                return
            case Edge.BASE:
                if self.hook.base is not None:
                    self.source, self.hanging = self.hook.base, True
                return
            case Edge.CHAIN:
                line = self._other_side(items)
            case Edge.PIECE:
                copy = self._copy(move.name)
                many = sum_of(items).takes or self.round.count or 1
                line = copy.line if copy else Line(np.full(many, -1, np.int64), move.name)
                self.out.pieces = True
            case Edge.HELD:
                line = self._held(self.round.within(move.span))
            case Edge.FREE:
                line = self._free(move)
            case _:
                line = self._picked_up(items, begins=begins)
        if begins and (move.rejoin or move.edge in (Edge.HELD, Edge.FREE, Edge.SIDE) or not self.main.left):
            if self.main.left and self.main is self.hook.live:
                self.hook.put_aside(self.label)
            self.main = self.source = line
            self.out.begun = True
            return
        self.source = line
        self.others.append(line)

    def _picked_up(self, items: tuple[Instruction, ...], *, begins: bool) -> Line:
        """Row ends on the side where the hook is; once it has been there, or along the bottom, the other side."""
        hook = self.hook
        ends = row_ends(hook)
        if ends is None:
            self.side = True
            return Line(NOTHING, "the edge", closed=False)
        rows = len(ends.near)
        many = sum_of(items).takes or (self.round.count if begins and self.round.count else rows)
        if begins and many > ALL_AROUND * rows:
            if hook.chain is not None:
                hook.chain.under_used = True
            return Line(spread_over(ends.around, many), "the edge")
        if begins:
            spots = ends.near
        elif self.picked or self.source is not self.main:
            spots = ends.near[::-1] if self.picked == "far" else ends.far
        else:
            at_far = bool(self.main.at) and self.main.spots[self.main.at - 1] == ends.far[-1]
            self.picked = "far" if at_far else "near"
            spots = ends.far[::-1] if at_far else ends.near
            self.bottom = ends.bottom[::-1] if at_far else ends.bottom
        return Line(spread_over(spots, many), "the row ends", closed=False)

    def _bridge_instead(self) -> None:
        """A chain made for nothing yet turns out to be the bridge between pieces: both its sides wait."""
        chain = self.hook.chain
        if chain is not None and not chain.tops_used and self.main.name == CHAIN_NAME:
            self.hook.sides += [chain.ids, chain.ids[::-1]]
            self.hook.chain = None
            self.main = self.source = Line(NOTHING, "the start")

    def _other_side(self, items: tuple[Instruction, ...]) -> Line:
        hook = self.hook
        if hook.pending:
            hook.chain = Foundation(make_chain(hook, hook.pending), joined=True)
            hook.graph.edge(hook.chain.ids, EdgeKind.ROUND)
            hook.pending = 0
            hook.sides += [hook.chain.ids, hook.chain.ids]
        wanted = sum_of(items).takes
        if hook.sides:
            ids = hook.sides.pop()
            return Line(ids[::-1], CHAIN_NAME)
        chain = hook.chain
        if chain is None and (bridge := self._top_of_bridge()) is not None:
            return bridge
        if chain is None:
            hook.tell("no-chain", f"{self.label}: there is no chain here to work along.", self.label, self.round.span)
            return Line(np.full(max(wanted, 1), -1, np.int64), CHAIN_NAME)
        if self.source is self.main and self.source.left and self.source.name == CHAIN_NAME:
            self.out.over["the first side of the chain"] = self.source.left
        chain.under_used = True
        self.main.closed = True
        under = chain.under(wanted if wanted else None)
        # Come to along row ends, the chain may lie the other way round.
        inner = chain.under(None)
        backwards = len(self.bottom) > 1 and len(inner) > 1 and self.bottom[0] == inner[-1]
        return Line(under[::-1] if backwards else under, "the chain's other side")

    def _held(self, span: Span) -> Line:
        waiting = [h for h in self.hook.held if not h.used and h.meant] or [h for h in self.hook.held if not h.used]
        if not waiting:
            self.hook.tell("no-held", f"{self.label}: no stitches are waiting to be worked.", self.label, span)
            return Line(np.full(max(self.round.count or 1, 1), -1, np.int64), "the held stitches")
        waiting[-1].used = True
        line = waiting[-1].line
        return Line(line.spots[line.at : line.end], f"the stitches held in {waiting[-1].label}")

    def _free(self, move: Onto) -> Line:
        line = self.hook.free_loops(move.round, move.loops)
        if line is not None:
            return line
        side = {Loops.FRONT: "front ", Loops.BACK: "back "}.get(move.loops or Loops.BOTH, "")
        of = f" of R{move.round}" if move.round is not None else ""
        self.hook.tell(
            "free-loops", f"{self.label}: no {side}loops{of} are free to be worked.", self.label, self.round.within(move.span)
        )  # fmt: skip
        return Line(np.full(max(self.round.count or 1, 1), -1, np.int64), "the free loops")

    def _edge_of_piece(self, name: str) -> Line | None:
        copy = self._copy(name)
        if copy is None or copy.piece.shut:
            return None
        return copy.line

    def _copy(self, name: str) -> Copy | None:
        copy = self.hook.copy_of(name)
        if copy is None:
            said = f"No part made before is called '{name}'; its stitches are taken on trust."
            self.hook.tell("no-piece", said, self.label, self.round.body_span)
            return None
        many = len(self.hook.copies.get(copy.piece.name.lower(), []))
        if many > copy.piece.make and len(copy.piece.graph):
            times = "once" if copy.piece.make == 1 else f"{copy.piece.make} times"
            self.hook.tell(
                "piece-spent",
                f"{self.label} works in {copy.piece.name} number {many}, but it is made {times}.",
                self.label,
                self.round.body_span,
            )
        return copy

    def _top_of_bridge(self) -> Line | None:
        """The nearer side of a bridge that this round made and now works along as well: it is live no longer."""
        if not self.bridges:
            return None
        ids = self.bridges.pop()
        self.fresh = [made[~np.isin(made, ids)] for made in self.fresh]
        return Line(ids, CHAIN_NAME)


def make_chain(hook: Hook, many: int) -> Numbers:
    """A chain of `many` stitches that belongs to the round to come."""
    laid = lay((Work("ch", many),), 0, hook.colour, Loops.BOTH)
    colours = hook.graph.colour_numbers(laid.colours, many)
    nothing = np.zeros(len(laid.kinds), np.int64)
    return hook.graph.add(
        laid.kinds, colours, laid.loops, nothing, NOTHING, None, round_at=len(hook.tallies), front=hook.front
    )
