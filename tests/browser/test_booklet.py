"""From a draft to a reader: proof-reading, photographs, editions, a release, a mend, the next release and its errata."""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from pathlib import Path

import pytest
from django.contrib.auth.models import User
from PIL import Image
from playwright.sync_api import Browser, BrowserContext, Page, expect
from pypdf import PdfReader

from studio.designs.models import Design
from studio.designs.texts import set_text
from studio.releases.models import Release
from tests.browser.conftest import CONE, saved
from tests.browser.test_screens import violations

WRONG = CONE.replace("x 6 [24]", "x 6 [25]")


@pytest.fixture
def photograph(tmp_path: Path) -> Path:
    path = tmp_path / "moth.jpg"
    Image.new("RGB", (640, 480), "#77834b").save(path)
    return path


def retyped(designer: User, design: Design, text: str) -> None:
    part = Design.objects.get(pk=design.pk).manifest.parts[0].key
    set_text(designer, design.pk, part, text, None, None)


def test_a_release_is_refused_mended_made_and_read(
    bench: Page, design: Design, designer: User, context: BrowserContext
) -> None:
    retyped(designer, design, WRONG)
    bench.reload()
    bench.get_by_role("link", name="Booklet").click()
    blocks = bench.get_by_role("region", name="Blocks the release")
    expect(blocks).to_contain_text("R4")
    bench.get_by_role("button", name=re.compile("^Release 1.0")).click()
    expect(bench.get_by_role("button", name="Release it all the same")).to_be_disabled()
    bench.get_by_role("button", name="Not yet").click()
    blocks.get_by_role("link", name="Rounds").click()
    expect(bench).to_have_url(re.compile("round=4"))
    expect(bench.locator(".cm-activeLine")).to_contain_text("Rnd 4")  # its line is gone to
    retyped(designer, design, CONE)
    bench.reload()
    bench.get_by_role("link", name="Booklet").click()
    expect(blocks).to_have_count(0)
    bench.get_by_role("button", name=re.compile("^Release 1.0")).click()
    bench.get_by_role("button", name="Make release 1").click()
    first = bench.get_by_role("listitem", name="Release 1")
    with bench.expect_download() as download:
        first.get_by_role("link", name="PDF").click()
    pdf = PdfReader(io.BytesIO(download.value.path().read_bytes()))
    assert "release 1 of" in " ".join(pdf.pages[0].extract_text().split())
    retyped(designer, design, CONE.replace("Rnd 4: (2 sc, inc)", "Rnd 4: (sc, inc, sc)"))
    bench.reload()
    bench.get_by_role("button", name=re.compile("^Release 1.0")).click()
    expect(bench.get_by_role("region", name="What is different")).to_contain_text("(sc, inc, sc) x 6")
    bench.get_by_role("button", name="Make release 2").click()
    expect(bench.get_by_role("listitem", name="Release 2").get_by_role("link", name="EPUB")).to_be_visible()
    bench.get_by_role("listitem", name="Release 2").get_by_role("button", name="What is new in it").click()
    held = bench.get_by_role("region", name="Held against release 1")
    expect(held).to_contain_text("(sc, inc, sc) x 6")
    bench.get_by_label("As readers see it").fill("Round 4 leans less.")
    bench.get_by_role("button", name="Save", exact=True).click()
    expect(held).to_have_count(0)
    bench.get_by_label("For whom").fill("the shop")
    bench.get_by_role("button", name="Make a link").click()
    address = bench.get_by_label("The new link: keep it now").input_value()
    reader = context.new_page()
    reader.goto(address)
    expect(reader.get_by_role("heading", name="Release 1 of", exact=False)).to_be_visible()
    expect(reader.get_by_text("“(2 sc, inc) x 6 [24]” is now “(sc, inc, sc) x 6 [24]”").last).to_be_visible()
    expect(reader.get_by_text("Round 4 leans less.")).to_be_visible()
    reader.get_by_role("link", name="read it here").click()
    expect(reader.get_by_text("(sc, inc, sc) x 6", exact=True)).to_be_visible()
    bench.get_by_role("button", name="Withdraw the link the shop").click()
    bench.get_by_role("button", name="Withdraw it").click()
    expect(bench.get_by_text("the shop, withdrawn")).to_be_visible()
    closed = context.request.get(address)
    assert closed.status == 403
    assert "This link was withdrawn" in closed.text()
    assert Release.objects.count() == 2


def test_a_photograph_is_added_said_cut_and_printed(bench: Page, photograph: Path) -> None:
    bench.get_by_role("link", name="Booklet").click()
    bench.get_by_role("button", name=re.compile("^Photographs")).click()
    bench.get_by_label("Photograph file").set_input_files(photograph)
    bench.get_by_label("In words, for whoever does not see it").fill("The moth on a windowsill")
    bench.get_by_label("Printed below").fill("At dusk")
    bench.get_by_role("button", name="Crop photograph 1").click()
    bench.get_by_label("Off the left (%)").fill("50")
    bench.get_by_label("Off the left (%)").blur()
    bench.get_by_role("button", name="Done").click()
    saved(bench)
    article = bench.get_by_role("article", name="The booklet")
    shown = article.get_by_role("img", name="The moth on a windowsill")
    expect(shown).to_be_visible()
    expect(article.get_by_text("At dusk")).to_be_visible()
    wide, tall = shown.evaluate("async i => { await i.decode(); return [i.naturalWidth, i.naturalHeight]; }")
    assert wide / tall == pytest.approx(320 / 480, abs=0.01)


def test_editions_change_the_page(bench: Page) -> None:
    bench.get_by_role("link", name="Booklet").click()
    article = bench.get_by_role("article", name="The booklet")
    expect(article.get_by_text("Written in US terms.")).to_be_visible()
    bench.get_by_label("Terms", exact=True).last.select_option("letters")
    expect(article.get_by_text("Written in letter notation.")).to_be_visible()
    expect(article.get_by_role("img", name=re.compile("from behind"))).to_be_visible()
    bench.get_by_label("Pictures", exact=True).select_option("none")
    expect(article.get_by_role("img", name=re.compile("from behind"))).to_have_count(0)
    bench.get_by_label("Paper").select_option("phone")
    with bench.expect_download() as download:
        bench.get_by_role("link", name="PDF").click()
    page = PdfReader(io.BytesIO(download.value.path().read_bytes())).pages[0]
    assert float(page.mediabox.width) == pytest.approx(90 / 25.4 * 72, abs=1)


def test_the_desk_holds_on_a_phone(demo: User, enter: Callable[[str], Page]) -> None:
    pk = Design.objects.get(name="Toadstool House").pk
    page = enter(f"/designs/{pk}/booklet")
    page.set_viewport_size({"width": 390, "height": 844})
    expect(page.get_by_role("heading", name="Proof-reading")).to_be_attached()
    wide = page.evaluate("document.documentElement.scrollWidth")
    assert wide <= 390


def test_prose_is_translated_side_by_side(bench: Page) -> None:
    bench.get_by_role("link", name="Booklet").click()
    bench.get_by_label("Notes for the maker").fill("Take your time.")
    saved(bench)
    bench.get_by_label("Language", exact=True).select_option("German")
    article = bench.get_by_role("article", name="The booklet")
    expect(article).to_contain_text("Rd 5-7")
    expect(article).to_contain_text("Take your time. [nicht übersetzt]")
    bench.get_by_role("button", name="Your words in German").click()
    bench.get_by_label("Notes in German: Take your time.").fill("Lass dir Zeit.")
    bench.keyboard.press("Escape")
    expect(article).to_contain_text("Lass dir Zeit.")
    saved(bench)
    bench.get_by_label("Notes for the maker").fill("Take all your time.")
    expect(article).to_contain_text("Take all your time. [nicht übersetzt]")
    bench.get_by_role("button", name="Your words in German").click()
    gone = bench.get_by_role("region", name="Translations of words that changed")
    expect(gone).to_contain_text("Lass dir Zeit.")
    gone.get_by_role("button", name="Throw away: Lass dir Zeit.").click()
    expect(gone).to_have_count(0)


def test_a_translator_writes_by_her_link_and_the_designer_takes_it_over(bench: Page, chromium: Browser) -> None:
    bench.get_by_role("link", name="Booklet").click()
    bench.get_by_label("Notes for the maker").fill("Take your time.")
    saved(bench)
    bench.get_by_label("Language", exact=True).select_option("German")
    bench.get_by_role("button", name="Your words in German").click()
    bench.get_by_label("Who translates").fill("Ulla")
    bench.get_by_role("button", name="Make a link").click()
    address = bench.get_by_label("The translator's link: keep it now").input_value()
    bench.keyboard.press("Escape")

    ulla = chromium.new_page(viewport={"width": 390, "height": 844})
    ulla.goto(address)
    expect(ulla.get_by_role("heading", level=1)).to_contain_text("in German")
    assert violations(ulla) == []
    assert ulla.evaluate("document.documentElement.scrollWidth") <= 390
    ulla.get_by_label(re.compile("Take your time")).fill("Lass dir Zeit.")
    ulla.get_by_role("button", name="Save everything").click()
    expect(ulla.get_by_role("status")).to_contain_text("Saved.")
    ulla.close()

    article = bench.get_by_role("article", name="The booklet")
    expect(article).to_contain_text("Take your time. [nicht übersetzt]")
    bench.reload()
    bench.get_by_label("Language", exact=True).select_option("German")
    bench.get_by_role("button", name="Your words in German").click()
    bench.get_by_role("button", name="Take over from Ulla: Lass dir Zeit.").click()
    expect(bench.get_by_label("Notes in German: Take your time.")).to_have_value("Lass dir Zeit.")
    bench.keyboard.press("Escape")
    expect(article).to_contain_text("Lass dir Zeit.")
    saved(bench)
