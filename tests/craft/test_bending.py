"""Limbs with wire in them, bent to a pose."""

from __future__ import annotations

from functools import cache

import numpy as np
import pytest
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.figure.body import Placed
from craft.figure.placement import Bend, Seat, Surface, Towards, bent, place
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check

BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R14: sc around [18]
R15: (sc, dec) x 6 [12]
R16: dec x 6 [6]
stuff
close
"""
ARM = "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R20: sc around [9]\nStuff. Insert the wire. Fasten off.\n"
HAND = "R1: 6 sc in ring [6]\nR2-R3: sc around [6]\nstuff\nFasten off.\n"


@cache
def surfaces() -> dict[str, Surface]:
    texts = {"body": BODY, "arm": ARM, "lamp": HAND}
    return {key: Surface.of(settle(check(text).parts[0], Gauge(5.6, 5.2, 0.0))) for key, text in texts.items()}


def posed(*bends: Bend, wired: tuple[str, ...] = ("arm",)) -> tuple[tuple[Placed, ...], tuple[Placed, ...]]:
    """Two arms on a body and a lamp on the first of them, before and after they are bent."""
    seats = (
        Seat("arm", "body", 10, 4.5, paired=True, key="arms", bends=bends),
        Seat("lamp", "arm", 2, 0.0, key="lamp"),
    )
    placed = place(surfaces(), {"body": 1, "arm": 2, "lamp": 1}, seats)
    return placed, bent(surfaces(), placed, seats, wired)


def rounds(piece: Placed) -> NDArray[np.float64]:
    """The middles of a piece's rounds in the scene, from its seam on."""
    own = surfaces()[piece.part]
    x = piece.in_scene(own.x if piece.x is None else piece.x)
    return np.array([x[ring].mean(0) for ring in own.rings[::-1]])


def arms(placed: tuple[Placed, ...]) -> list[NDArray[np.float64]]:
    return [rounds(piece) for piece in placed if piece.part == "arm"]


def ahead(middles: NDArray[np.float64], at: int, to: int) -> NDArray[np.float64]:
    way = middles[to] - middles[at]
    return np.asarray(way / np.linalg.norm(way))


@pytest.mark.parametrize("degrees", [30.0, 90.0])
def test_all_beyond_the_round_turns_by_the_degrees_that_are_said(degrees: float) -> None:
    before, after = posed(Bend(11, degrees, Towards.FRONT))
    for old, new in zip(arms(before), arms(after), strict=True):
        assert new[:7] == pytest.approx(old[:7], abs=0.05), "what lies before the bend stays"
        turned = np.degrees(np.arccos(np.clip(ahead(old, 12, 19) @ ahead(new, 12, 19), -1, 1)))
        assert turned == pytest.approx(degrees, abs=0.5)
        assert ahead(new, 12, 19)[1] < ahead(old, 12, 19)[1], "forwards is to the front"


def test_a_bent_limb_keeps_its_length_and_its_width() -> None:
    before, after = posed(Bend(11, 60, Towards.UP))
    for old, new in zip(arms(before), arms(after), strict=True):
        steps = [np.linalg.norm(np.diff(m, axis=0), axis=1) for m in (old, new)]
        assert steps[1] == pytest.approx(steps[0], rel=1e-3)


@pytest.mark.parametrize(
    ("towards", "axis", "sign"),
    [(Towards.FRONT, 1, -1), (Towards.BACK, 1, 1), (Towards.UP, 2, 1), (Towards.DOWN, 2, -1)],
)
def test_both_of_a_pair_bend_to_the_same_side(towards: Towards, axis: int, sign: int) -> None:
    before, after = posed(Bend(11, 40, towards))
    for old, new in zip(arms(before), arms(after), strict=True):
        assert sign * (ahead(new, 12, 19)[axis] - ahead(old, 12, 19)[axis]) > 0.2


def test_in_and_out_are_seen_from_the_middle_of_the_figure() -> None:
    before, after = posed(Bend(16, 90, Towards.UP), Bend(8, 60, Towards.IN))
    apart = [abs(old[-1, 0] - other[-1, 0]) for old, other in (arms(before), arms(after))]
    assert apart[1] < apart[0]
    _, outwards = posed(Bend(16, 90, Towards.UP), Bend(8, 60, Towards.OUT))
    left, right = arms(outwards)
    assert abs(left[-1, 0] - right[-1, 0]) > apart[1]


def test_two_bends_come_one_after_the_other() -> None:
    _, once = posed(Bend(14, 45, Towards.FRONT))
    _, twice = posed(Bend(14, 45, Towards.FRONT), Bend(6, 45, Towards.UP))
    for first, second in zip(arms(once), arms(twice), strict=True):
        assert second[:10] == pytest.approx(first[:10], abs=0.05)
        assert second[-1, 2] > first[-1, 2]


def test_what_sits_on_the_limb_goes_with_it() -> None:
    before, after = posed(Bend(11, 90, Towards.FRONT))
    lamps = [next(p for p in placed if p.part == "lamp") for placed in (before, after)]
    hands = [arms(placed)[0] for placed in (before, after)]
    gaps = [float(np.linalg.norm(rounds(lamp)[0] - hand[-2])) for lamp, hand in zip(lamps, hands, strict=True)]
    assert gaps[1] == pytest.approx(gaps[0], abs=0.2)
    assert np.linalg.norm(lamps[1].matrix[:3, 3] - lamps[0].matrix[:3, 3]) > 10
    assert lamps[1].matrix[:3, :3] @ lamps[1].matrix[:3, :3].T == pytest.approx(np.eye(3), abs=1e-6)


def test_nothing_bends_without_wire_beyond_the_limb_or_along_it() -> None:
    for bend, wired in ((Bend(11, 60), ()), (Bend(400, 60), ("arm",))):
        before, after = posed(bend, wired=wired)
        assert all(a is b for a, b in zip(before, after, strict=True))


@pytest.mark.parametrize(("round_", "degrees"), [(0, 40), (5, 0), (5, 151), (5, -20)])
def test_a_bend_has_a_round_and_up_to_150_degrees(round_: int, degrees: float) -> None:
    with pytest.raises(CraftError):
        Bend(round_, degrees)
