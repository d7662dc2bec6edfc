"""Releases: refused with reasons, forced in writing, frozen byte for byte, with errata, read by link."""

from __future__ import annotations

import hashlib
import io
import re
import zipfile
from typing import Any

import pytest
from django.test import Client
from django.utils import timezone
from pypdf import PdfReader

from studio.links.models import Link
from studio.releases.models import PrintState, Release
from tests.studio.conftest import BALL, Studio

pytestmark = pytest.mark.django_db(transaction=True)

PRINTS = [{"files": ["pdf", "html", "epub", "txt", "md", "json"]}, {"terms": "uk", "files": ["txt"]}]
FAULTY = BALL.replace("R3: (sc, inc) x 6 [18]", "R3: (sc, inc) x 6 [19]")


def release(studio: Studio, design: int, status: int = 201, **more: Any) -> Any:
    return studio.ask("POST", f"/designs/{design}/releases", {"prints": PRINTS, **more}, status)


def read(studio: Studio, design: int, number: int) -> Any:
    return studio.ask("GET", f"/designs/{design}/releases/{number}")


def content(studio: Studio, design: int, of: dict[str, Any], ending: str, title: str = "") -> bytes:
    file = next(f for f in of["files"] if f["ending"] == ending and title in f["title"])
    got = studio.client.get(f"/api/designs/{design}/releases/{of['number']}/files/{file['id']}")
    assert got.status_code == 200
    assert hashlib.sha256(got.content).hexdigest() == file["digest"]
    return bytes(got.content)


def retype(studio: Studio, made: dict[str, Any], key: str, text: str) -> dict[str, Any]:
    return studio.ask("PUT", f"/designs/{made['id']}/parts/{key}/text", {"text": text})  # type: ignore[no-any-return]


def test_a_release_has_all_its_files_with_stamp_and_pictures(studio: Studio) -> None:
    made, _ = studio.with_part()
    release(studio, made["id"])
    got = read(studio, made["id"], 1)
    assert got["state"] == "ready", got["error"]
    assert got["error"] == ""
    assert len(got["files"]) == 7
    stamp = f"Version 1.0, release 1 of {timezone.localdate().isoformat()}, {got['digest'][:10]}"
    pdf = PdfReader(io.BytesIO(content(studio, made["id"], got, "pdf")))
    assert all(stamp in " ".join(page.extract_text().split()) for page in pdf.pages)
    assert sum(len(page.images) for page in pdf.pages) >= 5, "the cover, and the figure from four sides"
    page = content(studio, made["id"], got, "html").decode()
    assert stamp in page
    assert page.count("data:image/jpeg;base64,") >= 4
    assert "No picture yet" not in page
    assert stamp in content(studio, made["id"], got, "txt").decode()
    assert "(dc, inc) x 6 [18]" in content(studio, made["id"], got, "txt", "UK terms").decode()
    book = zipfile.ZipFile(io.BytesIO(content(studio, made["id"], got, "epub")))
    assert stamp in book.read("book/cover.xhtml").decode()


def test_a_release_is_refused_with_its_reasons_and_forced_in_writing(studio: Studio) -> None:
    made, _ = studio.with_part(FAULTY)
    refused = release(studio, made["id"], 409)
    assert refused["type"].endswith("/blocked")
    assert "R3" in refused["detail"]
    assert Release.objects.count() == 0
    release(studio, made["id"], reason="Testers need it today.")
    got = read(studio, made["id"], 1)
    assert got["forced"] == "Testers need it today."
    assert [f["code"] for f in got["findings"] if f["blocks"]] == ["count"]


def test_her_own_blockers_and_foreign_terms_block(studio: Studio) -> None:
    made, _ = studio.with_part()
    page = {"page": "proving", "base": made["revision"], "data": {"blockers": "Wait for Odo's remarks."}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    assert "You noted: Wait for Odo's remarks." in release(studio, made["id"], 409)["detail"]
    page = {"page": "proving", "base": made["revision"], "data": {"blockers": ""}}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    note = {"title": "Stump arm", "designer": "Odo", "permissions": {"rounds": False}}
    studio.ask("PUT", f"/designs/{made['id']}/credits", {"sources": [note]})
    said = release(studio, made["id"], 409)["detail"]
    assert said.startswith("Terms of others forbid this release")
    assert "may not be published again" in said
    assert release(studio, made["id"], 409, reason="I need it.")["detail"] == said, "no reason passes them over"
    note["permissions"] = {"rounds": True, "credit": "With leave of Odo, given by letter."}
    studio.ask("PUT", f"/designs/{made['id']}/credits", {"sources": [note]})
    release(studio, made["id"])


def test_files_stay_byte_for_byte_and_errata_write_themselves(studio: Studio) -> None:
    made, key = studio.with_part()
    release(studio, made["id"])
    first = read(studio, made["id"], 1)
    kept = {f["id"]: content(studio, made["id"], first, f["ending"], f["title"]) for f in first["files"]}
    retype(studio, made, key, BALL.replace("R4-R6: sc around [18]", "R4-R7: sc around [18]").replace("R8", "R9").replace(
        "R7: (sc, dec)", "R8: (sc, dec)"))  # fmt: skip
    coming = studio.ask("GET", f"/designs/{made['id']}/releases")["next"]
    assert coming["number"] == 2
    assert any(e["part"] == "Body" and e["at"] == "R4-R7" for e in coming["errata"])
    release(studio, made["id"])
    second = read(studio, made["id"], 2)
    assert second["errata"] == coming["errata"]
    assert "R4-R7" in content(studio, made["id"], second, "txt").decode().split("CHANGES")[1]
    again = read(studio, made["id"], 1)
    assert {f["id"]: content(studio, made["id"], again, f["ending"], f["title"]) for f in again["files"]} == kept
    held = studio.ask("GET", f"/designs/{made['id']}/releases/1/against/2")
    assert held["errata"] == second["errata"]
    assert held["words"]


def test_the_list_of_changes_is_edited_and_files_that_are_there_are_not_printed_again(studio: Studio) -> None:
    made, _ = studio.with_part()
    release(studio, made["id"], changes="The very first one.")
    got = read(studio, made["id"], 1)
    assert "The very first one." in content(studio, made["id"], got, "txt").decode()
    path = f"/designs/{made['id']}/releases/1"
    edited = studio.ask("PUT", path, {"changes": "First; with thanks to Odo."})
    assert edited["changes"] == "First; with thanks to Odo."
    assert edited["files"] == got["files"]
    studio.ask("POST", f"{path}/print", status=409)


def test_printing_that_failed_is_begun_again(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    made, _ = studio.with_part()
    studio.ask("POST", f"/designs/{made['id']}/releases", {"prints": [{"edition": "gone0001", "files": ["txt"]}]}, 201)
    got = read(studio, made["id"], 1)
    assert (got["state"], got["files"]) == ("failed", [])
    assert got["error"].startswith("This size is gone")
    Release.objects.update(prints=PRINTS)
    studio.ask("POST", f"/designs/{made['id']}/releases/1/print")
    assert read(studio, made["id"], 1)["state"] == PrintState.READY


def test_readers_come_by_link_and_see_the_errata_of_their_version(studio: Studio) -> None:
    made, key = studio.with_part()
    path = f"/designs/{made['id']}/links"
    assert studio.ask("POST", path, {}, 409)["type"].endswith("/no-release")
    release(studio, made["id"])
    retype(studio, made, key, BALL.replace("Stuff firmly.", "Stuff softly."))
    release(studio, made["id"])
    link = studio.ask("POST", path, {"note": "the shop", "days": 30}, 201)
    stranger = Client()
    page = stranger.get(link["address"])
    text = page.content.decode()
    assert page.status_code == 200
    assert "“Stuff firmly.” is now “Stuff softly.”" in text
    assert page.headers["X-Robots-Tag"] == "noindex, nofollow"
    assert page.headers["Referrer-Policy"] == "no-referrer"
    for address in re.findall(r'href="(/read/[^"]+)"', text):
        got = stranger.get(address)
        assert got.status_code == 200, address
    inside = stranger.get(re.findall(r'href="(/read/[^"]+/page)"', text)[0])
    assert "sandbox" in inside.headers["Content-Security-Policy"]
    assert "default-src 'none'" in inside.headers["Content-Security-Policy"]
    listed = studio.ask("GET", path)
    assert [(r["note"], r["address"], r["revoked"]) for r in listed] == [("the shop", None, False)]
    studio.ask("DELETE", f"{path}/{link['id']}")
    closed = stranger.get(link["address"])
    assert closed.status_code == 403
    assert "withdrawn" in closed.content.decode()
    assert link["address"].removeprefix("/read/") not in str(Link.objects.values())


def test_a_link_opens_nothing_of_another_design(studio: Studio) -> None:
    made, _ = studio.with_part()
    other, _ = studio.with_part()
    for design in (made, other):
        release(studio, design["id"])
    link = studio.ask("POST", f"/designs/{made['id']}/links", {}, 201)
    foreign = read(studio, other["id"], 1)["files"][0]["id"]
    stranger = Client()
    assert stranger.get(f"{link['address']}/{foreign}").status_code == 404
    assert stranger.get("/read/nonsense").status_code == 404
    assert stranger.get(f"/api/designs/{made['id']}/releases").status_code == 401


def test_an_undo_of_the_design_takes_no_release_back(studio: Studio) -> None:
    made, _ = studio.with_part()
    release(studio, made["id"])
    studio.ask("POST", f"/designs/{made['id']}/undo", {"base": made["revision"]})
    assert len(studio.ask("GET", f"/designs/{made['id']}/releases")["releases"]) == 1


def test_what_differs_may_be_released_where_rounds_may_not(studio: Studio) -> None:
    base, _ = studio.with_part()
    copy = studio.ask("POST", f"/designs/{base['id']}/copy", status=201)
    source = {"title": "Stump", "designer": "Odo", "permissions": {"rounds": False, "difference": True}}
    studio.ask("PUT", f"/designs/{copy['id']}/credits", {"sources": [source]})
    retype(studio, copy, copy["parts"][0]["key"], BALL.replace("R4-R6: sc around [18]", "R4-R8: sc around [18]"))
    difference = [{"edition": "difference", "files": ["txt"]}]
    path = f"/designs/{copy['id']}/releases"
    assert "may not be published again" in studio.ask("POST", path, {"prints": PRINTS}, 409)["detail"]
    studio.ask("POST", path, {"prints": [*difference, *PRINTS]}, 409)
    studio.ask("POST", path, {"prints": difference}, 201)
    got = read(studio, copy["id"], 1)
    assert got["state"] == "ready", got["error"]
    text = content(studio, copy["id"], got, "txt").decode()
    assert "R1: 6 sc in ring" not in text
    assert "You need" in text
    source["permissions"] = {"rounds": False, "difference": False}
    studio.ask("PUT", f"/designs/{copy['id']}/credits", {"sources": [source]})
    assert "changes to it may not be published" in studio.ask("POST", path, {"prints": difference}, 409)["detail"]


def test_a_link_needs_a_release_and_holds_no_longer_than_is_told(studio: Studio) -> None:
    made, _ = studio.with_part()
    release(studio, made["id"])
    path = f"/designs/{made['id']}/links"
    for days in (0, 401, "soon"):
        studio.ask("POST", path, {"days": days}, 422)
    link = studio.ask("POST", path, {"days": 1}, 201)
    Link.objects.update(expires=timezone.now())
    gone = Client().get(link["address"])
    assert gone.status_code == 403
    assert "has run out" in gone.content.decode()
