"""How far one settled shape lies outside another, against what geometry says of balls."""

from __future__ import annotations

import numpy as np
import pytest
import trimesh

from craft.figure.placement import Skin, laid_over
from craft.figure.settling import signed_apart


def ball(radius: float, shift: float = 0.0) -> trimesh.Trimesh:
    made = trimesh.creation.icosphere(subdivisions=3, radius=radius)
    made.apply_translation([0.0, 0.0, shift])
    return made


def skin(of: trimesh.Trimesh) -> Skin:
    """Its nodes as stitches of one colour; what stands where does not matter for distances."""
    many = len(of.vertices)
    none = np.full((many, 2), -1)
    x, faces = np.asarray(of.vertices), np.asarray(of.faces, np.int64)
    return Skin("Ball", x, none, np.tile(np.arange(many)[:, None], (1, 2)), np.zeros(many, np.int64), ("Main",), faces)


@pytest.mark.parametrize(("now", "was"), [(34.0, 30.0), (27.5, 30.0), (30.0, 30.0)])
def test_a_ball_in_a_ball_lies_off_by_the_radii(now: float, was: float) -> None:
    over = laid_over(skin(ball(now)), skin(ball(was)), 1.5)
    assert over.apart == pytest.approx(now - was, abs=0.15)
    assert (over.out_mm > 0.2) == (now > was)
    assert (over.in_mm > 0.2) == (now < was)
    assert over.usual_mm == pytest.approx(abs(now - was), abs=0.15)


def test_a_ball_that_is_moved_lies_out_on_one_side_and_in_on_the_other() -> None:
    there, moved = ball(30.0), ball(30.0, shift=3.0)
    found = signed_apart(np.asarray(moved.vertices), np.asarray(there.vertices), np.asarray(there.faces, np.int64), 1.5)
    judge = np.linalg.norm(moved.vertices, axis=1) - 30.0
    assert np.abs(found - judge).max() < 0.2
    assert found.max() == pytest.approx(3.0, abs=0.15)
    assert found.min() == pytest.approx(-3.0, abs=0.15)


def test_colours_reach_as_far_as_nearly_all_of_it() -> None:
    far = laid_over(skin(ball(42.4)), skin(ball(30.0)), 1.5)
    near = laid_over(skin(ball(30.3)), skin(ball(30.0)), 1.5)
    assert far.reach == 13.0
    assert near.reach == 2.0, "what hardly differs looks so"
