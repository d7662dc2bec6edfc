"""A design as the screens need it."""

from __future__ import annotations

from dataclasses import asdict

from studio.designs.models import Design
from studio.designs.progress import stops_of
from studio.designs.reading import gauge_of, read_parts, shows_above
from studio.designs.schemas import DesignOut, OriginOut, PartOut
from studio.yarns.schemas import GaugeOut


def shown(design: Design) -> DesignOut:
    """A design as the screens need it."""
    design.refresh_from_db()
    manifest, revision = design.manifest, design.revision
    parts = read_parts(design)
    following = revision.children.order_by("-number").first()
    drafts = design.drafts.exists()
    origin = None
    if design.origin_number is not None:
        origin = OriginOut(id=design.origin_id, name=design.origin_name, revision=design.origin_number)
    pages = {page: getattr(manifest, page) for page in ("gauge", "brief", "assembly", "sizes", "booklet", "proving")}
    rows = [
        PartOut(
            key=p.key,
            name=p.name,
            make=p.make,
            colour=p.colour,
            version=p.version,
            text=p.text,
            etag=p.etag,
            recipe=p.recipe,
            authoritative=p.authoritative,
            faults=p.faults,
            counts=list(p.worked.counts) if p.worked else [],
        )
        for p in parts
    ]
    return DesignOut(
        id=design.pk,
        name=manifest.name,
        revision=revision.number,
        terms=manifest.terms,
        parts=rows,
        **pages,
        gauge_now=GaugeOut(**asdict(gauge_of(manifest.gauge))),
        shows_above=shows_above(manifest.gauge),
        stops=stops_of(manifest, parts),
        origin=origin,
        undo="Typing" if drafts else revision.label if revision.parent_id else None,
        redo=following.label if following else None,
        changed=design.changed,
    )
