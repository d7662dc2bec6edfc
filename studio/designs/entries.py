"""The craft's one value of a design as the pages that are kept of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict

from craft.design.anchors import Place
from craft.design.design import Design, Eyes, Made, Mark, Source, Step
from craft.design.joins import EdgeOf, Join, Manner
from craft.design.parts import DesignYarn, OwnHook
from craft.design.permissions import Permissions
from craft.design.size import Size
from studio.designs import manifest as pages
from studio.designs.assembly_page import AssemblyPage, AssemblyStep, EyesEntry, FaceMark
from studio.designs.values import MANNERS


def _made_entry(made: Made | None) -> dict[str, float] | None:
    return None if made is None else asdict(made)


def with_eyes(page: AssemblyPage, eyes: Eyes) -> AssemblyPage:
    """The page with the eyes as the value has them."""
    entry = None
    if eyes.place is not None:
        share = eyes.place.anchor.share if eyes.place.anchor else None
        entry = EyesEntry(part=eyes.place.on, round=eyes.place.round, between=eyes.between, share=share)
    changed: AssemblyPage = page.model_copy(update={"eyes": entry, "eye_kind": eyes.kind.value, "eye_mm": eyes.mm})
    return changed


_SEATS = {manner: seat for seat, manner in MANNERS.items() if seat != "start"}


def _step_entry(step: Step, join: Join | None) -> AssemblyStep:
    place = join.place if join else step.place
    values: dict[str, object] = {} if place is None else {"on": place.on, **_said(place)}
    if join is not None:
        values |= {
            "on": join.host,
            "paired": join.paired,
            "tilt": join.tilt,
            "turn": join.turn,
            "wide": join.wide,
            "seat": "start" if join.edge is EdgeOf.START else _SEATS.get(join.manner, "") if join.manner else "",
            "no_sew": join.manner is Manner.WORKED_IN,
            "fixing": join.fixing.value,
            "spread": join.spread,
            "bends": [{"round": b.round, "degrees": b.degrees, "towards": b.towards.value} for b in join.bends],
        }
    part = join.part if join else step.part
    plain = {"key": step.key, "text": step.text, "part": part}
    flags = {"before_closing": step.before_closing, "picture": step.picture, "film": step.film}
    return AssemblyStep.model_validate({**plain, **flags, **values})


def _mark_entry(mark: Mark) -> FaceMark:
    at, to = _said(mark.place), {} if mark.to is None else {f"to_{k}": v for k, v in _said(mark.to).items()}
    plain = {"key": mark.key, "name": mark.name, "part": mark.place.on, "paired": mark.paired}
    plain |= {"made_of": mark.made_of.value, "wide_mm": mark.wide_mm, "tall_mm": mark.tall_mm, "colour": mark.colour}
    return FaceMark.model_validate({**plain, **at, **to})


def _assembly_page(value: Design) -> AssemblyPage:
    told = {s.join for s in value.steps}
    silent = [Step(j.key, "", j.part, j.key) for j in value.joins if j.key not in told]
    steps = [_step_entry(s, value.join(s.join)) for s in (*value.steps, *silent)]
    page = AssemblyPage(steps=steps, marks=[_mark_entry(m) for m in value.marks], posture=value.posture.value)
    return with_eyes(page, value.eyes)


def _yarn_entry(yarn: DesignYarn) -> pages.DesignYarn:
    return pages.DesignYarn(
        name=yarn.name,
        colour=yarn.colour,
        weight=yarn.weight,
        wraps=yarn.wraps,
        plush=yarn.plush,
        skein_m=yarn.skein_m,
        skein_g=yarn.skein_g,
    )


def own_hook_entry(own: OwnHook | None) -> pages.OwnHookEntry | None:
    """The hook of a part's own as it is kept."""
    return None if own is None else pages.OwnHookEntry.model_validate(asdict(own))


def _size_entry(size: Size) -> pages.SizeEntry:
    return pages.SizeEntry(
        key=size.key,
        name=size.name,
        kind=size.kind.value,
        yarn=None if size.yarn is None else _yarn_entry(size.yarn),
        hook_mm=size.hook_mm,
        strands=size.strands,
        height_mm=size.height_mm,
        part=size.part,
        count=size.count,
        grams=size.grams,
        girth_mm=size.girth_mm,
        ease_mm=size.ease_mm,
        fits=size.fits,
        alone=size.alone,
        across_mm=size.across_mm,
        easy=size.easy,
        second=None if size.second is None else _yarn_entry(size.second),
        apart=size.apart,
        among_mm=list(size.among_mm),
        settled_share=size.settled_share,
        others=[
            pages.RoleYarnEntry(
                role=r.role,
                yarn=_yarn_entry(r.yarn),
                hook_mm=r.hook_mm,
                strands=r.strands,
                second=None if r.second is None else _yarn_entry(r.second),
            )
            for r in size.others
        ],
    )


def permissions_entry(allowed: Permissions) -> pages.PermissionsEntry:
    """Permissions as they are kept."""
    return pages.PermissionsEntry(
        change=allowed.change,
        selling=allowed.selling.value,
        rounds=allowed.rounds,
        difference=allowed.difference,
        alike=allowed.alike,
        credit=allowed.credit,
        words=allowed.words,
    )


def source_entry(source: Source) -> pages.SourceEntry:
    """A source as it is kept."""
    p = source.permissions
    allowed = None if p is None else permissions_entry(p)
    return pages.SourceEntry(
        title=source.title[:120],
        designer=source.designer[:120],
        version=source.version[:120],
        terms=source.terms[:500],
        permissions=allowed,
        parts=list(source.parts),
        own=source.own,
    )


def manifest_of(value: Design, versions: Mapping[str, int]) -> pages.Manifest:
    """A value as a manifest. versions: of its parts' texts, by key. ValidationError for what no page can say."""
    g, brief, printed = value.gauge, value.brief, value.printed
    gauge = {
        "yarns": [_yarn_entry(y) for y in value.yarns],
        "hook_mm": g.hook_mm,
        "strands": g.strands,
        "source": g.source.value,
        "stitch_mm": g.stitch_mm,
        "round_mm": g.round_mm,
        "lean": g.lean,
        "yarn_per_stitch_mm": g.yarn_per_stitch_mm,
        "firmness": g.firmness,
    }
    return pages.Manifest.model_validate(
        {
            "name": value.name,
            "terms": value.terms.value,
            "parts": [
                pages.PartEntry(
                    key=p.key,
                    name=p.name,
                    make=p.make,
                    version=versions[p.key],
                    colour=p.colour,
                    own_hook=own_hook_entry(p.own_hook),
                )
                for p in value.parts
            ],
            "gauge": gauge,
            "brief": {
                "audience": brief.audience.value,
                "level": brief.level.value,
                "height_mm": brief.height_mm,
                "intro": brief.intro,
                "notes": brief.notes,
            },
            "assembly": _assembly_page(value),
            "sizes": {"sizes": [_size_entry(s) for s in value.sizes]},
            "booklet": {
                "version": printed.version,
                "count_table": printed.count_table,
                "charts": printed.charts,
                "notions": ", ".join(printed.notions),
                "permissions": printed.permissions,
                "credits": printed.credits,
                "notes": printed.notes,
                "changes": printed.changes,
                "order": printed.order,
                "height_made": _made_entry(printed.height_made),
                "width_made": _made_entry(printed.width_made),
            },
            "sources": [source_entry(s) for s in value.sources],
        }
    )


def _said(at: Place) -> dict[str, object]:
    kept = {"share": None, "angle": None} if at.anchor is None else {"share": at.anchor.share, "angle": at.anchor.angle}
    return {"round": at.round, "stitch": at.stitch, **kept}
