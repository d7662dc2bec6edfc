"""Taking everything along; closing a studio with time to think again; carrying that out."""

from __future__ import annotations

import logging
from datetime import timedelta
from tempfile import TemporaryFile
from typing import IO

from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone

from studio.accounts.actions import confirm_password
from studio.accounts.sessions import end_all
from studio.designs.models import Design, Picture
from studio.designs.picture_files import discard_after_commit
from studio.gates import Gate
from studio.leaving.archive import write_archive
from studio.leaving.models import Departure

log = logging.getLogger("studio")

GRACE = timedelta(days=14)
PACKING = Gate(at_once=1, in_line=1, work="packing")


def pack(user: User) -> IO[bytes]:
    """Everything of a designer as an open file of ZIP, at its beginning; it is gone once it is closed."""
    out = TemporaryFile()  # noqa: SIM115 - it stays open until it is sent
    try:
        with PACKING.passed():
            write_archive(user, out)
    except BaseException:
        out.close()
        raise
    out.seek(0)
    return out


def leave(request: HttpRequest, user: User, password: str) -> Departure:
    """Close the studio once the time of grace is over; Refusal when the password is not right."""
    confirm_password(request, user, password)
    departure, _ = Departure.objects.update_or_create(user=user, defaults={"due": timezone.now() + GRACE})
    return departure


@transaction.atomic
def stay(user: User) -> None:
    """Take leaving back."""
    Departure.objects.filter(user=user).delete()


def carry_out_due() -> int:
    """Close the studios whose time is over; how many."""
    gone = 0
    for departure in Departure.objects.filter(due__lte=timezone.now()).select_related("user"):
        _close(departure)
        gone += 1
    return gone


@transaction.atomic
def _close(departure: Departure) -> None:
    held = Departure.objects.select_for_update().filter(pk=departure.pk, due__lte=timezone.now()).first()
    if held is None:
        return
    user = held.user
    discard_after_commit(list(Picture.objects.filter(owner=user).values_list("file", flat=True)))
    end_all(user)
    # A design holds its shown revision fast; it lets go of it before both go.
    Design.objects.filter(owner=user).update(head=None)
    user.delete()
    log.warning("a studio was closed for good, as its designer had asked")
