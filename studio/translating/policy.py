"""Whose translators: the designer's, and what one of them wrote is for whoever holds that link."""

from __future__ import annotations

from studio.policy import Purpose, Rule, Verb, register
from studio.translating.models import TranslatedPiece, Translator

_TRANSLATORS = {Purpose.TRANSLATE: frozenset({Verb.SEE, Verb.REPORT})}

register(Translator, Rule("design__owner", "design_id", _TRANSLATORS, link="link_id"))
register(
    TranslatedPiece,
    Rule("translator__design__owner", "translator__design_id", _TRANSLATORS, link="translator__link_id"),
)
