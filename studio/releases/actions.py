"""Changes of releases: made, their list of changes edited, printed again."""

from __future__ import annotations

import json
from dataclasses import asdict, replace
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Sum

from craft import __version__
from craft.design.design import Design as DesignValue
from craft.design.stored import from_json, to_json
from craft.document.booklet import TheBase
from craft.document.releases import Erratum, as_lines, digest_of, errata
from studio.bench.portraits import painting
from studio.booklets.manuscripts import DIFFERENCE, Original, original
from studio.booklets.proofs import findings_of, shown
from studio.booklets.schemas import FindingOut
from studio.designs.manifest import Photo, Translation
from studio.designs.models import Design
from studio.errors import Refusal
from studio.jobs import actions as jobs
from studio.policy import Owner, Verb, demand
from studio.releases.blockers import found_elsewhere
from studio.releases.models import PrintState, Release, ReleaseFile
from studio.releases.schemas import PrintIn

MOST_RELEASES = 200
QUOTA_BYTES = 4 * 2**30
"""Files of all releases of a studio: some hundred booklets in every edition."""

PRINTING = "release"
"""The kind of job that prints."""

FORBIDDEN = (
    "Terms of others forbid this release: {reasons} Print only what differs where that is allowed; or, where its designer "
    "has allowed you more, note that under Bases, Credits."
)
REFUSED = (
    "This release is refused: {reasons} Mend that, or release it all the same with a reason in writing, which the "
    "release keeps."
)


def frozen(release: Release) -> DesignValue:
    """The design that a release holds, whatever format it was frozen in."""
    return from_json(release.data)


def as_original(release: Release) -> Original:
    """A release as what its booklets are made of."""
    base = None
    if release.base is not None:
        base = from_json(release.base["design"]), TheBase(**release.base["named"])
    photos = tuple(Photo.model_validate(p) for p in release.photos)
    told = tuple(Translation.model_validate(t) for t in release.translations)
    return Original(
        release.design,
        frozen(release),
        release.designer,
        photos,
        told,
        base,
        release.date,
        release.number,
        release.digest,
    )


def bytes_of_releases(user: User) -> int:
    """How much the files of all releases of a designer take up."""
    files = ReleaseFile.objects.filter(release__design__owner=user)
    return int(files.aggregate(size=Sum("size"))["size"] or 0)


def changes_since(last: Release | None, value: DesignValue) -> tuple[Erratum, ...]:
    """What a maker with the last release has to know of a design; nothing for a first one."""
    return () if last is None else errata(frozen(last), value)


@transaction.atomic
def make_release(user: User, design: Design, prints: list[PrintIn], reason: str, changes: str | None) -> Release:
    """Freeze a design under the next number, and have its files printed. Refusal 409 while something blocks it and no
    reason is given, and while terms of others forbid it, for which there is none."""
    demand(Owner(user), Verb.CHANGE, design)
    Design.objects.select_for_update().get(pk=design.pk)
    last = design.releases.first()
    if last is not None and last.number >= MOST_RELEASES:
        raise Refusal(422, "full", f"A design has at most {MOST_RELEASES} releases.")
    if bytes_of_releases(user) >= QUOTA_BYTES:
        raise Refusal(
            422,
            "full",
            f"The files of your releases take up {QUOTA_BYTES // 2**30} GB, which is all there is room for. Take everything "
            "along, then remove designs whose releases nobody reads any more.",
        )
    source = original(user, design)
    found = [*map(shown, findings_of(user, source)), *found_elsewhere(user, design)]
    blocking = [f for f in found if f.blocks and not _allowed(f, prints)]
    if forbidding := [f.text for f in blocking if f.forbids]:
        raise Refusal(409, "terms", FORBIDDEN.format(reasons=" ".join(forbidding[:6])))
    if blocking and not reason:
        raise Refusal(409, "blocked", REFUSED.format(reasons=" ".join(f.text for f in blocking[:6])))
    differs = changes_since(last, source.value)
    said = "\n".join(as_lines(differs)) if changes is None else changes.strip()
    value = _with_changes(source.value, said)
    release = Release.objects.create(
        design=design,
        number=last.number + 1 if last else 1,
        version=value.printed.version or "of its own",
        date=source.on,
        digest=digest_of(value),
        craft_version=__version__,
        designer=source.designer,
        data=to_json(value),
        base=None if source.base is None else _base_json(source.base),
        photos=[p.model_dump(mode="json") for p in source.photos],
        translations=[t.model_dump(mode="json") for t in source.translations],
        prints=[p.model_dump(mode="json") for p in prints],
        forced=reason if blocking else "",
        findings=[f.model_dump(mode="json") for f in found],
        errata=[asdict(e) for e in differs],
        changes=said,
    )
    _print(user, release)
    return release


def _allowed(found: FindingOut, prints: list[PrintIn]) -> bool:
    """Rounds of others that may not be published again are in no edition that tells only what differs from them."""
    return found.code == "terms-rounds" and all(p.edition == DIFFERENCE for p in prints)


def _with_changes(value: DesignValue, said: str) -> DesignValue:
    """The design with the release's changes in front of those that its booklet lists already."""
    if not said:
        return value
    version = value.printed.version or "this release"
    lines = [f"{version}: {line}" for line in said.splitlines() if line.strip()]
    before = value.printed.changes.strip()
    return replace(value, printed=replace(value.printed, changes="\n".join([*lines, *filter(None, [before])])))


def _base_json(base: tuple[DesignValue, TheBase]) -> dict[str, Any]:
    return {"design": to_json(base[0]), "named": asdict(base[1])}


def _print(user: User, release: Release) -> None:
    painting(user, frozen(release))  # its parts settle first, so that the pictures find them
    question = json.dumps({"user": user.pk, "release": release.pk})
    jobs.ask(user, PRINTING, question)


@transaction.atomic
def print_again(user: User, release: Release) -> None:
    """Have the files of a release printed whose printing failed. Files that are there are never printed anew."""
    demand(Owner(user), Verb.CHANGE, release)
    if release.state == PrintState.READY:
        raise Refusal(409, "done", "The files of this release are there; they stay as they are.")
    Release.objects.filter(pk=release.pk).update(state=PrintState.PRINTING, error="")
    _print(user, release)


@transaction.atomic
def edit_changes(user: User, release: Release, changes: str) -> None:
    """Say otherwise what is new in a release. Its files keep what was printed."""
    demand(Owner(user), Verb.CHANGE, release)
    Release.objects.filter(pk=release.pk).update(changes=changes.strip())
