"""Charts of a whole pattern on one sheet."""

from __future__ import annotations

import re

from craft.document.chart.draw import draw_chart
from craft.errors import CraftError
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Pattern
from craft.rounds.stitches import Terms


def chart_sheet(pattern: Pattern, worked: tuple[WorkedPart, ...], terms: Terms, *, left: bool = False) -> str:
    """The charts of all parts, one below the other, as one SVG document; CraftError when there is no round."""
    drawn = [
        draw_chart(run, title=part.name or "Chart", terms=terms, left_handed=left)
        for part, run in zip(pattern.parts, worked, strict=True)
        if run.rounds
    ]
    if not drawn:
        raise CraftError("There is no round to chart.")
    if len(drawn) == 1:
        return drawn[0] + "\n"
    sizes = [re.search(r'width="(\d+)" height="(\d+)"', d) for d in drawn]
    pairs = [(int(m.group(1)), int(m.group(2))) for m in sizes if m]
    y = 0
    placed: list[str] = []
    for svg, (_, height) in zip(drawn, pairs, strict=True):
        placed.append(svg.replace("<svg ", f'<svg y="{y}" ', 1))
        y += height + 40
    width = max(w for w, _ in pairs)
    return f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{y}">{"".join(placed)}</svg>\n'
