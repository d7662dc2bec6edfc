"""Making a size into a design of its own."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.fitting.panels import recipe_of
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from craft.text.notation import print_part
from studio.designs.actions import copy_design
from studio.designs.eyes import retold
from studio.designs.manifest import AssemblyPage, Manifest, SizeEntry, SizesPage
from studio.designs.models import Design
from studio.designs.places import eyes_now, step_now
from studio.designs.policy import design_of
from studio.designs.reading import read_parts
from studio.errors import NOT_FOUND, Refusal
from studio.sizes.compute import Sized, at_size, eye_of, located_before


def _entry(manifest: Manifest, key: str) -> SizeEntry:
    for entry in manifest.sizes.sizes:
        if entry.key == key:
            return entry
    raise Refusal(404, "not-found", NOT_FOUND)


def _assembly(manifest: Manifest, sized: Sized) -> AssemblyPage:
    """Places moved in proportion, eyes as they are sold."""
    worked = {p.source.key: p.worked for p in sized.parts}
    page = located_before(manifest, sized)
    steps = []
    for step in page.steps:
        now = step_now(step, worked)
        steps.append(step.model_copy(update={"round": now.round, "stitch": now.stitch}) if now else step)
    eyes = page.eyes
    if eyes is not None and eyes.part in worked:
        now_at = eyes_now(eyes, worked)
        before = next(p.source.worked for p in sized.parts if p.source.key == eyes.part)
        eyes = eyes.model_copy(update={"round": now_at.round, "between": _gap(eyes.between, before, worked[eyes.part])})
    eye = eye_of(manifest, sized.scale)
    sold = {"eye_mm": float(eye)} if eye else {}
    sized_page: AssemblyPage = page.model_copy(update={"steps": steps, "eyes": eyes, **sold})
    return sized_page


def _gap(between: int, before: WorkedPart | None, after: WorkedPart) -> int:
    """Stitches between the eyes in proportion, odd or even as they were."""
    if before is None:
        return between
    wanted = between * max(after.counts) / max(before.counts)
    return max(between % 2 or 2, between % 2 + 2 * round((wanted - between % 2) / 2))


@transaction.atomic
def make_size(user: User, pk: int, key: str) -> Design:
    """A copy of a design at one of its sizes; it knows where it came from."""
    design = design_of(user, pk)
    manifest = design.manifest
    entry = _entry(manifest, key)
    sized = at_size(manifest, read_parts(design), entry)
    texts: dict[str, tuple[str, dict[str, Any] | None]] = {}
    assembly = _assembly(manifest, sized)
    changes: dict[str, Any] = {"assembly": assembly, "sizes": SizesPage()}
    if entry.kind == "height":
        for part in sized.parts:
            recipe = part.source.recipe if part.how == "drafted" else None
            scaled = recipe_of(recipe).scaled(sized.scale).to_json() if recipe else None
            text = print_part(part.written, Terms(manifest.terms), heading=False)
            if assembly.eyes is not None and assembly.eyes.part == part.source.key:
                text = retold(text, assembly, part.worked)
            texts[part.source.key] = (text, scaled)
        changes["brief"] = manifest.brief.model_copy(update={"height_mm": entry.height_mm, "pictures": []})
    elif entry.yarn is not None:
        yarns = [entry.yarn.model_copy(update={"name": y.name, "colour": y.colour}) for y in manifest.gauge.yarns]
        changes["gauge"] = manifest.gauge.model_copy(
            update={
                "yarns": yarns or [entry.yarn],
                "hook_mm": entry.hook_mm,
                "strands": entry.strands,
                "source": "estimate",
                "sample_id": None,
                "stitch_mm": None,
                "round_mm": None,
                "yarn_per_stitch_mm": None,
            }
        )
    return copy_design(user, pk, f"{manifest.name[:24]} {entry.name}"[:40].strip(), texts, changes)
