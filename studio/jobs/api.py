"""Routes of jobs: how far one is, its answer, and stopping it. Asking is for the apps that know the questions."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router

from studio.errors import Refusal
from studio.guard import designer
from studio.jobs.actions import answer_of, cancel
from studio.jobs.models import State
from studio.jobs.policy import job_of
from studio.jobs.schemas import JobOut

router = Router(tags=["jobs"])


@router.get("/{int:job_id}", response=JobOut)
def look(request: HttpRequest, job_id: int) -> JobOut:
    """How far a job is."""
    return JobOut.model_validate(job_of(designer(request), job_id), from_attributes=True)


@router.get("/{int:job_id}/answer", response=None)
def answer(request: HttpRequest, job_id: int) -> HttpResponse:
    """The answer of a job that is done, as JSON."""
    job = job_of(designer(request), job_id)
    if job.state != State.DONE:
        raise Refusal(409, "not-done", "This is still being worked out.")
    return HttpResponse(answer_of(job), content_type="application/json")


@router.post("/{int:job_id}/cancel", response=JobOut)
def stop(request: HttpRequest, job_id: int) -> JobOut:
    """Stop a job."""
    return JobOut.model_validate(cancel(designer(request), job_id), from_attributes=True)
