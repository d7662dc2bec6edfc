"""Routes of letters."""

from __future__ import annotations

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.guard import designer
from studio.post import actions
from studio.post.schemas import LetterIn, LetterOut, Letters

router = Router(tags=["post"])


def _letters(design: Design) -> Letters:
    found = [LetterOut.model_validate(row, from_attributes=True) for row in design.letters.all()]
    return Letters(letters=found, by_folder=actions.by_folder())


@router.get("/{int:design_id}/letters", response=Letters)
def read_letters(request: HttpRequest, design_id: int) -> Letters:
    """The letters about a design, the newest first."""
    return _letters(design_of(designer(request), design_id))


@router.post("/{int:design_id}/letters", response={201: Letters})
def send_letter(request: HttpRequest, design_id: int, payload: LetterIn) -> Status[Letters]:
    """Send a letter."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.send(user, design, payload.to, payload.subject, payload.body)
    return Status(201, _letters(design))


@router.delete("/{int:design_id}/letters/{int:letter_id}", response=Letters)
def remove_letter(request: HttpRequest, design_id: int, letter_id: int) -> Letters:
    """Throw a letter away."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove(user, get_object_or_404(design.letters, pk=letter_id))
    return _letters(design)
