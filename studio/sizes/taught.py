"""What makings taught of a figure's finished size, while it is still the figure that they made."""

from __future__ import annotations

from django.contrib.auth.models import User

from craft.design.grading import Taught, figure_size, first_size
from studio.bench.scenes import staged_value
from studio.designs.reading import ReadDesign


def taught_of(user: User, read: ReadDesign) -> Taught:
    """The lengths that she has taken over from makings, without those of a figure that is another by now."""
    printed = read.value.printed
    kept = (printed.height_made, printed.width_made)
    if kept == (None, None) or not read.parts:
        return Taught()
    assembled = staged_value(user, read.value, ask=False).assembled
    if assembled.whole:
        wide, _, tall = assembled.size_mm
    else:
        wide, tall = figure_size(first_size(read.value, read.parts))
    height, width = (
        made if made is not None and made.holds_for(mm) else None for made, mm in zip(kept, (tall, wide), strict=True)
    )
    return Taught(height, width)
