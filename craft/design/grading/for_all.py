"""A figure's sizes as one written pattern: 'S (M, L)'."""

from __future__ import annotations

import re
from collections.abc import Sequence

from craft.design.grading.sized import PartAtSize, Sized
from craft.design.size import Size
from craft.design.written import head_of, made_first
from craft.errors import require
from craft.text.several_sizes import head_line, part_for_all

FIRST = "first"
"""What the first size is called in a pattern for several."""


def names_of(sizes: Sequence[Size]) -> list[str]:
    """What the first size and `sizes` are called in a pattern for all of them: no two alike, and without the signs that
    part sizes there."""
    names = [FIRST, *(_called(size, at) for at, size in enumerate(sizes, 2))]
    return [name if names.count(name) == 1 else f"{name} no {at}" for at, name in enumerate(names, 1)]


def _called(size: Size, at: int) -> str:
    return re.sub(r"\s+", " ", re.sub(r"[(),:;]", " ", size.name)).strip() or f"size {at}"


def pattern_for_all(sizes: Sequence[Sized], names: Sequence[str]) -> str:
    """One text for all sizes, a part before those that take it in. names: of the sizes, in their order.

    CraftError for fewer than two sizes, or names that cannot stand in a pattern.
    """
    require(len(sizes) >= 2, "A pattern for several sizes has two or more.", field="sizes")
    design = sizes[0].design
    out = [head_of(design) + head_line(names) + "\n"]
    for part in made_first(design):
        at = [_part(sized, part.key) for sized in sizes]
        if all(p is not None for p in at):
            written = [p.written for p in at if p is not None]
            out.append(f"# {part.name} (make {part.make})\n{part_for_all(written, names, design.terms)}")
    return "\n".join(out)


def _part(sized: Sized, key: str) -> PartAtSize | None:
    return next((p for p in sized.parts if p.source.key == key), None)
