"""A part at another size in the same yarn: cut into segments by its events, each made anew by its own rule.

A part whose rounds are still the drafted ones is drafted again from its solid. Of any other, plain rounds are
resampled, short rows and whatever is more than plain follow in proportion; what could not be kept is told.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from craft.design.grading.easy import shared_count
from craft.design.grading.inventory import unaccounted
from craft.design.grading.painting import main_base
from craft.design.grading.proportion import EdgeSize, bridged, in_proportion, shifted
from craft.design.grading.report import Feature, State
from craft.design.grading.short_rows import is_short, resampled_rows
from craft.design.grading.source import SourcePart, SourceRound, source_of
from craft.design.grading.tubes import Tube, Wish, resampled
from craft.design.grading.words import resaid
from craft.errors import CraftError, require
from craft.fitting.panels import PanelRecipe
from craft.gauge import Gauge
from craft.problems import Severity
from craft.rounds.arithmetic import MOST_ROUNDS, round_sum, settled, sum_of
from craft.rounds.fabric import MAIN_COLOUR, Piece, WorkedPart, find_piece, run_part
from craft.rounds.pattern import (
    Chain,
    Colour,
    Edge,
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
    Start,
    Step,
    StepKind,
    Turn,
    Way,
    Work,
    folded,
)
from craft.rounds.stitches import Loops
from craft.shape.drafting import Recipe, draft

LEAST_AROUND = 5
"""The fewest stitches a tube can be worked on with any comfort."""

LEAST_WISHED = 2.0
"""Stitches around below which a part is no tube any more."""

WIDER = 1.15
"""By how much a part may be wider than it was wished before that is said."""

NARROW = "It cannot be worked on fewer stitches; its length follows. At this size a chain, a cord or embroidery may look better."


@dataclass(frozen=True, slots=True)
class Regraded:
    """A part at another size. how: 'drafted' or 'resampled'. features: what became of what it holds. tops: the number of
    the round that stands for each of the first size."""

    part: Part
    worked: WorkedPart
    how: str
    features: tuple[Feature, ...]
    tops: Mapping[int, int] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Around:
    """What a part is made with: the yarn on the hook, others that it takes in, at the first size and at this one.

    last: stitches that its open end has to have, to meet another edge. even: it is pressed flat there.
    """

    colour: str = MAIN_COLOUR
    before: Mapping[str, Piece] = field(default_factory=dict)
    after: Mapping[str, Piece] = field(default_factory=dict)
    last: int | None = None
    even: bool = False


ALONE = Around()


def regrade(
    part: Part,
    scale: float,
    gauge: Gauge,
    recipe: Recipe | PanelRecipe | None = None,
    around: Around = ALONE,
    source: SourcePart | None = None,
) -> Regraded:
    """`part` at `scale` times its size in the same yarn.

    recipe: how the part was drafted, while its rounds are still the drafted ones; None resamples. source: the part as
    it was run, where that is known. CraftError when the part would get too small or too large to work, or cannot be
    made so at all.
    """
    require(
        math.isfinite(scale) and 0.2 <= scale <= 5, "A size is from a fifth to five times the first.", field="scale"
    )
    if recipe is not None and (found := _drafted(part, scale, gauge, recipe, around)) is not None:
        return found
    return _resampled(source or source_of(part, around.colour, around.before), scale, around)


def _drafted(part: Part, scale: float, gauge: Gauge, recipe: Recipe | PanelRecipe, around: Around) -> Regraded | None:
    """The part drafted anew; None when its open end does not come out as it has to."""
    scaled = recipe.scaled(scale)
    if isinstance(scaled, PanelRecipe):
        made = scaled.part(gauge, part.name, part.make)
    else:
        made = draft(scaled, gauge, part.name, part.make).part
    worked, _ = run_part(made, around.colour, around.after)
    end = worked.rounds[-1].live if worked.rounds else 0
    if around.last is not None and not worked.closed and end != around.last:
        return None
    if around.even and not worked.closed and end % 2:
        return None
    return Regraded(made, worked, "drafted", unaccounted(part.name or "Part", part, made, ()))


def _resampled(source: SourcePart, scale: float, around: Around) -> Regraded:
    part = source.part
    name = part.name or "The part"
    if not any(r.tally is not None for r in source.rounds.values()):
        raise CraftError(f"{name} has no rounds to be resized.", field="scale")
    widest = max(source.worked.counts)
    wished = scale * widest
    if scale < 1 and wished < LEAST_WISHED:
        raise CraftError(
            f"{name} would have {wished:.1f} stitches around; it cannot get so small in this yarn. "
            "Make it a chain or a cord, embroider it, or leave it out.",
            field="scale",
        )
    making = _Making(source, scale, around)
    making.make()
    made = Part(part.name, folded(tuple(making.items)), part.make)
    if sum(r.repeats for r in made.rounds) > MOST_ROUNDS:
        raise CraftError("That would be more rounds than one pattern may have.", field="scale")
    worked, problems = run_part(made, around.colour, around.after)
    faults = [p for p in problems if p.severity is Severity.FAULT]
    fresh = [p for p in faults if p.code not in source.told]
    if fresh:
        raise CraftError(f"{name} does not come out at this size: {fresh[0].message}", field="scale")
    rows = [Feature(part.name or "Part", kind, state, a, b, why) for state, kind, a, b, why in making.rows]
    rows += unaccounted(part.name or "Part", part, made, rows)
    if wished < LEAST_AROUND and max(worked.counts) > wished * WIDER:
        rows.append(
            Feature(
                part.name or "Part", "width", State.CHANGED, f"{widest} around", f"{max(worked.counts)} around", NARROW
            )
        )
    return Regraded(made, worked, "resampled", tuple(rows), dict(making.tops))


class _Making:
    """Goes through a part once, segment by segment. items: what is made so far; tops: see `Regraded`. debt: rounds that
    are missing so far, as rounds that are more than plain stay single; bend: the same of short rows, which come in pairs."""

    def __init__(self, source: SourcePart, scale: float, around: Around) -> None:
        self.source, self.scale, self.around = source, scale, around
        self.items: list[Item] = []
        self.rows: list[tuple[State, str, str, str, str]] = []
        self.tops: dict[int, int] = {}
        self.lives: dict[int, int] = {}
        self.number = 0
        self.expected: int | None = None
        self.live = 0
        self.chain = EdgeSize(0, 0)
        self.held: list[EdgeSize] = []
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
            end = self._segment_end(at)
            if end > at + 1 or self._is_tube(here):
                self._tube(at, end)
            elif is_short(here):
                end = self._end_of_short(at)
                self._short(at, end)
            else:
                self._event(here)
            at = max(end, at + 1)

    def _is_tube(self, here: SourceRound) -> bool:
        return (here.plain and not _is_patterned(here)) or self._is_ring(here)

    def _is_ring(self, here: SourceRound) -> bool:
        return here.begins and any(isinstance(i, Start) for i in here.made.body) and len(here.made.body) == 1

    def _segment_end(self, at: int) -> int:
        """Where the plain rounds that begin at an item end, words between them included."""
        items, rounds = self.source.items, self.source.rounds
        end, flat = at, None
        for k in range(at, len(items)):
            if (here := rounds.get(k)) is not None:
                ring = k == at and self._is_ring(here)
                is_flat = here.tally is not None and here.tally.flat
                if not (self._is_tube(here) and (ring or not self._is_ring(here))) or (
                    flat is not None and flat != is_flat
                ):
                    break
                end, flat = k + 1, is_flat
            elif isinstance(items[k], Section):
                break
        return max(end, at + 1)

    def _end_of_short(self, at: int) -> int:
        """Where the short rows that begin at an item end."""
        while at in self.source.rounds and is_short(self.source.rounds[at]):
            at += 1
        return at

    # --- segments --------------------------------------------------------------------------------

    def _tube(self, at: int, end: int) -> None:
        rounds = [self.source.rounds[k] for k in range(at, end) if k in self.source.rounds]
        ring = self._is_ring(rounds[0])
        closed = self._closes(end)
        ends_part = not any(k in self.source.rounds for k in range(end, len(self.source.items)))
        wish = Wish(
            self.scale,
            0 if ring else self.live,
            self.start,
            last=self._end_count(rounds, closed=closed) if ends_part else None,
            multiple=self._multiple(end, ends_part=ends_part, closed=closed),
            closed=closed,
            extra=self.debt,
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
                upto = many if done == len(rounds) else sum(t <= done + 0.5 / max(self.scale, 1) for t in tube.at)
                upto = max(upto, laid)
                if (number := numbers[done - 1]) is not None:
                    self.tops[number] = base + max(upto, 1)
                continue
            if isinstance(self.source.items[k], Colour):
                continue
            upto = many if done == len(rounds) else sum(t <= done + 1e-6 for t in tube.at)
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
            self.lives[number] = tube.counts[k]

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
            self.lives[base + k + 1] = self.live
        for k, old in enumerate(rounds):
            if old.made.first is not None:
                self.tops[old.made.first] = base + max(1, round((k + 1) / len(rounds) * len(fresh)))
        self.number = base + len(fresh)
        last = rounds[-1].made.first
        self.expected = None if last is None else last + 1
        state = State.KEPT if len(fresh) == len(rounds) else State.MOVED
        self.rows.append(
            (state, "short rows", f"{len(rounds)} rows", f"{len(fresh)} rows", "They turn as far round as they did.")
        )

    def _event(self, here: SourceRound) -> None:
        """A round that is more than plain, in proportion; then what is on the hook is counted by working it."""
        if here.tally is None and self._only_chain(here):
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
        taken_up = None if onto is None else self._edge(onto, 0 if here.tally is None else here.tally.taken)
        if onto is not None and onto.edge is Edge.HELD and taken_up in self.held:
            self.held.remove(taken_up)
        if here.tally is None:
            self.live = self.live if taken_up is None else taken_up.after
            return
        live, held = self._worked(body)
        if here.made.count is not None:
            self.items[-1] = replace(made, count=live)
        if here.tally.held:
            self.held.append(EdgeSize(here.tally.held, held))
        self._tell(here, here.tally.live, live)
        self.live = live
        self.debt += (self.scale - 1) * here.tally.height
        if number is not None and here.made.first is not None:
            self.tops[here.made.first] = number
            self.lives[number] = self.live
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
            main = self.chain
        elif here.begins and not any(isinstance(i, Onto) for i in body):
            main = self._hook_edge(here)
        try:
            scaled = in_proportion(body, main, self._edge, lambda name, many: self._through(here, name, many))
        except CraftError as error:
            raise CraftError(
                f"{self.source.part.name or 'The part'}: {here.made.label or 'a line'} does not come out at this size, "
                f"{error.message}. Write it by hand, or take another yarn and hook.",
                field="scale",
            ) from error
        return tuple(self._renamed(i) if isinstance(i, Onto) else i for i in scaled)

    def _hook_edge(self, here: SourceRound) -> EdgeSize:
        """What a round without a start begins on behind a heading: the stitches that were held, or a joined chain."""
        if self.chain.before and here.before == self.chain.before:
            return self.chain
        return EdgeSize(here.before, self.live)

    def _edge(self, onto: Onto, taken: int) -> EdgeSize:
        match onto.edge:
            case Edge.CHAIN:
                return EdgeSize(taken, max(1, taken + self.chain.after - self.chain.before))
            case Edge.PIECE:
                return self._piece(onto.name, taken)
            case Edge.HELD if self.held:
                return next((h for h in self.held if h.before == taken), self.held[0])
            case Edge.FREE:
                return self._free(onto, taken)
            case _:
                return EdgeSize(taken, max(1, round(taken * self.scale)))

    def _piece(self, name: str, taken: int) -> EdgeSize:
        before, after = find_piece(name, self.around.before), find_piece(name, self.around.after)
        if before is None or after is None or len(before.edge) != taken:
            return EdgeSize(taken, max(1, round(taken * self.scale)))
        return EdgeSize(taken, len(after.edge))

    def _free(self, onto: Onto, taken: int) -> EdgeSize:
        number = self._free_round(onto)
        return EdgeSize(taken, self.lives.get(number, max(1, round(taken * self.scale))) if number else taken)

    def _free_round(self, onto: Onto) -> int | None:
        """The new round whose loops are free where those of `onto` were: the one below that worked in one loop."""
        if onto.round is None:
            return next((n for n in sorted(self.lives, reverse=True) if self._in_one_loop(n + 1)), None)
        below = self.tops.get(onto.round)
        if below is not None:
            near = sorted((n for n in self.lives if self._in_one_loop(n + 1)), key=lambda n: abs(n - below))
            if near and abs(near[0] - below) <= 1 + abs(self.scale):
                return near[0]
        return below

    def _in_one_loop(self, number: int) -> bool:
        return any(isinstance(i, Round) and i.first == number and i.loops is not Loops.BOTH for i in self.items)

    def _renamed(self, onto: Onto) -> Onto:
        return replace(onto, round=self._free_round(onto)) if onto.edge is Edge.FREE and onto.round else onto

    def _through(self, here: SourceRound, name: str, many: int) -> int:
        if not name:
            return self.live // 2 if 2 * many in (here.before, here.before - 1) else max(1, round(many * self.scale))
        edge = self._piece(name, many)
        return edge.after

    def _only_chain(self, here: SourceRound) -> bool:
        return any(isinstance(i, Chain) for i in here.made.body) and all(
            isinstance(i, Chain | Join | Colour) for i in here.made.body
        )

    def _chain(self, here: SourceRound) -> None:
        """A starting chain: what is worked along it scales, what only turns does not."""
        chain = next(i for i in here.made.body if isinstance(i, Chain))
        turning = self._turning_chains(here)
        many = turning + max(1, round((chain.count - turning) * self.scale))
        joined = any(isinstance(i, Join) for i in here.made.body)
        if joined:
            many = max(3, many)
        self.chain = EdgeSize(chain.count, many)
        body = tuple(replace(i, count=many) if isinstance(i, Chain) else i for i in here.made.body)
        self.items.append(replace(here.made, body=body))
        self.live = many
        self.rows.append((State.MOVED, "starting chain", f"ch {chain.count}", f"ch {many}", ""))

    def _turning_chains(self, here: SourceRound) -> int:
        order = sorted(self.source.rounds)
        at = next(k for k in order if self.source.rounds[k] is here)
        after = next((self.source.rounds[k] for k in order if k > at), None)
        hook = next((i for i in after.made.body if isinstance(i, FromHook)), None) if after is not None else None
        return 0 if hook is None else hook.nth - 1

    # --- between -----------------------------------------------------------------------------------

    def _begin(self, here: SourceRound) -> int:
        """The number of the round before this one; numbers that begin anew do so here."""
        first = here.made.first
        if first is not None and first != self.expected and self.expected is not None:
            self.number = self.tops.get(first - 1, first - 1) if first > 1 else 0
        elif first is not None and self.expected is None and not self.lives:
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

    def _closes(self, end: int) -> bool:
        """Whether the opening is drawn together behind an item, before anything else is worked."""
        for item in self.source.items[end:]:
            if isinstance(item, Round | Section):
                return False
            if isinstance(item, Step) and item.kind is StepKind.CLOSE:
                return True
        return False

    def _multiple(self, end: int, *, ends_part: bool, closed: bool) -> int:
        """What the stitches at the end of a segment must be a multiple of, for what is worked on them."""
        if ends_part:
            return 2 if self.around.even and not closed else 1
        after = next(
            (self.source.rounds[k] for k in range(end, len(self.source.items)) if k in self.source.rounds), None
        )
        if after is None or after.begins:
            return 1
        body = [i for i in after.made.body if not isinstance(i, Chain | Join)]
        if any(isinstance(i, Work) and i.through == "" and 2 * i.count == after.before for i in body):
            return 2
        if len(body) == 1 and isinstance(body[0], Repeat) and _is_patterned(after):
            return max(1, sum_of(body[0].body).takes)
        if any(isinstance(i, Skip) and 2 * i.count == after.before for i in body):
            return 2
        return 1

    def _word(self, item: Item) -> None:
        """A step, a note or a heading with the rounds and lengths of this size."""
        match item:
            case Step() | Note():
                text = resaid(item.text, self.tops, self.scale)
                if text != item.text:
                    self.rows.append((State.MOVED, "words", item.text, text, ""))
                if isinstance(item, Step) and item.threads:
                    self.rows.append((State.CHANGED, "sewn threads", item.text, text, "Sew them where they lay."))
                self.items.append(replace(item, text=text))
            case Section():
                self.items.append(item)
                self.debt = 0.0
                self.expected = -1 if self.expected is None else self.expected
            case _:
                self.items.append(item)
                if isinstance(item, Colour):
                    self.colour = item.name

    def _tell(self, here: SourceRound, before: int, after: int) -> None:
        kind = _kind_of(here)
        if kind:
            label = here.made.label or "the line"
            self.rows.append((State.MOVED, kind, f"{label}, {before} stitches", f"{after} stitches", ""))


def _is_patterned(here: SourceRound) -> bool:
    """Whether a round is a pattern of different stitches, which comes again by distance and not by angle."""
    keys = [i.stitch for i in here.stitches() if isinstance(i, Work)]
    main = main_base(here)
    other = sum((k != main and k not in _SHAPING) for k in keys)
    return bool(keys) and other * 3 >= len(keys) and len(set(keys)) > 2


_SHAPING = ("inc", "dec", "invdec", "inc3", "hdc-inc", "hdc-dec", "dc-inc", "dc-dec")


def _kind_of(here: SourceRound) -> str:
    body = here.made.body
    if any(isinstance(i, Work) and i.through for i in body):
        return "limbs worked in"
    if any(isinstance(i, Work) and i.through == "" for i in body):
        return "fold"
    if any(isinstance(i, Onto) and i.edge is Edge.PIECE for i in body):
        return "pieces taken in"
    if any(isinstance(i, Onto) and i.edge is Edge.FREE for i in body):
        return "free loops"
    if here.tally is not None and here.tally.held:
        return "split"
    if any(isinstance(i, FromHook) for i in body):
        return "start along a chain"
    return ""
