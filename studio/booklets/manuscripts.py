"""A design as the manuscript of its booklet."""

from __future__ import annotations

from datetime import date

from craft.booklet import AssemblyLine, Document, Manuscript, YarnLine, compose
from craft.figure import draw
from craft.gauge import Estimate
from craft.grading import profile_of
from craft.materials import filling_of, skeins, yarn_use
from craft.stitches import Terms
from studio.designs.manifest import AssemblyStep, Manifest
from studio.designs.models import Design
from studio.designs.reading import ReadPart, figure_of, gauge_of, palette_of, read_parts
from studio.sizes.compute import base_size, column


def _place(step: AssemblyStep, names: dict[str, str], counts: dict[str, tuple[int, ...]]) -> str:
    """A step's place in words: round, stitches from the front, and on which side."""
    if not (step.on and step.round):
        return ""
    where = f"{names.get(step.on, 'a part that is gone')}, R{step.round}"
    around = counts.get(step.on, ())
    if not step.stitch:
        middle = "at the top" if around and step.round >= len(around) else "at the front, in the middle"
        return f"on {where}, {middle}"
    many = f"{abs(step.stitch):g} stitches"
    if step.paired:
        return f"on {where}, {many} to either side of the front middle"
    return f"on {where}, {many} to the {'left' if step.stitch > 0 else 'right'} of the front middle as you look at it"


def _assembly(manifest: Manifest, parts: list[ReadPart]) -> tuple[AssemblyLine, ...]:
    names = {p.key: p.name for p in parts}
    counts = {p.key: w.counts for p in parts if (w := p.worked) is not None}
    return tuple(
        AssemblyLine(s.text, names.get(s.part or "", ""), _place(s, names, counts), s.before_closing)
        for s in manifest.assembly.steps
        if s.text
    )


def _eyes(manifest: Manifest) -> str:
    page = manifest.assembly
    if page.eye_kind == "safety":
        return f"two safety eyes of {page.eye_mm or 8:g} mm"
    return "embroidered" if page.eye_kind == "embroidered" else ""


def _lines(text: str) -> tuple[str, ...]:
    return tuple(line.strip() for line in text.splitlines() if line.strip())


def manuscript(design: Design, designer: str, terms: Terms) -> Manuscript:
    """Everything the booklet of a design is composed of, in the chosen terms."""
    manifest, parts = design.manifest, read_parts(design)
    gauge, page = gauge_of(manifest.gauge), manifest.booklet
    worked = [(p.written, w) for p in parts if (w := p.worked) is not None]
    uses = {u.colour: u for u in yarn_use([w for _, w in worked], gauge, manifest.gauge.yarn_per_stitch_mm)}
    yarns = []
    for i, yarn in enumerate(manifest.gauge.yarns):
        use = uses.get(yarn.name) or (uses.get("Main") if i == 0 else None)
        count = skeins(use.metres, yarn.skein_m) if use and yarn.skein_m else None
        yarns.append(YarnLine(yarn.name, yarn.weight, manifest.gauge.strands, use, count))
    if not yarns:
        yarns = [YarnLine(u.colour, None, 1, u, None) for u in uses.values()]
    size = column(manifest, base_size(manifest, parts), None)
    whole = [Estimate(e.value, e.low, e.high, e.how) for e in (size.height, size.width)]
    return Manuscript(
        title=manifest.name,
        designer=designer,
        version=page.version or "draft",
        date=date.today().isoformat(),
        terms=terms,
        level=manifest.brief.level,
        audience=manifest.brief.audience,
        intro=manifest.brief.intro,
        parts=tuple(worked),
        gauge=gauge,
        hook_mm=manifest.gauge.hook_mm,
        yarns=tuple(yarns),
        filling=filling_of([(w, profile_of(w, gauge)) for _, w in worked], manifest.gauge.firmness),
        height=whole[0] if worked else None,
        width=whole[1] if worked else None,
        size_of="",
        eyes=_eyes(manifest),
        notions=tuple(n.strip() for n in page.notions.split(",") if n.strip()),
        assembly=_assembly(manifest, parts),
        permissions=page.permissions,
        credits=_credits(design, page.credits),
        changes=_lines(page.changes),
        count_table=page.count_table,
        notes=_lines(page.notes),
    )


def _credits(design: Design, text: str) -> str:
    origin = f"Worked from {design.origin_name}." if design.origin_name else ""
    return " ".join(filter(None, (text, origin)))


def document(design: Design, designer: str, terms: Terms) -> Document:
    """The booklet of a design as a tree."""
    return compose(manuscript(design, designer, terms))


def cover(design: Design) -> str:
    """The figure on the cover, as SVG."""
    bodies, placed = figure_of(read_parts(design), design.manifest)
    return draw(bodies, placed, palette_of(design.manifest), title=design.name)
