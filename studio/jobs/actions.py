"""Changes of jobs: asked for, cancelled, begun again after a crash."""

from __future__ import annotations

import hashlib
import zlib
from datetime import datetime, timedelta
from itertools import accumulate

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.db.models import Count, Sum
from django.utils import timezone

from studio.errors import Refusal
from studio.jobs.kinds import kind_of
from studio.jobs.models import Job, State
from studio.jobs.policy import job_of
from studio.jobs.tasks import begin

MOST_KEPT, MOST_KEPT_BYTES = 4_000, 256 * 2**20
"""Answers kept for a designer: a shelf of some hundred figures with all their parts; those used longest ago go first."""

MOST_WAITING, MOST_WAITING_BYTES = 1_000, 96 * 2**20
"""What one designer may have in line. Hers alone wait longer by it; this keeps the line from filling the disk."""

MOST_ATTEMPTS = 3
STALE = timedelta(seconds=20)
"""Silence after which a worker is taken for gone: one at work shows that it is alive several times a second, and
between the steps of the longest works every few seconds."""

LOST_IN_LINE = timedelta(seconds=30)
"""Waiting longer than that may mean that a ticket was lost with whoever drew it: one more is drawn at each look. In a line
that is only long it does nothing but serve whose turn it is."""

LOST = "The work was interrupted three times. Change something, or ask again later."


def key_of(kind: str, identity: str) -> str:
    """The same for what is the same question to the same version of its kind."""
    return hashlib.sha256(f"{kind}\0{kind_of(kind).version}\0{identity}".encode()).hexdigest()


def ask(user: User, kind: str, question: str, identity: str | None = None) -> Job:
    """The job of a question: found again, or put in line. One that failed, was cancelled or lost its worker begins anew.

    identity: equal for questions with one answer; the question itself where it is not given. Refusal when she has too
    much in line already.
    """
    key = key_of(kind, question if identity is None else identity)
    job = None
    while job is None:
        job = _asked_again(user, key, question) or _put_in_line(user, key, kind, question)
    job.refresh_from_db()
    return job


def _asked_again(user: User, key: str, question: str) -> Job | None:
    """The job of a question that was asked before, begun anew where it came to no end; None where there is none."""
    with transaction.atomic():
        job = Job.objects.select_for_update().filter(owner=user, key=key).first()
        if job is None:
            return None
        silent = job.state == State.RUNNING and job.heartbeat < _silent()
        again = silent or job.state in (State.FAILED, State.CANCELLED)
        if again:
            job.state, job.progress, job.attempt, job.error = State.WAITING, 0, 0, ""
            job.question, job.size = question, len(question.encode())
            job.heartbeat = timezone.now()
        # Whoever called it off no longer waits; whoever asks now does.
        job.cancel_asked = False
        job.used = timezone.now()
        job.save()
        if again:
            pk = job.pk
            transaction.on_commit(lambda: begin(pk))
    return job


def _put_in_line(user: User, key: str, kind: str, question: str) -> Job | None:
    """A new job; None where another window asked the same question in the same moment: that one's serves both.

    In a transaction of its own: whoever comes second gives back what the refused row holds before she looks at the
    other's. Two that kept it and then wanted the row for themselves would wait for each other for ever.
    """
    size = len(question.encode())
    _has_room(user, size)
    try:
        with transaction.atomic():
            job = Job.objects.create(owner=user, key=key, kind=kind, question=question, size=size)
            transaction.on_commit(lambda: begin(job.pk))
    except IntegrityError:
        return None
    _forget_oldest(user)
    return job


def _has_room(user: User, size: int) -> None:
    """Refusal when one more question of that size is too much."""
    waiting = Job.objects.filter(owner=user, state=State.WAITING).aggregate(jobs=Count("pk"), size=Sum("size"))
    if waiting["jobs"] >= MOST_WAITING or (waiting["size"] or 0) + size > MOST_WAITING_BYTES:
        raise Refusal(
            429, "line-full", f"{waiting['jobs']} of your figures wait to be worked out: ask again when some are done."
        )


def find(user: User, kind: str, identity: str) -> Job | None:
    """The job of a question that was asked before, None where it was not; nothing is changed."""
    return Job.objects.filter(owner=user, key=key_of(kind, identity)).first()


def cancel(user: User, pk: int) -> Job:
    """Ask a job to stop; one that waits, or whose worker is gone, stops at once, one that is done stays done."""
    job = job_of(user, pk)
    Job.objects.filter(pk=job.pk, state=State.WAITING).update(state=State.CANCELLED)
    Job.objects.filter(pk=job.pk, state=State.RUNNING, heartbeat__lt=_silent()).update(state=State.CANCELLED)
    Job.objects.filter(pk=job.pk, state=State.RUNNING).update(cancel_asked=True)
    job.refresh_from_db()
    return job


def answer_of(job: Job) -> bytes:
    """The answer of a job that is done."""
    return zlib.decompress(bytes(job.result or b""))


def _silent() -> datetime:
    """A worker whose last sign of life lies before this is gone."""
    return timezone.now() - STALE


def resume(before: datetime | None = None) -> int:
    """Begin again what killed processes left behind; how many. Called by workers, at their start and while they run.

    before: jobs at work whose last sign of life lies before it are taken as left behind.
    """
    left = Job.objects.filter(state=State.RUNNING, heartbeat__lt=before or _silent())
    left.filter(cancel_asked=True).update(state=State.CANCELLED)
    begun = sum(_begun_again(job) for job in left)
    lost = Job.objects.filter(state=State.WAITING, heartbeat__lt=timezone.now() - LOST_IN_LINE).order_by("pk").first()
    return begun + (lost is not None and _begun_again(lost))


def _begun_again(job: Job) -> bool:
    """Put a job that was left behind in line again, or fail it when that happened too often; whether it is in line.

    Only one of several workers that see it does so.
    """
    mine = Job.objects.filter(pk=job.pk, state=job.state, heartbeat=job.heartbeat)
    if job.attempt >= MOST_ATTEMPTS:
        mine.update(state=State.FAILED, error=LOST)
        return False
    if not mine.update(state=State.WAITING, heartbeat=timezone.now()):
        return False
    begin(job.pk)
    return True


def _forget_oldest(user: User) -> None:
    """Forget the answers used longest ago, beyond what is kept in number and in bytes."""
    ended = Job.objects.filter(owner=user).exclude(state__in=(State.WAITING, State.RUNNING))
    rows = ended.order_by("-used").values_list("pk", "size")
    sums = accumulate(size for _, size in rows)
    beyond = [
        pk
        for at, ((pk, _), total) in enumerate(zip(rows, sums, strict=True))
        if at >= MOST_KEPT or total > MOST_KEPT_BYTES
    ]
    Job.objects.filter(pk__in=beyond).delete()
