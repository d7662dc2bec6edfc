"""What goes over the wire about the whole figure: where its parts are, its eyes and marks, and its steps."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from studio.bench.schemas import FigurePart
from studio.designs.manifest import Key
from studio.jobs.schemas import JobOut


class PlacedOut(Schema):
    """A piece in the scene: 4 × 4 matrix, row by row, from the part's frame to the scene's (mm)."""

    part: str
    matrix: list[float]


Point = tuple[float, float, float]


class SettledPart(Schema):
    """A part of the scene and the job that settles it."""

    part: str
    job: JobOut


class WarningOut(Schema):
    """Something to know about a place."""

    code: str
    message: str


class EyesOut(Schema):
    """Eyes in place: points on the part in mm, which way they look, and the place in words.

    moved: the rounds changed, and these are not the rounds it was set at. off_centre: stitches by which their middle
    misses the front. told: the part's rounds have a direction for them.
    """

    part: str
    round: int
    between: int
    eye_mm: float
    points: list[Point]
    out: list[Point]
    after: tuple[int, int]
    off_centre: float
    words: str
    told: bool
    moved: bool
    warnings: list[WarningOut]


class EyesGuess(Schema):
    """Where eyes are mostly set on a part."""

    part: str
    round: int
    between: int
    eye_mm: float


class SeatGuess(Schema):
    """Where a part of that name is mostly put, and why."""

    round: int
    stitch: float
    paired: bool
    tilt: float
    why: str


class StepPlace(Schema):
    """A step as the rounds are now.

    moved: they say its place otherwise than when it was set. seam_mm, tail_mm: of its seam. first, last: places in the
    list (from 0) it can be moved to. fault: why it stands too late. notes: what to know about it.
    """

    key: str
    round: int | None
    stitch: float
    moved: bool
    seam_mm: float | None
    tail_mm: float | None
    first: int
    last: int
    fault: str | None
    notes: list[str]
    guess: SeatGuess | None


class BalanceOut(Schema):
    """How the figure stands."""

    verdict: Literal["steady", "wobbly", "tips"]
    margin_mm: float
    words: str


class CentreOut(Schema):
    """The centre line of a part and the starts of its rounds; what brings the start back at the end of each round.

    place: where in each round the front middle lies, in stitches after the top of its first.
    """

    place: list[float]
    front: list[Point]
    starts: list[Point]
    degrees: list[float]
    shift: list[int]


class MarkOut(Schema):
    """A point of the face in mm on its part; with `end` a line."""

    key: str
    part: str
    name: str
    points: list[Point]
    ends: list[Point]


class SceneOut(Schema):
    """The whole figure: parts by key, pieces, size in mm, and everything about putting it together.

    joined: the pieces make one figure; else they lie beside each other and have no size or balance together.
    whole: every part is settled; until then places go by the estimate. swung: how many steps seat legs that bend
    forward, as the figure sits.
    """

    parts: dict[str, FigurePart]
    placed: list[PlacedOut]
    joined: bool
    width_mm: float
    depth_mm: float
    height_mm: float
    settled: list[SettledPart]
    whole: bool
    swung: int
    eyes: EyesOut | None
    guess: EyesGuess | None
    marks: list[MarkOut]
    steps: list[StepPlace]
    order: list[str]
    balance: BalanceOut | None
    centre: dict[str, CentreOut]


class SettlingOut(Schema):
    """How far a design's parts are settled. whole: all that is placed is."""

    whole: bool
    under_way: int


class NoSewIn(Schema):
    """A step whose part is to be worked in instead of sewn."""

    step: Key
