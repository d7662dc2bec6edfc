"""How limbs lean where they are put: down, hanging or upright, by the slope of the fabric that they are sewn to."""

from __future__ import annotations

import math

import pytest

from craft.figure.placement import Surface, propose_seat, usual_tilt
from craft.figure.placement.proposals import normal_above_level
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check

GAUGE = Gauge(5.6, 5.2, 0.4)
GROWN = ("R1: 6 sc in ring [6]", "R2: inc x 6 [12]", *(f"R{k}: ({k - 2} sc, inc) x 6 [{6 * k}]" for k in range(3, 6)))
BARREL = (*GROWN, "R6-R15: sc around [30]", "R16: (3 sc, dec) x 6 [24]", "R17: (2 sc, dec) x 6 [18]", "Stuff firmly.")
MOST_DEGREES_OFF = 15


@pytest.fixture(scope="module")
def barrel() -> Surface:
    """A body as bases are: level below, straight up, drawn in on top."""
    return Surface.of(settle(check("\n".join(BARREL)).parts[0], GAUGE))


def test_the_slope_of_stuffed_fabric_is_told_from_the_counts(barrel: Surface) -> None:
    """The settled body is the judge: at every round its own normal."""
    counts = check("\n".join(BARREL)).parts[0].counts
    for index in range(2, len(counts) - 1):
        settled = math.degrees(math.asin(barrel.spot(index, math.pi / 3)[1][2]))
        assert abs(normal_above_level(counts, index) - settled) < MOST_DEGREES_OFF, index


def test_legs_point_down_wherever_they_stand(barrel: Surface) -> None:
    counts = check("\n".join(BARREL)).parts[0].counts
    for round_ in (3, 4, 5, 6):
        _, out = barrel.spot(round_ - 1, math.pi / 3, usual_tilt("Leg", counts, round_))
        assert math.degrees(math.acos(-out[2])) < MOST_DEGREES_OFF + 5, round_
    _, out = barrel.spot(14, math.pi / 2, usual_tilt("Arm", counts, 15))
    assert -60 < math.degrees(math.asin(out[2])) < -15


def test_on_a_head_that_is_worked_from_its_top_ears_are_above_its_eyes() -> None:
    """Its last round is sewn to the body: what is high on it has low numbers."""
    counts = [6, 12, 18, 24, 30, 36, *[36] * 7, 30, 24, 18]
    from_foot, from_top = (propose_seat("Ears", counts[:: 1 if top else -1], from_top=top) for top in (False, True))
    assert from_top.round == len(counts) + 1 - from_foot.round
    assert from_top.round < len(counts) / 2
    assert from_top.tilt == -from_foot.tilt
    assert propose_seat("Hat", counts, from_top=True).round == 1
