"""What covers the fabric in mm: felt, satin stitch, brushed colour; and several of a part around one round."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.assembly import marks_placed
from craft.design.design import Design, MadeOf, Mark
from craft.design.joins import Join
from craft.design.parts import GaugeFrom, GaugeInForce, Part
from craft.design.portrait import BLUSH_COVERS, mark_colour, portrait_of, settled_figure
from craft.design.running import run_parts, worked_parts
from craft.design.saying import mark_said, place_said
from craft.design.stored import from_json, to_json
from craft.errors import CraftError
from craft.figure.placement import Seat, Surface, patch_on, place
from craft.figure.placement.patches import AROUND, LIFTED, RINGS, THICK_MM
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check
from tests.craft.figures import BALL

GAUGE = Gauge(5.6, 5.2, 0.0)
SPINE = "R1: 4 sc in ring [4]\nR2-R3: sc around [4]\nFasten off. Do not stuff.\n"
CHEEK = Mark("c", "cheeks", Place("head", 8, 6), paired=True, made_of=MadeOf.BLUSH, wide_mm=9, tall_mm=7)
FELT = Mark("f", "a muzzle", Place("head", 7), made_of=MadeOf.FELT, wide_mm=20, tall_mm=12, colour="#e3cda4")


def head(*marks: Mark) -> Design:
    own = GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.6, 5.2, 0.0, 60, 0.5)
    return Design("Head", gauge=own, parts=(Part("head", "Head", BALL),), marks=marks)


@pytest.fixture(scope="module")
def ball() -> Surface:
    return Surface.of(settle(check(BALL).parts[0], GAUGE))


@pytest.mark.parametrize(("wide", "tall"), [(8, 5), (20, 12), (12, 30)])
@pytest.mark.parametrize("angle", [0.0, 1.1])
def test_a_patch_is_as_wide_and_tall_over_the_fabric_as_it_is_cut(
    ball: Surface, wide: float, tall: float, angle: float
) -> None:
    patch = patch_on(ball, 8, angle, wide, tall, GAUGE.stitch_mm)
    flat = patch.points - LIFTED * GAUGE.stitch_mm * patch.out
    rings = np.concatenate([np.repeat(flat[:1], AROUND, 0)[None], flat[1:].reshape(RINGS, AROUND, 3)])
    ways = np.linalg.norm(np.diff(rings, axis=0), axis=2).sum(0)
    assert ways[0] + ways[AROUND // 2] == pytest.approx(wide, rel=0.02)
    assert ways[AROUND // 4] + ways[3 * AROUND // 4] == pytest.approx(tall, rel=0.02)


def test_a_patch_lies_on_the_outside_and_is_wound_outward(ball: Surface) -> None:
    patch = patch_on(ball, 8, 0.4, 18, 14, GAUGE.stitch_mm)
    middle = ball.x.mean(0)
    a, b, c = (patch.points[patch.triangles[:, k]] for k in range(3))
    normal = np.cross(b - a, c - a)
    assert (np.einsum("ij,ij->i", normal, a - middle) > 0).all()
    away = np.linalg.norm(patch.points - middle, axis=1)
    near = np.argsort(np.linalg.norm(ball.x - patch.points[0], axis=1))[:8]
    fabric = np.linalg.norm(ball.x[near] - middle, axis=1).mean()
    assert np.abs(away - fabric).max() < 0.6 * GAUGE.stitch_mm
    flat = patch.points - LIFTED * GAUGE.stitch_mm * patch.out
    a, b, c = (flat[patch.triangles[:, k]] for k in range(3))
    area = float(np.linalg.norm(np.cross(b - a, c - a), axis=1).sum() / 2)
    assert area == pytest.approx(math.pi * 9 * 7, rel=0.1)


def test_marks_of_a_pair_lie_on_both_sides() -> None:
    found, skins = settled_figure(head(CHEEK, FELT))
    cheeks, felt = marks_placed(found)
    left, right = (p.points.mean(0) for p in cheeks.patches)
    assert left[0] * right[0] < 0
    assert abs(left[0] + right[0]) < 3
    assert len(felt.patches) == 1
    subject = portrait_of(found, skins)
    assert sorted(s.covers for s in subject.sheets) == [BLUSH_COVERS, BLUSH_COVERS, 1.0]
    assert {s.colour for s in subject.sheets} == {"#e3cda4", mark_colour(CHEEK)}
    assert not subject.threads


def test_they_say_themselves_in_mm() -> None:
    design = head(CHEEK, FELT)
    worked = worked_parts(run_parts(design))
    assert mark_said(design, FELT, worked) == (
        "Cut an oval of felt for a muzzle, 20 mm wide and 12 mm high, and sew it on Head, R7, at the front, in the middle."
    )
    assert mark_said(design, CHEEK, worked).startswith(
        "Brush on cheeks, 9 mm wide and 7 mm high, on Head, R8, 6 stitches"
    )
    assert mark_said(design, CHEEK, worked).endswith(", and the same on the other side.")
    nose = Mark("n", "the nose", Place("head", 9), wide_mm=8, tall_mm=5)
    assert mark_said(design, nose, worked).startswith("Embroider the nose, 8 mm wide and 5 mm high, on Head, R9")
    mouth = Mark("m", "a mouth", Place("head", 8, 2), Place("head", 8, -2))
    assert mark_said(design, mouth, worked).startswith(
        "Embroider a mouth: a line from Head, R8, 2 stitches to the left"
    )


sizes = st.integers(1, 600).map(lambda half: half / 2)


@given(st.sampled_from(MadeOf), sizes, sizes, st.none() | st.from_regex(r"\A#[0-9a-f]{6}\Z"))
def test_a_mark_is_kept_in_the_file(made: MadeOf, wide: float, tall: float, colour: str | None) -> None:
    design = head(replace(FELT, made_of=made, wide_mm=wide, tall_mm=tall, colour=colour))
    assert from_json(to_json(design)) == design


@pytest.mark.parametrize(
    "changes",
    [
        {"wide_mm": 0},
        {"tall_mm": 0},
        {"wide_mm": 301},
        {"wide_mm": -1},
        {"colour": "red"},
        {"wide_mm": 0, "tall_mm": 0},
    ],
)
def test_nonsense_is_refused(changes: dict[str, float | str]) -> None:
    with pytest.raises(CraftError):
        replace(FELT, **changes)


# --- several of a part around one round ------------------------------------------------------------


@pytest.mark.parametrize("many", [1, 2, 5, 12])
def test_pieces_are_spread_evenly_around_a_round(ball: Surface, many: int) -> None:
    spine = Surface.of(settle(check(SPINE).parts[0], GAUGE))
    placed = place({"ball": ball, "spine": spine}, {}, (Seat("spine", "ball", 9, 2.0, spread=many, key="j"),))
    seats = np.array([p.matrix[:3, :3] @ [0, 0, 1.0] for p in placed if p.part == "spine"])
    assert len(seats) == many
    angles = np.sort(np.arctan2(seats[:, 0], -seats[:, 1]))
    gaps = np.diff(np.append(angles, angles[0] + 2 * math.pi))
    assert gaps == pytest.approx(np.full(many, 2 * math.pi / many), abs=0.25)
    assert {p.join for p in placed} == {"", "j"}


def test_what_is_spread_says_so_and_is_no_pair() -> None:
    place = Place("head", 9, 2)
    spread = Join("j", "spine", "head", place, spread=6)
    design = replace(head(), parts=(*head().parts, Part("spine", "Spine", SPINE, 6)), joins=(spread,))
    worked = worked_parts(run_parts(design))
    assert "R9, 6 spread evenly around, the first, 2 stitches to the left" in place_said(design, place, worked, spread)
    assert from_json(to_json(design)) == design
    for wrong in ({"spread": 0}, {"spread": 61}, {"paired": True}):
        with pytest.raises(CraftError):
            replace(spread, **wrong)


def test_a_nose_on_a_muzzle_lies_over_it_and_what_is_apart_is_not_lifted() -> None:
    nose = Mark("n", "a nose", Place("head", 8), made_of=MadeOf.THREAD, wide_mm=6, tall_mm=4)
    apart = Mark("a", "a patch", Place("head", 8, 18), made_of=MadeOf.FELT, wide_mm=6, tall_mm=6)
    found, _ = settled_figure(head(FELT, nose, apart, CHEEK))
    felt, sewn, beside, cheek = marks_placed(found)
    muzzle, on_it = felt.patches[0], sewn.patches[0]
    near = np.argmin(np.linalg.norm(muzzle.points[None] - on_it.points[:, None], axis=2), axis=1)
    above = np.einsum("ij,ij->i", on_it.points - muzzle.points[near], muzzle.out[near])
    assert above.min() > 0.8 * THICK_MM
    alone, _ = settled_figure(head(apart, CHEEK))
    for placed, plain in zip((beside, cheek), marks_placed(alone), strict=True):
        assert np.allclose(placed.patches[0].points, plain.patches[0].points)
