"""Bends worked with short rows: what is written, and how far the tube bends when it settles."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from craft.figure.settling import Settled, settle
from craft.fitting.outcome import outcome
from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft
from craft.shape.drafting.short_rows import straightened
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.15, 0.4)


def bent(degrees: float, height: float = 130, width: float = 50) -> Recipe:
    form = Form(Solid("capsule", height, width), (Modifier("bend", {"degrees": degrees}),))
    return Recipe(form, simplicity=0.5, short_rows=True)


def way_of(settled: Settled, number: int) -> np.ndarray:
    """The way a whole round looks."""
    of = settled.graph.round[settled.net.stitch]
    x = settled.x[: len(of)][of == number]
    x = x - x.mean(0)
    way = np.cross(x, np.roll(x, -1, 0)).sum(0)
    out: np.ndarray = way / np.linalg.norm(way)
    return out


@pytest.mark.parametrize("wedges", [2, 4, 6])
def test_a_pair_of_short_rows_tilts_a_tube_by_its_height_over_the_width(wedges: int) -> None:
    """The bare geometry: 2 h over a width of n w / π; stuffing adds up to a quarter."""
    lines = [
        "R1: 6 sc in ring [6]", "R2: inc x 6 [12]", "R3: (sc, inc) x 6 [18]", "R4: (2 sc, inc) x 6 [24]", "R5: sc around [24]",
    ]  # fmt: skip
    for k in range(wedges):
        lines += [
            f"R{6 + 3 * k}: 12 sc, turn [24]",
            f"R{7 + 3 * k}: ch 1, 12 sc, turn",
            f"R{8 + 3 * k}: sc around [24]",
        ]
    n = 6 + 3 * wedges
    lines += [f"R{n}: (2 sc, dec) x 6 [18]", f"R{n + 1}: (sc, dec) x 6 [12]", f"R{n + 2}: dec x 6 [6]", "Close."]
    read = check("\n".join(lines))
    assert not read.problems
    settled = settle(read.parts[0], Gauge(5.6, 5.15, 0.0))
    assert settled.converged
    assert [len(rim) for rim in settled.sheets.rims] == []
    whole = [i for i, t in enumerate(read.parts[0].rounds) if t.made == 24 and t.taken == 24]
    turned = math.degrees(math.acos(float(way_of(settled, whole[0]) @ way_of(settled, whole[-1]))))
    bare = math.degrees(wedges * 2 * 5.15 / (24 * 5.6 / math.pi))
    assert bare * 0.95 < turned < bare * 1.3


def test_short_rows_within_one_round_leave_no_hole() -> None:
    text = (
        "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: sc around [18]\n"
        "R5: 9 sc, turn, 9 sc, turn [18]\nR6: sc around [18]\nR7: (sc, dec) x 6 [12]\nR8: dec x 6 [6]\nClose.\n"
    )
    read = check(text)
    assert not read.problems
    settled = settle(read.parts[0], GAUGE)
    assert settled.converged
    assert not settled.sheets.rims


@pytest.mark.parametrize("degrees", [30, 45, 90, 140, -60])
def test_bends_are_written_soundly_and_have_the_rounds_of_the_straight_body(degrees: float) -> None:
    recipe = bent(degrees)
    made = draft(recipe, GAUGE)
    read = check(print_rounds(made.part))
    assert not read.problems, (print_rounds(made.part), read.problems)
    pairs = print_rounds(made.part).count("ch 1,")
    tilt = math.degrees(2 * GAUGE.round_mm * math.pi / (max(made.counts) * GAUGE.stitch_mm))
    assert 1 <= pairs <= math.ceil(abs(degrees) / tilt)
    straight = draft(replace(recipe, shape=Form(recipe.form.base), short_rows=False), GAUGE)
    assert made.counts == straight.counts
    assert len(read.parts[0].rounds) == len(straight.counts) + pairs


def test_a_strong_bend_settles_nearer_with_short_rows() -> None:
    recipe = bent(140, 150, 45)
    plain = outcome(replace(recipe, short_rows=False), GAUGE)
    short = outcome(recipe, GAUGE)
    assert short.settled.converged
    assert short.error.rms_w < 0.4 < plain.error.rms_w


def test_what_is_not_only_bent_is_drafted_as_ever() -> None:
    bend = Modifier("bend", {"degrees": 60})
    for form in (
        Form(Solid("sphere", 60, 60)),
        Form(Solid("capsule", 110, 45), (bend, Modifier("taper", {"amount": 30}))),
        Form(Solid("capsule", 110, 45), (Modifier("taper", {"amount": 30}),)),
    ):
        assert straightened(form) is None
        assert print_rounds(draft(Recipe(form, short_rows=True), GAUGE).part) == print_rounds(
            draft(Recipe(form), GAUGE).part
        )


def test_the_recipe_says_that_short_rows_are_worked() -> None:
    recipe = bent(60)
    assert rounds_of(rounds_json(recipe)) == recipe
    larger = draft(recipe.scaled(1.4), GAUGE)
    assert "turn" in print_rounds(larger.part)
    assert check(print_rounds(larger.part)).sound
