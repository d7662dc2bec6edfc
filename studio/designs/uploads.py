"""Adding and removing reference pictures."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.db import transaction
from django.db.models import Sum

from studio.designs.models import Picture
from studio.designs.picture_files import discard_after_commit
from studio.designs.pictures import reencoded
from studio.designs.policy import design_of
from studio.errors import Refusal

QUOTA_BYTES = 200 * 2**20


def add_picture(user: User, pk: int, raw: bytes) -> Picture:
    """Keep a reference picture of a design; Refusal when it is none or the quota is used up."""
    design = design_of(user, pk)
    used = Picture.objects.filter(owner=user).aggregate(total=Sum("size"))["total"] or 0
    if used + len(raw) > QUOTA_BYTES:
        raise Refusal(422, "invalid", f"Your pictures fill {QUOTA_BYTES // 2**20} MB; remove some first.", field="file")
    body, kind, width, height = reencoded(raw)
    picture = Picture(owner=user, design=design, width=width, height=height, size=len(body))
    with transaction.atomic():
        picture.file.save(f"{picture.name}.{kind}", ContentFile(body), save=False)
        picture.save()
    return picture


def remove_picture(picture: Picture) -> None:
    """Throw a picture away with its file."""
    with transaction.atomic():
        discard_after_commit([str(picture.file.name)])
        picture.delete()
