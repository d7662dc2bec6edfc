"""Changes of commissions, by the designer and by the client. Each is made in one transaction."""

from __future__ import annotations

from collections.abc import Sequence
from decimal import Decimal
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from studio.commissions.models import Agreement, AgreementState, Commission, ShownPicture
from studio.designs.models import Design
from studio.errors import NOT_FOUND, Refusal
from studio.links.actions import make_link, revoke_link
from studio.making.models import MakingPicture
from studio.policy import Actor, Owner, Purpose, Verb, demand

MOST_COMMISSIONS, MOST_AGREEMENTS, MOST_SHOWN = 40, 100, 40
LINK_DAYS = 300


@transaction.atomic
def take(user: User, design: Design, values: dict[str, Any]) -> Commission:
    """Take a commission."""
    demand(Owner(user), Verb.CHANGE, design)
    if design.commissions.count() >= MOST_COMMISSIONS:
        raise Refusal(422, "full", f"A design has at most {MOST_COMMISSIONS} commissions.")
    return Commission.objects.create(design=design, **values)


@transaction.atomic
def change(user: User, commission: Commission, values: dict[str, Any]) -> None:
    """Say otherwise who ordered it, its price and its day."""
    demand(Owner(user), Verb.CHANGE, commission)
    Commission.objects.filter(pk=commission.pk).update(**values)


@transaction.atomic
def remove(user: User, commission: Commission) -> None:
    """Throw a commission away, with its link."""
    demand(Owner(user), Verb.REMOVE, commission)
    if commission.link is not None:
        revoke_link(user, commission.link)
    commission.delete()


@transaction.atomic
def give_link(user: User, commission: Commission) -> str:
    """A link for the client, told this once; an earlier one opens nothing any more."""
    demand(Owner(user), Verb.CHANGE, commission)
    if commission.link is not None:
        revoke_link(user, commission.link)
    link, token = make_link(user, commission.design, Purpose.CLIENT, days=LINK_DAYS, note=commission.client)
    Commission.objects.filter(pk=commission.pk).update(link=link)
    return token


@transaction.atomic
def withdraw_link(user: User, commission: Commission) -> None:
    """Withdraw the client's link."""
    demand(Owner(user), Verb.CHANGE, commission)
    if commission.link is not None:
        revoke_link(user, commission.link)


@transaction.atomic
def show_pictures(user: User, commission: Commission, chosen: Sequence[tuple[UUID, str]]) -> None:
    """Which photographs the client sees, each with what is said below it; those of the design's makings only."""
    demand(Owner(user), Verb.CHANGE, commission)
    if len(chosen) > MOST_SHOWN:
        raise Refusal(422, "full", f"A client is shown at most {MOST_SHOWN} photographs.")
    wanted = dict(chosen)
    there = MakingPicture.objects.filter(pk__in=list(wanted), making__design=commission.design).values_list(
        "pk", flat=True
    )
    if set(there) != set(wanted):
        raise Refusal(404, "not-found", NOT_FOUND)
    commission.pictures.exclude(picture_id__in=list(wanted)).delete()
    for pk, caption in wanted.items():
        ShownPicture.objects.update_or_create(commission=commission, picture_id=pk, defaults={"caption": caption})


@transaction.atomic
def ask(user: User, commission: Commission, text: str, price: Decimal) -> Agreement:
    """Ask the client about a change, and what it changes of the price."""
    demand(Owner(user), Verb.CHANGE, commission)
    if commission.agreements.count() >= MOST_AGREEMENTS:
        raise Refusal(422, "full", f"At most {MOST_AGREEMENTS} changes are asked about in a commission.")
    return Agreement.objects.create(commission=commission, text=text, price=price)


@transaction.atomic
def take_back(user: User, agreement: Agreement) -> None:
    """Take a question back that was not answered yet. Refusal where it was: what was agreed stays on record."""
    demand(Owner(user), Verb.CHANGE, agreement)
    now = Agreement.objects.select_for_update().get(pk=agreement.pk)
    if now.state != AgreementState.ASKED:
        raise Refusal(409, "answered", "The client has answered: what was agreed stays on record.")
    now.delete()


@transaction.atomic
def answer(actor: Actor, agreement: Agreement, state: AgreementState, said: str) -> None:
    """What the client says to a change: yes or no, once, with the day. Refusal where she has answered already."""
    demand(actor, Verb.REPORT, agreement)
    now = Agreement.objects.select_for_update().get(pk=agreement.pk)
    if now.state != AgreementState.ASKED:
        raise Refusal(409, "answered", "This was answered already; write to the designer to change it.")
    now.state, now.said, now.answered = state, said.strip()[:1_000], timezone.now()
    now.save(update_fields=["state", "said", "answered"])


def total(commission: Commission) -> Decimal:
    """The price with all that was agreed."""
    agreed = (a.price for a in commission.agreements.all() if a.state == AgreementState.YES)
    return commission.price + sum(agreed, Decimal(0))
