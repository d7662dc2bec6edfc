"""Changes of accounts, by Django's own machinery."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest

from studio.accounts import tries
from studio.accounts.models import Profile
from studio.accounts.sessions import end_all, note_device
from studio.errors import Refusal
from studio.gates import Gate

BACKEND = "django.contrib.auth.backends.ModelBackend"


HASHING = Gate(at_once=1, in_line=2, work="signing in")
"""A password takes a tenth of a second of a whole core to check, on purpose, and 100 MB."""


def sign_up(username: str, password: str, studio: str) -> User:
    """A new designer; Refusal when the name is taken or the password too easy."""
    user = User(username=username)
    try:
        User.username_validator(username)
        validate_password(password, user)
    except ValidationError as error:
        field = "username" if "username" in str(error).lower() else "password"
        raise Refusal(422, "invalid", " ".join(error.messages), field=field) from None
    if User.objects.filter(username=username).exists():
        raise _taken()
    with HASHING.passed():
        user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
            Profile.objects.create(user=user, studio=studio)
    except IntegrityError:
        raise _taken() from None
    return user


def _taken() -> Refusal:
    return Refusal(422, "invalid", "That name is taken; choose another.", field="username")


def open_studio(request: HttpRequest, username: str, password: str, studio: str) -> User:
    """A new designer, signed in at once; Refusal as for `sign_up`, and for the many that come from one address."""
    counter = tries.sign_ups(request)
    counter.check()
    user = sign_up(username, password, studio)
    counter.count()
    enter(request, user)
    return user


def sign_in(request: HttpRequest, username: str, password: str) -> User:
    """Open a session; Refusal for a wrong password, and after some of them a growing wait."""
    counters = tries.passwords(request, username)
    for counter in counters:
        counter.check()
    with HASHING.passed():
        user = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        for counter in counters:
            counter.count()
        raise Refusal(422, "invalid", "Name and password do not go together.", field="password")
    counters[0].forget()
    enter(request, user)
    return user


def enter(request: HttpRequest, user: User) -> None:
    """Open a session, and keep with it what it was opened with."""
    login(request, user, BACKEND)
    note_device(request)


def sign_out(request: HttpRequest) -> None:
    """End the session."""
    logout(request)


def confirm_password(request: HttpRequest, user: User, present: str) -> None:
    """Refusal when a designer's present password is not this one; wrong ones are counted as for signing in."""
    counters = tries.passwords(request, user.username)
    for counter in counters:
        counter.check()
    with HASHING.passed():
        right = user.check_password(present)
    if not right:
        for counter in counters:
            counter.count()
        raise Refusal(422, "invalid", "The present password is not right.", field="present")
    counters[0].forget()


def keep_password(user: User, password: str, *, field: str) -> None:
    """Set a designer's password; Refusal at the field when it is too easy."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise Refusal(422, "invalid", " ".join(error.messages), field=field) from None
    with HASHING.passed():
        user.set_password(password)
    user.save(update_fields=["password"])


def change_password(request: HttpRequest, user: User, present: str, following: str) -> None:
    """Set another password, keep this session and end all others; Refusal when the present one is wrong."""
    confirm_password(request, user, present)
    keep_password(user, following, field="next")
    update_session_auth_hash(request, user)
    end_all(user, but=request.session.session_key)


def set_preferences(user: User, studio: str, terms: str, left_handed: bool) -> Profile:
    """Write a designer's preferences."""
    profile, _ = Profile.objects.update_or_create(
        user=user, defaults={"studio": studio, "terms": terms, "left_handed": left_handed}
    )
    return profile
