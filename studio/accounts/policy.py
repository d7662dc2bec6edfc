"""Whose account: everybody has only her own."""

from __future__ import annotations

from django.contrib.auth.models import User

from studio.accounts.models import OwnSession, Profile
from studio.policy import Rule, register

register(Profile, Rule("user"))
register(OwnSession, Rule("user"))


def own_profile(user: User) -> Profile:
    """The designer's profile, made with defaults where an old account has none."""
    profile, _ = Profile.objects.get_or_create(user=user, defaults={"studio": user.username})
    return profile
