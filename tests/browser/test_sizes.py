"""Sizes: asked for in several ways, what became of everything, the rounds side by side, and a design of one."""

from __future__ import annotations

from collections.abc import Callable

from django.contrib.auth.models import User
from playwright.sync_api import Page, expect

from craft.text.several_sizes import of_size
from studio.designs.actions import add_part, create_design
from studio.designs.models import Design
from studio.designs.texts import set_text
from tests.browser.conftest import CONE, saved


def test_three_heights_at_once_from_typed_rounds(bench: Page, design: Design) -> None:
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("heights")
    bench.get_by_label("Heights in cm").fill("4, ninety")
    expect(bench.get_by_text("Type heights from 1 to 300 cm")).to_be_visible()
    expect(bench.get_by_role("button", name="Add the size")).to_be_disabled()
    bench.get_by_label("Heights in cm").fill("4, 6 and 9 cm")
    bench.get_by_role("button", name="Add 3 sizes").click()
    for name in ("4 cm", "6 cm", "9 cm"):
        expect(bench.get_by_role("columnheader", name=name)).to_be_visible()
    expect(bench.get_by_text("Nothing was lost or changed.").first).to_be_visible()
    saved(bench)
    bench.get_by_role("button", name="One pattern for all").click()
    pattern = bench.get_by_role("region", name="The pattern")
    expect(pattern).to_contain_text("Sizes: first (4 cm, 6 cm, 9 cm)")
    expect(pattern).to_contain_text("R1: 6 sc in ring [6]")
    with bench.expect_download() as download:
        bench.get_by_role("button", name="Save as text").click()
    text = download.value.path().read_text()
    assert of_size(text, "first").count("R4: (2 sc, inc) x 6 [24]") == 1
    bench.keyboard.press("Escape")
    bench.get_by_role("button", name="Show the rounds").nth(2).click()
    dialog = bench.get_by_role("dialog", name="Rounds of 9 cm")
    expect(dialog.get_by_role("region", name="As it is")).to_contain_text("R3: (sc, inc) x 6 [18]")
    expect(dialog.get_by_role("region", name="9 cm")).to_contain_text("R1: 6 sc in ring [6]")
    bench.keyboard.press("Escape")
    bench.get_by_role("button", name="Make it a design").nth(2).click()
    expect(bench.get_by_text("Every count adds up.")).to_be_visible()
    made = Design.objects.exclude(pk=design.pk).get()
    assert made.name.endswith("9 cm")


def test_yarn_at_hand_needs_to_know_its_skein(bench: Page) -> None:
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("grams")
    bench.get_by_label("Yarn at hand (g)").fill("42")
    bench.get_by_role("button", name="Add the size").click()
    expect(bench.get_by_text("must say the metres and grams of a skein")).to_be_visible()
    bench.get_by_role("button", name="Remove the size from 42 g").click()
    expect(bench.get_by_role("columnheader", name="from 42 g")).to_have_count(0)


def asked_to_fit(bench: Page, design: Design, designer: User) -> None:
    """The design gets a hat, which is asked for in a size that fits something."""
    hat = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3-R5: sc around [12]\n"
    add_part(designer, design.pk, {"name": "Hat", "make": 1, "colour": None, "text": hat, "recipe": None})
    bench.reload()
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("fit")
    bench.get_by_label("Part", exact=True).select_option("Hat")


def test_a_hat_follows_its_head(bench: Page, design: Design, designer: User) -> None:
    asked_to_fit(bench, design, designer)
    bench.get_by_label("Fits", exact=True).select_option("Body")
    bench.get_by_role("button", name="Add the size").click()
    hats = bench.get_by_role("row").filter(has=bench.get_by_role("rowheader", name="Hat", exact=True))
    column = hats.get_by_role("cell").nth(1)
    expect(column).to_contain_text("widest 24")
    saved(bench)
    body = Design.objects.get(pk=design.pk).manifest.parts[0].key
    wider = CONE.replace("R5-R7: sc around [24]", "R5: (3 sc, inc) x 6 [30]\nR6-R7: sc around [30]")
    text = wider.replace("R8: (2 sc, dec) x 6 [18]", "R8: (3 sc, dec) x 6 [24]")
    set_text(designer, design.pk, body, text, None, None)
    bench.reload()
    expect(column).to_contain_text("widest 30")


def test_a_hat_follows_the_head_of_another_design(bench: Page, design: Design, designer: User) -> None:
    other = create_design(designer, "Wren", "us")
    add_part(designer, other.pk, {"name": "Head", "make": 1, "colour": None, "text": CONE, "recipe": None})
    asked_to_fit(bench, design, designer)
    bench.get_by_label("Something of").select_option("Wren")
    expect(bench.get_by_role("button", name="Add the size")).to_be_disabled()
    bench.get_by_label("Fits", exact=True).select_option("Head")
    bench.get_by_label("Bobbles and colours that repeat").check()
    bench.get_by_role("button", name="Add the size").click()
    expect(bench.get_by_role("columnheader", name="Hat to fit Head of Wren")).to_be_visible()
    hats = bench.get_by_role("row").filter(has=bench.get_by_role("rowheader", name="Hat", exact=True))
    expect(hats.get_by_role("cell").nth(1)).to_contain_text("widest 24")
    bench.get_by_role("button", name="Show the rounds").click()
    ladders = bench.get_by_role("img", name="Hat: 5 rounds up to 12 stitches at first")
    expect(ladders).to_be_visible()


def test_a_booklet_for_all_sizes(bench: Page, design: Design) -> None:
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("heights")
    bench.get_by_label("Heights in cm").fill("6, 9")
    bench.get_by_role("button", name="Add 2 sizes").click()
    saved(bench)
    bench.get_by_role("link", name="Booklet").click()
    booklet = bench.get_by_role("article", name="The booklet")
    bench.get_by_label("Edition").select_option("all sizes in one")
    expect(booklet).to_contain_text("Written for 3 sizes: first (6 cm, 9 cm).")
    with bench.expect_download() as download:
        bench.get_by_role("link", name="Text").click()
    lines = download.value.path().read_text().splitlines()
    assert any(line.startswith("R") and "(" in line.split(":")[0] for line in lines)
    bench.get_by_label("Edition").select_option("9 cm")
    expect(booklet.get_by_role("img", name="9 cm, from the front")).to_be_visible()
    expect(booklet).not_to_contain_text("Written for")


def test_a_cosy_for_an_egg_and_several_yarn_weights(bench: Page) -> None:
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("fit")
    bench.get_by_label("Fits", exact=True).select_option("a hen's egg, medium")
    expect(bench.get_by_text("Your own tape is better")).to_be_visible()
    bench.get_by_role("button", name="Add the size").click()
    expect(bench.get_by_role("columnheader", name="to fit a hen's egg, medium")).to_be_visible()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Asked for by").select_option("classes")
    bench.get_by_label("Super fine (1)").uncheck()
    bench.get_by_role("button", name="Add 4 sizes").click()
    expect(bench.get_by_role("columnheader", name="Medium (4)")).to_be_visible()
    saved(bench)


def test_sizes_are_settled_side_by_side(bench: Page) -> None:
    bench.get_by_role("link", name="Sizes").click()
    bench.get_by_role("button", name="Another size").click()
    bench.get_by_label("Height of the whole figure").fill("90")
    bench.get_by_role("button", name="Add the size").click()
    bench.get_by_role("button", name="Settle the sizes").click()
    expect(bench.get_by_text("Settled: ")).to_have_count(2)
    expect(bench.get_by_role("img", name="9 cm, settled, from the front")).to_be_visible()
    bench.get_by_role("button", name="Show the estimates").click()
    expect(bench.get_by_text("Settled: ")).to_have_count(0)


def test_a_part_has_a_hook_and_a_colour_a_yarn_of_its_own(demo: User, enter: Callable[[str], Page]) -> None:
    fox = Design.objects.get(name="Lantern Fox")
    page = enter(f"/designs/{fox.pk}/gauge")
    page.get_by_label("Another part").select_option("Ear")
    page.get_by_label("is worked on").select_option("2")
    page.get_by_label("Hook of Ear").select_option("2.5")
    expect(page.get_by_text("Stitches about 3.8 mm wide")).to_be_visible()
    page.get_by_role("link", name="Sizes").click()
    page.get_by_role("button", name="Another yarn").click()
    page.get_by_label("Chalk is worked in").select_option("Oat")
    chalk = page.get_by_role("group", name="Chalk")
    chalk.get_by_label("Hook").select_option("2.5")
    chalk.get_by_label("Strands together").fill("2")
    page.get_by_label("Call it").fill("with fine white")
    page.get_by_role("button", name="Add the size").click()
    expect(page.get_by_role("columnheader", name="with fine white")).to_be_visible()
    expect(page.get_by_text("Russet beside Chalk")).to_be_visible()
    saved(page)
    page.get_by_role("link", name="Booklet").click()
    booklet = page.get_by_role("article", name="The booklet")
    expect(booklet).to_contain_text("Hook for Ear")
    expect(booklet).to_contain_text("Hook for this part: 2.5 mm")
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("link", name="Gauge").click()
    expect(page.get_by_label("Hook of Ear")).to_have_value("2")
