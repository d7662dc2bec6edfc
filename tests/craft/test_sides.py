"""Sides exchanged for the left hand, in the languages of the booklets."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from craft.rounds.stitches import Language
from craft.text.notation import other_side

PAIRS = [
    (None, "Sew the left ear to the right of the middle.", "Sew the right ear to the left of the middle."),
    (None, "Skip the stitches left over; right sides out.", "Skip the stitches left over; right sides out."),
    (Language.GERMAN, "Das linke Ohr rechts annähen.", "Das rechte Ohr links annähen."),
    (Language.GERMAN, "Die rechte Seite nach außen.", "Die rechte Seite nach außen."),
    (Language.GERMAN, "Im Uhrzeigersinn drehen.", "Gegen den Uhrzeigersinn drehen."),
    (Language.FRENCH, "Coudre le bras gauche à droite.", "Coudre le bras droit à gauche."),
    (Language.FRENCH, "La jambe droite, puis la jambe gauche.", "La jambe gauche, puis la jambe droite."),
    (Language.FRENCH, "Continuer tout droit.", "Continuer tout droit."),
    (Language.SPANISH, "El brazo izquierdo a la derecha.", "El brazo derecho a la izquierda."),
    (Language.SPANISH, "Por el derecho de la labor.", "Por el derecho de la labor."),
    (Language.ITALIAN, "Il braccio sinistro a destra.", "Il braccio destro a sinistra."),
    (Language.DUTCH, "Het linkerbeen rechts van het midden.", "Het rechterbeen links van het midden."),
    (Language.DUTCH, "De linker arm.", "De rechter arm."),
]


@pytest.mark.parametrize(("language", "said", "wanted"), PAIRS)
def test_sides_are_exchanged_and_what_is_no_side_stays(language: Language | None, said: str, wanted: str) -> None:
    assert other_side(said, language) == wanted


@pytest.mark.parametrize(("language", "said", "wanted"), PAIRS)
def test_exchanged_twice_they_are_as_they_were(language: Language | None, said: str, wanted: str) -> None:
    assert other_side(wanted, language) == said


@given(st.sampled_from(list(Language)), st.text(alphabet="abcdefghij .,;ñéüß\n0123456789", max_size=80))
def test_words_without_a_side_stay_as_they_are(language: Language, said: str) -> None:
    assert other_side(said, language) == said


@given(st.sampled_from([None, *Language]), st.text(max_size=200))
def test_no_text_breaks_it(language: Language | None, said: str) -> None:
    assert isinstance(other_side(said, language), str)
