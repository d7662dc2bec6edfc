"""A part as it lies while it is made: settled by its first rounds alone."""

from __future__ import annotations

import numpy as np
import pytest

from craft.design.design import Design
from craft.design.on_the_way import on_the_way, stages_of_making
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.portrait import settled_figure
from craft.figure.placement import Skin

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R10: sc around [30]
Stuff firmly.
R11: (3 sc, dec) x 6 [24]
R12: (2 sc, dec) x 6 [18]
R13: (sc, dec) x 6 [12]
R14: dec x 6 [6]
Close.
"""
SOLE = """Ch 7
R1: 5 sc, inc3, along the other side of the chain 4 sc, inc [14]
R2: inc, 4 sc, 3 inc, 4 sc, 2 inc [20]
R3-R6: sc around [20]
"""
LEG = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R5: sc around [12]\n"
BODY = """R1: ch 3, 12 sc around the first leg, 3 sc along the chain, 12 sc around the second leg, 3 sc along the chain [30]
R2-R6: sc around [30]
R7: (3 sc, dec) x 6 [24]
"""


def design(*parts: Part) -> Design:
    yarn = DesignYarn("Peat", "#5a4634", 3)
    return Design(
        "Figure", yarns=(yarn,), parts=parts, gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.0, 4.6, 0.3, 60, 0.5)
    )


def begun(figure: Design, key: str, after: int) -> Skin:
    found = on_the_way(figure, key, after)
    assert found is not None
    assert found.rounds is not None
    assert int(found.rounds.max()) == after - 1, "no round that comes later"
    return found


def extents(skin: Skin) -> tuple[float, float]:
    """Width and height in mm."""
    wide, _, tall = np.ptp(skin.x, axis=0)
    return float(wide), float(tall)


def test_five_rounds_of_increases_are_a_disc_and_no_cap_of_a_ball() -> None:
    ball = design(Part("ball", "Ball", BALL))
    wide, tall = extents(begun(ball, "ball", 5))
    cap = extents(settled_figure(ball)[1]["ball"].up_to(5))
    assert tall / wide < 0.75 * cap[1] / cap[0], "flatter than the end of a stuffed ball"
    assert wide == pytest.approx(30 * 5.0 / np.pi, rel=0.15)


def test_a_fold_is_cut_where_it_stands() -> None:
    ball = design(Part("ball", "Ball", BALL))
    heights = [extents(begun(ball, "ball", after))[1] for after in (6, 8, 10)]
    assert heights == sorted(heights)
    assert heights[2] - heights[0] == pytest.approx(4 * 4.6, rel=0.35)


def test_all_rounds_are_the_finished_part() -> None:
    ball = design(Part("ball", "Ball", BALL))
    assert on_the_way(ball, "ball", 14) is None
    assert on_the_way(ball, "gone", 3) is None
    assert on_the_way(design(Part("ball", "Ball", "R1: 6 sc in ring [6]\nR2: inc x 6 [13]\n")), "ball", 1) is not None


def test_a_chain_before_the_rounds_and_pieces_that_are_taken_in_come_with_them() -> None:
    assert extents(begun(design(Part("sole", "Sole", SOLE)), "sole", 2))[0] > 25
    figure = design(Part("leg", "Leg", LEG, 2), Part("body", "Body", BODY))
    wide, _ = extents(begun(figure, "body", 2))
    assert wide > 2 * 12 * 5.0 / np.pi


def test_the_stages_of_a_making_go_up_the_part_and_tell_how_far_they_are() -> None:
    ball = design(Part("ball", "Ball", BALL))
    told: list[float] = []
    found = stages_of_making(ball, "ball", told.append)
    afters = [after for after, _ in found]
    assert afters == [2, 4, 5, 7, 8, 10, 11, 13]
    assert told == [k / 8 for k in range(8)]
    for after, skin in found:
        assert skin.rounds is not None
        assert int(skin.rounds.max()) == after - 1
    heights = [extents(skin)[1] for after, skin in found if after >= 5]
    assert heights == sorted(heights)


def test_a_part_of_one_round_has_no_stages() -> None:
    assert stages_of_making(design(Part("dot", "Dot", "R1: 6 sc in ring [6]\n")), "dot") == ()
