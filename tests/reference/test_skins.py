"""Skins cut, unrolled and sewn, against general-purpose libraries (trimesh, SciPy) and closed formulas.

Formulas: a harmonic function between the rims of a ring is ln(r / r0) / ln(r1 / r0) (any textbook of potential
theory); the isoperimetric inequality, 36 π V² ≤ A³.
"""

from __future__ import annotations

import math

import numpy as np
import pytest
import trimesh
from scipy.spatial.transform import Rotation

from craft.figure.settling import measure
from craft.fitting.panels import Panel, draft_panels, settle_sewn
from craft.fitting.panels.sewn import _goals, _laid
from craft.gauge import Gauge
from craft.shape.target import Box, Form, Modifier, Solid, TriangleMesh, evened_between, patches_of

GAUGE = Gauge(5.6, 5.15, 0.4)


def as_trimesh(mesh: TriangleMesh) -> trimesh.Trimesh:
    return trimesh.Trimesh(mesh.x, mesh.faces, process=False)


@pytest.mark.parametrize("size", [(70, 60, 90), (30, 30, 30), (150, 40, 60)])
def test_a_box_is_the_libraries_box(size: tuple[int, int, int]) -> None:
    ours, theirs = as_trimesh(Box(*size).mesh()), trimesh.creation.box(extents=size)
    assert ours.is_watertight
    assert ours.is_winding_consistent
    assert ours.volume == pytest.approx(theirs.volume)
    assert ours.area == pytest.approx(theirs.area)
    assert ours.extents == pytest.approx(theirs.extents)
    assert ours.moment_inertia == pytest.approx(theirs.moment_inertia, rel=0.02)


@pytest.mark.parametrize("size", [(70, 60, 90), (150, 40, 60)])
def test_patches_of_a_box_are_the_libraries_facets(size: tuple[int, int, int]) -> None:
    mesh = Box(*size).mesh()
    theirs = as_trimesh(mesh)
    facets = sorted(theirs.facets_area.tolist())
    assert sorted(p.area_mm2 for p in patches_of(mesh)) == pytest.approx(facets)


def test_patches_of_a_turned_box_are_its_sides_too() -> None:
    mesh = Box(70, 60, 90).mesh()
    turned = TriangleMesh(Rotation.from_euler("xyz", [20, 12, 25], degrees=True).apply(mesh.x), mesh.faces, mesh.pole)
    found = sorted(round(p.area_mm2) for p in patches_of(turned))
    assert found == [4200, 4200, 5400, 5400, 6300, 6300]


def ring(inner: float, outer: float, around: int = 96, along: int = 24) -> tuple[np.ndarray, np.ndarray]:
    """A flat ring of triangles: corners and faces, the inner rim's corners first, the outer rim's last."""
    turn = np.linspace(0, 2 * math.pi, around, endpoint=False)
    radius = np.linspace(inner, outer, along + 1)
    x = np.array([(r * math.cos(a), r * math.sin(a), 0.0) for r in radius for a in turn])
    i, j = (m.ravel() for m in np.meshgrid(np.arange(along), np.arange(around), indexing="ij"))
    a, b = i * around + j, i * around + (j + 1) % around
    faces = np.concatenate([np.column_stack([a, a + around, b]), np.column_stack([b, a + around, b + around])])
    return x, faces


@pytest.mark.parametrize(("inner", "outer"), [(10, 40), (25, 50), (5, 60)])
def test_values_even_out_over_a_ring_as_the_logarithm_does(inner: float, outer: float) -> None:
    x, faces = ring(inner, outer)
    value = evened_between(x, faces, np.arange(96), np.arange(len(x) - 96, len(x)))
    radius = np.hypot(x[:, 0], x[:, 1])
    assert value == pytest.approx(np.log(radius / inner) / math.log(outer / inner), abs=0.004)


def test_values_even_out_over_a_strip_in_a_straight_line() -> None:
    theirs = trimesh.creation.box(extents=(40, 80, 1)).subdivide().subdivide().subdivide()
    top = theirs.face_normals[:, 2] > 0.9
    used, small = np.unique(theirs.faces[top], return_inverse=True)
    x = np.asarray(theirs.vertices)[used]
    low, high = np.flatnonzero(x[:, 1] < -39.99), np.flatnonzero(x[:, 1] > 39.99)
    value = evened_between(x, small.reshape(-1, 3), low, high)
    assert value == pytest.approx((x[:, 1] + 40) / 80, abs=1e-9)


@pytest.mark.parametrize("seed", range(4))
def test_a_body_begun_elsewhere_is_only_turned(seed: int) -> None:
    mesh = Form(Solid("egg", 90, 60), (Modifier("bend", {"degrees": 50}),)).mesh
    corner = int(np.random.default_rng(seed).integers(len(mesh.x)))
    begun = mesh.begun_at(corner)
    a, b = mesh.x - mesh.x.mean(0), begun.x - begun.x.mean(0)
    turn, off = Rotation.align_vectors(b, a)
    assert off == pytest.approx(0, abs=1e-6)
    assert np.linalg.det(turn.as_matrix()) == pytest.approx(1)
    assert as_trimesh(begun).volume == pytest.approx(as_trimesh(mesh).volume)


def test_panels_are_laid_as_the_library_turns_them() -> None:
    """The rotation of least squares that lays a panel's edging on its patch, judged by SciPy's."""
    panel = draft_panels(patches_of(Box(70, 60, 90).mesh()), GAUGE).panels[2]
    many = sum(e.stitches + 1 for e in panel.edges)
    rng = np.random.default_rng(5)
    x = rng.normal(size=(many, 3)) * [30, 1, 40]
    laid = _laid(x, np.arange(many), panel)
    turn, _ = Rotation.align_vectors(laid - laid.mean(0), x - x.mean(0))
    assert turn.apply(x - x.mean(0)) == pytest.approx(laid - laid.mean(0), abs=1e-6)
    for nudge in np.radians([[3, 0, 0], [0, 3, 0], [0, 0, 3], [-3, 0, 0]]):
        goal = _goal_error(panel, laid)
        other = Rotation.from_rotvec(nudge).apply(laid - laid.mean(0)) + laid.mean(0)
        assert _goal_error(panel, other) > goal


def _goal_error(panel: Panel, laid: np.ndarray) -> float:
    goal, nodes = _goals(panel.patch, panel, np.arange(len(laid)))
    return float(np.square(laid[nodes] - goal).sum())


@pytest.mark.parametrize(
    "form", [Form(Box(60, 50, 70)), Form(Solid("sphere", 70, 70), (Modifier("taper", {"amount": 0}),))]
)
@pytest.mark.parametrize("firmness", [None, 0.5])
def test_what_is_sewn_is_one_closed_body_of_the_measured_volume(form: Form, firmness: float | None) -> None:
    settled = settle_sewn(draft_panels(patches_of(form.mesh), GAUGE), firmness=firmness)
    body = trimesh.Trimesh(settled.x, settled.triangles, process=False)
    found = measure(settled)
    if isinstance(form.base, Box):
        assert body.is_watertight
        assert body.is_winding_consistent
    assert body.volume / 1000 == pytest.approx(found.volume_ml, rel=0.02)
    assert body.area / 100 == pytest.approx(found.area_cm2, rel=1e-6)
    assert 36 * math.pi * body.volume**2 <= body.area**3
    assert body.volume <= body.convex_hull.volume * 1.001
