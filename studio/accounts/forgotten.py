"""A way back in for whoever forgot a password: a letter with a link that works once, for an hour."""

from __future__ import annotations

import logging
import smtplib
from concurrent.futures import ThreadPoolExecutor

from django.conf import settings
from django.contrib.auth.models import User
from django.contrib.auth.tokens import default_token_generator
from django.core.mail import EmailMessage
from django.http import HttpRequest
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode

from studio.accounts import tries
from studio.accounts.actions import confirm_password, enter, keep_password
from studio.accounts.sessions import end_all
from studio.errors import Refusal

log = logging.getLogger("studio")

LETTER = """Somebody asked for another password of the studio "{name}" at Spirrel.

Set it here, within an hour, once:
{link}

If it was not you, nothing has changed; throw this letter away.
"""
SPENT = "This link was used, or an hour has passed, or another password was set since: ask for a new one."


def set_address(request: HttpRequest, user: User, present: str, address: str) -> None:
    """Where the way back in is sent; empty for nowhere. Refusal when the present password is not right."""
    confirm_password(request, user, present)
    user.email = address
    user.save(update_fields=["email"])


def ask(request: HttpRequest, username: str) -> None:
    """Send a letter to the address of a studio, where it has one. What comes back is the same for every name, so that
    nobody learns who is here."""
    counter = tries.Counter("Many letters were asked for", (tries.address_of(request),), tries.SIGN_UPS)
    counter.check()
    counter.count()
    user = User.objects.filter(username=username, is_active=True).exclude(email="").first()
    if user is None:
        return
    uid = urlsafe_base64_encode(force_bytes(user.pk))
    link = f"{settings.ORIGIN}/new-password/{uid}/{default_token_generator.make_token(user)}"
    letter = EmailMessage(
        "Another password at Spirrel",
        LETTER.format(name=user.username, link=link),
        settings.DEFAULT_FROM_EMAIL,
        [user.email],
    )
    _letters.submit(_send, letter)


_letters = ThreadPoolExecutor(2, "letters")
"""Letters go out behind the answer: how long it takes tells nobody whether a studio has an address."""


def _send(letter: EmailMessage) -> None:
    try:
        letter.send()
    except (OSError, smtplib.SMTPException) as error:
        log.error("a letter for a forgotten password was not taken (%s)", type(error).__name__)


def set_new(request: HttpRequest, uid: str, token: str, password: str) -> User:
    """Set another password by a letter's link and come in; every other session ends. Refusal when the link is spent."""
    user = _user_of(uid)
    if user is None or not default_token_generator.check_token(user, token):
        raise Refusal(422, "spent-link", SPENT)
    keep_password(user, password, field="password")
    end_all(user)
    enter(request, user)
    return user


def _user_of(uid: str) -> User | None:
    try:
        return User.objects.filter(pk=int(urlsafe_base64_decode(uid).decode()), is_active=True).first()
    except (ValueError, OverflowError, UnicodeDecodeError):
        return None
