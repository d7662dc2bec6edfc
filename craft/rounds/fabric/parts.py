"""Every part of a pattern run in order: each may work in those before it."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from craft.problems import Problem
from craft.rounds.fabric import conventions
from craft.rounds.fabric.edges import Piece
from craft.rounds.fabric.run import MAIN_COLOUR, WorkedPart, run_part
from craft.rounds.pattern import Chain, Cluster, Colour, Edge, Onto, Part, Pattern, Repeat, Start, Turn, Work
from craft.rounds.stitches import stitch


def _of_part(part: Part, worked: WorkedPart, listed: tuple[str, ...]) -> Iterator[Problem]:
    yield from conventions.numbering(part)
    yield from conventions.order_of_work(part, worked)
    yield from conventions.colours(part, listed)
    yield from conventions.pieces(part)


def _begins(part: Part) -> bool:
    """Whether a part has a start of its own, a ring in brackets too, or takes up an edge by name."""
    for made in part.rounds:
        for item in made.body:
            if isinstance(item, Start | Chain | Onto):
                return True
            if isinstance(item, Repeat):
                return isinstance(item.body[0], Start)  # a chain in it hangs on what is below
            if isinstance(item, Work | Cluster):
                return isinstance(item, Work) and stitch(item.stitch).foundation
    return False


def run_pattern(
    pattern: Pattern, yarns: tuple[str, ...] = (), colour: str = MAIN_COLOUR, pieces: Mapping[str, Piece] | None = None
) -> tuple[tuple[WorkedPart, ...], tuple[Problem, ...]]:
    """Run every part of a pattern; each may work in those before it.

    yarns: colours listed elsewhere than in the head block. colour: on the hook when a part begins.
    pieces: parts written elsewhere that these may work in, by name.
    """
    listed = conventions.listed_colours(pattern) + yarns
    known: dict[str, Piece] = dict(pieces or {})
    parts: list[WorkedPart] = []
    problems: list[Problem] = []
    for part in pattern.parts:
        above = parts[-1] if parts else None
        goes_on = above is not None and not above.closed and (not _begins(part) or _leads_with_work(part))
        worked, found = run_part(part, colour, known, above.piece if above is not None and goes_on else None)
        parts.append(worked)
        if worked.name and worked.rounds:
            known[worked.name] = worked.piece
        problems += [*found, *_of_part(part, worked, listed)]
    return tuple(parts), tuple(problems)


def _leads_with_work(part: Part) -> bool:
    """Whether the first work is done on what is still on the hook: 'R9: 12 sc, ch 3, 12 sc around the first leg'."""
    body = next((r.body for r in part.rounds), ())
    first = next((i for i in body if not isinstance(i, Colour | Turn)), None)
    return isinstance(first, Work | Repeat) and any(isinstance(i, Onto) and i.edge is Edge.PIECE for i in body)
