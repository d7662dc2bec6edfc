"""Routes of translators, for the designer; a translator has a page of her own (`pages`)."""

from __future__ import annotations

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.guard import designer
from studio.translating import actions
from studio.translating.models import Translator
from studio.translating.schemas import TranslatedOut, TranslatorIn, TranslatorOut

router = Router(tags=["translators"])


def _shown(one: Translator, address: str | None = None) -> TranslatorOut:
    return TranslatorOut(
        id=one.pk,
        name=one.name,
        language=one.language,  # type: ignore[arg-type]  # only those of the schema are kept
        expires=one.link.expires,
        closed=one.link.revoked or one.link.expires <= timezone.now(),
        pieces=[TranslatedOut(source=p.source, text=p.text) for p in one.pieces.all()],
        address=address,
    )


def _all(design: Design) -> list[TranslatorOut]:
    return [_shown(one) for one in design.translators.select_related("link").prefetch_related("pieces")]


@router.get("/{int:design_id}/translators", response=list[TranslatorOut])
def read_translators(request: HttpRequest, design_id: int) -> list[TranslatorOut]:
    """Who translates a design, and what each of them wrote."""
    return _all(design_of(designer(request), design_id))


@router.post("/{int:design_id}/translators", response={201: TranslatorOut})
def invite(request: HttpRequest, design_id: int, payload: TranslatorIn) -> Status[TranslatorOut]:
    """A link for a translator; its address is told this once and kept nowhere."""
    user = designer(request)
    made, token = actions.invite(user, design_of(user, design_id), payload.language, payload.name, payload.days)
    return Status(201, _shown(made, f"/translate/{token}"))


@router.delete("/{int:design_id}/translators/{int:translator_id}", response=list[TranslatorOut])
def remove(request: HttpRequest, design_id: int, translator_id: int) -> list[TranslatorOut]:
    """Throw away a translator, her link, and what of hers was not taken over."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove(user, get_object_or_404(design.translators, pk=translator_id))
    return _all(design)
