"""What a job of the bench answers: a settled part. Arrays are base64 of little-endian numbers."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from craft.figure.settling import Measures
from studio.wire import schema_of


class MeasuresOut(schema_of(Measures)):  # type: ignore[misc]
    """What a settled part measures."""


class FlapOut(Schema):
    """A brim or a skirt on a settled part. rounds: of those shown, from the one on its loops. name: of its section."""

    rounds: list[int]
    name: str


class LimbOut(Schema):
    """A piece that the rounds of a settled part took in. empty: without filling."""

    name: str
    empty: bool


class Settled(Schema):
    """A settled part. Rounds are numbered as the ladder shows them.

    scale: mm of one unit of the frames, which are places on the way to rest, x y z of every node (int16); the last
    is at rest. stitches: the first nodes are those of stitches. below, beside (int32), triangles (uint32): nodes.
    limb (uint8): of every stitch, 1 and the number of its limb, 0 for the part's own.
    round (int16), place (uint16), kind (uint8, of kinds), colour (uint16, of colours) and stretch (int16, thousandths)
    of every node. passes: what has to go in, and up to which round it does; null for what never does.
    """

    labels: list[str]
    counts: list[int]
    kinds: list[str]
    colours: list[str]
    scale: float
    frames: list[str]
    stitches: int
    middles: int
    closings: int
    below: str
    beside: str
    triangles: str
    round: str
    place: str
    kind: str
    colour: str
    stretch: str
    measures: MeasuresOut
    passes: list[tuple[str, str | None]]
    stuffed: bool
    flaps: list[FlapOut]
    limbs: list[LimbOut]
    limb: str
    converged: bool
    steps: int


class SettleAnswer(Schema):
    """A part as it settles."""

    job: Literal["settle"] = "settle"
    settled: Settled


class PortraitAnswer(Schema):
    """A painted figure. png: base64; width, height: in pixels."""

    job: Literal["portrait"] = "portrait"
    png: str
    width: int
    height: int


class DocumentAnswer(Schema):
    """The text of a document. notes: what was left out of it, in sentences."""

    job: Literal["document"] = "document"
    text: str
    notes: list[str]
