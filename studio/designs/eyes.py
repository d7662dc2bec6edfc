"""Eyes in a part's text and on its surface: the place rules, the text is printed from it, and editing it moves them."""

from __future__ import annotations

from craft.figure.placement import kept
from craft.rounds.fabric import WorkedPart
from craft.rounds.stitches import Terms
from craft.text.eye_directions import EyeWords, find_direction, round_for_eyes, said_anew, with_direction
from craft.text.notation import read
from studio.designs.manifest import AssemblyPage, EyesEntry
from studio.designs.places import eyes_now, shown_rounds
from studio.errors import Refusal

DEFAULT_BETWEEN = 6


def moved_by_text(page: AssemblyPage, key: str, before: str, after: str, worked: WorkedPart | None) -> AssemblyPage:
    """The page with the eyes where a part's changed text puts them; unchanged while its direction says the same."""
    old, new = find_direction(before), find_direction(after)
    if new is None or worked is None or (old is not None and old.said == new.said):
        return page
    said = new.said
    numbers = [t.label for t in worked.rounds if t.live > 0]
    if f"R{said.below}" not in numbers:
        return page
    at = numbers.index(f"R{said.below}") + 1
    share, _ = kept(*shown_rounds(worked), at, 0.0)
    here = page.eyes if page.eyes is not None and page.eyes.part == key else None
    between = said.between or (here.between if here else DEFAULT_BETWEEN)
    entry = EyesEntry(part=key, round=at, between=between, share=share)
    kind = page.eye_kind
    if said.embroidered or kind == "none":
        kind = "embroidered" if said.embroidered else "safety"
    changes = {"eyes": entry, "eye_kind": kind, "eye_mm": said.eye_mm or page.eye_mm}
    moved: AssemblyPage = page.model_copy(update=changes)
    return moved


def words_of(page: AssemblyPage, worked: WorkedPart) -> EyeWords | None:
    """What a direction should say of the eyes as the rounds are now; None when the round has no number."""
    if page.eyes is None:
        return None
    shown = [t.label for t in worked.rounds if t.live > 0]
    label = shown[min(eyes_now(page.eyes, {page.eyes.part: worked}).round, len(shown)) - 1]
    if not label.startswith("R") or not label[1:].isdigit():
        return None
    return EyeWords(int(label[1:]), page.eyes.between, page.eye_mm, page.eye_kind == "embroidered")


def retold(text: str, page: AssemblyPage, worked: WorkedPart | None) -> str:
    """A part's text with its direction saying where the eyes are; the same text when it says so, or says nothing."""
    words = words_of(page, worked) if worked is not None else None
    return said_anew(text, words) if words is not None else text


def told(text: str, page: AssemblyPage, worked: WorkedPart | None, terms: str) -> str:
    """A part's text with a direction for the eyes, put where they are best put in when it has none."""
    words = words_of(page, worked) if worked is not None else None
    if words is None or worked is None or page.eyes is None:
        raise Refusal(422, "no-eyes", "Place the eyes on this part first.")
    counts, _ = shown_rounds(worked)
    at = round_for_eyes(counts, min(eyes_now(page.eyes, {page.eyes.part: worked}).round, len(counts)))
    tally = [t for t in worked.rounds if t.live > 0][at - 1]
    lines = {line.span.start: line.number for line in read(text, Terms(terms)).lines}
    return with_direction(text, words, lines.get(tally.span.start, len(text.splitlines())))
