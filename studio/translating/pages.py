"""The translator's page: the designer's prose side by side with another language. No account, no script, nothing else."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.views.decorators.http import require_http_methods

from craft.rounds.stitches import Language
from craft.text.catalogue import Words
from studio.accounts.policy import own_profile
from studio.booklets.proofs import prose
from studio.errors import Refusal
from studio.links.pages import guarded, opened, said
from studio.policy import LinkHolder
from studio.translating.actions import MOST_TEXT, digest_of, write
from studio.translating.models import Translator

_NAMES = {"de": "German", "fr": "French", "es": "Spanish", "it": "Italian", "nl": "Dutch"}


def _opened(token: str) -> tuple[LinkHolder, Translator]:
    """Whoever holds a token, and what she translates; Refusal with the reason where it opens nothing."""
    return opened(token, Translator.objects.select_related("design__head", "design__owner"))


@require_http_methods(["GET", "HEAD", "POST"])
def translate(request: HttpRequest, token: str) -> HttpResponse:
    """A design's prose as its translator sees it; what she writes is sent back here."""
    told = ""
    try:
        holder, one = _opened(token)
        pieces = _pieces(one)
        if request.method == "POST":
            written = {source: request.POST[key] for key, (_, source) in pieces.items() if key in request.POST}
            changed = write(holder, one, written)
            return guarded(HttpResponseRedirect(f"{request.path}?kept={changed}"))
    except Refusal as refusal:
        if refusal.kind not in ("invalid", "full"):
            return said(request, refusal)
        told = refusal.detail
    page = render(request, "translating/translate.html", _page(one, pieces, told, request))
    return guarded(page, referrer="same-origin")


def _pieces(one: Translator) -> dict[str, tuple[str, str]]:
    """Where each piece of prose stands and what it says, by its digest; without what everyone's languages have already."""
    words = Words(Language(one.language))
    return {
        digest_of(p.text): (p.where, p.text)
        for p in prose(one.design.owner, one.design)
        if not p.everyones and not words.knows(p.text)
    }


def _page(one: Translator, pieces: dict[str, tuple[str, str]], told: str, request: HttpRequest) -> dict[str, object]:
    kept = {p.digest: p for p in one.pieces.all()}
    rows = [
        {
            "key": key,
            "where": where,
            "source": source,
            "text": request.POST.get(key, kept[key].text if key in kept else ""),
        }
        for key, (where, source) in pieces.items()
    ]
    return {
        "told": told,
        "kept": request.GET.get("kept", "")[:6] if request.method == "GET" else "",
        "title": one.design.manifest.name,
        "designer": own_profile(one.design.owner).studio,
        "language": _NAMES[one.language],
        "code": one.language,
        "translator": one.name,
        "rows": rows,
        "done": sum(bool(str(row["text"]).strip()) for row in rows),
        "gone": [p for digest, p in kept.items() if digest not in pieces],
        "most": MOST_TEXT,
    }
