"""Settling: the net comes to rest under the filling's pressure.

A quasi-Newton descent on the energy of springs, bending and pressure: the springs' own stiffness,
factorised once, is the first guess of the curvature, and the last few steps refine it. Sources:
Liu, Bouaziz and Kavan, Quasi-Newton methods for real-time simulation of hyperelastic materials,
2017; Nocedal and Wright, Numerical Optimization, 2006, algorithm 7.4 (both cited from memory).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.linalg.blas import daxpy, ddot
from scipy.sparse import coo_matrix, csr_matrix, diags
from scipy.sparse.linalg import splu

from craft.figure.settling.held import FREE, Held, Plates
from craft.figure.settling.net import Net
from craft.figure.settling.sheets import Sheets
from craft.gauge import Gauge
from craft.shape.profile import REFERENCE_FIRMNESS, pressure_share

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]

GIVE = 0.35
"""Stiffness of fabric pushed together, as a share of its stiffness when pulled."""

SHEAR = 0.1
"""Stiffness of a stitch leaning over, as a share of its stiffness in height."""

BEND_STUFFED, BEND_EMPTY, BEND_LIMP = 0.02, 0.4, 0.02
"""Bending stiffness of stuffed fabric, of fabric that must hold its own shape, and of what is pressed flat: its rounds
are folded, so they keep no circle."""

PRESSING = 0.5
"""Stiffness of what presses fabric flat, in membrane stiffnesses: a hand and then its own folds, a disc (an estimate)."""

ENOUGH = 1e-4
"""Longest step, in stitch widths, at which the net is at rest."""

MOST_STEPS = 1500
ANCHOR = 1e-4
HISTORY = 8
VAGUE = 0.2
"""Length in stitch widths below which the direction of a round at a stitch counts for less."""

LONGEST, LONGEST_TOUCHING = 1.5, 0.4
"""Longest step, in stitch widths, that is tried at once; and where fabric touches fabric, so that it can't step through."""

THREAD = 5.0
"""Stiffness of a thread sewn through, in membrane stiffnesses: it gives far less than fabric does."""

CHECK_EVERY = 10


@dataclass(frozen=True, slots=True)
class Rest:
    """Where a net came to rest: positions (n, 3) in mm, steps taken, whether it came to rest."""

    x: Vector
    steps: int
    converged: bool

    def followed_by(self, later: Rest) -> Rest:
        """What came to rest after more was done to it: both took their steps."""
        return Rest(later.x, self.steps + later.steps, later.converged)


def _incidence(pairs: Numbers, size: int) -> csr_matrix:
    many = len(pairs)
    rows = np.concatenate([np.arange(many), np.arange(many)])
    signs = np.concatenate([np.ones(many), -np.ones(many)])
    columns = np.concatenate([pairs[:, 1], pairs[:, 0]])
    return coo_matrix((signs, (rows, columns)), shape=(many, size)).tocsr()


def _second_differences(triples: Numbers, size: int) -> csr_matrix:
    many = len(triples)
    rows = np.repeat(np.arange(many), 3)
    values = np.tile([1.0, -2.0, 1.0], many)
    return coo_matrix((values, (rows, triples.ravel())), shape=(many, size)).tocsr()


class Fabric:
    """The net's forces, with everything that stays the same from step to step worked out once."""

    def __init__(
        self, net: Net, sheets: Sheets, gauge: Gauge, stuffed: NDArray[np.bool_], firmness: float, held: Held = FREE
    ) -> None:
        size = net.size
        threads = held.threads
        self.contact, self.plates = held.contact, held.plates
        self.longest = (LONGEST if held.contact is None else LONGEST_TOUCHING) * gauge.stitch_mm
        eased = 1.0 + pressure_share(REFERENCE_FIRMNESS) / 2
        self.w = gauge.stitch_mm
        self.size, self.along = size, len(net.along)
        self.link_rest, self.post_rest = net.link_rest / eased, net.post_rest / eased
        self.slant = net.post_slant
        self.links, self.posts = _incidence(net.links, size), _incidence(net.posts[:, ::-1], size)
        self.links_t, self.posts_t = self.links.T.tocsr(), self.posts.T.tocsr()
        self.link_weight, self.post_weight = net.link_weight, net.post_weight
        self.upper = net.posts[:, 0]
        self.direction = (abs(self.links[: self.along]).T @ self.links[: self.along]).tocsr()
        self.direction_t = self.direction.T.tocsr()
        many = len(self.upper)
        self.gather = coo_matrix((np.ones(many), (self.upper, np.arange(many))), shape=(size, many)).tocsr()
        firm = np.zeros(size, np.bool_)
        firm[sheets.triangles[stuffed[sheets.sheet]].ravel()] = True
        soft = BEND_LIMP if held.limp else BEND_EMPTY
        self.bend_weight = np.where(firm[net.triples[:, 1]], BEND_STUFFED, soft) * net.bend_weight
        self.bend_rest = np.zeros_like(net.bend_rest) if held.limp else net.bend_rest
        self.bend = _second_differences(net.triples, size)
        self.bend_t = self.bend.T.tocsr()
        stiff = self.links_t @ diags(net.link_weight) @ self.links + self.bend_t @ diags(self.bend_weight) @ self.bend
        stiff = (stiff + self.posts_t @ diags(net.post_weight) @ self.posts).tocsc()
        self.threads = _incidence(threads.ends, size)
        self.threads_t = self.threads.T.tocsr()
        self.thread_length = threads.length
        stiff = (stiff + THREAD * self.threads_t @ self.threads).tocsc()
        anchor = ANCHOR * float(stiff.diagonal().mean()) * diags(np.ones(size))
        # Single precision is enough for a first guess of the curvature, and is solved nearly twice as fast.
        single = (stiff + anchor).astype(np.float32)
        self.solver = splu(single, permc_spec="MMD_AT_PLUS_A", options={"SymmetricMode": True})
        self._press(net, sheets, gauge, stuffed, pressure_share(firmness))

    def _press(self, net: Net, sheets: Sheets, gauge: Gauge, stuffed: NDArray[np.bool_], strength: float) -> None:
        """Triangles that pressure acts on, lids over openings among them. strength: the pressure, times the radius
        of the widest round."""
        own, lid = stuffed[sheets.sheet], stuffed[sheets.lid_sheet] if len(sheets.lids) else np.zeros(0, np.bool_)
        self.pressed = np.concatenate([sheets.triangles[own], sheets.lids[lid]])
        sheet = np.concatenate([sheets.sheet[own], sheets.lid_sheet[lid]])
        radius = np.array([_radius(net, sheets, s, gauge) for s in range(max(sheets.many, 1))])
        self.pressure = strength / radius[sheet] / 6 if len(sheet) else np.zeros(0)
        rims = sheets.rims
        rows = np.repeat(np.arange(len(rims)), [len(r) for r in rims])
        columns = np.concatenate(rims) if rims else np.zeros(0, np.int64)
        share = np.concatenate([np.full(len(r), 1 / len(r)) for r in rims]) if rims else np.zeros(0)
        every = np.arange(self.size)
        self.whole: csr_matrix = coo_matrix(
            (
                np.concatenate([np.ones(self.size), share]),
                (np.concatenate([every, self.size + rows]), np.concatenate([every, columns])),
            ),
            shape=(self.size + len(rims), self.size),
        ).tocsr()
        many = len(self.pressed)
        self.corners = tuple(np.ascontiguousarray(column) for column in self.pressed.T)
        corners = coo_matrix(
            (np.ones(3 * many), (self.pressed.T.ravel(), np.tile(np.arange(many), 3))),
            shape=(self.size + len(rims), many),
        )
        self.push = (self.whole.T @ corners).tocsr() if many else None

    def guess(self, slope: Vector) -> Vector:
        """The step that the springs' own stiffness answers a slope with."""
        found: Vector = self.solver.solve(np.array(slope, np.float32, order="F")).astype(np.float64, order="C")
        return found

    def energy(self, x: Vector) -> tuple[float, Vector]:
        """Energy of positions `x` (n, 3), and its gradient; units of one membrane stiffness."""
        d = self.links @ x
        length = np.sqrt(_dot(d, d)) + 1e-12
        energy, force = _spring(length - self.link_rest, self.link_weight)
        slope = self.links_t @ (d * (force / length)[:, None])
        more = self._add_posts(x, slope)
        bent = self.bend @ x
        size = np.sqrt(_dot(bent, bent)) + 1e-12
        over = size - self.bend_rest
        force = self.bend_weight * over
        slope += self.bend_t @ (bent * (force / size)[:, None])
        energy += more + 0.5 * float(np.dot(force, over))
        if len(self.thread_length):
            energy += self._add_threads(x, slope)
        if self.contact is not None:
            energy += self.contact.add(x, slope)
        for plates in self.plates:
            energy += _add_plates(plates, x, slope)
        if self.push is not None:
            normals, corner = self._normals(x)
            slope -= self.push @ (normals * self.pressure[:, None])
            energy -= float(np.dot(self.pressure, _dot(normals, corner)))
        return energy, slope

    def _add_posts(self, x: Vector, slope: Vector) -> float:
        """Energy of stitches in height and slant; their gradient is added to `slope`.

        Height is measured square to the round, slant along it, so the round's direction at the
        upper stitch pulls back on that stitch's neighbours.
        """
        along = self.direction @ x
        size = np.sqrt(_dot(along, along) + (VAGUE * self.w) ** 2)
        unit = along / size[:, None]
        t = unit[self.upper]
        d = self.posts @ x
        side = _dot(d, t)
        height = np.sqrt(np.maximum(_dot(d, d) - side**2, 0.0)) + 1e-9
        energy, lift = _spring(height - self.post_rest, self.post_weight)
        leaning = side - self.slant
        shear = SHEAR * self.post_weight * leaning
        lift /= height
        slope += self.posts_t @ (d * lift[:, None] + (shear - lift * side)[:, None] * t)
        turning = self.gather @ ((shear - lift * side)[:, None] * d)
        slope += self.direction_t @ ((turning - _dot(turning, unit)[:, None] * unit) / size[:, None])
        return energy + 0.5 * float(np.dot(shear, leaning))

    def _add_threads(self, x: Vector, slope: Vector) -> float:
        """Energy of threads sewn through, which hold when pulled and do nothing when slack; gradient added to `slope`."""
        d = self.threads @ x
        length = np.sqrt(_dot(d, d)) + 1e-12
        over = np.maximum(length - self.thread_length, 0.0)
        slope += self.threads_t @ (d * (THREAD * over / length)[:, None])
        return 0.5 * THREAD * float(np.dot(over, over))

    def _normals(self, x: Vector) -> tuple[Vector, Vector]:
        """Twice the area vector of every pressed triangle, and its first corner."""
        full = self.whole @ x
        a, u, v = (full.take(corner, axis=0) for corner in self.corners)
        u -= a
        v -= a
        out = np.empty_like(u)
        out[:, 0] = u[:, 1] * v[:, 2] - u[:, 2] * v[:, 1]
        out[:, 1] = u[:, 2] * v[:, 0] - u[:, 0] * v[:, 2]
        out[:, 2] = u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]
        return out, a


def _add_plates(plates: Plates, x: Vector, slope: Vector) -> float:
    """Energy of fabric between two plates that lie about its middle; its gradient is added to `slope`."""
    deep = x[plates.nodes] @ plates.across
    deep -= deep.mean()
    over = np.sign(deep) * np.maximum(np.abs(deep) - plates.gap / 2, 0.0)
    slope[plates.nodes] += np.outer(PRESSING * (over - over.mean()), plates.across)
    return 0.5 * PRESSING * float(np.dot(over, over))


def _dot(a: Vector, b: Vector) -> Vector:
    each: Vector = np.einsum("ij,ij->i", a, b)
    return each


def _spring(over: Vector, weight: Vector) -> tuple[float, Vector]:
    """Energy and force of springs that give way when pushed together."""
    force = np.where(over > 0, weight, GIVE * weight) * over
    return 0.5 * float(np.dot(force, over)), force


def _radius(net: Net, sheets: Sheets, sheet: int, gauge: Gauge) -> float:
    """Radius in mm of the widest tube of a sheet; of a disc of its area where it has none."""
    inside = np.zeros(net.size, np.bool_)
    inside[sheets.triangles[sheets.sheet == sheet].ravel()] = True
    widest = max((len(e.nodes) for e in net.edges if e.closed and inside[e.nodes].mean() > 0.5), default=0)
    if widest:
        return widest * gauge.stitch_mm / (2 * np.pi)
    cells = np.count_nonzero(sheets.sheet == sheet) / 2
    return float(np.sqrt(max(cells, 1.0) * gauge.stitch_mm * gauge.round_mm / (4 * np.pi)))


def settle_net(
    fabric: Fabric,
    x: Vector,
    watch: Callable[[int, Vector], bool] | None = None,
    *,
    enough: float = ENOUGH,
    most_steps: int = MOST_STEPS,
) -> Rest:
    """Descend until two steps running are shorter than `enough` stitch widths.

    watch(step, x) is called every few steps and stops the work by answering False.
    """
    energy, slope = fabric.energy(x)
    moves: list[tuple[Vector, Vector, float]] = []
    quiet = 0
    for step in range(1, most_steps + 1):
        way = _quasi_newton(fabric, slope, moves)
        down = float(np.vdot(way, slope))
        if down >= 0:
            moves.clear()
            way = -fabric.guess(slope)
            down = float(np.vdot(way, slope))
        way *= min(1.0, fabric.longest / max(_longest(way), 1e-12))
        share, trial, energy_after, slope_after = _line(fabric, x, energy, way, down)
        if share == 0.0 and moves:
            moves.clear()
            continue
        moved = trial - x
        changed = slope_after - slope
        bend = float(np.vdot(moved, changed))
        if bend > 1e-12 * float(np.vdot(moved, moved)):
            moves.append((moved.ravel(), changed.ravel(), 1.0 / bend))
            del moves[:-HISTORY]
        x, energy, slope = trial, energy_after, slope_after
        quiet = quiet + 1 if _longest(moved) < enough * fabric.w else 0
        if quiet == 2 or share == 0.0:
            return Rest(x, step, converged=True)
        if watch is not None and step % CHECK_EVERY == 0 and not watch(step, x):
            return Rest(x, step, converged=False)
    return Rest(x, most_steps, converged=False)


def _longest(step: Vector) -> float:
    return float(np.sqrt(_dot(step, step).max()))


def _line(fabric: Fabric, x: Vector, energy: float, way: Vector, down: float) -> tuple[float, Vector, float, Vector]:
    """The first of 1, 1/2, 1/4 … along `way` that goes down enough (Armijo); 0 when none does."""
    share = 1.0
    for _ in range(20):
        trial = x + share * way
        after, slope = fabric.energy(trial)
        if after <= energy + 1e-4 * share * down:
            return share, trial, after, slope
        share *= 0.5
    return 0.0, x, energy, fabric.energy(x)[1]


def _quasi_newton(fabric: Fabric, slope: Vector, moves: list[tuple[Vector, Vector, float]]) -> Vector:
    """The two-loop recursion, with the springs' own stiffness as its first guess; all in place, by BLAS."""
    q = slope.ravel().copy()
    shares: list[float] = []
    for moved, changed, inverse in reversed(moves):
        share = inverse * float(ddot(moved, q))
        daxpy(changed, q, a=-share)
        shares.append(share)
    way = fabric.guess(q.reshape(slope.shape)).ravel()
    for (moved, changed, inverse), share in zip(moves, reversed(shares), strict=True):
        daxpy(moved, way, a=share - inverse * float(ddot(changed, way)))
    return -way.reshape(slope.shape)
