"""Changes of jobs: asked for, cancelled, begun again after a crash."""

from __future__ import annotations

import hashlib
import zlib
from datetime import timedelta

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.utils import timezone

from craft import __version__
from studio.jobs.models import Job, State
from studio.jobs.policy import job_of
from studio.jobs.tasks import begin

MOST_KEPT = 4_000
"""Answers kept for a designer: a shelf of some hundred figures with all their parts; those used longest ago go first."""

MOST_ATTEMPTS = 3
STALE = timedelta(seconds=60)
LOST = "The work was interrupted three times. Change something, or ask again later."


def key_of(kind: str, identity: str) -> str:
    """The same for what is the same question to the same craft."""
    return hashlib.sha256(f"{kind}\0{__version__}\0{identity}".encode()).hexdigest()


def ask(user: User, kind: str, question: str, identity: str | None = None) -> Job:
    """The job of a question: found again, or put in line. One that failed or was cancelled begins anew.

    identity: equal for questions with one answer; the question itself where it is not given.
    """
    key = key_of(kind, question if identity is None else identity)
    try:
        with transaction.atomic():
            job, fresh = Job.objects.select_for_update().get_or_create(
                owner=user, key=key, defaults={"kind": kind, "question": question}
            )
            again = job.state in (State.FAILED, State.CANCELLED)
            if again:
                job.state, job.progress, job.attempt, job.error = State.WAITING, 0, 0, ""
            # Whoever called it off no longer waits; whoever asks now does.
            job.cancel_asked = False
            job.used = timezone.now()
            job.save()
            if fresh or again:
                pk = job.pk
                transaction.on_commit(lambda: begin(pk))
    except IntegrityError:
        # Two windows asked the same question in the same moment; the other one's job serves both.
        job = Job.objects.get(owner=user, key=key)
    if fresh:
        _forget_oldest(user)
    job.refresh_from_db()
    return job


def find(user: User, kind: str, identity: str) -> Job | None:
    """The job of a question that was asked before, None where it was not; nothing is changed."""
    return Job.objects.filter(owner=user, key=key_of(kind, identity)).first()


def cancel(user: User, pk: int) -> Job:
    """Ask a job to stop; one that waits stops at once, one that is done stays done."""
    job = job_of(user, pk)
    Job.objects.filter(pk=job.pk, state=State.WAITING).update(state=State.CANCELLED)
    Job.objects.filter(pk=job.pk, state=State.RUNNING).update(cancel_asked=True)
    job.refresh_from_db()
    return job


def answer_of(job: Job) -> bytes:
    """The answer of a job that is done."""
    return zlib.decompress(bytes(job.result or b""))


def resume() -> int:
    """Begin again what a killed process left behind; how many. Called once, before workers start."""
    stale = Job.objects.filter(state__in=(State.RUNNING, State.WAITING), heartbeat__lt=timezone.now() - STALE)
    stale.filter(attempt__gte=MOST_ATTEMPTS).update(state=State.FAILED, error=LOST)
    waiting = list(stale.filter(attempt__lt=MOST_ATTEMPTS).values_list("pk", flat=True))
    Job.objects.filter(pk__in=waiting).update(state=State.WAITING, heartbeat=timezone.now())
    for pk in waiting:
        begin(pk)
    return len(waiting)


def _forget_oldest(user: User) -> None:
    ended = Job.objects.filter(owner=user).exclude(state__in=(State.WAITING, State.RUNNING))
    kept = ended.order_by("-used").values_list("pk", flat=True)[MOST_KEPT:]
    Job.objects.filter(pk__in=list(kept)).delete()
