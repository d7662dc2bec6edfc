"""A chart as SVG: one symbol a stitch, every symbol named for those who do not see it."""

from __future__ import annotations

import math
import zlib
from collections.abc import Mapping
from html import escape

from craft.document.chart.layout import Chart, Glyph, lay_out
from craft.rounds.fabric import LOOP_ORDER, WorkedPart
from craft.rounds.stitches import Loops, Sign, Terms, stitch
from craft.text.catalogue import ENGLISH, Words

UNIT = 20.0
"""Pixels of a chart unit at full size."""

_STROKE = 'fill="none" stroke="currentColor" stroke-width="0.09" stroke-linecap="round"'


def _line(*points: tuple[float, float]) -> str:
    return "M" + "L".join(f"{x:g} {y:g}" for x, y in points)


def _post(height: float, bars: int) -> str:
    """An upright with a head, and a slanted bar for every yarn over."""
    half = height / 2
    path = _line((0, half), (0, -half)) + _line((-0.3, -half), (0.3, -half))
    for i in range(bars):
        y = -half + 0.28 + 0.2 * i
        path += _line((-0.18, y + 0.1), (0.18, y - 0.1))
    return path


_PATHS: Mapping[Sign, str] = {
    Sign.CHAIN: "M-0.38 0A0.38 0.2 0 1 0 0.38 0A0.38 0.2 0 1 0 -0.38 0Z",
    Sign.CROSS: _line((-0.3, -0.3), (0.3, 0.3)) + _line((-0.3, 0.3), (0.3, -0.3)),
    Sign.REVERSE: _line((-0.3, -0.1), (0.3, 0.4)) + _line((-0.3, 0.4), (0.3, -0.1)) + "M-0.3 -0.3Q0 -0.55 0.3 -0.3",
    Sign.POST: _post(1.0, 0),
    Sign.POST1: _post(1.2, 1),
    Sign.POST2: _post(1.4, 2),
    Sign.POST3: _post(1.6, 3),
    Sign.BOBBLE: "M0 0.55Q-0.45 0 0 -0.5Q0.45 0 0 0.55" + _line((0, 0.55), (0, -0.5)) + _line((-0.25, -0.55), (0.25, -0.55)),
    Sign.PUFF: "M0 0.5Q-0.5 0 0 -0.5Q0.5 0 0 0.5Z" + _line((0, 0.5), (0, -0.5)),
    Sign.POPCORN: "M0 0.55Q-0.5 0 -0.2 -0.4M0 0.55Q0.5 0 0.2 -0.4M-0.2 -0.45A0.2 0.1 0 1 0 0.2 -0.45A0.2 0.1 0 1 0 -0.2 -0.45Z",
    Sign.PICOT: "M0 0.3A0.3 0.3 0 1 1 0.01 0.3Z",
    Sign.LOOP: _line((-0.3, -0.3), (0.3, 0.3)) + _line((-0.3, 0.3), (0.3, -0.3)) + "M-0.2 0.35A0.2 0.25 0 1 0 0.2 0.35",
    Sign.SPIKE: _line((-0.3, -0.4), (0.3, 0.1)) + _line((-0.3, 0.1), (0.3, -0.4)) + _line((0, 0), (0, 0.7)),
}  # fmt: skip

_UNDER = {
    Loops.FRONT: "M-0.3 0.5Q0 0.75 0.3 0.5",
    Loops.BACK: "M-0.3 0.62Q0 0.38 0.3 0.62",
    Loops.FRONT_POST: "M0 0.5Q0.35 0.55 0.1 0.8",
    Loops.BACK_POST: "M0 0.5Q-0.35 0.55 -0.1 0.8",
}


def _sign(sign: Sign) -> str:
    if sign is Sign.DOT:
        return '<circle r="0.14" fill="currentColor"/>'
    return f'<path d="{_PATHS[sign]}" {_STROKE}/>'


_STALK = _line((0, 0.5), (0, -0.15)) + _line((-0.2, -0.42), (0.2, -0.02)) + _line((-0.2, -0.02), (0.2, -0.42))
"""A cross on a stalk, for crosses that share a foot or a head."""


def _symbol(glyph: Glyph) -> str:
    entry = stitch(glyph.key)
    many = abs(glyph.spread)
    if many == 1:
        body = _sign(entry.sign)
    else:
        # Increases fan out from one foot; decreases are the same upside down.
        one = f'<path d="{_STALK}" {_STROKE}/>' if entry.sign is Sign.CROSS else _sign(entry.sign)
        lean = min(46.0, 120.0 / many)
        fan = "".join(f'<g transform="rotate({(i - (many - 1) / 2) * lean:.3g} 0 0.5)">{one}</g>' for i in range(many))
        body = fan if glyph.spread > 0 else f'<g transform="scale(1 -1)">{fan}</g>'
    loops = LOOP_ORDER[glyph.loops]
    under = f'<path d="{_UNDER[loops]}" {_STROKE}/>' if loops in _UNDER else ""
    return body + under


def _key_of(glyph: Glyph) -> tuple[str, int, int]:
    return glyph.key, glyph.spread, glyph.loops


def draw_chart(
    part: WorkedPart,
    palette: Mapping[str, str] | None = None,
    *,
    title: str = "",
    terms: Terms = Terms.US,
    left_handed: bool = False,
    words: Words = ENGLISH,
) -> str:
    """The chart of a worked part as an SVG document, with a legend of the symbols used, in a language.

    palette: colour by yarn name; a part of one colour is drawn in the ink of the page.
    """
    chart = lay_out(part, left_handed=left_handed)
    kinds = list(dict.fromkeys(_key_of(g) for g in chart.glyphs))
    mark = f"{zlib.crc32((title or part.name or '').encode()):x}"
    names = {kind: f"s{mark}-{i}" for i, kind in enumerate(kinds)}
    samples = {_key_of(g): g for g in chart.glyphs}
    defs = "".join(f'<g id="{names[k]}">{_symbol(samples[k])}</g>' for k in kinds)
    coloured = len(chart.colours) > 1
    uses = "".join(_use(g, names[_key_of(g)], chart, palette or {}, coloured=coloured) for g in chart.glyphs)
    labels = "".join(
        f'<text x="{x:.2f}" y="{y + 0.2:.2f}" font-size="0.62" text-anchor="middle">{escape(t)}</text>'
        for x, y, t in chart.labels
    )
    left, top, width, height = chart.box
    legend, tall = _legend(kinds, names, left, top + height, terms, words)
    height += tall
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" role="img" viewBox="{left:.2f} {top:.2f} {width:.2f} {height:.2f}" '
        f'width="{width * UNIT:.0f}" height="{height * UNIT:.0f}" font-family="sans-serif" fill="currentColor">'
        f"<title>{escape(title or part.name or 'Chart')}</title><defs>{defs}</defs>{uses}{labels}{legend}</svg>"
    )


def _use(glyph: Glyph, name: str, chart: Chart, palette: Mapping[str, str], *, coloured: bool) -> str:
    tint = palette.get(chart.colours[glyph.colour]) if coloured else None
    colour = f' color="{_dark(tint)}"' if tint else ""
    return (
        f'<use href="#{name}" data-round="{glyph.round}" data-stitch="{glyph.number}"{colour} '
        f'transform="translate({glyph.x:.2f} {glyph.y:.2f}) rotate({glyph.angle:.1f})"/>'
    )


def _dark(colour: str) -> str:
    """A yarn's colour dark enough to be read on paper."""
    r, g, b = (int(colour[i : i + 2], 16) for i in (1, 3, 5))
    light = math.sqrt(0.299 * r * r + 0.587 * g * g + 0.114 * b * b)
    share = min(1.0, 120.0 / max(light, 1.0))
    return f"#{int(r * share):02x}{int(g * share):02x}{int(b * share):02x}"


def _legend(
    kinds: list[tuple[str, int, int]],
    names: Mapping[tuple[str, int, int], str],
    left: float,
    top: float,
    terms: Terms,
    words: Words,
) -> tuple[str, float]:
    """Symbols with their names, one a line below the chart; and its height."""
    rows = []
    for i, kind in enumerate(kinds):
        y = top + 0.8 + i * 1.5
        rows.append(
            f'<use href="#{names[kind]}" transform="translate({left + 1:.2f} {y:.2f})"/>'
            f'<text x="{left + 2.2:.2f}" y="{y + 0.22:.2f}" font-size="0.7">{escape(_called(kind, terms, words))}</text>'
        )
    return "".join(rows), 0.8 + 1.5 * len(kinds)


_WHERE = {
    Loops.FRONT: "front loop",
    Loops.BACK: "back loop",
    Loops.FRONT_POST: "around the front post",
    Loops.BACK_POST: "around the back post",
}


def _called(kind: tuple[str, int, int], terms: Terms, words: Words) -> str:
    key, spread, loops = kind
    name = words.say(stitch(key).called(terms if words.language is None else Terms.US))
    if spread > 1:
        name = words.say("{stitch}, {n} in one", stitch=name, n=spread)
    elif spread < -1:
        name = words.say("{stitch}, {n} together", stitch=name, n=-spread)
    where = _WHERE.get(LOOP_ORDER[loops])
    return f"{name}, {words.say(where)}" if where else name
