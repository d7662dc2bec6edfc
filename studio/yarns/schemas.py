"""What goes over the wire about yarns and swatches."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

from craft.gauge import LEAST_GAUGE_MM

Hex = Annotated[str, StringConstraints(pattern=r"^#[0-9a-f]{6}$")]
YarnName = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=39, pattern=r"^[^\W\d_][\w' -]*$")
]
Metres = Annotated[float, Field(ge=0.1, le=100_000)]
"""Metres, or grams, of a skein."""
Millimetres = Annotated[float, Field(ge=0.1, le=5_000)]
HookMm = Annotated[float, Field(ge=0.3, le=40)]
StitchMm = Annotated[float, Field(ge=LEAST_GAUGE_MM, le=60)]
RoundMm = Annotated[float, Field(ge=LEAST_GAUGE_MM, le=120)]
Count = Annotated[float, Field(ge=0.5, le=10_000)]


class YarnIn(Schema):
    """A yarn as it is typed in."""

    name: YarnName
    colour: Hex
    weight: Annotated[int, Field(ge=0, le=7)]
    wraps: Annotated[float, Field(ge=0.5, le=100)] | None = None
    plush: bool = False
    skein_m: Metres | None = None
    skein_g: Metres | None = None
    left_g: Annotated[float, Field(ge=0, le=100_000)] | None = None


class YarnOut(Schema):
    """A yarn with its diameter as estimated."""

    id: int
    name: str
    colour: str
    weight: int
    wraps: float | None
    plush: bool
    skein_m: float | None
    skein_g: float | None
    left_g: float | None
    diameter_mm: float


class SwatchIn(Schema):
    """A swatch as measured."""

    yarn_id: int
    hook_mm: HookMm
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    kind: Literal["flat", "stuffed"]
    stitches: Count
    across_mm: Millimetres
    rounds: Count
    up_mm: Millimetres
    drift_stitches: Annotated[float, Field(ge=-2_000, le=2_000)] | None = None
    drift_rounds: Annotated[int, Field(ge=1, le=1_000)] | None = None
    yarn_per_stitch_mm: Annotated[float, Field(gt=0, le=2_000)] | None = None


class GaugeOut(Schema):
    """A gauge: stitch width and round height in mm, lean, spread, and where it comes from."""

    stitch_mm: float
    round_mm: float
    lean: float
    spread: float
    how: str


class SwatchOut(Schema):
    """A swatch with the gauge it gives. doubt: what is odd about it beside others, null for nothing."""

    id: int
    yarn_id: int
    yarn_name: str
    hook_mm: float
    strands: int
    kind: Literal["flat", "stuffed"]
    stitches: float
    across_mm: float
    rounds: float
    up_mm: float
    drift_stitches: float | None
    drift_rounds: int | None
    yarn_per_stitch_mm: float | None
    gauge: GaugeOut
    doubt: str | None


class Basket(Schema):
    """Everything in the basket, with the published classes and hooks to choose from."""

    yarns: list[YarnOut]
    swatches: list[SwatchOut]
    classes: list[WeightClassOut]
    hooks: list[HookOut]


class WeightClassOut(Schema):
    """A published weight class. stuffed_hook_mm: the hook that makes dense fabric of it."""

    number: int
    name: str
    wraps: tuple[float, float]
    hook_mm: tuple[float, float | None] | None
    stuffed_hook_mm: float


class HookOut(Schema):
    """A hook size with its printed name."""

    mm: float
    name: str
