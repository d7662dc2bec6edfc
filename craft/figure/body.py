"""A part as rings of stitches in space, built from its profile.

Frame: z from R1 to the close, front of the figure at -y, x to the viewer's right; angles from the
front, growing in working direction, which runs to the viewer's left for a right-handed maker
outside facing. Lengths in mm.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.fabric import WorkedPart
from craft.gauge import Gauge
from craft.profile import Profile, inflated_profile

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Ring:
    """One round: top edge radius and z, how many stitches, angle of its first stitch, colours by stitch."""

    label: str
    radius: float
    z: float
    count: int
    turn: float
    colours: tuple[int, ...]
    height: float


@dataclass(frozen=True, slots=True)
class Body:
    """A part ready to be drawn. colours: names that the rings' colour numbers mean."""

    name: str
    rings: tuple[Ring, ...]
    colours: tuple[str, ...]
    profile: Profile
    closed: bool

    @property
    def top(self) -> float:
        """z of the far end."""
        return self.rings[-1].z if self.rings else 0.0


def _run_lengths(colours: NDArray[np.int16]) -> tuple[int, ...]:
    """One colour for a plain round, else one for each stitch."""
    return (int(colours[0]),) if len(colours) and (colours == colours[0]).all() else tuple(int(c) for c in colours)


def body_of(part: WorkedPart, gauge: Gauge, *, firmness: float = 0.5) -> Body:
    """Lay the trunk of a run part out on its inflated profile; lean turns each round's start."""
    rounds = [t for t in part.trunk if t.live > 0]
    profile = inflated_profile(
        [t.live for t in rounds], gauge, closed=part.closed, firmness=firmness, heights=[t.height for t in rounds]
    )
    rings: list[Ring] = []
    turn = 0.0
    for i, tally in enumerate(rounds):
        made = slice(tally.first, tally.end)
        colours = part.graph.colour[made][part.graph.live[made]]
        if len(colours) != tally.live and len(colours):
            colours = colours[np.arange(tally.live) * len(colours) // tally.live]
        rings.append(
            Ring(
                tally.label,
                float(profile.radius[i]),
                float(profile.height[i]),
                tally.live,
                turn,
                _run_lengths(colours) or (0,),
                tally.height * gauge.round_mm,
            )
        )
        turn -= 2 * math.pi * gauge.lean / tally.live
    return Body(part.name or "", tuple(rings), part.graph.colours or ("Main",), profile, part.closed)
