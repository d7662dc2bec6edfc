"""Routes of commissions, for the designer. What the client sees are pages of their own (`pages.py`)."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from studio.commissions import actions
from studio.commissions.models import Commission
from studio.commissions.schemas import (
    AgreementIn,
    AgreementOut,
    ClientLink,
    CommissionIn,
    CommissionOut,
    Commissions,
    PhotoOut,
    ShownList,
)
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.guard import designer
from studio.making.models import Kind, MakingPicture
from studio.policy import Verb, may

router = Router(tags=["commissions"])


def _shown(design: Design) -> Commissions:
    rows = design.commissions.select_related("link").prefetch_related("agreements", "pictures")
    # What testers gave is not the designer's to show to a client.
    photos = MakingPicture.objects.filter(making__design=design).exclude(making__kind=Kind.TESTER).defer("content")
    return Commissions(commissions=[_commission(row, list(photos)) for row in rows])


def _commission(row: Commission, photos: list[MakingPicture]) -> CommissionOut:
    seen = {p.picture_id: p.caption for p in row.pictures.all()}
    return CommissionOut(
        id=row.pk,
        client=row.client,
        about=row.about,
        price=float(row.price),
        paid=float(row.paid),
        total=float(actions.total(row)),
        currency=row.currency,
        due=row.due,
        link=row.link is not None and bool(may(row.link.holder, Verb.SEE, row)),
        agreements=[AgreementOut.model_validate(a, from_attributes=True) for a in row.agreements.all()],
        photos=[
            PhotoOut(making=p.making_id, picture=p.pk, shown=p.pk in seen, caption=seen.get(p.pk, "")) for p in photos
        ],
    )


def _row(design: Design, pk: int) -> Commission:
    return get_object_or_404(design.commissions.select_related("link", "design"), pk=pk)


@router.get("/{int:design_id}/commissions", response=Commissions)
def read_commissions(request: HttpRequest, design_id: int) -> Commissions:
    """All commissions of a design."""
    return _shown(design_of(designer(request), design_id))


@router.post("/{int:design_id}/commissions", response={201: Commissions})
def take(request: HttpRequest, design_id: int, payload: CommissionIn) -> Status[Commissions]:
    """Take a commission."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.take(user, design, payload.dict())
    return Status(201, _shown(design))


@router.put("/{int:design_id}/commissions/{int:commission_id}", response=Commissions)
def change(request: HttpRequest, design_id: int, commission_id: int, payload: CommissionIn) -> Commissions:
    """Say otherwise who ordered it, its price and its day."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.change(user, _row(design, commission_id), payload.dict())
    return _shown(design)


@router.delete("/{int:design_id}/commissions/{int:commission_id}", response=Commissions)
def remove(request: HttpRequest, design_id: int, commission_id: int) -> Commissions:
    """Throw a commission away with its link."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove(user, _row(design, commission_id))
    return _shown(design)


@router.post("/{int:design_id}/commissions/{int:commission_id}/link", response={201: ClientLink})
def give_link(request: HttpRequest, design_id: int, commission_id: int) -> Status[ClientLink]:
    """A link for the client; an earlier one opens nothing any more."""
    user = designer(request)
    token = actions.give_link(user, _row(design_of(user, design_id), commission_id))
    return Status(201, ClientLink(path=f"/agree/{token}"))


@router.delete("/{int:design_id}/commissions/{int:commission_id}/link", response=Commissions)
def withdraw_link(request: HttpRequest, design_id: int, commission_id: int) -> Commissions:
    """Withdraw the client's link."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.withdraw_link(user, _row(design, commission_id))
    return _shown(design)


@router.put("/{int:design_id}/commissions/{int:commission_id}/pictures", response=Commissions)
def show_pictures(request: HttpRequest, design_id: int, commission_id: int, payload: ShownList) -> Commissions:
    """Which photographs the client sees."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.show_pictures(user, _row(design, commission_id), [(p.picture, p.caption) for p in payload.pictures])
    return _shown(design)


@router.post("/{int:design_id}/commissions/{int:commission_id}/agreements", response={201: Commissions})
def ask(request: HttpRequest, design_id: int, commission_id: int, payload: AgreementIn) -> Status[Commissions]:
    """Ask the client about a change."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.ask(user, _row(design, commission_id), payload.text, payload.price)
    return Status(201, _shown(design))


@router.delete("/{int:design_id}/commissions/{int:commission_id}/agreements/{uuid:agreement_id}", response=Commissions)
def take_back(request: HttpRequest, design_id: int, commission_id: int, agreement_id: UUID) -> Commissions:
    """Take a question back that was not answered yet."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.take_back(user, get_object_or_404(_row(design, commission_id).agreements, pk=agreement_id))
    return _shown(design)
