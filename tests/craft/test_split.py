"""Shapes that divide, worked in one piece: a trunk whose stitches are shared out among limbs."""

from __future__ import annotations

import re

import numpy as np
import pytest

from craft.errors import CraftError
from craft.figure.settling import fit, settle
from craft.gauge import Gauge
from craft.rounds.fabric import Tally, WorkedPart
from craft.shape.drafting import BranchedError, Recipe, draft
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid, TriangleMesh
from craft.text.check import check
from craft.text.notation import print_rounds
from tests.craft.bodies import ARM_RODS, LEGS_RODS, THREE_RODS, Y_RODS, Rod, rods

GAUGE = Gauge(5.6, 5.15, 0.4)


def used(part: WorkedPart, first: Tally) -> set[int]:
    """Stitches that a round was worked into."""
    return {parent for stitch in range(first.first, first.end) for parent in part.graph.parents_of(stitch)}


def body(parts: tuple[Rod, ...], scale: float = 1.4) -> Form:
    x, faces = rods(parts)
    return Form(TriangleMesh((x - [0, 0, x[:, 2].min()]) * scale, faces, int(np.argmin(x[:, 2]))))


@pytest.mark.parametrize(("parts", "limbs"), [(LEGS_RODS, 2), (THREE_RODS, 3), (ARM_RODS, 2), (Y_RODS, 2)])
@pytest.mark.parametrize("simplicity", [0.0, 0.85])
def test_the_trunks_stitches_are_all_handed_on(parts: tuple[Rod, ...], limbs: int, simplicity: float) -> None:
    made = draft(Recipe(body(parts), simplicity=simplicity, split=True), GAUGE)
    read = check(print_rounds(made.part))
    assert not read.problems, (print_rounds(made.part), read.problems)
    rounds = read.parts[0].rounds
    trunk = [t for t in rounds if not t.section]
    sections = list(dict.fromkeys(t.section for t in rounds if t.section))
    assert len(sections) == limbs
    firsts = [next(t for t in rounds if t.section == name) for name in sections]
    taken = [used(read.parts[0], t) for t in firsts]
    assert sum(map(len, taken)) == len(set.union(*taken)) == trunk[-1].live
    assert all(t.number == trunk[-1].number + 1 for t in firsts)
    assert all([t for t in rounds if t.section == name][-1].live == 6 for name in sections)
    assert made.counts == tuple(t.live if t not in firsts else t.made for t in rounds)


@pytest.mark.parametrize(("parts", "aim"), [(LEGS_RODS, 0.5), (THREE_RODS, 0.5), (ARM_RODS, 0.5)])
def test_a_split_settles_to_the_shape_it_was_laid_on(parts: tuple[Rod, ...], aim: float) -> None:
    form = body(parts)
    settled = settle(check(print_rounds(draft(Recipe(form, simplicity=0.5, split=True), GAUGE).part)).parts[0], GAUGE)
    assert settled.converged
    assert settled.net.closings == len(parts) - 1
    assert fit(settled, form.mesh).error.rms_w < aim


def test_legs_that_are_alike_get_the_same_stitches() -> None:
    text = print_rounds(draft(Recipe(body(LEGS_RODS), simplicity=0.5, split=True), GAUGE).part)
    worked = check(text).parts[0]
    firsts = [next(t for t in worked.rounds if t.section == f"{n} limb") for n in ("First", "Second")]
    assert len(used(worked, firsts[0])) == len(used(worked, firsts[1]))
    assert re.search(r"shift \d+", text)


def test_a_shape_that_does_not_divide_is_drafted_as_ever() -> None:
    bent = Form(Solid("capsule", 110, 45), (Modifier("bend", {"degrees": 60}),))
    assert print_rounds(draft(Recipe(bent, split=True), GAUGE).part) == print_rounds(draft(Recipe(bent), GAUGE).part)
    ball = Solid("sphere", 60, 60)
    assert print_rounds(draft(Recipe(ball, split=True), GAUGE).part) == print_rounds(draft(Recipe(ball), GAUGE).part)


def test_without_a_split_it_says_that_one_is_possible() -> None:
    with pytest.raises(BranchedError, match="work it as a split"):
        draft(Recipe(body(LEGS_RODS)), GAUGE)


def test_a_limb_that_divides_again_is_refused() -> None:
    twice: tuple[Rod, ...] = (
        ((0, 0, -50), (0, 0, -20), 12), ((0, 0, -20), (-20, 0, 5), 10), ((0, 0, -20), (26, 0, 10), 10),
        ((-20, 0, 5), (-44, 0, 44), 9), ((-20, 0, 5), (4, 0, 46), 9),
    )  # fmt: skip
    with pytest.raises(CraftError, match=r"divides again|do not share out"):
        draft(Recipe(body(twice, 2.0), split=True), GAUGE)


def test_a_split_keeps_to_its_recipe_at_other_sizes() -> None:
    recipe = Recipe(body(LEGS_RODS), simplicity=0.5, split=True)
    assert rounds_of(rounds_json(recipe)).split
    larger = draft(recipe.scaled(1.3), GAUGE)
    assert len(larger.counts) > len(draft(recipe, GAUGE).counts)
    assert check(print_rounds(larger.part)).sound
