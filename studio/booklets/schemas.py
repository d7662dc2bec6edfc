"""What goes over the wire about booklets: editions, pictures, findings of the proof-reader, and the tree itself."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field

from craft.document.booklet import Explained, Level
from craft.rounds.stitches import Language, Terms
from studio.booklets.manuscripts import AS_IT_IS, Edition
from studio.booklets.printing import Sheet
from studio.designs.fields import LanguageName, TermsName

PicturesName = Literal["all", "figure", "none"]


class EditionIn(Schema):
    """Which booklet: edition is 'as-it-is', 'all' for all sizes, 'difference', or the key of a size."""

    edition: Annotated[str, Field(max_length=40)] = AS_IT_IS
    terms: TermsName = "us"
    pictures: PicturesName = "all"
    language: LanguageName = "en"
    explained: Literal["full", "short", "rounds", "counts"] = "full"
    left: bool = False

    def value(self) -> Edition:
        """What it asks for."""
        language = None if self.language == "en" else Language(self.language)
        return Edition(
            self.edition, Terms(self.terms), Level(self.pictures), language, Explained(self.explained), self.left
        )


class SheetIn(EditionIn):
    """The same with how it is printed."""

    paper: Literal["a4", "letter", "phone"] = "a4"
    large: bool = False
    low_ink: bool = False

    @property
    def sheet(self) -> Sheet:
        """How it is printed."""
        return Sheet(self.paper, self.large, self.low_ink)


class RoundLineOut(Schema):
    """A line of a part. kind: 'round', 'line', 'step', 'note', 'colour' or 'heading'."""

    kind: str
    text: str
    label: str
    work: str
    count: str
    fold: int
    fold_said: str


class PictureShown(Schema):
    """A picture of a booklet by its key, with what it shows in words."""

    key: str
    alt: str
    caption: str


class Paragraph(Schema):
    """A paragraph of prose."""

    block: Literal["Paragraph"]
    text: str


class Facts(Schema):
    """Names with their values."""

    block: Literal["Facts"]
    rows: list[tuple[str, str]]


class Lines(Schema):
    """Short sentences; cautions are set apart."""

    block: Literal["Bullets", "Cautions"]
    lines: list[str]


class Steps(Schema):
    """Numbered steps with the pictures of each."""

    block: Literal["Steps"]
    lines: list[str]
    pictures: list[list[PictureShown]]


class Rounds(Schema):
    """All lines of a part."""

    block: Literal["Rounds"]
    lines: list[RoundLineOut]


class CountTable(Schema):
    """Round, stitches, change."""

    block: Literal["CountTable"]
    rows: list[tuple[str, int, int]]


class Pictures(Schema):
    """Pictures beside each other."""

    block: Literal["Pictures"]
    items: list[PictureShown]


class Drawing(Schema):
    """A diagram as SVG."""

    block: Literal["Drawing"]
    svg: str
    alt: str
    caption: str


Block = Annotated[
    Paragraph | Facts | Lines | Steps | Rounds | CountTable | Pictures | Drawing, Field(discriminator="block")
]


class SectionOut(Schema):
    """A titled run of blocks. level: 1 for chapters, 2 for parts."""

    key: str
    title: str
    level: int
    blocks: list[Block]


class BookletOut(Schema):
    """The booklet as a tree; see docs/file-format.md. ready: keys of the pictures that are there. templates: how many
    pages of them there are in true size."""

    format: int
    title: str
    byline: str
    stamp: str
    terms: TermsName
    language: LanguageName
    sections: list[SectionOut]
    ready: list[str]
    templates: int

    @classmethod
    def of(cls, tree: dict[str, Any], ready: list[str], templates: int) -> BookletOut:
        """A document's JSON with what is ready."""
        return cls.model_validate({**tree, "ready": ready, "templates": templates})


class ProseOut(Schema):
    """A piece of her prose that stands in the booklet, as it is written. where: in which part of it. everyones: it has its
    words in every language already."""

    where: str
    text: str
    everyones: bool


class FindingOut(Schema):
    """One thing that the proof-reader found. blocks: a release is refused while it stands; forbids: whatever reason she
    has, for the terms of others are not hers to pass over. stop, part, round, step: where it is mended."""

    code: str
    blocks: bool
    forbids: bool = False
    text: str
    stop: Literal["brief", "gauge", "rounds", "assembly", "sizes", "booklet", "bases", "proving"]
    part: str | None
    round: int | None
    step: str | None
