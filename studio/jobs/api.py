"""Routes of jobs: how far one is, and stopping it. Asking is for the apps that know the questions; `studio/answers.py`
knows all the answers."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router

from studio.guard import designer
from studio.jobs.actions import cancel
from studio.jobs.policy import job_of
from studio.jobs.schemas import JobOut
from studio.jobs.shown import job_shown

router = Router(tags=["jobs"])


@router.get("/{int:job_id}", response=JobOut)
def look(request: HttpRequest, job_id: int) -> JobOut:
    """How far a job is."""
    return job_shown(job_of(designer(request), job_id))


@router.post("/{int:job_id}/cancel", response=JobOut)
def stop(request: HttpRequest, job_id: int) -> JobOut:
    """Stop a job."""
    return job_shown(cancel(designer(request), job_id))
