"""A settled part as something to place things on: rounds of points, a surface, openings."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling import Flap, Limb, Settled, flaps_of, limbs_of, relief_of
from craft.rounds.fabric import KIND_KEYS, WorkedPart
from craft.rounds.stitches import STITCHES

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

_CHANGE = np.array([STITCHES[k].change for k in KIND_KEYS])
FRONT = np.array([0.0, -1.0, 0.0])

STRAIGHT = 0.35
"""Spread across a round over that along it below which it lies as a straight edge."""

AROUND = 8
"""Rounds before and after one that tell whether it lies at a pole."""


class Foot(StrEnum):
    """What a piece is joined by: its start (it is drawn shut), its opening, the rim of the coil that it is rolled up to, or,
    of a sheet of one layer, the edge that its last row is."""

    START = "start"
    OPENING = "opening"
    RIM = "rim"
    EDGE = "edge"

    @classmethod
    def of(cls, worked: WorkedPart) -> Foot:
        """Of a part as it is worked."""
        if worked.rolled is not None:
            return cls.RIM
        if worked.leading_rows:
            return cls.EDGE
        return cls.START if worked.closed else cls.OPENING


def shown_flaps(settled: Settled) -> tuple[Flap, ...]:
    """The flaps of a settled part by the rounds that are shown: those after which a stitch is live."""
    shown = {i: row for row, i in enumerate(i for i, t in enumerate(settled.part.rounds) if t.live > 0)}
    return tuple(replace(f, rounds=tuple(shown[k] for k in f.rounds if k in shown)) for f in flaps_of(settled))


@dataclass(frozen=True)
class Surface:
    """Positions at rest of a part.

    x: (n, 3) nodes in mm. rings: for every shown round, its stitches' nodes in working order.
    triangles: (t, 3) nodes, wound outward. change: (n,) growth that each stitch node makes, 0 for
    plain ones. stretch: (n,) strain of each stitch node. foot: what it is joined by.
    filled: whether it holds filling.
    labels: of the rounds. flaps: brims and skirts on it, by their rounds here. limbs: that its rounds took
    in; limb: of every stitch node 1 and the number of its limb, 0 for its own.
    """

    x: Vector
    rings: tuple[Numbers, ...]
    triangles: Numbers
    change: Numbers
    stretch: Vector
    foot: Foot
    labels: tuple[str, ...]
    filled: bool = True
    flaps: tuple[Flap, ...] = ()
    limbs: tuple[Limb, ...] = ()
    limb: Numbers | None = None

    @classmethod
    def laid(
        cls,
        x: Vector,
        rows: Sequence[Numbers],
        triangles: Numbers,
        kind: NDArray[np.integer],
        stretch: Vector,
        labels: Sequence[str],
        *,
        foot: Foot,
        filled: bool,
        flaps: Sequence[Flap] = (),
    ) -> Surface:
        """A surface by its rounds as they are shown, those of a single stitch left out. rows: nodes of every round in
        working order; kind: of every stitch node, into `KIND_KEYS`; labels: of the rounds; flaps: by the rows."""
        keep = [i for i, row in enumerate(rows) if len(row) > 1]
        own = tuple(labels[i] for i in keep)
        shown = {row: k for k, row in enumerate(keep)}
        hung = tuple(replace(f, rounds=tuple(shown[k] for k in f.rounds if k in shown)) for f in flaps)
        rings = tuple(rows[i] for i in keep)
        return cls(x, rings, triangles, _CHANGE[kind], stretch, foot, own, filled, tuple(f for f in hung if f.rounds))

    @classmethod
    def of(cls, settled: Settled) -> Surface:
        """A settled part's surface."""
        limbs, limb = limbs_of(settled)
        relief, tallies = relief_of(settled), settled.part.rounds
        shown = [i for i, t in enumerate(tallies) if t.live > 0]
        rows = [np.flatnonzero(relief.round == i) for i in shown]  # nodes are in stitch order, so in working order
        labels = [tallies[i].label for i in shown]
        triangles = settled.triangles.astype(np.int64)
        surface = cls.laid(
            settled.x,
            rows,
            triangles,
            relief.kind,
            relief.stretch,
            labels,
            foot=Foot.of(settled.part),
            filled=bool(settled.stuffed.any()),
            flaps=shown_flaps(settled),
        )
        return replace(surface, limbs=limbs, limb=limb if limbs else None)

    @property
    def rounds(self) -> int:
        """How many rounds it has."""
        return len(self.rings)

    @property
    def closed(self) -> bool:
        """Whether it is joined by its surface, not by an opening."""
        return self.foot not in (Foot.OPENING, Foot.EDGE)

    def count_of(self, at: int) -> int:
        """Stitches of a round."""
        return len(self.rings[at])

    @cached_property
    def _middles(self) -> Vector:
        return np.array([self.x[r].mean(0) for r in self.rings])

    @cached_property
    def half_width(self) -> float:
        """Half its width over all, in mm."""
        return float(np.ptp(self.x[:, 0])) / 2

    def axis(self, at: int) -> Vector:
        """Unit direction of the piece at a round, towards its end."""
        low, high = max(at - 1, 0), min(at + 1, self.rounds - 1)
        d = self._middles[high] - self._middles[low]
        size = float(np.linalg.norm(d))
        return d / size if size > 1e-6 else np.array([0.0, 0.0, 1.0])

    def angles(self, at: int) -> Vector:
        """(stitches,) angle of each stitch of a round from the front, growing in working direction."""
        z = self.axis(at)
        forward = FRONT - (FRONT @ z) * z
        if np.linalg.norm(forward) < 0.3:
            forward = np.array([0.0, 0.0, -1.0]) - (-z[2]) * z
        forward /= np.linalg.norm(forward)
        left = np.cross(forward, z)
        away = self.x[self.rings[at]] - self._middles[at]
        out: Vector = np.arctan2(away @ left, away @ forward)
        return out

    def place_at(self, at: int, angle: float) -> float:
        """Where in a round an angle from the front lies: 0 at its first stitch's top, up to its count."""
        turn = np.unwrap(np.append(self.angles(at), self.angles(at)[0]))
        if turn[-1] < turn[0]:
            turn = -turn
            angle = -angle
        wanted = turn[0] + (angle - turn[0]) % (2 * math.pi)
        rising = np.maximum.accumulate(turn)
        return float(np.interp(wanted, rising, np.arange(len(turn))))

    def front_place(self, at: int) -> float:
        """Where in a round its front middle lies, in stitches after the first one's top."""
        return self.place_at(at, 0.0)

    def at_place(self, at: int, place: float) -> Vector:
        """The point between stitches of a round at a place."""
        ring = self.rings[at]
        low = math.floor(place)
        a, b = self.x[ring[low % len(ring)]], self.x[ring[(low + 1) % len(ring)]]
        out: Vector = a + (b - a) * (place - low)
        return out

    def spot(self, at: int, angle: float, tilt: float = 0.0) -> tuple[Vector, Vector]:
        """Point and outward unit direction at a round and an angle from the front; tilt in degrees upward."""
        at = min(max(at, 0), self.rounds - 1)
        if self._near_end(at):
            ring = self.x[self.rings[at]].mean(0)
            return ring, self.normal(ring)
        point = self.at_place(at, self.place_at(at, angle))
        out = self.normal(point)
        z = self.axis(at)
        if tilt:
            up = z - (z @ out) * out
            up /= max(float(np.linalg.norm(up)), 1e-9)
            out = math.cos(math.radians(tilt)) * out + math.sin(math.radians(tilt)) * up
        return point, out

    def _near_end(self, at: int) -> bool:
        """Whether a round lies so close around a pole that an angle says nothing."""
        around = self.rings[max(at - AROUND, 0) : at + AROUND + 1]
        tube = self._tube[max(at - AROUND, 0) : at + AROUND + 1]
        widest = max(len(r) for r, t in zip(around, tube, strict=True) if t == self._tube[at])
        return len(self.rings[at]) < 0.3 * widest and self._outermost(at)

    @cached_property
    def _tube(self) -> tuple[int, ...]:
        """Which tube each round belongs to: one that begins away from the round before it begins another."""
        found, now = [0], 0
        for below, above in pairwise(self.rings):
            gap = np.linalg.norm(self.x[above][:, None] - self.x[below][None], axis=2).min()
            step = np.linalg.norm(np.diff(self.x[above], axis=0), axis=1).mean()
            now += bool(gap > 2.5 * step)
            found.append(now)
        return tuple(found)

    def _outermost(self, at: int) -> bool:
        """Near an end of a tube, not at a neck: the rounds before or after it grow away from it."""
        before = len(self.rings[at - 1]) if at else 0
        after = len(self.rings[at + 1]) if at + 1 < self.rounds else 0
        own = len(self.rings[at])
        return before <= own <= max(after, own) if at < self.rounds / 2 else after <= own or after > 2 * own

    @cached_property
    def _centroids(self) -> tuple[Vector, Vector]:
        a, b, c = (self.x[self.triangles[:, k]] for k in range(3))
        return (a + b + c) / 3, np.cross(b - a, c - a)

    def normal(self, point: Vector) -> Vector:
        """Outward direction at a point, averaged over the fabric within two stitches."""
        middle, normal = self._centroids
        away = np.linalg.norm(middle - point, axis=1)
        near = np.argsort(away)[:10]
        total = normal[near].sum(0)
        out: Vector = total / max(float(np.linalg.norm(total)), 1e-9)
        return out

    def own_frame(self, *, on_start: bool = False) -> NDArray[np.float64]:
        """From its own frame to that in which it is joined at the origin and stands up along z."""
        matrix = np.eye(4)
        if self.foot is Foot.RIM and not on_start:
            matrix[2, 3] = -0.08 * float(np.ptp(self.x[:, 2]))
            return matrix
        if self.foot is Foot.EDGE:
            return self._on_edge(0 if on_start else -1)
        if (at := 0 if on_start else -1 if self.foot is Foot.OPENING else None) is not None and self._is_edge(at):
            return self._on_edge(at)
        if self.foot is Foot.START or on_start:
            matrix[:3, 3] = -self._middles[0]
            matrix[2, 3] -= 0.08 * float(np.ptp(self.x[:, 2]))
            return matrix
        end = self._middles[-1]
        z = end - self._middles[max(self.rounds - 4, 0)]
        size = float(np.linalg.norm(z))
        z = z / size if size > 1e-6 else np.array([0.0, 0.0, 1.0])
        y = np.array([0.0, 1.0, 0.0]) - z[1] * z
        y /= max(float(np.linalg.norm(y)), 1e-9)
        turn = np.column_stack([np.cross(y, -z), y, -z]).T
        radius = float(np.linalg.norm(self.x[self.rings[-1]] - end, axis=1).mean())
        matrix[:3, :3] = turn
        matrix[:3, 3] = -turn @ end
        matrix[2, 3] -= min(0.35 * radius, 0.3 * float(np.ptp(self.x[:, 2])))
        return matrix

    def _is_edge(self, at: int) -> bool:
        """Whether a round lies as a straight edge: of a panel, or of a tube pressed flat; no ring that one looks into."""
        ring = self.x[self.rings[at]]
        if len(ring) < 3:
            return False
        spread = np.linalg.svd(ring - ring.mean(0), compute_uv=False)
        return float(spread[1]) < STRAIGHT * float(spread[0])

    def _on_edge(self, at: int) -> NDArray[np.float64]:
        """A panel standing on an edge: the edge along x, the fabric up along z."""
        ring = self.x[self.rings[at]]
        middle = ring.mean(0)
        along = np.linalg.svd(ring - middle)[2][0]
        along = along if along[0] >= 0 else -along
        up = self.x.mean(0) - middle
        up -= (up @ along) * along
        size = float(np.linalg.norm(up))
        up = up / size if size > 1e-6 else np.array([0.0, 0.0, 1.0])
        matrix = np.eye(4)
        matrix[:3, :3] = np.array([along, np.cross(up, along), up])
        matrix[:3, 3] = -matrix[:3, :3] @ middle
        return matrix

    def points(self) -> Vector:
        """Points that its size is measured by."""
        return self.x
