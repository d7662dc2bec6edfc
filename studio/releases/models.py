"""A release: a design as it was, under a number and a date; and its files, byte for byte as they were printed."""

from __future__ import annotations

from django.db import models

from studio.designs.models import Design


class PrintState(models.TextChoices):
    """Whether a release's files are there."""

    PRINTING = "printing", "printing"
    READY = "ready", "ready"
    FAILED = "failed", "failed"


class Release(models.Model):
    """A design frozen. data: its file (format as in docs/file-format.md); base: that of what a difference is printed from,
    with how it is called, null for none; photos, translations: entries of its photographs and of her prose; prints: which
    editions are printed and how.

    digest: SHA-256 of `data`. forced: her reason for a release that was refused, '' for one that was not. findings: what
    the proof-reader had found. errata: against the release before, as values; changes: the same in words, which she may
    edit. error: why printing failed.
    """

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="releases")
    number = models.PositiveIntegerField()
    version = models.CharField(max_length=120)
    date = models.DateField()
    digest = models.CharField(max_length=64)
    craft_version = models.CharField(max_length=20)
    designer = models.CharField(max_length=120)
    data = models.JSONField()
    base = models.JSONField(null=True)
    photos = models.JSONField(default=list)
    translations = models.JSONField(default=list)
    prints = models.JSONField()
    forced = models.TextField(blank=True)
    findings = models.JSONField(default=list)
    errata = models.JSONField(default=list)
    changes = models.TextField(blank=True)
    state = models.CharField(max_length=10, choices=PrintState.choices, default=PrintState.PRINTING)
    error = models.CharField(max_length=500, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-number",)
        constraints = (models.UniqueConstraint(fields=["design", "number"], name="release_number"),)

    def __str__(self) -> str:
        return f"{self.design_id} release {self.number}"


class ReleaseFile(models.Model):
    """A file of a release, never changed. title: which edition it is, in words. digest: SHA-256 of its content."""

    release = models.ForeignKey(Release, on_delete=models.CASCADE, related_name="files")
    title = models.CharField(max_length=120)
    ending = models.CharField(max_length=10)
    name = models.CharField(max_length=120)
    content = models.BinaryField()
    size = models.PositiveIntegerField()
    digest = models.CharField(max_length=64)

    class Meta:
        ordering = ("id",)

    def __str__(self) -> str:
        return self.name
