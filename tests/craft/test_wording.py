"""Printing in other words, for the other hand and in other languages."""

from __future__ import annotations

import re
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given

from craft.rounds.fabric import run_pattern
from craft.rounds.pattern import Pattern
from craft.rounds.stitches import STITCHES, Language, Terms
from craft.text.check import check
from craft.text.exchange import reworded
from craft.text.notation import PHRASES, Wording, left_handed, other_side, print_pattern, print_round, read
from craft.text.notation.wording import _ENGLISH
from tests.craft.programs import patterns
from tests.craft.test_laws import same_graph, slow_enough

SOUND = sorted((Path(__file__).parent / "sound").glob("*.txt"))


@slow_enough
@given(patterns())
def test_left_handed_twice_is_the_same(pattern: Pattern) -> None:
    assert left_handed(left_handed(pattern)) == pattern


@slow_enough
@given(patterns())
def test_left_handed_rounds_are_the_same_rounds(pattern: Pattern) -> None:
    before, after = run_pattern(pattern)[0], run_pattern(left_handed(pattern))[0]
    assert all(np.array_equal(a.graph.parents, b.graph.parents) for a, b in zip(before, after, strict=True))


@pytest.mark.parametrize(
    ("said", "other"),
    [
        ("Sew the left ear to the right side.", "Sew the right ear to the left side."),
        ("Turn clockwise, then anticlockwise.", "Turn anticlockwise, then clockwise."),
        ("LEFT ARM", "RIGHT ARM"),
        ("Leave the 4 stitches that are left.", "Leave the 4 stitches that are left."),
        ("With the right side facing out.", "With the right side facing out."),
        ("Do it right away.", "Do it right away."),
    ],
)
def test_sides_are_exchanged_and_nothing_else(said: str, other: str) -> None:
    assert other_side(said) == other


@slow_enough
@given(patterns())
def test_spelled_out_it_reads_back_as_the_same_stitches(pattern: Pattern) -> None:
    terms = pattern.terms if pattern.terms is not Terms.LETTERS else Terms.US
    again = read(print_pattern(pattern, Wording(terms, spelled=True)), terms).pattern
    before, after = run_pattern(pattern)[0], run_pattern(again)[0]
    assert all(same_graph(a.graph, b.graph) for a, b in zip(before, after, strict=True))


@pytest.mark.parametrize("path", SOUND, ids=lambda p: p.stem)
@pytest.mark.parametrize("terms", [Terms.US, Terms.UK])
def test_other_terms_change_the_stitches_names_only(path: Path, terms: Terms) -> None:
    text = path.read_text("utf-8")
    checked = check(text)
    used = checked.reading.pattern.terms
    said = reworded(checked, text, terms)
    if Terms.LETTERS is used:
        assert said is None
        return
    assert said is not None
    again = check(said)
    assert again.reading.pattern.terms is terms
    assert all(same_graph(a.graph, b.graph) for a, b in zip(checked.parts, again.parts, strict=True))
    if terms is used:
        assert said == text


@pytest.mark.parametrize("language", list(Language))
def test_every_language_says_everything(language: Language) -> None:
    assert set(PHRASES[language]) == set(_ENGLISH)
    for phrase, words in PHRASES[language].items():
        assert words.count("{}") == _ENGLISH[phrase].count("{}"), phrase
    names = [entry.abbreviated(language) for entry in STITCHES.values()]
    assert all(names)
    assert len(set(names)) == len(names)


def test_rounds_in_other_languages() -> None:
    pattern = read("# Ear (make 2)\nR1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R4: sc around [9]\nStuff.").pattern
    said = {t: print_pattern(pattern, Wording(language=t)) for t in Language}
    assert "Rd 2: (fM, zun) x 3 [9]" in said[Language.GERMAN]
    assert "T3-T4: ms sur tout le tour [9]" in said[Language.FRENCH]
    assert "V1: 6 pb en el anillo mágico [6]" in said[Language.SPANISH]
    assert all("Stuff." in text for text in said.values())


def test_nothing_english_is_left_in_the_rounds_of_other_languages() -> None:
    words = re.compile(r"\b(around|through|stitch|join|turn|skip|chain|edge|in ring)\b")
    named = ("first", "second", "both")
    for path in SOUND:
        rounds = [r for part in read(path.read_text("utf-8")).pattern.parts for r in part.rounds]
        for language in Language:
            for line in (print_round(r, Wording(language=language)) for r in rounds):
                assert any(word in line for word in named) or not words.search(line), line
