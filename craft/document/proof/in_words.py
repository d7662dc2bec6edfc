"""Abbreviations: each that stands in the booklet is explained, and each that is explained is used."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence

from craft.design.design import Design
from craft.design.running import RunPart
from craft.document.booklet import abbreviations
from craft.document.proof.finding import Finding, Stop
from craft.rounds.pattern import Note, Step

_SHORT = re.compile(r"(?<![\w#])([A-Z]{2,5}\d?|[a-z]{1,3}tog|sts?)(?![\w'’])")
"""Words that look like an abbreviation: capitals, 'sc2tog', 'st'."""

_EXPLAINS = re.compile(r"(?m)^[\s•*-]*([A-Za-z][\w-]{0,7}(?: st)?)\s*(?:=|:|–|—)\s*\S")
"""A line of her notes that explains one: 'PM = place a marker'."""

_EVERYONES = {
    *(
        "US",
        "UK",
        "EU",
        "EN",
        "ISO",
        "ASTM",
        "CFR",
        "PDF",
        "OK",
        "DIY",
        "II",
        "III",
        "IV",
        "VI",
        "XL",
        "XS",
        "XXL",
        "LED",
    ),
    *("MM", "CM", "WIP", "TV", "st", "sts"),
}
"""Capitals that are no abbreviations of the trade, and 'stitch', which the booklet always explains by its counts."""


def in_words(design: Design, parts: Sequence[RunPart]) -> Iterator[Finding]:
    """Unexplained and unused abbreviations of her own words."""
    known = {word.casefold() for word, _ in abbreviations(design.terms, [p.written for p in parts])}
    noted = _EXPLAINS.findall(design.printed.notes)
    explained = known | {n.casefold() for n in noted}
    names = {w.casefold() for p in design.parts for w in re.findall(r"\w+", p.name)}
    names |= {w.casefold() for y in design.yarns for w in re.findall(r"\w+", y.name)}
    names |= {w.casefold() for w in re.findall(r"\w+", design.name)}
    told: set[str] = set()
    for stop, part, step, text in _texts(design, parts):
        for word in _SHORT.findall(text):
            plain = word.casefold()
            if word in _EVERYONES or plain in explained | names | told:
                continue
            told.add(plain)
            where = f" ({part})" if part else ""
            said = f"“{word}” is explained nowhere{where}: write “{word} = …” in the notes for the maker, or say it in words."
            yield Finding("unexplained", said, stop, next((p.key for p in parts if p.name == part), None), step=step)
    written = " ".join(text for _, _, _, text in _texts(design, parts))
    written += " ".join(part.part.text for part in parts)
    for word in noted:
        uses = re.findall(rf"(?<!\w){re.escape(word)}(?!\w)", written, re.IGNORECASE)
        if len(uses) < 2:  # the notes themselves are one
            yield Finding("unused", f"The notes explain “{word}”, which is never used.", Stop.BOOKLET)


def _texts(design: Design, parts: Sequence[RunPart]) -> Iterator[tuple[Stop, str, str | None, str]]:
    """Every text of her own with its stop, its part's name and its step's key."""
    for part in parts:
        for item in part.written.items:
            if isinstance(item, Step | Note):
                yield Stop.ROUNDS, part.name, None, item.text
    for step in design.steps:
        yield Stop.ASSEMBLY, "", step.key, step.text
    yield Stop.BOOKLET, "", None, design.printed.notes
    yield Stop.BRIEF, "", None, design.brief.intro
