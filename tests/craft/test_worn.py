"""What comes off: what it fits, and as a design of its own."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.design import Design, Printed, Step
from craft.design.joins import Fixing, Join, Manner, seam_stitches
from craft.design.parts import GaugeFrom, Part
from craft.design.remix import alone, worn_again, worn_of
from craft.design.running import run_parts, worked_parts
from craft.design.stored import from_json, to_json
from craft.document.booklet import Imprint, as_text, compose, manuscript_of
from craft.errors import CraftError
from craft.rounds.stitches import Terms
from tests.craft.test_cli import validate

HEAD = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R12: 30 sc [30]
R13: (3 sc, dec) x 6 [24]
"""
CAP = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6: (4 sc, inc) x 6 [36]
R7: 36 sc [36]
"""
SCARF = "Ch 28, join\nR1: 28 sc [28]\nR2: 28 sc [28]\n"
POMPON = "R1: 6 sc in ring [6]\nR2: 6 sc [6]\n"
STITCH = 5.0


def figure(cap: str = CAP, fixing: Fixing = Fixing.SLIPPED) -> Design:
    parts = (
        Part("head", "Head", HEAD),
        Part("cap", "Cap", cap),
        Part("pom", "Pompon", POMPON),
        Part("scarf", "Scarf", SCARF),
    )
    joins = (
        Join("j1", "cap", "head", Place("head", 1), fixing=fixing),
        Join("j2", "pom", "cap", Place("cap", 1)),
        Join("j3", "scarf", "head", Place("head", 13), fixing=Fixing.SNAPS),
    )
    steps = tuple(Step(f"s{n}", "", j.part, j.key) for n, j in enumerate(joins))
    base = Design("Gloomcap", parts=parts, joins=joins, steps=steps, printed=Printed(version="1.2"))
    return replace(base, gauge=replace(base.gauge, source=GaugeFrom.OWN, stitch_mm=STITCH, round_mm=4.6))


def test_a_cap_is_held_against_the_round_that_its_rim_reaches() -> None:
    cap, scarf = worn_of(figure())
    assert (cap.name, cap.host, cap.fixing) == ("Cap", "Head", Fixing.SLIPPED)
    assert (cap.around_mm, cap.own_mm) == (30 * STITCH, 36 * STITCH)
    assert cap.fit == "loose", "a fifth wider"
    assert (scarf.around_mm, scarf.own_mm) == (24 * STITCH, 28 * STITCH), "open at both ends, it lies at its place"


@pytest.mark.parametrize(("rim", "fit"), [(24, "tight"), (30, "fits"), (33, "fits"), (36, "loose")])
def test_fit_is_told_by_the_ease(rim: int, fit: str) -> None:
    cap = CAP.replace("R6: (4 sc, inc) x 6 [36]", "R6: 30 sc [30]").replace("R7: 36 sc [36]", "R7: 30 sc [30]")
    last = {
        24: "R8: (3 sc, dec) x 6 [24]\n",
        30: "",
        33: "R8: (9 sc, inc) x 3 [33]\n",
        36: "R8: (9 sc, inc) x 3 [33]\nR9: (10 sc, inc) x 3 [36]\n",
    }
    found, _ = worn_of(figure(cap + last[rim]))
    assert found.fit == fit, found


def test_what_is_sewn_or_worked_in_does_not_come_off() -> None:
    assert [w.name for w in worn_of(figure(fixing=Fixing.SEWN))] == ["Scarf"]
    design = figure()
    worked_in = replace(design.joins[0], manner=Manner.WORKED_IN)
    assert [w.name for w in worn_of(replace(design, joins=(worked_in, *design.joins[1:])))] == ["Scarf"]


def test_what_comes_off_needs_no_seam() -> None:
    design = figure()
    worked = worked_parts(run_parts(design))
    assert seam_stitches(design.joins[0], worked) is None
    assert seam_stitches(replace(design.joins[0], fixing=Fixing.SEWN), worked) == 36


def test_alone_it_brings_what_sits_on_it_and_says_what_it_fits() -> None:
    made = alone(figure(), "cap", "Fern & Moss")
    assert made.name == "Cap for Gloomcap"
    assert [p.name for p in made.parts] == ["Cap", "Pompon"]
    assert [(j.part, j.host) for j in made.joins] == [("pom", "cap")]
    assert made.brief.intro == (
        f"Made for Head of Gloomcap, version 1.2, about {30 * STITCH / 10:.1f} cm around where it sits; its own opening is about "
        f"{36 * STITCH / 10:.1f} cm around, {6 * STITCH:.0f} mm wider."
    )
    (source,) = made.sources
    assert source.called == "Gloomcap, version 1.2, by Fern & Moss"
    assert not made.dangling
    assert not any(p.faults for p in run_parts(made))
    with pytest.raises(CraftError, match="Only what comes off"):
        alone(figure(), "pom", "Fern & Moss")


def test_the_booklet_says_how_it_is_held_and_what_holds_it() -> None:
    design = figure()
    text = as_text(compose(manuscript_of(design, run_parts(design), Imprint("Fern & Moss", Terms.US, "2026-11-29"))))
    assert "Cap: Slip on. (on Head, R1, at the front, in the middle)" in text
    assert "Sew one half of each snap fastener to either part and snap it on." in text
    assert "Snap fasteners for Scarf (about " in text
    assert "Snap fasteners are small parts and can choke" in text


def test_files_keep_what_holds_a_part() -> None:
    assert from_json(to_json(figure())) == figure()
    validate("design", to_json(figure()))


def test_a_brim_is_no_opening() -> None:
    """A hat sits by its crown; what flares off below it is as wide as it likes."""
    crown = CAP.replace("R6: (4 sc, inc) x 6 [36]", "R6: 30 sc [30]").replace("R7: 36 sc [36]", "R7: 30 sc [30]")
    plain, _ = worn_of(figure(crown))
    brimmed, _ = worn_of(figure(crown + "R8: FLO: (2 sc, inc) x 10 [40]\nR9: (3 sc, inc) x 10 [50]\n"))
    assert (brimmed.own_mm, brimmed.around_mm, brimmed.fit) == (plain.own_mm, plain.around_mm, "fits")


def test_what_was_made_alone_is_held_against_the_figure_again() -> None:
    first = figure()
    accessory = alone(first, "cap", "Fern & Moss")
    assert worn_again(first, "cap", accessory) == worn_of(first)[0]
    narrowed = replace(
        accessory,
        parts=(
            replace(accessory.parts[0], text=CAP.replace("R7: 36 sc [36]", "R7: (4 sc, dec) x 6 [30]")),
            *accessory.parts[1:],
        ),
    )
    found = worn_again(first, "cap", narrowed)
    assert found is not None
    assert (found.own_mm, found.fit) == (30 * STITCH, "fits")
    assert worn_again(replace(first, joins=(), steps=()), "cap", accessory) is None
