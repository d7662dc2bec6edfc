"""Growth of flat circles: 2π h / w stitches a round (plane geometry).

The trade's figures beside it are common practice, no source: 6 for single, about 8 for half double,
11 to 14 for double crochet.
"""

from __future__ import annotations

import math

import pytest

from craft.gauge import Gauge
from craft.rounds.stitches import stitch
from craft.shape.profile import Lie, quick_profile


def growth(key: str, ratio: float) -> float:
    gauge = Gauge(5.0, 5.0 * ratio * stitch(key).height)
    return gauge.flat_growth


def test_growth_of_a_flat_circle() -> None:
    assert growth("sc", 1.0) == pytest.approx(2 * math.pi)
    assert growth("sc", 0.9) == pytest.approx(5.65, abs=0.01)
    assert growth("sc", 0.95) == pytest.approx(6, abs=0.1)
    assert growth("hdc", 0.9) == pytest.approx(8.5, abs=0.6)
    assert 11 <= growth("dc", 0.95) <= 14
    assert growth("tr", 0.9) == pytest.approx(17, abs=0.5)


@pytest.mark.parametrize("each", [5, 6, 7])
def test_a_disc_that_grows_right_is_flat_and_no_higher_than_a_stitch(each: int) -> None:
    gauge = Gauge(5.0, 5.0 * each / (2 * math.pi))
    profile = quick_profile([each * k for k in range(1, 12)], gauge)
    assert set(profile.lies) == {Lie.FLAT}
    assert profile.height_mm < 0.1


def test_a_disc_that_grows_too_fast_ruffles_and_too_slowly_cups() -> None:
    gauge = Gauge(5.0, 5.0)
    assert quick_profile([9 * k for k in range(1, 8)], gauge).lies[-1] is Lie.RUFFLE
    assert quick_profile([4 * k for k in range(1, 8)], gauge).lies[-1] is Lie.CUP
