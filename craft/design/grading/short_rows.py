"""Short rows at another size: as many pairs as the height asks for, turning as far round as they did."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from craft.design.grading.source import SourceRound
from craft.rounds.pattern import Chain, Instruction, Leave, Round, Turn, Work


@dataclass(frozen=True, slots=True)
class _Row:
    """One short row: what leads it in, its one stretch of stitches, what closes it."""

    lead: tuple[Instruction, ...]
    work: Work
    close: tuple[Instruction, ...]


def _row(made: Round) -> _Row | None:
    """A round as a short row; None when it is more than one stretch of plain stitches."""
    works = [k for k, i in enumerate(made.body) if isinstance(i, Work)]
    others = [i for i in made.body if not isinstance(i, Work | Turn | Leave | Chain)]
    if len(works) != 1 or others:
        return None
    at = works[0]
    work = made.body[at]
    if not isinstance(work, Work) or work.through is not None or work.stitch not in ("sc", "hdc", "dc", "slst"):
        return None
    return _Row(made.body[:at], work, made.body[at + 1 :])


def is_short(made: SourceRound) -> bool:
    """Whether a round is a short row of one plain stretch: it turns, and leaves stitches where they are."""
    turns = any(isinstance(i, Turn) for i in made.made.body)
    return turns and made.tally is not None and made.tally.held == 0 and _row(made.made) is not None and _is_part(made)


def _is_part(made: SourceRound) -> bool:
    return made.tally is not None and (made.tally.rest > 0 or made.tally.made < made.live)


def resampled_rows(rounds: Sequence[SourceRound], wanted: float, live: int) -> list[Round]:
    """A group of short rows made anew on `live` stitches: about as many as `wanted`. Pairs stay pairs."""
    rows = [r for made in rounds if (r := _row(made.made)) is not None]
    ratio = live / max(rounds[0].before, 1)
    pairs = len(rows) % 2 == 0
    many = max(2, 2 * round(wanted / 2)) if pairs else max(1, round(wanted))
    if not pairs and many % 2 == 0:
        many += 1  # it ends on the side on which it ended
    far, near = _turns([r.work.count for r in rows])
    far_at = _spread([f * ratio for f in far], (many + 1) // 2)
    near_at = _spread([n * ratio for n in near], many // 2)
    out: list[Round] = []
    at = 0
    for k in range(many):
        forth = k % 2 == 0
        to = far_at[k // 2] if forth else near_at[k // 2]
        least = 1
        count = max(least, to - at if forth else at - to)
        count = min(count, live)
        at = at + count if forth else at - count
        like = rows[_like(k, many, len(rows))]
        body = (*like.lead, replace(like.work, count=count), *like.close)
        source = rounds[_like(k, many, len(rows))].made
        out.append(replace(source, first=None, last=None, or_to=None, body=body, count=live))
    return out


def _turns(widths: Sequence[int]) -> tuple[list[int], list[int]]:
    """Stitches from the start at which rows turn on their way forth, and on their way back."""
    far: list[int] = []
    near: list[int] = []
    at = 0
    for k, wide in enumerate(widths):
        at = at + wide if k % 2 == 0 else at - wide
        (far if k % 2 == 0 else near).append(at)
    return far, near


def _spread(places: Sequence[float], many: int) -> list[int]:
    """As many turning places over the same stretch."""
    if not many:
        return []
    if len(places) == 1 or many == 1:
        return [round(places[0])] * many
    step = (places[-1] - places[0]) / (many - 1)
    return [round(places[0] + step * k) for k in range(many)]


def _like(k: int, many: int, old: int) -> int:
    """Which row of the first size a fresh one is begun and ended like: the first, the last, else one of its direction."""
    if k == 0:
        return 0
    if k == many - 1:
        return old - 1
    return min(k, old - 1) if old <= 2 else 1 + (k - 1) % 2 if 1 + (k - 1) % 2 < old else old - 1
