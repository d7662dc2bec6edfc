"""Making a size into a design of its own."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction

from craft.design.design import Design as DesignValue
from craft.design.eye_text import text_following_eyes
from craft.design.grading import at_size, figure_size, first_size, sized_design
from craft.design.parts import OwnHook, Part
from craft.design.running import run_parts
from studio.designs.actions import copy_design
from studio.designs.manifest import BaseEntry, DesignYarn, GaugePage, Manifest, RoleYarnEntry, SizeEntry, SizesPage
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
        parts=tuple(replace(p, own_hook=_hook_at(user, p, entry)) for p in parts),
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


def _hook_at(user: User, part: Part, entry: SizeEntry) -> OwnHook | None:
    """A part's own hook at a size in other yarns, by her swatch of its yarn on that hook, else by the estimate. Of two yarns
    together, which no yarn of a design says, the size's own figures stay."""
    hook, role = part.own_hook, next((r for r in entry.others if r.role == part.colour), None)
    yarn, second = (entry.yarn, entry.second) if role is None else (role.yarn, role.second)
    if hook is None or entry.kind != "yarn" or yarn is None or second is not None:
        return hook
    swatch = swatch_like(user, yarn.yarn_id, hook.hook_mm, hook.strands)
    if swatch is None:
        return replace(hook, stitch_mm=None, round_mm=None)
    gauge = swatch_gauge(swatch)
    return replace(hook, stitch_mm=gauge.stitch_mm, round_mm=gauge.round_mm)


def _yarn_for(yarn: DesignYarn, main: DesignYarn, second: DesignYarn | None, role: RoleYarnEntry | None) -> DesignYarn:
    """What a yarn of the figure is at a size: that of its role or the main one, in its own name and colour. What is held
    together with another has no skein of its own."""
    bought, second = (main, second) if role is None else (role.yarn, role.second)
    kept = {} if second is None else {"skein_m": None, "skein_g": None, "wraps": None}
    return bought.model_copy(update={"name": yarn.name, "colour": yarn.colour, **kept})


@transaction.atomic
def make_size(user: User, pk: int, key: str) -> Design:
    """A copy of a design at one of its sizes; it knows where it came from, and at which size."""
    design = design_of(user, pk)
    manifest = design.manifest
    entry = _entry(manifest, key)
    made = value_at_size(user, design_value(design), entry)
    changes: dict[str, Any] = {"sizes": SizesPage(), "base": BaseEntry(number=design.revision.number, size=entry)}
    if entry.kind == "yarn" and entry.yarn is not None:
        roles = {r.role: r for r in entry.others}
        yarns = [_yarn_for(y, entry.yarn, entry.second, roles.get(y.name)) for y in manifest.gauge.yarns]
        changes["gauge"] = _gauge(user, manifest, entry, yarns or [entry.yarn])
    return copy_design(user, pk, f"{manifest.name[:40]} {entry.name}"[:60].strip(), made, changes)
