"""What stands in the way of a release beside what its proof-reader finds; apps above make known what they know of."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from django.contrib.auth.models import User

from studio.booklets.schemas import FindingOut
from studio.designs.models import Design

Blocker = Callable[[User, Design], Iterable[FindingOut]]

_BLOCKERS: list[Blocker] = []


def register(blocker: Blocker) -> None:
    """Ask this, too, before a release; called when its app is ready."""
    _BLOCKERS.append(blocker)


def found_elsewhere(user: User, design: Design) -> list[FindingOut]:
    """Everything that other apps find."""
    return [found for blocker in _BLOCKERS for found in blocker(user, design)]
