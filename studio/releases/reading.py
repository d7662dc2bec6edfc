"""The public page of a design's releases, for whoever holds a link: no account, no script, nothing of others."""

from __future__ import annotations

from csp.decorators import csp_replace
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404, render
from django.views.decorators.http import require_safe

from craft.document.releases import as_lines, errata
from studio.booklets.files import ENDINGS
from studio.errors import NOT_FOUND, Refusal
from studio.links.actions import holder_of
from studio.links.pages import guarded, said
from studio.policy import LinkHolder, Verb, demand, visible
from studio.releases.actions import frozen
from studio.releases.api import file_answer
from studio.releases.models import PrintState, Release, ReleaseFile

_SANDBOX = {"default-src": ["'none'"], "img-src": ["data:"], "style-src-elem": ["'unsafe-inline'"], "sandbox": []}
"""What a page of a release may do: show itself, and nothing else."""


def _why(refused: Refusal | Http404) -> Refusal:
    return refused if isinstance(refused, Refusal) else Refusal(404, "not-found", NOT_FOUND)


def _holder(token: str) -> LinkHolder:
    """Whoever holds a token, for reading; Refusal with the reason where it no longer opens anything."""
    holder = holder_of(token)
    released = Release.objects.filter(design_id=holder.design, state=PrintState.READY).first()
    if released is None:
        raise Refusal(404, "not-found", "There is nothing to read here yet.")
    demand(holder, Verb.READ_BOOKLET, released)
    return holder


@require_safe
def read(request: HttpRequest, token: str) -> HttpResponse:
    """The releases of a design: the newest with its files, and for each earlier one what is different since."""
    try:
        holder = _holder(token)
    except Refusal as refusal:
        return said(request, refusal)
    rows = list(visible(holder, Verb.READ_BOOKLET, Release).filter(state=PrintState.READY))
    newest = rows[0]
    earlier = [{"release": r, "lines": as_lines(errata(frozen(r), frozen(newest)))} for r in rows[1:]]
    files = [{"file": f, "page": f.ending == "html"} for f in newest.files.defer("content")]
    told = {"newest": newest, "title": newest.data["name"], "files": files, "earlier": earlier, "token": token}
    return guarded(render(request, "releases/read.html", told))


@require_safe
def read_file(request: HttpRequest, token: str, file_id: int) -> HttpResponse:
    """A file of a release, saved."""
    try:
        file = get_object_or_404(visible(_holder(token), Verb.READ_BOOKLET, ReleaseFile), pk=file_id)
    except (Refusal, Http404) as refused:
        return said(request, _why(refused))
    return guarded(file_answer(file))


@require_safe
@csp_replace(_SANDBOX)  # type: ignore[arg-type]  # its stubs know views without arguments only
def read_page(request: HttpRequest, token: str, file_id: int) -> HttpResponse:
    """A release's page of HTML, to be read in place. It holds no script, and may run none."""
    try:
        mine = visible(_holder(token), Verb.READ_BOOKLET, ReleaseFile)
        file = get_object_or_404(mine.filter(ending="html"), pk=file_id)
    except (Refusal, Http404) as refused:
        return said(request, _why(refused))
    return guarded(HttpResponse(bytes(file.content), content_type=ENDINGS[file.ending].media))
