"""The one expression for every spelling of a stitch against the plain list of them."""

from __future__ import annotations

import re

import pytest

from craft.rounds.stitches import Terms
from craft.text.notation import stitch_key, stitch_regex, words


@pytest.mark.parametrize("terms", list(Terms))
def test_every_spelling_is_taken_whole_and_the_longest_one(terms: Terms) -> None:
    taken = re.compile(stitch_regex(terms), re.IGNORECASE)
    for word in (w for w in words(terms) if stitch_key(w, terms)):
        for written in (word, word.upper(), word.replace(" ", "  ")):
            for behind in ("", " in next st", ", 3", ")"):
                found = taken.match(written + behind)
                assert found is not None, written
                assert found.group() == written


@pytest.mark.parametrize("terms", list(Terms))
def test_no_spelling_is_found_in_the_middle_of_a_word(terms: Terms) -> None:
    taken = re.compile(stitch_regex(terms), re.IGNORECASE)
    for word in words(terms):
        found = taken.match(word + "xyz")
        assert found is None or found.group() != word, word
