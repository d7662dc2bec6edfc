"""Who is asking: the signed-in designer, with cross-site requests kept out."""

from __future__ import annotations

from typing import Any, cast

from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.security import SessionAuth
from ninja.utils import check_csrf

from studio.errors import Refusal
from studio.policy import Actor, LinkHolder, Owner

signed_in = SessionAuth(csrf=True)


def same_site(request: HttpRequest) -> bool:
    """Let anybody in who comes from our own pages: for signing in and up."""
    if check_csrf(request) is not None:
        raise Refusal(403, "stale-page", "This page is out of date: reload it and try again.")
    return True


def designer(request: HttpRequest) -> User:
    """The signed-in designer of a request that passed `signed_in`."""
    return cast(User, request.user)


def actor(request: HttpRequest) -> Actor:
    """Whoever asks on a route that designers and holders of links may both ask."""
    found: Any = getattr(request, "auth", None)
    return found if isinstance(found, LinkHolder) else Owner(designer(request))
