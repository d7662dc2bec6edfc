"""How smoothly the bench scrolls and the figure turns, in a browser: `./spirrel bench screen` runs it.

Chromium draws in software here, so a frame with a new figure in it is slow whatever the page does. Scrolling is
therefore measured by what reaches the screen, and turning the figure by the time its script takes.
"""

from __future__ import annotations

import os
import statistics
import sys
from typing import Any

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")

import django

django.setup()

from django.contrib.auth.models import User  # noqa: E402
from playwright.sync_api import Page, sync_playwright  # noqa: E402

from benchmarks.speed import long_part  # noqa: E402
from studio.demo.login import PASSWORD, USERNAME  # noqa: E402
from studio.designs.actions import add_part, create_design  # noqa: E402
from tests.browser.chromium import CHROMIUM, SOFTWARE  # noqa: E402

WATCH = """() => {
  window.frames_ms = []; window.script_ms = []; window.busy_ms = [];
  let last = performance.now();
  const next = () => { const now = performance.now(); window.frames_ms.push(now - last); last = now;
    window.watching = requestAnimationFrame(next); };
  window.watching = requestAnimationFrame(next);
  new PerformanceObserver((l) => l.getEntries().forEach((e) => window.busy_ms.push(e.duration)))
    .observe({ entryTypes: ["longtask"] });
}"""
SEEN = "() => { cancelAnimationFrame(window.watching); return [window.frames_ms, window.script_ms, window.busy_ms]; }"
# Only callbacks that draw count: the watch's own takes next to nothing.
TIMED = """const plain = window.requestAnimationFrame.bind(window);
window.requestAnimationFrame = (f) => plain((t) => { const begun = performance.now(); f(t);
  const spent = performance.now() - begun; if (window.script_ms && spent > 0.05) window.script_ms.push(spent); });"""


def _line(name: str, times: list[float], busy: list[float]) -> str:
    ordered = sorted(times)
    high = ordered[int(len(ordered) * 0.95)]
    return f"{name:<44} {statistics.median(ordered):8.1f} {high:8.1f} {ordered[-1]:8.1f} {len(ordered):6} {len(busy):6}"


def _seen(page: Page) -> Any:
    page.wait_for_timeout(300)
    return page.evaluate(SEEN)


def _scrolled(page: Page, where: str, name: str) -> str:
    box = page.locator(where).first.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.wait_for_timeout(1500)
    page.evaluate(WATCH)
    for i in range(48):
        page.mouse.wheel(0, 100 if (i // 12) % 2 == 0 else -100)
        page.wait_for_timeout(50)
    frames, _, busy = _seen(page)
    return _line(name, frames, busy)


def _turned(page: Page, name: str) -> str:
    box = page.get_by_test_id("figure").bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(WATCH)
    for i in range(40):
        page.mouse.move(x + 3 * i, y + i % 5)
        page.wait_for_timeout(40)
    page.mouse.up()
    _, script, busy = _seen(page)
    return _line(name, script, busy)


def _designs() -> dict[int, str]:
    owner = User.objects.get(username=USERNAME)
    made = {}
    for rounds in (60, 150):
        design = create_design(owner, f"Long {rounds}", "us")
        part = {"name": "Body", "make": 1, "colour": None, "text": long_part(rounds, 0), "recipe": None}
        made[rounds] = f"/designs/{add_part(owner, design.pk, part)[0].pk}/rounds"
    return made


def main(url: str) -> int:
    """Print the table."""
    designs = _designs()
    print(f"{'ms a frame':<44} {'median':>8} {'95 %':>8} {'worst':>8} {'frames':>6} {'>50 ms':>6}")
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path=CHROMIUM, args=SOFTWARE, chromium_sandbox=os.geteuid() != 0
        )
        page = browser.new_page(viewport={"width": 1280, "height": 800}, base_url=url)
        page.add_init_script(TIMED)
        page.goto("/")
        page.get_by_label("Name").fill(USERNAME)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("heading", name="The shelf").wait_for()
        for rounds, address in designs.items():
            page.goto(address)
            page.get_by_role("button", name="Stretch").wait_for(timeout=120_000)
            page.wait_for_timeout(1500)
            if rounds == 150:
                print(_scrolled(page, "section[aria-label=Ladder] svg", "scrolling the ladder, 150 rounds"))
                print(_scrolled(page, ".cm-scroller", "scrolling the written rounds, 150 rounds"))
            print(_turned(page, f"script while the figure turns, {rounds} rounds"))
        browser.close()
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1]))
