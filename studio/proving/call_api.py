"""Routes of tests: the designer's, and the one that a tester's page begins with."""

from __future__ import annotations

from uuid import UUID

from django.conf import settings
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from craft.making.letters import invitation
from studio.accounts.policy import own_profile
from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.designs.schemas import DesignOut
from studio.designs.shown import shown
from studio.errors import NOT_FOUND, Refusal
from studio.guard import actor, designer
from studio.links.guard import by_link
from studio.making.models import Making
from studio.making.policy import making_of
from studio.making.shown import making_shown
from studio.policy import LinkHolder
from studio.proving import testing
from studio.proving.call_schemas import (
    AnswerIn,
    CallIn,
    CallText,
    InvitedOut,
    InviteIn,
    PapersIn,
    PapersOut,
    TestPage,
    Tests,
    UnreadLine,
)
from studio.proving.call_shown import answer_shown, letter_shown, tests_shown
from studio.proving.models import RemarkAnswer, TestCall, Tester

router = Router(tags=["testing"])
by_testers = Router(tags=["testing"], auth=[by_link])


def _call(design: Design, pk: int) -> TestCall:
    return get_object_or_404(design.test_calls.select_related("edition", "design"), pk=pk)


@router.get("/{int:design_id}/tests", response=Tests)
def read_tests(request: HttpRequest, design_id: int) -> Tests:
    """All tests of a design, how they go, and what still stands in the way of a release."""
    user = designer(request)
    return tests_shown(user, design_of(user, design_id))


@router.post("/{int:design_id}/tests", response={201: Tests})
def call_test(request: HttpRequest, design_id: int, payload: CallIn) -> Status[Tests]:
    """Call a test of a release, or of the design as it is."""
    user = designer(request)
    design = design_of(user, design_id)
    values = payload.dict(exclude={"release", "size"})
    testing.call_test(user, design, values, payload.release, payload.size)
    return Status(201, tests_shown(user, design))


@router.put("/{int:design_id}/tests/{int:call_id}", response=Tests)
def change_call(request: HttpRequest, design_id: int, call_id: int, payload: CallText) -> Tests:
    """Say otherwise what a test asks, and until when."""
    user = designer(request)
    design = design_of(user, design_id)
    testing.change_call(user, _call(design, call_id), payload.dict())
    return tests_shown(user, design)


@router.delete("/{int:design_id}/tests/{int:call_id}", response=Tests)
def remove_call(request: HttpRequest, design_id: int, call_id: int) -> Tests:
    """Throw a test away with all that its testers gave."""
    user = designer(request)
    design = design_of(user, design_id)
    testing.remove_call(user, _call(design, call_id))
    return tests_shown(user, design)


@router.post("/{int:design_id}/tests/{int:call_id}/testers", response={201: InvitedOut})
def invite(request: HttpRequest, design_id: int, call_id: int, payload: InviteIn) -> Status[InvitedOut]:
    """Ask somebody, with a link of her own."""
    user = designer(request)
    call = _call(design_of(user, design_id), call_id)
    tester, token = testing.invite(user, call, payload.name, payload.mail)
    return Status(201, _invited(request, call, tester, token))


@router.post("/{int:design_id}/testers/{uuid:tester_id}/link", response={201: InvitedOut})
def renew_link(request: HttpRequest, design_id: int, tester_id: UUID) -> Status[InvitedOut]:
    """Another link for a tester; the old one opens nothing any more."""
    user = designer(request)
    tester = _tester(design_of(user, design_id), tester_id)
    token = testing.renew_link(user, tester)
    assert tester.call is not None
    return Status(201, _invited(request, tester.call, tester, token))


@router.delete("/{int:design_id}/testers/{uuid:tester_id}/link", response=Tests)
def close_link(request: HttpRequest, design_id: int, tester_id: UUID) -> Tests:
    """Withdraw a tester's link; what she gave stays."""
    user = designer(request)
    design = design_of(user, design_id)
    testing.close_link(user, _tester(design, tester_id))
    return tests_shown(user, design)


def _tester(design: Design, pk: UUID) -> Tester:
    return get_object_or_404(design.testers.select_related("call__edition", "call__design", "making__link"), pk=pk)


def _invited(request: HttpRequest, call: TestCall, tester: Tester, token: str) -> InvitedOut:
    path = f"/make/{token}"
    studio, title = own_profile(designer(request)).studio, call.design.manifest.name
    text = invitation(studio, title, tester.name, call.look_at, call.closes, f"{settings.ORIGIN}{path}")
    return InvitedOut(tester=tester.pk, path=path, letter=letter_shown(text))


@router.post("/{int:design_id}/tests/{int:call_id}/papers", response=PapersOut)
def take_papers(request: HttpRequest, design_id: int, call_id: int, payload: PapersIn) -> PapersOut:
    """Take reports from a table; the same table again adds nothing."""
    user = designer(request)
    found, fresh = testing.take_papers(user, _call(design_of(user, design_id), call_id), payload.text)
    return PapersOut(
        fresh=fresh, testers=len(found.by_tester), unread=[UnreadLine(line=u.line, why=u.why) for u in found.unread]
    )


@router.post("/{int:design_id}/tests/answers", response=Tests)
def answer(request: HttpRequest, design_id: int, payload: AnswerIn) -> Tests:
    """Answer remarks; their testers read it on their pages."""
    user = designer(request)
    design = design_of(user, design_id)
    testing.answer(user, design, payload.events, payload.state, payload.text, payload.version)
    return tests_shown(user, design)


@router.post("/{int:design_id}/tests/{int:call_id}/thanks", response=DesignOut)
def thank(request: HttpRequest, design_id: int, call_id: int) -> DesignOut:
    """Thank the testers of a test in the booklet, those who agreed to be named."""
    user = designer(request)
    design = design_of(user, design_id)
    call = _call(design, call_id)
    found = next(c for c in tests_shown(user, design).calls if c.id == call.pk)
    testing.thank(user, design, [t.consents for t in found.testers if t.consents])
    return shown(design_of(user, design_id))


@by_testers.get("", response=TestPage)
def read_test(request: HttpRequest) -> TestPage:
    """What a tester's link opens: her making, what she is asked, and what was answered to her."""
    who = actor(request)
    making = Making.objects.filter(link_id=who.link).first() if isinstance(who, LinkHolder) else None
    if making is None:
        raise Refusal(404, "not-found", NOT_FOUND)
    making = making_of(who, making.pk)
    tester = Tester.objects.filter(making=making).select_related("call").first()
    call = tester.call if tester else None
    told = making_shown(making, tester.name if tester else "")
    told.asks = call.look_at if call else ""
    told.until = call.closes if call else None
    rows = RemarkAnswer.objects.filter(event__making=making).select_related("event")
    told.answers = [answer_shown(row) for row in rows]
    designer_name = own_profile(making.design.owner).studio
    return TestPage(making=told, call=call.title if call else "", designer=designer_name)
