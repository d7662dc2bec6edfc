"""Where the net begins: a body of revolution for plain rounds, a map of distances for the rest."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from craft.figure.settling.net import Net
from craft.figure.settling.sheets import Sheets
from craft.gauge import Gauge
from craft.shape.profile import inflated_profile

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

LANDMARKS = 60
"""Nodes from which distances over the fabric are measured."""

NUDGE = 0.1
"""Height in stitch widths of the waves laid into fabric that starts flat."""

WAVES = 5


def is_plain(net: Net) -> bool:
    """Whether the net is one tube of whole rounds from a ring on."""
    many = len(net.stitch)
    owner = np.full(net.size, -1)
    for at, edge in enumerate(net.edges):
        owner[edge.nodes] = at
    if len(net.posts) and (owner[net.posts[:, 0]] - owner[net.posts[:, 1]] != 1).any():
        return False
    whole = bool(net.edges) and all(e.closed for e in net.edges) and not net.second.any()
    return (
        whole
        and net.middles == 1
        and sum(len(e.nodes) for e in net.edges) == many
        and bool((np.concatenate([e.nodes for e in net.edges]) == np.arange(many)).all())
    )


def _revolved(net: Net, gauge: Gauge, firmness: float, *, stuffed: bool) -> Vector:
    """Every round a circle of the inflated profile, turned so that its stitches stand over their parents."""
    many = len(net.stitch)
    counts = [len(e.nodes) for e in net.edges]
    tall = np.ones(many)
    tall[net.posts[:, 0]] = net.post_rest / gauge.round_mm
    heights = [float(tall[e.nodes].mean()) for e in net.edges]
    profile = inflated_profile(counts, gauge, closed=net.closings > 0, firmness=firmness, heights=heights)
    angle = np.zeros(many)
    x = np.zeros((net.size, 3))
    owner = np.repeat(np.arange(len(counts)), counts)
    by_round = np.searchsorted(owner[net.posts[:, 0]], np.arange(len(counts) + 1))
    flat = profile.radius.copy()
    for k, edge in enumerate(net.edges):
        n = len(edge.nodes)
        angle[edge.nodes] = 2 * math.pi * np.arange(n) / n
        rows = slice(by_round[k], by_round[k + 1])
        if k and rows.stop > rows.start:
            upper, lower = net.posts[rows, 0], net.posts[rows, 1]
            off = angle[lower] - angle[upper] + net.post_slant[rows] / gauge.stitch_mm * 2 * math.pi / n
            angle[edge.nodes] += float(np.angle(np.exp(1j * off).mean()))
        r = flat[k] * np.ones(n)
        x[edge.nodes] = np.column_stack([-np.sin(angle[edge.nodes]) * r, -np.cos(angle[edge.nodes]) * r, r * 0])
        x[edge.nodes, 2] = profile.height[k]
        if not stuffed:
            x[edge.nodes, 2] += _waves(angle[edge.nodes], n, float(r[0]), gauge)
    spoke, first = heights[0] * gauge.round_mm, float(flat[0])
    # A few stitches stand as a cone around their ring, more lie flat around it.
    x[many, 2] = x[net.edges[0].nodes, 2].mean() - math.sqrt(max(spoke**2 - first**2, 0.0))
    x[many + 1 :, 2] = profile.height[-1] + 0.3 * gauge.round_mm
    return x


def _waves(angle: Vector, count: int, radius: float, gauge: Gauge) -> Vector:
    """Waves where a round is longer than its circle; the same on both sides of the front."""
    excess = count * gauge.stitch_mm / (2 * math.pi * max(radius, 1e-6)) - 1.0
    return NUDGE * gauge.stitch_mm * max(min(excess * 4, 2.0), 0.0) * np.cos(WAVES * angle)


def _mapped(net: Net, sheets: Sheets, gauge: Gauge) -> Vector:
    """Classical scaling of distances over the fabric, measured from a few landmarks."""
    size = net.size
    edges = np.concatenate([net.links, net.posts, sheets.triangles[:, [0, 2]]])
    lengths = np.concatenate(
        [
            net.link_rest,
            np.hypot(net.post_rest, np.minimum(np.abs(net.post_slant), gauge.stitch_mm)),
            np.full(len(sheets.triangles), math.hypot(gauge.stitch_mm, gauge.round_mm)),
        ]
    )
    key = edges.min(1) * size + edges.max(1)
    order = np.lexsort((lengths, key))
    first = order[np.concatenate([[True], np.diff(key[order]) != 0])]
    web = coo_matrix((lengths[first], (edges[first, 0], edges[first, 1])), shape=(size, size)).tocsr()
    rows: list[Vector] = []
    marks: list[int] = []
    at, nearest = 0, np.full(size, np.inf)
    for _ in range(min(LANDMARKS, size)):
        far = dijkstra(web, directed=False, indices=[at])[0]
        marks.append(at)
        rows.append(far)
        nearest = np.minimum(nearest, far)
        reach = np.where(np.isfinite(nearest), nearest, 1e9)
        at = int(np.argmax(reach))
        if reach[at] <= 0:
            break
    d = np.array(rows)
    widest = d[np.isfinite(d)].max(initial=gauge.stitch_mm)
    d2 = np.where(np.isfinite(d), d, 2 * widest) ** 2
    between = d2[:, marks]
    centre = np.eye(len(marks)) - 1 / len(marks)
    values, vectors = np.linalg.eigh(-centre @ between @ centre / 2)
    best = np.argsort(-values)[:3]
    scale = np.sqrt(np.maximum(values[best], 1e-9))
    axes = vectors[:, best] / scale
    axes *= np.where(np.abs(axes).max(0) == axes.max(0), 1.0, -1.0)
    x = np.zeros((size, 3))
    x[:, : len(best)] = -(d2 - between.mean(1)[:, None]).T @ axes / 2
    thin = scale < 0.05 * scale[0]
    if thin[-1] or len(best) < 3:
        x[:, 2] = NUDGE * gauge.stitch_mm * np.cos(WAVES * np.arctan2(x[:, 1], x[:, 0]))
    return x


def start_of(net: Net, sheets: Sheets, gauge: Gauge, firmness: float, *, stuffed: bool) -> Vector:
    """Positions (n, 3) in mm to settle from. Deterministic; symmetric where the net is."""
    if is_plain(net):
        return _revolved(net, gauge, firmness, stuffed=stuffed)
    x = _mapped(net, sheets, gauge)
    x -= x.mean(0)
    if volume_mm3(x, sheets.triangles[sheets.sheet == 0]) < 0:
        x[:, 0] *= -1
    for sheet in range(1, sheets.many):
        _turn_out(x, sheets.triangles[sheets.sheet == sheet], sheets.triangles[sheets.sheet < sheet])
    return x


def _turn_out(x: Vector, own: Numbers, others: Numbers) -> None:
    """Reflect a pouch that the map has laid out inside out, across the plane that it is flattest in."""
    alone = np.setdiff1d(own, others)
    if not len(alone):
        return
    middle = x[own].reshape(-1, 3).mean(0)
    if volume_mm3(x - middle, own) >= 0:
        return
    away = x[alone] - middle
    thin = np.linalg.eigh(away.T @ away)[1][:, 0]
    x[alone] -= 2 * np.outer(away @ thin, thin)


def volume_mm3(x: Vector, triangles: Numbers) -> float:
    """Volume enclosed by outward-wound triangles; source: divergence theorem."""
    if not len(triangles):
        return 0.0
    a, b, c = x[triangles[:, 0]], x[triangles[:, 1]], x[triangles[:, 2]]
    return float(np.einsum("ij,ij->", a, np.cross(b, c)) / 6)
