"""The face, face on, on its grid of stitches: eyes and marks with the stitches counted between them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from html import escape

from craft.design.design import Design, EyeKind
from craft.rounds.fabric import WorkedPart
from craft.text.catalogue import ENGLISH, Words

CELL = 18.0
"""Pixels of a stitch in the diagram, and of a round."""

MARGIN_ROUNDS, MARGIN_STITCHES = 3, 3
MOST_ACROSS, MOST_UP = 40, 34

_INK, _LINE = "#2d2621", "#b9ab97"


@dataclass(frozen=True, slots=True)
class _Spot:
    """Something of the face: its name, where it is (stitches to the viewer's left of the middle, rounds from 0), whether it
    is an eye."""

    name: str
    stitch: float
    round: float
    eye: bool = False


@dataclass(frozen=True, slots=True)
class FaceDiagram:
    """The diagram as SVG, what it shows in words, and what is printed below it."""

    svg: str
    alt: str
    caption: str


def face_diagram(design: Design, worked: Mapping[str, WorkedPart], words: Words = ENGLISH) -> FaceDiagram | None:
    """The face of a figure on its stitches; None where neither eyes nor marks have a place, or they are far apart."""
    on = _on(design)
    run = worked.get(on or "")
    if run is None:
        return None
    spots = _spots(design, on or "", worked)
    if not spots:
        return None
    top = max(s.round for s in spots)
    low = min(s.round for s in spots)
    counts = [t.live for t in run.rounds if t.live > 0]
    first, last = max(1, int(low) - MARGIN_ROUNDS), min(len(counts), int(top + 1) + MARGIN_ROUNDS)
    half = int(max(abs(s.stitch) for s in spots)) + MARGIN_STITCHES
    if 2 * half > MOST_ACROSS or last - first > MOST_UP:
        return None
    labels = [words.label(t.label) for t in run.rounds if t.live > 0]
    svg = _svg(spots, labels, counts, first, last, half, words)
    return FaceDiagram(svg, _said(design, run, spots, labels, words), _caption(spots, run, words))


def _on(design: Design) -> str | None:
    """The part that has the face: that of the eyes, else of most marks."""
    if design.eyes.kind is not EyeKind.NONE and design.eyes.place is not None:
        return design.eyes.place.on
    places = [m.place.on for m in design.marks]
    return max(places, key=places.count) if places else None


def _spots(design: Design, on: str, worked: Mapping[str, WorkedPart]) -> list[_Spot]:
    found = []
    eyes = design.eyes
    if eyes.kind is not EyeKind.NONE and eyes.place is not None and eyes.place.on == on:
        away = eyes.between / 2  # through the holes at either end of the stitches between
        at = float(eyes.place.now(worked).round)  # on the line above that round
        found += [_Spot("eye", side * away, at, eye=True) for side in (1, -1)]
    for mark in design.marks:
        for place in (mark.place, mark.to):
            if place is None or place.on != on:
                continue
            now = place.now(worked)
            sides = (1, -1) if mark.paired and now.stitch else (1,)
            found += [_Spot(mark.name or "mark", side * now.stitch, now.round - 0.5) for side in sides]
    return found


def _svg(
    spots: list[_Spot], labels: list[str], counts: list[int], first: int, last: int, half: int, words: Words
) -> str:
    """The grid from above: the later round stands higher, the viewer's left is left."""
    odd = any(s.eye and s.stitch % 1 for s in spots)
    left, rows, columns = 74.0, last - first + 1, 2 * half + odd
    width, height = left + columns * CELL + 46, rows * CELL + 40
    parts = []
    for row in range(rows):
        number = last - row
        y = row * CELL + 8
        parts += [
            f'<rect x="{left + column * CELL:g}" y="{y:g}" width="{CELL:g}" height="{CELL:g}" fill="none" '
            f'stroke="{_LINE}" stroke-width=".6"/>'
            for column in range(columns)
        ]
        parts.append(_word(left - 6, y + CELL * 0.7, labels[number - 1], "end"))
        parts.append(_word(left + columns * CELL + 6, y + CELL * 0.7, f"[{counts[number - 1]}]", "start"))
    middle = left + columns * CELL / 2
    bottom = rows * CELL + 8
    parts.append(
        f'<line x1="{middle:g}" y1="2" x2="{middle:g}" y2="{bottom + 6:g}" stroke="{_INK}" stroke-dasharray="4 3"/>'
    )
    parts.append(_word(middle, bottom + 22, words.say("front middle"), "middle"))
    for spot in spots:
        x, y = middle - spot.stitch * CELL, 8 + (last - spot.round) * CELL
        radius = CELL * (0.42 if spot.eye else 0.24)
        parts.append(f'<circle cx="{x:g}" cy="{y:g}" r="{radius:g}" fill="{_INK}"/>')
        if not spot.eye:
            parts.append(_word(x, y - 6, spot.name, "middle"))
    parts += _between(spots, middle, last)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}" width="{width:g}" height="{height:g}" '
        f'font-family="Work, sans-serif" font-size="11">{"".join(parts)}</svg>'
    )


def _between(spots: list[_Spot], middle: float, last: int) -> list[str]:
    """Numbers on the stitches that stay visible between the eyes."""
    eyes = [s for s in spots if s.eye]
    if len(eyes) < 2:
        return []
    many = round(eyes[0].stitch - eyes[1].stitch)
    y = 8 + (last - eyes[0].round) * CELL + CELL * 0.72
    start = middle - eyes[0].stitch * CELL + CELL / 2
    return [_word(start + i * CELL, y, str(i + 1), "middle") for i in range(many)]


def _word(x: float, y: float, text: str, anchor: str) -> str:
    return f'<text x="{x:g}" y="{y:g}" text-anchor="{anchor}" fill="{_INK}">{escape(text)}</text>'


def _said(design: Design, run: WorkedPart, spots: list[_Spot], labels: list[str], words: Words) -> str:
    told = []
    eyes = [s for s in spots if s.eye]
    if eyes:
        below = labels[min(int(eyes[0].round), len(labels)) - 1]
        gap = words.many("{n} stitch", "{n} stitches", design.eyes.between)
        told.append(words.say("the eyes above {below} with {gap} between", below=below, gap=gap))
    for name in dict.fromkeys(s.name for s in spots if not s.eye):
        places = ", ".join(f"{labels[int(s.round)]}, {_side(s.stitch, words)}" for s in spots if s.name == name)
        told.append(words.say("{name} at {places}", name=name, places=places))
    return words.say(
        "{part} on its stitches: {places}.", part=run.name or words.say("The figure"), places="; ".join(told)
    )


def _caption(spots: list[_Spot], run: WorkedPart, words: Words) -> str:
    if any(s.eye for s in spots):
        return words.say("The face on its stitches, as you look at it")
    return words.say("{part} on its stitches, as you look at it", part=run.name or words.say("The figure"))


def _side(stitch: float, words: Words) -> str:
    if not stitch:
        return words.say("in the middle")
    return words.say("{n} to the left" if stitch > 0 else "{n} to the right", n=f"{abs(stitch):g}")
