"""Parts in space: frame, seats, picture."""

from __future__ import annotations

import xml.etree.ElementTree as ET
from dataclasses import replace

import numpy as np
import pytest
from scipy.spatial.transform import Rotation

from craft.errors import CraftError
from craft.figure.body import Body, Placed, body_of, column_of
from craft.figure.picture import View, draw
from craft.figure.placement import Seat, extent, place
from craft.figure.settling import measure, settle
from craft.gauge import Gauge
from craft.rounds.stitches import Terms
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_rounds
from craft.text.reshaping import Divide, reshape

GAUGE = Gauge(5.6, 5.15, lean=0.0)


def body(solid: Solid, start: int = 6, gauge: Gauge = GAUGE) -> Body:
    return body_of(check(print_rounds(draft(Recipe(solid, start), gauge).part)).parts[0], gauge)


@pytest.fixture(scope="module")
def parts() -> dict[str, Body]:
    return {
        "body": body(Solid("egg", 90, 75)),
        "head": body(Solid("sphere", 60, 60)),
        "nose": body(Solid("cone", 22, 20, open=True), 3),
        "ear": body(Solid("dome", 14, 22, open=True)),
    }


def test_lean_turns_the_starts_to_the_right() -> None:
    straight, leaning = (body(Solid("sphere", 60, 60), gauge=Gauge(5.6, 5.15, lean)) for lean in (0.0, 0.4))
    assert {r.turn for r in straight.rings} == {0.0}
    turns = [r.turn for r in leaning.rings]
    assert turns == sorted(turns, reverse=True)
    expected = -sum(2 * np.pi * 0.4 / r.count for r in leaning.rings[:-1])
    assert turns[-1] == pytest.approx(expected)


def test_seats_put_parts_where_they_say(parts: dict[str, Body]) -> None:
    seats = [
        Seat("head", "body", 999),
        Seat("nose", "head", len(parts["head"].rings) // 2),
        Seat("ear", "head", 12, 8, paired=True),
    ]
    placed = place(parts, {"ear": 2}, seats)
    where = {p.part: p.matrix[:3, 3] for p in placed}
    assert [p.part for p in placed].count("ear") == 2
    assert where["head"][2] > 0.8 * parts["body"].top
    nose = next(p.matrix for p in placed if p.part == "nose")
    tip = nose @ np.array([0, 0, 0, 1])
    assert tip[1] < -30, "a nose in the middle of the front points to the viewer"
    assert abs(tip[0]) < 1
    left, right = (p.matrix[:3, 3] for p in placed if p.part == "ear")
    assert left[0] == pytest.approx(-right[0], abs=1e-6)
    assert left[1:] == pytest.approx(right[1:], abs=1e-6)
    assert left[0] < 0, "stitches count to the viewer's left, the way a right-handed maker works"
    for p in placed:
        assert np.linalg.det(p.matrix[:3, :3]) == pytest.approx(1.0), "pieces are turned, never mirrored"
    assert extent(parts, placed)[2] > 110


def test_nonsense_seats_are_left_out(parts: dict[str, Body]) -> None:
    placed = place(
        parts, {}, [Seat("head", "ghost", 3), Seat("body", "body", 3), Seat("nose", "ear", 2), Seat("ear", "nose", 2)]
    )
    assert sorted(p.part for p in placed) == sorted(parts)
    for bad in ({"round": 0}, {"round": 3, "tilt": 200}, {"round": 3, "stitch": 1e9}):
        with pytest.raises(CraftError):
            Seat("a", "b", **bad)


def test_unseated_pieces_lie_side_by_side(parts: dict[str, Body]) -> None:
    placed = place(parts, {"ear": 3}, [])
    ears = sorted(p.matrix[0, 3] for p in placed if p.part == "ear")
    assert len(ears) == 3
    assert min(np.diff(ears)) > parts["ear"].profile.width_mm


def test_the_picture_is_svg_and_says_what_it_is(parts: dict[str, Body]) -> None:
    svg = draw(parts, place(parts, {}, []), {"Main": "#aa7744"}, title="Moth & <friend>")
    root = ET.fromstring(svg)
    assert root.find("{http://www.w3.org/2000/svg}title").text == "Moth & <friend>"  # type: ignore[union-attr]
    faces = svg.count("<path")
    assert 400 < faces < 4_000
    back = draw(parts, place(parts, {}, []), {}, title="x", view=View(around=156))
    assert back != svg
    assert "path" not in draw({}, (), {}, title="nothing yet")


BODY = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6: (4 sc, inc) x 6 [36]
R7-R12: sc around [36]
Stuff.
"""


def test_legs_stand_side_by_side_in_the_estimate_too() -> None:
    """The height of a body with two legs is the body's and one leg's; the settled figure is the judge."""
    part = check(reshape(BODY, Terms.US, Divide(12, 8))).parts[0]
    laid = body_of(part, GAUGE)
    tall = measure(settle(part, GAUGE)).height_mm
    assert laid.height_mm == pytest.approx(tall, rel=0.12)
    assert len(column_of(part)) == len(part.trunk) + sum(t.section == "First leg" for t in part.rounds)
    assert laid.volume_ml > laid.profile.volume_ml


def test_a_skirt_adds_nothing_to_the_height() -> None:
    skirt = "## Skirt\nIn the free front loops of R8, (5 sc, inc) x 6 [42]\nR2-R5: sc around [42]\n"
    part = check(
        BODY.replace(
            "R7-R12: sc around [36]", "R7-R8: sc around [36]\nR9: BLO: sc around [36]\nR10-R12: sc around [36]"
        )
        + skirt
    ).parts[0]
    assert [t.label for t in column_of(part)] == [t.label for t in part.trunk]


@pytest.mark.parametrize("closed", [True, False])
def test_a_piece_turns_about_its_seam_and_tilts_with_it(parts: dict[str, Body], closed: bool) -> None:
    """What a hand that turns a placed piece shows at once is where it comes to sit."""
    bodies = {"head": parts["head"], "own": parts["head"] if closed else parts["ear"]}

    def placed(seat: Seat) -> Placed:
        return next(p for p in place(bodies, {"head": 1, "own": 1}, [seat]) if p.part == "own")

    seat = Seat("own", "head", 7, 4.0, tilt=10)
    before = placed(seat)
    assert before.seam is not None
    point, out = before.in_scene(before.seam[0][None])[0], before.matrix[:3, :3] @ before.seam[1]
    turned = placed(replace(seat, turn=40))
    about = Rotation.from_rotvec(np.radians(40) * out).as_matrix()
    shown = (before.in_scene(bodies["own"].points()) - point) @ about.T + point
    assert np.allclose(turned.in_scene(bodies["own"].points()), shown, atol=1e-6)
    tilted = placed(replace(seat, tilt=35))
    assert tilted.seam is not None
    assert np.allclose(tilted.in_scene(tilted.seam[0][None])[0], point, atol=1e-9)
    level = np.cross(out, [0.0, 0.0, 1.0])
    up = Rotation.from_rotvec(np.radians(25) * level / np.linalg.norm(level)).apply(out)
    assert np.allclose(tilted.matrix[:3, :3] @ tilted.seam[1], up, atol=1e-9)
