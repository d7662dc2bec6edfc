"""What a settled part measures: sizes, girths, volume, stretch, ruffle, openings."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from types import MappingProxyType

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import ConvexHull, QhullError

from craft.figure.settling.settle import Settled
from craft.figure.settling.start import volume_mm3
from craft.shape.profile import EMPTY, REFERENCE_FIRMNESS, pressure_share

Vector = NDArray[np.float64]

OPENING_STRETCH = 1.15
"""How far an opening can be pulled wider to let something through (from memory)."""

WIDTHS_MM: Mapping[str, float] = MappingProxyType({"a hand": 65.0, "a finger": 18.0, "tweezers": 6.0})
"""Width of what has to go in, in mm (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class RoundMeasure:
    """One round at rest.

    girth_mm: along its stitches. z_mm: mean height of its tops. ruffle: how much longer it is than
    the tightest loop around it, as a share. opening_mm: n w / π, what lies open on the hook.
    stretch: mean strain along the round, as a share of the unstuffed stitch.
    """

    label: str
    count: int
    girth_mm: float
    z_mm: float
    ruffle: float
    opening_mm: float
    stretch: float


@dataclass(frozen=True, slots=True)
class Measures:
    """A part at rest. width, depth and height in mm; area in cm²; volume with flat lids in ml; filling in g."""

    width_mm: float
    depth_mm: float
    height_mm: float
    volume_ml: float
    area_cm2: float
    fill_g: float
    rounds: tuple[RoundMeasure, ...]

    def last_letting_through(self, width_mm: float) -> int | None:
        """Index of the last round whose opening, pulled, still lets `width_mm` through; None when none does."""
        fits = [i for i, r in enumerate(self.rounds) if r.opening_mm * OPENING_STRETCH >= width_mm]
        return fits[-1] if fits else None

    def passing(self, trunk: int) -> tuple[tuple[str, str | None], ...]:
        """Up to which of the first `trunk` rounds a hand, a finger and tweezers go in; None for what never does."""
        own = replace(self, rounds=self.rounds[:trunk])
        last = {thing: own.last_letting_through(width) for thing, width in WIDTHS_MM.items()}
        return tuple((thing, None if at is None else own.rounds[at].label) for thing, at in last.items())


def density_of(firmness: float) -> float:
    """Filling in g/cm³: 0.025 soft to 0.06 standing, usual is 0.035 to 0.05 (trade figures, from memory)."""
    return 0.025 + 0.035 * firmness


def stretch_of(settled: Settled) -> Vector:
    """(stitches,) strain of each stitch node along its round, against the unstuffed width."""
    net = settled.net
    d = settled.x[net.along[:, 1]] - settled.x[net.along[:, 0]]
    rest = net.link_rest[: len(net.along)] / (1 + pressure_share(REFERENCE_FIRMNESS) / 2)
    strain = np.sqrt(np.einsum("ij,ij->i", d, d)) / rest - 1.0
    many = len(net.stitch)
    total = np.bincount(net.along.ravel(), np.repeat(strain, 2), minlength=many)
    times = np.maximum(np.bincount(net.along.ravel(), minlength=many), 1)
    return (total / times)[:many]


def shows_filling_above(hook_ratio: float | None) -> float:
    """Strain at which filling shows: hook ÷ yarn 1.3 bears about 15 %, 1.7 none more than it has (from memory).

    hook_ratio: hook over yarn diameter; None when they are not known.
    """
    return 0.12 if hook_ratio is None else float(np.interp(hook_ratio, [1.2, 1.3, 1.7], [0.18, 0.15, 0.05]))


def _loop(points: Vector, *, closed: bool) -> float:
    ends = np.roll(points, -1, 0) if closed else points[1:]
    return float(np.linalg.norm(ends - points[: len(ends)], axis=1).sum())


def _ruffle(points: Vector, *, closed: bool) -> float:
    """Length of a loop over that of its outline in the plane it lies nearest to, less 1."""
    if not closed or len(points) < 6:
        return 0.0
    centred = points - points.mean(0)
    _, axes = np.linalg.eigh(centred.T @ centred)
    try:
        hull = ConvexHull(centred @ axes[:, 1:])
    except QhullError:
        return 0.0
    return max(_loop(points, closed=True) / float(hull.area) - 1.0, 0.0)


def round_nodes(settled: Settled) -> dict[int, tuple[NDArray[np.int64], bool]]:
    """Nodes of the edge after each round of the part itself, by the round's index, and whether it is closed."""
    graph, stitch = settled.graph, settled.net.stitch
    found: dict[int, tuple[NDArray[np.int64], bool]] = {}
    for edge in settled.net.edges:
        at = int(graph.round[stitch[edge.nodes]].max())
        if at >= 0:
            found[at] = (edge.nodes, edge.closed)
    return found


def measure(settled: Settled) -> Measures:
    """All measures of a settled part."""
    x, sheets, gauge = settled.x, settled.sheets, settled.gauge
    stretch = stretch_of(settled)
    rounds: list[RoundMeasure] = []
    tallies = settled.part.rounds
    for at, (nodes, closed) in sorted(round_nodes(settled).items()):
        if at >= len(tallies):
            continue
        rounds.append(
            RoundMeasure(
                tallies[at].label, len(nodes), _loop(x[nodes], closed=closed), float(x[nodes, 2].mean()),
                _ruffle(x[nodes], closed=closed), len(nodes) * gauge.stitch_mm / math.pi,
                float(stretch[nodes].mean()),
            )
        )  # fmt: skip
    size = np.ptp(x, axis=0)
    if settled.part.leading_rows:
        size[0] += (
            gauge.stitch_mm * EMPTY
        )  # stitches are where their middles are: half of one lies beyond at either end
    a, b, c = (x[sheets.triangles[:, k]] for k in range(3))
    area = float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)
    volume = abs(volume_inside(settled))
    fill = volume * density_of(settled.firmness) if settled.stuffed.any() else 0.0
    return Measures(float(size[0]), float(size[1]), float(size[2]), volume, area / 100, fill, tuple(rounds))


def volume_inside(settled: Settled) -> float:
    """Volume in ml of all stuffed sheets, of the largest one when none is; flat lids over openings."""
    sheets = settled.sheets
    of = settled.stuffed if settled.stuffed.any() else np.arange(len(settled.stuffed)) == 0
    triangles = np.concatenate([sheets.triangles[of[sheets.sheet]], sheets.lids[of[sheets.lid_sheet]]])
    return volume_mm3(with_lids(settled.x, sheets.rims), triangles) / 1000


def with_lids(x: Vector, rims: Sequence[NDArray[np.int64]]) -> Vector:
    """Positions with the middle of every opening's rim appended."""
    return np.concatenate([x, np.array([x[r].mean(0) for r in rims]).reshape(-1, 3)])
