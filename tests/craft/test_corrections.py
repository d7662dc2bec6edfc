"""A text corrected by pointing: what a line is, where lines part and join, what a word means; and where its sections go."""

from __future__ import annotations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from craft.design.brought import design_of
from craft.design.design import EyeKind
from craft.design.parts import GaugeFrom
from craft.errors import CraftError
from craft.text.check import Checked, check
from craft.text.freehand import Correction, Corrections, Taken
from craft.text.sourced import SourceLine, source_lines

OWL = """Owl for the sill
You need:
Yarn: plum, 30 g
Hook 3,5 mm, two 9 mm safety eyes
Gauge: 10 sc x 11 rounds = 5 cm
inc = 2 sc in one st

The pattern
Something small today

BODY
Rnd 1: 6 sc in magic ring (6)
Rnd 2: inc in every st (12)
Stuff.

Finishing
Sew the wings to the body.
Embroider a beak.
Not suitable for children under three.
© Lanternwick. Personal use only.
Designed by: Lanternwick
"""


def lines(text: str, *said: Correction, **words: str) -> list[SourceLine]:
    corrections = Corrections(said, words)
    return list(source_lines(text, check(text, corrections=corrections)))


def taken(text: str, *said: Correction) -> list[tuple[int, Taken]]:
    return [(s.line, s.taken) for s in lines(text, *said)]


def counts(found: Checked) -> list[tuple[str | None, tuple[int, ...]]]:
    return [(p.name, tuple(t.live for t in p.rounds)) for p in found.parts if p.rounds]


def test_every_line_is_taken_for_something() -> None:
    found = dict(taken(OWL))
    assert found == {
        1: Taken.TITLE, 2: Taken.MATERIALS, 3: Taken.MATERIALS, 4: Taken.MATERIALS, 5: Taken.GAUGE,
        6: Taken.ABBREVIATIONS, 8: Taken.NOTE, 9: Taken.NOTE, 11: Taken.PART, 12: Taken.ROUND, 13: Taken.ROUND, 14: Taken.DIRECTION,
        16: Taken.ASSEMBLY, 17: Taken.ASSEMBLY, 18: Taken.ASSEMBLY, 19: Taken.SAFETY, 20: Taken.PERMISSIONS,
        21: Taken.CREDITS,
    }  # fmt: skip


def test_sections_land_at_their_stops() -> None:
    made = design_of(check(OWL), OWL, "owl.txt")
    assert made.name == "Owl for the sill"
    assert [s.text for s in made.steps] == ["Sew the wings to the body.", "Embroider a beak."]
    assert (made.gauge.hook_mm, made.gauge.source) == (3.5, GaugeFrom.OWN)
    assert (made.gauge.stitch_mm, made.gauge.round_mm) == (5.0, pytest.approx(50 / 11, abs=0.01))
    assert (made.eyes.kind, made.eyes.mm) == (EyeKind.SAFETY, 9)
    assert "30 g" in made.printed.notions
    assert made.printed.notes == "Not suitable for children under three."
    assert made.printed.permissions == "© Lanternwick. Personal use only."
    assert made.printed.credits == "Designed by: Lanternwick"
    assert [p.name for p in made.parts] == ["BODY"]
    assert made.parts[0].text.splitlines()[-1] == "Stuff."


def test_no_word_of_a_text_is_lost_on_its_way_into_a_design() -> None:
    made = design_of(check(OWL), OWL, "owl.txt")
    everywhere = " ".join([
        made.name, *made.printed.notions, made.printed.notes, made.printed.permissions, made.printed.credits,
        made.brief.intro, made.brief.notes, *(s.text for s in made.steps), *(p.name + p.text for p in made.parts),
    ])  # fmt: skip
    # A section's own heading is where it stands; her rounds are put into the notation.
    for line in OWL.splitlines():
        if line and line not in ("You need:", "Finishing", "The pattern") and not line.startswith("Rnd"):
            for word in line.replace(",", " ").split():
                assert word in everywhere, (word, line)


# --- what a line is ---------------------------------------------------------------------------

TWO = "Mushroom\nCAP IN RED IT IS QUITE LARGE AND ROUND YOU SEE\nR1: 6 sc in ring (6)\nR2: inc around (12)\n"


def test_a_line_becomes_the_heading() -> None:
    assert counts(check(TWO)) == [(None, (6, 12))]
    corrected = check(TWO, corrections=Corrections((Correction(2, taken=Taken.PART),)))
    assert counts(corrected) == [("CAP IN RED IT IS QUITE LARGE AND ROUND YOU SEE", (6, 12))]


def test_a_heading_of_many_words_is_cut_and_kept_whole() -> None:
    said = "WING IN PLUM AND ALSO CREAM AT THE EDGES, PLEASE MAKE TWO OF THEM ALL"
    text = f"Moth\n{said}\nR1: 6 sc in ring (6)\n"
    found = check(text, corrections=Corrections((Correction(2, taken=Taken.PART),)))
    part = design_of(found, text).parts[0]
    assert (part.name, part.make) == ("WING IN PLUM AND ALSO CREAM AT THE EDGES, PLEASE MAKE TWO", 2)
    assert said in part.text


def test_a_misread_heading_becomes_a_note() -> None:
    text = "Hat\nBrim first\nR1: 6 sc in ring (6)\n"
    assert counts(check(text)) == [("Brim first", (6,))]
    corrected = check(text, corrections=Corrections((Correction(2, taken=Taken.NOTE),)))
    assert counts(corrected) == [("Hat", (6,))]
    assert (2, Taken.NOTE) in taken(text, Correction(2, taken=Taken.NOTE))


def test_prose_becomes_a_round_and_a_round_prose() -> None:
    text = "# Ball\nR1: 6 sc in ring [6]\nAfter that increase in every stitch (12)\nR3: 12 sc [12]\n"
    assert counts(check(text, corrections=Corrections((Correction(3, taken=Taken.ROUND),)))) == [("Ball", (6, 12, 12))]
    text = "# Ball\nR1: 6 sc in ring [6]\nR2: inc around [12]\n"
    found = check(text, corrections=Corrections((Correction(3, taken=Taken.DIRECTION),)))
    assert counts(found) == [("Ball", (6,))]
    assert "R2: inc around [12]" in design_of(found, text).parts[0].text


def test_what_is_taken_for_nothing_leaves_no_trace_but_in_the_list() -> None:
    said = Correction(14, taken=Taken.NOTHING)
    found = check(OWL, corrections=Corrections((said,)))
    assert "Stuff" not in design_of(found, OWL).parts[0].text
    assert (14, Taken.NOTHING) in taken(OWL, said)


# --- where lines part and join ---------------------------------------------------------------------


def test_a_heading_is_split_off() -> None:
    text = "Ears and tail of the fox we make now R1: 6 sc in ring (6)\nR2: inc around (12)\n"
    at = text.index("R1")
    said = (Correction(1, taken=Taken.PART), Correction(1, at, Taken.ROUND))
    assert counts(check(text, corrections=Corrections(said))) == [("Ears and tail of the fox we make now", (6, 12))]
    found = lines(text, *said)
    assert [(s.line, s.column, s.taken) for s in found][:2] == [(1, 0, Taken.PART), (1, at, Taken.ROUND)]
    assert found[1].understood == "R1: 6 sc in ring [6]"


def test_a_round_is_joined_with_the_next_line() -> None:
    text = "# Ball\nR1: 6 sc in ring [6]\nR2: inc in the first three.\nThen inc in the others (12)\n"
    assert not check(text).sound
    said = Correction(3, joined=True)
    found = lines(text, said)
    assert [s.line for s in found] == [1, 2, 3]
    assert "Then inc in the others" in found[2].text
    assert found[2].joined


# --- words -------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("word", "what", "round_", "live"),
    [
        ("zog", "increase", "R2: 6 zog (12)", 12),
        ("zog", "nothing", "R2: zog inc in each st (12)", 12),
        ("plik", "2 sc in one stitch", "R2: plik in every st (12)", 12),
        ("in the owl's way", "nothing", "R2: in the owl's way inc x 6 (12)", 12),
    ],
)
def test_a_word_is_explained_once_for_the_whole_text(word: str, what: str, round_: str, live: int) -> None:
    text = f"# Ball\nR1: 6 sc in ring (6)\n{round_}\nR3: sc around (12)\n"
    found = check(text, corrections=Corrections((), {word: what}))
    assert counts(found) == [("Ball", (6, live, 12))]
    assert found.sound


def test_an_explanation_that_is_not_understood_says_so() -> None:
    with pytest.raises(CraftError, match="'zog' means is not understood") as refused:
        check("R1: 6 sc in ring (6)\nR2: 6 zog (12)\n", corrections=Corrections((), {"zog": "wibble"}))
    assert refused.value.field == "words"


# --- laws ----------------------------------------------------------------------------------------


@settings(deadline=None)
@given(
    st.lists(st.sampled_from([*OWL.splitlines(), "", "Ch 6.", "R9: sc around (9)"]), max_size=14),
    st.lists(
        st.tuples(st.integers(1, 15), st.integers(0, 12), st.sampled_from([None, *Taken]), st.booleans()), max_size=5
    ),
)
def test_whatever_is_corrected_every_line_is_accounted_for(
    rows: list[str], said: list[tuple[int, int, Taken | None, bool]]
) -> None:
    text = "\n".join(rows)
    at = {c[:2]: Correction(*c) for c in said}
    found = source_lines(text, check(text, corrections=Corrections(tuple(at.values()))))
    told = "".join(s.text for s in found)
    assert "".join(told.split()) == "".join(text.split())
    for one in found:
        correction = at.get((one.line, one.column))
        if correction is not None and correction.taken is not None and one.corrected:
            assert one.taken is correction.taken


@pytest.mark.parametrize("said", [((1, 0), (1, 0)), ((0, 0),), ((1, -1),)])
def test_corrections_that_contradict_themselves_are_refused(said: tuple[tuple[int, int], ...]) -> None:
    with pytest.raises(CraftError):
        Corrections(tuple(Correction(line, column) for line, column in said))
