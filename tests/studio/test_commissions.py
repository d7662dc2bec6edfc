"""Commissions: a client sees what was chosen, says yes or no once, and nothing else of the design is to be seen."""

from __future__ import annotations

import uuid
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from studio.commissions.models import Agreement, Commission
from studio.making.models import Making
from tests.studio.conftest import Studio
from tests.studio.test_makings import begun
from tests.studio.test_pictures import picture

Json = dict[str, Any]
CLIENT = {"client": "Juniper", "about": "A ball for the window.", "price": 48, "paid": 20, "due": "2026-12-20"}


def taken(studio: Studio) -> tuple[int, int, str, str]:
    """A design with a commission and a making: numbers of both, the making's, and the client's address."""
    design, making, _ = begun(studio, kind="client")
    got = studio.ask("POST", f"/designs/{design}/commissions", CLIENT, 201)
    pk = got["commissions"][0]["id"]
    path = studio.ask("POST", f"/designs/{design}/commissions/{pk}/link", status=201)["path"]
    return design, pk, making, path


def asked(studio: Studio, design: int, pk: int, text: str = "Longer ears", price: float = 4.5) -> str:
    body = {"text": text, "price": price}
    got = studio.ask("POST", f"/designs/{design}/commissions/{pk}/agreements", body, 201)
    return str(got["commissions"][0]["agreements"][-1]["id"])


def photographed(studio: Studio, making: str) -> str:
    pk = str(uuid.uuid4())
    path = f"/api/makings/{making}/pictures/{pk}"
    assert studio.client.post(path, {"file": SimpleUploadedFile("a.png", picture())}).status_code == 200
    return pk


def say(path: str, change: str, what: str, words: str = "") -> Any:
    return Client().post(path, {"change": change, "say": what, "said": words})


def test_a_client_says_yes_and_the_balance_follows(studio: Studio) -> None:
    design, pk, _, path = taken(studio)
    change = asked(studio, design, pk)
    page = Client().get(path)
    assert page.status_code == 200
    text = page.content.decode()
    for seen in ("Juniper", "Fern &amp; Moss", "20 December 2026", "Longer ears", "+4.50 EUR", "28.00 EUR"):
        assert seen in text, seen
    assert page.headers["X-Robots-Tag"].startswith("noindex")
    assert page.headers["Cache-Control"] == "private, no-store"
    assert say(path, change, "yes", "With tufts?").status_code == 302
    (row,) = studio.ask("GET", f"/designs/{design}/commissions")["commissions"]
    assert (row["total"], row["agreements"][0]["state"], row["agreements"][0]["said"]) == (52.5, "yes", "With tufts?")
    text = Client().get(path).content.decode()
    assert "You said yes on" in text
    assert "32.50 EUR" in text


def test_what_was_answered_stays_on_record(studio: Studio) -> None:
    design, pk, _, path = taken(studio)
    change = asked(studio, design, pk)
    say(path, change, "no")
    again = say(path, change, "yes")
    assert again.status_code == 200
    assert "answered already" in again.content.decode()
    assert Agreement.objects.get().state == "no"
    refused = studio.ask("DELETE", f"/designs/{design}/commissions/{pk}/agreements/{change}", status=409)
    assert "stays on record" in refused["detail"]
    other = asked(studio, design, pk, "Blue")
    studio.ask("DELETE", f"/designs/{design}/commissions/{pk}/agreements/{other}")


def test_nonsense_from_the_page_is_answered_in_words(studio: Studio) -> None:
    design, pk, _, path = taken(studio)
    change = asked(studio, design, pk)
    for what, how in ((change, "asked"), (change, "perhaps"), ("7", "yes"), (str(uuid.uuid4()), "yes")):
        got = say(path, what, how)
        assert got.status_code == 200
        assert "Say yes or no" in got.content.decode()
    assert Agreement.objects.get().state == "asked"


def test_only_chosen_photographs_are_shown(studio: Studio, other: Studio) -> None:
    design, pk, making, path = taken(studio)
    shown, hidden = photographed(studio, making), photographed(studio, making)
    body = {"pictures": [{"picture": shown, "caption": "Half done"}]}
    got = studio.ask("PUT", f"/designs/{design}/commissions/{pk}/pictures", body)
    seen = {p["picture"]: p["shown"] for p in got["commissions"][0]["photos"]}
    assert seen == {shown: True, hidden: False}
    text = Client().get(path).content.decode()
    assert "Half done" in text
    row = Commission.objects.get().pictures.get()
    assert Client().get(f"{path}/{row.pk}").status_code == 200
    studio.ask("PUT", f"/designs/{design}/commissions/{pk}/pictures", {"pictures": []})
    assert Client().get(f"{path}/{row.pk}").status_code == 404
    _, theirs, _ = begun(other)
    foreign = photographed(other, theirs)
    studio.ask("PUT", f"/designs/{design}/commissions/{pk}/pictures", {"pictures": [{"picture": foreign}]}, 404)


def test_what_testers_photographed_is_not_hers_to_show(studio: Studio) -> None:
    design, _, making, _ = taken(studio)
    photographed(studio, making)
    Making.objects.update(kind="tester")
    assert studio.ask("GET", f"/designs/{design}/commissions")["commissions"][0]["photos"] == []


def test_a_withdrawn_link_says_so_and_answers_nothing(studio: Studio) -> None:
    design, pk, _, path = taken(studio)
    change = asked(studio, design, pk)
    fresh = studio.ask("POST", f"/designs/{design}/commissions/{pk}/link", status=201)["path"]
    assert "withdrawn" in Client().get(path).content.decode()
    assert Client().get(fresh).status_code == 200
    studio.ask("DELETE", f"/designs/{design}/commissions/{pk}/link")
    assert say(fresh, change, "yes").status_code == 403
    assert Agreement.objects.get().state == "asked"
    assert Client().get("/agree/nothing").status_code == 404


def test_a_clients_link_opens_neither_makings_nor_releases(studio: Studio) -> None:
    _, _, making, path = taken(studio)
    token = path.removeprefix("/agree/")
    holder = Client(headers={"X-Link": token})
    assert holder.get(f"/api/makings/{making}").status_code == 404
    assert holder.get("/api/test").status_code == 404
    assert Client().get(f"/read/{token}").status_code in (403, 404)


def test_another_sites_page_cannot_answer(studio: Studio) -> None:
    design, pk, _, path = taken(studio)
    change = asked(studio, design, pk)
    strict = Client(enforce_csrf_checks=True)
    assert strict.post(path, {"change": change, "say": "yes"}).status_code == 403
    assert Agreement.objects.get().state == "asked"


def test_others_have_no_commissions_to_see(studio: Studio, other: Studio) -> None:
    design, pk, _, _ = taken(studio)
    other.ask("GET", f"/designs/{design}/commissions", status=404)
    own, _ = other.with_part()
    for method, path in (("PUT", ""), ("DELETE", ""), ("POST", "/link"), ("DELETE", "/link")):
        other.ask(method, f"/designs/{own['id']}/commissions/{pk}{path}", CLIENT if method == "PUT" else None, 404)
