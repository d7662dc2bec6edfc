"""Prints the files of a release, in a worker: pictures first, then every edition in all its files."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterator

from django.contrib.auth.models import User
from django.db import transaction

from craft.document.booklet import Kind, Shown
from craft.errors import CraftError
from studio.booklets import album
from studio.booklets.files import ENDINGS, BookFile, book_file
from studio.booklets.manuscripts import AS_IT_IS, DIFFERENCE, FOR_ALL, Booklet, booklet_of
from studio.jobs.kinds import Stopped, Watch
from studio.releases.actions import PRINTING, as_original
from studio.releases.answers import ReleaseAnswer
from studio.releases.models import PrintState, Release, ReleaseFile
from studio.releases.schemas import PrintIn

KIND = PRINTING


def work(question: str, watch: Watch) -> bytes:
    """Print a release; the answer as JSON. What fails is told in the release as well."""
    asked = json.loads(question)
    user, release = User.objects.get(pk=asked["user"]), Release.objects.filter(pk=asked["release"]).first()
    if release is None:
        raise CraftError("This release is gone.")
    if release.state != PrintState.READY:
        try:
            missing: list[str] = []
            files = list(_printed(user, release, watch, missing))
            _keep(release, files, " ".join(dict.fromkeys(missing)))
        except CraftError as error:
            Release.objects.filter(pk=release.pk).update(state=PrintState.FAILED, error=error.message[:500])
            raise
    return ReleaseAnswer(release=release.number, files=release.files.count()).model_dump_json().encode()


@transaction.atomic
def _keep(release: Release, files: list[tuple[str, BookFile, str]], missing: str) -> None:
    """All files at once, or none. missing: which pictures are not in them, and why."""
    if not Release.objects.select_for_update().filter(pk=release.pk).exclude(state=PrintState.READY).exists():
        return
    for title, file, name in files:
        ReleaseFile.objects.create(
            release=release,
            title=title,
            ending=file.ending,
            name=name,
            content=file.content,
            size=len(file.content),
            digest=hashlib.sha256(file.content).hexdigest(),
        )
    Release.objects.filter(pk=release.pk).update(state=PrintState.READY, error=missing[:500])


def _printed(user: User, release: Release, watch: Watch, missing: list[str]) -> Iterator[tuple[str, BookFile, str]]:
    source = as_original(release)
    prints = [PrintIn.model_validate(p) for p in release.prints]
    for number, asked in enumerate(prints):
        if not watch(round(100 * number / len(prints))):
            raise Stopped
        made = booklet_of(user, source, asked.value())
        title = _title(release, asked)
        pictures: dict[str, album.Taken] = {}
        if any(ENDINGS[e].pictures for e in asked.files):
            pictures = _pictures(user, release, made, watch, missing)
        for ending in asked.files:
            file = book_file(user, made, ending, pictures, asked.sheet)
            yield title, file, _name(release, asked, file)


def _pictures(user: User, release: Release, made: Booklet, watch: Watch, missing: list[str]) -> dict[str, album.Taken]:
    """The pictures of a booklet. What cannot be painted is told: the page has its place and says what it would show."""
    wanted = [Shown.of(p.key) for p in made.document.pictures]
    painted = [s for s in wanted if s.kind is not Kind.PHOTO]
    photos = album.photographs(release.design, made.photos, wanted)
    try:
        return photos | album.painted_now(user, made.value, painted, watch, left=made.left)
    except CraftError as error:
        missing.append(f"Pictures of the figure are missing: {error.message}")
        return photos


def _title(release: Release, asked: PrintIn) -> str:
    """Which edition it is, in words: 'all sizes, UK terms, A4, large type'."""
    value = {AS_IT_IS: "the pattern", FOR_ALL: "all sizes", DIFFERENCE: "what differs from the base"}
    sizes = {s["key"]: s["name"] for s in release.data.get("sizes", [])}
    terms = {"us": "US terms", "uk": "UK terms", "letters": "letters"}
    paper = {"a4": "A4", "letter": "Letter", "phone": "for a phone"}
    languages = {
        "en": terms[asked.terms],
        "de": "German",
        "fr": "French",
        "es": "Spanish",
        "it": "Italian",
        "nl": "Dutch",
    }
    told = [value.get(asked.edition) or sizes.get(asked.edition, asked.edition), languages[asked.language]]
    if "pdf" in asked.files:
        told.append(paper[asked.paper])
    told += ["left-handed"] if asked.left else []
    explained = {"short": "short", "rounds": "rounds only", "counts": "tables of counts"}
    told += [explained[asked.explained]] if asked.explained in explained else []
    told += ["large type"] if asked.large else []
    told += ["little ink"] if asked.low_ink else []
    return ", ".join(told)[:120]


def _name(release: Release, asked: PrintIn, file: BookFile) -> str:
    extra = [] if asked.edition == AS_IT_IS else [asked.edition]
    extra += [asked.terms] if asked.terms != "us" and asked.language == "en" else []
    extra += [asked.language] if asked.language != "en" else []
    extra += [asked.paper] if file.ending == "pdf" and asked.paper != "a4" else []
    extra += ["left"] if asked.left else []
    extra += [asked.explained] if asked.explained != "full" else []
    extra += ["large"] if asked.large else []
    return file.named(" ".join([release.data["name"], "release", str(release.number), *extra]))
