"""Settling: surfaces are whole, symmetry is kept, every construction comes to rest, files are readable."""

from __future__ import annotations

import json
import struct

import numpy as np
import pytest

from craft.errors import CraftError
from craft.figure.settling import (
    MESH_FORMATS,
    Mesh,
    Settled,
    measure,
    mesh_file,
    node_colours,
    relief_of,
    round_nodes,
    settle,
    shape_error,
    shows_filling_above,
    stretch_of,
)
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.notation import print_rounds

GAUGE = Gauge(5.6, 5.2, 0.4)
UPRIGHT = Gauge(5.6, 5.2, 0.0)

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R8: sc around [24]
R9: (2 sc, dec) x 6 [18]
Stuff firmly.
R10: (sc, dec) x 6 [12]
R11: dec x 6 [6]
Close."""

DISC = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]"

LIMBED = """Arms (make 2)
R1: 6 sc in ring [6]
R2: (2 sc, inc) x 2 [8]
R3-R6: 8 sc [8]
Stuff.
Fold flat and work 4 sc through both layers [4]

Body
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: 4 sc, 4 sc through the first arm and body, 8 sc, 4 sc through the second arm and body, 4 sc [24]
R6-R7: 24 sc [24]
Stuff.
R8: (2 sc, dec) x 6 [18]
R9: (sc, dec) x 6 [12]
R10: dec x 6 [6]
Close."""

SKIRTED = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: BLO: 18 sc [18]
R5-R6: 18 sc [18]
Stuff.
R7: (sc, dec) x 6 [12]
R8: dec x 6 [6]
Close.
## Skirt
R1: rejoin in the free front loops of R3, (2 sc, inc) x 6 [24]
R2: 24 sc [24]"""

EVERY_CONSTRUCTION = {
    "ball": BALL,
    "limbs worked in": LIMBED,
    "skirt": SKIRTED,
    "oval": "Ch 8\nR1: sc in 2nd ch from hook, 5 sc, 3 sc in last ch, along the other side 5 sc, 2 sc in last ch [16]\n"
    "R2: inc, 5 sc, 3 inc, 5 sc, 2 inc [22]\nR3-R5: sc around [22]",
    "panel": "Ch 9\n"
    "Row 1: sc in 2nd ch from hook and in each ch across [8]\nRow 2: ch 1, turn, 8 sc [8]\nRow 3: ch 1, turn, 8 sc [8]",
    "tube": "Ch 12, join\nR1: 12 sc [12]\nR2-R6: 12 sc [12]",
    "split": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: 24 sc [24]\n"
    "R6: 12 sc, skip 12, join [12]\nR7-R9: 12 sc [12]\nFasten off.\nSecond leg\nRejoin at the held stitches.\nR7-R9: 12 sc [12]",
    "short rows": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 12 sc [12]\nR4: 7 sc, turn, leave the rest [12]\n"
    "R5: ch 1, 5 sc, turn [12]\nR6-R8: 12 sc [12]",
    "half ring": "Row 1: 5 sc in half a ring\nRow 2: ch 1, turn, inc x 5 [10]\nRow 3: ch 1, turn, 10 sc [10]",
    "long and thin": "R1: 5 sc in ring [5]\nR2-R60: 5 sc [5]",
    "ruffle": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: inc x 12 [24]\nR4: inc x 24 [48]",
}  # fmt: skip


def part(text: str, which: int = -1) -> WorkedPart:
    return check(text).parts[which]


def drafted(kind: str, height: float, width: float, gauge: Gauge = GAUGE) -> tuple[Solid, WorkedPart]:
    solid = Solid(kind, height, width)
    return solid, part(print_rounds(draft(Recipe(solid, simplicity=0.0), gauge).part))


@pytest.fixture(scope="module")
def ball() -> Settled:
    return settle(part(BALL), GAUGE, frames=5)


def edge_counts(settled: Settled) -> np.ndarray:
    t = settled.triangles
    sides = np.sort(np.concatenate([t[:, [0, 1]], t[:, [1, 2]], t[:, [2, 0]]]), axis=1)
    return np.unique(sides, axis=0, return_counts=True)[1]


def test_a_closed_ball_is_a_whole_surface(ball: Settled) -> None:
    """Every side between exactly two triangles, and V - E + F = 2 (Euler)."""
    counts = edge_counts(ball)
    assert (counts == 2).all()
    assert ball.net.size - len(counts) + len(ball.triangles) == 2


def test_triangles_face_outward(ball: Settled) -> None:
    a, b, c = (ball.x[ball.triangles[:, k]] for k in range(3))
    out = (a + b + c) / 3 - ball.x.mean(0)
    assert (np.einsum("ij,ij->i", np.cross(b - a, c - a), out) > 0).mean() > 0.97


@pytest.mark.parametrize("name", EVERY_CONSTRUCTION)
def test_every_construction_comes_to_rest(name: str) -> None:
    settled = settle(part(EVERY_CONSTRUCTION[name]), GAUGE)
    assert settled.converged
    assert np.isfinite(settled.x).all()
    d = settled.x[settled.net.along[:, 1]] - settled.x[settled.net.along[:, 0]]
    along = np.linalg.norm(d, axis=1) / GAUGE.stitch_mm
    assert 0.6 < np.median(along) < 1.25
    assert along.max() < 3.0


def test_every_figure_stands_in_its_own_frame(ball: Settled) -> None:
    foot = ball.x[len(ball.net.stitch)]
    assert foot == pytest.approx([0, 0, 0], abs=1e-6)
    heights = [ball.x[nodes, 2].mean() for nodes, _ in round_nodes(ball).values()]
    assert heights == sorted(heights)
    first = ball.x[0]
    assert first[1] < 0
    assert abs(first[0]) < 0.3 * GAUGE.stitch_mm


def test_the_working_direction_runs_to_the_viewers_left(ball: Settled) -> None:
    """A right-hander's rounds, outside to the viewer: the stitch after the front one lies further left."""
    for nodes, _ in list(round_nodes(ball).values())[3:7]:
        x = ball.x[nodes]
        front = int(np.argmin(x[:, 1]))
        assert x[(front + 1) % len(x), 0] < x[front, 0]


def turned(points: np.ndarray, angle: float) -> np.ndarray:
    c, s = np.cos(angle), np.sin(angle)
    return points @ np.array([[c, s, 0], [-s, c, 0], [0, 0, 1]])


def farthest_pair(a: np.ndarray, b: np.ndarray) -> float:
    return float(np.linalg.norm(a[:, None] - b[None], axis=2).min(1).max())


def test_six_equal_sectors_stay_equal(ball: Settled) -> None:
    middle = ball.x[:, :2].mean(0)
    x = ball.x - [*middle, 0.0]
    assert farthest_pair(turned(x, np.pi / 3), x) < 1e-4 * GAUGE.stitch_mm


def test_a_mirrored_head_stays_mirrored() -> None:
    """Two-sided shaping, bunched left and right; no lean, so both sides are worked alike."""
    text = (
        "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (3 inc, 3 sc) x 2 [18]\nR4: (6 sc, 3 inc) x 2 [24]\n"
        "R5-R8: sc around [24]\nStuff.\nR9: (dec x 3, 6 sc) x 2 [18]\nR10: (sc, dec) x 6 [12]\nR11: dec x 6 [6]\nClose."
    )
    settled = settle(part(text), UPRIGHT)
    x = settled.x - [*settled.x[:, :2].mean(0), 0.0]
    assert farthest_pair(turned(x, np.pi), x) < 1e-4 * GAUGE.stitch_mm
    assert np.ptp(x[:, 0]) != pytest.approx(np.ptp(x[:, 1]), rel=0.02), "bunched increases make it wider one way"


def test_the_same_part_settles_to_the_same_figure(ball: Settled) -> None:
    again = settle(part(BALL), GAUGE)
    assert np.abs(again.x - ball.x).max() < 1e-4 * GAUGE.stitch_mm


def test_firmer_is_wider() -> None:
    widths = [measure(settle(part(BALL), GAUGE, firmness=f)).width_mm for f in (0.0, 0.5, 1.0)]
    assert widths == sorted(widths)
    assert widths[2] > widths[0] * 1.02


def test_filling_follows_what_the_pattern_says() -> None:
    assert part(BALL).stuffed
    assert not part("R1: 6 sc in ring [6]\nR2: 6 sc [6]\nDo not stuff.").stuffed
    assert not part("R1: 6 sc in ring [6]\nR2: 6 sc [6]").stuffed
    assert measure(settle(part("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 12 sc [12]"), GAUGE)).fill_g == 0


def test_a_skirt_is_a_sheet_of_its_own_and_holds_nothing() -> None:
    settled = settle(part(SKIRTED), GAUGE)
    assert settled.stuffed.tolist() == [True, False]
    skirt = np.unique(settled.triangles[settled.sheets.sheet == 1])
    body = np.unique(settled.triangles[settled.sheets.sheet == 0])
    reach = np.linalg.norm(settled.x[skirt, :2], axis=1).max()
    assert reach > np.linalg.norm(settled.x[body, :2], axis=1).max() * 1.05


def test_limbs_worked_in_stand_out_on_both_sides() -> None:
    settled = settle(part(LIMBED), GAUGE)
    own = settled.graph.piece[settled.net.stitch] > 0
    limbs = settled.x[: len(own)][own]
    body = settled.x[: len(own)][~own]
    assert np.ptp(limbs[:, 0]) > np.ptp(body[:, 0]) * 1.3
    assert settled.stuffed.sum() == 3
    empty = settle(part(LIMBED.replace("Stuff.\nFold", "Do not stuff.\nFold")), GAUGE)
    assert empty.stuffed.sum() == 1, "arms that stay empty hold nothing in the body either"


def test_a_doubled_round_ruffles_and_a_plain_disc_does_not() -> None:
    ruffled = measure(settle(part(EVERY_CONSTRUCTION["ruffle"]), GAUGE)).rounds[-1].ruffle
    plain = measure(settle(part(DISC), GAUGE)).rounds[-1].ruffle
    assert plain < 0.05
    assert ruffled > 0.15


def corner(text: str) -> float:
    """Angle in degrees between the base's last round and the wall's first, 180 for none."""
    settled = settle(part(text), GAUGE)
    ring = [settled.x[nodes] for nodes, _ in round_nodes(settled).values()]
    r, z = (
        [float(f(p)) for p in ring] for f in (lambda p: np.hypot(p[:, 0], p[:, 1]).mean(), lambda p: p[:, 2].mean())
    )
    at = 3
    below = np.array([r[at] - r[at - 1], z[at] - z[at - 1]])
    above = np.array([r[at + 1] - r[at], z[at + 1] - z[at]])
    cos = below @ above / np.linalg.norm(below) / np.linalg.norm(above)
    return 180 - float(np.degrees(np.arccos(cos)))


def test_a_back_loop_round_turns_a_sharper_corner() -> None:
    base = DISC + "\nR5: {}24 sc [24]\nR6-R8: 24 sc [24]"
    assert corner(base.format("BLO: ")) < corner(base.format("")) - 5


def test_short_rows_bend_a_tube() -> None:
    def bend(extra: str) -> float:
        settled = settle(part(f"R1: 8 sc in ring [8]\nR2-R6: 8 sc [8]\n{extra}R20-R26: 8 sc [8]"), UPRIGHT)
        middles = np.array([settled.x[n].mean(0) for n, _ in round_nodes(settled).values() if len(n) == 8])
        low, high = middles[4] - middles[1], middles[-1] - middles[-4]
        return float(np.degrees(np.arccos(low @ high / np.linalg.norm(low) / np.linalg.norm(high))))

    rows = "".join(f"R{n}: 4 sc, turn, leave the rest [8]\nR{n + 1}: ch 1, 4 sc, turn [8]\n" for n in (7, 9, 11))
    assert bend(rows) > bend("") + 20


def test_measures_have_their_units(ball: Settled) -> None:
    m = measure(ball)
    widest = max(m.rounds, key=lambda r: r.girth_mm)
    assert widest.girth_mm == pytest.approx(24 * 5.6, rel=0.06)
    assert m.width_mm == pytest.approx(widest.girth_mm / np.pi, rel=0.06)
    assert m.volume_ml == pytest.approx(np.pi / 6 * m.width_mm * m.depth_mm * m.height_mm / 1000, rel=0.25)
    assert m.fill_g == pytest.approx(m.volume_ml * 0.0425)
    assert [r.label for r in m.rounds] == [f"R{i}" for i in range(1, 12)]
    assert m.rounds[3].opening_mm == pytest.approx(24 * 5.6 / np.pi)


def test_what_still_goes_through_an_opening(ball: Settled) -> None:
    m = measure(ball)
    assert m.rounds[m.last_letting_through(18.0)].label == "R10"  # type: ignore[index]
    assert m.last_letting_through(500.0) is None
    assert m.passing(len(m.rounds)) == (("a hand", None), ("a finger", "R10"), ("tweezers", "R11"))
    assert m.passing(1) == (("a hand", None), ("a finger", None), ("tweezers", "R1"))


def test_stretch_is_small_at_the_reference_and_grows_with_firmness(ball: Settled) -> None:
    hard = settle(part(BALL), GAUGE, firmness=1.0)
    belly = round_nodes(ball)[6][0]
    assert 0 < stretch_of(ball)[belly].mean() < stretch_of(hard)[belly].mean() < 0.2
    assert shows_filling_above(1.7) < shows_filling_above(None) < shows_filling_above(1.3)


@pytest.mark.parametrize(
    ("kind", "height", "width"),
    [
        ("sphere", 60, 60),
        ("sphere", 100, 100),
        ("ellipsoid", 90, 60),
        ("ellipsoid", 120, 60),
        ("egg", 70, 56),
        ("capsule", 90, 45),
    ],
)
def test_drafts_settle_to_their_targets(kind: str, height: float, width: float) -> None:
    solid, worked = drafted(kind, height, width)
    error = shape_error(settle(worked, GAUGE), solid)
    assert error.rms_w <= 0.25
    assert abs(error.volume_ratio - 1) <= 0.05


def test_finer_gauge_is_truer_in_millimetres() -> None:
    errors = []
    for gauge in (Gauge(8.0, 7.4), Gauge(5.6, 5.2), Gauge(3.2, 2.96)):
        solid, worked = drafted("sphere", 80, 80, gauge)
        errors.append(shape_error(settle(worked, gauge), solid).rms_mm)
    assert errors == sorted(errors, reverse=True)


def test_the_shape_error_sees_a_wrong_size() -> None:
    _, worked = drafted("sphere", 60, 60)
    settled = settle(worked, GAUGE)
    assert shape_error(settled, Solid("sphere", 70, 70)).rms_mm == pytest.approx(5.0, abs=1.2)


def test_work_can_be_watched_and_stopped() -> None:
    seen: list[int] = []

    def watch(step: int) -> bool:
        seen.append(step)
        return len(seen) < 2

    settled = settle(part(BALL), GAUGE, watch=watch)
    assert not settled.converged
    assert seen == [10, 20]


def test_frames_lead_from_the_start_to_rest(ball: Settled) -> None:
    gaps = [float(np.abs(frame - ball.x).max()) for frame in ball.frames]
    assert len(gaps) > 2
    assert gaps[-1] < gaps[0]


def test_nothing_to_settle_is_said() -> None:
    with pytest.raises(CraftError, match="two rounds"):
        settle(part("Ch 5"), GAUGE)
    with pytest.raises(CraftError, match="30,000"):
        settle(part("R1: 60 sc in ring [60]\nR2-R600: 60 sc [60]"), GAUGE)
    with pytest.raises(CraftError, match="Firmness"):
        settle(part(BALL), GAUGE, firmness=1.5)


def test_meshes_keep_size_and_winding(ball: Settled) -> None:
    obj = mesh_file(Mesh.of(ball, {}), "obj").decode().splitlines()
    vertices = np.array([[float(v) for v in line.split()[1:4]] for line in obj if line.startswith("v ")])
    assert np.abs(vertices - ball.x).max() < 1e-3
    stl = mesh_file(Mesh.of(ball, {}), "stl")
    assert struct.unpack("<I", stl[80:84])[0] == len(ball.triangles)
    assert len(stl) == 84 + 50 * len(ball.triangles)
    glb = mesh_file(Mesh.of(ball, {}), "glb")
    length = struct.unpack("<I", glb[12:16])[0]
    document = json.loads(glb[20 : 20 + length])
    where = document["accessors"][document["meshes"][0]["primitives"][0]["attributes"]["POSITION"]]
    tall = where["max"][1] - where["min"][1]
    assert tall * 1000 == pytest.approx(np.ptp(ball.x[:, 2]), rel=1e-4)
    assert set(MESH_FORMATS) == {"obj", "stl", "glb"}
    with pytest.raises(CraftError, match="obj, stl, glb"):
        mesh_file(Mesh.of(ball, {}), "fbx")


def test_meshes_are_put_together(ball: Settled) -> None:
    one = Mesh.of(ball, {})
    both = Mesh.together("pair", [one, Mesh("other", one.x + np.array([100, 0, 0]), one.triangles, one.rgb)])
    assert len(both.x) == 2 * len(one.x)
    assert both.triangles.max() == 2 * len(one.x) - 1
    assert np.ptp(both.x[:, 0]) == pytest.approx(np.ptp(one.x[:, 0]) + 100)


def test_yarns_keep_their_colours() -> None:
    striped = part("R1: in Oat, 6 sc in ring [6]\nR2: in Bark, inc x 6 [12]")
    shade = node_colours(settle(striped, GAUGE), {"Oat": "#e3cda4", "Bark": "#7a5238"})
    assert {tuple(c) for c in shade.tolist()} == {(0xE3, 0xCD, 0xA4), (0x7A, 0x52, 0x38)}
    with pytest.raises(CraftError, match="colour"):
        node_colours(settle(striped, GAUGE), {"Oat": "beige"})


def test_a_part_that_is_turned_inside_out_is_its_mirror_image() -> None:
    out, turned, righted = (
        settle(part(BALL + "\n" + step), GAUGE)
        for step in ("", "Turn inside out.\n", "Turn it inside out, so that the right side shows.\n")
    )
    assert np.allclose(turned.x, out.x * [-1, 1, 1])
    assert np.array_equal(righted.x, out.x)
    assert measure(turned).volume_ml == pytest.approx(measure(out).volume_ml)
    assert measure(turned).volume_ml > 0
    ours, theirs = relief_of(turned).beside, relief_of(out).beside
    assert np.array_equal(ours, theirs[:, ::-1])
