"""Changes of the ladder, charts, dry runs and imported texts, as the bench shows them."""

from __future__ import annotations

from collections.abc import Sequence

from craft.design.parts import MOST_MAKE, MOST_NAME
from craft.design.written import own_lines
from craft.document.chart import draw_chart
from craft.errors import CraftError
from craft.problems import Problem, Severity
from craft.rounds.fabric import WorkedPart, movements, place_of
from craft.rounds.pattern import Part
from craft.rounds.stitches import Terms, stitch
from craft.text.check import Checked, check
from craft.text.exchange import converted, imported_text
from craft.text.notation import Line, LineKind, print_item
from craft.text.reshaping import (
    Change,
    Copy,
    Insert,
    Recolour,
    Rotate,
    Spread,
    Swap,
    Widen,
    add_shift,
    keep_sides,
    renumbered,
    reshape,
    with_repeat,
)
from studio.bench.previews import palette_from, worked_of
from studio.bench.schemas import (
    ChartIn,
    DryRunOut,
    FoundPartOut,
    ImportOut,
    MoveOut,
    PreviewIn,
    ReadLineOut,
    ReshapeIn,
    RunRoundOut,
    StepOut,
)

MOST_MOVES = 12_000
"""Movements that a dry run answers with; longer parts are run as far as that."""

MOST_LINES = 2_000
"""Lines of an imported text that are shown one by one."""


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


# --- imported texts -----------------------------------------------------------------------


def imported(name: str, raw: bytes, terms: str | None, into: str | None = None) -> ImportOut:
    """What a file holds, line by line and part by part; CraftError says why it cannot be read."""
    text = imported_text(name, raw).text
    checked = check(text, Terms(terms) if terms else None)
    reading = checked.reading
    worst: dict[int, Problem] = {}
    for problem in checked.problems:
        before = worst.get(problem.place.line)
        if before is None or _RANK[problem.severity] < _RANK[before.severity]:
            worst[problem.place.line] = problem
    said = _said(reading.pattern.parts, reading.pattern.terms)
    lines = [
        _line(number, line, kind, said.get(start, ""), worst.get(number))
        for number, line, kind, start in _lines_of(text, checked)[:MOST_LINES]
    ]
    wanted = Terms(into) if into else reading.pattern.terms
    texts, kept = _into(text, checked, wanted)
    parts = [
        FoundPartOut(
            name=(part.name or "Part")[:MOST_NAME],
            make=min(part.make, MOST_MAKE),
            text=texts[at],
            rounds=len(worked.rounds),
            stitches=len(worked.graph),
            faults=sum(p.severity is Severity.FAULT and p.place.part == part.name for p in checked.problems),
        )
        for at, (part, worked) in enumerate(zip(reading.pattern.parts, checked.parts, strict=True))
        if worked.rounds
    ]
    return ImportOut(
        name=(reading.pattern.entry("name") or name.rsplit(".", 1)[0])[:80],
        terms=reading.pattern.terms.value,
        terms_how=reading.found.evidence,
        into=reading.pattern.terms.value if kept else wanted.value,
        unconverted=kept,
        parts=parts,
        lines=lines,
        more_lines=max(0, len(reading.lines) - MOST_LINES),
        sound=checked.sound,
    )


def _into(text: str, checked: Checked, wanted: Terms) -> tuple[list[str], str | None]:
    """Every part's own text in the wanted terms; as typed, with the reason, when that cannot be."""
    pattern = checked.reading.pattern
    own = [own_lines(checked, text, part) for part in pattern.parts]
    turned = []
    for part, one in zip(pattern.parts, own, strict=True):
        try:
            turned.append(converted(one, pattern.terms, wanted))
        except CraftError as error:
            return own, f"{part.name}: {error.message}" if part.name else error.message
    return turned, None


_RANK = {Severity.FAULT: 0, Severity.WARNING: 1, Severity.HINT: 2}


def _said(parts: Sequence[Part], terms: Terms) -> dict[int, str]:
    """Every line's meaning in canonical words, by where it starts."""
    found: dict[int, str] = {}
    for part in parts:
        for item in part.items:
            printed = print_item(item, terms)
            found[item.span.start] = f"{found[item.span.start]}; {printed}" if item.span.start in found else printed
    return found


def _lines_of(text: str, checked: Checked) -> list[tuple[int, str, LineKind, int]]:
    """Number, words, kind and place of every line of the text as it was written."""
    lines = checked.reading.lines
    if checked.translation is None:
        return [(n.number, n.text, n.kind, n.span.start) for n in lines]
    taken: dict[int, Line] = {}
    for line in lines:
        before = taken.get(line.number)
        if before is None or (line.kind is LineKind.ROUND and before.kind is not LineKind.ROUND):
            taken[line.number] = line
    found = []
    for number, words in enumerate(text.split("\n"), 1):
        if words.strip():
            own = taken.get(number)
            found.append((number, words, own.kind, own.span.start) if own else (number, words, LineKind.NOTE, -1))
    return found


def _line(number: int, text: str, kind: LineKind, said: str, problem: Problem | None) -> ReadLineOut:
    if kind is LineKind.WORK and not said:
        kind = LineKind.NOTE
    understood = said if kind in (LineKind.ROUND, LineKind.WORK, LineKind.COLOUR) else ""
    return ReadLineOut(
        number=number,
        text=text.strip()[:300],
        kind=kind.value,
        understood=understood,
        severity=problem.severity.value if problem else None,
        message=problem.message if problem else "",
    )
