"""Translators and what they wrote, as rows of their own: an undo of the design touches none of it."""

from __future__ import annotations

from django.db import models

from studio.designs.models import Design
from studio.links.models import Link


class Translator(models.Model):
    """Somebody who translates a design's prose into one language. link: that she holds."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="translators")
    link = models.OneToOneField(Link, on_delete=models.CASCADE, related_name="translator")
    language = models.CharField(max_length=2)
    name = models.CharField(max_length=120)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("created", "id")

    def __str__(self) -> str:
        return f"{self.name} {self.language}"


class TranslatedPiece(models.Model):
    """A piece of prose in a translator's words. source: as it stood when she wrote; digest: of the source."""

    translator = models.ForeignKey(Translator, on_delete=models.CASCADE, related_name="pieces")
    digest = models.CharField(max_length=64)
    source = models.TextField()
    text = models.TextField()
    written = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ("id",)
        constraints = (models.UniqueConstraint(fields=["translator", "digest"], name="translator_piece"),)

    def __str__(self) -> str:
        return self.text[:40]
