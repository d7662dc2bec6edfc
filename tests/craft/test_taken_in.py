"""Limbs that a part's own rounds took in: they hang where they are empty, and keep the bends of the wire in them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cache
from itertools import pairwise

import numpy as np
import pytest
from numpy.typing import NDArray

from craft.design.anchors import Place
from craft.design.assembly import put_together
from craft.design.design import Design
from craft.design.joins import Join, Manner
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.figure.body import Placed
from craft.figure.placement import Bend, Surface, Towards, limbs_posed
from craft.figure.placement.drooping import OF_STITCH_MM
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check

ARM = "R1: 6 sc in ring [6]\nR2-R14: sc around [6]\n{told}\n"
BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R8: sc around [24]
R9: 3 sc, 3 sc through arm, 18 sc [24]
R10: sc around [24]
R11: (2 sc, dec) x 6 [18]
> stuff
R12: (sc, dec) x 6 [12]
R13: dec x 6 [6]
> close
"""
EMPTY, WIRED, FULL = "> do not stuff", "> insert the wire\n> do not stuff", "> stuff"


@cache
def surface(told: str = EMPTY) -> Surface:
    found = check(f"## Arm\n{ARM.format(told=told)}\n## Body\n{BODY}")
    assert found.sound, found.problems
    return Surface.of(settle(found.parts[1], Gauge(5.6, 5.2, 0.0)))


def posed(
    of: Surface,
    bends: Mapping[tuple[str, str], Sequence[Bend]] = {},
    wired: tuple[str, ...] = (),
    *,
    matrix: NDArray[np.float64] | None = None,
    floor: float | None = None,
) -> NDArray[np.float64]:
    (piece,) = limbs_posed(
        {"body": of}, (Placed("body", np.eye(4) if matrix is None else matrix),), OF_STITCH_MM, bends, wired, floor
    )
    return piece.in_scene(of.x if piece.x is None else piece.x)


def limb(of: Surface) -> NDArray[np.int64]:
    assert of.limb is not None
    return np.flatnonzero(of.limb == 1)


def tip(of: Surface, x: NDArray[np.float64]) -> NDArray[np.float64]:
    """The middle of the limb's first round, which is the farthest from its seam."""
    return np.asarray(x[limb(of)[:6]].mean(0))


UPSIDE = np.diag([1.0, -1.0, -1.0, 1.0])


def test_a_part_knows_the_limbs_that_it_took_in() -> None:
    assert [(found.name, found.empty) for found in surface().limbs] == [("Arm", True)]
    assert [found.empty for found in surface(FULL).limbs] == [False]
    assert len(limb(surface())) == 84
    plain = Surface.of(settle(check(ARM.format(told=FULL)).parts[0], Gauge(5.6, 5.2, 0.0)))
    assert (plain.limbs, plain.limb) == ((), None)


def test_an_empty_limb_hangs_towards_the_ground_of_the_scene() -> None:
    of = surface()
    standing = Placed("body", UPSIDE).in_scene(of.x)
    hung = posed(of, matrix=UPSIDE)
    assert tip(of, hung)[2] < tip(of, standing)[2] - 5


def test_a_filled_limb_and_one_with_wire_stay() -> None:
    for of, wired in ((surface(FULL), ()), (surface(WIRED), ("Arm",))):
        assert posed(of, wired=wired, matrix=UPSIDE) == pytest.approx(Placed("body", UPSIDE).in_scene(of.x))


def test_an_empty_limb_lies_on_what_the_figure_stands_on() -> None:
    of = surface()
    free, laid = posed(of), posed(of, floor=0.0)
    assert tip(of, free)[2] < -20
    assert tip(of, laid)[2] > -10


@pytest.mark.parametrize(
    ("towards", "axis", "sign"), [(Towards.UP, 2, 1), (Towards.FRONT, 1, -1), (Towards.BACK, 1, 1)]
)
def test_wire_bends_a_limb_that_is_worked_in(towards: Towards, axis: int, sign: int) -> None:
    of = surface(WIRED)
    bent = posed(of, {("body", "Arm"): (Bend(7, 90, towards),)}, ("Arm",))
    assert sign * (tip(of, bent) - tip(of, of.x))[axis] > 15
    fabric = np.setdiff1d(np.flatnonzero(of.limb == 0), limb(of))
    assert bent[fabric] == pytest.approx(of.x[fabric]), "the body stays"


def test_the_seam_stays_and_the_limb_keeps_its_length() -> None:
    of = surface(WIRED)
    bent = posed(of, {("body", "Arm"): (Bend(7, 60, Towards.UP),)}, ("Arm",))
    rings = [limb(of)[k : k + 6] for k in range(0, 84, 6)]
    for x in (of.x, bent):
        steps = [np.linalg.norm(x[b].mean(0) - x[a].mean(0)) for a, b in pairwise(rings)]
        assert max(steps) < 7.5
    assert bent[rings[-1]] == pytest.approx(of.x[rings[-1]], abs=0.5)


def test_a_design_bends_and_says_it() -> None:
    join = Join("j", "arm", "body", Place("body", 9, 4), manner=Manner.WORKED_IN, bends=(Bend(7, 90, Towards.UP),))
    design = Design(
        "Figure", parts=(Part("arm", "Arm", ARM.format(told=WIRED)), Part("body", "Body", BODY)), joins=(join,)
    )
    of = surface(WIRED)
    found = put_together(design, run_parts(design), {"body": of})
    (piece,) = [p for p in found.placed if p.part == "body"]
    assert piece.x is not None
    assert tip(of, piece.in_scene(piece.x))[2] > tip(of, of.x)[2] + 15
