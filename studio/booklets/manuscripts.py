"""A stored design as the document of its booklet, in the edition that is asked for."""

from __future__ import annotations

from base64 import b64encode
from datetime import date

from django.contrib.auth.models import User

from craft.design.design import SizeKind
from craft.design.grading import Sized, at_size, figure_picture, first_size, names_of
from craft.document.booklet import (
    Document,
    Imprint,
    compose,
    edition_as_difference,
    edition_for_all,
    edition_of,
    manuscript_of,
)
from craft.errors import CraftError
from craft.rounds.stitches import Terms
from studio.accounts.policy import own_profile
from studio.bases.reading import published_base
from studio.bench.portraits import drawn, pictured
from studio.designs.models import Design
from studio.designs.reading import ReadDesign, design_value, read_design
from studio.sizes.swatches import size_for

AS_IT_IS, FOR_ALL, DIFFERENCE = "as-it-is", "all", "difference"
"""Editions beside those of one size, which are asked for by the size's key."""


def document(user: User, design: Design, terms: Terms, edition: str = AS_IT_IS) -> Document:
    """The booklet of a design as a tree. CraftError when there is no such size, or when it cannot be made."""
    read = read_design(design)
    imprint = Imprint(own_profile(user).studio, terms, date.today().isoformat())
    if edition == AS_IT_IS:
        return compose(manuscript_of(read.value, read.parts, imprint.designer, terms, imprint.date))
    if edition == DIFFERENCE:
        base, named = published_base(user, design)
        return edition_as_difference(base, read.value, named, imprint)
    if edition != FOR_ALL:
        return edition_of(_at(user, design, read, edition), imprint)
    first = first_size(read.value, read.parts)
    sizes = tuple(s for e in design.manifest.sizes.sizes if (s := size_for(user, e)).kind is not SizeKind.YARN)
    if not sizes:
        raise CraftError("There is no other size in the design's own yarn: add one at Sizes.", field="edition")
    return edition_for_all([first, *(at_size(first, s) for s in sizes)], names_of(sizes), imprint)


def cover(user: User, design: Design, edition: str = AS_IT_IS, *, low_ink: bool = False) -> str:
    """The figure on the cover, as a data URL: painted, or for little ink drawn in lines; of the first size for a booklet of
    all."""
    if edition in (AS_IT_IS, FOR_ALL, DIFFERENCE):
        value = design_value(design)
        return (drawn if low_ink else pictured)(design.owner, value, design.name).url
    svg = figure_picture(_at(user, design, read_design(design), edition), design.name)
    return f"data:image/svg+xml;base64,{b64encode(svg.encode()).decode('ascii')}"


def _at(user: User, design: Design, read: ReadDesign, key: str) -> Sized:
    entry = next((e for e in design.manifest.sizes.sizes if e.key == key), None)
    if entry is None:
        raise CraftError("This size is gone: choose another edition.", field="edition")
    return at_size(first_size(read.value, read.parts), size_for(user, entry))
