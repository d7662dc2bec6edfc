"""What is told to whoever has an earlier release."""

from __future__ import annotations

from dataclasses import replace

from hypothesis import given, settings

from craft.design.anchors import Place
from craft.design.design import Brief, Design, Printed, Step
from craft.document.releases import as_lines, digest_of, errata
from craft.document.stamp import stamp_of
from tests.craft.figures import design_st, figure


def part(design: Design, key: str, text: str) -> Design:
    return replace(design, parts=tuple(replace(p, text=text) if p.key == key else p for p in design.parts))


def test_a_round_is_told_with_old_and_new() -> None:
    old = figure()
    head = old.parts[0].text
    new = part(old, "head", head.replace("R9: (sc, dec) x 6 [12]", "R9: (sc, dec) x 6 [12]\nR10: 12 sc [12]").replace(
        "R2: 6 inc [12]", "R2: (inc) x 6 [12]"))  # fmt: skip
    found = errata(old, new)
    assert [(e.part, e.at, e.before, e.after) for e in found] == [
        ("Head", "R2", "6 inc [12]", "(inc) x 6 [12]"),
        ("Head", "R10", "", "12 sc [12]"),
    ]
    assert as_lines(found)[0] == "Head, R2: “6 inc [12]” is now “(inc) x 6 [12]”"


def test_a_step_is_told_in_its_words() -> None:
    old = figure()
    new = replace(old, steps=(old.steps[0], Step("s2", "Brush it well.", picture=True)))
    assert [(e.at, e.before, e.after) for e in errata(old, new)] == [("Step 2", "Brush it.", "Brush it well.")]


def test_a_place_that_moved_is_told() -> None:
    old = figure()
    new = replace(old, eyes=replace(old.eyes, place=Place("head", 5)))
    assert any("R5" in line for line in as_lines(errata(old, new)))


def test_the_designers_desk_is_not_told() -> None:
    old = figure()
    desk = replace(old, brief=replace(old.brief, notes="ask Odo", height_mm=99), sizes=())
    assert errata(old, desk) == ()
    printed = replace(old, printed=replace(old.printed, version="9", changes="x", count_table=False))
    assert errata(old, printed) == ()


@settings(max_examples=40, deadline=None)
@given(design_st)
def test_nothing_is_told_of_equals(design: Design) -> None:
    assert errata(design, design) == ()


def test_a_digest_is_of_the_content() -> None:
    old = figure()
    assert digest_of(old) == digest_of(figure())
    assert digest_of(old) != digest_of(replace(old, brief=Brief()))
    assert digest_of(old) != digest_of(replace(old, printed=Printed()))
    assert len(digest_of(old)) == 64


def test_the_stamp_tells_a_draft_from_a_release() -> None:
    assert stamp_of("1.2", "2026-03-01", 3, "3f2a9c01d4ffff") == "Version 1.2, release 3 of 2026-03-01, 3f2a9c01d4"
    assert stamp_of("1.2", "2026-03-01") == "Version 1.2, draft of 2026-03-01"
    assert stamp_of("1.2", "") == "Version 1.2"
