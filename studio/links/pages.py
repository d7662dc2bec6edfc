"""What every page behind a link has in common: it is found by no search engine, kept by no cache, and says why it is closed."""

from __future__ import annotations

from typing import TypeVar

from django.db.models import Model, QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from studio.errors import NOT_FOUND, Refusal
from studio.links.actions import holder_of
from studio.policy import LinkHolder, Verb, demand

Row = TypeVar("Row", bound=Model)

_HEADERS = {"X-Robots-Tag": "noindex, nofollow", "Cache-Control": "private, no-store"}


def guarded(answer: HttpResponse, *, referrer: str = "no-referrer") -> HttpResponse:
    """An answer that belongs to one person. referrer: a page with a form of its own needs 'same-origin', as a browser
    otherwise hides where the form comes from."""
    for name, value in (_HEADERS | {"Referrer-Policy": referrer}).items():
        answer.headers[name] = value
    return answer


def opened(token: str, rows: QuerySet[Row]) -> tuple[LinkHolder, Row]:
    """Whoever holds a token, and the one of the rows that its link opens; Refusal with the reason where it opens none."""
    holder = holder_of(token)
    row = rows.filter(link_id=holder.link).first()
    if row is None:
        raise (
            Refusal(403, "not-allowed", "This link was withdrawn by whoever gave it to you.")
            if holder.revoked
            else Refusal(404, "not-found", NOT_FOUND)
        )
    demand(holder, Verb.SEE, row)
    return holder, row


def said(request: HttpRequest, refusal: Refusal) -> HttpResponse:
    """Why a link opens nothing, as a page."""
    return guarded(render(request, "links/closed.html", {"why": refusal.detail}, status=refusal.status))
