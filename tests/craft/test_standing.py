"""How pieces stand: panels on their edges, the mirrored one of a flat pair, necks of split bodies, cones of few stitches."""

from __future__ import annotations

import numpy as np
import pytest

from craft.figure.placement import Foot, Seat, Surface, place
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.text.check import check

GAUGE = Gauge(5.6, 5.15, 0.0)
BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R12: sc around [24]
R13: (2 sc, dec) x 6 [18]
Stuff firmly.
R14: (sc, dec) x 6 [12]
R15: dec x 6 [6]
Close.
"""
# Slanted on one side only, so that its mirror image is another piece unless it is turned over.
WING = "Ch 11\nRow 1: sc in 2nd ch from hook and in each ch across [10]\n" + "".join(
    f"Row {n}: ch 1, turn, {'dec, ' + str(10 - n) + ' sc' if n % 2 else str(10 - n) + ' sc, dec'} [{11 - n}]\n"
    for n in range(2, 9)
)
SNAIL = """Ch 14
R1: sc in 2nd ch from hook, 11 sc, 3 sc in last ch, along the other side 11 sc, 2 sc in last ch [28]
R2: inc, 11 sc, 3 inc, 11 sc, 2 inc [34]
R3-R6: sc around [34]
R7: 11 sc, 6 dec, 11 sc, shift 6 [28]
R8: skip 16, 12 sc, join [12]
R9-R14: sc around [12]
R15: dec x 6 [6]
Fasten off and close the hole.
## Back
Rejoin at the held stitches.
R8: sc around [16]
Stuff through the opening.
R9: dec x 8 [8]
Fasten off and close the hole.
"""


def part(text: str) -> WorkedPart:
    found = check(text)
    assert found.sound, [p.message for p in found.problems]
    return found.parts[-1]


def surface(text: str) -> Surface:
    return Surface.of(settle(part(text), GAUGE))


@pytest.fixture(scope="module")
def ball() -> Surface:
    return surface(BALL)


@pytest.fixture(scope="module")
def wing() -> Surface:
    return surface(WING)


@pytest.mark.parametrize("on_start", [True, False])
def test_a_panel_stands_on_its_edge(wing: Surface, on_start: bool) -> None:
    matrix = wing.own_frame(on_start=on_start)
    assert np.linalg.det(matrix[:3, :3]) == pytest.approx(1)
    edge = wing.x[wing.rings[0 if on_start else -1]] @ matrix[:3, :3].T + matrix[:3, 3]
    every = wing.x @ matrix[:3, :3].T + matrix[:3, 3]
    assert edge.mean(0) == pytest.approx([0, 0, 0], abs=0.5)
    assert np.ptp(edge[:, 0]) > 4 * np.ptp(edge[:, 2]), "the edge runs along x"
    assert every[:, 2].mean() > 0.3 * np.ptp(every[:, 2]), "the fabric stands up from it"


def test_the_other_wing_is_the_mirror_image(ball: Surface, wing: Surface) -> None:
    seat = Seat("wing", "ball", 8, 6.0, paired=True, on_start=True)
    _, first, second = place({"ball": ball, "wing": wing}, {}, (seat,))
    left = wing.x @ first.matrix[:3, :3].T + first.matrix[:3, 3]
    right = wing.x @ second.matrix[:3, :3].T + second.matrix[:3, 3]
    assert np.linalg.det(second.matrix[:3, :3]) == pytest.approx(1), "the same piece turned over, not another one"
    mirrored = left * [-1, 1, 1]
    away = np.linalg.norm(mirrored - right, axis=1)
    assert away.mean() < 0.8 * GAUGE.stitch_mm


def test_a_round_pair_is_not_turned_over(ball: Surface) -> None:
    arm = surface("R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R8: sc around [9]\nStuff.\n")
    seat = Seat("arm", "ball", 8, 6.0, paired=True, turn=30)
    _, first, second = place({"ball": ball, "arm": arm}, {}, (seat,))
    mirror = np.diag([-1.0, 1.0, 1.0])
    own = arm.own_frame()[:3, :3]
    assert mirror @ (first.matrix[:3, :3] @ own.T) @ mirror == pytest.approx(second.matrix[:3, :3] @ own.T, abs=0.1)


def test_the_neck_of_a_split_body_has_a_front_and_sides() -> None:
    snail = surface(SNAIL)
    at = next(k for k, label in enumerate(snail.labels) if label == "R12")
    front, side = snail.spot(at, 0.0), snail.spot(at, np.pi / 2)
    assert np.linalg.norm(front[0] - side[0]) > 2 * GAUGE.stitch_mm
    assert front[1] @ side[1] < 0.5


def test_a_body_on_an_oval_looks_to_the_side_where_its_neck_is() -> None:
    disc = "R3: sc around [34]\nLay a felt disc on the base.\nR4-R6: sc around [34]\n"
    settled = settle(part(SNAIL.replace("R3-R6: sc around [34]\n", disc)), GAUGE)
    labels = [t.label for t in settled.part.rounds]
    neck = settled.part.rounds[labels.index("R12")]
    nodes = np.flatnonzero(np.isin(settled.net.stitch, np.arange(neck.first, neck.end)))
    where = settled.x[nodes].mean(0)
    middle = settled.x.mean(0)
    assert where[1] < middle[1] - GAUGE.stitch_mm, "to the front"
    assert abs(where[0] - middle[0]) < 0.5 * abs(where[1] - middle[1]), "not to a side"


@pytest.mark.parametrize("filling", ["Stuff.", "Do not stuff."])
def test_few_stitches_stand_as_a_cone_around_their_ring(filling: str) -> None:
    settled = settle(part(f"R1: 4 sc in ring [4]\nR2-R4: sc around [4]\nFasten off. {filling}\n"), GAUGE)
    tip, first = settled.x[len(settled.net.stitch)], settled.x[settled.net.edges[0].nodes]
    assert first[:, 2].mean() - tip[2] > 0.4 * GAUGE.round_mm


def test_what_a_piece_is_joined_by() -> None:
    assert Foot.of(part(BALL)) is Foot.START
    assert Foot.of(part(WING)) is Foot.EDGE
    assert Foot.of(part("R1: 6 sc in ring [6]\nR2-R9: sc around [6]\n")) is Foot.OPENING
    tube = "R1: 6 sc in ring [6]\nR2-R20: sc around [6]\nStuff.\nCoil it and sew it to itself.\n"
    assert Foot.of(part(tube)) is Foot.RIM
    coil = surface(tube)
    assert coil.closed
    assert np.allclose(coil.own_frame()[:3, :3], np.eye(3))
