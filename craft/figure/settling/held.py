"""What holds fabric besides itself and its filling: threads and seams, plates, other fabric."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from craft.figure.settling.contact import Contact

Numbers = NDArray[np.int64]
Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Threads:
    """Threads sewn through: (t, 2) nodes at their ends, (t,) lengths in mm."""

    ends: Numbers
    length: Vector

    def with_seam(self, ends: Numbers, length: float) -> Threads:
        """These and stitches sewn to each other, (s, 2) nodes `length` mm apart."""
        return Threads(np.concatenate([self.ends, ends]), np.append(self.length, np.full(len(ends), length)))


NO_THREADS = Threads(np.zeros((0, 2), np.int64), np.zeros(0))


@dataclass(frozen=True, slots=True)
class Plates:
    """Two plates that fabric lies between: (n,) nodes, the unit direction across, how far apart the plates are in mm."""

    nodes: Numbers
    across: Vector
    gap: float


@dataclass(frozen=True, slots=True)
class Held:
    """What holds fabric besides itself and its filling. limp: its rounds are folded, so they keep no circle."""

    threads: Threads = NO_THREADS
    contact: Contact | None = None
    plates: tuple[Plates, ...] = ()
    limp: bool = False


FREE = Held()
"""Nothing sewn, nothing in the way."""
