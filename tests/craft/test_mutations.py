"""Sound patterns raise nothing; spoilt ones are found out."""

from __future__ import annotations

import pytest

from benchmarks.mutations import SOUND, mutants, survey, wild_survey
from benchmarks.reading import is_right, sound_patterns
from craft.text.check import check


@pytest.mark.parametrize("name", sorted(SOUND))
def test_sound_patterns_are_called_sound(name: str) -> None:
    found = check(SOUND[name])
    assert [p.message for p in found.problems] == []


def test_spoilt_patterns_are_found_out() -> None:
    result = survey()
    assert result.inconsistent > 300
    assert result.found / result.inconsistent >= 0.99, result.missed[:5]
    assert result.named / result.knowable >= 0.95, result.misnamed[:5]


def test_mutants_are_really_different() -> None:
    text = SOUND["ball"]
    made = list(mutants(text))
    assert len(made) > 20
    assert all(m.text != text for m in made)


def test_printed_counts_that_are_off_are_found_in_any_manner() -> None:
    texts = [p.text for p in sound_patterns("own")[::4] if is_right(p, check(p.text))]
    found = wild_survey(texts)
    assert found.inconsistent > 20
    assert not found.missed
    assert found.named >= 0.85 * found.knowable
