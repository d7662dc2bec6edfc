"""A design as the screens need it."""

from __future__ import annotations

import logging
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import asdict

from craft.errors import CraftError
from craft.figure.settling import shows_filling_above
from studio.designs.manifest import PAGES
from studio.designs.models import Design, PartVersion
from studio.designs.policy import with_texts
from studio.designs.progress import stops_of
from studio.designs.reading import Versions, read_design, versions_of
from studio.designs.recipes import recipe_out
from studio.designs.schemas import DesignOut, DesignRow, OriginOut, PartOut
from studio.yarns.schemas import GaugeOut

log = logging.getLogger("studio")

UNREADABLE = "This design cannot be read. Nothing of it is lost: the studio's log says what is wrong."


def shelf_rows(designs: Iterable[Design]) -> list[DesignRow]:
    """Designs on the shelf; one that cannot be read says so, and the others are there."""
    seen = list(designs)
    known: dict[int, PartVersion] = {}
    with suppress(Exception):  # of one manifest; each is asked again for itself, and says what is wrong
        known |= versions_of(seen)
    return [_shelf_row(design, known or None) for design in seen]


def _shelf_row(design: Design, versions: Versions | None) -> DesignRow:
    row = DesignRow(
        id=design.pk,
        name=design.name,
        changed=design.changed,
        origin=design.origin_name or None,
        parts=0,
        rounds=0,
        stitches=0,
        faults=0,
        audience="play",
        revision=0,
        problem=None,
    )
    try:
        read, manifest = read_design(design, versions), design.manifest
        worked = [w for p in read.parts if (w := p.worked) is not None]
        return row.model_copy(
            update={
                "parts": len(read.parts),
                "rounds": sum(len(w.rounds) for w in worked),
                "stitches": sum(len(w.graph) * w.make for w in worked),
                "faults": read.faults,
                "audience": manifest.brief.audience,
                "revision": design.revision.number,
            }
        )
    except Exception as error:
        log.error("design %s cannot be read", design.pk, exc_info=error)
        return row.model_copy(update={"problem": error.message if isinstance(error, CraftError) else UNREADABLE})


def shown(design: Design) -> DesignOut:
    """A design that was changed, as it is now."""
    return as_read(with_texts(Design.objects.select_related("head")).get(pk=design.pk))


def as_read(design: Design) -> DesignOut:
    """A design as the screens need it, as it was just read."""
    manifest, revision = design.manifest, design.revision
    read = read_design(design)
    following = revision.children.order_by("-number").first()
    typed = design.typed_texts.exists()
    origin = None
    if design.origin_number is not None:
        origin = OriginOut(id=design.origin_id, name=design.origin_name, revision=design.origin_number)
    pages = {page: getattr(manifest, page) for page in PAGES}
    rows = [
        PartOut(
            key=p.key,
            name=p.name,
            make=p.part.make,
            colour=p.part.colour,
            own_hook=stored.entry.own_hook,
            gauge=GaugeOut(**asdict(read.value.gauge_of(p.key))),
            version=stored.entry.version,
            text=p.part.text,
            etag=stored.tag,
            recipe=None if stored.recipe is None else recipe_out(stored.recipe),
            authoritative=p.part.drafted,
            faults=p.faults,
            counts=list(worked.counts) if (worked := p.worked) else [],
        )
        for p, stored in zip(read.parts, read.texts, strict=True)
    ]
    return DesignOut(
        id=design.pk,
        name=manifest.name,
        revision=revision.number,
        terms=manifest.terms,
        parts=rows,
        **pages,
        gauge_now=GaugeOut(**asdict(read.value.gauge_now)),
        shows_above=shows_filling_above(read.value.gauge.hook_to_yarn(read.value.yarn)),
        stops=stops_of(manifest, read.value, read.parts),
        origin=origin,
        undo="Typing" if typed else revision.label if revision.parent_id else None,
        redo=following.label if following else None,
        changed=design.changed,
    )
