"""Rows that stand beside a design's revisions: notes, who is asked to test it, and what is answered to testers.

Ids of what is typed are made by whoever writes it (UUIDs), so that a request sent twice is one row.
"""

from __future__ import annotations

import uuid

from django.db import models

from studio.designs.models import Design
from studio.making.models import FrozenEdition, Making, MakingEvent


class TesterState(models.TextChoices):
    """How far a tester is."""

    ASKED = "asked", "asked"
    MAKING = "making", "making"
    DONE = "done", "done"


class LogEntry(models.Model):
    """A note about the design as a whole."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="log_entries")
    date = models.DateField()
    text = models.CharField(max_length=500)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("date", "created", "id")

    def __str__(self) -> str:
        return f"{self.date} {self.text[:40]}"


class TestCall(models.Model):
    """A test of an edition: what testers are asked to look at, how many are wanted, and until when."""

    __test__ = False  # no test of ours

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="test_calls")
    edition = models.ForeignKey(FrozenEdition, on_delete=models.CASCADE, related_name="test_calls")
    title = models.CharField(max_length=120)
    look_at = models.TextField(blank=True)
    wanted = models.PositiveSmallIntegerField(default=5)
    opens = models.DateField()
    closes = models.DateField(null=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "-id")

    def __str__(self) -> str:
        return self.title


class Tester(models.Model):
    """Somebody who makes it from the draft. call: the test that she was asked in; None for one that was only typed in, with her
    yarn, state and remarks as they were told. making: what she makes, and says of it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="testers")
    call = models.ForeignKey(TestCall, on_delete=models.CASCADE, null=True, related_name="testers")
    making = models.OneToOneField(Making, on_delete=models.SET_NULL, null=True, related_name="tester")
    name = models.CharField(max_length=120)
    mail = models.EmailField(blank=True)
    yarn = models.CharField(max_length=120, blank=True)
    state = models.CharField(max_length=10, choices=TesterState.choices, default=TesterState.ASKED)
    remarks = models.TextField(blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")

    def __str__(self) -> str:
        return self.name


class AnswerState(models.TextChoices):
    """What becomes of a remark: the pattern was changed, it stays as it is, or that is still open."""

    CHANGED = "changed", "changed"
    STAYS = "stays", "stays"
    OPEN = "open", "open"


class RemarkAnswer(models.Model):
    """The answer to a remark, which its tester reads. version: of the pattern in which it was changed."""

    event = models.OneToOneField(MakingEvent, on_delete=models.CASCADE, related_name="answer")
    state = models.CharField(max_length=10, choices=AnswerState.choices)
    text = models.CharField(max_length=1_000, blank=True)
    version = models.CharField(max_length=60, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.state} {self.text[:40]}"
