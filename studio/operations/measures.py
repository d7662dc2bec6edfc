"""What is measured, in the form that Prometheus collects; of all web processes together where they share a folder."""

from __future__ import annotations

import os

from django.db.models import Count, Min
from django.utils import timezone
from prometheus_client import REGISTRY as HERE
from prometheus_client import CollectorRegistry, Counter, Gauge, Histogram, generate_latest, multiprocess

from studio.jobs.models import Job, State

ANSWERS = Counter("spirrel_answers", "Requests answered.", ["method", "route", "status"])
SECONDS = Histogram(
    "spirrel_answer_seconds",
    "Time to an answer.",
    ["method", "route"],
    buckets=(0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0),
)


def collected() -> bytes:
    """All measures as text."""
    shared = os.environ.get("PROMETHEUS_MULTIPROC_DIR")
    registry = CollectorRegistry() if shared else HERE
    if shared:
        multiprocess.MultiProcessCollector(registry)  # type: ignore[no-untyped-call]
    return generate_latest(registry) + generate_latest(_of_jobs())


def _of_jobs() -> CollectorRegistry:
    """The line, as it is now."""
    registry = CollectorRegistry()
    jobs = Gauge("spirrel_jobs", "Jobs that are not ended.", ["state", "kind"], registry=registry)
    oldest = Gauge("spirrel_job_waits_seconds", "How long the oldest job waits.", registry=registry)
    open_ones = Job.objects.filter(state__in=(State.WAITING, State.RUNNING))
    for row in open_ones.values("state", "kind").annotate(n=Count("pk")):
        jobs.labels(row["state"], row["kind"]).set(row["n"])
    since = open_ones.filter(state=State.WAITING).aggregate(since=Min("created"))["since"]
    oldest.set((timezone.now() - since).total_seconds() if since else 0.0)
    return registry
