"""Making from an edition: worksheets, logs joined from several devices, what was done otherwise and how it becomes text."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import replace
from typing import Any
from uuid import UUID, uuid5

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.design.design import Design, Step
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.document.booklet import Imprint, manuscript_of
from craft.errors import CraftError
from craft.making import (
    PAUSE_MS,
    Event,
    Otherwise,
    Worksheet,
    as_made,
    as_text,
    counts_done,
    deviations,
    event_json,
    event_of,
    fold,
    in_order,
    worksheet_from,
    worksheet_json,
    worksheet_of,
)
from craft.making.happenings import (
    DidOtherwise,
    Done,
    Finished,
    HookTaken,
    Noted,
    Paused,
    Ripped,
    SkeinTaken,
    StepDone,
    Stitched,
    TimeCorrected,
    Weighed,
    What,
    Withdrawn,
)
from craft.rounds.stitches import Terms
from craft.text.check import check

BALL = """With Moss
R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4-R6: sc around [18]
Place the eyes between R5 and R6.
R7: (sc, dec) x 6 [12]
Stuff.
R8: dec x 6 [6]
Close: draw the tail through the front loops of the last 6 stitches and pull tight.
"""
FOOT = "Ch 5\nR1: sc in 2nd ch from hook, 2 sc, 3 sc in last ch, along the other side 2 sc, 2 sc in last ch [10]\nFasten off.\n"
NOON = 1_790_000_000_000
SPACE = UUID("4b4a3d46-0f66-4c5e-8e5d-0d3f5f3a8f10")


def named(n: int) -> str:
    return str(uuid5(SPACE, str(n)))


def log(*whats: What, device: str = "phone", every: int = 60_000, begin: int = NOON) -> list[Event]:
    """A log of one device, an event a minute."""
    return [
        Event(str(uuid5(SPACE, f"{device}-{i}")), device, i, begin + i * every, what) for i, what in enumerate(whats)
    ]


def sheet(*parts: Part, steps: Sequence[Step] = ()) -> Worksheet:
    design = Design("Ball", parts=parts or (Part("ball", "Ball", BALL),), steps=tuple(steps))
    written = manuscript_of(design, run_parts(design), Imprint("Lanternwick", Terms.US, "2026-11-30"))
    return worksheet_of(written, hours=2.0, fills={})


def test_a_worksheet_has_every_round_with_what_comes_before_it() -> None:
    (ball,) = sheet().parts
    assert [r.label for r in ball.rungs] == [f"R{n}" for n in range(1, 9)]
    assert [r.count for r in ball.rungs] == [6, 12, 18, 18, 18, 18, 12, 6]
    assert ball.rungs[6].before == ("Place the eyes between R5 and R6.",)
    assert ball.rungs[7].before == ("Stuff.",)
    assert ball.after == ("Close: draw the tail through the front loops of the last 6 stitches and pull tight.",)
    assert ball.rungs[2].work == "(sc, inc) x 6"


def test_no_word_of_a_part_is_left_out_of_its_worksheet() -> None:
    """A starting chain is no round of its own, and still comes before one."""
    (foot,) = sheet(Part("foot", "Foot", FOOT)).parts
    assert foot.rungs[0].before == ("Ch 5",)
    assert foot.after == ("Fasten off.",)


def test_pieces_of_a_round_are_ticked_off_and_plain_rounds_are_counted() -> None:
    (ball,) = sheet().parts
    (tick,) = ball.rungs[2].ticks
    assert (tick.text, tick.times, tick.stitches) == ("sc, inc", 6, 3)
    assert ball.rungs[3].ticks == ()
    for rung in ball.rungs:
        if rung.ticks:
            assert sum(t.times * t.stitches for t in rung.ticks) == rung.made


def test_what_is_done_before_closing_comes_before_the_last_round() -> None:
    step = Step("step1", "Fix the eyes.", part="ball", before_closing=True)
    (ball,) = sheet(steps=(step,)).parts
    assert ball.rungs[-1].before[-1] == "Before closing: Fix the eyes."


def test_a_worksheet_reads_back_and_a_newer_one_is_refused_in_a_sentence() -> None:
    made = sheet()
    data = json.loads(json.dumps(worksheet_json(made)))
    assert worksheet_from(data) == made
    with pytest.raises(CraftError, match="newer Spirrel"):
        worksheet_from({**data, "format": 2})


EVENTS = [
    Done("ball", 1, 3),
    Ripped("ball", 1, 2, "Too tight."),
    Stitched("ball", 1, 3, 4),
    DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=20),
    Noted("Soft.", "ball", 3),
    Weighed("Moss", 48.5, after=False),
    HookTaken(3.5),
    SkeinTaken("Moss", "second ball"),
    Paused(),
    TimeCorrected(-5.0),
    StepDone(2),
    Finished(),
]


@pytest.mark.parametrize("what", EVENTS, ids=lambda w: type(w).__name__)
def test_an_event_is_the_same_after_its_json(what: What) -> None:
    (event,) = log(what)
    assert event_of(json.loads(json.dumps(event_json(event)))) == event


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"kind": "danced"}, "no kind of event"),
        ({"id": "7"}, "an id of its own"),
        ({"at": 12}, "clock of this device"),
        ({"round": "three"}, "is no whole number"),
        ({"round": -1}, "counted up to"),
        ({"seq": True}, "of another kind"),
        ({"extra": 1}, "unknown"),
    ],
)
def test_a_damaged_event_is_refused_in_words(change: dict[str, Any], said: str) -> None:
    data = event_json(log(Done("ball", 1, 3))[0]) | change
    with pytest.raises(CraftError, match=said):
        event_of(data)


whats = st.one_of(
    st.builds(Done, st.sampled_from(["ball", "foot"]), st.integers(1, 2), st.integers(1, 8)),
    st.builds(Ripped, st.sampled_from(["ball", "foot"]), st.integers(1, 2), st.integers(0, 8)),
    st.builds(StepDone, st.integers(1, 4), st.booleans()),
    st.builds(HookTaken, st.floats(2, 6)),
    st.builds(Noted, st.just("Soft."), st.just("ball"), st.integers(0, 8)),
    st.just(Paused()),
)


@st.composite
def logs(draw: st.DrawFn) -> list[Event]:
    """Events of two devices whose clocks may jump back."""
    found = []
    for device in ("phone", "tablet"):
        many = draw(st.integers(0, 12))
        for i in range(many):
            at = NOON + draw(st.integers(-3_000_000, 3_000_000))
            found.append(Event(str(uuid5(SPACE, f"{device}{i}")), device, i, at, draw(whats)))
    return found


@given(logs(), st.randoms(use_true_random=False))
def test_a_log_comes_to_the_same_in_whatever_order_and_however_often_it_arrives(
    events: list[Event], random: Any
) -> None:
    mixed = [*events, *events[: len(events) // 2]]
    random.shuffle(mixed)
    assert fold(mixed) == fold(events)


@given(logs())
def test_a_devices_own_order_holds_whatever_its_clock_says(events: list[Event]) -> None:
    ordered = in_order(events)
    for device in ("phone", "tablet"):
        own = [e.seq for e in ordered if e.device == device]
        assert own == sorted(own)
    assert sorted(e.id for e in ordered) == sorted({e.id for e in events})


def test_progress_follows_the_log() -> None:
    done = fold(
        log(Done("ball", 1, 1), Done("ball", 1, 2), Done("ball", 1, 3), Ripped("ball", 1, 1), Stitched("ball", 1, 2, 5))
    )
    assert (done.done("ball"), done.at and done.at.stitches) == (1, 5)
    more = fold(
        log(HookTaken(3.0), HookTaken(3.5), SkeinTaken("Moss", "second"), StepDone(1), StepDone(2), StepDone(1, True))
    )
    assert (more.hook_mm, dict(more.skeins), more.steps) == (3.5, {"Moss": "second"}, frozenset({2}))


def test_a_slip_that_is_taken_back_never_happened() -> None:
    first = log(Done("ball", 1, 1), Done("ball", 1, 2))
    back = Event(named(99), "phone", 2, NOON + 200_000, Withdrawn(first[1].id))
    assert fold([*first, back]).done("ball") == 1


def test_time_runs_while_she_works_and_stands_still_while_she_does_not() -> None:
    worked = fold(log(*[Done("ball", 1, n) for n in range(1, 8)]))
    assert worked.minutes == pytest.approx(6)
    late = log(Done("ball", 1, 8), device="phone2", begin=NOON + 6 * 60_000 + PAUSE_MS + 1)
    rested = fold([*log(*[Done("ball", 1, n) for n in range(1, 8)]), *late])
    assert (rested.minutes, rested.pauses) == (pytest.approx(6), 1)
    put_down = fold(log(Done("ball", 1, 1), Paused(), Done("ball", 1, 2)))
    assert (put_down.minutes, put_down.pauses) == (pytest.approx(1), 1)
    mended = fold(log(Done("ball", 1, 1), Done("ball", 1, 2), TimeCorrected(30)))
    assert mended.minutes == pytest.approx(32)


def test_two_devices_at_once_do_not_count_time_twice() -> None:
    both = [
        *log(*[Done("ball", 1, n) for n in range(1, 6)]),
        *log(*[Noted("x")] * 5, device="tablet", begin=NOON + 30_000),
    ]
    assert fold(both).minutes == pytest.approx(4.5)


def test_yarn_is_what_the_ball_lost() -> None:
    done = fold(log(Weighed("Moss", 50, False), Weighed("Moss", 41.5, True), Weighed("Moss", 41.5, False)))
    assert [(u.yarn, u.grams) for u in done.used] == [("Moss", 8.5)]
    assert done.weighing == ("Moss",)


def told(*whats: What) -> tuple[Any, ...]:
    return deviations(sheet(), fold(log(*whats)))


def test_what_was_done_otherwise_is_told_once_however_many_pieces_say_so() -> None:
    (one,) = told(*[DidOtherwise("ball", p, 3, Otherwise.COUNT, many=19) for p in (1, 2)])
    assert (one.pieces, one.says, one.did, one.told) == ((1, 2), 18, 19, "R3 came to 19 and not to 18 stitches.")
    assert told(DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=18)) == (), "the same count is no deviation"
    (later,) = told(*[DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=n) for n in (19, 20)])
    assert later.did == 20, "the later word holds"


def test_the_ladder_of_what_was_done() -> None:
    found = told(
        DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=20),
        DidOtherwise("ball", 1, 5, Otherwise.MORE, many=2),
        DidOtherwise("ball", 1, 6, Otherwise.LEFT_OUT),
    )
    assert counts_done(sheet(), "ball", found) == (6, 12, 20, 18, 18, 18, 18, 12, 6)


def written(*whats: What, text: str = BALL) -> str:
    (one,) = told(*whats)
    rung = sheet().rung("ball", one.round)
    assert rung is not None
    return as_text(text, Terms.US, one, rung)


def counts(text: str) -> tuple[int, ...]:
    (part,) = check(text, Terms.US).parts
    return part.counts


def test_another_count_becomes_the_text_and_still_adds_up() -> None:
    text = written(DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=20))
    assert counts(text)[2] == 20
    assert check(text, Terms.US).parts[0].counts[-1] == 6, "what follows is spread anew"


def test_more_rounds_go_behind_the_one_they_were_worked_after_and_only_there() -> None:
    text = written(DidOtherwise("ball", 1, 5, Otherwise.MORE, many=2))
    assert counts(text) == (6, 12, 18, 18, 18, 18, 18, 18, 12, 6)
    assert check(text, Terms.US).sound
    assert "Place the eyes" in text
    assert "Stuff." in text


def test_a_round_of_a_fold_is_left_out_and_the_rest_counts_on() -> None:
    text = written(DidOtherwise("ball", 1, 5, Otherwise.LEFT_OUT))
    assert counts(text) == (6, 12, 18, 18, 18, 12, 6)
    assert check(text, Terms.US).sound


def test_a_round_that_others_stand_on_is_not_left_out_silently() -> None:
    with pytest.raises(CraftError, match="would no longer fit"):
        written(DidOtherwise("ball", 1, 3, Otherwise.LEFT_OUT))


def test_another_colour_is_written_for_that_round_alone() -> None:
    text = written(DidOtherwise("ball", 1, 5, Otherwise.COLOUR, colour="Ember"))
    part = check(text, Terms.US).parts[0]
    assert [i for i, t in enumerate(part.rounds, 1) if "Ember" in t.colours] == [5]


def test_her_words_become_a_note_behind_the_round() -> None:
    text = written(DidOtherwise("ball", 1, 5, Otherwise.OTHER, text="worked  into the\nback loops"))
    lines = text.splitlines()
    assert lines[lines.index("Note: worked into the back loops") - 1].startswith("R5")
    assert counts(text) == counts(BALL)


def test_rounds_that_were_changed_since_are_not_written_over() -> None:
    other = BALL.replace("R3: (sc, inc) x 6 [18]", "R3: (sc, inc) x 5, 2 sc [17]").replace("[18]", "[17]")
    with pytest.raises(CraftError, match="by now"):
        written(DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=20), text=other)
    with pytest.raises(CraftError, match="no longer there"):
        written(DidOtherwise("ball", 1, 8, Otherwise.OTHER, text="x"), text="R1: 6 sc in ring [6]\n")


def test_everything_done_otherwise_in_a_part_is_written_at_once() -> None:
    found = told(
        DidOtherwise("ball", 1, 6, Otherwise.LEFT_OUT),
        DidOtherwise("ball", 1, 4, Otherwise.MORE, many=2),
        DidOtherwise("ball", 1, 3, Otherwise.COUNT, many=20),
        DidOtherwise("ball", 1, 5, Otherwise.OTHER, text="in the back loops"),
        DidOtherwise("ball", 1, 7, Otherwise.LEFT_OUT),
    )
    made = as_made(BALL, Terms.US, sheet(), found)
    assert counts(made.text)[:3] == (6, 12, 20)
    assert len(counts(made.text)) == 8 - 1 + 2
    assert [line.split(".")[0] for line in made.left] == ["R7 was left out"]


def test_pieces_made_several_times_are_counted_so() -> None:
    made = sheet(Part("foot", "Foot", FOOT, make=2))
    assert made.stitches == 2 * sum(r.made for r in made.parts[0].rungs)
    assert replace(made, hours=1.0).part("nobody") is None
