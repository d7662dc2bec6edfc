"""A part as rings of stitches in space, built from its profile.

Frame: z from R1 to the close, front of the figure at -y, x to the viewer's right; angles from the
front, growing in working direction, which runs to the viewer's left for a right-handed maker
outside facing. Lengths in mm.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure.spiral import Coil, rolled_up
from craft.gauge import Gauge
from craft.rounds.fabric import Tally, WorkedPart
from craft.shape.profile import Lie, Profile, inflated_profile, pressed_profile

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Ring:
    """One round: top edge radius and z, how many stitches, angle of its first stitch, colours by stitch.

    layers: in how many it lies flat, where its radius is half its width; 0 where it is round.
    """

    label: str
    radius: float
    z: float
    count: int
    turn: float
    colours: tuple[int, ...]
    height: float
    layers: int = 0

    def around(self, angles: Vector) -> Vector:
        """(n, 3) points of its top edge at angles from the front; all of a flat piece's lie in one plane."""
        deep = 0.0 if self.layers else self.radius
        return np.column_stack([-np.sin(angles) * self.radius, -np.cos(angles) * deep, np.full_like(angles, self.z)])

    def across(self, many: int) -> Vector:
        """(n + 1, 3) points that part a row's top edge into `many` stitches, from the viewer's right."""
        x = np.linspace(self.radius, -self.radius, many + 1)
        return np.column_stack([x, np.zeros(many + 1), np.full(many + 1, self.z)])


@dataclass(frozen=True, slots=True)
class Body:
    """A part ready to be drawn: its first tube. colours: names that the rings' colour numbers mean. layers: in how many it
    lies flat.

    coil: how its rings lie where the tube is rolled up. beyond: the tube with the tallest of what goes on from its end,
    such as a leg; whole: all its rounds. Both are the profile where nothing goes on.
    """

    name: str
    rings: tuple[Ring, ...]
    colours: tuple[str, ...]
    profile: Profile
    closed: bool
    layers: int = 0
    coil: Coil | None = None
    beyond: Profile | None = None
    whole: Profile | None = None

    @property
    def volume_ml(self) -> float:
        """What filling it holds, in ml: none where it lies flat."""
        return 0.0 if self.layers else (self.whole or self.profile).volume_ml

    @property
    def top(self) -> float:
        """z of the far end, of a coil its height."""
        if self.coil is not None:
            return self.height_mm
        return self.rings[-1].z if self.rings else 0.0

    @property
    def height_mm(self) -> float:
        """From foot to top, of a coil as it stands."""
        if self.coil is not None:
            return float(np.ptp(self.points()[:, 2]))
        return (self.beyond or self.profile).height_mm

    @property
    def width_mm(self) -> float:
        """Where it is widest, of a coil from its outermost turn to the one across."""
        return self.profile.width_mm if self.coil is None else float(np.ptp(self.points(), axis=0)[:2].max())

    @property
    def rounds(self) -> int:
        """How many rounds it has."""
        return len(self.rings)

    @property
    def half_width(self) -> float:
        """Half its width over all, in mm."""
        return self.profile.width_mm / 2

    def count_of(self, at: int) -> int:
        """Stitches of a round."""
        return self.rings[at].count

    def spot(self, at: int, angle: float, tilt: float = 0.0) -> tuple[Vector, Vector]:
        """Point and outward direction at ring `at`, tilted up by degrees; near a pole, straight along the axis."""
        ring = self.rings[at]
        if self.coil is None and ring.radius < 0.3 * self.half_width:
            down = at < len(self.rings) / 2
            return np.array([0.0, 0.0, 0.0 if down else self.top]), np.array([0.0, 0.0, -1.0 if down else 1.0])
        below, above = self.rings[max(at - 1, 0)], self.rings[min(at + 1, len(self.rings) - 1)]
        slope = math.atan2(below.radius - above.radius, above.z - below.z) + math.radians(tilt)
        out = np.array([-math.sin(angle), -math.cos(angle), 0.0])
        point: Vector = self.laid(at, ring.around(np.array([angle])))[0]
        outward = out * math.cos(slope) + np.array([0.0, 0.0, math.sin(slope)])
        return point, outward if self.coil is None else self.coil.turned(at, outward)

    def laid(self, at: int, points: Vector) -> Vector:
        """(n, 3) points of ring `at` where they lie: as they are, or on the coil."""
        return points if self.coil is None else self.coil.laid(at, points)

    def own_frame(self, *, on_start: bool = False) -> Vector:
        """An open part is joined by its opening, a closed one, or one that is `on_start`, by its foot, pressed in a little."""
        matrix = np.eye(4)
        if not self.closed and not on_start:
            matrix[0, 0] = matrix[2, 2] = -1.0
            matrix[2, 3] = self.top - min(0.35 * self.rings[-1].radius, 0.3 * self.top)
        else:
            matrix[2, 3] = -0.08 * self.top
        return matrix

    def points(self) -> Vector:
        """Points that its size is measured by: around every ring, and the foot."""
        turn = np.linspace(0.0, 2 * math.pi, 24, endpoint=False)
        foot = self.laid(0, np.zeros((1, 3)))
        return np.concatenate([*(self.laid(at, r.around(turn)) for at, r in enumerate(self.rings)), foot])


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece of a part in the scene: 4 × 4 matrix from its own frame (mm) to the scene's.

    x: (n, 3) its settled nodes in its own frame where they give way to other pieces; None where all lie as settled.
    join: key of the join that seats it, empty for what sits on nothing. seam: the point of its own frame by which it sits
    and the direction in which it stands there: it turns about the one, and tilts with the other; None for what sits on
    nothing or was swung forward. turned: (n,) its nodes that were turned down about a seam, as a skirt that was worked
    upwards: the fabric is mirrored there, its right side out; None for none.
    """

    part: str
    matrix: Vector
    x: Vector | None = None
    join: str = ""
    seam: tuple[Vector, Vector] | None = None
    turned: NDArray[np.bool_] | None = None

    def in_scene(self, points: Vector) -> Vector:
        """(n, 3) points of its own frame in the scene."""
        out: Vector = points @ self.matrix[:3, :3].T + self.matrix[:3, 3]
        return out

    def from_scene(self, points: Vector) -> Vector:
        """(n, 3) points of the scene in its own frame."""
        out: Vector = (points - self.matrix[:3, 3]) @ np.linalg.inv(self.matrix[:3, :3]).T
        return out


def _run_lengths(colours: NDArray[np.int16]) -> tuple[int, ...]:
    """One colour for a plain round, else one for each stitch."""
    return (int(colours[0]),) if len(colours) and (colours == colours[0]).all() else tuple(int(c) for c in colours)


def flat_outline(rows: Sequence[Tally], edgings: int, gauge: Gauge) -> Profile:
    """Half widths of rows and their heights, with so many rounds of edging around them."""
    more = edgings * gauge.round_mm
    half = np.array([t.live for t in rows]) * gauge.stitch_mm / 2 + more
    height = np.cumsum([t.height for t in rows]) * gauge.round_mm + more
    half, height = np.append(half, half[-1]), np.append(height, height[-1] + more)
    return Profile(half, height, (Lie.FLAT,) * len(half), closed=False)


def layers_of(part: WorkedPart) -> int:
    """In how many layers a part lies flat: one of rows, two of a tube that is pressed; 0 of what is round."""
    return 1 if part.leading_rows else 2 if part.pressed else 0


def profile_of(part: WorkedPart, rounds: Sequence[Tally], gauge: Gauge, firmness: float) -> Profile:
    """The profile of some rounds of a part as they lie: inflated, pressed flat, or the outline of its rows."""
    counts, heights = [t.live for t in rounds], [t.height for t in rounds]
    if rows := part.leading_rows:
        return flat_outline(rows, len(rounds) - len(rows), gauge)
    if part.pressed:
        return pressed_profile(counts, gauge, closed=part.closed, heights=heights)
    return inflated_profile(counts, gauge, closed=part.closed, firmness=firmness, heights=heights)


def column_of(part: WorkedPart) -> list[Tally]:
    """The rounds that stand on one another: the first tube, and of what goes on from its last round, and on from that, the
    tallest. Two legs stand side by side; a skirt hangs from a round further down and adds nothing."""
    groups = _groups([t for t in part.rounds if t.live > 0])
    best: list[list[Tally]] = []
    for group in groups:
        parents = part.graph.parents_of(group[0].first)
        below = (b for b in best if any(b[-1].first <= p < b[-1].end for p in parents))
        under = max(below, key=_height, default=None)
        best.append([*(under or ()), *group])
    standing = [b for b in best if b[0] is groups[0][0]]
    return max(standing, key=_height, default=[])


def _height(rounds: Sequence[Tally]) -> float:
    return sum(t.height for t in rounds)


def _groups(rounds: Sequence[Tally]) -> list[list[Tally]]:
    """Runs of rounds under one heading that begin no new ring in the middle."""
    groups: list[list[Tally]] = []
    for tally in rounds:
        if not groups or tally.start or tally.section != groups[-1][-1].section:
            groups.append([])
        groups[-1].append(tally)
    return groups


def body_of(part: WorkedPart, gauge: Gauge, *, firmness: float = 0.5) -> Body:
    """Lay the trunk of a run part out on its profile; lean turns each round's start. What takes no filling lies flat."""
    rounds = [t for t in part.trunk if t.live > 0]
    profile = profile_of(part, rounds, gauge, firmness)
    layers = layers_of(part)
    rings: list[Ring] = []
    turn = 0.0
    for i, tally in enumerate(rounds):
        made = slice(tally.first, tally.end)
        colours = part.graph.colour[made][part.graph.live[made]]
        if len(colours) != tally.live and len(colours):
            colours = colours[np.arange(tally.live) * len(colours) // tally.live]
        on = min(i, len(profile.radius) - 1)
        rings.append(
            Ring(
                tally.label,
                float(profile.radius[on]),
                float(profile.height[on]),
                tally.live,
                turn,
                _run_lengths(colours) or (0,),
                tally.height * gauge.round_mm,
                layers,
            )
        )
        turn -= 2 * math.pi * gauge.lean / tally.live
    coil = _coil_of(part, rounds, rings) if part.rolled is not None and not layers else None
    column, every = column_of(part), [t for t in part.rounds if t.live > 0]
    beyond = profile if len(column) == len(rounds) else profile_of(part, column, gauge, firmness)
    whole = profile if len(every) == len(rounds) else profile_of(part, every, gauge, firmness)
    colours_known = part.graph.colours or ("Main",)
    return Body(part.name or "", tuple(rings), colours_known, profile, part.closed, layers, coil, beyond, whole)


def _coil_of(part: WorkedPart, rounds: Sequence[Tally], rings: Sequence[Ring]) -> Coil | None:
    """How the rings of a part that is rolled up lie; its first stitch lies at the front of the coil's outside."""
    assert part.rolled is not None
    worked = [t.first for t in part.rounds]
    drawn = [t.first for t in rounds]
    ends = [part.rolled.inner, part.rolled.outer]
    if any(worked[k] not in drawn for k in ends if k < len(worked)) or max(ends) >= len(worked):
        return None
    inner, outer = (drawn.index(worked[k]) for k in ends)
    first = rings[0].around(np.array([rings[0].turn]))[0] - np.array([0.0, 0.0, rings[0].z])
    heights, thick = (np.array([getattr(r, name) for r in rings]) for name in ("z", "radius"))
    return rolled_up(heights, thick, inner, outer, first)
