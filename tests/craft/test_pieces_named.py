"""Which texts the other parts of a design have a say in, and that no other text is read anew when one of those changes."""

from __future__ import annotations

from dataclasses import replace

import pytest

from benchmarks.grading import typed_designs
from craft.design import running
from craft.design.design import Design
from craft.design.parts import Part
from craft.design.remix import Cut, grafted
from craft.design.running import WorkedOnDemand, forget_texts, run_parts, worked_parts
from craft.text.check import check
from craft.text.pieces_named import speaks_of_pieces

LEG = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R5: 12 sc [12]\n"


@pytest.fixture
def read(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The texts that are read from now on, none of them remembered from before."""
    found: list[str] = []

    def counted(text: str, *more: object) -> object:
        found.append(text)
        return check(text, *more)  # type: ignore[arg-type]

    monkeypatch.setattr(running, "check", counted)
    forget_texts()
    return found


@pytest.mark.parametrize(
    ("text", "speaks"),
    [
        (LEG, False),
        (f"{LEG}Stuff, and leave a long tail for sewing.\n", False),
        (f"{LEG}R6: 12 sc around the first leg, 12 sc around the second leg [24]\n", True),
        (f"{LEG}R6: through the ear and the body 3 sc, 9 sc [12]\n", True),
        ("1. Rd: 6 fM in den Fadenring (6)\n2. Rd: 6 fM am ersten Bein, 6 fM am zweiten Bein (12)\n", True),
        ("1. Rd: 6 fM in den Fadenring (6)\n2. Rd: jede M verdoppeln (12)\n", False),
        ("R1: 6 sc in ring [6]\nR2: 6 sc across Pom\n", True),
    ],
)
def test_texts_that_speak_of_pieces_are_known(text: str, speaks: bool) -> None:
    assert speaks_of_pieces(text, ("Bein", "Pom", "Legs")) is speaks


@pytest.mark.parametrize("design", [design for _, design in typed_designs()], ids=lambda d: d.name)
def test_a_text_that_speaks_of_none_means_the_same_whatever_the_others_are(design: Design) -> None:
    forget_texts()
    ran = {p.key: p.worked for p in run_parts(design)}
    pieces = {w.name: w.piece for w in ran.values() if w is not None and w.name}
    for part in design.parts:
        others = {name: piece for name, piece in pieces.items() if name != part.name}
        known = check(part.text, design.terms, design.yarn_names, part.colour or "Main", others)
        found = next(p.checked for p in run_parts(design) if p.key == part.key)
        assert [(p.code, p.message) for p in found.problems] == [(p.code, p.message) for p in known.problems]
        assert [w.counts for w in found.parts] == [w.counts for w in known.parts]


def test_a_change_of_one_part_reads_no_other_anew(read: list[str]) -> None:
    joined = "R1: 12 sc around the first leg, 12 sc around the second leg [24]\nR2: 24 sc [24]\n"
    ear = "R1: 5 sc in ring [5]\nR2: 5 sc [5]\n"
    design = Design("Elf", parts=(Part("l", "Leg", LEG, 2), Part("b", "Body", joined), Part("e", "Ear", ear)))
    run_parts(design)
    read.clear()
    longer = f"{LEG}R6: 12 sc [12]\n"
    run_parts(replace(design, parts=(Part("l", "Leg", longer, 2), *design.parts[1:])))
    assert sorted(set(read)) == sorted({longer, joined})
    read.clear()
    run_parts(replace(design, parts=(*design.parts[:2], Part("e", "Ear", f"{ear}R3: 5 sc [5]\n"))))
    assert ear not in read
    assert LEG not in read


def test_parts_are_read_when_they_are_asked_for(read: list[str]) -> None:
    design = Design(
        "Elf", parts=(Part("l", "Leg", LEG, 2), Part("e", "Ear", "R1: 5 sc in ring [5]\n"), Part("n", "Note", ""))
    )
    worked = WorkedOnDemand(design)
    assert worked["e"].counts == (5,)
    assert read == ["R1: 5 sc in ring [5]\n"]
    assert "x" not in worked
    assert worked.get("n") is None
    assert (list(worked), len(worked)) == (["l", "e"], 2)
    assert {key: w.counts for key, w in worked.items()} == {
        key: w.counts for key, w in worked_parts(run_parts(design)).items()
    }


def test_a_graft_reads_the_two_parts_that_it_is_made_of(read: list[str]) -> None:
    base = Design("Base", parts=(Part("b", "Body", LEG), Part("o", "Other", f"{LEG}R6: 12 sc [12]\n")))
    piece = Design(
        "Piece", parts=(Part("p", "Head", f"{LEG}R6: (sc, dec) x 4 [8]\n"), Part("q", "Hat", f"{LEG}R6: 6 dec [6]\n"))
    )
    made = grafted(Cut(base, "b", 4), Cut(piece, "p", 5))
    assert made.graft.worked.counts == (6, 12, 12, 12, 12, 8)
    assert set(read) <= {base.parts[0].text, piece.parts[0].text}
