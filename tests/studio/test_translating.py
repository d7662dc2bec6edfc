"""Translators: a link shows the designer's prose and nothing else; what is written waits until she takes it over."""

from __future__ import annotations

import re
from datetime import timedelta
from typing import Any

from django.test import Client
from django.utils import timezone

from studio.links.models import Link
from studio.translating.actions import MOST_TEXT, digest_of
from studio.translating.models import TranslatedPiece, Translator
from tests.studio.conftest import Studio

INTRO = "A ball for the window sill."
NOTES = "Keep the marker in."


def told(studio: Studio, intro: str = INTRO) -> int:
    """A design with prose of its own."""
    made, _ = studio.with_part()
    page = {"intro": intro, "height_mm": 50}
    made = studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "brief", "base": made["revision"], "data": page})
    book = {"version": "1.0", "notes": NOTES}
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "booklet", "base": made["revision"], "data": book})
    return made["id"]  # type: ignore[no-any-return]


def invited(studio: Studio, design: int, language: str = "de") -> str:
    """The address of a translator's page."""
    got = studio.ask("POST", f"/designs/{design}/translators", {"language": language, "name": "Ulla"}, 201)
    assert got["address"].startswith("/translate/")
    return str(got["address"])


def write(path: str, *said: tuple[str, str]) -> Any:
    """Send pieces as the page's form does."""
    return Client().post(path, {digest_of(source): text for source, text in said})


def seen(path: str) -> str:
    return Client().get(path).content.decode()


def test_a_translator_sees_the_prose_alone_and_what_she_writes_waits_for_the_designer(studio: Studio) -> None:
    design = told(studio)
    path = invited(studio, design)
    page = Client().get(path)
    text = page.content.decode()
    assert page.status_code == 200
    assert INTRO in text
    assert NOTES in text
    assert "6 sc in ring" not in text, "rounds are no prose"
    assert "<script" not in text
    assert page.headers["X-Robots-Tag"].startswith("noindex")
    assert page.headers["Cache-Control"] == "private, no-store"
    assert page.headers["Referrer-Policy"] == "same-origin"

    done = write(path, (INTRO, "Ein Ball für das Fensterbrett."), (NOTES, ""))
    assert (done.status_code, done.headers["Location"]) == (302, f"{path}?kept=1")
    assert "Saved." in seen(f"{path}?kept=1")
    assert "Ein Ball für das Fensterbrett." in seen(path)
    (one,) = studio.ask("GET", f"/designs/{design}/translators")
    assert one["pieces"] == [{"source": INTRO, "text": "Ein Ball für das Fensterbrett."}]
    assert (one["closed"], one["address"]) == (False, None)
    book = studio.ask("GET", f"/designs/{design}/booklet.txt?language=de").content.decode()
    assert "Fensterbrett" not in book, "the designer has not taken it over"


def test_what_is_said_otherwise_since_waits_to_be_translated_again(studio: Studio) -> None:
    design = told(studio)
    path = invited(studio, design)
    write(path, (INTRO, "Ein Ball."))
    revision = studio.ask("GET", f"/designs/{design}")["revision"]
    page = {"intro": "A larger ball.", "height_mm": 50}
    studio.ask("PUT", f"/designs/{design}/pages", {"page": "brief", "base": revision, "data": page})
    text = seen(path)
    assert "Written otherwise since" in text
    assert re.search(rf"<s>{re.escape(INTRO)}</s>", text)
    assert "A larger ball." in text
    write(path, ("A larger ball.", "Ein größerer Ball."), (INTRO, "nobody asks for this any more"))
    assert TranslatedPiece.objects.get(source=INTRO).text == "Ein Ball."
    assert TranslatedPiece.objects.get(source="A larger ball.").text == "Ein größerer Ball."


def test_an_emptied_piece_is_none_and_the_same_words_are_no_change(studio: Studio) -> None:
    path = invited(studio, told(studio))
    write(path, (INTRO, "Ein Ball."), (NOTES, "Den Marker drinlassen."))
    assert write(path, (INTRO, "  Ein Ball.  "), (NOTES, "")).headers["Location"].endswith("kept=1")
    assert "Nothing was changed." in seen(f"{path}?kept=0")
    assert list(TranslatedPiece.objects.values_list("source", flat=True)) == [INTRO]


def test_nonsense_is_answered_in_words_and_what_was_typed_is_still_there(studio: Studio) -> None:
    path = invited(studio, told(studio))
    long = "Langes " * MOST_TEXT
    got = write(path, (INTRO, long))
    assert got.status_code == 200
    text = got.content.decode()
    assert "A piece has up to 5,000 characters" in text
    assert long.strip() in text
    assert not TranslatedPiece.objects.exists()
    assert write(path, ("no piece of this pattern", "x")).headers["Location"].endswith("kept=0")
    assert "&lt;b&gt;" in write(path, (INTRO, "<b>" + long)).content.decode()


def test_a_withdrawn_link_and_one_that_ran_out_say_so(studio: Studio) -> None:
    design = told(studio)
    path, other = invited(studio, design), invited(studio, design, "fr")
    first, second = Translator.objects.all()
    left = studio.ask("DELETE", f"/designs/{design}/translators/{first.pk}")
    assert [t["language"] for t in left] == ["fr"]
    assert "withdrawn" in seen(path)
    Link.objects.filter(pk=second.link_id).update(expires=timezone.now() - timedelta(days=1))
    assert "run out" in seen(other)
    assert write(other, (INTRO, "x")).status_code == 403
    assert studio.ask("GET", f"/designs/{design}/translators")[0]["closed"]
    assert Client().get("/translate/nobody").status_code == 404


def test_a_translators_link_opens_nothing_else(studio: Studio) -> None:
    design = told(studio)
    token = invited(studio, design).rsplit("/", 1)[1]
    for path in (f"/read/{token}", f"/agree/{token}"):
        assert Client().get(path).status_code in (403, 404)
    assert Client().get("/api/test", headers={"X-Link": token}).status_code in (403, 404)


def test_an_undo_of_the_design_touches_nothing_that_a_translator_wrote(studio: Studio) -> None:
    design = told(studio)
    path = invited(studio, design)
    write(path, (NOTES, "Den Marker drinlassen."))
    studio.ask("POST", f"/designs/{design}/undo")
    assert TranslatedPiece.objects.get().text == "Den Marker drinlassen."
    assert NOTES in seen(path), "under what was written otherwise"


def test_a_design_has_so_many_translators(studio: Studio, monkeypatch: Any) -> None:
    monkeypatch.setattr("studio.translating.actions.MOST_TRANSLATORS", 1)
    design = told(studio)
    invited(studio, design)
    got = studio.ask("POST", f"/designs/{design}/translators", {"language": "de", "name": "Ole"}, 422)
    assert "at most 1 translators" in got["detail"]
    studio.ask("POST", f"/designs/{design}/translators", {"language": "xx", "name": "Ole"}, 422)
