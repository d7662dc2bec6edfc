"""Targets: traced silhouettes, stacks, modifiers, meshes, and the way along their skin."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.shape.stored import form_json, form_of
from craft.shape.target import (
    MODIFIERS,
    Form,
    Modifier,
    Solid,
    Stack,
    Traced,
    TriangleMesh,
    cut,
    distance_from_pole,
    revolved,
    smooth_half,
)
from tests.craft.bodies import Y_RODS, rods

PEAR = ((0, 0), (30, 5), (40, 40), (20, 80), (25, 100), (0, 120))
TETRAHEDRON = np.array([[0, 0, 0], [10, 0, 0], [0, 10, 0], [0, 0, 10]], float)
SIDES = np.array([[0, 2, 1], [0, 1, 3], [1, 2, 3], [0, 3, 2]])


def boxed(x: np.ndarray, faces: np.ndarray, **more: int) -> TriangleMesh:
    return TriangleMesh(x, faces, more.get("pole", 0))


def test_a_mesh_knows_its_size_and_volume() -> None:
    mesh = boxed(TETRAHEDRON, SIDES)
    assert mesh.size_mm == (10, 10, 10)
    assert mesh.volume_ml == pytest.approx(1000 / 6 / 1000)
    assert not mesh.open
    assert mesh.scaled(2).volume_ml == pytest.approx(8 * mesh.volume_ml)
    cup = revolved(Solid("dome", 40, 60, open=True).outline(), closed=False, around=24, along=10)
    assert cup.open
    assert [len(r) for r in cup.rims] == [24]


@pytest.mark.parametrize(
    ("x", "faces", "says"),
    [
        (np.vstack([TETRAHEDRON, TETRAHEDRON + 50]), np.vstack([SIDES, SIDES + 4]), "2 bodies"),
        (TETRAHEDRON * np.nan, SIDES, "lies nowhere"),
        (TETRAHEDRON, SIDES + 9, "not there"),
        (np.vstack([TETRAHEDRON, [[9, 9, 9]]]), SIDES, "belong to no face"),
        (np.vstack([TETRAHEDRON, [[9, 9, 9]]]), np.vstack([SIDES, [[0, 1, 4]]]), "More than two faces"),
        (TETRAHEDRON[:3], SIDES[:1], "four corners"),
    ],
)
def test_what_is_no_one_skin_is_refused_in_words(x: np.ndarray, faces: np.ndarray, says: str) -> None:
    with pytest.raises(CraftError, match=says):
        boxed(x, faces)


def test_a_mesh_is_kept_and_read_back() -> None:
    mesh = revolved(Solid("egg", 90, 70).outline(), closed=True)
    again = mesh.packed().mesh()
    assert np.abs(again.x - mesh.x).max() < 0.005
    assert np.array_equal(again.faces, mesh.faces)
    packed = mesh.packed()
    for damaged in (replace(packed, corners="%%%"), replace(packed, faces=packed.corners)):
        with pytest.raises(CraftError):
            damaged.mesh()


@pytest.mark.parametrize(
    ("kind", "height", "width"), [("sphere", 100, 100), ("ellipsoid", 150, 50), ("capsule", 120, 40)]
)
def test_distances_along_a_body_of_revolution_are_arc_lengths(kind: str, height: float, width: float) -> None:
    outline = Solid(kind, height, width).outline()
    mesh = revolved(outline, closed=True)
    found = distance_from_pole(mesh)
    wanted = np.interp(mesh.x[1:-1, 2], outline.z, outline.s)
    assert np.abs(found[1:-1] - wanted).max() < 0.006 * outline.length
    assert found[-1] == pytest.approx(outline.length, rel=0.004)
    assert found[mesh.pole] == 0


def test_a_revolved_mesh_has_the_solids_volume_and_like_sides() -> None:
    outline = Solid("egg", 90, 70).outline()
    mesh = revolved(outline, closed=True)
    assert mesh.volume_ml == pytest.approx(outline.volume_ml, rel=0.005)
    assert mesh.mirrored_sides
    a, b, c = (mesh.x[mesh.faces[:, k]] for k in range(3))
    assert float(np.einsum("ij,ij->i", a, np.cross(b, c)).sum()) > 0, "faces look outwards"
    x = mesh.x.copy()
    x[x[:, 0] > 10, 0] *= 1.2
    assert not mesh.with_corners(x).mirrored_sides


def test_a_silhouette_runs_through_its_handles_and_ends_round() -> None:
    outline = smooth_half(PEAR, closed=True)
    for r, z in PEAR:
        assert np.hypot(outline.r - r, outline.z - z).min() < 0.15
    assert outline.r[0] == outline.r[-1] == 0
    near = outline.r[outline.z < 0.4]
    assert near.max() > 5, "the pole is round, not a tip"


def test_a_side_outline_gives_depth_and_an_axis_bends() -> None:
    side = ((0, 0), (15, 5), (20, 40), (10, 80), (12, 100), (0, 120))
    mesh = Traced(PEAR, side).mesh()
    ring = np.abs(mesh.x[:, 2] - 40) < 1.5
    assert np.ptp(mesh.x[ring, 1]) / np.ptp(mesh.x[ring, 0]) == pytest.approx(0.5, abs=0.02)
    bent = Traced(PEAR, (), ((0, 0), (10, 60), (30, 120))).mesh()
    assert bent.x[-1][1] - bent.x[bent.pole][1] == pytest.approx(-30, abs=0.1)
    assert Traced(PEAR).is_round
    assert not Traced(PEAR, side).is_round


@pytest.mark.parametrize(
    ("front", "says"),
    [
        (((0, 0), (10, 10)), "3 to"),
        (((0, 0), (-5, 10), (0, 20)), "within"),
        (((0, 0), (10, 10), (10, 10), (0, 20)), "on each other"),
        (((0, 0), (10, 0.1), (0, 0.2)), "height"),
        (((0, 0), (10, 10), (10, 30)), "axis"),
        (((0, 0), (float("inf"), 10), (0, 20)), "nowhere"),
    ],
)
def test_outlines_that_make_no_shape_say_why(front: tuple[tuple[float, float], ...], says: str) -> None:
    with pytest.raises(CraftError, match=says):
        Traced(front)


def test_a_stack_is_as_narrow_as_its_neck_says() -> None:
    stack = Stack((Solid("sphere", 60, 60), Solid("sphere", 40, 40)), 0.5)
    outline = stack.outline()
    between = outline.r[(outline.z > 30) & (outline.z < 75)]
    assert 2 * between.min() == pytest.approx(0.5 * 40, abs=1.0)
    assert stack.height_mm == pytest.approx(30 + math.sqrt(900 - 100) + math.sqrt(400 - 100) + 20, abs=0.5)
    with pytest.raises(CraftError):
        Stack((Solid("sphere", 60, 60),))
    with pytest.raises(CraftError):
        Stack((Solid("sphere", 60, 60, open=True), Solid("sphere", 40, 40)))


def test_a_bend_keeps_the_middles_length_and_turns_the_end() -> None:
    line = np.column_stack([np.zeros(50), np.zeros(50), np.linspace(0, 100, 50)])
    bent = Modifier("bend", {"degrees": 90}).moved(line)
    steps = np.linalg.norm(np.diff(bent, axis=0), axis=1)
    assert steps.sum() == pytest.approx(100, rel=1e-3)
    end = bent[-1] - bent[-2]
    assert abs(end[2]) < 0.02 * np.linalg.norm(end)
    assert end[1] < 0, "forward is to the front"


@pytest.mark.parametrize(
    ("kind", "values", "where", "what"),
    [
        ("belly", {"amount": 12, "at": 50}, "front", 12),
        ("brow", {"amount": 5, "at": 50}, "front", 5),
        ("dent", {"amount": 7, "at": 50, "angle": 0}, "front", -7),
        ("ridge", {"amount": 9}, "back", 9),
    ],
)
def test_bumps_push_where_they_are_and_nowhere_else(
    kind: str, values: dict[str, float], where: str, what: float
) -> None:
    ball = revolved(Solid("sphere", 80, 80).outline(), closed=True)
    moved = Modifier(kind, values).moved(ball.x) - ball.x
    ahead = -1 if where == "front" else 1
    spot = np.argmin(np.linalg.norm(ball.x - [0, 40 * ahead, 40], axis=1))
    assert moved[spot][1] * ahead == pytest.approx(what, abs=0.1)
    far = np.argmin(np.linalg.norm(ball.x - [0, -40 * ahead, 40], axis=1))
    assert np.linalg.norm(moved[far]) < 0.05 * abs(what)
    assert np.linalg.norm(moved[0]) < 0.2, "the pole stays"


def test_a_square_is_as_wide_as_the_circle_and_fuller() -> None:
    drum = revolved(Solid("cylinder", 60, 60).outline(), closed=True)
    boxy = drum.with_corners(Modifier("square", {"amount": 100}).moved(drum.x))
    assert boxy.size_mm[0] == pytest.approx(drum.size_mm[0])
    assert boxy.volume_ml > 1.15 * drum.volume_ml


@pytest.mark.parametrize("kind", sorted(MODIFIERS))
def test_every_modifier_keeps_a_skin_a_skin_and_refuses_numbers_beyond_its_own(kind: str) -> None:
    form = Form(Solid("egg", 90, 70), (Modifier(kind, {}),))
    assert form.mesh.mirrored_sides
    assert form.outline is None
    assert form_of(form_json(form)).size_mm == form.size_mm
    name, knob = next(iter(MODIFIERS[kind].knobs.items()))
    with pytest.raises(CraftError, match=f"{knob.least:g} to {knob.most:g}"):
        Modifier(kind, {name: knob.most + 1})
    with pytest.raises(CraftError):
        Modifier(kind, {"nothing": 1})


BASES = st.one_of(
    st.builds(Solid, st.sampled_from(["egg", "capsule", "drop", "dome"]), st.floats(40, 160), st.floats(40, 120)),
    st.builds(
        lambda a, b: Stack((Solid("sphere", a, a), Solid("egg", b, b * 0.8))), st.floats(40, 90), st.floats(40, 90)
    ),
    st.builds(lambda k: Traced(tuple((r * k, z * k) for r, z in PEAR)), st.floats(0.5, 2)),
)
ALTERED = st.lists(st.sampled_from(sorted(MODIFIERS)).map(lambda kind: Modifier(kind, {})), max_size=3)


@settings(deadline=None, max_examples=30)
@given(BASES, ALTERED, st.floats(0.5, 2))
def test_forms_are_kept_and_scaled(base: Solid | Stack | Traced, altered: list[Modifier], factor: float) -> None:
    form = Form(base, tuple(altered))
    assert form_of(form_json(form)) == form
    if all(knob.unit != "mm" for m in altered for knob in MODIFIERS[m.kind].knobs.values()):
        for large, small in zip(form.scaled(factor).size_mm, form.size_mm, strict=True):
            assert large == pytest.approx(small * factor, rel=0.01)


EGG = {"base": "solid", "kind": "egg", "height_mm": 50, "width_mm": 40}


@pytest.mark.parametrize(
    "damage",
    [
        {},
        {"base": "sponge"},
        {"base": "solid"},
        {"base": "stack", "solids": 3},
        {"base": "traced", "front": "x"},
        {"base": "mesh"},
        {**EGG, "modifiers": [7]},
        {**EGG, "modifiers": [{"kind": "bend", "degrees": "far"}]},
    ],
)
def test_damaged_forms_are_refused(damage: dict[str, object]) -> None:
    with pytest.raises(CraftError):
        form_of(damage)


def test_a_ball_is_cut_into_two_bowls_that_fit() -> None:
    ball = revolved(Solid("sphere", 80, 80).outline(), closed=True)
    low, high = (p.mesh for p in cut(ball, 50.0))
    assert low.size_mm[2] == pytest.approx(50, abs=0.1)
    assert high.size_mm[2] == pytest.approx(30, abs=0.1)
    rims = [float(np.hypot(*(s.x[s.rims[0]][:, :2] - s.x[s.rims[0]][:, :2].mean(0)).T).mean()) for s in (low, high)]
    assert rims[0] == pytest.approx(math.sqrt(40**2 - 10**2), rel=0.01)
    assert rims[1] == pytest.approx(rims[0], rel=1e-6)
    assert low.volume_ml + high.volume_ml == pytest.approx(ball.volume_ml, rel=1e-3)
    for piece in (low, high):
        assert piece.x[piece.pole, 2] == pytest.approx(0)
        assert len(piece.rims) == 1


def test_what_is_cut_keeps_its_front() -> None:
    bellied = Form(Solid("egg", 100, 80), (Modifier("belly", {"amount": 20, "at": 75}),)).mesh
    _, top = (p.mesh for p in cut(bellied, 50.0))
    ahead = top.x[np.argmin(top.x[:, 1])]
    behind = top.x[np.argmax(top.x[:, 1])]
    assert -ahead[1] > behind[1] + 5


def test_a_forked_shape_is_cut_into_a_trunk_and_its_arms() -> None:
    x, faces = rods(Y_RODS)
    pieces = cut(TriangleMesh(x, faces, int(np.argmin(x[:, 2]))), 20.0)
    assert [p.above for p in pieces] == [False, True, True]
    trunk, *arms = (p.mesh for p in pieces)
    assert len(arms) == 2
    assert not trunk.open, "closed flat where the arms are sewn on"
    assert all(arm.open for arm in arms)
    assert arms[0].volume_ml == pytest.approx(arms[1].volume_ml, rel=0.02)


@pytest.mark.parametrize("way", [(0, 0, 1), (0, -1, 0), (1, 0, 0), (0.6, -0.5, 0.3)])
def test_a_body_begun_elsewhere_stands_on_that_corner_and_keeps_its_shape(way: tuple[float, float, float]) -> None:
    mesh = Form(Solid("egg", 90, 60), (Modifier("bend", {"degrees": 50}),)).mesh
    corner = int(np.argmax((mesh.x - mesh.x.mean(0)) @ np.array(way)))
    begun = mesh.begun_at(corner)
    assert begun.pole == corner
    assert begun.volume_ml == pytest.approx(mesh.volume_ml)
    assert begun.x[corner, 2] == pytest.approx(0, abs=1e-9)
    below = begun.x[corner] - begun.x.mean(0)
    assert below / np.linalg.norm(below) == pytest.approx([0, 0, -1], abs=1e-9)
    a, b = mesh.sides.T
    before, after = (np.linalg.norm(x[a] - x[b], axis=1) for x in (mesh.x, begun.x))
    assert after == pytest.approx(before)


def test_a_body_begins_only_on_its_own_corners() -> None:
    mesh = Form(Solid("egg", 90, 60), (Modifier("taper", {"amount": 0}),)).mesh
    with pytest.raises(CraftError, match="none of the shape's"):
        mesh.begun_at(10**6)
    open_mesh = Form(Solid("dome", 40, 60, open=True)).mesh
    with pytest.raises(CraftError, match="opposite its opening"):
        open_mesh.begun_at(0)


def _ellipse_section(depth: float, many: int = 48) -> tuple[float, ...]:
    """Reaches of an ellipse half as wide as 1 and half as deep as `depth`, from the front on."""
    turn = np.arange(many) * 2 * np.pi / many
    return tuple(1 / np.hypot(np.sin(turn), np.cos(turn) / depth))


def test_a_cross_section_is_what_every_round_is_cut_to() -> None:
    front = ((0, 0), (30, 10), (40, 45), (25, 80), (0, 95))
    plain, cut = Traced(front), Traced(front, section=_ellipse_section(0.6))
    width, depth, height = Form(cut).mesh.size_mm
    assert (width, height) == pytest.approx((plain.width_mm, 95), rel=0.02)
    assert depth == pytest.approx(0.6 * width, rel=0.01)
    assert not cut.is_round
    assert form_of(form_json(Form(cut))).base == cut
    assert Form(cut.scaled(2)).mesh.size_mm == pytest.approx((2 * width, 2 * depth, 2 * height), rel=1e-6)


def test_a_cross_section_looks_the_way_it_was_drawn() -> None:
    """Drawn out to the front and to the viewer's left only."""
    turn = np.arange(72) * 2 * np.pi / 72
    snout = tuple(1 + 0.5 * np.exp(-((np.minimum(turn, 2 * np.pi - turn) / 0.4) ** 2)))
    left = tuple(1 + 0.5 * np.exp(-(((turn - np.pi / 2) / 0.4) ** 2)))
    front = ((0, 0), (30, 10), (40, 45), (25, 80), (0, 95))
    x = Form(Traced(front, section=snout)).mesh.x
    assert -x[:, 1].min() == pytest.approx(1.5 * x[:, 1].max(), rel=0.02)
    x = Form(Traced(front, section=left)).mesh.x
    assert -x[:, 0].min() == pytest.approx(1.5 * x[:, 0].max(), rel=0.02)


@pytest.mark.parametrize("section", [(1.0,) * 5, (1.0,) * 400, (1.0,) * 20 + (0.0,), (1.0,) * 20 + (float("nan"),)])
def test_a_cross_section_that_is_none_is_refused(section: tuple[float, ...]) -> None:
    with pytest.raises(CraftError, match="cross-section"):
        Traced(((0, 0), (30, 10), (0, 95)), section=section)


@pytest.mark.parametrize(
    ("kind", "across"),
    [("sphere", 0), ("egg", 0), ("ellipsoid", 0), ("capsule", 0), ("cone", 60), ("cylinder", 60), ("dome", 60)],
)
def test_flat_ends_are_known(kind: str, across: float) -> None:
    solid = Solid(kind, 60, 60)
    assert solid.outline().flat_end_mm() == pytest.approx(across, abs=0.5)
