"""What goes over the wire about the whole figure: where its parts are, its eyes and marks, and its steps."""

from __future__ import annotations

from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from craft.design.assembly import Centre, EyesPlaced
from craft.design.hazards import Hazard
from craft.design.steps import Loose, StepNow
from studio.bench.schemas import FigurePart
from studio.designs.fields import Key
from studio.jobs.schemas import JobOut
from studio.wire import schema_of
from studio.yarns.schemas import Hex


class GivesWay(Schema):
    """Where the nodes of a piece lie that gives way to others or hangs: x y z in its own frame (int16), `scale` mm a unit.
    turned: of every node, 1 where the fabric was turned down about a seam and is mirrored (uint8); null for none."""

    scale: float
    x: str
    turned: str | None = None


class PlacedOut(Schema):
    """A piece in the scene: 4 × 4 matrix, row by row, from the part's frame to the scene's (mm). gives_way: null where it
    lies as it settled. step: key of the step that places it, host: of the part that it sits on, null for what sits on
    nothing. seam: the point of the part's frame by which it sits, and the direction in which it stands there; null where a
    tilt does not move it so."""

    part: str
    matrix: list[float]
    step: str | None = None
    host: str | None = None
    seam: list[float] | None = None
    gives_way: GivesWay | None = None


Point = tuple[float, float, float]


class SettledPart(Schema):
    """A part of the scene and the job that settles it."""

    part: str
    job: JobOut


class EyesOut(schema_of(EyesPlaced)):  # type: ignore[misc]
    """Eyes in place, with what to know about it."""


class EyesGuess(Schema):
    """Where eyes are mostly set on a part."""

    part: str
    round: int
    between: int
    eye_mm: float


class StepPlace(schema_of(StepNow)):  # type: ignore[misc]
    """A step as the rounds are now."""


class LoosePart(schema_of(Loose)):  # type: ignore[misc]
    """A part that is not placed yet, and where it mostly goes."""


class BalanceOut(Schema):
    """How the figure stands."""

    verdict: Literal["steady", "wobbly", "tips"]
    margin_mm: float
    words: str


class CentreOut(schema_of(Centre)):  # type: ignore[misc]
    """The centre line of a part and the starts of its rounds; what brings the start back at the end of each round."""


class PatchOut(Schema):
    """A patch on the fabric: points and directions in mm in its part's frame, triangles of them."""

    points: list[Point]
    out: list[Point]
    triangles: list[tuple[int, int, int]]


class MarkOut(Schema):
    """A point of the face in mm on its part; with `ends` a line; with patches an oval that covers the fabric. colour:
    '#rrggbb'; covers: how much of the yarn it hides, of 1."""

    key: str
    part: str
    name: str
    points: list[Point]
    ends: list[Point]
    patches: list[PatchOut]
    colour: Hex
    covers: float


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
    loose: list[LoosePart]
    order: list[str]
    balance: BalanceOut | None
    centre: dict[str, CentreOut]


class SettlingOut(Schema):
    """How far a figure is settled and painted. whole: it is as good as it gets. extent_mm: its height, or its width as seen
    from between front and side, whichever is more."""

    whole: bool
    under_way: int
    extent_mm: float


class HazardOut(schema_of(Hazard)):  # type: ignore[misc]
    """What of a figure is not for a child under three."""


class LookIn(Schema):
    """How a picture is taken. around, above: degrees to add to the side. width: in pixels, as is its height. ground: behind
    the figure, null for transparent. step: of the assembly, to show the figure as it is then, with what it adds in colour. part,
    after: a part alone after so many rounds."""

    side: Literal["front", "left", "right", "back", "top", "between"] = "between"
    around: Annotated[int, Field(ge=-180, le=180)] = 0
    above: Annotated[int, Field(ge=-90, le=90)] = 0
    width: Annotated[int, Field(ge=100, le=2_400)] = 800
    ground: Hex | None = None
    shadow: bool = True
    step: Key | None = None
    part: Key | None = None
    after: Annotated[int, Field(ge=0, le=2_000)] = 0


class NoSewIn(Schema):
    """A step whose part is to be worked in instead of sewn."""

    step: Key
