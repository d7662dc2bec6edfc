"""Typing is saved, kept through reload and lost connections, and never silently overwritten."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from django.contrib.auth.models import User
from playwright.sync_api import BrowserContext, Page, Route, expect

from studio.designs.actions import add_part, create_design
from studio.designs.models import Design, PartVersion, TypedText
from tests.browser.conftest import saved

BALL = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: dec x 9 [9]\n"


@pytest.fixture
def design(designer: User) -> Design:
    made = create_design(designer, "Moth", "us")
    made, _ = add_part(designer, made.pk, {"name": "Body", "make": 1, "colour": None, "text": BALL, "recipe": None})
    return made


def typing(page: Page, words: str) -> None:
    page.locator(".cm-content").click()
    page.keyboard.press("Control+End")
    page.keyboard.type(words)


def test_typing_is_saved_cut_and_undone(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    typing(page, "R5: sc around [9]")
    saved(page)
    assert TypedText.objects.get().text.endswith("R5: sc around [9]")
    page.reload()
    page.get_by_text("R5: sc around [9]").wait_for()
    page.get_by_role("link", name="Shapes").click()
    page.get_by_role("heading", name="Body").wait_for()
    page.wait_for_timeout(400)
    page.get_by_role("button", name="Undo: Changed the rounds of Body").click()
    page.get_by_role("link", name="Rounds").click()
    expect(page.locator(".cm-content")).not_to_contain_text("R5")
    assert PartVersion.objects.count() == 2


def test_typing_faster_than_the_screen_follows_loses_nothing(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    words = "The quick brown stoat jumps over the lazy hook. " * 4
    typing(page, words + "End.")
    saved(page)
    assert TypedText.objects.get().text.endswith(words + "End.")


def test_undo_right_after_typing_takes_the_typing_back(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    typing(page, "Not saved yet when undo is pressed.")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator(".cm-content")).not_to_contain_text("Not saved yet")
    page.get_by_role("button", name="Redo: Changed the rounds of Body").click()
    expect(page.locator(".cm-content")).to_contain_text("Not saved yet")
    expect(page.get_by_role("dialog")).to_have_count(0)


def test_a_drafted_part_follows_its_shape_until_it_is_edited(demo: User, enter: Callable[[str], Page]) -> None:
    hedgehog = Design.objects.get(name="Dusk Hedgehog")
    page = enter(f"/designs/{hedgehog.pk}/shapes")
    page.get_by_text("29 rounds, from its shape").wait_for()
    page.get_by_label("Width (mm)").fill("70")
    page.get_by_role("button", name="Undo: Shaped Body").wait_for()
    page.get_by_role("navigation", name="Parts").get_by_text("26 rounds, from its shape").wait_for()
    page.get_by_role("button", name="Undo: Shaped Body").click()
    expect(page.get_by_label("Width (mm)")).to_have_value("88")
    page.get_by_role("button", name="Face").click()
    page.get_by_role("button", name="Use this shape instead").click()
    page.get_by_role("button", name="Replace them").click()
    page.get_by_text("14 rounds, from its shape").wait_for()


def test_a_mend_is_one_click_and_one_undo(design: Design, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    page.locator(".cm-line", has_text="R3:").click()
    page.keyboard.press("Alt+=")
    page.get_by_role("button", name="repeat 6 times").click()
    page.get_by_text("Every count adds up.").wait_for()
    expect(page.locator(".cm-content")).to_contain_text("R3: (sc, inc) x 6 [18]")
    page.locator(".cm-content").focus()
    page.keyboard.press("Control+z")
    page.get_by_role("button", name="repeat 6 times").wait_for()


def test_a_lost_connection_loses_nothing(design: Design, context: BrowserContext, enter: Callable[[str], Page]) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    context.route("**/typed", lambda route: route.abort())
    typing(page, "Written in a tunnel.")
    page.locator('[data-save="offline"]').wait_for()
    page.reload()
    page.get_by_text("Written in a tunnel.").wait_for()
    context.unroute("**/typed")
    saved(page)
    assert TypedText.objects.get().text.endswith("Written in a tunnel.")


@pytest.mark.parametrize("choice", ["Keep this text", "Keep that text"])
def test_two_windows_and_a_choice(
    design: Design, context: BrowserContext, enter: Callable[[str], Page], choice: str
) -> None:
    first = enter(f"/designs/{design.pk}/rounds")
    second = context.new_page()
    second.goto(f"/designs/{design.pk}/rounds")
    for page in (first, second):
        page.get_by_text("Every count adds up.").wait_for()
    typing(first, "From the first window.")
    saved(first)
    typing(second, "From the second window.")
    dialog = second.get_by_role("dialog", name="Body was changed in another window")
    dialog.wait_for()
    second.keyboard.type(" Typed right on.")
    told = "From the second window. Typed right on."
    expect(dialog.get_by_role("region", name="Typed here")).to_contain_text(told)
    expect(dialog.get_by_role("region", name="Saved by the other window")).to_contain_text("From the first window.")
    dialog.get_by_role("button", name=choice).click()
    dialog.wait_for(state="hidden")
    saved(second)
    kept = told if choice == "Keep this text" else "From the first window."
    expect(second.locator(".cm-content")).to_contain_text(kept)
    text = TypedText.objects.get().text if TypedText.objects.exists() else PartVersion.objects.latest("pk").text
    assert text.endswith(kept)


def test_a_slow_studio_shows_honest_progress(
    design: Design, context: BrowserContext, enter: Callable[[str], Page]
) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()

    def later(route: Route) -> None:
        page.wait_for_timeout(600)
        route.continue_()

    context.route("**/typed", later)
    typing(page, "Slowly.")
    page.locator('[data-save="saving"]').wait_for()
    saved(page)


WAITING = "Object.keys(localStorage).some(k => k.startsWith('spirrel-unsent-'))"


def test_nobody_signs_out_over_what_waits_here(
    design: Design, context: BrowserContext, enter: Callable[[str], Page]
) -> None:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    context.route("**/typed", lambda route: route.abort())
    typing(page, "Secret.")
    page.locator('[data-save="offline"]').wait_for()
    assert page.evaluate(WAITING)
    page.get_by_role("button", name="Sign out").click()
    page.get_by_text("has not reached the studio yet").first.wait_for()
    context.unroute("**/typed")
    saved(page)
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("heading", name="Sign in").wait_for()
    assert not page.evaluate(WAITING)


def test_what_is_typed_offline_is_sent_from_any_stop(
    design: Design, context: BrowserContext, enter: Callable[[str], Page]
) -> None:
    """Typed while the studio is away, another stop visited, the studio back: nothing is lost, and nothing is hidden."""
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    context.route("**/typed", lambda route: route.abort())
    typing(page, "Typed in the dark.")
    page.locator('[data-save="offline"]').wait_for()
    page.get_by_role("link", name="Brief").click()
    page.get_by_text("is kept here and sent once it is back").wait_for()
    context.unroute("**/typed")
    page.get_by_text("is kept here and sent once it is back").wait_for(state="detached")
    assert not page.evaluate(WAITING)
    page.get_by_role("link", name="Rounds").click()
    expect(page.locator(".cm-content")).to_contain_text("Typed in the dark.")
    assert "Typed in the dark." in design.typed_texts.get().text


def test_a_page_typed_offline_outlives_a_reload(
    design: Design, context: BrowserContext, enter: Callable[[str], Page]
) -> None:
    page = enter(f"/designs/{design.pk}/brief")
    context.route("**/pages", lambda route: route.abort())
    page.get_by_label("What it is, in the booklet's first lines").fill("A moth for the windowsill.")
    page.locator('[data-save="offline"]').wait_for()
    page.reload()
    expect(page.get_by_label("What it is, in the booklet's first lines")).to_have_value("A moth for the windowsill.")
    context.unroute("**/pages")
    saved(page)
    design.refresh_from_db()
    assert design.manifest.brief.intro == "A moth for the windowsill."


def test_nonsense_in_fields_is_told_at_the_field(demo: User, enter: Callable[[str], Page]) -> None:
    hedgehog = Design.objects.get(name="Dusk Hedgehog").pk
    page = enter(f"/designs/{hedgehog}/shapes")
    width = page.get_by_label("Width (mm)")
    for typed, said in (
        ("pear", "is no number"),
        ("-5", "It must be from 5 to 600"),
        ("", "Type a number"),
        ("9e9", "It must be"),
    ):
        width.fill(typed)
        expect(page.get_by_role("alert")).to_contain_text(said)
    width.fill("70")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.goto(f"/designs/{hedgehog}/brief")
    page.get_by_label("Picture file").set_input_files(
        {"name": "x.png", "mimeType": "image/png", "buffer": b"no picture"}
    )
    page.get_by_text("This is no picture that can be read").first.wait_for()
