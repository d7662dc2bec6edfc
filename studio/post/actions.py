"""Sending a letter."""

from __future__ import annotations

import smtplib
from datetime import timedelta

from django.conf import settings
from django.contrib.auth.models import User
from django.core.mail import EmailMessage
from django.db import transaction
from django.utils import timezone

from studio.designs.models import Design
from studio.errors import Refusal
from studio.policy import Owner, Verb, demand
from studio.post.models import Letter

MOST_A_DAY, MOST_KEPT = 100, 2_000


def by_folder() -> bool:
    """Whether letters go into a folder, as no mail server is set."""
    return "smtp" not in str(settings.EMAIL_BACKEND)


@transaction.atomic
def send(user: User, design: Design, to: str, subject: str, body: str) -> Letter:
    """Write a letter and hand it over once this is kept; what the mail server refuses is told in its row.

    Refusal 429 after so many a day: nobody is to send advertising from here.
    """
    demand(Owner(user), Verb.CHANGE, design)
    User.objects.select_for_update().get(pk=user.pk)
    since = timezone.now() - timedelta(days=1)
    if user.letters.filter(created__gte=since).count() >= MOST_A_DAY:
        raise Refusal(429, "too-many", f"At most {MOST_A_DAY} letters a day are sent from here: go on tomorrow.")
    if user.letters.count() >= MOST_KEPT:
        raise Refusal(422, "full", f"At most {MOST_KEPT:,} letters are kept: remove some first.")
    letter = Letter.objects.create(owner=user, design=design, to=to, subject=" ".join(subject.split()), body=body)
    transaction.on_commit(lambda: _hand_over(letter))
    return letter


def _hand_over(letter: Letter) -> None:
    message = EmailMessage(letter.subject, letter.body, settings.DEFAULT_FROM_EMAIL, [letter.to])
    try:
        message.send()
    except (OSError, smtplib.SMTPException) as error:
        Letter.objects.filter(pk=letter.pk).update(failed=f"The mail server did not take it ({type(error).__name__}).")


@transaction.atomic
def remove(user: User, letter: Letter) -> None:
    """Throw a letter away here; what was sent is sent."""
    demand(Owner(user), Verb.REMOVE, letter)
    letter.delete()
