"""What makings teach: measured against predicted, testers' remarks, reports on paper, what is left open."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.gauge import Estimate
from craft.making import (
    LEAST_MAKINGS,
    Pair,
    Quantity,
    fold,
    grouped,
    heat,
    learned,
    left_open,
    pairs_of,
    read_reports,
    sample_of,
)
from craft.making.happenings import (
    DidOtherwise,
    Done,
    Finished,
    Measure,
    Measured,
    Otherwise,
    Remark,
    Remarked,
    Reported,
    Weighed,
)
from craft.making.letters import invitation, reminder, thanked, thanks
from tests.craft.test_making import NOON, log, sheet

MADE = sheet()


def pair(ratio: float, maker: str = "Rowan", quantity: Quantity = Quantity.HEIGHT) -> Pair:
    return Pair(quantity, "height", maker, 100.0, 100.0 * ratio)


def test_of_fewer_than_three_makings_nothing_is_fitted() -> None:
    (two,) = learned([pair(1.1, "a"), pair(1.2, "b"), pair(1.3, "b")])
    assert (two.makers, two.ratio, two.share) == (2, None, None)
    estimate = Estimate.around(100, 0.2, "estimated")
    assert two.narrowed(estimate) == estimate


def test_a_size_that_was_measured_is_kept_with_what_it_was_measured_against() -> None:
    (three,) = learned([pair(1.10, "a"), pair(1.12, "b"), pair(1.11, "c")])
    made = three.made(100.0)
    assert made is not None
    assert (made.ratio, made.makers, made.of_mm) == (pytest.approx(1.11), 3, 100.0)
    assert made.corrected(Estimate.around(101, 0.2, "estimated")).value == pytest.approx(1.11 * 101)
    other = Estimate.around(140, 0.2, "estimated")
    assert made.corrected(other) == other, "a figure of other rounds is not the one that was made"
    (girths,) = learned([pair(1.1, n, Quantity.GIRTH) for n in ("a", "b", "c")])
    (two,) = learned([pair(1.1, "a"), pair(1.1, "b")])
    assert girths.made(100.0) is None
    assert two.made(100.0) is None


def test_from_three_on_the_middle_holds_and_one_slip_of_the_tape_does_not_move_it() -> None:
    (three,) = learned([pair(1.10, "a"), pair(1.12, "b"), pair(1.11, "c")])
    (slip,) = learned([pair(1.10, "a"), pair(1.12, "b"), pair(1.11, "c"), pair(1.9, "d")])
    assert three.ratio == pytest.approx(1.11)
    assert slip.ratio is not None
    assert abs(slip.ratio - 1.11) < 0.01
    narrowed = three.narrowed(Estimate.around(100, 0.2, "estimated"))
    assert narrowed.value == pytest.approx(111)
    assert narrowed.high - narrowed.low < 40
    assert "3 makings" in narrowed.how


def test_what_is_hardly_the_same_thing_is_shown_and_not_reckoned_with() -> None:
    (found,) = learned([pair(1.0, "a"), pair(1.0, "b"), pair(1.0, "c"), pair(10.0, "inches")])
    assert (found.ratio, found.makers, len(found.pairs)) == (1.0, LEAST_MAKINGS, 4)


@given(st.lists(st.floats(0.6, 1.8), min_size=3, max_size=9))
def test_the_middle_lies_among_the_makings(ratios: list[float]) -> None:
    (found,) = learned([pair(r, f"maker {i}") for i, r in enumerate(ratios)])
    assert found.ratio is not None
    assert min(ratios) - 1e-9 <= found.ratio <= max(ratios) + 1e-9
    assert found.share is not None
    assert 0.03 <= found.share <= 0.6


def test_who_measures_often_counts_once() -> None:
    (found,) = learned([pair(1.0, "a"), pair(1.0, "b"), *[pair(2.0, "eager")] * 20])
    assert found.ratio == 1.0


def test_measures_are_held_against_what_the_edition_says() -> None:
    girth = MADE.rung("ball", 3)
    assert girth is not None
    around = girth.count * MADE.stitch_mm
    progress = fold(
        log(Measured(Measure.GIRTH, around * 1.1, "ball", 3), Measured(Measure.HEIGHT, MADE.height_mm * 0.9))
    )
    found = {p.quantity: p for p in pairs_of(MADE, progress, "Rowan")}
    assert found[Quantity.GIRTH].ratio == pytest.approx(1.1)
    assert found[Quantity.HEIGHT].ratio == pytest.approx(0.9)
    sample = sample_of(MADE, list(found.values()))
    assert sample is not None
    assert sample.stitch_mm == pytest.approx(MADE.stitch_mm * 1.1)
    assert sample.round_mm == pytest.approx(MADE.round_mm * 0.9)


def test_her_own_gauge_is_reckoned_with_before_the_figure_is() -> None:
    """A tester in thicker yarn makes a larger figure, which is no fault of the prediction."""
    progress = fold(log(Measured(Measure.HEIGHT, MADE.height_mm * 1.5)))
    (found,) = pairs_of(MADE, progress, "Rowan", measures_by=(MADE.stitch_mm * 1.5, MADE.round_mm * 1.5))
    assert found.ratio == pytest.approx(1.0)


def test_yarn_and_time_count_only_of_what_is_finished() -> None:
    begun = log(Weighed("Moss", 50, False), Weighed("Moss", 40, True), Done("ball", 1, 1), Done("ball", 1, 2))
    assert pairs_of(MADE, fold(begun), "Rowan") == ()
    done = [*begun, *log(Finished(), device="later", begin=NOON + 600_000)]
    hours = [p for p in pairs_of(MADE, fold(done), "Rowan") if p.quantity is Quantity.HOURS]
    assert hours[0].predicted == 120
    told = log(Reported(minutes=150), device="report", begin=NOON + 700_000)
    (said,) = [p for p in pairs_of(MADE, fold([*done, *told]), "Rowan") if p.quantity is Quantity.HOURS]
    assert said.measured == 150


def test_no_length_measured_is_no_sample() -> None:
    assert sample_of(MADE, []) is None
    assert sample_of(MADE, [pair(30.0)]) is None


TESTERS = [
    (
        "Rowan",
        fold(log(Remarked(Remark.UNCLEAR, "ball", 3, "Which inc?"), Remarked(Remark.LIKED, "ball", 3), device="r")),
    ),
    ("Sorrel", fold(log(Remarked(Remark.UNCLEAR, "ball", 3, "Lost here."), device="s"))),
    (
        "Teasel",
        fold(log(DidOtherwise("ball", 1, 7, Otherwise.COUNT, many=13), Remarked(Remark.WRONG_COUNT), device="t")),
    ),
]


def test_what_several_say_of_one_place_is_one_group_and_comes_first() -> None:
    groups = grouped(MADE, TESTERS)
    first = groups[0]
    assert (first.place, first.what, first.testers) == ("Ball R3", "unclear", 2)
    assert [s.text for s in first.said] == ["Which inc?", "Lost here."]
    assert {g.what for g in groups} == {"unclear", "liked", "otherwise", "wrong-count"}
    assert [g.place for g in groups if g.what == "wrong-count"] == ["The whole pattern"]


def test_heat_counts_testers_who_stumbled_and_no_praise() -> None:
    assert heat(grouped(MADE, TESTERS), "ball", 8) == (0, 0, 2, 0, 0, 0, 1, 0)


def test_a_release_waits_for_answers_and_not_for_praise() -> None:
    groups = grouped(MADE, TESTERS)
    found = list(left_open(MADE, groups, {}, ["first", "Tall"], ["first"], ()))
    assert [f.code for f in found].count("remark") == 3
    assert [f.told for f in found if f.code == "untested-size"] == ["Nobody has made the size Tall yet."]
    answered = {g.key: len(g.said) for g in groups}
    assert not [f for f in left_open(MADE, groups, answered, [], [], ()) if f.blocks]


def test_a_figure_that_everybody_makes_higher_blocks() -> None:
    tall = learned([pair(1.3, n) for n in ("a", "b", "c")])
    assert [f.code for f in left_open(MADE, (), {}, [], [], tall)] == ["height"]
    near = learned([pair(1.05, n) for n in ("a", "b", "c")])
    assert not list(left_open(MADE, (), {}, [], [], near))


PAPER = """Tester;Part;Round;Kind;Text
Rowan;Ball;R3;unclear;Which inc?
Rowan;ball;7;did otherwise;13 stitches
Sorrel;;;liked;The eyes!
Sorrel;Ball;R30;unclear;x
Teasel;Tail;1;unclear;x
Teasel;Ball;R1;sang;x
;Ball;R1;unclear;x
"""


def test_reports_on_paper_become_events_and_what_cannot_is_told_by_line() -> None:
    found = read_reports(PAPER, MADE, NOON)
    assert {name: len(events) for name, events in found.by_tester.items()} == {"Rowan": 2, "Sorrel": 1}
    assert [u.line for u in found.unread] == [5, 6, 7, 8]
    assert [u.why.split(":")[0] for u in found.unread][:2] == ["Ball has no round “R30”.", "There is no part “Tail”"]
    again = read_reports(PAPER, MADE, NOON + 5)
    assert [e.id for e in again.by_tester["Rowan"]] == [e.id for e in found.by_tester["Rowan"]], "twice is once"


@pytest.mark.parametrize("text", ["", "a,b\n1,2\n", "hello"])
def test_what_is_no_table_of_reports_is_refused_in_words(text: str) -> None:
    with pytest.raises(CraftError, match="has to name the columns"):
        read_reports(text, MADE, NOON)


def test_letters_say_the_link_the_day_and_nothing_that_is_not_known() -> None:
    asked = invitation("Lanternwick", "Ball", "Rowan", "Is R3 clear?", None, "https://example/make/x")
    assert "https://example/make/x" in asked.body
    assert "Is R3 clear?" in asked.body
    assert "no day by which" in asked.body
    assert "not been begun" in reminder("Lanternwick", "Ball", "Rowan", None, 0).body
    assert "40%" in reminder("Lanternwick", "Ball", "Rowan", None, 0.4).body
    assert "2 of your remarks" in thanks("Lanternwick", "Ball", "Rowan", 2).body
    assert (thanked([]), thanked(["Rowan"]), thanked(["Rowan", "Sorrel", "Teasel"])) == (
        "",
        "Tested by Rowan.",
        "Tested by Rowan, Sorrel and Teasel.",
    )
