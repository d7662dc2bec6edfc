"""Changes of accounts, by Django's own machinery."""

from __future__ import annotations

from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest

from studio.accounts.models import Profile
from studio.errors import Refusal


def sign_up(username: str, password: str, studio: str) -> User:
    """A new designer; Refusal when the name is taken or the password too easy."""
    user = User(username=username)
    try:
        User.username_validator(username)
        validate_password(password, user)
    except ValidationError as error:
        field = "username" if "username" in str(error).lower() else "password"
        raise Refusal(422, "invalid", " ".join(error.messages), field=field) from None
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
            Profile.objects.create(user=user, studio=studio)
    except IntegrityError:
        raise Refusal(422, "invalid", "That name is taken; choose another.", field="username") from None
    return user


def sign_in(request: HttpRequest, username: str, password: str) -> User:
    """Open a session; Refusal for a wrong password. After too many of them the throttle answers instead."""
    user = authenticate(request, username=username, password=password)
    if not isinstance(user, User):
        raise Refusal(422, "invalid", "Name and password do not go together.", field="password")
    login(request, user)
    return user


def sign_out(request: HttpRequest) -> None:
    """End the session."""
    logout(request)


def change_password(request: HttpRequest, user: User, present: str, following: str) -> None:
    """Set another password and keep this session; Refusal when the present one is wrong."""
    if not user.check_password(present):
        raise Refusal(422, "invalid", "The present password is not right.", field="present")
    try:
        validate_password(following, user)
    except ValidationError as error:
        raise Refusal(422, "invalid", " ".join(error.messages), field="next") from None
    user.set_password(following)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)


def set_preferences(user: User, studio: str, terms: str, left_handed: bool) -> Profile:
    """Write a designer's preferences."""
    profile, _ = Profile.objects.update_or_create(
        user=user, defaults={"studio": studio, "terms": terms, "left_handed": left_handed}
    )
    return profile
