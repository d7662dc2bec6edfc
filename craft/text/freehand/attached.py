"""A part that begins on the last round of another: 'Attach beige to the front loops of Rnd 9 of the cap, sc 36'."""

from __future__ import annotations

import re
from collections.abc import Sequence

from craft.text.freehand.references import part_called
from craft.text.freehand.so_far import PartSoFar

_ATTACHED = re.compile(
    r"(?i)(?:attach|join|rejoin|tie)\b[^.;,]*?\b(?:to|in|into|at|on)\s+(?:(?:the|a|any|one)\s+)*(?:(?P<side>front|back)\s+)?"
    r"(?:(?:loops?|sts?|stitch(?:es)?|edge)\s+(?:of|on|in|from)\s+)?(?:the\s+)?"
    r"(?:(?:last|final)\s+(?:round|rnd|rd|row)|(?:round|rnd|rd|row|r)\.?\s*(?P<n>\d{1,3}))\s+(?:of|on)\s+(?:the\s+)?"
    r"(?P<part>[^\W\d_]+(?:\s[^\W\d_]+){0,3})\s*(?:[,;:]|\band\b)\s*(?=\S)"
)


def attached(rest: str, parts: Sequence[PartSoFar], now: PartSoFar) -> tuple[str, str] | None:
    """A first round's words cut into those of the joining and the work, onto the part that they name; None where they name
    none, or a round of it that is not its last. now: the part that begins."""
    found = _ATTACHED.match(rest)
    if found is None or now.rounds:
        return None
    others = [part for part in parts if part.rounds and part is not now]
    name = part_called(found["part"], [part.name for part in others])
    onto = next((part for part in others if part.name == name), None)
    if onto is None or found["n"] not in (None, str(onto.last)):
        return None
    loops = {"f": "FLO ", "b": "BLO "}.get((found["side"] or "")[:1].lower(), "")
    return found.group(0).strip(" ,:;"), f"onto the {onto.name}, {loops}{rest[found.end() :]}"
