"""Solids against closed forms, SciPy and trimesh.

Closed forms: sphere 4πr², 4/3 πr³; cone πr·s, πr²h/3; prolate and oblate spheroid areas from any
table of solids of revolution (quoted from memory).
"""

from __future__ import annotations

import math

import numpy as np
import pytest
import trimesh
from scipy.integrate import quad

from craft.design.design import Design
from craft.design.grading import first_size, scaled
from craft.design.parts import GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft, rings_of
from craft.shape.profile import inflated_profile, quick_profile
from craft.shape.target import Solid
from craft.text.notation import print_rounds

FINE = Gauge(1.2, 1.1)


def test_sphere() -> None:
    outline = Solid("sphere", 80, 80).outline()
    assert outline.length == pytest.approx(math.pi * 40, rel=1e-4)
    assert outline.area_cm2 == pytest.approx(4 * math.pi * 16, rel=1e-4)
    assert outline.volume_ml == pytest.approx(4 / 3 * math.pi * 64, rel=1e-4)


@pytest.mark.parametrize(("height", "width"), [(120, 60), (50, 90)])
def test_spheroids(height: float, width: float) -> None:
    a, c = width / 20, height / 20
    outline = Solid("ellipsoid", height, width).outline()
    assert outline.volume_ml == pytest.approx(4 / 3 * math.pi * a * a * c, rel=1e-4)
    if c > a:
        e = math.sqrt(1 - a * a / c / c)
        area = 2 * math.pi * a * a * (1 + c / (a * e) * math.asin(e))
    else:
        e = math.sqrt(1 - c * c / a / a)
        area = 2 * math.pi * a * a * (1 + (1 - e * e) / e * math.atanh(e))
    assert outline.area_cm2 == pytest.approx(area, rel=1e-4)


def test_cone() -> None:
    outline = Solid("cone", 60, 40, open=True).outline()
    assert outline.length == pytest.approx(math.hypot(60, 20))
    assert outline.area_cm2 == pytest.approx(math.pi * 2 * math.hypot(6, 2))
    assert Solid("cone", 60, 40).outline().volume_ml == pytest.approx(math.pi * 4 * 6 / 3, rel=1e-3)


def test_capsule_and_cylinder() -> None:
    capsule = Solid("capsule", 100, 40).outline()
    assert capsule.volume_ml == pytest.approx(math.pi * 4 * 6 + 4 / 3 * math.pi * 8, rel=1e-3)
    assert Solid("cylinder", 50, 40).outline().volume_ml == pytest.approx(math.pi * 4 * 5, rel=1e-3)


@pytest.mark.parametrize("point", [0.1, 0.3, 0.5])
def test_egg_length_against_numerical_integration(point: float) -> None:
    outline = Solid("egg", 80, 60, point=point).outline()
    shape = lambda t: math.sin(t) * (1 + point * math.cos(t))  # noqa: E731
    scale = 30 / max(shape(t) for t in np.linspace(0, math.pi, 20_001))

    def speed(t: float) -> float:
        dr = scale * (math.cos(t) * (1 + point * math.cos(t)) - point * math.sin(t) ** 2)
        return math.hypot(dr, 40 * math.sin(t))

    assert outline.length == pytest.approx(quad(speed, 0, math.pi)[0], rel=1e-4)


@pytest.mark.parametrize("kind", ["sphere", "ellipsoid", "egg", "drop", "capsule", "cylinder", "dome"])
def test_volumes_against_trimesh(kind: str) -> None:
    """trimesh turns the same outline into a mesh and measures it on its own."""
    outline = Solid(kind, 70, 60).outline()
    line = np.column_stack([outline.r, outline.z])[::4]
    line[0, 0] = line[-1, 0] = 0.0
    mesh = trimesh.creation.revolve(line, sections=256)
    assert abs(mesh.volume) / 1000 == pytest.approx(outline.volume_ml, rel=2e-3)
    assert mesh.area / 100 == pytest.approx(outline.area_cm2, rel=5e-3)


@pytest.mark.parametrize("kind", ["sphere", "egg", "drop", "capsule"])
def test_girths_of_rings_against_integration(kind: str) -> None:
    """A ring's girth is 2πr at its arc length, found here by integrating along the outline again."""
    solid = Solid(kind, 80, 60)
    outline = solid.outline()
    rings = rings_of(solid, Gauge(5, 4.6), 6)
    at = [
        float(np.interp(s, np.cumsum(np.hypot(np.diff(outline.r), np.diff(outline.z))), outline.r[1:])) for s in rings.s
    ]
    assert rings.stitches * 5 == pytest.approx(2 * math.pi * np.array(at), rel=1e-2)


def test_a_finely_worked_ball_has_the_volume_of_the_ball() -> None:
    counts = draft(Recipe(Solid("sphere", 80, 80), simplicity=0.0), FINE).counts
    profile = inflated_profile(counts, FINE, closed=True)
    assert profile.volume_ml == pytest.approx(4 / 3 * math.pi * 64, rel=0.05)
    assert profile.area_cm2 == pytest.approx(4 * math.pi * 16, rel=0.05)


def test_profile_volume_against_trimesh() -> None:
    profile = quick_profile([6, 12, 18, 24, 24, 24, 18, 12, 6], Gauge(5, 4.6), closed=True)
    line = np.column_stack([np.append(0, profile.radius), np.append(0, profile.height)])
    line = np.vstack([line, [0, profile.height[-1]]])
    mesh = trimesh.creation.revolve(line, sections=512)
    assert abs(mesh.volume) / 1000 == pytest.approx(profile.volume_ml, rel=2e-3)


@pytest.mark.parametrize("scale", [0.6, 1.5, 2.0])
def test_a_graded_ball_is_a_ball_by_trimesh(scale: float) -> None:
    """A drafted ball at another size, turned into a mesh, holds k³ times as much and has k² times the skin.

    The mesh is trimesh's own revolution of the predicted profile, closed at its poles.
    """
    gauge = Gauge(2.4, 2.2)
    text = print_rounds(draft(Recipe(Solid("sphere", 60, 60), simplicity=0.0), gauge).part)
    part = Part("b", "Ball", text)
    own = GaugeInForce(GaugeFrom.OWN, stitch_mm=gauge.stitch_mm, round_mm=gauge.round_mm)
    design = Design("Ball", gauge=own, parts=(part,))
    first = first_size(design, run_parts(design))
    was, now = (_revolved(sized.parts[0].worked.counts, gauge) for sized in (first, scaled(first, scale)))
    assert now.is_watertight
    near = max(0.02, gauge.round_mm / 2 / (60 * scale))  # rounds are whole
    assert now.volume / was.volume == pytest.approx(scale**3, rel=3 * near)
    assert now.area / was.area == pytest.approx(scale**2, rel=2 * near)


def _revolved(counts: tuple[int, ...], gauge: Gauge) -> trimesh.Trimesh:
    profile = inflated_profile(counts, gauge, closed=True)
    line = np.column_stack([profile.radius, profile.height])
    return trimesh.creation.revolve(np.vstack([[0.0, line[0, 1]], line, [0.0, line[-1, 1]]]), sections=64)
