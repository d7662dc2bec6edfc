"""The Shapes stop: from a picture to a sound pattern, by mouse and by keys; a mesh; a bend redrawn."""

from __future__ import annotations

import io
import re
from collections.abc import Callable

import pytest
import trimesh
from django.contrib.auth.models import User
from PIL import Image, ImageDraw
from playwright.sync_api import FilePayload, Page, expect

from studio.designs.actions import create_design
from studio.designs.models import Design
from tests.browser.conftest import settle
from tests.browser.test_screens import violations

WIDE, TALL = 220, 300
"""The pear on the picture, in pixels."""


def pear() -> FilePayload:
    image = Image.new("RGB", (420, 420), "#efe9dc")
    draw = ImageDraw.Draw(image)
    draw.ellipse((100, 160, 100 + WIDE, 360), fill="#7a5236")
    draw.ellipse((145, 60, 275, 210), fill="#7a5236")
    out = io.BytesIO()
    image.save(out, "PNG")
    return {"name": "pear.png", "mimeType": "image/png", "buffer": out.getvalue()}


@pytest.fixture
def design(designer: User) -> Design:
    return create_design(designer, "Pear", "us")


@pytest.fixture
def shapes(design: Design, enter: Callable[[str], Page]) -> Page:
    page = enter(f"/designs/{design.pk}/shapes")
    page.get_by_role("radiogroup", name="Shape").wait_for()
    return page


def fitted(page: Page, before: float | None = None) -> float:
    """How far the settled figure is off, in mm, once it has settled, and to something else than `before`."""
    said = page.get_by_test_id("fit").get_by_text("off the shape")
    expect(said).to_be_visible()
    if before is not None:
        expect(said).not_to_contain_text(f"Settles {before:g} mm")
    expect(page.get_by_test_id("fit").get_by_text("Settling …")).to_have_count(0)
    found = re.search(r"Settles ([\d.]+) mm", said.inner_text())
    assert found is not None
    return float(found.group(1))


def settled_sizes(page: Page) -> list[float]:
    """Height and width in mm as the bench tells them, settled."""
    expect(page.get_by_text("deep").first).to_be_visible()
    words = page.locator("dd", has_text="deep").first.inner_text()
    return [10 * float(n) for n in re.findall(r"([\d.]+) cm", words)[:2]]


def test_from_a_picture_to_a_sound_pattern_of_its_size(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Traced").check(force=True)
    shapes.get_by_label("Picture to trace").set_input_files(pear())
    shapes.get_by_role("button", name="Find the outline").click()
    expect(shapes.get_by_role("slider", name="Handle 5")).to_be_visible()
    shapes.get_by_label("Height (mm)").fill("110")
    fitted(shapes)
    shapes.get_by_label("Call it").fill("Pear")
    shapes.get_by_role("button", name="Add", exact=True).click()
    expect(shapes.get_by_role("button", name=re.compile("^Pear"))).to_contain_text("from its shape")
    shapes.get_by_role("link", name="Rounds").click()
    shapes.get_by_text("Every count adds up.").wait_for()
    tall, wide = settled_sizes(shapes)
    assert tall == pytest.approx(110, rel=0.06)
    assert wide == pytest.approx(110 * WIDE / TALL, rel=0.06)


def test_an_outline_is_drawn_with_the_keyboard_alone_and_taken_back(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Ball").focus()
    for _ in range(20):
        if shapes.get_by_role("radio", name="Traced").is_checked():
            break
        shapes.keyboard.press("ArrowRight")
    handle = shapes.get_by_role("slider", name="Handle 2")
    expect(handle).to_have_attribute("aria-valuetext", "34 mm from the middle, 32 mm up")
    handle.focus()
    shapes.keyboard.press("ArrowRight")
    shapes.keyboard.press("Shift+ArrowUp")
    expect(handle).to_have_attribute("aria-valuetext", "35 mm from the middle, 42 mm up")
    shapes.keyboard.press("+")
    expect(shapes.get_by_role("slider")).to_have_count(7)
    shapes.keyboard.press("Delete")
    expect(shapes.get_by_role("slider")).to_have_count(6)
    for _ in range(4):
        shapes.keyboard.press("Control+z")
    expect(handle).to_have_attribute("aria-valuetext", "34 mm from the middle, 32 mm up")


def test_a_handle_is_dragged_and_the_rounds_follow(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Traced").check(force=True)
    widest = shapes.get_by_role("option", name=re.compile(r": 36 stitches")).first
    expect(widest).to_be_attached()
    box = shapes.get_by_role("slider", name="Handle 2").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    shapes.mouse.move(x, y)
    shapes.mouse.down()
    shapes.mouse.move(x + 30, y, steps=6)
    shapes.mouse.up()
    expect(shapes.get_by_role("option", name=re.compile(r": (42|48) stitches")).first).to_be_attached()


def test_axe_finds_nothing_in_any_way_to_give_a_shape(shapes: Page) -> None:
    for base in ("Traced", "Stack", "Box", "Mesh", "Capsule"):
        shapes.get_by_role("radio", name=base).check(force=True)
        if base == "Capsule":
            shapes.get_by_label("Change the shape").select_option("bend")
            expect(shapes.get_by_role("img", name="Shape aimed at")).to_be_visible()
        # A button that wakes while it is looked at has the text of one and the paleness of the other.
        settle(shapes)
        assert violations(shapes) == [], base
    fitted(shapes)
    shapes.get_by_role("button", name="Compare ways").click()
    row = shapes.get_by_role("button", name=re.compile("^Take: from its foot, on 8")).first
    expect(row).to_be_visible()
    assert violations(shapes) == []
    row.click()
    expect(shapes.get_by_label("Start on (sts)")).to_have_value("8")


def test_nonsense_is_answered_where_it_was_typed(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Traced").check(force=True)
    height = shapes.get_by_label("Height (mm)")
    for typed, said in (("tall", "is no number"), ("-4", "from 10 to 1500"), ("1e9", "from 10 to 1500")):
        height.fill(typed)
        expect(shapes.get_by_role("alert").filter(has_text=said)).to_be_visible()
    height.fill("90")
    expect(shapes.get_by_role("alert")).to_have_count(0)
    for name, label in (("no.svg", "Outline as SVG"), ("no.png", "Picture to trace")):
        shapes.get_by_label(label).set_input_files({"name": name, "mimeType": "image/png", "buffer": b"nothing"})
        expect(shapes.get_by_role("alert").first).to_contain_text("no")
    shapes.get_by_label("Cut at a height of (mm)").fill("89")
    shapes.get_by_role("button", name="Cut into parts").click()
    expect(shapes.get_by_role("alert").filter(has_text="Cut between")).to_be_visible()
    shapes.reload()
    expect(shapes.get_by_role("radio", name="Ball")).to_be_checked()


def test_a_mesh_goes_in_and_its_pattern_settles_to_it(shapes: Page) -> None:
    body = trimesh.creation.icosphere(subdivisions=3)
    body.apply_scale([1.0, 1.0, 1.25])
    shapes.get_by_role("radio", name="Mesh").check(force=True)
    shapes.get_by_label("Height (mm)").fill("100")
    shapes.get_by_label("Model file").set_input_files(
        {"name": "body.stl", "mimeType": "model/stl", "buffer": body.export(file_type="stl")}
    )
    expect(shapes.get_by_text("80 mm wide, 80 mm deep, 100 mm tall")).to_be_visible()
    assert fitted(shapes) < 0.4 * 5.6
    shapes.get_by_label("Model file").set_input_files(
        {"name": "ring.stl", "mimeType": "model/stl", "buffer": trimesh.creation.torus(40, 10).export(file_type="stl")}
    )
    expect(shapes.get_by_role("alert")).to_contain_text("handle or a tunnel")


def test_a_bend_is_redrawn_until_it_settles_nearer_and_taken_back(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Ellipsoid").check(force=True)
    shapes.get_by_label("Width (mm)").fill("45")
    shapes.get_by_label("Height (mm)").fill("130")
    shapes.get_by_label("Change the shape").select_option("bend")
    shapes.get_by_label("Bend, forward by").fill("120")
    before = fitted(shapes)
    shapes.get_by_role("button", name="Compensate").click()
    expect(shapes.get_by_text(re.compile("From .* off to"))).to_be_visible()
    after = fitted(shapes, before)
    assert after < 0.8 * before
    shapes.get_by_role("button", name="Target").click()
    shapes.get_by_role("button", name="Distance").click()
    expect(shapes.get_by_text("red outside the target")).to_be_visible()
    shapes.get_by_role("button", name="Take it back").click()
    assert fitted(shapes, after) == pytest.approx(before, abs=0.1)


def test_a_shape_is_cut_into_two_parts_that_fit(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Egg").check(force=True)
    shapes.get_by_label("Cut at a height of (mm)").fill("50")
    shapes.get_by_role("button", name="Cut into parts").click()
    parts = shapes.get_by_role("navigation", name="Parts")
    expect(parts.get_by_role("button", name=re.compile("^Lower piece"))).to_be_visible()
    counts = []
    for name in ("Lower piece", "Upper piece"):
        parts.get_by_role("button", name=re.compile(f"^{name}")).click()
        expect(shapes.get_by_role("listbox", name=f"Ladder of {name}")).to_be_visible()
        last = shapes.get_by_role("option").last.get_attribute("aria-label") or ""
        counts.append(re.findall(r": (\d+) stitches", last))
    assert counts[0] == counts[1]
    assert counts[0]


def test_a_flat_tail_is_kept_flat_by_threads(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Ellipsoid").check(force=True)
    shapes.get_by_label("Width (mm)").fill("50")
    shapes.get_by_label("Height (mm)").fill("80")
    shapes.get_by_label("Change the shape").select_option("flatten")
    shapes.get_by_label("Flatten, depth").fill("40")
    before = fitted(shapes)
    shapes.get_by_role("button", name="Keep it flat").click()
    expect(shapes.get_by_role("cell", name="soft filling")).to_be_visible()
    assert violations(shapes) == []
    shapes.get_by_role("button", name=re.compile("^Take: .* threads")).first.click()
    assert fitted(shapes, before) < 0.7 * before
    shapes.get_by_label("Call it").fill("Tail")
    shapes.get_by_role("button", name="Add", exact=True).click()
    shapes.get_by_role("link", name="Rounds").click()
    expect(shapes.get_by_text("Sew through and draw in: R")).to_be_visible()
    shapes.get_by_text("Every count adds up.").wait_for()


def test_a_leaf_of_one_layer_is_worked_in_rows(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Ellipsoid").check(force=True)
    shapes.get_by_label("Width (mm)").fill("40")
    shapes.get_by_label("Height (mm)").fill("70")
    shapes.get_by_label("Filling").select_option("flat, one layer in rows")
    expect(shapes.get_by_text("Flat:")).to_be_visible()
    fitted(shapes)
    expect(shapes.get_by_role("button", name="Compensate")).to_have_count(0)
    shapes.get_by_label("Call it").fill("Leaf")
    shapes.get_by_role("button", name="Add", exact=True).click()
    shapes.get_by_role("link", name="Rounds").click()
    expect(shapes.get_by_text("It is a single layer.")).to_be_visible()
    shapes.get_by_text("Every count adds up.").wait_for()


def test_a_box_is_worked_as_flat_panels(shapes: Page) -> None:
    shapes.get_by_role("radio", name="Box").check(force=True)
    shapes.get_by_label("Depth (mm)").fill("45")
    fitted(shapes)
    shapes.get_by_role("button", name="Work it as flat panels").click()
    expect(shapes.get_by_role("img", name=re.compile("Seams: A:"))).to_be_visible()
    inlaid = shapes.get_by_role("radio", name=re.compile("over stiff inlays"))
    expect(inlaid).to_be_visible()
    inlaid.check()
    assert violations(shapes) == []
    shapes.get_by_role("button", name="Add the panels as parts").click()
    expect(shapes.get_by_role("button", name=re.compile("^Base and top"))).to_be_visible()
    shapes.get_by_role("link", name="Rounds").click()
    for name in ("Left and right", "Front and back", "Base and top"):
        shapes.get_by_role("tab", name=re.compile(f"^{name}")).or_(
            shapes.get_by_role("button", name=re.compile(f"^{name}"))
        ).first.click()
        shapes.get_by_text("Every count adds up.").wait_for()
