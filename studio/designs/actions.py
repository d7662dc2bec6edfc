"""Changes of designs and their parts: each checks, writes in one transaction, and records a revision."""

from __future__ import annotations

import secrets
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.drafting import Recipe
from studio.designs.manifest import PAGES, AssemblyPage, Manifest, PartEntry
from studio.designs.models import Design, Draft, PartVersion, Revision
from studio.designs.places import located
from studio.designs.policy import design_of, part_of, revision_of
from studio.designs.reading import read_parts, version_etag, worked_parts
from studio.designs.recording import new_key, new_version, record
from studio.errors import Refusal

MOST_DESIGNS = 2_000


@transaction.atomic
def create_design(user: User, name: str, terms: str) -> Design:
    """A design from nothing."""
    if Design.objects.filter(owner=user).count() >= MOST_DESIGNS:
        raise Refusal(422, "invalid", f"The shelf holds at most {MOST_DESIGNS} designs.")
    design = Design.objects.create(owner=user, name=name)
    record(design, Manifest.model_validate({"name": name, "terms": terms}), "Started the design")
    return design


@transaction.atomic
def copy_design(
    user: User,
    pk: int,
    name: str | None = None,
    texts: dict[str, tuple[str, dict[str, Any] | None]] | None = None,
    changes: dict[str, Any] | None = None,
) -> Design:
    """A copy that knows where it came from. texts: other texts and recipes by part key; changes: of the manifest."""
    source = design_of(user, pk, lock=True)
    cut_all(source)
    manifest = source.manifest
    copy = Design.objects.create(
        owner=user,
        name=name or f"{manifest.name[:33]} copy",
        origin=source,
        origin_name=source.name,
        origin_number=source.revision.number,
    )
    versions = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    parts: list[PartEntry] = []
    for entry in manifest.parts:
        old = versions[entry.version]
        text, recipe = (texts or {}).get(entry.key, (old.text, old.recipe))
        changed = entry.key in (texts or {})
        made = new_version(
            copy, entry.key, text, recipe, manifest.terms, hand_edited=False if changed else old.hand_edited
        )
        parts.append(entry.model_copy(update={"version": made.pk}))
    brief = manifest.brief.model_copy(update={"pictures": []})
    fresh = manifest.model_copy(update={"name": copy.name, "parts": parts, "brief": brief, **(changes or {})})
    record(copy, Manifest.model_validate(fresh.model_dump()), f"Copied from {source.name}")
    return copy


@transaction.atomic
def rename_design(user: User, pk: int, name: str, terms: str) -> Design:
    """Another name, other terms; texts stay as they were typed."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    if (manifest.name, manifest.terms) != (name, terms):
        record(design, manifest.model_copy(update={"name": name, "terms": terms}), f"Named it {name}")
    return design


@transaction.atomic
def remove_design(user: User, pk: int) -> None:
    """Take a design off the shelf for good."""
    design = design_of(user, pk, lock=True)
    for picture in design.pictures.all():
        picture.file.delete(save=False)
    design.head = None
    design.save(update_fields=["head"])
    design.delete()


@transaction.atomic
def add_part(user: User, pk: int, values: dict[str, Any]) -> tuple[Design, str]:
    """Another part with `name`, `make`, `colour`, `text` and `recipe`; the design and the part's key."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    if len(manifest.parts) >= 60:
        raise Refusal(422, "invalid", "A design holds at most 60 parts.")
    recipe = None if values["recipe"] is None else Recipe.from_json(values["recipe"]).to_json()
    key, name = new_key(), values["name"]
    version = new_version(design, key, values["text"], recipe, manifest.terms)
    entry = PartEntry(key=key, name=name, make=values["make"], version=version.pk, colour=values["colour"])
    record(design, manifest.model_copy(update={"parts": [*manifest.parts, entry]}), f"Added {name}")
    return design, key


@transaction.atomic
def add_parts(user: User, pk: int, found: list[dict[str, Any]]) -> Design:
    """Several parts with `name`, `make` and `text`, from a file, as one change."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    if len(manifest.parts) + len(found) > 60:
        raise Refusal(422, "invalid", "A design holds at most 60 parts.")
    entries = []
    for values in found:
        key = new_key()
        version = new_version(design, key, values["text"], None, manifest.terms)
        entries.append(PartEntry(key=key, name=values["name"], make=values["make"], version=version.pk, colour=None))
    names = ", ".join(e.name for e in entries[:3]) + (" …" if len(entries) > 3 else "")
    parts = [*manifest.parts, *entries]
    record(design, manifest.model_copy(update={"parts": parts}), f"Brought in {names}"[:120])
    return design


def _with_part(manifest: Manifest, entry: PartEntry) -> Manifest:
    parts = [entry if p.key == entry.key else p for p in manifest.parts]
    return manifest.model_copy(update={"parts": parts})


@transaction.atomic
def change_part(user: User, pk: int, key: str, values: dict[str, Any]) -> Design:
    """Another `name`, `make` or `colour` of a part."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    changed = entry.model_copy(update=values)
    if changed != entry:
        record(design, _with_part(design.manifest, changed), f"Changed {changed.name}: make {changed.make}")
    return design


@transaction.atomic
def remove_part(user: User, pk: int, key: str) -> Design:
    """Take a part out; steps that name it stay and show that it is gone."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    _cut(design, key)
    manifest = design.manifest
    record(
        design,
        manifest.model_copy(update={"parts": [p for p in manifest.parts if p.key != key]}),
        f"Removed {entry.name}",
    )
    return design


@transaction.atomic
def save_draft(user: User, pk: int, key: str, text: str, etag: str) -> Draft:
    """Autosave a part's text. Refusal 409 with both texts when it was typed over an older one."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    draft = Draft.objects.filter(design=design, part_key=key).first()
    present = draft.etag if draft else version_etag(entry.version)
    if etag != present:
        theirs = draft.text if draft else PartVersion.objects.get(pk=entry.version).text
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
    draft, _ = Draft.objects.update_or_create(
        design=design, part_key=key, defaults={"base_id": entry.version, "text": text, "etag": tag}
    )
    return draft


def _cut(design: Design, key: str, label: str | None = None) -> bool:
    """Make a version of a part's draft, if it says something new; True when a revision was recorded."""
    draft = Draft.objects.filter(design=design, part_key=key).select_related("base").first()
    if draft is None:
        return False
    entry = next((p for p in design.manifest.parts if p.key == key), None)
    draft.delete()
    base = draft.base
    if entry is None or draft.text == base.text:
        return False
    version = new_version(design, key, draft.text, base.recipe, design.manifest.terms, hand_edited=True)
    record(
        design,
        _with_part(design.manifest, entry.model_copy(update={"version": version.pk})),
        label or f"Changed the rounds of {entry.name}",
    )
    return True


def cut_all(design: Design) -> None:
    """Make versions of all drafts of a locked design."""
    for key in list(design.drafts.values_list("part_key", flat=True)):
        _cut(design, key)


@transaction.atomic
def cut_version(user: User, pk: int, key: str) -> Design:
    """Make a version of what was typed since the last one."""
    design = design_of(user, pk, lock=True)
    part_of(design, key)
    _cut(design, key)
    return design


@transaction.atomic
def set_text(user: User, pk: int, key: str, text: str, recipe: dict[str, Any] | None, label: str | None) -> Design:
    """Replace a part's text as one action: a new draft of its shape, a tidy, a mend."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    _cut(design, key)
    entry = part_of(design, key)
    old = PartVersion.objects.get(pk=entry.version)
    if recipe is not None:
        recipe = Recipe.from_json(recipe).to_json()
    if old.text == text and (recipe is None or recipe == old.recipe):
        return design
    version = new_version(design, key, text, recipe or old.recipe, design.manifest.terms, hand_edited=recipe is None)
    record(
        design,
        _with_part(design.manifest, entry.model_copy(update={"version": version.pk})),
        label or (f"Shaped {entry.name}" if recipe else f"Changed the rounds of {entry.name}"),
    )
    return design


_PAGE_LABELS = {
    "gauge": "Changed yarn and gauge",
    "brief": "Changed the brief",
    "assembly": "Changed the assembly",
    "sizes": "Changed the sizes",
    "booklet": "Changed the booklet",
    "proving": "Changed the proving notes",
}


@transaction.atomic
def set_page(user: User, pk: int, page: str, base: int, data: dict[str, Any]) -> Design:
    """Write a page of notes. Refusal 409 when the page changed since revision `base`."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    value = PAGES[page].model_validate(data)
    present = getattr(manifest, page)
    if present == value:
        return design
    if base != design.revision.number:
        seen = revision_of(design, base).manifest
        if getattr(seen, page) != present:
            raise Refusal(
                409,
                "stale-page",
                "This page was changed in another window since you opened it here.",
                theirs=present.model_dump(mode="json"),
                revision=design.revision.number,
            )
    if isinstance(value, AssemblyPage):
        value = located(value, manifest.assembly, worked_parts(read_parts(design)))
        if manifest.assembly == value:
            return design
    record(design, manifest.model_copy(update={page: value}), _PAGE_LABELS[page])
    return design


@transaction.atomic
def rewrite_parts(
    user: User, pk: int, texts: dict[str, str], assembly: AssemblyPage, order: list[str], label: str
) -> Design:
    """Other texts of several parts, another assembly and order of parts, as one change."""
    design = design_of(user, pk, lock=True)
    cut_all(design)
    manifest = design.manifest
    old = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    entries: dict[str, PartEntry] = {}
    for entry in manifest.parts:
        if entry.key in texts:
            recipe = old[entry.version].recipe
            made = new_version(design, entry.key, texts[entry.key], recipe, manifest.terms, hand_edited=True)
            entry = entry.model_copy(update={"version": made.pk})  # noqa: PLW2901
        entries[entry.key] = entry
    parts = [entries[key] for key in order if key in entries] + [e for k, e in entries.items() if k not in order]
    record(design, manifest.model_copy(update={"parts": parts, "assembly": assembly}), label)
    return design


def _show(design: Design, revision: Revision) -> None:
    design.drafts.all().delete()
    design.head = revision
    design.name = revision.manifest.name
    design.save()


@transaction.atomic
def undo(user: User, pk: int) -> Design:
    """One action back; what was being typed counts as one."""
    design = design_of(user, pk, lock=True)
    cut_all(design)
    if design.revision.parent is None:
        raise Refusal(422, "nothing-to-undo", "There is nothing to undo.")
    _show(design, design.revision.parent)
    return design


@transaction.atomic
def redo(user: User, pk: int) -> Design:
    """The last undone action again."""
    design = design_of(user, pk, lock=True)
    cut_all(design)
    following = design.revision.children.order_by("-number").first()
    if following is None:
        raise Refusal(422, "nothing-to-redo", "There is nothing to do again.")
    _show(design, following)
    return design


@transaction.atomic
def go_back(user: User, pk: int, number: int) -> Design:
    """Show an earlier revision's content as a new one."""
    design = design_of(user, pk, lock=True)
    cut_all(design)
    chosen = revision_of(design, number)
    if chosen.pk != design.revision.pk:
        record(design, chosen.manifest, f"Went back to step {number}")
    return design
