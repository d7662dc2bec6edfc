"""Making a size into a design of its own."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.eye_text import text_following_eyes
from craft.design.grading import Sized, at_size, design_at, figure_size, first_size
from craft.fitting.panels import recipe_json
from studio.designs.actions import copy_design
from studio.designs.manifest import DesignYarn, GaugePage, Manifest, SizeEntry, SizesPage
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.reading import read_design
from studio.designs.values import anchored, with_places
from studio.errors import NOT_FOUND, Refusal
from studio.sizes.swatches import size_for
from studio.yarns.gauges import swatch_gauge
from studio.yarns.policy import swatch_like


def _entry(manifest: Manifest, key: str) -> SizeEntry:
    for entry in manifest.sizes.sizes:
        if entry.key == key:
            return entry
    raise Refusal(404, "not-found", NOT_FOUND)


def _texts(sized: Sized) -> dict[str, tuple[str, dict[str, Any] | None]]:
    """Rounds and recipes of the parts at a size, eyes said where they are then."""
    eyes = design_at(sized).eyes
    found: dict[str, tuple[str, dict[str, Any] | None]] = {}
    for made in sized.parts:
        part = made.source.part
        text = made.text(sized.design.terms)
        if made.how in ("same counts", "not sized") and text == part.text:
            continue
        recipe = None
        if part.recipe is not None and made.how != "resampled":
            recipe = recipe_json(part.recipe.scaled(sized.scale) if made.how == "drafted" else part.recipe)
        if eyes.place is not None and eyes.place.on == part.key:
            text = text_following_eyes(text, eyes, made.worked)
        found[part.key] = (text, recipe)
    return found


def _gauge(user: User, manifest: Manifest, entry: SizeEntry, yarns: list[DesignYarn]) -> GaugePage:
    """The gauge page of a size in another yarn: her own swatch of it, else the estimate."""
    chosen = entry.yarn.yarn_id if entry.yarn else None
    swatch = swatch_like(user, chosen, entry.hook_mm, entry.strands)
    measured = None if swatch is None else swatch_gauge(swatch)
    page: GaugePage = manifest.gauge.model_copy(
        update={
            "yarns": yarns,
            "hook_mm": entry.hook_mm,
            "strands": entry.strands,
            "source": "estimate" if measured is None else "swatch",
            "swatch_id": None if swatch is None else swatch.pk,
            "stitch_mm": None if measured is None else measured.stitch_mm,
            "round_mm": None if measured is None else measured.round_mm,
            "lean": manifest.gauge.lean if measured is None else measured.lean,
            "yarn_per_stitch_mm": None if swatch is None else swatch.yarn_per_stitch_mm,
        }
    )
    return page


@transaction.atomic
def make_size(user: User, pk: int, key: str) -> Design:
    """A copy of a design at one of its sizes; it knows where it came from."""
    design = design_of(user, pk)
    manifest = design.manifest
    entry = _entry(manifest, key)
    read = read_design(design)
    sized = at_size(first_size(read.value, read.parts), size_for(user, entry))
    page = with_places(manifest.assembly, design_at(sized))
    changes: dict[str, Any] = {"assembly": anchored(page, page, sized.worked), "sizes": SizesPage()}
    texts = _texts(sized)
    if entry.kind != "yarn":
        tall = round(figure_size(sized)[1]) if entry.height_mm is None or entry.part else entry.height_mm
        changes["brief"] = manifest.brief.model_copy(update={"height_mm": tall, "pictures": []})
    elif entry.yarn is not None:
        yarns = [entry.yarn.model_copy(update={"name": y.name, "colour": y.colour}) for y in manifest.gauge.yarns]
        changes["gauge"] = _gauge(user, manifest, entry, yarns or [entry.yarn])
    return copy_design(user, pk, f"{manifest.name[:40]} {entry.name}"[:60].strip(), texts, changes)
