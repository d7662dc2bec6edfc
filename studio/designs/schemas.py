"""What goes over the wire about designs, beside the manifest."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Generic, Literal, TypeVar

from ninja import Schema
from pydantic import BaseModel, Field, StringConstraints

from craft.text.freehand.corrections import MOST_CORRECTIONS, MOST_WORDS, Taken
from craft.text.notation import MOST_TEXT
from studio.designs.assembly_page import AssemblyPage
from studio.designs.fields import PartName, TermsName
from studio.designs.manifest import BookletPage, BriefPage, GaugePage, OwnHookEntry, ProvingPage, SizesPage
from studio.designs.recipes import AnyRecipe
from studio.yarns.schemas import GaugeOut, YarnName

MOST_PART_TEXT = 400_000
Text = Annotated[str, StringConstraints(max_length=MOST_PART_TEXT)]


class StopState(Schema):
    """A stop of the thread: untouched, under way, with faults, or sound."""

    stop: Literal["brief", "gauge", "shapes", "rounds", "bases", "assembly", "sizes", "booklet", "proving"]
    state: Literal["untouched", "under-way", "faults", "sound"]


class DesignRow(BaseModel):
    """A design on the shelf. problem: why it cannot be read, null for one that can."""

    id: int
    name: str
    changed: datetime
    parts: int
    rounds: int
    stitches: int
    faults: int
    audience: str
    origin: str | None
    revision: int
    problem: str | None


class PartOut(BaseModel):
    """A part with its text as last saved. gauge: to reckon with for it."""

    key: str
    name: str
    make: int
    colour: str | None
    own_hook: OwnHookEntry | None
    gauge: GaugeOut
    version: int
    text: str
    etag: str
    recipe: AnyRecipe | None
    authoritative: bool
    faults: int
    counts: list[int]


class OriginOut(BaseModel):
    """Where a copy came from; `id` is null once that design is gone."""

    id: int | None
    name: str
    revision: int


class DesignOut(BaseModel):
    """A whole design."""

    id: int
    name: str
    revision: int
    terms: TermsName
    parts: list[PartOut]
    gauge: GaugePage
    brief: BriefPage
    assembly: AssemblyPage
    sizes: SizesPage
    booklet: BookletPage
    proving: ProvingPage
    gauge_now: GaugeOut
    shows_above: float
    stops: list[StopState]
    origin: OriginOut | None
    undo: str | None
    redo: str | None
    changed: datetime


class NewDesign(Schema):
    """A design from nothing."""

    name: PartName


class Rename(Schema):
    """Another name, other terms. convert: rounds that are typed in the old terms are put into the new ones."""

    name: PartName
    terms: TermsName
    convert: bool = False


class NewPart(Schema):
    """A part with a text, and the recipe it was drafted from if it was."""

    name: PartName
    make: Annotated[int, Field(ge=1, le=50)] = 1
    colour: YarnName | None = None
    text: Text = ""
    recipe: AnyRecipe | None = None


class NewParts(Schema):
    """Parts to be added as one change."""

    parts: Annotated[list[NewPart], Field(min_length=1, max_length=60)]


class PartChange(Schema):
    """Another name, number or yarn to begin with."""

    name: PartName
    make: Annotated[int, Field(ge=1, le=50)]
    colour: YarnName | None


class HookChange(Schema):
    """The hook of a part's own, null for a part that is worked as the figure is."""

    own_hook: OwnHookEntry | None


class TypedIn(Schema):
    """Text as it is on screen; `etag` names the text it was typed over. keep: 'mine' writes over what another tab saved."""

    text: Text
    etag: str


class TypedOut(BaseModel):
    """What was saved: the tag to name next time."""

    etag: str
    saved: datetime


class PartText(Schema):
    """A text to become a version at once, with its recipe when it was drafted."""

    text: Text
    recipe: AnyRecipe | None = None
    label: Annotated[str, StringConstraints(max_length=80)] | None = None


Named = TypeVar("Named", bound=str)
Notes = TypeVar("Notes", bound=BaseModel)


class Filled(Schema, Generic[Named, Notes]):
    """A page of notes by its name; `base` is the revision it was filled in on."""

    page: Named
    base: int
    data: Notes


AnyPage = Annotated[
    Filled[Literal["gauge"], GaugePage]
    | Filled[Literal["brief"], BriefPage]
    | Filled[Literal["assembly"], AssemblyPage]
    | Filled[Literal["sizes"], SizesPage]
    | Filled[Literal["booklet"], BookletPage]
    | Filled[Literal["proving"], ProvingPage],
    Field(discriminator="page"),
]
"""A page as it was filled in, whichever it is."""


class RevisionRow(Schema):
    """A line of the history."""

    number: int
    label: str
    created: datetime
    shown: bool


class PictureOut(Schema):
    """A reference picture."""

    id: int
    url: str
    width: int
    height: int


class CorrectionIn(Schema):
    """What she says of a line of a text. column: where in the line the row begins that is meant; one of more than 0
    makes it a row of its own. taken: what it is, null as it is read. joined: it goes on in the next row."""

    line: Annotated[int, Field(ge=1, le=10_000_000)]
    column: Annotated[int, Field(ge=0, le=10_000_000)] = 0
    taken: Taken | None = None
    joined: bool = False


class WordIn(Schema):
    """A word of a text that the notation does not know, with what it means."""

    word: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    means: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]


class WrittenIn(Schema):
    """A written text with what she says of it. name: of the file it comes from. terms: null when they are found out."""

    name: Annotated[str, StringConstraints(max_length=255)] = "pattern"
    text: Annotated[str, StringConstraints(max_length=MOST_TEXT)]
    terms: TermsName | None = None
    corrections: Annotated[list[CorrectionIn], Field(max_length=MOST_CORRECTIONS)] = []
    words: Annotated[list[WordIn], Field(max_length=MOST_WORDS)] = []


class BringIn(WrittenIn):
    """A written text to be brought in. parts: which of those found, by their places, null for all. sections: whether
    what it says beside its rounds is brought in as well. theirs: whose pattern it is when it is not hers, empty when she
    does not know; null when it is hers."""

    theirs: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] | None = None
    parts: Annotated[list[Annotated[int, Field(ge=0, le=10_000)]], Field(max_length=60)] | None = None
    sections: bool = True
