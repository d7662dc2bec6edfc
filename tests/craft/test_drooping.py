"""Empty pieces hang from their seam: heavy strips against closed forms, and which pieces of a figure do."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np
import pytest
from numpy.typing import NDArray

from craft.figure.body import Placed
from craft.figure.placement import Seat, Surface, droop, extent, place
from craft.figure.placement.drooping import BENDING_LENGTH_MM, OF_STITCH_MM, bending_length
from craft.figure.placement.surface import Foot
from craft.figure.settling import settle
from craft.gauge import Gauge
from craft.text.check import check
from tests.craft.figures import BALL

GAUGE = Gauge(5.6, 5.2, 0.0)
EMPTY = "R1: 6 sc in ring [6]\nR2-R{last}: sc around [6]\nFasten off. Do not stuff.\n"
FULL = "R1: 6 sc in ring [6]\nR2-R{last}: sc around [6]\nStuff firmly. Fasten off.\n"


def strip(long_mm: float, way: tuple[float, float, float], steps: int = 60) -> tuple[Surface, Placed]:
    """A strip of two nodes a round, sewn on by its start, that stands along `way`."""
    ahead = np.array(way) / np.linalg.norm(way)
    side = np.cross(ahead, [0.3, 1.0, 0.2])
    side /= np.linalg.norm(side)
    middles = np.linspace(0, long_mm, steps + 1)[:, None] * ahead
    x = np.concatenate([middles + side, middles - side])
    rings = tuple(np.array([k, k + steps + 1]) for k in range(steps + 1))
    many = len(x)
    surface = Surface(
        x,
        rings,
        np.array([[0, 1, steps + 1]]),
        np.zeros(many, np.int64),
        np.zeros(many),
        Foot.START,
        tuple(f"R{k + 1}" for k in range(steps + 1)),
        filled=False,
    )
    return surface, Placed("ear", np.eye(4), join="j")


def hung(long_mm: float, way: tuple[float, float, float]) -> NDArray[np.float64]:
    """Where the strip's end comes to lie, from its seam."""
    surface, piece = strip(long_mm, way)
    (found,) = droop({"ear": surface}, (piece,), (Seat("ear", "head", 1, key="j"),), OF_STITCH_MM)
    x = surface.x if found.x is None else found.x
    end: NDArray[np.float64] = x[surface.rings[-1]].mean(0)
    return end


@pytest.mark.parametrize("long_mm", [18.0, 25.0])
def test_a_short_level_strip_sinks_as_a_beam_under_its_own_weight(long_mm: float) -> None:
    """w L⁴ / 8 B, which is L⁴ / 8 c³ (the textbook cantilever; small slopes)."""
    sunk = -hung(long_mm, (1.0, 0.0, 0.0))[2]
    assert sunk == pytest.approx(long_mm**4 / (8 * BENDING_LENGTH_MM**3), rel=0.05)


def test_an_upright_strip_stands_up_to_the_height_at_which_a_column_buckles_under_itself() -> None:
    """Greenhill, 1881: 1.986 bending lengths (7.8373 to the power of a third)."""
    critical = 7.8373 ** (1 / 3) * BENDING_LENGTH_MM
    assert hung(0.9 * critical, (0.0, 0.0, 1.0))[2] == pytest.approx(0.9 * critical, rel=1e-3)
    assert hung(1.4 * critical, (0.0, 0.0, 1.0))[2] < 0.8 * 1.4 * critical


def test_a_long_strip_hangs_straight_down_and_keeps_its_length() -> None:
    end = hung(400.0, (1.0, 0.0, 0.3))
    assert end[2] < -300
    assert np.linalg.norm(end) <= 400.0 + 1e-6
    assert np.allclose(hung(80.0, (0.0, 0.0, -1.0)), [0, 0, -80], atol=1e-6), "what hangs already stays"


def test_thicker_yarn_is_stiffer() -> None:
    assert bending_length(OF_STITCH_MM) == BENDING_LENGTH_MM
    assert bending_length(8 * OF_STITCH_MM) == pytest.approx(4 * BENDING_LENGTH_MM)


def figure(limb: str, held: Collection[str] = (), **more: bool) -> tuple[Surface, Placed]:
    surfaces = {"ball": Surface.of(settle(check(BALL).parts[0], GAUGE))}
    surfaces["limb"] = Surface.of(settle(check(limb).parts[0], GAUGE))
    seat = Seat("limb", "ball", 9, 7.0, key="j", **more)
    placed = place(surfaces, {"ball": 1, "limb": 1}, (seat,))
    found = droop(surfaces, placed, (seat,), GAUGE.stitch_mm, held)
    return surfaces["limb"], next(p for p in found if p.part == "limb")


def test_a_long_empty_limb_hangs_and_keeps_its_fabric() -> None:
    surface, limb = figure(EMPTY.format(last=24))
    assert limb.x is not None
    before, after = limb.in_scene(surface.x), limb.in_scene(limb.x)
    seam, end = surface.rings[-1], surface.rings[0]
    assert after[end].mean(0)[2] < before[end].mean(0)[2] - 30
    assert np.linalg.norm(after[seam].mean(0) - before[seam].mean(0)) < 1.0, "it stays where it is sewn on"
    edges = surface.triangles[:, :2]
    long = [np.linalg.norm(x[edges[:, 0]] - x[edges[:, 1]], axis=1) for x in (before, after)]
    assert np.median(np.abs(long[1] / long[0] - 1)) < 0.1


def test_the_figure_is_as_wide_as_its_pieces_hang() -> None:
    surfaces = {key: Surface.of(settle(check(text).parts[0], GAUGE)) for key, text in
                (("ball", BALL), ("limb", EMPTY.format(last=24)))}  # fmt: skip
    seat = Seat("limb", "ball", 9, 7.0, key="j", paired=True)
    placed = place(surfaces, {"ball": 1, "limb": 1}, (seat,))
    sewn, hangs = (extent(surfaces, p) for p in (placed, droop(surfaces, placed, (seat,), GAUGE.stitch_mm)))
    assert hangs[0] < sewn[0] - 30


def test_what_is_stuffed_wired_laid_on_or_short_stays_as_it_is_sewn_on() -> None:
    assert figure(FULL.format(last=24))[1].x is None
    assert figure(EMPTY.format(last=24), held=("limb",))[1].x is None
    assert figure(EMPTY.format(last=24), laid=True)[1].x is None
    surface, short = figure(EMPTY.format(last=4))
    assert short.x is None or np.abs(short.x - surface.x).max() < 1.0


@pytest.mark.parametrize("way", [(1.0, 0.0, 0.3), (0.4, 0.8, -0.2)])
def test_a_limb_that_comes_down_to_the_table_lies_on_it_and_away_from_its_seam(way: tuple[float, float, float]) -> None:
    surface, piece = strip(400.0, way)
    seats = (Seat("ear", "head", 1, key="j"),)
    (free,) = droop({"ear": surface}, (piece,), seats, OF_STITCH_MM)
    (laid,) = droop({"ear": surface}, (piece,), seats, OF_STITCH_MM, floor=-60.0)
    assert free.x is not None
    assert laid.x is not None
    middles = np.array([laid.x[ring].mean(0) for ring in surface.rings])
    assert middles[:, 2].min() == pytest.approx(-60, abs=400 / 60)
    assert middles[-20:, 2] == pytest.approx(np.full(20, middles[-1, 2]), abs=1e-6)
    assert np.linalg.norm(np.diff(middles, axis=0), axis=1).sum() == pytest.approx(400, rel=1e-6)
    assert np.all(np.diff(middles @ (np.array(way) * [1, 1, 0]))[-20:] > 0)
