"""Every screen: accessible in daylight and lamplight, without a horizontal scroll, quiet in the console."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path
from typing import Any
from zipfile import ZipFile

import pytest
from django.contrib.auth.models import User
from django.core import mail
from playwright.sync_api import Page, expect

from studio.designs.models import Design
from tests.browser.conftest import NAME, PASSWORD, settle

ROOT = Path(__file__).resolve().parents[2]
AXE = (ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text()
STOPS = ("brief", "gauge", "shapes", "rounds", "bases", "assembly", "sizes", "booklet", "proving")


def violations(page: Page, *, colours_only: bool = False) -> list[str]:
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    only = ", runOnly: ['color-contrast']" if colours_only else ""
    found: dict[str, Any] = page.evaluate(f"async () => await axe.run(document, {{resultTypes: ['violations']{only}}})")
    return [f"{v['id']}: {v['help']} at {[n['target'] for n in v['nodes'][:3]]}" for v in found["violations"]]


LAMP = """() => {
    const still = new CSSStyleSheet();
    still.replaceSync("*, ::before, ::after { transition: none !important }");
    document.adoptedStyleSheets.push(still);
    document.documentElement.dataset.ground = "lamplight";
}"""
"""Lights the lamp at once: no colour is on its way to another while it is looked at."""


def by_lamplight(page: Page) -> list[str]:
    """What axe finds when the lamp is lit over the page as it stands: nothing of it is different but its colours."""
    page.evaluate(LAMP)
    return violations(page, colours_only=True)


def test_axe_finds_nothing(demo: User, enter: Callable[[str], Page]) -> None:
    page = enter("/")
    hedgehog, acorn = (Design.objects.get(name=n).pk for n in ("Dusk Hedgehog", "Acorn"))
    addresses = [
        "/",
        "/yarns",
        "/pieces",
        *(f"/designs/{hedgehog}/bases?view={view}" for view in ("graft", "base", "compare", "credits")),
        *(f"/designs/{hedgehog}/{stop}" for stop in STOPS),
        f"/designs/{acorn}/rounds",
        "/designs/0",
        "/no",
    ]
    for address in addresses:
        page.goto(address)
        settle(page)
        assert violations(page) == [], address
        assert by_lamplight(page) == [], f"{address} by lamplight"
        wide = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
        assert wide <= 0, f"{address} scrolls sideways"


def test_axe_finds_nothing_at_the_door_and_in_dialogs(demo: User, page: Page, enter: Callable[[str], Page]) -> None:
    page.goto("/")
    page.get_by_role("heading", name="Sign in").wait_for()
    assert violations(page) == []
    page.get_by_role("button", name="Make a new studio").click()
    assert violations(page) == []
    enter("/")
    page.get_by_role("button", name="New design").click()
    settle(page)
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.keyboard.press("Control+k")
    settle(page)
    assert violations(page) == []
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Your studio").click()
    for tab in ("Preferences", "Password", "Devices", "Room left", "Leaving"):
        page.get_by_role("tab", name=tab).click()
        settle(page)
        assert violations(page) == [], tab
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Bring in a design").click()
    page.get_by_label("Or pasted").fill("Moth\n\nWing (make 2)\nR1: 6 zog (6)\nR2: firmly, 6 sc (6)\n")
    page.get_by_role("button", name="Read it").click()
    page.get_by_role("list", name="Line by line").wait_for()
    settle(page)
    assert violations(page) == []
    page.get_by_role("button", name="Line 4, Round").focus()
    page.keyboard.press("e")
    assert violations(page) == []
    page.goto("/yarns")
    for name in ("Yarn", "Swatch"):
        page.get_by_role("button", name=name, exact=True).click()
        settle(page)
        assert violations(page) == []
        page.keyboard.press("Escape")


def test_the_bench_fits_without_scrolling_the_page(demo: User, enter: Callable[[str], Page]) -> None:
    hedgehog = Design.objects.get(name="Dusk Hedgehog").pk
    page = enter(f"/designs/{hedgehog}/rounds")
    settle(page)
    for role, name in (("region", "Written rounds"), ("region", "Ladder"), ("tabpanel", "Figure")):
        box = page.get_by_role(role, name=name, exact=True).bounding_box()
        assert box is not None
        assert box["y"] + box["height"] <= 800


def test_a_phone_shows_booklet_and_log(demo: User, enter: Callable[[str], Page]) -> None:
    hedgehog = Design.objects.get(name="Dusk Hedgehog").pk
    page = enter("/")
    page.set_viewport_size({"width": 390, "height": 844})
    for stop in ("booklet", "proving"):
        page.goto(f"/designs/{hedgehog}/{stop}")
        settle(page)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, stop


def test_the_shelf_shows_every_figure(demo: User, enter: Callable[[str], Page]) -> None:
    page = enter("/")
    page.get_by_role("heading", name="Dusk Hedgehog").wait_for()
    pictures = page.locator("main li img")
    expect(pictures).to_have_count(8)
    settle(page)
    for picture in pictures.all():
        expect(picture).to_have_js_property("complete", True)
        box = picture.bounding_box()
        assert box is not None
        assert min(box["width"], box["height"]) > 100
        # The settled picture may take the estimate's place in the meantime, and has no width until it is there.
        expect(picture).not_to_have_js_property("naturalWidth", 0)


@pytest.mark.parametrize(("width", "height"), [(390, 844), (640, 400)], ids=["phone", "at 200 %"])
def test_a_narrow_screen_is_one_long_page(demo: User, enter: Callable[[str], Page], width: int, height: int) -> None:
    """Nothing lies over anything else, and nothing disappears: everything is reached by scrolling down."""
    hedgehog = Design.objects.get(name="Dusk Hedgehog").pk
    page = enter("/")
    page.set_viewport_size({"width": width, "height": height})
    for stop, first, second in (
        ("rounds", page.get_by_role("textbox", name="Written rounds"), page.get_by_role("region", name="Ladder")),
        (
            "assembly",
            page.get_by_test_id("figure"),
            page.get_by_role("list", name="Steps").get_by_role("listitem").last,
        ),
    ):
        page.goto(f"/designs/{hedgehog}/{stop}")
        settle(page)
        above, below = first.bounding_box(), second.bounding_box()
        assert above is not None
        assert below is not None
        assert above["height"] > 20
        assert above["y"] + above["height"] <= below["y"], f"{stop} overlaps itself"
        assert page.evaluate("document.documentElement.scrollWidth") <= width, stop
        second.scroll_into_view_if_needed()
        expect(second).to_be_in_viewport()


def test_a_design_goes_out_as_a_file_and_comes_in_again(
    demo: User, enter: Callable[[str], Page], tmp_path: Path
) -> None:
    bat = Design.objects.get(name="Bat").pk
    page = enter(f"/designs/{bat}/rounds")
    page.get_by_role("button", name="Save as").click()
    with page.expect_download() as download:
        page.get_by_role("menuitem", name="The whole design").click()
    assert download.value.suggested_filename == "bat.design.json"
    download.value.save_as(tmp_path / "bat.design.json")
    page.goto("/")
    page.get_by_role("button", name="Bring in a design").click()
    page.get_by_label("A file").set_input_files(tmp_path / "bat.design.json")
    page.wait_for_url("**/rounds")
    again = Design.objects.filter(name="Bat").latest("pk")
    assert again.pk != bat
    assert len(again.manifest.parts) == len(Design.objects.get(pk=bat).manifest.parts)
    page.goto("/")
    page.get_by_role("button", name="Bring in a design").click()
    page.get_by_label("A file").set_input_files({"name": "x.json", "mimeType": "application/json", "buffer": b"{"})
    expect(page.get_by_text("This is no readable JSON.", exact=True)).to_be_visible()


def test_dialogs_are_left_by_mouse_and_begin_in_their_field(designer: User, enter: Callable[[str], Page]) -> None:
    page = enter("/")
    for leave in ("Cancel", "Close"):
        page.get_by_role("button", name="New design").click()
        expect(page.get_by_label("Name", exact=True)).to_be_focused()
        page.get_by_role("button", name="Start it").click()
        expect(page.get_by_text("Give it a name.")).to_be_visible()
        page.get_by_role("button", name=leave, exact=True).click()
        expect(page.get_by_role("dialog")).to_have_count(0)
    assert not Design.objects.exists()


def test_without_webgl_there_is_a_picture(demo: User, page: Page, enter: Callable[[str], Page]) -> None:
    page.add_init_script("HTMLCanvasElement.prototype.getContext = () => null")
    hedgehog = Design.objects.get(name="Dusk Hedgehog").pk
    enter(f"/designs/{hedgehog}/rounds")
    picture = page.get_by_role("img", name="Figure of Body")
    expect(picture).to_have_js_property("complete", True)
    assert picture.evaluate("e => e.naturalWidth") > 0


def test_what_is_hashed_is_kept_and_compressed(designer: User, page: Page) -> None:
    seen: dict[str, dict[str, str]] = {}
    page.on("response", lambda r: seen.update({r.url: r.all_headers()}) if "/assets/" in r.url else None)
    page.goto("/")
    page.get_by_role("heading", name="Sign in").wait_for()
    scripts = [headers for url, headers in seen.items() if url.endswith(".js")]
    assert scripts
    for headers in scripts:
        assert "immutable" in headers["cache-control"]
        assert headers["content-encoding"] in ("br", "gzip")


def test_a_studio_is_taken_along_and_closed(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter("/")
    page.get_by_role("button", name="Your studio").click()
    page.get_by_role("tab", name="Room left").click()
    with page.expect_download() as download:
        page.get_by_role("link", name="Save everything as a file").click()
    with ZipFile(download.value.path()) as archive:
        assert "designs/001-Moth/pattern.txt" in archive.namelist()
    page.get_by_role("tab", name="Leaving").click()
    page.get_by_label("Your password").fill("not mine")
    page.get_by_role("button", name="Close the studio").click()
    expect(page.get_by_text("The present password is not right.")).to_be_visible()
    page.get_by_label("Your password").fill(PASSWORD)
    page.get_by_role("button", name="Close the studio").click()
    expect(page.get_by_text("This studio closes on")).to_be_visible()
    page.get_by_role("button", name="Stay after all").click()
    expect(page.get_by_label("Your password")).to_be_visible()


def test_the_notices_of_what_is_built_in_are_handed_on(page: Page) -> None:
    """Licences of packages and typefaces ask for it."""
    for file, words in {
        "third-party-notices.txt": ("Name: react-dom", "Name: three", "Permission is hereby granted"),
        "fraunces-licence.txt": ("SIL OPEN FONT LICENSE",),
        "atkinson-hyperlegible-next-licence.txt": ("SIL OPEN FONT LICENSE",),
    }.items():
        got = page.request.get(f"/{file}")
        assert got.status == 200, file
        assert all(word in got.text() for word in words), file


def test_a_forgotten_password_is_set_anew_by_a_letter(designer: User, page: Page) -> None:
    designer.email = "fern@example.org"
    designer.save()
    page.goto("/")
    page.get_by_label("Name").fill(NAME)
    page.get_by_role("button", name="I forgot my password").click()
    page.get_by_role("button", name="Send me a letter").click()
    expect(page.get_by_text("a letter is on its way")).to_be_visible()
    for _ in range(200):  # letters go out behind the answer
        if mail.outbox:
            break
        page.wait_for_timeout(50)
    found = re.search(r"/new-password/\S+", str(mail.outbox[-1].body))
    assert found
    page.goto(found.group())
    settle(page)
    assert violations(page) == []
    page.get_by_label("New password").fill("another-lantern-4")
    page.get_by_role("button", name="Set it, and come in").click()
    page.get_by_role("heading", name="The shelf").wait_for()
    page.get_by_role("button", name="Your studio").click()
    page.get_by_role("tab", name="Password").click()
    expect(page.get_by_label("Address of mail")).to_have_value("fern@example.org")
