"""Changes of a design's pages of notes; the assembly's also keep places and the eyes' direction in agreement."""

from __future__ import annotations

from collections.abc import Mapping

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.anchors import round_sizes
from craft.design.eye_text import text_following_eyes, text_with_eyes
from craft.design.running import worked_parts
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from studio.designs.assembly_page import AssemblyPage
from studio.designs.fields import Frozen
from studio.designs.labels import assembly_label
from studio.designs.manifest import GaugePage
from studio.designs.models import Design, PartVersion
from studio.designs.policy import design_of, part_of, revision_of
from studio.designs.reading import read_design, read_text
from studio.designs.recording import new_version, record
from studio.designs.texts import keep_version, record_text, with_part
from studio.designs.values import anchored, eyes_value
from studio.errors import Refusal
from studio.yarns.gauges import swatch_gauge
from studio.yarns.policy import swatch_like

_PAGE_LABELS = {
    "gauge": "Changed yarn and gauge",
    "brief": "Changed the brief",
    "sizes": "Changed the sizes",
    "booklet": "Changed the booklet",
    "proving": "Changed the proving notes",
}


MOST_YARNS = 60


@transaction.atomic
def set_page(user: User, pk: int, page: str, base: int, value: Frozen) -> Design:
    """Write a page of notes. Refusal 409 when the page changed since revision `base`."""
    design = design_of(user, pk, lock=True)
    manifest = design.manifest
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
        return _set_assembly(design, value)
    if isinstance(value, GaugePage):
        if len(value.yarns) > MOST_YARNS:
            raise Refusal(422, "invalid", f"A design has at most {MOST_YARNS} yarns.", field="yarns")
        value = _with_own_swatch(user, manifest.gauge, value)
    record(design, manifest.model_copy(update={page: value}), _PAGE_LABELS[page])
    return design


def _fabric(page: GaugePage) -> tuple[int | None, float | None, int]:
    return (page.yarns[0].yarn_id if page.yarns else None), page.hook_mm, page.strands


def _with_own_swatch(user: User, before: GaugePage, page: GaugePage) -> GaugePage:
    """A yarn and hook just chosen take her own swatch of them, where she has one, in the place of an estimate.

    What she chooses afterwards stands: only a change of yarn, hook or strands looks for a swatch.
    """
    if page.source not in ("assumed", "estimate") or _fabric(page) == _fabric(before):
        return page
    swatch = swatch_like(user, *_fabric(page))
    if swatch is None:
        return page
    gauge = swatch_gauge(swatch)
    taken: GaugePage = page.model_copy(
        update={
            "source": "swatch",
            "swatch_id": swatch.pk,
            "stitch_mm": gauge.stitch_mm,
            "round_mm": gauge.round_mm,
            "lean": gauge.lean,
            "yarn_per_stitch_mm": swatch.yarn_per_stitch_mm,
        }
    )
    return taken


def _set_assembly(design: Design, value: AssemblyPage) -> Design:
    """Places kept on the surface; where the eyes moved, their direction in the part's text says so."""
    worked = worked_parts(read_design(design).parts)
    _must_be_there(value, design.manifest.assembly, worked)
    value = anchored(value, design.manifest.assembly, worked)
    if design.manifest.assembly == value:
        return design
    before = design.manifest.assembly
    moved = value.eyes is not None and (value.eyes, value.eye_mm) != (before.eyes, before.eye_mm)
    manifest = design.manifest
    if moved and value.eyes is not None and value.eyes.part in worked:
        keep_version(design, value.eyes.part)
        manifest = design.manifest
        entry = part_of(design, value.eyes.part)
        old = PartVersion.objects.get(pk=entry.version)
        text = text_following_eyes(old.text, eyes_value(value), worked[entry.key])
        if text != old.text:
            version = new_version(design, entry.key, text, old.recipe, hand_edited=True)
            manifest = with_part(manifest, entry.model_copy(update={"version": version.pk}))
    label = assembly_label(before, value, {p.key: p.name for p in manifest.parts})
    record(design, manifest.model_copy(update={"assembly": value}), label)
    return design


def _must_be_there(page: AssemblyPage, before: AssemblyPage, worked: Mapping[str, WorkedPart]) -> None:
    """Refusal for a round that a part does not have, at the field where it was typed; what stood there stays."""
    old_steps = {s.key: (s.on, s.round) for s in before.steps}
    for at, step in enumerate(page.steps):
        if step.on and step.round and (step.on, step.round) != old_steps.get(step.key):
            _has_round(worked.get(step.on), step.round, f"steps.{at}.round")
    eyes, was = page.eyes, before.eyes
    if eyes is not None and (was is None or (eyes.part, eyes.round) != (was.part, was.round)):
        _has_round(worked.get(eyes.part), eyes.round, "eyes.round")
    old_marks = {m.key: (m.part, m.round, m.to_round) for m in before.marks}
    for at, mark in enumerate(page.marks):
        if (mark.part, mark.round, mark.to_round) == old_marks.get(mark.key):
            continue
        _has_round(worked.get(mark.part), mark.round, f"marks.{at}.round")
        if mark.to_round:
            _has_round(worked.get(mark.part), mark.to_round, f"marks.{at}.to_round")


def _has_round(worked: WorkedPart | None, at: int, field: str) -> None:
    many = 0 if worked is None else len(round_sizes(worked)[0])
    if worked is not None and at > many:
        rounds = "1 round" if many == 1 else f"{many} rounds"
        raise Refusal(422, "no-such-round", f"{worked.name} has {rounds}: there is no R{at}.", field=field)


@transaction.atomic
def tell_eyes(user: User, pk: int) -> Design:
    """Write the direction for the placed eyes into their part's text. Refusal 422 when they are on none."""
    design = design_of(user, pk, lock=True)
    page = design.manifest.assembly
    if page.eyes is None:
        raise Refusal(422, "no-eyes", "Place the eyes on a part first.")
    keep_version(design, page.eyes.part)
    entry = part_of(design, page.eyes.part)
    old = PartVersion.objects.get(pk=entry.version)
    worked = read_text(design.manifest, entry, old.text)
    text = text_with_eyes(old.text, eyes_value(page), worked, Terms(design.manifest.terms))
    if text == old.text:
        return design
    version = new_version(design, entry.key, text, old.recipe, hand_edited=True)
    record_text(design, entry, old.text, version, f"Wrote the eyes into {entry.name}")
    return design
