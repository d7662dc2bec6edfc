"""A studio that is to be closed, and when."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Departure(models.Model):
    """A designer who leaves: on the day `due` everything of hers goes, unless she takes it back before."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="departure")
    asked = models.DateTimeField(auto_now_add=True)
    due = models.DateTimeField(db_index=True)

    def __str__(self) -> str:
        return f"leaves {self.due:%Y-%m-%d}"
