"""Figures from pieces and from bases, by mouse and by keyboard: drawn, gone on as another, taken over, compared, credited."""

from __future__ import annotations

import re

import pytest
from django.contrib.auth.models import User
from playwright.sync_api import Locator, Page, expect

from studio.demo.pieces import load_pieces_alone
from studio.designs.actions import add_parts, copy_design
from studio.designs.manifest import GaugePage
from studio.designs.models import Design
from studio.designs.pages import set_page
from studio.designs.reading import design_value
from studio.designs.texts import set_text
from tests.browser.conftest import CONE

WIDER = CONE.replace("R5-R7: sc around [24]", "R5-R9: sc around [24]").replace("R8:", "R10:")


@pytest.fixture
def pieces(designer: User) -> User:
    """The designer with the demo's pieces."""
    load_pieces_alone(designer)
    return designer


def test_a_figure_of_three_designers_pieces_is_drawn_grafted_and_published(
    bench: Page, design: Design, pieces: User
) -> None:
    """Drawn, one slot again, one held; its head gone on as another with adapter rounds; its credits and its booklet."""
    bench.get_by_role("link", name="Pieces").click()
    expect(bench.get_by_text("14 of 14")).to_be_visible()
    bench.get_by_label("Stitches of an open end").fill("18")
    expect(bench.get_by_role("heading", name="Barrel body")).to_be_visible()
    expect(bench.get_by_role("heading", name="Acorn")).to_have_count(0)
    bench.evaluate("Math.random = () => 2.5e-4")  # one known figure is drawn and settled
    bench.get_by_role("button", name="Draw a figure").click()
    expect(bench.get_by_label("Numbers, to share or to draw by")).to_have_value("2-2-2-2-2")
    drawn = bench.get_by_role("list", name="What was drawn")
    expect(drawn.get_by_role("listitem")).to_have_count(5)
    bench.get_by_label("also what does not fit").check()
    bench.get_by_role("button", name="Hold Body").click()
    body = drawn.get_by_role("listitem").first.inner_text()
    bench.get_by_role("button", name="Draw Head again").click()
    expect(bench.get_by_label("Numbers, to share or to draw by")).to_have_value(r"=" + _held(bench))
    assert drawn.get_by_role("listitem").first.inner_text().split("\n")[:2] == body.split("\n")[:2]
    bench.get_by_role("button", name="Make it a design").click()
    expect(bench.get_by_role("heading", name="Put together")).to_be_visible()
    made = Design.objects.exclude(pk=design.pk).get()
    assert design_value(made).sources
    bench.get_by_role("link", name="Bases").click()
    bench.get_by_role("button", name="Go on as").click()
    bench.get_by_label("Goes on as").select_option(label="Design Moth")
    ladder = bench.get_by_role("listbox", name="The last round that stays")
    ladder.get_by_role("option", name="R6 36 stitches").or_(
        ladder.get_by_role("option", name="R5 30 stitches")
    ).first.click()
    bench.get_by_role("listbox", name="The first round that is taken").get_by_role("option").first.click()
    bench.get_by_role("button", name="Go on so: Rounds between").click()
    expect(bench.get_by_role("button", name="Undo: Body goes on as Body", exact=False)).to_be_visible()
    made.refresh_from_db()
    assert "adapter" not in made.revision.label
    bench.get_by_role("button", name="Credits").click()
    expect(bench.get_by_text("In the way of publishing it with all its rounds")).to_be_visible()
    bench.get_by_role("link", name="Booklet").click()
    expect(bench.get_by_role("heading", name="For your own use, not to be passed on")).to_be_visible()
    bench.get_by_role("button", name=re.compile("^Release 1.0")).click()
    dialog = bench.get_by_role("dialog")
    expect(dialog.get_by_role("region", name="Terms of others forbid it")).to_contain_text("may not be published again")
    expect(dialog.get_by_role("button", name="Make release 1")).to_be_disabled()


def _held(page: Page) -> str:
    return page.get_by_label("Numbers, to share or to draw by").input_value().removeprefix("=")


def test_a_piece_is_put_in_with_the_keyboard_alone(bench: Page, design: Design, pieces: User) -> None:
    bench.get_by_role("link", name="Bases").focus()
    bench.keyboard.press("Enter")
    bench.get_by_label("Words").fill("owl")
    use = bench.get_by_role("button", name="Use Owl head with tufts")
    use.focus()
    bench.keyboard.press("Enter")
    dialog = bench.get_by_role("dialog", name="Use Owl head with tufts")
    dialog.get_by_label("Joined to").focus()
    bench.keyboard.type("Body")
    expect(dialog.get_by_label("At round of Body")).to_be_visible()
    dialog.get_by_role("button", name="Put it in").focus()
    bench.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    bench.get_by_role("button", name="Credits").focus()
    bench.keyboard.press("Enter")
    credit = bench.get_by_role("listitem").filter(has_text="Came of it: Head, Tuft.")
    expect(credit).to_contain_text("Owl head with tufts, version 2.0, by Odo Thistlewick")
    bench.get_by_role("button", name="Pieces", exact=True).focus()
    bench.keyboard.press("Enter")
    bench.get_by_role("button", name="Undo: Put in Owl head with tufts").click()
    expect(bench.get_by_role("button", name="Redo: Put in Owl head with tufts")).to_be_visible()
    design.refresh_from_db()
    assert [p.name for p in design.manifest.parts] == ["Body"]


def test_a_piece_is_dragged_onto_the_figure_recoloured_and_stands_on_its_first_round(
    bench: Page, design: Design, pieces: User
) -> None:
    yarns = [
        {"name": name, "colour": colour, "weight": 3} for name, colour in (("Moss", "#6f8f4e"), ("Ember", "#c97b4a"))
    ]
    page = GaugePage.model_validate({"yarns": yarns, "hook_mm": 3.0, "source": "estimate"})
    set_page(pieces, design.pk, "gauge", design.revision.number, page)
    bench.reload()
    bench.get_by_role("link", name="Bases").click()
    bench.get_by_label("Words").fill("acorn")
    figure = bench.get_by_role("region", name="The figure").get_by_test_id("figure")
    expect(figure).to_have_attribute("data-drawn", "true")
    expect(bench.get_by_text("Point at a stitch to have it named.")).to_be_visible()
    card = bench.get_by_role("listitem").filter(has_text="Acorn").first
    dialog = bench.get_by_role("dialog", name=re.compile("Use .*[Aa]corn"))
    card.drag_to(figure.locator("canvas"))
    expect(dialog.get_by_label("Joined to")).to_have_value(design.manifest.parts[0].key)
    dialog.get_by_label("Its main yarn").select_option("Ember")
    dialog.get_by_label("Upside down, on its first round").check()
    dialog.get_by_role("button", name="Put it in").click()
    expect(dialog).to_have_count(0)
    design.refresh_from_db()
    assert [s.seat for s in design.manifest.assembly.steps if s.on] == ["start"]
    assert design.manifest.parts[-1].colour == "Ember"


def test_the_cut_is_moved_with_the_arrow_keys_and_dragged(bench: Page, pieces: User) -> None:
    bench.get_by_role("link", name="Bases").click()
    bench.get_by_role("button", name="Go on as").click()
    bench.get_by_label("Goes on as").select_option(label="Barrel body, by Wren Hollowell")
    ladder = bench.get_by_role("listbox", name="The last round that stays")
    expect(ladder.get_by_role("option")).to_have_count(8)
    ladder.focus()
    bench.keyboard.press("Home")
    expect(ladder.get_by_role("option", selected=True)).to_have_accessible_name(re.compile("R1 6 stitches fits"))
    for _ in range(2):
        bench.keyboard.press("ArrowUp")
    expect(ladder.get_by_role("option", selected=True)).to_have_accessible_name(re.compile("R3 18 stitches"))
    ways = bench.get_by_role("list", name="Ways to go on")
    expect(ways.get_by_role("heading")).to_have_count(1)
    expect(bench.get_by_text("18 stitches after R3; the piece goes on from 18")).to_be_visible()
    ladder.get_by_role("option", name="R3 18").hover()
    bench.mouse.down()
    ladder.get_by_role("option", name="R4 24").hover()
    bench.mouse.up()
    expect(ladder.get_by_role("option", selected=True)).to_have_accessible_name(re.compile("R4 24 stitches"))


def test_a_base_that_moved_on_is_taken_over_with_one_conflict(bench: Page, design: Design, designer: User) -> None:
    key = design.manifest.parts[0].key
    copy = copy_design(designer, design.pk, "Button's cousin")
    hers = CONE.replace("R8: (2 sc, dec) x 6 [18]", "R8: (2 sc, inv dec) x 6 [18]")
    set_text(designer, copy.pk, key, hers, None, None)
    new = WIDER.replace("(2 sc, dec) x 6 [18]", "(sc, dec, sc) x 6 [18]")
    set_text(designer, design.pk, key, new, None, None)
    bench.goto(bench.url.replace(f"/{design.pk}/", f"/{copy.pk}/").replace("rounds", "bases"))
    expect(bench.get_by_text("changes are new, 1 of them where you changed something, too")).to_be_visible()
    bench.get_by_label("Take the base's").focus()
    bench.keyboard.press("Space")
    bench.get_by_role("button", name="Choose what is in nobody's way").click()
    bench.get_by_role("button", name="Take 1 of 2").click()
    expect(bench.get_by_role("button", name="Undo: Took 1 change of Moth")).to_be_visible()
    copy.refresh_from_db()
    text = design_value(copy).parts[0].text
    assert "R5-R9: sc around [24]" in text
    assert "(2 sc, inv dec) x 6 [18]" in text
    bench.get_by_role("button", name="Compare").click()
    expect(bench.get_by_text("Its base: Moth")).to_have_count(1)
    expect(bench.get_by_role("img", name="Body: both ladders over each other")).to_be_visible()
    shapes = bench.get_by_role("region", name="Settled shapes")
    expect(shapes.get_by_role("img", name="Body here, in colours of its distance")).to_be_visible()


def test_published_as_a_difference(bench: Page, design: Design, designer: User) -> None:
    key = design.manifest.parts[0].key
    copy = copy_design(designer, design.pk, "Tall Button")
    set_text(designer, copy.pk, key, WIDER, None, None)
    bench.goto(bench.url.replace(f"/{design.pk}/", f"/{copy.pk}/").replace("rounds", "booklet"))
    bench.get_by_label("Edition").select_option("difference")
    booklet = bench.get_by_role("article", name="The booklet")
    expect(booklet).to_contain_text("You need Moth, version 1.0, by Fern & Moss.")
    expect(booklet).to_contain_text("sc around (5 rounds)")
    expect(booklet).to_contain_text("R1 to R4: work as there")
    with bench.expect_download() as download:
        bench.get_by_role("link", name="Text", exact=True).click()
    assert "R1: 6 sc in ring" not in download.value.path().read_text()


def test_parts_are_kept_as_a_piece_with_terms(bench: Page, design: Design) -> None:
    bench.get_by_role("link", name="Bases").click()
    expect(bench.get_by_text("There are no pieces yet.")).to_be_visible()
    bench.get_by_role("button", name="Keep parts as a piece").click()
    dialog = bench.get_by_role("dialog", name="Keep parts as a piece")
    dialog.get_by_label("Title").fill("Cone head")
    dialog.get_by_label("Where it belongs").select_option("head")
    dialog.get_by_label("Its rounds may be published again").check()
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog).to_have_count(0)
    expect(bench.get_by_role("heading", name="Cone head")).to_be_visible()
    bench.get_by_role("link", name="Pieces").click()
    with bench.expect_download() as download:
        bench.get_by_role("link", name="Save the file of Cone head").click()
    assert '"title": "Cone head"' in download.value.path().read_text()
    bench.get_by_role("button", name="Remove Cone head").click()
    bench.get_by_role("button", name="Remove it").click()
    expect(bench.get_by_role("heading", name="No pieces yet")).to_be_visible()
    bench.get_by_label("File of a piece").set_input_files(download.value.path())
    expect(bench.get_by_role("heading", name="Cone head")).to_be_visible()


def test_several_figures_are_added_up(bench: Page, design: Design, designer: User) -> None:
    copy_design(designer, design.pk, "Moth's cousin")
    bench.get_by_role("link", name="Shelf").click()
    bench.get_by_role("button", name="Make several").click()
    bench.get_by_label("Moth", exact=True).fill("3")
    bench.get_by_label("Moth's cousin", exact=True).fill("2")
    expect(bench.get_by_role("heading", name="5 figures together")).to_be_visible()
    expect(bench.get_by_role("region", name="What they take together")).to_contain_text("Main")


def test_a_hat_comes_off_in_the_picture_and_is_published_alone(bench: Page, design: Design, designer: User) -> None:
    cap = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: sc around [18]\n"
    add_parts(designer, design.pk, [{"name": "Hat", "make": 1, "colour": None, "text": cap, "recipe": None}])
    bench.goto(bench.url.replace("rounds", "bases") + "?view=worn")
    expect(bench.get_by_role("heading", name="Nothing comes off")).to_be_visible()
    bench.get_by_role("link", name="To the assembly").click()
    bench.get_by_role("button", name="Add a step").click()
    bench.get_by_label("Part", exact=True).select_option(label="Hat")
    bench.get_by_label("on", exact=True).select_option(label="Body")
    bench.get_by_label("Held by").select_option(label="slipped on, comes off")
    worn = bench.get_by_role("checkbox", name="wears Hat")
    expect(worn).to_be_checked()
    figure = bench.get_by_test_id("figure")
    expect(figure).to_have_attribute("data-drawn", "true")
    expect(bench.get_by_text("Settling the parts")).to_have_count(0)
    before = figure.screenshot()
    worn.focus()
    bench.keyboard.press("Space")
    expect(worn).not_to_be_checked()
    bench.wait_for_timeout(300)
    assert figure.screenshot() != before
    bench.get_by_role("link", name="Bases").click()
    bench.get_by_role("button", name="Comes off").click()
    bench.get_by_role("button", name="Make Hat a design of its own").click()
    expect(bench.get_by_role("article", name="The booklet")).to_contain_text("Made for Body of Moth")


# --- the same by keys alone -----------------------------------------------------------------------

MOST_TABS = 160


def _reach(page: Page, wanted: Locator) -> None:
    """Tab on until the control has the focus: what Tab does not come to cannot be used without a mouse."""
    expect(wanted).to_be_visible()
    for _ in range(MOST_TABS):
        if wanted.evaluate("e => e === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{MOST_TABS} presses of Tab do not come to {wanted}")


def _press(page: Page, wanted: Locator, key: str = "Enter") -> None:
    _reach(page, wanted)
    page.keyboard.press(key)


def test_a_figure_is_drawn_grafted_and_credited_with_the_keyboard_alone(
    bench: Page, design: Design, pieces: User
) -> None:
    _press(bench, bench.get_by_role("link", name="Pieces"))
    expect(bench.get_by_text("14 of 14")).to_be_visible()
    bench.evaluate("Math.random = () => 2.5e-4")
    _press(bench, bench.get_by_role("button", name="Draw a figure"))
    drawn = bench.get_by_role("list", name="What was drawn")
    expect(drawn.get_by_role("listitem")).to_have_count(5)
    _press(bench, bench.get_by_label("also what does not fit"), "Space")
    _press(bench, bench.get_by_role("button", name="Hold Body"))
    body = drawn.get_by_role("listitem").first.inner_text().split("\n")[:2]
    _press(bench, bench.get_by_role("button", name="Draw Head again"))
    assert drawn.get_by_role("listitem").first.inner_text().split("\n")[:2] == body
    _press(bench, bench.get_by_role("button", name="Make it a design"))
    expect(bench.get_by_role("heading", name="Put together")).to_be_visible()
    _press(bench, bench.get_by_role("link", name="Bases"))
    _press(bench, bench.get_by_role("button", name="Go on as"))
    _reach(bench, bench.get_by_label("Goes on as"))
    bench.keyboard.type("Design Moth")
    stays = bench.get_by_role("listbox", name="The last round that stays")
    _press(bench, stays, "Home")
    for _ in range(4):
        bench.keyboard.press("ArrowUp")
    expect(stays.get_by_role("option", selected=True)).to_have_accessible_name(re.compile("R5 "))
    _press(bench, bench.get_by_role("listbox", name="The first round that is taken"), "Home")
    _press(bench, bench.get_by_role("button", name="Go on so: Rounds between"))
    expect(bench.get_by_role("button", name="Undo: Body goes on as", exact=False)).to_be_visible()
    _press(bench, bench.get_by_role("button", name="Credits"))
    expect(bench.get_by_role("listitem").filter(has_text="Came of it")).not_to_have_count(0)
    _press(bench, bench.get_by_role("link", name="Booklet"))
    expect(bench.get_by_role("article", name="The booklet")).to_be_visible()


def test_a_conflict_with_the_base_is_settled_with_the_keyboard_alone(
    bench: Page, design: Design, designer: User
) -> None:
    key = design.manifest.parts[0].key
    copy = copy_design(designer, design.pk, "Button's cousin")
    set_text(designer, copy.pk, key, CONE.replace("(2 sc, dec) x 6 [18]", "(2 sc, inv dec) x 6 [18]"), None, None)
    new = WIDER.replace("(2 sc, dec) x 6 [18]", "(sc, dec, sc) x 6 [18]")
    set_text(designer, design.pk, key, new, None, None)
    bench.goto(bench.url.replace(f"/{design.pk}/", f"/{copy.pk}/").replace("rounds", "bases"))
    _press(bench, bench.get_by_label("Keep yours"), "ArrowRight")
    expect(bench.get_by_label("Take the base's")).to_be_checked()
    _press(bench, bench.get_by_role("button", name="Take 2 of 2"))
    expect(bench.get_by_role("button", name="Undo: Took 2 changes of Moth")).to_be_visible()
    copy.refresh_from_db()
    text = design_value(copy).parts[0].text
    assert "R5-R9: sc around [24]" in text
    assert "(sc, dec, sc) x 6 [18]" in text
    _press(bench, bench.get_by_role("button", name="Undo: Took 2 changes of Moth"))
    expect(bench.get_by_role("button", name="Redo: Took 2 changes of Moth")).to_be_visible()
