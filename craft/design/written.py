"""A design as one written pattern, and a written pattern as a design."""

from __future__ import annotations

import hashlib
from collections.abc import Sequence

from craft.design.design import Design
from craft.design.joins import pieces_worked_in
from craft.design.parts import MOST_MAKE, MOST_NAME, DesignYarn, Part
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
    return "\n".join([_head(design), *parts])


def _head(design: Design) -> str:
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


def own_lines(checked: Checked, text: str, part: Written) -> str:
    """A part's lines as they were typed; of a text that was read freehand, in the notation that it was put into."""
    terms = checked.reading.pattern.terms
    return part_lines(text, part, terms) if checked.translation is None else print_rounds(part, terms)


def part_lines(text: str, part: Written, terms: Terms) -> str:
    """A part's lines as they were typed, from its first to its last."""
    items: list[Item] = [i for i in part.items if i.span.end > 0]
    if not items:
        return print_rounds(part, terms)
    start = text.rfind("\n", 0, min(i.span.start for i in items)) + 1
    stop = text.find("\n", max(i.span.end for i in items))
    own = text[start : len(text) if stop < 0 else stop]
    return "\n".join(line.rstrip() for line in own.splitlines()).strip("\n") + "\n"


def design_of(checked: Checked, text: str, name: str = "") -> Design:
    """What a written pattern says, as a design: its parts with their own lines, its terms, name and yarns.

    name: what it is called where the text does not say. Steps and places come from nowhere but a design.
    """
    pattern = checked.reading.pattern
    parts = [
        Part(
            _key(at, part),
            _plain(part.name or f"Part {at + 1}"),
            own_lines(checked, text, part),
            min(part.make, MOST_MAKE),
        )
        for at, (part, worked) in enumerate(zip(pattern.parts, checked.parts, strict=True))
        if worked.rounds
    ]
    title = _plain(pattern.entry("name") or name or UNTITLED)
    return Design(title, pattern.terms, yarns=_yarns(pattern.entry("yarn") or ""), parts=tuple(parts))


def _key(at: int, part: Written) -> str:
    return hashlib.sha256(f"{at} {part.name}".encode()).hexdigest()[:8]


def _plain(name: str) -> str:
    """A name as one printable line."""
    return "".join(c if c.isprintable() else " " for c in name).strip()[:MOST_NAME].strip() or UNTITLED


_COLOURS = ("#a9744f", "#77834b", "#e3cda4", "#5b5470", "#b5453f", "#8a9aa0")


def _yarns(said: str) -> tuple[DesignYarn, ...]:
    names: Sequence[str] = list(dict.fromkeys(_plain(n) for n in said.replace(";", ",").split(",") if n.strip()))
    return tuple(DesignYarn(name, _COLOURS[at % len(_COLOURS)], 3) for at, name in enumerate(names[:12]))
