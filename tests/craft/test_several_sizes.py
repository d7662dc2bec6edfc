"""One pattern for several sizes: what is written for all reads back, for any of them, to exactly that one."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from craft.design.grading import pattern_for_all, scaled
from craft.design.running import run_parts
from craft.errors import CraftError
from craft.rounds.pattern import Note, Part, Section, Step
from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.notation import print_rounds
from craft.text.several_sizes import head_line, names_in, of_size, part_for_all
from tests.craft.programs import parts as random_parts
from tests.craft.test_cli import as_json, run
from tests.craft.test_grading import demo, first

NAMES = ("S", "M", "L")
BALL = (
    "# Ball\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R7: sc around [18]\nStuff.\n"
    "R8: (sc, dec) x 6 [12]\nR9: dec x 6 [6]\nClose.\n"
)


@pytest.mark.parametrize("name", ["Garden Snail", "Bat"])
def test_the_demo_in_three_sizes_reads_back_to_each(name: str) -> None:
    figure = first(demo(name))
    sizes = [scaled(figure, k) for k in (1.0, 1.3, 1.8)]
    text = pattern_for_all(sizes, NAMES)
    assert names_in(text) == NAMES
    for called, sized in zip(NAMES, sizes, strict=True):
        own = of_size(text, called)
        for part in sized.parts:
            assert print_rounds(part.written, figure.design.terms) in own
        found = check(own)
        assert found.sound, found.problems[:2]
        assert {p.name: p.counts for p in found.parts} == {p.source.name: p.worked.counts for p in sized.parts}


@settings(max_examples=60)
@given(st.lists(random_parts("Part"), min_size=2, max_size=4))
def test_any_parts_read_back_to_themselves(parts: list[Part]) -> None:
    """Whatever stands side by side, each comes back as it was printed."""
    assume(
        not any(isinstance(i, Note | Step | Section) and ": " in getattr(i, "text", "") for p in parts for i in p.items)
    )
    names = ["XS", "S", "M", "L"][: len(parts)]
    text = head_line(names) + "\n" + part_for_all(parts, names, Terms.US)
    for name, part in zip(names, parts, strict=True):
        assert of_size(text, name) == print_rounds(part, Terms.US)


def written(*texts: str) -> str:
    parts = [check(t).reading.pattern.parts[0] for t in texts]
    return part_for_all(parts, NAMES[: len(texts)], Terms.US)


def test_numbers_stand_side_by_side_and_what_is_alike_stands_once() -> None:
    other = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5-R9: sc around [24]\n"
    text = written("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4-R6: sc around [18]\n", other)
    assert text.splitlines() == [
        "R1: 6 sc in ring [6]",
        "R2: inc x 6 [12]",
        "R3: (sc, inc) x 6 [18]",
        "- (R4): (2 sc, inc) x 6 [24]",
        "R4-R6 (R5-R9): sc around [18 (24)]",
    ]


def test_other_work_stands_size_by_size() -> None:
    text = written("R1: 6 sc in ring [6]\nR2: inc x 6 [12]\n", "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\n")
    assert text.splitlines()[1] == "R2: S: inc x 6 [12]; M: (sc, inc) x 3 [9]"


def test_line_numbers_can_be_kept() -> None:
    text = "Sizes: S (M)\nR1: 6 sc in ring [6]\n- (R2): inc x 6 [12]\nR2 (R3): sc around [6 (12)]\n"
    assert of_size(text, "S", keep_lines=True) == "\nR1: 6 sc in ring [6]\n\nR2: sc around [6]\n"
    assert of_size(text, "M") == "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: sc around [12]\n"


@pytest.mark.parametrize("names", [("S",), ("S", "S"), ("S", "M, L"), ("S (a)", "M"), ("", "M")])
def test_names_that_cannot_stand_in_a_pattern_are_refused(names: tuple[str, ...]) -> None:
    part = check(BALL).reading.pattern.parts[0]
    with pytest.raises(CraftError):
        part_for_all([part] * len(names), names, Terms.US)


def test_a_size_that_is_not_there_is_named() -> None:
    with pytest.raises(CraftError, match="no size 'XL'; its sizes are S, M"):
        of_size("Sizes: S (M)\n", "XL")
    with pytest.raises(CraftError, match="its sizes are one only"):
        of_size(BALL, "S")
    assert names_in(BALL) == ()


# --- the command line -------------------------------------------------------------------------------


@pytest.fixture
def ball(tmp_path: Path) -> str:
    path = tmp_path / "ball.txt"
    path.write_text(BALL)
    return str(path)


def test_sizes_are_written_checked_and_read_one_by_one(
    capsys: pytest.CaptureFixture[str], ball: str, tmp_path: Path
) -> None:
    words = ("--stitch", "5", "--round", "4.6", "--heights", "30,45,70", "--names", "S,M,L")
    data = as_json(capsys, "sizes", "sizes", ball, *words)
    assert [s["name"] for s in data["sizes"]] == list(NAMES)
    assert [s["height_mm"] for s in data["sizes"]] == pytest.approx([30, 45, 70], abs=3)
    all_sizes = tmp_path / "all.txt"
    all_sizes.write_text(data["text"])
    checked = as_json(capsys, "check", "check", str(all_sizes))
    assert checked["sound"]
    assert [s["name"] for s in checked["sizes"]] == list(NAMES)
    code, out, _ = run(capsys, "sizes", str(all_sizes), "--only", "M")
    assert code == 0
    assert check(out).parts[0].counts == tuple(data["sizes"][1]["parts"][0]["counts"])
    spoilt = data["text"].replace("R1: 6 sc in ring [6]", "R1: 6 sc in ring [7]")
    all_sizes.write_text(spoilt)
    code, out, _ = run(capsys, "check", str(all_sizes))
    assert code == 1
    assert out.startswith("S: line ")
    assert json.dumps(out).count("R1 says 7") == 3


@pytest.mark.parametrize(
    ("words", "says"),
    [
        ((), "2 to 12 heights"),
        (("--heights", "40"), "2 to 12 heights"),
        (("--heights", "40,tall"), "numbers in mm"),
        (("--heights", "40,60", "--names", "S"), "--names names 1"),
        (("--heights", "40,60", "--names", "S,S"), "one name"),
        (("--only", "M"), "no size 'M'"),
    ],
)
def test_wishes_for_sizes_that_are_none(
    capsys: pytest.CaptureFixture[str], ball: str, words: tuple[str, ...], says: str
) -> None:
    code, out, err = run(capsys, "sizes", ball, "--stitch", "5", "--round", "4.6", *words)
    assert (code, out) == (2, "")
    assert says in err


def test_parts_are_written_before_those_that_take_them_in() -> None:
    figure = first(demo("Bat"))
    text = pattern_for_all([figure, scaled(figure, 1.5)], ("small", "large"))
    assert text.index("# Ears") < text.index("# Body")
    assert len(run_parts(figure.design)) == text.count("# ") - text.count("## ")
