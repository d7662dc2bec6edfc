"""From single readings to instructions that belong together: rings, loops for a whole round, 'and in each'."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from craft.problems import Span
from craft.rounds.pattern import (
    Chain,
    Cluster,
    Colour,
    Edge,
    FromHook,
    Instruction,
    Onto,
    Repeat,
    Same,
    Spur,
    Start,
    StartKind,
    Turn,
    Unread,
    Work,
)
from craft.rounds.stitches import Loops, increase_of, stitch
from craft.text.notation.marks import AndEach, BareRing, IntoChain, LoopsFrom, StarRepeat


@dataclass(frozen=True, slots=True)
class BodyProblem:
    """A problem inside a body; `span` counts from the body's first code point."""

    code: str
    message: str
    span: Span
    insert: tuple[int, int, str, str] | None = None


def finish(found: Sequence[Any], text: str) -> tuple[tuple[Any, ...], Loops, list[BodyProblem]]:
    """Settle what one body can settle by itself; a chain's role waits for what is on the hook."""
    problems: list[BodyProblem] = []
    items, loops = _with_loops(list(found))
    return tuple(_joined(items, text, problems)), loops, problems


# --- loops --------------------------------------------------------------------------------


def _mentions(items: Sequence[Any]) -> int:
    many = 0
    for item in items:
        if isinstance(item, LoopsFrom) or (
            isinstance(item, Work) and item.loops in (Loops.FRONT, Loops.BACK, Loops.BOTH)
        ):
            many += 1
        elif isinstance(item, Repeat | Cluster | StarRepeat):
            many += _mentions(item.body)
    return many


_BEFORE = (Chain, Turn, Colour, Onto)


def _with_loops(items: list[Any]) -> tuple[list[Any], Loops]:
    """The items with every word about loops settled on them, and the loops of the whole round."""
    whole = Loops.BOTH
    first = next((i for i, item in enumerate(items) if not isinstance(item, _BEFORE)), None)
    lead = items[first] if first is not None else None
    if first is not None and isinstance(lead, LoopsFrom) and (lead.apart or _mentions(items) == 1):
        whole = lead.loops
        items = items[:first] + items[first + 1 :]
    return lifted(_spread(items), whole)


def lifted(items: Sequence[Any], whole: Loops) -> tuple[list[Any], Loops]:
    """Loops that all stitches of a round name one by one, said once for the round."""
    shared = _shared(items)
    if whole is Loops.BOTH and shared in (Loops.FRONT, Loops.BACK):
        return [_cleared(i) for i in items], shared
    return list(items), whole


def _spread(items: Sequence[Any]) -> list[Any]:
    """Words about loops put on the stitches they stand before."""
    out: list[Any] = []
    for_rest: Loops | None = None
    for_next: Loops | None = None
    for item in items:
        if isinstance(item, LoopsFrom):
            if item.apart:
                for_rest = item.loops
            else:
                for_next = item.loops
            continue
        inner = (
            replace(item, body=tuple(_spread(item.body))) if isinstance(item, Repeat | StarRepeat | Cluster) else item
        )
        said = for_next or for_rest
        out.append(_looped(inner, said) if said is not None else inner)
        if not isinstance(item, Colour | Onto):
            for_next = None
    return out


def _looped(item: Any, loops: Loops) -> Any:
    if isinstance(item, Work) and item.loops is None:
        return replace(item, loops=loops)
    if isinstance(item, Repeat | Cluster | StarRepeat):
        return replace(item, body=tuple(_looped(i, loops) for i in item.body))
    return item


def _shared(items: Sequence[Any]) -> Loops | None:
    """The loops that every stitch has, None when they differ or there is none."""
    found: set[Loops | None] = set()
    _collect(items, found)
    return found.pop() if len(found) == 1 else None


def _collect(items: Sequence[Any], found: set[Loops | None]) -> None:
    for item in items:
        if isinstance(item, Work) and stitch(item.stitch).loops is None and item.stitch != "ch":
            found.add(item.loops)
        elif isinstance(item, Repeat | Cluster | StarRepeat):
            _collect(item.body, found)


def _cleared(item: Any) -> Any:
    if isinstance(item, Work):
        return replace(item, loops=None)
    if isinstance(item, Repeat | Cluster | StarRepeat):
        return replace(item, body=tuple(_cleared(i) for i in item.body))
    return item


# --- rings, 'and in each', 'in the same' ----------------------------------------------------


def _joined(items: Sequence[Any], text: str, problems: list[BodyProblem]) -> list[Any]:
    out: list[Any] = []
    ring: BareRing | None = None
    for i, item in enumerate(items):
        after = items[i + 1] if i + 1 < len(items) else None
        if isinstance(item, Repeat | StarRepeat):
            out.append(replace(item, body=tuple(_joined(item.body, text, problems))))
        elif isinstance(item, BareRing):
            follows = next((x for x in items[i + 1 :] if not isinstance(x, Chain | Colour | Turn)), after)
            if isinstance(follows, Start):
                continue
            if not (isinstance(follows, Work) and stitch(follows.stitch).change == 0 and stitch(follows.stitch).takes):
                problems.append(BodyProblem("unread", "How many stitches go into the ring?", item.span))
                out.append(Unread(text[item.span.start : item.span.end], item.span))
            else:
                ring = item
        elif ring is not None and isinstance(item, Work) and _plain(item):
            out.append(Start(StartKind.RING, item.count, item.stitch, Span(ring.span.start, item.span.end)))
        elif isinstance(item, AndEach):
            out += _and_each(out, item, problems)
        elif isinstance(item, Same) and out and isinstance(out[-1], Same) and out[-1].stitch == item.stitch:
            out[-1] = replace(out[-1], count=out[-1].count + item.count)
        else:
            out.append(item)
    return out


def _plain(item: Work) -> bool:
    entry = stitch(item.stitch)
    return entry.change == 0 and entry.takes == 1


def _and_each(out: list[Any], item: AndEach, problems: list[BodyProblem]) -> list[Any]:
    above = out[-1] if out else None
    if isinstance(above, IntoChain) and above.work is not None:
        one = _as_work(above)
        if item.n is not None:
            return [replace(one, count=item.n, span=item.span)]
        return [Repeat((replace(one, count=1),), None, None, item.span)]
    if isinstance(above, Work) and item.n is not None:
        return [replace(above, count=item.n, span=item.span)]
    if isinstance(above, Work):
        return [Repeat((replace(above, count=1),), None, None, item.span)]
    problems.append(BodyProblem("unread", "'In each' has no stitch before it to work again.", item.span))
    return [Unread("in each", item.span)]


def _as_work(item: IntoChain) -> Work:
    """The stitch that so many into one chain are."""
    assert item.work is not None
    found = increase_of(item.work.stitch, item.work.count)
    key = found.key if found else item.work.stitch
    return replace(item.work, stitch=key, count=1)


# --- chains, once it is known what is on the hook -------------------------------------------


def settle_chains(
    body: Sequence[Any], *, live: bool, pending: int, sideways: bool
) -> tuple[list[Any], BodyProblem | None]:
    """Settle what work 'in the 2nd chain from the hook' is: a start, a first row, or a spur.

    live: something is on the hook. pending: length of a chain made on the line before, 0 for none.
    sideways: the round is a row that hangs on the edge.
    """
    out: list[Any] = []
    at = 0
    items = list(body)
    while at < len(items):
        item = items[at]
        if isinstance(item, Repeat | StarRepeat):
            inner, problem = settle_chains(item.body, live=True, pending=0, sideways=False)
            if problem is not None:
                return items, problem
            out.append(replace(item, body=tuple(inner)))
        elif isinstance(item, IntoChain):
            chain = out[-1] if out and isinstance(out[-1], Chain) else None
            if chain is not None and live and not sideways:
                spur, used, problem = _spur(chain, item, items[at + 1 :])
                if problem is not None:
                    return items, problem
                out[-1] = spur
                at += used
            else:
                out = _first_along(out, item, live=live, pending=pending)
        else:
            out.append(item)
        at += 1
    return out, None


def _first_along(out: list[Any], item: IntoChain, *, live: bool, pending: int) -> list[Any]:
    chain = next((i for i in out if isinstance(i, Chain)), None)
    many = chain.count if chain is not None else pending
    if item.work is not None and item.nth == 2 and many in (0, 2) and not (live and many == 0):
        kept = [i for i in out if i is not chain]
        return [*kept, Start(StartKind.CHAIN2, item.work.count, item.work.stitch, item.span)]
    more = [_as_work(item)] if item.work is not None else []
    return [*out, FromHook(item.nth, item.span), *more]


def _spur(chain: Chain, item: IntoChain, after: Sequence[Any]) -> tuple[Any, int, BodyProblem | None]:
    """A chain off the edge and its way back; how many of the items `after` belong to it."""
    room = chain.count - item.nth + 1
    body: list[Instruction] = [_as_work(item)] if item.work is not None else []
    left = room - sum(_takes(i) for i in body)
    used = 0
    for more in after:
        if left <= 0:
            break
        body.append(more)
        used += 1
        if isinstance(more, Repeat) and more.times is None:
            left = 0
        else:
            left -= _takes(more)
    span = Span(chain.span.start, (body[-1].span if body else item.span).end)
    if left or not body or room < 1:
        said = f"The chain of {chain.count} has {max(room, 0)} to work along, which these stitches do not use exactly."
        return chain, 0, BodyProblem("spur", said, span)
    return Spur(chain.count, item.nth, tuple(body), span), used, None


def _takes(item: Any) -> int:
    match item:
        case Work():
            return stitch(item.stitch).takes * item.count
        case Repeat():
            return sum(_takes(i) for i in item.body) * (item.times or 1)
        case Cluster():
            return 1
        case _:
            return 0


def is_sideways(body: Sequence[Any]) -> bool:
    """Whether a row hangs on the edge of a piece."""
    return any(
        (isinstance(i, Onto) and i.edge is Edge.BASE) or (isinstance(i, Repeat) and is_sideways(i.body)) for i in body
    )
