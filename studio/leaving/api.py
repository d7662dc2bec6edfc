"""Routes of a studio as a whole: what it holds, where it is open, taking everything along, leaving."""

from __future__ import annotations

import hashlib
from dataclasses import asdict

from django.contrib.auth.models import User
from django.http import FileResponse, HttpRequest
from django.utils import timezone
from ninja import Router

from studio.accounts.sessions import end_all, open_sessions
from studio.errors import NOT_FOUND, Refusal
from studio.guard import designer
from studio.leaving import actions
from studio.leaving.models import Departure
from studio.leaving.schemas import HoldingOut, LeaveIn, OpenSession, StudioState
from studio.leaving.usage import holdings

router = Router(tags=["studio"])


def _id(key: str) -> str:
    """A session's number on the wire: its key opens it, and never leaves the database."""
    return hashlib.sha256(key.encode()).hexdigest()[:16]


def _state(request: HttpRequest, user: User) -> StudioState:
    here = request.session.session_key
    departure = Departure.objects.filter(user=user).first()
    return StudioState(
        holdings=[HoldingOut(**asdict(one)) for one in holdings(user)],
        sessions=[
            OpenSession(
                id=_id(one.session_key),
                device=one.device or "Another program",
                until=one.expire_date,
                here=one.session_key == here,
            )
            for one in open_sessions(user)
        ],
        leaves=departure.due if departure else None,
    )


@router.get("", response=StudioState)
def read_studio(request: HttpRequest) -> StudioState:
    """What her studio holds, where it is open, and whether it closes."""
    return _state(request, designer(request))


@router.delete("/sessions", response=StudioState)
def end_other_sessions(request: HttpRequest) -> StudioState:
    """Sign out everywhere but here."""
    user = designer(request)
    end_all(user, but=request.session.session_key)
    return _state(request, user)


@router.delete("/sessions/{session_id}", response=StudioState)
def end_session(request: HttpRequest, session_id: str) -> StudioState:
    """Sign out somewhere else."""
    user = designer(request)
    found = [one for one in open_sessions(user) if _id(one.session_key) == session_id]
    if not found:
        raise Refusal(404, "not-found", NOT_FOUND)
    for one in found:
        one.delete()
    return _state(request, user)


@router.get("/everything.zip", response=None)
def take_everything(request: HttpRequest) -> FileResponse:
    """Everything of hers in one archive that is read without us."""
    name = f"studio-{timezone.localdate()}.zip"
    return FileResponse(
        actions.pack(designer(request)),
        as_attachment=True,
        filename=name,
        content_type="application/zip",
        headers={"Cache-Control": "no-store"},
    )


@router.post("/leave", response=StudioState)
def leave(request: HttpRequest, payload: LeaveIn) -> StudioState:
    """Close the studio after a time of grace."""
    user = designer(request)
    actions.leave(request, user, payload.present)
    return _state(request, user)


@router.delete("/leave", response=StudioState)
def stay(request: HttpRequest) -> StudioState:
    """Stay after all."""
    user = designer(request)
    actions.stay(user)
    return _state(request, user)
