"""Sizes settled: their parts in line with all other work, the figure put together from them once they are done."""

from __future__ import annotations

from django.contrib.auth.models import User

from craft.design.grading import (
    SettledShape,
    Sized,
    at_size,
    first_size,
    proportions_settled,
    share_that_meets,
    sized_design,
    wish_of,
)
from craft.design.size import Size
from craft.errors import CraftError
from studio.bench.scenes import Staged, staged_value
from studio.designs.reading import ReadDesign
from studio.sizes.schemas import MeetsOut, SettledSize


def settled_size(user: User, read: ReadDesign, size: Size | None) -> SettledSize:
    """Have the figure settled at a size, or as it is, and tell how far that is. CraftError when it cannot be made so."""
    first = first_size(read.value, read.parts)
    sized = None if size is None or not first.parts else at_size(first, size)
    if not first.parts:
        raise CraftError("There are no rounds yet to be settled.")
    base = staged_value(user, read.value, ask=True)
    staging = base if sized is None else staged_value(user, sized_design(sized), ask=True)
    whole = staging.assembled.whole
    width, _, height = staging.assembled.size_mm if whole else (None, None, None)
    name = "as it is" if size is None else f"as {size.name}"
    return SettledSize(
        whole=whole,
        parts=len(staging.jobs),
        under_way=staging.under_way + (base.under_way if size is not None else 0),
        svg=staging.drawn(f"{read.value.name} {name}, settled, from the front") if whole else None,
        height_mm=height,
        width_mm=width,
        meets=None if size is None else _meets(first, base, staging, size),
        proportion=_proportion(base, staging) if size is not None else None,
        told=[] if sized is None else _told(first, sized, base, staging),
    )


def _told(first: Sized, sized: Sized, base: Staged, staging: Staged) -> list[str]:
    """Parts that settle slimmer or stouter than their counts say, once both sizes of them are settled."""
    rows = proportions_settled(first, sized, *(_shapes(s) for s in (base, staging)))
    return [row.words for row in rows]


def _shapes(staged: Staged) -> dict[str, SettledShape]:
    found = {key: (staged.height_mm(key), staged.girth_mm(key)) for key in staged.jobs}
    return {key: SettledShape(height, girth) for key, (height, girth) in found.items() if height and girth}


def _meets(first: Sized, base: Staged, staging: Staged, size: Size) -> MeetsOut | None:
    """How a size comes to settle to the height or the girth that it asks for; None where it does, or asks for none."""
    wish = wish_of(first, size, base.girth_mm(size.fits) if size.fits is not None else None)
    if wish is None:
        return None
    if wish.part is None:
        found = staging.assembled.size_mm[2] if staging.assembled.whole else None
    else:
        found = staging.girth_mm(wish.part) if wish.around else staging.height_mm(wish.part)
    share = None if found is None else share_that_meets(size, wish, found, first.gauge)
    part = None if wish.part is None else staging.value.part(wish.part)
    if share is None:
        return None
    return MeetsOut(share=share, mm=wish.mm, around=wish.around, part=None if part is None else part.name)


def _proportion(base: Staged, staging: Staged) -> float | None:
    """By what share height over width is another than before, None until both are settled."""
    if not (base.assembled.whole and staging.assembled.whole):
        return None
    was, now = (s.assembled.size_mm for s in (base, staging))
    return (now[2] / now[0]) / (was[2] / was[0]) - 1
