"""Changes of designs and their parts: each checks, writes in one transaction, and records a revision."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.design import MOST_PARTS
from craft.design.design import Design as DesignValue
from craft.fitting.panels import recipe_json, recipe_of
from studio.designs.entries import manifest_of
from studio.designs.hooks import with_own_swatch
from studio.designs.manifest import BaseEntry, BriefPage, Manifest, PartEntry, ProvingPage
from studio.designs.models import Design, Revision
from studio.designs.picture_files import discard_after_commit
from studio.designs.policy import design_of, part_of, revision_of
from studio.designs.reading import design_value, read_text
from studio.designs.recording import new_key, new_version, record
from studio.designs.rewriting import rewritten, version_of
from studio.designs.texts import keep_all_typed, keep_version, page_from_text, with_part
from studio.errors import Refusal

MOST_DESIGNS = 2_000


def _find_room(user: User) -> None:
    """Refusal when the shelf is full."""
    if Design.objects.filter(owner=user).count() >= MOST_DESIGNS:
        raise Refusal(422, "full", f"The shelf holds at most {MOST_DESIGNS} designs.")


@transaction.atomic
def create_design(user: User, name: str, terms: str) -> Design:
    """A design from nothing."""
    _find_room(user)
    design = Design.objects.create(owner=user, name=name)
    record(design, Manifest.model_validate({"name": name, "terms": terms}), "Started the design")
    return design


@transaction.atomic
def copy_design(
    user: User, pk: int, name: str | None = None, made: DesignValue | None = None, changes: dict[str, Any] | None = None
) -> Design:
    """A copy that knows where it came from, with a fresh proving. made: what it says where that differs from the source;
    changes: of the manifest besides."""
    _find_room(user)
    source = design_of(user, pk, lock=True)
    keep_all_typed(source)
    value, manifest = design_value(source), source.manifest
    after = made or value
    copy = Design.objects.create(
        owner=user,
        name=name or f"{manifest.name[:33]} copy",
        origin=source,
        origin_name=source.name,
        origin_number=source.revision.number,
    )
    versions = {part.key: version_of(copy, part) for part in after.parts}
    fresh = rewritten(manifest, value, after, versions)
    update = {
        "name": copy.name,
        "brief": _brief_of_copy(fresh.brief),
        "proving": ProvingPage(),
        "base": BaseEntry(number=source.revision.number),
        **(changes or {}),
    }
    record(copy, Manifest.model_validate(fresh.model_copy(update=update).model_dump()), f"Copied from {source.name}")
    return copy


@transaction.atomic
def remove_design(user: User, pk: int) -> None:
    """Take a design off the shelf for good."""
    design = design_of(user, pk, lock=True)
    discard_after_commit(str(name) for name in design.pictures.values_list("file", flat=True))
    design.head = None
    design.save(update_fields=["head"])
    design.delete()


@transaction.atomic
def add_parts(user: User, pk: int, parts: list[dict[str, Any]]) -> tuple[Design, list[str]]:
    """Parts more with `name`, `make`, `colour`, `text` and `recipe`, as one change; the design and their keys."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
    if len(manifest.parts) + len(parts) > MOST_PARTS:
        raise Refusal(422, "full", f"A design holds at most {MOST_PARTS} parts.")
    entries = []
    for values in parts:
        key = new_key()
        recipe = None if values["recipe"] is None else recipe_json(recipe_of(values["recipe"]))
        version = new_version(design, key, values["text"], recipe)
        entries.append(
            PartEntry(key=key, name=values["name"], make=values["make"], version=version.pk, colour=values["colour"])
        )
    record(design, with_parts(manifest, entries, [v["text"] for v in parts]), f"Added {names_of(entries)}")
    return design, [e.key for e in entries]


def add_part(user: User, pk: int, values: dict[str, Any]) -> tuple[Design, str]:
    """Another part; the design and the part's key."""
    design, (key,) = add_parts(user, pk, [values])
    return design, key


def names_of(entries: list[PartEntry]) -> str:
    """The first three names, and that there are more."""
    return ", ".join(e.name for e in entries[:3]) + (" …" if len(entries) > 3 else "")


def with_parts(manifest: Manifest, entries: list[PartEntry], texts: list[str]) -> Manifest:
    """The manifest with parts more; where no eyes are yet, a direction in their texts places them."""
    grown = manifest.model_copy(update={"parts": [*manifest.parts, *entries]})
    page = grown.assembly
    for entry, text in zip(entries, texts, strict=True):
        if page.eyes is None:
            page = page_from_text(page, entry.key, "", text, read_text(grown, entry, text))
    return grown.model_copy(update={"assembly": page})


def _brief_of_copy(brief: BriefPage) -> BriefPage:
    """The plan goes along, without the pictures that it was drawn on; a client does not."""
    plan = [p.model_copy(update={"box": None}) for p in brief.plan]
    return brief.model_copy(update={"pictures": [], "plan": plan, "commission": None})


@transaction.atomic
def create_from_value(user: User, value: DesignValue) -> Design:
    """A design from a file of one: everything in it, as one step."""
    _find_room(user)
    design = Design.objects.create(owner=user, name=value.name)
    versions = {part.key: version_of(design, part) for part in value.parts}
    record(design, manifest_of(value, versions), f"Brought in {value.name}")
    return design


@transaction.atomic
def change_part(user: User, pk: int, key: str, values: dict[str, Any]) -> Design:
    """Another `name`, `make` or `colour` of a part."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    changed = entry.model_copy(update=values)
    if changed.colour != entry.colour:
        changed = with_own_swatch(user, design.manifest.gauge, changed)
    if changed != entry:
        record(design, with_part(design.manifest, changed), f"Changed {changed.name}: make {changed.make}")
    return design


@transaction.atomic
def remove_part(user: User, pk: int, key: str) -> Design:
    """Take a part out; steps that name it stay and show that it is gone."""
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    keep_version(design, key)
    manifest = design.manifest
    record(
        design,
        manifest.model_copy(update={"parts": [p for p in manifest.parts if p.key != key]}),
        f"Removed {entry.name}",
    )
    return design


def _show(design: Design, revision: Revision) -> None:
    design.typed_texts.all().delete()
    design.head = revision
    design.name = revision.manifest.name
    design.save()


@transaction.atomic
def undo(user: User, pk: int) -> Design:
    """One action back; what was being typed counts as one."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    if design.revision.parent is None:
        raise Refusal(422, "nothing-to-undo", "There is nothing to undo.")
    _show(design, design.revision.parent)
    return design


@transaction.atomic
def redo(user: User, pk: int) -> Design:
    """The last undone action again."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    following = design.revision.children.order_by("-number").first()
    if following is None:
        raise Refusal(422, "nothing-to-redo", "There is nothing to do again.")
    _show(design, following)
    return design


@transaction.atomic
def go_back(user: User, pk: int, number: int) -> Design:
    """Show an earlier revision's content as a new one."""
    design = design_of(user, pk, lock=True)
    keep_all_typed(design)
    chosen = revision_of(design, number)
    if chosen.pk != design.revision.pk:
        record(design, chosen.manifest, f"Went back to step {number}")
    return design
