"""Whose makings: the designer's whose design it is, and each one maker's who holds its link."""

from __future__ import annotations

from uuid import UUID

from django.shortcuts import get_object_or_404

from studio.errors import NOT_FOUND, Refusal
from studio.making.models import LARGE, Decision, FrozenEdition, Making, MakingEvent, MakingPicture
from studio.policy import Actor, LinkHolder, Purpose, Rule, Verb, demand, register, visible

_MAKERS = {Purpose.TEST: frozenset({Verb.SEE, Verb.REPORT})}

register(FrozenEdition, Rule("design__owner", "design_id"))
register(Making, Rule("design__owner", "design_id", _MAKERS, link="link_id"))
register(MakingEvent, Rule("making__design__owner", "making__design_id", _MAKERS, link="making__link_id"))
register(MakingPicture, Rule("making__design__owner", "making__design_id", _MAKERS, link="making__link_id"))
register(Decision, Rule("making__design__owner", "making__design_id"))


def making_of(actor: Actor, pk: UUID, verb: Verb = Verb.SEE) -> Making:
    """A making that the actor may do this with, else 404; 403 with the reason where a link no longer opens it."""
    if isinstance(actor, LinkHolder):
        making = Making.objects.filter(pk=pk).select_related("design", "edition").defer(*LARGE).first()
        if making is None:
            raise Refusal(404, "not-found", NOT_FOUND)
        demand(actor, verb, making)
        return making
    return get_object_or_404(visible(actor, verb, Making).select_related("design", "edition").defer(*LARGE), pk=pk)
