"""Changes of tests: called, testers invited, reports taken, remarks answered. Each is made in one transaction."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from uuid import UUID

from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from craft.making import Papers, event_json, read_reports
from craft.making.letters import thanked
from studio.designs.models import Design
from studio.designs.pages import set_page
from studio.errors import NOT_FOUND, Refusal
from studio.links.actions import make_link, revoke_link
from studio.making.actions import begin_with, sync
from studio.making.editions import freeze, settle, sheet_of
from studio.making.models import Kind, Making, MakingEvent
from studio.policy import Owner, Purpose, Verb, demand
from studio.proving.models import RemarkAnswer, TestCall, Tester

MOST_CALLS, MOST_TESTERS, MOST_DAYS = 40, 60, 180


@transaction.atomic
def call_test(user: User, design: Design, values: dict[str, Any], release: int | None, size: str) -> TestCall:
    """Call a test of a release, or of the design as it is."""
    demand(Owner(user), Verb.CHANGE, design)
    if design.test_calls.count() >= MOST_CALLS:
        raise Refusal(422, "full", f"A design has at most {MOST_CALLS} tests: remove some first.")
    _check(values)
    edition = freeze(user, design, release, size)
    settle(user, edition)
    return TestCall.objects.create(design=design, edition=edition, **values)


def _check(values: dict[str, Any]) -> None:
    opens, closes = values["opens"], values["closes"]
    if closes is not None and closes < opens:
        raise Refusal(422, "invalid", "A test closes after it opens.", field="closes")
    if closes is not None and (closes - opens).days > MOST_DAYS:
        raise Refusal(422, "invalid", f"A test goes on for at most {MOST_DAYS} days.", field="closes")


@transaction.atomic
def change_call(user: User, call: TestCall, values: dict[str, Any]) -> None:
    """Say otherwise what is asked and until when. What is tested stays the edition that it began with."""
    demand(Owner(user), Verb.CHANGE, call)
    _check(values)
    TestCall.objects.filter(pk=call.pk).update(**values)


@transaction.atomic
def remove_call(user: User, call: TestCall) -> None:
    """Throw a test away, with its testers' links and all that they gave."""
    demand(Owner(user), Verb.REMOVE, call)
    for tester in call.testers.select_related("making__link"):
        _close(user, tester)
        if tester.making:
            tester.making.delete()
    call.delete()


@transaction.atomic
def invite(user: User, call: TestCall, name: str, mail: str) -> tuple[Tester, str]:
    """A tester with a link of her own; its token is told this once."""
    demand(Owner(user), Verb.CHANGE, call)
    TestCall.objects.select_for_update().get(pk=call.pk)
    if call.testers.count() >= MOST_TESTERS:
        raise Refusal(422, "full", f"A test has at most {MOST_TESTERS} testers.")
    making = begin_with(call.design, call.edition, name, Kind.TESTER)
    tester = Tester.objects.create(design=call.design, call=call, making=making, name=name, mail=mail)
    return tester, _link(user, call, making, name)


def _link(user: User, call: TestCall, making: Making, name: str) -> str:
    """A link that holds while the test goes on, and a while longer so that late reports come in."""
    left = (call.closes - timezone.localdate()).days + 30 if call.closes else MOST_DAYS
    link, token = make_link(user, call.design, Purpose.TEST, days=min(max(left, 7), MOST_DAYS + 60), note=name)
    Making.objects.filter(pk=making.pk).update(link=link)
    return token


@transaction.atomic
def renew_link(user: User, tester: Tester) -> str:
    """Another link for a tester; the one that she had opens nothing any more."""
    demand(Owner(user), Verb.CHANGE, tester)
    if tester.making is None or tester.call is None:
        raise Refusal(409, "gone", "This tester has no page: invite her anew.")
    _close(user, tester)
    return _link(user, tester.call, tester.making, tester.name)


@transaction.atomic
def close_link(user: User, tester: Tester) -> None:
    """Withdraw a tester's link. What she gave stays."""
    demand(Owner(user), Verb.CHANGE, tester)
    _close(user, tester)


def _close(user: User, tester: Tester) -> None:
    if tester.making is not None and tester.making.link is not None:
        revoke_link(user, tester.making.link)


@transaction.atomic
def take_papers(user: User, call: TestCall, text: str) -> tuple[Papers, int]:
    """Reports from a table, each with its tester; what they hold, and how many remarks are new. The same table again adds
    nothing."""
    demand(Owner(user), Verb.CHANGE, call)
    now = int(timezone.now().timestamp() * 1000)
    found = read_reports(text, sheet_of(call.edition), now)
    fresh = 0
    for name, events in found.by_tester.items():
        tester = call.testers.filter(name__iexact=name).select_related("making").first()
        if tester is None or tester.making is None:
            if call.testers.count() >= MOST_TESTERS:
                raise Refusal(422, "full", f"A test has at most {MOST_TESTERS} testers.")
            making = begin_with(call.design, call.edition, name, Kind.TESTER)
            tester = Tester.objects.create(design=call.design, call=call, making=making, name=name)
        assert tester.making is not None
        before = tester.making.events.count()
        sync(Owner(user), tester.making, [event_json(e) for e in events], 0)
        fresh += tester.making.events.count() - before
    return found, fresh


@transaction.atomic
def answer(user: User, design: Design, events: Sequence[UUID], state: str, text: str, version: str) -> None:
    """Answer remarks, all alike. Their testers read it on their pages."""
    demand(Owner(user), Verb.CHANGE, design)
    rows = list(MakingEvent.objects.filter(making__design=design, uuid__in=events))
    if len({r.uuid for r in rows}) != len(set(events)):
        raise Refusal(404, "not-found", NOT_FOUND)
    for row in rows:
        RemarkAnswer.objects.update_or_create(
            event=row, defaults={"state": state, "text": text.strip(), "version": version.strip()}
        )


@transaction.atomic
def thank(user: User, design: Design, names: list[str]) -> None:
    """Thank testers by name in the booklet; those who did not agree to it are refused by whoever asks for the names."""
    demand(Owner(user), Verb.CHANGE, design)
    line = thanked(names)
    if not line:
        raise Refusal(409, "nobody", "Nobody has agreed yet to be thanked by name.")
    page = design.manifest.booklet
    if line in page.credits:
        return
    kept = "\n".join(row for row in page.credits.splitlines() if not row.startswith("Tested by "))
    credit = f"{kept}\n{line}".strip()
    set_page(user, design.pk, "booklet", design.revision.number, page.model_copy(update={"credits": credit}))
