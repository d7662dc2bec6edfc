"""Whose yarns and samples: only her own; others' are not there."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.yarns.models import Sample, Yarn


def visible_yarns(user: User) -> QuerySet[Yarn]:
    """Her yarns."""
    return Yarn.objects.filter(owner=user)


def visible_samples(user: User) -> QuerySet[Sample]:
    """Her samples."""
    return Sample.objects.filter(owner=user).select_related("yarn")


def yarn_of(user: User, pk: int) -> Yarn:
    """One of her yarns, else 404."""
    return get_object_or_404(visible_yarns(user), pk=pk)


def sample_of(user: User, pk: int) -> Sample:
    """One of her samples, else 404."""
    return get_object_or_404(visible_samples(user), pk=pk)
