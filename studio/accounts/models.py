"""A designer's preferences beside Django's own user."""

from __future__ import annotations

from django.conf import settings
from django.contrib.sessions.backends.base import SessionBase
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.utils.module_loading import import_string


class Profile(models.Model):
    """How a designer works: her studio's name, the terms she writes in, her hand."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="profile")
    studio = models.CharField(max_length=80)
    terms = models.CharField(max_length=8, default="us", choices=[("us", "US"), ("uk", "UK"), ("letters", "Letters")])
    left_handed = models.BooleanField(default=False)

    def __str__(self) -> str:
        return self.studio


class OwnSession(AbstractBaseSession):
    """A session with its owner, and what it was opened with in two words."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="+")
    device = models.CharField(max_length=60, blank=True)

    class Meta(AbstractBaseSession.Meta):
        abstract = False

    @classmethod
    def get_session_store_class(cls) -> type[SessionBase]:
        """The engine that reads it."""
        return import_string(f"{settings.SESSION_ENGINE}.SessionStore")  # type: ignore[no-any-return]


class Tries(models.Model):
    """How often something was tried, and when last. key: a digest of what, and of whose tries they are."""

    key = models.CharField(max_length=64, unique=True)
    tries = models.PositiveIntegerField()
    last = models.DateTimeField(db_index=True)

    def __str__(self) -> str:
        return f"{self.tries} tries"
