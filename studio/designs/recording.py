"""Recording: every action ends in one new revision, so that every action is one undo."""

from __future__ import annotations

import secrets
from typing import Any

from django.db.models import Max

from craft import __version__
from studio.designs.manifest import Manifest
from studio.designs.models import Design, PartVersion, Revision
from studio.errors import Refusal


def new_key() -> str:
    """A key for a part or a step."""
    return secrets.token_hex(4)


MOST_REVISIONS = 20_000
"""Steps of history a design keeps: years of work on one figure."""


def record(design: Design, manifest: Manifest, label: str) -> Revision:
    """Write a revision and show it. Runs inside the caller's transaction, with the design locked."""
    last = design.revisions.aggregate(last=Max("number"))["last"] or 0
    if last >= MOST_REVISIONS:
        raise Refusal(
            422,
            "full",
            f"This design has {last:,} steps of history, which is all there is room for: go on in a copy of it.",
        )
    revision = Revision.objects.create(
        design=design, number=last + 1, parent=design.head, label=label[:120], data=manifest.model_dump(mode="json")
    )
    design.head = revision
    design.name = manifest.name
    design.save()
    return revision


def new_version(
    design: Design, key: str, text: str, recipe: dict[str, Any] | None, *, hand_edited: bool = False
) -> PartVersion:
    """Write a version of a part: the text as it stands."""
    return PartVersion.objects.create(
        design=design, part_key=key, text=text, recipe=recipe, hand_edited=hand_edited, craft_version=__version__
    )
