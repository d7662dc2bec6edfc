"""Whose yarns and swatches: only her own; others' are not there."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.policy import Owner, Rule, Verb, register, visible
from studio.yarns.models import Swatch, Yarn

register(Yarn, Rule("owner"))
register(Swatch, Rule("owner"))


def visible_yarns(user: User) -> QuerySet[Yarn]:
    """Her yarns."""
    return visible(Owner(user), Verb.SEE, Yarn)


def visible_swatches(user: User) -> QuerySet[Swatch]:
    """Her swatches."""
    return visible(Owner(user), Verb.SEE, Swatch).select_related("yarn")


def swatch_like(user: User, yarn: int | None, hook_mm: float | None, strands: int) -> Swatch | None:
    """Her newest swatch of this yarn on this hook with so many strands, None where she has none."""
    if yarn is None or hook_mm is None:
        return None
    like = visible_swatches(user).filter(yarn_id=yarn, strands=strands, hook_mm__range=(hook_mm - 0.01, hook_mm + 0.01))
    return like.first()


def yarn_of(user: User, pk: int) -> Yarn:
    """One of her yarns, else 404."""
    return get_object_or_404(visible_yarns(user), pk=pk)


def swatch_of(user: User, pk: int) -> Swatch:
    """One of her swatches, else 404."""
    return get_object_or_404(visible_swatches(user), pk=pk)
