"""The answers of jobs, of whichever kind, told from each other by `job`."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import Field

from studio.bench.answers import DocumentAnswer, PortraitAnswer, SettleAnswer
from studio.errors import Refusal
from studio.guard import designer
from studio.jobs.actions import answer_of
from studio.jobs.models import State
from studio.jobs.policy import job_of
from studio.making.answers import StagesAnswer
from studio.releases.answers import ReleaseAnswer
from studio.shapes.answers import CompareAnswer, CompensateAnswer, FitAnswer, FlatAnswer, SewnAnswer
from studio.sizes.answers import SizesAnswer

router = Router(tags=["jobs"])

JobAnswer = Annotated[
    SettleAnswer
    | FitAnswer
    | CompensateAnswer
    | CompareAnswer
    | FlatAnswer
    | SewnAnswer
    | DocumentAnswer
    | PortraitAnswer
    | ReleaseAnswer
    | SizesAnswer
    | StagesAnswer,
    Field(discriminator="job"),
]


@router.get("/{int:job_id}/answer", response=JobAnswer)
def answer(request: HttpRequest, job_id: int) -> HttpResponse:
    """The answer of a job that is done."""
    job = job_of(designer(request), job_id)
    if job.state != State.DONE:
        raise Refusal(409, "not-done", "This is still being worked out.")
    # Written by its schema when it was worked out, and kept under that schema's version.
    return HttpResponse(answer_of(job), content_type="application/json")
