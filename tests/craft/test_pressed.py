"""Fabric held from outside: two layers pressed flat, a disc in the base, and what touches; energy and slope agree."""

from __future__ import annotations

import numpy as np
import pytest

from craft.figure.settling import Contact, Fabric, Held, Settled, settle
from craft.figure.settling.contact import THICK
from craft.figure.settling.held import Plates
from craft.figure.settling.net import net_of
from craft.figure.settling.sheets import sheets_of
from craft.gauge import Gauge
from craft.text.check import check

GAUGE = Gauge(5.6, 5.15, 0.4)
EAR = """R1: 4 sc in ring [4]
R2: (sc, inc) x 2 [6]
R3: (sc, inc) x 3 [9]
R4: (2 sc, inc) x 3 [12]
R5-R8: sc around [12]
"""
FOLDED = EAR + "Press flat and work 6 sc through both layers [6]\nFasten off. Do not stuff.\n"
BASE = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
{}R6-R10: sc around [30]
R11: (3 sc, dec) x 6 [24]
R12: (2 sc, dec) x 6 [18]
Stuff firmly.
"""


def at_rest(text: str) -> Settled:
    return settle(check(text).parts[-1], GAUGE)


@pytest.mark.parametrize(
    ("ending", "pressed"),
    [
        ("Fasten off. Do not stuff.\n", False),
        ("Do not stuff. Press flat.\n", True),
        ("Leave it unstuffed, it lies flat.\n", True),
        ("Stuff, then press flat against the body.\n", False),
        ("Flatten it before you sew it on.\n", True),
    ],
)
def test_words_and_seams_tell_what_lies_flat(ending: str, pressed: bool) -> None:
    assert check(EAR + ending).parts[0].pressed is pressed
    assert check(FOLDED).parts[0].pressed


def test_an_empty_ear_lies_in_two_layers() -> None:
    flat, hollow = at_rest(FOLDED), at_rest(EAR + "Do not stuff.\n")
    assert flat.converged
    assert np.ptp(flat.x[:, 1]) < 2.2 * THICK * GAUGE.stitch_mm
    assert np.ptp(flat.x[:, 1]) < 0.55 * np.ptp(hollow.x[:, 1])
    assert np.ptp(flat.x[:, 0]) > 1.15 * np.ptp(hollow.x[:, 0])


def test_its_broad_side_looks_to_the_front() -> None:
    flat = at_rest(EAR + "Do not stuff. Press flat.\n")
    assert np.ptp(flat.x[:, 1]) < 0.4 * np.ptp(flat.x[:, 0])


def test_its_layers_do_not_lie_in_each_other() -> None:
    flat = at_rest(FOLDED)
    assert Contact(flat.net, GAUGE.stitch_mm).through(flat.x) == 0


def test_a_disc_keeps_the_base_flat() -> None:
    bulging, flat = at_rest(BASE.format("")), at_rest(BASE.format("Insert a base disc of card.\n"))

    def out_of_level(settled: Settled) -> float:
        base = np.concatenate([e.nodes for e in settled.net.edges[:5]])
        return float(np.ptp(settled.x[base, 2]))

    assert out_of_level(flat) < 0.35 * out_of_level(bulging)
    assert 0.75 < np.ptp(flat.x[:, 2]) / np.ptp(bulging.x[:, 2]) < 1, "what bulged out below is gone"


@pytest.mark.parametrize("seed", range(4))
def test_forces_are_the_slope_of_the_energy(seed: int) -> None:
    """Of contact and plates too: any small move costs what the gradient says."""
    rng = np.random.default_rng(seed)
    part = check(FOLDED).parts[0]
    net = net_of(part.graph, GAUGE)
    sheets = sheets_of(net, part.graph)
    across = rng.normal(size=3)
    plates = Plates(np.arange(0, net.size, 2), across / np.linalg.norm(across), 2.0)
    held = Held(contact=Contact(net, GAUGE.stitch_mm), plates=(plates,), limp=True)
    fabric = Fabric(net, sheets, GAUGE, np.zeros(sheets.many, np.bool_), 0.5, held)
    x, way = rng.normal(scale=6, size=(net.size, 3)), rng.normal(size=(net.size, 3))
    bare, _ = Fabric(net, sheets, GAUGE, np.zeros(sheets.many, np.bool_), 0.5, Held(limp=True)).energy(x)
    here, slope = fabric.energy(x)
    assert here > bare
    step = 1e-6
    found = (fabric.energy(x + step * way)[0] - fabric.energy(x - step * way)[0]) / (2 * step)
    assert found == pytest.approx(float(np.vdot(slope, way)), rel=1e-4)


def test_neighbours_over_the_fabric_may_lie_as_they_like() -> None:
    settled = at_rest(EAR + "Stuff.\n")
    contact = Contact(settled.net, GAUGE.stitch_mm)
    crumpled = settled.x * 0.01
    pairs = contact.near(crumpled, 100.0)
    every = settled.net.size * (settled.net.size - 1) // 2
    assert 0 < len(pairs) < every
    near = {(min(a, b), max(a, b)) for a, b in settled.net.links.tolist()}
    assert near.isdisjoint(map(tuple, pairs.tolist()))
