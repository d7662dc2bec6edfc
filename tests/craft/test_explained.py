"""Editions that explain less, or are for the left hand, and the order of parts: what must stay, stays."""

from __future__ import annotations

from dataclasses import replace

import pytest

from craft.design.anchors import Place
from craft.design.design import Design, Printed, Step
from craft.design.mirrored import mirrored
from craft.design.part_order import part_order
from craft.design.parts import Part
from craft.design.running import run_parts, worked_parts
from craft.document.booklet import (
    CountTable,
    Document,
    Explained,
    Imprint,
    Rounds,
    as_text,
    compose,
    explained_less,
    manuscript_of,
)
from craft.rounds.stitches import Language, Terms
from craft.text.catalogue import ENGLISH
from tests.craft.figures import figure


def book(design: Design | None = None, **more: object) -> Document:
    of = design or figure()
    return compose(manuscript_of(of, run_parts(of), replace(Imprint("Fern", Terms.US, ""), **more)))  # type: ignore[arg-type]


def less(how: Explained) -> str:
    return as_text(explained_less(book(), how, ENGLISH))


def test_full_is_the_whole() -> None:
    assert explained_less(book(), Explained.FULL, ENGLISH) == book()


@pytest.mark.parametrize("how", list(Explained))
def test_safety_materials_and_steps_are_in_every_edition(how: Explained) -> None:
    text = less(how)
    for needed in (
        "can choke",
        "certifies nothing",
        "Hook: 3 mm",
        "Brush it.",
        "HEAD" if how is None else "Head (make 1)",
    ):
        assert needed in text, needed


def test_short_names_stitches_and_leaves_out_how_they_are_worked() -> None:
    text = less(Explained.SHORT)
    assert "sc: single crochet\n" in text
    assert "yarn over" not in text
    assert "R1: 6 sc in ring [6]" in text


def test_rounds_alone() -> None:
    text = less(Explained.ROUNDS)
    assert "R1: 6 sc in ring [6]" in text
    assert "GAUGE" not in text
    assert "A small mushroom." not in text


def test_counts_stand_for_rounds_and_say_what_is_done_between() -> None:
    whole = book()
    document = explained_less(whole, Explained.COUNTS, ENGLISH)
    part = next(s for s in document.sections if s.key == "part-Head")
    assert not any(isinstance(b, Rounds) for b in part.blocks)
    (table,) = (b for b in part.blocks if isinstance(b, CountTable))
    assert table.rows[1] == ("R2", 12, 6)
    typed = replace(figure(), parts=(replace(figure().parts[0], text=figure().parts[0].text + "Stuff firmly.\n"),))
    text = as_text(explained_less(book(typed), Explained.COUNTS, ENGLISH))
    assert "After R9: Stuff firmly." in text


def test_the_left_hand_has_every_place_on_the_other_side() -> None:
    one = replace(figure(), steps=(*figure().steps, Step("s3", "Sew it to the left, clockwise.")))
    lop = replace(one, joins=(replace(one.joins[0], paired=False),))
    right, left = as_text(book(lop)), as_text(book(lop, left=True))
    assert "3 stitches to the left of the front middle" in right
    assert "3 stitches to the right of the front middle" in left
    assert "Sew it to the right, anticlockwise." in left
    assert "For the left hand:" in left
    rounds = [line for line in right.splitlines() if line.startswith("R")]
    assert [line for line in left.splitlines() if line.startswith("R")] == rounds, "rounds are the same for both hands"


def test_mirrored_twice_is_as_it_was() -> None:
    assert mirrored(mirrored(figure())) == figure()
    assert mirrored(figure()).joins[0].place == Place("head", 8, -3, mirrored(figure()).joins[0].place.anchor)  # type: ignore[union-attr]


def test_the_left_hand_has_sides_exchanged_in_other_languages_as_well() -> None:
    said = "Sew it to the left, clockwise."
    one = replace(figure(), steps=(*figure().steps, Step("s3", said), Step("s4", "Fold the right ear.")))
    lop = replace(one, joins=(replace(one.joins[0], paired=False),))
    told = {said: "Links annähen, im Uhrzeigersinn."}
    imprint = Imprint("x", Terms.US, "", language=Language.GERMAN, told=told, left=True)
    text = as_text(compose(manuscript_of(lop, run_parts(lop), imprint)))
    assert "Rechts annähen, gegen den Uhrzeigersinn." in text
    assert "Fold the left ear. [nicht übersetzt]" in text
    assert "Für die linke Hand:" in text
    assert "3 Maschen rechts" in text
    plain = as_text(compose(manuscript_of(lop, run_parts(lop), replace(imprint, left=False))))
    assert "Links annähen, im Uhrzeigersinn." in plain
    rounds = [line for line in plain.splitlines() if line.startswith("Rd")]
    assert rounds
    assert [line for line in text.splitlines() if line.startswith("Rd")] == rounds


ARM = "R1: 6 sc in ring [6]\nR2-R4: 6 sc [6]\n"
BODY = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 3 sc, 3 sc through Arm, 6 sc [12]\n"


def test_a_part_that_is_taken_in_is_printed_before_its_host() -> None:
    design = Design("x", parts=(Part("b", "Body", BODY), Part("t", "Tail", ARM), Part("a", "Arm", ARM)))
    worked = worked_parts(run_parts(design))
    assert part_order(worked) == ("a", "b", "t")
    assert part_order(worked, ("t", "b", "gone")) == ("t", "a", "b")
    printed = replace(design, printed=Printed(order=("t",)))
    keys = [s.key for s in book(printed).sections if s.level == 2]
    assert keys == ["part-Tail", "part-Arm", "part-Body"]


@pytest.mark.parametrize(
    ("texts", "said"),
    [
        (("R1: 6 sc in ring [6]\nR2-R3: 6 sc [6]\nStuff firmly.\n",) * 2, ["All parts are stuffed."]),
        (
            ("R1: 6 sc in ring [6]\nStuff firmly.\n", "R1: 6 sc in ring [6]\nDo not stuff.\n"),
            ["Stuffed: A.", "Not stuffed: B."],
        ),
        (("R1: 6 sc in ring [6]\n",) * 2, []),
    ],
)
def test_what_is_stuffed_follows_from_the_parts(texts: tuple[str, str], said: list[str]) -> None:
    design = Design("x", parts=tuple(Part(n.lower(), n, t) for n, t in zip("AB", texts, strict=True)))
    lines = as_text(book(design)).splitlines()
    assert [line[2:] for line in lines if "tuffed" in line and line.startswith("- ")] == said


@pytest.mark.parametrize(
    ("round_", "said"),
    [
        ("R2: dec x 3 [3]", "Every decrease is the plain one."),
        ("R2: invdec x 3 [3]", "Every decrease is the invisible one."),
        ("R2: (dec, invdec, 2 sc) [4]", "Decreases are plain or invisible, as each round says."),
        ("R2: 6 sc [6]", ""),
    ],
)
def test_which_decrease_is_worked_is_said_once(round_: str, said: str) -> None:
    design = Design("x", parts=(Part("a", "A", f"R1: 6 sc in ring [6]\n{round_}\n"),))
    lines = [line[2:] for line in as_text(book(design)).splitlines() if "ecrease" in line and line.startswith("- ")]
    assert lines == ([said] if said else [])
