"""Chromium against the built front end and a real database."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.signals import request_finished, request_started
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Page, Playwright, expect, sync_playwright
from pytest_django.live_server_helper import LiveServer

from studio.accounts.actions import sign_up
from studio.demo.studio import load
from studio.designs.actions import add_part, create_design
from studio.designs.models import Design
from studio.jobs import kinds
from studio.jobs.models import Job, State
from tests.browser.chromium import CHROMIUM, FLAGS
from tests.browser.rows import Rows, put_back, rows_now

# Playwright's synchronous interface runs a loop in this thread; the database is used from it on purpose.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"

NAME, PASSWORD = "fern", "velvet-lantern-9"

PATIENCE = 120_000
"""How long a page may take, in ms, for what is asked of it and for what is expected of it alike. The one limit there is:
the studio answers from this process, which settles figures meanwhile, on machines that lend their processor to others
and may stand still for a while. What comes sooner is not waited for."""

QUIET = 5
"""So many looks in a row, a tenth of a second apart, find a page at rest that is: between two looks at a job nothing is
asked of the studio, either."""
expect.set_options(timeout=PATIENCE)


@pytest.fixture(scope="session")
def playwright() -> Iterator[Playwright]:
    with sync_playwright() as started:
        yield started


@pytest.fixture(scope="session")
def chromium(playwright: Playwright) -> Iterator[Browser]:
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS, chromium_sandbox=os.geteuid() != 0)
    yield browser
    browser.close()


@pytest.fixture(scope="session", autouse=True)
def settled_once() -> None:
    """Every test has a database of its own, and many show the same figures: each is settled once in a run."""
    for name in set(kinds.names()) - {"release"}:  # which writes rows, and does not only answer
        kind = kinds.kind_of(name)
        kinds.register(name, _remembering(kind.worker), kind.version, forgets=kind.forgets)


def _remembering(worker: kinds.Worker) -> kinds.Worker:
    answers: dict[str, bytes] = {}

    def work(question: str, watch: kinds.Watch) -> bytes:
        if question not in answers:
            answers[question] = worker(question, watch)
        return answers[question]

    return work


@pytest.fixture
def designer(transactional_db: None) -> User:
    return sign_up(NAME, PASSWORD, "Fern & Moss")


@pytest.fixture(scope="session")
def kept() -> Rows:
    """The rows of the demo's studio, once it was made."""
    return {}


@pytest.fixture
def demo(transactional_db: None, kept: Rows) -> User:
    """The designer with the demo's designs and yarns: made once in a run, and put back for every test as it was."""
    if kept:
        put_back(kept)
    else:
        load(sign_up(NAME, PASSWORD, "Fern & Moss"))
        kept |= rows_now()
    return User.objects.get(username=NAME)


@pytest.fixture
def context(chromium: Browser, live_server: LiveServer) -> Iterator[BrowserContext]:
    """A fresh browser profile; any script error or blocked resource fails the test."""
    # Figures are laid down at rest: drawing every step of the way in software takes most of a small machine.
    made = chromium.new_context(
        viewport={"width": 1280, "height": 800},
        base_url=live_server.url,
        accept_downloads=True,
        reduced_motion="reduce",
    )
    complaints: list[str] = []

    def listen(page: Page) -> None:
        page.on("pageerror", lambda error: complaints.append(f"script error: {error}"))
        page.on("console", lambda message: _note(message, complaints))

    made.on("page", listen)
    yield made
    made.close()
    _rest()
    assert not complaints


class InFlight:
    """Requests that the studio still answers."""

    def __init__(self) -> None:
        self.lock, self.count = threading.Lock(), 0
        request_started.connect(self.begun)
        request_finished.connect(self.ended)

    def begun(self, **_: object) -> None:
        with self.lock:
            self.count += 1

    def ended(self, **_: object) -> None:
        with self.lock:
            self.count -= 1


IN_FLIGHT = InFlight()


def _rest() -> None:
    """Call off what a closed page still waits for, so that no test works beside the requests of the one before."""
    end = time.monotonic() + PATIENCE / 1000
    while IN_FLIGHT.count > 0:
        assert time.monotonic() < end, "a job does not stop when it is called off"
        at_work = Job.objects.filter(state__in=(State.WAITING, State.RUNNING), cancel_asked=False)
        for pk in at_work.values_list("pk", flat=True):
            Job.objects.filter(pk=pk).update(cancel_asked=True)
        time.sleep(0.05)


EXPECTED = (
    "status of 401",
    "status of 409",
    "status of 422",
    "status of 429",
    "ERR_FAILED",
    "THREE.Clock",
    "GPU stall",
    "GL Driver",
)


def _note(message: ConsoleMessage, complaints: list[str]) -> None:
    looked_for_nothing = str(message.location.get("url", "")).endswith("/api/designs/0")
    expected = looked_for_nothing or any(known in message.text for known in EXPECTED)
    if message.type in ("error", "warning") and not expected:
        complaints.append(f"{message.type}: {message.text}")


@pytest.fixture
def page(context: BrowserContext) -> Page:
    made = context.new_page()
    made.set_default_timeout(PATIENCE)
    return made


@pytest.fixture
def enter(page: Page) -> Callable[[str], Page]:
    """Sign in and go to an address."""

    def go(address: str) -> Page:
        page.goto("/")
        page.get_by_label("Name").fill(NAME)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="The shelf").wait_for()
        if address != "/":
            page.goto(address)
        return page

    return go


def saved(page: Page) -> None:
    """Wait until the page says that everything is saved."""
    page.locator('[data-save="saved"]').wait_for()


def settle(page: Page) -> None:
    """Wait until nothing is asked of the studio any more: every figure of the page has settled and is painted."""
    busy = page.locator("progress, [aria-busy=true], [data-opening]")
    end, quiet = time.monotonic() + PATIENCE / 1000, 0
    while quiet < QUIET:
        assert time.monotonic() < end, (
            f"the page does not come to rest: {IN_FLIGHT.count} requests, {busy.count()} busy"
        )
        page.wait_for_timeout(100)
        quiet = 0 if IN_FLIGHT.count or busy.count() else quiet + 1


def drawn(page: Page) -> None:
    """Wait until the figure's first frame is there."""
    page.locator('[data-testid="figure"][data-drawn="true"]').first.wait_for()


def numbers(values: Any) -> list[int]:
    """Texts as numbers."""
    return [int(v) for v in values]


CONE = (
    "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nRnd 4: (2 sc, inc) x 6 [24]\n"
    "R5-R7: sc around [24]\nStuff.\nR8: (2 sc, dec) x 6 [18]\n"
)


@pytest.fixture
def design(designer: User) -> Design:
    made = create_design(designer, "Moth", "us")
    made, _ = add_part(designer, made.pk, {"name": "Body", "make": 1, "colour": None, "text": CONE, "recipe": None})
    return made


@pytest.fixture
def bench(design: Design, enter: Callable[[str], Page]) -> Page:
    page = enter(f"/designs/{design.pk}/rounds")
    page.get_by_text("Every count adds up.").wait_for()
    return page
