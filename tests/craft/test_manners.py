"""Every manner of writing a round goes with every other: drawn at random, always the same ones."""

from __future__ import annotations

import pytest

from benchmarks.reading import counts_of
from craft.text.check import check
from tests.craft.manners import LANGUAGES, SMALL_PARTS, legs, manners_of, pattern, small_part, told

EACH = 60
"""Patterns of a language."""

TOLD = [language for language in LANGUAGES if "terse" in manners_of(language)]
"""Languages whose shorthand and whose sentences are listed."""


@pytest.mark.parametrize("number", range(EACH))
@pytest.mark.parametrize("language", LANGUAGES)
def test_a_pattern_of_any_manners_is_read(language: str, number: int) -> None:
    text, counts = pattern(language, number)
    found = check(text)
    assert counts_of(found) == (counts,), text
    assert found.sound, (text, [p.message for p in found.problems])


@pytest.mark.parametrize("number", range(EACH // 3))
@pytest.mark.parametrize("kind", SMALL_PARTS)
@pytest.mark.parametrize("language", [language for language in LANGUAGES if "oval" in manners_of(language)])
def test_a_small_part_of_any_manners_is_read(language: str, kind: str, number: int) -> None:
    text, counts = small_part(language, kind, number)
    found = check(text)
    assert counts_of(found) == (counts,), text
    assert found.sound, (text, [p.message for p in found.problems])


@pytest.mark.parametrize("number", range(EACH // 3))
@pytest.mark.parametrize("language", [language for language in LANGUAGES if "legs" in manners_of(language)])
def test_two_legs_and_a_pair_of_ears_are_read_in_any_manners(language: str, number: int) -> None:
    text, counts = legs(language, number)
    found = check(text)
    assert counts_of(found) == counts, text
    assert found.sound, (text, [p.message for p in found.problems])
    assert sum(part.make for part in found.parts) == len(counts) + 1


@pytest.mark.parametrize("number", range(EACH // 2))
@pytest.mark.parametrize("kind", ["terse", "prose"])
@pytest.mark.parametrize("language", TOLD)
def test_shorthand_and_whole_sentences_are_read(language: str, kind: str, number: int) -> None:
    text, counts = told(language, kind, number)
    found = check(text)
    assert counts_of(found) == (counts,), text
    assert found.sound, (text, [p.message for p in found.problems])


@pytest.mark.parametrize("kind", ["terse", "prose"])
@pytest.mark.parametrize("language", TOLD)
def test_a_wrong_count_is_found_in_shorthand_and_in_sentences(language: str, kind: str) -> None:
    for number in range(EACH // 4):
        lines = told(language, kind, number)[0].splitlines()
        at = max(k for k, line in enumerate(lines) if "18" in line)
        lines[at] = lines[at].replace("18", "17")
        assert not check("\n".join(lines) + "\n").sound, lines


@pytest.mark.parametrize("language", LANGUAGES)
def test_a_wrong_count_is_found_in_any_manners(language: str) -> None:
    for number in range(EACH // 4):
        text, _ = pattern(language, number)
        lines = text.splitlines()
        at = next(
            (k for k, line in enumerate(lines) if "18" in line and not line.lower().startswith(("18", "r18"))), None
        )
        if at is None:
            continue
        lines[at] = lines[at].replace("18", "17")
        assert not check("\n".join(lines) + "\n").sound, lines[at]


@pytest.mark.parametrize("language", LANGUAGES)
def test_a_line_left_out_is_told_in_any_manners(language: str) -> None:
    """Whichever line is missing, the text is faulty, or the gap is told and every other round is there still."""
    for number in range(EACH // 10):
        text, counts = pattern(language, number)
        lines = text.splitlines()
        for at in range(len(lines) - 1):  # nothing tells of a last round that is missing
            found = check("\n".join(lines[:at] + lines[at + 1 :]) + "\n")
            read = [count for part in counts_of(found) for count in part]
            gap = any(p.code == "skipped-number" for p in found.problems)
            whole = tuple(read) == counts
            assert not found.sound or whole or (gap and len(counts) - len(read) <= 4), (lines[at], text)


def test_every_language_has_manners_of_every_kind() -> None:
    kinds = {language: set(manners_of(language)) for language in LANGUAGES}
    assert len(kinds) == 8
    small, pieces = {*SMALL_PARTS, "row_labels", "small_part"}, {"legs", "pairs", "terse", "prose"}
    assert len({frozenset(k - small - pieces) for k in kinds.values()}) == 1
    assert [language for language, k in kinds.items() if small - k] == ["letters"]
    assert [language for language, k in kinds.items() if pieces - k] == ["british", "letters"]
