"""Pieces: taken out of a figure, kept as files, put into others; credits and terms that add up."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.anchors import Place
from craft.design.design import Design, Printed, Source
from craft.design.joins import Join
from craft.design.parts import DesignYarn, Part
from craft.design.permissions import Permissions, Selling
from craft.design.remix import (
    MOST_SEED,
    SLOTS,
    ShelfPiece,
    Slot,
    Use,
    compared,
    credits_of,
    drawn,
    piece_from,
    piece_json,
    piece_of_json,
    piece_written,
    put_in,
    read_piece,
)
from craft.design.running import run_parts
from craft.design.stored import to_json
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
    assert (join.paired, join.tilt) == (True, -35.0)
    (join,) = put_in(base(), arms, Use(on=Place("body", 8))).design.joins
    assert not join.paired, "in the middle of the front there is no other side"


def test_a_place_on_nothing_is_refused() -> None:
    with pytest.raises(CraftError, match="a part that there is"):
        put_in(base(), owl(), Use(on=Place("nobody", 3)))


# --- credits -------------------------------------------------------------------------------------


def made_of(*sources: Source, permissions: str = "") -> Design:
    return Design("Mix", sources=sources, printed=Printed(permissions=permissions))


def source(title: str, *, parts: tuple[str, ...] = (), **allowed: Any) -> Source:
    return Source(title, f"{title}'s designer", "1.0", permissions=Permissions(**allowed), parts=parts)


def test_sources_add_up_each_once() -> None:
    found = credits_of(made_of(source("Ear", parts=("Ear",)), source("Ear", parts=("Ear 2",)), source("Hat")))
    assert [(s.title, s.parts) for s in found.sources] == [("Ear", ("Ear", "Ear 2")), ("Hat", ())]
    assert found.lines[0] == "Ear and Ear 2 worked from Ear, version 1.0, by Ear's designer."


def test_a_designer_s_own_line_of_credit_is_printed_as_it_is() -> None:
    assert credits_of(made_of(source("Ear", credit="Ears by the sea."))).lines == ("Ears by the sea.",)


@pytest.mark.parametrize(
    ("sources", "permissions", "said"),
    [
        (
            [source("A", selling=Selling.NO)],
            "You may sell what you make.",
            "A, version 1.0, by A's designer forbids it",
        ),
        ([source("A", selling=Selling.ASK)], "You may sell what you make.", "wants to be asked first"),
        ([source("A", selling=Selling.NO), source("B", selling=Selling.YES, alike=True)], "", "forbids it"),
        ([source("A", alike=True), source("B", alike=True, rounds=True)], "", "which differ"),
    ],
)
def test_terms_that_do_not_go_together_are_told_with_what_causes_them(
    sources: list[Source], permissions: str, said: str
) -> None:
    found = credits_of(made_of(*sources, permissions=permissions))
    assert any(said in c for c in found.conflicts), found.conflicts


def test_terms_that_go_together_are_quiet() -> None:
    found = credits_of(
        made_of(source("A", rounds=True), source("B", rounds=True), permissions="You may sell what you make.")
    )
    assert (found.conflicts, found.blocked, found.private) == ((), (), ())


@pytest.mark.parametrize(
    ("one", "blocked", "private"),
    [
        (source("A", change=False), "may not be changed", "may not be changed"),
        (source("A"), "publish yours as a difference", None),
        (source("A", difference=False), "may not be published again", "changes to it may not be published"),
        (Source("A"), "its terms are not known", None),
        (Source("A", own=True), None, None),
        (source("A", rounds=True), None, None),
    ],
)
def test_what_blocks_a_release(one: Source, blocked: str | None, private: str | None) -> None:
    found = credits_of(made_of(one))
    assert (blocked is None) == (found.blocked == ())
    assert (private is None) == (found.private == ())
    assert blocked is None or blocked in found.blocked[0]
    assert private is None or private in found.private[0]


def test_permissions_are_said_in_words() -> None:
    said = " ".join(
        Permissions(change=False, selling=Selling.NO, difference=False, alike=True, words="Ask me.").sentences
    )
    for words in (
        "not be changed",
        "may not be sold",
        "not be published again",
        "Changes to it",
        "same terms",
        "Ask me.",
    ):
        assert words in said


# --- compared ------------------------------------------------------------------------------------


def words_of(a: str, b: str) -> tuple[str, ...]:
    designs = [Design("x", parts=(Part("p", "Body", t),)) for t in (a, b)]
    return compared(*designs).parts[0].words


@pytest.mark.parametrize(
    ("was", "now", "said"),
    [
        ("R4-R8: 18 sc [18]", "R4-R8: 18 hdc [18]", "R4 to R8: other stitches."),
        ("R4-R8: 18 sc [18]", "R4-R8: BLO: 18 sc [18]", "R4 to R8: other loops."),
        ("R3: (sc, inc) x 6 [18]", "R3: (inc, sc) x 6 [18]", "R3: shaped at other places."),
        ("R4-R8: 18 sc [18]", "R4-R8:  18 sc  [18]", ""),
    ],
)
def test_what_differs_in_a_round_is_said(was: str, now: str, said: str) -> None:
    assert words_of(HEAD, HEAD.replace(was, now)) == ((said,) if said else ())


def test_more_stitches_are_counted() -> None:
    wider = HEAD.replace("R4-R8: 18 sc [18]", "R4: (2 sc, inc) x 6 [24]\nR5-R7: 24 sc [24]\nR8: (2 sc, dec) x 6 [18]")
    more, back = words_of(HEAD, wider)
    assert more == "R4 to R7 have 6 more each."
    assert back == "R8: shaped at other places."


def test_joins_that_moved_and_sums_are_said() -> None:
    here = figure()
    there = replace(
        here,
        joins=(replace(here.joins[0], place=Place("head", 6, 3)),),
        parts=(here.parts[0], replace(here.parts[1], make=3)),
    )
    found = compared(here, there)
    assert "Leg (left) on Head: 2 rounds nearer its start, at R6 instead of R8." in found.words
    assert found.parts[1].words == ("Made 3 times, was 2 times.",)
    assert any(s.endswith("stitches more") for s in found.sums)


def test_parts_that_came_and_went_are_said() -> None:
    a = Design("a", parts=(Part("p", "Body", HEAD), Part("q", "Leg", LEG)))
    b = Design("b", parts=(Part("p", "Body", HEAD), Part("r", "Wing", LEG)))
    found = {p.name: p.words for p in compared(a, b).parts}
    assert found == {"Body": (), "Leg": ("Not there any more.",), "Wing": ("New, 6 rounds.",)}


def test_a_join_in_another_place_around_is_said() -> None:
    here = replace(figure(), joins=(Join("j1", "leg", "head", Place("head", 8, 3)),))
    there = replace(here, joins=(Join("j1", "leg", "head", Place("head", 8, -3)),))
    assert "Leg (left) on Head: elsewhere around, still at R8." in compared(here, there).words


# --- drawn by lot -----------------------------------------------------------------------------------


def simple(title: str, slot: Slot, text: str, make: int = 1, designer: str = "Odo") -> ShelfPiece:
    design = Design(title, yarns=(DesignYarn("Oat", "#e3cda4", 3),), parts=(Part("p", title, text, make),))
    return ShelfPiece(title, design, "p", slot, designer, permissions=OPEN, own=False)


OPEN_BODY = HEAD
NECK_12 = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: (sc, inc) x 6 [18]\nR4-R5: 18 sc [18]\nR6: (sc, dec) x 6 [12]\n"
NECK_9 = NECK_12 + "R7: (2 sc, dec) x 3 [9]\n"
SHELF = (
    simple("Body", Slot.BODY, OPEN_BODY),
    simple("Owl", Slot.HEAD, NECK_12),
    simple("Mole", Slot.HEAD, NECK_12, designer="Petra"),
    simple("Goose", Slot.HEAD, NECK_9),
    simple("Arm", Slot.LIMB, LEG, 2),
    simple("Cap", Slot.ON_TOP, "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: (sc, inc) x 6 [18]\n"),
    simple("Broken", Slot.HEAD, "R1: 6 sc in ring [6]\nR2: 6 inc [13]\nR3: 12 sc [12]\n"),
)
EVERY = {Slot.BODY: 3, Slot.HEAD: 5, Slot.LIMB: 1, Slot.ON_TOP: 0}


@given(st.dictionaries(st.sampled_from(SLOTS), st.integers(0, MOST_SEED)), st.booleans())
@settings(max_examples=60, deadline=None)
def test_law_the_same_numbers_draw_the_same_figure_and_what_is_drawn_is_sound(
    seeds: dict[Slot, int], misfits: bool
) -> None:
    one, two = (drawn("Lot", SHELF, seeds, misfits=misfits) for _ in range(2))
    assert one == two
    assert not any(p.faults for p in run_parts(one.design))
    assert {lot.slot for lot in one.lots} == set(seeds)
    for lot in one.lots:
        assert lot.at is None or SHELF[lot.at].slot is lot.slot
        assert lot.at is None or SHELF[lot.at].title != "Broken"
        assert misfits or not lot.misfit


@given(st.integers(0, MOST_SEED))
@settings(max_examples=40, deadline=None)
def test_law_redrawing_one_slot_leaves_the_others(seed: int) -> None:
    lots = [drawn("Lot", SHELF, {**EVERY, Slot.HEAD: s}).lots for s in (5, seed)]
    assert [a.at for a in lots[0] if a.slot is not Slot.HEAD] == [b.at for b in lots[1] if b.slot is not Slot.HEAD]


def test_only_heads_that_fit_the_body_are_drawn_unless_others_are_asked_for() -> None:
    titles = {SHELF[lot.at].title for s in range(60) for lot in drawn("Lot", SHELF, {**EVERY, Slot.HEAD: s}).lots
              if lot.slot is Slot.HEAD and lot.at is not None}  # fmt: skip
    assert titles == {"Owl", "Mole"}
    misfits = {lot.misfit for s in range(60) for lot in drawn("Lot", SHELF, {**EVERY, Slot.HEAD: s}, misfits=True).lots
               if lot.slot is Slot.HEAD}  # fmt: skip
    assert misfits == {"", "its neck has 9 stitches, the body 12: adapter rounds between them"}


def test_a_drawn_figure_is_put_together_and_credited() -> None:
    found = drawn("Lot", SHELF, EVERY).design
    names = {p.key: p.name for p in found.parts}
    assert {(names[j.part], names[j.host]) for j in found.joins} >= {
        ("Arm", "Body"),
        ("Cap", names[found.parts[1].key]),
    }
    assert len(found.sources) == len(found.parts)
    assert len(found.yarns) == 1, "yarns of one name are one"


def test_pieces_without_a_yarn_are_drawn_as_well() -> None:
    bare = tuple(replace(p, design=replace(p.design, yarns=())) for p in SHELF)
    assert len(drawn("Lot", bare, EVERY).design.parts) == 4


@given(st.integers(0, MOST_SEED), st.booleans())
@settings(max_examples=30, deadline=None)
def test_law_what_is_held_stays_whatever_is_drawn_beside_it(seed: int, misfits: bool) -> None:
    goose = next(k for k, p in enumerate(SHELF) if p.title == "Goose")
    found = drawn("Lot", SHELF, {Slot.BODY: seed, Slot.HEAD: seed}, {Slot.HEAD: goose}, misfits=misfits)
    head = next(lot for lot in found.lots if lot.slot is Slot.HEAD)
    assert (head.at, head.misfit[:8]) == (goose, "its neck")


def test_what_is_held_has_to_be_there() -> None:
    for at in (-1, 99, 0):
        with pytest.raises(CraftError, match="not there any more"):
            drawn("Lot", SHELF, {}, {Slot.HEAD: at})


def test_a_slot_without_a_piece_stays_empty_and_a_number_that_is_none_is_refused() -> None:
    found = drawn("Lot", SHELF, {Slot.HELD: 3})
    assert (found.lots[0].at, found.design.parts) == (None, ())
    with pytest.raises(CraftError, match="from 0 to 9,999"):
        drawn("Lot", SHELF, {Slot.BODY: -1})


def test_files_of_pieces_hold_to_their_schema() -> None:
    validate("piece", piece_json(owl()))
    validate("design", to_json(put_in(base(), owl()).design))
