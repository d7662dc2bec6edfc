"""The everyday round, without the whole machine: once along the live edge with stitches only, and sound.

It does what `RoundRun` and `judge` would do, and leaves every other round to them. Most rounds of
most patterns are of this kind, and a preview has milliseconds.
"""

from __future__ import annotations

from craft.remembered import of_short
from craft.rounds.fabric.edges import CHAIN_NAME, Line
from craft.rounds.fabric.graph import EdgeKind
from craft.rounds.fabric.hook import Hook, Tally
from craft.rounds.fabric.laying import lay
from craft.rounds.fabric.plan import Stretch, plan
from craft.rounds.pattern import Colour, Instruction, Repeat, Round, Way, Work
from craft.rounds.stitches import Loops


@of_short(4_096)
def _simple(body: tuple[Instruction, ...], loops: Loops) -> tuple[Instruction, ...] | None:
    """The stretch of a round that goes once along the live edge with stitches only, None for any other.

    It is what `RoundRun` would do with it, without the ways around that such a round never takes.
    """
    moves = plan(body, empty=False)
    if len(moves) != 1 or not isinstance(moves[0], Stretch) or loops is Loops.BACK:
        return None
    return moves[0].items if _stitches_only(moves[0].items) else None


def _stitches_only(items: tuple[Instruction, ...]) -> bool:
    return all(
        (isinstance(i, Work) and i.through is None and i.stitch != "ch")
        or (isinstance(i, Repeat) and _stitches_only(i.body))
        or isinstance(i, Colour)
        for i in items
    )


def work_simple(hook: Hook, made: Round, source: int, label: str, number: int | None) -> bool:
    """Work a round that is sound and simple; False when it needs the whole machine."""
    line = hook.live
    before = len(line.spots)
    if not before or made.way is not Way.ROUND or not line.closed or line.at or hook.short or hook.side or hook.turned:
        return False
    items = _simple(made.body, made.loops)
    if items is None or hook.yarn_cut or line.spots[0] < 0 or line.name == CHAIN_NAME:
        return False
    laid = lay(items, before, hook.colour, made.loops)
    many = len(laid.kinds)
    if laid.takes != before or made.count not in (None, many) or not before <= 2 * many <= 4 * before:
        return False
    first = hook.graph.size
    colours = hook.graph.colour_numbers(laid.colours, many)
    ids = hook.graph.add(
        laid.kinds, colours, laid.loops, laid.counts, line.spots[laid.into], None, round_at=len(hook.tallies), front=hook.front
    )  # fmt: skip
    hook.colour, hook.last_row = laid.last_colour, False
    hook.live = Line(ids, label)
    hook.graph.edge(ids, EdgeKind.ROUND)
    hook.tallies.append(
        Tally(
            label=label,
            number=number,
            source=source,
            taken=before,
            made=many,
            live=many,
            stated=made.count,
            marks=laid.marks,
            colours=tuple(dict.fromkeys(laid.colours)),
            loops=made.loops,
            height=laid.height,
            start=False,
            joined=False,
            first=first,
            end=first + many,
            flat=False,
            front=hook.front,
            rest=0,
            held=0,
            holes=(),
            section=hook.section,
            way=Way.ROUND,
            span=made.span,
        )
    )
    return True
