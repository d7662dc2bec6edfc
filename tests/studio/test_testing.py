"""Tests of a pattern: testers by link, what they say, answers, reports on paper, what still blocks a release."""

from __future__ import annotations

import datetime
import uuid
from pathlib import Path
from typing import Any

import pytest
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from craft.figure.placement import Balance
from studio import settings as real
from studio.designs.models import Design
from studio.links.models import Link
from studio.making.models import Making, MakingEvent
from tests.studio.conftest import Studio
from tests.studio.test_makings import events, rounds
from tests.studio.test_pictures import picture

Json = dict[str, Any]


class Holder(Studio):
    """Whoever holds a link: no account, a token in a header."""

    def __init__(self, token: str) -> None:
        super().__init__(Client(headers={"X-Link": token}))


def called(studio: Studio, **more: Any) -> tuple[int, int, str]:
    """A design with a test: numbers of both, and the part's key."""
    made, key = studio.with_part()
    body = {"title": "First test", "opens": str(timezone.localdate()), "look_at": "Is R3 clear?", **more}
    got = studio.ask("POST", f"/designs/{made['id']}/tests", body, 201)
    return made["id"], got["calls"][0]["id"], key


def invited(studio: Studio, design: int, call: int, name: str = "Rowan") -> tuple[Json, Holder]:
    got = studio.ask("POST", f"/designs/{design}/tests/{call}/testers", {"name": name, "mail": ""}, 201)
    return got, Holder(got["path"].removeprefix("/make/"))


def going(studio: Studio, design: int) -> Json:
    return studio.ask("GET", f"/designs/{design}/tests")  # type: ignore[no-any-return]


def said(holder: Holder, *what: Json) -> str:
    """What a tester writes; the number of her making."""
    making = holder.ask("GET", "/test")["making"]
    key = making["sheet"]["parts"][0]["key"]
    brought = events(key, *[w | ({"part": key} if w["kind"] == "remark" and w.get("round") else {}) for w in what])
    for at, event in enumerate(brought):
        event["device"], event["seq"] = f"phone-{uuid.uuid4().hex[:8]}", at
    holder.ask("POST", f"/makings/{making['id']}/sync", {"events": brought, "known": 0})
    return str(making["id"])


UNCLEAR = {"kind": "remark", "what": "unclear", "round": 3, "text": "Which inc?"}


def test_from_a_call_to_an_answer(studio: Studio) -> None:
    """A tester works without an account, points at a round, and reads what came of it."""
    design, call, _ = called(studio)
    got, rowan = invited(studio, design, call)
    assert got["path"] in got["letter"]["body"]
    assert "Is R3 clear?" in got["letter"]["body"]
    page = rowan.ask("GET", "/test")
    assert (page["making"]["maker"], page["making"]["asks"]) == ("Rowan", "Is R3 clear?")
    said(rowan, *rounds(1, 2, 3), UNCLEAR)
    found = going(studio, design)["calls"][0]
    (group,) = found["groups"]
    assert (group["place"], group["what"], group["said"][0]["text"]) == ("Body R3", "unclear", "Which inc?")
    assert found["heat"][0]["heat"] == [0, 0, 1, 0, 0, 0, 0, 0]
    assert (found["testers"][0]["state"], found["testers"][0]["at"]) == ("making", "Body, after R3")
    answer = {"events": [group["said"][0]["event"]], "state": "changed", "text": "R3 says inc once.", "version": "1.1"}
    told = studio.ask("POST", f"/designs/{design}/tests/answers", answer)
    assert told["calls"][0]["groups"][0]["answers"][0]["state"] == "changed"
    (read,) = rowan.ask("GET", "/test")["making"]["answers"]
    assert (read["text"], read["version"]) == ("R3 says inc once.", "1.1")


MORE = {"kind": "otherwise", "round": 5, "what": "more", "many": 1}


def test_what_testers_did_otherwise_becomes_the_text_by_one_action(studio: Studio) -> None:
    """Done alike by two it is one way; it is offered as long as the rounds do not say it."""
    design, call, _ = called(studio)
    for name in ("Rowan", "Sorrel"):
        _, holder = invited(studio, design, call, name)
        said(holder, *rounds(1, 2, 3, 4, 5), MORE)
    (group,) = (g for g in going(studio, design)["calls"][0]["groups"] if g["what"] == "otherwise")
    (way,) = group["writes"]
    assert way["told"] == "After R5 1 more round was worked."
    path = f"/designs/{design}/makings/{way['making']}/deviations/{way['key']}"
    before = studio.ask("GET", f"/designs/{design}")["parts"][0]["counts"]
    studio.ask("PUT", path, {"verdict": "text"})
    after = studio.ask("GET", f"/designs/{design}")["parts"][0]["counts"]
    assert len(after) == len(before) + 1
    assert not [w for g in going(studio, design)["calls"][0]["groups"] for w in g["writes"]]
    studio.ask("POST", f"/designs/{design}/undo")
    ways = [w for g in going(studio, design)["calls"][0]["groups"] for w in g["writes"]]
    assert way in ways


def test_what_one_tester_gives_no_other_sees(studio: Studio) -> None:
    design, call, key = called(studio)
    _, rowan = invited(studio, design, call)
    _, sorrel = invited(studio, design, call, "Sorrel")
    making = said(rowan, UNCLEAR)
    for method, path in (("GET", ""), ("GET", "/edition"), ("POST", "/figure"), ("POST", "/sync"), ("DELETE", "/log")):
        sorrel.ask(method, f"/makings/{making}{path}", {"events": []} if method == "POST" else None, 404)
    pk = uuid.uuid4()
    path = f"/api/makings/{making}/pictures/{pk}"
    assert rowan.client.post(path, {"file": SimpleUploadedFile("a.png", picture())}).status_code == 200
    assert sorrel.client.get(path).status_code == 404
    assert rowan.client.get(path).status_code == 200
    assert key


def test_a_link_opens_nothing_of_the_design(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    for path in (f"/designs/{design}", f"/designs/{design}/tests", f"/designs/{design}/makings", "/designs", "/yarns"):
        rowan.ask("GET", path, status=401)


def test_a_withdrawn_link_says_so_and_a_new_one_opens_the_same_page(studio: Studio) -> None:
    design, call, _ = called(studio)
    got, rowan = invited(studio, design, call)
    making = said(rowan, *rounds(1))
    studio.ask("DELETE", f"/designs/{design}/testers/{got['tester']}/link")
    refused = rowan.ask("POST", f"/makings/{making}/sync", {"events": []}, 403)
    assert "withdrawn" in refused["detail"]
    told = going(studio, design)["calls"][0]["testers"][0]
    assert (told["link"], told["why"], told["at"]) == (False, "withdrawn", "Body, after R1"), "what she gave stays"
    again = studio.ask("POST", f"/designs/{design}/testers/{got['tester']}/link", status=201)
    fresh = Holder(again["path"].removeprefix("/make/"))
    assert fresh.ask("GET", "/test")["making"]["id"] == making
    assert rowan.client.get(f"/api/makings/{making}").status_code == 403
    Link.objects.update(expires=timezone.now() - datetime.timedelta(days=1))
    assert "run out" in fresh.ask("GET", f"/makings/{making}", status=403)["detail"]


def test_tokens_lie_nowhere(studio: Studio) -> None:
    design, call, _ = called(studio)
    got, _ = invited(studio, design, call)
    token = got["path"].removeprefix("/make/")
    assert len(token) >= 40
    assert token not in str(list(Link.objects.values()))


def test_undo_of_the_design_touches_nothing_that_testers_wrote(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    said(rowan, UNCLEAR)
    studio.ask("POST", f"/designs/{design}/undo")
    assert MakingEvent.objects.count() == 1


def test_a_tester_deletes_what_she_gave(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    making = said(rowan, UNCLEAR)
    assert rowan.client.delete(f"/api/makings/{making}/log").status_code == 204
    assert going(studio, design)["calls"][0]["groups"] == []
    log = rowan.ask("GET", f"/makings/{making}/log")
    assert log["events"] == []


def test_her_log_is_hers_to_take_away(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    making = said(rowan, UNCLEAR)
    log = rowan.ask("GET", f"/makings/{making}/log")
    assert (log["format"], log["events"][0]["text"]) == (1, "Which inc?")


REPORT = {
    "kind": "report", "yarn": "Fennel Fields DK", "weight": 3, "hook_mm": 3.5, "across": 20, "up": 22,
    "size": "9 cm", "minutes": 300, "text": "A joy.", "pictures": True, "named": "Rowan B.",
}  # fmt: skip


def test_a_report_is_told_and_only_those_who_agree_are_thanked(studio: Studio) -> None:
    design, call, _ = called(studio)
    assert "Nobody has agreed" in studio.ask("POST", f"/designs/{design}/tests/{call}/thanks", status=409)["detail"]
    _, rowan = invited(studio, design, call)
    _, sorrel = invited(studio, design, call, "Sorrel")
    said(rowan, REPORT, {"kind": "finished"})
    said(sorrel, REPORT | {"named": "", "pictures": False})
    told = going(studio, design)["calls"][0]["testers"]
    assert [(t["state"], t["consents"], t["minutes"]) for t in told] == [("done", "Rowan B.", 300), ("making", "", 300)]
    assert "Thank you" in told[0]["letter"]["subject"]
    got = studio.ask("POST", f"/designs/{design}/tests/{call}/thanks")
    assert got["booklet"]["credits"] == "Tested by Rowan B."
    studio.ask("POST", f"/designs/{design}/tests/{call}/thanks")
    assert Design.objects.get(pk=design).manifest.booklet.credits == "Tested by Rowan B."


def test_reports_on_paper_come_in_with_their_testers_and_twice_is_once(studio: Studio) -> None:
    design, call, _ = called(studio)
    table = "tester,part,round,kind,text\nTeasel,Body,R3,unclear,Lost.\nTeasel,Nose,R3,unclear,x\n"
    first = studio.ask("POST", f"/designs/{design}/tests/{call}/papers", {"text": table})
    assert (first["fresh"], first["testers"], [u["line"] for u in first["unread"]]) == (1, 1, [3])
    assert studio.ask("POST", f"/designs/{design}/tests/{call}/papers", {"text": table})["fresh"] == 0
    found = going(studio, design)["calls"][0]
    assert [(t["name"], t["why"]) for t in found["testers"]] == [("Teasel", "on paper")]
    assert found["groups"][0]["said"][0]["text"] == "Lost."


def test_an_open_remark_blocks_and_its_answer_opens_the_way(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    said(rowan, UNCLEAR)
    (one,) = [o for o in going(studio, design)["open"] if o["code"] == "remark"]
    assert one["blocks"]
    assert "Rowan says unclear" in one["text"]
    prints = {"prints": [{"files": ["txt"]}]}
    refused = studio.ask("POST", f"/designs/{design}/releases", prints, 409)
    assert "Rowan says unclear" in refused["detail"]
    assert any(f["code"] == "remark" for f in studio.ask("GET", f"/designs/{design}/releases")["next"]["findings"])
    event = going(studio, design)["calls"][0]["groups"][0]["said"][0]["event"]
    studio.ask("POST", f"/designs/{design}/tests/answers", {"events": [event], "state": "stays", "text": "As before."})
    assert not [o for o in going(studio, design)["open"] if o["code"] == "remark"]


@pytest.mark.django_db(transaction=True)
def test_a_standing_figure_that_tips_blocks_once_it_has_settled(
    studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    made, _ = studio.with_part()
    tips = Balance("tips", -3.0, "front", (20.0, 20.0), "It tips to the front.")
    monkeypatch.setattr("studio.proving.call_shown.balance", lambda *_: tips)

    def told() -> list[str]:
        return [o["text"] for o in going(studio, made["id"])["open"] if o["code"] == "balance" and o["blocks"]]

    assert told() == [], "nothing is said of what is not settled"
    studio.ask("POST", f"/designs/{made['id']}/settle")
    assert told() == ["It tips to the front."]
    refused = studio.ask("POST", f"/designs/{made['id']}/releases", {"prints": [{"files": ["txt"]}]}, 409)
    assert "It tips to the front." in refused["detail"]


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"opens": "2026-12-24", "closes": "2026-12-01"}, "closes after it opens"),
        ({"opens": "2026-01-01", "closes": "2027-01-01"}, "at most 180 days"),
        ({"opens": "soon"}, "A day is written like"),
        ({"wanted": 0}, "at least 1"),
    ],
)
def test_a_call_that_makes_no_sense_is_refused_in_words(studio: Studio, more: Json, said: str) -> None:
    made, _ = studio.with_part()
    body = {"title": "x", "opens": "2026-12-01", **more}
    got = studio.ask("POST", f"/designs/{made['id']}/tests", body, 422)
    assert said in got["detail"]


def test_a_test_goes_with_all_its_links(studio: Studio) -> None:
    design, call, _ = called(studio)
    _, rowan = invited(studio, design, call)
    making = said(rowan, UNCLEAR)
    studio.ask("DELETE", f"/designs/{design}/tests/{call}")
    assert not Making.objects.exists()
    assert rowan.client.get(f"/api/makings/{making}").status_code == 404
    assert rowan.client.get("/api/test").status_code == 404
    assert Link.objects.get().revoked


def test_others_designs_have_no_tests_to_see(studio: Studio, other: Studio) -> None:
    design, call, _ = called(studio)
    got, _ = invited(studio, design, call)
    other.ask("GET", f"/designs/{design}/tests", status=404)
    other.ask("POST", f"/designs/{design}/tests/{call}/testers", {"name": "x"}, 404)
    other.ask("POST", f"/designs/{design}/testers/{got['tester']}/link", status=404)
    own, _ = other.with_part()
    other.ask("DELETE", f"/designs/{own['id']}/tests/{call}", status=404)
    event = uuid.uuid4()
    other.ask("POST", f"/designs/{own['id']}/tests/answers", {"events": [str(event)], "state": "stays"}, 404)


@pytest.mark.django_db(transaction=True)
def test_letters_go_into_the_folder_and_are_listed(studio: Studio, settings: Any, tmp_path: Path) -> None:
    settings.EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    settings.EMAIL_FILE_PATH = tmp_path
    made, _ = studio.with_part()
    letter = {"to": "rowan@example.org", "subject": "Testing", "body": "Dear Rowan"}
    got = studio.ask("POST", f"/designs/{made['id']}/letters", letter, 201)
    assert got["by_folder"]
    assert [row["to"] for row in got["letters"]] == ["rowan@example.org"]
    (file,) = tmp_path.iterdir()
    assert "Dear Rowan" in file.read_text()
    bad = studio.ask("POST", f"/designs/{made['id']}/letters", letter | {"to": "nobody"}, 422)
    assert "name@place.example" in bad["detail"]
    two = studio.ask("POST", f"/designs/{made['id']}/letters", letter | {"subject": "a\nBcc: x@example.org"}, 201)
    assert two["letters"][0]["subject"] == "a Bcc: x@example.org", "no head of a letter is smuggled in"
    assert studio.ask("DELETE", f"/designs/{made['id']}/letters/{two['letters'][0]['id']}")["letters"] == got["letters"]


@pytest.mark.django_db(transaction=True)
def test_a_letter_that_the_mail_server_refuses_says_so(studio: Studio, settings: Any) -> None:
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 9
    made, _ = studio.with_part()
    studio.ask("POST", f"/designs/{made['id']}/letters", {"to": "a@example.org", "subject": "x", "body": "y"}, 201)
    (row,) = studio.ask("GET", f"/designs/{made['id']}/letters")["letters"]
    assert "did not take it" in row["failed"]


def test_mail_goes_into_a_folder_unless_a_server_is_set() -> None:
    assert real.EMAIL_BACKEND.endswith("filebased.EmailBackend")
    assert settings.DEFAULT_FROM_EMAIL.startswith("spirrel@")
