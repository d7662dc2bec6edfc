"""Placement on settled figures: eyes, centre line, seats, balance, order, places that survive edits."""

from __future__ import annotations

import math

import numpy as np
import pytest

from craft.errors import CraftError
from craft.figure.body import Placed, body_of
from craft.figure.picture import draw_faces
from craft.figure.placement import (
    EyePlace,
    Foot,
    Job,
    Seat,
    Skin,
    Surface,
    arranged,
    balance,
    centre_line,
    drift,
    extent,
    eye_faces,
    misplaced,
    necks,
    place,
    place_eyes,
    propose,
    propose_seat,
    room,
    round_and_stitch,
    share_and_angle,
    swings_when_sitting,
    washer_mm,
)
from craft.figure.settling import relief_of, round_nodes, settle, stretch_of
from craft.gauge import Gauge
from craft.rounds.fabric import KIND_KEYS, WorkedPart
from craft.rounds.stitches import STITCHES
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.2, 0.4)


def part(text: str) -> WorkedPart:
    return check(text).parts[-1]


def drafted(solid: Solid) -> WorkedPart:
    return part(print_rounds(draft(Recipe(solid), GAUGE).part))


def surface(worked: WorkedPart, gauge: Gauge = GAUGE) -> Surface:
    settled = settle(worked, gauge)
    rings = tuple(nodes for _, (nodes, _) in sorted(round_nodes(settled).items()))
    change = np.array([STITCHES[KIND_KEYS[k]].change for k in settled.graph.kind[settled.net.stitch]])
    labels = tuple(t.label for t in worked.rounds)
    return Surface(settled.x, rings, settled.triangles, change, stretch_of(settled), Foot.of(worked), labels)


@pytest.fixture(scope="module")
def head() -> Surface:
    return surface(drafted(Solid("sphere", 70, 70)))


@pytest.fixture(scope="module")
def body() -> Surface:
    return surface(drafted(Solid("egg", 90, 75)))


def test_the_front_middle_is_at_the_front(head: Surface) -> None:
    for at in range(3, head.rounds - 3):
        point = head.at_place(at, head.front_place(at))
        middle = head.x[head.rings[at]].mean(0)
        assert point[1] < middle[1]
        assert abs(point[0] - middle[0]) < 0.6


def test_places_run_to_the_viewers_left(head: Surface) -> None:
    left, out = head.spot(head.rounds // 2, math.pi / 2)
    assert left[0] < 0
    assert out[0] < -0.9
    assert head.spot(head.rounds // 2, 0.0, tilt=40)[1][2] > head.spot(head.rounds // 2, 0.0)[1][2] + 0.4
    assert head.spot(head.rounds - 1, 0.0)[1][2] > 0.8, "at the pole there is only up"


def test_eyes_are_symmetrical_about_the_front(head: Surface) -> None:
    eyes = place_eyes(head, EyePlace(8, 8, 9))
    right, left = eyes.points
    assert right[0] == pytest.approx(-left[0], abs=GAUGE.stitch_mm)
    assert right[1:] == pytest.approx(left[1:], abs=GAUGE.stitch_mm)
    assert left[0] < 0 < right[0]
    assert abs(eyes.off_centre) <= 0.5
    assert (eyes.after[1] - eyes.after[0]) % head.count_of(7) == 8, "visible between are the stitches from hole to hole"
    assert "between R8 and R9" in eyes.words
    assert "8 stitches visible between" in eyes.words
    gap = float(np.linalg.norm(right - left))
    assert gap == pytest.approx(2 * 35 * math.sin(8 / head.count_of(7) * math.pi), rel=0.1)
    assert (np.einsum("ij,ij->i", eyes.out, eyes.points - head.x.mean(0)) > 0).all()


def test_a_proposal_follows_common_practice(head: Surface) -> None:
    guess = propose(head)
    count = head.count_of(guess.round - 1)
    assert 1 / 6.5 < guess.between / count < 1 / 4.5
    assert guess.between % 2 == 0
    assert guess.eye_mm == pytest.approx(70 / 8, abs=1.5)
    assert abs(guess.round - head.rounds / 2) <= 4


def codes(surface: Surface, eyes: EyePlace, **more: object) -> set[str]:
    return {w.code for w in place_eyes(surface, eyes, stitch_mm=5.6, **more).warnings}  # type: ignore[arg-type]


def test_eyes_warn_of_what_is_in_the_way(head: Surface) -> None:
    fine = EyePlace(9, 8, 9)
    assert codes(head, fine, opening_mm=60.0) <= {"increase-line"}
    assert "washer" in codes(head, fine, opening_mm=8.0)
    assert washer_mm(9) > 9
    assert "posts-meet" in codes(head, EyePlace(9, 1, 16))
    assert codes(head, fine, opening_mm=1.0, embroidered=True) == set()
    increasing = [codes(head, EyePlace(3, n, 4)) for n in (2, 4, 6)]
    assert any("increase-line" in found for found in increasing)
    late = next(w for w in place_eyes(head, fine, opening_mm=8.0, stitch_mm=5.6).warnings if w.code == "washer")
    assert "by R" in late.message
    with pytest.raises(CraftError, match="must fit"):
        place_eyes(head, EyePlace(1, 40))


def test_drift_adds_up_and_says_what_brings_the_start_back() -> None:
    """Drift angle = Σ 2π·lean/n; back by drift·n/2π stitches (common practice)."""
    counts = [6, 12, 18, 24, *[24] * 6]
    found = drift(counts, 0.4)
    expected = -sum(360 * 0.4 / n for n in counts[1:])
    assert found[-1].degrees == pytest.approx(expected)
    assert found[-1].stitches == round(-expected / 360 * 24)
    assert found[0].degrees == 0
    assert drift(counts, 0.4, left_handed=True)[-1].degrees == pytest.approx(-expected)
    assert drift(counts, 0.4, left_handed=True, inside_out=True)[-1].degrees == pytest.approx(expected)
    assert {d.stitches for d in drift(counts, 0.0)} == {0}


def test_the_settled_start_drifts_as_reckoned(head: Surface) -> None:
    line = centre_line(head)
    reckoned = drift([len(r) for r in head.rings], 0.4)
    angles = [math.degrees(math.atan2(-x, -y)) for x, y, _ in line.starts]
    straight = [i for i in range(5, head.rounds - 5) if head.count_of(i) == head.count_of(i - 1)]
    assert len(straight) > 2
    for at in straight:
        step = (angles[at] - angles[at - 1] + 180) % 360 - 180
        assert step == pytest.approx(reckoned[at].degrees - reckoned[at - 1].degrees, abs=1.0)
    assert abs(line.front[head.rounds // 2][0]) < 1.0


def test_a_place_is_found_again_after_rounds_are_added() -> None:
    counts, heights = [6, 12, 18, 24, 24, 24, 24, 18, 12, 6], [1.0] * 10
    share, angle = share_and_angle(counts, heights, 5, 3.0)
    assert round_and_stitch(counts, heights, share, angle) == (5, pytest.approx(3.0))
    longer = [6, 12, 18, 24, 30, *[30] * 10, 24, 18, 12, 6]
    at, stitch = round_and_stitch(longer, [1.0] * len(longer), share, angle)
    assert at == round(4.5 / 10 * len(longer) + 0.5)
    assert stitch == pytest.approx(3.0 / 24 * 30)


def test_settled_parts_are_posed(head: Surface, body: Surface) -> None:
    ear = surface(drafted(Solid("dome", 14, 22, open=True)))
    parts = {"body": body, "head": head, "ear": ear}
    seats = [Seat("head", "body", 999), Seat("ear", "head", 13, 6, paired=True)]
    placed = place(parts, {"ear": 2}, seats)
    where = {p.part: p.matrix for p in placed}
    top = where["head"] @ np.append(head.x.mean(0), 1)
    assert top[2] > float(body.x[:, 2].max())
    ears = [p.matrix[:3, 3] for p in placed if p.part == "ear"]
    assert ears[0][0] == pytest.approx(-ears[1][0], abs=6)
    assert all(np.linalg.det(p.matrix[:3, :3]) == pytest.approx(1.0) for p in placed)
    assert extent(parts, placed)[2] > 140
    turned = place(parts, {}, [Seat("ear", "head", 13, 6, turn=90)])
    plain = place(parts, {}, [Seat("ear", "head", 13, 6)])
    a, b = (next(p.matrix for p in ps if p.part == "ear") for ps in (turned, plain))
    assert a[:3, 2] == pytest.approx(b[:3, 2]), "turned about the way it stands"
    assert abs(float(a[:3, 0] @ b[:3, 0])) < 1e-6


def test_what_is_laid_on_lies_flat(head: Surface) -> None:
    panel = surface(
        part("Ch 13\nRow 1: sc in 2nd ch from hook and in each ch across [12]\nRow 2: ch 1, turn, 12 sc [12]")
    )
    placed = place({"head": head, "patch": panel}, {}, [Seat("patch", "head", 10, 0, laid=True)])
    matrix = next(p.matrix for p in placed if p.part == "patch")
    points = panel.x @ matrix[:3, :3].T + matrix[:3, 3]
    out = head.spot(9, 0.0)[1]
    assert np.ptp(points @ out) < 4, "its thin side is off the surface"


def test_a_ball_tips_and_a_broad_foot_stands(head: Surface, body: Surface) -> None:
    def stand(parts: dict[str, Surface], seats: list[Seat]) -> tuple[str, float]:
        found = balance(parts, place(parts, {}, seats))
        assert found is not None
        return found.verdict, found.margin_mm

    drum = surface(drafted(Solid("cylinder", 40, 90)))
    assert stand({"drum": drum}, [])[0] == "steady"
    verdict, margin = stand({"body": body, "head": head}, [Seat("head", "body", 14, tilt=30)])
    assert verdict == "tips"
    assert margin < 0
    found = balance(
        {"body": body, "head": head}, place({"body": body, "head": head}, {}, [Seat("head", "body", 14, tilt=30)])
    )
    assert found is not None
    assert "forwards" in found.words
    assert "children under three" in found.words
    assert balance({}, []) is None
    assert balance({"drum": drum}, [Placed("ghost", np.eye(4))]) is None


def test_a_figure_that_is_set_down_leans_onto_all_its_feet(body: Surface) -> None:
    """A body on two paws in front and a tail a little higher behind rests on all three."""
    paw = surface(part("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R5: sc around [12]\nStuff."))
    tail = Placed("paw", np.array([[1.0, 0, 0, 0], [0, 1, 0, 40], [0, 0, 1, -4], [0, 0, 0, 1]]))
    feet = [Placed("paw", np.array([[1.0, 0, 0, x], [0, 1, 0, -14], [0, 0, 1, -8.5], [0, 0, 0, 1]])) for x in (-16, 16)]
    stood = balance({"body": body, "paw": paw}, [Placed("body", np.eye(4)), *feet, tail])
    assert stood is not None
    assert stood.verdict != "tips"
    assert "leaning" in stood.words or stood.verdict == "wobbly"
    assert stood.base_mm[1] > 35, "from the paws to the tail"


def test_a_thin_neck_is_told(head: Surface) -> None:
    thin = surface(part("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R9: sc around [12]\nStuff."))
    said = necks({"head": head, "body": thin}, [Seat("head", "body", 99)])
    assert "40 %" in said["head"]
    wide = surface(part("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: inc x 12 [24]\nR4-R9: sc around [24]\nStuff."))
    assert necks({"head": head, "body": wide}, [Seat("head", "body", 99)]) == {}


EYES = Job("Insert the eyes.", "head", None, inside=True)
WIRE = Job("Put wire into the arms.", "arm")
SEW_HEAD = Job("Sew the head on.", "head", "body")
SEW_ARM = Job("Sew the arms on.", "arm", "body")
NOSE = Job("Embroider a nose.")


def test_a_wrong_order_is_told_with_its_reason() -> None:
    assert misplaced([EYES, WIRE, SEW_HEAD, SEW_ARM, NOSE]) == ()
    (late,) = misplaced([SEW_HEAD, EYES])
    assert (late.step, late.before) == (1, 0)
    assert "inside" in late.why
    (wired,) = misplaced([SEW_ARM, WIRE])
    assert "wire" in wired.why


def test_steps_move_as_far_as_their_dependencies_allow() -> None:
    jobs = [EYES, WIRE, SEW_HEAD, SEW_ARM, NOSE]
    assert room(jobs, 0) == (0, 1)
    assert room(jobs, 2) == (1, 4)
    assert room(jobs, 4) == (0, 4)
    with pytest.raises(CraftError):
        room(jobs, 9)


def test_the_working_order_is_the_makers() -> None:
    jobs = [NOSE, SEW_ARM, SEW_HEAD, WIRE, EYES]
    order = arranged(jobs, ["", "Arm", "Head", "Arm", "Head"])
    assert [jobs[i] for i in order] == [WIRE, EYES, SEW_HEAD, SEW_ARM, NOSE]
    assert misplaced([jobs[i] for i in order]) == ()


def test_a_skin_draws_every_stitch_and_its_eyes() -> None:
    worked = part("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R4: sc around [12]\nStuff.\nR5: dec x 6 [6]\nClose.")
    settled = settle(worked, GAUGE)
    relief = relief_of(settled)
    skin = Skin(
        "Bud", settled.x, relief.below.astype(np.int64), relief.beside.astype(np.int64), relief.colour.astype(np.int64),
        settled.graph.colours, settled.triangles,
    )  # fmt: skip
    move = np.eye(4)
    move[0, 3] = 50.0
    faces = skin.faces(move, {"Main": "#aa7744"})
    assert len(faces.corners) == len(worked.graph) + 6 + 6, "a face a stitch, and the ring's and the closing's wedges"
    assert set(faces.fills) == {"#aa7744"}
    assert faces.corners[..., 0].mean() == pytest.approx(50.0 + settled.x[:, 0].mean(), abs=1.0)
    middles = faces.corners.mean(1) - faces.corners.mean((0, 1))
    assert (np.einsum("ij,ij->i", middles, faces.outward) > 0).mean() > 0.95
    mesh = skin.mesh(move, {"Main": "#aa7744"})
    assert mesh.rgb.tolist() == [[0xAA, 0x77, 0x44]] * settled.net.size
    eyes = eye_faces(np.array([[0.0, -9.0, 8.0]]), np.array([[0.0, -1.0, 0.0]]), 6.0, np.eye(4))
    assert np.ptp(eyes.corners[..., 0]) == pytest.approx(6.0)
    svg = draw_faces([faces, eyes], title="Bud & eye")
    assert "<title>Bud &amp; eye</title>" in svg
    assert svg.count("<path") > len(worked.graph)


EGG = [6, 12, 18, 24, 30, 36, *[36] * 8, 33, 30, 27, 24, 21, 18, 12, 6]


@pytest.mark.parametrize(
    ("name", "low", "high", "angle", "paired"),
    [
        ("Head", 22, 22, 0.0, False),
        ("Ears", 15, 19, 80.0, True),
        ("Left Arm", 13, 16, 90.0, True),
        ("Legs", 4, 6, 60.0, True),
        ("Tail", 5, 7, 180.0, False),
        ("Nose", 14, 14, 0.0, False),
        ("Button", 14, 14, 0.0, False),
    ],
)
def test_places_are_proposed_as_makers_put_them(name: str, low: int, high: int, angle: float, paired: bool) -> None:
    found = propose_seat(name, EGG)
    assert low <= found.round <= high
    assert found.stitch / EGG[found.round - 1] * 360 == pytest.approx(angle, abs=12)
    assert found.paired is paired
    assert found.why


def test_sitting_legs_lie_flat() -> None:
    standing, sitting = (propose_seat("Legs", EGG, sitting=s) for s in (False, True))
    assert standing.tilt < sitting.tilt < 0
    assert "thirds" in sitting.why


def _legs(head: Surface, leg: Surface, *, swings: bool) -> tuple[Placed, ...]:
    seat = Seat("leg", "head", 4, 3, paired=True, tilt=-60, swings=swings)
    return place({"head": head, "leg": leg}, {"head": 1, "leg": 2}, [seat])


def _ends(leg: Surface, piece: Placed) -> tuple[np.ndarray, np.ndarray]:
    """The seam and the toe of a placed leg."""
    at = [leg.x[leg.rings[i]].mean(0) @ piece.matrix[:3, :3].T + piece.matrix[:3, 3] for i in (-1, 0)]
    return at[0], at[1]


def test_legs_of_a_sitting_figure_swing_forward_about_their_seams(head: Surface) -> None:
    leg = surface(part("R1: 6 sc in ring [6]\nR2: (2 sc, inc) x 2 [8]\nR3-R12: 8 sc [8]\nStuff."))
    standing, sitting = (_legs(head, leg, swings=s) for s in (False, True))
    assert np.allclose(standing[0].matrix, sitting[0].matrix), "the body stays"
    for before, after in zip(standing[1:], sitting[1:], strict=True):
        seam, toe = _ends(leg, after)
        assert np.linalg.norm(seam - _ends(leg, before)[0]) < GAUGE.stitch_mm, "turned about the seam"
        along = (toe - seam) / np.linalg.norm(toe - seam)
        assert along[1] < -0.9, "forward"
        assert abs(along[2]) < 0.1, "level"
        assert along[0] * seam[0] > 0, "apart"
        assert np.linalg.det(after.matrix[:3, :3]) == pytest.approx(1)
        assert np.allclose(after.matrix[:3, :3] @ after.matrix[:3, :3].T, np.eye(3))
    pieces = {"head": head, "leg": leg}
    (_, deep, tall), (_, seated_deep, seated_tall) = extent(pieces, standing), extent(pieces, sitting)
    assert seated_deep > deep + 20
    assert seated_tall < tall - 10
    again = place(pieces, {"head": 1, "leg": 2}, [Seat("leg", "head", 4, 3, paired=True, tilt=0, swings=True)])
    assert abs(_ends(leg, again[1])[1][2] - _ends(leg, again[1])[0][2]) < 4


@pytest.mark.parametrize(
    ("name", "seat", "height", "swings"),
    [
        ("Legs", "", 0.1, True),
        ("Hind foot", "pinched", 0.2, True),
        ("Legs", "open", 0.1, False),
        ("Arms", "pinched", 0.1, False),
        ("Paw", "", 0.6, False),
    ],
)
def test_only_legs_low_down_on_a_seam_that_bends_swing(name: str, seat: str, height: float, swings: bool) -> None:
    assert swings_when_sitting(name, seat, height) is swings


def test_a_body_open_at_the_neck_stands_on_its_first_round_when_a_head_sits_on_it() -> None:
    body = part("R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4-R9: sc around [18]\nR10: (sc, dec) x 6 [12]")
    head = part("R1: 6 sc in ring\nR2: inc x 6\nR3: (sc, inc) x 6\nR4-R6: sc around\nR7: (sc, dec) x 6 [12]")
    bodies = {"body": body_of(body, GAUGE), "head": body_of(head, GAUGE)}
    alone = place(bodies, {"body": 1, "head": 1}, ())
    assert [p.matrix[2, 2] for p in alone] == [-1, -1], "alone, each stands on its opening"
    placed = {p.part: p.matrix for p in place(bodies, {"body": 1, "head": 1}, (Seat("head", "body", 10),))}
    assert placed["body"][2, 2] == 1
    tops = {key: (bodies[key].points() @ m[:3, :3].T + m[:3, 3])[:, 2].max() for key, m in placed.items()}
    assert tops["head"] > tops["body"], "the head is on top"
