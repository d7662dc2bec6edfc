"""Changes of parts' texts: autosaved as typed texts, kept as versions, one revision an action."""

from __future__ import annotations

import secrets
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.eye_text import eyes_from_text
from craft.errors import CraftError
from craft.fitting.panels import recipe_json, recipe_of
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from craft.text.exchange import converted
from studio.designs.assembly_page import AssemblyPage
from studio.designs.entries import with_eyes
from studio.designs.manifest import Manifest, PartEntry
from studio.designs.models import Design, PartVersion, TypedText
from studio.designs.policy import design_of, part_of
from studio.designs.reading import read_text, version_tag
from studio.designs.recording import new_version, record
from studio.designs.values import eyes_value
from studio.errors import Refusal


def with_part(manifest: Manifest, entry: PartEntry) -> Manifest:
    """The manifest with another entry for a part."""
    parts = [entry if p.key == entry.key else p for p in manifest.parts]
    return manifest.model_copy(update={"parts": parts})


@transaction.atomic
def save_typed(user: User, pk: int, key: str, text: str, etag: str) -> TypedText:
    """Autosave a part's text. Refusal 409 with both texts when it was typed over an older one."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    typed = TypedText.objects.filter(design=design, part_key=key).first()
    present = typed.etag if typed else version_tag(entry.version)
    if etag != present:
        theirs = typed.text if typed else PartVersion.objects.get(pk=entry.version).text
        if theirs != text:
            raise Refusal(
                409,
                "stale-text",
                f"{entry.name} was changed in another window since you opened it here.",
                theirs=theirs,
                mine=text,
                etag=present,
            )
    tag = secrets.token_hex(8)
    typed, _ = TypedText.objects.update_or_create(
        design=design, part_key=key, defaults={"base_id": entry.version, "text": text, "etag": tag}
    )
    return typed


def keep_version(design: Design, key: str, label: str | None = None) -> bool:
    """Make a version of a part's typed text, if it says something new; True when a revision was recorded."""
    typed = TypedText.objects.filter(design=design, part_key=key).select_related("base").first()
    if typed is None:
        return False
    entry = next((p for p in design.manifest.parts if p.key == key), None)
    typed.delete()
    base = typed.base
    if entry is None or typed.text == base.text:
        return False
    version = new_version(design, key, typed.text, base.recipe, hand_edited=True)
    record_text(design, entry, base.text, version, label or f"Changed the rounds of {entry.name}")
    return True


def record_text(design: Design, entry: PartEntry, before: str, version: PartVersion, label: str) -> None:
    """Record another text of a part, with the eyes where its direction puts them."""
    manifest = with_part(design.manifest, entry.model_copy(update={"version": version.pk}))
    worked = read_text(manifest, entry, version.text)
    page = page_from_text(manifest.assembly, entry.key, before, version.text, worked)
    record(design, manifest.model_copy(update={"assembly": page}), label)


def page_from_text(page: AssemblyPage, key: str, before: str, after: str, worked: WorkedPart | None) -> AssemblyPage:
    """The page with the eyes where a part's changed text puts them."""
    eyes = eyes_value(page)
    moved = eyes_from_text(eyes, key, before, after, worked)
    return page if moved is eyes else with_eyes(page, moved)


def keep_all_typed(design: Design) -> None:
    """Make versions of all typed texts of a locked design."""
    for key in list(design.typed_texts.values_list("part_key", flat=True)):
        keep_version(design, key)


@transaction.atomic
def keep_typed(user: User, pk: int, key: str) -> Design:
    """Make a version of what was typed since the last one."""
    design = design_of(user, pk, lock=True)
    part_of(design, key)
    keep_version(design, key)
    return design


@transaction.atomic
def set_text(user: User, pk: int, key: str, text: str, recipe: dict[str, Any] | None, label: str | None) -> Design:
    """Replace a part's text as one action: a new draft of its shape, a tidy, a mend."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    keep_version(design, key)
    entry = part_of(design, key)
    old = PartVersion.objects.get(pk=entry.version)
    if recipe is not None:
        recipe = recipe_json(recipe_of(recipe))
    if old.text == text and (recipe is None or recipe == old.recipe):
        return design
    version = new_version(design, key, text, recipe or old.recipe, hand_edited=recipe is None)
    said = f"Shaped {entry.name}" if recipe else f"Changed the rounds of {entry.name}"
    record_text(design, entry, old.text, version, label or said)
    return design


@transaction.atomic
def rewrite_parts(
    user: User, pk: int, texts: dict[str, str], assembly: AssemblyPage, order: list[str], label: str
) -> Design:
    """Other texts of several parts, another assembly and order of parts, as one change."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    manifest = design.manifest
    old = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    entries: dict[str, PartEntry] = {}
    for entry in manifest.parts:
        if entry.key in texts:
            recipe = old[entry.version].recipe
            made = new_version(design, entry.key, texts[entry.key], recipe, hand_edited=True)
            entry = entry.model_copy(update={"version": made.pk})  # noqa: PLW2901
        entries[entry.key] = entry
    parts = [entries[key] for key in order if key in entries] + [e for k, e in entries.items() if k not in order]
    record(design, manifest.model_copy(update={"parts": parts, "assembly": assembly}), label)
    return design


@transaction.atomic
def rename_design(user: User, pk: int, name: str, terms: str, *, convert: bool = False) -> Design:
    """Another name, other terms. convert: every part's rounds are put into the new terms, as the same one change.

    CraftError when rounds to be converted are not understood; else texts stay as they were typed.
    """
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    if (manifest.name, manifest.terms) == (name, terms):
        return design
    changes: dict[str, Any] = {"name": name, "terms": terms}
    label = f"Named it {name}" if manifest.name != name else f"Read it in {_TERMS[terms]}"
    if convert and manifest.terms != terms:
        keep_all_typed(design)
        manifest = design.manifest
        changes["parts"] = _in_terms(design, manifest, terms)
        label = f"Put its rounds into {_TERMS[terms]}"
    record(design, manifest.model_copy(update=changes), label)
    return design


_TERMS = {"us": "US terms", "uk": "UK terms", "letters": "letters"}


def _in_terms(design: Design, manifest: Manifest, terms: str) -> list[PartEntry]:
    """Every part with a version of its text in other terms; drafted rounds stay the drafted ones."""
    versions = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    entries = []
    for entry in manifest.parts:
        old = versions[entry.version]
        try:
            text = converted(old.text, Terms(manifest.terms), Terms(terms))
        except CraftError as error:
            raise CraftError(f"{entry.name}: {error.message}", field="terms") from None
        made = new_version(design, entry.key, text, old.recipe, hand_edited=old.hand_edited)
        entries.append(entry.model_copy(update={"version": made.pk}))
    return entries
