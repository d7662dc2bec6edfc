"""The hook of a part's own: a part that is not worked as its figure is."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import transaction

from studio.designs.manifest import GaugePage, OwnHookEntry, PartEntry
from studio.designs.models import Design
from studio.designs.policy import design_of, part_of
from studio.designs.recording import record
from studio.designs.texts import with_part
from studio.errors import Refusal
from studio.yarns.gauges import swatch_gauge
from studio.yarns.policy import swatch_like


@transaction.atomic
def change_hook(user: User, pk: int, key: str, hook: OwnHookEntry | None) -> Design:
    """A part worked on a hook of its own, or as the figure again; Refusal while the figure has no yarn to estimate by.

    Without measures of hers it takes those of her own swatch of that yarn on that hook, where she has one.
    """
    design = design_of(user, pk, lock=True)
    entry = part_of(design, key)
    if hook is not None and not design.manifest.gauge.yarns:
        raise Refusal(
            422, "invalid", "Choose the figure's yarn first: a hook says nothing without it.", field="hook_mm"
        )
    if hook is not None and (hook.stitch_mm is None) != (hook.round_mm is None):
        missing = "stitch_mm" if hook.stitch_mm is None else "round_mm"
        raise Refusal(422, "invalid", "A stitch's width and a round's height are measured together.", field=missing)
    changed = entry.model_copy(update={"own_hook": hook})
    if hook is not None and hook.stitch_mm is None:
        changed = with_own_swatch(user, design.manifest.gauge, changed)
    if changed == entry:
        return design
    worked = "worked as the figure" if hook is None else f"on its own hook, {hook.hook_mm:g} mm"
    record(design, with_part(design.manifest, changed), f"{entry.name}: {worked}")
    return design


def with_own_swatch(user: User, page: GaugePage, entry: PartEntry) -> PartEntry:
    """A part on a hook of its own by her swatch of the yarn it begins with on that hook; by the estimate where none is."""
    hook = entry.own_hook
    if hook is None or not page.yarns:
        return entry
    yarn = next((y for y in page.yarns if y.name == entry.colour), page.yarns[0])
    swatch = swatch_like(user, yarn.yarn_id, hook.hook_mm, hook.strands)
    gauge = None if swatch is None else swatch_gauge(swatch)
    measured = {"stitch_mm": gauge and gauge.stitch_mm, "round_mm": gauge and gauge.round_mm}
    return entry.model_copy(update={"own_hook": hook.model_copy(update=measured)})
