"""Booklets published as a difference: what is worked otherwise, and not a line of the base."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.design import Brief, Design, Printed, Source
from craft.design.parts import Part
from craft.design.permissions import Permissions
from craft.design.running import run_parts
from craft.document.booklet import (
    Document,
    Imprint,
    Rounds,
    Steps,
    TheBase,
    as_text,
    compose,
    edition_as_difference,
    manuscript_of,
)
from craft.errors import CraftError
from craft.rounds.stitches import Language, Terms
from craft.text.catalogue import Words, catalogue
from tests.craft.figures import HEAD, figure
from tests.craft.test_graft import BODY, TAIL

IMPRINT = Imprint("Lanternwick", Terms.US, "2026-11-29")
MOTH = TheBase("Moth", "1.2", "Odo Thistlewick")


def made(base: Design, mine: Design, named: TheBase = MOTH, imprint: Imprint = IMPRINT) -> Document:
    return edition_as_difference(base, mine, named, imprint)


def design(*texts: str, names: tuple[str, ...] = ("Body", "Tail", "Ear"), **other: Any) -> Design:
    parts = tuple(Part(f"p{k}", n, t) for k, (n, t) in enumerate(zip(names, texts, strict=False)))
    return Design("Mine", parts=parts, **other)


def lines_of(document: Document) -> list[str]:
    blocks = [b for s in document.sections for b in s.blocks]
    rounds = [x.text for b in blocks if isinstance(b, Rounds) for x in b.lines]
    return [*rounds, *(x for b in blocks if isinstance(b, Steps) for x in b.lines)]


def of_the_base(base: Design) -> set[str]:
    whole = compose(manuscript_of(base, run_parts(base), Imprint("", base.terms, "")))
    return set(lines_of(whole))


def test_what_is_needed_first_is_said_first() -> None:
    found = made(design(BODY), design(BODY.replace("R5-R8", "R5-R9").replace("R9:", "R10:", 1)))
    first = found.sections[0]
    assert first.title == "What you need first"
    assert "You need Moth, version 1.2, by Odo Thistlewick." in as_text(found)


def test_the_same_part_is_worked_as_there() -> None:
    text = as_text(
        made(
            design(BODY, TAIL),
            design(BODY, TAIL.replace("R9-R10", "R9-R12").replace("R11", "R13").replace("R12: 6", "R14: 6")),
        )
    )
    assert "Body (make 1)\n\nWork as there." in text
    assert "R1 to R8: work as there, with what stands between." in text
    assert "R9-R12: 18 sc [18] (4 rounds)" in text


def test_rounds_that_moved_up_have_both_numbers() -> None:
    longer = (
        BODY.replace("R5-R8: 24 sc [24]", "R5-R9: 24 sc [24]")
        .replace("R9: (", "R10: (")
        .replace("R10: (sc", "R11: (sc")
        .replace("R11: 6", "R12: 6")
    )
    text = as_text(made(design(BODY), design(longer)))
    assert "R9 to R11: work as there" in text
    assert "here they are R10 to R12." in text


def test_other_words_for_the_same_stitches_are_no_difference() -> None:
    text = as_text(made(design(BODY), design(BODY.replace("6 inc", "inc x 6").replace("6 dec", "dec x 6"))))
    assert "Work as there." in text


def test_a_part_that_is_not_worked_and_one_that_is_new_are_told() -> None:
    text = as_text(made(design(BODY, TAIL), design(BODY, TAIL, names=("Body", "Wing"))))
    assert "Not worked\n\n- Tail (make 1)" in text
    assert "R1: as R1 of Body there." in text, "what stands in the base stands there"


def test_the_base_s_prose_stays_with_the_base() -> None:
    base = design(
        BODY,
        brief=Brief(intro="A moth that sleeps by day."),
        printed=Printed(notes="Work tightly.", permissions="Mine."),
    )
    mine = replace(base, name="Mine", printed=replace(base.printed, notes="Work tightly.\nUse the finer hook."))
    text = as_text(made(base, mine))
    assert "sleeps by day" not in text
    assert "Work tightly" not in text
    assert "Use the finer hook." in text
    assert "As there." in text


_LINES = ["{}: 18 sc [18]", "{}: (sc, inc) x 6", "Stuff it firmly.", "{}: 18 hdc [18]", "{}: 9 dec"]
rounds_st = st.lists(st.sampled_from(_LINES), min_size=1, max_size=8)


def numbered(lines: list[str]) -> str:
    n, out = 1, ["R1: 18 sc in ring [18]"]
    for line in lines:
        n += "{}" in line
        out.append(line.format(f"R{n}"))
    return "\n".join(out) + "\n"


@given(rounds_st, rounds_st, rounds_st)
@settings(max_examples=100, deadline=None)
def test_law_a_difference_holds_no_line_of_the_base(one: list[str], two: list[str], three: list[str]) -> None:
    base, mine = design(numbered(one)), design(numbered(two), numbered(three))
    found = made(base, mine)
    assert not set(lines_of(found)) & of_the_base(base)


@given(rounds_st)
@settings(max_examples=30, deadline=None)
def test_law_of_a_design_and_itself_every_part_is_worked_as_there(lines: list[str]) -> None:
    base = design(numbered(lines))
    assert lines_of(made(base, base)) == []


def test_steps_of_the_base_are_told_by_their_numbers() -> None:
    base = figure()
    mine = replace(base, steps=(base.steps[0], replace(base.steps[1], text="Brush it twice.")))
    found = lines_of(made(base, mine))
    assert "As step 1 there." in found
    assert "Brush it twice." in found
    assert "Not worked: step 2 of there." in found


def test_terms_that_forbid_it_block_it_with_the_reason() -> None:
    mine = design(BODY, sources=(Source("Moth", "Odo", permissions=Permissions(difference=False)),))
    with pytest.raises(CraftError, match="Moth, by Odo: changes to it may not be published"):
        made(design(BODY), mine)


def test_a_whole_booklet_of_what_may_not_be_published_again_says_so_on_its_first_page() -> None:
    mine = design(BODY, sources=(Source("Moth", "Odo", permissions=Permissions()),))
    whole = compose(manuscript_of(mine, run_parts(mine), Imprint("Me", Terms.US, "")))
    assert whole.sections[0].title == "For your own use, not to be passed on"
    assert "its rounds may not be published again" in as_text(whole)
    assert "not to be passed on" not in as_text(made(design(BODY), mine))


def test_a_base_in_other_terms() -> None:
    uk = replace(design(BODY.replace("sc", "dc")), terms=Terms.UK)
    assert "Work as there." in as_text(made(uk, design(BODY)))


def test_a_base_without_version_or_designer_is_called_by_its_title() -> None:
    assert "You need Moth. This booklet" in as_text(made(design(HEAD), design(BODY), TheBase("Moth")))


# --- in other languages ------------------------------------------------------------------------------------

LONGER = BODY.replace("R5-R8", "R5-R9").replace("R9:", "R10:", 1)
CHANGES = (
    (design(BODY), design(LONGER)),
    (design(BODY, TAIL), design(BODY)),
    (design(BODY), design(BODY, TAIL)),
    (design(BODY, TAIL), design(BODY.replace("R5-R8: sc around\n", ""), TAIL, BODY)),
)


@pytest.mark.parametrize("language", list(Language))
@pytest.mark.parametrize(("base", "mine"), CHANGES)
def test_every_sentence_of_it_is_said_in_the_language(
    language: Language, base: Design, mine: Design, monkeypatch: pytest.MonkeyPatch
) -> None:
    lacking: set[str] = set()
    found = Words._found

    def watched(words: Words, sentence: str) -> str:
        if words.language is not None and catalogue(words.language).get(sentence) is None:
            lacking.add(sentence)
        return found(words, sentence)

    monkeypatch.setattr(Words, "_found", watched)
    document = made(base, mine, imprint=replace(IMPRINT, language=language))
    hers = {line for part in (*base.parts, *mine.parts) for line in part.text.splitlines()}
    assert lacking - hers == set()
    assert document.language == language.value
    text = as_text(document)
    assert "Moth" in text
    for english in ("as there", "You need", "All in all", "Leave out", " more", "Work as"):
        assert english not in text, english


@pytest.mark.parametrize("language", list(Language))
@pytest.mark.parametrize(("base", "mine"), CHANGES)
def test_it_holds_no_line_of_the_base_in_any_language(language: Language, base: Design, mine: Design) -> None:
    imprint = replace(IMPRINT, language=language)
    whole = compose(manuscript_of(base, run_parts(base), imprint))
    assert not set(lines_of(made(base, mine, imprint=imprint))) & set(lines_of(whole))


@pytest.mark.parametrize(("base", "mine"), CHANGES)
def test_it_tells_as_many_rounds_in_every_language(base: Design, mine: Design) -> None:
    """What is as there, and what is not, does not hang on the words."""
    english = made(base, mine)
    for language in Language:
        other = made(base, mine, imprint=replace(IMPRINT, language=language))
        assert [s.key for s in other.sections] == [s.key for s in english.sections]
        assert len(lines_of(other)) == len(lines_of(english))
