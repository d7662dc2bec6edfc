"""Pieces: a part or several with their joins, kept to be used in other figures, with whose they are and on what terms."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, Source, Step
from craft.design.joins import EdgeOf, Join, Manner, pieces_worked_in
from craft.design.parts import MOST_NAME, Part, one_line
from craft.design.permissions import Permissions
from craft.design.remix.merging import in_terms
from craft.design.remix.ports import Port, ports_of
from craft.design.remix.putting_in import free_key, fresh, recoloured, yarns_with
from craft.design.running import run_parts, worked_parts
from craft.design.seating import begins_at_top
from craft.errors import require
from craft.figure.placement import usual_tilt
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import StepKind
from craft.text.notation import step_kind

MOST_TAGS = 12
MOST_TITLE = 60

INSIDE_OUT = "Turn inside out."


class Slot(StrEnum):
    """Where in a figure a piece belongs."""

    HEAD = "head"
    BODY = "body"
    LIMB = "limb"
    ON_TOP = "on-top"
    CLOTHES = "clothes"
    HELD = "held"
    OTHER = "other"


@dataclass(frozen=True)
class ShelfPiece:
    """A piece. design: its parts with all that is between them. main: key of the part that it is used by.

    own: the designer of the studio made it; else `designer` did, and `permissions` are what she allows.
    """

    title: str
    design: Design
    main: str
    slot: Slot = Slot.OTHER
    designer: str = ""
    version: str = "1.0"
    tags: tuple[str, ...] = ()
    permissions: Permissions = field(default=Permissions())
    own: bool = True

    def __post_init__(self) -> None:
        one_line(self.title, "A piece's title", MOST_TITLE, field="title")
        require(len(self.designer) <= 120, "A designer's name is at most 120 characters.", field="designer")
        require(len(self.version) <= 40, "A version is at most 40 characters.", field="version")
        require(len(self.tags) <= MOST_TAGS, f"A piece has at most {MOST_TAGS} tags.", field="tags")
        for tag in self.tags:
            one_line(tag, "A tag", 30, field="tags")
        require(self.design.part(self.main) is not None, "A piece has a part that it is used by.", field="main")

    @property
    def ports(self) -> tuple[Port, ...]:
        """Its open ends."""
        return ports_of(self.design)

    @property
    def source(self) -> Source:
        """Whom to credit for what comes of it."""
        return Source(self.title, self.designer, self.version, permissions=self.permissions, own=self.own)


def piece_from(design: Design, keys: Collection[str]) -> Design:
    """Parts of a design with all that is between them: parts that they work in, joins, eyes, marks, steps, yarns, credits.

    CraftError where none of the keys is a part's.
    """
    runs = {p.key: p for p in run_parts(design)}
    wanted = set(keys) & set(runs)
    require(bool(wanted), "Choose at least one part.", field="parts")
    by_name = {p.name: p.key for p in design.parts}
    while (
        more := {
            by_name[name]
            for key in wanted
            if (w := runs[key].worked) is not None
            for name in pieces_worked_in(w)
            if name in by_name
        }
        - wanted
    ):
        wanted |= more
    parts = tuple(p for p in design.parts if p.key in wanted)
    used = {p.colour for p in parts} | {
        c for p in parts if (w := runs[p.key].worked) is not None for t in w.rounds for c in t.colours
    }
    joins = tuple(j for j in design.joins if j.part in wanted and j.host in wanted)
    kept = {j.key for j in joins}
    steps = tuple(
        s for s in design.steps if s.join in kept or (s.join is None and s.part in wanted and _there(s.place, wanted))
    )
    names = {p.name for p in parts}
    return replace(
        design,
        parts=parts,
        joins=joins,
        steps=steps,
        yarns=tuple(y for k, y in enumerate(design.yarns) if k == 0 or y.name in used),
        marks=tuple(m for m in design.marks if m.place.on in wanted),
        eyes=design.eyes if _seen(design, wanted) else Eyes(),
        sizes=(),
        sources=tuple(s for s in design.sources if not s.parts or names & set(s.parts)),
    )


def _seen(design: Design, keys: Collection[str]) -> bool:
    return design.eyes.place is not None and design.eyes.place.on in keys


def _there(place: Place | None, keys: Collection[str]) -> bool:
    return place is None or place.on in keys


@dataclass(frozen=True, slots=True)
class Use:
    """How a piece is used. colours: other names of its yarns, here. copies: how often. inside_out: its wrong side out.
    upside_down: joined by its first round, where it is joined.

    on: where it is joined to, None to be placed later.
    """

    colours: Mapping[str, str] = field(default_factory=dict)
    copies: int = 1
    inside_out: bool = False
    upside_down: bool = False
    on: Place | None = None

    def __post_init__(self) -> None:
        require(1 <= self.copies <= 20, "A piece is used from 1 to 20 times.", field="copies")


@dataclass(frozen=True)
class PutIn:
    """A figure with a piece in it. keys: of the parts that came; told: what came of it, in sentences."""

    design: Design
    keys: tuple[str, ...]
    told: tuple[str, ...]


def put_in(design: Design, piece: ShelfPiece, use: Use | None = None) -> PutIn:
    """A figure with a piece more. CraftError where the figure would have too many parts, or the place is on none."""
    use = use or Use()
    taken = in_terms(piece.design, design.terms)
    keys, names = fresh(design, taken.parts)
    colours = _colours(design, taken, use.colours)
    told: list[str] = []
    parts = tuple(_made(p, keys, names, colours, design, use, main=p.key == piece.main) for p in taken.parts)
    used = {p.colour for p in parts} | _colours_of(parts, taken, colours)
    grown = replace(
        design,
        parts=(*design.parts, *parts),
        yarns=yarns_with(design, taken, colours, used),
        sources=(*design.sources, *taken.sources, replace(piece.source, parts=tuple(p.name for p in parts))),
    )
    grown = _company(grown, taken, keys, told)
    if use.on is not None:
        grown = _joined(grown, keys[piece.main], use)
    wide = grown.gauge_of(keys[piece.main]).stitch_mm / taken.gauge_of(piece.main).stitch_mm - 1
    if abs(wide) > 0.05:
        told.append(
            f"It was made at another gauge: with yours it comes out {abs(wide):.0%} {'larger' if wide > 0 else 'smaller'}."
        )
    return PutIn(grown, tuple(keys.values()), tuple(told))


def _colours(design: Design, piece: Design, wished: Mapping[str, str]) -> dict[str, str]:
    """Names that the piece's yarns have here: those that are wished, its main yarn the figure's, others their own."""
    known = {y.name for y in design.yarns}
    for to in wished.values():
        require(to in known or not known, f"The design has no yarn called {to}.", field="colours")
    out = dict(wished)
    if design.yarn is not None and piece.yarn is not None:
        out.setdefault(piece.yarn.name, design.yarn.name)
    out.setdefault(MAIN_COLOUR, out.get(piece.yarn.name, MAIN_COLOUR) if piece.yarn else MAIN_COLOUR)
    if out[MAIN_COLOUR] == (design.yarn.name if design.yarn else MAIN_COLOUR):
        out[MAIN_COLOUR] = MAIN_COLOUR
    return out


def _made(
    part: Part,
    keys: Mapping[str, str],
    names: Mapping[str, str],
    colours: Mapping[str, str],
    design: Design,
    use: Use,
    *,
    main: bool,
) -> Part:
    text = recoloured(part.text, colours, design.terms, names)
    if main and use.inside_out and not any(step_kind(line) is StepKind.INSIDE_OUT for line in text.splitlines()):
        text = f"{text.rstrip()}\n{INSIDE_OUT}\n"
    begins = part.colour or MAIN_COLOUR
    colour = colours.get(begins, begins)
    same = text == part.text
    return replace(
        part,
        key=keys[part.key],
        name=names.get(part.name, part.name)[:MOST_NAME],
        colour=None if colour in (MAIN_COLOUR, design.yarn.name if design.yarn else "") else colour,
        text=text,
        make=min(50, part.make * use.copies),
        recipe=part.recipe if same else None,
        drafted=part.drafted and same,
    )


def _colours_of(parts: Iterable[Part], piece: Design, colours: Mapping[str, str]) -> set[str | None]:
    worked = [w for p in run_parts(piece) if (w := p.worked) is not None]
    return {colours.get(c, c) for w in worked for t in w.rounds for c in t.colours}


def _company(grown: Design, piece: Design, keys: Mapping[str, str], told: list[str]) -> Design:
    """The piece's own joins, steps, marks and eyes, under the keys that its parts have here."""

    def here(place: Place | None) -> Place | None:
        return None if place is None or place.on not in keys else replace(place, on=keys[place.on])

    taken = {j.key for j in grown.joins} | {s.key for s in grown.steps} | {m.key for m in grown.marks}
    new: dict[str, str] = {}
    own = [*(j.key for j in piece.joins), *(s.key for s in piece.steps), *(m.key for m in piece.marks)]
    for key in dict.fromkeys(own):
        new[key] = free_key(key, taken)
        taken.add(new[key])
    joins = tuple(
        replace(j, key=new[j.key], part=keys[j.part], host=keys[j.host], place=here(j.place))
        for j in piece.joins
        if j.part in keys and j.host in keys
    )
    kept = {j.key for j in piece.joins if j.part in keys and j.host in keys}
    steps = tuple(
        replace(
            s,
            key=new[s.key],
            part=keys.get(s.part or ""),
            join=new[s.join] if s.join in kept and s.join is not None else None,
            place=here(s.place),
        )
        for s in piece.steps
    )
    marks = tuple(
        replace(m, key=new[m.key], place=at, to=here(m.to)) for m in piece.marks if (at := here(m.place)) is not None
    )
    eyes = grown.eyes
    if piece.eyes.place is not None and piece.eyes.kind is not EyeKind.NONE:
        if eyes.place is None:
            eyes = replace(piece.eyes, place=here(piece.eyes.place))
        else:
            told.append("The figure has eyes already; the piece's own were left out.")
    return replace(
        grown, joins=(*grown.joins, *joins), steps=(*grown.steps, *steps), marks=(*grown.marks, *marks), eyes=eyes
    )


def _joined(grown: Design, key: str, use: Use) -> Design:
    """The figure with the piece joined to a place: leaning, and on both sides, as parts of its name mostly are."""
    assert use.on is not None
    host, part = grown.part(use.on.on), grown.part(key)
    require(host is not None, "It can only be joined to a part that there is.", field="on")
    assert part is not None
    worked = worked_parts(run_parts(grown))
    taken = {j.key for j in grown.joins} | {s.key for s in grown.steps}
    name = free_key(f"on{key}"[:16], taken)
    paired = part.make == 2 and use.on.stitch != 0
    edge, manner = (EdgeOf.START, Manner.LAID) if use.upside_down else (EdgeOf.END, None)
    tilt = 0.0
    if (on := worked.get(use.on.on)) is not None:
        tilt = usual_tilt(part.name, on.counts, use.on.round, from_top=begins_at_top(grown.joins, use.on.on, worked))
    join = Join(name, key, use.on.on, use.on, edge, manner, paired=paired, tilt=tilt)
    return replace(grown, joins=(*grown.joins, join), steps=(*grown.steps, Step(name, "", key, name)))
