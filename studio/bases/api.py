"""Routes of bases, comparisons and grafts."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status

from craft.design.commission import Rates, price_of
from craft.design.design import Design as DesignValue
from craft.design.grading import first_size, together
from craft.design.remix import (
    Adapt,
    Change,
    Comes,
    Cut,
    Kind,
    Worn,
    comes_of,
    compared,
    grafted,
    ports_along,
    said,
    worn_of,
)
from craft.errors import CraftError
from craft.rounds.fabric import Tally
from studio.bases import actions
from studio.bases.reading import BaseNow, base_now, change_key, cut_of, other_value
from studio.bases.schemas import (
    AloneIn,
    BaseOut,
    BesideOut,
    ChangeOut,
    ComesOut,
    ComparedRound,
    ComparisonOut,
    ConflictOut,
    EyesTogether,
    GraftIn,
    GraftOut,
    HeldAgainst,
    LaidOverAll,
    PartsComparedOut,
    PortsOut,
    PriceNow,
    TakeIn,
    TogetherIn,
    TogetherOut,
    WayOut,
    WornOut,
    YarnTogetherOut,
)
from studio.bases.shapes import part_picture, shapes_apart
from studio.bench.previews import estimate
from studio.designs.policy import design_of
from studio.designs.reading import design_value, read_design
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.guard import designer
from studio.pieces.values import port_out

router = Router(tags=["bases"])


@router.get("/{int:design_id}/price", response=PriceNow)
def read_price(request: HttpRequest, design_id: int) -> PriceNow:
    """What a commissioned figure costs, at the rates in its brief."""
    design = design_of(designer(request), design_id)
    read, terms = read_design(design), design.manifest.brief.commission
    first = first_size(read.value, read.parts)
    if terms is None or not first.parts:
        return PriceNow(price=None, hours=None, grams=None, unknown=[])
    found = price_of(together([(first, 1)]), Rates(terms.hour, terms.yarn_100g, terms.extra))
    return PriceNow(
        price=estimate(found.price),
        hours=estimate(found.hours),
        grams=estimate(found.grams),
        unknown=list(found.unknown),
    )


@router.post("/together", response=TogetherOut)
def read_together(request: HttpRequest, payload: TogetherIn) -> TogetherOut:
    """What several figures take, each so many times; nothing is kept."""
    user = designer(request)
    figures, unfit = [], []
    for asked in payload.figures:
        read = read_design(design_of(user, asked.design))
        first = first_size(read.value, read.parts)
        if first.parts:
            figures.append((first, asked.times))
        else:
            unfit.append(read.value.name)
    found = together(figures)
    return TogetherOut(
        figures=found.figures,
        yarns=[
            YarnTogetherOut(
                name=y.name,
                colour=y.colour,
                stitches=y.stitches,
                metres=estimate(y.metres),
                grams=None if y.grams is None else estimate(y.grams),
                skeins=y.skeins,
            )
            for y in found.yarns
        ],
        eyes=[EyesTogether(mm=mm, many=many) for mm, many in found.eyes],
        filling_g=estimate(found.filling_g),
        hours=estimate(found.hours),
        notions=list(found.notions),
        unfit=unfit,
    )


@router.get("/{int:design_id}/base", response=BaseOut)
def read_base(request: HttpRequest, design_id: int) -> BaseOut:
    """What is new in the design that this one was made from."""
    user = designer(request)
    return _base(base_now(user, design_of(user, design_id)))


@router.post("/{int:design_id}/base/take", response=DesignOut)
def take_from_base(request: HttpRequest, design_id: int, payload: TakeIn) -> DesignOut:
    """Take changes of the base, as one change."""
    return shown(actions.take_from_base(designer(request), design_id, payload))


@router.get("/{int:design_id}/comparison", response=ComparisonOut)
def read_comparison(
    request: HttpRequest, design_id: int, other: int | None = None, revision: int | None = None, size: str | None = None
) -> ComparisonOut:
    """This design held against another one, itself when none is named: as it is, at an earlier revision, or at a size."""
    user = designer(request)
    here = design_value(design_of(user, design_id))
    found = compared(other_value(user, other or design_id, revision, size), here)
    parts = [
        PartsComparedOut(
            key=p.key,
            name=p.name,
            in_a=p.a is not None,
            in_b=p.b is not None,
            words=list(p.words),
            rounds=[BesideOut(a=_round(r.a), b=_round(r.b), same=r.same) for r in p.rounds],
        )
        for p in found.parts
    ]
    return ComparisonOut(
        a=found.a.name,
        b=found.b.name,
        parts=parts,
        words=list(found.words),
        sums=list(found.sums),
        a_comes=_comes(found.comes[0]),
        b_comes=_comes(found.comes[1]),
    )


@router.post("/{int:design_id}/comparison/shapes", response=LaidOverAll)
def lay_over(request: HttpRequest, design_id: int, payload: HeldAgainst) -> LaidOverAll:
    """Have the parts of this design and of what it is held against settled, and lay them over each other."""
    user = designer(request)
    here = design_value(design_of(user, design_id))
    return shapes_apart(user, other_value(user, payload.other or design_id, payload.revision, payload.size), here)


@router.get("/{int:design_id}/parts/{key}/ports", response=PortsOut)
def read_ports(request: HttpRequest, design_id: int, key: str) -> PortsOut:
    """Where a part can be cut."""
    value = design_value(design_of(designer(request), design_id))
    return PortsOut(ports=[port_out(p) for p in ports_along(value, key)])


@router.get("/{int:design_id}/worn", response=list[WornOut])
def read_worn(request: HttpRequest, design_id: int) -> list[WornOut]:
    """What a design wears and holds and can put off again, and what each thing fits."""
    return [_worn(w) for w in worn_of(design_value(design_of(designer(request), design_id)))]


@router.post("/{int:design_id}/worn/alone", response={201: DesignOut})
def make_alone(request: HttpRequest, design_id: int, payload: AloneIn) -> Status[DesignOut]:
    """Make something that comes off a design of its own."""
    return Status(201, shown(actions.make_alone(designer(request), design_id, payload.part)))


@router.post("/{int:design_id}/graft/ways", response=GraftOut)
def read_ways(request: HttpRequest, design_id: int, payload: GraftIn) -> GraftOut:
    """Every way in which a part can go on as a piece; nothing is kept."""
    user = designer(request)
    below = Cut(design_value(design_of(user, design_id)), payload.part, payload.upto)
    above = cut_of(user, payload.taken)
    have, need = below.here.live, above.here.before
    wanted = (None,) if have == need else (Adapt.ROUNDS, Adapt.GRADE)
    return GraftOut(ways=[_way(below, above, adapt) for adapt in wanted])


@router.post("/{int:design_id}/graft", response={201: DesignOut})
def graft(request: HttpRequest, design_id: int, payload: GraftIn) -> Status[DesignOut]:
    """Have a part go on as a piece, as one change."""
    return Status(201, shown(actions.graft(designer(request), design_id, payload)))


def _way(below: Cut, above: Cut, adapt: Adapt | None) -> WayOut:
    empty = WayOut(
        adapt=None if adapt is None else adapt.value,
        problem=None,
        base=below.here.live,
        piece=above.here.before,
        adapters=0,
        scale=1.0,
        text="",
        counts=[],
        told=[],
        comes=None,
        picture="",
    )
    try:
        made = grafted(below, above, adapt)
    except CraftError as error:
        return empty.model_copy(update={"problem": error.message})
    part = made.design.part(below.part)
    return empty.model_copy(
        update={
            "adapters": made.graft.adapters,
            "scale": made.graft.scale,
            "text": part.text if part else "",
            "counts": list(made.graft.worked.counts),
            "told": list(made.told),
            "comes": _comes(comes_of(made.design)),
            "picture": part_picture(made.graft.worked, made.design, "The part as it goes on so, estimated"),
        }
    )


def _base(found: BaseNow) -> BaseOut:
    merge = found.merge
    place = {n: at for at, c in enumerate(merge.conflicts) for n in c.theirs}
    changes = [_change(c, merge.base, merge.theirs_now, place.get(n)) for n, c in enumerate(merge.theirs)]
    conflicts = [
        ConflictOut(hers=[_change(merge.hers[n], merge.base, merge.mine, at) for n in c.hers])
        for at, c in enumerate(merge.conflicts)
    ]
    return BaseOut(
        id=found.origin.pk,
        name=found.origin.name,
        taken=found.taken,
        now=found.now,
        size=found.size.name if found.size else None,
        changes=changes,
        conflicts=conflicts,
        fits=None if found.fits is None else _worn(found.fits),
    )


def _worn(found: Worn) -> WornOut:
    return WornOut(
        key=found.key,
        name=found.name,
        host=found.host,
        fixing=found.fixing.value,
        around_mm=found.around_mm,
        own_mm=found.own_mm,
        ease_mm=found.ease_mm,
        fit=found.fit,
        said=found.said(),
    )


def _change(change: Change, base: DesignValue, new: DesignValue, conflict: int | None) -> ChangeOut:
    before, after = (change.before, change.after) if change.kind is Kind.ROUNDS else ([], [])
    if change.kind is Kind.SHAPE:
        before, after = change.before["text"].splitlines(), change.after["text"].splitlines()
    return ChangeOut(
        key=change_key(change),
        part=change.part,
        said=said(change, base, new),
        before=before,
        after=after,
        conflict=conflict,
    )


def _round(tally: Tally | None) -> ComparedRound | None:
    return None if tally is None else ComparedRound(label=tally.label, count=tally.live)


def _comes(comes: Comes) -> ComesOut:
    return ComesOut(
        stitches=comes.stitches,
        height_mm=comes.height_mm.value,
        metres=comes.metres.value,
        hours=comes.hours.value,
        filling_g=comes.filling_g.value,
    )
