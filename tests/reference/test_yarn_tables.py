"""Published yarn and hook tables.

Source: Craft Yarn Council, Standard Yarn Weight System, "Standard Yarn Weights" table (quoted from
memory): single crochets in 4 inches and hook in millimetres. Wraps and hook letters: common
practice, quoted from memory.
"""

from __future__ import annotations

import pytest

from craft.gauge import estimate_gauge
from craft.yarn import HOOKS, WEIGHT_CLASSES, Yarn, combined_wraps, diameter_mm, weight_class

PUBLISHED = {
    1: ((21, 32), (2.25, 3.5)),
    2: ((16, 20), (3.5, 4.5)),
    3: ((12, 17), (4.5, 5.5)),
    4: ((11, 14), (5.5, 6.5)),
    5: ((8, 11), (6.5, 9.0)),
    6: ((7, 9), (9.0, 15.0)),
}


@pytest.mark.parametrize("number", PUBLISHED)
def test_classes_as_published(number: int) -> None:
    found = weight_class(number)
    assert (found.stitches, found.hook_mm) == PUBLISHED[number]


def test_open_ends_of_the_table() -> None:
    assert weight_class(0).stitches is None
    assert weight_class(7).stitches == (None, 6)
    assert weight_class(7).hook_mm == (15.0, None)
    assert [c.number for c in WEIGHT_CLASSES] == list(range(8))


@pytest.mark.parametrize("number", PUBLISHED)
def test_the_estimate_meets_the_published_range_at_label_hooks(number: int) -> None:
    """At the label's own middle hook the estimate must lie near the published counts (± 20 %)."""
    (low, high), hooks = PUBLISHED[number]
    gauge = estimate_gauge(Yarn("any", number), sum(hooks) / 2)
    across = 101.6 / gauge.stitch_mm
    assert low * 0.8 <= across <= high * 1.2


@pytest.mark.parametrize(
    ("mm", "us"), [(2.25, "B-1"), (2.75, "C-2"), (3.25, "D-3"), (3.5, "E-4"), (4.0, "G-6"), (5.0, "H-8"), (6.0, "J-10")]
)
def test_hook_letters(mm: float, us: str) -> None:
    assert dict(HOOKS)[mm] == us


@pytest.mark.parametrize("mm", [2.0, 2.5, 3.0])
def test_hooks_without_a_letter(mm: float) -> None:
    assert dict(HOOKS)[mm] is None


def test_two_strands_add_their_cross_sections() -> None:
    both = combined_wraps(12, 12)
    assert both == pytest.approx(12 / 2**0.5)
    assert diameter_mm(both) ** 2 == pytest.approx(2 * diameter_mm(12) ** 2)


def test_steps_up_by_about_half_and_half_again() -> None:
    """Common practice, no source: light on 3 mm, heavy medium on 5, chunky on 8."""
    light, medium, chunky = (
        estimate_gauge(Yarn("y", number), hook).stitch_mm for number, hook in ((3, 3.0), (4, 5.0), (5, 8.0))
    )
    assert medium / light == pytest.approx(1.5, abs=0.12)
    assert chunky / light == pytest.approx(2.3, abs=0.15)
