"""What a studio holds, against what there is room for."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db.models import Count, Max, Sum

from studio.designs.actions import MOST_DESIGNS
from studio.designs.models import Design, Picture, Revision
from studio.designs.recording import MOST_REVISIONS
from studio.designs.uploads import QUOTA_BYTES
from studio.jobs.actions import MOST_KEPT_BYTES
from studio.jobs.models import Job
from studio.links.actions import MOST_LINKS
from studio.pieces.actions import MOST_PIECES
from studio.pieces.models import Piece
from studio.post.actions import MOST_KEPT as MOST_LETTERS
from studio.releases.actions import MOST_RELEASES, bytes_of_releases
from studio.releases.actions import QUOTA_BYTES as QUOTA_OF_RELEASES
from studio.releases.models import Release
from studio.yarns.actions import MOST_SWATCHES, MOST_YARNS
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


def _most_links(user: User) -> int:
    counted = Design.objects.filter(owner=user).annotate(many=Count("links"))
    return int(counted.aggregate(most=Max("many"))["most"] or 0)


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
    (
        "Steps of history of the design that has most",
        lambda user: Revision.objects.filter(design__owner=user).aggregate(most=Max("number"))["most"] or 0,
        MOST_REVISIONS,
        "",
        "Go on in a copy of that design: it begins with a history of its own.",
    ),
    (
        "Releases of the design that has most",
        lambda user: Release.objects.filter(design__owner=user).aggregate(most=Max("number"))["most"] or 0,
        MOST_RELEASES,
        "",
        "Go on in a copy of that design; the releases of this one stay where their readers find them.",
    ),
    (
        "Files of releases",
        lambda user: bytes_of_releases(user) // MB,
        QUOTA_OF_RELEASES // MB,
        "MB",
        "Take everything along, then remove designs whose releases nobody reads any more.",
    ),
    (
        "Links of the design that has most",
        _most_links,
        MOST_LINKS,
        "",
        "Withdraw links that nobody needs any more; those that ended go by themselves.",
    ),
    (
        "Swatches",
        lambda user: user.swatches.count(),
        MOST_SWATCHES,
        "",
        "Throw old swatches away; gauges taken from them stay as they are.",
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
