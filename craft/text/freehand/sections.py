"""What the lines between the rounds are about: title, materials, gauge, abbreviations, assembly, safety, rights, thanks."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

from craft.text.freehand.corrections import Taken
from craft.text.freehand.lexicon import words_file

_SECTIONS = MappingProxyType({
    "materials": Taken.MATERIALS, "gauge": Taken.GAUGE, "abbreviations": Taken.ABBREVIATIONS,
    "assembly": Taken.ASSEMBLY, "safety": Taken.SAFETY, "permissions": Taken.PERMISSIONS, "credits": Taken.CREDITS,
    "parts": Taken.NOTE,
})  # fmt: skip
MOST_TITLE = 80
"""Code points of a line that may be the title."""

_MARKS = " \t#*_~=.:;,-–—•·|[]()>\"'"
_ABOUT = (
    (Taken.PERMISSIONS, re.compile(r"(?i)^\s*(?:©|\(c\)\s)|\bpersonal use\b|\bdo not (?:re)?sell\b|\byou may sell\b")),
    (Taken.SAFETY, re.compile(r"(?i)\bunder (?:3|three)\b|\bchok|\bsmall parts\b|\bnot (?:suitable|safe) for\b")),
    (
        Taken.GAUGE,
        re.compile(
            r"(?i)\d\s*(?:sts?|sc|dc|stitches)\b.{0,40}(?:=|\bto\b|\bmeasures?\b|\bper\b).{0,12}\d\s*(?:cm|mm|in\b|\")"
        ),
    ),
    (
        Taken.MATERIALS,
        re.compile(
            r"(?i)^(?:you(?:'ll|\s+will)?\s+need|needed)\b|\b\d(?:[.,]\d+)?\s*mm\s+(?:crochet\s+)?hook\b|\bhook\b.{0,12}\b\d(?:[.,]\d+)?\s*mm\b"
        ),
    ),
)  # fmt: skip
"""Sentences whose words alone say what they are about. Common practice, no source."""


@dataclass(frozen=True, slots=True)
class Prose:
    """A row that is no round and no heading. taken: a note or a direction by its words, anything else when she says
    so. first: it is the text's first. explains: it says what words of its own mean. open: nobody said what it is."""

    text: str
    taken: Taken
    first: bool = False
    explains: bool = False
    open: bool = True


@cache
def _phrases(language: str) -> Mapping[str, Taken]:
    found: dict[str, Taken] = {}
    for code in dict.fromkeys(("en", language)):
        for name, phrases in words_file(code)["sections"].items():
            found |= dict.fromkeys(phrases, _SECTIONS[name])
    return MappingProxyType(found)


def section_heading(text: str, language: str) -> Taken | None:
    """The section that a line is the heading of, and nothing else; NOTE for the one in which the parts begin."""
    lead, alone = _lead(text, language)
    return lead if alone else None


def _lead(text: str, language: str) -> tuple[Taken | None, bool]:
    """The section that a line opens with its words, and whether it is nothing but that heading."""
    phrases = _phrases(language)
    plain = re.sub(r"\s*[(\[][^)\]]{0,20}[)\]]\W*$", "", text.strip()).strip(_MARKS).lower()
    if (alone := phrases.get(plain)) is not None:
        return alone, True
    before, colon, behind = text.partition(":")
    if colon and (lead := phrases.get(before.strip(_MARKS).lower())) is not None:
        return lead, not behind.strip(_MARKS)
    before, dash, behind = re.sub(r"\s[-–—]\s", "\0", text, count=1).partition("\0")
    if dash and behind and (lead := phrases.get(before.strip(_MARKS).lower())) is not None:
        return lead, False
    return next((taken for taken, words in _ABOUT if words.search(text)), None), False


def sections_of(found: Sequence[Prose | None], language: str) -> list[Taken | None]:
    """What every row of prose is about; None for None, which stands for a row that is a part's or a round's.

    A heading of a section holds for what follows, to the next heading or round; a line that only opens with its word
    holds for itself.
    """
    out: list[Taken | None] = []
    here: Taken | None = None
    last = max((at for at, row in enumerate(found) if row is None), default=-1)
    for at, row in enumerate(found):
        if row is None:
            here = None
            out.append(None)
        elif not row.open:
            out.append(row.taken)
        else:
            lead, alone = _lead(row.text, language)
            if alone:
                here = None if lead is Taken.NOTE else lead
            elif lead is Taken.ASSEMBLY and at < last:
                lead = None  # 'Finishing: cut the yarn.' behind a part that others follow is that part's own
            out.append(_about(row, lead, here))
    return out


def _about(row: Prose, lead: Taken | None, here: Taken | None) -> Taken:
    if lead is Taken.NOTE:
        return row.taken
    if lead is not None:
        return lead
    if row.explains and here in (None, Taken.ABBREVIATIONS, Taken.MATERIALS):
        return Taken.ABBREVIATIONS
    if here is not None:
        return here
    if row.first and len(row.text.strip()) <= MOST_TITLE and not re.search(r"[=;]|\d\s*mm", row.text):
        return Taken.TITLE
    return row.taken
