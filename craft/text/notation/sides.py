"""Words for sides in the languages that booklets are printed in, and each exchanged for its opposite."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from craft.rounds.stitches import Language


@dataclass(frozen=True, slots=True)
class _Sides:
    """Pairs of words, each the other's opposite; what they are looked for with; and words like them that are no sides."""

    other: Mapping[str, str]
    words: re.Pattern[str]
    keep: re.Pattern[str]


def _sides(pairs: tuple[tuple[str, str], ...], keep: str, begins: str = "") -> _Sides:
    """begins: beginnings of longer words that are exchanged as well, 'linker' of 'linkerbeen'."""
    other = {a.lower(): b for a, b in pairs} | {b.lower(): a for a, b in pairs}
    whole = "|".join(sorted(map(re.escape, other), key=len, reverse=True))
    longer = rf"(?:{begins})(?=[^\W\d_])|" if begins else ""
    words = re.compile(rf"(?i)(?<![^\W_-])(?:{longer}(?:{whole})(?![^\W\d_]|-[^\W\d_]))")
    return _Sides(MappingProxyType(other), words, re.compile(rf"(?i){keep}"))


_ENDINGS_DE = ("e", "en", "er", "es", "em", "erseits", "sherum", "shänder", "shändig", "shändige")
_SIDES: Mapping[Language | None, _Sides] = MappingProxyType({
    None: _sides(
        (
            ("left", "right"), ("lefts", "rights"), ("left-hand", "right-hand"), ("left-handed", "right-handed"),
            ("leftmost", "rightmost"), ("leftwards", "rightwards"), ("clockwise", "anticlockwise"), ("cw", "ccw"),
        ),
        r"\bright\s+sides?\b(?=.{0,12}\b(?:out|facing|up|of\s+the\s+fabric))"
        r"|\bleft\s+(?:over|unworked|free|open|empty|on\s+hold|waiting)|\b(?:are|is|sts|stitches|st|one|two)\s+left\b"
        r"|\bright\s+(?:away|after|before|next)|\ball\s+right",
    ),
    Language.GERMAN: _sides(
        (
            ("links", "rechts"), *((f"link{e}", f"recht{e}") for e in _ENDINGS_DE),
            ("im Uhrzeigersinn", "gegen den Uhrzeigersinn"),
        ),
        r"\b(?:rechte|linke)n?\s+(?:seite|maschen?)\b(?=.{0,16}\b(?:außen|innen|oben|stricken|der\s+arbeit))|\brecht\s+(?!s)",
    ),
    Language.FRENCH: _sides(
        (
            ("gauche", "droite"), ("gauches", "droites"), ("gaucher", "droitier"), ("gauchère", "droitière"),
            ("dans le sens des aiguilles d'une montre", "dans le sens inverse des aiguilles d'une montre"),
        ),
        r"\btout\s+droite?\b|\blignes?\s+droites?\b",
    ),
    Language.SPANISH: _sides(
        (
            ("izquierda", "derecha"), ("izquierdas", "derechas"), ("izquierdo", "derecho"), ("izquierdos", "derechos"),
            ("zurda", "diestra"), ("zurdo", "diestro"),
            ("en el sentido de las agujas del reloj", "en sentido contrario a las agujas del reloj"),
        ),
        r"\b(?:por|del|el)\s+derecho\b(?!\s+del\s+cuerpo)|\bderechos?\s+de\s+autor\b",
    ),
    Language.ITALIAN: _sides(
        (
            ("sinistra", "destra"), ("sinistre", "destre"), ("sinistro", "destro"), ("sinistri", "destri"),
            ("mancina", "destrorsa"), ("mancino", "destrorso"), ("in senso orario", "in senso antiorario"),
        ),
        r"(?!)",
    ),
    Language.DUTCH: _sides(
        (
            ("links", "rechts"), ("linkse", "rechtse"), ("linker", "rechter"), ("linkshandig", "rechtshandig"),
            ("linkshandige", "rechtshandige"), ("met de klok mee", "tegen de klok in"),
        ),
        r"(?!)",
        begins="linker|rechter",
    ),
})  # fmt: skip
"""Common practice, no source."""

_MASCULINE = re.compile(r"(?i)\b(?:le|un|du|au|ce|son|mon|bras|pied|œil|oeil|côté|bord)\s+(?:[^\W\d_]+\s+)?$")
"""What stands before 'gauche' where its opposite is 'droit'."""


def other_side(text: str, language: Language | None = None) -> str:
    """`text` with every side exchanged; case is kept, and words that are no sides stay: 'left over', 'die rechte Seite
    außen'. language: that the text is written in, None for English."""
    sides = _SIDES[language]
    kept = [m.span() for m in sides.keep.finditer(text)]
    opposite: Callable[[re.Match[str]], str] = _french if language is Language.FRENCH else lambda m: _cased(m, sides)

    def swap(m: re.Match[str]) -> str:
        return m.group(0) if any(a <= m.start() < b for a, b in kept) else opposite(m)

    pattern = _FRENCH if language is Language.FRENCH else sides.words
    return pattern.sub(swap, text)


_FRENCH = re.compile(rf"{_SIDES[Language.FRENCH].words.pattern}|(?<![^\W_-])droits?(?![^\W\d_]|-[^\W\d_])")


def _cased(m: re.Match[str], sides: _Sides, word: str | None = None) -> str:
    said = m.group(0)
    other = word or sides.other[said.lower()]
    return other.upper() if said.isupper() else other[0].upper() + other[1:] if said[0].isupper() else other


def _french(m: re.Match[str]) -> str:
    """'le bras gauche' and 'le bras droit': the one side has one form, the other two."""
    sides, word = _SIDES[Language.FRENCH], m.group(0).lower()
    if word in ("droit", "droits"):
        return _cased(m, sides, "gauche" + "s" * word.endswith("s"))
    if word == "gauche" and _MASCULINE.search(m.string[: m.start()]):
        return _cased(m, sides, "droit")
    return _cased(m, sides)
