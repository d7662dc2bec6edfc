"""Letters as rows: what was written to whom about which design."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from studio.designs.models import Design


class Letter(models.Model):
    """A letter that was handed to the mail server, or to the folder that stands in for one. failed: why it was not."""

    owner = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="letters")
    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="letters")
    to = models.EmailField()
    subject = models.CharField(max_length=160)
    body = models.TextField()
    failed = models.CharField(max_length=200, blank=True)
    created = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ("-created", "-id")

    def __str__(self) -> str:
        return f"{self.to}: {self.subject}"
