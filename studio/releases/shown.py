"""Releases as they go over the wire."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict

from django.contrib.auth.models import User

from craft.document.releases import Erratum, as_lines
from studio.booklets.manuscripts import original
from studio.booklets.proofs import findings_of, shown
from studio.booklets.schemas import FindingOut
from studio.designs.models import Design
from studio.releases.actions import changes_since
from studio.releases.blockers import found_elsewhere
from studio.releases.models import PrintState, Release
from studio.releases.schemas import ErratumOut, FileOut, NextRelease, ReleaseOut, Releases


def releases_shown(user: User, design: Design) -> Releases:
    """All releases of a design, and what the next one would be."""
    rows = list(design.releases.all())
    return Releases(releases=[release_shown(r) for r in rows], next=_next(user, design, rows[0] if rows else None))


def release_shown(release: Release) -> ReleaseOut:
    """A release with its files, without their content."""
    files = release.files.defer("content")
    return ReleaseOut(
        number=release.number,
        version=release.version,
        date=release.date,
        digest=release.digest,
        state=PrintState(release.state),
        error=release.error,
        forced=release.forced,
        findings=[FindingOut.model_validate(f) for f in release.findings],
        errata=[ErratumOut.model_validate(e) for e in release.errata],
        changes=release.changes,
        files=[FileOut.model_validate(f, from_attributes=True) for f in files],
    )


def _next(user: User, design: Design, last: Release | None) -> NextRelease:
    source = original(user, design)
    found = [*map(shown, findings_of(user, source)), *found_elsewhere(user, design)]
    differs = changes_since(last, source.value)
    return NextRelease(
        number=last.number + 1 if last else 1,
        version=source.value.printed.version,
        blocked=any(f.blocks for f in found),
        findings=found,
        errata=errata_shown(differs),
        changes="\n".join(as_lines(differs)),
        unchanged=last is not None and not differs,
    )


def errata_shown(found: Sequence[Erratum]) -> list[ErratumOut]:
    """Errata as they go over the wire."""
    return [ErratumOut(**asdict(e)) for e in found]
