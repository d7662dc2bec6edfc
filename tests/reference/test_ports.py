"""Ports against SciPy: an open end of the settled figure is as wide around as its port says, and two that are grafted meet."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.spatial import ConvexHull

from craft.design.design import Design
from craft.design.parts import Part
from craft.design.remix import Adapt, Cut, graft, ports_along, ports_of
from craft.design.running import run_parts
from craft.figure.settling import Settled, round_nodes, settle
from craft.rounds.fabric import WorkedPart
from tests.craft.test_graft import BODY, TAIL

OPEN = BODY.partition("R11")[0]
CUP = BODY.partition("Stuff")[0]


def girth(settled: Settled, at: int) -> float:
    """Length of the convex hull of a round's stitches, seen along the round's own axis; by SciPy, which knows nothing of
    stitches."""
    nodes, _ = round_nodes(settled)[at]
    ring = settled.x[nodes]
    ring = ring - ring.mean(axis=0)
    _, _, axes = np.linalg.svd(ring, full_matrices=False)
    return float(ConvexHull(ring @ axes[:2].T).area)


def run(design: Design) -> WorkedPart:
    worked = run_parts(design)[0].worked
    assert worked is not None
    return worked


@pytest.mark.parametrize("text", [OPEN, CUP])
def test_an_open_end_is_as_wide_around_as_its_port(text: str) -> None:
    design = Design("x", parts=(Part("b", "Body", text),))
    (port,) = ports_of(design)
    worked = run(design)
    found = girth(settle(worked, design.gauge_now), port.round - 1)
    assert found == pytest.approx(port.girth_mm, rel=0.15)


@pytest.mark.parametrize("upto", [4, 6, 10])
def test_a_graft_is_as_wide_at_its_cut_as_both_ports(upto: int) -> None:
    base, piece = Design("x", parts=(Part("b", "Body", BODY),)), Design("y", parts=(Part("t", "Tail", TAIL),))
    made = graft(Cut(base, "b", upto), Cut(piece, "t", 7), Adapt.ROUNDS)
    settled = settle(made.worked, base.gauge_now)
    for at, port in (
        (upto - 1, ports_along(base, "b")[upto - 1]),
        (upto + made.adapters - 1 if made.adapters else upto - 1, ports_along(piece, "t")[5]),
    ):
        assert girth(settled, at) == pytest.approx(port.girth_mm, rel=0.2)
