"""The one task of Django's task framework: a ticket for the line."""

from __future__ import annotations

from django_tasks import task

from studio.jobs.working import work_next


@task()
def run_job(pk: int) -> None:
    """Work out the job whose turn it is. pk: the job that the ticket was drawn for, which may be another one."""
    if work_next():
        run_job.enqueue(pk)


def begin(pk: int) -> None:
    """Put a job in line: there is a ticket for each."""
    run_job.enqueue(pk)
