"""Rounds of which little but the counts is told, and what no count may hide."""

from __future__ import annotations

import pytest

from craft.rounds.stitches import Terms
from craft.text.check import check
from craft.text.checked import Checked
from craft.text.freehand import times_said
from craft.text.freehand.by_counts import (
    counts_alone,
    counts_gone_to,
    counts_listed,
    follows,
    is_count_alone,
    plain_alone,
)
from craft.text.freehand.drawn_up import drawn_together
from craft.text.freehand.lexer import Vocabulary


def counts_of(found: Checked) -> list[tuple[int, ...]]:
    return [part.counts for part in found.parts]


def codes(found: Checked) -> list[tuple[str, str]]:
    return [(p.place.round or "", p.code) for p in found.problems if p.severity.value != "hint"]


@pytest.mark.parametrize(
    ("language", "told", "live", "counts"),
    [
        (
            "en",
            "Increase to 12, 18, 24 and 30 in the next rounds (6 increases evenly in each)",
            6,
            ("12", "18", "24", "30"),
        ),
        ("en", "Then decrease to 24, then 18 and 12 stitches.", 30, ("24", "18", "12")),
        ("de", "In den nächsten Runden auf 12, 18 und 24 M zunehmen.", 6, ("12", "18", "24")),
        ("fr", "Augmenter jusqu'à 12, 18 et 24 mailles.", 6, ("12", "18", "24")),
        ("es", "Aumentar hasta 12, 18 y 24 puntos.", 6, ("12", "18", "24")),
        ("it", "Aumentare fino a 12, 18 e 24 maglie.", 6, ("12", "18", "24")),
        ("nl", "Meerder tot 12, 18 en 24 steken.", 6, ("12", "18", "24")),
    ],
)
def test_a_sentence_goes_to_counts_one_by_one(language: str, told: str, live: int, counts: tuple[str, ...]) -> None:
    assert counts_gone_to(told, Vocabulary(language), live) == counts


@pytest.mark.parametrize(
    ("told", "live"),
    [
        ("Decrease to 24, 18 and 12.", 18),  # goes the other way first
        ("Increase to 12, 18 and 24, and place the eyes 9 apart.", 6),  # a number that none of them explains
        ("Increase to 12.", 6),  # one count is what other readers read
        ("Increase to 12, 60 and 66.", 6),  # too many at once
        ("Sc to 12, 18 and 24.", 6),
        ("Increase or decrease to 12, 18 and 24.", 6),
    ],
)
def test_what_does_not_go_its_way_is_no_row_of_counts(told: str, live: int) -> None:
    assert counts_gone_to(told, Vocabulary("en"), live) == ()


def test_counts_alone_follow_the_round_below() -> None:
    assert counts_alone("24", 18) == ("24",)
    assert counts_alone("30 x3", 30) == ("30 x3",)
    assert counts_alone("decrease back to 18, then to 12", 24) == ("18", "12")
    assert counts_alone("17", 18) == ()
    assert counts_alone("18", 18) == ()  # as many: a plain round, which another reader has
    assert counts_alone("24 and the eyes", 18) == ()
    assert [is_count_alone(said) for said in ("30 x3", "30", "30 sc")] == [True, True, False]
    assert [follows(12, count) for count in (18, 13, 30)] == [True, False, False]
    assert plain_alone("even, even", Vocabulary("en")) == 2
    assert plain_alone("even out the stuffing", Vocabulary("en")) == 0


def test_a_part_may_be_a_line_of_counts_below_its_name() -> None:
    assert counts_listed("body: 6 / 12 / 18 x3 / close", named=False) == ("body", ["6", "12", "18 x3", "close"])
    assert counts_listed("6 > 12 > 18 > 18 > 12", named=True) == ("", ["6", "12", "18", "18", "12"])
    assert counts_listed("6 > 12 > 18 > 18 > 12", named=False) is None
    assert counts_listed("20 / 50 / 80 / 90", named=True) is None  # sizes of something, and no ring
    assert counts_listed("6 / 12", named=True) is None


def test_changes_and_the_word_even_are_rounds() -> None:
    found = check("Apple core\n6 in ring\n+6 = 12\n+6 = 18\neven, even\n-6 = 12\n")
    assert found.sound
    assert counts_of(found) == [(6, 12, 18, 18, 18, 12)]


def test_a_whole_ball_in_three_sentences() -> None:
    found = check(
        "Ball: start with 6 sc in a magic ring, increase to 12, 18, 24 and 30 in the next rounds. Work 2 rounds even. "
        "Then decrease to 24, 18, 12 and 6.\n"
    )
    assert found.sound
    assert counts_of(found) == [(6, 12, 18, 24, 30, 30, 30, 24, 18, 12, 6)]


def test_shaping_to_a_count_is_never_kept_as_words() -> None:
    found = check("Ball\n6 sc in a magic ring.\nR2: inc around (12)\nDecrease to 9 in the next rounds.\n")
    assert not found.sound


def test_labelled_rounds_may_say_nothing_but_their_counts() -> None:
    assert counts_of(check("Head\nR1: 6 sc in ring\nR2: 12\nR3: 18\nR4: 24\nR5-6: 24\n")) == [(6, 12, 18, 24, 24, 24)]
    slipped = check("Head\nR1: 6 sc in ring\nR2: 12\nR3: 18\nR4: 23\nR5: 24\n")
    assert not slipped.sound


@pytest.mark.parametrize("line", ["17", "16 x2"])
def test_a_count_that_no_round_can_have_is_a_fault(line: str) -> None:
    assert not check(f"head\n6 mr\ninc (12)\n1 inc (18)\n{line}\n24\n").sound


def test_a_number_of_rounds_is_of_the_sentence_that_says_it() -> None:
    found = check("Ball\nR1: 6 sc in ring\nR2: inc x 6 (12). Work 2 rounds even.\nR5: (sc, inc) x 6 (18)\n")
    assert found.sound
    assert counts_of(found) == [(6, 12, 12, 12, 18)]


@pytest.mark.parametrize(
    ("told", "written"),
    [
        ("(draw up a loop in next sc) twice, yarn over and draw through all 3 loops on hook", "dec"),
        ("draw up a loop in each of the next 3 sts, yo, draw through all 4 loops on hook", "3tog"),
        (
            "insert hook in next st, yo, pull up a loop, insert hook in next st, yo, pull up a loop, yo and pull through "
            "all 3 loops on hook",
            "dec",
        ),
    ],
)
def test_a_decrease_may_be_told_by_what_the_hook_does(told: str, written: str) -> None:
    assert drawn_together(told) == written


@pytest.mark.parametrize(
    "told",
    [
        "pull up a loop in each of next 2 sts, yo and pull through all 4 loops",
        "insert hook in next st and draw up a loop, yo and draw through both loops",
        "draw up a loop in next st, yo and draw through 2 loops",
    ],
)
def test_loops_that_are_no_decrease_stay_as_they_are(told: str) -> None:
    assert drawn_together(told) == told


@pytest.mark.parametrize(
    ("language", "words", "many"),
    [
        ("de", "*1 fM, zun* 6x wiederholen", 6),
        ("de", "*1 fM, zun* sechsmal wiederholen", 6),
        ("de", "*1 fM, zun* noch 5x wiederholen", None),
        ("nl", "*1 v, meerd* 6x herhalen", 6),
        ("nl", "*1 v, meerd* nog 5x herhalen", None),
        ("en", "*sc, inc* repeat 5 more times", None),
    ],
)
def test_how_often_may_stand_before_the_verb(language: str, words: str, many: int | None) -> None:
    assert times_said(words, language, Terms.US) == many


def test_times_in_brackets_repeat_what_is_before_them() -> None:
    text = "v1 - 6 pb en anillo mágico\nv2 - 6 aum = 12\nv3 - 1 pb, 1 aum (x{}) = 18\nv4 - 2 pb, 1 aum (x6) = 24\n"
    assert check(text.format(6)).sound
    assert ("R3", "left-over") in codes(check(text.format(5)))


def test_a_word_for_the_plain_stitch_that_nothing_explains_is_told() -> None:
    text = "".join(
        f"v.{k} - {work}\n"
        for k, work in enumerate(
            ("6 mpb en anillo mágico", "6 aum = 12", "1 mpb, 1 aum (x6) = 18", "18 mpb", "1 mpb, 1 dism (x6) = 12"), 1
        )
    )
    found = check(text)
    assert counts_of(found) == [(6, 12, 18, 18, 12)]
    assert codes(found) == [("R1", "guessed-stitch")]
    # Where a plain stitch is known, another word is none of it.
    assert not check(text.replace("18 mpb", "18 pb")).sound


def test_a_part_begins_on_the_last_round_of_another() -> None:
    text = (
        "Cap\nRnd 1: 6 sc in MR (6)\nRnd 2: inc x 6 (12)\nRnd 3: sc around (12)\nFO.\n\nUnderside disc\n"
        "Rnd 1: Attach beige to the front loops of Rnd {} of the cap, sc 12 (12)\nRnd 2: dec x 6 (6)\n"
    )
    found = check(text.format(3))
    assert found.sound
    assert counts_of(found) == [(6, 12, 12), (12, 6)]
    assert not check(text.format(2)).sound  # an earlier round's loops are no edge that this could go on from


@pytest.mark.parametrize("stitch", ["dc", "hdc"])
def test_the_chains_that_a_tall_first_row_skips_may_count(stitch: str) -> None:
    nth, skipped = {"dc": ("4th", 3), "hdc": ("3rd", 2)}[stitch]
    rows = "SCARF (US)\nCh 22.\nRow 1: {0} in {1} ch from hook and in each ch across. Turn. ({2} {0})\n"
    counting, plainly = 22 - skipped + 1, 22 - skipped
    found = check(rows.format(stitch, nth, counting))
    assert found.sound
    assert counts_of(found) == [(counting,)]
    assert any("count as a stitch" in p.message for p in found.problems)
    assert counts_of(check(rows.format(stitch, nth, plainly))) == [(plainly,)]
    assert not check(rows.format(stitch, nth, counting + 2)).sound


@pytest.mark.parametrize(
    ("text", "counts"),
    [
        ("Shell\nRound I: 6 sc into the ring (6)\nRound II: inc around (12)\nRound III: sc around (12)\n", [(6, 12, 12)]),
        (
            "ok so first you make a magic ring and put six single crochets in it\nround two you increase in every stitch so "
            "you have twelve\nrounds three and four you just single crochet, twelve\nand round five just decrease all the "
            "way around, six\n",
            [(6, 12, 12, 12, 6)],
        ),
        ("r1 6fm i. mr\nr2 alle verdoppeln 12\nr3 jede 2. verd. 18\nr4 jede 2.+3. zus. 12\n", [(6, 12, 18, 12)]),
        ("LEGS\nMake two. Cut the yarn.\nR1. Magic ring, 6 sc (6)\nR2. sc in each (6)\n", [(6, 6)]),
        ("paw\nR1 » 5sc in mr » 5\nR2 » inc ×5 » 10\nR3 » sc around » 10\n", [(5, 10, 10)]),
    ],
)  # fmt: skip
def test_labels_and_headings_of_many_manners(text: str, counts: list[tuple[int, ...]]) -> None:
    found = check(text)
    assert found.sound
    assert counts_of(found) == counts


def test_make_two_may_be_one_sentence_of_a_line() -> None:
    found = check("LEGS\nMake two. Cut the yarn after the first.\nR1. Magic ring, 6 sc (6)\nR2. sc in each (6)\n")
    assert [part.make for part in found.parts] == [2]


def test_a_word_in_the_middle_of_a_clause_is_not_explained() -> None:
    """'from your hook: sc in 6 ch' tells work, and not what a hook is."""
    found = check(
        "Boot\nChain 8.\n1. Starting in the second chain from your hook: sc in 6 ch, 4 sc in the last ch. Turn the work so you "
        "can work along the other side of the chain: sc in 5 ch, 3 sc in the last ch. (18)\n2. sc around (18)\n"
    )
    assert found.sound
    assert counts_of(found) == [(18, 18)]
