"""What of a figure is drawn in true size: felt and satin stitch, base discs, embroidered lines, the strip of the face.

Lines on a settled surface are unrolled from it; where a part is not settled yet, by the gauge: a stitch along the round is a
stitch's width, a round up is its height.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

from craft.design.anchors import PlaceNow
from craft.design.design import Design, EyeKind, MadeOf, Mark
from craft.design.running import RunPart, worked_parts
from craft.figure.placement import Surface, unrolled
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Step, StepKind
from craft.text.catalogue import ENGLISH, Words
from craft.units import inches

LEAST_MM = 1.0
"""What is smaller has no template."""

DISC_EASE_MM = 2.0
"""By which a base disc is narrower than its base, so that it lies inside (common practice, no source)."""

STRIP_STITCHES = 3
"""Stitches of the face's strip beside the outermost thing on it."""


class Kind(StrEnum):
    """What is done with a template: cut from felt, laid into a base, stitched over, or held against the face."""

    FELT = "felt"
    DISC = "disc"
    STITCHED = "stitched"
    STRIP = "strip"


AROUND = 96
"""Corners of a round outline."""

Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Line:
    """A line of a template in mm, y upwards. closed: an outline."""

    points: tuple[Point, ...]
    closed: bool = False


@dataclass(frozen=True, slots=True)
class Word:
    """A word of a template, in the middle of a place in mm."""

    at: Point
    text: str


@dataclass(frozen=True, slots=True)
class Template:
    """Something in true size. wide_mm, tall_mm: of its own, all lines within. many: how often it is cut or stitched."""

    kind: Kind
    name: str
    wide_mm: float
    tall_mm: float
    many: int
    lines: tuple[Line, ...]
    words: tuple[Word, ...] = ()

    @property
    def size_said(self) -> str:
        """Its size in both units: '12 × 12 mm / ½ × ½ in'."""
        inch = f"{inches(self.wide_mm).removesuffix(' in')} × {inches(self.tall_mm)}"
        return f"{self.wide_mm:.0f} × {self.tall_mm:.0f} mm / {inch}"

    def said(self, words: Words = ENGLISH) -> str:
        """What it is, in a language: 'Felt for window: 12 × 12 mm, cut 1'."""
        size = f"{self.wide_mm:.0f} × {self.tall_mm:.0f} mm"
        if self.kind is Kind.FELT:
            return words.say("Felt for {name}: {size}, cut {n}", name=self.name, size=size, n=self.many)
        if self.kind is Kind.DISC:
            return words.say("Base disc of {name}: {size}, cut {n}", name=self.name, size=size, n=self.many)
        if self.kind is Kind.STITCHED:
            said = words.say("Embroidery of {name}: {size}", name=self.name, size=size)
            return f"{said}, {words.say('and mirrored')}" if self.many > 1 else said
        return words.say("Strip for the face of {name}: hold its middle line to the front", name=self.name)


Surfaces = Mapping[str, Surface]
"""The parts of a figure that are settled, by key."""

NONE_SETTLED: Surfaces = MappingProxyType({})


def templates_of(design: Design, parts: Sequence[RunPart], surfaces: Surfaces = NONE_SETTLED) -> tuple[Template, ...]:
    """Everything of a figure that has a template, in its order."""
    worked = worked_parts(parts)
    found: list[Template] = []
    for mark in design.marks:
        found += _of_mark(mark, worked, design.gauge_of(mark.place.on), surfaces.get(mark.place.on))
    for part in parts:
        if part.worked is not None and any(_lays_disc(i) for i in part.written.items):
            found += _disc(part.name, part.worked, design.gauge_of(part.key))
    found += _strip(design, worked)
    return tuple(t for t in found if t.wide_mm >= LEAST_MM)


def _lays_disc(item: object) -> bool:
    return isinstance(item, Step) and item.kind is StepKind.DISC


def _of_mark(mark: Mark, worked: Mapping[str, WorkedPart], gauge: Gauge, surface: Surface | None) -> Iterator[Template]:
    many = 2 if mark.paired else 1
    name = mark.name or "a mark"
    if mark.covers and mark.made_of is not MadeOf.BLUSH:
        kind = Kind.FELT if mark.made_of is MadeOf.FELT else Kind.STITCHED
        yield Template(kind, name, mark.wide_mm, mark.tall_mm, many, (_oval(mark.wide_mm, mark.tall_mm),))
    elif mark.to is not None and mark.place.on in worked and mark.to.on == mark.place.on:
        here, there = mark.place.now(worked), mark.to.now(worked)
        flat = _by_gauge(here, there, gauge) if surface is None else _by_surface(here, there, surface)
        left, low = (min(p[k] for p in flat) for k in (0, 1))
        line = tuple((x - left, y - low) for x, y in flat)
        wide, tall = (max(p[k] for p in line) for k in (0, 1))
        yield Template(Kind.STITCHED, name, wide, tall, many, (Line(line),))


def _by_gauge(here: PlaceNow, there: PlaceNow, gauge: Gauge) -> tuple[Point, ...]:
    """A line between two places by the size of stitches: they count to the viewer's left, rounds towards the part's end,
    which stands higher."""
    return tuple((-now.stitch * gauge.stitch_mm, now.round * gauge.round_mm) for now in (here, there))


def _by_surface(here: PlaceNow, there: PlaceNow, surface: Surface) -> tuple[Point, ...]:
    """The same as it lies on the settled part."""
    rows = [min(now.round, surface.rounds) - 1 for now in (here, there)]
    angles = [
        2 * math.pi * now.stitch / max(surface.count_of(row), 1) for now, row in zip((here, there), rows, strict=True)
    ]
    return unrolled(surface, (rows[0], angles[0]), (rows[1], angles[1]))


def _oval(wide: float, tall: float) -> Line:
    ring = _ellipse(wide / 2, tall / 2)
    return Line(tuple((x + wide / 2, y + tall / 2) for x, y in ring), closed=True)


def _ellipse(a: float, b: float) -> list[Point]:
    """Points around an ellipse with its middle at 0, closer than a two thousandth of its radius to it."""
    return [(a * math.cos(t), b * math.sin(t)) for t in (2 * math.pi * k / AROUND for k in range(AROUND))]


def _disc(name: str, worked: WorkedPart, gauge: Gauge) -> Iterator[Template]:
    """The flat start of a part: as many rounds as it grows from its start, round or along a chain."""
    counts = [t.live for t in worked.trunk if t.live > 0]
    flat = next((n for n in range(1, len(counts)) if counts[n] <= counts[n - 1]), len(counts))
    radius = flat * gauge.round_mm
    around = counts[flat - 1] * gauge.stitch_mm
    straight = max(0.0, (around - 2 * math.pi * radius) / 2)
    if straight < gauge.stitch_mm:  # round: what the stitches go around decides, not how high they are
        radius, straight = around / (2 * math.pi), 0.0
    radius -= DISC_EASE_MM / 2
    if radius <= LEAST_MM:
        return
    yield Template(Kind.DISC, name, straight + 2 * radius, 2 * radius, worked.make, (_stadium(straight, radius),))


def _stadium(straight: float, radius: float) -> Line:
    """A disc drawn out along a straight line: two half circles and two lines."""
    steps = [math.pi * k / 48 for k in range(49)]
    right = [(straight + radius + radius * math.sin(a), radius - radius * math.cos(a)) for a in steps]
    left = [(radius - radius * math.sin(a), radius + radius * math.cos(a)) for a in steps]
    return Line(tuple(right + left), closed=True)


def _strip(design: Design, worked: Mapping[str, WorkedPart]) -> Iterator[Template]:
    """A strip to hold against the face: a tick for every stitch, the middle, the eyes, the marks beside them."""
    eyes = design.eyes
    if eyes.kind is EyeKind.NONE or eyes.place is None or eyes.place.on not in worked:
        return
    run, at = worked[eyes.place.on], eyes.place.now(worked).round
    gauge = design.gauge_of(eyes.place.on)
    spots = [("eye", side * eyes.between / 2, float(at)) for side in (1, -1)]
    for mark in design.marks:
        if mark.place.on == eyes.place.on and mark.to is None:
            now = mark.place.now(worked)
            sides = (1, -1) if mark.paired and now.stitch else (1,)
            spots += [(mark.name or "mark", side * now.stitch, now.round - 0.5) for side in sides]
    half = math.ceil(max(abs(s) for _, s, _ in spots)) + STRIP_STITCHES
    low, high = min(r for _, _, r in spots) - 1, max(r for _, _, r in spots) + 1
    wide, tall = 2 * half * gauge.stitch_mm, (high - low) * gauge.round_mm
    lines = [Line(((0, 0), (wide, 0), (wide, tall), (0, tall)), closed=True), Line(((wide / 2, 0), (wide / 2, tall)))]
    lines += [Line(((k * gauge.stitch_mm, 0), (k * gauge.stitch_mm, 1.5))) for k in range(1, 2 * half)]
    words = []
    for name, stitch, round_ in spots:
        x, y = wide / 2 - stitch * gauge.stitch_mm, (round_ - low) * gauge.round_mm
        size = (eyes.mm or 6.0) if name == "eye" else 2.0
        lines.append(Line(tuple((x + px, y + py) for px, py in _ellipse(size / 2, size / 2)), closed=True))
        if name != "eye":
            words.append(Word((x, y + 2.2), name))
    yield Template(Kind.STRIP, run.name or "the figure", wide, tall, 1, tuple(lines), tuple(words))
