"""The whole figure as one value: its file, its parts run together, joins, anchors, loose copies."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.assembly import put_together
from craft.design.brought import design_of
from craft.design.design import Design
from craft.design.joins import Join, Manner, joins_in_rounds, loose_copies, made_alone, meeting, seam_stitches
from craft.design.parts import DesignYarn, GaugeFrom, Part
from craft.design.running import run_parts, worked_parts
from craft.design.steps import steps_now
from craft.design.stored import from_json, is_design, read_design, to_json, written
from craft.design.written import made_first, pattern_text
from craft.errors import CraftError
from craft.figure.materials import yarn_use
from craft.formats import upgraded
from craft.gauge import Gauge
from craft.rounds.stitches import Terms
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Solid
from craft.text.check import check
from craft.text.exchange import converted
from craft.text.notation import print_part
from tests.craft.figures import HEAD, LEG, design_st, figure

FIXTURES = Path(__file__).parent.parent / "fixtures"

# --- its file -----------------------------------------------------------------------------


def test_a_design_goes_through_its_file_unchanged() -> None:
    design = figure()
    assert read_design(written(design)) == design
    assert is_design(written(design))
    assert not is_design(HEAD)


@given(design_st)
@settings(max_examples=120, deadline=None)
def test_law_any_design_is_the_same_after_its_file(design: Design) -> None:
    assert from_json(json.loads(json.dumps(to_json(design)))) == design


def test_a_frozen_file_of_every_format_opens_for_ever() -> None:
    """The files stand as they were written; a later format reads them by its upgrade steps."""
    first = read_design((FIXTURES / "design-format-1.json").read_text("utf-8"))
    assert first == figure()
    second = read_design((FIXTURES / "design-format-2.json").read_text("utf-8"))
    assert second == replace(first, gauge=replace(first.gauge, source=GaugeFrom.SWATCH))
    sampled = to_json(first) | {"format": 1, "gauge": to_json(first)["gauge"] | {"source": "sample"}}
    assert from_json(sampled) == second, "what format 1 called a sample"


def spoilt(*path: str | int, value: Any) -> dict[str, Any]:
    data: Any = to_json(figure())
    at = data
    for word in path[:-1]:
        at = at[word]
    at[path[-1]] = value
    return dict(data)


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (spoilt("kind", value="shelf"), "This is no Spirrel design."),
        ([], "This is no Spirrel design."),
        (spoilt("format", value=99), "newer Spirrel"),
        (spoilt("format", value="one"), "no format"),
        (spoilt("terms", value="fr"), "terms: is none of us, uk, letters"),
        (spoilt("parts", 1, "make", value=0), "from 1 to 50 times"),
        (spoilt("parts", 1, "make", value=True), "no whole number"),
        (spoilt("parts", 1, "make", value=10**400), "no whole number"),
        (spoilt("parts", 0, "name", value=7), "no text"),
        (spoilt("parts", 0, "name", value="two\nlines"), "one line"),
        (spoilt("parts", 1, "key", value="head"), "one key"),
        (spoilt("parts", 0, "recipe", value={"shape": "cloud"}), "recipe"),
        (spoilt("joins", 0, "tilt", value=181), "tilts"),
        (spoilt("joins", 0, "place", "share", value=0.2), "unknown: share"),
        (spoilt("steps", 0, "join", value="j9"), "names no join"),
        (spoilt("eyes", "between", value=0), "Between the eyes"),
        (spoilt("eyes", "mm", value="8"), "no number"),
        (spoilt("marks", 0, "paired", value="yes"), "neither true nor false"),
        (spoilt("cats", value=1), "unknown: cats"),
    ],
)
def test_a_damaged_file_is_a_sentence_with_its_place(data: Any, said: str) -> None:
    with pytest.raises(CraftError) as refused:
        from_json(data)
    assert said in refused.value.message
    assert "{" not in refused.value.message, "no value is spilt into the sentence"


@pytest.mark.parametrize("text", ["", "{", "[" * 100_000, '{"kind": "design", ' + '"x": [' * 40_000, "R1: 6 sc"])
def test_no_json_is_a_sentence(text: str) -> None:
    with pytest.raises(CraftError):
        read_design(text)


def test_steps_of_a_format_run_in_order() -> None:
    steps = [lambda d: {**d, "seen": ["one"]}, lambda d: {**d, "seen": [*d["seen"], "two"]}]
    assert upgraded({}, steps, "It") == {"format": 3, "seen": ["one", "two"]}
    assert upgraded({"format": 2, "seen": []}, steps, "It") == {"format": 3, "seen": ["two"]}
    with pytest.raises(CraftError, match="newer"):
        upgraded({"format": 4}, steps, "It")


# --- written patterns ---------------------------------------------------------------------


def test_a_pattern_becomes_a_design_and_a_pattern_again() -> None:
    head, leg = HEAD.replace("sc", "dc"), LEG.replace("sc", "dc")
    text = f"Name: Gloomcap\nTerms: UK\nYarn: Peat, Moss\n\n# Head (make 1)\n{head}\n# Leg (make 2)\n{leg}"
    design = design_of(check(text, Terms.UK), text)
    assert (design.name, design.terms, design.yarn_names) == ("Gloomcap", Terms.UK, ("Peat", "Moss", "Main"))
    assert [(p.name, p.make, p.text) for p in design.parts] == [("Head", 1, head), ("Leg", 2, leg)]
    again = pattern_text(design)
    assert design_of(check(again, Terms.UK), again) == design


def test_a_part_stands_before_the_one_that_takes_it_in() -> None:
    body = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 4 sc, work 3 sc through both layers of arm, 5 sc [12]\nR4: 12 sc [12]\n"
    arm = "R1: 6 sc in ring [6]\nR2-R5: 6 sc [6]\n"
    design = Design("x", parts=(Part("b", "Body", body), Part("a", "Arm", arm, 1, "Moss")))
    runs = worked_parts(run_parts(design))
    assert joins_in_rounds(runs) == [("a", "b")]
    assert [p.key for p in made_first(design)] == ["a", "b"]
    assert not [p for p in check(pattern_text(design)).problems if p.code == "no-piece"]


def test_worked_in_limbs_are_counted_once_and_in_their_own_colour() -> None:
    body = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 4 sc, work 3 sc through both layers of arm, 5 sc [12]\nR4: 12 sc [12]\n"
    arm = "R1: 6 sc in ring [6]\nR2-R5: 6 sc [6]\n"
    yarns = (DesignYarn("Peat", "#5a4634", 3), DesignYarn("Moss", "#77834b", 3))
    design = Design("x", yarns=yarns, parts=(Part("b", "Body", body, 1, "Peat"), Part("a", "Arm", arm, 1, "Moss")))
    runs = worked_parts(run_parts(design))
    assert set(made_alone(runs)) == {"b"}
    assert {k: w.make for k, w in loose_copies(runs).items()} == {"b": 1}
    uses = {u.colour: u.metres.value for u in yarn_use(list(loose_copies(runs).values()), Gauge(5, 5), 60)}
    assert set(uses) == {"Peat", "Moss"}, "no phantom yarn"
    alone = {u.colour: u.metres.value for u in yarn_use([replace(runs["a"], make=1)], Gauge(5, 5), 60)}
    assert uses["Moss"] == pytest.approx(alone["Moss"], rel=0.2)


def test_a_copy_that_no_part_takes_in_still_counts() -> None:
    arm = Part("a", "Arm", "R1: 6 sc in ring [6]\nR2-R5: 6 sc [6]\n", 3)
    body = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 4 sc, work 3 sc through both layers of arm, 5 sc [12]\n"
    runs = worked_parts(run_parts(Design("x", parts=(Part("b", "Body", body), arm))))
    assert {k: w.make for k, w in loose_copies(runs).items()} == {"a": 2, "b": 1}


# --- joins --------------------------------------------------------------------------------


def test_openings_meet_stitch_to_stitch_or_the_difference_is_said() -> None:
    worked = worked_parts(run_parts(figure()))
    top = Place("head", 9)
    equal = meeting(Join("j", "leg", "head", top), {**worked, "leg": worked["head"]})
    assert equal is not None
    assert (equal.part, equal.host, equal.manner, equal.problem) == (12, 12, Manner.EDGE, None)
    unequal = meeting(Join("j", "leg", "head", top), worked)
    assert unequal is not None
    assert unequal.problem == "The openings differ, 9 on 12 stitches: make them equal to join them stitch to stitch."
    on_surface = meeting(Join("j", "leg", "head", Place("head", 5)), worked)
    assert on_surface is not None
    assert (on_surface.part, on_surface.host, on_surface.manner) == (9, 0, Manner.OPEN)
    pinched = meeting(Join("j", "leg", "head", Place("head", 5), manner=Manner.PINCHED), worked)
    assert pinched is not None
    assert pinched.problem == "9 stitches do not pinch evenly: an even number closes flat."
    assert meeting(Join("j", "gone", "head"), worked) is None


def test_a_seam_is_as_long_as_its_edge() -> None:
    worked = worked_parts(run_parts(figure()))

    def seam(manner: Manner | None, wide: int | None = None) -> float | None:
        return seam_stitches(Join("j", "leg", "head", Place("head", 5), manner=manner, wide=wide), worked)

    assert (seam(None), seam(Manner.OPEN), seam(Manner.PINCHED)) == (9, 9, 4.5)
    assert (seam(Manner.LAID, 7), seam(Manner.LAID)) == (7, 4.5)
    assert seam(Manner.WORKED_IN) is None
    assert seam(Manner.MERGED) is None


def test_a_place_lies_on_its_joins_host() -> None:
    with pytest.raises(CraftError, match="lies on its host"):
        Join("j", "leg", "head", Place("leg", 2))


# --- anchors ------------------------------------------------------------------------------


def test_a_place_stays_on_the_surface_when_rounds_are_put_in_below_it() -> None:
    design = figure()
    taller = HEAD.replace("R4-R8: 18 sc [18]\nR9", "R4-R13: 18 sc [18]\nR14")
    changed = replace(design, parts=(replace(design.parts[0], text=taller), design.parts[1]))
    place = design.joins[0].place
    assert place is not None
    before, after = (worked_parts(run_parts(d)) for d in (design, changed))
    assert (place.now(before).round, place.now(before).moved) == (8, False)
    now = place.now(after)
    assert now.moved
    assert now.round == round(8 / 9 * 14)
    assert place.resaid(after).round == now.round
    assert place.resaid(after).anchor == place.anchor, "saying it anew does not move it"


def test_an_untouched_place_keeps_its_anchor_and_a_retyped_one_takes_the_rounds() -> None:
    worked = worked_parts(run_parts(figure()))
    first = Place("head", 5, 2).anchored(None, worked)
    assert Place("head", 5, 2).anchored(first, {}).anchor is None, "no rounds, no anchor"
    assert Place("head", 5, 2).anchored(first, worked) == first
    assert Place("head", 6, 2).anchored(first, worked).anchor != first.anchor


@given(st.integers(1, 9), st.integers(-9, 9))
def test_law_a_place_in_unchanged_rounds_never_moves(at: int, stitch: int) -> None:
    worked = worked_parts(run_parts(Design("x", parts=(Part("head", "Head", HEAD),))))
    counts = worked["head"].counts
    stitch = max(-counts[at - 1] // 2 + 1, min(counts[at - 1] // 2, stitch))
    now = Place("head", at, stitch).anchored(None, worked).now(worked)
    assert (now.round, now.stitch, now.moved) == (at, stitch, False)


# --- put together -------------------------------------------------------------------------


def test_loose_parts_are_no_figure() -> None:
    design = figure()
    assert put_together(design, run_parts(design), {}).joined
    apart = replace(design, joins=(), steps=())
    assert not put_together(apart, run_parts(apart), {}).joined
    assert put_together(replace(apart, parts=apart.parts[:1]), run_parts(apart)[:1], {}).joined


def test_a_step_that_names_a_part_which_is_gone_is_told() -> None:
    design = figure()
    gone = replace(design, parts=design.parts[:1])
    assert design.dangling == ()
    assert gone.dangling == ("s1",)


def test_a_step_without_words_still_has_its_place_and_tail() -> None:
    design = figure()
    first = steps_now(put_together(design, run_parts(design), {}))[0]
    assert (first.round, first.stitch) == (8, 3)
    assert first.seam_mm == pytest.approx(9 * 5.0)
    assert first.tail_mm is not None
    assert first.tail_mm > first.seam_mm


def test_what_is_worked_in_says_that_its_tilt_no_longer_counts() -> None:
    from_figure = figure()
    (join,) = from_figure.joins

    def notes(**changes: object) -> tuple[str, ...]:
        design = replace(from_figure, joins=(replace(join, **changes),))  # type: ignore[arg-type]
        return steps_now(put_together(design, run_parts(design), {}))[0].notes

    assert not any("as the rounds make it" in n for n in notes())
    assert any("as the rounds make it" in n for n in notes(manner=Manner.WORKED_IN))
    assert not any("as the rounds make it" in n for n in notes(manner=Manner.WORKED_IN, tilt=0.0))


IN_ROUNDS = HEAD.replace(
    "R4-R8: 18 sc [18]",
    "R4-R7: 18 sc [18]\nR8: 6 sc, 3 sc through the first leg, 6 sc, 3 sc through the second leg [18]",
)
FLAT_LEG = "R1: 6 sc in ring [6]\nR2-R5: 6 sc [6]\nPress flat: 3 sc through both layers [3]\n"


def test_a_step_about_a_part_that_the_rounds_take_in_says_so_before_she_does() -> None:
    joined = (Join("j1", "leg", "head", Place("head", 8, 3), paired=True),)
    steps = figure().steps[:1]

    def step_of(head: str, make: int) -> tuple[str, float | None, tuple[str, ...]]:
        leg = Part("leg", "Leg", FLAT_LEG, make)
        design = Design("Cap", parts=(leg, Part("head", "Head", head)), joins=joined, steps=steps)
        now = steps_now(put_together(design, run_parts(design), {}))[0]
        return now.said, now.seam_mm, now.notes

    said, seam, notes = step_of(IN_ROUNDS, 2)
    assert (said, seam) == ("Worked in, not sewn: Leg.", None)
    assert any("take Leg in already" in note for note in notes)
    said, seam, notes = step_of(HEAD, 2)
    assert said.startswith("Sew Leg on Head, R8")
    assert seam is not None
    assert not any("already" in note for note in notes)
    # Two more are made than the rounds take in: those are sewn.
    assert step_of(IN_ROUNDS, 4)[0].startswith("Sew Leg on Head")


# --- terms --------------------------------------------------------------------------------

UK = """\
Round 1: 6 dc in a magic ring [6]
note: the double line is where it stops
Round 2: (1 dc, 1 inc) x 3 [9]
Round 3: htr, tr, dtr, 6 dc [9]
"""


def test_uk_rounds_mean_the_same_in_us_and_keep_every_other_word() -> None:
    us = converted(UK, Terms.UK, Terms.US)
    assert us == (
        "Round 1: 6 sc in a magic ring [6]\nnote: the double line is where it stops\nRound 2: (1 sc, 1 inc) x 3 [9]\n"
        "Round 3: hdc, dc, tr, 6 sc [9]\n"
    )
    assert converted(us, Terms.US, Terms.UK) == UK
    meant, made = check(UK, Terms.UK).parts[0], check(us, Terms.US).parts[0]
    assert list(meant.graph.kind) == list(made.graph.kind)


def test_letters_are_printed_anew_and_other_lines_stay() -> None:
    text = "R1: 6 sc in ring [6]\nnote: keep me\nR2: 6 inc [12]\n"
    letters = converted(text, Terms.US, Terms.LETTERS)
    assert "note: keep me\n" in letters
    assert check(letters, Terms.LETTERS).parts[0].counts == (6, 12)
    assert check(converted(letters, Terms.LETTERS, Terms.US), Terms.US).parts[0].counts == (6, 12)


def test_what_is_not_understood_is_not_put_into_other_terms() -> None:
    with pytest.raises(CraftError, match="Line 2"):
        converted("R1: 6 dc in ring [6]\nR2: wibble (((\n", Terms.UK, Terms.US)
    assert converted("", Terms.UK, Terms.US) == ""


@given(st.integers(10, 90), st.sampled_from([(Terms.US, Terms.UK), (Terms.UK, Terms.US), (Terms.US, Terms.LETTERS)]))
@settings(max_examples=25, deadline=None)
def test_law_converted_rounds_have_the_same_stitches(size: int, way: tuple[Terms, Terms]) -> None:
    used, other = way
    text = print_part(draft(Recipe(Solid("sphere", size, size)), Gauge(5, 5)).part, used)
    there = converted(text, used, other)
    one, two = check(text, used).parts[0], check(there, other).parts[0]
    assert one.counts == two.counts
    assert list(one.graph.kind) == list(two.graph.kind)


# --- names --------------------------------------------------------------------------------

EVERYDAY = ["12.8 cm", "Ear (left)", "No. 2", "Ухо", "みみ", "أذن", "Cap & stalk", "Zoë’s hat", "3½ in", "1/2"]


@pytest.mark.parametrize("name", EVERYDAY)
def test_names_of_every_script_and_everyday_punctuation(name: str) -> None:
    design = Design(name, parts=(Part("a", name, LEG),))
    assert read_design(written(design)) == design
    text = pattern_text(design)
    again = design_of(check(text), text)
    assert (again.name, [p.name for p in again.parts]) == (name, [name])


@pytest.mark.parametrize("name", ["", " padded", "a\tb", "a\nb", "x" * 61, "bell\x07"])
def test_a_refused_name_is_a_sentence_at_its_field(name: str) -> None:
    with pytest.raises(CraftError) as refused:
        Design(name)
    assert (refused.value.message, refused.value.field) == (
        "A design's name is one line of at most 60 characters.",
        "name",
    )
