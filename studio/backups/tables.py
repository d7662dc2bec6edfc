"""What a backup holds, parents before children, and which of a row's values point at other rows."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.contrib.auth.models import User
from django.db import models

from craft.errors import CraftError
from studio.accounts.models import Profile
from studio.commissions.models import Agreement, Commission, ShownPicture
from studio.designs.models import Design, PartVersion, Picture, Revision, TypedText
from studio.designs.upgrades import newest
from studio.leaving.models import Departure
from studio.links.models import Link
from studio.making.models import Decision, FrozenEdition, Making, MakingEvent, MakingPicture
from studio.pieces.models import Piece
from studio.post.models import Letter
from studio.proving.models import LogEntry, RemarkAnswer, TestCall, Tester
from studio.releases.models import Release, ReleaseFile
from studio.translating.models import TranslatedPiece, Translator
from studio.yarns.models import Swatch, Yarn

TABLES: tuple[type[models.Model], ...] = (
    User,
    Profile,
    Yarn,
    Swatch,
    Design,
    Revision,
    PartVersion,
    TypedText,
    Picture,
    Piece,
    LogEntry,
    Link,
    FrozenEdition,
    Making,
    MakingEvent,
    MakingPicture,
    Decision,
    TestCall,
    Tester,
    RemarkAnswer,
    Release,
    ReleaseFile,
    Letter,
    Commission,
    Agreement,
    ShownPicture,
    Translator,
    TranslatedPiece,
    Departure,
)

Record = dict[str, Any]
"""A row as Django serializes it: `model`, `pk`, `fields`."""


def _key(model: type[models.Model]) -> str:
    return model._meta.label_lower


def broken_references(records: Iterable[Record]) -> list[str]:
    """What rows point at that is not among them, one sentence each: foreign keys, and parts of shown manifests."""
    records = list(records)
    present: dict[str, set[str]] = {_key(m): set() for m in TABLES}
    for record in records:
        if record["model"] not in present:
            return [f"a row of {record['model']!r}, which is no table of Spirrel"]
        present[record["model"]].add(str(record["pk"]))
    found = [broken for record in records for broken in _broken_keys(record, present)]
    revisions = {str(r["pk"]): r for r in records if r["model"] == _key(Revision)}
    for record in records:
        if record["model"] == _key(Design):
            found += _broken_parts(record, revisions, present[_key(PartVersion)])
    return found


_MODELS = {_key(m): m for m in TABLES}


def _broken_keys(record: Record, present: dict[str, set[str]]) -> Iterable[str]:
    for field in _MODELS[record["model"]]._meta.get_fields():
        target = field.related_model if isinstance(field, models.ForeignKey) else None
        if not isinstance(target, type) or not issubclass(target, models.Model) or _key(target) not in present:
            continue
        value = record["fields"].get(field.name)
        if value is not None and str(value) not in present[_key(target)]:
            yield f"{record['model']} {record['pk']}: its {field.name} ({value}) is missing"


def _broken_parts(design: Record, revisions: dict[str, Record], versions: set[str]) -> Iterable[str]:
    head = revisions.get(str(design["fields"]["head"]))
    if head is None:
        yield f"designs.design {design['pk']}: nothing of it is shown"
        return
    try:
        data = newest(head["fields"]["data"])
    except CraftError as error:
        yield f"designs.revision {head['pk']}: {error.message}"
        return
    for part in data.get("parts", []):
        if str(part.get("version")) not in versions:
            yield f"designs.revision {head['pk']}: the rounds of {part.get('name')!r} are missing"
