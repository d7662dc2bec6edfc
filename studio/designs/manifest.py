"""A revision's manifest: everything a design says, as immutable typed values.

Part texts stand in part versions; the manifest names them by id. What is written here is what
goes over the wire, too. A stored manifest carries its format and is read through `upgrades`.
"""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from studio.designs.assembly_page import AssemblyPage
from studio.designs.fields import Frozen, Key, Line, PartName, Prose, Share, Short, TermsName
from studio.yarns.schemas import Hex, HookMm, Metres, RoundMm, StitchMm, YarnName


class OwnHookEntry(Frozen):
    """The hook and strands of a part that is not worked as the figure is. stitch_mm, round_mm: as measured on that hook,
    null where it is estimated."""

    hook_mm: HookMm
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    stitch_mm: StitchMm | None = None
    round_mm: RoundMm | None = None


class PartEntry(Frozen):
    """A part: its key for life, name, number to make, the version of its text, and the yarn and hook it begins with."""

    key: Key
    name: PartName
    make: Annotated[int, Field(ge=1, le=50)] = 1
    version: int
    colour: YarnName | None = None
    own_hook: OwnHookEntry | None = None


class DesignYarn(Frozen):
    """A yarn of the design, copied from the basket so that the design stays whole without it."""

    yarn_id: int | None = None
    name: YarnName
    colour: Hex
    weight: Annotated[int, Field(ge=0, le=7)]
    wraps: Annotated[float, Field(ge=0.5, le=100)] | None = None
    plush: bool = False
    skein_m: Metres | None = None
    skein_g: Metres | None = None


class GaugePage(Frozen):
    """Yarns, hook and strands, and the gauge in force: a swatch's, her own figures, or the estimate."""

    yarns: list[DesignYarn] = []
    hook_mm: HookMm | None = None
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    source: Literal["assumed", "estimate", "swatch", "own"] = "assumed"
    swatch_id: int | None = None
    stitch_mm: StitchMm | None = None
    round_mm: RoundMm | None = None
    lean: Annotated[float, Field(ge=-2, le=2)] | None = None
    yarn_per_stitch_mm: Annotated[float, Field(gt=0, le=2_000)] | None = None
    firmness: Annotated[float, Field(ge=0, le=1)] = 0.5


PartMm = Annotated[float, Field(ge=5, le=600)]


class PictureBox(Frozen):
    """A box on a reference picture, as shares of its width and height from the upper left corner."""

    picture: int
    left: Share
    top: Share
    wide: Share
    tall: Share


class PlannedPart(Frozen):
    """A part that is to be made: its name, how often, the solid and size proposed for it, where it is on a picture, and
    the part that was made of it."""

    key: Key
    name: Short
    make: Annotated[int, Field(ge=1, le=200)] = 1
    solid: Annotated[str, StringConstraints(max_length=20)] = "sphere"
    open: bool = False
    empty: bool = False
    wide_mm: PartMm = 40
    tall_mm: PartMm = 40
    box: PictureBox | None = None
    part: Key | None = None


class Agreed(Frozen):
    """What was agreed with the client, and when."""

    key: Key
    on: date
    text: Line


Money = Annotated[float, Field(ge=0, le=1_000_000)]


class Commission(Frozen):
    """For whom it is made, until when, and what it costs: an hour, and 100 g of yarn; `extra` for all else."""

    client: Short = ""
    until: date | None = None
    hour: Money = 0
    yarn_100g: Money = 0
    extra: Money = 0
    currency: Annotated[str, StringConstraints(strip_whitespace=True, max_length=8)] = ""
    agreed: Annotated[list[Agreed], Field(max_length=60)] = []


class BriefPage(Frozen):
    """What is to be made, for whom, and what it should look like; its parts as planned; its client, if it has one."""

    audience: Literal["under-three", "play", "display"] = "play"
    level: Literal["basic", "easy", "intermediate", "complex"] = "easy"
    height_mm: Annotated[float, Field(gt=0, le=3_000)] | None = None
    intro: Prose = ""
    notes: Prose = ""
    pictures: list[int] = []
    plan: Annotated[list[PlannedPart], Field(max_length=60)] = []
    commission: Commission | None = None


class RoleYarnEntry(Frozen):
    """The yarn of one colour role at a size. role: name of the figure's yarn in whose place it is."""

    role: YarnName
    yarn: DesignYarn
    hook_mm: HookMm
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    second: DesignYarn | None = None


class SizeEntry(Frozen):
    """Another size: other yarn and hook with the same counts; in the same yarn a height (of the figure or of a part), the
    widest count of a part, as large as the grams at hand allow, or a part that fits a girth.

    second: held together with `yarn`. others: yarns of colour roles that have one of their own. fits_design: another of her
    designs, whose part `fits` names. settled_share: how much larger it has to be estimated, so that it settles to its
    height or girth."""

    key: Key
    name: Short
    kind: Literal["yarn", "height", "count", "grams", "fit"]
    yarn: DesignYarn | None = None
    hook_mm: HookMm | None = None
    strands: Annotated[int, Field(ge=1, le=6)] = 1
    height_mm: Annotated[float, Field(gt=0, le=3_000)] | None = None
    part: Key | None = None
    count: Annotated[int, Field(ge=3, le=2_000)] | None = None
    grams: Annotated[float, Field(gt=0, le=100_000)] | None = None
    girth_mm: Annotated[float, Field(gt=0, le=10_000)] | None = None
    ease_mm: Annotated[float, Field(ge=-500, le=500)] = 0.0
    fits: Key | None = None
    alone: bool = False
    across_mm: Annotated[float, Field(gt=0, le=3_000)] | None = None
    easy: bool = False
    second: DesignYarn | None = None
    apart: bool = False
    among_mm: Annotated[list[Annotated[float, Field(gt=0, le=3_000)]], Field(max_length=12)] = []
    fits_design: int | None = None
    settled_share: Annotated[float, Field(ge=0.5, le=2)] = 1.0
    others: Annotated[list[RoleYarnEntry], Field(max_length=12)] = []


class SizesPage(Frozen):
    """Sizes that are kept."""

    sizes: Annotated[list[SizeEntry], Field(max_length=12)] = []


class Photo(Frozen):
    """A photograph of her own in the booklet: of a step, or of the finished figure where it names none. alt: what it shows,
    for whoever does not see it. left, top, wide, tall: what is kept of it, as shares of it."""

    key: Key
    picture: int
    step: Key | None = None
    alt: Short = ""
    caption: Short = ""
    left: Share = 0
    top: Share = 0
    wide: Annotated[float, Field(ge=0.05, le=1)] = 1
    tall: Annotated[float, Field(ge=0.05, le=1)] = 1


class Translation(Frozen):
    """A piece of her prose in another language. source: as it stands in the design; when that is written otherwise, this
    holds no longer."""

    language: Literal["de", "fr", "es", "it", "nl"]
    source: Prose
    text: Prose


class MadeEntry(Frozen):
    """What makings taught of a length of the figure; see craft/design/design.Made."""

    ratio: Annotated[float, Field(ge=0.25, le=4)]
    share: Share
    makers: Annotated[int, Field(ge=3, le=10_000)]
    of_mm: Annotated[float, Field(gt=0, le=100_000)]


class BookletPage(Frozen):
    """What the booklet says beside the rounds. photos: in their order. translations: of her prose, those whose source is
    gone as well. order: keys of the parts as they are printed, those it does not name behind. height_made, width_made: what
    makings taught of the finished size."""

    version: Short = "1.0"
    count_table: bool = False
    charts: bool = False
    notions: Line = "yarn needle, stitch marker, scissors"
    permissions: Prose = (
        "For personal use. You may sell what you make by hand; please do not copy or resell the pattern."
    )
    credits: Prose = ""
    notes: Prose = ""
    changes: Prose = ""
    photos: Annotated[list[Photo], Field(max_length=60)] = []
    translations: Annotated[list[Translation], Field(max_length=600)] = []
    order: Annotated[list[Key], Field(max_length=60)] = []
    height_made: MadeEntry | None = None
    width_made: MadeEntry | None = None


class ProvingPage(Frozen):
    """What still blocks release, in her words. Testers and the making log are rows of their own (studio/proving)."""

    blockers: Prose = ""


class PermissionsEntry(Frozen):
    """What a designer allows, as choices; see craft/design/permissions."""

    change: bool = True
    selling: Literal["yes", "credited", "ask", "no"] = "credited"
    rounds: bool = False
    difference: bool = True
    alike: bool = False
    credit: Line = ""
    words: Line = ""


class SourceEntry(Frozen):
    """What the design, or some of its parts, was made from. permissions: null where its terms are not known."""

    title: Short
    designer: Short = ""
    version: Short = ""
    terms: Line = ""
    permissions: PermissionsEntry | None = None
    parts: Annotated[list[Short], Field(max_length=60)] = []
    own: bool = False


class BaseEntry(Frozen):
    """Of a design made from another: which of its revisions is taken in, at which size it was made, and which part that
    comes off there it is."""

    number: Annotated[int, Field(ge=1)]
    size: SizeEntry | None = None
    worn: Key | None = None


class Manifest(Frozen):
    """The whole of a revision. format: see studio/designs/upgrades. base: null for a design made from nothing."""

    format: Literal[3] = 3
    name: PartName
    terms: TermsName = "us"
    parts: Annotated[list[PartEntry], Field(max_length=60)] = []
    gauge: GaugePage = GaugePage()
    brief: BriefPage = BriefPage()
    assembly: AssemblyPage = AssemblyPage()
    sizes: SizesPage = SizesPage()
    booklet: BookletPage = BookletPage()
    proving: ProvingPage = ProvingPage()
    sources: Annotated[list[SourceEntry], Field(max_length=60)] = []
    base: BaseEntry | None = None


PAGES: dict[str, type[Frozen]] = {
    "gauge": GaugePage,
    "brief": BriefPage,
    "assembly": AssemblyPage,
    "sizes": SizesPage,
    "booklet": BookletPage,
    "proving": ProvingPage,
}
"""Every page of notes by its name."""
