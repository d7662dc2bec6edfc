"""What a commission costs, and the solid that is proposed for a planned part."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.design.commission import Rates, price_of
from craft.design.grading import first_size, together
from craft.design.grading.together import Together, YarnTogether
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.gauge import Estimate, Gauge
from craft.shape.drafting import Recipe, draft
from craft.shape.proposed import proposed_solid
from craft.shape.target import SOLIDS, Solid
from tests.craft.figures import figure

FEW = Estimate(6.0, 4.0, 9.0, "hours")


def taken(*grams: Estimate | None) -> Together:
    yarns = tuple(
        YarnTogether(f"Yarn {k}", None, Estimate(50, 40, 60, "metres"), 100, g, None) for k, g in enumerate(grams)
    )
    return Together(1, yarns, (), Estimate(20, 10, 30, "filling"), FEW, ())


def test_hours_and_yarn_at_her_rates_make_the_price() -> None:
    found = price_of(taken(Estimate(40, 30, 50, "g"), Estimate(10, 8, 12, "g")), Rates(hour=12, yarn_100g=8, extra=5))
    assert found.price.value == pytest.approx(6 * 12 + 0.5 * 8 + 5)
    assert found.price.low == pytest.approx(4 * 12 + 0.38 * 8 + 5)
    assert found.price.high == pytest.approx(9 * 12 + 0.62 * 8 + 5)
    assert found.unknown == ()


def test_yarn_whose_weight_is_not_known_is_named_and_left_out() -> None:
    found = price_of(taken(Estimate(40, 30, 50, "g"), None), Rates(yarn_100g=10))
    assert found.price.value == pytest.approx(4)
    assert found.unknown == ("Yarn 1",)


rates = st.floats(0, 1000)


@given(rates, rates, rates)
def test_a_price_lies_within_its_range_and_costs_nothing_for_nothing(hour: float, yarn: float, extra: float) -> None:
    found = price_of(taken(Estimate(40, 30, 50, "g")), Rates(hour, yarn, extra)).price
    assert extra <= found.low <= found.value <= found.high
    assert price_of(taken(), Rates()).price.high == 0


def test_a_whole_figure_has_a_price() -> None:
    design = figure()
    found = price_of(together([(first_size(design, run_parts(design)), 1)]), Rates(hour=10))
    assert found.price.value == pytest.approx(10 * found.hours.value)
    assert found.hours.value > 0.1


@pytest.mark.parametrize("wrong", [{"hour": -1}, {"yarn_100g": 2_000_000}, {"extra": float("nan")}])
def test_nonsense_is_refused(wrong: dict[str, float]) -> None:
    with pytest.raises(CraftError):
        Rates(**wrong)


@pytest.mark.parametrize(
    ("name", "wide", "tall", "kind", "is_open", "empty"),
    [
        ("Head", 60, 62, "sphere", False, False),
        ("Body", 60, 80, "egg", False, False),
        ("Left arm", 20, 60, "capsule", True, False),
        ("Ears", 20, 30, "drop", True, False),
        ("Ear", 30, 15, "dome", True, False),
        ("Bat wing", 60, 40, "drop", True, True),
        ("Sun hat", 50, 30, "dome", True, True),
        ("Part 3", 20, 60, "capsule", False, False),
        ("Part 4", 60, 40, "ellipsoid", False, False),
        ("Bearing", 40, 41, "sphere", False, False),
    ],
)
def test_a_solid_is_proposed_by_name_and_size(
    name: str, wide: float, tall: float, kind: str, is_open: bool, empty: bool
) -> None:
    found = proposed_solid(name, wide, tall)
    assert (found.kind, found.open, found.empty) == (kind, is_open, empty)
    assert found.why


@given(st.text(max_size=30), st.floats(15, 200), st.floats(15, 200))
def test_what_is_proposed_is_a_solid_that_there_is(name: str, wide: float, tall: float) -> None:
    assert proposed_solid(name, wide, tall).kind in SOLIDS


@pytest.mark.parametrize("name", ["Head", "Body", "Arm", "Ear", "Wing", "Hat"])
def test_what_is_proposed_can_be_drafted(name: str) -> None:
    found = proposed_solid(name, 45, 60)
    solid = Solid(found.kind, 60, 45, found.open)
    assert len(draft(Recipe(solid, empty=found.empty), Gauge(5.6, 5.15)).counts) > 4


@pytest.mark.parametrize(("wide", "tall"), [(1, 40), (40, 900), (float("nan"), 40)])
def test_no_part_has_that_size(wide: float, tall: float) -> None:
    with pytest.raises(CraftError):
        proposed_solid("Head", wide, tall)
