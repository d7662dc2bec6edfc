"""A manifest as the craft's one value, and places of the value back on its pages."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from craft.design.anchors import Anchor, Place
from craft.design.design import (
    Audience,
    Brief,
    Design,
    EyeKind,
    Eyes,
    Level,
    Made,
    MadeOf,
    Mark,
    Posture,
    Printed,
    Source,
    Step,
)
from craft.design.joins import EdgeOf, Fixing, Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, OwnHook, Part
from craft.design.permissions import Permissions, Selling
from craft.design.size import RoleYarn, Size, SizeKind
from craft.figure.placement import Bend, Towards
from craft.gauge import Gauge
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from studio.designs import manifest as pages
from studio.designs.assembly_page import AssemblyPage, AssemblyStep, FaceMark

MANNERS = {"pinched": Manner.PINCHED, "open": Manner.OPEN, "laid": Manner.LAID, "start": Manner.LAID}


def yarn_value(yarn: pages.DesignYarn) -> DesignYarn:
    """A yarn of the design."""
    return DesignYarn(yarn.name, yarn.colour, yarn.weight, yarn.wraps, yarn.plush, yarn.skein_m, yarn.skein_g)


def gauge_value(page: pages.GaugePage) -> GaugeInForce:
    """Hook, strands and the gauge to reckon with."""
    return GaugeInForce(
        GaugeFrom(page.source),
        page.hook_mm,
        page.strands,
        page.stitch_mm,
        page.round_mm,
        page.lean,
        page.yarn_per_stitch_mm,
        page.firmness,
    )


def _place(on: str | None, at: int | None, stitch: float, share: float | None, angle: float | None) -> Place | None:
    if not on or not at:
        return None
    return Place(on, at, stitch, None if share is None else Anchor(share, angle or 0.0))


def place_of(step: AssemblyStep) -> Place | None:
    """Where a step is, None when it says nowhere."""
    return _place(step.on, step.round, step.stitch, step.share, step.angle)


def join_of(step: AssemblyStep) -> Join | None:
    """The join that a step makes, None when it joins nothing."""
    if not step.part or not step.on:
        return None
    manner = Manner.WORKED_IN if step.no_sew else MANNERS.get(step.seat)
    return Join(
        step.key,
        step.part,
        step.on,
        place_of(step),
        edge=EdgeOf.START if step.seat == "start" else EdgeOf.END,
        manner=manner,
        paired=step.paired,
        tilt=step.tilt,
        turn=step.turn,
        wide=step.wide,
        fixing=Fixing(step.fixing),
        spread=1 if step.paired else step.spread,
        bends=tuple(Bend(b.round, b.degrees, Towards(b.towards)) for b in step.bends),
    )


def _step(step: AssemblyStep) -> Step:
    join = step.key if step.part and step.on else None
    place = None if join else place_of(step)
    return Step(step.key, step.text, step.part, join, place, step.before_closing, step.picture, step.film)


def eyes_value(page: AssemblyPage) -> Eyes:
    """The eyes, wherever they are."""
    kind, entry = EyeKind(page.eye_kind), page.eyes
    if entry is None:
        return Eyes(kind, page.eye_mm)
    return Eyes(kind, page.eye_mm, _place(entry.part, entry.round, 0.0, entry.share, 0.0), entry.between)


def _mark(mark: FaceMark) -> Mark:
    place = _place(mark.part, mark.round, mark.stitch, mark.share, mark.angle)
    assert place is not None
    to = _place(mark.part, mark.to_round, mark.to_stitch, mark.to_share, mark.to_angle)
    made = MadeOf(mark.made_of)
    return Mark(mark.key, mark.name, place, to, mark.paired, made, mark.wide_mm, mark.tall_mm, mark.colour)


def own_hook_value(entry: pages.OwnHookEntry | None) -> OwnHook | None:
    """The hook of a part's own."""
    return None if entry is None else OwnHook(entry.hook_mm, entry.strands, entry.stitch_mm, entry.round_mm)


def _role_value(entry: pages.RoleYarnEntry, gauge: Gauge | None) -> RoleYarn:
    second = None if entry.second is None else yarn_value(entry.second)
    return RoleYarn(entry.role, yarn_value(entry.yarn), entry.hook_mm, entry.strands, gauge, second)


def size_value(
    entry: pages.SizeEntry, gauge: Gauge | None = None, of_roles: Mapping[str, Gauge | None] | None = None
) -> Size:
    """Another size, as it is asked for. gauge: of her own swatch of its yarn on its hook; of_roles: of those of its colour
    roles."""
    yarn = None if entry.yarn is None else yarn_value(entry.yarn)
    return Size(
        entry.key,
        entry.name,
        SizeKind(entry.kind),
        yarn,
        entry.hook_mm,
        entry.strands,
        entry.height_mm,
        gauge,
        part=entry.part,
        count=entry.count,
        grams=entry.grams,
        girth_mm=entry.girth_mm,
        ease_mm=entry.ease_mm,
        fits=entry.fits,
        alone=entry.alone,
        across_mm=entry.across_mm,
        easy=entry.easy,
        second=None if entry.second is None else yarn_value(entry.second),
        apart=entry.apart,
        among_mm=tuple(entry.among_mm),
        settled_share=entry.settled_share,
        others=tuple(_role_value(r, (of_roles or {}).get(r.role)) for r in entry.others),
    )


def _made(entry: pages.MadeEntry | None) -> Made | None:
    return None if entry is None else Made(entry.ratio, entry.share, entry.makers, entry.of_mm)


def value_of(manifest: pages.Manifest, parts: Iterable[Part], sources: Iterable[Source] = ()) -> Design:
    """The whole manifest as one value. parts: with their texts, in the manifest's order. sources: before its own."""
    page, brief, printed = manifest.assembly, manifest.brief, manifest.booklet
    return Design(
        manifest.name,
        Terms(manifest.terms),
        gauge=gauge_value(manifest.gauge),
        yarns=tuple(yarn_value(y) for y in manifest.gauge.yarns),
        parts=tuple(parts),
        joins=tuple(j for s in page.steps if (j := join_of(s)) is not None),
        eyes=eyes_value(page),
        marks=tuple(_mark(m) for m in page.marks),
        steps=tuple(_step(s) for s in page.steps),
        posture=Posture(page.posture),
        brief=Brief(Audience(brief.audience), Level(brief.level), brief.height_mm, brief.intro, brief.notes),
        sizes=tuple(size_value(s) for s in manifest.sizes.sizes),
        printed=Printed(
            printed.version,
            printed.count_table,
            printed.charts,
            tuple(n.strip() for n in printed.notions.split(",") if n.strip()),
            printed.permissions,
            printed.credits,
            printed.notes,
            printed.changes,
            tuple(printed.order),
            _made(printed.height_made),
            _made(printed.width_made),
        ),
        sources=(*sources, *(_source(entry) for entry in manifest.sources)),
    )


def _source(entry: pages.SourceEntry) -> Source:
    p = entry.permissions
    allowed = None if p is None else permissions_value(p)
    return Source(entry.title, entry.designer, entry.version, entry.terms, allowed, tuple(entry.parts), entry.own)


# --- from the value back to the pages -------------------------------------------------------


def permissions_value(entry: pages.PermissionsEntry) -> Permissions:
    """Permissions as the craft's value."""
    e = entry
    return Permissions(e.change, Selling(e.selling), e.rounds, e.difference, e.alike, e.credit, e.words)


def _anchored(now: Place | None, before: Place | None, worked: Mapping[str, WorkedPart]) -> tuple[float, float] | None:
    anchor = None if now is None else now.anchored(before, worked).anchor
    return None if anchor is None else (anchor.share, anchor.angle)


def anchored(page: AssemblyPage, before: AssemblyPage, worked: Mapping[str, WorkedPart]) -> AssemblyPage:
    """The page with the surface's place of everything that was set or moved since `before`."""
    old_steps = {s.key: place_of(s) for s in before.steps}
    steps = []
    for step in page.steps:
        share, angle = _anchored(place_of(step), old_steps.get(step.key), worked) or (None, None)
        steps.append(step.model_copy(update={"share": share, "angle": angle}))
    old_marks = {m.key: _mark(m) for m in before.marks}
    marks = []
    for entry in page.marks:
        mark, old = _mark(entry), old_marks.get(entry.key)
        share, angle = _anchored(mark.place, old.place if old else None, worked) or (None, None)
        to_share, to_angle = _anchored(mark.to, old.to if old else None, worked) or (None, None)
        changes = {"share": share, "angle": angle, "to_share": to_share, "to_angle": to_angle}
        marks.append(entry.model_copy(update=changes))
    eyes = eyes_value(page)
    if eyes.place is not None:
        share, _ = _anchored(eyes.place, eyes_value(before).place, worked) or (None, None)
        page = page.model_copy(update={"eyes": page.eyes and page.eyes.model_copy(update={"share": share})})
    kept: AssemblyPage = page.model_copy(update={"steps": steps, "marks": marks})
    return kept
