"""The pictures of a booklet: asked for as jobs, and handed out as they are ready, small enough to be passed on."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from django.contrib.auth.models import User
from PIL import Image, ImageOps

from craft.design.design import Design as DesignValue
from craft.design.portrait import Moment
from craft.document.booklet import Document, Kind, Picture, Shown
from craft.errors import CraftError
from craft.figure.render import Look, Side
from studio.bench import portraits
from studio.bench.scene_schemas import SettlingOut
from studio.designs.manifest import Photo
from studio.designs.models import Design
from studio.jobs.kinds import Watch

WIDE, SMALL = 640, 400
"""Pixels of a picture of the figure, and of one of a part on the way."""

PAPER = (255, 255, 255)
QUALITY = 88
"""Of JPEG: no blocks to be seen at the size of print, a tenth of the bytes of PNG."""

KIND = "image/jpeg"


@dataclass(frozen=True, slots=True)
class Taken:
    """A picture as a file."""

    content: bytes
    kind: str = KIND


def how(shown: Shown) -> tuple[Look, Moment]:
    """How and when a picture is to be taken; photographs are not painted."""
    if shown.kind is Kind.FIGURE:
        sides = {side.value: side for side in Side}
        if shown.what not in sides:
            raise CraftError("A figure has no such side.", field="picture")
        return Look(sides[shown.what], width=WIDE, height=WIDE), Moment()
    if shown.kind is Kind.STEP:
        return Look(Side.BETWEEN, width=WIDE, height=WIDE), Moment(step=shown.what)
    return Look(Side.FRONT, above=24, width=SMALL, height=SMALL), Moment(part=shown.what, after=shown.round)


def painted_kinds(document: Document) -> list[Shown]:
    """What of a booklet has to be painted, in its order."""
    return [s for p in document.pictures if (s := Shown.of(p.key)).kind is not Kind.PHOTO]


def ask(user: User, value: DesignValue, document: Document) -> SettlingOut:
    """Have every picture of a booklet painted that is not; how far that is."""
    return portraits.painting_several(user, value, [how(s) for s in painted_kinds(document)])


def keys_ready(user: User, value: DesignValue, document: Document) -> list[str]:
    """Keys of the pictures of a booklet that are there by now."""
    wanted = painted_kinds(document)
    there = portraits.there_are(user, value, [how(s) for s in wanted])
    photos = [p.key for p in document.pictures if Shown.of(p.key).kind is Kind.PHOTO]
    return [*(s.key for s, ok in zip(wanted, there, strict=True) if ok), *photos]


def painted_already(user: User, value: DesignValue, wanted: Sequence[Shown], *, left: bool = False) -> dict[str, bytes]:
    """Those of the pictures that are painted by now, by key, as PNG on no ground. left: in the mirror."""
    found = portraits.painted_before(user, value, [how(seen_from(s, left=left)) for s in wanted])
    there = {s.key: png for s, png in zip(wanted, found, strict=True) if png is not None}
    return {key: flipped(png) for key, png in there.items()} if left else there


_OTHER_SIDE = {"left": "right", "right": "left"}


def seen_from(shown: Shown, *, left: bool) -> Shown:
    """What is painted for a picture: for the mirror the other side, as what is on its left there is on its right."""
    if not left or shown.kind is not Kind.FIGURE:
        return shown
    return Shown(Kind.FIGURE, _OTHER_SIDE.get(shown.what, shown.what))


def flipped(png: bytes) -> bytes:
    """A picture in the mirror."""
    out = io.BytesIO()
    ImageOps.mirror(Image.open(io.BytesIO(png))).save(out, "PNG", compress_level=2)
    return out.getvalue()


def painted_now(
    user: User, value: DesignValue, wanted: Sequence[Shown], watch: Watch, *, left: bool = False
) -> dict[str, Taken]:
    """The pictures by key, painted in a worker where they were not before. left: in the mirror."""
    taken = {}
    for shown in wanted:
        look, moment = how(seen_from(shown, left=left))
        png = portraits.painted(user, value, look, moment, watch)
        taken[shown.key] = Taken(as_jpeg(flipped(png) if left else png))
    return taken


def photos_of(design: Design, photos: Sequence[Photo]) -> Mapping[str, tuple[Picture, ...]]:
    """Her photographs by the step they show, '' for the finished figure; of those whose file is there."""
    there = set(design.pictures.values_list("pk", flat=True))
    found: dict[str, tuple[Picture, ...]] = {}
    for photo in photos:
        if photo.picture in there:
            shown = Picture(
                Shown(Kind.PHOTO, photo.key).key, photo.alt or photo.caption or "A photograph", photo.caption
            )
            found[photo.step or ""] = (*found.get(photo.step or "", ()), shown)
    return found


def photographs(design: Design, photos: Sequence[Photo], shown: Sequence[Shown]) -> dict[str, Taken]:
    """Her photographs among the pictures that are asked for, cut as she said, by key."""
    wanted = {s.what for s in shown if s.kind is Kind.PHOTO}
    entries = [p for p in photos if p.key in wanted]
    files = {p.pk: p for p in design.pictures.filter(pk__in=[e.picture for e in entries])}
    taken = {}
    for entry in entries:
        kept = files.get(entry.picture)
        if kept is None:
            continue
        try:
            with kept.file.open() as raw:
                taken[Shown(Kind.PHOTO, entry.key).key] = Taken(_cut(raw.read(), entry))
        except FileNotFoundError:
            continue
    return taken


MOST_ACROSS = 1_200
"""Pixels of a photograph's longer side in a booklet."""


def _cut(raw: bytes, photo: Photo) -> bytes:
    image = Image.open(io.BytesIO(raw))
    width, height = image.size
    left, top = round(photo.left * width), round(photo.top * height)
    right = max(left + 1, min(width, left + round(photo.wide * width)))
    bottom = max(top + 1, min(height, top + round(photo.tall * height)))
    cut = image.crop((left, top, right, bottom))
    cut.thumbnail((MOST_ACROSS, MOST_ACROSS))
    return _written(cut)


def as_jpeg(png: bytes) -> bytes:
    """A painted picture on white paper."""
    return _written(Image.open(io.BytesIO(png)))


def _written(image: Image.Image) -> bytes:
    if image.mode != "RGB":
        clear = image.convert("RGBA")
        image = Image.new("RGB", clear.size, PAPER)
        image.paste(clear, mask=clear.getchannel("A"))
    out = io.BytesIO()
    image.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()
