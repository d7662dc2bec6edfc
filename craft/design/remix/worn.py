"""What a figure wears and holds and can put off again: what each thing fits, and each as a design of its own."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Literal

from craft.design.design import Design, Eyes, Posture, Source
from craft.design.joins import Fixing, Join
from craft.design.remix.pieces import piece_from
from craft.design.running import run_parts, worked_parts
from craft.errors import require
from craft.rounds.fabric import WorkedPart

TIGHT, LOOSE = -0.02, 0.15
"""Ease, as a share of what it goes around, below which an opening pulls, and above which it slides about
(common practice, no source)."""


FASTENER_MM = 40.0
"""Of an opening that one snap fastener, or one short piece of tape, holds (common practice, no source)."""

LEAST_FASTENERS = 2
"""With one alone a part turns about it."""


@dataclass(frozen=True, slots=True)
class Worn:
    """A part that comes off. key, name: of it; host: name of what wears it. fixing: what holds it.

    around_mm: the host where its opening comes to lie; own_mm: its opening; both at the design's gauge, None for
    something that goes around nothing (it is held, or laid on).
    """

    key: str
    name: str
    host: str
    fixing: Fixing
    around_mm: float | None
    own_mm: float | None

    @property
    def ease_mm(self) -> float | None:
        """By which its opening is wider than what it goes around."""
        return None if self.own_mm is None or self.around_mm is None else self.own_mm - self.around_mm

    @property
    def fasteners(self) -> int:
        """How many snap fasteners, or pieces of tape, hold it, by an estimate; none for what is slipped on or sewn."""
        if self.fixing not in (Fixing.SNAPS, Fixing.TAPE):
            return 0
        return max(LEAST_FASTENERS, round((self.own_mm or 0) / FASTENER_MM))

    @property
    def fit(self) -> Literal["", "tight", "fits", "loose"]:
        """In a word: 'tight', 'fits', 'loose'; empty where nothing goes around anything."""
        if self.ease_mm is None or not self.around_mm:
            return ""
        share = self.ease_mm / self.around_mm
        return "tight" if share < TIGHT else "loose" if share > LOOSE else "fits"

    def said(self, figure: str = "") -> str:
        """What it fits, for whoever makes it alone. figure: of which figure its host is."""
        made_for = f"Made for {self.host}{f' of {figure}' if figure else ''}"
        if self.ease_mm is None:
            return f"{made_for}."
        ease = f"{abs(self.ease_mm):.0f} mm {'wider' if self.ease_mm >= 0 else 'tighter'}"
        return (
            f"{made_for}, about {(self.around_mm or 0) / 10:.1f} cm around where it sits; its own opening is "
            f"about {(self.own_mm or 0) / 10:.1f} cm around, {ease}."
        )


def worn_of(design: Design) -> tuple[Worn, ...]:
    """Everything that comes off, in the order of the joins."""
    worked = worked_parts(run_parts(design))
    names = {p.key: p.name for p in design.parts}
    return tuple(
        Worn(j.part, names[j.part], names[j.host], j.fixing, *_girths(j, worked, design))
        for j in design.joins
        if j.comes_off and j.part in names and j.host in names
    )


def worn_again(figure: Design, key: str, accessory: Design) -> Worn | None:
    """A part that comes off a figure, with the opening that it has in a design of its own by now; None where the figure
    does not wear it any more, or that design has no such part."""
    there = next((w for w in worn_of(figure) if w.key == key), None)
    own = worked_parts(run_parts(accessory)).get(key)
    if there is None or own is None or not own.rounds:
        return None
    now = None if there.own_mm is None else _opening_mm(own, accessory.gauge_of(key).stitch_mm)
    return replace(there, own_mm=now)


def _girths(join: Join, worked: Mapping[str, WorkedPart], design: Design) -> tuple[float | None, float | None]:
    """Around the host where the part's opening lies, and around that opening, in mm.

    What starts from a ring is a cap: it covers as many of the host's rounds as it is high, from its place towards where
    the host is wider; a brim stands off below it. What is open at both ends lies at its place.
    """
    part, host = worked.get(join.part), worked.get(join.host)
    if part is None or host is None or join.place is None or part.closed or not part.trunk[-1].live:
        return None, None
    counts = [t.live for t in host.trunk if t.live]
    at = min(join.place.now(worked).round, len(counts)) - 1
    if _is_cap(part):
        at = _rim(counts, at, _crown(part))
    around = design.gauge_of(join.host).stitch_mm
    return counts[at] * around, _opening_mm(part, design.gauge_of(join.part).stitch_mm)


def _is_cap(part: WorkedPart) -> bool:
    return part.trunk[0].taken == 0 and part.trunk[0].live <= MOST_RING


def _opening_mm(part: WorkedPart, stitch_mm: float) -> float:
    """Around the edge that goes about what wears it: the last one, above the brim of a cap."""
    return part.trunk[_crown(part) - 1 if _is_cap(part) else -1].live * stitch_mm


def _crown(part: WorkedPart) -> int:
    """Rounds of a cap without its brim, which flares at once from an edge that went straight or drew in."""
    counts = [t.live for t in part.trunk]
    flares = (
        at
        for at in range(len(counts) - 1, 1, -1)
        if counts[at] >= BRIM * counts[at - 1] and counts[at - 1] <= counts[at - 2]
    )
    return next(flares, len(counts))


BRIM = 1.15
"""By how much a round grows at once where a brim begins."""

MOST_RING = 12
"""Stitches of a first round that is a ring; a tube that is open at both ends starts wider."""


def _rim(counts: list[int], at: int, high: int) -> int:
    """The host's round at which the rim of a cap lies that is `high` rounds high and sits on round `at`."""
    below, above = max(at - high, 0), min(at + high, len(counts) - 1)
    return max(below, above, key=lambda i: (counts[i], -abs(i - at)))


def alone(design: Design, key: str, designer: str) -> Design:
    """Something that comes off as a design of its own, that says what it fits. designer: who is credited for the figure.

    CraftError for a part that does not come off.
    """
    found = next((w for w in worn_of(design) if w.key == key), None)
    require(found is not None, "Only what comes off can be published alone: say first what holds it.", field="part")
    assert found is not None
    parts = [key, *_on(design, key)]
    taken = piece_from(design, parts)
    fits = found.said(f"{design.name}, version {design.printed.version}")
    made_of = Source(design.name, designer, design.printed.version, own=True)
    return replace(
        taken,
        name=f"{found.name} for {design.name}"[:60].strip(),
        eyes=taken.eyes if taken.eyes.place is not None else Eyes(),
        posture=Posture.STANDING,
        brief=replace(design.brief, intro=fits, notes="", height_mm=None),
        sizes=(),
        sources=(*taken.sources, replace(made_of, parts=tuple(p.name for p in taken.parts))),
    )


def _on(design: Design, key: str) -> list[str]:
    """Parts that sit on a part, and on those."""
    found: list[str] = []
    waiting = [key]
    while waiting:
        host = waiting.pop()
        more = [j.part for j in design.joins if j.host == host and j.part not in found and j.part != key]
        found += more
        waiting += more
    return list(dict.fromkeys(found))
