"""Texts and shapes as the bench shows them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import cast

from craft.design.running import OtherText, checked_text, first_worked
from craft.figure.body import Body, body_of
from craft.figure.materials import filling_g, yarn_use
from craft.figure.picture import draw
from craft.figure.placement import drift, place
from craft.gauge import Estimate, Gauge
from craft.problems import Problem
from craft.rounds.fabric import MAIN_COLOUR, Tally, WorkedPart, repeats_said
from craft.text.check import Checked
from craft.text.notation import highlights
from craft.text.reshaping import is_folded
from studio.bench.eyes import eye_hints
from studio.bench.schemas import (
    ColourIn,
    EstimateOut,
    FigurePart,
    GaugeIn,
    PreviewIn,
    PreviewOut,
    ProblemOut,
    RoundOut,
    SizeOut,
    SpanKind,
    SpanOut,
    StepOut,
)

UNNAMED = "#b99c6b"


def craft_gauge(gauge: GaugeIn) -> Gauge:
    """The gauge of a question."""
    return Gauge(gauge.stitch_mm, gauge.round_mm, gauge.lean, gauge.spread, gauge.how)


def estimate(e: Estimate) -> EstimateOut:
    """An estimate as it goes over the wire."""
    return EstimateOut(value=e.value, low=e.low, high=e.high, how=e.how)


def _problem(p: Problem) -> ProblemOut:
    fix = p.fix and {"start": p.fix.start, "end": p.fix.end, "text": p.fix.text, "label": p.fix.label}
    return ProblemOut.model_validate(
        {
            "code": p.code,
            "severity": p.severity.value,
            "message": p.message,
            "round": p.place.round,
            "line": p.place.line,
            "column": p.place.column,
            "start": p.place.span.start,
            "end": p.place.span.end,
            "fix": fix,
        }
    )


def _change(tally: Tally) -> str:
    up, down = (sum(c for _, c in tally.marks if (c > 0) is grow) for grow in (True, False))
    words = [f"{up} more" if up else "", f"{-down} fewer" if down else ""]
    return " and ".join(w for w in words if w) or "plain"


def _sentence(tally: Tally, lie: str) -> str:
    """The round in one sentence, for those who do not see it."""
    shape = {"wall": "straight up", "cup": "cupping", "flat": "flat", "ruffle": "ruffling"}[lie]
    words = [f"{tally.label}: {tally.live} stitches", _change(tally), "worked flat" if tally.flat else shape]
    if tally.held:
        words.append(f"{tally.held} put aside")
    if tally.rest:
        words.append(f"{tally.rest} not reached")
    passed = sum(h.passed for h in tally.holes)
    if passed and not tally.held:
        words.append(f"passes {passed}")
    colours = "" if tally.colours == (MAIN_COLOUR,) else f", in {' and '.join(tally.colours)}"
    return ", ".join(words) + colours


def figure_part(
    worked: WorkedPart, body: Body, palette: Mapping[str, str], line_of: Mapping[int, int], lean: float = 0.0
) -> FigurePart:
    """A run part with its body. line_of: line of the text by the start of a written round's span. lean: of the gauge."""
    drawn = {id(t): i for i, t in enumerate(t for t in worked.trunk if t.live > 0)}
    shown = [t for t in worked.rounds if t.live > 0]
    back = [d.stitches for d in drift([t.live for t in shown], lean)]
    rows = [_round(t, worked, body, drawn.get(id(t)), line_of, shift) for t, shift in zip(shown, back, strict=True)]
    main = palette.get(MAIN_COLOUR, UNNAMED)
    return FigurePart.model_construct(
        rounds=rows,
        closed=body.closed,
        inside_out=worked.inside_out,
        layers=body.layers,
        colours=[palette.get(c, main if c == MAIN_COLOUR else UNNAMED) for c in body.colours],
    )


def _round(
    t: Tally, worked: WorkedPart, body: Body, at: int | None, line_of: Mapping[int, int], shift: int
) -> RoundOut:
    """A worked round; `at` is its ring in the body, None when the figure does not show it."""
    ring = body.rings[at] if at is not None else None
    # A round that grows from a chain, from pieces or beside a split has no ring of stitches just below it.
    beside = t.held > 0 or (at == 0 and t.taken > 0)
    lie = "wall" if at is None or beside else body.profile.lies[at].value
    return RoundOut.model_construct(
        label=t.label,
        line=line_of.get(t.span.start, 1),
        taken=t.taken,
        made=t.made,
        live=t.live,
        stated=t.stated,
        marks=list(t.marks),
        loops=t.loops.value,
        lie=lie,
        radius=round(ring.radius, 3) if ring else 0.0,
        z=round(ring.z, 3) if ring else 0.0,
        height=round(ring.height, 3) if ring else 0.0,
        turn=round(ring.turn, 5) if ring else 0.0,
        colours=list(ring.colours) if ring else _colours(t, worked),
        sentence=_sentence(t, lie),
        drawn=ring is not None,
        flat=t.flat,
        held=t.held,
        rest=t.rest,
        holes=[(h.at, h.passed) for h in t.holes],
        section=t.section,
        plain=not (t.flat or t.rest or t.held or t.holes),
        shift=0 if t.flat or t.joined else shift,
    )


def _colours(t: Tally, worked: WorkedPart) -> list[int]:
    """The colour a round begins with."""
    return [int(worked.graph.colour[t.first])] if t.end > t.first else [0]


def _size(worked: WorkedPart, body: Body, gauge: Gauge, firmness: float) -> SizeOut:
    uses = yarn_use([worked], gauge)
    total = Estimate(
        sum(u.metres.value for u in uses),
        sum(u.metres.low for u in uses),
        sum(u.metres.high for u in uses),
        uses[0].metres.how if uses else "",
    )
    return SizeOut(
        height=estimate(Estimate.around(body.height_mm, gauge.spread, gauge.how)),
        width=estimate(Estimate.around(body.width_mm, gauge.spread, gauge.how)),
        volume_ml=body.volume_ml,
        filling_g=estimate(filling_g(body.volume_ml, firmness)),
        metres=estimate(total),
        stitches=len(worked.graph),
    )


def palette_from(colours: list[ColourIn]) -> dict[str, str]:
    """Colours by name; the first is the main one too."""
    palette = {c.name: c.colour for c in colours}
    if colours:
        palette.setdefault(MAIN_COLOUR, colours[0].colour)
    return palette


def yarns_of(question: PreviewIn) -> tuple[str, ...]:
    """Colours that the rounds of a question may name."""
    return (*(c.name for c in question.colours), MAIN_COLOUR) if question.colours else ()


def others_of(question: PreviewIn) -> tuple[OtherText, ...]:
    """The design's other parts, as a question gives them."""
    return tuple(OtherText(p.name, p.make, p.text, p.colour or MAIN_COLOUR) for p in question.others)


def _checked(question: PreviewIn) -> Checked:
    colour = question.colour or MAIN_COLOUR
    return checked_text(question.text, question.terms, yarns_of(question), colour, others_of(question))


def worked_of(question: PreviewIn) -> tuple[Checked, WorkedPart | None]:
    """A question's text read and run, with its first part that has rounds."""
    checked = _checked(question)
    return checked, first_worked(checked)


def preview(question: PreviewIn) -> PreviewOut:
    """Read and run a text, with everything the bench shows of it."""
    gauge = question.gauge
    checked, worked = worked_of(question)
    part = FigurePart.model_construct(rounds=[], colours=[], closed=False, inside_out=False)
    size = None
    if worked is not None:
        reckoned = craft_gauge(gauge)
        body = body_of(worked, reckoned, firmness=gauge.firmness)
        part = figure_part(worked, body, palette_from(question.colours), _lines(checked), gauge.lean)
        size = _size(worked, body, reckoned, gauge.firmness)
    steps = [StepOut(kind=s.kind.value, text=s.text, after=s.after) for s in worked.steps] if worked else []
    spans: list[SpanOut] = [(h.start, h.end, cast(SpanKind, h.kind)) for h in highlights(checked.reading)]
    return PreviewOut.model_construct(
        number=question.number,
        spans=spans,
        repeats=_repeats(checked),
        problems=[_problem(p) for p in (*checked.problems, *eye_hints(question, worked))],
        part=part,
        steps=steps,
        size=size,
        sound=checked.sound,
        folded=is_folded(checked.reading),
        terms=checked.reading.found.used.value,
        terms_how=checked.reading.found.evidence,
    )


def picture(question: PreviewIn) -> str:
    """The part of a text as an SVG picture; an empty one while there is no round."""
    _, worked = worked_of(question)
    bodies = {"part": body_of(worked, craft_gauge(question.gauge))} if worked else {}
    return draw(bodies, place(bodies, {}, ()), palette_from(question.colours), title="The part, drawn from its rounds")


def _repeats(checked: Checked) -> list[tuple[int, int, str]]:
    """Every repeat's place and its arithmetic in words."""
    found: list[tuple[int, int, str]] = []
    for part, run in zip(checked.reading.pattern.parts, checked.parts, strict=True):
        live = {t.source: t.live for t in run.rounds}
        for source, made in enumerate(part.rounds):
            said = repeats_said(made, live.get(source - 1, 0))
            found += [(span.start, span.end, words) for span, words in said]
    return found


def _lines(checked: Checked) -> dict[int, int]:
    return {line.span.start: line.number for line in checked.reading.lines}
