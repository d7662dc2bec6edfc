"""Another size of a figure, as it is asked for."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from craft.design.parts import DesignYarn
from craft.gauge import Gauge


class SizeKind(StrEnum):
    """What a size asks for.

    YARN: another yarn and hook with the same counts. In the same yarn: HEIGHT of the figure or of a part, widest COUNT of
    a part, as large as the GRAMS at hand allow, a part that is to FIT a girth.
    """

    YARN = "yarn"
    HEIGHT = "height"
    COUNT = "count"
    GRAMS = "grams"
    FIT = "fit"


@dataclass(frozen=True, slots=True)
class RoleYarn:
    """The yarn of one colour role at a size. role: the design's yarn in whose place it is. second: held together with it.
    gauge: her own swatch of it, None where there is none."""

    role: str
    yarn: DesignYarn
    hook_mm: float
    strands: int = 1
    gauge: Gauge | None = None
    second: DesignYarn | None = None


@dataclass(frozen=True, slots=True)
class Size:
    """Another size of the figure. gauge: her own swatch of that yarn on that hook, None where there is none.

    second: another yarn that is held together with `yarn`. others: yarns of the colour roles that have one of their own;
    all other roles are worked in `yarn`, in their colour. apart: motifs and colours that repeat keep their distance
    instead of their number. among_mm: heights of the run that it belongs to: counts of the whole run step evenly.
    settled_share: how much larger it has to be estimated, so that it settles to the height or the girth asked for.
    part: key of the part that a height, a count or a girth is of; None for the figure, or its widest part. fits: key of
    another part whose widest girth it is to fit, whatever that comes to. across_mm: width of something round that it is
    to fit. ease_mm: by which it is to be wider than what it fits; less than 0 for what is to sit tight. alone: only that
    part is made anew, the others stay. easy: a height is met only as far as the widest round keeps a multiple of the
    first one's count, so that its rounds are easy to work.
    """

    key: str
    name: str
    kind: SizeKind
    yarn: DesignYarn | None = None
    hook_mm: float | None = None
    strands: int = 1
    height_mm: float | None = None
    gauge: Gauge | None = None
    part: str | None = None
    count: int | None = None
    grams: float | None = None
    girth_mm: float | None = None
    ease_mm: float = 0.0
    fits: str | None = None
    alone: bool = False
    across_mm: float | None = None
    easy: bool = False
    second: DesignYarn | None = None
    apart: bool = False
    among_mm: tuple[float, ...] = ()
    settled_share: float = 1.0
    others: tuple[RoleYarn, ...] = ()
