"""Where each symbol of a chart stands: rounds outward in a spiral, rows upwards, limbs side by side.

Lengths in chart units: one is the width of a single crochet's symbol.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from craft.rounds.fabric import KIND_KEYS, Tally, WorkedPart
from craft.rounds.stitches import stitch

RING_STEP = 1.25
"""Distance from a round to the next for stitches of height one."""

TALL = 0.75
"""How much of a taller stitch's height a chart shows."""

GAP = 3.0
"""Space between pieces drawn side by side."""


@dataclass(frozen=True, slots=True)
class Glyph:
    """One symbol. x, y: its middle, y downwards; angle: its top's direction, in degrees clockwise from up.

    key: registry key of the base stitch; spread: stitches that fan out of one place or close into one,
    negative for a decrease; number: of the stitch in the graph; round: index of the worked round.
    """

    x: float
    y: float
    angle: float
    key: str
    spread: int
    colour: int
    loops: int
    number: int
    round: int


@dataclass(frozen=True, slots=True)
class Chart:
    """Symbols, labels as (x, y, text), and the outer size as (left, top, width, height)."""

    glyphs: tuple[Glyph, ...]
    labels: tuple[tuple[float, float, str], ...]
    box: tuple[float, float, float, float]
    colours: tuple[str, ...]


def lay_out(part: WorkedPart, *, left_handed: bool = False) -> Chart:
    """Lay a worked part out, limbs below and beside each other; a left-handed chart is the mirror image."""
    glyphs: list[Glyph] = []
    labels: list[tuple[float, float, str]] = []
    runs = [(_rows if all(t.flat for t in run) else _spiral)(part, run) for run in _runs(part)]
    widest = max((width for _, _, width in runs), default=1.0)
    x, y, low = 0.0, 0.0, 0.0
    for found, names, width in runs:
        top = min([g.y for g in found] + [0.0]) - 1.5
        bottom = max([g.y for g in found] + [0.0]) + 1.5
        if x and x + width > widest:
            x, y = 0.0, low + GAP / 2
        across, down = x + width / 2, y - top
        glyphs += [_moved(g, across, down) for g in found]
        labels += [(at + across, height + down, text) for at, height, text in names]
        x += width + GAP
        low = max(low, y + bottom - top)
    if left_handed:
        glyphs = [Glyph(widest - g.x, g.y, -g.angle, *_rest(g)) for g in glyphs]
        labels = [(widest - at, height, text) for at, height, text in labels]
    return Chart(tuple(glyphs), tuple(labels), _box(glyphs, labels), part.graph.colours)


def _rest(g: Glyph) -> tuple[str, int, int, int, int, int]:
    return g.key, g.spread, g.colour, g.loops, g.number, g.round


def _moved(g: Glyph, across: float, down: float) -> Glyph:
    return Glyph(g.x + across, g.y + down, g.angle, *_rest(g))


def _runs(part: WorkedPart) -> list[list[Tally]]:
    """Rounds that follow each other on one edge."""
    runs: list[list[Tally]] = []
    for i, tally in enumerate(part.rounds):
        above = part.rounds[i - 1] if i else None
        anew = above is None or tally.section != above.section or (tally.start and i) or tally.flat != above.flat
        if anew:
            runs.append([])
        runs[-1].append(tally)
    return runs


def _symbols(part: WorkedPart, tally: Tally) -> list[tuple[str, int, int, int]]:
    """Symbols of a round: base key, spread, slots it fills, number of its first stitch."""
    graph = part.graph
    found: list[tuple[str, int, int, int]] = []
    i = tally.first
    while i < tally.end:
        entry = stitch(KIND_KEYS[graph.kind[i]])
        base = entry.base or entry.key
        many = max(entry.gives, 1)
        spread = entry.order if entry.change > 0 else -entry.order if entry.change < 0 else 1
        found.append((base, spread, many, i))
        i += many
    return found


@dataclass(frozen=True, slots=True)
class _Track:
    """A round's way on paper: a circle, drawn out along a chain of `length` when it grows from one.

    It begins at the right end of the upper side of a chain, or at the foot of a circle, and runs
    anticlockwise, as the outside faces a right-handed maker.
    """

    length: float

    def around(self, radius: float) -> float:
        """Length of the way at a distance from its middle."""
        return 2 * self.length + 2 * math.pi * radius

    def radius_for(self, slots: float) -> float:
        """The least distance at which so many symbols have room."""
        return (slots - 2 * self.length) / (2 * math.pi)

    def at(self, share: float, radius: float) -> tuple[float, float, float]:
        """Place and direction of the top at a share of the way."""
        if not self.length:
            turn = 2 * math.pi * share
            return radius * math.sin(turn), radius * math.cos(turn), 180 - math.degrees(turn)
        half, bend = self.length / 2, math.pi * radius
        along = share * self.around(radius)
        for side in (1, -1):
            if along <= self.length:
                return side * (half - along), -side * radius, 0.0 if side == 1 else 180.0
            along -= self.length
            if along <= bend:
                turn = along / radius
                x, y = -side * (half + radius * math.sin(turn)), -side * radius * math.cos(turn)
                return x, y, (-math.degrees(turn) if side == 1 else 180 - math.degrees(turn))
            along -= bend
        return half, -radius, 0.0


def _chain_below(part: WorkedPart, tally: Tally) -> list[int]:
    """Chains that a round grows from along both sides, in the order of making."""
    graph = part.graph
    below: set[int] = set()
    for i in range(tally.first, tally.end):
        below.update(graph.parents_of(i))
    chains = sorted(i for i in below if KIND_KEYS[graph.kind[i]] == "ch" and i < tally.first)
    return chains if tally.start and not tally.joined and len(chains) * 2 - 2 <= tally.made else []


def _spiral(part: WorkedPart, run: Sequence[Tally]) -> tuple[list[Glyph], list[tuple[float, float, str]], float]:
    """Rounds as rings that run on in a spiral; a chain at the start lies along the middle."""
    graph = part.graph
    labels: list[tuple[float, float, str]] = []
    index = {id(t): i for i, t in enumerate(part.rounds)}
    chains = _chain_below(part, run[0])
    track = _Track(float(max(len(chains) - 1, 0)))
    glyphs = [
        Glyph(
            x=i - track.length / 2,
            y=0.0,
            angle=0.0,
            key="ch",
            spread=1,
            colour=int(graph.colour[c]),
            loops=0,
            number=c,
            round=index[id(run[0])],
        )
        for i, c in enumerate(chains)
    ]
    radius = 0.6
    for tally in run:
        symbols = _symbols(part, tally)
        slots = max(sum(s[2] for s in symbols), 1) + LABEL_ROOM
        start = radius
        radius = max(radius + RING_STEP * _tall(tally), track.radius_for(slots) * 1.02)
        at = 0
        for base, spread, many, number in symbols:
            share = (at + many / 2) / slots
            here = radius if tally.joined else start + (radius - start) * (0.6 + 0.4 * share)
            x, y, angle = track.at(share, here)
            glyphs.append(_glyph(part, (x, y, angle), base, spread, number, index[id(tally)]))
            at += many
        x, y, _ = track.at(1 - LABEL_ROOM / 2 / slots, radius)
        labels.append((x, y, tally.label.removeprefix("R")))
    return glyphs, labels, 2 * radius + track.length + 2.5


LABEL_ROOM = 0.9
"""Slots that are left free at the end of a round for its number."""


def _tall(tally: Tally) -> float:
    return 1 + (max(tally.height, 0.5) - 1) * TALL


def _glyph(
    part: WorkedPart, place: tuple[float, float, float], base: str, spread: int, number: int, round_at: int
) -> Glyph:
    graph = part.graph
    return Glyph(*place, base, spread, int(graph.colour[number]), int(graph.loops[number]), number, round_at)


def _rows(part: WorkedPart, run: Sequence[Tally]) -> tuple[list[Glyph], list[tuple[float, float, str]], float]:
    """Rows from the bottom up, each read from the side where it begins."""
    glyphs: list[Glyph] = []
    labels: list[tuple[float, float, str]] = []
    y = 0.0
    widest = 1
    for i, tally in enumerate(run):
        symbols = _symbols(part, tally)
        slots = max(sum(s[2] for s in symbols), 1)
        widest = max(widest, slots)
        y -= RING_STEP * _tall(tally)
        direction = -1 if i % 2 == 0 else 1
        at = 0
        for base, spread, many, number in symbols:
            x = direction * ((at + many / 2) - slots / 2)
            glyphs.append(_glyph(part, (x, y, 0.0), base, spread, number, part.rounds.index(tally)))
            at += many
        labels.append((-direction * (slots / 2 + 1.1), y, tally.label.removeprefix("Row ").removeprefix("R")))
    return glyphs, labels, widest + 4.0


def _box(glyphs: Sequence[Glyph], labels: Sequence[tuple[float, float, str]]) -> tuple[float, float, float, float]:
    xs = [g.x for g in glyphs] + [x for x, _, _ in labels] or [0.0]
    ys = [g.y for g in glyphs] + [y for _, y, _ in labels] or [0.0]
    left, top = min(xs) - 1.5, min(ys) - 1.5
    return left, top, max(xs) + 1.5 - left, max(ys) + 1.5 - top
