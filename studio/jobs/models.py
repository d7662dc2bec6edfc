"""A job: its question, how far it is, and its answer, which is kept and found again by the question."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.db import models


class State(models.TextChoices):
    """What has become of a job."""

    WAITING = "waiting", "waiting"
    RUNNING = "running", "running"
    DONE = "done", "done"
    FAILED = "failed", "failed"
    CANCELLED = "cancelled", "cancelled"


class Job(models.Model):
    """One question of one designer.

    key: hash of kind, question and the craft's version. progress: 0 to 100. heartbeat: last sign of
    life of the process at work. attempt: how often it was begun, begun: when that was last. result: the answer,
    compressed. size: bytes of the question while it is open, of the answer afterwards. used: when the answer was last
    asked for.
    """

    owner = models.ForeignKey(User, on_delete=models.CASCADE, related_name="jobs")
    key = models.CharField(max_length=64)
    kind = models.CharField(max_length=20)
    question = models.TextField()
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    progress = models.PositiveSmallIntegerField(default=0)
    cancel_asked = models.BooleanField(default=False)
    attempt = models.PositiveSmallIntegerField(default=0)
    heartbeat = models.DateTimeField(auto_now_add=True)
    begun = models.DateTimeField(null=True)
    result = models.BinaryField(null=True)
    size = models.PositiveIntegerField(default=0)
    error = models.CharField(max_length=500, default="", blank=True)
    created = models.DateTimeField(auto_now_add=True)
    used = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=("owner", "key"), name="one_job_a_question"),)
        indexes = (
            models.Index(fields=("owner", "used")),
            models.Index(fields=("state", "heartbeat")),
            models.Index(fields=("owner", "begun")),
        )

    def __str__(self) -> str:
        return f"{self.kind} {self.pk}: {self.state}"


class Line(models.Model):
    """One row: whoever takes a job from the line holds it meanwhile."""

    def __str__(self) -> str:
        return "the line"
