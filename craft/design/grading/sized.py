"""A design at a size: its parts with their gauges, made anew in the same yarn; all that follows from them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from craft.design.design import Design, EyeKind
from craft.design.design import Step as AssemblyStep
from craft.design.eye_text import eyes_in_proportion
from craft.design.grading.edges import Around
from craft.design.grading.measure import PartSize, part_size, sold_eye
from craft.design.grading.meeting import Ends, ends_at, joins_reported
from craft.design.grading.regrade import Regraded, regrade
from craft.design.grading.report import Feature, State, notes_of
from craft.design.grading.source import SourcePart, source_of
from craft.design.grading.words import lengths_resaid, resaid
from craft.design.joins import Join, bends_at, loose_copies, made_alone, pieces_worked_in
from craft.design.parts import DesignYarn, OwnHook, colours_of
from craft.design.running import RunPart
from craft.design.seating import seats_of
from craft.errors import CraftError
from craft.figure.body import Body, Placed, body_of
from craft.figure.materials import ColourUse, used_together, yarn_use
from craft.figure.picture import View, draw
from craft.figure.placement import extent, place
from craft.gauge import Gauge, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import Note, Step
from craft.rounds.pattern import Part as Written
from craft.rounds.stitches import Terms
from craft.text.notation import print_rounds

PROPORTIONS = 0.05
"""By how large a share height over width may change before that is said."""

WHOLE_ROUNDS = "Whole rounds and stitches come no nearer at this size; add or leave out a plain round where it shows."


@dataclass(frozen=True)
class PartAtSize:
    """A part at a size: written and run, and how it came about ('same counts', 'drafted', 'resampled' or 'not sized').

    gauge: of its fabric; hook: of its own, where it has one. features: what became of what it holds. tops: the number of
    the round that stands for each of the first size.
    """

    source: RunPart
    written: Written
    worked: WorkedPart
    how: str
    gauge: Gauge
    hook: OwnHook | None = None
    features: tuple[Feature, ...] = ()
    tops: Mapping[int, int] = field(default_factory=dict)

    def text(self, terms: Terms) -> str:
        """Its rounds as they are written at this size: as she typed them while they are hers, only their words anew."""
        if self.how in ("drafted", "resampled"):
            return print_rounds(self.written, terms)
        text = self.source.part.text
        for before, after in zip(self.source.written.items, self.written.items, strict=True):
            if isinstance(before, Step | Note) and isinstance(after, Step | Note) and before.text != after.text:
                text = text.replace(before.text, after.text, 1)
        return text


@dataclass(frozen=True)
class Sized:
    """All parts at a size, with its gauge and by how much eyes and places scale. fabric: what it will be like.

    apart: motifs and colours that repeat keep their distance.
    bought: yarns of this size in the place of the design's, by their names there; others stay.
    sources, measured: parts of the first size as they were run and as they are estimated, remembered from size to size.
    """

    design: Design
    gauge: Gauge
    scale: float
    parts: tuple[PartAtSize, ...]
    fabric: str | None = None
    joined: tuple[Feature, ...] = ()
    apart: bool = False
    bought: Mapping[str, DesignYarn] = field(default_factory=dict)
    sources: dict[str, SourcePart] = field(default_factory=dict, compare=False, repr=False)
    measured: dict[Any, PartSize] = field(default_factory=dict, compare=False, repr=False)

    def part_measured(self, part: PartAtSize) -> PartSize:
        """A part of the first size as it is estimated, remembered from size to size."""
        key = part.source.key, part.worked.counts, part.gauge
        if key not in self.measured:
            self.measured[key] = part_size(part.worked, part.gauge, self.design.gauge.firmness)
        return self.measured[key]

    def part_at(self, key: str) -> PartAtSize | None:
        """A part by its key, None where it has no rounds."""
        return next((p for p in self.parts if p.source.key == key), None)

    def gauge_of(self, key: str) -> Gauge:
        """The gauge of a part's fabric at this size."""
        part = self.part_at(key)
        return self.gauge if part is None else part.gauge

    def scale_of(self, key: str | None) -> float:
        """By how much places, lengths and eyes of a part scale: in a yarn or on a hook of its own by its own stitches."""
        if key is None:
            return self.scale
        was = self.design.gauge_of(key).stitch_mm / self.design.gauge_now.stitch_mm
        return self.scale * self.gauge_of(key).stitch_mm / self.gauge.stitch_mm / was

    def yarn_named(self, colour: str) -> DesignYarn | None:
        """The yarn of a colour's name at this size, None for one that nobody listed; the main colour's is the first."""
        name = self.design.yarns[0].name if colour == MAIN_COLOUR and self.design.yarns else colour
        return self.bought.get(name) or next((y for y in self.design.yarns if y.name == name), None)

    @property
    def features(self) -> tuple[Feature, ...]:
        """What became of everything: part by part, then where they meet."""
        return (*(f for p in self.parts for f in p.features), *self.joined)

    @property
    def notes(self) -> tuple[str, ...]:
        """What did not stay, in sentences."""
        return notes_of(self.features)

    @property
    def worked(self) -> dict[str, WorkedPart]:
        """Its parts as run, by key."""
        return {p.source.key: p.worked for p in self.parts}

    @property
    def joins(self) -> tuple[Join, ...]:
        """The design's joins with every place kept on the surface by the rounds of the first size, and every limb bent
        where it was in proportion to its length."""
        first = {p.source.key: w for p in self.parts if (w := p.source.worked) is not None}
        now = self.worked
        bent = (replace(j, bends=bends_at(j, first.get(j.part), now.get(j.part))) for j in self.design.joins)
        return tuple(j if j.place is None else replace(j, place=j.place.anchored(j.place, first)) for j in bent)


def first_size(design: Design, parts: Sequence[RunPart]) -> Sized:
    """The design as it is."""
    made = tuple(
        PartAtSize(p, p.written, w, "same counts", design.gauge_of(p.key), p.part.own_hook)
        for p in parts
        if (w := p.worked) is not None
    )
    fabric = None
    if design.yarn is not None and design.gauge.hook_mm:
        fabric = fabric_outlook(design.yarn.strands(design.gauge.strands), design.gauge.hook_mm).words
    return Sized(design, design.gauge_now, 1.0, made, fabric)


def scaled(first: Sized, scale: float, only: str | None = None) -> Sized:
    """The first size `scale` times as large in the same yarn; CraftError when no part can be made so.

    only: key of the one part that is made anew, the others stay. A part that others take in is made before them; edges
    that are joined come to equal counts. A part that cannot be made so stays as it is, and the report says why.
    """
    ends = ends_at(first.design.joins, _first(first), scale) if only is None else Ends()
    before = {p.source.name: p.worked.piece for p in first.parts}
    after = dict(before)
    made: dict[str, PartAtSize] = {}
    refused: list[CraftError] = []
    for part in _pieces_first(first.parts):
        if only not in (None, part.source.key):
            made[part.source.key] = part
            continue
        around = Around(
            part.source.part.colour or MAIN_COLOUR,
            before,
            after,
            ends.last.get(part.source.key),
            even=part.source.key in ends.even,
            apart=first.apart,
        )
        try:
            made[part.source.key] = _regraded(first, part, scale, around)
        except CraftError as error:
            refused.append(error)
            row = Feature(part.source.name, "part", State.CHANGED, "", "", f"It stays as it is. {error.message}")
            made[part.source.key] = replace(part, how="not sized", features=(row,))
        after[part.source.name] = made[part.source.key].worked.piece
    if refused and len(refused) == (len(first.parts) if only is None else 1):
        raise refused[0]
    sized = replace(
        first,
        scale=scale if only is None else 1.0,
        parts=tuple(_compared(p, made[p.source.key], first) for p in first.parts),
    )
    return replace(sized, joined=joins_reported(first.design, _first(first), sized.worked, sized.joins))


def _regraded(first: Sized, part: PartAtSize, scale: float, around: Around) -> PartAtSize:
    source = part.source
    recipe = source.part.recipe if source.part.drafted else None
    if source.key not in first.sources:
        first.sources[source.key] = source_of(part.written, around.colour, around.before)
    found: Regraded = regrade(part.written, scale, part.gauge, recipe, around, first.sources[source.key])
    worked = replace(found.worked, name=source.name, make=source.part.make)
    return replace(part, written=found.part, worked=worked, how=found.how, features=found.features, tops=found.tops)


def _compared(before: PartAtSize, after: PartAtSize, first: Sized) -> PartAtSize:
    """The part at its size, with a row of the report where its proportions came out otherwise, as estimated."""
    if after.how == "not sized" or any(f.kind == "width" for f in after.features):
        return after
    was, now = first.part_measured(before), part_size(after.worked, after.gauge, first.design.gauge.firmness)
    ratios = [m.height.value / max(m.width.value, 0.1) for m in (was, now)]
    if abs(ratios[1] / max(ratios[0], 1e-6) - 1) <= PROPORTIONS:
        return after
    said = [f"{r:.2f} times as high as wide" for r in ratios]
    row = Feature(before.source.name, "proportions", State.CHANGED, said[0], said[1], WHOLE_ROUNDS)
    return replace(after, features=(*after.features, row))


def _pieces_first(parts: Sequence[PartAtSize]) -> list[PartAtSize]:
    """The parts, each before those whose rounds take it in."""
    waiting, out = list(parts), list[PartAtSize]()
    while waiting:
        left = {p.source.name for p in waiting}
        free = next((p for p in waiting if not pieces_worked_in(p.worked) & (left - {p.source.name})), waiting[0])
        waiting.remove(free)
        out.append(free)
    return out


def bodies_at(sized: Sized) -> tuple[Mapping[str, Body], tuple[Placed, ...]]:
    """Estimated bodies of a size's parts, and every piece in its place.

    Pieces that another part takes in are left out where no join says their place: they are no pieces of their own.
    """
    firmness = sized.design.gauge.firmness
    seated = {j.part for j in sized.design.joins if j.place is not None}
    shown = {key: w for key, w in sized.worked.items() if key in seated or key in made_alone(sized.worked)}
    bodies = {key: body_of(w, sized.gauge_of(key), firmness=firmness) for key, w in shown.items()}
    makes = {key: w.make for key, w in shown.items()}
    return bodies, place(bodies, makes, seats_of(sized.joins, sized.worked, sized.design.posture))


def figure_size(sized: Sized) -> tuple[float, float]:
    """Width and height in mm of the figure as put together by its estimated bodies."""
    width, _, height = extent(*bodies_at(sized))
    return width, height


MOST_FACES = 1_500
"""Visible stitches of a picture that stands in a table: it is small, and there are many."""


def figure_picture(sized: Sized, title: str) -> str:
    """The figure of a size as put together by its estimated bodies, as SVG in mm, from the front."""
    palette = colours_of(sized.design.yarns)
    return draw(*bodies_at(sized), palette, title=title, view=View(0.0, 8.0), most_faces=MOST_FACES)


def eye_at(sized: Sized) -> int | None:
    """The eye to buy at a size, None for a figure without safety eyes."""
    eyes = sized.design.eyes
    on = None if eyes.place is None else eyes.place.on
    return sold_eye(eyes.mm * sized.scale_of(on)) if eyes.kind is EyeKind.SAFETY and eyes.mm else None


def yarn_at(sized: Sized) -> tuple[ColourUse, ...]:
    """Yarn by colour at a size. Parts that others take in are counted there, and only there."""
    loose = loose_copies(sized.worked)
    return used_together([use for key, worked in loose.items() for use in part_yarn(sized, key, worked)])


def part_yarn(sized: Sized, key: str, worked: WorkedPart) -> tuple[ColourUse, ...]:
    """Yarn by colour that a part takes at a size: as weighed where that was done, in proportion to its stitches."""
    measured, gauge = sized.design.gauge.yarn_per_stitch_mm, sized.gauge_of(key)
    per_stitch = measured * gauge.stitch_mm / sized.design.gauge_now.stitch_mm if measured else None
    return yarn_use([worked], gauge, per_stitch)


def design_at(sized: Sized) -> Design:
    """The sized design's places and eyes: moved in proportion, eyes as they are sold; texts are the caller's."""
    worked = sized.worked
    joins = tuple(j if j.place is None else replace(j, place=j.place.resaid(worked)) for j in sized.joins)
    eyes = sized.design.eyes
    sold = eye_at(sized)
    eyes = replace(eyes, mm=float(sold) if sold else eyes.mm)
    if eyes.place is not None and eyes.place.on in worked:
        source = next(p.source for p in sized.parts if p.source.key == eyes.place.on)
        eyes = eyes_in_proportion(
            replace(eyes, place=eyes.place.anchored(eyes.place, _first(sized))),
            source.worked,
            worked[source.key],
            eyes.mm,
        )
    return replace(sized.design, joins=joins, eyes=eyes, steps=tuple(_step_at(s, sized) for s in sized.design.steps))


def _step_at(step: AssemblyStep, sized: Sized) -> AssemblyStep:
    """A step of putting together with the rounds and lengths of this size."""
    join = sized.design.join(step.join)
    on = join.host if join else step.place.on if step.place else step.part
    made = None if on is None else sized.part_at(on)
    if made is None or made.how in ("same counts", "not sized"):
        return replace(step, text=lengths_resaid(step.text, sized.scale_of(on))[:500])
    return replace(step, text=resaid(step.text, made.tops, sized.scale)[:500])


def _first(sized: Sized) -> dict[str, WorkedPart]:
    return {p.source.key: w for p in sized.parts if (w := p.source.worked) is not None}
