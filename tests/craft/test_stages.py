"""A part drawn so far as it is worked: every stitch with its round, from the farthest to the nearest."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
import pytest

from craft.figure.placement import Skin, Stages, stages_of
from craft.figure.settling import settle
from craft.gauge import ASSUMED
from craft.text.check import check

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R6: sc around [18]
R7: (sc, dec) x 6 [12]
Stuff.
R8: dec x 6 [6]
Close: draw the tail through the front loops of the last 6 stitches and pull tight.
"""


@lru_cache
def skin() -> Skin:
    return Skin.of("Ball", settle(check(BALL).parts[0], ASSUMED))


@lru_cache
def drawn() -> Stages:
    return stages_of(skin(), {"Main": "#7a5238"})


def test_every_stitch_is_drawn_with_its_round() -> None:
    found = drawn()
    many = np.bincount(found.rounds, minlength=10)
    assert list(many[2:9]) == [12, 18, 18, 18, 18, 12, 6]
    assert len(found.corners) == len(found.rounds) == len(found.shades) == len(found.fills)
    assert all(len(c) == 8 for c in found.corners)


def test_what_closes_it_comes_with_the_last_round_and_not_before() -> None:
    assert max(drawn().rounds) == 9
    assert drawn().rounds.count(9) > 0


def test_later_rounds_stand_higher_on_the_picture() -> None:
    """It is seen from the front and somewhat from above, R1 at the foot."""
    found = drawn()
    height = {
        n: np.mean([np.mean(c[1::2]) for c, r in zip(found.corners, found.rounds, strict=True) if r == n])
        for n in (2, 4, 6, 8)
    }
    assert height[2] < height[4] < height[6] < height[8]


def test_light_lies_within_its_bounds_and_the_inside_is_darker() -> None:
    shades = np.array(drawn().shades)
    assert shades.min() >= 0
    assert shades.max() <= 99
    assert len(set(shades)) > 5


def test_colours_are_those_of_its_yarns() -> None:
    assert drawn().colours == ("#7a5238",)
    assert set(drawn().fills) == {0}


def test_it_is_about_as_wide_as_the_part() -> None:
    """Tenths of a millimetre, so that a phone draws it at any size."""
    xs = [x for c in drawn().corners for x in c[::2]]
    wide = float(np.ptp(skin().x[:, 0]))
    assert (max(xs) - min(xs)) / 10 == pytest.approx(wide, rel=0.15)


def test_a_skin_without_rounds_has_no_stages() -> None:
    bare = Skin("x", skin().x, skin().below, skin().beside, skin().colours, skin().yarns, skin().triangles)
    assert stages_of(bare, {}).corners == ()
