"""Patterns as people write them: read right, and every slip in them found (`tests/craft/wild`)."""

from __future__ import annotations

import pytest

from benchmarks.reading import (
    Slipped,
    Sound,
    counts_of,
    is_right,
    slip_found,
    slip_placed,
    slipped_patterns,
    sound_patterns,
)
from craft.document.export import FORMATS, export
from craft.text.check import check
from craft.text.exchange import imported_text
from craft.text.freehand import label_at
from craft.text.notation import Wording

MISSES = {
    "022-aus-metric-jellyfish": "free loops that lie where two parts were joined through back loops",
    "098-bobbles-in-prose-moon": "'2 bobble with 4 sc in between' tells stitches by what lies between them",
    "984-flat-circle-pillow": "rounds of half doubles in one line, 'around' set apart from what is repeated",
    "860-reddit-comment-fast": "'this one, too, is all 24': a round that only talk tells",
}
"""Sound patterns that are refused. One that is read after all leaves this list."""

UNPLACED = {"035-refer-back-goat-legs"}
"""Slips that are found, and told at another place than their round."""


KINDS = ("text", "json", "md", "csv")
SHARED = frozenset(p.name for p in sound_patterns())


def _goes_out_as(pattern: Sound) -> tuple[str, ...]:
    """In which forms a pattern is written out and read again: the shared ones in all, of our own many each in one."""
    return KINDS if pattern.name in SHARED else (KINDS[int(pattern.name[:3]) % len(KINDS)],)


@pytest.mark.parametrize("pattern", [*sound_patterns(), *sound_patterns("own")], ids=lambda p: p.name)
def test_every_count_is_as_its_designer_counted(pattern: Sound) -> None:
    found = check(pattern.text)
    assert is_right(pattern, found) is (pattern.name not in MISSES), (
        counts_of(found),
        pattern.parts,
        found.problems[:3],
    )
    if pattern.name not in MISSES:
        for to in _goes_out_as(pattern):
            out = export(found, pattern.text, to, wording=Wording(found.reading.pattern.terms), tidy=True)
            again = check(imported_text(f"pattern.{FORMATS[to]}", out.encode()).text)
            assert again.sound, to
            if to == "csv":  # a table of rounds holds no headings inside of a part
                assert sorted(sum(counts_of(again), ())) == sorted(sum(pattern.parts, ()))
            else:
                assert counts_of(again) == pattern.parts, to


@pytest.mark.parametrize("pattern", sound_patterns(), ids=lambda p: p.name)
def test_nothing_is_called_sound_that_was_not_read_whole(pattern: Sound) -> None:
    found = check(pattern.text)
    if found.sound:
        assert counts_of(found) == pattern.parts


@pytest.mark.parametrize("pattern", slipped_patterns(), ids=lambda p: p.name)
def test_a_slip_is_found_and_told_at_its_round(pattern: Slipped) -> None:
    found = check(pattern.text)
    assert slip_found(found), "a false 'sound'"
    assert slip_placed(pattern, found) is (pattern.name not in UNPLACED), found.problems


def _is_printed(pattern: Sound) -> bool:
    """Whether the last count stands in digits, and not last in a label such as 'Rounds 7 and 8'."""
    head, said, _ = pattern.text.rpartition(str(pattern.parts[-1][-1]))
    line = head.rpartition("\n")[2]
    label = label_at(pattern.text[len(head) - len(line) :].partition("\n")[0])
    return bool(said) and (label is None or label.end <= len(line))


NO_COUNTS = (
    "086-english-round-colon-penguin", "210-ear-flat-fold", "418-captions-timestamps", "802-bear-blog-full",
    "851-old-letter-style-instructions", "934-francais-carnet-poussin", "1357-fr-oeil-blanc-demi",
    "1562-en-abbrev-min-egg", "1608-en-colon-count-only-snowball",
)  # fmt: skip
"""Patterns whose last number of that size is no count (a ring's, an eye's place, a time), or may be meant so; or that tell
nothing but counts, and go on to any."""
PRINTED = [p for p in sound_patterns("own")[::2] if _is_printed(p) and p.name not in NO_COUNTS]
"""Patterns whose last count stands in digits."""


@pytest.mark.parametrize("pattern", PRINTED, ids=lambda p: p.name)
def test_another_count_in_a_sound_pattern_is_a_fault(pattern: Sound) -> None:
    """The last count that is printed, made one more, never stays sound."""
    last = str(pattern.parts[-1][-1])
    head, _, tail = pattern.text.rpartition(last)
    assert not check(f"{head}{int(last) + 1}{tail}").sound
