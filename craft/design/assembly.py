"""A design put together on its settled surfaces: eyes, marks, the centre line."""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, MadeOf, Mark, Posture
from craft.design.joins import left_over, made_alone
from craft.design.running import RunPart, worked_parts
from craft.design.seating import estimated_figure, seats_of
from craft.errors import CraftError
from craft.figure.body import Body, Placed
from craft.figure.placement import (
    Bend,
    EyePlace,
    Patch,
    Posable,
    Surface,
    Warned,
    bent,
    centre_line,
    drift,
    droop,
    extent,
    give_way,
    hanging_flaps,
    hung_up,
    laid_down,
    limbs_posed,
    patch_on,
    place,
    place_eyes,
    propose,
    puts_in_wire,
)
from craft.figure.settling import shows_filling_above
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import StepKind
from craft.text.eye_directions import find_direction

Point = tuple[float, float, float]

_PELLETS = re.compile(
    r"(?i)^(?!.*\b(?:no|not|never|without|keine?|ohne|pas|sans|sin|senza|geen|zonder)\b)"
    r".*\b(?:pellets?|granulat|granulés?|granza|microsfere|granulaat)\b"
)
"""A direction that puts pellets in."""

USUAL_EYE_MM = 8.0
"""An eye whose size is not said yet."""


@dataclass(frozen=True)
class Assembled:
    """Everything that putting together goes by. surfaces: of the parts that are settled, by key."""

    design: Design
    parts: tuple[RunPart, ...]
    worked: Mapping[str, WorkedPart]
    surfaces: Mapping[str, Surface]
    bodies: Mapping[str, Body]
    placed: tuple[Placed, ...]

    @property
    def whole(self) -> bool:
        """Whether every part that is placed is settled."""
        return bool(self.surfaces) and set(self.bodies) <= set(self.surfaces)

    @property
    def posed(self) -> dict[str, Posable]:
        """What pieces are placed by: settled where that is done, else estimated."""
        return {key: self.surfaces.get(key, body) for key, body in self.bodies.items()}

    @cached_property
    def lying(self) -> Mapping[str, Surface]:
        """The surfaces of the settled parts as the first piece of each lies: where it gives way to others."""
        moved = {p.part: p.x for p in reversed(self.placed) if p.part in self.surfaces}
        return {key: s if (x := moved.get(key)) is None else replace(s, x=x) for key, s in self.surfaces.items()}

    @property
    def joined(self) -> bool:
        """Whether the pieces make one figure: nothing lies loose beside another."""
        hosts = {j.part: j.host for j in self.design.joins if j.part in self.bodies and j.host in self.bodies}
        roots = {key for key in self.bodies if key not in hosts}
        loose = [p for p in self.parts if p.key in roots and p.part.make > 1]
        return len(roots) == 1 and not loose and not left_over(self.design.joins, self.worked)

    @property
    def weighted(self) -> frozenset[str]:
        """Parts that are filled with pellets below, as the directions between their rounds say."""
        return frozenset(key for key, part in self.worked.items() if any(_PELLETS.search(s.text) for s in part.steps))

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Width, depth and height of all that is placed."""
        return extent(self.posed, self.placed)


def put_together(design: Design, parts: Sequence[RunPart], surfaces: Mapping[str, Surface]) -> Assembled:
    """The figure as far as its parts are settled; by the estimate while none is."""
    worked = worked_parts(parts)
    bodies, placed = estimated_figure(design, parts)
    if surfaces:
        bodies = {key: body for key, body in bodies.items() if key in made_alone(worked)}
        posed: dict[str, Posable] = {key: surfaces.get(key, body) for key, body in bodies.items()}
        seats = seats_of(design.joins, worked, design.posture)
        placed = place(posed, {p.key: p.part.make for p in parts}, seats, left_over(design.joins, worked))
        if design.posture is Posture.LYING:
            placed = laid_down(posed, surfaces, placed)
        elif design.posture is Posture.HANGING:
            placed = hung_up(posed, surfaces, placed)
        wired = parts_with_wire(design, worked)
        placed = bent(surfaces, placed, seats, wired)
        floor = None if design.posture is Posture.HANGING else _floor(surfaces, placed)
        placed = droop(surfaces, placed, seats, design.gauge_now.stitch_mm, wired, floor)
        placed = limbs_posed(surfaces, placed, design.gauge_now.stitch_mm, *_limbs(design, wired), floor)
        placed = hanging_flaps(surfaces, placed, design.gauge_now.stitch_mm)
        placed = give_way(surfaces, placed, seats, design.gauge_now.stitch_mm)
    return Assembled(design, tuple(parts), worked, surfaces, bodies, placed)


def _limbs(design: Design, wired: Collection[str]) -> tuple[dict[tuple[str, str], tuple[Bend, ...]], frozenset[str]]:
    """The bends of limbs by their host and their name, for those that it took in, and the names of parts with wire in them."""
    names = {part.key: part.name for part in design.parts}
    bends = {(j.host, names[j.part]): j.bends for j in design.joins if j.bends and j.part in names}
    return bends, frozenset(names[key] for key in wired if key in names)


def _floor(surfaces: Mapping[str, Surface], placed: Sequence[Placed]) -> float | None:
    """How high in the scene the figure stands: the lowest of what is filled; None where nothing is."""
    lows = [
        p.in_scene(s.x if p.x is None else p.x)[:, 2].min() for p in placed if (s := surfaces.get(p.part)) and s.filled
    ]
    return float(min(lows)) if lows else None


def parts_with_wire(design: Design, worked: Mapping[str, WorkedPart]) -> frozenset[str]:
    """Parts that wire goes into, as the directions between their rounds or a step about them says."""
    by_rounds = {key for key, part in worked.items() if any(s.kind is StepKind.WIRE for s in part.steps)}
    by_steps = {step.part for step in design.steps if step.part is not None and puts_in_wire(step.text)}
    return frozenset(by_rounds | by_steps)


def _point(at: NDArray[np.float64]) -> Point:
    return round(float(at[0]), 2), round(float(at[1]), 2), round(float(at[2]), 2)


# --- eyes and face ------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class EyesPlaced:
    """Eyes in place: points on the part in mm, which way they look, and the place in words.

    moved: the rounds changed, and these are not the rounds it was set at. off_centre: stitches by which their middle
    misses the front. in_text: the part's rounds have a direction for them.
    """

    part: str
    round: int
    between: int
    eye_mm: float
    points: tuple[Point, ...]
    out: tuple[Point, ...]
    after: tuple[int, int]
    off_centre: float
    words: str
    in_text: bool
    moved: bool
    warnings: tuple[Warned, ...]


def eyes_placed(found: Assembled) -> EyesPlaced | None:
    """Where the eyes are on the settled part, None while they are nowhere or it is not settled."""
    eyes = found.design.eyes
    if eyes.place is None or eyes.place.on not in found.surfaces:
        return None
    key = eyes.place.on
    surface, worked = found.lying[key], found.worked[key]
    now = eyes.place.now(found.worked)
    step = next((s for s in worked.steps if s.kind is StepKind.EYES), None)
    opening = None if step is None else step.live * found.design.gauge_of(key).stitch_mm / np.pi
    size = eyes.mm or USUAL_EYE_MM
    told = any(find_direction(p.part.text) is not None for p in found.parts if p.key == key)
    try:
        at = place_eyes(
            surface,
            EyePlace(now.round, eyes.between, size),
            opening_mm=opening,
            stitch_mm=found.design.gauge_of(key).stitch_mm,
            embroidered=eyes.kind is EyeKind.EMBROIDERED,
            shows_above=shows_filling_above(found.design.hook_to_yarn(key)),
        )
    except CraftError as error:
        no_room = (Warned("no-room", error.message),)
        return EyesPlaced(
            part=key,
            round=now.round,
            between=eyes.between,
            eye_mm=size,
            points=(),
            out=(),
            after=(0, 0),
            off_centre=0.0,
            words="",
            in_text=told,
            moved=now.moved,
            warnings=no_room,
        )
    return EyesPlaced(
        part=key,
        round=now.round,
        between=eyes.between,
        eye_mm=size,
        points=tuple(_point(p) for p in at.points),
        out=tuple(_point(p) for p in at.out),
        after=at.after,
        off_centre=round(at.off_centre, 2),
        words=at.words,
        in_text=told,
        moved=now.moved,
        warnings=at.warnings,
    )


def proposed_eyes(found: Assembled) -> tuple[str, EyePlace] | None:
    """Where eyes mostly go: the key of the part that is most likely a head, and the place on it."""
    alone = [p for p in found.parts if p.key in found.surfaces and p.part.make == 1]
    if not alone:
        return None
    named = [p for p in alone if any(word in p.name.lower() for word in ("head", "face"))]
    part = named[0] if named else max(alone, key=lambda p: found.surfaces[p.key].half_width)
    return part.key, propose(found.surfaces[part.key])


@dataclass(frozen=True, slots=True)
class MarkPlaced:
    """A mark on its settled part: points, the other ends when it is a line, and patches when it covers fabric."""

    mark: Mark
    points: tuple[Point, ...]
    ends: tuple[Point, ...]
    patches: tuple[Patch, ...] = ()


def marks_placed(found: Assembled) -> tuple[MarkPlaced, ...]:
    """Every mark whose part is settled, where the rounds say it now."""
    marks: list[MarkPlaced] = []
    for mark in found.design.marks:
        surface = found.lying.get(mark.place.on)
        if surface is None:
            continue
        sides = (1, -1) if mark.paired else (1,)
        points = tuple(_on(surface, mark.place, found.worked, side) for side in sides)
        ends = () if mark.to is None else tuple(_on(surface, mark.to, found.worked, side) for side in sides)
        patches = tuple(_patch(found, surface, mark, side) for side in sides) if mark.covers else ()
        if mark.made_of is not MadeOf.BLUSH:
            patches = tuple(p.over(_laid_on(marks, mark)) for p in patches)
        marks.append(MarkPlaced(mark, points, ends, patches))
    return tuple(marks)


def _laid_on(marks: Sequence[MarkPlaced], mark: Mark) -> list[Patch]:
    """What was laid on a mark's part before it; colour that is brushed on has no thickness."""
    return [
        patch
        for earlier in marks
        if earlier.mark.place.on == mark.place.on and earlier.mark.made_of is not MadeOf.BLUSH
        for patch in earlier.patches
    ]


def _patch(found: Assembled, surface: Surface, mark: Mark, side: int) -> Patch:
    row, angle = _row_and_angle(surface, mark.place, found.worked, side)
    return patch_on(surface, row, angle, mark.wide_mm, mark.tall_mm, found.design.gauge_of(mark.place.on).stitch_mm)


def _on(surface: Surface, at: Place, worked: Mapping[str, WorkedPart], side: int) -> Point:
    return _point(surface.spot(*_row_and_angle(surface, at, worked, side))[0])


def _row_and_angle(surface: Surface, at: Place, worked: Mapping[str, WorkedPart], side: int) -> tuple[int, float]:
    now = at.now(worked)
    row = min(now.round, surface.rounds) - 1
    return row, float(2 * np.pi * now.stitch * side / max(surface.count_of(row), 1))


@dataclass(frozen=True, slots=True)
class Centre:
    """The centre line of a part and the starts of its rounds; what brings the start back at the end of each round.

    place: where in each round the front middle lies, in stitches after the top of its first.
    """

    place: tuple[float, ...]
    front: tuple[Point, ...]
    starts: tuple[Point, ...]
    degrees: tuple[float, ...]
    shift: tuple[int, ...]


def centre_of(surface: Surface, lean: float) -> Centre:
    """The centre line of a settled part."""
    line = centre_line(surface)
    moved = drift([len(r) for r in surface.rings], lean)
    return Centre(
        tuple(round(surface.front_place(at), 3) for at in range(surface.rounds)),
        line.front,
        line.starts,
        tuple(round(d.degrees, 1) for d in moved),
        tuple(d.stitches for d in moved),
    )
