"""Pieces: taken out of a figure, kept as files, put into others; credits and terms that add up."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.design import Design
from craft.design.joins import EdgeOf, meeting
from craft.design.parts import DesignYarn, Part
from craft.design.permissions import Permissions, Selling
from craft.design.remix import (
    ShelfPiece,
    Slot,
    Use,
    piece_from,
    piece_json,
    piece_of_json,
    piece_written,
    put_in,
    read_piece,
)
from craft.design.running import run_parts, worked_parts
from craft.design.seating import estimated_figure
from craft.design.stored import from_json, to_json
from craft.errors import CraftError
from craft.rounds.stitches import Terms
from tests.craft.figures import HEAD, LEG, design_st, figure
from tests.craft.test_cli import validate
from tests.craft.test_graft import head_with_ears

OPEN = Permissions(rounds=True, selling=Selling.YES)


def owl(**other: Any) -> ShelfPiece:
    design = head_with_ears()
    return ShelfPiece("Owl", piece_from(design, ["head", "ear"]), "head", Slot.HEAD, "Maren Vik", own=False, **other)


# --- taken out -----------------------------------------------------------------------------------


def test_a_piece_holds_its_parts_with_all_that_is_between_them() -> None:
    found = piece_from(head_with_ears(), ["head", "ear"])
    assert [p.key for p in found.parts] == ["head", "ear"]
    assert [j.key for j in found.joins] == ["j1"]
    assert [s.key for s in found.steps] == ["s1"]
    assert found.eyes.place is not None
    assert len(found.marks) == 2


def test_a_piece_leaves_what_is_not_its_own() -> None:
    found = piece_from(head_with_ears(), ["tuft"])
    assert (found.joins, found.steps, found.marks, found.eyes.place) == ((), (), (), None)
    assert [y.name for y in found.yarns] == ["Oat"], "the main yarn, and none that it does not use"


def test_parts_that_a_piece_works_in_come_along() -> None:
    body = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 4 sc, 3 sc through arm and body, 5 sc [12]\n"
    arm = "R1: 6 sc in ring [6]\nR2: 6 sc [6]\n"
    design = Design("x", parts=(Part("b", "Body", body), Part("a", "Arm", arm), Part("c", "Hat", HEAD)))
    assert [p.name for p in piece_from(design, ["b"]).parts] == ["Body", "Arm"]


def test_no_part_is_no_piece() -> None:
    with pytest.raises(CraftError, match="at least one part"):
        piece_from(figure(), ["nobody"])


# --- files ---------------------------------------------------------------------------------------


@given(
    design_st.filter(lambda d: bool(d.parts)),
    st.sampled_from(Slot),
    st.builds(Permissions, st.booleans(), st.sampled_from(Selling), st.booleans(), st.booleans(), st.booleans()),
    st.lists(st.text("abc", min_size=1, max_size=8), max_size=3),
    st.booleans(),
)
@settings(max_examples=60, deadline=None)
def test_law_a_piece_is_the_same_after_its_file(
    design: Design, slot: Slot, permissions: Permissions, tags: list[str], own: bool
) -> None:
    piece = ShelfPiece("Ear", design, design.parts[0].key, slot, "Odo", "2", tuple(tags), permissions, own)
    assert read_piece(piece_written(piece)) == piece
    assert piece_of_json(json.loads(json.dumps(piece_json(piece)))) == piece


def test_a_design_s_file_is_a_piece_of_somebody_else_s() -> None:
    piece = read_piece(json.dumps(to_json(figure())))
    assert (piece.title, piece.own, piece.main) == ("Gloomcap", False, "head")


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"slot": "tail"}, "slot: is none of head, body"),
        ({"main": "nobody"}, "a part that it is used by"),
        ({"title": ""}, "title"),
        ({"tags": ["x" * 40]}, "tag"),
        ({"tags": ["x"] * 20}, "at most 12 tags"),
        ({"permissions": {"selling": "maybe"}}, "is none of yes"),
        ({"permissions": {"credit": "x" * 600}}, "at most 500"),
        ({"cats": 3}, "unknown: cats"),
        ({"design": 3}, "no Spirrel design"),
        ({"designer": "x" * 200}, "at most 120"),
    ],
)
def test_a_damaged_piece_is_a_sentence(change: dict[str, Any], said: str) -> None:
    with pytest.raises(CraftError, match=said):
        piece_of_json({**piece_json(owl()), **change})


# --- put in --------------------------------------------------------------------------------------


def base() -> Design:
    return Design("Base", yarns=(DesignYarn("Peat", "#5a4634", 3),), parts=(Part("body", "Body", HEAD),))


def test_a_piece_comes_with_joins_steps_eyes_marks_yarns_and_its_credit() -> None:
    found = put_in(base(), owl(), Use(on=Place("body", 9)))
    design = found.design
    assert [p.name for p in design.parts] == ["Body", "Head", "Ear"]
    assert [y.name for y in design.yarns] == ["Peat", "Rust"]
    head, ear = found.keys
    assert {(j.part, j.host) for j in design.joins} == {(ear, head), (head, "body")}
    assert design.eyes.place is not None
    assert design.eyes.place.on == head
    assert {m.name for m in design.marks} == {"Beak", "Chin"}
    assert [(s.called, s.parts) for s in design.sources] == [("Owl, version 1.0, by Maren Vik", ("Head", "Ear"))]


@given(st.integers(1, 4))
@settings(max_examples=8, deadline=None)
def test_law_a_piece_may_be_used_as_often_as_is_needed(times: int) -> None:
    design = base()
    for _ in range(times):
        design = put_in(design, owl()).design
    assert len(design.parts) == 1 + 2 * times
    assert len({p.name for p in design.parts}) == len(design.parts)
    assert not any(p.faults for p in run_parts(design))
    assert not design.dangling


def test_colours_by_role() -> None:
    here = replace(base(), yarns=(*base().yarns, DesignYarn("Moss", "#77834b", 3)))
    design = put_in(here, owl(), Use({"Rust": "Moss"})).design
    assert [y.name for y in design.yarns] == ["Peat", "Moss"]
    assert next(p for p in design.parts if p.name == "Ear").colour == "Moss"
    with pytest.raises(CraftError, match="no yarn called Gold"):
        put_in(here, owl(), Use({"Rust": "Gold"}))


def test_colours_within_rounds_are_called_as_here() -> None:
    oat = (DesignYarn("Oat", "#e3cda4", 3), DesignYarn("Rust", "#b5453f", 3))
    text = "R1: 6 sc in ring [6]\nChange to Rust.\nR2: 6 inc [12]\nChange to Oat.\nR3: 12 sc [12]\n"
    piece = ShelfPiece("Cap", Design("Cap", yarns=oat, parts=(Part("c", "Cap", text),)), "c")
    here = replace(base(), yarns=(*base().yarns, DesignYarn("Moss", "#77834b", 3)))
    made = put_in(here, piece, Use({"Rust": "Moss"})).design.parts[1]
    worked = next(p.worked for p in run_parts(replace(here, parts=(made,))))
    assert worked is not None
    assert [t.colours for t in worked.rounds] == [("Main",), ("Moss",), ("Peat",)]


def test_a_piece_in_other_terms_is_read_in_the_figure_s() -> None:
    uk = replace(base(), terms=Terms.UK, parts=())
    assert "6 dc in ring" in put_in(uk, owl()).design.parts[0].text


def test_inside_out_is_said_once() -> None:
    first = put_in(base(), owl(), Use(inside_out=True)).design.parts[1].text
    assert first.count("inside out") == 1
    again = ShelfPiece("Again", Design("A", parts=(Part("a", "A", first),)), "a")
    assert put_in(base(), again, Use(inside_out=True)).design.parts[1].text.count("inside out") == 1


def test_limbs_are_joined_on_both_sides_and_lean_as_limbs_do() -> None:
    arms = ShelfPiece("Arms", Design("Arms", parts=(Part("a", "Arm", LEG, 2),)), "a", Slot.LIMB)
    (join,) = put_in(base(), arms, Use(on=Place("body", 8, 4))).design.joins
    assert join.paired
    assert -75 <= join.tilt <= -35  # hangs, whichever way the surface looks there
    (join,) = put_in(base(), arms, Use(on=Place("body", 8))).design.joins
    assert not join.paired, "in the middle of the front there is no other side"


def test_a_place_on_nothing_is_refused() -> None:
    with pytest.raises(CraftError, match="a part that there is"):
        put_in(base(), owl(), Use(on=Place("nobody", 3)))


def test_files_of_pieces_hold_to_their_schema() -> None:
    validate("piece", piece_json(owl()))
    validate("design", to_json(put_in(base(), owl()).design))


def test_upside_down_it_stands_on_its_first_round() -> None:
    leg = ShelfPiece("Leg", Design("Leg", parts=(Part("a", "Leg", LEG),)), "a")
    up = []
    for upside_down in (True, False):
        found = put_in(base(), leg, Use(upside_down=upside_down, on=Place("body", 9)))
        (join,), (key,) = found.design.joins, found.keys
        _, placed = estimated_figure(found.design, run_parts(found.design))
        up.append(next(p.matrix for p in placed if p.part == key)[:3, 2])
        assert (join.edge is EdgeOf.START) == upside_down
        met = meeting(join, worked_parts(run_parts(found.design)))
        assert (met is None) == upside_down, "its opening is not where it is joined"
    assert up[0] == pytest.approx(-up[1]), "from its first round outwards, or from its opening"


def test_upside_down_comes_back_from_its_file() -> None:
    design = put_in(base(), owl(), Use(upside_down=True, on=Place("body", 9))).design
    assert from_json(to_json(design)) == design
    validate("design", to_json(design))
