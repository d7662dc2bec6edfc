"""Everyday spellings, their places, and what cannot be read."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from craft.rounds.pattern import Colour, Join, Note, Repeat, Round, Start, StartKind, Step, StepKind, Work
from craft.rounds.stitches import Loops, Terms
from craft.text.check import check
from craft.text.notation import MOST_LINES, MOST_TEXT, find_terms, print_body, print_part, print_pattern, read, scanner
from craft.text.notation.bodies import read_body
from craft.text.notation.names import Names


def one(text: str, terms: Terms = Terms.US) -> Round:
    reading = read(text, terms)
    assert not reading.problems, reading.problems
    (made,) = reading.pattern.parts[0].rounds
    return made


SIX_INC = (Repeat((Work("sc", 2), Work("inc")), 6),)


@pytest.mark.parametrize(
    "text",
    [
        "R4: (2 sc, inc) x 6 [24]",
        "Rnd 4: (2 sc, inc) x6 (24)",
        "Round 4. [2sc, inc] * 6 {24}",
        "4. (sc 2, inc) 6 times = 24",
        "4) (2 sc, inc) × 6 [24 sts]",
        "R4 - 6x (2 sc, inc) [24]",
        "R4: 6 x (2 sc, inc) → 24",
        "• R4: (sc in next 2 sts, 2 sc in next st) x 6 <24>",
        "R4: *2 sc, inc* x 6 [24]",
        "R4: *2 sc, inc* repeat 6 times [24]",
        "R4: *2 sc, inc; rep from * 5 more times [24]",
        "R4: *2 sc, inc; repeat from * 5 times more [24]",
        "- Rd 4: (sc in each of the next 2 sts, inc) x 6 - 24 sts",
        "R4:\t(2\u00a0single crochets,\u202fincrease) x 6 [24]",
        "r4: (2 SC, INC) X 6 [24]",
        "**R4:** (2 sc, inc) x 6 [24]",
        "R4: 2 sc, inc, repeat 6 times, 24 sts",
        "R4: (2 sc, inc) six times (24 sts)",
    ],
)
def test_one_round_in_many_spellings(text: str) -> None:
    made = one(text)
    assert (made.first, made.last, made.count) == (4, 4, 24)
    assert made.body == SIX_INC


@pytest.mark.parametrize(
    ("text", "body"),
    [
        ("R1: 6 sc in magic ring", (Start(StartKind.RING, 6),)),
        ("R1: MR 6 sc", (Start(StartKind.RING, 6),)),
        ("R1: MR, 6 sc [6]", (Start(StartKind.RING, 6),)),
        ("R1: sc 6 in ring", (Start(StartKind.RING, 6),)),
        ("R1: start with 6 sc into an adjustable ring", (Start(StartKind.RING, 6),)),
        ("R1: magic ring of 6", (Start(StartKind.RING, 6),)),
        ("R1: ch 2, 6 sc in 2nd ch from hook", (Start(StartKind.CHAIN2, 6),)),
        ("R1: 6 sc in second chain", (Start(StartKind.CHAIN2, 6),)),
        ("R2: inc x 6", (Work("inc", 6),)),
        ("R2: inc 6", (Work("inc", 6),)),
        ("R2: 6 inc", (Work("inc", 6),)),
        ("R2: inc around", (Repeat((Work("inc"),), None),)),
        ("R2: 2 sc in each st", (Repeat((Work("inc"),), None),)),
        ("R2: 3 sc in next st", (Work("inc3"),)),
        ("R2: 2 sc in each of next 3 sts", (Work("inc", 3),)),
        ("R2: sc in each st around", (Repeat((Work("sc"),), None),)),
        ("R2: sc in all sts", (Repeat((Work("sc"),), None),)),
        ("R2: dec over next 6 sts", (Work("dec", 3),)),
        ("R2: sc2tog x 3", (Work("dec", 3),)),
        ("R2: inv dec 3", (Work("invdec", 3),)),
        ("R2: sc3tog, sl st", (Work("dec3"), Work("slst"))),
        ("R2: (sc, inc) twice", (Repeat((Work("sc"), Work("inc")), 2),)),
        ("R2: (sc, inc) around", (Repeat((Work("sc"), Work("inc")), None),)),
        ("R2: 3 sc, change to Oat, 3 sc", (Work("sc", 3), Colour("Oat"), Work("sc", 3))),
        ("R2: sc, inc, repeat around", (Repeat((Work("sc"), Work("inc")), None),)),
        ("R2: sc 1, inc 1, repeat 6x", (Repeat((Work("sc"), Work("inc")), 6),)),
        ("R2: *sc, inc* repeat around", (Repeat((Work("sc"), Work("inc")), None),)),
        ("R2: dec six times", (Work("dec", 6),)),
        ("R2: work 12 sc", (Work("sc", 12),)),
        ("R2: inc in first st, sc in next 4, sc in last 2 sts", (Work("inc"), Work("sc", 4), Work("sc", 2))),
        ("R2: with Oat: sc around", (Colour("Oat"), Repeat((Work("sc"),), None))),
        ("R2: in Oat, sc around", (Colour("Oat"), Repeat((Work("sc"),), None))),
        ("R2: sc 3 and then inc", (Work("sc", 3), Work("inc"))),
        ("R2: 6 sc, sl st to first st", (Work("sc", 6), Join())),
        ("R2: 6 sc, join", (Work("sc", 6), Join())),
        ("R2: ((sc, inc) x 2, dec) x 3", (Repeat((Repeat((Work("sc"), Work("inc")), 2), Work("dec")), 3),)),
    ],
)
def test_spellings_of_work(text: str, body: tuple[object, ...]) -> None:
    assert one(text).body == body


def test_loops_for_a_whole_round() -> None:
    for text in (
        "R2: BLO: sc around",
        "R2: sc around in BLO",
        "R2: in the back loops only, sc around",
        "R2: sc in BLO around",
    ):
        assert one(text).loops is Loops.BACK
    assert one("R2: FLO sc around").loops is Loops.FRONT


def test_ranges_and_folds() -> None:
    for text in (
        "R5-R9: sc around [24]",
        "Rounds 5 to 9: sc around (24)",
        "R5–9: sc around [24] (5 rnds)",
        "R5-R9: sc around (24 sts each)",
    ):
        made = one(text)
        assert (made.first, made.last, made.count) == (5, 9, 24)
    assert one("R5: sc around for 5 rounds [24]").last == 9
    wrong = read("R5-R9: sc around [24] (6 rounds)")
    assert [p.code for p in wrong.problems] == ["fold"]
    assert wrong.problems[0].fix is not None
    assert [p.code for p in read("R9-R5: sc around").problems] == ["backward-range"]


def test_parts_steps_notes_and_colours_keep_their_place() -> None:
    text = (
        "Name: Little Moth\nHook: 3 mm\nYarn: Moss, Oat\n\nBody (make 1)\nThis is the lovely part.\n"
        "R1: 6 sc in ring [6]. Insert the eyes later.\nChange to Oat\nR2: inc x 6 [12]\nStuff.\n\nWINGS - make 2\n1: MR 5 [5]\n"
    )
    reading = read(text)
    assert not reading.problems
    body, wings = reading.pattern.parts
    assert (body.name, body.make, wings.name, wings.make) == ("Body", 1, "WINGS", 2)
    kinds = [type(i).__name__ for i in body.items]
    assert kinds == ["Note", "Round", "Step", "Colour", "Round", "Step"]
    assert body.items[2].kind is StepKind.EYES  # type: ignore[union-attr]
    assert reading.pattern.entry("hook") == "3 mm"
    assert print_part(wings, Terms.US) == "# WINGS (make 2)\nR1: 5 sc in ring [5]\n"


def test_repeat_from_star_takes_the_reading_that_fits() -> None:
    six = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\n"
    all_in = read(six + "R3: *sc, inc; rep from * 6 times [18]")
    more = read(six + "R3: *sc, inc; rep from * 5 times [18]")
    assert not all_in.problems
    assert not more.problems
    assert all_in.pattern.parts[0].rounds[2].body == more.pattern.parts[0].rounds[2].body
    neither = read(six + "R3: *sc, inc; rep from * 9 times [18]")
    assert [p.code for p in neither.problems] == ["rep-from"]


@pytest.mark.parametrize(
    ("text", "code", "line", "column", "fix"),
    [
        ("R1: 6 sc in ring\nR2: (2 sc, icn) x 6", "unread", 2, 12, "inc"),
        ("R1: 6 sc in ring\nR2: 2 sc inc", "unread", 2, 10, ", "),
        ("R1: 6 sc in ring\nR2: (sc, inc x 6", "bracket", 2, 5, None),
        ("R1: 6 sc in ring\nR2: sc, frobnicate", "unread", 2, 9, None),
        ("R1:", "no-work", 1, 1, None),
        ("R1: magic ring", "unread", 1, 5, None),
        ("R1: 6 sc in ring\nR2: (" + "(" * 25 + "sc" + ")" * 26, "too-large", 2, 25, None),
        ("R1: 13 sc in next st", "unread", 1, 5, None),
        ("R1: 6 sc in ring\nR2: dec over next 5 sts", "unread", 2, 5, None),
    ],
)
def test_what_cannot_be_read_is_told_with_its_place(
    text: str, code: str, line: int, column: int, fix: str | None
) -> None:
    problem = read(text, Terms.US).problems[0]
    assert (problem.code, problem.place.line, problem.place.column) == (code, line, column)
    assert (problem.fix.text if problem.fix else None) == fix


def test_an_astral_character_counts_once() -> None:
    problem = read("🦔 hedgehog\nR1: 🦔 sc", Terms.US).problems[0]
    assert (problem.place.line, problem.place.column) == (2, 5)


@pytest.mark.parametrize(
    "text",
    [
        "R1: ((((sc) x 99999) x 99999) x 99999) x 99999",
        "R1-R1000000000: sc around",
        "R1-R999999999999999: sc around",
        "x" * (MOST_TEXT + 1),
        "R1: " + "sc, " * 20_000,
        "R1: 6 sc in ring\n" + "sc " * 30_000,
        "R1: 100000 sc in ring\nR2: inc around",
        "\n".join(f"R{i}: 6 sc" for i in range(1, 9_000)),
    ],
)
def test_too_much_is_one_clear_problem(text: str) -> None:
    assert "too-large" in [p.code for p in check(text).problems]


def test_terms_are_declared_inferred_or_assumed() -> None:
    assert find_terms("Terms: UK\nR1: 6 dc in ring").how == "declared"
    by_word = find_terms("R1: 6 sc in ring")
    assert (by_word.used, by_word.how) == (Terms.US, "inferred")
    by_count = find_terms("R1: 6 dc in ring [6]\nR2: inc x 6 [12]")
    assert (by_count.used, by_count.how) == (Terms.UK, "inferred")
    assert "6 dc" in by_count.evidence
    assert find_terms("R1: (2X, V) * 6 (24)").used is Terms.LETTERS
    assert find_terms("R1: 12 dc in ring [12]").how == "assumed"
    assert find_terms("R1: 6 sc in ring, then htr").mixed
    assert find_terms("R1: 6 sc", Terms.UK).how == "chosen"


def test_letters_and_uk_print_and_read() -> None:
    text = "R1: 6 sc in ring [6]\nR2: (sc, inc, dec, inc3, dec3) x 1"
    pattern = read(text, Terms.US).pattern
    assert "(X, V, A, W, M) * 1" in print_pattern(pattern, Terms.LETTERS)
    assert "(dc, inc, dec, inc3, dec3) x 1" in print_pattern(pattern, Terms.UK)
    assert read("R1: (2x, v) x 6", Terms.LETTERS).pattern.parts[0].rounds[0].body == SIX_INC


def test_canonical_bodies() -> None:
    assert print_body((Repeat((Work("sc"),), None),), Terms.US) == "sc around"
    assert print_body((Repeat((Work("sc", 2), Work("inc")), None),), Terms.US) == "(2 sc, inc) around"
    assert print_body((Work("dec", 6),), Terms.US) == "dec x 6"
    assert print_body((Work("sc", 24),), Terms.LETTERS) == "24X"


def test_every_spelling_of_the_documentation_is_read() -> None:
    """Left column of the table in docs/notation.md: every piece of code is understood in a round."""
    table = (Path(__file__).parents[2] / "docs/notation.md").read_text("utf-8").split("## The work of a round")[1]
    rows = [line for line in table.split("## Grammar")[0].splitlines() if line.startswith("| `")]
    assert len(rows) > 30
    left_out: list[str] = []
    for row in rows:
        for words in re.findall(r"`([^`]+)`", row.split(" | ")[0]):
            said = words.replace("…", "sc")
            body = read_body(said, Terms.US, Names(("leg", "wing", "arm", "ear"), ("Oat",)))
            if body.problems:
                left_out.append(f"{words}: {body.problems[0].message}")
    assert left_out == []


def test_a_direction_longer_than_any_keeps_every_word() -> None:
    """It stood there as two thousand signs, and behind a round the whole text was refused."""
    words = "Stuff firmly " + "and count again " * 200 + "before you close."
    for text in (words, f"R1: 6 sc in ring [6] ({words})"):
        items = read(f"{text}\nR2: inc x 6 [12]\n").pattern.parts[0].items
        assert [item.text.strip("()") for item in items if isinstance(item, Note | Step)] == [words]


def test_a_text_past_the_limits_is_read_as_far_as_they_go() -> None:
    rounds = ["R1: 6 sc in ring [6]", *(f"R{n}: sc around [6]" for n in range(2, 2_101)), "R2101: 6 flurp [6]"]
    found = read("\n".join(rounds))
    assert len([i for i in found.pattern.parts[0].items if isinstance(i, Round)]) == 2_000
    assert [p.code for p in found.problems] == ["too-large"]
    assert found.problems[0].place.round == "R2001"


def test_more_lines_than_any_pattern_has_are_refused_at_once() -> None:
    found = read("R1: 6 sc in ring [6]\n" * (MOST_LINES + 1))
    assert [p.code for p in found.problems] == ["too-large"]
    assert f"{MOST_LINES:,} lines" in found.problems[0].message


@pytest.mark.parametrize("many", [486, 3_000])
def test_a_round_of_many_items_is_read_without_deep_recursion(many: int) -> None:
    """A round may list stitch after stitch; the depth of the reader's own calls must not grow with it."""
    made = one(f"R2: {', '.join(['sc', 'inc', 'dec'] * (many // 3))} [{many}]")
    assert len(made.body) == many // 3 * 3


@pytest.mark.parametrize("work", ["(BLO) x 6", "[in FLO] around", "*BLO* 6 times"])
def test_a_repeat_of_nothing_is_told(work: str) -> None:
    found = check(f"R1: 6 sc in ring [6]\nR2: {work}\n")
    assert not found.sound
    assert found.problems[0].place.line == 2


def test_no_direction_is_passed_over_unlooked() -> None:
    """The quick look at a line never hides what the close one would find."""
    texts = [p.read_text("utf-8", "replace") for p in Path(__file__).parent.glob("**/*.txt")]
    lines = {line for text in texts for line in text.splitlines()}
    assert len(lines) > 1_500
    for line in lines:
        close = next((kind for kind, words in scanner._STEPS if words.search(line)), None)
        if close is not None:
            assert scanner.step_kind(line) is close, line


@pytest.mark.parametrize(
    "words", ["through both layers of the arm", "through both layers of arm and body", "through both sides of arm"]
)
def test_both_layers_of_another_part_are_that_part_pressed_flat(words: str) -> None:
    arm = "# Arm\nR1: 6 sc in ring [6]\nR2-R5: 6 sc [6]\n\n"
    checked = check(f"{arm}# Body\nR1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: 4 sc, 3 sc {words}, 5 sc [12]\n")
    assert checked.sound, checked.problems
    assert "Arm" in checked.parts[1].graph.pieces
