"""A design's sizes, worked out by the craft."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, field, replace

from craft.design.grading import part_size, proportional_scale, regrade, sold_eye
from craft.errors import CraftError
from craft.figure.body import body_of
from craft.figure.materials import filling_of, hours, skeins, yarn_use
from craft.figure.placement import extent, place
from craft.fitting.panels import recipe_of
from craft.gauge import Estimate, Gauge, estimate_gauge, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart, run_part
from craft.rounds.pattern import Part
from studio.bench.previews import estimate
from studio.designs.manifest import AssemblyPage, Manifest, SizeEntry
from studio.designs.places import located
from studio.designs.reading import ReadPart, gauge_of, seats_of, yarn_value
from studio.sizes.schemas import SizeColumn, SizedPart, YarnUse


@dataclass(frozen=True)
class AtSize:
    """A part at a size: written and run, and how it came about."""

    source: ReadPart
    written: Part
    worked: WorkedPart
    how: str
    notes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Sized:
    """All parts at a size, with its gauge and by how much eyes and places scale."""

    gauge: Gauge
    scale: float
    parts: list[AtSize]
    fabric: str | None = None
    notes: list[str] = field(default_factory=list)


def _as_is(parts: Sequence[ReadPart]) -> list[AtSize]:
    return [AtSize(p, p.written, w, "same counts") for p in parts if (w := p.worked) is not None]


def base_size(manifest: Manifest, parts: Sequence[ReadPart]) -> Sized:
    """The design as it is."""
    page = manifest.gauge
    fabric = None
    if page.yarns and page.hook_mm:
        fabric = fabric_outlook(yarn_value(page.yarns[0], page.strands), page.hook_mm).words
    return Sized(gauge_of(page), 1.0, _as_is(parts), fabric)


def at_size(manifest: Manifest, parts: Sequence[ReadPart], entry: SizeEntry) -> Sized:
    """The design at another size; CraftError when it cannot be made so."""
    base = base_size(manifest, parts)
    if not base.parts:
        raise CraftError("There are no rounds yet to be sized.")
    if entry.kind == "yarn":
        if entry.yarn is None or entry.hook_mm is None:
            raise CraftError("Choose a yarn and a hook for this size.", field="yarn")
        yarn = yarn_value(entry.yarn, entry.strands)
        found = estimate_gauge(yarn, entry.hook_mm)
        gauge = Gauge(found.stitch_mm, found.round_mm, base.gauge.lean, found.spread, found.how)
        return Sized(
            gauge, gauge.stitch_mm / base.gauge.stitch_mm, base.parts, fabric_outlook(yarn, entry.hook_mm).words
        )
    if entry.height_mm is None:
        raise CraftError("Type the height for this size.", field="height_mm")
    return _at_height(manifest, base, entry.height_mm)


def _at_height(manifest: Manifest, base: Sized, height_mm: float) -> Sized:
    now = figure_height(manifest, base)
    scale = proportional_scale([("figure", now)], height_mm)
    made: list[AtSize] = []
    notes: list[str] = []
    for part in base.parts:
        source = part.source
        recipe = recipe_of(source.recipe) if source.recipe is not None and source.authoritative else None
        found = regrade(part.written, scale, base.gauge, recipe)
        worked = replace(_run_as(found.part, source), name=source.name, make=source.make)
        made.append(AtSize(source, found.part, worked, found.how, found.notes))
        notes += found.notes
    return Sized(base.gauge, scale, made, base.fabric, notes)


def _run_as(part: Part, source: ReadPart) -> WorkedPart:
    """A part run with the yarn its source begins with."""
    return run_part(part, source.colour or MAIN_COLOUR)[0]


def figure_height(manifest: Manifest, sized: Sized) -> float:
    """Height in mm of the figure as put together, else of its tallest part."""
    return _extent(manifest, sized)[1]


def _extent(manifest: Manifest, sized: Sized) -> tuple[float, float]:
    bodies = {p.source.key: body_of(p.worked, sized.gauge, firmness=manifest.gauge.firmness) for p in sized.parts}
    makes = {p.source.key: p.worked.make for p in sized.parts}
    page = located_before(manifest, sized)
    seats = seats_of(page, {p.source.key: p.worked for p in sized.parts})
    width, _, height = extent(bodies, place(bodies, makes, seats))
    return width, height


def located_before(manifest: Manifest, sized: Sized) -> AssemblyPage:
    """The assembly with every place kept on the surface, by the rounds of the first size."""
    page = manifest.assembly
    return located(page, page, {p.source.key: w for p in sized.parts if (w := p.source.worked) is not None})


def eye_of(manifest: Manifest, scale: float) -> int | None:
    """The eye to buy at this scale, None for a figure without any."""
    page = manifest.assembly
    return sold_eye(page.eye_mm * scale) if page.eye_kind == "safety" and page.eye_mm else None


def column(manifest: Manifest, sized: Sized, entry: SizeEntry | None) -> SizeColumn:
    """A size as a column of the table."""
    firmness = manifest.gauge.firmness
    rows: list[SizedPart] = []
    profiles = []
    for part in sized.parts:
        size = part_size(part.worked, sized.gauge, firmness)
        profiles.append((part.worked, size.profile))
        rows.append(
            SizedPart.model_validate(
                {
                    "key": part.source.key,
                    "name": part.source.name,
                    "make": part.worked.make,
                    "how": part.how,
                    "counts": list(part.worked.counts),
                    "rounds": size.rounds,
                    "stitches": size.stitches * part.worked.make,
                    "height": estimate(size.height),
                    "width": estimate(size.width),
                }
            )
        )
    measured = manifest.gauge.yarn_per_stitch_mm
    per_stitch = measured * sized.gauge.stitch_mm / gauge_of(manifest.gauge).stitch_mm if measured else None
    uses = yarn_use([p.worked for p in sized.parts], sized.gauge, per_stitch)
    width, height = _extent(manifest, sized)
    spread, how = sized.gauge.spread, sized.gauge.how
    yarn_of = {y.name: y for y in manifest.gauge.yarns}
    main = manifest.gauge.yarns[0] if manifest.gauge.yarns else None
    bought = [(u, (entry.yarn if entry and entry.yarn else None) or yarn_of.get(u.colour) or main) for u in uses]
    return SizeColumn.model_validate(
        {
            "key": entry.key if entry else "base",
            "name": entry.name if entry else "As it is",
            "kind": entry.kind if entry else "base",
            "problem": None,
            "gauge": asdict(sized.gauge),
            "fabric": sized.fabric,
            "parts": rows,
            "height": estimate(Estimate.around(height, spread, how)),
            "width": estimate(Estimate.around(width, spread, how)),
            "eye_mm": eye_of(manifest, sized.scale),
            "yarns": [
                YarnUse(
                    colour=u.colour,
                    stitches=u.stitches,
                    metres=estimate(u.metres),
                    skeins=skeins(u.metres, y.skein_m) if y and y.skein_m else None,
                )
                for u, y in bought
            ],
            "filling_g": estimate(filling_of(profiles, firmness)),
            "hours": estimate(hours(uses)),
            "notes": sized.notes + _small_parts(sized),
        }
    )


def _small_parts(sized: Sized) -> list[str]:
    return [
        f"{p.source.name}: only {max(p.worked.counts)} stitches around; fiddly to work."
        for p in sized.parts
        if p.how != "same counts" and max(p.worked.counts) < 7
    ]


def impossible(manifest: Manifest, parts: Sequence[ReadPart], entry: SizeEntry, why: str) -> SizeColumn:
    """A column that says why a size cannot be made."""
    empty = Estimate(0, 0, 0, "")
    return SizeColumn.model_validate(
        {
            "key": entry.key,
            "name": entry.name,
            "kind": entry.kind,
            "problem": why,
            "gauge": asdict(gauge_of(manifest.gauge)),
            "fabric": None,
            "parts": [],
            "height": estimate(empty),
            "width": estimate(empty),
            "eye_mm": None,
            "yarns": [],
            "filling_g": estimate(empty),
            "hours": estimate(empty),
            "notes": [],
        }
    )
