"""Eyes in a part's text and on its surface: the place rules, the text is printed from it, and editing it moves them."""

from __future__ import annotations

from dataclasses import replace

from craft.design.anchors import Place, round_sizes
from craft.design.design import EyeKind, Eyes
from craft.errors import CraftError
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from craft.text.eye_directions import EyeWords, find_direction, insert_direction, rewrite_direction, round_for_eyes
from craft.text.notation import read

DEFAULT_BETWEEN = 6


def eyes_from_text(eyes: Eyes, key: str, before: str, after: str, worked: WorkedPart | None) -> Eyes:
    """The eyes where a part's changed text puts them; unchanged while its direction says the same."""
    old, new = find_direction(before), find_direction(after)
    if new is None or worked is None or (old is not None and old.said == new.said):
        return eyes
    said = new.said
    numbers = [t.label for t in worked.rounds if t.live > 0]
    if f"R{said.below}" not in numbers:
        return eyes
    here = eyes.place is not None and eyes.place.on == key
    place = Place(key, numbers.index(f"R{said.below}") + 1).anchored(None, {key: worked})
    kind = eyes.kind
    if said.embroidered or kind is EyeKind.NONE:
        kind = EyeKind.EMBROIDERED if said.embroidered else EyeKind.SAFETY
    between = said.between or (eyes.between if here else DEFAULT_BETWEEN)
    return Eyes(kind, said.eye_mm or eyes.mm, place, between)


def direction_words(eyes: Eyes, worked: WorkedPart) -> EyeWords | None:
    """What a direction should say of the eyes as the rounds are now; None when the round has no number."""
    if eyes.place is None:
        return None
    shown = [t.label for t in worked.rounds if t.live > 0]
    label = shown[min(eyes.place.now({eyes.place.on: worked}).round, len(shown)) - 1]
    if not label.startswith("R") or not label[1:].isdigit():
        return None
    return EyeWords(int(label[1:]), eyes.between, eyes.mm, eyes.kind is EyeKind.EMBROIDERED)


def text_following_eyes(text: str, eyes: Eyes, worked: WorkedPart | None) -> str:
    """A part's text with its direction saying where the eyes are; the same text when it says so, or says nothing."""
    words = direction_words(eyes, worked) if worked is not None else None
    return rewrite_direction(text, words) if words is not None else text


def text_with_eyes(text: str, eyes: Eyes, worked: WorkedPart | None, terms: Terms) -> str:
    """A part's text with a direction for the eyes, put where they are best put in when it has none.

    CraftError when no eyes lie on a numbered round of the part.
    """
    words = direction_words(eyes, worked) if worked is not None else None
    if words is None or worked is None or eyes.place is None:
        raise CraftError("Place the eyes on this part first.", field="eyes")
    counts, _ = round_sizes(worked)
    at = round_for_eyes(counts, min(eyes.place.now({eyes.place.on: worked}).round, len(counts)))
    tally = [t for t in worked.rounds if t.live > 0][at - 1]
    lines = {line.span.start: line.number for line in read(text, terms).lines}
    return insert_direction(text, words, lines.get(tally.span.start, len(text.splitlines())))


def eyes_in_proportion(eyes: Eyes, before: WorkedPart | None, after: WorkedPart, mm: float | None) -> Eyes:
    """The eyes on another size of their part: the gap in proportion, odd or even as it was, said in its rounds."""
    if eyes.place is None:
        return replace(eyes, mm=mm)
    between = eyes.between
    if before is not None:
        odd = between % 2
        wanted = between * max(after.counts) / max(before.counts)
        between = max(odd or 2, odd + 2 * round((wanted - odd) / 2))
    return Eyes(eyes.kind, mm, eyes.place.resaid({eyes.place.on: after}), between)
