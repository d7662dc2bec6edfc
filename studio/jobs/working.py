"""A worker's side of a job: taken, watched, ended."""

from __future__ import annotations

import logging
import time
import zlib

from django.utils import timezone

from craft.errors import CraftError
from studio.jobs.kinds import Stopped, is_long, kind_of
from studio.jobs.line import someone_waits, take
from studio.jobs.models import Job, State

log = logging.getLogger("studio")

BEAT_SECONDS = 0.3
"""How often a job at work shows that it is alive, and hears whether it should stop."""

BROKEN = "This could not be worked out. Your rounds are safe; the studio's log says more."


def work_next() -> bool:
    """Work out the job whose turn it is; called in a worker's process. True where others were held back meanwhile, so
    that their turn may have come."""
    job = take()
    if job is None:
        return False
    _work(job)
    return is_long(job.kind) and someone_waits()


def _work(job: Job) -> None:
    pk = job.pk
    last = time.monotonic()

    def watch(progress: int) -> bool:
        nonlocal last
        if time.monotonic() - last < BEAT_SECONDS:
            return True
        last = time.monotonic()
        Job.objects.filter(pk=pk).update(heartbeat=timezone.now(), progress=min(progress, 99))
        return not Job.objects.filter(pk=pk, cancel_asked=True).exists()

    try:
        kind = kind_of(job.kind)
        answer = zlib.compress(kind.worker(job.question, watch), 6)
        emptied = {"question": ""} if kind.forgets else {}
        _end(pk, state=State.DONE, progress=100, result=answer, size=len(answer), **emptied)
    except Stopped:
        _end(pk, state=State.CANCELLED)
    except CraftError as error:
        _end(pk, state=State.FAILED, error=error.message[:500])
    except Exception:
        log.exception("job %s of kind %s", pk, job.kind)
        _end(pk, state=State.FAILED, error=BROKEN)


def _end(pk: int, **values: object) -> None:
    Job.objects.filter(pk=pk, state=State.RUNNING).update(**values)
