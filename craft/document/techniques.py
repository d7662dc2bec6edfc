"""How the tricky starts and closes of a figure look, drawn from its own counts: the ring, an oval along a chain, pieces
joined by chains, the last stitches drawn together.

Numbers and arrows alone stand in the drawings, so that they read in any language. What they show is common practice,
no source: a ring is closed by its tail, a last round through its front loops, which lie outward.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from craft.document.chart import draw_chart
from craft.rounds.fabric import WorkedPart, run_pattern
from craft.rounds.pattern import Chain, Edge, Instruction, Onto, Part, Pattern, Round, Start, StartKind, Way, Work
from craft.rounds.stitches import Terms
from craft.text.catalogue import ENGLISH, Words

MOST_DRAWN = 12
"""Stitches of a ring that are drawn one by one."""

OVAL_ROUNDS = 2
"""Rounds of an oval's start that are drawn."""

PIECES = 2
"""Pieces that are joined in a drawing, with what lies between them."""

LEAST_CLOSED = 3
"""Stitches of a last round that is drawn together as a ring."""

_INK, _PALE, _TAIL = "#2d2621", "#b9ab97", "#9c5a2c"
_STROKE = 'fill="none" stroke-linecap="round" stroke-linejoin="round"'
Point = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Technique:
    """A drawing as SVG, what it shows in words, and what is printed below it."""

    svg: str
    alt: str
    caption: str


def techniques_of(
    parts: Sequence[tuple[Part, WorkedPart]], terms: Terms = Terms.US, words: Words = ENGLISH, *, left: bool = False
) -> tuple[Technique, ...]:
    """The drawings that parts with their rounds need, each once; none for a way of starting that none of them has.

    left: for the left hand, in the mirror.
    """
    return (*_rings(parts, words, left=left), *_ovals(parts, terms, words, left=left), *_joined(parts, words, left=left),
            *_closes(parts, words, left=left))  # fmt: skip


# --- the ring -----------------------------------------------------------------------------


def _rings(parts: Sequence[tuple[Part, WorkedPart]], words: Words, *, left: bool) -> Iterator[Technique]:
    """The ring that most parts begin with."""
    counts = Counter(start.count for part, _ in parts for start in _starts(part) if start.count <= MOST_DRAWN)
    if not counts:
        return
    n = max(counts, key=lambda k: (counts[k], k))
    ring = [_around(30, 12 + 336 * k / 40, left=left) for k in range(41)]
    tail = [ring[-1], _around(36, 356, left=left), _around(62, 372, left=left)]
    drawn = [
        _path(ring, _TAIL, 3.0),
        _path(tail, _TAIL, 3.0),
        _arrow(tail[-2], tail[-1], _TAIL),
        *(_cross(_around(46, 30 + 330 * k / n, left=left)) for k in range(n)),
        *(_number(_around(64, 30 + 330 * k / n, left=left), k + 1) for k in range(n)),
    ]
    caption = words.say("The ring: the first stitches go around the loop; then its tail draws the hole closed.")
    yield Technique(_svg(drawn, 84, 84), caption, caption)


def _starts(part: Part) -> Iterator[Start]:
    """The rings of a part; two chains in a ring's place are none."""
    rounds = (item for item in part.items if isinstance(item, Round))
    return (i for made in rounds for i in made.body if isinstance(i, Start) and i.start is StartKind.RING)


# --- an oval along a chain ----------------------------------------------------------------


def _ovals(parts: Sequence[tuple[Part, WorkedPart]], terms: Terms, words: Words, *, left: bool) -> Iterator[Technique]:
    """The first part that begins along both sides of a chain."""
    for part, worked in parts:
        rounds = [item for item in part.items if isinstance(item, Round)]
        if len(rounds) < OVAL_ROUNDS or not _is_chain(rounds[0]) or not _along_chain(rounds[1].body):
            continue
        begun = replace(part, items=(rounds[0], *rounds[1 : OVAL_ROUNDS + 1]))
        (run,), _ = run_pattern(Pattern((begun,), (), Terms.US))
        caption = words.say("{part} begins along both sides of a chain.", part=worked.name or words.say("Part"))
        yield Technique(draw_chart(run, title=caption, terms=terms, left_handed=left, words=words), caption, caption)
        return


def _is_chain(made: Round) -> bool:
    return made.way is Way.LINE and len(made.body) == 1 and isinstance(made.body[0], Chain)


def _along_chain(body: Sequence[Instruction]) -> bool:
    return any(isinstance(i, Onto) and i.edge is Edge.CHAIN for i in body)


# --- pieces joined by chains --------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class _Stretch:
    """Stitches along one edge of a round that joins pieces: a piece's, or the chain's."""

    edge: Edge
    count: int


def _joined(parts: Sequence[tuple[Part, WorkedPart]], words: Words, *, left: bool) -> Iterator[Technique]:
    """The first round that is worked around two pieces and the chains between them."""
    for part, _ in parts:
        for made in part.items:
            if not isinstance(made, Round):
                continue
            stretches = _stretches(made.body)
            pieces = [s.count for s in stretches if s.edge is Edge.PIECE]
            if len(pieces) != PIECES:
                continue
            label = words.label(f"R{made.first}") if made.first is not None else words.say("the first round")
            order = ", ".join(str(s.count) for s in stretches)
            caption = words.say(
                "A round around both pieces, in the order of the arrow: {order} ({part}, {round}).",
                round=label, part=part.name or words.say("Part"), order=order,
            )  # fmt: skip
            yield Technique(_svg(_two_pieces(stretches, left=left), 150, 70), caption, caption)
            return


def _stretches(body: Sequence[Instruction]) -> list[_Stretch]:
    found: list[_Stretch] = []
    edge = Edge.MAIN
    for item in body:
        if isinstance(item, Onto):
            edge = item.edge
            found.append(_Stretch(edge, 0))
        elif isinstance(item, Work) and found and edge in (Edge.PIECE, Edge.CHAIN):
            found[-1] = _Stretch(edge, found[-1].count + item.count)
    return [s for s in found if s.count]


def _two_pieces(stretches: Sequence[_Stretch], *, left: bool) -> list[str]:
    """Two rings seen from above with the chain between them, the way of the round outside, its counts beside it."""
    apart, wide = 82.0, 40.0
    flip = -1.0 if left else 1.0
    chained = any(s.edge is Edge.CHAIN for s in stretches)
    rings = [_circle((flip * x, 0), wide - 8, _PALE) for x in (-apart, apart)]
    links = [_oval((flip * x, 0)) for x in (-32, 0, 32)] if chained else []
    way = _way_around(apart, wide, flip)
    pieces = [s.count for s in stretches if s.edge is Edge.PIECE]
    chains = [s.count for s in stretches if s.edge is Edge.CHAIN]
    numbers = [_number((-flip * apart, 4), pieces[0]), _number((flip * apart, 4), pieces[-1])]
    numbers += [_number((0, 4 + (-1) ** k * 24), n) for k, n in enumerate(chains[:2])]
    return [*rings, *links, _path(way, _TAIL, 2.4), _arrow(way[-2], way[-1], _TAIL), *numbers]


def _way_around(apart: float, wide: float, flip: float) -> list[Point]:
    """Around the first piece, along the chain, around the second, back along the chain; it begins at the chain's end."""

    def arc(x: float, start: int, end: int) -> list[Point]:
        turns = [math.radians(start + (end - start) * k / 24) for k in range(25)]
        return [(flip * (x + wide * math.cos(a)), wide * math.sin(a)) for a in turns]

    back = (flip * (14 - apart + wide), -wide * math.sin(math.radians(20)))
    return [*arc(-apart, -20, -340), *arc(apart, 160, -160), back]


# --- the last round -----------------------------------------------------------------------


def _closes(parts: Sequence[tuple[Part, WorkedPart]], words: Words, *, left: bool) -> Iterator[Technique]:
    """The last stitches of parts that are drawn together: as many as most of them have."""
    lasts = [w.rounds[-1].live for _, w in parts if w.closed and w.rounds]
    counts = Counter(n for n in lasts if LEAST_CLOSED <= n <= MOST_DRAWN)
    if not counts:
        return
    n = max(counts, key=lambda k: (counts[k], k))
    drawn: list[str] = []
    thread: list[Point] = [_around(8, 0, left=left)]
    for k in range(n):
        at = 360 * k / n
        drawn += [_loop(at, n, 44, _INK, left=left), _loop(at, n, 34, _PALE, left=left)]
        drawn.append(_number(_around(66, at, left=left), k + 1))
        thread += [_around(30, at - 120 / n, left=left), _around(52, at + 60 / n, left=left)]
    thread += [_around(30, 360 - 90 / n, left=left), (0.0, 0.0)]
    drawn += [_path(thread, _TAIL, 2.2), _arrow(thread[-2], thread[-1], _TAIL)]
    caption = words.say(
        "The end: the tail goes through the front loop, the outer one, of each of the last {n} stitches; then it is drawn tight.",
        n=n,
    )
    yield Technique(_svg(drawn, 84, 84), caption, caption)


# --- lines --------------------------------------------------------------------------------


def _around(radius: float, degrees: float, *, left: bool) -> Point:
    """A point around the middle, from the top; against the clock for the right hand, as she works."""
    a = math.radians(degrees)
    return (radius * math.sin(a) * (1 if left else -1), -radius * math.cos(a))


def _path(points: Sequence[Point], colour: str, wide: float) -> str:
    told = "L".join(f"{x:.1f} {y:.1f}" for x, y in points)
    return f'<path d="M{told}" {_STROKE} stroke="{colour}" stroke-width="{wide:g}"/>'


def _arrow(before: Point, at: Point, colour: str) -> str:
    a = math.atan2(at[1] - before[1], at[0] - before[0])
    ends = [(at[0] - 9 * math.cos(a + t), at[1] - 9 * math.sin(a + t)) for t in (0.45, -0.45)]
    return _path([ends[0], at, ends[1]], colour, 2.4)


def _cross(at: Point) -> str:
    x, y = at
    return f'<path d="M{x - 5:.1f} {y - 5:.1f}l10 10m0 -10l-10 10" {_STROKE} stroke="{_INK}" stroke-width="1.8"/>'


def _circle(at: Point, radius: float, colour: str) -> str:
    return f'<circle cx="{at[0]:.1f}" cy="{at[1]:.1f}" r="{radius:g}" {_STROKE} stroke="{colour}" stroke-width="5"/>'


def _oval(at: Point) -> str:
    return f'<ellipse cx="{at[0]:.1f}" cy="{at[1]:.1f}" rx="14" ry="6" {_STROKE} stroke="{_PALE}" stroke-width="3"/>'


def _loop(degrees: float, many: int, radius: float, colour: str, *, left: bool) -> str:
    """A loop of a stitch's top, along its round."""
    half = 150 / many
    points = [
        _around(radius + 4 * math.sin(math.pi * k / 8), degrees - half + half * k / 4, left=left) for k in range(9)
    ]
    return _path(points, colour, 3.2)


def _number(at: Point, n: int) -> str:
    return f'<text x="{at[0]:.1f}" y="{at[1] + 4:.1f}" font-size="11" text-anchor="middle" fill="{_INK}">{n}</text>'


def _svg(drawn: Sequence[str], half_wide: float, half_tall: float) -> str:
    box = f"{-half_wide:g} {-half_tall:g} {2 * half_wide:g} {2 * half_tall:g}"
    size = f'width="{2 * half_wide:g}" height="{2 * half_tall:g}"'
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" role="img" viewBox="{box}" {size} '
        f'font-family="Work, sans-serif">{"".join(drawn)}</svg>'
    )
