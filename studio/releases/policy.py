"""Whose releases, and who else may read them: whoever holds a link to read the design."""

from __future__ import annotations

from django.shortcuts import get_object_or_404

from studio.designs.models import Design
from studio.policy import Purpose, Rule, Verb, register
from studio.releases.models import Release, ReleaseFile

_READERS = {Purpose.READ: frozenset({Verb.READ_BOOKLET})}

register(Release, Rule("design__owner", "design_id", _READERS))
register(ReleaseFile, Rule("release__design__owner", "release__design_id", _READERS))


def release_of(design: Design, number: int) -> Release:
    """A release of a design by its number, else 404."""
    return get_object_or_404(design.releases, number=number)
