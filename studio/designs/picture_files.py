"""Files of pictures: thrown away only once their rows are gone for good, and not while a backup reads them."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from pathlib import Path

from django.conf import settings
from django.db import connection, transaction

from studio.designs.models import Picture

_LOCK = "spirrel-pictures-"
"""With the database's name behind it: studios on one server do not wait for each other."""
PATIENCE_SECONDS = 60


@contextmanager
def kept_for_now() -> Iterator[None]:
    """While this is held no file is thrown away; what would have been is swept away later."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT GET_LOCK(CONCAT(%s, DATABASE()), %s)", [_LOCK, PATIENCE_SECONDS])
        try:
            yield
        finally:
            cursor.execute("SELECT RELEASE_LOCK(CONCAT(%s, DATABASE()))", [_LOCK])


def discard_after_commit(names: Iterable[str]) -> None:
    """Throw files away once this transaction is committed; while a backup reads, they stay until the next sweep."""
    wanted = list(names)
    transaction.on_commit(lambda: _discard(wanted))


def _discard(names: list[str]) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT GET_LOCK(CONCAT(%s, DATABASE()), 0)", [_LOCK])
        held = cursor.fetchone()
        if not held or held[0] != 1:
            return
        try:
            for name in names:
                (Path(settings.MEDIA_ROOT) / name).unlink(missing_ok=True)
        finally:
            cursor.execute("SELECT RELEASE_LOCK(CONCAT(%s, DATABASE()))", [_LOCK])


def sweep() -> int:
    """Throw away files that no row names; how many. Called at a start, before anything is uploaded."""
    root = Path(settings.MEDIA_ROOT)
    known = set(Picture.objects.values_list("file", flat=True))
    lost = (
        [p for p in root.rglob("*") if p.is_file() and str(p.relative_to(root)) not in known] if root.exists() else []
    )
    for path in lost:
        path.unlink(missing_ok=True)
    return len(lost)
