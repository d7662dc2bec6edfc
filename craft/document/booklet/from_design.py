"""A design as the manuscript of its booklet."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from craft.design.design import Audience, Design, EyeKind, Posture, Printed
from craft.design.design import Step as AssemblyStep
from craft.design.eye_text import text_following_eyes
from craft.design.grading import SizeFigures, figures_of, first_size
from craft.design.joins import Fixing, as_worked
from craft.design.mirrored import mirrored
from craft.design.part_order import part_order
from craft.design.remix import credits_of, worn_of
from craft.design.running import RunPart, worked_parts
from craft.design.saying import deed_said, mark_said, place_said
from craft.design.skeins import plan_said, skein_plans
from craft.document.booklet.manuscript import (
    NOBODY,
    AssemblyLine,
    HookLine,
    Imprint,
    Manuscript,
    Observed,
    PartLine,
    SizeMade,
    YarnLine,
)
from craft.document.face_diagram import face_diagram
from craft.document.templates import Template, TemplateKind, templates_of
from craft.figure.materials import SkeinPlan
from craft.gauge import Estimate, Gauge, Substitute, substitutes
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import Part as Written
from craft.rounds.pattern import Step, StepKind
from craft.text.catalogue import ENGLISH, Words
from craft.text.exchange import InTerms

_FASTENERS = {Fixing.SNAPS: "Snap fasteners", Fixing.TAPE: "Hook-and-loop tape"}


NOTHING = Observed()


def manuscript_of(
    design: Design, parts: tuple[RunPart, ...], imprint: Imprint, observed: Observed = NOTHING
) -> Manuscript:
    """Everything the booklet of a design is composed of, in the chosen terms. parts: the design's, run."""
    credit, terms, words, prose = credits_of(design), imprint.terms, imprint.words, imprint.prose
    worked = worked_parts(parts)
    if imprint.left:
        design = mirrored(design)
    by_key = {p.key: p for p in parts}
    order = part_order(worked, design.printed.order)
    lines = tuple(_part(design, by_key[key], worked[key], imprint) for key in order)
    first = first_size(design, parts)
    figures = figures_of(first)
    width, height = _size(design, observed) or (figures.width, figures.height)
    printed, brief = design.printed, design.brief
    return Manuscript(
        title=design.name,
        designer=imprint.designer,
        stamp=imprint.stamp(printed.version or words.say("of its own")),
        terms=terms,
        level=brief.level.value,
        audience=brief.audience.value,
        intro=brief.intro,
        parts=lines,
        gauge=design.gauge_now,
        hook_mm=design.gauge.hook_mm,
        yarns=_yarns(design, figures, skein_plans(first), words),
        filling=figures.filling_g,
        height=height if lines else None,
        width=width if lines else None,
        made=_made(printed, height, width) if lines else NOBODY,
        size_of="" if design.posture is Posture.STANDING else design.posture.value,
        eyes=_eyes(design, worked, words),
        notions=(*map(prose, printed.notions), *_fasteners(design, words)),
        assembly=tuple(_assembly(design, worked, imprint, observed)),
        permissions=printed.permissions,
        credits=" ".join(filter(None, (printed.credits, *credit.lines))),
        changes=_lines(printed.changes),
        private=credit.blocked,
        count_table=printed.count_table,
        notes=_lines(printed.notes),
        face=face_diagram(design, worked, words),
        charts=printed.charts,
        cut=tuple(_cut(templates_of(design, parts, observed.surfaces), words)),
        photos=observed.photos.get("", ()),
        wire=tuple(_wire(design, parts)),
        instead=_instead(design),
        words=words,
        prose=prose,
        left=imprint.left,
        plain=_plain(design, worked),
        hooks=_hooks(design, [by_key[key] for key in order]),
    )


def _strands(design: Design, yarn: str) -> int:
    """How many strands of a yarn are held together: as the parts that begin with it say it, where all of them say one."""
    own = {p.own_hook and p.own_hook.strands for p in design.parts if (y := design.yarn_of(p.key)) and y.name == yarn}
    return (own.pop() if len(own) == 1 else None) or design.gauge.strands


def _hooks(design: Design, parts: Sequence[RunPart]) -> tuple[HookLine, ...]:
    """The hooks that parts have of their own, each with all parts that are worked on it to one gauge."""
    found: dict[tuple[float, int, Gauge], list[str]] = {}
    for part in parts:
        own = part.part.own_hook
        if own is not None:
            found.setdefault((own.hook_mm, own.strands, design.gauge_of(part.key)), []).append(part.name)
    return tuple(HookLine(tuple(names), *fabric) for fabric, names in found.items())


def _yarns(design: Design, figures: SizeFigures, plans: Mapping[str, SkeinPlan], words: Words) -> tuple[YarnLine, ...]:
    """The yarns of the list; for a design without any, what its rounds are worked in."""
    uses = {use.colour: (use, skeins) for use, skeins in figures.yarns}
    if not design.yarns:
        return tuple(YarnLine(use.colour, None, 1, use, None) for use, _ in uses.values())
    lines = []
    for i, yarn in enumerate(design.yarns):
        use, skeins = uses.get(yarn.name) or (uses.get(MAIN_COLOUR) if i == 0 else None) or (None, None)
        plan = plans.get(yarn.name)
        many = max(skeins or 0, len(plan.skeins)) if plan is not None else skeins
        said = plan_said(plan, words) if plan is not None else ""
        grams = use.metres.times(yarn.skein_g / yarn.skein_m) if use and yarn.skein_g and yarn.skein_m else None
        lines.append(YarnLine(yarn.name, yarn.weight, _strands(design, yarn.name), use, many, grams, said))
    return tuple(lines)


def _assembly(
    design: Design, worked: Mapping[str, WorkedPart], imprint: Imprint, observed: Observed
) -> Iterator[AssemblyLine]:
    """The steps, then the marks of the face."""
    for step in design.steps:
        if _says_something(design, step):
            yield replace(_step(design, step, worked, imprint), photos=observed.photos.get(step.key, ()))
    for mark in design.marks:
        yield AssemblyLine(mark_said(design, mark, worked, imprint.words))


def _plain(design: Design, worked: Mapping[str, WorkedPart]) -> tuple[str, ...]:
    """What is said beside the rounds, in English and as she wrote it."""
    steps = (s.text for s in design.steps)
    return (*design.printed.notions, *_fasteners(design, ENGLISH), *steps, _eyes(design, worked, ENGLISH))


_WIRE = re.compile(r"(?i)\d+(?:[.,]\d+)?\s*(?:cm|mm|in(?:ch(?:es)?)?)\b")


def _wire(design: Design, parts: Sequence[RunPart]) -> Iterator[tuple[str, str]]:
    """How much wire each part takes, by what its directions say; none of it in a figure for a child under three."""
    if design.brief.audience is Audience.UNDER_THREE:
        return
    for part in parts:
        texts = [i.text for i in part.written.items if isinstance(i, Step) and i.kind is StepKind.WIRE]
        texts += [s.text for s in design.steps if s.part == part.key and "wire" in s.text.lower()]
        found = [length[0] for text in texts if (length := _WIRE.search(text))]
        if found:
            times = f"{part.part.make} × " if part.part.make > 1 else ""
            yield part.name, times + " + ".join(found)


def _instead(design: Design) -> tuple[Substitute, ...]:
    """Other yarns and hooks that give the same size, without the design's own; a figure of several grounds has none."""
    if design.yarn is None or any(y.weight != design.yarn.weight for y in design.yarns):
        return ()
    own = design.yarn.weight, design.gauge.strands
    return tuple(s for s in substitutes(design.gauge_now) if (s.weight, s.strands) != own)[:MOST_INSTEAD]


MOST_INSTEAD = 3
"""Other yarns that are named."""


def _cut(templates: Sequence[Template], words: Words) -> Iterator[tuple[str, str]]:
    """What is cut of felt and laid in as discs, with how often and how large."""
    for kind, called in ((TemplateKind.FELT, "Felt"), (TemplateKind.DISC, "Base disc")):
        own = [t for t in templates if t.kind is kind]
        if own:
            yield words.say(called), "; ".join(_cut_said(t, words) for t in own)


def _cut_said(template: Template, words: Words) -> str:
    told = {"name": template.name, "size": template.size_said}
    return words.many("{n} piece for {name}, {size}", "{n} pieces for {name}, {size}", template.many, **told)


def _size(design: Design, observed: Observed) -> tuple[Estimate, Estimate] | None:
    """Width and height of the settled figure, as far off as the gauge may be."""
    if observed.size_mm is None:
        return None
    gauge = design.gauge_now
    width, _, height = observed.size_mm
    return Estimate.around(width, gauge.spread, gauge.how), Estimate.around(height, gauge.spread, gauge.how)


def _made(printed: Printed, height: Estimate, width: Estimate) -> SizeMade:
    """The finished size as far as makings measured it, and the figure is still the one that they made."""
    lengths = ((printed.height_made, height), (printed.width_made, width))
    tall, wide = (made if made is not None and made.holds_for(e.value) else None for made, e in lengths)
    return SizeMade(
        tall.corrected(height) if tall else None,
        wide.corrected(width) if wide else None,
        min((made.makers for made in (tall, wide) if made), default=0),
    )


def _lines(text: str) -> tuple[str, ...]:
    return tuple(line.strip() for line in text.splitlines() if line.strip())


def _says_something(design: Design, step: AssemblyStep) -> bool:
    return bool(step.text or step.join or step.part)


def _step(design: Design, step: AssemblyStep, worked: Mapping[str, WorkedPart], imprint: Imprint) -> AssemblyLine:
    """A step in her words; one without words says what its join does, so that none is ever left out."""
    join, words = design.join(step.join), imprint.words
    join = join and as_worked(join, worked)
    part = design.part(step.part or "")
    at = join.place if join else step.place
    if step.text:
        text = imprint.prose(step.text)
    elif join is None:
        text = words.say("Attach.")
    else:
        host = design.part(join.host) if join.place is None else None
        deed = deed_said(join, words)
        text = words.say("{deed} to {host}.", deed=deed, host=host.name) if host else f"{deed}."
    hidden = at is None or (join is not None and join.worked)
    place = "" if hidden or at is None else place_said(design, at, worked, join, words)
    lit = step.key if join is not None and join.place is not None else ""
    return AssemblyLine(text, part.name if part else "", place, step.before_closing, lit, film=step.film_shown)


def _fasteners(design: Design, words: Words) -> list[str]:
    """What holds parts that come off and about how many of them, unless she lists it already."""
    listed = " ".join(design.printed.notions).lower()
    worn = worn_of(design)
    found = []
    for fixing, called in _FASTENERS.items():
        held = [words.say(_HOW_MANY[fixing], part=w.name, n=w.fasteners) for w in worn if w.fixing is fixing]
        if held and called.lower() not in listed:
            found.append(words.say("{what} for {parts}", what=words.say(called), parts=", ".join(held)))
    return found


_HOW_MANY = {Fixing.SNAPS: "{part} (about {n})", Fixing.TAPE: "{part} (about {n} pieces of 2 cm)"}
"""A part that comes off, and how many of what holds it; an estimate."""


def _eyes(design: Design, worked: Mapping[str, WorkedPart], words: Words) -> str:
    eyes = design.eyes
    if eyes.kind is EyeKind.NONE:
        return ""
    pressed_on = eyes.kind is EyeKind.SAFETY and design.brief.audience is not Audience.UNDER_THREE
    kind = words.say("two safety eyes of {mm} mm", mm=f"{eyes.mm or 8:g}") if pressed_on else words.say("embroidered")
    if eyes.place is None or eyes.place.on not in worked:
        return kind
    run = worked[eyes.place.on]
    at = eyes.place.now(worked).round
    shown = [t for t in run.rounds if t.live > 0]
    label = words.label(shown[min(at, len(shown)) - 1].label)
    told = {
        "kind": kind,
        "part": run.name,
        "gap": words.many("{n} stitch", "{n} stitches", eyes.between),
        "below": label,
    }
    if at >= len(shown):
        return words.say("{kind}, on {part} above {below}, with {gap} visible between", **told)
    above = words.label(shown[at].label)
    return words.say("{kind}, on {part} between {below} and {above}, with {gap} visible between", above=above, **told)


def _part(design: Design, part: RunPart, worked: WorkedPart, imprint: Imprint) -> PartLine:
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
    return PartLine(written, worked, InTerms(part.checked.reading, part.part.text, imprint.terms), part.key)
