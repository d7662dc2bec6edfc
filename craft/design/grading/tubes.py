"""Plain rounds at another size: counts anew, shaping where it lay, every look and motif at its place."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from craft.design.grading.bands import Band, Look, bands_at, bands_of, sampled, shared_out
from craft.design.grading.painting import Motif, Paint, paint_of, painted, takes_and_gives, with_motifs
from craft.design.grading.repeating import AT_DISTANCE, Repeated, at_distance, repeats_upward, tiled
from craft.design.grading.report import State
from craft.design.grading.shaping import bodies, is_flat, manner_of, shaped_in
from craft.design.grading.source import SourceRound, lead_and_close
from craft.errors import CraftError
from craft.rounds.pattern import Colour, Instruction, Repeat, Round, Start, Work
from craft.rounds.unrolled import gathered, written_out
from craft.shape.drafting import Shaping, best_counts

Vector = NDArray[np.float64]

KEEP_SHAPE = 0.6
"""Simplicity of resampled counts: her shape counts for more than easy rounds."""

KEEP_STEPS = 0.35
"""The same for rounds that are shaped at places of their own, which no repeat makes easier."""

LEAST_RING, MOST_RING = 5, 9
"""Stitches of a ring that a tube goes straight on from: fewer are fiddly, more leave a hole."""

MOST_EXTRA = 0.35
"""By how large a share a segment may be longer or shorter for the sake of rounds beside it that stay single."""


@dataclass(frozen=True, slots=True)
class Wish:
    """What a segment has to come to. scale: of its size. before: stitches it goes on from, 0 from a ring.

    last: stitches at its end, None where any will do; multiple: of what they are. closed: it is drawn shut at its end.
    start: stitches of the part's first round. extra: rounds more or fewer, for those beside it that stay single. apart:
    motifs and colours that repeat keep their distance instead of their number.
    """

    scale: float
    before: int
    start: int
    last: int | None = None
    multiple: int = 1
    closed: bool = False
    extra: float = 0.0
    apart: bool = False


@dataclass(frozen=True, slots=True)
class Tube:
    """Fresh rounds in place of a segment's. at: where each lies among those of the first size, 1 at the top of the first.

    rows: (state, kind, before, after, why) of what did not simply stay. colour: on the hook at the end.
    """

    rounds: tuple[Round, ...]
    counts: tuple[int, ...]
    at: tuple[float, ...]
    rows: tuple[tuple[State, str, str, str, str], ...]
    colour: str


def resampled(rounds: Sequence[SourceRound], wish: Wish, colour: str) -> Tube:
    """A segment of plain rounds made anew. colour: on the hook before it. From a ring, its first round is the start,
    which stays as it is.

    CraftError when it cannot be worked in any way.
    """
    ring = not wish.before
    counts = [r.live for r in rounds]
    if _stays(rounds, wish):
        kept = tuple(replace(r.made, first=None, last=None) for r in rounds)
        return Tube(
            kept, tuple(counts), tuple(float(k + 1) for k in range(len(rounds))), (), _colour_after(rounds, colour)
        )
    paints = [paint_of(r, k) for k, r in enumerate(rounds)]
    bands = bands_of([_look(r, paint) for r, (paint, _) in zip(rounds, paints, strict=True)])
    many = shared_out(bands, _rounds_wanted(rounds, wish, bands))
    at = sampled(bands, many)
    true = wish.scale * np.interp(at, np.arange(len(counts) + 1), [0 if ring else rounds[0].before, *counts])
    fresh = _counts(true, wish, rounds)
    shaping = manner_of(tuple(rounds))
    fresh_bodies = bodies(fresh, list(at) if ring else [0.0, *at], rounds, shaping)
    fresh_bands = bands_at(bands, many)
    lead: list[Round] = []
    if ring:
        lead, fresh_bands = [_started(rounds[0].made, fresh[0])], fresh_bands[1:]
    found = _found([m for _, seen in paints for m in seen], at[len(lead) :], counts, fresh[1:], apart=wish.apart)
    made, rows, colour = _looks(
        rounds, paints, fresh_bands, at[len(lead) :], fresh, fresh_bodies, shaping, colour, found
    )
    rows += found.rows
    rows += [
        (State.LOST, "band", _band_words(b, rounds), "", "There are too few rounds for it at this size.")
        for b, n in zip(bands, many, strict=True)
        if not n
    ]
    every = tuple(fresh) if ring else tuple(fresh[1:])
    return Tube((*lead, *made), every, tuple(float(t) for t in at), tuple(rows), colour)


def _started(made: Round, count: int) -> Round:
    """A ring's round on so many stitches."""
    body = tuple(replace(i, count=count) if isinstance(i, Start) else i for i in made.body)
    return replace(made, first=None, last=None, body=body, count=made.count and count)


def _stays(rounds: Sequence[SourceRound], wish: Wish) -> bool:
    """Whether the rounds are as they have to be already."""
    fits = wish.last in (None, rounds[-1].live) and rounds[-1].live % wish.multiple == 0
    return wish.scale == 1 and fits and wish.before == (0 if rounds[0].begins else rounds[0].before)


def _colour_after(rounds: Sequence[SourceRound], colour: str) -> str:
    for made in rounds:
        colour = next((c for c in reversed(paint_of(made, 0)[0].colours)), colour)
    return colour


def _look(made: SourceRound, paint: Paint) -> Look:
    colours = set(paint.colours)
    return Look(paint.fabric, made.made.loops, colours.pop() if len(colours) == 1 else "", made.made.joined)


def _band_words(band: Band, rounds: Sequence[SourceRound]) -> str:
    first, last = rounds[band.first].made.label, rounds[band.last].made.label
    return first if first == last else f"{first}-{last}"


def _rounds_wanted(rounds: Sequence[SourceRound], wish: Wish, bands: Sequence[Band]) -> int:
    """How many rounds the segment has: its height in proportion, ridges once."""
    heights = [1.0 if r.tally is None else r.tally.height for r in rounds]
    ridges = [sum(heights[b.first : b.last + 1]) for b in bands if b.ridge]
    rest = [h for b in bands if not b.ridge for h in heights[b.first : b.last + 1]]
    if not rest:
        return len(ridges)
    tall = wish.scale * (sum(heights) + (1 if wish.closed else 0)) - (1 if wish.closed else 0) - sum(ridges)
    extra = min(max(wish.extra, -MOST_EXTRA * tall), MOST_EXTRA * tall)
    many = (tall + extra) / (sum(rest) / len(rest))
    return len(ridges) + max(1, math.floor(many + 1e-6) if wish.closed else round(many))


def _counts(true: Vector, wish: Wish, rounds: Sequence[SourceRound]) -> list[int]:
    """Stitches before the segment and after each of its rounds."""
    start = max(3, min(60, wish.start))
    wanted = [float(t) for t in true] if not wish.before else [float(wish.before), *(float(t) for t in true)]
    first = wish.before or rounds[0].live
    straight = all(r.live == r.before for r in rounds[0 if wish.before else 1 :])
    if straight and not wish.before:
        return _from_ring(first, wish, len(wanted))
    if straight and wish.last is None and wish.multiple == 1:
        return [first] * len(wanted)
    last = wish.last
    if last is None and wish.closed and rounds[-1].live <= 2 * wish.start:
        last = rounds[-1].live
    if last is None and wish.multiple > 1:
        last = max(wish.multiple, wish.multiple * round(wanted[-1] / wish.multiple))
    if len(wanted) == 1:
        return [first]
    if is_flat(rounds):
        return [first, *(max(1, round(t)) for t in wanted[1:-1]), last or max(1, round(wanted[-1]))]
    if len(wanted) == 2 and last is not None:
        return _stepped(first, last if wish.last is not None else _within_reach(first, last, wish.multiple))
    placed = any(shaped_in(r).places for r in rounds)
    simplicity = KEEP_STEPS if placed else KEEP_SHAPE
    return list(best_counts(wanted, start, simplicity, closed=False, first=first, last=last))


def _from_ring(start: int, wish: Wish, many: int) -> list[int]:
    """Counts of a straight tube from a ring, such as a limb: as wide as it has to be from its first round on, or from
    the next ones where a ring would gape."""
    wanted = wish.last or max(min(start, LEAST_RING), round(start * wish.scale))
    wanted += -wanted % wish.multiple
    found = [wanted if wanted <= MOST_RING else start]
    while len(found) < many:
        found.append(min(wanted, 2 * found[-1]))
    return found


def _within_reach(before: int, last: int, multiple: int) -> int:
    """The count nearest to `last` that one round comes to: 17 close on 9 where 16 closed on 8."""
    least, most = -(-before // 2), 2 * before
    least += -least % multiple
    return min(max(last, least), max(most - most % multiple, least))


def _stepped(before: int, last: int) -> list[int]:
    if not before <= 2 * last <= 4 * before:
        raise CraftError(f"{before} stitches do not come to {last} in one round.", field="scale")
    return [before, last]


# --- looks ------------------------------------------------------------------------------------------


def _looks(
    rounds: Sequence[SourceRound],
    paints: Sequence[tuple[Paint, tuple[Motif, ...]]],
    bands: Sequence[Band],
    at: Vector,
    counts: Sequence[int],
    bodies: Sequence[tuple[Instruction, ...]],
    shaping: Shaping,
    colour: str,
    found: Repeated,
) -> tuple[list[Round], list[tuple[State, str, str, str, str]], str]:
    """The fresh rounds with stitches, loops, colours and motifs as they were; colour: on the hook."""
    motifs = found.motifs
    made: list[Round] = []
    again, rows = _upward(bands, paints) if found.apart else ({}, [])
    for k, (band, body) in enumerate(zip(bands, bodies, strict=True)):
        old = again.get(k, _nearest(band, float(at[k])))
        source, paint = rounds[old], paints[old][0]
        if found.apart:
            paint, wider = tiled(paint, source.live, counts[k + 1])
            rows += [wider] if wider is not None and wider not in rows else []
        back = source.tally is not None and source.tally.flat and bool(k % 2) != (not rounds[0].tally.front)  # type: ignore[union-attr]
        stitches, colour = _dressed(body, counts[k], paint, shaping, colour, plain=paint.plain and not motifs[k])
        if motifs[k]:
            stitches, homeless = with_motifs(stitches, motifs[k])
            rows += [
                (State.LOST, m.what.stitch, rounds[m.at].made.label, "", "There is no plain stitch left in its round.")
                for m in homeless
            ]
        if back:
            stitches = stitches[::-1]
        lead, close = lead_and_close(_edge_row(rounds, k, len(bands), source).made.body)
        made.append(_round(source, (*lead, *_said(stitches), *close), counts[k + 1], band.look.loops))
    return made, rows, colour


def _upward(
    bands: Sequence[Band], paints: Sequence[tuple[Paint, tuple[Motif, ...]]]
) -> tuple[dict[int, int], list[tuple[State, str, str, str, str]]]:
    """Fresh rounds of pictures that repeat upwards, each with the old one that it looks like; and the report's rows."""
    looks: dict[int, int] = {}
    rows: list[tuple[State, str, str, str, str]] = []
    for band, run in itertools.groupby(range(len(bands)), key=lambda k: bands[k]):
        fresh = list(run)
        one = repeats_upward([paint for paint, _ in paints[band.first : band.last + 1]])
        if not one or len(fresh) == band.many:
            continue
        looks |= {k: band.first + j % one for j, k in enumerate(fresh)}
        was, now = f"{band.many / one:.3g} times", f"{len(fresh) / one:.3g} times"
        rows.append((State.CHANGED, "colours upwards", was, now, AT_DISTANCE))
    return looks, rows


def _edge_row(rounds: Sequence[SourceRound], k: int, many: int, source: SourceRound) -> SourceRound:
    """The row that a fresh one is begun and ended like: the first and the last like theirs, others like any between."""
    if k == 0:
        return rounds[0]
    if k == many - 1:
        return rounds[-1]
    inner = rounds[1:-1] or rounds[:1]
    return source if source in inner else inner[0]


def _nearest(band: Band, t: float) -> int:
    """The round of the first size that a fresh one looks like, within its band."""
    return min(max(int(np.ceil(t - 1e-9)) - 1, band.first), band.last)


def _found(
    motifs: Sequence[Motif], at: Vector, before: Sequence[int], after: Sequence[int], *, apart: bool
) -> Repeated:
    """The motifs of every fresh round: each in the round nearest to its own, or repeated at the distance they had."""
    if apart:
        return at_distance(motifs, at, before, after)
    found: list[list[Motif]] = [[] for _ in at]
    for motif in motifs:
        found[int(np.argmin(np.abs(at - (motif.at + 1))))].append(motif)
    return Repeated(tuple(map(tuple, found)), ())


def _dressed(
    body: tuple[Instruction, ...], before: int, paint: Paint, shaping: Shaping, colour: str, *, plain: bool
) -> tuple[list[Instruction], str]:
    """A body of single crochet in a round's look."""
    if plain and paint.bases[0] == "sc" and paint.loops[0] is None:
        change = [Colour(paint.colours[0])] if paint.colours[0] != colour else []
        return [*change, *body], paint.colours[0]
    ops = [gives - takes for takes, gives in map(takes_and_gives, written_out(body, before))]
    return painted(ops, paint, colour, shaping.decrease)


def _said(stitches: Sequence[Instruction]) -> tuple[Instruction, ...]:
    """Stitches in the fewest words; a round of one stitch goes around."""
    if any(isinstance(i, Repeat) for i in stitches):
        return tuple(stitches)
    lead = 1 if stitches and isinstance(stitches[0], Colour) else 0
    rest = stitches[lead:]
    alone = rest[0] if rest else None
    if isinstance(alone, Work) and takes_and_gives(alone) == (1, 1) and all(i == alone for i in rest):
        return (*stitches[:lead], Repeat((alone,), None))
    return (*stitches[:lead], *gathered(rest))


def _round(source: SourceRound, body: tuple[Instruction, ...], count: int, loops: object) -> Round:
    return replace(source.made, first=None, last=None, or_to=None, body=body, count=count)
