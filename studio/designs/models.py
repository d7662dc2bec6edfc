"""Designs as immutable revisions, with one mutable typed text a part for autosave."""

from __future__ import annotations

import uuid
from functools import cached_property

from django.conf import settings
from django.db import models

from studio.designs.manifest import Manifest
from studio.designs.upgrades import newest


class Design(models.Model):
    """A figure. head: the revision that is shown; undo moves it back, a change moves it on."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="designs")
    name = models.CharField(max_length=60)
    head = models.ForeignKey("Revision", on_delete=models.PROTECT, null=True, related_name="+")
    origin = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="copies")
    origin_name = models.CharField(max_length=60, blank=True)
    origin_number = models.PositiveIntegerField(null=True)
    created = models.DateTimeField(auto_now_add=True)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ("-changed", "-id")

    def __str__(self) -> str:
        return self.name

    @property
    def revision(self) -> Revision:
        """The revision that is shown."""
        if self.head is None:
            raise ValueError("A design always has a revision.")
        return self.head

    @property
    def manifest(self) -> Manifest:
        """What the shown revision says."""
        return self.revision.manifest


class Revision(models.Model):
    """What a design said after one action; never changed."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    parent = models.ForeignKey("self", on_delete=models.SET_NULL, null=True, related_name="children")
    label = models.CharField(max_length=120)
    data = models.JSONField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-number",)
        constraints = (models.UniqueConstraint(fields=["design", "number"], name="revision_number"),)

    def __str__(self) -> str:
        return f"{self.design_id}.{self.number} {self.label}"

    @cached_property
    def manifest(self) -> Manifest:
        """The revision's content as typed values, read once."""
        return Manifest.model_validate(newest(self.data))


class PartVersion(models.Model):
    """A part's text as written, and how it was drafted; never changed."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="versions")
    part_key = models.CharField(max_length=16)
    text = models.TextField()
    recipe = models.JSONField(null=True)
    hand_edited = models.BooleanField(default=False)
    craft_version = models.CharField(max_length=20)
    created = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return f"{self.part_key} v{self.pk}"


class TypedText(models.Model):
    """The text of a part since its last version, saved as she types."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="typed_texts")
    part_key = models.CharField(max_length=16)
    base = models.ForeignKey(PartVersion, on_delete=models.CASCADE)
    text = models.TextField()
    etag = models.CharField(max_length=32)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = (models.UniqueConstraint(fields=["design", "part_key"], name="one_typed_text_a_part"),)

    def __str__(self) -> str:
        return f"typed text of {self.part_key}"


class Picture(models.Model):
    """A reference picture, re-encoded; the file's name is random."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="pictures")
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="pictures")
    name = models.UUIDField(default=uuid.uuid4, unique=True)
    file = models.FileField(upload_to="reference")
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    size = models.PositiveIntegerField()
    created = models.DateTimeField(auto_now_add=True)

    def __str__(self) -> str:
        return str(self.name)
