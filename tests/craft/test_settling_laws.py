"""Laws of settling that hold for every program: nets, surfaces, forces, and the way to rest."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from craft.figure.settling import measure, relief_of, settle
from craft.figure.settling.net import Net, net_of
from craft.figure.settling.sheets import Sheets, sheets_of
from craft.figure.settling.solve import Fabric
from craft.figure.settling.start import is_plain, start_of, volume_mm3
from craft.gauge import Gauge
from craft.rounds.fabric import EdgeKind, WorkedPart, run_pattern
from craft.rounds.pattern import Pattern
from craft.text.check import check
from tests.craft.programs import patterns
from tests.craft.test_settling import EVERY_CONSTRUCTION

GAUGE = Gauge(5.0, 4.6, 0.3)
MOST = 1_500
few = settings(
    max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much]
)


def parts_of(pattern: Pattern) -> list[WorkedPart]:
    return [p for p in run_pattern(pattern)[0] if 12 <= len(p.graph) <= MOST]


def surfaces(part: WorkedPart) -> tuple[Net, Sheets]:
    net = net_of(part.graph, GAUGE)
    return net, sheets_of(net, part.graph)


@few
@given(patterns())
def test_every_program_gives_a_net_with_sound_numbers(pattern: Pattern) -> None:
    for part in parts_of(pattern):
        net, _ = surfaces(part)
        for pairs in (net.links, net.posts, net.along):
            assert pairs.size == 0 or (pairs.min() >= 0 and pairs.max() < net.size)
            assert (pairs[:, 0] != pairs[:, 1]).all()
        assert (net.link_rest > 0).all()
        assert (net.post_rest > 0).all()
        assert (net.link_weight > 0).all()
        assert len(net.triples) == len(net.bend_rest) == len(net.bend_weight)
        assert (np.abs(net.post_slant) < 60 * GAUGE.stitch_mm).all()


@few
@given(patterns())
def test_every_sheet_is_closed_by_its_lids(pattern: Pattern) -> None:
    """Every side is run as often one way as the other, so that pressure has no net push."""
    for part in parts_of(pattern):
        net, sheets = surfaces(part)
        for sheet in range(sheets.many):
            lids = sheets.lids[sheets.lid_sheet == sheet]
            t = np.concatenate([sheets.triangles[sheets.sheet == sheet], lids])
            starts, ends = t.ravel(), np.roll(t, -1, axis=1).ravel()
            size = net.size + len(sheets.rims)
            key = np.minimum(starts, ends) * size + np.maximum(starts, ends)
            _, place = np.unique(key, return_inverse=True)
            assert not np.bincount(place, np.where(starts < ends, 1, -1)).any()
        for rim, owner in zip(sheets.rims, sheets.rim_sheet, strict=True):
            assert len(rim) >= 3
            assert len(np.unique(rim)) == len(rim)
            assert 0 <= owner < sheets.many


@few
@given(patterns(), st.integers(0, 2**32 - 1))
def test_forces_are_the_slope_of_the_energy(pattern: Pattern, seed: int) -> None:
    """Any small move costs what the gradient says, in any position; so nothing turns or drives itself."""
    rng = np.random.default_rng(seed)
    for part in parts_of(pattern)[:1]:
        net, sheets = surfaces(part)
        assume(sheets.many > 0)
        fabric = Fabric(net, sheets, GAUGE, np.arange(sheets.many) == 0, 0.7)
        x = start_of(net, sheets, GAUGE, 0.5, stuffed=True) + rng.normal(scale=0.4, size=(net.size, 3))
        way = rng.normal(size=x.shape)
        slope = float(np.vdot(fabric.energy(x)[1], way))
        step = 1e-6
        found = (fabric.energy(x + step * way)[0] - fabric.energy(x - step * way)[0]) / (2 * step)
        assert found == pytest.approx(slope, rel=1e-3, abs=1e-3 * float(np.abs(way).sum()) ** 0.5)


@few
@given(patterns(), st.integers(0, 2**32 - 1))
def test_moving_or_turning_the_whole_costs_nothing(pattern: Pattern, seed: int) -> None:
    rng = np.random.default_rng(seed)
    for part in parts_of(pattern)[:1]:
        net, sheets = surfaces(part)
        assume(sheets.many > 0)
        fabric = Fabric(net, sheets, GAUGE, np.arange(sheets.many) == 0, 0.5)
        x = start_of(net, sheets, GAUGE, 0.5, stuffed=True) + rng.normal(scale=0.3, size=(net.size, 3))
        turn, _ = np.linalg.qr(rng.normal(size=(3, 3)))
        turn *= np.sign(np.linalg.det(turn))
        here, slope = fabric.energy(x)
        there, turned = fabric.energy(x @ turn.T + rng.normal(scale=50, size=3))
        assert there == pytest.approx(here, rel=1e-6, abs=1e-6)
        assert turned == pytest.approx(slope @ turn.T, rel=1e-4, abs=1e-4)
        push = slope.sum(0)
        assert np.abs(push).max() < 1e-6 * (1 + np.abs(slope).sum()), "what presses outward presses evenly"


@settings(max_examples=10, deadline=None, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much])
@given(patterns())
def test_every_program_settles_to_finite_places(pattern: Pattern) -> None:
    for part in parts_of(pattern):
        net, sheets = surfaces(part)
        if not sheets.many:
            continue
        settled = settle(part, GAUGE)
        assert np.isfinite(settled.x).all()
        assert settled.x.shape == (net.size, 3)
        reach = float(np.ptp(settled.x, axis=0).max())
        longest = len(part.graph) * max(GAUGE.stitch_mm, GAUGE.round_mm) * 4
        assert reach < longest
        found = measure(settled)
        assert found.area_cm2 > 0
        assert found.volume_ml >= 0
        assert all(r.ruffle >= 0 and r.girth_mm > 0 for r in found.rounds)
        relief = relief_of(settled)
        assert len(relief.round) == len(net.stitch)
        assert relief.below.max() < net.size
        assert relief.place.min() >= 1


def test_settling_lowers_the_energy() -> None:
    for text in EVERY_CONSTRUCTION.values():
        part = check(text).parts[-1]
        net = net_of(part.graph, GAUGE)
        sheets = sheets_of(net, part.graph)
        settled = settle(part, GAUGE, frames=3)
        fabric = Fabric(net, sheets, GAUGE, settled.stuffed, 0.5)
        assert fabric.energy(settled.x)[0] < fabric.energy(settled.frames[0])[0]
        slope = fabric.energy(settled.x)[1]
        assert np.abs(slope).max() < 0.05, "at rest nothing pulls"


def test_plain_tubes_start_as_bodies_of_revolution_and_others_do_not() -> None:
    plain = {"ball", "long and thin", "ruffle"}
    for name, text in EVERY_CONSTRUCTION.items():
        part = check(text).parts[-1]
        assert is_plain(net_of(part.graph, GAUGE)) == (name in plain), name


def test_edges_of_every_kind_are_noted() -> None:
    kinds = {
        EdgeKind(k) for text in EVERY_CONSTRUCTION.values() for part in check(text).parts for k in part.graph.edge_kind
    }
    assert kinds == set(EdgeKind)


def test_volume_is_that_of_a_known_body() -> None:
    """A cube of 10 mm from twelve triangles, by the divergence theorem."""
    corners = np.array([[x, y, z] for x in (0, 10) for y in (0, 10) for z in (0, 10)], float)
    faces = [
        (0, 1, 3), (0, 3, 2), (4, 6, 7), (4, 7, 5), (0, 4, 5), (0, 5, 1),
        (2, 3, 7), (2, 7, 6), (0, 2, 6), (0, 6, 4), (1, 5, 7), (1, 7, 3),
    ]  # fmt: skip
    assert abs(volume_mm3(corners, np.array(faces))) == pytest.approx(1000)
    assert volume_mm3(corners + 99, np.array(faces)) == pytest.approx(volume_mm3(corners, np.array(faces)))
    assert volume_mm3(corners, np.zeros((0, 3), np.int64)) == 0
