"""The page of a manifest on which the figure is put together: steps, eyes, the face."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from studio.designs.fields import Degrees, Frozen, Key, Line, Share, Short
from studio.yarns.schemas import Hex


class BendEntry(Frozen):
    """A bend of the wire in a limb: all beyond a round of it, by so many degrees towards a side of the figure."""

    round: Annotated[int, Field(ge=1, le=2_000)]
    degrees: Annotated[float, Field(gt=0, le=150)] = 45
    towards: Literal["front", "back", "up", "down", "in", "out"] = "front"


class AssemblyStep(Frozen):
    """A step of putting together; with `on` and `round` the part's place on another is known.

    share and angle say the place on the surface, which stays when rounds change; `round` and `stitch` are how it
    was last said in rounds. seat: how the part sits there. wide: stitches of the host it covers. picture: whether
    words do not suffice. no_sew: the host's round works it in. fixing: what holds it. spread: how many
    sit evenly around the round. film: address of a clip that shows it. bends: of the wire in it.
    """

    key: Key
    text: Line = ""
    part: Key | None = None
    on: Key | None = None
    round: Annotated[int, Field(ge=1, le=2_000)] | None = None
    stitch: Annotated[float, Field(ge=-2_000, le=2_000)] = 0
    paired: bool = False
    tilt: Annotated[float, Field(ge=-90, le=90)] = 0
    turn: Annotated[float, Field(ge=-360, le=360)] = 0
    before_closing: bool = False
    seat: Literal["", "pinched", "open", "laid", "start"] = ""
    wide: Annotated[int, Field(ge=1, le=500)] | None = None
    share: Share | None = None
    angle: Degrees | None = None
    picture: bool = False
    no_sew: bool = False
    fixing: Literal["sewn", "snaps", "hook-and-loop", "slipped-on"] = "sewn"
    spread: Annotated[int, Field(ge=1, le=60)] = 1
    film: Annotated[str, StringConstraints(strip_whitespace=True, max_length=300)] = ""
    bends: Annotated[list[BendEntry], Field(max_length=4)] = []


class EyesEntry(Frozen):
    """Where the eyes are: above a round of a part, so many stitches visible between; share as of a step."""

    part: Key
    round: Annotated[int, Field(ge=1, le=2_000)]
    between: Annotated[int, Field(ge=1, le=1_000)]
    share: Share | None = None


class FaceMark(Frozen):
    """A point to embroider, or with `to` a line to another round and stitch; both sides when paired.

    share, angle and those with `to`: where that is kept on the surface, as of a step. made_of, wide_mm, tall_mm: an oval
    of felt, satin stitch or brushed colour that covers the fabric; 0 for a point or a line. colour: null for the usual one.
    """

    key: Key
    name: Short
    part: Key
    round: Annotated[int, Field(ge=1, le=2_000)]
    stitch: Annotated[float, Field(ge=-2_000, le=2_000)] = 0
    paired: bool = False
    to_round: Annotated[int, Field(ge=1, le=2_000)] | None = None
    to_stitch: Annotated[float, Field(ge=-2_000, le=2_000)] = 0
    share: Share | None = None
    angle: Degrees | None = None
    to_share: Share | None = None
    to_angle: Degrees | None = None
    made_of: Literal["thread", "felt", "blush"] = "thread"
    wide_mm: Annotated[float, Field(ge=0, le=300)] = 0
    tall_mm: Annotated[float, Field(ge=0, le=300)] = 0
    colour: Hex | None = None


class AssemblyPage(Frozen):
    """Steps in order, the eyes and the face. posture: in which the finished size is said."""

    steps: Annotated[list[AssemblyStep], Field(max_length=200)] = []
    eye_kind: Literal["none", "safety", "embroidered"] = "none"
    eye_mm: Annotated[float, Field(gt=0, le=60)] | None = None
    eyes: EyesEntry | None = None
    marks: Annotated[list[FaceMark], Field(max_length=60)] = []
    posture: Literal["standing", "sitting", "lying", "hanging"] = "standing"
