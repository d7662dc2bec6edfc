"""Ports: where a part can be gone on from, or begun: an edge with so many stitches and so wide."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from craft.design.design import Design
from craft.design.grading.source import SourcePart, SourceRound, source_of
from craft.design.running import RunPart, run_one, run_parts
from craft.errors import CraftError, require
from craft.gauge import Gauge
from craft.rounds.fabric import MAIN_COLOUR, Piece, Tally
from craft.rounds.pattern import Item
from craft.text.pieces_named import speaks_of_pieces


@dataclass(frozen=True, slots=True)
class Port:
    """An edge of a part after its round `round`: so many stitches, so wide around. end: the part ends there, open.

    joined: rounds there are closed with a slip stitch; flat: they are rows.
    """

    part: str
    name: str
    round: int
    count: int
    girth_mm: float
    end: bool
    joined: bool
    flat: bool


@dataclass(frozen=True)
class Cut:
    """A part of a design, cut at a round: of a base the last one that stays, of a piece the first one that is taken."""

    design: Design
    part: str
    round: int

    @cached_property
    def run(self) -> RunPart:
        """The part, read and run; CraftError when it has no rounds."""
        part = self.design.part(self.part)
        found = None if part is None else run_one(self.design, part)
        require(found is not None and found.worked is not None, "There are no rounds to cut.", field="part")
        assert found is not None
        require(found.faults == 0, f"{found.name}: mend its rounds first; they do not come out.", field="part")
        return found

    @property
    def gauge(self) -> Gauge:
        """The gauge to reckon with for the part."""
        return self.design.gauge_of(self.part)

    @cached_property
    def pieces(self) -> Mapping[str, Piece]:
        """Other parts that its rounds may take in; none where they speak of none."""
        others = [p for p in self.design.parts if p.key != self.part]
        if not speaks_of_pieces(self.run.part.text, tuple(p.name for p in others)):
            return {}
        runs = (run_one(self.design, p) for p in others)
        return {p.name: w.piece for p in runs if (w := p.worked) is not None}

    @cached_property
    def source(self) -> SourcePart:
        """Its rounds one by one."""
        return source_of(self.run.written, self.run.part.colour or MAIN_COLOUR, dict(self.pieces))

    @cached_property
    def at(self) -> int:
        """Which of the items is the round; CraftError when there is none of that number in the part's first tube."""
        first = {t.number for t in self.run.worked.trunk} if self.run.worked else set()
        for at, found in self.source.rounds.items():
            if found.tally is not None and found.made.first == self.round and self.round in first:
                return at
        least, most = (end(filter(None, first), default=1) for end in (min, max))
        raise CraftError(
            f"{self.run.name} cannot be cut at R{self.round}; its first tube has R{least} to R{most}.", field="round"
        )

    @property
    def here(self) -> SourceRound:
        """The round that it is cut at."""
        return self.source.rounds[self.at]

    @property
    def tally(self) -> Tally:
        """What came of that round."""
        found = self.here.tally
        assert found is not None
        return found

    @property
    def items(self) -> tuple[Item, ...]:
        """All items of the part, every round by itself."""
        return tuple(self.source.items)


def ports_of(design: Design) -> tuple[Port, ...]:
    """Every open end of a design's parts."""
    found = []
    for run in run_parts(design):
        worked = run.worked
        if worked is None or worked.closed or not worked.rounds[-1].live or not len(worked.edge):
            continue
        last = worked.rounds[-1]
        girth = last.live * design.gauge_of(run.key).stitch_mm
        found.append(
            Port(run.key, run.name, len(worked.rounds), last.live, girth, end=True, joined=last.joined, flat=last.flat)
        )
    return tuple(found)


def ports_along(design: Design, part: str) -> tuple[Port, ...]:
    """A port after every numbered round of a part's first tube."""
    found = design.part(part)
    run = None if found is None else run_one(design, found)
    worked = None if run is None else run.worked
    if run is None or worked is None:
        return ()
    width = design.gauge_of(part).stitch_mm
    many = len(worked.rounds)
    return tuple(
        Port(
            part,
            run.name,
            t.number,
            t.live,
            t.live * width,
            end=at == many and not worked.closed,
            joined=t.joined,
            flat=t.flat,
        )
        for at, t in enumerate(worked.trunk, 1)
        if t.number is not None and t.live
    )
