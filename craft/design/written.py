"""A design as one written pattern, and the lines of a written pattern that are a part's own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from craft.design.design import Design
from craft.design.joins import pieces_worked_in
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.rounds.pattern import Item
from craft.rounds.pattern import Part as Written
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.notation import print_rounds

_TERMS = {Terms.US: "US", Terms.UK: "UK", Terms.LETTERS: "letters"}

UNTITLED = "Untitled"


def pattern_text(design: Design) -> str:
    """The design as one written pattern: a head block, then every part under its heading, as typed.

    A part stands before those that take it in, so that it can be read from the top.
    """
    parts = [f"# {p.name} (make {p.make})\n{p.text.strip()}\n" for p in made_first(design)]
    return "\n".join([head_of(design), *parts])


def head_of(design: Design) -> str:
    """The lines before the parts: name, terms, yarns, hook."""
    lines = [f"Name: {design.name}", f"Terms: {_TERMS[design.terms]}"]
    if design.yarns:
        lines.append("Yarn: " + ", ".join(y.name for y in design.yarns))
    if design.gauge.hook_mm:
        lines.append(f"Hook: {design.gauge.hook_mm:g} mm")
    return "".join(f"{line}\n" for line in lines)


def made_first(design: Design) -> tuple[Part, ...]:
    """The parts in her order, but each before those whose rounds take it in."""
    takes = {p.key: pieces_worked_in(w) if (w := p.worked) is not None else set() for p in run_parts(design)}
    waiting, out = list(design.parts), list[Part]()
    while waiting:
        left = {p.name for p in waiting}
        free = next((p for p in waiting if not (takes[p.key] & (left - {p.name}))), waiting[0])
        waiting.remove(free)
        out.append(free)
    return tuple(out)


def own_lines(checked: Checked, text: str, part: Written, elsewhere: Sequence[tuple[int, int]] = ()) -> str:
    """A part's lines as they were typed; of a text that was read freehand, in the notation that it was put into.

    elsewhere: from where to where lines of the text stand that are no part's.
    """
    terms = checked.reading.pattern.terms
    own = [i for i in part.items if not any(start <= i.span.start < end for start, end in elsewhere)]
    if checked.translation is not None:
        return print_rounds(replace(part, items=tuple(own)), terms)
    return part_lines(text, replace(part, items=tuple(own)), terms, elsewhere)


def part_lines(text: str, part: Written, terms: Terms, elsewhere: Sequence[tuple[int, int]] = ()) -> str:
    """A part's lines as they were typed, from its first to its last, without those that are no part's."""
    items: list[Item] = [i for i in part.items if i.span.end > 0]
    if not items:
        return print_rounds(part, terms)
    start = text.rfind("\n", 0, min(i.span.start for i in items)) + 1
    stop = text.find("\n", max(i.span.end for i in items))
    kept: list[str] = []
    for line in text[start : len(text) if stop < 0 else stop].splitlines(keepends=True):
        if not any(a < start + len(line) and start < b for a, b in elsewhere):
            kept.append(line.rstrip())
        start += len(line)
    return "\n".join(kept).strip("\n") + "\n"
