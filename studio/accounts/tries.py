"""How often somebody may try: wrong passwords cost a growing wait, new accounts are few from one address.

Wrong passwords are counted for a name together with the address that they come from, so that nobody can shut out the
owner of a name that he knows; and for an address over all names, so that nobody tries one password on many.
"""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime, timedelta

from django.db import IntegrityError, transaction
from django.db.models import Case, F, Q, Value, When
from django.http import HttpRequest
from django.utils import timezone

from studio.accounts.models import Tries
from studio.errors import Refusal


@dataclass(frozen=True, slots=True)
class Patience:
    """free: tries without a wait. first: the wait after them, doubled each time, up to longest. forgotten: after so
    long a time nothing is held against anybody."""

    free: int
    first: timedelta
    longest: timedelta
    forgotten: timedelta

    def wait(self, tries: int) -> timedelta:
        """How long after the last of so many tries the next may come."""
        over = tries - self.free
        return timedelta() if over < 0 else min(self.first * 2 ** min(over, 20), self.longest)


BY_NAME = Patience(5, timedelta(seconds=5), timedelta(minutes=15), timedelta(days=1))
BY_ADDRESS = Patience(40, timedelta(seconds=5), timedelta(minutes=15), timedelta(hours=1))
SIGN_UPS = Patience(20, timedelta(seconds=30), timedelta(minutes=15), timedelta(hours=1))
"""A class that signs up together from one address finds room; a machine that makes accounts waits ever longer."""


@dataclass(frozen=True, slots=True)
class Counter:
    """What is counted, for whom, and how patiently."""

    what: str
    whose: tuple[str, ...]
    patience: Patience

    @property
    def key(self) -> str:
        """Under which it is kept: a digest, as names and addresses are nobody's business."""
        return hashlib.sha256("\0".join((self.what, *self.whose)).encode()).hexdigest()

    def check(self) -> None:
        """Refusal 429 with the seconds to wait when it is too early for another try."""
        row = Tries.objects.filter(key=self.key).first()
        if row is None:
            return
        left = (row.last + self.patience.wait(row.tries) - timezone.now()).total_seconds()
        if left > 0:
            seconds = int(left) + 1
            said = f"{seconds} seconds" if seconds < 90 else f"{round(seconds / 60)} minutes"
            raise Refusal(429, "too-many-tries", f"{self.what}: try again in {said}.", retry_after=seconds)

    def count(self) -> None:
        """One more try. Never within a transaction that a refusal undoes.

        Each statement stands for itself and finds its row by its key alone: a second index to choose from would be
        another order to lock in, and many at once would wait for each other in a ring.
        """
        now = timezone.now()
        if self._count_on(now):
            return
        try:
            with transaction.atomic():
                Tries.objects.create(key=self.key, tries=1, last=now)
        except IntegrityError:
            self._count_on(now)

    def _count_on(self, now: datetime) -> int:
        """One more on the row that there is, from the beginning when what it held is forgotten: how many rows."""
        forgotten = Q(last__lt=now - self.patience.forgotten)
        tries = Case(When(forgotten, then=Value(1)), default=F("tries") + 1)
        return Tries.objects.filter(key=self.key).update(
            tries=tries, last=now
        )  # in this order: the old `last` is asked

    def forget(self) -> None:
        """Nothing is held against anybody any more."""
        Tries.objects.filter(key=self.key).delete()


def address_of(request: HttpRequest) -> str:
    """Where a request comes from: the client's address, as a trusted proxy tells it."""
    return str(request.META.get("REMOTE_ADDR", ""))


def passwords(request: HttpRequest, name: str) -> tuple[Counter, Counter]:
    """What a wrong password counts for: the name from this address, and the address over all names."""
    address = address_of(request)
    return (
        Counter("Too many wrong passwords", (name.casefold(), address), BY_NAME),
        Counter("Too many wrong passwords from where you are", (address,), BY_ADDRESS),
    )


def sign_ups(request: HttpRequest) -> Counter:
    """New accounts from an address."""
    return Counter("Many new studios were opened from where you are", (address_of(request),), SIGN_UPS)


def clear_old() -> int:
    """Forget what nobody counts any more; how many rows went."""
    before = timezone.now() - max(BY_NAME.forgotten, BY_ADDRESS.forgotten, SIGN_UPS.forgotten)
    gone, _ = Tries.objects.filter(last__lt=before).delete()
    return gone
