"""Anchors: how everything with a place is kept, so that it stays where it is when rounds change.

A place is said in rounds and stitches, and kept as a share of the fabric's length and an angle from the front.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from craft.errors import require
from craft.figure.placement import round_and_stitch, share_and_angle
from craft.rounds.fabric import WorkedPart

MOST_ROUND = 2_000
"""The highest round, and the most stitches from the front, that a place may name."""


@dataclass(frozen=True, slots=True)
class Anchor:
    """A place on a part's surface. share: of the fabric's length, 0 to 1. angle: degrees from the front, in working
    direction."""

    share: float
    angle: float = 0.0

    def __post_init__(self) -> None:
        require(0 <= self.share <= 1, "A place lies between the start of a part and its end.", field="share")
        require(abs(self.angle) <= 3_600, "An angle is given in degrees.", field="angle")


@dataclass(frozen=True, slots=True)
class PlaceNow:
    """A place in the rounds as they are now. moved: they say it otherwise than when it was set."""

    round: int
    stitch: float
    moved: bool


@dataclass(frozen=True, slots=True)
class Place:
    """A place on the part with the key `on`: as it was last said in rounds, and where that is kept on the surface.

    round: from 1. stitch: from the front middle, negative to the viewer's right. anchor: None until the part has
    rounds to keep it by.
    """

    on: str
    round: int
    stitch: float = 0.0
    anchor: Anchor | None = None

    def __post_init__(self) -> None:
        require(1 <= self.round <= MOST_ROUND, f"A place is on a round from 1 to {MOST_ROUND:,}.", field="round")
        require(abs(self.stitch) <= MOST_ROUND, "A place lies within the round.", field="stitch")

    def anchored(self, before: Place | None, worked: Mapping[str, WorkedPart]) -> Place:
        """The place with its anchor: that of `before` while it says the same, else taken from the rounds now."""
        if self.on not in worked:
            return replace(self, anchor=None)
        if before is not None and before.anchor is not None and before.said == self.said:
            return replace(self, anchor=before.anchor)
        return replace(self, anchor=Anchor(*share_and_angle(*round_sizes(worked[self.on]), self.round, self.stitch)))

    @property
    def said(self) -> tuple[str, int, float]:
        """What it says, without where that is kept."""
        return self.on, self.round, self.stitch

    def now(self, worked: Mapping[str, WorkedPart]) -> PlaceNow:
        """Where the place is in the rounds as they are; half stitches are the finest that is said."""
        if self.anchor is None or self.on not in worked:
            return PlaceNow(self.round, self.stitch, moved=False)
        counts, heights = round_sizes(worked[self.on])
        at, stitch = round_and_stitch(counts, heights, self.anchor.share, self.anchor.angle)
        if min(self.round, len(counts)) == at and abs(stitch - self.stitch) < 1:
            return PlaceNow(at, self.stitch, moved=False)
        return PlaceNow(at, round(stitch * 2) / 2, moved=True)

    def resaid(self, worked: Mapping[str, WorkedPart]) -> Place:
        """The same place, said in the rounds as they are now."""
        now = self.now(worked)
        return replace(self, round=min(max(now.round, 1), MOST_ROUND), stitch=now.stitch)


def round_sizes(worked: WorkedPart) -> tuple[list[int], list[float]]:
    """Live stitches and heights of the rounds that have stitches."""
    shown = [t for t in worked.rounds if t.live > 0]
    return [t.live for t in shown], [t.height for t in shown]
