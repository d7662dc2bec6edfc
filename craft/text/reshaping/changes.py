"""What can be done to rounds on the ladder, each as a change of the written text.

Rounds are named by the line on which they are written, from 1. Only lines that change are printed
anew; every other one stays as it was typed.
"""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import replace

from craft.errors import CraftError, require
from craft.problems import Span
from craft.rounds.arithmetic import MOST_ROUNDS
from craft.rounds.pattern import Colour, Instruction, Repeat, Round, Start, Way, Work
from craft.rounds.stitches import Loops, Terms
from craft.shape.drafting import Shaping, best_counts, shaped_round, shaped_rounds
from craft.text.check import Checked, check
from craft.text.notation import print_round
from craft.text.reshaping.commands import (
    Change,
    CloseEnd,
    Copy,
    Decreases,
    Divide,
    Insert,
    Joining,
    OpenEnd,
    Recolour,
    Rotate,
    Spread,
    StartOn,
    Stripes,
    Swap,
    Widen,
)
from craft.text.reshaping.stitches import mirrored_body, rotated_body
from craft.text.reshaping.stripes import colours_of, striped
from craft.text.reshaping.whole import close_end, decreases, divided, joined, open_end
from craft.text.reshaping.written import (
    Edit,
    Written,
    applied,
    index_at,
    is_plain,
    line_edit,
    plain_round,
    work_span,
    written_rounds,
)


def reshape(text: str, terms: Terms, change: Change) -> str:
    """`text` after a change; CraftError says why it cannot be made."""
    checked = check(text, terms)
    if any(p.code in ("unread", "bracket", "too-large") for p in checked.problems):
        raise CraftError("Rounds can be moved once every one of them is understood: mend the faults first.")
    rounds = written_rounds(checked)
    match change:
        case Widen():
            edits = _widen(rounds, change, terms)
        case Rotate():
            edits = _each(
                rounds, change.first, change.last, terms, lambda r: rotated_body(r.made.body, r.before, change.by)
            )
        case Spread():
            edits = _spread(rounds, change, terms)
        case Insert():
            return _insert(text, rounds, change, terms)
        case Copy():
            return _copy(text, rounds, change, terms)
        case Swap():
            last = rounds[-1].line if rounds else 0
            edits = _each(rounds, 1, last, terms, lambda r: mirrored_body(r.made.body, r.before))
        case Recolour():
            edits = _recolour(text, checked, change)
        case Decreases():
            edits = decreases(rounds, terms, invisible=change.invisible)
        case Joining():
            edits = joined(rounds, terms, join=change.join)
        case CloseEnd():
            return close_end(text, checked, rounds, terms)
        case OpenEnd():
            return open_end(text, checked, rounds, change.round)
        case StartOn():
            edits = _started(rounds, change.count, terms)
        case Stripes():
            edits = striped(text, checked, rounds, change, terms)
        case Divide():
            return divided(text, checked, rounds, change, terms)
    return applied(text, edits)


def _shaping(body: tuple[Instruction, ...]) -> Shaping:
    """How a round shapes, to be kept when it is spread anew."""
    invisible = any(w.stitch == "invdec" for w in _works(body))
    lone = body[0] if len(body) == 1 and isinstance(body[0], Repeat) else None
    ends = _works(lone.body) if lone is not None else []
    first = len(ends) > 1 and ends[0].stitch in ("inc", "dec", "invdec") and ends[-1].stitch == "sc"
    return Shaping(decrease="invdec" if invisible else "dec", first=first)


def _works(body: tuple[Instruction, ...]) -> list[Work]:
    found: list[Work] = []
    for item in body:
        if isinstance(item, Work):
            found.append(item)
        elif isinstance(item, Repeat):
            found += _works(item.body)
    return found


def _around(made: Round, before: int, after: int) -> tuple[Instruction, ...]:
    """The round from `before` to `after` stitches, with its own chain and join about it."""
    fresh = shaped_round(before, after, _shaping(made.body))
    ends = [i for i in made.body if not isinstance(i, Work | Repeat)]
    lead = tuple(i for i in ends if made.body.index(i) == 0)
    return (*lead, *fresh, *(i for i in ends if i not in lead))


def _widen(rounds: list[Written], change: Widen, terms: Terms) -> list[Edit]:
    require(1 <= change.count <= 2_000, "A round has from 1 to 2,000 stitches.", field="count")
    at = index_at(rounds, change.line)
    here = rounds[at]
    edits: list[Edit] = []
    start = next((i for i in here.made.body if isinstance(i, Start)), None)
    if start is not None:
        body = tuple(replace(i, count=change.count) if i is start else i for i in here.made.body)
        edits.append(line_edit(here, terms, body, change.count))
    else:
        edits.append(_widened(here, change.count, terms))
    if at + 1 < len(rounds) and rounds[at + 1].before:
        above = rounds[at + 1]
        goes_around = [i for i in above.made.body if isinstance(i, Repeat) and i.times is None]
        straight = above.before == above.after and above.made.repeats >= 1
        if straight and goes_around and is_plain(above):
            # A straight round that goes around stays straight: everything above keeps its counts but these.
            edits += _straight_run(rounds, at + 1, change.count, terms)
        else:
            body = _around(plain_round(above), change.count, above.after)
            edits.append(line_edit(above, terms, body, above.after))
    return edits


REGULAR = 0.7
"""How much a growing run may leave the even line for rounds that are easy to say, as drafting trades them: from 0 to 1."""


def _started(rounds: list[Written], count: int, terms: Terms) -> list[Edit]:
    """Another count at the start; the rounds that grow from it come to where they came before, in repeats as regular as
    they can be on the way: from 8 to 24 over 12 and 18."""
    first = rounds[0] if rounds else None
    if first is None or not any(isinstance(i, Start) for i in first.made.body):
        raise CraftError("Only a part that starts from a ring can start on another count.", field="count")
    require(3 <= count <= 60, "A ring starts with 3 to 60 stitches.", field="count")
    require(count != first.after, f"The part starts on {count} already.", field="count")
    run = list(itertools.takewhile(lambda w: w.after > w.before and w.made.repeats == 1 and is_plain(w), rounds[1:]))
    if not run:
        return _widen(rounds, Widen(first.line, count), terms)
    top = run[-1].after
    if count >= top:
        raise CraftError(f"The part comes to {top} stitches: it cannot start on {count}.", field="count")
    even = [count + (top - count) * (w.after - first.after) / (top - first.after) for w in (first, *run)]
    counts = best_counts(even, count, REGULAR, closed=False, last=top)
    for before, after, here in zip(counts, counts[1:], run, strict=False):
        if not before <= after <= 2 * before:
            raise CraftError(f"From {before} to {after} stitches is more than {here.made.label} can do.", field="count")
    start = tuple(replace(i, count=count) if isinstance(i, Start) else i for i in first.made.body)
    edits = [line_edit(first, terms, start, count)]
    for before, after, here in zip(counts, counts[1:], run, strict=False):
        edits.append(line_edit(here, terms, _around(here.made, before, after), after))
    return edits


def _widened(here: Written, count: int, terms: Terms) -> Edit:
    """The round spread anew; of a fold only the first round shapes, the others go straight on."""
    made = plain_round(here)
    body = _around(made, here.before, count)
    if made.repeats == 1 or made.first is None:
        return line_edit(here, terms, body, count)
    stated = count if made.count is not None else None
    first = replace(made, last=made.first, body=body, count=stated)
    rest = replace(made, first=made.first + 1, body=_around(made, count, count), count=stated)
    return Edit(Span(made.span.start, work_span(made).end), f"{print_round(first, terms)}\n{print_round(rest, terms)}")


def _straight_run(rounds: list[Written], at: int, count: int, terms: Terms) -> list[Edit]:
    """Straight rounds take over the new count; the first that shapes brings it back."""
    edits: list[Edit] = []
    for here in rounds[at:]:
        if not is_plain(here):
            break
        if here.before == here.after:
            edits.append(line_edit(here, terms, _around(here.made, count, count), count))
            continue
        body = _around(here.made, count, here.after)
        edits.append(line_edit(here, terms, body, here.after))
        break
    return edits


def _each(
    rounds: list[Written], first: int, last: int, terms: Terms, body_of: Callable[[Written], tuple[Instruction, ...]]
) -> list[Edit]:
    """Print anew every plain, shaped round between two lines whose body changes."""
    edits: list[Edit] = []
    for here in rounds:
        if not first <= here.line <= last or not here.before or not is_plain(here):
            continue
        body = body_of(here)
        if body != here.made.body:
            edits.append(line_edit(here, terms, body, here.after))
    if not edits:
        raise CraftError("There is nothing to move in these rounds.")
    return edits


def _spread(rounds: list[Written], change: Spread, terms: Terms) -> list[Edit]:
    edits: list[Edit] = []
    shifted = False
    for here in rounds:
        if not change.first <= here.line <= change.last or not here.before or not is_plain(here):
            continue
        if here.before == here.after or not -(-here.before // 2) <= here.after <= 2 * here.before:
            continue
        shaping = replace(_shaping(here.made.body), stacked=change.stacked, first=False)
        body = shaped_round(here.before, here.after, shaping, shifted=shifted and not change.stacked)
        # A round of nothing but increases has no place that the next could avoid.
        shifted = not shifted and here.after not in (2 * here.before, here.before // 2)
        edits.append(line_edit(here, terms, body, here.after))
    if not edits:
        raise CraftError("None of these rounds has increases or decreases to spread.")
    return edits


def _insert(text: str, rounds: list[Written], change: Insert, terms: Terms) -> str:
    require(1 <= change.many <= MOST_ROUNDS, "Insert from 1 to 2,000 rounds.", field="many")
    at = index_at(rounds, change.line)
    here = rounds[at]
    number = here.made.last
    if number is None:
        raise CraftError("Straight rounds go behind a round that has a number.")
    straight = Round(number + 1, number + change.many, (Repeat((Work("sc"),), None),), here.after)
    return _put(text, rounds, at, [straight], terms)


def _copy(text: str, rounds: list[Written], change: Copy, terms: Terms) -> str:
    first, last, after = (index_at(rounds, line) for line in (change.first, change.last, change.after))
    require(first <= last, "A run of rounds ends after it starts.", field="last")
    run = rounds[first : last + 1]
    here = rounds[after]
    number = here.made.last
    if number is None:
        raise CraftError("Rounds go behind a round that has a number.")
    if change.mirrored:
        made = _mirrored_run(run, here.after, number)
    else:
        made = []
        for written in run:
            plain = plain_round(written)
            require(
                written.before > 0 or not made,
                "A run that starts a piece cannot be copied into the middle of it; mirror it instead.",
                field="first",
            )
            length = plain.repeats
            made.append(replace(plain, first=number + 1, last=number + length))
            number += length
        if run[0].before != here.after:
            raise CraftError(
                f"{run[0].made.label} is worked on {run[0].before} stitches, but there are {here.after} after "
                f"{here.made.label}.",
                field="after",
            )
    return _put(text, rounds, after, made, terms)


def _mirrored_run(run: list[Written], live: int, number: int) -> list[Round]:
    """Rounds that undo the shaping of `run`, the last of it first."""
    counts: list[int] = []
    for written in run:
        counts += [written.after] * written.made.repeats
    if counts[-1] != live:
        raise CraftError(f"The run ends on {counts[-1]} stitches, but there are {live} where it should be mirrored.")
    back = counts[::-1]
    shaping = next((_shaping(w.made.body) for w in run if w.before and w.before != w.after), Shaping())
    made: list[Round] = []
    for body, (before, after) in zip(
        shaped_rounds(back, replace(shaping, first=False)), itertools.pairwise(back), strict=True
    ):
        number += 1
        above = made[-1] if made else None
        if above is not None and above.body == body and above.count == after and before == after:
            made[-1] = replace(above, last=number)
        else:
            made.append(Round(number, number, body, after, Loops.BOTH))
    if not made:
        raise CraftError("A single round has nothing to mirror.")
    return made


def _put(text: str, rounds: list[Written], at: int, made: list[Round], terms: Terms) -> str:
    """New rounds behind the round `at`; the labels behind them count on."""
    here = rounds[at]
    by = sum(r.repeats for r in made)
    edits: list[Edit] = []
    number = here.made.last
    for later in rounds[at + 1 :]:
        if later.made.first is None or later.made.way is Way.LINE:
            continue
        if number is None or later.made.first != number + 1:
            break
        number = later.made.last
        edits.append(_label_edit(text, later.made, by))
    line_end = text.find("\n", here.made.span.start)
    line_end = len(text) if line_end < 0 else line_end
    fresh = "".join(f"\n{print_round(r, terms)}" for r in made)
    edits.append(Edit(Span(line_end, line_end), fresh))
    return applied(text, edits)


def _label_edit(text: str, made: Round, by: int) -> Edit:
    """The label with its numbers raised, its own spelling kept."""
    head = text[made.span.start : made.body_span.start]
    numbers = {str(n): str(n + by) for n in (made.first, made.last, made.or_to) if n is not None}
    out, at = [], 0
    while at < len(head):
        end = at
        while end < len(head) and head[end].isdigit():
            end += 1
        if end > at:
            out.append(numbers.get(head[at:end], head[at:end]))
            at = end
        else:
            out.append(head[at])
            at += 1
    return Edit(Span(made.span.start, made.body_span.start), "".join(out))


def _recolour(text: str, checked: Checked, change: Recolour) -> list[Edit]:
    Colour(change.new)
    edits: list[Edit] = []
    for part in checked.reading.pattern.parts:
        for item in part.items:
            found = [item.span] if isinstance(item, Colour) and item.name == change.old else []
            if isinstance(item, Round):
                found = [item.within(c.span) for c in colours_of(item.body) if c.name == change.old]
            for span in found:
                said = text[span.start : span.end]
                at = said.lower().rfind(change.old.lower())
                if at >= 0:
                    start = span.start + at
                    edits.append(Edit(Span(start, start + len(change.old)), change.new))
    if not edits:
        raise CraftError(f"No round names {change.old}.", field="old")
    return edits
