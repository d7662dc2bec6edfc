"""Bringing a written pattern in: read with what she says of its lines, as a new design or into one, as one change."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from pydantic import ValidationError

from craft.design.brought import design_of as value_of_text
from craft.design.brought import parts_in_terms
from craft.design.design import MOST_PARTS, Source
from craft.design.design import Design as DesignValue
from craft.errors import require
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.freehand import Correction, Corrections
from studio.designs import manifest as pages
from studio.designs.actions import create_from_value, names_of, with_parts
from studio.designs.entries import manifest_of, own_hook_entry, source_entry
from studio.designs.manifest import Manifest, PartEntry
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.recording import new_key, new_version, record
from studio.designs.schemas import BringIn, WrittenIn
from studio.errors import Refusal
from studio.refusals import placed_sentence


def read_written(asked: WrittenIn) -> Checked:
    """The text read with all that she says of it. CraftError for a correction that contradicts another, or a word
    whose explanation is not understood."""
    lines = tuple(Correction(c.line, c.column, c.taken, c.joined) for c in asked.corrections)
    words: Mapping[str, str] = {w.word: w.means for w in asked.words}
    return check(asked.text, Terms(asked.terms) if asked.terms else None, corrections=Corrections(lines, words))


def brought_value(asked: BringIn) -> DesignValue:
    """What is to be brought in, as a design: the chosen parts, and what stands beside them where that is wanted."""
    checked = read_written(asked)
    value = value_of_text(checked, asked.text, asked.name.rsplit("/", 1)[-1].rsplit(".", 1)[0])
    require(bool(value.parts), "No round was found in it. A round begins like 'R1: 6 sc in ring [6]'.", field="text")
    if asked.parts is not None:
        places = sorted(set(asked.parts))
        require(bool(places) and places[-1] < len(value.parts), "Choose from the parts that were found.", field="parts")
        value = replace(value, parts=tuple(value.parts[at] for at in places))
    if asked.theirs is not None:
        value = replace(value, sources=(Source(value.name, asked.theirs),))
    if asked.sections:
        return value
    return DesignValue(value.name, value.terms, yarns=value.yarns, parts=value.parts, sources=value.sources)


def bring_in_new(user: User, asked: BringIn) -> Design:
    """A design made of a written pattern, in the terms that it is written in."""
    return create_from_value(user, brought_value(asked))


@transaction.atomic
def bring_in(user: User, pk: int, asked: BringIn) -> Design:
    """The parts of a written pattern into a design, in its terms; with what stands beside them behind her own words."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    value = brought_value(asked)
    parts = parts_in_terms(value.parts, value.terms, Terms(manifest.terms))
    if len(manifest.parts) + len(parts) > MOST_PARTS:
        raise Refusal(422, "full", f"A design holds at most {MOST_PARTS} parts.")
    entries = [
        PartEntry(
            key=(key := new_key()),
            name=p.name,
            make=p.make,
            version=new_version(design, key, p.text, None).pk,
            own_hook=own_hook_entry(p.own_hook),
        )
        for p in parts
    ]
    grown = with_parts(manifest, entries, [p.text for p in parts])
    if asked.sections:
        grown = _with_sections(grown, value)
    named = [source_entry(replace(s, parts=tuple(e.name for e in entries))) for s in value.sources]
    grown = grown.model_copy(update={"sources": [*grown.sources, *named]})
    record(design, grown, f"Brought in {names_of(entries)}")
    return design


def _with_sections(manifest: Manifest, value: DesignValue) -> Manifest:
    """The design's pages with a text's own words behind hers; her hook, gauge and eyes stay where she has them."""
    own = manifest_of(replace(value, parts=()), {})
    gauge, assembly = manifest.gauge, manifest.assembly
    if gauge.hook_mm is None and own.gauge.hook_mm is not None:
        gauge = gauge.model_copy(update={"hook_mm": own.gauge.hook_mm})
    if gauge.source == "assumed" and own.gauge.source == "own":
        measured = {"source": "own", "stitch_mm": own.gauge.stitch_mm, "round_mm": own.gauge.round_mm}
        gauge = gauge.model_copy(update=measured)
    steps = [s.model_copy(update={"key": new_key()}) for s in own.assembly.steps]
    updates: dict[str, Any] = {"steps": [*assembly.steps, *steps]}
    if assembly.eye_kind == "none" and own.assembly.eye_kind != "none":
        updates |= {"eye_kind": own.assembly.eye_kind, "eye_mm": own.assembly.eye_mm}
    brief, booklet = manifest.brief, manifest.booklet
    prose = {name: _behind(getattr(brief, name), getattr(own.brief, name)) for name in ("intro", "notes")}
    printed = {n: _behind(getattr(booklet, n), getattr(own.booklet, n)) for n in ("permissions", "credits", "notes")}
    notions = _behind(booklet.notions, own.booklet.notions, ", ")
    changed = manifest.model_copy(
        update={
            "gauge": gauge,
            "assembly": assembly.model_copy(update=updates),
            "brief": brief.model_copy(update=prose),
            "booklet": booklet.model_copy(update={**printed, "notions": notions}),
        }
    )
    try:
        return Manifest.model_validate(changed.model_dump())
    except ValidationError as error:
        said = placed_sentence(error.errors()[0])
        raise Refusal(
            422, "full", f"What stands beside the rounds finds no room: {said} Bring in the parts alone."
        ) from None


def _behind(hers: str, theirs: str, between: str = "\n\n") -> str:
    """Both texts, hers first; nothing twice."""
    if not theirs or theirs in hers or theirs == pages.BookletPage().permissions:
        return hers
    return f"{hers}{between}{theirs}" if hers else theirs
