"""The bench: rungs pulled and shaped, chart, dry run, texts brought in and files saved."""

from __future__ import annotations

import re
from collections.abc import Callable
from pathlib import Path

from django.contrib.auth.models import User
from playwright.sync_api import Page, expect

from studio.designs.actions import add_part, create_design
from studio.designs.models import Design
from tests.browser.conftest import drawn, saved


def written(page: Page, words: str) -> None:
    expect(page.locator(".cm-content")).to_contain_text(words)


def test_a_rung_is_pulled_wider_with_the_mouse(bench: Page) -> None:
    bench.get_by_role("option", name="R4:").click()
    handle = bench.locator("[data-handle]")
    box = handle.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    bench.mouse.move(x, y)
    bench.mouse.down()
    bench.mouse.move(x + 12, y, steps=4)
    bench.mouse.up()
    expect(bench.get_by_role("option", name="R4: 24")).to_have_count(0)
    written(bench, "Rnd 4: (")
    expect(bench.get_by_text("Every count adds up.")).to_be_visible()
    bench.locator(".cm-content").click()
    bench.keyboard.press("Control+z")
    written(bench, "Rnd 4: (2 sc, inc) x 6 [24]")


def test_rounds_are_shaped_with_the_keyboard_alone(bench: Page) -> None:
    ladder = bench.get_by_role("listbox", name="Ladder of Body")
    ladder.focus()
    for _ in range(3):
        bench.keyboard.press("ArrowUp")
    expect(bench.get_by_role("option", name="R3:")).to_have_attribute("aria-selected", "true")
    bench.keyboard.press("ArrowRight")
    written(bench, "[19]")
    expect(bench.get_by_text("Every count adds up.")).to_be_visible()
    bench.keyboard.press("ArrowLeft")
    written(bench, "R3: (sc, inc) x 6 [18]")
    bench.keyboard.press("Alt+ArrowRight")
    written(bench, "R3: (inc, sc) x 6 [18]")
    saved(bench)


def test_rounds_are_chosen_inserted_and_mirrored_from_the_menu(bench: Page) -> None:
    bench.get_by_role("option", name="R2:").click()
    bench.get_by_role("option", name="R3:").click(modifiers=["Shift"])
    bench.get_by_role("button", name="Shape R2 to R3").click()
    bench.get_by_role("menuitem", name="Mirror at the end").click()
    expect(bench.get_by_role("region", name="A change to look at")).to_contain_text("→")
    expect(bench.get_by_role("option", name="R9:")).to_be_visible()
    expect(bench.locator(".cm-content")).not_to_contain_text("R9:")
    expect(bench.get_by_role("button", name="Keep it")).to_be_focused()
    bench.keyboard.press("Enter")
    written(bench, "R9: (sc, dec) x 6 [12]")
    bench.get_by_role("option", name="R7:").click()
    bench.get_by_role("button", name="Shape R7").click()
    bench.get_by_role("menuitem", name="Insert straight rounds").click()
    bench.get_by_label("How many").fill("2")
    bench.get_by_role("button", name="Insert them").click()
    bench.get_by_role("button", name="Keep it").click()
    written(bench, "R8-R9: sc around [24]")
    written(bench, "R10: (2 sc, dec) x 6 [18]")
    expect(bench.get_by_text("Every count adds up.")).to_be_visible()


def test_a_change_is_looked_at_and_left_by_keys(bench: Page) -> None:
    shape = bench.get_by_role("button", name="Shape rounds")
    shape.focus()
    bench.keyboard.press("Enter")
    bench.get_by_role("menuitem", name="Start on another count").focus()
    bench.keyboard.press("Enter")
    bench.get_by_label("Stitches in the ring").fill("8")
    bench.keyboard.press("Enter")
    looked = bench.get_by_role("region", name="A change to look at")
    expect(looked).to_contain_text("Start on 8")
    expect(bench.get_by_role("option", name="R1: 8")).to_be_visible()
    bench.keyboard.press("Escape")
    expect(looked).to_have_count(0)
    expect(bench.get_by_role("option", name="R1: 6")).to_be_visible()
    written(bench, "R1: 6 sc in ring [6]")


def test_what_cannot_be_done_is_said(bench: Page) -> None:
    bench.get_by_role("option", name="R2:").click()
    bench.get_by_role("listbox", name="Ladder of Body").focus()
    bench.keyboard.press("ArrowRight")
    expect(bench.get_by_role("status").filter(has_text="cannot go evenly")).to_be_visible()
    written(bench, "R2: inc x 6 [12]")


def test_the_chart_zooms_and_mirrors(bench: Page) -> None:
    bench.get_by_role("tab", name="Chart").click()
    chart = bench.get_by_role("img", name="Round chart of Body")
    chart.wait_for()
    before = chart.evaluate("e => e.clientWidth")
    bench.get_by_role("button", name="Larger").click()
    expect(chart).not_to_have_js_property("clientWidth", before)
    assert chart.evaluate("e => e.clientWidth") > before * 1.2
    source = chart.get_attribute("src")
    bench.get_by_label("Left-handed").check()
    expect(chart).not_to_have_attribute("src", source or "")
    with bench.expect_download() as download:
        bench.get_by_role("link", name="Save the chart as SVG").click()
    assert download.value.suggested_filename == "body-chart.svg"
    assert "<title>Body</title>" in Path(download.value.path()).read_text("utf-8")


def test_the_dry_run_goes_stitch_by_stitch(bench: Page) -> None:
    bench.get_by_role("option", name="R3:").click()
    bench.get_by_role("tab", name="Dry run").click()
    run = bench.get_by_role("tabpanel", name="Dry run")
    expect(run.get_by_text("into R2, stitch 1")).to_be_visible()
    run.get_by_role("button", name="Next stitch").click()
    expect(run.get_by_text("inc into R2, stitch 2")).to_be_visible()
    expect(run.get_by_text("Movement 2 of 12; 3 made after it")).to_be_visible()
    bench.keyboard.press("ArrowLeft")
    expect(run.get_by_text("Movement 1 of 12")).to_be_visible()
    bench.keyboard.press("PageDown")
    expect(run.get_by_text("into R3, stitch 1")).to_be_visible()
    expect(bench.get_by_role("option", name="R4:")).to_have_attribute("aria-selected", "true")


def test_pointing_at_a_repeat_tells_its_sum(bench: Page) -> None:
    bench.get_by_text("R3:").hover()
    bench.locator(".cm-line", has_text="R3:").locator(".tok-increase").hover()
    meaning = bench.locator(".spirrel-meaning")
    expect(meaning).to_contain_text("Work 2 sc into the same stitch.")
    expect(meaning).to_contain_text("takes 2 × 6 = 12 stitches, gives 3 × 6 = 18")


def test_a_design_is_saved_as_a_file(bench: Page) -> None:
    bench.get_by_role("button", name="Save as").click()
    with bench.expect_download() as download:
        bench.get_by_role("menuitem", name="Text, as you wrote it").click()
    assert download.value.suggested_filename == "moth.txt"
    text = Path(download.value.path()).read_text("utf-8")
    assert "# Body (make 1)" in text
    assert "Rnd 4: (2 sc, inc) x 6 [24]" in text


def test_splits_limbs_and_headings_are_on_the_ladder(demo: User, enter: Callable[[str], Page]) -> None:
    snail = Design.objects.get(name="Garden Snail")
    page = enter(f"/designs/{snail.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    expect(page.get_by_role("option", name="R9: 12 stitches")).to_have_count(1)
    expect(page.get_by_role("option", name="16 put aside")).to_have_count(1)
    bat = Design.objects.get(name="Bat")
    page.goto(f"/designs/{bat.pk}/rounds")
    page.get_by_role("button", name="Body").click()
    page.get_by_text("Every count adds up.").wait_for()
    expect(page.get_by_role("option", name="14 not reached")).to_have_count(1)


def test_a_long_part_scrolls_and_can_be_walked(designer: User, enter: Callable[[str], Page]) -> None:
    rounds = "\n".join(["R1: 6 sc in ring [6]", *(f"R{n}: sc around [6]" for n in range(2, 151))])
    made = create_design(designer, "Eel", "us")
    made, _ = add_part(designer, made.pk, {"name": "Eel", "make": 1, "colour": None, "text": rounds, "recipe": None})
    page = enter(f"/designs/{made.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    ladder = page.get_by_role("listbox", name="Ladder of Eel")
    ladder.focus()
    page.keyboard.press("End")
    expect(page.get_by_role("option", name="R150:")).to_be_in_viewport()
    page.keyboard.press("Home")
    expect(page.get_by_role("option", name="R1:", exact=False).first).to_be_in_viewport()


SCROLLED = """async (box) => {
  while (box.scrollTop < 250) await new Promise((done) => requestAnimationFrame(done));
  await new Promise((done) => setTimeout(done, 300));
}"""
LONG = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R90: sc around [12]\n"


def test_pointing_at_rounds_leaves_the_figure_where_it_is(bench: Page) -> None:
    drawn(bench)
    bench.get_by_text("Passes up to").wait_for()
    expect(bench.get_by_role("progressbar", name="Settling")).to_have_count(0)
    # The settled figure takes the place of the estimated one, and is drawn for the first time.
    drawn(bench)
    figure = bench.get_by_test_id("figure").bounding_box()
    bench.get_by_role("option", name="R4:").hover()
    expect(bench.get_by_text("around, opening")).to_be_visible()
    assert bench.get_by_test_id("figure").bounding_box() == figure


def test_scrolling_the_ladder_lights_no_round_that_passes_under_the_pointer(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.press("Control+a")
    bench.keyboard.insert_text(LONG)
    ladder = bench.get_by_role("listbox", name="Ladder of Body")
    ladder.get_by_role("option", name="R80:").hover()
    lit = ladder.get_by_role("option", selected=True)
    expect(lit).to_have_accessible_name(re.compile("^R80:"))
    bench.mouse.wheel(0, 300)
    ladder.evaluate(SCROLLED)
    expect(lit).to_have_accessible_name(re.compile("^R80:"))
