"""The client's page: progress, price and balance, and changes to say yes or no to. No account, no script, nothing else."""

from __future__ import annotations

from decimal import Decimal
from uuid import UUID

from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import render
from django.views.decorators.http import require_http_methods, require_safe

from studio.accounts.policy import own_profile
from studio.commissions import actions
from studio.commissions.models import Agreement, AgreementState, Commission, ShownPicture
from studio.errors import NOT_FOUND, Refusal
from studio.links.pages import guarded, opened, said
from studio.policy import LinkHolder, Verb, visible


def _opened(token: str) -> tuple[LinkHolder, Commission]:
    """Whoever holds a token, and her commission; Refusal with the reason where it opens nothing."""
    return opened(token, Commission.objects.select_related("design__head"))


@require_http_methods(["GET", "HEAD", "POST"])
def agree(request: HttpRequest, token: str) -> HttpResponse:
    """A commission as its client sees it; her yes or no is sent back here."""
    told = ""
    try:
        holder, commission = _opened(token)
        if request.method == "POST":
            _answered(request, holder)
            return guarded(HttpResponseRedirect(request.path))
    except Refusal as refusal:
        if refusal.kind not in ("answered", "invalid"):
            return said(request, refusal)
        told = refusal.detail
    page = render(request, "commissions/agree.html", _page(holder, commission, told, token))
    return guarded(page, referrer="same-origin")


def _answered(request: HttpRequest, holder: LinkHolder) -> None:
    try:
        pk = UUID(request.POST.get("change", ""))
        state = AgreementState(request.POST.get("say", ""))
    except ValueError:
        raise Refusal(422, "invalid", "Say yes or no to one of the changes.") from None
    agreement = visible(holder, Verb.REPORT, Agreement).filter(pk=pk).first()
    if agreement is None or state is AgreementState.ASKED:
        raise Refusal(422, "invalid", "Say yes or no to one of the changes.")
    actions.answer(holder, agreement, state, request.POST.get("said", ""))


def _page(holder: LinkHolder, commission: Commission, told: str, token: str) -> dict[str, object]:
    total = actions.total(commission)
    return {
        "told": told,
        "token": token,
        "title": commission.design.manifest.name,
        "designer": own_profile(commission.design.owner).studio,
        "commission": commission,
        "total": total,
        "left": max(total - commission.paid, Decimal(0)),
        "priced": total > 0,
        "agreements": list(visible(holder, Verb.SEE, Agreement)),
        "pictures": list(visible(holder, Verb.SEE, ShownPicture)),
    }


@require_safe
def picture(request: HttpRequest, token: str, shown_id: int) -> HttpResponse:
    """A photograph that the client may see."""
    try:
        holder, _ = _opened(token)
    except Refusal as refusal:
        return said(request, refusal)
    found = visible(holder, Verb.SEE, ShownPicture).filter(pk=shown_id).select_related("picture").first()
    if found is None:
        return said(request, Refusal(404, "not-found", NOT_FOUND))
    media = "image/png" if found.picture.kind == "png" else "image/jpeg"
    return guarded(HttpResponse(bytes(found.picture.content), content_type=media))
