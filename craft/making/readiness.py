"""What testing still leaves open before a release, worked out and not typed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from craft.making.happenings import Remark
from craft.making.learned import Learned, Quantity
from craft.making.remarks import OTHERWISE, Group
from craft.making.worksheet import Worksheet

WISHED_OFF = 0.12
"""A figure that testers make so much higher or lower than predicted is not the one that the booklet promises."""

_SAID = {
    Remark.UNCLEAR.value: ("says unclear", "say unclear"),
    Remark.WRONG_COUNT.value: ("says that the count is wrong", "say that the count is wrong"),
    OTHERWISE: ("did otherwise", "did otherwise"),
}
"""What one, or several, say or did."""


@dataclass(frozen=True, slots=True)
class Open:
    """Something that testing leaves open. code: what kind of thing; blocks: whether a release should wait for it."""

    code: str
    told: str
    blocks: bool
    part: str = ""
    round: int = 0


def left_open(
    sheet: Worksheet,
    groups: Iterable[Group],
    answered: Mapping[str, int],
    sizes: Sequence[str],
    tested: Sequence[str],
    found: Iterable[Learned],
) -> Iterator[Open]:
    """Everything. groups: of remarks. answered: how many remarks of a group, by its key, have an answer. sizes: names of those
    that the design offers; tested: in which somebody finished one. found: what was measured."""
    for group in groups:
        waiting = len(group.said) - answered.get(group.key, 0)
        if group.asks and waiting > 0:
            alone, several = _SAID[group.what]
            told = f"{group.testers} testers {several}" if group.testers > 1 else f"{group.said[0].by} {alone}"
            yield Open("remark", f"{group.place}: {told}; not answered yet.", True, group.part, group.round)
    for name in sizes:
        if name not in tested:
            yield Open("untested-size", f"Nobody has made the size {name} yet.", False)
    for one in found:
        if one.quantity is Quantity.HEIGHT and one.ratio is not None and abs(one.ratio - 1) > WISHED_OFF:
            off = f"{abs(one.ratio - 1):.0%} {'higher' if one.ratio > 1 else 'lower'}"
            yield Open(
                "height",
                f"{one.makers} makers' figures are {off} than the {sheet.height_mm / 10:.1f} cm it says.",
                True,
            )
