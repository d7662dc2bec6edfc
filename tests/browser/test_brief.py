"""The brief as a plan: parts drawn on a picture or listed, drafted from there; a client and what it costs."""

from __future__ import annotations

import io
from collections.abc import Callable

import pytest
from django.contrib.auth.models import User
from PIL import Image, ImageDraw
from playwright.sync_api import Page, expect

from studio.designs.actions import create_design
from studio.designs.models import Design
from tests.browser.conftest import saved


def sketch() -> bytes:
    """A head on a body, in pencil."""
    page = Image.new("RGB", (400, 600), "#f7f2e6")
    draw = ImageDraw.Draw(page)
    draw.ellipse((120, 60, 280, 220), outline="#333333", width=4)
    draw.ellipse((90, 220, 310, 540), outline="#333333", width=4)
    out = io.BytesIO()
    page.save(out, "PNG")
    return out.getvalue()


@pytest.fixture
def design(designer: User) -> Design:
    return create_design(designer, "Dormouse", "us")


def drawn_box(page: Page, left: float, top: float, right: float, bottom: float) -> None:
    box = page.get_by_alt_text("Reference 1").bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] * left, box["y"] + box["height"] * top)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * right, box["y"] + box["height"] * bottom, steps=4)
    page.mouse.up()


def test_parts_are_drawn_on_a_picture_named_and_drafted(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/brief")
    page.get_by_label("Height wished for (mm)").fill("160")
    page.get_by_label("Picture file").set_input_files(
        {"name": "sketch.png", "mimeType": "image/png", "buffer": sketch()}
    )
    picture = page.get_by_alt_text("Reference 1")
    expect(picture).to_be_visible()
    picture.scroll_into_view_if_needed()
    plan = page.get_by_role("list", name="Planned parts")
    drawn_box(page, 0.3, 0.1, 0.7, 0.3667)
    expect(plan.get_by_role("listitem")).to_have_count(1)
    drawn_box(page, 0.225, 0.3667, 0.775, 0.9)
    expect(plan.get_by_role("listitem")).to_have_count(2)
    head, body = plan.get_by_role("listitem").first, plan.get_by_role("listitem").last
    # 480 pixels of 600 are 160 mm: the head's 160 are 53.
    expect(head.get_by_label("tall (mm)")).to_have_value("53")
    expect(body.get_by_label("tall (mm)")).to_have_value("107")
    body.get_by_role("textbox", name="Part 2").fill("Body")
    body.get_by_role("textbox", name="Part 2").blur()
    expect(body.get_by_label("as", exact=True)).to_have_value("egg")
    saved(page)
    body.get_by_role("button", name="Draft it").click()
    expect(body).to_contain_text("Begun: adds up")
    expect(page.get_by_text("1 of 2 begun")).to_be_visible()
    saved(page)
    body.get_by_role("link", name="Its rounds").click()
    expect(page.locator(".cm-line").first).to_contain_text("R1:")


def test_a_part_is_planned_with_the_keyboard_alone(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/brief")
    page.get_by_role("button", name="Add a part to the plan").focus()
    page.keyboard.press("Enter")
    row = page.get_by_role("list", name="Planned parts").get_by_role("listitem")
    row.get_by_role("textbox", name="Part 1").focus()
    page.keyboard.press("Control+a")
    page.keyboard.type("Bat wing")
    page.keyboard.press("Tab")
    expect(row.get_by_label("flat, unstuffed")).to_be_checked()
    saved(page)
    row.get_by_role("button", name="Draft it").focus()
    page.keyboard.press("Enter")
    expect(row).to_contain_text("Begun: adds up")
    row.get_by_role("link", name="Its rounds").focus()
    page.keyboard.press("Enter")
    expect(page.locator(".cm-content")).to_contain_text("press it flat")


def test_a_client_sees_a_price_of_hours_and_yarn(demo: User, enter: Callable[[str], Page]) -> None:
    bat = Design.objects.get(name="Bat")
    page = enter(f"/designs/{bat.pk}/brief")
    page.get_by_label("It is made for a client").check()
    page.get_by_label("An hour of work").fill("12")
    page.get_by_label("Currency").fill("EUR")
    saved(page)
    price = page.get_by_test_id("price")
    expect(price).to_contain_text("EUR")
    expect(price).to_contain_text("h of work")
    before = price.inner_text()
    page.get_by_label("All else").fill("250")
    saved(page)
    expect(price).not_to_have_text(before)
    page.get_by_role("button", name="Note what was agreed").click()
    page.get_by_label("What 1").fill("Ears a little longer.")
    saved(page)
    page.reload()
    expect(page.get_by_label("What 1")).to_have_value("Ears a little longer.")


def test_a_sketch_is_drawn_outlives_a_reload_and_is_kept_as_a_picture(
    design: Design, enter: Callable[[str], Page]
) -> None:
    page = enter(f"/designs/{design.pk}/brief")
    page.get_by_role("button", name="Sketch", exact=True).click()
    sheet = page.get_by_role("application")
    box = sheet.bounding_box()
    assert box is not None
    page.get_by_label("both sides alike").check()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 4, box["y"] + box["height"] / 2, steps=6)
    page.mouse.up()
    expect(sheet.locator("path")).to_have_count(2)
    page.reload()
    page.get_by_role("button", name="Sketch", exact=True).click()
    expect(sheet.locator("path")).to_have_count(2)  # it waited
    sheet.focus()
    for key in ("Space", "ArrowDown", "ArrowDown", "Space"):
        page.keyboard.press(key)
    expect(sheet.locator("path")).to_have_count(3)
    page.keyboard.press("Control+z")
    expect(sheet.locator("path")).to_have_count(2)
    page.get_by_role("button", name="Keep it as a picture").click()
    kept = page.get_by_alt_text("Reference 1")
    expect(kept).to_be_visible()
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(kept).to_have_js_property("naturalWidth", 1200)  # once it is loaded
    expect(kept).to_have_js_property("naturalHeight", 900)
    page.get_by_role("button", name="Sketch", exact=True).click()
    expect(sheet.locator("path")).to_have_count(0)
    page.get_by_label("Under the sheet").select_option(label="reference 1")
    expect(page.get_by_role("dialog").locator("img")).to_be_visible()
