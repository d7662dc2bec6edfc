"""Frozen values check themselves; damaged files are refused with a sentence."""

from __future__ import annotations

import copy
import dataclasses
from typing import Any

import pytest

from craft.errors import CraftError
from craft.problems import Mend, Place, Problem, Severity, Span
from craft.rounds.arithmetic import RoundSum, Sum, round_sum, sum_of
from craft.rounds.pattern import (
    Chain,
    Colour,
    HeadEntry,
    Join,
    Note,
    Part,
    Pattern,
    Repeat,
    Round,
    Start,
    StartKind,
    Step,
    StepKind,
    Unread,
    Work,
)
from craft.rounds.pattern.stored import from_json, to_json
from craft.rounds.stitches import STITCHES, Loops, Stitch, Terms, stitch
from craft.text.notation import read

WHOLE = Pattern(
    (
        Part(
            "Body",
            (
                Round(1, 1, (Start(StartKind.CHAIN2, 6),), 6),
                Step(StepKind.EYES, "Insert the eyes."),
                Colour("Oat"),
                Round(
                    2, 4, (Chain(1), Repeat((Work("sc", 2), Repeat((Work("inc"),), 2)), 3), Join()), None, Loops.BACK
                ),
                Note("Prose."),
                Round(None, None, (Unread("frobnicate"), Repeat((Work("sc"),), None)), 12),
            ),
            2,
        ),
        Part(None, ()),
    ),
    (HeadEntry("hook", "3 mm"),),
    Terms.UK,
)


def test_everything_survives_being_stored() -> None:
    assert from_json(to_json(WHOLE)) == WHOLE


def test_values_are_frozen_and_equal_by_value_not_by_place() -> None:
    near, far = Work("sc", 2, span=Span(0, 4)), Work("sc", 2, span=Span(90, 94))
    assert near == far
    assert hash(near) == hash(far)
    assert Work("sc", 2) != Work("sc", 3)
    with pytest.raises(dataclasses.FrozenInstanceError):
        near.count = 3  # type: ignore[misc]


@pytest.mark.parametrize(
    "make",
    [
        lambda: Start(StartKind.RING, 0),
        lambda: Work("frog"),
        lambda: Work("sc", 0),
        lambda: Work("sc", 10**6),
        lambda: Repeat((), 3),
        lambda: Repeat((Work("sc"),), 0),
        lambda: Chain(0),
        lambda: Colour("42nd street"),
        lambda: Colour("x" * 60),
        lambda: Colour("two\nlines"),
        lambda: Colour("ends with blank "),
        lambda: Step(StepKind.STUFF, "two\nlines"),
        lambda: Step(StepKind.STUFF, "  "),
        lambda: Note(""),
        lambda: Round(9, 5, ()),
        lambda: Part("x" * 80, ()),
        lambda: Part("Body", (), 0),
        lambda: Part("Body", (), 1000),
        lambda: Span(5, 3),
        lambda: Span(-1, 3),
        lambda: Problem("no-such-code", Place(), "x"),
        lambda: stitch("frog"),
        lambda: Stitch("x", -1, 1, ("x",), ("x",), ("x", "x"), ("x", "x"), ("x", "x", "x")),
        lambda: Stitch("x", 1, 1, (), ("x",), ("x", "x"), ("x", "x"), ("x", "x", "x")),
    ],
)
def test_a_bad_value_raises_at_once(make: Any) -> None:
    with pytest.raises(CraftError) as refused:
        make()
    assert refused.value.message


def damaged() -> list[object]:
    """Stored patterns with one thing wrong each."""
    out: list[object] = [
        None,
        5,
        [],
        {},
        {"schema": 2},
        {"schema": 1},
        {"schema": 1, "parts": {}, "head": [], "terms": "us"},
    ]
    good = to_json(WHOLE)
    for path, value in (
        (("terms",), "klingon"),
        (("head", 0), {"key": "x"}),
        (("parts",), 7),
        (("parts", 0, "make"), -1),
        (("parts", 0, "items", 0, "item"), "riddle"),
        (("parts", 0, "items", 0, "body", 0, "do"), "dance"),
        (("parts", 0, "items", 0, "body", 0, "start"), "moebius"),
        (("parts", 0, "items", 0, "body", 0, "count"), "six"),
        (("parts", 0, "items", 3, "loops"), "sideways"),
        (("parts", 0, "items", 3, "body", 1, "times"), 0),
        (("parts", 0, "items", 3, "body"), None),
    ):
        bad = copy.deepcopy(good)
        at: Any = bad
        for step in path[:-1]:
            at = at[step]
        at[path[-1]] = value
        out.append(bad)
    return out


@pytest.mark.parametrize("data", damaged())
def test_damaged_patterns_are_refused(data: object) -> None:
    with pytest.raises(CraftError) as refused:
        from_json(data)
    assert refused.value.message.endswith(".")


def test_sums_are_worked_out_without_expanding() -> None:
    inner = Repeat((Work("sc", 2), Work("inc")), 6)
    assert sum_of((inner,)) == Sum(18, 24)
    assert sum_of((Repeat((inner, Work("dec")), 100_000),)) == Sum(20 * 100_000, 25 * 100_000)
    around = (Work("inc", 2), Repeat((Work("sc"), Work("dec")), None), Work("sc"))
    assert round_sum(around, 15) == RoundSum(Sum(15, 13), 0, 4, Sum(3, 2))
    assert round_sum(around, 16).rest == 1
    assert round_sum(around, 2).rest == -1
    assert round_sum((Start(StartKind.RING, 6),), 0) == RoundSum(Sum(0, 6), 0)


def test_severities_belong_to_codes() -> None:
    problem = Problem("sum", Place(), "x", Mend(0, 1, "7", "write 7"))
    assert problem.severity is Severity.FAULT
    assert Problem("steep", Place(), "x").severity is Severity.HINT


def test_every_entry_of_the_registry_is_whole() -> None:
    for key, entry in STITCHES.items():
        assert entry.key == key
        for terms in Terms:
            assert entry.name(terms)
            assert entry.called(terms)
            assert entry.explained(terms).endswith(".")
            assert all(read(f"R1: {word}", terms).pattern.parts[0].rounds[0].body for word in entry.spellings(terms))
