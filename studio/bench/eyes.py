"""Where a part's direction for the eyes and the place they are put at no longer say the same."""

from __future__ import annotations

from craft.problems import Mend, Place, Problem
from craft.rounds.fabric import WorkedPart
from craft.text.eye_directions import EyeDirection, find_direction
from studio.bench.schemas import EyesAsked, PreviewIn
from studio.designs.eyes import retold
from studio.designs.manifest import AssemblyPage, EyesEntry
from studio.designs.places import eyes_now


def eye_hints(question: PreviewIn, worked: WorkedPart | None) -> list[Problem]:
    """A hint when the rounds below the eyes changed since the direction was said, or the eyes are on another part.

    A direction that she is just changing is no disagreement: it will move the eyes.
    """
    found = find_direction(question.text)
    if found is None or question.eyes is None or worked is None:
        return []
    if not question.eyes.here:
        return [_hint(question.text, found, "The eyes are placed on another part.", None)]
    page = _page(question.eyes)
    shown = [t.label for t in worked.rounds if t.live > 0]
    now = eyes_now(page.eyes, {"here": worked}) if page.eyes else None
    said_last = f"R{found.said.below}" == shown[min(question.eyes.round, len(shown)) - 1]
    if now is None or not now.moved or not said_last:
        return []
    mended = retold(question.text, page, worked)[found.span.start :].split("\n", 1)[0].rstrip("\r")
    words = f"The rounds changed: the eyes lie above {shown[min(now.round, len(shown)) - 1]} now."
    return [_hint(question.text, found, words, mended)]


def _page(eyes: EyesAsked) -> AssemblyPage:
    entry = EyesEntry(part="here", round=eyes.round, between=eyes.between, share=eyes.share)
    return AssemblyPage(eyes=entry, eye_mm=eyes.eye_mm, eye_kind="embroidered" if eyes.embroidered else "safety")


def _hint(text: str, found: EyeDirection, words: str, mended: str | None) -> Problem:
    line = text.count("\n", 0, found.span.start) + 1
    fix = Mend(found.span.start, found.span.end, mended, "Say where they are now") if mended else None
    return Problem("eyes-elsewhere", Place(None, None, line, 1, found.span), words, fix)
