"""Whose jobs: only her own; others' are not there."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.shortcuts import get_object_or_404

from studio.jobs.models import Job
from studio.policy import Owner, Rule, Verb, register, visible

register(Job, Rule("owner"))


def visible_jobs(user: User) -> QuerySet[Job]:
    """Her jobs."""
    return visible(Owner(user), Verb.SEE, Job)


def job_of(user: User, pk: int) -> Job:
    """One of her jobs, else 404. Its question and its answer, which are large, are looked up when they are wanted."""
    return get_object_or_404(visible_jobs(user).defer("question", "result"), pk=pk)
