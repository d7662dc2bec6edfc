"""Parts on parts: where a part sits when it is joined at a round and stitch of another."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.errors import require
from craft.figure.body import Body

Matrix = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Seat:
    """`part` joined on part `on`, centred on round `round` and `stitch` stitches from the front.

    stitch: negative to the viewer's right. paired: a second piece at the mirrored place.
    tilt: degrees by which it leans up (positive) or down from standing straight off the surface.
    """

    part: str
    on: str
    round: int
    stitch: float = 0.0
    paired: bool = False
    tilt: float = 0.0

    def __post_init__(self) -> None:
        require(1 <= self.round <= 2_000, "A place is on a round from 1 on.", field="round")
        require(abs(self.stitch) <= 2_000, "A place lies within the round.", field="stitch")
        require(abs(self.tilt) <= 90, "A part tilts by at most 90 degrees.", field="tilt")


@dataclass(frozen=True, slots=True)
class Placed:
    """A piece of a part in the scene: 4 × 4 matrix from its own frame (mm) to the scene's."""

    part: str
    matrix: Matrix


def _frame(origin: Matrix, axis: Matrix) -> Matrix:
    """A rigid frame whose z runs along `axis`, keeping the front as much in front as it can."""
    z = axis / np.linalg.norm(axis)
    reference = np.array([0.0, -1.0, 0.0]) if abs(z[1]) < 0.9 else np.array([0.0, 0.0, -1.0])
    x = np.cross(z, reference)
    x /= np.linalg.norm(x)
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2], matrix[:3, 3] = x, np.cross(z, x), z, origin
    return matrix


def _surface(body: Body, at: int, angle: float, tilt: float) -> tuple[Matrix, Matrix]:
    """Point and outward direction on a body at ring `at`; near a pole, straight along the axis."""
    ring = body.rings[at]
    if ring.radius < 0.3 * body.profile.width_mm / 2:
        down = at < len(body.rings) / 2
        return np.array([0.0, 0.0, 0.0 if down else body.top]), np.array([0.0, 0.0, -1.0 if down else 1.0])
    below, above = body.rings[max(at - 1, 0)], body.rings[min(at + 1, len(body.rings) - 1)]
    slope = math.atan2(below.radius - above.radius, above.z - below.z) + math.radians(tilt)
    out = np.array([-math.sin(angle), -math.cos(angle), 0.0])
    point = out * ring.radius + np.array([0.0, 0.0, ring.z])
    return point, out * math.cos(slope) + np.array([0.0, 0.0, math.sin(slope)])


def _own(body: Body) -> Matrix:
    """An open part is joined by its opening, a closed one by its foot, pressed in a little."""
    matrix = np.eye(4)
    if not body.closed:
        matrix[0, 0] = matrix[2, 2] = -1.0
        matrix[2, 3] = body.top - min(0.35 * body.rings[-1].radius, 0.3 * body.top)
    else:
        matrix[2, 3] = -0.08 * body.top
    return matrix


def place(bodies: Mapping[str, Body], makes: Mapping[str, int], seats: Sequence[Seat]) -> tuple[Placed, ...]:
    """Every piece of every part: seated ones on their hosts, the others side by side on the table.

    A seat whose part or host is unknown, or that would hang a part on itself, is left out.
    """
    bodies = {key: body for key, body in bodies.items() if body.rings}
    known = [s for s in seats if s.part in bodies and s.on in bodies and s.part != s.on]
    host = {s.part: s.on for s in reversed(known)}
    done: dict[str, Matrix] = {}
    free = [k for k in bodies if k not in host or _circular(k, host)]
    placed = _on_the_table(bodies, makes, free, done)
    waiting = [s for s in known if s.part not in free]
    while ready := [s for s in waiting if s.on in done]:
        for seat in ready:
            for sign in (1.0, -1.0) if seat.paired else (1.0,):
                matrix = done[seat.on] @ _seated(bodies, seat, sign)
                done.setdefault(seat.part, matrix)
                placed.append(Placed(seat.part, matrix))
        waiting = [s for s in waiting if s not in ready]
    return tuple(placed)


def _circular(key: str, host: Mapping[str, str]) -> bool:
    seen = {key}
    while key in host:
        key = host[key]
        if key in seen:
            return True
        seen.add(key)
    return False


def _seated(bodies: Mapping[str, Body], seat: Seat, sign: float) -> Matrix:
    host = bodies[seat.on]
    at = min(seat.round, len(host.rings)) - 1
    angle = sign * 2 * math.pi * seat.stitch / max(host.rings[at].count, 1)
    point, out = _surface(host, at, angle, seat.tilt)
    return _frame(point, out) @ _own(bodies[seat.part])


def _on_the_table(
    bodies: Mapping[str, Body], makes: Mapping[str, int], keys: Sequence[str], done: dict[str, Matrix]
) -> list[Placed]:
    placed: list[Placed] = []
    x = 0.0
    for key in keys:
        body = bodies[key]
        radius = body.profile.width_mm / 2
        for piece in range(min(makes.get(key, 1), 12)):
            matrix = _own(body) if not body.closed else np.eye(4)
            matrix[0, 3] = x if piece == 0 and not placed else x + radius
            x = matrix[0, 3] + radius + 6.0
            done.setdefault(key, matrix)
            placed.append(Placed(key, matrix))
    return placed


def extent(bodies: Mapping[str, Body], placed: Sequence[Placed]) -> tuple[float, float, float]:
    """Width, depth and height in mm of all placed pieces together; zeros when there is none."""
    turn = np.linspace(0.0, 2 * math.pi, 24, endpoint=False)
    points = [
        _outline_points(bodies[p.part], turn) @ p.matrix[:3, :3].T + p.matrix[:3, 3]
        for p in placed
        if bodies[p.part].rings
    ]
    if not points:
        return 0.0, 0.0, 0.0
    size = np.ptp(np.concatenate(points), axis=0)
    return float(size[0]), float(size[1]), float(size[2])


def _outline_points(body: Body, turn: Matrix) -> Matrix:
    rings = [
        np.column_stack([-np.sin(turn) * r.radius, -np.cos(turn) * r.radius, np.full_like(turn, r.z)])
        for r in body.rings
    ]
    return np.concatenate([*rings, np.zeros((1, 3))])
