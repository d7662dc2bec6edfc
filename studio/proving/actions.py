"""Changes of the making log and of testers: each writes one row, in one transaction."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction

from studio.designs.models import Design
from studio.errors import NOT_FOUND, Refusal
from studio.policy import Owner, Verb, demand
from studio.proving.models import LogEntry, Tester

MOST_LOG, MOST_TESTERS = 5_000, 500


def _put(
    user: User, design: Design, model: type[LogEntry] | type[Tester], pk: UUID, values: dict[str, Any], most: int
) -> None:
    demand(Owner(user), Verb.CHANGE, design)
    if model._default_manager.filter(pk=pk, design=design).update(**values):
        return
    if model._default_manager.filter(design=design).count() >= most:
        raise Refusal(422, "full", f"A design keeps at most {most:,} of these.")
    try:
        with transaction.atomic():
            model._default_manager.create(pk=pk, design=design, **values)
    except IntegrityError:
        # Sent twice at once, or an id that somebody else's row has.
        if not model._default_manager.filter(pk=pk, design=design).update(**values):
            raise Refusal(404, "not-found", NOT_FOUND) from None


@transaction.atomic
def put_log_entry(user: User, design: Design, pk: UUID, values: dict[str, Any]) -> None:
    """Write a line of the log; the same id again changes it."""
    _put(user, design, LogEntry, pk, values, MOST_LOG)


@transaction.atomic
def put_tester(user: User, design: Design, pk: UUID, values: dict[str, Any]) -> None:
    """Write a tester; the same id again changes her."""
    _put(user, design, Tester, pk, values, MOST_TESTERS)


@transaction.atomic
def remove_log_entry(user: User, design: Design, pk: UUID) -> None:
    """Take a line out of the log; one that is gone already stays gone."""
    demand(Owner(user), Verb.CHANGE, design)
    LogEntry.objects.filter(pk=pk, design=design).delete()


@transaction.atomic
def remove_tester(user: User, design: Design, pk: UUID) -> None:
    """Take a tester out; one that is gone already stays gone."""
    demand(Owner(user), Verb.CHANGE, design)
    Tester.objects.filter(pk=pk, design=design).delete()
