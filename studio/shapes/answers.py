"""What jobs about shapes answer."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from craft.figure.settling import ShapeError
from studio.bench.answers import Settled
from studio.bench.schemas import EstimateOut
from studio.designs.recipes import AnyForm, RoundsRecipe, ThreadNumbers
from studio.wire import schema_of


class ShapeErrorOut(schema_of(ShapeError)):  # type: ignore[misc]
    """How far a settled shape lies off its target."""


class Aim(Schema):
    """A target's surface, laid onto what has settled: corners x y z (int16, of `scale` mm) and triangles (uint32)."""

    scale: float
    x: str
    triangles: str


class Fitted(Schema):
    """A settled shape on its target. off: how far outside it every node lies, in hundredths of a mm (int16)."""

    settled: Settled
    error: ShapeErrorOut
    off: str
    aim: Aim


class FitAnswer(Schema):
    """A drafted shape as it settles."""

    job: Literal["fit"] = "fit"
    fitted: Fitted


class CompensateAnswer(Schema):
    """A shape redrawn, and how far it settles off its target before and after so many turns."""

    job: Literal["compensate"] = "compensate"
    recipe: RoundsRecipe
    before: ShapeErrorOut
    after: ShapeErrorOut
    turns: int


class Way(Schema):
    """A way to work a shape, and what it costs. cut_mm: where it is cut into two pieces."""

    end: Literal["foot", "top", "pieces"]
    cut_mm: float | None
    start: int
    simplicity: float
    name: Literal["true", "balanced", "easy"]
    rounds: int
    stitches: int
    different: int
    error: ShapeErrorOut
    metres: EstimateOut
    hours: EstimateOut


class CompareAnswer(Schema):
    """Ways to work a shape, nearest first. top: the shape upside down, for those that begin at its far end."""

    job: Literal["compare"] = "compare"
    top: AnyForm | None
    ways: list[Way]


class Remedy(Schema):
    """Threads and less filling, and how far a shape settles off its target with them."""

    threads: list[ThreadNumbers]
    firmness: float
    error: ShapeErrorOut


class FlatAnswer(Schema):
    """What keeps a shape flat when it is stuffed."""

    job: Literal["flat"] = "flat"
    ways: list[Remedy]


class SewnAnswer(Schema):
    """The panels of a shape sewn together: stuffed, and over stiff inlays."""

    job: Literal["sewn"] = "sewn"
    stuffed: Fitted
    inlaid: Fitted
