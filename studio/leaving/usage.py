"""What a studio holds, against what there is room for."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db.models import Sum

from studio.designs.actions import MOST_DESIGNS
from studio.designs.models import Design, Picture
from studio.designs.uploads import QUOTA_BYTES
from studio.jobs.actions import MOST_KEPT_BYTES
from studio.jobs.models import Job
from studio.pieces.actions import MOST_PIECES
from studio.pieces.models import Piece
from studio.post.actions import MOST_KEPT as MOST_LETTERS
from studio.yarns.actions import MOST_YARNS
from studio.yarns.models import Yarn

MB = 2**20


@dataclass(frozen=True, slots=True)
class Holding:
    """One kind of thing: how much there is, how much there may be, in which unit, and what to do when it is full."""

    name: str
    used: int
    most: int
    unit: str
    full: str


_Measured = Callable[[User], int]

_KINDS: tuple[tuple[str, _Measured, int, str, str], ...] = (
    (
        "Designs",
        lambda user: Design.objects.filter(owner=user).count(),
        MOST_DESIGNS,
        "",
        "Take everything along, then remove designs that you are done with.",
    ),
    (
        "Pictures",
        lambda user: (Picture.objects.filter(owner=user).aggregate(size=Sum("size"))["size"] or 0) // MB,
        QUOTA_BYTES // MB,
        "MB",
        "Remove pictures at the Brief of a design.",
    ),
    ("Yarns", lambda user: Yarn.objects.filter(owner=user).count(), MOST_YARNS, "", "Remove yarns from the basket."),
    (
        "Pieces",
        lambda user: Piece.objects.filter(owner=user).count(),
        MOST_PIECES,
        "",
        "Remove pieces that nothing uses from their shelf.",
    ),
    ("Letters", lambda user: user.letters.count(), MOST_LETTERS, "", "Remove letters at Proving."),
    (
        "Settled figures",
        lambda user: (Job.objects.filter(owner=user).aggregate(size=Sum("size"))["size"] or 0) // MB,
        MOST_KEPT_BYTES // MB,
        "MB",
        "Nothing: those used longest ago go by themselves, and settle anew when they are looked at.",
    ),
)


def holdings(user: User) -> list[Holding]:
    """What a designer's studio holds."""
    return [Holding(name, measured(user), most, unit, full) for name, measured, most, unit, full in _KINDS]
