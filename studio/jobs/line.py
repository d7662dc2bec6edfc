"""The line: whose turn it is. Designers take turns, whatever each of them asks for."""

from __future__ import annotations

import os
from collections import Counter, defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from django.db import transaction
from django.db.models import F, Max
from django.utils import timezone

from studio.jobs.kinds import is_long
from studio.jobs.models import Job, Line, State

LONG_AT_ONCE = max(1, int(os.environ.get("SPIRREL_JOB_WORKERS", "2")) - 1)
"""Work that takes long leaves one worker to what is short, where there is more than one."""

_NEVER = datetime.min.replace(tzinfo=UTC)


@dataclass(frozen=True, slots=True)
class Waiting:
    """A job that waits. long: it takes more than some seconds, by its kind."""

    job: int
    owner: int
    long: bool


def in_turn(waiting: Sequence[Waiting], at_work: Iterable[int], served: dict[int, datetime]) -> list[int]:
    """The jobs in the order in which they will be taken.

    at_work: owners of the jobs that run, one for each. served: when a job of an owner was last begun. Each owner's
    jobs go short before long, then by age; the owners take turns, whoever was served longest ago first, and what runs
    already counts as a turn.
    """
    own: defaultdict[int, list[Waiting]] = defaultdict(list)
    for one in sorted(waiting, key=lambda w: (w.long, w.job)):
        own[one.owner].append(one)
    running = Counter(at_work)
    placed = [(running[owner] + turn, one) for owner, ones in own.items() for turn, one in enumerate(ones)]
    placed.sort(key=lambda p: (p[0], p[1].long, served.get(p[1].owner, _NEVER), p[1].job))
    return [one.job for _, one in placed]


@dataclass(frozen=True, slots=True)
class _Seen:
    """The line as it is: what waits, in turn, and how much long work runs."""

    order: list[int]
    long: frozenset[int]
    long_at_work: int


def _seen() -> _Seen:
    rows = list(
        Job.objects.filter(state__in=(State.WAITING, State.RUNNING)).values_list("pk", "owner_id", "kind", "state")
    )
    waiting = [Waiting(pk, owner, is_long(kind)) for pk, owner, kind, state in rows if state == State.WAITING]
    at_work = [(owner, is_long(kind)) for _, owner, kind, state in rows if state == State.RUNNING]
    owners = {one.owner for one in waiting}
    served = {
        row["owner_id"]: row["last"]
        for row in Job.objects.filter(owner_id__in=owners, begun__isnull=False)
        .values("owner_id")
        .annotate(last=Max("begun"))
    }
    return _Seen(
        in_turn(waiting, [owner for owner, _ in at_work], served),
        frozenset(one.job for one in waiting if one.long),
        sum(long for _, long in at_work),
    )


def take() -> Job | None:
    """Take the job whose turn it is; None when none waits, or only long ones while enough of them run.

    One worker at a time: each sees what the one before took.
    """
    if not Line.objects.filter(pk=1).exists():
        # On its own: two that made it at once and then wanted it for themselves would wait for each other for ever.
        Line.objects.bulk_create([Line(pk=1)], ignore_conflicts=True)
    with transaction.atomic():
        Line.objects.select_for_update().get(pk=1)
        seen = _seen()
        barred = seen.long if seen.long_at_work >= LONG_AT_ONCE else frozenset()
        for pk in seen.order:
            now = timezone.now()
            if pk not in barred and Job.objects.filter(pk=pk, state=State.WAITING).update(
                state=State.RUNNING, attempt=F("attempt") + 1, heartbeat=now, begun=now, progress=0
            ):
                return Job.objects.get(pk=pk)
    return None


def ahead(job: Job) -> int | None:
    """How many jobs will be taken before this one; None when it does not wait."""
    if job.state != State.WAITING:
        return None
    order = _seen().order
    # It may have been taken between the two looks.
    return order.index(job.pk) if job.pk in order else None


def someone_waits() -> bool:
    """Whether any job waits at all."""
    return Job.objects.filter(state=State.WAITING).exists()
