"""Figures drawn by lot from pieces."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.design import Design
from craft.design.parts import DesignYarn, Part
from craft.design.remix import MOST_SEED, SLOTS, ShelfPiece, Slot, drawn
from craft.design.running import run_parts
from craft.errors import CraftError
from tests.craft.figures import HEAD, LEG
from tests.craft.test_pieces import OPEN

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


@pytest.mark.parametrize(
    ("limb", "host"), [("Arm", "Arm"), ("Front paw", "Front paw"), ("Booted leg", "Body"), ("Tail", "Body")]
)
def test_a_thing_is_held_in_a_hand_or_before_the_body(limb: str, host: str) -> None:
    shelf = (
        simple("Body", Slot.BODY, OPEN_BODY),
        simple(limb, Slot.LIMB, LEG, 2),
        simple("Lantern", Slot.HELD, "R1: 4 sc in ring [4]\nR2: sc around [4]\n"),
    )
    figure = drawn("Lot", shelf, {Slot.BODY: 1, Slot.LIMB: 1, Slot.HELD: 1}).design
    join = next(j for j in figure.joins if figure.part(j.part).name == "Lantern")
    assert figure.part(join.host).name == host
    assert join.place is not None
    assert join.place.stitch == 0
