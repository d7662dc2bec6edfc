"""Sessions that know whose they are, so that a designer sees them and ends them. An engine of Django's kind."""

from __future__ import annotations

from typing import Any, cast

from django.contrib.auth import SESSION_KEY
from django.contrib.auth.models import User
from django.contrib.sessions.backends.db import SessionStore as DbStore
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone

from studio.accounts.models import OwnSession

DEVICE = "device"
"""Under which a session keeps what it was opened with."""

_KNOWN = (
    ("iPhone", "iPhone"),
    ("iPad", "iPad"),
    ("Android", "Android"),
    ("Windows", "Windows"),
    ("Macintosh", "Mac"),
    ("Linux", "Linux"),
)
_BROWSERS = (("Firefox/", "Firefox"), ("Edg/", "Edge"), ("Chrome/", "Chrome"), ("Safari/", "Safari"))


class SessionStore(DbStore):
    """Django's sessions in the database, with their owner beside them."""

    @classmethod
    def get_model_class(cls) -> type[OwnSession]:
        """The row of a session."""
        return OwnSession

    def create_model_instance(self, data: dict[str, Any]) -> OwnSession:
        """A session's row, with whose it is and what it was opened with."""
        made = cast(OwnSession, super().create_model_instance(data))
        owner = data.get(SESSION_KEY)
        made.user_id = int(owner) if owner else None
        made.device = str(data.get(DEVICE, ""))[:60]
        return made


def told_device(agent: str) -> str:
    """What a browser says of itself, in two words; no more of it is kept."""
    system = next((name for sign, name in _KNOWN if sign in agent), "")
    browser = next((name for sign, name in _BROWSERS if sign in agent), "")
    return f"{browser} on {system}" if browser and system else browser or system or "Another program"


def note_device(request: HttpRequest) -> None:
    """Keep with a session what it was opened with."""
    request.session[DEVICE] = told_device(request.headers.get("User-Agent", ""))


def open_sessions(user: User) -> QuerySet[OwnSession]:
    """A designer's sessions that still hold, the latest first."""
    return OwnSession.objects.filter(user=user, expire_date__gt=timezone.now()).order_by("-expire_date")


def end_all(user: User, but: str | None = None) -> int:
    """End a designer's sessions, all or all but one; how many."""
    ended, _ = OwnSession.objects.filter(user=user).exclude(session_key=but or "").delete()
    return ended
