"""Joins: an edge of one part to an edge or a place of another, and how many stitches meet there."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum

from craft.design.anchors import Place
from craft.errors import require
from craft.figure.placement import Bend
from craft.rounds.fabric import WorkedPart


class EdgeOf(StrEnum):
    """Which edge of a part is joined: its open end, free loops of a round, stitches held back, a flat side, or its start
    (it stands on its first round, upside down)."""

    END = "end"
    FREE = "free"
    HELD = "held"
    SIDE = "side"
    START = "start"


class Manner(StrEnum):
    """How an edge is joined.

    EDGE: stitch to stitch with another edge. OPEN: an open ring sewn down onto a surface. PINCHED: pressed flat
    first. LAID: closed, and laid on. WORKED_IN: by the host's round, no sewing. MERGED: worked on together.
    """

    EDGE = "edge"
    OPEN = "open"
    PINCHED = "pinched"
    LAID = "laid"
    WORKED_IN = "worked-in"
    MERGED = "merged"


class Fixing(StrEnum):
    """What holds a part: it is sewn on for good, or comes off: with snap fasteners, hook-and-loop tape, or slipped on."""

    SEWN = "sewn"
    SNAPS = "snaps"
    TAPE = "hook-and-loop"
    SLIPPED = "slipped-on"


MOST_BENDS = 4
"""Places at which one limb is bent."""

MOST_SPREAD = 60
"""Pieces of a part that are spread around one round."""


@dataclass(frozen=True, slots=True)
class Join:
    """The part with the key `part` joined to that with the key `host`.

    place: where on the host, None while only the two are named. manner: None while she has not said it. paired: a
    second piece at the mirrored place. tilt: degrees up from standing straight off the surface. turn: degrees about
    the way it stands. wide: stitches of the host it covers. fixing: what holds it. spread: how many of the part are
    spread evenly around the round, this place the first. bends: of the wire in it, from its seam on.
    """

    key: str
    part: str
    host: str
    place: Place | None = None
    edge: EdgeOf = EdgeOf.END
    manner: Manner | None = None
    paired: bool = False
    tilt: float = 0.0
    turn: float = 0.0
    wide: int | None = None
    fixing: Fixing = Fixing.SEWN
    spread: int = 1
    bends: tuple[Bend, ...] = ()

    def __post_init__(self) -> None:
        require(len(self.bends) <= MOST_BENDS, f"A limb is bent in up to {MOST_BENDS} places.", field="bends")
        require(self.place is None or self.place.on == self.host, "A join's place lies on its host.", field="place")
        require(abs(self.tilt) <= 90, "A part tilts by at most 90 degrees.", field="tilt")
        require(abs(self.turn) <= 360, "A part turns by at most 360 degrees.", field="turn")
        require(1 <= self.spread <= MOST_SPREAD, f"From 1 to {MOST_SPREAD} are spread around a round.", field="spread")
        alone = self.spread == 1 or not self.paired
        require(alone, "What is spread around a round has no mirror image besides.", field="spread")
        require(self.wide is None or 1 <= self.wide <= 500, "A part covers from 1 to 500 stitches.", field="wide")

    @property
    def pieces(self) -> int:
        """How many pieces of its part it holds."""
        return 2 if self.paired else self.spread

    @property
    def sewn(self) -> bool:
        """Whether it is sewn, neither worked nor put on to come off again."""
        return not self.worked and self.fixing is Fixing.SEWN

    @property
    def worked(self) -> bool:
        """Whether the rounds of its host work it."""
        return self.manner in (Manner.WORKED_IN, Manner.MERGED)

    @property
    def comes_off(self) -> bool:
        """Whether the part can be put on and taken off."""
        return not self.worked and self.fixing is not Fixing.SEWN


@dataclass(frozen=True, slots=True)
class Meeting:
    """Stitches that meet in a join: of the part's edge and of the host's; 0 for a surface that has no edge there."""

    part: int
    host: int
    manner: Manner

    @property
    def problem(self) -> str | None:
        """What is in the way of joining them, None when nothing is."""
        if self.manner is Manner.PINCHED and self.part % 2:
            return f"{self.part} stitches do not pinch evenly: an even number closes flat."
        if self.manner is Manner.EDGE and self.host and self.part != self.host:
            return f"The openings differ, {self.part} on {self.host} stitches: make them equal to join them stitch to stitch."
        return None


def meeting(join: Join, worked: Mapping[str, WorkedPart]) -> Meeting | None:
    """How many stitches meet in a join as the rounds are now; None for a part that is shut, or that is not there."""
    part, host = worked.get(join.part), worked.get(join.host)
    if part is None or host is None or part.closed or not part.rounds or join.edge is EdgeOf.START:
        return None
    own = part.rounds[-1].live
    at_end = join.place is not None and join.place.now(worked).round >= len(host.counts)
    if at_end and not host.closed:
        manner = Manner.EDGE if join.manner in (None, Manner.OPEN, Manner.EDGE) else join.manner
        return Meeting(own, host.rounds[-1].live, manner)
    return Meeting(own, 0, join.manner or Manner.OPEN)


def seam_stitches(join: Join, worked: Mapping[str, WorkedPart]) -> float | None:
    """Length of a join's seam in stitch widths, None when nothing is sewn or the part is not there."""
    part = worked.get(join.part)
    if part is None or not join.sewn:
        return None
    widest, edge = max(part.counts), 0 if part.closed else part.rounds[-1].live
    kind = join.manner or (Manner.OPEN if edge else Manner.LAID)
    around = {Manner.LAID: float(join.wide or widest / 2), Manner.PINCHED: edge / 2}.get(kind, float(edge))
    return around or widest / 3


def bends_at(join: Join, before: WorkedPart | None, after: WorkedPart | None) -> tuple[Bend, ...]:
    """A limb's bends in proportion to its length when its rounds are others: an elbow stays an elbow."""
    if before is None or after is None:
        return join.bends
    was, now = (len([t for t in worked.rounds if t.live > 0]) for worked in (before, after))
    if not was or not now:
        return join.bends
    return tuple(replace(b, round=min(max(round((b.round - 0.5) / was * now + 0.5), 1), now)) for b in join.bends)


def pieces_worked_in(worked: WorkedPart) -> set[str]:
    """Names of the parts that a part's own rounds take in; copies are numbered behind the name."""
    names = [name for name in worked.graph.pieces if name]
    return {*names, *(re.sub(r" \d+$", "", name) for name in names)}


def loose_copies(worked: Mapping[str, WorkedPart]) -> dict[str, WorkedPart]:
    """Every part with as many copies as no other part takes in, those without any left out.

    A part that is taken in is in its host's stitch graph: yarn, filling and hours count it there, once.
    """
    taken: dict[str, int] = {}
    for host in worked.values():
        for name in host.graph.pieces:
            plain = re.sub(r" \d+$", "", name)
            taken[plain] = taken.get(plain, 0) + host.make
    left = {key: (w, w.make - taken.get(w.name or "", 0)) for key, w in worked.items()}
    return {key: replace(w, make=many) for key, (w, many) in left.items() if many > 0}


def left_over(joins: Sequence[Join], worked: Mapping[str, WorkedPart]) -> dict[str, int]:
    """Of every part that has a place, how many of it are made beyond those that its places hold, where there are any.

    A part that has no place at all is not among them.
    """
    held: dict[str, int] = {}
    for join in joins:
        if join.place is not None and join.part != join.host and {join.part, join.host} <= worked.keys():
            # Each of several hosts carries its own.
            held[join.part] = held.get(join.part, 0) + (0 if join.worked else join.pieces * worked[join.host].make)
    loose = loose_copies(worked)
    more = {key: loose[key].make - many for key, many in held.items() if key in loose and many}
    return {key: many for key, many in more.items() if many > 0}


def made_alone(worked: Mapping[str, WorkedPart]) -> dict[str, WorkedPart]:
    """Parts that are pieces of their own, not worked into another: what each is counted and drawn by once."""
    inside = {name for w in worked.values() for name in pieces_worked_in(w)}
    return {key: w for key, w in worked.items() if w.name not in inside}


def as_worked(join: Join, worked: Mapping[str, WorkedPart]) -> Join:
    """A join as the rounds have it: worked in where its host's own rounds take in every piece of its part, whatever was
    said of it."""
    part, host = worked.get(join.part), worked.get(join.host)
    if join.worked or part is None or host is None or part.name not in pieces_worked_in(host):
        return join
    return join if join.part in loose_copies(worked) else replace(join, manner=Manner.WORKED_IN)


def joins_in_rounds(worked: Mapping[str, WorkedPart]) -> Sequence[tuple[str, str]]:
    """Keys (part, host) of every part that the rounds of another take in."""
    by_name = {w.name: key for key, w in worked.items()}
    return [(by_name[name], host) for host, w in worked.items() for name in pieces_worked_in(w) if name in by_name]
