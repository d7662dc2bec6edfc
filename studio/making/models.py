"""Makings as rows beside a design's revisions: what is worked from, what was done, photographs, and what came of it."""

from __future__ import annotations

import uuid

from django.db import models

from studio.designs.models import Design
from studio.links.models import Link


class Kind(models.TextChoices):
    """Whose making it is: the designer's own, a client's figure, or a tester's."""

    OWN = "own", "own"
    CLIENT = "client", "client"
    TESTER = "tester", "tester"


class FrozenEdition(models.Model):
    """What is worked from, as it was on one day; shared by all who make it. title: which edition, in words. size: key of its
    size, '' for the first. release: number of the release it is of, None for a draft. sheet: its worksheet (`craft.making`, a
    numbered format). data: the design at that size, as its
    file has it. page: its booklet as a page of HTML that needs nothing else."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="frozen_editions")
    title = models.CharField(max_length=160)
    size = models.CharField(max_length=16, blank=True)
    size_name = models.CharField(max_length=60, blank=True)
    release = models.PositiveIntegerField(null=True)
    sheet = models.JSONField()
    data = models.JSONField()
    page = models.BinaryField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "-id")

    def __str__(self) -> str:
        return self.title


class Making(models.Model):
    """A figure being made. link: that its maker holds, None for the designer's own."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="makings")
    edition = models.ForeignKey(FrozenEdition, on_delete=models.CASCADE, related_name="makings")
    title = models.CharField(max_length=120)
    kind = models.CharField(max_length=10, choices=Kind.choices, default=Kind.OWN)
    link = models.OneToOneField(Link, on_delete=models.SET_NULL, null=True, related_name="making")
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "id")

    def __str__(self) -> str:
        return self.title


LARGE = ("edition__page", "edition__data")
"""Of a making's edition: read only where they are shown."""


class MakingEvent(models.Model):
    """An event of a making's log, never changed. uuid: made on the device that wrote it. data: the event as JSON, without its
    id. The row's own number says in which order events arrived here."""

    uuid = models.UUIDField()
    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="events")
    data = models.JSONField()
    received = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=["making", "uuid"], name="making_event"),)

    def __str__(self) -> str:
        return f"{self.data.get('kind')} {self.uuid}"


class MakingPicture(models.Model):
    """A photograph of a making, written anew without anything but the picture. It lies in the row, so that it comes and goes
    with it."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="pictures")
    content = models.BinaryField()
    kind = models.CharField(max_length=4)
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    size = models.PositiveIntegerField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")

    def __str__(self) -> str:
        return f"{self.width} × {self.height}"


class Verdict(models.TextChoices):
    """What becomes of something that was done otherwise."""

    TEXT = "text", "text"
    REMARK = "remark", "remark"
    DROPPED = "dropped", "dropped"


class Decision(models.Model):
    """What the designer made of a deviation. key: of the deviation. revision: the one it was written by, None else."""

    making = models.ForeignKey(Making, on_delete=models.CASCADE, related_name="decisions")
    key = models.CharField(max_length=120)
    verdict = models.CharField(max_length=10, choices=Verdict.choices)
    revision = models.PositiveIntegerField(null=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")
        constraints = (models.UniqueConstraint(fields=["making", "key"], name="making_decision"),)

    def __str__(self) -> str:
        return f"{self.key} {self.verdict}"
