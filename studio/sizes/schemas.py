"""What goes over the wire about sizes."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from studio.bench.schemas import EstimateOut
from studio.jobs.schemas import JobOut
from studio.yarns.schemas import GaugeOut


class RoundReported(Schema):
    """A row of the report on a part's ladder. at: its round's place from 0; first: on the first size's ladder."""

    at: int
    first: bool
    state: Literal["kept", "moved", "changed", "lost"]
    words: str


class SizedPart(Schema):
    """A part at a size. how: 'same counts', 'drafted', 'resampled', or 'not sized' for one that stays as it is.

    counts: of its first tube or panel, without what goes on at other edges; before: the same at the first size. links:
    places of rounds in both that stand for each other.
    """

    key: str
    name: str
    make: int
    how: Literal["same counts", "drafted", "resampled", "not sized"]
    counts: list[int]
    before: list[int]
    links: list[tuple[int, int]]
    marks: list[RoundReported]
    text: str
    rounds: int
    stitches: int
    height: EstimateOut
    width: EstimateOut


class FeatureOut(Schema):
    """What became of one thing at a size: a part's short rows, a join, a sentence. why: where it did not simply stay."""

    part: str
    kind: str
    state: Literal["kept", "moved", "changed", "lost"]
    before: str
    after: str
    why: str


class YarnUse(Schema):
    """Yarn of one colour. grams: null where nothing says what a metre weighs. left_g, enough: of that yarn in the basket, and
    whether it does; null where that is not told."""

    colour: str
    stitches: int
    metres: EstimateOut
    skeins: int | None
    grams: EstimateOut | None
    left_g: float | None
    enough: Literal["yes", "maybe", "no"] | None


class SizeColumn(Schema):
    """A size beside the others; `problem` says why it cannot be made. height_makers, width_makers: from how many
    makings they are told, 0 where they are estimates."""

    key: str
    name: str
    kind: Literal["base", "yarn", "height", "count", "grams", "fit"]
    problem: str | None
    gauge: GaugeOut
    fabric: str | None
    parts: list[SizedPart]
    height: EstimateOut
    width: EstimateOut
    height_makers: int
    width_makers: int
    eye_mm: int | None
    yarns: list[YarnUse]
    filling_g: EstimateOut
    hours: EstimateOut
    notes: list[str]
    features: list[FeatureOut]


class ThingOut(Schema):
    """Something round that a part may be made to fit. source: where its measure comes from."""

    key: str
    name: str
    girth_mm: float
    source: str


class SizesTable(Schema):
    """All sizes, the design as it is first; and things by their girth, to be fitted. job: what drafts them, where they
    are many rounds: its answer is the table, and this one has no columns."""

    columns: list[SizeColumn]
    things: list[ThingOut]
    job: JobOut | None


class PatternForAll(Schema):
    """One written pattern for the first size and all others in its yarn."""

    text: str
    names: list[str]


class SizePicture(Schema):
    """The figure of a size as SVG, in mm, put together as estimated."""

    svg: str


class MeetsOut(Schema):
    """By which share a size has to be estimated larger to settle to what it asks for: so many mm of height, or around; of
    the whole figure, or of the part that is named."""

    share: float
    mm: float
    around: bool
    part: str | None


class SettledSize(Schema):
    """The figure of a size settled, or how far it is. under_way: parts that are being settled, or wait for it.

    svg, height_mm, width_mm: of the settled figure, None until all of it is settled; nothing is then under way where a
    part cannot be settled. proportion: by what share height over width is another than the settled first size's. meets:
    how it comes to settle to the height or the girth asked for, None where it does. told: parts that settle slimmer or
    stouter than their counts say, in sentences.
    """

    whole: bool
    parts: int
    under_way: int
    svg: str | None
    height_mm: float | None
    width_mm: float | None
    proportion: float | None
    meets: MeetsOut | None
    told: list[str]
