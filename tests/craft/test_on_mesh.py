"""Drafting on meshes: where rounds lie, where stitches come in, and what it settles to."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from hypothesis import HealthCheck, given, reject, settings
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.figure.settling import fit, settle
from craft.gauge import Gauge
from craft.rounds.pattern import Repeat, Work
from craft.shape.drafting import BranchedError, Recipe, draft
from craft.shape.drafting.around import Growth, _Edge, _fitted, growth, laid_rounds, said
from craft.shape.drafting.loops import Cutter, Field, evenly, field_of
from craft.shape.drafting.on_mesh import course_of
from craft.shape.drafting.rings import rings_of
from craft.shape.drafting.spread import Shaping
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import MODIFIERS, Form, Modifier, Solid, TriangleMesh, cut, revolved
from craft.text.check import check
from craft.text.notation import print_rounds
from tests.craft.bodies import Y_RODS, rods

GAUGE = Gauge(5.6, 5.15, 0.4)
UPRIGHT = Gauge(5.6, 5.15, 0.0)


def form(kind: str, height: float, width: float, **modifiers: dict[str, float]) -> Form:
    return Form(Solid(kind, height, width), tuple(Modifier(k, v) for k, v in modifiers.items()))


def increases(text: str) -> int:
    return sum(t.made - t.taken for t in check(text).parts[0].rounds if t.taken and t.made > t.taken)


def test_loops_of_a_ball_are_circles_that_run_to_the_viewers_left() -> None:
    mesh = revolved(Solid("sphere", 80, 80).outline(), closed=True)
    (line,) = Cutter(field_of(mesh)).loops(40.0)
    radius = np.hypot(line[:, 0], line[:, 1])
    assert radius == pytest.approx(40 * np.sin(1.0), rel=0.01)
    front = evenly(line, 0.0).points
    ahead = int(np.argmin(front[:, 1]))
    assert front[(ahead + 5) % len(front)][0] < front[ahead][0]


def test_a_round_form_is_drafted_on_its_mesh_as_by_its_formula() -> None:
    plain = rings_of(Solid("egg", 90, 70), GAUGE, 6)
    course = course_of(form("egg", 90, 70, taper={"amount": 0}), GAUGE, 6)
    assert course.rings.stitches == pytest.approx(plain.stitches, abs=0.35)
    assert course.mirrored


def test_even_growth_is_even_and_uneven_growth_is_seen() -> None:
    turn = np.arange(256) / 256 * 2 * np.pi
    small = evenly(np.column_stack([-20 * np.sin(turn), -20 * np.cos(turn), 0 * turn]))
    large = evenly(np.column_stack([-24 * np.sin(turn), -24 * np.cos(turn), 0 * turn]))
    assert growth(small, large, mirrored=True).share == pytest.approx(np.linspace(0, 1, 257), abs=0.002)
    wide = evenly(np.column_stack([-34 * np.sin(turn), -20 * np.cos(turn), 0 * turn]))
    share = growth(small, wide, mirrored=True).share
    assert share[64] == pytest.approx(0.25, abs=0.02)
    assert share == pytest.approx(1 - share[::-1], abs=1e-9)


def off(made_for: Form, drafted: Form | Solid, gauge: Gauge = GAUGE) -> float:
    """Distance in stitch widths of what one shape's rounds settle to from another shape."""
    made = draft(Recipe(drafted, simplicity=0.0), gauge)
    return fit(settle(check(print_rounds(made.part)).parts[0], gauge), made_for.mesh).error.rms_w


def test_a_belly_is_in_front_whatever_the_lean() -> None:
    bellied = form("capsule", 110, 60, belly={"amount": 22, "at": 45})
    plain = Solid("capsule", 110, 60)
    for gauge in (GAUGE, UPRIGHT):
        assert off(bellied, bellied, gauge) < 0.6 * off(bellied, plain, gauge)
    upright, leaned = (print_rounds(draft(Recipe(bellied, simplicity=0.5), g).part) for g in (UPRIGHT, GAUGE))
    assert upright != leaned, "positions follow the lean"


def bumped(side: float) -> Form:
    """An egg with a bump to one side."""
    egg = revolved(Solid("egg", 100, 80).outline(), closed=True)
    near = np.exp(-(np.linalg.norm(egg.x - np.array([side * 40, 0, 50]), axis=1) ** 2) / 600)
    return Form(egg.with_corners(egg.x + near[:, None] * np.array([side * 18, 0, 0])))


def test_what_is_on_one_side_stays_on_that_side() -> None:
    """A bump at the viewer's left is none at the right: the working direction is kept."""
    left, right = bumped(-1), bumped(1)
    assert off(left, left) < 0.8 * off(left, right)
    assert off(right, right) < 0.8 * off(right, left)


def test_like_sides_give_rounds_that_read_the_same_both_ways() -> None:
    made = draft(Recipe(form("egg", 100, 80, flatten={"depth": 60}), simplicity=0.5), UPRIGHT)
    marked = [
        t for t in check(print_rounds(made.part)).parts[0].rounds if t.marks and t.made % 2 == 0 and t.taken % 2 == 0
    ]
    assert len(marked) > 5
    mirrored = 0
    for tally in marked:
        places = np.array([(at + 0.5) / tally.made for at, _ in tally.marks])
        mirrored += bool(np.allclose(np.sort(places), np.sort(1 - places), atol=2.5 / tally.made))
    assert mirrored >= len(marked) - 1


@pytest.mark.parametrize(
    ("shape", "most"),
    [
        (form("capsule", 120, 50, bend={"degrees": 80}), 0.4),
        (form("capsule", 130, 55, bend={"degrees": 45}), 0.4),
        (form("egg", 110, 80, belly={"amount": 14}), 0.4),
        (form("egg", 90, 70, taper={"amount": 30}), 0.3),
        (form("egg", 100, 75, brow={"amount": 6}), 0.4),
    ],
)
@pytest.mark.parametrize("simplicity", [0.0, 0.85])
def test_bent_and_bellied_drafts_settle_to_their_targets(shape: Form, most: float, simplicity: float) -> None:
    made = draft(Recipe(shape, simplicity=simplicity), GAUGE)
    read = check(print_rounds(made.part))
    assert read.sound
    found = fit(settle(read.parts[0], GAUGE), shape.mesh).error
    assert found.rms_w < most
    assert found.volume_ratio == pytest.approx(1, abs=0.1)


def test_a_bend_is_a_bend_and_not_a_straight_piece() -> None:
    """The same piece without its shaping misses by far more: the check can fail."""
    bent = form("capsule", 150, 45, bend={"degrees": 140})
    assert off(bent, bent) < 0.6 * off(bent, Solid("capsule", 150, 45))


def test_a_shape_that_divides_says_where() -> None:
    x, faces = rods(Y_RODS)
    mesh = TriangleMesh(x, faces, int(np.argmin(x[:, 2])))
    with pytest.raises(BranchedError, match="divides into 2 at") as caught:
        draft(Recipe(Form(mesh)), GAUGE)
    (branch, *_) = caught.value.branches
    assert branch.middles[0][0] * branch.middles[1][0] < 0, "one to either side"
    assert all(-10 < middle[2] < 30 for middle in branch.middles)
    assert min(branch.lengths_mm) == pytest.approx(2 * np.pi * 11, rel=0.3)


def test_too_small_and_too_large_shapes_are_refused_in_words() -> None:
    with pytest.raises(CraftError, match="larger"):
        draft(Recipe(form("egg", 10, 6, taper={})), GAUGE)
    with pytest.raises(CraftError, match="smaller"):
        draft(Recipe(form("egg", 900, 700, taper={})), Gauge(1.0, 1.0))


def test_open_shapes_end_at_their_opening() -> None:
    shape = Form(Solid("capsule", 90, 50, open=True), (Modifier("bend", {"degrees": 30}),))
    made = draft(Recipe(shape), GAUGE)
    assert shape.mesh.open
    assert made.counts[-1] > 20
    assert "Close" not in print_rounds(made.part)
    assert check(print_rounds(made.part)).sound


@pytest.mark.parametrize("simplicity", [0.0, 0.85])
def test_pieces_of_a_cut_have_openings_of_equal_counts(simplicity: float) -> None:
    whole = form("egg", 110, 80, belly={"amount": 12, "at": 40}).mesh
    low, high = (draft(Recipe(Form(piece.mesh), simplicity=simplicity), GAUGE) for piece in cut(whole, 68.0))
    assert low.counts[-1] == high.counts[-1]
    assert low.counts[-1] % 2 == 0
    assert sum(low.counts) > sum(high.counts)


def test_rounds_run_along_an_opening_that_lies_aslant() -> None:
    tail = Form(Solid("capsule", 110, 40, open=True), (Modifier("bend", {"degrees": 75}),))
    made = draft(Recipe(tail, simplicity=0.3), GAUGE)
    assert 0.02 < made.uneven < 0.35, "some rounds are taller on the outside of the bend"
    found = fit(settle(check(print_rounds(made.part)).parts[0], GAUGE), tail.mesh)
    assert found.error.rms_w < 0.6
    assert len(made.counts) == pytest.approx(100 / GAUGE.round_mm, abs=2.5)


def test_fitting_keeps_counts_and_sees_where_stitches_belong() -> None:
    bunched = np.array([0, 1, 2, 4, 6, 8, 9, 10, 11.0])
    ops = _fitted(8, 11, bunched)
    assert ops is not None
    assert ops == [0, 0, 1, 1, 1, 0, 0, 0]
    assert _fitted(4, 9, np.linspace(0, 9, 5)) is None


def test_small_differences_of_many_rounds_add_up() -> None:
    """A hundredth of the round a time: no single round needs a stitch, ten of them do."""
    place = np.linspace(0, 1, 257)
    grown = Growth(place + 0.006 * np.sin(2 * np.pi * place))
    rounds = laid_rounds([30] * 16, [grown] * 15, Shaping(), 0.0, mirrored=False).bodies
    shaped = [body for body in rounds if body != (Repeat((Work("sc"),), None),)]
    assert 0 < len(shaped) < 15
    assert all(isinstance(i, Work) for body in shaped for i in body)
    edge = _Edge(np.linspace(0, 1, 31), 0.0)
    assert edge.count == 30


@pytest.mark.parametrize(
    ("ops", "words"),
    [
        ([0] * 6, (Repeat((Work("sc"),), None),)),
        ([0, 0, 1] * 4, (Repeat((Work("sc", 2), Work("inc")), 4),)),
        ([1, 1, 0, 0, 0, 1, 1, 0, 0, 0], (Repeat((Work("inc", 2), Work("sc", 3)), 2),)),
        ([0, 2, 0, 0, 1], (Work("sc"), Work("dec"), Work("sc", 2), Work("inc"))),
        ([0, 1, 0, 0, 1, 0], (Repeat((Work("sc"), Work("inc"), Work("sc")), 2),)),
    ],
)
def test_rounds_are_said_in_the_fewest_words(ops: list[int], words: tuple[object, ...]) -> None:
    assert said(ops, Shaping()) == words


def test_a_field_that_is_bent_says_how_uneven_it_is() -> None:
    mesh = form("egg", 100, 80, flatten={"depth": 50}).mesh
    even, blended = field_of(mesh), field_of(mesh, even=False)
    assert isinstance(even, Field)
    assert even.uneven == 0
    assert 0 < blended.uneven < 0.4


SHAPES = st.builds(
    lambda kind, high, wide, kinds: Form(Solid(kind, high, wide), tuple(Modifier(k, {}) for k in kinds)),
    st.sampled_from(["egg", "ellipsoid", "capsule", "drop"]),
    st.floats(45, 140),
    st.floats(35, 100),
    st.lists(st.sampled_from(sorted(MODIFIERS)), min_size=1, max_size=3, unique=True),
)


@settings(deadline=None, max_examples=25, suppress_health_check=[HealthCheck.too_slow])
@given(SHAPES, st.sampled_from([0.0, 0.5, 0.85]), st.sampled_from([6, 8]))
def test_whatever_is_drafted_adds_up_and_is_the_same_twice(shape: Form, simplicity: float, start: int) -> None:
    try:
        made = draft(Recipe(shape, start, simplicity), GAUGE)
    except CraftError:  # too small for its start, or narrower than rounds can follow: said in words
        reject()
    read = check(print_rounds(made.part))
    assert read.sound, [p.message for p in read.problems]
    assert [t.live for t in read.parts[0].rounds] == list(made.counts)
    assert all(a <= 2 * b and b <= 2 * a for a, b in itertools.pairwise(made.counts))
    assert print_rounds(draft(rounds_of(made_of(shape, start, simplicity)), GAUGE).part) == print_rounds(made.part)


def made_of(shape: Form, start: int, simplicity: float) -> dict[str, object]:
    return rounds_json(Recipe(shape, start, simplicity))
