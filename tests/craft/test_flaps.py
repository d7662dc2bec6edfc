"""Brims and skirts on a stuffed part: which rounds they are, and how they hang."""

from __future__ import annotations

import itertools
from functools import cache

import numpy as np
import pytest
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.placement import Surface, hanging_flaps
from craft.figure.placement.drooping import BENDING_LENGTH_MM, DOWN, OF_STITCH_MM, turns_of
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check

BODY = """## Doll
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R12: sc around [30]
R13: BLO: sc around [30]
R14-R18: sc around [30]
R19: (3 sc, dec) x 6 [24]
R20: (2 sc, dec) x 6 [18]
> stuff
R21: (sc, dec) x 6 [12]
R22: dec x 6 [6]
> close

### {name}
R23: in the free front loops of R12, (4 sc, inc) x 6 [36]
R24: {more}
"""
LONG = "sc around [36]\nR25: (5 sc, inc) x 6 [42]\nR26-R32: sc around [42]"
SHORT = "sc around [36]"
BRIM = "inc around [72]\nR25: (5 sc, inc) x 12 [84]\nR26-R29: sc around [84]"


@cache
def surface(name: str, more: str) -> Surface:
    found = check(BODY.format(name=name, more=more))
    assert found.sound, found.problems
    return Surface.of(settle(found.parts[0], Gauge(5.6, 5.2, 0.0)))


def hung(of: Surface, matrix: NDArray[np.float64] | None = None) -> NDArray[np.float64]:
    """The nodes in the scene, as they hang."""
    (piece,) = hanging_flaps({"doll": of}, (Placed("doll", np.eye(4) if matrix is None else matrix),), OF_STITCH_MM)
    return piece.in_scene(of.x if piece.x is None else piece.x)


def heights(of: Surface, x: NDArray[np.float64]) -> list[float]:
    """How high the rounds of the flap lie above the one that it hangs on."""
    seam = x[of.rings[11]].mean(0)[2]
    return [float(x[of.rings[k]][:, 2].mean() - seam) for k in of.flaps[0].rounds]


def test_the_rounds_on_free_loops_are_a_flap_and_no_others() -> None:
    found = surface("Skirt", LONG)
    (flap,) = found.flaps
    assert flap.name == "Skirt"
    assert [found.labels[k] for k in flap.rounds] == [f"R{n}" for n in range(23, 33)]


def test_a_part_without_filling_has_no_flaps() -> None:
    empty = BODY.format(name="Skirt", more=LONG).replace("> stuff", "> do not stuff")
    assert Surface.of(settle(check(empty).parts[0], Gauge(5.6, 5.2, 0.0))).flaps == ()


def test_a_skirt_that_was_worked_upwards_hangs_down() -> None:
    of = surface("Skirt", LONG)
    assert heights(of, of.x)[-1] > 30
    found = heights(of, hung(of))
    assert found[-1] < -30
    assert all(b < a for a, b in itertools.pairwise(found))


def test_a_short_collar_stands_as_it_is_worked() -> None:
    of = surface("Collar", SHORT)
    assert heights(of, hung(of)) == pytest.approx(heights(of, of.x), abs=1.5)


def test_an_edge_that_hangs_already_stays() -> None:
    over = np.diag([1.0, -1.0, -1.0, 1.0])  # head down: the skirt hangs as it was worked
    of = surface("Skirt", LONG)
    upside = Placed("doll", over).in_scene(of.x)
    assert hung(of, over)[of.rings[of.flaps[0].rounds[-1]]] == pytest.approx(
        upside[of.rings[of.flaps[0].rounds[-1]]], abs=4
    )


def test_a_wide_brim_sinks_at_its_edge_and_more_the_farther_out() -> None:
    of = surface("Brim", BRIM)
    sunk = np.array(heights(of, of.x)) - heights(of, hung(of))
    assert sunk[-1] > 0
    assert sunk[-1] > sunk[1]


@pytest.mark.parametrize(("name", "more"), [("Skirt", LONG), ("Brim", BRIM), ("Collar", SHORT)])
def test_no_round_is_drawn_out_and_only_the_flap_moves(name: str, more: str) -> None:
    of = surface(name, more)
    x = hung(of)
    flap = np.concatenate([of.rings[k] for k in of.flaps[0].rounds])
    rest = np.setdiff1d(np.arange(len(x)), flap)
    assert x[rest] == pytest.approx(of.x[rest], abs=1e-9)
    assert np.isfinite(x).all()


def test_a_skirt_lies_on_its_own_body_and_not_in_it() -> None:
    of = surface("Skirt", LONG)
    x = hung(of)
    flap = np.concatenate([of.rings[k] for k in of.flaps[0].rounds])
    wall = np.concatenate([of.rings[k] for k in range(5, 12)])
    beside = np.abs(x[flap][:, None, 2] - x[wall][None, :, 2]) < 3
    away = np.hypot(x[:, 0], x[:, 1])
    inner = np.where(beside, away[wall][None], 0).max(1)
    assert (away[flap][inner > 0] > inner[inner > 0]).all()


def test_the_figure_turned_hangs_towards_the_ground_of_the_scene() -> None:
    """Lying on its back, a skirt falls towards its back at both ends, and not along the body."""
    of = surface("Brim", BRIM)
    lying = np.eye(4)
    lying[:3, :3] = np.array([[1.0, 0, 0], [0, 0, -1], [0, 1, 0]])
    x, settled = hung(of, lying), Placed("doll", lying).in_scene(of.x)
    edge = of.rings[of.flaps[0].rounds[-1]]
    assert x[edge][:, 2].mean() < settled[edge][:, 2].mean()


def test_strips_that_are_looked_for_at_once_are_those_of_each_by_itself() -> None:
    ways = np.array([[1.0, 0, 0], [0.6, 0.3, 0.2], [0.2, -0.4, 1.0]])
    steps = np.repeat((ways / np.linalg.norm(ways, axis=1)[:, None])[:, None] * 5.0, 8, axis=1)
    together = turns_of(steps, DOWN, BENDING_LENGTH_MM)
    assert together is not None
    for k, one in enumerate(steps):
        alone = turns_of(one[None], DOWN, BENDING_LENGTH_MM)
        assert alone is not None
        assert together[0][k] == pytest.approx(alone[0][0], abs=2e-3)
        assert together[1][k] == pytest.approx(alone[1][0])
