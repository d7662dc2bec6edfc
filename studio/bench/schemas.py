"""What goes over the wire about rounds on the bench."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field, model_validator

from craft.gauge import Estimate
from craft.rounds.fabric import MAIN_COLOUR
from craft.text.freehand import Taken
from craft.text.notation import MOST_TEXT
from studio.designs.fields import PartName, Share, TermsName
from studio.designs.schemas import Text, WrittenIn
from studio.jobs.schemas import JobOut
from studio.wire import schema_of
from studio.yarns.schemas import Hex, HookMm, RoundMm, StitchMm, YarnName


class GaugeIn(Schema):
    """The gauge to reckon with."""

    stitch_mm: StitchMm
    round_mm: RoundMm
    lean: Annotated[float, Field(ge=-2, le=2)] = 0.4
    spread: Annotated[float, Field(ge=0, lt=1)] = 0.2
    how: Annotated[str, Field(max_length=300)] = "as given"
    firmness: Annotated[float, Field(ge=0, le=1)] = 0.5


class ColourIn(Schema):
    """A yarn's name and colour."""

    name: YarnName
    colour: Hex


class OtherPart(Schema):
    """Another part of the design, which a text may work in."""

    name: PartName
    make: Annotated[int, Field(ge=1, le=50)] = 1
    text: Text
    colour: YarnName | None = None


class EyesAsked(Schema):
    """Where the design's eyes are placed, and whether on this part."""

    here: bool
    round: Annotated[int, Field(ge=1, le=2_000)]
    between: Annotated[int, Field(ge=1, le=1_000)]
    share: Share | None = None
    eye_mm: Annotated[float, Field(gt=0, le=60)] | None = None
    embroidered: bool = False


class PreviewIn(Schema):
    """A part's text to be read and run; nothing is kept. number: of the question, given back."""

    text: Text
    terms: TermsName
    gauge: GaugeIn
    colours: Annotated[list[ColourIn], Field(max_length=60)] = []
    colour: YarnName | None = None
    others: Annotated[list[OtherPart], Field(max_length=60)] = []
    eyes: EyesAsked | None = None
    number: int = 0

    @model_validator(mode="after")
    def _not_too_much(self) -> PreviewIn:
        together = len(self.text) + sum(len(other.text) for other in self.others)
        if together > MOST_TEXT:
            raise ValueError(f"All parts together are longer than {MOST_TEXT:,} characters; divide the design.")
        return self


SpanKind = Literal[
    "label", "stitch", "increase", "decrease", "number", "count", "colour", "step", "heading", "head", "note"
]
SpanOut = tuple[int, int, SpanKind]
"""A run of the text (code points, end exclusive) and what it is; plain tuples, as a part has hundreds."""


class FixOut(Schema):
    """Text to put in place of a run (code points)."""

    start: int
    end: int
    text: str
    label: str


class ProblemOut(Schema):
    """A problem with its place (code points)."""

    code: str
    severity: Literal["fault", "warning", "hint"]
    message: str
    round: str | None
    line: int
    column: int
    start: int
    end: int
    fix: FixOut | None


class RoundOut(Schema):
    """A worked round, for ladder and figure.

    line: of the text, from 1. marks: (place among the made stitches, change). radius, z in mm; turn: angle of the
    first stitch. colours: numbers into the part's colours, one for a plain round, else one a stitch.
    drawn: whether the figure shows it. flat: its edge has two ends. held: stitches it puts aside. rest: stitches of
    the edge that it does not reach. holes: (place, stitches passed). section: the heading it stands under. plain:
    once around in stitches only, so that it can be spread anew. shift: plain stitches that would bring the start back
    to where R1 began, at this round's end.
    """

    label: str
    line: int
    taken: int
    made: int
    live: int
    stated: int | None
    marks: list[tuple[int, int]]
    loops: Literal["both", "front", "back", "front-post", "back-post"]
    lie: Literal["wall", "cup", "flat", "ruffle"]
    radius: float
    z: float
    height: float
    turn: float
    colours: list[int]
    sentence: str
    drawn: bool
    flat: bool
    held: int
    rest: int
    holes: list[tuple[int, int]]
    section: str
    plain: bool
    shift: int


class StepOut(Schema):
    """A stage direction and the round it follows."""

    kind: str
    text: str
    after: int


class EstimateOut(schema_of(Estimate)):  # type: ignore[misc]
    """A value with its likely range and where it comes from."""


class SizeOut(Schema):
    """Outer size in mm, volume in ml, filling in g, yarn in m."""

    height: EstimateOut
    width: EstimateOut
    volume_ml: float
    filling_g: EstimateOut
    metres: EstimateOut
    stitches: int


class FigurePart(Schema):
    """A part ready for ladder and figure. inside_out: its wrong side is out, so left and right are changed. layers: in how
    many it lies flat, 0 where it is round."""

    rounds: list[RoundOut]
    colours: list[str]
    closed: bool
    inside_out: bool = False
    layers: int = 0


class PreviewOut(Schema):
    """Everything the bench shows of a text. folded: whether any line stands for several rounds."""

    number: int
    spans: list[SpanOut]
    repeats: list[tuple[int, int, str]]
    problems: list[ProblemOut]
    part: FigurePart
    steps: list[StepOut]
    size: SizeOut | None
    sound: bool
    folded: bool
    terms: TermsName
    terms_how: str


class YarnQuestion(Schema):
    """A yarn and a hook to be judged."""

    weight: Annotated[int, Field(ge=0, le=7)]
    wraps: Annotated[float, Field(ge=0.5, le=100)] | None = None
    plush: bool = False
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    hook_mm: HookMm


class FabricOut(Schema):
    """The gauge to expect, and what fabric it makes."""

    stitch_mm: EstimateOut
    round_mm: EstimateOut
    diameter_mm: float
    ratio: float
    verdict: Literal["stiff", "right", "loose", "shows"]
    words: str


class ReshapeIn(Schema):
    """A change of the ladder to a text: what, on which lines (from 1), and how far.

    widen: `first`, `by` stitches more. move: `first` to `last`, along by `by`. stack, stagger: `first` to `last`.
    shift: `by` plain stitches after the last round of `first`. sides: shaping of `first` to `last` moved along against
    the drift of `lean`. insert: `by` straight rounds behind `first`.
    copy, mirror: `first` to `last` behind `after`. pair: the whole. recolour: `old` to `new`. number: the whole, put in
    order. repeat: the last repeat of `first`, `by` times more. invisible, plain: every decrease. join, spiral: every round.
    close: the end; open: the end, behind the round `last`. start: on `by` stitches. stripes: the rounds `first` to `last`
    in `colours` by turns, `by` rounds of one, `main` where no colour is named. divide: two legs of `by` straight rounds
    behind the round `last`, the start brought back by `shift` stitches, `bridge` chains between them. Rounds are
    counted from 1 as they are worked.
    """

    text: Text
    terms: TermsName
    do: Literal[
        "widen",
        "move",
        "stack",
        "stagger",
        "insert",
        "shift",
        "sides",
        "copy",
        "mirror",
        "pair",
        "invisible",
        "plain",
        "join",
        "spiral",
        "close",
        "open",
        "recolour",
        "number",
        "repeat",
        "start",
        "stripes",
        "divide",
    ]
    first: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    last: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    after: Annotated[int, Field(ge=0, le=1_000_000)] = 0
    by: Annotated[int, Field(ge=-100_000, le=100_000)] = 0
    lean: Annotated[float, Field(ge=-2, le=2)] = 0.4
    old: Annotated[str, Field(max_length=60)] = ""
    new: Annotated[str, Field(max_length=60)] = ""
    colours: Annotated[list[YarnName], Field(max_length=12)] = []
    main: YarnName = MAIN_COLOUR
    shift: Annotated[int, Field(ge=0, le=2_000)] = 0
    bridge: Annotated[int, Field(ge=0, le=200)] = 0


class ChartIn(PreviewIn):
    """A part's text to be charted."""

    left_handed: bool = False
    title: Annotated[str, Field(max_length=120)] = ""


class MoveOut(Schema):
    """One movement of the hook: stitch by its name, numbers of the stitches it goes into and makes."""

    stitch: str
    how: str
    into: list[int]
    makes: list[int]
    loops: Literal["both", "front", "back", "front-post", "back-post"]
    colour: int


class RunRoundOut(Schema):
    """A round of the dry run. edge: numbers of the stitches live before it. moves: in working order."""

    label: str
    line: int
    front: bool
    edge: list[int]
    after: list[int]
    moves: list[MoveOut]


class DryRunOut(Schema):
    """A part movement by movement, as far as `rounds` reaches. places: words for stitches by number."""

    rounds: list[RunRoundOut]
    places: list[str]
    colours: list[str]
    steps: list[StepOut]
    whole: bool


class FileTextOut(Schema):
    """The text of a file; null for a document, which a job reads."""

    name: str
    text: str | None
    job: JobOut | None


class BoardIn(WrittenIn):
    """A written text to be shown line by line. into: the terms that its parts are to be put into."""

    into: TermsName | None = None


class BoardLineOut(Schema):
    """A row of a text: where it begins, what it was taken for, what was understood of it, and what is wrong there.

    last_line: on which it ends, another one for rows that were joined.
    """

    line: int
    last_line: int
    column: int
    text: str
    taken: Taken
    understood: str
    severity: Literal["fault", "warning", "hint"] | None
    message: str
    corrected: bool
    joined: bool


class DoubtOut(Schema):
    """A problem of a text, with the row that it is about."""

    severity: Literal["fault", "warning", "hint"]
    message: str
    part: str
    line: int
    column: int


class FoundPartOut(Schema):
    """A part found in a text, ready to be brought in. counts: stitches after every round."""

    name: str
    make: int
    text: str
    counts: list[int]
    stitches: int
    faults: int


class BoardOut(Schema):
    """What a text holds; nothing is kept.

    terms: those it is written in. into: those its parts are in here. unconverted: why they could not be put into
    others. doubts: all problems, the gravest first. beside: the sections that it has beside its rounds.
    """

    title: str
    terms: TermsName
    terms_how: str
    into: TermsName
    unconverted: str | None
    parts: list[FoundPartOut]
    lines: list[BoardLineOut]
    more_lines: int
    doubts: list[DoubtOut]
    beside: list[Taken]
    sound: bool


class TidyIn(Schema):
    """A text to be printed in one canonical way."""

    text: Text
    terms: TermsName
    fold: bool = True


class TidyOut(Schema):
    """The tidied text."""

    text: str
