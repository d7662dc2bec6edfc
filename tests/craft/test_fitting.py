"""Fitting: what drafts settle to, targets redrawn, ways to work a shape side by side."""

from __future__ import annotations

import numpy as np
import pytest

from craft.errors import CraftError
from craft.figure.settling import fit
from craft.fitting.alternatives import alternatives, neck_of, turned
from craft.fitting.compensation import compensate
from craft.fitting.outcome import outcome
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid, Stack
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.15, 0.4)
TRUNK = Form(Solid("capsule", 130, 42), (Modifier("bend", {"degrees": 120}),))


def test_compensation_keeps_the_best_and_never_makes_it_worse() -> None:
    seen: list[float] = []
    found = compensate(Recipe(TRUNK, simplicity=0.3), GAUGE, watch=lambda share: not seen.append(share))
    assert found.after.error.rms_w < 0.75 * found.before.error.rms_w
    assert found.recipe.form is TRUNK or found.recipe.form == TRUNK, "the aim stays what it was"
    assert found.recipe.redrawn is not None
    assert seen == sorted(seen)
    again = outcome(found.recipe, GAUGE)
    assert again.error.rms_w == pytest.approx(found.after.error.rms_w, abs=1e-6)
    stored = rounds_of(rounds_json(found.recipe))
    assert print_rounds(draft(stored, GAUGE).part) == print_rounds(found.after.draft.part)


def test_a_ball_that_fits_is_left_as_it_is_or_comes_nearer() -> None:
    ball = Recipe(Solid("sphere", 70, 70), simplicity=0.0)
    found = compensate(ball, GAUGE, turns=1)
    assert found.after.error.rms_w <= found.before.error.rms_w


def test_compensation_stops_when_asked_and_says_what_it_has() -> None:
    found = compensate(Recipe(TRUNK), GAUGE, watch=lambda share: share < 0.3)
    assert found.turns <= 2
    assert found.before.error.rms_w >= found.after.error.rms_w


def test_an_outcome_tells_where_the_figure_lies_off() -> None:
    made = outcome(Recipe(TRUNK, simplicity=0.3), GAUGE)
    laid = fit(made.settled, TRUNK.mesh)
    assert laid.turn @ laid.turn.T == pytest.approx(np.eye(3), abs=1e-9)
    assert np.linalg.det(laid.turn) == pytest.approx(1)
    inside, outside = laid.off.min(), laid.off.max()
    assert -15 < inside < 0 < outside < 15
    assert len(laid.off) == len(made.settled.x)


def test_a_turned_form_is_begun_at_the_other_end_with_its_front_in_front() -> None:
    egg = Form(Solid("egg", 100, 80, point=0.4), (Modifier("belly", {"amount": 15, "at": 30}),))
    over = turned(egg)
    assert over.mesh.volume_ml == pytest.approx(egg.mesh.volume_ml)
    assert over.size_mm == pytest.approx(egg.size_mm)
    assert over.mesh.x[over.mesh.pole, 2] == pytest.approx(0)
    front = over.mesh.x[np.argmin(over.mesh.x[:, 1])]
    assert front[2] == pytest.approx(70, abs=8), "the belly is high now"
    with pytest.raises(CraftError):
        turned(Form(Solid("dome", 40, 60, open=True)))


def test_alternatives_are_compared_at_their_price() -> None:
    found = alternatives(Recipe(Form(Solid("egg", 70, 55, point=0.3))), GAUGE)
    assert {a.end for a in found} == {"foot", "top"}
    assert {a.recipe.start for a in found} == {6, 8}
    assert {a.simplicity_name for a in found} == {"true", "balanced", "easy"}
    errors = [a.error.rms_w for a in found]
    assert errors == sorted(errors)
    for a in found:
        assert a.rounds > 8
        assert a.metres.low < a.metres.value < a.metres.high
        assert a.hours.value == pytest.approx(a.stitches / 750, rel=0.6)
    true, easy = (min(a.different for a in found if a.simplicity_name == n) for n in ("true", "easy"))
    assert easy <= true
    few = alternatives(Recipe(Form(Solid("egg", 70, 55))), GAUGE, watch=lambda share: share < 0.2)
    assert 0 < len(few) < 6


def test_a_neck_is_found_where_one_is_and_pieces_are_priced_there() -> None:
    toadstool = Form(Stack((Solid("sphere", 60, 60), Solid("sphere", 44, 44)), 0.5))
    neck = neck_of(toadstool.mesh)
    assert neck == pytest.approx(30 + np.sqrt(30**2 - 11**2), abs=2)
    assert neck_of(Form(Solid("egg", 80, 60)).mesh) is None
    found = [a for a in alternatives(Recipe(toadstool), GAUGE) if a.end == "pieces"]
    assert {a.simplicity_name for a in found} == {"true", "balanced", "easy"}
    assert all(a.cut_mm == pytest.approx(neck) for a in found)
    whole = draft(Recipe(toadstool), GAUGE)
    assert all(abs(a.rounds - len(whole.counts)) <= 4 for a in found)
