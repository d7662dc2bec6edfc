"""Where a part's direction for the eyes and the place they are put at no longer say the same."""

from __future__ import annotations

from craft.design.anchors import Anchor, Place
from craft.design.design import EyeKind, Eyes
from craft.design.eye_text import text_following_eyes
from craft.problems import Mend, Problem
from craft.problems import Place as TextPlace
from craft.rounds.fabric import WorkedPart
from craft.text.eye_directions import EyeDirection, find_direction
from studio.bench.schemas import EyesAsked, PreviewIn


def eye_hints(question: PreviewIn, worked: WorkedPart | None) -> list[Problem]:
    """A hint when the rounds below the eyes changed since the direction was said, or the eyes are on another part.

    A direction that she is just changing is no disagreement: it will move the eyes.
    """
    found = find_direction(question.text)
    if found is None or question.eyes is None or worked is None:
        return []
    if not question.eyes.here:
        return [_hint(question.text, found, "The eyes are placed on another part.", None)]
    eyes = _eyes(question.eyes)
    assert eyes.place is not None
    shown = [t.label for t in worked.rounds if t.live > 0]
    now = eyes.place.now({eyes.place.on: worked})
    said_last = f"R{found.said.below}" == shown[min(question.eyes.round, len(shown)) - 1]
    if not now.moved or not said_last:
        return []
    mended = text_following_eyes(question.text, eyes, worked)[found.span.start :].split("\n", 1)[0].rstrip("\r")
    words = f"The rounds changed: the eyes lie above {shown[min(now.round, len(shown)) - 1]} now."
    return [_hint(question.text, found, words, mended)]


def _eyes(asked: EyesAsked) -> Eyes:
    anchor = None if asked.share is None else Anchor(asked.share)
    kind = EyeKind.EMBROIDERED if asked.embroidered else EyeKind.SAFETY
    return Eyes(kind, asked.eye_mm, Place("here", asked.round, 0.0, anchor), asked.between)


def _hint(text: str, found: EyeDirection, words: str, mended: str | None) -> Problem:
    line = text.count("\n", 0, found.span.start) + 1
    fix = Mend(found.span.start, found.span.end, mended, "Say where they are now") if mended else None
    return Problem("eyes-elsewhere", TextPlace(None, None, line, 1, found.span), words, fix)
