"""Whether a figure stands, sits or tips, and whether a neck carries its head."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import ConvexHull, QhullError

from craft.figure.body import Placed
from craft.figure.placement.seats import Seat
from craft.figure.placement.surface import Surface

Vector = NDArray[np.float64]

TOUCHES_MM = 3.0
"""Height above the lowest point up to which fabric rests on the table: it gives."""

MOST_LEAN = 8.0
"""Degrees by which a figure may lean when it is set down and still stand as it was meant to."""

STEADY = 0.12
"""Distance of the weight from the base's edge, as a share of its height, from which a figure is steady."""

PELLETS, PELLETS_UP_TO = 4.5, 1 / 3
"""How much more pellets weigh than the same room of a figure stuffed with fibre (0.55 to 0.12 g/cm³; the first is the bulk
density that makers of plastics give, the second from memory), and up to which share of its height a piece is filled with
them (common practice, no source)."""

LEAST_NECK = 0.4
"""A neck's count over the head's widest that carries it (from memory)."""


@dataclass(frozen=True, slots=True)
class Balance:
    """How a figure stands.

    verdict: steady, wobbly or tips. margin_mm: of the weight inside its base, negative outside. way:
    where it would go: front, back, left or right as one looks at it. base_mm: width and depth of
    what it rests on. words: a sentence, with what would mend it.
    """

    verdict: str
    margin_mm: float
    way: str
    base_mm: tuple[float, float]
    words: str


def _weight(x: Vector, triangles: NDArray[np.int64], *, pellets: bool) -> tuple[float, Vector]:
    """Weight (as volume inside plus fabric) and its middle of a piece at `x`; by tetrahedra from the middle."""
    middle = x.mean(0)
    a, b, c = (x[triangles[:, k]] - middle for k in range(3))
    parts = np.abs(np.einsum("ij,ij->i", a, np.cross(b, c))) / 6
    if pellets:
        low = x[:, 2].min() + PELLETS_UP_TO * np.ptp(x[:, 2])
        parts = parts * np.where(((a + b + c) / 4 + middle)[:, 2] < low, PELLETS, 1.0)
    total = float(parts.sum())
    if total <= 0:
        return 0.0, middle
    return total, middle + ((a + b + c) / 4 * parts[:, None]).sum(0) / total


def _known(surfaces: Mapping[str, Surface], placed: Sequence[Placed]) -> list[Placed]:
    return [p for p in placed if p.part in surfaces and surfaces[p.part].rounds]


def _lying(surface: Surface, piece: Placed) -> Vector:
    return piece.in_scene(surface.x if piece.x is None else piece.x)


def weight_of(
    surfaces: Mapping[str, Surface], placed: Sequence[Placed], weighted: Collection[str] = ()
) -> Vector | None:
    """The middle of the weight of all settled pieces, None when there is none. weighted: parts with pellets in their base."""
    weights = [
        _weight(_lying(surfaces[p.part], p), surfaces[p.part].triangles, pellets=p.part in weighted)
        for p in _known(surfaces, placed)
    ]
    total = sum(w for w, _ in weights)
    if total <= 0:
        return None
    return sum((w * m for w, m in weights), np.zeros(3)) / total


def balance(
    surfaces: Mapping[str, Surface], placed: Sequence[Placed], weighted: Collection[str] = ()
) -> Balance | None:
    """How all placed pieces together stand on their lowest points; None when nothing is placed. weighted: parts with
    pellets in their base."""
    known = _known(surfaces, placed)
    weight = weight_of(surfaces, placed, weighted)
    if weight is None:
        return None
    points = np.concatenate([_lying(surfaces[p.part], p) for p in known])
    turn, lean = settling_down(points, weight)
    points, weight = points @ turn.T, turn @ weight
    low = points[points[:, 2] < points[:, 2].min() + TOUCHES_MM][:, :2]
    height = float(np.ptp(points[:, 2]))
    size = (float(np.ptp(low[:, 0])), float(np.ptp(low[:, 1])))
    margin, way = _margin(low, weight[:2])
    verdict = (
        "tips" if margin < 0 else "steady" if margin >= STEADY * float(weight[2] - points[:, 2].min()) else "wobbly"
    )
    return Balance(verdict, margin, way, size, _words(verdict, margin, way, height, lean))


def settling_down(points: Vector, weight: Vector, most_lean: float = MOST_LEAN) -> tuple[Vector, float]:
    """The turn by which a figure that is let go comes to lie on the table, and its degrees, when that is a small one.

    most_lean: degrees from which it stays as it is.

    It comes to rest on that side of its convex hull which lies straight below its weight.
    """
    upright = np.eye(3), 0.0
    try:
        hull = ConvexHull(points)
    except (QhullError, ValueError):
        return upright
    normal, offset = hull.equations[:, :3], hull.equations[:, 3]
    down = np.flatnonzero(normal[:, 2] < -1e-6)
    reach = -(normal[down] @ weight + offset[down]) / -normal[down, 2]
    n = normal[down[int(np.argmin(reach))]]
    lean = float(np.degrees(np.arccos(np.clip(-n[2], -1, 1))))
    if lean > most_lean or n[2] > 1 - 1e-9:
        return upright
    cross = np.cross(n, [0.0, 0.0, -1.0])
    k = np.array([[0, -cross[2], cross[1]], [cross[2], 0, -cross[0]], [-cross[1], cross[0], 0]])
    return np.eye(3) + k + k @ k / (1 - n[2]), lean


def _margin(low: Vector, weight: Vector) -> tuple[float, str]:
    """How far inside the base the weight lies, and to which side it is nearest the edge."""
    try:
        hull = ConvexHull(low)
    except (QhullError, ValueError):
        away = weight - low.mean(0)
        return -float(np.linalg.norm(away)), _side(away)
    distance = -(hull.equations[:, :2] @ weight + hull.equations[:, 2])
    nearest = int(np.argmin(distance))
    return float(distance[nearest]), _side(hull.equations[nearest, :2])


def _side(d: Vector) -> str:
    if abs(d[1]) >= abs(d[0]):
        return "front" if d[1] < 0 else "back"
    return "right" if d[0] > 0 else "left"


_OPPOSITE = {"front": "back", "back": "front", "left": "right", "right": "left"}


def _words(verdict: str, margin: float, way: str, height: float, lean: float) -> str:
    where = {"front": "forwards", "back": "backwards", "left": "to the left", "right": "to the right"}[way]
    if verdict == "steady":
        leaning = f", leaning by {lean:.0f}°" if lean >= 2 else ""
        return f"It is steady: its weight lies {margin:.0f} mm inside its base{leaning}."
    mend = (
        f"move what is heavy towards the {_OPPOSITE[way]}, widen the base, or sew a bag of pellets inside it "
        "(pellets are small parts: not for children under three)"
    )
    if verdict == "tips":
        return f"It tips {where}: its weight lies {-margin:.0f} mm outside its base. To mend it, {mend}."
    return f"It may tip {where}: its weight lies only {margin:.0f} mm inside its base, {height:.0f} mm tall. Better: {mend}."


def necks(surfaces: Mapping[str, Surface], seats: Sequence[Seat]) -> dict[str, str]:
    """Warnings by part for heads that sit on a neck too narrow to carry them."""
    found: dict[str, str] = {}
    for seat in seats:
        head, host = surfaces.get(seat.part), surfaces.get(seat.on)
        if head is None or host is None or seat.paired or seat.round < host.rounds * 0.8:
            continue
        open_ends = [len(s.rings[-1]) for s in (head, host) if not s.closed]
        widest = max(len(r) for r in head.rings)
        if open_ends and widest * 0.6 > min(open_ends) and min(open_ends) < LEAST_NECK * widest:
            found[seat.part] = (
                f"The neck has {min(open_ends)} stitches, the head {widest} at its widest: less than 40 %, so it will "
                "nod. Open the neck wider, stuff it hard, or join head and body stitch to stitch."
            )
    return found
