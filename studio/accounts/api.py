"""Routes of accounts."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth.models import User
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Status

from studio.accounts import actions, forgotten
from studio.accounts.policy import own_profile
from studio.accounts.schemas import (
    AddressChange,
    Forgotten,
    Me,
    NewPassword,
    PasswordChange,
    Preferences,
    Session,
    SignIn,
    SignUp,
)
from studio.guard import designer, same_site

router = Router(tags=["accounts"])


def _me(user: User) -> Me:
    profile = own_profile(user)
    return Me.model_validate(
        {
            "username": user.username,
            "studio": profile.studio,
            "terms": profile.terms,
            "left_handed": profile.left_handed,
            "address": user.email,
        }
    )


def _session(user: User | None) -> Session:
    return Session(me=_me(user) if user else None, demo=settings.LOOPBACK)


@router.get("/session", auth=None, response=Session)
def read_session(request: HttpRequest) -> Session:
    """Who is signed in; also hands out the token that changes need."""
    get_token(request)
    return _session(request.user if isinstance(request.user, User) else None)


@router.post("/session", auth=same_site, response=Session)
def sign_in(request: HttpRequest, payload: SignIn) -> Session:
    """Sign in."""
    return _session(actions.sign_in(request, payload.username, payload.password))


@router.delete("/session", response=Session)
def sign_out(request: HttpRequest) -> Session:
    """Sign out."""
    actions.sign_out(request)
    return _session(None)


@router.post("/accounts", auth=same_site, response=Session)
def sign_up(request: HttpRequest, payload: SignUp) -> Session:
    """Make an account and sign in to it."""
    return _session(actions.open_studio(request, payload.username, payload.password, payload.studio))


@router.put("/session/password", response=Session)
def change_password(request: HttpRequest, payload: PasswordChange) -> Session:
    """Set another password."""
    user = designer(request)
    actions.change_password(request, user, payload.present, payload.next)
    return _session(user)


@router.put("/session/address", response=Session)
def set_address(request: HttpRequest, payload: AddressChange) -> Session:
    """Set where the way back in is sent after a forgotten password."""
    user = designer(request)
    forgotten.set_address(request, user, payload.present, payload.address)
    return _session(user)


@router.post("/session/forgotten", auth=same_site, response={204: None})
def ask_for_another_password(request: HttpRequest, payload: Forgotten) -> Status[None]:
    """Have a letter sent for a forgotten password; the answer is the same for every name."""
    forgotten.ask(request, payload.username)
    return Status(204, None)


@router.post("/session/new-password", auth=same_site, response=Session)
def set_new_password(request: HttpRequest, payload: NewPassword) -> Session:
    """Set another password by the link of a letter, and come in."""
    return _session(forgotten.set_new(request, payload.user, payload.token, payload.password))


@router.put("/session/preferences", response=Session)
def set_preferences(request: HttpRequest, payload: Preferences) -> Session:
    """Set studio name, terms and hand."""
    user = designer(request)
    actions.set_preferences(user, payload.studio, payload.terms, payload.left_handed)
    return _session(User.objects.get(pk=user.pk))
