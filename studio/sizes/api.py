"""Routes of sizes."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from craft.errors import CraftError
from studio.designs.manifest import SizesPage
from studio.designs.policy import design_of
from studio.designs.reading import read_parts
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.guard import designer
from studio.sizes.actions import make_size
from studio.sizes.compute import at_size, base_size, column, impossible
from studio.sizes.schemas import SizesTable

router = Router(tags=["sizes"])


@router.post("/{int:design_id}/sizes", response=SizesTable)
def read_sizes(request: HttpRequest, design_id: int, payload: SizesPage) -> SizesTable:
    """The design beside the sizes asked for; nothing is kept."""
    design = design_of(designer(request), design_id)
    manifest, parts = design.manifest, read_parts(design)
    columns = [column(manifest, base_size(manifest, parts), None)]
    for entry in payload.sizes:
        try:
            columns.append(column(manifest, at_size(manifest, parts, entry), entry))
        except CraftError as error:
            columns.append(impossible(manifest, parts, entry, error.message))
    return SizesTable(columns=columns)


@router.post("/{int:design_id}/sizes/{key}/make", response={201: DesignOut})
def make(request: HttpRequest, design_id: int, key: str) -> Status[DesignOut]:
    """Make one of the kept sizes a design of its own."""
    return Status(201, shown(make_size(designer(request), design_id, key)))
