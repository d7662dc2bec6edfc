"""Kept pieces."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Piece(models.Model):
    """A piece on a designer's shelf. data: the piece's file (craft/design/remix/piece_stored); the other fields repeat of
    it what the shelf is searched by."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="pieces")
    title = models.CharField(max_length=60)
    slot = models.CharField(max_length=12)
    designer = models.CharField(max_length=120, blank=True)
    data = models.JSONField()
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("title", "id")

    def __str__(self) -> str:
        return self.title
