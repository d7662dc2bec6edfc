"""Changes of the ladder, charts and dry runs, as the bench shows them."""

from __future__ import annotations

from craft.document.chart import draw_chart
from craft.rounds.fabric import WorkedPart, movements, place_of
from craft.rounds.stitches import Terms, stitch
from craft.text.check import check
from craft.text.reshaping import (
    Change,
    CloseEnd,
    Copy,
    Decreases,
    Divide,
    Insert,
    Joining,
    OpenEnd,
    Recolour,
    Rotate,
    Spread,
    StartOn,
    Stripes,
    Swap,
    Widen,
    add_shift,
    keep_sides,
    renumbered,
    reshape,
    with_repeat,
)
from studio.bench.previews import palette_from, worked_of
from studio.bench.schemas import ChartIn, DryRunOut, MoveOut, PreviewIn, ReshapeIn, RunRoundOut, StepOut

MOST_MOVES = 12_000
"""Movements that a dry run answers with; longer parts are run as far as that."""


def _change(asked: ReshapeIn, live: int) -> Change:
    match asked.do:
        case "widen":
            change: Change = Widen(asked.first, max(live + asked.by, 1))
        case "move":
            change = Rotate(asked.first, asked.last, asked.by)
        case "stack" | "stagger":
            change = Spread(asked.first, asked.last, asked.do == "stack")
        case "insert":
            change = Insert(asked.first, asked.by)
        case "copy" | "mirror":
            change = Copy(asked.first, asked.last, asked.after, asked.do == "mirror")
        case "pair":
            change = Swap()
        case "invisible" | "plain":
            change = Decreases(asked.do == "invisible")
        case "join" | "spiral":
            change = Joining(asked.do == "join")
        case "close":
            change = CloseEnd()
        case "open":
            change = OpenEnd(asked.last)
        case "start":
            change = StartOn(asked.by)
        case "stripes":
            change = Stripes(asked.first, asked.last, tuple(asked.colours), asked.by, asked.main)
        case "divide":
            change = Divide(asked.last, asked.by, asked.shift, asked.bridge)
        case _:
            change = Recolour(asked.old, asked.new)
    return change


def reshaped(asked: ReshapeIn) -> str:
    """The text after a change of the ladder; CraftError says why it cannot be made."""
    terms = Terms(asked.terms)
    live = 0
    if asked.do == "number":
        return renumbered(asked.text, terms)
    if asked.do == "repeat":
        return with_repeat(asked.text, terms, asked.first, asked.by)
    if asked.do == "sides":
        return keep_sides(asked.text, terms, asked.first, asked.last, asked.lean)
    if asked.do in ("widen", "shift"):
        checked = check(asked.text, terms)
        lines = {n.span.start: n.number for n in checked.reading.lines}
        own = [
            (i, t) for p in checked.parts for i, t in enumerate(p.rounds, 1) if lines.get(t.span.start) == asked.first
        ]
        if asked.do == "shift":
            return add_shift(asked.text, terms, own[-1][0] if own else 0, asked.by)
        live = own[-1][1].live if own else 0
    return reshape(asked.text, terms, _change(asked, live))


def chart(question: ChartIn) -> str:
    """The chart of a text's part as SVG; an empty one while there is no round."""
    _, worked = worked_of(question)
    if worked is None:
        return '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><title>No round yet</title></svg>'
    return draw_chart(
        worked,
        palette_from(question.colours),
        title=question.title,
        terms=Terms(question.terms),
        left_handed=question.left_handed,
    )


def dry_run(question: PreviewIn) -> DryRunOut:
    """A text's part movement by movement."""
    checked, worked = worked_of(question)
    if worked is None:
        return DryRunOut(rounds=[], places=[], colours=[], steps=[], whole=True)
    terms = Terms(question.terms)
    line_of = {n.span.start: n.number for n in checked.reading.lines}
    rounds: list[RunRoundOut] = []
    total = 0
    edge: list[int] = []
    for at, tally in enumerate(worked.rounds):
        moves = movements(worked, at)
        total += len(moves)
        if total > MOST_MOVES:
            break
        made = [i for m in moves for i in m.makes if worked.graph.live[i]]
        taken = {i for m in moves for i in m.into}
        before = edge if edge and taken & set(edge) else sorted(taken)
        after = (made + [i for i in before if i not in taken])[: max(tally.live, len(made))]
        rounds.append(
            RunRoundOut.model_construct(
                label=tally.label,
                line=line_of.get(tally.span.start, 1),
                front=tally.front,
                edge=before,
                after=after,
                moves=[
                    MoveOut.model_construct(
                        stitch=stitch(m.stitch).name(terms),
                        how=stitch(m.stitch).explained(terms),
                        into=list(m.into),
                        makes=list(m.makes),
                        loops=m.loops.value,
                        colour=worked.graph.colours.index(m.colour),
                    )
                    for m in moves
                ],
            )
        )
        edge = after
    return DryRunOut.model_construct(
        rounds=rounds,
        places=_places(worked, total),
        colours=list(worked.graph.colours),
        steps=[StepOut(kind=s.kind.value, text=s.text, after=s.after) for s in worked.steps],
        whole=len(rounds) == len(worked.rounds),
    )


def _places(worked: WorkedPart, total: int) -> list[str]:
    """Words for every stitch: which of which round."""
    if total > MOST_MOVES:
        return []
    words = [""] * len(worked.graph)
    for tally in worked.rounds:
        for k, i in enumerate(range(tally.first, tally.end), 1):
            words[i] = f"{tally.label}, stitch {k}"
    for i, word in enumerate(words):
        if not word:
            name, k = place_of(worked, i)
            words[i] = f"{name}, stitch {k}"
    return words
