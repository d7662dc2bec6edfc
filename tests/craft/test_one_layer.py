"""Flat shapes of one layer: drafted in rows, as wide and as high as they are drawn."""

from __future__ import annotations

import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.grading import part_size
from craft.errors import CraftError
from craft.figure.body import body_of
from craft.figure.materials import filling_of
from craft.figure.picture import draw
from craft.figure.placement import Foot, Surface, place
from craft.figure.settling import measure, settle
from craft.fitting.outcome import aim_of, outcome
from craft.gauge import Gauge
from craft.rounds.pattern import StepKind
from craft.shape.drafting import Recipe, draft
from craft.shape.profile import EMPTY
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.15, 0.0)
SOLIDS = [
    Solid("sphere", 60, 60),
    Solid("ellipsoid", 120, 60),
    Solid("drop", 60, 45, open=True),
    Solid("capsule", 90, 40),
    Solid("dome", 40, 60, open=True),
]


def flat(shape: Solid | Form, **more: float) -> Recipe:
    return Recipe(shape, empty=True, one_layer=True, **more)  # type: ignore[arg-type]


@pytest.mark.parametrize("solid", SOLIDS, ids=lambda s: s.kind)
def test_it_lies_as_wide_and_as_high_as_it_is_drawn(solid: Solid) -> None:
    found = outcome(flat(solid), GAUGE)
    wide, deep, high = np.ptp(found.settled.x, axis=0)
    stitch = GAUGE.stitch_mm * EMPTY  # they are where their middles are: half a stitch lies beyond on either side
    assert wide + stitch == pytest.approx(2 * float(solid.outline().r.max()), abs=1.05 * stitch)
    assert high == pytest.approx(solid.outline().z[-1], rel=0.06)
    assert deep < GAUGE.stitch_mm
    assert measure(found.settled).width_mm == pytest.approx(2 * float(solid.outline().r.max()), abs=1.05 * stitch)
    assert found.error.rms_w < 0.45


@pytest.mark.parametrize("solid", SOLIDS, ids=lambda s: s.kind)
def test_its_rows_are_sound_and_say_what_to_do(solid: Solid) -> None:
    made = draft(flat(solid), GAUGE)
    text = print_rounds(made.part)
    found = check(text)
    assert found.sound, found.problems
    assert tuple(t.live for t in found.parts[0].rounds if t.flat) == made.counts
    kinds = {s.kind for s in found.parts[0].steps}
    assert StepKind.STUFF not in kinds
    assert StepKind.CLOSE not in kinds
    assert not found.parts[0].pressed, "one layer is not two, pressed on each other"
    assert filling_of([(found.parts[0], part_size(found.parts[0], GAUGE).profile)]).value == 0
    assert text.startswith(f"ch {made.counts[0] + 1}\nRow 1: ")


@settings(deadline=None, max_examples=60)
@given(
    kind=st.sampled_from(["sphere", "ellipsoid", "drop", "capsule", "cone", "egg"]),
    high=st.floats(25, 250),
    wide=st.floats(25, 250),
    simplicity=st.floats(0, 1),
)
def test_law_both_ends_are_worked_alike_and_no_row_doubles(
    kind: str, high: float, wide: float, simplicity: float
) -> None:
    solid = Solid(kind, high, high if kind == "sphere" else wide)
    try:
        made = draft(flat(solid, simplicity=simplicity), GAUGE)
    except CraftError:
        return
    for below, count in itertools.pairwise(made.counts):
        assert (count - below) % 2 == 0
        assert below <= 2 * count
        assert count <= 2 * below
    assert check(print_rounds(made.part)).sound
    widest = float(made.rings.stitches.max())
    assert abs(max(made.counts) - widest) <= 1.5 or max(made.counts) >= 2 * made.counts[0]


def test_a_shape_that_is_no_body_of_revolution_is_as_wide_as_it_looks_from_the_front() -> None:
    plain = draft(flat(Solid("ellipsoid", 90, 60)), GAUGE)
    thin = draft(flat(Form(Solid("ellipsoid", 90, 60), (Modifier("flatten", {"depth": 20}),))), GAUGE)
    assert len(thin.counts) == pytest.approx(len(plain.counts), abs=1)
    assert max(thin.counts) == pytest.approx(max(plain.counts), abs=4)  # flattening leaves its girth


def test_one_layer_takes_no_filling_and_stays_that_in_its_file() -> None:
    with pytest.raises(CraftError, match="no filling"):
        Recipe(SOLIDS[0], one_layer=True)
    recipe = flat(SOLIDS[1])
    assert rounds_of(rounds_json(recipe)) == replace(recipe, shape=recipe.form)
    old = {k: v for k, v in rounds_json(recipe).items() if k != "one_layer"}
    assert rounds_of(old) == replace(recipe, shape=recipe.form, one_layer=False)
    assert recipe.scaled(1.5).one_layer


def test_it_is_half_as_thick_as_two_layers() -> None:
    one, two = (aim_of(Recipe(SOLIDS[0], empty=True, one_layer=o), GAUGE) for o in (True, False))
    assert np.ptp(one.x[:, 1]) == pytest.approx(np.ptp(two.x[:, 1]) / 2)


def test_before_it_is_settled_it_is_drawn_as_the_sheet_it_is() -> None:
    (part,) = check(print_rounds(draft(flat(Solid("ellipsoid", 90, 60)), GAUGE).part)).parts
    body = body_of(part, GAUGE)
    points = body.points()
    assert np.ptp(points[:, 1]) == 0
    assert np.ptp(points[:, 0]) == pytest.approx(60, abs=GAUGE.stitch_mm)
    assert np.ptp(points[:, 2]) == pytest.approx(90, rel=0.06)
    assert {ring.layers for ring in body.rings} == {1}
    drawn = draw({"leaf": body}, place({"leaf": body}, {}, ()), {}, title="Leaf")
    assert drawn.count("<path") + drawn.count("<polygon") >= len(body.rings)


def test_a_sheet_stands_upright_on_its_last_row() -> None:
    """However that row curls: the sheet's own middle line is upright."""
    (part,) = check(print_rounds(draft(flat(Solid("drop", 60, 45, open=True)), GAUGE).part)).parts
    surface = Surface.of(settle(part, Gauge(5.6, 5.2, 0.4)))
    assert surface.foot is Foot.EDGE
    frame = surface.own_frame()
    placed = surface.x @ frame[:3, :3].T + frame[:3, 3]
    first, widest = placed[surface.rings[0]].mean(0), placed[surface.rings[8]].mean(0)
    leaning = np.hypot(*(first - widest)[:2]) / abs(first[2] - widest[2])
    assert leaning < 0.12
    assert np.ptp(placed[:, 1]) < np.ptp(placed[:, 0])
