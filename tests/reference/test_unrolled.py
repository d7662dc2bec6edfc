"""Lines unrolled from a settled surface, against surfaces whose development is known in closed form."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest

from craft.figure.placement import Foot, Surface, unrolled

ROWS, AROUND = 60, 120


def surface(x: np.ndarray[tuple[int, ...], np.dtype[np.float64]]) -> Surface:
    """A surface of revolution, stitches to the viewer's left around it: its nodes (rows, around, 3), wound outward."""
    rows, around = x.shape[:2]
    node = np.arange(rows * around).reshape(rows, around)
    a, b = node[:-1], np.roll(node, -1, 1)[:-1]
    c, d = node[1:], np.roll(node, -1, 1)[1:]
    triangles = np.concatenate([np.stack([a, c, b], -1).reshape(-1, 3), np.stack([b, c, d], -1).reshape(-1, 3)])
    flat = x.reshape(-1, 3)
    towards = np.cross(flat[triangles[:, 1]] - flat[triangles[:, 0]], flat[triangles[:, 2]] - flat[triangles[:, 0]])
    middle = flat.mean(0)
    inward = ((flat[triangles].mean(1) - middle) * towards).sum(1) < 0
    triangles[inward] = triangles[inward][:, ::-1]
    nothing = np.zeros(len(flat), np.int64)
    labels = tuple(f"R{k + 1}" for k in range(rows))
    return Surface(flat, tuple(node), triangles, nothing, nothing.astype(float), Foot.OPENING, labels)


def revolved(radius: np.ndarray[tuple[int], np.dtype[np.float64]], height: object) -> Surface:
    angle = 2 * np.pi * np.arange(AROUND) / AROUND
    r, z = radius[:, None], np.asarray(height)[:, None]
    ring = np.broadcast_arrays(r * np.sin(angle), -r * np.cos(angle), z + 0 * angle)
    return surface(np.stack(ring, axis=-1))


def length(line: tuple[tuple[float, float], ...]) -> float:
    return sum(math.dist(a, b) for a, b in itertools.pairwise(line))


def test_a_line_on_a_cylinder_is_straight_and_as_long_as_the_rolled_off_rectangle_s_diagonal() -> None:
    tube = revolved(np.full(ROWS, 30.0), np.arange(ROWS) * 2.0)
    line = unrolled(tube, (10, 0.0), (40, 1.2))
    wide, tall = 30 * 1.2, 60.0
    assert length(line) == pytest.approx(math.hypot(wide, tall), rel=2e-3)
    assert math.dist(line[0], line[-1]) == pytest.approx(length(line), rel=1e-3), "it does not bend"
    assert abs(line[-1][0]) == pytest.approx(wide, rel=0.01)
    assert line[-1][1] == pytest.approx(tall, rel=0.01)


def test_it_goes_to_the_viewers_right_where_the_line_does() -> None:
    tube = revolved(np.full(ROWS, 30.0), np.arange(ROWS) * 2.0)
    left, right = (unrolled(tube, (20, 0.0), (20, angle))[-1] for angle in (0.8, -0.8))
    seen = [tube.spot(20, angle)[0][0] for angle in (0.8, -0.8)]
    assert np.sign(left[0]) == np.sign(seen[0])
    assert np.sign(right[0]) == np.sign(seen[1])
    assert left[1] == pytest.approx(0, abs=0.05)


def test_a_parallel_of_a_cone_is_an_arc_of_the_circle_that_the_cone_is_cut_from() -> None:
    """A cone of half angle α is cut from a disc: its parallel at a slant of s becomes an arc of radius s, turned by
    its length over s (elementary geometry)."""
    alpha = math.radians(35)
    slant = 20 + np.arange(ROWS) * 1.5
    cone = revolved(slant * math.sin(alpha), -slant * math.cos(alpha))
    row, turn = 30, 1.5
    line = unrolled(cone, (row, 0.0), (row, turn))
    s = float(slant[row])
    arc = s * math.sin(alpha) * turn
    assert length(line) == pytest.approx(arc, rel=3e-3)
    chord = 2 * s * math.sin(arc / s / 2)
    assert math.dist(line[0], line[-1]) == pytest.approx(chord, rel=4e-3)


@pytest.mark.parametrize("latitude", [0.0, 20.0, 40.0])
def test_a_parallel_of_a_sphere_turns_by_the_sine_of_its_latitude(latitude: float) -> None:
    """Its geodesic curvature is tan φ / R (do Carmo, 4-4), so an arc of the angle λ turns by λ sin φ."""
    r = 40.0
    phi = np.radians(np.linspace(-70, 70, 141))
    ball = revolved(r * np.cos(phi), r * np.sin(phi))
    row, turn = 70 + latitude, 1.4
    line = unrolled(ball, (row, 0.0), (row, turn))
    arc = r * math.cos(math.radians(latitude)) * turn
    assert length(line) == pytest.approx(arc, rel=3e-3)
    headings = [math.atan2(b[1] - a[1], b[0] - a[0]) for a, b in itertools.pairwise(line)]
    turned = np.unwrap(headings)
    wanted = turn * math.sin(math.radians(latitude)) * (len(headings) - 1) / len(headings)
    assert abs(turned[-1] - turned[0]) == pytest.approx(wanted, abs=0.03)


def test_a_line_of_no_length_is_a_point() -> None:
    tube = revolved(np.full(ROWS, 30.0), np.arange(ROWS) * 2.0)
    assert unrolled(tube, (5, 0.3), (5, 0.3)) == ((0.0, 0.0),)
