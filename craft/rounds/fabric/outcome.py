"""What one round did on the hook."""

from __future__ import annotations

from dataclasses import dataclass, field

from craft.rounds.fabric.graph import Numbers
from craft.rounds.fabric.laying import Hole
from craft.rounds.pattern import Leave


@dataclass(slots=True)
class Outcome:
    """What a round did. missing: stitches it asked for and did not find, by the name of the edge.

    over: stitches left on an edge other than the live one, by its name. begun: it needs nothing below.
    """

    first: int = 0
    taken: int = 0
    made: int = 0
    height: float = 1.0
    marks: list[tuple[int, int]] = field(default_factory=list)
    holes: list[Hole] = field(default_factory=list)
    colours: list[str] = field(default_factory=list)
    passed: list[Numbers] = field(default_factory=list)
    missing: dict[str, int] = field(default_factory=dict)
    over: dict[str, int] = field(default_factory=dict)
    begun: bool = False
    joined: bool = False
    ends_turned: bool = False
    turned: bool = False
    leave: Leave | None = None
    shift: int = 0
    gives: int = 0
    sideways: bool = False
    pieces: bool = False
