"""Addresses: the API, and the application for everything else."""

from __future__ import annotations

from pathlib import Path

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path

from studio.api import api
from studio.commissions import pages as commissions
from studio.errors import NOT_FOUND, problem
from studio.operations import state
from studio.releases.reading import read, read_file, read_page
from studio.translating.pages import translate


def application(_: HttpRequest) -> HttpResponse:
    """The built front end's page; it finds its way by the address."""
    page = Path(settings.WHITENOISE_ROOT) / "index.html"
    if not page.exists():
        return HttpResponse("The front end is not built: run ./spirrel up.", status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), headers={"Cache-Control": "no-cache"})


def making(_: HttpRequest) -> HttpResponse:
    """The page to make from: small, for a phone, and kept on the device."""
    page = Path(settings.WHITENOISE_ROOT) / "make.html"
    if not page.exists():
        return HttpResponse("The front end is not built: run ./spirrel up.", status=503, content_type="text/plain")
    headers = {"Cache-Control": "no-cache", "X-Robots-Tag": "noindex, nofollow", "Referrer-Policy": "no-referrer"}
    return HttpResponse(page.read_bytes(), headers=headers)


def _csrf_failed(_: HttpRequest, reason: str = "") -> HttpResponse:
    return problem(403, "stale-page", "This page is out of date: reload it and try again.")


def _not_found(_: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return problem(404, "not-found", NOT_FOUND)


def _broken(_: HttpRequest) -> HttpResponse:
    return problem(500, "broken", "Something broke here. What was saved is safe; try again in a moment.")


urlpatterns = [
    path("api/health", state.health),
    path("api/ready", state.ready),
    path("api/metrics", state.metrics),
    path("api/", api.urls),
    path("read/<str:token>", read),
    path("read/<str:token>/<int:file_id>", read_file),
    path("read/<str:token>/<int:file_id>/page", read_page),
    path("translate/<str:token>", translate),
    path("agree/<str:token>", commissions.agree),
    path("agree/<str:token>/<int:shown_id>", commissions.picture),
    re_path(r"^make/.*$", making),
    re_path(r"^(?!api/|assets/|static/|read/|agree/|translate/|make/).*$", application),
]
handler404 = _not_found
handler500 = _broken
