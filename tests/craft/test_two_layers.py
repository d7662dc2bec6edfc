"""Shapes that take no filling: drafted to lie flat in two layers, as wide and as high as they are drawn."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from craft.design.grading import part_size
from craft.errors import CraftError
from craft.figure.body import body_of
from craft.fitting.outcome import aim_of, outcome
from craft.gauge import Gauge
from craft.rounds.pattern import StepKind
from craft.shape.drafting import Recipe, draft
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.15, 0.0)


SOLIDS = [
    Solid("sphere", 60, 60),
    Solid("ellipsoid", 70, 50),
    Solid("ellipsoid", 120, 60),
    Solid("drop", 60, 45, open=True),
    Solid("capsule", 90, 40),
    Solid("dome", 40, 60, open=True),
]


@pytest.mark.parametrize("solid", SOLIDS, ids=lambda s: f"{s.kind} {s.height_mm:g}x{s.width_mm:g}")
def test_it_lies_as_wide_and_as_high_as_it_is_drawn(solid: Solid) -> None:
    found = outcome(Recipe(solid, empty=True), GAUGE)
    outline = solid.outline()
    wide, deep, high = np.ptp(found.settled.x, axis=0)
    assert found.settled.part.pressed
    assert wide == pytest.approx(2 * float(outline.r.max()), rel=0.08)
    assert high == pytest.approx(float(np.ptp(outline.z)), rel=0.08)
    assert deep < 1.5 * GAUGE.stitch_mm


@pytest.mark.parametrize("solid", SOLIDS, ids=lambda s: f"{s.kind} {s.height_mm:g}x{s.width_mm:g}")
def test_before_it_is_settled_it_is_told_and_drawn_about_as_it_lies(solid: Solid) -> None:
    found = outcome(Recipe(solid, empty=True), GAUGE)
    wide, _, high = np.ptp(found.settled.x, axis=0)
    body = body_of(found.settled.part, GAUGE)
    assert body.layers == 2
    assert body.profile.width_mm == pytest.approx(wide, rel=0.1)
    assert body.profile.height_mm == pytest.approx(high, rel=0.1)
    assert body.volume_ml == 0
    assert np.ptp(body.points()[:, 1]) == 0
    assert part_size(found.settled.part, GAUGE).width.value == body.profile.width_mm


def test_it_is_about_a_third_narrower_around_than_a_stuffed_one() -> None:
    """Two layers of a disc's width against π times it: 2 / π, and the folds."""
    solid = Solid("sphere", 90, 90)
    flat, stuffed = (max(draft(Recipe(solid, simplicity=0.0, empty=e), GAUGE).counts) for e in (True, False))
    assert flat / stuffed == pytest.approx(2 / np.pi, abs=0.08)


@pytest.mark.parametrize("is_open", [True, False])
def test_nobody_is_told_to_stuff_it(is_open: bool) -> None:
    text = print_rounds(draft(Recipe(Solid("ellipsoid", 70, 50, open=is_open), empty=True), GAUGE).part)
    (part,) = check(text).parts
    kinds = {s.kind for s in part.steps}
    assert StepKind.EMPTY in kinds
    assert StepKind.STUFF not in kinds
    assert "press it flat" in text
    assert part.pressed
    assert (StepKind.CLOSE in kinds) is not is_open


def test_a_shape_that_is_no_body_of_revolution_is_told_to_lie_flat_too() -> None:
    form = Form(Solid("ellipsoid", 90, 60), (Modifier("flatten", {"depth": 40}),))
    text = print_rounds(draft(Recipe(form, empty=True), GAUGE).part)
    assert check(text).parts[0].pressed


def test_it_is_held_against_the_shape_pressed_flat() -> None:
    recipe = Recipe(Solid("sphere", 60, 60), empty=True)
    aim = aim_of(recipe, GAUGE)
    assert np.ptp(aim.x, axis=0) == pytest.approx([60, 0.75 * 5.6, 60], rel=0.02)
    assert aim_of(replace(recipe, empty=False), GAUGE) is recipe.form.mesh
    assert outcome(recipe, GAUGE).error.rms_w < 0.4


def test_it_is_kept_in_the_file_and_an_older_one_is_stuffed() -> None:
    recipe = Recipe(Form(Solid("sphere", 60, 60)), empty=True)
    data = rounds_json(recipe)
    assert rounds_of(data) == recipe
    del data["empty"]
    assert not rounds_of(data).empty


def test_too_small_is_said() -> None:
    with pytest.raises(CraftError, match="finer yarn"):
        draft(Recipe(Solid("sphere", 6, 6), empty=True), GAUGE)
