"""What goes over the wire about shapes."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from craft.shape.proposed import Proposed
from craft.shape.target import ModifierKey
from studio.bench.schemas import ColourIn, GaugeIn, PreviewOut
from studio.designs.fields import TermsName
from studio.designs.recipes import FlatRecipe, MeshForm, RoundsRecipe
from studio.wire import schema_of
from studio.yarns.schemas import YarnName


class ShapeIn(Schema):
    """A recipe to be drafted at a gauge; nothing is kept. A start of 0 is chosen by the shape."""

    recipe: RoundsRecipe
    gauge: GaugeIn
    terms: TermsName
    colours: Annotated[list[ColourIn], Field(max_length=60)] = []
    colour: YarnName | None = None
    number: int = 0


class PriceOut(Schema):
    """What a way of drafting costs."""

    name: str
    simplicity: float
    rounds: int
    stitches: int
    different: int
    off_mm: float


SideOut = tuple[float, float, float, float, float]
"""A height in mm, and how far the shape reaches there: left, right, front, back."""


class ShapeOut(Schema):
    """Drafted rounds, what they make, the shape aimed at (mm), and the price of each preset.

    outline: half outline of a body of revolution, empty for other shapes. sides: how far any shape reaches at heights.
    uneven: by how much the height of rounds has to differ, as a share. disc_mm: across the disc that keeps a flat
    end flat, null where there is none.
    """

    number: int
    text: str
    recipe: RoundsRecipe
    start: int
    preview: PreviewOut
    outline: list[tuple[float, float]]
    sides: list[SideOut]
    size_mm: tuple[float, float, float]
    prices: list[PriceOut]
    off_mm: float
    different: int
    uneven: float
    disc_mm: float | None


class ProposeIn(Schema):
    """A part's name and size, to have a solid proposed for it."""

    name: Annotated[str, Field(max_length=120)] = ""
    wide_mm: float
    tall_mm: float


class ProposedOut(schema_of(Proposed)):  # type: ignore[misc]
    """The solid that a part of that name and size is mostly made as."""


class SolidOut(Schema):
    """A kind of solid."""

    key: str
    title: str
    use: str


class KnobOut(Schema):
    """A number of a modifier."""

    name: str
    title: str
    unit: str
    least: float
    most: float
    usual: float


class ModifierOut(Schema):
    """A kind of modifier, with its numbers."""

    key: ModifierKey
    title: str
    use: str
    knobs: list[KnobOut]


class MeshOut(Schema):
    """A mesh that was read: its form, its size, and what was done to it."""

    form: MeshForm
    size_mm: tuple[float, float, float]
    faces: int
    notes: list[str]


class BeginIn(Schema):
    """A mesh, and the corner of it at which its rounds shall begin."""

    form: MeshForm
    corner: Annotated[int, Field(ge=0)]


class CutIn(Schema):
    """A shape to be cut at a height in mm above its start."""

    recipe: RoundsRecipe
    height_mm: Annotated[float, Field(gt=0, le=2_000)]


class PieceOut(Schema):
    """A piece of a cut shape: its form, its size, which side of the cut it was on, and whether it is open there."""

    form: MeshForm
    size_mm: tuple[float, float, float]
    above: bool
    open: bool


class PanelPartOut(Schema):
    """Panels that are worked alike."""

    name: str
    make: int
    text: str
    rows: int
    stitches: int
    recipe: FlatRecipe


class SideOfPanelOut(Schema):
    """A side of a panel laid flat: its seam's letter, its stitches, and where it runs (mm, y upwards)."""

    letter: str
    stitches: int
    line: list[tuple[float, float]]


class PanelOut(Schema):
    """A panel laid flat. part: which of the parts it is worked as."""

    name: str
    part: int
    outline: list[tuple[float, float]]
    sides: list[SideOfPanelOut]


class SeamOut(Schema):
    """Two panels that are sewn together along so many stitches."""

    letter: str
    one: str
    other: str
    stitches: int


class PanelsOut(Schema):
    """A shape as flat panels. too_round: those that rounds would suit better."""

    parts: list[PanelPartOut]
    panels: list[PanelOut]
    seams: list[SeamOut]
    too_round: list[str]


class TracingIn(Schema):
    """A picture to find an outline on."""

    picture: int


class TracingOut(Schema):
    """A half outline in pixels of the picture: handles (half width, height above the pole), and where the pole lies.

    Of a drawing, in its own units; mm: how long one is, where the drawing says so. section: the same outline as a
    cross-section, null where it is none.
    """

    handles: list[tuple[float, float]]
    pole: tuple[float, float]
    width: int
    height: int
    mm: float | None = None
    section: list[float] | None = None
    notes: list[str]
