"""Threads sewn through: their words, the stitches they hold, what they do to the figure, and where they are put."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.errors import CraftError
from craft.figure.settling import settle
from craft.fitting.outcome import outcome
from craft.fitting.threads import remedies
from craft.gauge import Gauge
from craft.rounds.pattern import SewnThread, StepKind, thread_direction
from craft.shape.drafting import Recipe, SewnThrough, Spot, draft
from craft.shape.stored import rounds_json, rounds_of
from craft.shape.target import Form, Modifier, Solid
from craft.text.check import check
from craft.text.notation import find_threads, print_rounds, step_kind

GAUGE = Gauge(5.6, 5.15, 0.4)
BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5-R9: sc around [24]
R10: (2 sc, dec) x 6 [18]
Stuff firmly.
R11: (sc, dec) x 6 [12]
R12: dec x 6 [6]
Close.
"""
TAIL = Form(Solid("ellipsoid", 90, 50), (Modifier("flatten", {"depth": 40}),))

numbers = st.integers(1, 900)
threads = st.builds(
    SewnThread, numbers, numbers, numbers, numbers, st.integers(1, 20_000).map(lambda tenths: tenths / 10)
)


@given(st.lists(threads, min_size=1, max_size=12))
def test_a_direction_says_what_it_was_made_of(made: list[SewnThread]) -> None:
    said = thread_direction(made)
    assert step_kind(said) is StepKind.THREAD
    assert find_threads(said) == tuple(made)


@pytest.mark.parametrize(
    ("said", "words"),
    [
        ("Sew through and draw in: R8 st 3 to R9 st 15, 44 mm.", [(8, 3, 9, 15, 44)]),
        ("stitch through the filling, drawing in: rnd 8 stitch 3 to stitch 15 (4,5 mm)", [(8, 3, 8, 15, 4.5)]),
        ("Sew through and draw in: R8 st 0 to R9 st 15, 44 mm.", []),
        ("Sew through and draw in a little.", []),
    ],
)
def test_her_own_words_are_read(said: str, words: list[tuple[float, ...]]) -> None:
    assert step_kind(said) is StepKind.THREAD
    assert [(t.from_round, t.from_stitch, t.to_round, t.to_stitch, t.length_mm) for t in find_threads(said)] == words


@pytest.mark.parametrize("said", ["Sew the ears on.", "6 sc through both layers", "Stitch them to the body."])
def test_sewing_on_is_no_thread_through(said: str) -> None:
    assert step_kind(said) is not StepKind.THREAD


def test_a_thread_holds_stitches_that_are_there() -> None:
    (part,) = check(BALL + "Sew through and draw in: R6 st 1 to R6 st 13, 20 mm.\n").parts
    first = part.rounds[5].first
    assert [(t.first - first, t.last - first, t.length_mm) for t in part.threads] == [(0, 12, 20.0)]
    assert part.closed


@pytest.mark.parametrize(
    ("where", "why"),
    [("R6 st 25 to R6 st 3", "stitch 25 of R6, which has 24"), ("R6 st 1 to R60 st 3", "of R60, which is not worked")],
)
def test_a_thread_through_nothing_is_told(where: str, why: str) -> None:
    read = check(BALL + f"Sew through and draw in: {where}, 20 mm.\n")
    assert [p.code for p in read.problems] == ["no-thread-place"]
    assert why in read.problems[0].message
    assert not read.parts[0].threads


def depth(text: str) -> float:
    settled = settle(check(text).parts[0], GAUGE)
    assert settled.converged
    node = {int(s): i for i, s in enumerate(settled.net.stitch)}
    first = settled.part.rounds[5].first
    return float(np.linalg.norm(settled.x[node[first]] - settled.x[node[first + 12]]))


def test_a_thread_draws_in_and_a_slack_one_does_nothing() -> None:
    free = depth(BALL)
    assert depth(BALL + "Sew through and draw in: R6 st 1 to R6 st 13, 20 mm.\n") == pytest.approx(20, abs=2.5)
    assert depth(BALL + f"Sew through and draw in: R6 st 1 to R6 st 13, {free + 5:.0f} mm.\n") == pytest.approx(
        free, abs=0.01
    )


def test_places_of_a_draft_are_where_its_stitches_settle() -> None:
    """Shares grow to the viewer's left; the figure faces where its first stitch is, half of one of six from the front."""
    made = outcome(Recipe(Form(Solid("egg", 90, 70), (Modifier("taper", {"amount": 0}),)), simplicity=0.5), GAUGE)
    x, graph = made.settled.x, made.settled.graph
    node = {int(s): i for i, s in enumerate(made.settled.net.stitch)}
    off = []
    for number in range(3, len(made.draft.counts) - 3):
        first = made.settled.part.rounds[number].first
        for j, share in enumerate(made.draft.places[number]):
            p = x[node[first + j]]
            off.append((np.arctan2(-p[0], -p[1]) / (2 * np.pi) - share + 0.5) % 1 - 0.5)
    assert graph.round.max() == len(made.draft.counts) - 1
    assert np.mean(off) == pytest.approx(-1 / 12, abs=0.04)
    assert np.std(off) < 0.03


def test_a_flat_tail_is_held_flat_by_threads() -> None:
    plain, *ways = remedies(Recipe(TAIL, simplicity=0.5), GAUGE)
    best = ways[0]
    assert plain.outcome.error.rms_w > 0.75
    assert best.threads
    assert best.outcome.error.rms_w < 0.6
    assert len(best.outcome.settled.part.threads) == best.threads
    soft = next(w for w in ways if not w.threads)
    assert soft.firmness == 0
    assert best.outcome.error.rms_w < soft.outcome.error.rms_w < plain.outcome.error.rms_w + 0.05


def test_threads_keep_their_places_at_other_sizes() -> None:
    thread = SewnThrough(Spot(0.5, 0.0), Spot(0.5, 0.5), 20.0)
    recipe = Recipe(TAIL, simplicity=0.5, threads=(thread,))
    assert rounds_of(rounds_json(recipe)) == recipe
    for factor in (1.0, 1.6):
        made = draft(recipe.scaled(factor), GAUGE)
        (words,) = find_threads(print_rounds(made.part))
        count = made.counts[words.from_round - 1]
        assert words.from_round == words.to_round == round((len(made.counts) - 1) / 2) + 1
        assert abs(abs(words.from_stitch - words.to_stitch) - count / 2) < count * 0.12 + 1
        assert words.length_mm == pytest.approx(20 * factor, abs=0.05)
        assert check(print_rounds(made.part)).sound


def test_a_round_shape_takes_no_threads() -> None:
    thread = SewnThrough(Spot(0.5, 0.0), Spot(0.5, 0.5), 20.0)
    assert "Sew through" not in print_rounds(
        draft(replace(Recipe(Solid("sphere", 60, 60)), threads=(thread,)), GAUGE).part
    )


@pytest.mark.parametrize(
    "damaged", [[[0.5, 0, 0.5]], [[0.5, 0, 0.5, 2, 9]], [[0, 0, 1, 0, -1]], "x", [[0, 0, 1, 0, 9]] * 60]
)
def test_damaged_threads_are_refused(damaged: object) -> None:
    with pytest.raises(CraftError):
        rounds_of({**rounds_json(Recipe(TAIL)), "threads": damaged})
