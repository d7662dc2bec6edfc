"""What goes over the wire about bases, comparisons and grafts."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

from studio.bench.schemas import EstimateOut
from studio.designs.fields import Key
from studio.pieces.schemas import PortOut


class ChangeOut(Schema):
    """A change of the base. key: by which it is taken. part: name of the part it is about. before, after: lines of rounds
    that go and that come. conflict: number of the conflict it stands in, null when it is in nobody's way."""

    key: str
    part: str | None
    said: str
    before: list[str]
    after: list[str]
    conflict: int | None


class ConflictOut(Schema):
    """What both changed: hers, in the same form."""

    hers: list[ChangeOut]


class WornOut(Schema):
    """A part that comes off, and what it fits. around_mm: what it goes around; own_mm: its opening; fit: in a word, empty
    for what goes around nothing. said: for whoever makes it alone."""

    key: str
    name: str
    host: str
    fixing: Literal["sewn", "snaps", "hook-and-loop", "slipped-on"]
    around_mm: float | None
    own_mm: float | None
    ease_mm: float | None
    fit: Literal["", "tight", "fits", "loose"]
    said: str


class BaseOut(Schema):
    """What is new in a design's base. taken, now: numbers of the base's revisions. size: at which it was made. fits: of
    something made alone, what it goes around on its figure now."""

    id: int
    name: str
    taken: int
    now: int
    size: str | None
    changes: list[ChangeOut]
    conflicts: list[ConflictOut]
    fits: WornOut | None = None


class TakeIn(Schema):
    """Changes of the base to be taken. now: the base's revision that was shown. done: what is not taken is not shown
    again."""

    take: Annotated[list[Annotated[str, StringConstraints(max_length=40)]], Field(max_length=20_000)] = []
    now: int
    done: bool = False


class ComparedRound(Schema):
    """A round of one of two designs."""

    label: str
    count: int


class BesideOut(Schema):
    """The same place of a part in two designs."""

    a: ComparedRound | None
    b: ComparedRound | None
    same: bool


class PartsComparedOut(Schema):
    """A part of two designs. words: what differs."""

    key: str
    name: str
    in_a: bool
    in_b: bool
    words: list[str]
    rounds: list[BesideOut]


class ComesOut(Schema):
    """What a design comes to."""

    stitches: int
    height_mm: float
    metres: float
    hours: float
    filling_g: float


class ComparisonOut(Schema):
    """Two designs held against each other. words: what differs beside the rounds; sums: what is more or less."""

    a: str
    b: str
    parts: list[PartsComparedOut]
    words: list[str]
    sums: list[str]
    a_comes: ComesOut
    b_comes: ComesOut


class HeldAgainst(Schema):
    """What a design is held against: another one, itself when none is named; as it is, at a revision, or at a size."""

    other: int | None = None
    revision: int | None = None
    size: Key | None = None


class LaidOverOut(Schema):
    """A part of both, settled and laid over each other where it starts. picture: as it is here, in SVG, coloured by how
    far it lies outside the other, as far as `reach_mm`. out_mm, in_mm: the furthest; usual_mm: root mean square."""

    key: str
    name: str
    picture: str
    reach_mm: float
    out_mm: float
    in_mm: float
    usual_mm: float


class LaidOverAll(Schema):
    """Every part that is in both and made otherwise. under_way: parts that are still being settled."""

    under_way: int
    parts: list[LaidOverOut]


class TakenFrom(Schema):
    """Where a piece is taken from: a design's part, or a piece of the shelf (its main part when none is named), from its
    round `first` on."""

    design: int | None = None
    piece: int | None = None
    part: Key | None = None
    first: Annotated[int, Field(ge=1, le=2_000)]


class GraftIn(Schema):
    """A part that goes on otherwise behind its round `upto`. adapt: what to do where the counts differ."""

    part: Key
    upto: Annotated[int, Field(ge=1, le=2_000)]
    taken: TakenFrom
    adapt: Literal["rounds", "grade"] | None = None


class WayOut(Schema):
    """One way to bring two parts together. problem: why it cannot be. adapters: rounds between; scale: of the piece.
    picture: the part as it is estimated then, in SVG."""

    adapt: Literal["rounds", "grade"] | None
    problem: str | None
    base: int
    piece: int
    adapters: int
    scale: float
    text: str
    counts: list[int]
    told: list[str]
    comes: ComesOut | None
    picture: str


class GraftOut(Schema):
    """Every way there is: one when the counts agree, else two."""

    ways: list[WayOut]


class AloneIn(Schema):
    """A part that comes off, to be made a design of its own."""

    part: Key


class PortsOut(Schema):
    """Where a part can be cut: after every round of its first tube."""

    ports: list[PortOut]


class TimesIn(Schema):
    """A design, made so many times."""

    design: int
    times: Annotated[int, Field(ge=1, le=500)] = 1


class TogetherIn(Schema):
    """Figures to be made together."""

    figures: Annotated[list[TimesIn], Field(min_length=1, max_length=60)]


class YarnTogetherOut(Schema):
    """A yarn of all figures. grams, skeins: null where nothing says what a skein holds."""

    name: str
    colour: str | None
    stitches: int
    metres: EstimateOut
    grams: EstimateOut | None
    skeins: int | None


class EyesTogether(Schema):
    """How many eyes of a size."""

    mm: int
    many: int


class PriceNow(Schema):
    """What a commissioned figure costs by its rounds; null while it has none. unknown: yarns whose weight is not known,
    which the price leaves out."""

    price: EstimateOut | None
    hours: EstimateOut | None
    grams: EstimateOut | None
    unknown: list[str]


class TogetherOut(Schema):
    """What figures take together. unfit: names of those that have no rounds yet, and are not counted."""

    figures: int
    yarns: list[YarnTogetherOut]
    eyes: list[EyesTogether]
    filling_g: EstimateOut
    hours: EstimateOut
    notions: list[str]
    unfit: list[str]
