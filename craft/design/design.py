"""The whole figure as one value: everything that a pattern needs and a file carries."""

from __future__ import annotations

import re
from dataclasses import dataclass, field
from enum import StrEnum

from craft.design.anchors import Place
from craft.design.joins import Join
from craft.design.parts import DesignYarn, GaugeInForce, Part, one_line
from craft.design.permissions import Permissions
from craft.design.size import Size
from craft.errors import require
from craft.gauge import Estimate, Gauge, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.stitches import Terms
from craft.units import within

_HEX = re.compile(r"#[0-9a-f]{6}")

MOST_PARTS, MOST_STEPS, MOST_MARKS, MOST_SIZES, MOST_YARNS = 60, 200, 60, 12, 60


class Hand(StrEnum):
    """The hand that a maker holds the hook in."""

    RIGHT = "right"
    LEFT = "left"


class Posture(StrEnum):
    """In which the finished size is said: on its feet, seated, on its back, or hung up by its top."""

    STANDING = "standing"
    SITTING = "sitting"
    LYING = "lying"
    HANGING = "hanging"


class EyeKind(StrEnum):
    """What the eyes are."""

    NONE = "none"
    SAFETY = "safety"
    EMBROIDERED = "embroidered"


class Audience(StrEnum):
    """For whom the figure is; it decides about small parts."""

    UNDER_THREE = "under-three"
    PLAY = "play"
    DISPLAY = "display"


class Level(StrEnum):
    """How hard it is to make."""

    BASIC = "basic"
    EASY = "easy"
    INTERMEDIATE = "intermediate"
    COMPLEX = "complex"


@dataclass(frozen=True, slots=True)
class Eyes:
    """The eyes. place: above that round of a part, None until they are put somewhere. between: stitches visible
    between them. mm: across, None when unsaid."""

    kind: EyeKind = EyeKind.NONE
    mm: float | None = None
    place: Place | None = None
    between: int = 6

    def __post_init__(self) -> None:
        require(1 <= self.between <= 1_000, "Between the eyes lie from 1 to 1,000 stitches.", field="between")
        require(self.mm is None or 0 < self.mm <= 60, "An eye is up to 60 mm across.", field="mm")


class MadeOf(StrEnum):
    """What a mark is made of: thread (a knot, a line, satin stitch), felt cut to shape, or colour brushed on."""

    THREAD = "thread"
    FELT = "felt"
    BLUSH = "blush"


MOST_MARK_MM = 300.0
"""The widest felt piece or embroidery of a figure."""


@dataclass(frozen=True, slots=True)
class Mark:
    """A point of the face, or with `to` a line to another; both sides when paired.

    wide_mm, tall_mm: of an oval that it covers, along the round and up the part, over the fabric; 0 for a point or a
    line of thread. colour: '#rrggbb', None for the usual one of its kind.
    """

    key: str
    name: str
    place: Place
    to: Place | None = None
    paired: bool = False
    made_of: MadeOf = MadeOf.THREAD
    wide_mm: float = 0.0
    tall_mm: float = 0.0
    colour: str | None = None

    def __post_init__(self) -> None:
        both = (self.wide_mm > 0) == (self.tall_mm > 0)
        require(both, "What is wide is tall as well: give both, or neither.", field="marks")
        fits = 0 <= self.wide_mm <= MOST_MARK_MM and 0 <= self.tall_mm <= MOST_MARK_MM
        require(fits, f"A mark is up to {MOST_MARK_MM:g} mm wide and tall.", field="marks")
        covers = self.made_of is MadeOf.THREAD or self.wide_mm > 0
        require(covers, "Felt and brushed colour have a size in mm.", field="marks")
        known = self.colour is None or bool(_HEX.fullmatch(self.colour))
        require(known, "A colour is written like '#a0b0c0'.", field="marks")

    @property
    def covers(self) -> bool:
        """Whether it covers an oval of the fabric."""
        return self.wide_mm > 0


MOST_ADDRESS = 300
_ADDRESS = re.compile(r"https?://[^\s/]+\.[^\s/]+(?:/\S*)?")


@dataclass(frozen=True, slots=True)
class Step:
    """A step of putting together, in her words; they may be empty while its join says what it is.

    part: which part it is about. join: key of the join that it makes. place: where, for one that joins nothing.
    before_closing: it needs a hand inside. picture: words do not suffice. film: address of a clip that shows it, as she
    typed it.
    """

    key: str
    text: str = ""
    part: str | None = None
    join: str | None = None
    place: Place | None = None
    before_closing: bool = False
    picture: bool = False
    film: str = ""

    def __post_init__(self) -> None:
        require(len(self.text) <= 500, "A step's words are at most 500 characters.", field="text")
        one_line(self.film, "The address of a film clip", MOST_ADDRESS, least=0, field="film")

    @property
    def film_shown(self) -> str:
        """The address of its film clip, '' while what she typed is none."""
        return self.film if _ADDRESS.fullmatch(self.film) else ""


@dataclass(frozen=True, slots=True)
class Brief:
    """What is to be made, for whom, and how tall it was wished."""

    audience: Audience = Audience.PLAY
    level: Level = Level.EASY
    height_mm: float | None = None
    intro: str = ""
    notes: str = ""


LEAST_MAKERS = 3
SAME_FIGURE = 0.05
"""By how large a share an estimate may have changed since makings were measured against it."""


@dataclass(frozen=True, slots=True)
class Made:
    """What makings taught of a length of the figure. ratio: measured to predicted, their median; share: its spread; makers:
    how many makings; of_mm: what the design predicted when it was taken over."""

    ratio: float
    share: float
    makers: int
    of_mm: float

    def __post_init__(self) -> None:
        within(self.ratio, "A measure against its estimate", 0.25, 4, field="ratio")
        within(self.share, "A spread", 0, 1, field="share")
        require(self.makers >= LEAST_MAKERS, f"From fewer than {LEAST_MAKERS} makings nothing is told.", field="makers")
        require(self.of_mm > 0, "What was predicted is more than nothing.", field="of_mm")

    def holds_for(self, estimated_mm: float) -> bool:
        """Whether the figure is still the one that was made: its rounds and gauge come to much the same."""
        return abs(estimated_mm / self.of_mm - 1) <= SAME_FIGURE

    def corrected(self, estimated: Estimate) -> Estimate:
        """The estimate as makings corrected it; as it was where the figure is another by now."""
        if not self.holds_for(estimated.value):
            return estimated
        return Estimate.around(estimated.value * self.ratio, self.share, f"from {self.makers} makings, by their median")


@dataclass(frozen=True, slots=True)
class Printed:
    """What the booklet says beside the rounds. notions: what is needed beside yarn, hook and eyes. charts: of all parts.
    order: keys of the parts as they are to be printed; those it does not name come behind. height_made, width_made: what
    makings taught of the finished size, None while she has not taken it over."""

    version: str = "1.0"
    count_table: bool = False
    charts: bool = False
    notions: tuple[str, ...] = ()
    permissions: str = ""
    credits: str = ""
    notes: str = ""
    changes: str = ""
    order: tuple[str, ...] = ()
    height_made: Made | None = None
    width_made: Made | None = None


@dataclass(frozen=True, slots=True)
class Source:
    """What the design was made from: a title, its designer, which version, and its terms in a sentence.

    permissions: its terms as choices, None where they are not known. parts: names of what came from it; empty for the
    whole. own: it is the designer's own earlier work.
    """

    title: str
    designer: str = ""
    version: str = ""
    terms: str = ""
    permissions: Permissions | None = None
    parts: tuple[str, ...] = ()
    own: bool = False

    @property
    def called(self) -> str:
        """Its title with its version and its designer."""
        version = f", version {self.version}" if self.version else ""
        return f"{self.title}{version}{f', by {self.designer}' if self.designer else ''}"


@dataclass(frozen=True)
class Design:
    """A figure. Steps and joins may name parts that are gone: `dangling` tells them; everything else is checked here."""

    name: str
    terms: Terms = Terms.US
    hand: Hand = Hand.RIGHT
    gauge: GaugeInForce = GaugeInForce()
    yarns: tuple[DesignYarn, ...] = ()
    parts: tuple[Part, ...] = ()
    joins: tuple[Join, ...] = ()
    eyes: Eyes = Eyes()
    marks: tuple[Mark, ...] = ()
    steps: tuple[Step, ...] = ()
    posture: Posture = Posture.STANDING
    brief: Brief = Brief()
    sizes: tuple[Size, ...] = ()
    printed: Printed = Printed()
    sources: tuple[Source, ...] = field(default=())

    def __post_init__(self) -> None:
        one_line(self.name, "A design's name", 60, field="name")
        limits = (
            (self.parts, MOST_PARTS, "parts"),
            (self.steps, MOST_STEPS, "steps"),
            (self.joins, MOST_STEPS, "joins"),
            (self.marks, MOST_MARKS, "marks"),
            (self.sizes, MOST_SIZES, "sizes"),
            (self.yarns, MOST_YARNS, "yarns"),
        )
        for values, most, what in limits:
            require(len(values) <= most, f"A design holds at most {most} {what}.", field=what)
        for keyed, what in ((self.parts, "parts"), (self.joins, "joins"), (self.steps, "steps"), (self.marks, "marks")):
            keys = [v.key for v in keyed]
            require(len(set(keys)) == len(keys), f"Two {what} have one key.", field=what)
        known = {j.key for j in self.joins}
        for step in self.steps:
            require(step.join is None or step.join in known, f"Step '{step.key}' names no join.", field="steps")

    def part(self, key: str) -> Part | None:
        """The part with a key, None when there is none."""
        return next((p for p in self.parts if p.key == key), None)

    def join(self, key: str | None) -> Join | None:
        """The join with a key, None when there is none."""
        return next((j for j in self.joins if j.key == key), None)

    @property
    def yarn(self) -> DesignYarn | None:
        """The main yarn: the first one."""
        return self.yarns[0] if self.yarns else None

    @property
    def gauge_now(self) -> Gauge:
        """The gauge to reckon with."""
        return self.gauge.gauge(self.yarn)

    def yarn_of(self, key: str) -> DesignYarn | None:
        """The yarn that a part begins with: its own, else the main one."""
        part = self.part(key)
        return next((y for y in self.yarns if part is not None and y.name == part.colour), self.yarn)

    def gauge_of(self, key: str) -> Gauge:
        """The gauge to reckon with for a part: of its own hook where it has one and its yarn is known, else the figure's."""
        part, yarn = self.part(key), self.yarn_of(key)
        if part is None or part.own_hook is None or yarn is None:
            return self.gauge_now
        return self.gauge.gauge_on(part.own_hook, yarn, self.yarn)

    def hook_to_yarn(self, key: str) -> float | None:
        """Hook over yarn diameter of a part, None while either is not known."""
        part, yarn = self.part(key), self.yarn_of(key)
        if part is None or part.own_hook is None or yarn is None:
            return self.gauge.hook_to_yarn(self.yarn)
        return fabric_outlook(yarn.strands(part.own_hook.strands), part.own_hook.hook_mm).ratio

    @property
    def yarn_names(self) -> tuple[str, ...]:
        """Colours that rounds may name."""
        names = tuple(y.name for y in self.yarns)
        return (*names, MAIN_COLOUR) if names else ()

    @property
    def dangling(self) -> tuple[str, ...]:
        """Keys of the steps that name a part which is gone."""
        keys = {p.key for p in self.parts}
        found = []
        for step in self.steps:
            join = self.join(step.join)
            named = (step.part, join and join.part, join and join.host, step.place and step.place.on)
            if any(n is not None and n not in keys for n in named):
                found.append(step.key)
        return tuple(found)
