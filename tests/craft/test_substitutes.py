"""Other yarns of the same size, and the wire that parts take."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.design import Audience, Brief, Design
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts
from craft.document.booklet import Imprint, as_text, compose, manuscript_of
from craft.gauge import AS_LARGE, FabricVerdict, Gauge, estimate_gauge, fabric_outlook, substitutes
from craft.rounds.stitches import Terms
from craft.yarn import Yarn

ARM = "R1: 6 sc in ring [6]\nR2-R4: 6 sc [6]\nPush in 12 cm of wire.\n"


@pytest.mark.parametrize("stitch", [3.5, 4.4, 5.6, 7.0, 9.0])
def test_each_makes_stitches_as_wide_in_dense_fabric(stitch: float) -> None:
    found = substitutes(Gauge(stitch, stitch * 0.9))
    assert found
    assert len({(s.weight, s.strands) for s in found}) == len(found)
    for s in found:
        yarn = Yarn("x", weight=s.weight, strands=s.strands)
        assert abs(estimate_gauge(yarn, s.hook_mm).stitch_mm / stitch - 1) <= AS_LARGE
        assert fabric_outlook(yarn, s.hook_mm).verdict is FabricVerdict.RIGHT


@pytest.mark.parametrize("stitch", [4.9, 5.6, 7.0, 9.0])
def test_finer_yarn_needs_more_strands(stitch: float) -> None:
    found = substitutes(Gauge(stitch, stitch * 0.9))
    for one in found:
        assert all(one.weight > more.weight for more in found if more.strands > one.strands)


def text(**more: object) -> str:
    design = Design(
        "x",
        gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.6, 5.1),
        yarns=(DesignYarn("Peat", "#5a4634", 3),),
        parts=(Part("a", "Arm", ARM, make=2), Part("b", "Body", "R1: 6 sc in ring [6]\n")),
    )
    of = replace(design, **more)  # type: ignore[arg-type]
    return as_text(compose(manuscript_of(of, run_parts(of), Imprint("Fern", Terms.US, ""))))


def test_the_booklet_names_them_as_estimates() -> None:
    line = next(x for x in text().splitlines() if x.startswith("Same size: "))
    assert line.endswith("By an estimate: make a sample first.")
    assert "Light (3), 3" not in line, "its own yarn is no substitute"
    assert "Same size" not in text(yarns=())
    assert "Same size" not in text(yarns=(DesignYarn("Peat", "#5a4634", 3), DesignYarn("Fog", "#aaaaaa", 5)))


def test_wire_is_listed_by_part_and_never_for_the_smallest() -> None:
    assert "Wire: Arm: 2 × 12 cm" in text().splitlines()
    assert "Wire:" not in text(brief=Brief(Audience.UNDER_THREE))
