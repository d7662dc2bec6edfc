"""A design as the manuscript of its booklet."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from craft.design.grading import profile_of
from craft.document.booklet import AssemblyLine, Document, Manuscript, YarnLine, compose
from craft.figure.materials import filling_of, skeins, yarn_use
from craft.gauge import Estimate
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Part, Step
from craft.rounds.stitches import Terms
from studio.bench import scenes
from studio.designs.eyes import retold
from studio.designs.manifest import AssemblyStep, Manifest
from studio.designs.models import Design
from studio.designs.places import eyes_now, step_now
from studio.designs.reading import ReadPart, gauge_of, read_parts, worked_parts
from studio.sizes.compute import base_size, column

_SEATS = {"pinched": ", pinched flat", "open": ", open edge down", "laid": ", laid on"}


def _place(step: AssemblyStep, names: dict[str, str], worked: dict[str, WorkedPart]) -> str:
    """A step's place in words, in the rounds as they are now: round, stitches from the front, which side, how it sits."""
    now = step_now(step, worked)
    if now is None or not step.on or step.no_sew:
        return ""
    where = f"{names.get(step.on, 'a part that is gone')}, R{now.round}"
    host = worked.get(step.on)
    seat = _SEATS.get(step.seat, "")
    if not now.stitch:
        middle = "at the top" if host and now.round >= len(host.counts) else "at the front, in the middle"
        return f"on {where}, {middle}{seat}"
    many = f"{abs(now.stitch):g} stitches"
    if step.paired:
        return f"on {where}, {many} to either side of the front middle{seat}"
    side = "left" if now.stitch > 0 else "right"
    return f"on {where}, {many} to the {side} of the front middle as you look at it{seat}"


def _assembly(manifest: Manifest, parts: list[ReadPart]) -> tuple[AssemblyLine, ...]:
    names = {p.key: p.name for p in parts}
    worked = worked_parts(parts)
    return tuple(
        AssemblyLine(s.text, names.get(s.part or "", ""), _place(s, names, worked), s.before_closing)
        for s in manifest.assembly.steps
        if s.text
    )


def _eyes(manifest: Manifest, parts: list[ReadPart]) -> str:
    page = manifest.assembly
    if page.eye_kind == "none":
        return ""
    kind = f"two safety eyes of {page.eye_mm or 8:g} mm" if page.eye_kind == "safety" else "embroidered"
    worked = worked_parts(parts)
    if page.eyes is None or page.eyes.part not in worked:
        return kind
    at = eyes_now(page.eyes, worked).round
    shown = [t for t in worked[page.eyes.part].rounds if t.live > 0]
    above = f" and {shown[at].label}" if at < len(shown) else ""
    stitches = "stitch" if page.eyes.between == 1 else "stitches"
    label = shown[min(at, len(shown)) - 1].label
    place = f"between {label}{above}, with {page.eyes.between} {stitches} visible between"
    return f"{kind}, on {worked[page.eyes.part].name} {place}"


def _as_placed(part: ReadPart, worked: WorkedPart, manifest: Manifest) -> Part:
    """A part with its direction for the eyes saying where they are placed."""
    eyes = manifest.assembly.eyes
    if eyes is None or eyes.part != part.key:
        return part.written
    items = tuple(
        replace(item, text=retold(item.text, manifest.assembly, worked)) if isinstance(item, Step) else item
        for item in part.written.items
    )
    return replace(part.written, items=items)


def _lines(text: str) -> tuple[str, ...]:
    return tuple(line.strip() for line in text.splitlines() if line.strip())


def manuscript(design: Design, designer: str, terms: Terms) -> Manuscript:
    """Everything the booklet of a design is composed of, in the chosen terms."""
    manifest, parts = design.manifest, read_parts(design)
    gauge, page = gauge_of(manifest.gauge), manifest.booklet
    worked = [(_as_placed(p, w, manifest), w) for p in parts if (w := p.worked) is not None]
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
        size_of="sitting" if manifest.assembly.posture == "sitting" else "",
        eyes=_eyes(manifest, parts),
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
    return scenes.picture(design.owner, design, design.name)[0]
