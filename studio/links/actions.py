"""Making, withdrawing and using links."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import CharField, Value
from django.db.models.functions import Cast, Concat
from django.utils import timezone

from studio.designs.models import Design
from studio.errors import NOT_FOUND, Refusal
from studio.links.models import Link
from studio.policy import LinkHolder, Owner, Purpose, Verb, demand

TOKEN_BYTES = 32
MOST_DAYS, MOST_LINKS = 400, 500
WINDOW, MOST_IN_WINDOW = timedelta(minutes=1), 240
"""How often one link may be used: many pages of one reader, not a crawler."""


FORGOTTEN_AFTER = timedelta(days=90)
_GONE = "gone-"
"""How the digest of a link begins that nobody can hold any more: no digest does."""


def _hash(token: str) -> str:
    return hashlib.sha256(token.encode()).hexdigest()


@transaction.atomic
def make_link(user: User, design: Design, purpose: Purpose, *, days: int, note: str = "") -> tuple[Link, str]:
    """A link and its token, which is told this once and kept nowhere."""
    demand(Owner(user), Verb.CHANGE, design)
    if not 1 <= days <= MOST_DAYS:
        raise Refusal(422, "invalid", f"A link holds from 1 to {MOST_DAYS} days.", field="days")
    if design.links.count() >= MOST_LINKS:
        raise Refusal(422, "full", f"A design has at most {MOST_LINKS} links; withdraw some first.")
    token = secrets.token_urlsafe(TOKEN_BYTES)
    link = Link.objects.create(
        design=design,
        purpose=purpose.value,
        token_hash=_hash(token),
        note=note[:120],
        expires=timezone.now() + timedelta(days=days),
    )
    return link, token


@transaction.atomic
def revoke_link(user: User, link: Link) -> None:
    """Withdraw a link for good."""
    demand(Owner(user), Verb.CHANGE, link)
    Link.objects.filter(pk=link.pk).update(revoked=True)


@transaction.atomic
def holder_of(token: str) -> LinkHolder:
    """Whoever holds this token. Refusal 404 when no link has it, 429 when it is used too often.

    Whether the link still holds is for the policy to say, with the reason.
    """
    link = Link.objects.select_for_update().filter(token_hash=_hash(token[:200])).first()
    if link is None:
        raise Refusal(404, "not-found", NOT_FOUND)
    now = timezone.now()
    if link.window is None or now - link.window >= WINDOW:
        link.window, link.uses = now, 0
    link.uses += 1
    link.save(update_fields=["window", "uses"])
    if link.uses > MOST_IN_WINDOW:
        raise Refusal(429, "too-often", "This link was used very often just now: wait a minute.")
    return link.holder


def clear_old() -> int:
    """Forget token and note of links that ran out or were withdrawn long ago; how many. What came by them stays."""
    long_ago = timezone.now() - FORGOTTEN_AFTER
    spent = Link.objects.filter(expires__lt=long_ago).exclude(token_hash__startswith=_GONE)
    return spent.update(token_hash=Concat(Value(_GONE), Cast("pk", CharField())), note="")
