"""Everything of a designer in one ZIP that is read without us: patterns as text, designs in their open format, every
row as JSON, pictures and files as what they are."""

from __future__ import annotations

import json
import logging
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import IO, Any
from zipfile import ZIP_DEFLATED, ZIP_STORED, ZipFile

from django.contrib.auth.models import User
from django.core.serializers.json import DjangoJSONEncoder
from django.db import models
from django.utils import timezone

from craft.design.stored import written
from craft.document.booklet import as_markdown, as_text
from studio.backups.tables import TABLES
from studio.booklets.manuscripts import Edition, booklet
from studio.designs.models import Design, PartVersion, Picture, TypedText
from studio.designs.picture_files import kept_for_now
from studio.designs.reading import design_value
from studio.making.models import FrozenEdition, MakingPicture
from studio.policy import Owner, Verb, rules, visible
from studio.releases.models import ReleaseFile

log = logging.getLogger("studio")

FORMAT = 1
SECRET = frozenset({"token_hash", "password"})
"""Fields that are left out: they open doors, and say nothing about anybody's work."""

README = """Everything of the studio "{studio}", taken along on {day}. Format {format}.

designs/    a folder for each design:
    design.json      the whole design in its open format (docs/file-format.md); Spirrel reads it again
    pattern.txt      the written pattern as plain text
    pattern.md       the same as Markdown
    pictures/        reference pictures
rows/       everything that is kept, a file of JSON for each kind of row, with the links between them by number:
            history, versions of every part, yarns, samples, makings with their logs, tests and what testers said,
            commissions, releases, letters
files/      photographs of makings, files of releases, figures of pieces: named in the rows

Left out: passwords, and the secret parts of links.
{problems}"""


def folder_of(number: int, name: str) -> str:
    """A folder for a design, in letters that every system takes; the name in full stands inside."""
    plain = re.sub(r"[^\w-]+", "-", name).strip("-")[:60]
    return f"designs/{number:03d}-{plain or 'design'}"


def write_archive(user: User, out: IO[bytes]) -> None:
    """Write the archive of a designer."""
    problems: list[str] = []
    with kept_for_now(), ZipFile(out, "w", ZIP_DEFLATED) as archive:
        for number, design in enumerate(
            visible(Owner(user), Verb.SEE, Design).select_related("head").order_by("pk"), 1
        ):
            _add_design(archive, user, design, folder_of(number, design.name), problems)
        for model in TABLES:
            rows = _rows_of(user, model)
            if rows is not None:
                _add_rows(archive, model, rows)
        said = "".join(f"\n{problem}" for problem in problems)
        studio = user.profile.studio if hasattr(user, "profile") else user.username
        head = README.format(studio=studio, day=timezone.localdate(), format=FORMAT, problems=said)
        archive.writestr("README.txt", head)


def _add_design(archive: ZipFile, user: User, design: Design, folder: str, problems: list[str]) -> None:
    try:
        archive.writestr(f"{folder}/design.json", written(design_value(design)))
        document = booklet(user, design, Edition()).document
        archive.writestr(f"{folder}/pattern.txt", as_text(document))
        archive.writestr(f"{folder}/pattern.md", as_markdown(document))
    except Exception as error:
        # One design that cannot be put into words must not keep the others here; its rows are there all the same.
        log.error("design %s could not be written out", design.pk, exc_info=error)
        problems.append(f"{folder} could not be put into words; everything of it stands in rows/.")
    for picture in Picture.objects.filter(design=design).order_by("pk"):
        path = Path(picture.file.path)
        if path.is_file():
            archive.write(path, f"{folder}/pictures/{picture.pk}{path.suffix}", ZIP_STORED)
        else:
            problems.append(f"A picture of {folder} is not on the disk any more.")


def _rows_of(user: User, model: type[models.Model]) -> models.QuerySet[Any] | None:
    """A designer's rows of a model; None for one that holds nothing of hers but her name."""
    if model in (PartVersion, TypedText):
        return model._default_manager.filter(design__owner=user).order_by("pk")
    if model not in rules():
        return None
    return visible(Owner(user), Verb.SEE, model).order_by("pk")


@dataclass(frozen=True, slots=True)
class _Files:
    """Content that lies in rows of a model: the field, the ending of its file, and how it is read."""

    field: str
    ending: Callable[[Any], str]
    content: Callable[[Any], bytes]


_IN_ROWS: dict[type[models.Model], _Files] = {
    FrozenEdition: _Files("page", lambda row: "html", lambda row: bytes(row.page)),
    MakingPicture: _Files("content", lambda row: str(row.kind), lambda row: bytes(row.content)),
    ReleaseFile: _Files("content", lambda row: str(row.ending), lambda row: bytes(row.content)),
}


def _file_of(row: models.Model, files: _Files) -> str:
    return f"files/{row._meta.label_lower}/{row.pk}.{files.ending(row)}"


def _add_rows(archive: ZipFile, model: type[models.Model], rows: models.QuerySet[Any]) -> None:
    files = _IN_ROWS.get(model)
    if files is not None:
        for row in rows.iterator(chunk_size=20):
            archive.writestr(_file_of(row, files), files.content(row), ZIP_STORED)
        rows = rows.defer(files.field)
    with archive.open(f"rows/{model._meta.label_lower}.json", "w") as out:
        out.write(b"[")
        for at, row in enumerate(rows.iterator(chunk_size=200)):
            said = json.dumps(dict(_fields(row, files)), cls=DjangoJSONEncoder, ensure_ascii=False)
            out.write((",\n" if at else "\n").encode() + said.encode())
        out.write(b"\n]\n")


def _fields(row: models.Model, files: _Files | None) -> Iterator[tuple[str, Any]]:
    for field in row._meta.concrete_fields:
        if field.name in SECRET:
            continue
        if files is not None and field.name == files.field:
            yield field.name, _file_of(row, files)
        elif isinstance(field, models.FileField):
            yield field.name, str(getattr(row, field.attname))
        else:
            yield field.attname, getattr(row, field.attname)
