"""Pictures of parts: two laid over each other, and one that goes on as another."""

from __future__ import annotations

from django.contrib.auth.models import User

from craft.design.design import Design as DesignValue
from craft.design.parts import colours_of
from craft.design.remix import compared
from craft.figure.body import body_of
from craft.figure.picture import draw, draw_faces
from craft.figure.placement import laid_over, place
from craft.rounds.fabric import WorkedPart
from studio.bases.schemas import LaidOverAll, LaidOverOut
from studio.bench.scenes import staged_value


def shapes_apart(user: User, a: DesignValue, b: DesignValue) -> LaidOverAll:
    """Every part that both have, as it is in `b` and coloured by how far it lies outside `a`, as far as they are settled;
    those that are not are put in line."""
    found = compared(a, b)
    was, now = staged_value(user, found.a, ask=True), staged_value(user, found.b, ask=True)
    rows = []
    for part in found.parts:
        jobs = was.jobs.get(part.key), now.jobs.get(part.key)
        if None in jobs or jobs[0] == jobs[1]:
            continue
        one, two = was.skin(part.key), now.skin(part.key)
        if one is None or two is None:
            continue
        over = laid_over(two, one, found.a.gauge_now.stitch_mm / 3)
        title = f"{part.name}, coloured by how far it lies outside the other"
        rows.append(
            LaidOverOut(
                key=part.key,
                name=part.name,
                picture=draw_faces([over.faces()], title=title),
                reach_mm=over.reach,
                out_mm=over.out_mm,
                in_mm=over.in_mm,
                usual_mm=over.usual_mm,
            )
        )
    return LaidOverAll(under_way=was.under_way + now.under_way, parts=rows)


MOST_FACES = 2_500
"""Stitches drawn of a part that is only looked at beside another."""


def part_picture(worked: WorkedPart, design: DesignValue, title: str) -> str:
    """A part as it is estimated at a design's gauge, in SVG."""
    bodies = {"part": body_of(worked, design.gauge_now)}
    return draw(bodies, place(bodies, {}, ()), colours_of(design.yarns), title=title, most_faces=MOST_FACES)
