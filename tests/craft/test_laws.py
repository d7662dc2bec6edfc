"""Laws that hold for any text and any program."""

from __future__ import annotations

import sys
from types import FrameType

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from craft.rounds.fabric import ARRAYS, KIND_KEYS, StitchGraph, run_pattern
from craft.rounds.pattern import Pattern, folded, unfolded
from craft.rounds.pattern.stored import from_json, to_json
from craft.rounds.stitches import STITCHES, Terms
from craft.text.check import check
from craft.text.notation import highlights, print_pattern, read
from tests.craft.programs import patterns

slow_enough = settings(max_examples=80, deadline=None, suppress_health_check=[HealthCheck.too_slow])


def same_graph(a: StitchGraph, b: StitchGraph) -> bool:
    arrays = ARRAYS
    return a.colours == b.colours and all(np.array_equal(getattr(a, n), getattr(b, n)) for n in arrays)


def worked(pattern: Pattern) -> list[object]:
    parts, _ = run_pattern(pattern)
    return [(p.name, p.make, p.counts, p.steps, p.closed) for p in parts]


@slow_enough
@given(patterns())
def test_a_printed_program_reads_back_as_the_same_program(pattern: Pattern) -> None:
    printed = print_pattern(pattern)
    again = read(printed)
    assert not again.problems, (printed, again.problems)
    assert again.pattern.terms is pattern.terms
    before, after = run_pattern(pattern)[0], run_pattern(again.pattern)[0]
    assert worked(again.pattern) == worked(pattern)
    assert all(same_graph(a.graph, b.graph) for a, b in zip(before, after, strict=True))


@slow_enough
@given(patterns())
def test_printing_twice_is_printing_once(pattern: Pattern) -> None:
    once = print_pattern(pattern)
    assert print_pattern(read(once).pattern) == once


@slow_enough
@given(patterns(), st.sampled_from(list(Terms)))
def test_any_terms_tell_the_same_stitches(pattern: Pattern, terms: Terms) -> None:
    other = read(print_pattern(pattern, terms)).pattern
    assert [p.counts for p in run_pattern(other)[0]] == [p.counts for p in run_pattern(pattern)[0]]
    assert [p.graph.kind.tolist() for p in run_pattern(other)[0]] == [
        p.graph.kind.tolist() for p in run_pattern(pattern)[0]
    ]


@slow_enough
@given(patterns())
def test_a_sound_program_raises_no_false_alarm(pattern: Pattern) -> None:
    faults = [
        p for p in run_pattern(pattern)[1] if p.code not in ("steep", "loops", "eyes-late", "make-one", "after-close")
    ]
    assert not faults


@slow_enough
@given(patterns())
def test_stitches_are_conserved(pattern: Pattern) -> None:
    """Every stitch of an edge is used, passed on purpose, or still there; none is used twice."""
    for part in run_pattern(pattern)[0]:
        live, section = 0, ""
        for tally in part.rounds:
            if not tally.start and tally.section == section and part.graph.pieces == ():
                assert live - tally.taken - tally.rest in (0, tally.held), tally
            live, section = tally.live, tally.section
        graph = part.graph
        assert (graph.parents < np.repeat(np.arange(len(graph)), np.diff(graph.first_parent))).all()
        rounds: dict[tuple[int, int], set[int]] = {}
        for child in range(len(graph)):
            if KIND_KEYS[graph.kind[child]] == "ch":
                continue
            for parent in graph.parents_of(child):
                if KIND_KEYS[graph.kind[parent]] != "ch":
                    rounds.setdefault((parent, int(graph.loops[child])), set()).add(int(graph.round[child]))
        assert all(len(found) == 1 for found in rounds.values())


@slow_enough
@given(patterns())
def test_the_stored_form_is_the_pattern(pattern: Pattern) -> None:
    assert from_json(to_json(pattern)) == pattern


@slow_enough
@given(patterns())
def test_folding_and_unfolding_change_nothing_that_is_worked(pattern: Pattern) -> None:
    def refold(p: Pattern) -> Pattern:
        parts = tuple(type(q)(q.name, folded(unfolded(q.items)), q.make) for q in p.parts)
        return Pattern(parts, p.head, p.terms)

    assert worked(refold(pattern)) == worked(pattern)


ROUNDISH = st.text(alphabet="R0123456789:.,;()[]*x sciednvl×-–'\"\n\t mgtoarup{}=<>", max_size=400)


@settings(max_examples=250, deadline=None)
@given(st.one_of(st.text(max_size=300), ROUNDISH))
def test_any_text_ends_in_a_pattern_or_in_problems(text: str) -> None:
    found = check(text)
    assert found.problems or any(p.rounds for p in found.parts) or not text.strip()
    for problem in found.problems:
        assert 0 <= problem.place.span.start <= problem.place.span.end <= max(len(text), 1)
        assert problem.place.line >= 1
        assert problem.place.column >= 1
        if problem.fix is not None:
            assert 0 <= problem.fix.start <= problem.fix.end <= len(text)
    ends = 0
    for span in highlights(found.reading):
        assert ends <= span.start < span.end <= len(text)
        ends = span.end


def calls_of_check(text: str) -> int:
    """How many functions are called to check a text: work that no clock and no neighbour on the machine changes."""
    calls = 0

    def count(_frame: FrameType, event: str, _arg: object) -> None:
        nonlocal calls
        calls += event in ("call", "c_call")

    sys.setprofile(count)
    try:
        check(text)
    finally:
        sys.setprofile(None)
    return calls


MOST_CALLS = 20_000_000
"""Grammars and expressions built at the first text are 6 million, the dearest of 300 texts at random 3 million."""


@settings(max_examples=40, deadline=None)
@given(ROUNDISH)
def test_no_short_text_takes_without_end(text: str) -> None:
    assert calls_of_check(text) < MOST_CALLS


@settings(max_examples=200, deadline=None)
@given(ROUNDISH)
def test_nothing_is_dropped_in_silence(text: str) -> None:
    """Every line that holds a letter is in the pattern, or a problem points at it."""
    reading = read(text)
    told = {p.place.line for p in reading.problems}
    spans = [item.span for part in reading.pattern.parts for item in part.items]
    spans += [part.span for part in reading.pattern.parts]
    for line in reading.lines:
        kept = any(s.start <= line.span.end and line.span.start <= s.end for s in spans)
        head = line.kind == "head"
        assert kept or head or line.number in told, (line, reading)


@settings(max_examples=60, deadline=None)
@given(patterns(), st.data())
def test_a_mend_touches_only_its_own_characters(pattern: Pattern, data: st.DataObject) -> None:
    text = print_pattern(pattern)
    digits = [i for i, c in enumerate(text) if c.isdigit()]
    at = data.draw(st.sampled_from(digits))
    broken = text[:at] + data.draw(st.sampled_from("123456789")) + text[at + 1 :]
    for problem in check(broken).problems:
        if fix := problem.fix:
            mended = broken[: fix.start] + fix.text + broken[fix.end :]
            changed = [i for i, (a, b) in enumerate(zip(broken.split("\n"), mended.split("\n"), strict=True)) if a != b]
            assert changed in ([], [problem.place.line - 1])


def test_every_stitch_has_a_way_to_be_written() -> None:
    for terms in Terms:
        names = [entry.name(terms) for entry in STITCHES.values()]
        assert len(set(names)) == len(names)


@slow_enough
@given(patterns())
def test_the_short_way_of_everyday_rounds_is_the_long_way(pattern: Pattern) -> None:
    """Rounds worked without the whole machine come out as the machine would make them."""
    short = run_pattern(pattern)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("craft.rounds.fabric.run.work_simple", lambda *_: False)
        long = run_pattern(pattern)
    assert short[1] == long[1]
    for a, b in zip(short[0], long[0], strict=True):
        assert a.rounds == b.rounds
        assert same_graph(a.graph, b.graph)
