"""The table of sizes as it goes over the wire."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict, dataclass, replace

from craft.design.design import Design
from craft.design.grading import (
    THINGS,
    Sized,
    SizeFigures,
    Taught,
    at_size,
    figure_picture,
    figures_of,
    first_size,
    lengths_of,
    names_of,
    pattern_for_all,
    phases_of,
    weight_of_use,
)
from craft.design.running import RunPart
from craft.design.size import Size, SizeKind
from craft.errors import CraftError
from craft.figure.materials import ColourUse, enough
from craft.gauge import Estimate
from studio.bench.previews import estimate
from studio.designs.reading import ReadDesign
from studio.sizes.left import Left
from studio.sizes.schemas import (
    FeatureOut,
    PatternForAll,
    SizeColumn,
    SizedPart,
    SizePicture,
    SizesTable,
    ThingOut,
    YarnUse,
)
from studio.yarns.schemas import GaugeOut


def table(
    value: Design,
    parts: tuple[RunPart, ...],
    sizes: tuple[Size, ...],
    left: Left,
    taught: Taught,
    told: Callable[[int], None] = lambda done: None,
) -> SizesTable:
    """The design as it is, beside the sizes asked for; one that cannot be made says why. told: after every column, how
    many are made."""
    first = first_size(value, parts)
    known = _Known(first, left, taught)
    columns = [_column(first, None, known)]
    for size in sizes:
        told(len(columns))
        columns.append(_asked(size, known))
    return SizesTable(columns=columns, things=[ThingOut(**asdict(thing)) for thing in THINGS], job=None)


def pattern_of(read: ReadDesign, sizes: tuple[Size, ...]) -> PatternForAll:
    """One pattern for the design and its sizes; CraftError when a size cannot be made, or there is none."""
    first = first_size(read.value, read.parts)
    names = names_of(sizes)
    return PatternForAll(text=pattern_for_all([first, *(at_size(first, s) for s in sizes)], names), names=names)


def picture_of(read: ReadDesign, size: Size | None) -> SizePicture:
    """The figure at a size, or as it is; CraftError when it cannot be made so."""
    first = first_size(read.value, read.parts)
    if not first.parts:
        raise CraftError("There are no rounds yet to be drawn.")
    name = "as it is" if size is None else f"as {size.name}"
    sized = first if size is None else at_size(first, size)
    return SizePicture(svg=figure_picture(sized, f"{read.value.name} {name}, from the front"))


@dataclass(frozen=True, slots=True)
class _Known:
    """What every column is made with: the first size, what is left of its yarns, what makings taught of it."""

    first: Sized
    left: Left
    taught: Taught


def _asked(size: Size, known: _Known) -> SizeColumn:
    try:
        other = replace(known, left={}) if size.kind is SizeKind.YARN else known
        return _column(at_size(known.first, size), size, other)
    except CraftError as error:
        return _impossible(known.first.design, size, error.message)


def _column(sized: Sized, size: Size | None, known: _Known) -> SizeColumn:
    found = figures_of(sized)
    taught = known.taught.at(sized, known.first)
    width, height = lengths_of(sized, known.first, taught)
    return SizeColumn(
        key=size.key if size else "base",
        name=size.name if size else "As it is",
        kind=size.kind.value if size else "base",
        problem=None,
        gauge=GaugeOut(**asdict(sized.gauge)),
        fabric=sized.fabric,
        parts=_rows(sized, found),
        height=estimate(height),
        width=estimate(width),
        height_makers=0 if taught.height is None else taught.height.makers,
        width_makers=0 if taught.width is None else taught.width.makers,
        eye_mm=found.eye_mm,
        yarns=[_yarn_use(sized, use, skeins, known.left) for use, skeins in found.yarns],
        filling_g=estimate(found.filling_g),
        hours=estimate(found.hours),
        notes=list(found.notes),
        features=[FeatureOut(**asdict(row)) for row in found.features],
    )


def _yarn_use(sized: Sized, use: ColourUse, skeins: int | None, left: Left) -> YarnUse:
    grams, yarn = weight_of_use(sized, use), sized.yarn_named(use.colour)
    there = None if yarn is None else left.get(yarn.name)
    return YarnUse(
        colour=use.colour,
        stitches=use.stitches,
        metres=estimate(use.metres),
        skeins=skeins,
        grams=None if grams is None else estimate(grams),
        left_g=there,
        enough=None if grams is None or there is None else enough(grams, there).value,
    )


def _rows(sized: Sized, found: SizeFigures) -> list[SizedPart]:
    laid = [phases_of(part) for part in sized.parts]
    return [
        SizedPart.model_validate(
            {
                "key": part.source.key,
                "name": part.source.name,
                "make": part.worked.make,
                "how": part.how,
                "counts": phases.after,
                "before": phases.before,
                "links": phases.links,
                "marks": [asdict(mark) for mark in phases.marks],
                "text": part.text(sized.design.terms),
                "rounds": size.rounds,
                "stitches": size.stitches * part.worked.make,
                "height": estimate(size.height),
                "width": estimate(size.width),
            }
        )
        for part, size, phases in zip(sized.parts, found.parts, laid, strict=True)
    ]


def _impossible(design: Design, size: Size, why: str) -> SizeColumn:
    """A column that says why a size cannot be made."""
    empty = estimate(Estimate(0, 0, 0, ""))
    return SizeColumn(
        key=size.key,
        name=size.name,
        kind=size.kind.value,
        problem=why,
        gauge=GaugeOut(**asdict(design.gauge_now)),
        fabric=None,
        parts=[],
        height=empty,
        width=empty,
        height_makers=0,
        width_makers=0,
        eye_mm=None,
        yarns=[],
        filling_g=empty,
        hours=empty,
        notes=[],
        features=[],
    )
