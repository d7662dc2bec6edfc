"""Every screen: accessible in daylight and lamplight, without a horizontal scroll, quiet in the console."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from playwright.sync_api import Page, expect

from studio.designs.models import Design

ROOT = Path(__file__).resolve().parents[2]
AXE = (ROOT / "frontend/node_modules/axe-core/axe.min.js").read_text()
STOPS = ("brief", "gauge", "shapes", "rounds", "assembly", "sizes", "booklet", "proving")


def violations(page: Page) -> list[str]:
    page.evaluate(AXE)
    found: dict[str, Any] = page.evaluate("async () => await axe.run(document, {resultTypes: ['violations']})")
    return [f"{v['id']}: {v['help']} at {[n['target'] for n in v['nodes'][:3]]}" for v in found["violations"]]


def settle(page: Page) -> None:
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(150)


@pytest.mark.parametrize("ground", ["daylight", "lamplight"])
def test_axe_finds_nothing(demo: User, enter: Callable[[str], Page], ground: str) -> None:
    page = enter("/")
    page.evaluate(f"localStorage.setItem('spirrel-ground', '{ground}')")
    hedgehog, acorn = (Design.objects.get(name=n).pk for n in ("Dusk Hedgehog", "Acorn"))
    addresses = [
        "/",
        "/yarns",
        *(f"/designs/{hedgehog}/{stop}" for stop in STOPS),
        f"/designs/{acorn}/rounds",
        "/designs/0",
        "/no",
    ]
    for address in addresses:
        page.goto(address)
        settle(page)
        assert violations(page) == [], address
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
    settle(page)
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
