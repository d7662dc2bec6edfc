"""Pellets in the base take part in the balance: their weight lies low, and how low is told by a sphere's own centre."""

from __future__ import annotations

import numpy as np
import pytest

from craft.design.assembly import put_together
from craft.design.design import Design
from craft.design.parts import GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts
from craft.figure.body import Placed
from craft.figure.placement import Surface, balance
from craft.figure.placement.balance import PELLETS, PELLETS_UP_TO, weight_of
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check
from tests.craft.figures import BALL

GAUGE = Gauge(5.6, 5.2, 0.0)


@pytest.fixture(scope="module")
def ball() -> Surface:
    return Surface.of(settle(check(BALL).parts[0], GAUGE))


def test_the_weight_lies_where_a_sphere_with_a_heavy_cap_has_it(ball: Surface) -> None:
    """A sphere of radius 1 cut at a third of its height: both pieces' volumes and centroids in closed form."""
    placed = (Placed("ball", np.eye(4)),)
    plain, heavy = weight_of({"ball": ball}, placed), weight_of({"ball": ball}, placed, ("ball",))
    assert plain is not None
    assert heavy is not None
    height = float(np.ptp(ball.x[:, 2]))
    h = 2 * PELLETS_UP_TO
    cap, whole = np.pi * h**2 * (3 - h) / 3, 4 * np.pi / 3
    centre = -3 * (2 - h) ** 2 / (4 * (3 - h))  # of the cap, from the sphere's middle
    extra = (PELLETS - 1) * cap
    sunk = -extra * centre / (whole + extra) * height / 2
    assert plain[2] - heavy[2] == pytest.approx(sunk, rel=0.15)
    assert np.allclose(plain[:2], heavy[:2], atol=1.0)


def test_a_figure_with_pellets_is_steadier(ball: Surface) -> None:
    placed = (Placed("ball", np.eye(4)),)
    plain, heavy = balance({"ball": ball}, placed), balance({"ball": ball}, placed, ("ball",))
    assert plain is not None
    assert heavy is not None
    rank = ("tips", "wobbly", "steady")
    assert rank.index(heavy.verdict) >= rank.index(plain.verdict)
    assert heavy.margin_mm == pytest.approx(plain.margin_mm, abs=1.0)


@pytest.mark.parametrize(
    ("filling", "weighted"),
    [
        ("Stuff firmly.", False),
        ("Fill the base with pellets in a bag, then stuff.", True),
        ("Stuff firmly, without pellets.", False),
    ],
)
def test_the_directions_of_a_part_say_whether_it_has_pellets(filling: str, weighted: bool) -> None:
    own = GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.6, 5.2, 0.0, 60, 0.5)
    design = Design("Ball", gauge=own, parts=(Part("b", "Body", BALL.replace("Stuff firmly.", filling)),))
    assert put_together(design, run_parts(design), {}).weighted == (frozenset({"b"}) if weighted else frozenset())
