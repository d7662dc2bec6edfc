"""A design as the manuscript of its booklet."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from craft.design.design import Design, EyeKind, Posture
from craft.design.design import Step as AssemblyStep
from craft.design.eye_text import text_following_eyes
from craft.design.grading import figures_of, first_size
from craft.design.joins import Fixing
from craft.design.remix import credits_of
from craft.design.running import RunPart, worked_parts
from craft.design.saying import counted, deed_said, mark_said, place_said
from craft.document.booklet.compose import AssemblyLine, Manuscript, PartLine, YarnLine
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Part as Written
from craft.rounds.pattern import Step
from craft.rounds.stitches import Terms
from craft.text.exchange import InTerms

_FASTENERS = {Fixing.SNAPS: "Snap fasteners", Fixing.TAPE: "Hook-and-loop tape"}


def manuscript_of(design: Design, parts: tuple[RunPart, ...], designer: str, terms: Terms, date: str) -> Manuscript:
    """Everything the booklet of a design is composed of, in the chosen terms. parts: the design's, run."""
    credit = credits_of(design)
    worked = worked_parts(parts)
    lines = tuple(_part(design, p, w, terms) for p in parts if (w := p.worked) is not None)
    figures = figures_of(first_size(design, parts))
    uses = {use.colour: (use, skeins) for use, skeins in figures.yarns}
    yarns = []
    for i, yarn in enumerate(design.yarns):
        use, skeins = uses.get(yarn.name) or (uses.get("Main") if i == 0 else None) or (None, None)
        yarns.append(YarnLine(yarn.name, yarn.weight, design.gauge.strands, use, skeins))
    if not yarns:
        yarns = [YarnLine(use.colour, None, 1, use, None) for use, _ in uses.values()]
    printed, brief = design.printed, design.brief
    return Manuscript(
        title=design.name,
        designer=designer,
        version=printed.version or "draft",
        date=date,
        terms=terms,
        level=brief.level.value,
        audience=brief.audience.value,
        intro=brief.intro,
        parts=lines,
        gauge=design.gauge_now,
        hook_mm=design.gauge.hook_mm,
        yarns=tuple(yarns),
        filling=figures.filling_g,
        height=figures.height if lines else None,
        width=figures.width if lines else None,
        size_of="" if design.posture is Posture.STANDING else design.posture.value,
        eyes=_eyes(design, worked),
        notions=(*printed.notions, *_fasteners(design)),
        assembly=(
            *(_step(design, s, worked) for s in design.steps if _says_something(design, s)),
            *(AssemblyLine(mark_said(design, m, worked), "", "", False) for m in design.marks),
        ),
        permissions=printed.permissions,
        credits=" ".join(filter(None, (printed.credits, *credit.lines))),
        changes=_lines(printed.changes),
        private=credit.blocked,
        count_table=printed.count_table,
        notes=_lines(printed.notes),
    )


def _lines(text: str) -> tuple[str, ...]:
    return tuple(line.strip() for line in text.splitlines() if line.strip())


def _says_something(design: Design, step: AssemblyStep) -> bool:
    return bool(step.text or step.join or step.part)


def _step(design: Design, step: AssemblyStep, worked: Mapping[str, WorkedPart]) -> AssemblyLine:
    """A step in her words; one without words says what its join does, so that none is ever left out."""
    join = design.join(step.join)
    part = design.part(step.part or "")
    text = step.text
    if not text:
        sews = join is not None and join.place is not None
        text = "Attach." if join is None else f"{deed_said(join)}."
        if join is not None and not sews and (host := design.part(join.host)) is not None:
            text = text.rstrip(".") + f" to {host.name}."
    at = join.place if join else step.place
    hidden = at is None or (join is not None and join.worked)
    place = "" if hidden or at is None else place_said(design, at, worked, join)
    return AssemblyLine(text, part.name if part else "", place, step.before_closing)


def _fasteners(design: Design) -> list[str]:
    """What holds parts that come off, unless she lists it already."""
    names = {p.key: p.name for p in design.parts}
    listed = " ".join(design.printed.notions).lower()
    found = []
    for fixing, called in _FASTENERS.items():
        held = [names[j.part] for j in design.joins if j.comes_off and j.fixing is fixing and j.part in names]
        if held and called.lower() not in listed:
            found.append(f"{called} for {', '.join(held)}")
    return found


def _eyes(design: Design, worked: Mapping[str, WorkedPart]) -> str:
    eyes = design.eyes
    if eyes.kind is EyeKind.NONE:
        return ""
    kind = f"two safety eyes of {eyes.mm or 8:g} mm" if eyes.kind is EyeKind.SAFETY else "embroidered"
    if eyes.place is None or eyes.place.on not in worked:
        return kind
    run = worked[eyes.place.on]
    at = eyes.place.now(worked).round
    shown = [t for t in run.rounds if t.live > 0]
    above = f" and {shown[at].label}" if at < len(shown) else ""
    label = shown[min(at, len(shown)) - 1].label
    gap = counted(eyes.between, "stitch", "stitches")
    return f"{kind}, on {run.name} between {label}{above}, with {gap} visible between"


def _part(design: Design, part: RunPart, worked: WorkedPart, terms: Terms) -> PartLine:
    """A part with its direction for the eyes saying where they are placed."""
    written = part.written
    if design.eyes.place is not None and design.eyes.place.on == part.key:
        written = Written(
            written.name,
            tuple(
                replace(item, text=text_following_eyes(item.text, design.eyes, worked))
                if isinstance(item, Step)
                else item
                for item in written.items
            ),
            written.make,
        )
    return PartLine(written, worked, InTerms(part.checked.reading, part.part.text, terms))
