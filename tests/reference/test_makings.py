"""The middle and the spread of makings against SciPy's own (Rousseeuw and Croux 1993 give the factor for a normal
distribution)."""

from __future__ import annotations

import numpy as np
import pytest
from scipy import stats

from craft.making import Pair, Quantity, learned


@pytest.mark.parametrize("seed", range(6))
def test_middle_and_spread_are_scipys(seed: int) -> None:
    rng = np.random.default_rng(seed)
    ratios = rng.normal(1.1, 0.08, 3 + 2 * seed).clip(0.5, 2.0)
    (found,) = learned(
        [Pair(Quantity.HEIGHT, "height", f"maker {i}", 100.0, 100.0 * float(r)) for i, r in enumerate(ratios)]
    )
    middle = float(np.median(ratios))
    assert found.ratio == pytest.approx(middle)
    scatter = float(stats.median_abs_deviation(ratios, scale="normal")) / middle
    assert found.share == pytest.approx(max(2 * scatter, 0.03), rel=1e-3)


def test_two_robust_spreads_hold_nineteen_of_twenty_makings() -> None:
    """Common practice, no source: what is told as a range is meant to hold nearly all."""
    rng = np.random.default_rng(11)
    ratios = rng.normal(1.0, 0.07, 400)
    (found,) = learned([Pair(Quantity.HEIGHT, "h", f"m{i}", 1.0, float(r)) for i, r in enumerate(ratios)])
    assert found.ratio is not None
    assert found.share is not None
    held = np.mean(np.abs(ratios / found.ratio - 1) <= found.share)
    assert 0.92 <= held <= 0.98
