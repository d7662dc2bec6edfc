"""A figure in the mirror, for whoever works with the left hand: every place on the other side."""

from __future__ import annotations

from dataclasses import replace

from craft.design.anchors import Place
from craft.design.design import Design, Hand


def mirrored(design: Design) -> Design:
    """The same figure with left and right exchanged in all places; its rounds and words stay as they are."""
    return replace(
        design,
        hand=Hand.LEFT if design.hand is Hand.RIGHT else Hand.RIGHT,
        joins=tuple(
            replace(j, place=None if j.place is None else _across(j.place), turn=-j.turn) for j in design.joins
        ),
        marks=tuple(
            replace(m, place=_across(m.place), to=None if m.to is None else _across(m.to)) for m in design.marks
        ),
        steps=tuple(replace(s, place=None if s.place is None else _across(s.place)) for s in design.steps),
    )


def _across(place: Place) -> Place:
    anchor = None if place.anchor is None else replace(place.anchor, angle=-place.anchor.angle)
    return replace(place, stitch=-place.stitch, anchor=anchor)
