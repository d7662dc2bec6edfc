"""Profile, gauge, yarn, other sizes."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.design import Design, EyeKind, Eyes, Made
from craft.design.grading import Taught, figures_of, first_size, lengths_of, part_size, regrade, scaled, sold_eye
from craft.design.parts import GaugeFrom, GaugeInForce
from craft.design.parts import Part as DesignPart
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.figure.materials import enough, filling_g, hours, length_per_unit, skeins, tails, yarn_use
from craft.gauge import (
    Estimate,
    FabricVerdict,
    Gauge,
    Sample,
    corrected_by_samples,
    estimate_gauge,
    fabric_outlook,
    gauge_from_piece,
    gauge_from_swatch,
    lean_from_thread,
    unlike,
)
from craft.rounds.pattern import Part, StepKind
from craft.rounds.stitches import Terms
from craft.shape.drafting import Recipe, draft
from craft.shape.profile import Lie, inflated_profile, quick_profile
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_part
from craft.units import cm, inches
from craft.yarn import Yarn, hook_name

GAUGE = Gauge(5.6, 5.15)
BALL = [6, 12, 18, 24, 30, 36, *[36] * 6, 30, 24, 18, 12, 6]


def part(text: str) -> Part:
    return check(text).reading.pattern.parts[0]


def test_the_everyday_ball_is_a_ball_and_no_ruffle() -> None:
    """Common practice, no source: 6 to 36, six straight, and back is a ball about as high as wide."""
    for gauge in (GAUGE, Gauge(5, 5), Gauge(5, 4.3)):
        profile = inflated_profile(BALL, gauge, closed=True)
        assert Lie.RUFFLE not in profile.lies
        assert profile.lies[7] is Lie.WALL
        assert 0.65 < profile.height_mm / profile.width_mm < 1.05


@pytest.mark.parametrize(
    ("counts", "at", "lie"),
    [
        ([6, 12, 18, 24, 30], 4, Lie.FLAT),
        ([6, 6, 6, 6], 3, Lie.WALL),
        ([3, 4, 5, 6, 7], 4, Lie.CUP),
        ([6, 12, 24, 48], 3, Lie.RUFFLE),
        ([6, 12, 12, 24, 24, 36], 3, Lie.FLAT),
        ([36, 36, 30, 24], 3, Lie.FLAT),
    ],
)
def test_how_rounds_lie(counts: list[int], at: int, lie: Lie) -> None:
    assert quick_profile(counts, GAUGE).lies[at] is lie


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(-6, 6), min_size=3, max_size=40), st.floats(0, 1), st.booleans())
def test_inflation_converges_for_any_counts(steps: list[int], firmness: float, closed: bool) -> None:
    counts = [6]
    for step in steps:
        counts.append(max(3, min(counts[-1] * 2, max((counts[-1] + 1) // 2, counts[-1] + step))))
    profile = inflated_profile(counts, GAUGE, closed=closed, firmness=firmness)
    assert np.isfinite(profile.radius).all()
    assert np.isfinite(profile.height).all()
    arc = np.hypot(np.diff(profile.radius), np.diff(profile.height))
    assert arc.max() < 1.35 * GAUGE.round_mm
    assert profile.width_mm < 1.3 * max(counts) * GAUGE.stitch_mm / math.pi


def test_firmer_is_fuller() -> None:
    soft, hard = (inflated_profile(BALL, GAUGE, closed=True, firmness=f).volume_ml for f in (0.0, 1.0))
    assert hard > soft * 1.05


def test_scale_free() -> None:
    """Doubling the gauge doubles the figure."""
    one, two = (inflated_profile(BALL, Gauge(5.6 * k, 5.15 * k), closed=True) for k in (1, 2))
    assert two.height_mm == pytest.approx(2 * one.height_mm, rel=1e-3)


def test_gauges_from_what_she_measures() -> None:
    stuffed = gauge_from_piece(180, 36, 48, 10)
    assert (stuffed.stitch_mm, stuffed.round_mm, stuffed.spread) == (5.0, 4.8, 0.03)
    flat = gauge_from_swatch(10, 50, 10, 48)
    assert flat.stitch_mm == pytest.approx(5.35)
    assert lean_from_thread(4, 10) == 0.4
    for call in (
        lambda: gauge_from_piece(0, 36, 48, 10),
        lambda: gauge_from_swatch(10, math.inf, 1, 1),
        lambda: lean_from_thread(90, 3),
    ):
        with pytest.raises(CraftError):
            call()


def test_fabric_verdicts() -> None:
    yarn = Yarn("light", wraps=13)
    said = [fabric_outlook(yarn, hook).verdict for hook in (2.0, 2.5, 3.2, 4.0)]
    assert said == [FabricVerdict.STIFF, FabricVerdict.RIGHT, FabricVerdict.LOOSE, FabricVerdict.SHOWS]
    assert estimate_gauge(Yarn("p", 5, plush=True), 6).spread == 0.25
    with pytest.raises(CraftError):
        Yarn("nothing known")


def test_an_estimate_is_corrected_by_how_she_differs_from_it() -> None:
    def loose(share: float, hook: float) -> tuple[Gauge, Gauge]:
        e = estimate_gauge(Yarn("y", wraps=13), hook)
        return Gauge(e.stitch_mm * share, e.round_mm * share, 0.3), e

    estimate = estimate_gauge(Yarn("other", wraps=9), 4)
    assert corrected_by_samples(estimate, []) is estimate
    one = corrected_by_samples(estimate, [loose(1.1, 3)])
    assert one.stitch_mm == pytest.approx(1.1 * estimate.stitch_mm)
    assert one.spread == estimate.spread / 2
    assert "1 sample, which came out 10 % wider" in one.how
    two = corrected_by_samples(estimate, [loose(1.05, 3), loose(1.15, 4), loose(3.0, 4)])
    assert two.stitch_mm == pytest.approx(math.sqrt(1.05 * 1.15) * estimate.stitch_mm)
    assert two.lean == pytest.approx(0.3)
    assert 0.06 <= two.spread <= estimate.spread
    assert "2 samples" in two.how, "a sample three times as wide is a slip"


def test_units_for_people() -> None:
    assert [cm(180), cm(182), cm(74.4), inches(70), inches(180)] == ["18 cm", "18 cm", "7.4 cm", "2¾ in", "7 in"]
    assert [hook_name(3.5), hook_name(3.0)] == ["3.5 mm (E-4)", "3 mm"]
    with pytest.raises(CraftError):
        Estimate(1, 2, 3, "out of range")


TEXT = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R7: sc around [18]
Change to Oat
R8: (sc, dec) x 6 [12]
Stuff.
R9: dec x 6 [6]
Close."""


def test_a_ball_on_18_becomes_one_on_24_with_12_to_13_rounds() -> None:
    """Common practice, no source."""
    ten = TEXT.replace("R9:", "R10:").replace("R8:", "R9:").replace("R4-R7:", "R4-R8:")
    again = regrade(part(ten), 24 / 18, GAUGE)
    assert again.how == "resampled"
    assert max(again.worked.counts) == 24
    assert len(again.worked.rounds) in (12, 13)
    kinds = [s.kind for s in again.worked.steps]
    assert kinds == [StepKind.STUFF, StepKind.CLOSE]
    share = (again.worked.graph.colour == 1).sum() / len(again.worked.graph)
    assert 0.1 < share < 0.3


@settings(max_examples=40, deadline=None)
@given(st.floats(0.5, 3))
def test_resized_parts_are_sound_and_keep_their_shape(scale: float) -> None:
    written = draft(Recipe(Solid("egg", 90, 70)), GAUGE).part
    for again in (regrade(written, scale, GAUGE), regrade(written, scale, GAUGE, Recipe(Solid("egg", 90, 70)))):
        size = part_size(again.worked, GAUGE)
        assert size.height.value == pytest.approx(86 * scale, rel=0.16)
        assert size.width.value == pytest.approx(71 * scale, rel=0.16)

        assert check(print_part(again.part, Terms.US)).sound


def test_what_cannot_be_made_is_refused() -> None:
    with pytest.raises(CraftError):
        regrade(part("R1: 6 sc in ring\nR2-R9: sc around"), 0.3, GAUGE)
    with pytest.raises(CraftError):
        regrade(part(TEXT), math.nan, GAUGE)


def test_eyes_that_are_sold() -> None:
    assert [sold_eye(x) for x in (8, 10.9, 13, 40)] == [8, 10, 14, 30]


def test_yarn_filling_tails_and_time() -> None:
    found = check("Body (make 2)\n" + TEXT)
    uses = yarn_use(found.parts, GAUGE)
    assert [(u.colour, u.stitches) for u in uses] == [("Main", 216), ("Oat", 36)]
    assert uses[0].metres.low < uses[0].metres.value < uses[0].metres.high
    measured = yarn_use(found.parts, GAUGE, 30.0)
    assert measured[0].metres.value == pytest.approx(216 * 0.030 * 1.15)
    assert length_per_unit(GAUGE).value == pytest.approx(5.5 * 5.6 + 2 * 5.15)
    assert skeins(Estimate(100, 80, 120, ""), 50) == 3
    assert skeins(Estimate(0.1, 0, 0.2, ""), 50) == 1
    assert tails(found.parts, GAUGE)[0].millimetres == 150
    open_part = check(TEXT.rsplit("\n", 2)[0])
    assert tails(open_part.parts, GAUGE)[0].millimetres == pytest.approx(150 + 3 * 12 * 5.6)
    assert filling_g(1000).value == pytest.approx(42.5)
    assert hours(uses).value == pytest.approx(252 / 1000 * 1.5)


def test_a_panel_is_as_wide_as_its_rows_and_edging() -> None:
    text = "Ch 13\nRow 1: from 2nd ch, 12 sc [12]\nRows 2-16: ch 1, turn, sc across [12]\nR17: along the edge, 54 sc [54]\n"
    size = part_size(check(text).parts[0], Gauge(5.0, 4.5, 0.0))
    assert size.width.value == pytest.approx(12 * 5.0 + 2 * 4.5)
    assert size.height.value == pytest.approx(16 * 4.5 + 2 * 4.5)


EYED = (
    "R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4: (2 sc, inc) x 6\nR5-R7: sc around [24]\nR8: (2 sc, dec) x 6 [18]\n"
    "R9: (sc, dec) x 6 [12]\nPlace eyes between R6 and R7.\nR10: dec x 6 [6]\n"
)


@pytest.mark.parametrize(("scale", "passes"), [(1.0, True), (1.8, True), (0.3, False)])
def test_washers_that_no_longer_pass_are_told(scale: float, passes: bool) -> None:
    """A ball at half its size takes eyes of 4 mm at the smallest, whose washers are 7 mm across."""
    eyes = Eyes(EyeKind.SAFETY, 6.0)
    gauge = GaugeInForce(source=GaugeFrom.OWN, stitch_mm=3.0, round_mm=2.8)
    ball = Design("Ball", parts=(DesignPart("b", "Ball", EYED),), eyes=eyes, gauge=gauge)
    found = figures_of(scaled(first_size(ball, run_parts(ball)), scale))
    told = [f for f in found.features if f.kind == "washers"]
    assert bool(told) is not passes
    assert all("no longer passes" in n for f in told for n in (f.words,) if n in found.notes)


@pytest.mark.parametrize(
    ("left", "does"), [(0.0, "no"), (9.9, "no"), (10.0, "maybe"), (11.9, "maybe"), (12.0, "yes"), (500, "yes")]
)
def test_what_is_left_does_surely_only_for_the_likely_most(left: float, does: str) -> None:
    assert enough(Estimate(10, 8, 12, "weighed"), left).value == does
    with pytest.raises(CraftError):
        enough(Estimate(10, 8, 12, "weighed"), -1)


MOSS = Yarn("Moss", 3, wraps=13)


def on(hook_mm: float, *, noted: float = 3.0, wider: float = 1.0) -> Sample:
    """A sample as the estimate has it on a hook, noted as on another."""
    made = estimate_gauge(MOSS, hook_mm)
    return Sample(MOSS, noted, Gauge(made.stitch_mm * wider, made.round_mm))


def test_a_sample_on_another_hook_than_is_noted_is_suspected() -> None:
    others = [on(3.0), on(3.0, wider=1.02)]
    odd = unlike(on(4.0), others)
    assert odd is not None
    assert odd.hook_mm == 4.0
    assert odd.share == pytest.approx(0.18, abs=0.03)
    smaller = unlike(on(2.25), others)
    assert smaller is not None
    assert smaller.hook_mm == 2.25


def test_what_one_hand_does_is_no_doubt_and_what_no_hook_explains_names_none() -> None:
    assert unlike(on(3.0, wider=1.05), [on(3.0)]) is None
    assert unlike(on(4.0), []) is None, "nothing to hold it against"
    assert unlike(on(4.0, noted=4.0), [on(3.0)]) is None, "another hook is no doubt"
    assert unlike(replace(on(4.0), yarn=Yarn("Oat", 3, wraps=13)), [on(3.0)]) is None
    huge = unlike(on(3.0, wider=12.0), [on(3.0)])
    assert huge is not None
    assert huge.hook_mm is None


def test_what_makings_measured_stands_in_the_place_of_the_estimate_in_the_same_yarn_alone() -> None:
    text = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R8: sc around [18]\n"
    ball = Design("Ball", parts=(DesignPart("b", "Ball", text),))
    first = first_size(ball, run_parts(ball))
    (wide, tall) = lengths_of(first, first, Taught())
    made = Made(1.1, 0.03, 4, 100.0)
    same, told = lengths_of(first, first, Taught(height=made))
    assert same == wide
    assert (told.value, told.low, told.high) == pytest.approx((110.0, 106.7, 113.3))
    assert told.how == "from 4 makings of this figure, by their median"
    larger = scaled(first, 1.5)
    (_, estimated), (_, measured) = (lengths_of(larger, first, t) for t in (Taught(), Taught(height=made)))
    assert measured.value == pytest.approx(110 * estimated.value / tall.value)
    assert Taught(height=made).at(larger, first) == Taught(height=made)
    other = replace(larger, gauge=replace(larger.gauge, stitch_mm=larger.gauge.stitch_mm * 1.2))
    assert Taught(height=made).at(other, first) == Taught()
