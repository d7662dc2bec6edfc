"""Which reading of a round its evidence supports, and what is never taken for evidence."""

from __future__ import annotations

import pytest
from lark import Token

from craft.rounds.stitches import Loops, Terms
from craft.text.check import check
from craft.text.freehand.evidence import Below, choose, even
from craft.text.freehand.lexer import Vocabulary, tokens
from craft.text.freehand.phrases import Said, said
from craft.text.notation.marks import Phrase, handed_over, phrase
from craft.text.notation.names import Names


def no_trial(work: str, count: int | None) -> int | None:
    """No round here comes out when it is worked in full."""
    return None


def below(live: int | None, **more: object) -> Below:
    return Below(live, chained=False, trial=no_trial, **more)  # type: ignore[arg-type]


def ways(text: str) -> tuple[Said, ...]:
    return said(tokens(text, Vocabulary()), text)


def chosen(text: str, live: int, count: int | None) -> tuple[str, bool]:
    found = choose(ways(text), below(live), count)
    return (found.work, found.fits) if found else ("", False)


@pytest.mark.parametrize(
    ("text", "live", "count", "work"),
    [
        ("sc", 12, 12, "sc around"),
        ("sc, inc", 12, 18, "(sc, inc) around"),
        ("2 sc, dec", 24, 18, "(2 sc, dec) around"),
        ("inc 6 times evenly", 12, 18, "(1 sc, inc) x 6"),
        ("dec 6 times evenly", 24, 18, "(2 sc, dec) x 6"),
        ("inc 4 times evenly", 10, 14, "1 sc, inc, 2 sc, inc, 1 sc, inc, 2 sc, inc"),
        ("3 sc and two together, six times", 30, 24, "(3 sc, dec) x 6"),
        ("2 sc + dec x6", 24, 18, "(2 sc, dec) x 6"),
        ("sc firmly in each st", 12, 12, "sc around"),
    ],
)
def test_what_the_count_and_the_round_below_say(text: str, live: int, count: int, work: str) -> None:
    assert chosen(text, live, count) == (work, True)


def test_without_a_count_nothing_goes_without_saying() -> None:
    """The round below alone is no evidence: most short rounds would divide it. A stitch alone can only go around."""
    assert chosen("sc", 12, None) == ("sc around", True)
    assert chosen("1 sc", 12, None) == ("1 sc", False)
    assert chosen("sc, inc", 12, None) == ("sc, inc", False)
    assert chosen("14 sc", 0, None) == ("14 sc", False)


def test_a_first_round_of_a_few_stitches_and_nothing_else_is_a_ring_without_a_count() -> None:
    assert chosen("6 sc", 0, None) == ("6 sc in ring", True)
    assert chosen("3 sc", 0, None) == ("3 sc", False)
    assert chosen("6 sc, turn", 0, None) == ("6 sc, turn", False)


def test_a_ring_is_unsaid_only_for_a_small_first_round() -> None:
    assert choose(ways("6 sc"), below(0), 6) is not None
    first = choose(ways("6 sc"), below(0), 6)
    assert first is not None
    assert (first.work, first.fits, first.why) == ("6 sc in ring", True, "the ring is unsaid")
    many = choose(ways("30 sc"), below(0), 30)
    assert many is not None
    assert not many.fits
    later = choose(ways("6 sc"), below(0, opening=False), 6)
    assert later is not None
    assert not later.fits


def test_a_count_that_does_not_come_out_is_kept_as_it_is_said() -> None:
    found = choose(ways("(3 sc, inc) x 6"), below(24), 31)
    assert found is not None
    assert (found.work, found.fits, found.live) == ("(3 sc, inc) x 6", False, 31)


def test_what_is_worked_once_is_not_repeated_to_the_end() -> None:
    found = choose(ways("ch 1, 24 sc, join"), below(24), 25)
    assert found is not None
    assert "around" not in found.work


def test_words_are_passed_over_only_when_the_sum_works_without_them() -> None:
    found = choose(ways("sc loosely around"), below(16), 16)
    assert found is not None
    assert found.fits
    assert "'loosely' carries no stitches" in found.why
    assert choose(ways("5 sc loosely"), below(16), 16) is None, "it does not: then the word may have mattered"


def test_a_lead_stands_before_every_reading() -> None:
    begun = Below(
        0, chained=False, trial=lambda work, count: 24 if "24 sc" in work else None, lead="in the free loops of R5, "
    )
    found = choose(ways("24 sc"), begun, 24)
    assert found is not None
    assert (found.work, found.fits) == ("in the free loops of R5, 24 sc", True)


def test_rounds_of_which_only_the_count_is_said() -> None:
    assert [even(below(live), count).work for live, count in ((0, 6), (6, 12), (12, 18), (18, 18), (18, 12))] == [  # type: ignore[union-attr]
        "6 sc in ring",
        "6 inc",
        "(1 sc, inc) x 6",
        "sc around",
        "(1 sc, dec) x 6",
    ]
    assert even(below(6), 30) is None, "more than doubled: no increase does that"
    assert even(below(30), 6) is None
    assert even(below(None), 6) is None
    assert even(below(0), 60) is None


def test_pieces_are_known_by_their_names() -> None:
    """A round that takes a piece in is worked behind everything before it."""
    asked: list[str] = []

    def trial(work: str, count: int | None) -> int | None:
        asked.append(work)
        return count

    found = choose(
        (Said("12 sc around the first leg"),),
        Below(0, chained=False, trial=trial, names=Names(("Leg",)), opening=False),
        12,
    )
    assert found is not None
    assert found.fits
    assert asked == ["12 sc around the first leg"]


# --- what the strict reader's lexer hands over ---------------------------------------------


def phrase_of(text: str) -> Phrase:
    return phrase(handed_over(Token("ANY", text, start_pos=10)))


@pytest.mark.parametrize(
    ("text", "n"),
    [
        ("12", 12),
        ("in each of the next two sts", 2),
        ("the first 3 sts", 3),
        ("twice", 2),
        ("in the second chain from hook", 2),
        ("six times", 6),
        ("in next st", 1),
    ],
)
def test_a_phrase_says_its_number_once(text: str, n: int) -> None:
    assert phrase_of(text).number() == n


def test_a_phrase_knows_its_words() -> None:
    skip = phrase_of("skip the next 2 sts")
    assert skip.has("next", "following")
    assert not skip.has("last")
    assert skip.numbers == (2,)
    assert skip.digits is not None
    assert (skip.digits.start, skip.digits.end) == (24, 25)
    assert phrase_of("and then 2 in each of the next 3").behind("in").number() == 3
    assert phrase_of("BLO").loops.value == "back"
    assert phrase_of("around the front posts").loops.value == "front-post"
    assert phrase_of("in both loops").loops.value == "both"
    assert phrase_of("free front loops of R3").side is Loops.FRONT
    assert phrase_of("free loops of R3").side is None


# --- told in sentences ------------------------------------------------------------------------------

THUMB = (
    "Arm (make 2)\n\nR1: 6 sc in a magic ring (6)\nR2: inc x 6 (12)\n"
    "In round three comes the thumb. Work five single crochets, then a bobble in the next stitch, then {last}. "
    "The bobble counts as one stitch, so there are still twelve.\n"
)


def test_a_round_that_is_told_behind_another_sentence_is_worked() -> None:
    found = check(THUMB.format(last="six single crochets"))
    assert found.sound
    assert [r.live for r in found.parts[0].rounds] == [6, 12, 12]


def test_a_labelled_round_in_sentences_is_never_passed_over() -> None:
    found = check(THUMB.format(last="seven single crochets"))
    assert not found.sound, "thirteen stitches over twelve"


@pytest.mark.parametrize(
    ("words", "work"),
    [
        ("increase (that is, two sc in one stitch) in each of the six stitches", "6 inc"),
        ("one single crochet in every one of the twelve stitches", "12 sc"),
        ("12 sc, skip the other 12 sts", "12 sc, skip 12"),
        ("12 sc, skip the remaining 12", "12 sc, skip 12"),
        ("dec over the 1st and the 4th stitch across the hole, 10 sc", "1 dec, 10 sc"),
        ("(sc, dec) x 5, dec in the last st and the joining st, join", "(sc, dec) x 5, 1 sc, join"),
    ],
)
def test_places_told_in_words(words: str, work: str) -> None:
    assert [w.work for w in said(tokens(words, Vocabulary("en", Terms.US)), words)][:1] == [work]


def test_every_two_of_the_stitches_is_not_every_one() -> None:
    words = "one single crochet in every two of the twelve stitches"
    assert "12 sc" not in [w.work for w in said(tokens(words, Vocabulary("en", Terms.US)), words)]


@pytest.mark.parametrize(
    "again", ["Make a second one, do not cut.", "Now make another one.", "Fasten off. Make a second one."]
)
def test_a_second_one_is_made_and_both_are_joined(again: str) -> None:
    found = check(
        f"Bump\nR1: 6 sc in ring (6)\nR2: inc x 6 (12)\n{again}\n\nBody\nWith the second bump still on the hook:\n"
        "R3: 12 sc in second bump, 12 sc in first bump (24)\nR4: sc around (24)\n"
    )
    assert found.sound, found.problems
    assert [(p.name, p.make) for p in found.parts] == [("Bump", 2), ("Body", 1)]
