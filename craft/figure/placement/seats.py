"""Parts on parts: where a part sits when it is joined at a round and stitch of another."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType
from typing import Protocol

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.errors import require
from craft.figure.body import Placed

Matrix = NDArray[np.float64]


class Towards(StrEnum):
    """A side of the figure. IN and OUT: to its centre line and away from it, the same for both of a pair."""

    FRONT = "front"
    BACK = "back"
    UP = "up"
    DOWN = "down"
    IN = "in"
    OUT = "out"


MOST_BENT = 150
"""Degrees of one bend."""


@dataclass(frozen=True, slots=True)
class Bend:
    """What lies beyond a round of a limb, seen from its seam, turned by so many degrees towards a side of the figure."""

    round: int
    degrees: float
    towards: Towards = Towards.FRONT

    def __post_init__(self) -> None:
        require(1 <= self.round <= 2_000, "A limb is bent at a round from 1 on.", field="round")
        require(0 < self.degrees <= MOST_BENT, f"A limb is bent by up to {MOST_BENT} degrees.", field="degrees")


@dataclass(frozen=True, slots=True)
class Seat:
    """`part` joined on part `on`, centred on round `round` and `stitch` stitches from the front.

    stitch: negative to the viewer's right. paired: a second piece at the mirrored place.
    tilt: degrees by which it leans up (positive) or down from standing straight off the surface.
    turn: degrees by which it is turned about the way it stands; the mirrored one the other way. laid:
    it lies on the surface on its broad side. on_start: it stands on its first round, upside down.
    swings: it is a leg on a seam that bends, and the figure sits, so it points forward from where it
    is sewn. key: of the join that it stands for. spread: how many sit evenly around the round, this the first. bends:
    of the wire in it, one after the other.
    """

    part: str
    on: str
    round: int
    stitch: float = 0.0
    paired: bool = False
    tilt: float = 0.0
    turn: float = 0.0
    laid: bool = False
    on_start: bool = False
    swings: bool = False
    key: str = ""
    spread: int = 1
    bends: tuple[Bend, ...] = ()

    def __post_init__(self) -> None:
        require(1 <= self.round <= 2_000, "A place is on a round from 1 on.", field="round")
        require(abs(self.stitch) <= 2_000, "A place lies within the round.", field="stitch")
        require(abs(self.tilt) <= 90, "A part tilts by at most 90 degrees.", field="tilt")
        require(abs(self.turn) <= 360, "A part turns by at most 360 degrees.", field="turn")


BETWEEN = 6.0
"""Between two pieces that lie on the table, in mm."""

MOST_ON_TABLE = 12
"""Pieces of one part that are laid on the table."""

NOTHING_OVER: Mapping[str, int] = MappingProxyType({})


class Posable(Protocol):
    """What places ask of a part: an estimated body or a settled surface."""

    @property
    def rounds(self) -> int:
        """How many rounds it has."""

    @property
    def half_width(self) -> float:
        """Half its width over all, in mm."""

    @property
    def closed(self) -> bool:
        """Whether it is joined by its surface, not by an opening."""

    def count_of(self, at: int) -> int:
        """Stitches of a round."""

    def spot(self, at: int, angle: float, tilt: float = 0.0) -> tuple[Matrix, Matrix]:
        """Point and outward direction at a round and an angle from the front."""

    def own_frame(self, *, on_start: bool = False) -> Matrix:
        """From its own frame to that in which it is joined at the origin and stands up along z: by its opening where it
        has one, else, or `on_start`, by its first round."""

    def points(self) -> Matrix:
        """Points that its size is measured by."""


def _frame(origin: Matrix, axis: Matrix) -> Matrix:
    """A rigid frame whose z runs along `axis`, keeping the front in front; of what looks forward, the front is up."""
    z = axis / np.linalg.norm(axis)
    reference = np.array([0.0, -1.0, 0.0]) if abs(z[1]) < 0.7 else np.array([0.0, 0.0, 1.0])
    x = np.cross(z, reference)
    x /= np.linalg.norm(x)
    matrix = np.eye(4)
    matrix[:3, 0], matrix[:3, 1], matrix[:3, 2], matrix[:3, 3] = x, np.cross(z, x), z, origin
    return matrix


def place(
    bodies: Mapping[str, Posable],
    makes: Mapping[str, int],
    seats: Sequence[Seat],
    over: Mapping[str, int] = NOTHING_OVER,
) -> tuple[Placed, ...]:
    """Every piece of every part: seated ones on their hosts, the others side by side on the table.

    A seat whose part or host is unknown, or that would hang a part on itself, is left out. over: by seated part, how
    many more of it there are than its seats hold; they lie on the table beside the figure.
    """
    bodies = {key: body for key, body in bodies.items() if body.rounds}
    known = [s for s in seats if s.part in bodies and s.on in bodies and s.part != s.on]
    host = {s.part: s.on for s in reversed(known)}
    done: dict[str, Matrix] = {}
    free = [k for k in bodies if k not in host or _circular(k, host)]
    carrying = {s.on for s in known if s.round >= bodies[s.on].rounds and not s.paired}
    placed = _on_the_table(bodies, makes, free, carrying, done)
    waiting = [s for s in known if s.part not in free]
    while ready := [s for s in waiting if s.on in done]:
        for seat in ready:
            around = [2 * math.pi * k / seat.spread for k in range(seat.spread)]
            for sign, angle in [(1.0, 0.0), (-1.0, 0.0)] if seat.paired else [(1.0, a) for a in around]:
                standing = _standing(bodies[seat.part], seat)
                matrix = done[seat.on] @ _seated(bodies, seat, sign, angle) @ standing
                if seat.swings:
                    matrix = _swung(bodies[seat.part], matrix)
                done.setdefault(seat.part, matrix)
                to_own = np.asarray(np.linalg.inv(standing), np.float64)
                seam = None if seat.swings else (to_own[:3, 3], to_own[:3, 2])
                placed.append(Placed(seat.part, matrix, join=seat.key, seam=seam))
        waiting = [s for s in waiting if s not in ready]
    beside = {key: many for key, many in over.items() if key in done and key not in free}
    if beside:
        right = max(float(p.in_scene(bodies[p.part].points())[:, 0].max()) for p in placed)
        placed += _on_the_table(bodies, beside, list(beside), (), {}, right + BETWEEN)
    return tuple(placed)


def _circular(key: str, host: Mapping[str, str]) -> bool:
    seen = {key}
    while key in host:
        key = host[key]
        if key in seen:
            return True
        seen.add(key)
    return False


def _standing(own: Posable, seat: Seat) -> Matrix:
    """From a piece's own frame to that in which it is joined at the origin and stands up along z."""
    return _lying(own) if seat.laid else own.own_frame(on_start=seat.on_start)


def _seated(bodies: Mapping[str, Posable], seat: Seat, sign: float, around: float) -> Matrix:
    """Where a piece is joined and stands, in its host's frame. sign: -1 for the mirrored one of a pair. around: angle from the
    first of those spread around the round."""
    host = bodies[seat.on]
    at = min(seat.round, host.rounds) - 1
    angle = sign * 2 * math.pi * seat.stitch / max(host.count_of(at), 1) + around
    point, out = host.spot(at, angle, seat.tilt)
    turn = math.radians(sign * seat.turn)
    spin = np.eye(4)
    spin[:2, :2] = [[math.cos(turn), -math.sin(turn)], [math.sin(turn), math.cos(turn)]]
    own = bodies[seat.part]
    if sign < 0 and _flips_over(own, _standing(own, seat)):
        spin = spin @ np.diag([-1.0, -1.0, 1.0, 1.0])
    return _frame(point, out) @ spin


FLAT = 0.4
"""Depth over width below which a piece is flat: it has two sides that look alike."""


def _flips_over(body: Posable, standing: Matrix) -> bool:
    """Whether the mirrored one of a pair is the same piece turned over: it is flat, and not the same left and right."""
    x = body.points() @ standing[:3, :3].T
    x = x - x.mean(0)
    if float(np.ptp(x[:, 1])) > FLAT * float(np.ptp(x[:, 0])):
        return False
    beside, over = (float(np.asarray(cKDTree(x).query(x * way)[0]).mean()) for way in ([-1, 1, 1], [1, -1, 1]))
    return over < beside


SPLAY = math.radians(14)
"""How far the legs of a sitting figure point apart from straight ahead (common practice, no source)."""


def _swung(leg: Posable, matrix: Matrix) -> Matrix:
    """A leg turned about its seam until it lies level and points forward; one that does already stays."""
    to_seam = np.linalg.inv(leg.own_frame())
    axis, seam = matrix[:3, :3] @ to_seam[:3, 2], (matrix @ to_seam)[:3, 3]
    side = math.copysign(1.0, seam[0]) if abs(seam[0]) > 1.0 else 0.0
    ahead = np.array([side * math.sin(SPLAY), -math.cos(SPLAY), 0.0])
    ahead /= np.linalg.norm(ahead)
    hinge = np.cross(axis, ahead)
    size = float(np.linalg.norm(hinge))
    if size < 1e-6:
        return matrix
    k = hinge / size
    cross = np.array([[0.0, -k[2], k[1]], [k[2], 0.0, -k[0]], [-k[1], k[0], 0.0]])
    turned = np.eye(4)  # Rodrigues' rotation about the hinge
    turned[:3, :3] = np.eye(3) + size * cross + (1 - float(axis @ ahead)) * cross @ cross
    turned[:3, 3] = seam - turned[:3, :3] @ seam
    swung: Matrix = turned @ matrix
    return swung


def _lying(body: Posable) -> Matrix:
    """From a piece's own frame to that in which it lies on its broad side at the origin, pressed in a little."""
    points = body.points()
    middle = points.mean(0)
    _, axes = np.linalg.eigh((points - middle).T @ (points - middle))
    turn = axes[:, ::-1].T.copy()
    if np.linalg.det(turn) < 0:
        turn[2] *= -1
    matrix = np.eye(4)
    matrix[:3, :3] = turn
    matrix[:3, 3] = -turn @ middle
    matrix[2, 3] += 0.35 * float(np.ptp((points - middle) @ turn[2]))
    return matrix


def _on_the_table(
    bodies: Mapping[str, Posable],
    makes: Mapping[str, int],
    keys: Sequence[str],
    carrying: Collection[str],
    done: dict[str, Matrix],
    start: float | None = None,
) -> list[Placed]:
    """Pieces that sit on nothing, side by side: on their first round, or on their opening unless another sits on that.

    start: where the first one's side lies, in mm; None for its middle at 0.
    """
    placed: list[Placed] = []
    x = start or 0.0
    for key in keys:
        body = bodies[key]
        radius = body.half_width
        for _ in range(min(makes.get(key, 1), MOST_ON_TABLE)):
            matrix = np.eye(4) if body.closed or key in carrying else body.own_frame()
            matrix[0, 3] = x if start is None and not placed else x + radius
            x = matrix[0, 3] + radius + BETWEEN
            done.setdefault(key, matrix)
            placed.append(Placed(key, matrix))
    return placed


def extent(bodies: Mapping[str, Posable], placed: Sequence[Placed]) -> tuple[float, float, float]:
    """Width, depth and height in mm of all placed pieces together; zeros when there is none."""
    points = [p.in_scene(bodies[p.part].points() if p.x is None else p.x) for p in placed if bodies[p.part].rounds]
    if not points:
        return 0.0, 0.0, 0.0
    size = np.ptp(np.concatenate(points), axis=0)
    return float(size[0]), float(size[1]), float(size[2])
