"""The registry: every stitch by its key, increases and decreases of any order worked out from their base.

Adding a stitch is adding one entry to `entries`; notation, fabric, yarn use, charts, word lists
and, where it can be worked around a post, its raised forms follow from it.
"""

from __future__ import annotations

from dataclasses import replace
from types import MappingProxyType

from craft.errors import CraftError
from craft.rounds.stitches.entries import CHAIN, ENTRIES
from craft.rounds.stitches.entry import Stitch, Terms

MOST_INTO_ONE = 12
"""Stitches that an increase can work into one place."""

MOST_TOGETHER = 9
"""Stitches that a decrease can work together."""

_INC_YARN = 1.0
_DEC_YARN = {2: 1.4, 3: 1.9}
_INC_LETTER = {2: "V", 3: "W"}
_DEC_LETTER = {2: "A", 3: "M"}
_SHAPED = ("sc", "hdc", "dc", "tr", "dtr")


def _abroad(base: Stitch, words: tuple[str, ...], order: str) -> tuple[str, ...]:
    """An increase or decrease in the languages in their order."""
    return tuple(
        f"{word}{order}" if base.key == "sc" else f"{of} {word}{order}"
        for word, of in zip(words, base.abroad, strict=True)
    )


def _both(base: Stitch, sentence: str) -> tuple[str, str]:
    return (sentence.format(base.us[0]), sentence.format(base.uk[0]))


def _inc_words(base: Stitch, terms: Terms, n: int) -> tuple[str, ...]:
    said = base.uk[0] if terms is Terms.UK else base.us[0]
    order = "" if n == 2 else str(n)
    if base.key != "sc":
        short = (f"{said}-inc{order}", f"{said} inc{order}", f"{said}inc{order}", f"inc{order}-{said}", f"{said}{n}inc")
        return (*short, f"{said} increase", f"{said} increases", f"{said} incs") if n == 2 else short
    plain = (f"{said}inc{order}", f"{said}-inc{order}", f"{said}{n}inc")
    if n == 2:
        return ("inc", "increase", "increases", "incs", "inc2", "2-in-1", *plain)
    if n == 3:
        return ("inc3", "triple increase", "triple inc", *plain)
    return (f"inc{n}", *plain)


def _increase(base: Stitch, n: int) -> Stitch:
    plain = base.key == "sc"
    order = "" if n == 2 else str(n)
    name = {2: "increase", 3: "double increase"}.get(n, f"increase of {n} in one")
    title = name if plain else f"{{}} {name}"
    return replace(
        base,
        key=f"inc{order}" if plain else f"{base.key}-inc{order}",
        gives=n,
        us=_inc_words(base, Terms.US, n),
        uk=_inc_words(base, Terms.UK, n),
        title=_both(base, title),
        how=_both(base, f"Work {n} {{}} into the same stitch."),
        abroad=_abroad(base, ("zun", "aug", "aum", "aum", "meerd"), order),
        letter=_INC_LETTER.get(n) if plain else None,
        yarn=base.yarn * n * _INC_YARN,
        base=base.key,
        order=n,
        postable=False,
    )


def _dec_words(base: Stitch, terms: Terms, n: int) -> tuple[str, ...]:
    said = base.uk[0] if terms is Terms.UK else base.us[0]
    together = (f"{said}{n}tog", f"{said} {n} tog", f"{said} {n} together", f"{n} {said} tog", f"{n} {said} together")
    if base.key != "sc":
        order = "" if n == 2 else str(n)
        others = (f"{said}-dec{order}", f"{said} dec{order}", f"{said}dec{order}")
        return (*together, *others, f"{said} decrease", f"{said} decs") if n == 2 else (*together, *others)
    extra = (f"{said}dec", f"{said}-dec")
    if n == 2:
        return ("dec", together[0], "decrease", "decreases", "decs", "dec2", *together[1:], *extra)
    if n == 3:
        return ("dec3", together[0], "double decrease", "triple dec", *together[1:])
    return (f"dec{n}", *together)


_LOOPS_LEFT = ("", "", "three", "four", "five", "six", "seven", "eight", "nine", "ten")


def _decrease(base: Stitch, n: int) -> Stitch:
    plain = base.key == "sc"
    order = "" if n == 2 else str(n)
    name = {2: "decrease", 3: "double decrease"}.get(n, f"decrease of {n}")
    how = (
        f"Draw up a loop in each of the next {n} stitches, yarn over, draw through all {_LOOPS_LEFT[n]} loops."
        if plain
        else f"Begin a {{}} in each of the next {n} stitches, leaving its last loop on the hook, then yarn over and draw "
        f"through all {_LOOPS_LEFT[n]} loops."
    )
    return replace(
        base,
        key=f"dec{order}" if plain else f"{base.key}-dec{order}",
        takes=n,
        us=_dec_words(base, Terms.US, n),
        uk=_dec_words(base, Terms.UK, n),
        title=_both(base, name if plain else f"{{}} {name}"),
        how=_both(base, how),
        abroad=_abroad(base, ("abn", "dim", "dism", "dim", "mind"), order),
        letter=_DEC_LETTER.get(n) if plain else None,
        yarn=base.yarn * _DEC_YARN.get(n, 0.5 + 0.45 * n),
        base=base.key,
        order=n,
        postable=False,
    )


def _entries() -> tuple[Stitch, ...]:
    basic = {entry.key: entry for entry in ENTRIES}
    shaped: list[Stitch] = []
    for key in _SHAPED:
        shaped += [_increase(basic[key], n) for n in range(2, MOST_INTO_ONE + 1)]
        shaped += [_decrease(basic[key], n) for n in range(2, MOST_TOGETHER + 1)]
    return (*ENTRIES, CHAIN, *shaped)


STITCHES: MappingProxyType[str, Stitch] = MappingProxyType({entry.key: entry for entry in _entries()})
"""Every stitch by its key, in printing order."""


def stitch(key: str) -> Stitch:
    """The registry entry of `key`; CraftError when there is none."""
    try:
        return STITCHES[key]
    except KeyError:
        raise CraftError(f"No stitch is called {key!r}.") from None


def increase_of(base: str, n: int) -> Stitch | None:
    """The entry of `n` times `base` into one place; the base itself for one; None when there is none."""
    if n == 1:
        return STITCHES.get(base)
    return next((e for e in STITCHES.values() if e.base == base and e.gives == n and e.takes == 1), None)


def decrease_of(base: str, n: int) -> Stitch | None:
    """The entry of `n` times `base` worked together, None when there is none."""
    return next(
        (e for e in STITCHES.values() if e.base == base and e.takes == n and e.gives == 1 and e.loops is None), None
    )
