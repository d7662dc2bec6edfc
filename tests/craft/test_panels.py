"""Flat panels: skins cut along their bends, rows and edgings that match, and what they make sewn together."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.grading import regrade
from craft.errors import CraftError
from craft.figure.settling import fit
from craft.fitting.panels import PanelRecipe, Panels, draft_panels, laid_out, recipe_json, recipe_of, settle_sewn
from craft.fitting.panels.draft import letter_of
from craft.fitting.panels.slices import slices_of
from craft.gauge import Gauge
from craft.rounds.fabric import run_part
from craft.rounds.stitches import Terms
from craft.shape.stored import form_json, form_of
from craft.shape.target import Box, Form, Modifier, Solid, patches_of
from craft.text.check import check
from craft.text.notation import print_part, print_rounds

GAUGE = Gauge(5.6, 5.15, 0.4)
BALL = Form(Solid("sphere", 70, 70), (Modifier("taper", {"amount": 0}),))
PYRAMID = Form(Solid("cone", 80, 80), (Modifier("square", {"amount": 100}),))


def panels_of(form: Form) -> Panels:
    return draft_panels(patches_of(form.mesh), GAUGE)


def test_a_box_falls_into_its_six_sides() -> None:
    patches = patches_of(Box(70, 60, 90).mesh())
    area = {p.name: p.area_mm2 for p in patches}
    assert area == pytest.approx(
        {"Front": 6300, "Back": 6300, "Left": 5400, "Right": 5400, "Top": 4200, "Base": 4200}, rel=1e-6
    )
    assert all(p.roundness == pytest.approx(0, abs=1e-9) and len(p.edges) == 4 for p in patches)


@pytest.mark.parametrize("form", [Form(Box(70, 60, 90)), BALL, PYRAMID])
def test_every_edge_has_its_mate_the_other_way_round(form: Form) -> None:
    patches = patches_of(form.mesh)
    skin = form.mesh.x[form.mesh.faces]
    whole = np.linalg.norm(np.cross(skin[:, 1] - skin[:, 0], skin[:, 2] - skin[:, 0]), axis=1).sum() / 2
    assert sum(p.area_mm2 for p in patches) == pytest.approx(whole)
    for k, patch in enumerate(patches):
        for at, edge in enumerate(patch.edges):
            mate = patches[edge.other].edges[edge.mate]
            assert (mate.other, mate.mate) == (k, at)
            assert mate.points[::-1] == pytest.approx(edge.points)
            assert patch.x[edge.corners] == pytest.approx(edge.points)
            assert patch.edges[at - 1].points[-1] == pytest.approx(edge.points[0])


def test_an_open_shape_makes_no_panels() -> None:
    with pytest.raises(CraftError, match="closed"):
        patches_of(Form(Solid("dome", 40, 60, open=True)).mesh)


def test_slices_measure_a_rectangle_and_a_trapezium() -> None:
    front = next(p for p in patches_of(Box(70, 60, 90).mesh()) if p.name == "Front")
    base = next(e for e in front.edges if np.ptp(e.points[:, 2]) == 0 and e.points[0, 2] == 0)
    top = next(e for e in front.edges if np.ptp(e.points[:, 2]) == 0 and e.points[0, 2] > 0)
    cut = slices_of(front, base.corners, top.corners)
    assert cut.length == pytest.approx(90, rel=1e-3)
    assert cut.width == pytest.approx(70, rel=1e-6)
    tapered = Form(Box(70, 60, 90), (Modifier("taper", {"amount": 40}),))
    front = next(p for p in patches_of(tapered.mesh) if p.name == "Front")
    low = next(e for e in front.edges if e.points[:, 2].max() < 1)
    high = next(e for e in front.edges if e.points[:, 2].min() > 89)
    cut = slices_of(front, low.corners, high.corners)
    assert cut.width[0] == pytest.approx(low.length, rel=0.02)
    assert cut.width[-1] == pytest.approx(high.length, rel=0.02)
    assert (np.diff(cut.width) < 1e-6).all()


@settings(max_examples=12, deadline=None)
@given(st.integers(35, 120), st.integers(35, 120), st.integers(35, 120))
def test_panels_of_any_box_are_sound_and_match(width: int, depth: int, height: int) -> None:
    panels = panels_of(Form(Box(width, depth, height)))
    for panel in panels.panels:
        read = check(print_rounds(panel.part))
        assert not read.problems, (print_rounds(panel.part), read.problems)
        assert read.parts[0].counts[-1] == sum(e.stitches + 1 for e in panel.edges)
        for edge in panel.edges:
            mate = panels.panels[edge.other].edges[edge.mate]
            assert mate.letter == edge.letter
            assert mate.stitches == edge.stitches
            assert (edge.stitches + 1) * GAUGE.stitch_mm == pytest.approx(edge.length_mm, abs=0.51 * GAUGE.stitch_mm)
    assert len(panels.seams) == 12
    assert sorted(k for group in panels.alike for k in group) == list(range(6))


THIN = Form(Solid("cone", 80, 60), (Modifier("flatten", {"depth": 50}),))
"""Its sides are so narrow that their edgings have corners beside corners."""


@pytest.mark.parametrize("form", [BALL, PYRAMID, THIN])
def test_panels_of_other_shapes_are_sound_in_all_terms(form: Form) -> None:
    for panel in panels_of(form).panels:
        for terms in (Terms.US, Terms.UK):
            assert check(print_rounds(panel.part, terms), terms).sound


def test_a_box_over_stiff_inlays_is_a_box_and_bulges_when_it_is_stuffed() -> None:
    form = Form(Box(70, 60, 80))
    panels = panels_of(form)
    flat, full = settle_sewn(panels, firmness=None), settle_sewn(panels)
    assert flat.converged
    assert full.converged
    assert fit(flat, form.mesh).error.rms_w < 0.3
    assert np.ptp(flat.x, axis=0) == pytest.approx([70, 60, 80], abs=0.75 * GAUGE.stitch_mm)
    bulged = fit(full, form.mesh).error
    assert bulged.rms_w > 0.8
    # No skin holds more than a ball of its area.
    assert 1.1 < bulged.volume_ratio < 1.6


def test_a_ball_of_six_panels_is_round() -> None:
    settled = settle_sewn(panels_of(BALL))
    assert settled.converged
    assert fit(settled, BALL.mesh).error.rms_w < 0.35


@pytest.mark.parametrize(("form", "gaps"), [(Form(Box(60, 60, 60)), 0.0), (PYRAMID, 0.01)])
def test_the_whole_is_one_closed_skin(form: Form, gaps: float) -> None:
    """Every side of a triangle is run both ways; where a pointed panel's edging passes a stitch by, a gap stays."""
    settled = settle_sewn(panels_of(form), firmness=None)
    t = settled.triangles
    there = {(int(a), int(b)) for a, b in np.concatenate([t[:, [0, 1]], t[:, [1, 2]], t[:, [2, 0]]])}
    back = {(b, a) for a, b in there}
    assert len(there - back) <= gaps * len(there)


def test_panels_are_laid_out_side_by_side() -> None:
    panels = panels_of(Form(Box(70, 60, 90)))
    placed = laid_out(panels)
    meeting = 0
    for k, panel in enumerate(panels.panels):
        x, y = placed[k].outline.T
        area = float((x * np.roll(y, -1) - y * np.roll(x, -1)).sum()) / 2
        assert area == pytest.approx(panel.patch.area_mm2)
        for at, edge in enumerate(panel.edges):
            mate = placed[edge.other].lines[edge.mate]
            meeting += bool(np.allclose(placed[k].lines[at], mate[::-1], atol=1e-6))
    # A box of six sides is laid out along five of its edges, each counted from both sides.
    assert meeting == 10


def test_a_box_too_small_for_the_yarn_says_so() -> None:
    with pytest.raises(CraftError, match="too small"):
        panels_of(Form(Box(70, 60, 12)))
    with pytest.raises(CraftError, match="width of a box"):
        Box(1, 60, 60)


def test_a_box_is_a_form_like_others() -> None:
    form = Form(Box(70, 60, 90))
    assert form_of(form_json(form)) == form
    assert form.size_mm == pytest.approx((70, 60, 90))
    assert form.scaled(2).size_mm == pytest.approx((140, 120, 180))
    assert form.name == "box"
    for damaged in ({"base": "box", "width_mm": 5}, {"base": "box", "width_mm": "x", "depth_mm": 9, "height_mm": 9}):
        with pytest.raises(CraftError):
            form_of(damaged)


def test_seams_are_lettered() -> None:
    assert [letter_of(n) for n in (0, 25, 26, 51, 52)] == ["A", "Z", "AA", "AZ", "BA"]


def test_a_panel_is_drafted_again_at_another_size() -> None:
    recipe = PanelRecipe(Form(Box(70, 60, 90)), "Front", seams=True)
    assert recipe_of(recipe_json(recipe)) == recipe
    part = recipe.part(GAUGE, "Front and back", 2)
    again = regrade(part, 1.5, GAUGE, recipe)
    assert again.how == "drafted"
    assert (again.part.name, again.part.make) == ("Front and back", 2)
    rows, larger = (sum(t.flat for t in worked.rounds) for worked in (run_part(part)[0], again.worked))
    assert larger == pytest.approx(1.5 * rows, abs=2)
    assert "Sew the panels together" in print_part(again.part, Terms.US)
    assert check(print_part(again.part, Terms.US)).sound


@pytest.mark.parametrize("damaged", [{"panel": "Front"}, {"panel": "Front", "form": 5}, {"panel": 1, "form": {}}])
def test_a_damaged_recipe_of_a_panel_is_refused(damaged: dict[str, object]) -> None:
    with pytest.raises(CraftError):
        recipe_of(damaged)


def test_a_panel_that_is_not_there_is_refused() -> None:
    with pytest.raises(CraftError, match="no panel 'Lid'"):
        PanelRecipe(Form(Box(70, 60, 90)), "Lid").part(GAUGE)
