"""A tube rolled up and sewn to itself, as a direction says it: a snail's shell, a bun, a tail."""

from __future__ import annotations

from dataclasses import dataclass

from craft.errors import require


@dataclass(frozen=True, slots=True)
class Coil:
    """Which rounds are rolled up, by number: from `inner`, in the middle, to `outer`. Both None: the whole piece, its
    narrower end inside, or its wider one when `wide_inside`."""

    inner: int | None = None
    outer: int | None = None
    wide_inside: bool = False

    def __post_init__(self) -> None:
        require((self.inner is None) == (self.outer is None), "A coil goes from a round to a round.", field="coil")
        if self.inner is not None and self.outer is not None:
            require(min(self.inner, self.outer) > 0, "Rounds are numbered from 1.", field="coil")
            require(self.inner != self.outer, "A coil goes from a round to another one.", field="coil")


def coil_direction(coil: Coil) -> str:
    """The whole direction in words."""
    if coil.inner is None:
        return f"Coil the tube, {'wide' if coil.wide_inside else 'narrow'} end inside, and sew it to itself."
    return f"Coil the tube from R{coil.inner}, which lies inside, to R{coil.outer}, and sew it to itself."
