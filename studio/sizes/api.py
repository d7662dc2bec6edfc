"""Routes of sizes."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja import Router, Status

from craft.design.size import Size
from craft.errors import CraftError
from studio.designs.manifest import SizesPage
from studio.designs.policy import design_of
from studio.designs.reading import read_design
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.guard import designer
from studio.sizes.actions import make_size
from studio.sizes.drafting import sizes_table
from studio.sizes.left import left_of
from studio.sizes.schemas import PatternForAll, SettledSize, SizePicture, SizesTable
from studio.sizes.settled import settled_size
from studio.sizes.swatches import size_for
from studio.sizes.table import pattern_of, picture_of

router = Router(tags=["sizes"])


@router.post("/{int:design_id}/sizes", response=SizesTable)
def read_sizes(request: HttpRequest, design_id: int, payload: SizesPage) -> SizesTable:
    """The design beside the sizes asked for; nothing is kept."""
    user = designer(request)
    design = design_of(user, design_id)
    sizes = tuple(size_for(user, s) for s in payload.sizes)
    return sizes_table(user, read_design(design), sizes, left_of(user, design.manifest))


@router.post("/{int:design_id}/sizes/pattern", response=PatternForAll)
def read_pattern(request: HttpRequest, design_id: int, payload: SizesPage) -> PatternForAll:
    """One written pattern for the design and the sizes asked for; nothing is kept."""
    user = designer(request)
    return pattern_of(read_design(design_of(user, design_id)), tuple(size_for(user, s) for s in payload.sizes))


@router.post("/{int:design_id}/sizes/picture", response=SizePicture)
def read_size_picture(request: HttpRequest, design_id: int, payload: SizesPage) -> SizePicture:
    """The figure at the one size asked for, or as it is when none is; nothing is kept."""
    user = designer(request)
    return picture_of(read_design(design_of(user, design_id)), _one(user, payload))


def _one(user: User, payload: SizesPage) -> Size | None:
    """The one size that is asked for, None for the figure as it is."""
    if len(payload.sizes) > 1:
        raise CraftError("A picture is of one size.", field="sizes")
    return size_for(user, payload.sizes[0]) if payload.sizes else None


@router.post("/{int:design_id}/sizes/settle", response=SettledSize)
def settle_size(request: HttpRequest, design_id: int, payload: SizesPage) -> SettledSize:
    """Have the figure settled at the one size asked for, or as it is when none is, and tell how far that is."""
    user = designer(request)
    return settled_size(user, read_design(design_of(user, design_id)), _one(user, payload))


@router.post("/{int:design_id}/sizes/{key}/make", response={201: DesignOut})
def make(request: HttpRequest, design_id: int, key: str) -> Status[DesignOut]:
    """Make one of the kept sizes a design of its own."""
    return Status(201, shown(make_size(designer(request), design_id, key)))
