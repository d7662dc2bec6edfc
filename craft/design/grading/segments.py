"""Where a part's segments lie: which rounds go by which rule, and what is worked on the end of one."""

from __future__ import annotations

from functools import lru_cache

from craft.design.grading.painting import main_base
from craft.design.grading.short_rows import is_short
from craft.design.grading.source import SourcePart, SourceRound
from craft.rounds.arithmetic import sum_of
from craft.rounds.pattern import (
    Chain,
    Colour,
    Edge,
    FromHook,
    Join,
    Onto,
    Repeat,
    Round,
    Section,
    Skip,
    Start,
    Step,
    StepKind,
    Work,
)

_SHAPING = ("inc", "dec", "invdec", "inc3", "hdc-inc", "hdc-dec", "dc-inc", "dc-dec")


def is_ring(here: SourceRound) -> bool:
    """Whether a round is a start into a ring and nothing else."""
    return here.begins and any(isinstance(i, Start) for i in here.made.body) and len(here.made.body) == 1


def is_patterned(here: SourceRound) -> bool:
    """Whether a round is a pattern of different stitches, which comes again by distance and not by angle."""
    keys = [i.stitch for i in here.stitches() if isinstance(i, Work)]
    main = main_base(here)
    other = sum((k != main and k not in _SHAPING) for k in keys)
    return bool(keys) and other * 3 >= len(keys) and len(set(keys)) > 2


@lru_cache(maxsize=4_096)
def is_tube(here: SourceRound) -> bool:
    """Whether a round is resampled with those beside it."""
    return (here.plain and not is_patterned(here)) or is_ring(here)


def tube_end(source: SourcePart, at: int) -> int:
    """Where the plain rounds that begin at an item end, words between them included."""
    end, flat = at, None
    for k in range(at, len(source.items)):
        here = source.rounds.get(k)
        if here is None:
            if isinstance(source.items[k], Section):
                break
            continue
        is_flat = here.tally is not None and here.tally.flat
        begins_anew = k > at and is_ring(here)
        if not is_tube(here) or begins_anew or (flat is not None and flat != is_flat):
            break
        end, flat = k + 1, is_flat
    return max(end, at + 1)


def short_end(source: SourcePart, at: int) -> int:
    """Where the short rows that begin at an item end."""
    while at in source.rounds and is_short(source.rounds[at]):
        at += 1
    return at


def next_round(source: SourcePart, at: int) -> SourceRound | None:
    """The first round from an item on, None when none is left."""
    return next((source.rounds[k] for k in range(at, len(source.items)) if k in source.rounds), None)


def closes(source: SourcePart, end: int) -> bool:
    """Whether the opening is drawn together behind an item, before anything else is worked."""
    for item in source.items[end:]:
        if isinstance(item, Round | Section):
            return False
        if isinstance(item, Step) and item.kind is StepKind.CLOSE:
            return True
    return False


def multiple_for(after: SourceRound | None) -> int:
    """What the stitches under a round must be a multiple of, for what is worked on them."""
    if after is None or after.begins:
        return 1
    body = [i for i in after.made.body if not isinstance(i, Chain | Join)]
    if any(isinstance(i, Work) and i.through == "" and 2 * i.count == after.before for i in body):
        return 2
    if len(body) == 1 and isinstance(body[0], Repeat) and is_patterned(after):
        return max(1, sum_of(body[0].body).takes)
    if any(isinstance(i, Skip) and 2 * i.count == after.before for i in body):
        return 2
    return 1


def is_only_chain(here: SourceRound) -> bool:
    """Whether a line is a starting chain."""
    return any(isinstance(i, Chain) for i in here.made.body) and all(
        isinstance(i, Chain | Join | Colour) for i in here.made.body
    )


def turning_chains(source: SourcePart, here: SourceRound) -> int:
    """How many of a starting chain's stitches only turn: those before the one that the next round begins in."""
    at = next(k for k, made in source.rounds.items() if made is here)
    after = next_round(source, at + 1)
    hook = next((i for i in after.made.body if isinstance(i, FromHook)), None) if after is not None else None
    return 0 if hook is None else hook.nth - 1


def kind_of(here: SourceRound) -> str:
    """What a round that is more than plain is, in a word or two; empty for what needs no name."""
    body = here.made.body
    if any(isinstance(i, Work) and i.through for i in body):
        return "limbs worked in"
    if any(isinstance(i, Work) and i.through == "" for i in body):
        return "fold"
    if any(isinstance(i, Onto) and i.edge is Edge.PIECE for i in body):
        return "pieces taken in"
    if any(isinstance(i, Onto) and i.edge is Edge.FREE for i in body):
        return "free loops"
    if here.tally is not None and here.tally.held:
        return "split"
    if any(isinstance(i, FromHook) for i in body):
        return "start along a chain"
    return ""
