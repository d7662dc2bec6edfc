"""What goes over the wire about pieces."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, StringConstraints

from studio.designs.fields import Key
from studio.designs.manifest import PermissionsEntry, SourceEntry

SlotName = Literal["head", "body", "limb", "on-top", "clothes", "held", "other"]
Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]
Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=30)]


class PortOut(Schema):
    """An edge of a part after a round. end: the part ends there, open."""

    part: str
    name: str
    round: int
    count: int
    girth_mm: float
    end: bool
    joined: bool
    flat: bool


class PieceYarn(Schema):
    """A yarn of a piece; the first is its main one."""

    name: str
    colour: str


class ShelfPieceOut(Schema):
    """A piece on the shelf. terms: its permissions in words. keys: of its parts, in the order of their names.
    made_from: pieces of others that it holds, as they are called; their terms go with it."""

    id: int
    title: str
    slot: SlotName
    designer: str
    own: bool
    version: str
    tags: list[str]
    permissions: PermissionsEntry
    terms: list[str]
    made_from: list[str]
    parts: list[str]
    main: str
    keys: list[str]
    yarns: list[PieceYarn]
    ports: list[PortOut]
    stitches: int
    rounds: int
    faults: int


class KeepPiece(Schema):
    """Parts of a design to be kept as a piece. main: the one it is used by. designer: empty for her own."""

    design: int
    parts: Annotated[list[Key], Field(min_length=1, max_length=60)]
    main: Key
    title: Title
    slot: SlotName = "other"
    version: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)] = "1.0"
    designer: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    tags: Annotated[list[Tag], Field(max_length=12)] = []
    permissions: PermissionsEntry = PermissionsEntry()


class PieceTerms(Schema):
    """What is said of a kept piece: whose it is, which version, on what terms. designer: empty for her own."""

    title: Title
    slot: SlotName
    version: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)]
    designer: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]
    own: bool
    tags: Annotated[list[Tag], Field(max_length=12)]
    permissions: PermissionsEntry


class UsePiece(Schema):
    """A piece to be put into a design. colours: names of the design's yarns by those of the piece's. on: the part, and
    which of its rounds, that it is joined to; null to be placed later."""

    piece: int
    colours: Annotated[dict[str, str], Field(max_length=60)] = {}
    copies: Annotated[int, Field(ge=1, le=20)] = 1
    inside_out: bool = False
    upside_down: bool = False
    on: Key | None = None
    round: Annotated[int, Field(ge=1, le=2_000)] | None = None
    stitch: Annotated[float, Field(ge=-2_000, le=2_000)] = 0


Seed = Annotated[int, Field(ge=0, le=9_999)]


class DrawIn(Schema):
    """A figure to be drawn by lot. seeds: a number for each slot that is drawn. held: pieces that stay, by slot. misfits:
    also what does not fit."""

    seeds: Annotated[dict[SlotName, Seed], Field(max_length=10)] = {}
    held: Annotated[dict[SlotName, int], Field(max_length=10)] = {}
    misfits: bool = False
    name: Title = "Drawn by lot"


class LotOut(Schema):
    """What was drawn for a slot: null for nothing. among: how many there were. misfit: what would have to be designed."""

    slot: SlotName
    piece: int | None
    title: str
    designer: str
    among: int
    misfit: str


class DrawnOut(Schema):
    """A drawn figure. picture: as a data URL, painted when it is whole, else as far as it is settled."""

    lots: list[LotOut]
    picture: str
    whole: bool
    told: list[str]
    blocked: list[str]
    stitches: int


class SourcesIn(Schema):
    """What a design was made from, as she notes it."""

    sources: Annotated[list[SourceEntry], Field(max_length=60)]


class CreditRow(Schema):
    """A source of a design: what it is called, what came of it, its terms in words. noted: which of those that she noted,
    null for the base."""

    noted: int | None
    called: str
    parts: list[str]
    terms: list[str]
    own: bool


class CreditsOut(Schema):
    """All that a design was made from, and what of their terms does not go together.

    blocked: why it may not be published with its rounds; private: why not even as a difference; empty when it may.
    noted: the sources that can be changed; the base is not among them.
    """

    sources: list[CreditRow]
    noted: list[SourceEntry]
    conflicts: list[str]
    blocked: list[str]
    private: list[str]
    advice: str
