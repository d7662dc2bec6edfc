"""Making a size into a design of its own."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.design import Design as DesignValue
from craft.design.eye_text import text_following_eyes
from craft.design.grading import at_size, figure_size, first_size, sized_design
from craft.design.running import run_parts
from studio.designs.actions import copy_design
from studio.designs.manifest import BaseEntry, DesignYarn, GaugePage, Manifest, SizeEntry, SizesPage
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.reading import design_value
from studio.errors import NOT_FOUND, Refusal
from studio.sizes.swatches import size_for
from studio.yarns.gauges import swatch_gauge
from studio.yarns.policy import swatch_like


def _entry(manifest: Manifest, key: str) -> SizeEntry:
    for entry in manifest.sizes.sizes:
        if entry.key == key:
            return entry
    raise Refusal(404, "not-found", NOT_FOUND)


def value_at_size(user: User, value: DesignValue, entry: SizeEntry) -> DesignValue:
    """A design at one of its sizes: texts, shapes, places, eyes; yarns and gauge are the first size's."""
    sized = at_size(first_size(value, run_parts(value)), size_for(user, entry))
    made, worked = sized_design(sized), sized.worked
    eyes = made.eyes
    parts = tuple(
        replace(p, text=text_following_eyes(p.text, eyes, worked.get(p.key)))
        if eyes.place is not None and eyes.place.on == p.key
        else p
        for p in made.parts
    )
    tall = value.brief.height_mm
    if entry.kind != "yarn":
        tall = round(figure_size(sized)[1]) if entry.height_mm is None or entry.part else entry.height_mm
    return replace(
        made,
        parts=parts,
        joins=tuple(replace(j, place=j.place and j.place.anchored(j.place, worked)) for j in made.joins),
        gauge=value.gauge,
        brief=replace(value.brief, height_mm=tall),
        sizes=(),
    )


def _gauge(user: User, manifest: Manifest, entry: SizeEntry, yarns: list[DesignYarn]) -> GaugePage:
    """The gauge page of a size in another yarn: her own swatch of it, else the estimate."""
    chosen = entry.yarn.yarn_id if entry.yarn else None
    swatch = None if entry.second is not None else swatch_like(user, chosen, entry.hook_mm, entry.strands)
    measured = None if swatch is None else swatch_gauge(swatch)
    together = None if entry.second is None else size_for(user, entry).gauge
    page: GaugePage = manifest.gauge.model_copy(
        update={
            "yarns": yarns,
            "hook_mm": entry.hook_mm,
            "strands": entry.strands,
            "source": "own" if together is not None else "estimate" if measured is None else "swatch",
            "swatch_id": None if swatch is None else swatch.pk,
            "stitch_mm": found.stitch_mm if (found := measured or together) is not None else None,
            "round_mm": found.round_mm if found is not None else None,
            "lean": manifest.gauge.lean if measured is None else measured.lean,
            "yarn_per_stitch_mm": None if swatch is None else swatch.yarn_per_stitch_mm,
        }
    )
    return page


@transaction.atomic
def make_size(user: User, pk: int, key: str) -> Design:
    """A copy of a design at one of its sizes; it knows where it came from, and at which size."""
    design = design_of(user, pk)
    manifest = design.manifest
    entry = _entry(manifest, key)
    made = value_at_size(user, design_value(design), entry)
    changes: dict[str, Any] = {"sizes": SizesPage(), "base": BaseEntry(number=design.revision.number, size=entry)}
    if entry.kind == "yarn" and entry.yarn is not None:
        kept = {} if entry.second is None else {"skein_m": None, "skein_g": None, "wraps": None}
        yarns = [
            entry.yarn.model_copy(update={"name": y.name, "colour": y.colour, **kept}) for y in manifest.gauge.yarns
        ]
        changes["gauge"] = _gauge(user, manifest, entry, yarns or [entry.yarn])
    return copy_design(user, pk, f"{manifest.name[:40]} {entry.name}"[:60].strip(), made, changes)
