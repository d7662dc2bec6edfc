"""Whose yarns and samples: only her own; others' are not there."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.policy import Owner, Rule, Verb, register, visible
from studio.yarns.models import Sample, Yarn

register(Yarn, Rule("owner"))
register(Sample, Rule("owner"))


def visible_yarns(user: User) -> QuerySet[Yarn]:
    """Her yarns."""
    return visible(Owner(user), Verb.SEE, Yarn)


def visible_samples(user: User) -> QuerySet[Sample]:
    """Her samples."""
    return visible(Owner(user), Verb.SEE, Sample).select_related("yarn")


def sample_like(user: User, yarn: int | None, hook_mm: float | None, strands: int) -> Sample | None:
    """Her newest sample of this yarn on this hook with so many strands, None where she has none."""
    if yarn is None or hook_mm is None:
        return None
    like = visible_samples(user).filter(yarn_id=yarn, strands=strands, hook_mm__range=(hook_mm - 0.01, hook_mm + 0.01))
    return like.first()


def yarn_of(user: User, pk: int) -> Yarn:
    """One of her yarns, else 404."""
    return get_object_or_404(visible_yarns(user), pk=pk)


def sample_of(user: User, pk: int) -> Sample:
    """One of her samples, else 404."""
    return get_object_or_404(visible_samples(user), pk=pk)
