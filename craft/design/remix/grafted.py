"""A graft put into the base's figure: the parts that sit on the piece come along, with their yarns, eyes and credits."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, Source, Step
from craft.design.joins import pieces_worked_in
from craft.design.parts import Part
from craft.design.remix.grafting import Adapt, Graft, graft
from craft.design.remix.merging import in_terms
from craft.design.remix.ports import Cut
from craft.design.remix.putting_in import free_key, fresh, recoloured, yarns_with
from craft.design.running import WorkedOnDemand
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.stitches import Terms
from craft.text.notation import print_rounds

OTHER_GAUGE = 0.05
"""By how large a share two gauges may differ before that is said."""


@dataclass(frozen=True)
class Grafted:
    """The base's figure with the graft. brought: keys of the parts that came along with the piece."""

    design: Design
    graft: Graft
    brought: tuple[str, ...]
    told: tuple[str, ...]


def grafted(base: Cut, piece: Cut, adapt: Adapt | None = None, source: Source | None = None) -> Grafted:
    """The figure of the base in which its part goes on as the piece from there. source: whom to credit for the piece.

    CraftError as of `graft`, and where the figure would have too many parts.
    """
    piece = Cut(in_terms(piece.design, base.design.terms), piece.part, piece.round)
    colours = yarn_names(base.design, piece.design)
    along = _along(piece)
    keys, names = fresh(base.design, along)
    made = graft(base, piece, adapt, colours, names)
    told = list(made.told)
    part = replace(base.run.part, text=print_rounds(made.part, base.design.terms), recipe=None, drafted=False)
    brought = tuple(_brought(p, keys, names, colours, base.design.terms) for p in along)
    design = replace(
        base.design,
        parts=(*(part if p.key == base.part else p for p in base.design.parts), *brought),
        yarns=yarns_with(base.design, piece.design, colours, {p.colour for p in brought} | _worked_in(made.worked)),
    )
    design, more = _kept_places(design, base, made.worked)
    told += more
    design, more = _with_company(design, base, piece, made, keys)
    told += more + _gauge_told(base, piece, made)
    if source is not None:
        design = replace(design, sources=(*design.sources, replace(source, parts=(base.run.name,))))
    return Grafted(design, made, tuple(p.key for p in brought), tuple(told))


def yarn_names(base: Design, piece: Design) -> dict[str, str]:
    """Names that the piece's yarns have in the base: its main yarn is the base's, others keep their names."""
    out = {MAIN_COLOUR: MAIN_COLOUR}
    if base.yarn is not None and piece.yarn is not None:
        out[piece.yarn.name] = base.yarn.name
    return out


def _worked_in(worked: WorkedPart) -> set[str | None]:
    return {c for t in worked.rounds for c in t.colours}


def _along(piece: Cut) -> tuple[Part, ...]:
    """Parts that the piece's rounds take in, and all that sits on what is taken, on and on."""
    design = piece.design
    worked = WorkedOnDemand(design)
    inside = pieces_worked_in(piece.run.worked) if piece.run.worked else set()
    taken = {p.key for p in design.parts if p.name in inside}
    taken |= {j.part for j in design.joins if j.host == piece.part and _round(j.place, worked) >= piece.round}
    while more := {j.part for j in design.joins if j.host in taken} - taken - {piece.part}:
        taken |= more
    return tuple(p for p in design.parts if p.key in taken and p.key != piece.part)


def _round(place: Place | None, worked: Mapping[str, WorkedPart]) -> int:
    return 0 if place is None else place.now(worked).round


def _brought(
    part: Part, keys: Mapping[str, str], names: Mapping[str, str], colours: Mapping[str, str], terms: Terms
) -> Part:
    return replace(
        part,
        key=keys[part.key],
        name=names.get(part.name, part.name),
        colour=None if part.colour is None else colours.get(part.colour, part.colour),
        text=recoloured(part.text, colours, terms, names),
    )


# --- places -----------------------------------------------------------------------------------


def _kept_places(design: Design, base: Cut, worked: WorkedPart) -> tuple[Design, list[str]]:
    """Places on the base's part: below the cut where they were, above it at the same share of the way."""
    told: list[str] = []
    before = {base.part: base.run.worked} if base.run.worked else {}
    now = {base.part: worked}

    def kept(place: Place | None, what: str) -> Place | None:
        if place is None or place.on != base.part:
            return place
        said = place.now(before)
        if said.round <= base.round:
            return replace(place, round=said.round, stitch=said.stitch, anchor=None).anchored(None, now)
        moved = place.anchored(place, before).resaid(now)
        told.append(f"{what} sat on R{said.round}, above the cut; it is at R{moved.round} now. Look at it.")
        return moved

    names = {p.key: p.name for p in design.parts}
    joins = tuple(replace(j, place=kept(j.place, names.get(j.part, "A part"))) for j in design.joins)
    steps = tuple(replace(s, place=kept(s.place, "A step")) for s in design.steps)
    marks = tuple(replace(m, place=kept(m.place, m.name) or m.place, to=kept(m.to, m.name)) for m in design.marks)
    eyes = replace(design.eyes, place=kept(design.eyes.place, "The eyes"))
    return replace(design, joins=joins, steps=steps, marks=marks, eyes=eyes), list(dict.fromkeys(told))


def _with_company(
    design: Design, base: Cut, piece: Cut, made: Graft, keys: Mapping[str, str]
) -> tuple[Design, list[str]]:
    """Joins, steps, eyes and marks of what came along."""
    worked, old = WorkedOnDemand(design), WorkedOnDemand(piece.design)
    told: list[str] = []

    def here(place: Place | None) -> Place | None:
        if place is None:
            return None
        at = place.now(old)
        if place.on == piece.part:
            if at.round < piece.round:
                return None
            number = made.tops.get(at.round, at.round)
            return Place(base.part, max(1, number), at.stitch).anchored(None, worked)
        return replace(place, on=keys[place.on]) if place.on in keys else None

    joins, steps = list(design.joins), list(design.steps)
    for n, join in enumerate(j for j in piece.design.joins if j.part in keys):
        host = base.part if join.host == piece.part else keys.get(join.host)
        place = here(join.place)
        if host is None or (place is None and join.place is not None):
            names = {p.key: p.name for p in piece.design.parts}
            told.append(
                f"{names[join.part]} was joined to {names.get(join.host, 'a part')}, where nothing was taken of it."
            )
            continue
        key = free_key(f"j{keys[join.part]}{n}"[:16], {j.key for j in joins} | {s.key for s in steps})
        joins.append(replace(join, key=key, part=keys[join.part], host=host, place=place))
        text = next((s.text for s in piece.design.steps if s.join == join.key), "")
        steps.append(Step(key, text, keys[join.part], key))
    marks = list(design.marks)
    for mark in piece.design.marks:
        place = here(mark.place)
        if place is not None:
            marks.append(replace(mark, key=free_key(mark.key, {m.key for m in marks}), place=place, to=here(mark.to)))
    eyes, more = _eyes(design.eyes, piece.design.eyes, here(piece.design.eyes.place))
    told += more
    return replace(design, joins=tuple(joins), steps=tuple(steps), marks=tuple(marks), eyes=eyes), told


def _eyes(mine: Eyes, theirs: Eyes, place: Place | None) -> tuple[Eyes, list[str]]:
    if place is None or theirs.kind is EyeKind.NONE:
        return mine, []
    if mine.place is None:
        return replace(theirs, place=place), []
    return mine, ["Both have eyes; the base's were kept."]


def _gauge_told(base: Cut, piece: Cut, made: Graft) -> list[str]:
    here, there = base.gauge, piece.gauge
    bigger = here.stitch_mm / there.stitch_mm - 1
    if made.scale != 1 or abs(bigger) <= OTHER_GAUGE:
        return []
    return [
        f"The piece was made at another gauge: with yours it comes out {abs(bigger):.0%} {'larger' if bigger > 0 else 'smaller'}."
    ]
