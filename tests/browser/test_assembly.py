"""Putting together: eyes by mouse and by keyboard, ears in a pair, an arm worked in, the order of work."""

from __future__ import annotations

import io
import math
import time
from collections.abc import Callable

import numpy as np
import pytest
from django.contrib.auth.models import User
from PIL import Image
from playwright.sync_api import Page, expect

from studio.bench.scenes import staged
from studio.designs.actions import add_part, create_design
from studio.designs.models import Design
from tests.browser.conftest import PATIENCE, drawn, saved

BODY = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: (3 sc, inc) x 6 [30]\n"
    "R6-R11: sc around [30]\nInsert the eyes.\nR12: (3 sc, dec) x 6 [24]\nR13: (2 sc, dec) x 6 [18]\nStuff.\n"
    "R14: (sc, dec) x 6 [12]\nR15: dec x 6 [6]\nClose.\n"
)
ARM = "R1: 6 sc in ring [6]\nR2: (2 sc, inc) x 2 [8]\nR3-R8: sc around [8]\nStuff lightly.\nLeave a long tail for sewing.\n"
EAR = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R4: sc around [12]\nDo not stuff.\nLeave a long tail for sewing.\n"


@pytest.fixture
def design(designer: User) -> Design:
    made = create_design(designer, "Dormouse", "us")
    for name, make, text in (("Body", 1, BODY), ("Arms", 2, ARM), ("Ears", 2, EAR)):
        made, _ = add_part(
            designer, made.pk, {"name": name, "make": make, "colour": None, "text": text, "recipe": None}
        )
    return made


@pytest.fixture
def desk(design: Design, enter: Callable[[str], Page]) -> Page:
    page = enter(f"/designs/{design.pk}/assembly")
    # Nothing is sewn on yet: what lies loose is no figure, and is given no size.
    page.get_by_text("lie loose beside the others").wait_for()
    expect(page.get_by_text("Settling the parts")).to_have_count(0)
    expect(page.get_by_text(" wide,")).to_have_count(0)
    drawn(page)
    return page


def add_step(page: Page, text: str, part: str | None = None, on: str | None = None) -> None:
    page.get_by_role("button", name="Add a step").click()
    row = page.get_by_role("listitem").last
    row.get_by_label("What to do").fill(text)
    if part:
        row.get_by_label("Part", exact=True).select_option(part)
    if on:
        row.get_by_label("on", exact=True).select_option(on)
    saved(page)


def a_stitch(page: Page) -> tuple[float, float]:
    """Where on the screen a stitch lies: parts that are loose stand in a row, with table between them."""
    box = page.get_by_test_id("figure").bounding_box()
    assert box is not None
    pointed = page.get_by_test_id("pointed")
    for across in range(20, 81, 4):
        x, y = box["x"] + box["width"] * across / 100, box["y"] + box["height"] * 0.5
        page.mouse.move(x, y)
        page.wait_for_timeout(120)
        if "stitch" in pointed.inner_text():
            return x, y
    raise AssertionError("The pointer found no stitch.")


def test_an_eye_is_placed_with_the_mouse(desk: Page) -> None:
    desk.get_by_label("Kind").select_option("safety eyes")
    desk.get_by_role("button", name="Point at the place").click()
    expect(desk.get_by_test_id("pointed")).to_contain_text("click the place")
    x, y = a_stitch(desk)
    expect(desk.get_by_test_id("pointed")).to_contain_text("stitch")
    desk.mouse.click(x, y)
    expect(desk.get_by_test_id("eyes-said")).to_contain_text("visible between")
    saved(desk)
    desk.reload()
    expect(desk.get_by_test_id("eyes-said")).to_contain_text("visible between")


def test_an_eye_is_placed_with_the_keyboard_alone(desk: Page) -> None:
    kind = desk.get_by_label("Kind")
    kind.focus()
    desk.keyboard.press("s")
    expect(kind).to_have_value("safety")
    desk.get_by_role("button", name="Propose a place").focus()
    desk.keyboard.press("Enter")
    said = desk.get_by_test_id("eyes-said")
    expect(said).to_contain_text("visible between")
    before = said.inner_text()
    desk.get_by_role("button", name="Point at the place").focus()
    desk.keyboard.press("Enter")
    desk.get_by_test_id("figure").focus()
    for key in (".", "[", ".", "."):
        desk.keyboard.press(key)
    expect(desk.get_by_test_id("pointed")).to_contain_text("stitch")
    desk.keyboard.press("Enter")
    expect(said).not_to_have_text(before)
    saved(desk)


def test_eyes_are_told_in_the_rounds_and_moved_by_them(desk: Page) -> None:
    desk.get_by_role("button", name="Propose a place").click()
    said = desk.get_by_test_id("eyes-said")
    expect(said).to_contain_text("visible between")
    saved(desk)
    desk.get_by_role("button", name="Write it into the rounds").click()
    expect(desk.get_by_role("button", name="Write it into the rounds")).to_have_count(0)
    desk.get_by_role("link", name="Rounds").click()
    line = desk.locator(".cm-line", has_text="Insert the")
    expect(line).to_contain_text("7 mm eyes between R9 and R10, with 6 stitches visible between.")
    line.click()
    desk.keyboard.press("Home")
    desk.keyboard.press("Shift+End")
    desk.keyboard.insert_text("Insert the eyes between R7 and R8, with 4 stitches visible between.")
    desk.get_by_role("link", name="Assembly").click()
    expect(said).to_contain_text("Between R7 and R8")
    expect(said).to_contain_text("with 4 stitches visible between")


def test_a_pair_of_ears_is_attached(desk: Page) -> None:
    add_step(desk, "Sew on the ears.", "Ears", "Body")
    row = desk.get_by_role("listitem").last
    row.get_by_role("button", name="Propose a place").click()
    expect(row.get_by_label("and its mirror image")).to_be_checked()
    row.get_by_label("from the front (sts)").fill("6")
    saved(desk)
    expect(row).to_contain_text("of seam, so a tail of")
    expect(row).to_contain_text("each")
    expect(desk.get_by_text("Settling the parts")).to_have_count(0)
    expect(desk.get_by_text("lie loose beside the others")).to_be_visible()  # the arms still do


def test_a_sewn_arm_becomes_one_that_is_worked_in_and_comes_back(desk: Page) -> None:
    add_step(desk, "Sew on the arms.", "Arms", "Body")
    row = desk.get_by_role("listitem").last
    row.get_by_label("at round").fill("9")
    row.get_by_label("from the front (sts)").fill("7.5")
    row.get_by_label("and its mirror image").check()
    saved(desk)
    row.get_by_role("button", name="Work it in instead of sewing").click()
    expect(row).to_contain_text("Worked in: the rounds of both parts say how.")
    desk.get_by_role("link", name="Rounds").click()
    desk.get_by_role("button", name="Body", exact=True).click()
    expect(desk.locator(".cm-content")).to_contain_text("4 sc through the first arm")
    desk.get_by_text("Every count adds up.").wait_for()
    desk.get_by_role("button", name="Arms × 2").click()
    expect(desk.locator(".cm-content")).to_contain_text("4 sc through both layers [4]")
    desk.get_by_role("button", name="Undo: ").click()
    expect(desk.locator(".cm-content")).to_contain_text("Leave a long tail for sewing.")


def test_the_order_is_broken_and_mended(desk: Page) -> None:
    add_step(desk, "Sew on the arms.", "Arms", "Body")
    add_step(desk, "Wire the arms.", "Arms")
    fault = desk.get_by_role("alert").filter(has_text="This must come before step 1")
    expect(fault).to_be_visible()
    expect(fault).to_contain_text("wire goes in before the part is sewn on")
    desk.get_by_role("button", name="Put in working order").click()
    expect(fault).to_have_count(0)
    saved(desk)
    expect(desk.get_by_label("What to do").first).to_have_value("Wire the arms.")
    expect(desk.get_by_role("button", name="Step 1 later")).to_be_disabled()
    desk.get_by_role("button", name="Undo: ").click()
    expect(fault).to_be_visible()


def test_a_settled_part_is_read_on_the_bench(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_role("button", name="Stretch").wait_for()
    drawn(page)
    for tool in ("Cut open", "Stretch", "Ruler", "Hand", "Left-handed"):
        page.get_by_role("button", name=tool, exact=True).click()
        expect(page.get_by_role("button", name=tool, exact=True)).to_have_attribute("aria-pressed", "true")
    page.get_by_label("Lay over it").select_option(index=1)
    expect(page.get_by_label("Lay over it")).to_have_value("4")
    page.get_by_test_id("figure").focus()
    for key in ("]", "]", ".", "t"):
        page.keyboard.press(key)
    expect(page.get_by_test_id("pointed")).to_contain_text("stitch")
    expect(page.get_by_text("deep")).to_be_visible()
    lit = page.locator('[role="option"][aria-selected="true"], .spirrel-lit')
    expect(lit.first).to_be_visible()


def test_a_whole_figure_is_put_together_from_the_tray(desk: Page, design: Design) -> None:
    """One part dragged onto the figure, one placed where it mostly goes; moved by keys; the steps say it by themselves."""
    tray = desk.get_by_role("region", name="Not placed yet")
    expect(tray.get_by_role("listitem")).to_have_count(2)
    steps = desk.get_by_role("list", name="Steps")
    tray.get_by_role("button", name="place Arms there").focus()
    desk.keyboard.press("Enter")
    expect(steps).to_contain_text("Sew Arms on Body, R")
    expect(tray.get_by_role("listitem")).to_have_count(1)
    tray.get_by_role("listitem").filter(has_text="Ears").drag_to(desk.get_by_test_id("figure").locator("canvas"))
    expect(steps.get_by_role("listitem")).to_have_count(2)
    expect(tray).to_have_count(0)
    saved(desk)
    line = steps.get_by_role("button", expanded=True)
    expect(line).to_contain_text("Sew Ears on ")
    before = line.inner_text()
    up = desk.get_by_role("button", name="A round up")
    up.focus()
    desk.keyboard.press("ArrowUp")
    desk.keyboard.press("ArrowUp")
    expect(line).not_to_have_text(before)
    tilt = desk.get_by_label("Tilt up")
    now = float(tilt.input_value())
    up.focus()
    desk.keyboard.press("Shift+ArrowUp")
    expect(tilt).to_have_value(f"{now + 5:g}")
    saved(desk)
    expect(desk.get_by_text("lie loose beside the others")).to_have_count(0)
    expect(desk.get_by_text(" wide,")).to_be_visible()
    row = steps.get_by_role("listitem").last
    row.get_by_label("What to do").fill("Sew the ears on at R40.")
    expect(row).to_contain_text("Your sentence says R40, but it sits at")
    desk.get_by_role("link", name="Booklet").click()
    expect(desk.get_by_role("article", name="The booklet")).to_contain_text("Arms: Sew on.")


def stitch_of(page: Page, name: str) -> tuple[float, float]:
    """Where on the screen a stitch of a part lies."""
    box = page.get_by_test_id("figure").bounding_box()
    assert box is not None
    pointed = page.get_by_test_id("pointed")
    for down in range(20, 81, 6):
        for across in range(15, 86, 4):
            x, y = box["x"] + box["width"] * across / 100, box["y"] + box["height"] * down / 100
            page.mouse.move(x, y)
            page.wait_for_timeout(40)
            if pointed.inner_text().startswith(f"{name} "):
                return x, y
    raise AssertionError(f"The pointer found no stitch of {name}.")


LEAST_SHOWN = 8
"""Pixels of a handle's colour, before it is taken for shown."""


def handle_of(page: Page, rgb: tuple[int, int, int]) -> tuple[float, float]:
    """Where on the screen the handle of that colour lies, once it is shown and lies still."""
    looks: list[tuple[float, float] | None] = [None]
    end = time.monotonic() + PATIENCE / 1000
    while looks[-1] is None or looks[-1] not in looks[:-1]:
        assert time.monotonic() < end, "no handle is shown, or it does not come to rest"
        looks = [looks[-1], _look_for_handle(page, rgb)]
        page.wait_for_timeout(100)
    return looks[-1]


def _look_for_handle(page: Page, rgb: tuple[int, int, int]) -> tuple[float, float] | None:
    """Where it lies in this moment; None when it is not painted."""
    figure = page.get_by_test_id("figure")
    box = figure.bounding_box()
    assert box is not None
    pixels = np.asarray(Image.open(io.BytesIO(figure.screenshot())).convert("RGB")).astype(int)
    pixels = pixels[:-60]  # above the buttons for the side, one of which is blue
    down, across = np.nonzero((np.abs(pixels - rgb) < 30).all(2))
    return (box["x"] + float(across.mean()), box["y"] + float(down.mean())) if len(down) > LEAST_SHOWN else None


def drag(page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
    page.mouse.move(*start)
    page.mouse.down()
    page.mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, steps=3)
    page.mouse.move(*end, steps=3)


def test_a_placed_arm_is_moved_tilted_and_turned_on_the_figure(desk: Page) -> None:
    desk.get_by_role("button", name="Place all where they mostly go").click()
    saved(desk)
    expect(desk.get_by_text("lie loose beside the others")).to_have_count(0)
    drawn(desk)
    arm = stitch_of(desk, "Arms")
    desk.mouse.click(*arm)
    row = desk.get_by_role("listitem").filter(has=desk.get_by_label("What to do"))
    expect(row.get_by_label("Part", exact=True).locator("option:checked")).to_have_text("Arms")
    body = stitch_of(desk, "Body")
    # Escape leaves it where it was.
    before = row.get_by_label("at round").input_value()
    drag(desk, arm, body)
    expect(desk.get_by_test_id("pointed")).to_contain_text("let go where it is to sit")
    desk.keyboard.press("Escape")
    desk.mouse.up()
    expect(row.get_by_label("at round")).to_have_value(before)
    drag(desk, arm, body)
    expect(desk.get_by_test_id("pointed")).to_contain_text("Body R")
    wanted = desk.get_by_test_id("pointed").inner_text().split("Body R")[1].split(",")[0]
    desk.mouse.up()
    expect(row.get_by_label("at round")).to_have_value(wanted)
    saved(desk)
    desk.get_by_role("button", name="Undo: Moved").click()
    expect(row.get_by_label("at round")).to_have_value(before)
    drawn(desk)
    desk.wait_for_timeout(500)
    blue = handle_of(desk, (0x3F, 0x86, 0xB3))
    tilt = int(row.get_by_label("Tilt up").input_value())
    red = (0xB5, 0x45, 0x3F)  # the other handle goes with the arm
    still = handle_of(desk, red)
    drag(desk, blue, (blue[0], blue[1] - 50))
    expect(desk.get_by_test_id("pointed")).to_contain_text("Tilts by +30°")
    desk.wait_for_timeout(500)
    under_hand = handle_of(desk, red)
    desk.mouse.up()
    expect(row.get_by_label("Tilt up")).to_have_value(str(tilt + 30))
    saved(desk)
    drawn(desk)
    desk.wait_for_timeout(1500)
    after = handle_of(desk, red)
    # It was seen under the hand where it came to sit.
    assert math.dist(still, after) > 30
    assert math.dist(under_hand, after) < 0.35 * math.dist(still, after)


def test_a_face_is_made_of_felt_thread_and_cheeks(desk: Page) -> None:
    for words in ("Add felt", "Add cheeks", "Add a point to embroider"):
        desk.get_by_role("button", name=words).click()
    desk.get_by_label("wide (mm)").first.fill("18")
    expect(desk.get_by_label("made of").nth(1)).to_have_value("blush")
    saved(desk)
    desk.reload()
    face = desk.get_by_role("region", name="Face").get_by_role("button").first
    expect(face).to_contain_text("patch, cheeks, nose")
    face.click()
    expect(desk.get_by_label("wide (mm)").first).to_have_value("18")
    desk.get_by_role("link", name="Booklet").click()
    expect(desk.get_by_text("Cut an oval of felt for patch, 18 mm wide and 14 mm high").first).to_be_visible()


def test_a_picture_of_the_figure_is_taken_with_the_keyboard(desk: Page) -> None:
    take = desk.get_by_role("button", name="Take a picture")
    take.focus()
    desk.keyboard.press("Enter")
    dialog = desk.get_by_role("dialog", name="A picture of Dormouse")
    side = dialog.get_by_label("From")
    side.select_option("back")
    picture = dialog.get_by_role("img", name="Dormouse, painted")
    expect(picture).to_be_visible()
    expect(picture).to_have_js_property("naturalWidth", 800)
    with desk.expect_download() as download:
        dialog.get_by_role("link", name="Save as PNG").click()
    assert download.value.path().read_bytes().startswith(b"\x89PNG")
    desk.keyboard.press("Escape")
    expect(take).to_be_focused()


def test_a_wired_arm_is_bent_by_keys_and_says_so(desk: Page, design: Design) -> None:
    """Without wire a bend is kept, said and not shown; a step that puts wire in shows it."""
    tray = desk.get_by_role("region", name="Not placed yet")
    tray.get_by_role("button", name="place Arms there").focus()
    desk.keyboard.press("Enter")
    steps = desk.get_by_role("list", name="Steps")
    row = steps.get_by_role("listitem").first
    expect(row).to_contain_text("Sew Arms on Body, R")
    row.get_by_role("button", name="Bend the wire in it").focus()
    desk.keyboard.press("Enter")
    expect(row).to_contain_text("bent forwards by 45° at its R4")
    row.get_by_label("Bent by").focus()
    desk.keyboard.press("ControlOrMeta+a")
    desk.keyboard.type("80")
    row.get_by_label("Bent", exact=True).select_option("upwards")
    expect(row).to_contain_text("bent upwards by 80° at its R4")
    expect(row).to_contain_text("Only wire keeps a bend")
    saved(desk)
    straight = assembled(design)
    add_step(desk, "Push a wire into the arms.", "Arms")
    row.get_by_role("button", expanded=False).first.click()
    expect(row).not_to_contain_text("Only wire keeps a bend")
    bent_up = assembled(design)
    assert bent_up > straight + 3
    row.get_by_role("button", name="Straighten at round 4").click()
    expect(row).not_to_contain_text("bent upwards")


def assembled(design: Design) -> float:
    """How high the arms reach, in mm."""
    found = staged(design.owner, Design.objects.get(pk=design.pk), ask=False).assembled
    key = found.design.parts[1].key
    arms, own = [p for p in found.placed if p.part == key], found.surfaces[key]
    return max(float(p.in_scene(own.x if p.x is None else p.x)[:, 2].max()) for p in arms)
