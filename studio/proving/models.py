"""Rows that stand beside a design's revisions: what was made, and who makes it from the draft.

Their ids are made by whoever writes them (UUIDs), so that a request sent twice is one row.
"""

from __future__ import annotations

import uuid

from django.db import models

from studio.designs.models import Design


class TesterState(models.TextChoices):
    """How far a tester is."""

    ASKED = "asked", "asked"
    MAKING = "making", "making"
    DONE = "done", "done"


class LogEntry(models.Model):
    """A line of the making log."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="log_entries")
    date = models.DateField()
    text = models.CharField(max_length=500)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("date", "created", "id")

    def __str__(self) -> str:
        return f"{self.date} {self.text[:40]}"


class Tester(models.Model):
    """Somebody who makes it from the draft."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="testers")
    name = models.CharField(max_length=120)
    yarn = models.CharField(max_length=120, blank=True)
    state = models.CharField(max_length=10, choices=TesterState.choices, default=TesterState.ASKED)
    remarks = models.TextField(blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")

    def __str__(self) -> str:
        return self.name
