"""Grafts: two parts made one, with what sits on the piece; ports and adapter rounds."""

from __future__ import annotations

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, Mark, Source, Step
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.remix import Adapt, Cut, adapter_counts, flat_growth, graft, grafted, ports_along, ports_of
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.gauge import ASSUMED, Gauge
from craft.rounds.stitches import Terms
from craft.shape.drafting import Recipe, draft
from craft.shape.target import Form, Solid
from craft.text.check import check
from craft.text.notation import print_rounds
from tests.craft.test_cli import as_json, run

BODY = (
    "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R8: 24 sc [24]\n"
    "Stuff firmly.\nR9: (2 sc, dec) x 6 [18]\nR10: (sc, dec) x 6 [12]\nR11: 6 dec [6]\nFasten off and close.\n"
)
TAIL = (
    "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3-R6: 12 sc [12]\nPlace the eyes between R4 and R5.\n"
    "R7: in back loops, 12 sc [12]\nR8: (sc, inc) x 6 [18]\nR9-R10: 18 sc [18]\nStuff lightly up to R9.\n"
    "R11: (sc, dec) x 6 [12]\nR12: 6 dec [6]\nFasten off and close.\n"
)


def base(text: str = BODY, **other: Any) -> Design:
    return Design("Base", parts=(Part("body", "Body", text),), **other)


def piece(text: str = TAIL, **other: Any) -> Design:
    return Design("Piece", parts=(Part("tail", "Tail", text),), **other)


def text_of(
    k: int, j: int, adapt: Adapt | None = None, below: Design | None = None, above: Design | None = None
) -> str:
    made = graft(Cut(below or base(), "body", k), Cut(above or piece(), "tail", j), adapt)
    return print_rounds(made.part, Terms.US)


# --- the rounds -------------------------------------------------------------------------------


def test_edges_of_one_count_go_on_without_a_round_between() -> None:
    made = graft(Cut(base(), "body", 10), Cut(piece(), "tail", 7))
    text = print_rounds(made.part, Terms.US)
    assert (made.base, made.piece, made.adapters, made.scale) == (12, 12, 0, 1.0)
    assert "R10: (sc, dec) x 6 [12]\nR11: BLO: 12 sc [12]\nR12: (sc, inc) x 6 [18]" in text
    assert "Stuff lightly up to R13." in text, "words that name a round of the piece name it as it is now"
    assert check(text).sound


def test_other_counts_need_a_word_of_hers() -> None:
    with pytest.raises(CraftError, match="24 stitches after R6, Tail goes on from 12 at R7"):
        text_of(6, 7)


def test_adapter_rounds_go_from_the_one_count_to_the_other() -> None:
    made = graft(Cut(base(), "body", 6), Cut(piece(), "tail", 7), Adapt.ROUNDS)
    assert made.adapters == 2
    assert made.worked.counts[5:9] == (24, 18, 12, 12)
    assert "2 adapter rounds behind R6." in made.told


def test_a_graded_piece_has_the_base_s_count() -> None:
    made = graft(Cut(base(), "body", 6), Cut(piece(), "tail", 7), Adapt.GRADE)
    assert made.scale == 2
    assert made.adapters == 0
    assert made.worked.counts[6] == 24
    assert max(made.worked.counts) == 36, "twice the 18 of the piece"


def test_directions_of_both_sides_are_sorted_out_and_told() -> None:
    made = graft(Cut(base(), "body", 11), Cut(piece(), "tail", 12), Adapt.ROUNDS)
    text = print_rounds(made.part, Terms.US)
    assert text.count("close") == 1, "only the end closes"
    assert any("Left out, as the part goes on: “Fasten off and close." in t for t in made.told)
    assert any("Gone with the piece's first rounds: “Place the eyes" in t for t in made.told)
    made = graft(Cut(base(), "body", 6), Cut(piece(), "tail", 7), Adapt.ROUNDS)
    assert any("Gone with the rounds above the cut: “Stuff firmly.”" in t for t in made.told)


def test_what_both_halves_ask_for_is_told() -> None:
    made = graft(Cut(base(), "body", 10), Cut(piece(), "tail", 7))
    assert any(t.startswith("Stuffing is begun in both halves") for t in made.told)


def test_joined_rounds_on_a_spiral_are_told() -> None:
    joined = "R1: 6 sc in ring, join [6]\nR2: ch 1, 6 inc, join [12]\nR3: ch 1, 12 sc, join [12]\nR4: ch 1, 12 sc, join [12]\n"
    made = graft(Cut(base(), "body", 10), Cut(piece(joined), "tail", 4))
    assert any("a spiral below the cut" in t for t in made.told)


@pytest.mark.parametrize(
    ("k", "j", "said"),
    [
        (12, 7, "Body cannot be cut at R12; its first tube has R1 to R11"),
        (6, 1, "begins from nothing"),
        (6, 40, "Tail cannot be cut"),
    ],
)
def test_a_cut_that_there_is_not_is_a_sentence(k: int, j: int, said: str) -> None:
    with pytest.raises(CraftError, match=said):
        text_of(k, j, Adapt.ROUNDS)


def test_rows_do_not_go_on_as_rounds() -> None:
    start = "Ch 13\nRow 1: sc in 2nd ch from hook and in each ch across [12]\n"
    rows = piece(start + "".join(f"Row {n}: ch 1, turn, 12 sc [12]\n" for n in (2, 3)))
    with pytest.raises(CraftError, match="worked in rounds there, Tail in rows"):
        text_of(10, 2, None, above=rows)


def test_a_part_with_faults_is_mended_first() -> None:
    with pytest.raises(CraftError, match="mend its rounds first"):
        text_of(
            3, 7, Adapt.ROUNDS, below=base("R1: 6 sc in ring [6]\nR2: 6 inc [13]\nR3: (sc, inc) x 6 [18]\nR4: 18 sc\n")
        )


def test_loops_of_a_round_that_is_left_behind_are_refused() -> None:
    skirt = (
        TAIL.replace("Fasten off and close.\n", "Close.\n") + "R13: join yarn in free front loops of R6, 12 sc [12]\n"
    )
    assert check(skirt).sound
    with pytest.raises(CraftError, match="loops of R6, which is not taken along"):
        text_of(10, 8, Adapt.ROUNDS, above=piece(skirt))


def test_loops_that_come_along_have_their_new_number() -> None:
    skirt = (
        TAIL.replace("Fasten off and close.\n", "Close.\n") + "R13: join yarn in free front loops of R6, 12 sc [12]\n"
    )
    text = text_of(10, 6, None, above=piece(skirt))
    assert "R11" in text
    assert "loops of R11" in text, text
    assert check(text).sound


FOOTED = (
    "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 12 sc [12]\nR4: in back loops, 12 sc [12]\nR5: 12 sc [12]\n"
    "R6: 6 dec [6]\nFasten off and close.\n## Foot\nR1: rejoin in the free front loops of R3, 12 sc [12]\nR2: 12 sc [12]\n"
)


def test_what_is_numbered_anew_under_a_heading_stays_so_and_finds_its_loops() -> None:
    assert check(FOOTED).sound, check(FOOTED).problems
    text = text_of(10, 3, None, above=piece(FOOTED))
    assert "## Foot\nR1:" in text
    assert "loops of R11" in text
    assert check(text).sound, check(text).problems


def test_the_main_yarn_by_either_name_is_no_change_of_colour() -> None:
    yarns = (DesignYarn("Oat", "#e3cda4", 3), DesignYarn("Rust", "#b5453f", 3))
    text = "R1: 6 sc in ring [6]\nChange to Rust.\nR2: 6 inc [12]\nR3: 12 sc [12]\nChange to Oat.\nR4-R5: 12 sc [12]\n"
    here = base(yarns=(DesignYarn("Peat", "#5a4634", 3),))
    found = grafted(Cut(here, "body", 10), Cut(piece(text, yarns=yarns), "tail", 5))
    assert "Change" not in found.design.parts[0].text
    rusty = grafted(Cut(here, "body", 10), Cut(piece(text, yarns=yarns), "tail", 3))
    assert "R10: (sc, dec) x 6 [12]\nChange to Rust\nR11" in rusty.design.parts[0].text
    assert [y.name for y in rusty.design.yarns] == ["Peat", "Rust"]


# --- laws ---------------------------------------------------------------------------------------


solids = st.builds(
    Solid,
    st.sampled_from(["sphere", "egg", "cone", "capsule"]),
    st.integers(40, 90).map(float),
    st.integers(30, 70).map(float),
)


def rounds_of(solid: Solid) -> str:
    return print_rounds(draft(Recipe(Form(solid)), ASSUMED).part)


@given(solids, solids, st.floats(0.2, 0.9), st.floats(0.2, 0.9), st.sampled_from(Adapt))
@settings(max_examples=60, deadline=None)
def test_law_a_graft_of_two_sound_parts_is_sound(one: Solid, two: Solid, low: float, high: float, adapt: Adapt) -> None:
    below, above = base(rounds_of(one)), piece(rounds_of(two))
    counts = [w.counts for d in (below, above) if (w := run_parts(d)[0].worked) is not None]
    k, j = max(1, round(low * len(counts[0]))), max(2, round(high * len(counts[1])))
    try:
        made = graft(Cut(below, "body", k), Cut(above, "tail", j), adapt)
    except CraftError as error:
        assert adapt is Adapt.GRADE, error.message  # noqa: PT017
        return
    checked = check(print_rounds(made.part, Terms.US))
    assert checked.sound, checked.problems
    assert checked.parts[0].counts == made.worked.counts
    assert made.worked.counts[:k] == counts[0][:k], "the base stays as it is"
    if adapt is Adapt.ROUNDS:
        assert made.worked.counts[k + made.adapters :] == counts[1][j - 1 :], "the piece stays as it is"


@given(st.integers(3, 200), st.integers(3, 200), st.floats(3, 12), st.floats(3, 12))
@settings(max_examples=200, deadline=None)
def test_law_adapter_rounds_are_no_steeper_than_flat_and_never_more_than_double(
    a: int, b: int, w: float, h: float
) -> None:
    gauge = Gauge(w, h)
    try:
        counts = adapter_counts(a, b, gauge)
    except CraftError:
        return
    assert (counts == ()) == (a == b)
    for x, y in zip((a, *counts), counts, strict=False):
        assert max(x, y) <= 2 * min(x, y)
    assert not counts or counts[-1] == b
    many = len(counts)
    assert abs(b - a) / max(many, 1) <= max(1, flat_growth(gauge) + 0.5), "on the whole no steeper than a flat disc"


# --- the figure ---------------------------------------------------------------------------------


EAR = "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R4: 9 sc [9]\n"


def head_with_ears() -> Design:
    ball = BODY.replace("Stuff firmly.\n", "Stuff firmly.\n")
    return Design(
        "Owl",
        yarns=(DesignYarn("Oat", "#e3cda4", 3), DesignYarn("Rust", "#b5453f", 3)),
        parts=(Part("head", "Head", ball), Part("ear", "Ear", EAR, 2, "Rust"), Part("tuft", "Tuft", EAR)),
        joins=(
            Join("j1", "ear", "head", Place("head", 8, 3), manner=Manner.OPEN, paired=True),
            Join("j2", "tuft", "ear", Place("ear", 3)),
            Join("j3", "tuft", "head", Place("head", 1)),
        ),
        eyes=Eyes(EyeKind.SAFETY, 8, Place("head", 7), 6),
        marks=(Mark("m1", "Beak", Place("head", 8, 0)), Mark("m2", "Chin", Place("head", 2))),
        steps=(Step("s1", "Sew the ears on.", "ear", "j1"),),
    )


def figure_of(k: int = 4, j: int = 6) -> Any:
    here = base(yarns=(DesignYarn("Peat", "#5a4634", 3),))
    return grafted(Cut(here, "body", k), Cut(head_with_ears(), "head", j), None, Source("Owl", "Maren Vik", "1.2"))


def test_what_sits_on_the_piece_comes_along_with_its_yarn_its_place_and_its_step() -> None:
    found = figure_of()
    design = found.design
    assert [p.name for p in design.parts] == ["Body", "Ear", "Tuft"]
    assert [y.name for y in design.yarns] == ["Peat", "Rust"], "the piece's main yarn is the base's"
    ear = next(p for p in design.parts if p.name == "Ear")
    sewn = next(j for j in design.joins if j.part == ear.key)
    assert (sewn.host, sewn.paired, sewn.place and sewn.place.round) == ("body", True, 7), "R8 of the head is R7 now"
    assert [s.text for s in design.steps][:1] == ["Sew the ears on."]
    assert [j.host for j in design.joins] == ["body", ear.key], (
        "what sat below the cut stays away, what sits on an ear comes"
    )
    assert (design.eyes.place and design.eyes.place.round, design.eyes.mm) == (6, 8)
    assert [m.name for m in design.marks] == ["Beak"]


def test_the_piece_is_credited() -> None:
    (source,) = figure_of().design.sources
    assert (source.called, source.parts) == ("Owl, version 1.2, by Maren Vik", ("Body",))


def test_names_that_are_taken_get_a_number() -> None:
    here = Design("Base", parts=(Part("body", "Body", BODY), Part("ear", "Ear", EAR)))
    found = grafted(Cut(here, "body", 4), Cut(head_with_ears(), "head", 6))
    assert [p.name for p in found.design.parts] == ["Body", "Ear", "Ear 2", "Tuft"]
    assert len({p.key for p in found.design.parts}) == 4


def test_places_below_the_cut_stay_and_those_above_are_told() -> None:
    joins = (Join("j1", "arm", "body", Place("body", 3, 2)), Join("j2", "hat", "body", Place("body", 10)))
    parts = (Part("body", "Body", BODY), Part("arm", "Arm", EAR), Part("hat", "Hat", EAR))
    here = Design("Base", parts=parts, joins=joins)
    found = grafted(Cut(here, "body", 6), Cut(piece(), "tail", 9), Adapt.ROUNDS)
    places = [j.place and j.place.round for j in found.design.joins]
    assert places[0] == 3
    assert any(t.startswith("Hat sat on R10, above the cut; it is at R") for t in found.told)


def test_eyes_of_both_are_told_and_the_base_s_stay() -> None:
    here = base(eyes=Eyes(EyeKind.EMBROIDERED, None, Place("body", 3), 4))
    found = grafted(Cut(here, "body", 4), Cut(head_with_ears(), "head", 6))
    assert found.design.eyes.kind is EyeKind.EMBROIDERED
    assert "Both have eyes; the base's were kept." in found.told


def test_another_gauge_is_told() -> None:
    other = replace(head_with_ears(), gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 8.0, 7.4))
    found = grafted(Cut(base(), "body", 4), Cut(other, "head", 6))
    assert any("comes out 30% smaller" in t for t in found.told)


def test_a_piece_in_other_terms_is_read_in_the_base_s() -> None:
    uk = replace(piece(), terms=Terms.UK, parts=(Part("tail", "Tail", TAIL.replace("sc", "dc")),))
    found = grafted(Cut(base(), "body", 10), Cut(uk, "tail", 7))
    assert found.design.parts[0].text == text_of(10, 7)


def test_parts_that_the_piece_works_in_come_along() -> None:
    host = BODY.replace(
        "R5-R8: 24 sc [24]",
        "R5: 24 sc [24]\nR6: 4 sc, work 3 sc through both layers of Ear, 17 sc [24]\nR7-R8: 24 sc [24]",
    )
    ear = "R1: 6 sc in ring [6]\nR2: 6 sc [6]\n"
    two = Design("Worked in", parts=(Part("head", "Head", host), Part("ear", "Ear", ear)))
    assert not any(p.faults for p in run_parts(two))
    found = grafted(Cut(base(), "body", 6), Cut(two, "head", 5))
    assert [p.name for p in found.design.parts] == ["Body", "Ear"]
    assert not any(p.faults for p in run_parts(found.design))


# --- ports --------------------------------------------------------------------------------------


def test_open_ends_are_ports() -> None:
    found = ports_of(head_with_ears())
    assert [(p.name, p.round, p.count, p.end) for p in found] == [("Ear", 4, 9, True), ("Tuft", 4, 9, True)]
    assert found[0].girth_mm == pytest.approx(9 * ASSUMED.stitch_mm)


def test_every_round_of_the_first_tube_is_a_port() -> None:
    found = ports_along(base(), "body")
    assert [p.count for p in found] == [6, 12, 18, 24, 24, 24, 24, 24, 18, 12, 6]
    assert not any(p.end for p in found)
    assert ports_along(base(), "nobody") == ()


# --- on the command line --------------------------------------------------------------------------


@pytest.fixture
def files(tmp_path: Path) -> tuple[str, str]:
    (tmp_path / "base.txt").write_text(f"# Body\n{BODY}")
    (tmp_path / "piece.txt").write_text(f"# Tail\n{TAIL}")
    return str(tmp_path / "base.txt"), str(tmp_path / "piece.txt")


GRAFT = ("--part", "body", "--upto", "6", "--from", "7")


def test_graft_diff_and_apply_come_full_circle(
    capsys: pytest.CaptureFixture[str], files: tuple[str, str], tmp_path: Path
) -> None:
    data = as_json(capsys, "graft", "graft", files[0], *GRAFT, "--then", files[1], "--adapt", "rounds")
    assert data["port"] == {"base": 24, "piece": 12, "adapter_rounds": 2}
    made = tmp_path / "made.json"
    made.write_text(json.dumps(data["design"]))
    found = as_json(capsys, "diff", "diff", files[0], str(made))
    assert "rounds more behind" in found["text"]
    written = tmp_path / "difference.json"
    written.write_text(json.dumps(found))
    assert as_json(capsys, "apply", "apply", files[0], str(written))["design"] == data["design"]


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (GRAFT, "Put rounds between, or grade the piece"),
        ((*GRAFT[:1], "wing", *GRAFT[2:]), "there are Body"),
        ((*GRAFT, "--piece", "wing"), "there are Tail"),
        ((*GRAFT, "--adapt", "glue"), "invalid choice"),
    ],
)
def test_a_graft_that_cannot_be_is_one_line(
    capsys: pytest.CaptureFixture[str], files: tuple[str, str], words: tuple[str, ...], said: str
) -> None:
    code, out, err = run(capsys, "graft", files[0], *words, "--then", files[1])
    assert (code, out, err.count("\n")) == (2, "", 1)
    assert said in err


def test_a_difference_of_another_base_is_one_line(
    capsys: pytest.CaptureFixture[str], files: tuple[str, str], tmp_path: Path
) -> None:
    assert run(capsys, "diff", files[0], files[0])[1] == "Nothing differs.\n"
    (tmp_path / "d.json").write_text(json.dumps(as_json(capsys, "diff", "diff", *files)))
    code, _, err = run(capsys, "apply", files[1], str(tmp_path / "d.json"))
    assert (code, err.count("\n")) == (2, 1)
    assert "made for another base" in err
