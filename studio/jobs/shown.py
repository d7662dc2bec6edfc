"""A job as the screens see it."""

from __future__ import annotations

from studio.jobs.line import ahead
from studio.jobs.models import Job
from studio.jobs.schemas import JobOut


def job_shown(job: Job) -> JobOut:
    """How far a job is, and while it waits, how many come before it."""
    return JobOut.model_validate(
        {"id": job.pk, "state": job.state, "progress": job.progress, "error": job.error, "ahead": ahead(job)}
    )
