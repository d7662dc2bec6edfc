"""What goes over the wire about sizes."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from studio.bench.schemas import EstimateOut
from studio.yarns.schemas import GaugeOut


class SizedPart(Schema):
    """A part at a size. how: 'same counts', 'drafted' or 'resampled'."""

    key: str
    name: str
    make: int
    how: Literal["same counts", "drafted", "resampled"]
    counts: list[int]
    rounds: int
    stitches: int
    height: EstimateOut
    width: EstimateOut


class YarnUse(Schema):
    """Yarn of one colour."""

    colour: str
    stitches: int
    metres: EstimateOut
    skeins: int | None


class SizeColumn(Schema):
    """A size beside the others; `problem` says why it cannot be made."""

    key: str
    name: str
    kind: Literal["base", "yarn", "height"]
    problem: str | None
    gauge: GaugeOut
    fabric: str | None
    parts: list[SizedPart]
    height: EstimateOut
    width: EstimateOut
    eye_mm: int | None
    yarns: list[YarnUse]
    filling_g: EstimateOut
    hours: EstimateOut
    notes: list[str]


class SizesTable(Schema):
    """All sizes, the design as it is first."""

    columns: list[SizeColumn]
