"""Drafting panels: rows for each piece of a skin, and an edging whose stitches match across every seam.

A panel is as wide as its rows and one round of edging on either side: (n - 1) w + 2 h, and (rows + 2) h tall.
Two panels that meet have the same number of edging stitches there, and one in each corner.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.errors import require
from craft.fitting.panels.rows import edging, edging_around, rows_of
from craft.fitting.panels.slices import Slices, slices_of
from craft.gauge import Gauge
from craft.rounds.pattern import Item, Part, Step, StepKind
from craft.shape.target import Patch, PatchEdge

LEAST_SQUARE, FEWEST_ROWS, MOST_ROWS = 3, 2, 400
"""Stitches of the narrowest row of a four-sided panel; rows of the shortest and of the tallest panel."""

ACROSS = 0.7
"""How squarely an edge must lie across the rows to be their base or their top."""

SHARP = 50.0
"""Degrees by which an outline must turn for a corner to have three stitches."""

_FASTEN_OFF = Step(StepKind.FASTEN_OFF, "Fasten off and leave a long tail for sewing.")

DOMED = 0.03
"""Share of its area by which a panel must be round before its rows are shaped all along and not at their ends."""


@dataclass(frozen=True, slots=True)
class PanelEdge:
    """One side of a panel. letter: of its seam. stitches: between the corners. first: which stitch of the edging is its
    first, from 0. other, mate: the panel and its side that are sewn to it."""

    letter: str
    stitches: int
    first: int
    length_mm: float
    other: int
    mate: int


@dataclass(frozen=True, slots=True)
class Panel:
    """A panel and its rows. edges: in the order of its edging, counter-clockwise from outside.

    corners: whether the edging has three stitches in each corner, or runs on evenly. begun: at which of the
    patch's edges the edging begins. counts: stitches of every row.
    """

    name: str
    patch: Patch
    part: Part
    counts: tuple[int, ...]
    edges: tuple[PanelEdge, ...]
    corners: bool
    begun: int


@dataclass(frozen=True, slots=True)
class Panels:
    """All panels of a shape."""

    panels: tuple[Panel, ...]
    gauge: Gauge

    @property
    def alike(self) -> tuple[tuple[int, ...], ...]:
        """Numbers of panels that are worked alike, together."""
        groups: dict[tuple[Item, ...], list[int]] = {}
        for k, panel in enumerate(self.panels):
            groups.setdefault(panel.part.items, []).append(k)
        return tuple(tuple(g) for g in groups.values())

    @property
    def seams(self) -> tuple[tuple[str, str, str, int], ...]:
        """Letter, both panels' names and stitches of every seam, in the letters' order."""
        found = [
            (e.letter, p.name, self.panels[e.other].name, e.stitches)
            for k, p in enumerate(self.panels)
            for at, e in enumerate(p.edges)
            if (k, at) < (e.other, e.mate)
        ]
        return tuple(sorted(found, key=lambda seam: (len(seam[0]), seam[0])))


def letter_of(number: int) -> str:
    """A, B … Z, AA, AB …"""
    return (letter_of(number // 26 - 1) if number >= 26 else "") + chr(ord("A") + number % 26)


def draft_panels(patches: Sequence[Patch], gauge: Gauge) -> Panels:
    """Draft every patch. CraftError when one is too small to be worked, or not one piece across."""
    stitches = _seam_stitches(patches, gauge)
    letters = _letters(patches)
    return Panels(
        _with_order([_panel(p, k, stitches[k], letters, gauge) for k, p in enumerate(patches)], patches), gauge
    )


def _with_order(panels: list[Panel], patches: Sequence[Patch]) -> tuple[Panel, ...]:
    """Mates told as the panels count their sides, which begin where their edging does."""
    out = []
    for panel in panels:
        edges = []
        for e in panel.edges:
            many = len(patches[e.other].edges)
            edges.append(replace(e, mate=(e.mate - panels[e.other].begun) % many))
        out.append(replace(panel, edges=tuple(edges)))
    return tuple(out)


def _letters(patches: Sequence[Patch]) -> dict[tuple[int, int], str]:
    found: dict[tuple[int, int], str] = {}
    for k, patch in enumerate(patches):
        for at, edge in enumerate(patch.edges):
            if (k, at) not in found:
                found[k, at] = found[edge.other, edge.mate] = letter_of(len(found) // 2)
    return found


def _seam_stitches(patches: Sequence[Patch], gauge: Gauge) -> list[list[int]]:
    """Stitches of every edge between its corners, alike on both sides; edges of nearly one length have one count."""
    w = gauge.stitch_mm
    return [[max(round(_true_length(e, patches) / w - 1), 1) for e in patch.edges] for patch in patches]


def _true_length(edge: PatchEdge, patches: Sequence[Patch]) -> float:
    return (edge.length + patches[edge.other].edges[edge.mate].length) / 2


def _panel(patch: Patch, number: int, stitches: list[int], letters: dict[tuple[int, int], str], gauge: Gauge) -> Panel:
    base, top = _end_of(patch, -1.0), _end_of(patch, 1.0)
    slices = slices_of(patch, base.corners, top.corners)
    counts = None
    if len(patch.edges) == 4 and min(stitches) >= LEAST_SQUARE and None not in (base.edge, top.edge):
        begun, share = top.edge or 0, 0.0
        counts = _square_counts(slices, stitches[begun:] + stitches[:begun], gauge)
    square = counts is not None
    if counts is None:
        begun, share = _top_left(patch)
        counts = _free_counts(patch.name, slices, gauge)
    order = [(begun + i) % len(patch.edges) for i in range(len(patch.edges))]
    sides = [stitches[i] for i in order]
    rows = rows_of(counts, domed=patch.roundness > DOMED)
    sharp = [_is_sharp(patch, i) for i in order]
    ahead = round(share * (sides[0] + 1))
    edge_round = edging(counts, sides) if square else edging_around(len(counts) + 1, sides, sharp, ahead)
    part = Part(patch.name, (*rows, edge_round, _FASTEN_OFF))
    total = sum(sides) + len(sides)
    first = 2 if square else 1 - ahead
    edges = []
    for i in order:
        edge = patch.edges[i]
        edges.append(PanelEdge(letters[number, i], stitches[i], first % total, edge.length, edge.other, edge.mate))
        first += stitches[i] + 1
    return Panel(patch.name, patch, part, counts, tuple(edges), square, begun)


@dataclass(frozen=True, slots=True)
class _End:
    """Where the rows of a patch begin or end: along an edge, or at a corner of the skin (edge None)."""

    corners: NDArray[np.int64]
    edge: int | None


def _end_of(patch: Patch, way: float) -> _End:
    """The base of a patch (way -1) or its top (1)."""
    left = np.cross(patch.out, patch.up) * way
    ways = [e.points[-1] - e.points[0] for e in patch.edges]
    runs = [float(w @ left) / max(float(np.linalg.norm(w)), 1e-9) for w in ways]
    at = int(np.argmax(runs))
    if runs[at] > ACROSS:
        return _End(patch.edges[at].corners, at)
    return _End(np.array([int(np.argmax(way * (patch.x @ patch.up)))]), None)


def _top_left(patch: Patch) -> tuple[int, float]:
    """Where the last row ends: the number of the edge, and the share of it that lies before."""
    left = np.cross(patch.out, patch.up)
    best, found = -np.inf, (0, 0.0)
    for number, edge in enumerate(patch.edges):
        # High counts first; of what is as high, what lies furthest left.
        score = 4 * (edge.points @ patch.up) + edge.points @ left
        at = int(np.argmax(score))
        if score[at] > best + 1e-9:
            steps = np.linalg.norm(np.diff(edge.points, axis=0), axis=1)
            best, found = float(score[at]), (number, float(steps[:at].sum() / steps.sum()))
    return found


def _square_counts(slices: Slices, sides: list[int], gauge: Gauge) -> tuple[int, ...] | None:
    """Stitches of every row of a panel with four sides: top, left, base, right; None where rows can't follow it."""
    top, left, base, right = sides
    w, h = gauge.stitch_mm, gauge.round_mm
    rows = round(slices.length / h - 2)
    if not FEWEST_ROWS <= rows <= MOST_ROWS or abs(left - right) > 0.2 * max(left, right):
        return None
    at = (np.arange(rows) + 1.5) / (rows + 2) * slices.length
    counts = np.maximum(np.round((slices.width_at(at) - 2 * h) / w + 1), 2).astype(int)
    counts[0], counts[-1] = base, top
    return _workable(counts.tolist())


def _free_counts(name: str, slices: Slices, gauge: Gauge) -> tuple[int, ...]:
    """Stitches of every row of a panel of any outline."""
    w, h = gauge.stitch_mm, gauge.round_mm
    rows = round(slices.length / h - 2)
    require(FEWEST_ROWS <= rows <= MOST_ROWS, f"The panel '{name}' is too small for this yarn.", field="form")
    at = (np.arange(rows) + 1.5) / (rows + 2) * slices.length
    counts = np.maximum(np.round((slices.width_at(at) - 2 * h) / w + 1), 2).astype(int)
    return _workable(counts.tolist())


def _workable(counts: list[int]) -> tuple[int, ...]:
    """Counts that rows can follow: never more than twice or less than half of the row below."""
    for i in range(1, len(counts)):
        counts[i] = min(max(counts[i], -(-counts[i - 1] // 2)), 2 * counts[i - 1])
    return tuple(counts)


def _is_sharp(patch: Patch, edge: int) -> bool:
    """Whether the outline turns sharply where an edge begins."""
    before, after = patch.edges[edge - 1].evened, patch.edges[edge].evened
    one, two = before[-1] - before[-min(len(before), 4)], after[min(len(after), 4) - 1] - after[0]
    cos = float(one @ two) / max(float(np.linalg.norm(one) * np.linalg.norm(two)), 1e-9)
    return bool(cos < np.cos(np.radians(SHARP)))
