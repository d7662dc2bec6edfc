"""Fabric that touches, judged by trimesh: a coil does not lie in itself, pieces do not lie in each other."""

from __future__ import annotations

import numpy as np
import pytest
import trimesh
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from craft.figure.body import Placed
from craft.figure.placement import Seat, Surface, give_way, place
from craft.figure.placement.touching import APART
from craft.figure.settling import Settled, settle
from craft.gauge import Gauge
from craft.text.check import check

GAUGE = Gauge(5.6, 5.15, 0.4)
BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R11: sc around [30]
R12: (3 sc, dec) x 6 [24]
R13: (2 sc, dec) x 6 [18]
Stuff firmly.
R14: (sc, dec) x 6 [12]
R15: dec x 6 [6]
Close.
"""
WING = "Ch 13\nRow 1: sc in 2nd ch from hook and in each ch across [12]\n" + "".join(
    f"Row {n}: ch 1, turn, sc in each st across [12]\n" for n in range(2, 12)
)
ARM = "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R9: sc around [9]\nStuff lightly.\n"


def settled(text: str) -> Settled:
    return settle(check(text).parts[-1], GAUGE)


def in_scene(piece: Placed, surface: Surface) -> NDArray[np.float64]:
    x = surface.x if piece.x is None else piece.x
    return x @ piece.matrix[:3, :3].T + piece.matrix[:3, 3]


def depth(points: NDArray[np.float64], x: NDArray[np.float64], triangles: NDArray[np.int64]) -> NDArray[np.float64]:
    """How deep each point lies in a closed mesh, negative outside: trimesh finds the nearest point and its triangle."""
    mesh = trimesh.Trimesh(x, triangles, process=False)
    nearest, _, at = trimesh.proximity.closest_point_naive(mesh, points)
    return -np.einsum("ij,ij->i", points - nearest, mesh.face_normals[at])


def apart_over_the_fabric(found: Settled, hops: int) -> NDArray[np.bool_]:
    """(n, n) whether nodes are further apart than that many steps over the mesh's edges."""
    mesh = trimesh.Trimesh(found.x, found.triangles, process=False)
    a, b = mesh.edges_unique.T
    many = len(found.x)
    web = coo_matrix((np.ones(2 * len(a)), (np.r_[a, b], np.r_[b, a])), shape=(many, many)).tocsr()
    return dijkstra(web, unweighted=True, limit=hops) > hops


def test_the_turns_of_a_coil_keep_their_distance() -> None:
    """Every stitch is further from every triangle that is not near it over the fabric than half the fabric's thickness."""
    lines = ["R1: 5 sc in ring [5]", "R2-R10: sc around [5]", "R11: inc, 4 sc [6]", "R12-R22: sc around [6]"]
    lines += ["R23: inc, 5 sc [7]", "R24-R36: sc around [7]", "R37: inc, 6 sc [8]", "R38-R50: sc around [8]"]
    coil = settled("\n".join([*lines, "Stuff lightly.", "Coil the tube and sew it to itself."]))
    far = apart_over_the_fabric(coil, 4)
    triangles = coil.x[coil.triangles]
    for node in range(0, len(coil.x), 3):
        rows = far[node][coil.triangles].all(1)
        points = np.repeat(coil.x[node][None], int(rows.sum()), 0)
        nearest = trimesh.triangles.closest_point(triangles[rows], points)
        assert np.linalg.norm(nearest - points, axis=1).min() > 0.3 * GAUGE.stitch_mm


@pytest.mark.parametrize(
    ("text", "seat"),
    [
        (WING, Seat("piece", "ball", 9, 8.0, paired=True, tilt=-75)),
        (WING, Seat("piece", "ball", 9, 8.0, tilt=40, laid=True)),
        (ARM, Seat("piece", "ball", 8, 7.0, paired=True, tilt=-60)),
        (BALL, Seat("piece", "ball", 11, 0.0)),
    ],
    ids=["a wing on its edge", "a wing laid on", "arms that hang along the side", "a closed ball set on a ball"],
)
def test_two_pieces_that_touch_do_not_lie_in_each_other(text: str, seat: Seat) -> None:
    surfaces = {"ball": Surface.of(settled(BALL)), "piece": Surface.of(settled(text))}
    placed = place(surfaces, {"ball": 1, "piece": 1}, (seat,))
    before = [in_scene(p, surfaces[p.part]) for p in placed]
    after = give_way(surfaces, placed, (seat,), GAUGE.stitch_mm)
    found = [in_scene(p, surfaces[p.part]) for p in after]
    triangles = surfaces["ball"].triangles
    for k, piece in enumerate(after):
        if piece.part == "ball":
            continue
        was = float(depth(before[k], before[0], triangles).max())
        now = float(depth(found[k], found[0], triangles).max())
        assert was > 0.5, "they did lie in each other"
        assert now < max(0.12 * GAUGE.stitch_mm, 0.2 * was)


def test_what_touches_nothing_stays_as_it_is() -> None:
    surfaces = {"ball": Surface.of(settled(BALL)), "piece": Surface.of(settled(ARM))}
    placed = place(surfaces, {"ball": 1, "piece": 1}, ())
    assert all(a is b for a, b in zip(placed, give_way(surfaces, placed, (), GAUGE.stitch_mm), strict=True))


DOOR = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nStuff, and leave a long tail for sewing.\n"
STEM = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6: (4 sc, inc) x 6 [36]
R7: (8 sc, inc) x 4 [40]
R8-R19: sc around [40]
R20: (8 sc, dec) x 4 [36]
R21: (4 sc, dec) x 6 [30]
R22: (3 sc, dec) x 6 [24]
Stuff firmly.
R23: (2 sc, dec) x 6 [18]
R24: (sc, dec) x 6 [12]
R25: dec x 6 [6]
Close.
"""


def test_what_carries_a_small_open_piece_never_comes_out_through_it() -> None:
    """A door sewn on a stem: all of its edge lies over the stem's fabric, about as far as two layers keep."""
    surfaces = {"ball": Surface.of(settled(STEM)), "piece": Surface.of(settled(DOOR))}
    seat = Seat("piece", "ball", 11, 0.0)
    placed = place(surfaces, {"ball": 1, "piece": 1}, (seat,))
    stem, door = give_way(surfaces, placed, (seat,), GAUGE.stitch_mm)
    x = in_scene(door, surfaces["piece"])
    deep = depth(x, in_scene(stem, surfaces["ball"]), surfaces["ball"].triangles)
    rim = deep[surfaces["piece"].rings[-1]]
    assert deep.max() < -0.6 * APART * GAUGE.stitch_mm
    assert np.median(rim) < -0.8 * APART * GAUGE.stitch_mm
