"""What every page behind a link has in common: it is found by no search engine, kept by no cache, and says why it is closed."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from studio.errors import Refusal

_HEADERS = {"X-Robots-Tag": "noindex, nofollow", "Cache-Control": "private, no-store"}


def guarded(answer: HttpResponse, *, referrer: str = "no-referrer") -> HttpResponse:
    """An answer that belongs to one person. referrer: a page with a form of its own needs 'same-origin', as a browser
    otherwise hides where the form comes from."""
    for name, value in (_HEADERS | {"Referrer-Policy": referrer}).items():
        answer.headers[name] = value
    return answer


def said(request: HttpRequest, refusal: Refusal) -> HttpResponse:
    """Why a link opens nothing, as a page."""
    return guarded(render(request, "links/closed.html", {"why": refusal.detail}, status=refusal.status))
