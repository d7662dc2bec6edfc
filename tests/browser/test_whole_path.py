"""From nothing to a printed pattern: once with the mouse, once with the keyboard alone."""

from __future__ import annotations

import io
from pathlib import Path

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from tests.browser.conftest import drawn, saved


def pdf_text(page: Page) -> str:
    with page.expect_download() as download:
        page.get_by_role("link", name="PDF").click()
    raw = Path(download.value.path()).read_bytes()
    return "".join(p.extract_text() for p in PdfReader(io.BytesIO(raw)).pages)


def test_with_the_mouse(page: Page, transactional_db: None) -> None:
    page.goto("/")
    page.get_by_role("button", name="Make a new studio").click()
    page.get_by_label("Studio").fill("Wren's nest")
    page.get_by_label("Name").fill("wren")
    page.get_by_label("Password").fill("dusk-and-dew-7")
    page.get_by_role("button", name="Open the studio").click()
    page.get_by_role("heading", name="An empty shelf").wait_for()

    page.get_by_role("link", name="Yarn basket").click()
    page.get_by_role("button", name="Yarn", exact=True).click()
    page.get_by_label("Name").fill("Moss")
    page.get_by_label("Wraps (per inch)").fill("13")
    page.get_by_label("Skein (m)").fill("125")
    page.get_by_role("button", name="Put it in the basket").click()
    page.get_by_text("Moss", exact=True).wait_for()

    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Start a design").click()
    page.get_by_label("Name", exact=True).fill("Mole")
    page.get_by_role("button", name="Start it").click()

    page.get_by_text("Ball", exact=True).click()
    width = page.get_by_role("slider", name="Width")
    drawn(page)  # what is said beside the shape moves the handle until its rounds are there
    width.hover()
    before = int(width.get_attribute("aria-valuenow") or 0)
    box = width.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + 30, box["y"] + 5, steps=6)
    page.mouse.up()
    assert int(width.get_attribute("aria-valuenow") or 0) > before
    page.get_by_label("Width (mm)").fill("60")
    page.get_by_role("option", name="R1: 6 stitches").wait_for()
    drawn(page)
    for solid, name, make, size in (("Ball", "Body", 1, None), ("Cone", "Nose", 1, "14"), ("Capsule", "Arm", 2, "18")):
        page.get_by_role("button", name="+ A new part").click()
        page.get_by_role("radiogroup", name="Shape").get_by_text(solid, exact=True).click()
        if size:
            page.get_by_label("Width (mm)").fill(size)
        page.get_by_label("Call it").fill(name)
        page.get_by_label("Make", exact=True).fill(str(make))
        page.get_by_role("button", name="Add", exact=True).click()
        page.get_by_role("navigation", name="Parts").get_by_role("button", name=name).wait_for()

    page.get_by_role("link", name="Rounds").click()
    page.get_by_text("Every count adds up.").wait_for()
    drawn(page)
    rung = page.get_by_role("option", name="R3: 18 stitches")
    rung.hover()
    expect(page.locator(".cm-line.spirrel-lit")).to_contain_text("R3:")

    page.get_by_role("link", name="Gauge").click()
    page.get_by_role("button", name="Moss").click()
    page.get_by_label("Hook", exact=True).select_option("2.5")
    page.get_by_text("keeps its filling in").wait_for()
    saved(page)

    page.get_by_role("link", name="Assembly").click()
    page.get_by_role("button", name="Add a step").click()
    page.get_by_label("What to do").fill("Sew the nose to the front of the body.")
    page.get_by_label("Part", exact=True).select_option("Nose")
    page.get_by_label("on", exact=True).select_option("Body")
    saved(page)
    drawn(page)

    page.get_by_role("link", name="Sizes").click()
    page.get_by_role("button", name="Another size").click()
    page.get_by_label("Height of the whole figure (mm)").fill("120")
    page.get_by_role("button", name="Add the size").click()
    page.get_by_text("drafted again from its shape").first.wait_for()
    page.get_by_role("button", name="Another yarn").click()
    page.get_by_label("Hook", exact=True).select_option("5")
    page.get_by_label("Strands together").fill("2")
    page.get_by_label("Call it").fill("two strands")
    page.get_by_role("button", name="Add the size").click()
    page.get_by_role("columnheader", name="two strands").wait_for()
    saved(page)

    page.get_by_role("link", name="Booklet").click()
    page.get_by_role("heading", name="Body (make 1)").wait_for()
    text = pdf_text(page)
    for words in (
        "Mole",
        "Wren's nest",
        "Arm (make 2)",
        "Sew the nose to the front",
        "certifies nothing",
        "6 sc in ring",
    ):
        assert words in text
    page.get_by_label("Terms", exact=True).select_option("uk")
    expect(page.get_by_text("6 dc in ring").first).to_be_visible()

    page.get_by_role("link", name="Shelf").click()
    page.get_by_role("button", name="Copy Mole").click()
    page.get_by_text("copied from").wait_for()
    editor = page.get_by_label("Written rounds", exact=True).locator(".cm-content, [contenteditable]").last
    editor.click()
    page.keyboard.press("Control+End")
    page.keyboard.type("\nA note for the copy.")
    saved(page)
    page.reload()
    page.get_by_text("A note for the copy.").wait_for()
    page.get_by_role("link", name="Mole", exact=True).click()
    page.get_by_text("Every count adds up.").wait_for()
    expect(page.get_by_text("A note for the copy.")).to_have_count(0)


def tab_to(page: Page, what: str, most: int = 80) -> None:
    """Press Tab until the focus is on something of that name."""
    for _ in range(most):
        page.keyboard.press("Tab")
        name = page.evaluate(
            """() => { const e = document.activeElement; const label = e.labels && e.labels[0];
            return (e.getAttribute('aria-label') || (label && label.textContent) || e.textContent || '').trim(); }"""
        )
        if name == what or name.startswith(f"{what},"):
            return
    raise AssertionError(f"Tab never came to {what!r}")


def test_with_the_keyboard_alone(page: Page, transactional_db: None) -> None:
    page.goto("/")
    page.get_by_role("heading", name="Sign in").wait_for()
    tab_to(page, "Make a new studio")
    page.keyboard.press("Enter")
    page.keyboard.press("Shift+Tab")
    for _ in range(3):
        page.keyboard.press("Shift+Tab")
    for words in ("Burrow", "vole", "dusk-and-dew-7"):
        page.keyboard.type(words)
        page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="An empty shelf").wait_for()

    page.keyboard.press("Control+k")
    page.keyboard.type("new des")
    page.keyboard.press("Enter")
    page.get_by_role("dialog").wait_for()
    page.keyboard.type("Vole")
    page.keyboard.press("Enter")
    page.get_by_role("radiogroup", name="Shape").wait_for()

    tab_to(page, "Ball")
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("radio", name="Ellipsoid")).to_be_checked()
    expect(page.get_by_label("Width (mm)")).to_have_value("70")
    tab_to(page, "Width")
    before = page.get_by_label("Width (mm)").input_value()
    for _ in range(5):
        page.keyboard.press("ArrowLeft")
    expect(page.get_by_label("Width (mm)")).to_have_value(str(int(before) - 5))
    page.get_by_role("option", name="R1: 6 stitches").wait_for()
    tab_to(page, "Call it")
    page.keyboard.type("Body")
    page.keyboard.press("Enter")
    page.get_by_text("from its shape").wait_for()

    page.keyboard.press("Control+k")
    page.keyboard.type("rounds")
    page.keyboard.press("Enter")
    page.get_by_text("Every count adds up.").wait_for()
    tab_to(page, "Written rounds")
    page.keyboard.press("Control+Home")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Alt+-")
    page.get_by_role("button", name="repeat 6 times").or_(
        page.get_by_text("leaves").or_(page.get_by_text("left"))
    ).first.wait_for()
    page.keyboard.press("Alt+=")
    page.get_by_text("Every count adds up.").wait_for()
    page.keyboard.press("Shift+Alt+ArrowDown")
    expect(page.locator(".cm-content")).to_contain_text("R3: inc x 6")
    page.keyboard.press("Control+Shift+k")
    page.get_by_text("Every count adds up.").wait_for()
    expect(page.get_by_role("dialog")).to_have_count(0)
    saved(page)
    page.keyboard.press("Escape")
    tab_to(page, "Ladder of Body")
    page.keyboard.press("Home")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("region", name="Ladder").locator("p")).to_contain_text("R2: 12 stitches, 6 more")

    page.keyboard.press("Control+k")
    page.keyboard.type("booklet")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Body (make 1)").wait_for()
    tab_to(page, "PDF")
    with page.expect_download() as download:
        page.keyboard.press("Enter")
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF")
    page.keyboard.press("?")
    page.get_by_role("dialog", name="Shortcuts").wait_for()
    page.keyboard.press("Escape")
