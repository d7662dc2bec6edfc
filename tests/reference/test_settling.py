"""Settled figures against trimesh, closed forms and an independent estimate."""

from __future__ import annotations

import math

import numpy as np
import pytest
import trimesh

from craft.figure.settling import Mesh, Settled, measure, mesh_file, round_nodes, settle, shape_error
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.shape.drafting import Recipe, draft
from craft.shape.profile import inflated_profile
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.2, 0.4)


def drafted(solid: Solid, gauge: Gauge = GAUGE) -> WorkedPart:
    return check(print_rounds(draft(Recipe(solid, simplicity=0.0), gauge).part)).parts[0]


@pytest.fixture(scope="module")
def egg() -> Settled:
    return settle(drafted(Solid("egg", 70, 56)), GAUGE)


def as_trimesh(settled: Settled) -> trimesh.Trimesh:
    return trimesh.Trimesh(settled.x, settled.triangles, process=False)


def test_trimesh_finds_a_closed_mesh_of_the_same_volume_and_area(egg: Settled) -> None:
    mesh, own = as_trimesh(egg), measure(egg)
    assert mesh.is_watertight
    assert mesh.is_winding_consistent
    assert mesh.volume / 1000 == pytest.approx(own.volume_ml, rel=1e-9)
    assert mesh.area / 100 == pytest.approx(own.area_cm2, rel=1e-9)


@pytest.mark.parametrize("ending", ["obj", "stl", "glb"])
def test_trimesh_reads_every_mesh_file(egg: Settled, ending: str) -> None:
    data = trimesh.util.wrap_as_stream(mesh_file(Mesh.of(egg, {}), ending))
    mesh = trimesh.load(data, file_type=ending, force="mesh")
    size = np.sort(np.ptp(np.asarray(mesh.vertices), axis=0)) * (1000 if ending == "glb" else 1)
    assert size == pytest.approx(np.sort(np.ptp(egg.x, axis=0)), rel=1e-3)
    assert len(mesh.faces) == len(egg.triangles)


def test_trimesh_measures_the_same_distance_to_a_sphere() -> None:
    """The shape error by hand: trimesh samples the settled surface, the sphere's distance is closed form."""
    solid = Solid("sphere", 80, 80)
    settled = settle(drafted(solid), GAUGE)
    points, _ = trimesh.sample.sample_surface(as_trimesh(settled), 20_000, seed=1)
    points = points[np.linalg.norm(points - settled.x[-1], axis=1) > 1.6 * GAUGE.stitch_mm]
    best = min(
        float(np.sqrt(np.mean((np.linalg.norm(points - [*points[:, :2].mean(0), z], axis=1) - 40) ** 2)))
        for z in np.linspace(35, 45, 101)
    )
    assert shape_error(settled, solid).rms_mm == pytest.approx(best, abs=0.15)


def test_a_tube_is_a_cylinder() -> None:
    """n w = 2πr and rounds × h tall, within what filling stretches (5 to 10 %, from memory)."""
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R30: 18 sc [18]\nStuff."
    settled = settle(check(text).parts[0], GAUGE)
    middle = [settled.x[n] for k, (n, _) in round_nodes(settled).items() if 10 <= k <= 24]
    radius = [float(np.hypot(*(p[:, :2] - p[:, :2].mean(0)).T).mean()) for p in middle]
    assert np.mean(radius) == pytest.approx(18 * 5.6 / 2 / math.pi, rel=0.05)
    assert np.ptp(radius) < 0.02 * np.mean(radius)
    rise = (middle[-1].mean(0) - middle[0].mean(0))[2] / 14
    assert rise == pytest.approx(5.2, rel=0.05)


FLAT_ENDED = [("cone", 100, 70), ("cone", 60, 80), ("dome", 45, 90), ("dome", 70, 70), ("cylinder", 80, 70)]


@pytest.mark.parametrize(("kind", "height", "width"), FLAT_ENDED)
def test_flat_bases_bulge_as_the_axisymmetric_estimate_predicts(kind: str, height: float, width: float) -> None:
    """An independent reckoning: a body of revolution in r and z, solved by Newton's method.

    The bulge of a flat end is how far its last round stands out beyond its last widest one.
    """
    solid = Solid(kind, height, width)
    made = draft(Recipe(solid, simplicity=0.0), GAUGE)
    figure = settle(check(print_rounds(made.part)).parts[0], GAUGE)
    settled = measure(figure)
    estimate = inflated_profile(made.counts, GAUGE, closed=True)
    assert settled.height_mm == pytest.approx(estimate.height_mm, rel=0.06)
    assert settled.volume_ml == pytest.approx(estimate.volume_ml, rel=0.15)
    # A base twice as wide as the piece is high bulges by more than the rest can be made lower.
    near = 0.13 * height if width >= 2 * height else max(0.03 * height, GAUGE.round_mm / 2) + 0.01 * height
    assert settled.height_mm == pytest.approx(height, abs=near), "its bulge is drafted for"
    z = [figure.x[nodes][:, 2].mean() for _, (nodes, _) in sorted(round_nodes(figure).items())]
    rim = max(i for i, n in enumerate(made.counts) if n == max(made.counts))
    bulge = estimate.height[-1] - estimate.height[rim]
    assert bulge > 10
    assert z[-1] - z[rim] == pytest.approx(bulge, rel=0.15)


def test_the_lean_of_a_right_hander_drifts_to_the_right() -> None:
    """Common practice, no source: the start drifts right, about its lean in stitches a round."""
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R20: 18 sc [18]"
    settled = settle(check(text).parts[0], GAUGE)
    starts = {k: settled.x[nodes[0]] - settled.x[nodes].mean(0) for k, (nodes, _) in round_nodes(settled).items()}
    angles = np.unwrap([math.atan2(starts[k][0], -starts[k][1]) for k in range(5, 19)])
    drift = (angles[-1] - angles[0]) / 13 * 18 / (2 * math.pi)
    assert drift == pytest.approx(0.4, abs=0.12)
