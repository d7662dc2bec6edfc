"""One round worked on the hook: its plan carried out, stretch by stretch."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from craft.rounds.arithmetic import sum_of
from craft.rounds.fabric.edges import CHAIN_NAME, NOTHING, Foundation, Line
from craft.rounds.fabric.graph import KIND_NUMBER, EdgeKind, Numbers
from craft.rounds.fabric.laying import Hole, Laid, lay
from craft.rounds.fabric.outcome import Outcome
from craft.rounds.fabric.plan import Stretch
from craft.rounds.fabric.round_edges import RoundEdges, make_chain
from craft.rounds.pattern import Chain, Edge, FromHook, Instruction, Join, Leave, Onto, Repeat, Shift, Start, Turn, Work
from craft.rounds.stitches import Loops

_CHAIN = KIND_NUMBER["ch"]


class RoundRun(RoundEdges):
    """Carries out the plan of one round; `outcome` says what came of it."""

    # --- the plan -----------------------------------------------------------------------

    def run(self) -> Outcome:
        """Work every move; the hook's edge is not touched yet, see `edge`."""
        self._take_in_pieces()
        self.out.first = self.hook.graph.size
        for at, move in enumerate(self.moves):
            match move:
                case Stretch():
                    self._stretch(move.items)
                case Start():
                    self._start(move)
                case Chain():
                    self._foundation(move)
                case FromHook():
                    self._from_hook(move)
                case Onto():
                    after = self.moves[at + 1] if at + 1 < len(self.moves) else None
                    self._onto(move, after.items if isinstance(after, Stretch) else ())
                case Turn():
                    self._turn(last=not any(isinstance(m, Stretch | Start) for m in self.moves[at + 1 :]))
                case Join():
                    self._join()
                case Leave():
                    self.out.leave = move
                case Shift():
                    self.out.shift += move.count
                case _:
                    pass
        for line in self.others:
            if line.left:
                self.out.over[line.name] = line.left
                line.end = line.at
        return self.out

    def _take_in_pieces(self) -> None:
        """Pieces come into the graph before the round's own stitches."""
        for move in self.moves:
            names = [move.name] if isinstance(move, Onto) and move.edge is Edge.PIECE else []
            if isinstance(move, Stretch):
                names = [w.through for w in _works(move.items) if w.through]
            for name in names:
                self.hook.copy_of(name)

    # --- stretches ----------------------------------------------------------------------

    def _stretch(self, items: tuple[Instruction, ...]) -> None:
        takes = sum_of(items).takes
        if self.source is not self.main and not self.hanging:
            if not self.source.left and takes:
                self.source = self.main
            elif takes > self.source.left and (many := _leading(items, self.source.left)) is not None:
                self._stretch(items[:many])
                items = items[many:]
        self._along_the_underside(items)
        room = self.source.left
        if self.side:
            room = max(self.round.count or 0, 0)
        folded = any(w.through == "" for w in _works(items))
        if folded and room:
            room //= 2
        laid = lay(items, room, self.hook.colour, self.round.loops)
        self._work(laid, folded=folded)

    def _along_the_underside(self, items: tuple[Instruction, ...]) -> None:
        """A first round along a chain runs on along its other side, though the text does not say so."""
        chain = self.hook.chain
        if chain is not None and self.source.name == CHAIN_NAME and self.source is self.main:
            chain.tops_used = True
        if chain is None or not chain.tops_used or chain.under_used or chain.joined or self.source is not self.main:
            return
        more = sum_of(items).takes - self.source.left
        if more > 0 and self.source.name == CHAIN_NAME:
            under = chain.under(more)
            if len(under) == more:
                chain.under_used = True
                self.source.spots = np.concatenate([self.source.spots[: self.source.end], under])
                self.source.end = len(self.source.spots)
                self.source.closed = True

    def _work(self, laid: Laid, *, folded: bool) -> None:
        hook, out = self.hook, self.out
        wanted = laid.takes
        spots = NOTHING if self.side else self.source.take(wanted)
        if not self.side and len(spots) < wanted:
            name = self.source.name
            out.missing[name] = out.missing.get(name, 0) + wanted - len(spots)
        first = hook.graph.size
        counts, parents = _parents(laid, spots, first)
        second: np.ndarray | None = None
        if laid.through:
            counts, parents, second = self._through(laid, counts, parents, folded=folded)
        colours = hook.graph.colour_numbers(laid.colours, len(laid.kinds))
        live = not self.hanging
        ids = hook.graph.add(
            laid.kinds, colours, laid.loops, counts, parents, second, round_at=len(hook.tallies), front=hook.front,
            live=live,
        )  # fmt: skip
        hook.colour = laid.last_colour
        at = sum(len(f) for f in self.fresh)
        out.marks += [(at + place, change) for place, change in laid.marks]
        out.holes += [Hole(at + h.at, h.chains, h.passed) for h in laid.holes]
        if laid.passed and not any(h.chains for h in laid.holes) and len(spots):
            where = np.array(laid.passed)
            where = where[where < len(spots)]
            out.passed += [spots[run] for run in np.split(where, np.flatnonzero(np.diff(where) > 1) + 1)]
        out.taken += len(spots) if not self.side else 0
        out.made += len(ids)
        out.height = max(out.height, laid.height) if out.made > len(ids) else laid.height
        out.colours += [c for c in dict.fromkeys(laid.colours) if c not in out.colours] if len(ids) else []
        on_edge = ids if laid.live is None else ids[laid.live]
        self._note_bridges(ids, laid)
        if live:
            self.fresh.append(on_edge)

    def _note_bridges(self, ids: Numbers, laid: Laid) -> None:
        """Remember the other side of every bridge."""
        chains = laid.kinds == _CHAIN
        if laid.live is not None:
            chains = chains & laid.live
        if not chains.any():
            return
        chains &= laid.counts == 0
        at = np.flatnonzero(chains)
        if len(at):
            groups = np.split(at, np.flatnonzero(np.diff(at) > 1) + 1)
            self.hook.sides += [ids[g] for g in groups]
            self.bridges += [ids[g] for g in groups]

    def _through(
        self, laid: Laid, counts: Numbers, parents: Numbers, *, folded: bool
    ) -> tuple[Numbers, Numbers, np.ndarray]:
        """Add the parents on second edges; tells when the edges do not match."""
        extra: dict[int, list[int]] = {}
        for name, rows in laid.through:
            need = int(laid.counts[rows].sum())
            line = self.source if name == "" else self._edge_of_piece(name)
            if line is None:
                continue
            each = self._layers(line, need, name)
            got = line.take_last(need) if name == "" else line.take(need)
            back = line.take_last(need) if each == 2 else NOTHING
            self.out.taken += len(got) + len(back)
            at = 0
            for row in rows:
                for _ in range(int(laid.counts[row])):
                    extra.setdefault(int(row), []).extend(int(s[at]) for s in (got, back) if at < len(s))
                    at += 1
        firsts = np.concatenate([[0], np.cumsum(counts)])
        new_counts, new_parents, second = counts.copy(), [], []
        for row in range(len(counts)):
            own = parents[firsts[row] : firsts[row + 1]]
            more = extra.get(row, [])
            new_counts[row] = len(own) + len(more)
            new_parents += [*own.tolist(), *more]
            second += [False] * len(own) + [True] * len(more)
        return new_counts, np.array(new_parents, np.int64), np.array(second, np.bool_)

    def _layers(self, line: Line, need: int, name: str) -> int:
        """How many layers of a piece each stitch goes through: 2 for an open tube pressed flat."""
        if name == "":
            if line.left not in (need, need + 1):
                self.out.missing[line.name] = self.out.missing.get(line.name, 0) + max(need - line.left, 0)
            elif line.left == need + 1:
                line.end -= 1
            return 1
        if line.left == 2 * need + 1:
            line.end -= 1  # of an odd edge pressed flat one stitch lies in the fold
        if line.left == 2 * need:
            return 2
        if line.left < need:
            self._tell_layers(line, need)
        return 1

    def _tell_layers(self, line: Line, need: int) -> None:
        self.hook.tell(
            "layers",
            f"{self.label} works {need} stitches through {line.name}, whose edge has {line.left} left.",
            self.label,
            self.round.body_span,
        )

    # --- beginnings ---------------------------------------------------------------------

    def _start(self, move: Start) -> None:
        laid = lay((Work(move.stitch, move.count),), 0, self.hook.colour, Loops.BOTH)
        self.out.begun = True
        self._add_free(laid)

    def _add_free(self, laid: Laid) -> Numbers:
        """Stitches that are worked into nothing."""
        hook = self.hook
        nothing = np.zeros(len(laid.kinds), np.int64)
        colours = hook.graph.colour_numbers(laid.colours, len(laid.kinds))
        ids = hook.graph.add(
            laid.kinds, colours, laid.loops, nothing, NOTHING, None, round_at=len(hook.tallies), front=hook.front
        )
        self.out.made += len(ids)
        self.out.height = laid.height
        self.out.colours += [c for c in laid.colours if c not in self.out.colours]
        self.fresh.append(ids)
        return ids

    def _foundation(self, move: Chain) -> None:
        """A chain to work along; in the middle of a piece the edge waits as the base of sideways rows."""
        hook = self.hook
        if self.main.left and not hook.yarn_cut:
            hook.base = self.main
            self.out.sideways = True
        hook.chain = Foundation(make_chain(hook, move.count))
        hook.graph.edge(hook.chain.ids, EdgeKind.OPEN)
        hook.pending = 0
        self.main = self.source = Line(hook.chain.tops(), CHAIN_NAME, closed=False)
        self.fresh = []
        self.out.begun = True

    def _from_hook(self, move: FromHook) -> None:
        hook = self.hook
        if hook.pending:
            self._foundation(Chain(hook.pending))
        chain = hook.chain
        if chain is None or self.source.name != CHAIN_NAME:
            self.source.take(move.nth - 1)
            return
        chain.first = move.nth
        chain.tops_used = True
        self.main = self.source = Line(chain.tops(), CHAIN_NAME, closed=False)

    # --- turning and closing ------------------------------------------------------------

    def _turn(self, *, last: bool) -> None:
        self.hook.front = not self.hook.front
        self.hook.turned = True
        self.out.turned = True
        self.hanging = False
        if last and self.fresh:
            self.out.ends_turned = True
            return
        made = np.concatenate([NOTHING, *self.fresh])
        rest = self.main.spots[self.main.at : self.main.end]
        self.out.gives += len(made)
        self.main = Line(np.concatenate([made[::-1], rest[::-1]]), self.main.name, self.main.closed)
        if len(made) and len(rest):
            # A short row within a round: the edge as it lies now is seen in no round's end.
            self.hook.graph.edge(self.main.spots, EdgeKind.ROUND if self.main.closed else EdgeKind.OPEN)
        self.source, self.fresh = self.main, []

    def _join(self) -> None:
        hook = self.hook
        self.out.joined = True
        if not self.fresh and hook.pending:
            hook.chain = Foundation(make_chain(hook, hook.pending), joined=True)
            hook.graph.edge(hook.chain.ids, EdgeKind.ROUND)
            hook.pending = 0
            self.main = self.source = Line(hook.chain.tops(), CHAIN_NAME)
            hook.live = self.main
        elif not self.fresh and hook.chain is not None and not hook.chain.tops_used:
            hook.chain.joined = True
            hook.graph.edge(hook.chain.ids, EdgeKind.ROUND)
            self.main = self.source = Line(hook.chain.tops(), CHAIN_NAME)
        elif self.fresh:
            made = np.concatenate(self.fresh)
            if len(made) > 1:
                hook.graph.neighbours(int(made[-1]), int(made[0]))


def _parents(laid: Laid, spots: Numbers, first: int) -> tuple[Numbers, Numbers]:
    """Absolute parents of a stretch: places among `spots`, own stitches from `first` on."""
    if not len(spots):
        if laid.spurs:
            own = laid.into < 0
            counts = np.add.reduceat(np.append(own, 0), np.cumsum(laid.counts) - laid.counts) * (laid.counts > 0)
            return counts.astype(np.int64), first - laid.into[own] - 1
        return np.zeros(len(laid.counts), np.int64), NOTHING
    into = laid.into
    at = np.minimum(into, len(spots) - 1) if laid.takes > len(spots) else into
    found = np.where(at < 0, first - at - 1, spots[np.maximum(at, 0)]) if laid.spurs else spots[at]
    if spots.min() < 0:
        known = found >= 0
        counts = np.array([int(k.sum()) for k in np.split(known, np.cumsum(laid.counts)[:-1])], np.int64)
        return counts, found[known]
    return laid.counts, found


def _works(items: Sequence[Instruction]) -> list[Work]:
    found: list[Work] = []
    for item in items:
        if isinstance(item, Work):
            found.append(item)
        elif isinstance(item, Repeat):
            found += _works(item.body)
    return found


def _leading(items: tuple[Instruction, ...], room: int) -> int | None:
    """How many leading items use exactly `room` stitches, None when no such number of them does."""
    if any(isinstance(i, Repeat) and i.times is None for i in items):
        return None
    total = 0
    for at, item in enumerate(items):
        if total == room and at:
            return at
        total += sum_of((item,)).takes
    return None
