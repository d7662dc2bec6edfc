"""Lines of a pattern: headings, labels, directions, prose; and what stands behind the work of a round."""

from __future__ import annotations

import pytest

from craft.rounds.pattern import StepKind
from craft.rounds.stitches import Terms
from craft.text.notation import HEAD_KEYS, read, step_kind, words
from craft.text.notation.scanner import LineKind, scan
from craft.text.notation.tails import tail_of


@pytest.mark.parametrize(
    ("line", "name", "make"),
    [
        ("# Body (make 1)", "Body", 1),
        ("## Left wing", "Left wing", 1),
        ("ARMS (make 2)", "ARMS", 2),
        ("Arms - make two", "Arms", 2),
        ("Ears: make 2:", "Ears", 2),
        ("Legs x 4", "Legs", 4),
        ("**Feet** (x2)", "Feet", 2),
        ("Spots (make six times)", "Spots", 6),
    ],
)
def test_headings(line: str, name: str, make: int) -> None:
    (part, *_) = read(f"{line}\nR1: 6 sc in ring [6]").pattern.parts
    assert (part.name, part.make) == (name, make)


@pytest.mark.parametrize(
    "line",
    [
        "This part takes an evening.",
        "Now take the green yarn; it is the thicker one.",
        "I like to work this one in the garden at night",
    ],
)
def test_prose_is_no_heading(line: str) -> None:
    (part,) = read(f"R1: 6 sc in ring [6]\n{line}\nR2: sc around [6]").pattern.parts
    assert part.name is None
    assert [type(i).__name__ for i in part.items] == ["Round", "Note", "Round"]


def test_a_short_line_right_above_the_first_round_is_a_heading() -> None:
    reading = read("Left paw\n\nR1: 6 sc in ring [6]\n\nTail\nRnd 1: 4 sc in ring [4]")
    assert [p.name for p in reading.pattern.parts] == ["Left paw", "Tail"]


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("Insert the eyes between R7 and R8.", StepKind.EYES),
        ("Place the safety eyes now", StepKind.EYES),
        ("Stuff firmly.", StepKind.STUFF),
        ("Add filling as you go.", StepKind.STUFF),
        ("Close the hole.", StepKind.CLOSE),
        ("Draw tight and weave in the tail.", StepKind.CLOSE),
        ("Thread the tail through the front loops of the last 6 stitches.", StepKind.CLOSE),
        ("Fasten off, leaving a tail.", StepKind.FASTEN_OFF),
        ("FO", StepKind.FASTEN_OFF),
        ("Place a marker.", StepKind.MARKER),
        ("Embroider the eyes.", StepKind.EMBROIDER),
        ("Sew the ears on.", StepKind.SEW),
        ("> Take a break.", StepKind.OTHER),
        ("A moth likes the light.", None),
    ],
)
def test_stage_directions(text: str, kind: StepKind | None) -> None:
    assert step_kind(text) is kind


@pytest.mark.parametrize("key", HEAD_KEYS)
def test_the_head_block_stands_before_the_first_part_only(key: str) -> None:
    line = f"{key.capitalize()}: something"
    lines = scan(f"{line}\nR1: 6 sc in ring\n{line}")
    assert [row.kind for row in lines[:2]] == [LineKind.HEAD, LineKind.ROUND]
    assert lines[2].kind is not LineKind.HEAD


def test_lines_keep_their_numbers_whatever_ends_them() -> None:
    for end in ("\n", "\r\n", "\r"):
        lines = scan(f"R1: a{end}{end}R2: b{end}")
        assert [row.number for row in lines] == [1, 3]
        assert lines[1].span.start == 5 + 2 * len(end)


@pytest.mark.parametrize(
    ("text", "work", "count", "fold", "remark"),
    [
        ("sc around [24]", "sc around ", 24, None, None),
        ("(2 sc, inc) x 6 (24)", "(2 sc, inc) x 6 ", 24, None, None),
        ("(2 sc) x 6", "(2 sc) x 6", None, None, None),
        ("sc around [24] (6 rounds)", "sc around ", 24, 6, None),
        ("sc around (6 rnds) [24]", "sc around ", 24, 6, None),
        ("sc around for 3 rounds", "sc around ", None, 3, None),
        ("inc x 6 = 12. Stuff a little.", "inc x 6 ", 12, None, "Stuff a little."),
        ("dec x 6 [6] - close the hole", "dec x 6 ", 6, None, "close the hole"),
        ("sc around. Insert the eyes.", "sc around", None, None, "Insert the eyes."),
        ("[24]", "[24]", None, None, None),
        ("", "", None, None, None),
    ],
)
def test_what_stands_behind_the_work(
    text: str, work: str, count: int | None, fold: int | None, remark: str | None
) -> None:
    tail = tail_of(text)
    said = tail.remark and text[tail.remark.start : tail.remark.end]
    assert (text[: tail.body_end], tail.count, tail.fold, said) == (work, count, fold, remark)
    if tail.count_span is not None:
        assert int(text[tail.count_span.start : tail.count_span.end]) == count


def test_words_for_completion_hold_every_abbreviation() -> None:
    assert {"sc", "inc", "dec", "inv dec", "sl st"} <= set(words(Terms.US))
    assert {"dc", "htr", "ss"} <= set(words(Terms.UK))
    assert {"X", "V", "A"} <= set(words(Terms.LETTERS))
