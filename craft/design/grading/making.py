"""Making a part anew: through it once, segment by segment, with the words between the rounds."""

from __future__ import annotations

import math
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import replace

from craft.design.grading.easy import shared_count
from craft.design.grading.edges import Around, Edges
from craft.design.grading.proportion import EdgeSize, bridged, in_proportion, shifted
from craft.design.grading.report import State
from craft.design.grading.segments import (
    closes,
    is_only_chain,
    is_ring,
    is_tube,
    kind_of,
    multiple_for,
    next_round,
    short_end,
    tube_end,
    turning_chains,
)
from craft.design.grading.short_rows import is_short, resampled_rows
from craft.design.grading.source import SourcePart, SourceRound
from craft.design.grading.tubes import Tube, Wish, resampled
from craft.design.grading.words import resaid
from craft.errors import CraftError
from craft.rounds.arithmetic import round_sum, settled
from craft.rounds.fabric import run_part
from craft.rounds.pattern import (
    Chain,
    Colour,
    FromHook,
    Instruction,
    Item,
    Join,
    Leave,
    Note,
    Onto,
    Part,
    Repeat,
    Round,
    Section,
    Skip,
    Step,
    Turn,
    Way,
)
from craft.rounds.stitches import Loops
from craft.text.notation import find_coil, find_threads, resewn


class Making:
    """Goes through a part once, segment by segment. items: what is made so far; edges: what there
    is to go on along. debt: rounds that
    are missing so far, as rounds that are more than plain stay single; bend: the same of short rows, which come in pairs."""

    def __init__(self, source: SourcePart, scale: float, around: Around) -> None:
        self.source, self.scale, self.around = source, scale, around
        self.edges = Edges(scale, around)
        self.items: list[Item] = []
        self.rows: list[tuple[State, str, str, str, str]] = []
        self.number = 0
        self.expected: int | None = None
        self.live = 0
        self.colour = source.colour
        self.debt = 0.0
        self.bend = 0.0
        first = next(r for r in source.rounds.values() if r.tally is not None)
        self.start = first.live
        self.colour_lines = any(isinstance(i, Colour) for i in source.items)

    def make(self) -> None:
        """Make every segment."""
        items, rounds = self.source.items, self.source.rounds
        at = 0
        while at < len(items):
            here = rounds.get(at)
            if here is None:
                self._word(items[at])
                at += 1
                continue
            end = tube_end(self.source, at)
            if end > at + 1 or is_tube(here):
                self._tube(at, end)
            elif is_short(here):
                end = short_end(self.source, at)
                self._short(at, end)
            else:
                self._event(here)
            at = max(end, at + 1)

    # --- segments --------------------------------------------------------------------------------

    def _tube(self, at: int, end: int) -> None:
        rounds = [self.source.rounds[k] for k in range(at, end) if k in self.source.rounds]
        ring = is_ring(rounds[0])
        closed = closes(self.source, end)
        ends_part = next_round(self.source, end) is None
        wish = Wish(
            self.scale,
            0 if ring else self.live,
            self.start,
            last=self._end_count(rounds, closed=closed) if ends_part else None,
            multiple=self._multiple(end, ends_part=ends_part, closed=closed),
            closed=closed,
            extra=self.debt,
            apart=self.around.apart,
        )
        tube = self._resampled(rounds, wish)
        self.rows += tube.rows
        heights = [1.0 if r.tally is None else r.tally.height for r in rounds]
        self.debt += self.scale * sum(heights) - len(tube.rounds) * sum(heights) / len(heights)
        self._lay(at, end, rounds, tube)
        self.live, self.colour = tube.counts[-1], tube.colour

    def _resampled(self, rounds: Sequence[SourceRound], wish: Wish) -> Tube:
        """The segment as wished; else with as many rounds as its own height asks for; else ending where it may."""
        loosened = (wish, replace(wish, extra=0.0), replace(wish, extra=0.0, last=None, multiple=1))
        for one in loosened[:-1]:
            try:
                return resampled(rounds, one, self.colour)
            except CraftError:
                continue
        return resampled(rounds, loosened[-1], self.colour)

    def _end_count(self, rounds: Sequence[SourceRound], *, closed: bool) -> int | None:
        """Stitches that an open end comes to: those of the edge that it meets, else an easy number near its size."""
        last = rounds[-1]
        flat = last.tally is not None and last.tally.flat
        straight = all(r.live == r.before for r in rounds)
        if self.around.last or closed or flat or straight or last.live <= self.start:
            return self.around.last
        easy = shared_count(last.live, self.scale, self.start)
        return easy + easy % 2 if self.around.even else easy

    def _lay(self, at: int, end: int, rounds: Sequence[SourceRound], tube: Tube) -> None:
        """The fresh rounds with the words between them, each behind the rounds it stood behind."""
        base = self._begin(rounds[0])
        many = len(tube.rounds)
        done, laid = 0, 0
        numbers = [r.made.first for r in rounds]
        for k in range(at, end):
            if k in self.source.rounds:
                done += 1
                upto = many if done == len(rounds) else bisect_right(tube.at, done + 0.5 / max(self.scale, 1))
                upto = max(upto, laid)
                if (number := numbers[done - 1]) is not None:
                    self.edges.tops[number] = base + max(upto, 1)
                continue
            if isinstance(self.source.items[k], Colour):
                continue
            upto = many if done == len(rounds) else bisect_right(tube.at, done + 1e-6)
            upto = max(upto, 1 if done else 0, laid)
            self._put(tube, laid, upto, base)
            laid = upto
            self._word(self.source.items[k])
        self._put(tube, laid, many, base)
        self.number = base + many
        self.expected = None if numbers[-1] is None else numbers[-1] + 1

    def _put(self, tube: Tube, first: int, upto: int, base: int) -> None:
        for k in range(first, upto):
            made = tube.rounds[k]
            number = base + k + 1
            numbered = made.way is not Way.LINE
            self._add(replace(made, first=number if numbered else None, last=number if numbered else None))
            self._stands(number, made, tube.counts[k])

    def _stands(self, number: int, made: Round, live: int) -> None:
        """A round stands under a number, with so many stitches after it."""
        self.edges.lives[number] = live
        self.edges.ridged.discard(number)
        if made.loops is not Loops.BOTH:
            self.edges.ridged.add(number)

    def _add(self, made: Round) -> None:
        """A round, its first change of colour on a line of its own where she writes it so."""
        if self.colour_lines and made.body and isinstance(made.body[0], Colour):
            self.items.append(made.body[0])
            made = replace(made, body=made.body[1:])
        self.items.append(made)

    def _short(self, at: int, end: int) -> None:
        rounds = [self.source.rounds[k] for k in range(at, end)]
        base = self._begin(rounds[0])
        self._match_colour(rounds[0])
        wanted = self.scale * len(rounds) + self.bend
        fresh = resampled_rows(rounds, wanted, self.live)
        self.bend = wanted - len(fresh)
        for k, made in enumerate(fresh):
            self.items.append(replace(made, first=base + k + 1, last=base + k + 1))
            self._stands(base + k + 1, made, self.live)
        for k, old in enumerate(rounds):
            if old.made.first is not None:
                self.edges.tops[old.made.first] = base + max(1, round((k + 1) / len(rounds) * len(fresh)))
        self.number = base + len(fresh)
        last = rounds[-1].made.first
        self.expected = None if last is None else last + 1
        state = State.KEPT if len(fresh) == len(rounds) else State.MOVED
        self.rows.append(
            (state, "short rows", f"{len(rounds)} rows", f"{len(fresh)} rows", "They turn as far round as they did.")
        )

    def _event(self, here: SourceRound) -> None:
        """A round that is more than plain, in proportion; then what is on the hook is counted by working it."""
        if here.tally is None and is_only_chain(here):
            self._chain(here)
            return
        base = self._begin(here)
        self._match_colour(here)
        body = self._sized(here)
        numbered = here.made.first is not None
        number = base + 1 if numbered else None
        made = replace(here.made, first=number, last=number, or_to=None, body=body, count=None)
        self.items.append(made)
        onto = next((i for i in body if isinstance(i, Onto)), None)
        taken_up = self.edges.take_up(onto, 0 if here.tally is None else here.tally.taken)
        if here.tally is None:
            self.live = self.live if taken_up is None else taken_up.after
            return
        live, held = self._worked(body)
        if here.made.count is not None:
            self.items[-1] = replace(made, count=live)
        if here.tally.held:
            self.edges.held.append(EdgeSize(here.tally.held, held))
        self._tell(here, here.tally.live, live)
        self.live = live
        self.debt += (self.scale - 1) * here.tally.height
        if number is not None and here.made.first is not None:
            self.edges.tops[here.made.first] = number
            self._stands(number, made, self.live)
            self.number = number
            self.expected = here.made.first + 1

    def _worked(self, body: Sequence[Instruction]) -> tuple[int, int]:
        """Stitches that are live, and that were put aside, behind the round just written."""
        elsewhere = any(isinstance(i, Onto) for i in body) and any(
            isinstance(i, Repeat) and i.times is None for i in body
        )
        if not elsewhere and not any(isinstance(i, Skip | Leave | Turn | FromHook) for i in body):
            return round_sum(settled(tuple(body)), self.live).total.gives, 0
        worked, _ = run_part(Part(self.source.part.name, tuple(self.items)), self.source.colour, self.around.after)
        return worked.rounds[-1].live, worked.rounds[-1].held

    def _sized(self, here: SourceRound) -> tuple[Instruction, ...]:
        body = bridged(shifted(here.made.body, self.scale), self.scale)
        main = EdgeSize(here.before, self.live)
        if any(isinstance(i, FromHook) for i in body):
            main = self.edges.chain
        elif here.begins and not any(isinstance(i, Onto) for i in body):
            main = self._hook_edge(here)
        try:
            scaled = in_proportion(
                body, main, self.edges.size, lambda name, many: self.edges.through(here, self.live, name, many)
            )
        except CraftError as error:
            raise CraftError(
                f"{self.source.part.name or 'The part'}: {here.made.label or 'a line'} does not come out at this size, "
                f"{error.message}. Write it by hand, or take another yarn and hook.",
                field="scale",
            ) from error
        return tuple(self.edges.renamed(i) if isinstance(i, Onto) else i for i in scaled)

    def _hook_edge(self, here: SourceRound) -> EdgeSize:
        """What a round without a start begins on behind a heading: the stitches that were held, or a joined chain."""
        if self.edges.chain.before and here.before == self.edges.chain.before:
            return self.edges.chain
        return EdgeSize(here.before, self.live)

    def _chain(self, here: SourceRound) -> None:
        """A starting chain: what is worked along it scales, what only turns does not."""
        chain = next(i for i in here.made.body if isinstance(i, Chain))
        turning = turning_chains(self.source, here)
        many = turning + max(1, round((chain.count - turning) * self.scale))
        joined = any(isinstance(i, Join) for i in here.made.body)
        if joined:
            many = max(3, many)
        self.edges.chain = EdgeSize(chain.count, many)
        body = tuple(replace(i, count=many) if isinstance(i, Chain) else i for i in here.made.body)
        self.items.append(replace(here.made, body=body))
        self.live = many
        self.rows.append((State.MOVED, "starting chain", f"ch {chain.count}", f"ch {many}", ""))

    # --- between -----------------------------------------------------------------------------------

    def _begin(self, here: SourceRound) -> int:
        """The number of the round before this one; numbers that begin anew do so here."""
        first = here.made.first
        if first is not None and first != self.expected and self.expected is not None:
            self.number = self.edges.tops.get(first - 1, first - 1) if first > 1 else 0
        elif first is not None and self.expected is None and not self.edges.lives:
            self.number = first - 1
        return self.number

    def _match_colour(self, here: SourceRound) -> None:
        """The colour that was on the hook before this round."""
        if here.colour != self.colour:
            self.items.append(Colour(here.colour))
        found = here.colour
        for item in here.made.body:
            if isinstance(item, Colour):
                found = item.name
        self.colour = found

    def _multiple(self, end: int, *, ends_part: bool, closed: bool) -> int:
        """What the stitches at the end of a segment must be a multiple of, for what is worked on them."""
        if ends_part:
            return 2 if self.around.even and not closed else 1
        return multiple_for(next_round(self.source, end))

    def _word(self, item: Item) -> None:
        """A step, a note or a heading with the rounds and lengths of this size."""
        match item:
            case Step() | Note():
                sewn = isinstance(item, Step) and bool(item.threads)
                text = self._resewn(item.text) if sewn else resaid(item.text, self.edges.tops, self.scale)
                if text != item.text:
                    self.rows.append((State.MOVED, "sewn threads" if sewn else "words", item.text, text, ""))
                again = replace(item, text=text)
                if isinstance(again, Step) and sewn:
                    again = replace(again, threads=find_threads(text))
                if isinstance(again, Step) and again.coil is not None:
                    again = replace(again, coil=find_coil(text))
                self.items.append(again)
            case Section():
                self.items.append(item)
                self.debt = 0.0
                self.expected = -1 if self.expected is None else self.expected
            case _:
                self.items.append(item)
                if isinstance(item, Colour):
                    self.colour = item.name

    def _resewn(self, text: str) -> str:
        """A direction for threads sewn through: each end in the stitch that lies where it lay around its round."""
        made = {r.made.first: r.tally.made for r in self.source.rounds.values() if r.tally is not None}

        def place(end: tuple[int, int]) -> tuple[int, int]:
            number, stitch = end
            top = self.edges.tops.get(number, number)
            was, now = made.get(number), self.edges.lives.get(top)
            if not was or not now:
                return top, stitch
            return top, min(max(1, math.ceil((stitch - 0.5) / was * now)), now)

        return resewn(text, place, self.scale, lambda words: resaid(words, self.edges.tops, self.scale))

    def _tell(self, here: SourceRound, before: int, after: int) -> None:
        kind = kind_of(here)
        if kind:
            label = here.made.label or "the line"
            self.rows.append((State.MOVED, kind, f"{label}, {before} stitches", f"{after} stitches", ""))
