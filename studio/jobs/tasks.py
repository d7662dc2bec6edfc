"""The one task of Django's task framework: it carries a job's number and nothing else."""

from __future__ import annotations

from django_tasks import task

from studio.jobs.working import work


@task()
def run_job(pk: int) -> None:
    """Work out a job."""
    work(pk)


def begin(pk: int) -> None:
    """Put a job in line."""
    run_job.enqueue(pk)
