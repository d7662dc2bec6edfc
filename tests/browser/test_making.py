"""Making on a phone: a whole figure without a net, two devices, a tester from her link to the next version, a client's yes."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

import pytest
from django.contrib.auth.models import User
from django.utils import timezone
from playwright.sync_api import Browser, BrowserContext, Page, expect
from pytest_django.live_server_helper import LiveServer

from studio.designs.models import Design
from studio.making.actions import begin, events_of
from studio.making.models import Making, MakingEvent
from studio.proving import testing
from tests.browser.conftest import NAME, PASSWORD, PATIENCE, settle
from tests.browser.test_screens import violations

PHONE = {"width": 390, "height": 844}
ROUNDS = 8
"""Of the design that every test has."""

KEPT = """async () => {
    const worker = (await navigator.serviceWorker.ready).active;
    if (worker.state === 'activated') return;
    await new Promise((then) => {
        worker.addEventListener('statechange', () => worker.state === 'activated' && then());
    });
}"""
"""Resolves once the service worker has everything. Asked once: the page's policy forbids words that evaluate themselves."""


@pytest.fixture
def making(designer: User, design: Design) -> Making:
    return begin(designer, design, "First sample", "own", None, "")


@pytest.fixture
def phone(chromium: Browser, live_server: LiveServer) -> Iterator[Callable[[], BrowserContext]]:
    """Phones, each a browser profile of its own."""
    made: list[BrowserContext] = []

    def new() -> BrowserContext:
        context = chromium.new_context(
            viewport=PHONE, base_url=live_server.url, has_touch=True, is_mobile=True, reduced_motion="reduce"
        )
        context.set_default_timeout(PATIENCE)
        made.append(context)
        return context

    yield new
    for context in made:
        context.close()


def signed_in(context: BrowserContext) -> Page:
    page = context.new_page()
    page.goto("/")
    page.get_by_label("Name").fill(NAME)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="The shelf").wait_for()
    return page


def opened(page: Page, address: str) -> Page:
    """The making page, kept on the device from its first visit on."""
    page.goto(address)
    page.get_by_role("region", name="The round in hand").wait_for()
    page.evaluate(KEPT)
    return page


def done(page: Page, label: str) -> None:
    page.get_by_role("button", name=f"{label} done").click()


def brought(page: Page, events: int) -> None:
    """Wait until the studio has so many: "all sent" may still be of what was written before."""
    for _ in range(150):
        if MakingEvent.objects.count() == events:
            return
        page.wait_for_timeout(100)
    raise AssertionError(f"{MakingEvent.objects.count()} of {events} events came")


def all_sent(page: Page) -> None:
    expect(page.get_by_role("status").filter(has_text="all sent")).to_be_visible()


def test_a_whole_figure_without_a_net(phone: Callable[[], BrowserContext], making: Making, design: Design) -> None:
    """Opened once with a net; then made to the end without one, with a reload and a crash of the page in the middle."""
    context = phone()
    page = opened(signed_in(context), f"/make/own/{making.pk}")
    all_sent(page)
    context.set_offline(True)
    for n in (1, 2, 3):
        done(page, f"R{n}")
    page.get_by_role("button", name="1: 2 sc, inc").click()
    expect(page.get_by_role("button", name="1: 2 sc, inc")).to_have_attribute("aria-pressed", "true")
    page.reload()
    expect(page.get_by_role("heading", name="R4")).to_be_visible()
    expect(page.get_by_role("button", name="1: 2 sc, inc")).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_text(re.compile(r"^4 wait$"))).to_be_visible()
    page.get_by_role("button", name="Did otherwise").click()
    page.get_by_role("button", name="One more round after it").click()
    done(page, "R4")
    # What the page shows as done is kept; a tap in the very moment of a crash may not have become that.
    expect(page.get_by_role("heading", name="R5")).to_be_visible()
    page.close()
    page = context.new_page()
    page.goto(f"/make/own/{making.pk}")
    for n in range(5, ROUNDS + 1):
        expect(page.get_by_role("heading", name=f"R{n}")).to_be_visible()
        done(page, f"R{n}")
    page.get_by_role("button", name="It is finished").click()
    expect(page.get_by_role("heading", name="Finished")).to_be_visible()
    assert not MakingEvent.objects.exists(), "nothing could have been sent"
    context.set_offline(False)
    brought(page, ROUNDS + 3)
    all_sent(page)
    kinds = [e.kind for e in events_of(making)]
    assert sorted(kinds) == sorted(["done"] * ROUNDS + ["stitched", "otherwise", "finished"])
    page.goto(f"/designs/{design.pk}/proving")
    page.get_by_role("tab", name="Makings").click()
    expect(page.get_by_text("Body: After R4 1 more round was worked.")).to_be_visible()
    page.get_by_role("button", name="Into the text").click()
    expect(page.get_by_text("(in the text)")).to_be_visible()
    design.refresh_from_db()
    assert design.revision.label.startswith("First sample: After R4")


def test_two_devices_agree(phone: Callable[[], BrowserContext], making: Making) -> None:
    """One without a net, one with: both write, and both end at the same."""
    first, second = phone(), phone()
    there = opened(signed_in(first), f"/make/own/{making.pk}")
    here = opened(signed_in(second), f"/make/own/{making.pk}")
    all_sent(there)
    first.set_offline(True)
    for n in (1, 2, 3):
        done(there, f"R{n}")
    done(here, "R1")
    here.get_by_role("button", name="Note, photo").click()
    here.get_by_label("What is to be remembered").fill("Written on the second one.")
    here.get_by_role("button", name="Keep the note").click()
    brought(here, 2)
    first.set_offline(False)
    there.get_by_role("status").click()
    brought(there, 5)
    here.get_by_role("status").click()
    for page in (here, there):
        expect(page.get_by_role("heading", name="R4")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Body")).click()
        expect(page.get_by_text("Last note: Written on the second one.")).to_be_visible()
    assert MakingEvent.objects.count() == 5


def test_one_hand_and_a_clicker(phone: Callable[[], BrowserContext], making: Making) -> None:
    page = opened(signed_in(phone()), f"/make/own/{making.pk}")
    page.locator("body").press("Space")
    expect(page.get_by_role("heading", name="R2")).to_be_visible()
    page.locator("body").press("PageDown")
    expect(page.get_by_role("heading", name="R3")).to_be_visible()
    page.locator("body").press("Backspace")
    expect(page.get_by_role("heading", name="R2")).to_be_visible()
    box = page.get_by_role("button", name="R2 done").bounding_box()
    assert box is not None
    assert box["height"] >= 60, "for a thumb"
    assert box["y"] + box["height"] <= PHONE["height"], "in sight without scrolling"
    page.get_by_role("button", name="More").click()
    page.get_by_label("Count stitch by stitch").check()
    page.get_by_label("Left thumb").check()
    page.get_by_role("button", name="Close").click()
    page.locator("body").press("Space")
    expect(page.get_by_text("1 of 12 stitches")).to_be_visible()
    moved = page.get_by_role("button", name="R2 done").bounding_box()
    assert moved is not None
    assert moved["x"] < 20, "at the left thumb"


def test_a_scale_speaks_to_the_making_that_is_open(phone: Callable[[], BrowserContext], making: Making) -> None:
    context = phone()
    page = opened(signed_in(context), f"/make/own/{making.pk}")
    page.get_by_role("button", name="Measure").click()
    page.get_by_label("Ball before working, g").wait_for()
    scale = context.new_page()
    scale.goto("/make/scale")
    scale.get_by_label("On the scale, grams").fill("50")
    scale.get_by_role("button", name="Send the reading").click()
    expect(page.get_by_label("Ball before working, g")).to_have_value(re.compile(r"^(49|50)(\.\d)?$"))
    page.get_by_role("button", name="Keep ball before working").click()
    expect(page.get_by_text(re.compile(r"g is kept\."))).to_be_visible()
    page.get_by_label("Height of the figure, cm").fill("much")
    expect(page.get_by_text("A number from 0.1 to 500.")).to_be_visible()
    page.get_by_label("Height of the figure, cm").fill("9,5")
    page.get_by_role("button", name="Keep height of the figure").click()
    page.get_by_role("button", name="Close").click()
    brought(page, 2)
    assert sorted(e.kind for e in events_of(making)) == ["measured", "weighed"]


def test_the_page_is_sound_to_axe_and_small(phone: Callable[[], BrowserContext], making: Making) -> None:
    page = signed_in(phone())
    weights: dict[str, int] = {}
    page.on("response", lambda r: weights.update({r.url: len(r.body())}) if r.url.endswith(".js") else None)
    opened(page, f"/make/own/{making.pk}")
    assert violations(page) == []
    for name in ("Did otherwise", "Measure", "More"):
        page.get_by_role("button", name=name).click()
        page.get_by_role("dialog").wait_for()
        assert violations(page) == []
        page.get_by_role("button", name="Close").click()
    assert page.evaluate("document.documentElement.scrollWidth <= window.innerWidth"), "nothing to the side"


def test_a_making_that_is_not_hers_is_closed_in_words(
    phone: Callable[[], BrowserContext], making: Making, designer: User
) -> None:
    page = phone().new_page()
    page.goto(f"/make/own/{making.pk}")
    expect(page.get_by_role("alert")).to_contain_text("Sign in on this device first")
    page.goto("/make/no-such-link")
    expect(page.get_by_role("alert")).to_contain_text("nothing here")


def test_a_tester_from_the_call_to_the_next_version(
    phone: Callable[[], BrowserContext], bench: Page, design: Design
) -> None:
    """Called, invited, worked without an account, a round pointed at, the round changed, and the answer read."""
    bench.get_by_role("link", name="Proving").click()
    bench.get_by_role("tab", name="Testers").click()
    bench.get_by_label("What to look at most").fill("Is R4 clear?")
    bench.get_by_role("button", name="Call the test").click()
    bench.get_by_label("Invite a tester").fill("Rowan")
    bench.get_by_role("button", name="Make her link").click()
    link = bench.get_by_label("Her link: keep it now, it is not told again").input_value()
    expect(bench.get_by_label("The letter")).to_have_value(re.compile("Is R4 clear"))
    bench.keyboard.press("Escape")
    tester = opened(phone().new_page(), "/make/" + link.rsplit("/", 1)[1])
    for n in (1, 2, 3):
        done(tester, f"R{n}")
    tester.get_by_role("button", name="Remark").click()
    tester.get_by_label("In words, if you like").fill("Which of the two?")
    tester.get_by_role("button", name="Unclear").click()
    tester.get_by_role("button", name="Report").click()
    tester.get_by_label("Yarn that you used").fill("Fennel Fields DK")
    tester.get_by_label("Name to thank you by").fill("Rowan B.")
    tester.get_by_role("button", name="Send the report").click()
    brought(tester, 5)
    bench.reload()
    bench.get_by_role("tab", name="Testers").click()
    expect(bench.get_by_text("Rowan: “Which of the two?”")).to_be_visible()
    expect(bench.get_by_role("cell", name="Fennel Fields DK")).to_be_visible()
    bench.get_by_role("tab", name="Release").click()
    expect(bench.get_by_text("Body R4: Rowan says unclear; not answered yet.")).to_be_visible()
    bench.get_by_role("link", name="Booklet").click()
    bench.get_by_label("Version", exact=True).fill("1.1")
    bench.locator('[data-save="saved"]').wait_for()
    bench.get_by_role("link", name="Proving").click()
    bench.get_by_role("tab", name="Testers").click()
    bench.get_by_label("What you answer on Body R4").fill("R4 says it with brackets now.")
    bench.get_by_role("button", name="Changed in 1.1").click()
    expect(bench.get_by_text("Remarks (all answered)")).to_be_visible()
    bench.get_by_role("button", name="Thank Rowan B. in the booklet").click()
    expect(bench.get_by_text("It stands in the booklet's credits.")).to_be_visible()
    design.refresh_from_db()
    assert design.manifest.booklet.credits == "Tested by Rowan B."
    tester.reload()
    tester.get_by_role("button", name="Remark").click()
    expect(tester.get_by_text("changed in version 1.1: R4 says it with brackets now.")).to_be_visible()


def test_a_testers_link_that_was_withdrawn_loses_nothing(
    phone: Callable[[], BrowserContext], designer: User, design: Design
) -> None:
    values = {"title": "Test", "look_at": "", "wanted": 1, "opens": timezone.localdate(), "closes": None}
    call = testing.call_test(designer, design, values, None, "")
    tester, token = testing.invite(designer, call, "Rowan", "")
    page = opened(phone().new_page(), f"/make/{token}")
    done(page, "R1")
    brought(page, 1)
    tester.refresh_from_db()
    testing.close_link(designer, tester)
    done(page, "R2")
    expect(page.get_by_role("alert")).to_contain_text("withdrawn")
    expect(page.get_by_role("heading", name="R3")).to_be_visible()
    page.get_by_role("button", name="More").click()
    with page.expect_download() as saved:
        page.get_by_role("button", name="Save the log as a file").click()
    text = saved.value.path().read_text()
    assert text.count('"done"') == 2


def test_a_device_without_room_says_so_and_keeps_what_it_has(
    phone: Callable[[], BrowserContext], making: Making
) -> None:
    page = opened(signed_in(phone()), f"/make/own/{making.pk}")
    done(page, "R1")
    brought(page, 1)
    full = "() => { IDBObjectStore.prototype.put = () => { throw new DOMException('', 'QuotaExceededError') } }"
    page.evaluate(full)
    done(page, "R2")
    expect(page.get_by_role("alert")).to_contain_text("no room left")
    expect(page.get_by_role("heading", name="R2")).to_be_visible()
    page.reload()
    done(page, "R2")
    expect(page.get_by_role("heading", name="R3")).to_be_visible()


def test_a_clients_yes(bench: Page, phone: Callable[[], BrowserContext]) -> None:
    bench.get_by_role("link", name="Proving").click()
    bench.get_by_role("tab", name="Client").click()
    bench.get_by_role("textbox", name="Client").fill("Juniper")
    bench.get_by_role("button", name="Take it").click()
    bench.get_by_label("Price (EUR)", exact=True).fill("48")
    bench.get_by_label("Price (EUR)", exact=True).press("Tab")
    bench.get_by_label("Ask about a change").fill("Longer ears")
    bench.get_by_label("Changes the price by (EUR)").fill("4.5")
    bench.get_by_role("button", name="Ask", exact=True).click()
    bench.get_by_role("button", name="Make her link").click()
    link = bench.get_by_label("Her link: keep it now, it is not told again").input_value()
    client = phone().new_page()
    client.goto("/agree/" + link.rsplit("/", 1)[1])
    expect(client.get_by_text("48.00 EUR").first).to_be_visible()
    assert violations(client) == []
    client.get_by_label("Anything to add").fill("With tufts?")
    client.get_by_role("button", name="Yes, please").click()
    expect(client.get_by_text("You said yes on")).to_be_visible()
    bench.reload()
    bench.get_by_role("tab", name="Client").click()
    expect(bench.get_by_text("“With tufts?”")).to_be_visible()
    expect(bench.get_by_text("With all that was agreed 52.50 EUR")).to_be_visible()


def test_proving_is_sound_to_axe(bench: Page, making: Making) -> None:
    bench.get_by_role("link", name="Proving").click()
    for tab in ("Release", "Makings", "Testers", "Client", "Notes"):
        bench.get_by_role("tab", name=tab).click()
        settle(bench)
        assert violations(bench) == []
