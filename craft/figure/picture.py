"""A figure as an SVG picture: every stitch a face, drawn back to front."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from craft.figure.body import Body, Placed, Ring

Vector = NDArray[np.float64]
FALLBACK = "#c9b48f"
MOST_FACES = 9_000
"""Visible stitches drawn in one picture; beyond it rounds are drawn as fewer, wider faces."""

_LIGHT = np.array([-0.45, -0.7, 0.75]) / math.sqrt(0.45**2 + 0.7**2 + 0.75**2)


@dataclass(frozen=True, slots=True)
class View:
    """Where the picture is taken from: degrees around the figure (0 is the front) and above the table."""

    around: float = -24.0
    above: float = 18.0

    def axes(self) -> tuple[Vector, Vector, Vector]:
        """Unit vectors to the right, up, and towards the viewer."""
        a, e = math.radians(self.around), math.radians(self.above)
        towards = np.array([math.sin(a) * math.cos(e), -math.cos(a) * math.cos(e), math.sin(e)])
        right = np.array([math.cos(a), math.sin(a), 0.0])
        return right, np.cross(towards, right), towards


@dataclass(frozen=True, slots=True)
class Faces:
    """Stitches to draw: corners (n, 4, 3) in mm, foot first; a fill each; outward (n, 3) directions."""

    corners: Vector
    fills: list[str]
    outward: Vector


LAID_DOUBLE = 2
"""Layers of a tube that is pressed flat: half of its stitches lie in front."""


def _quads(body: Body, matrix: Vector, palette: Mapping[str, str], share: float) -> Faces:
    corners: list[Vector] = []
    fills: list[str] = []
    behind: list[str] = []  # of the side that lies away, where it lies flat
    first = body.rings[0]
    below = replace(
        first, radius=first.radius if first.layers else 0.0, z=first.z - (1.0 if first.layers else 0.3) * first.height
    )
    last = len(body.rings) - 1
    for at, ring in enumerate(_drawn_rings(body)):
        n = max(3, round(ring.count * share / max(ring.layers, 1)))
        low, high = (
            r.across(n)
            if ring.layers
            else body.laid(min(max(k, 0), last), r.around(ring.turn + 2 * math.pi * np.arange(n + 1) / n))
            for k, r in ((at - 1, below), (at, ring))
        )
        corners.append(np.stack([low[:-1], low[1:], high[1:], high[:-1]], axis=1))
        names = [palette.get(body.colours[c], FALLBACK) for c in ring.colours]
        half = len(names) // 2 if ring.layers == LAID_DOUBLE and len(names) > 1 else len(names)
        fills += _spread(names[:half], n)
        behind += _spread(names[half:][::-1] or names, n)
        below = ring
    quads = np.concatenate(corners) @ matrix[:3, :3].T + matrix[:3, 3]
    if body.coil is not None:  # a turn's inside lies on another turn: out is away from the middle of the tube
        around = np.concatenate([c.mean(axis=1) - c.mean(axis=(0, 1)) for c in corners])
        return Faces(quads, fills, around @ matrix[:3, :3].T)
    if not first.layers:
        return Faces(quads, fills, _outward(quads))
    front = np.broadcast_to(matrix[:3, :3] @ np.array([0.0, -1.0, 0.0]), (len(quads), 3))
    return Faces(np.concatenate([quads, quads]), fills + behind, np.concatenate([front, -front]))


def _spread(names: list[str], many: int) -> list[str]:
    """Colours of a round's stitches over the faces that it is drawn with."""
    return [names[min(int(i / many * len(names)), len(names) - 1)] for i in range(many)]


def _drawn_rings(body: Body) -> Sequence[Ring]:
    """The rings, and for a closed part one more that draws the last opening together."""
    if not body.closed:
        return body.rings
    last = body.rings[-1]
    return (*body.rings, replace(last, radius=0.0, z=last.z + 0.12 * last.height))


@lru_cache(maxsize=4096)
def _shade(colour: str, light: float) -> str:
    value = colour.lstrip("#")
    channels = [int(value[i : i + 2], 16) for i in (0, 2, 4)]
    mixed = [c * light if light <= 1 else c + (255 - c) * (light - 1) for c in channels]
    return "#" + "".join(f"{max(0, min(255, round(c))):02x}" for c in mixed)


def _corners(flat: Vector) -> list[list[float]]:
    """Of faces with corners (n, 4, 2), foot first: their outline, and the V of a stitch in it, as numbers in a row."""
    foot = (flat[:, 0] + flat[:, 1]) / 2 * 0.86 + (flat[:, 2] + flat[:, 3]) / 2 * 0.14
    left, right = flat[:, 3] * 0.8 + flat[:, 2] * 0.2, flat[:, 2] * 0.8 + flat[:, 3] * 0.2
    rows: list[list[float]] = np.concatenate([flat.reshape(-1, 8), left, foot, right], axis=1).tolist()
    return rows


_FACE = (
    '<path d="M%.1f %.1fL%.1f %.1fL%.1f %.1fL%.1f %.1fZ" fill="{fill}" stroke="{fill}"/>'
    '<path d="M%.1f %.1fL%.1f %.1fL%.1f %.1f" fill="none" stroke="{line}"/>'
)


def draw(
    bodies: Mapping[str, Body],
    placed: Sequence[Placed],
    palette: Mapping[str, str],
    *,
    title: str,
    view: View | None = None,
    margin_mm: float = 6.0,
    most_faces: int = MOST_FACES,
) -> str:
    """The placed pieces as an SVG document.

    palette: yarn names to '#rrggbb'. title: what a screen reader says. most_faces: visible stitches drawn; beyond it
    rounds are drawn as fewer, wider faces.
    """
    pieces = [p for p in placed if bodies[p.part].rings]
    total = sum(r.count for p in pieces for r in bodies[p.part].rings)
    share = min(1.0, 2 * most_faces / total) if total else 1.0
    faces = [_quads(bodies[p.part], p.matrix, palette, share) for p in pieces]
    return draw_faces(faces, title=title, view=view, margin_mm=margin_mm)


def draw_faces(faces: Sequence[Faces], *, title: str, view: View | None = None, margin_mm: float = 6.0) -> str:
    """Stitches as an SVG document.

    Faces that look away are left out, the others are sorted by distance (painter's algorithm).
    """
    right, up, towards = (view or View()).axes()
    if not faces:
        return _document("", 0.0, 0.0, 10.0, 10.0, title)
    corners = np.concatenate([f.corners for f in faces])
    fills = [fill for f in faces for fill in f.fills]
    normal = np.cross(corners[:, 2] - corners[:, 0], corners[:, 3] - corners[:, 1])
    length = np.linalg.norm(normal, axis=1)
    normal /= np.maximum(length, 1e-9)[:, None]
    outward = np.concatenate([f.outward for f in faces])
    normal *= np.sign(np.sum(normal * outward, axis=1))[:, None]
    facing = normal @ towards
    order = np.argsort(corners.mean(axis=1) @ towards)
    flat = np.stack([corners @ right, -(corners @ up)], axis=2)
    light = 0.62 + 0.46 * np.maximum(normal @ _LIGHT, -0.3)
    seen = order[(facing[order] > 0.0) & (length[order] > 1e-6)]
    lights = light[seen].tolist()
    drawn = [_path(p, fills[i], lit) for p, i, lit in zip(_corners(flat[seen]), seen.tolist(), lights, strict=True)]
    low, high = flat.reshape(-1, 2).min(axis=0) - margin_mm, flat.reshape(-1, 2).max(axis=0) + margin_mm
    return _document(
        "".join(drawn), float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1]), title
    )


def _outward(corners: Vector) -> Vector:
    """From the middle of a piece to the middle of each of its faces: which side of a face is out."""
    middles = np.asarray(corners.mean(axis=1), np.float64)
    return middles - np.asarray(middles.mean(axis=0), np.float64)


def _path(numbers: Sequence[float], colour: str, light: float) -> str:
    return _shaded(colour, round(light, 2)) % tuple(numbers)


@lru_cache(maxsize=4096)
def _shaded(colour: str, light: float) -> str:
    """The outline of a face and the V in it in one light, its numbers left open."""
    return _FACE.format(fill=_shade(colour, light), line=_shade(colour, light * 0.72))


def _document(inside: str, x: float, y: float, width: float, height: float, title: str) -> str:
    safe = title.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{x:.1f} {y:.1f} {width:.1f} {height:.1f}" role="img">'
        f'<title>{safe}</title><g stroke-width=".7" stroke-linejoin="round" stroke-linecap="round">{inside}</g></svg>'
    )
