"""Routes of releases, and of the links that let readers in."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from craft.design.remix import compared
from craft.document.releases import errata
from studio.booklets.files import ENDINGS
from studio.designs.policy import design_of
from studio.errors import Refusal
from studio.guard import designer
from studio.links.actions import make_link, revoke_link
from studio.links.models import Link
from studio.policy import Purpose
from studio.releases import actions
from studio.releases.models import ReleaseFile
from studio.releases.policy import release_of
from studio.releases.schemas import Against, ChangesIn, LinkIn, LinkOut, ReleaseIn, ReleaseOut, Releases
from studio.releases.shown import errata_shown, release_shown, releases_shown
from studio.sent import sent

router = Router(tags=["releases"])


@router.get("/{int:design_id}/releases", response=Releases)
def read_releases(request: HttpRequest, design_id: int) -> Releases:
    """All releases of a design, and what the next one would be."""
    user = designer(request)
    return releases_shown(user, design_of(user, design_id))


@router.post("/{int:design_id}/releases", response={201: ReleaseOut})
def make_release(request: HttpRequest, design_id: int, payload: ReleaseIn) -> Status[ReleaseOut]:
    """Freeze a design under the next number and have its files printed; refused while something blocks it."""
    user = designer(request)
    design = design_of(user, design_id)
    made = actions.make_release(user, design, payload.prints, payload.reason, payload.changes)
    made.refresh_from_db()
    return Status(201, release_shown(made))


@router.get("/{int:design_id}/releases/{int:number}", response=ReleaseOut)
def read_release(request: HttpRequest, design_id: int, number: int) -> ReleaseOut:
    """One release."""
    return release_shown(release_of(design_of(designer(request), design_id), number))


@router.put("/{int:design_id}/releases/{int:number}", response=ReleaseOut)
def edit_changes(request: HttpRequest, design_id: int, number: int, payload: ChangesIn) -> ReleaseOut:
    """Say otherwise what is new in a release; its files keep what was printed."""
    user = designer(request)
    release = release_of(design_of(user, design_id), number)
    actions.edit_changes(user, release, payload.changes)
    release.refresh_from_db()
    return release_shown(release)


@router.post("/{int:design_id}/releases/{int:number}/print", response=ReleaseOut)
def print_again(request: HttpRequest, design_id: int, number: int) -> ReleaseOut:
    """Have the files of a release printed whose printing failed."""
    user = designer(request)
    release = release_of(design_of(user, design_id), number)
    actions.print_again(user, release)
    release.refresh_from_db()
    return release_shown(release)


@router.get("/{int:design_id}/releases/{int:number}/files/{int:file_id}", response=None)
def read_release_file(request: HttpRequest, design_id: int, number: int, file_id: int) -> HttpResponse:
    """A file of a release, byte for byte as it was printed."""
    release = release_of(design_of(designer(request), design_id), number)
    return file_answer(get_object_or_404(release.files, pk=file_id))


def file_answer(file: ReleaseFile) -> HttpResponse:
    """A file of a release as an answer that is saved."""
    return sent(bytes(file.content), ENDINGS[file.ending].media, file.name)


@router.get("/{int:design_id}/releases/{int:number}/against/{int:later}", response=Against)
def compare_releases(request: HttpRequest, design_id: int, number: int, later: int) -> Against:
    """Two releases held against each other."""
    design = design_of(designer(request), design_id)
    old, new = (actions.frozen(release_of(design, n)) for n in (number, later))
    found = compared(old, new)
    words = [f"{p.name}: {w}" for p in found.parts for w in p.words]
    return Against(errata=errata_shown(errata(old, new)), words=[*words, *found.words, *found.sums])


def _link(link: Link, address: str | None = None) -> LinkOut:
    return LinkOut(
        id=link.pk, note=link.note, created=link.created, expires=link.expires, revoked=link.revoked, address=address
    )


@router.get("/{int:design_id}/links", response=list[LinkOut])
def read_links(request: HttpRequest, design_id: int) -> list[LinkOut]:
    """The links by which readers see a design's releases, without their addresses."""
    design = design_of(designer(request), design_id)
    return [_link(link) for link in design.links.filter(purpose=Purpose.READ.value).order_by("-id")]


@router.post("/{int:design_id}/links", response={201: LinkOut})
def add_link(request: HttpRequest, design_id: int, payload: LinkIn) -> Status[LinkOut]:
    """A link for readers; its address is told this once and kept nowhere."""
    user = designer(request)
    design = design_of(user, design_id)
    if not design.releases.exists():
        raise Refusal(409, "no-release", "There is no release to read yet: release the pattern first.")
    link, token = make_link(user, design, Purpose.READ, days=payload.days, note=payload.note)
    return Status(201, _link(link, f"/read/{token}"))


@router.delete("/{int:design_id}/links/{int:link_id}", response=list[LinkOut])
def withdraw_link(request: HttpRequest, design_id: int, link_id: int) -> list[LinkOut]:
    """Withdraw a link for good."""
    user = designer(request)
    design = design_of(user, design_id)
    revoke_link(user, get_object_or_404(design.links, pk=link_id))
    return read_links(request, design_id)
