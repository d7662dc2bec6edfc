"""Stitches with what is said of them: how often, into what, in which loops, together with which."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from craft.errors import CraftError
from craft.problems import Span
from craft.rounds.numbers import CARDINALS
from craft.rounds.pattern import Chain, Cluster, Edge, Onto, Repeat, Same, Skip, Start, StartKind, Work
from craft.rounds.stitches import Loops, increase_of, stitch
from craft.text.notation.marks import AndEach, IntoChain, Phrase, Qualifier


def count_in(said: Phrase) -> int | None:
    """A number inside a phrase such as 'in next 2 edge sts'; none when there is none."""
    spelt = next((CARDINALS[w] for w in said.words if w in ("two", "three")), None)
    return said.number() if said.numbers else spelt


def _into(work: Work, n: int) -> Work:
    """`n` of a stitch into one place."""
    if n == 1:
        return work
    entry = stitch(work.stitch)
    found = increase_of(work.stitch, n)
    if found is None:
        raise CraftError(f"{n} {entry.us[0]} into one stitch is not known.")
    return replace(work, stitch=found.key)


def qualified(work: Work, n: int | None, qualifiers: list[Qualifier], span: Span) -> list[Any]:
    """A stitch with its number and everything behind it."""
    before: list[Any] = []
    after: list[Any] = []
    count, work, rest = n, replace(work, span=span), []
    for qualifier in qualifiers:
        match qualifier.how:
            case "loops":
                work = replace(work, loops=qualifier.loops)
                if qualifier.name == "every" and n is None and not any(q.how in _PLACES for q in qualifiers):
                    rest.append(Qualifier("around", qualifier.span))
            case "through":
                work = replace(work, through=qualifier.name)
                if qualifier.n == 2 and qualifier.name:
                    before.append(Onto(Edge.PIECE, f"first {qualifier.name}", span=qualifier.span))
                    work = replace(work, through=f"second {qualifier.name}")
            case "onto" | "colour":
                before.append(qualifier.move)
                if qualifier.n and count is None:
                    count = qualifier.n
            case "also-each":
                after.append(AndEach(qualifier.span, qualifier.n))
            case _:
                rest.append(qualifier)
    made = _placed(work, count, rest, span)
    return [*before, *made, *after]


def _placed(work: Work, count: int | None, qualifiers: list[Qualifier], span: Span) -> list[Any]:
    """A stitch with its number, and where and how often it is worked."""
    n = count or 1
    at = next((q for q in qualifiers if q.how in _PLACES), None)
    others = [q for q in qualifiers if q is not at]
    many = next((q for q in others if q.how in ("times", "said", "more")), None)
    if at is None:
        if many is None:
            return [replace(work, count=n)]
        assert many.n is not None
        return [replace(work, count=n * many.n)]
    match at.how:
        case "ring":
            return [Start(StartKind.RING, n, work.stitch, span)]
        case "from-hook":
            return [IntoChain(at.n or 2, replace(work, count=n), span)]
        case "next":
            made: Any = _into(work, n)
        case "same":
            made = Same(work.stitch, 1, span) if n == 1 else _into(work, n)
        case "each-of":
            assert at.n is not None
            made = replace(_into(work, n), count=at.n)
        case "over":
            made = _over(work, at)
        case "space":
            return _into_space(work, n, at.n)
        case _:
            into = _into(work, n) if at.how == "each" else replace(work, count=n)
            return [Repeat((into,), None, at.n if at.how == "to-last" else None, span)]
    tail = next((q for q in others if q.how in ("around", "each", "to-last")), None)
    if tail is not None:
        return [Repeat((made,), None, tail.n if tail.how == "to-last" else None, span)]
    if many is not None and isinstance(made, Work):
        assert many.n is not None
        return [replace(made, count=made.count * many.n)]
    return [made]


_PLACES = ("space", "ring", "from-hook", "next", "same", "each-of", "over", "each", "around", "to-last")


def _into_space(work: Work, n: int, chains: int | None) -> list[Any]:
    """`n` stitches around a bridge of `chains`: as many as it has chains, one in each."""
    if chains is None or chains == n:
        return [replace(work, count=n)]
    return [Cluster((replace(work, count=n),), work.span), *([Skip(chains - 1, work.span)] if chains > 1 else [])]


def _over(work: Work, qualifier: Qualifier) -> Work:
    takes = stitch(work.stitch).takes
    below = qualifier.n or 1
    if not takes or below % takes:
        raise CraftError(
            f"{stitch(work.stitch).us[0]} takes {takes} stitch{'es' if takes != 1 else ''}, which does not divide {below}."
        )
    return replace(work, count=below // takes)


def _with_loops(item: Any, loops: Loops | None, through: str | None, second: bool) -> Any:
    if isinstance(item, Work):
        return replace(
            item,
            loops=loops if item.loops is None else item.loops,
            through=item.through if through is None else through,
        )
    if isinstance(item, Repeat | Cluster):
        return replace(item, body=tuple(_with_loops(i, loops, through, second) for i in item.body))
    return item


def grouped(body: list[Any], qualifiers: list[Qualifier], span: Span) -> list[Any]:
    """A bracket with everything behind it."""
    before: list[Any] = []
    rest: list[Qualifier] = []
    for qualifier in qualifiers:
        if qualifier.how == "loops":
            body = [_with_loops(i, qualifier.loops, None, second=False) for i in body]
        elif qualifier.how == "through":
            body = [_with_loops(i, None, qualifier.name, second=False) for i in body]
        elif qualifier.how in ("onto", "colour"):
            before.append(qualifier.move)
        elif qualifier.how != "also-each":
            rest.append(qualifier)
    at = next((q for q in rest if q.how in ("ring", "next", "same", "each-of", "each", "from-hook")), None)
    times = next((q for q in rest if q is not at), None)
    if at is not None and at.how == "ring":
        return [
            *before,
            *(Start(StartKind.RING, i.count, i.stitch, i.span) if isinstance(i, Work) else i for i in body),
        ]
    if at is not None and at.how != "from-hook":
        cluster = _cluster(body, span)
        if at.how == "each":
            return [*before, Repeat((cluster,), None, None, span)]
        if at.how == "each-of":
            return [*before, Repeat((cluster,), at.n, None, span, at.span)]
        body = [cluster]
        if times is None:
            return [*before, cluster]
    if times is not None and times.n != 1 and any(isinstance(i, Start) for i in body):
        raise CraftError("A ring is begun once, and is not repeated.")
    return [*before, repeat_of(body, times, span)]


def _cluster(body: list[Any], span: Span) -> Cluster:
    works: list[Work] = []
    for item in body:
        if isinstance(item, Chain):
            works.append(Work("ch", item.count, span=item.span))
        elif isinstance(item, Work) and stitch(item.stitch).takes <= 1:
            works.append(item)
        else:
            raise CraftError("Only stitches and chains can go into one place.")
    return Cluster(tuple(works), span)


def repeat_of(body: list[Any], times: Qualifier | None, span: Span) -> Repeat:
    """A repeat as often as `times` says; a bare bracket is worked once."""
    if times is None:
        return Repeat(tuple(body), 1, None, span)
    if times.how in ("around", "to-last"):
        return Repeat(tuple(body), None, times.n if times.how == "to-last" else None, span)
    return Repeat(tuple(body), times.n, None, span, times.span if times.how in ("times", "said") else None)
