"""A figure put together as something to be painted: its settled parts, its eyes, its face."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.spatial import cKDTree

from craft.design.anchors import MOST_ROUND
from craft.design.assembly import Assembled, eyes_placed, marks_placed, put_together
from craft.design.design import Design, EyeKind, MadeOf, Mark, Posture
from craft.design.parts import colours_of
from craft.design.running import run_parts
from craft.errors import CraftError, require
from craft.figure.body import Placed
from craft.figure.placement import Skin, Surface, hung_by
from craft.figure.render import Bead, Cloth, Look, Sheet, Side, Subject, Thread, cloth_of
from craft.figure.settling import settle

Vector = NDArray[np.float64]

PLUSH = 0.85
"""How fuzzy plush yarn is drawn, of 1."""

EMBROIDERED_MM = 1.6
EMBROIDERED, FELT, BLUSH = "#2d2621", "#7a4a3a", "#d9776b"
"""Colours of marks that have none of their own."""

BLUSH_COVERS = 0.45
"""How much of the yarn's colour brushed colour covers, of 1."""

HUNG_BY_MM = 40.0
STEP_MM = 2.0
"""A thread is laid on the fabric at points that far apart."""


def mark_colour(mark: Mark) -> str:
    """The colour that a mark is drawn in, '#rrggbb'."""
    return mark.colour or {MadeOf.FELT: FELT, MadeOf.BLUSH: BLUSH, MadeOf.THREAD: EMBROIDERED}[mark.made_of]


def settled_figure(design: Design) -> tuple[Assembled, dict[str, Skin]]:
    """A figure with every part settled that can be, put together, and its parts to be drawn from, by key."""
    parts = run_parts(design)
    surfaces: dict[str, Surface] = {}
    skins: dict[str, Skin] = {}
    for part in parts:
        worked = part.worked
        if worked is None or not part.checked.sound:
            continue
        settled = settle(worked, design.gauge_now, firmness=design.gauge.firmness)
        surface = Surface.of(settled)
        if surface.rounds > 1:
            surfaces[part.key], skins[part.key] = surface, Skin.of(part.name, settled)
    return put_together(design, parts, surfaces), skins


@dataclass(frozen=True, slots=True)
class Moment:
    """When a figure is looked at. step: key of a step of the assembly: the figure as it is then, with what that step adds
    in its own colours and all else paler. part, after: a part by its key, alone, as it is after so many rounds. Nothing:
    the finished figure."""

    step: str | None = None
    part: str | None = None
    after: int = 0

    def __post_init__(self) -> None:
        require(self.step is None or self.part is None, "A picture is of a step, or of a part.", field="step")
        require((self.part is None) == (self.after == 0), "A part is shown after a round, from 1.", field="after")
        require(0 <= self.after <= MOST_ROUND, f"There are at most {MOST_ROUND:,} rounds.", field="after")


FINISHED = Moment()


def subject_of(found: Assembled, skins: Mapping[str, Skin], moment: Moment = FINISHED) -> Subject:
    """What is painted of a figure at a moment. CraftError for a part that is not there, or not settled."""
    if moment.part is None:
        return portrait_of(found, skins, step=moment.step)
    skin = skins.get(moment.part)
    if skin is None:
        raise CraftError("This part is not settled, or gone.", field="part")
    return _stage_of(found, skin, moment)


def portrait_of(found: Assembled, skins: Mapping[str, Skin], *, step: str | None = None) -> Subject:
    """Everything that is placed and settled. skins: of the parts, by key. step: see `Moment`."""
    at = _at_step(found.design, step) if step else FINISHED_STEP
    palette = colours_of(found.design.yarns)
    plush = {y.name for y in found.design.yarns if y.plush}
    main = found.design.yarn.name if found.design.yarn else ""
    cloths: list[Cloth] = []
    hosts: dict[str, tuple[Placed, Cloth]] = {}
    for piece in found.placed:
        skin = skins.get(piece.part)
        if skin is None or at.lacks(piece):
            continue
        part = found.design.part(piece.part)
        own = (part.colour if part else None) or main
        cloth = cloth_of(skin.given_way(piece), piece.matrix, palette, fuzz=PLUSH if own in plush else 0.0)
        cloths.append(cloth if not at.new or piece.join == at.new else _paler(cloth))
        hosts.setdefault(piece.part, (piece, cloth))
    threads = [*_threads(found, hosts), *_hung(found)]
    floor = 0.0 if found.design.posture is Posture.HANGING else None
    return Subject(tuple(cloths), tuple(_beads(found, hosts)), tuple(threads), floor, tuple(_patches(found, hosts)))


def _stage_of(found: Assembled, skin: Skin, moment: Moment) -> Subject:
    """A part by itself as it is after so many rounds, as its rounds stand on each other."""
    own = found.design.part(moment.part or "")
    colour = (own.colour if own else None) or (found.design.yarn.name if found.design.yarn else "")
    plush = {y.name for y in found.design.yarns if y.plush}
    palette = colours_of(found.design.yarns)
    return Subject((cloth_of(skin.up_to(moment.after), np.eye(4), palette, fuzz=PLUSH if colour in plush else 0.0),))


def _hung(found: Assembled) -> Iterable[Thread]:
    """The thread that a hanging figure hangs by."""
    if found.design.posture is Posture.HANGING and found.placed:
        top = hung_by(found.posed, found.placed)
        up = np.array([0.0, 0.0, HUNG_BY_MM])
        yield Thread((_point(top), _point(top + up)), 1.0, "#8a7f70")


@dataclass(frozen=True, slots=True)
class _AtStep:
    """Which pieces are there at a step: none of those that a join of `later` seats, nor of the parts in `gone`. new: key of
    the join that the step makes, '' for none."""

    later: frozenset[str] = frozenset()
    gone: frozenset[str] = frozenset()
    new: str = ""

    def lacks(self, piece: Placed) -> bool:
        """Whether a piece comes only with a later step."""
        return piece.join in self.later or piece.part in self.gone


FINISHED_STEP = _AtStep()


def _at_step(design: Design, step: str) -> _AtStep:
    """A part may be put on by several steps, a pair of spines by each: its pieces come one after the other."""
    keys = [s.key for s in design.steps]
    at = keys.index(step) if step in keys else len(keys)
    later = {s.join for s in design.steps[at + 1 :] if s.join is not None}
    there = {j.part for j in design.joins if j.key not in later}
    gone = {j.part for j in design.joins if j.key in later} - there
    while more := {j for j in design.joins if j.host in gone and j.key not in later}:
        later |= {j.key for j in more}
        gone |= {j.part for j in more} - {j.part for j in design.joins if j.key not in later}
    return _AtStep(frozenset(later), frozenset(gone), (design.steps[at].join or "") if at < len(keys) else "")


_TOWARDS = 0.15
"""How far a piece has to stand towards the viewer, as cosine."""

_SEEN = 0.25
"""The share of a piece's stitches that has to lie open to the viewer, so that it is seen; of a ball it is a half."""

_CELL_MM = 7.0
"""Width of the squares in which it is asked what lies in front: more than a stitch, so that fabric has no holes."""

_BEHIND_MM = 3.0
"""By how much a stitch may lie behind the nearest one of its square and still be seen."""

VIEWS = (
    (Side.BETWEEN, 0),
    (Side.FRONT, 0),
    (Side.LEFT, 0),
    (Side.RIGHT, 0),
    (Side.BACK, 0),
    (Side.TOP, 0),
    (Side.BETWEEN, -60),
    (Side.FRONT, -60),
)
"""From where a step may be looked at, the best liked first, with degrees to add above; the last ones are from below."""


def view_of(found: Assembled, skins: Mapping[str, Skin], step: str, look: Look) -> Look:
    """From where what a step adds is seen best: as asked for, unless more of it is seen from elsewhere."""
    at_step = _at_step(found.design, step)
    new, there = at_step.new, [p for p in found.placed if p.part in skins and not at_step.lacks(p)]
    pieces = [(p.join == new, _in_scene(skins[p.part].given_way(p).x, p.matrix)) for p in there]
    if not new or not any(mine for mine, _ in pieces):
        return look

    centre = np.mean([x.mean(0) for mine, x in pieces if not mine] or [np.zeros(3)], axis=0)
    ways = [_unit(x.mean(0) - centre) for mine, x in pieces if mine]

    def seen(view: tuple[Side, int]) -> int:
        at = replace(look, side=view[0], above=look.above + view[1])
        towards = at.axes()[2]
        open_ = _shares_seen(pieces, at)
        return sum(float(way @ towards) > _TOWARDS and s > _SEEN for way, s in zip(ways, open_, strict=True))

    side, above = max(VIEWS, key=lambda v: (seen(v), -VIEWS.index(v)))
    return replace(look, side=side, above=look.above + above, shadow=look.shadow and above >= 0)


def _unit(v: Vector) -> Vector:
    out: Vector = v / max(float(np.linalg.norm(v)), 1e-9)
    return out


def _shares_seen(pieces: Sequence[tuple[bool, Vector]], look: Look) -> list[float]:
    """How much of each piece marked lies open to the viewer: the share of its stitches with nothing before them."""
    right, up, towards = look.axes()
    nearest: dict[tuple[int, int], float] = {}
    squares = [np.floor(np.stack([x @ right, x @ up], axis=1) / _CELL_MM).astype(int) for _, x in pieces]
    depths = [x @ towards for _, x in pieces]
    for square, depth in zip(squares, depths, strict=True):
        for at, near in zip(map(tuple, square.tolist()), depth.tolist(), strict=True):
            nearest[at] = max(nearest.get(at, near), near)
    return [
        float(np.mean([z > nearest[at] - _BEHIND_MM for at, z in zip(map(tuple, q.tolist()), d.tolist(), strict=True)]))
        for (mine, _), q, d in zip(pieces, squares, depths, strict=True)
        if mine
    ]


PALER = 0.62
"""How far towards the paper's colour everything goes that a step does not add."""

_PAPER = np.array([246, 241, 230])


def _paler(cloth: Cloth) -> Cloth:
    rgb, shade = ((own * (1 - PALER) + _PAPER * PALER).astype(np.uint8) for own in (cloth.rgb, cloth.shade))
    return replace(cloth, rgb=rgb, shade=shade)


def _in_scene(points: Vector, matrix: Vector) -> Vector:
    out: Vector = points @ matrix[:3, :3].T + matrix[:3, 3]
    return out


def _beads(found: Assembled, hosts: Mapping[str, tuple[Placed, Cloth]]) -> Iterable[Bead]:
    eyes = eyes_placed(found) if found.design.eyes.kind is not EyeKind.NONE else None
    if eyes is None or eyes.part not in hosts or not eyes.points:
        return
    matrix = hosts[eyes.part][0].matrix
    for point, out in zip(eyes.points, eyes.out, strict=True):
        at = _in_scene(np.array(point), matrix)
        way = matrix[:3, :3] @ np.array(out)
        yield Bead(_point(at), _point(way), eyes.eye_mm)


def _threads(found: Assembled, hosts: Mapping[str, tuple[Placed, Cloth]]) -> Iterable[Thread]:
    for placed in marks_placed(found):
        host = hosts.get(placed.mark.place.on)
        if host is None or placed.mark.covers:
            continue
        piece, cloth = host
        points = [_in_scene(np.array(p), piece.matrix) for p in placed.points]
        ends = [_in_scene(np.array(p), piece.matrix) for p in placed.ends]
        for at, point in enumerate(points):
            line = [point, ends[at]] if at < len(ends) else [point]
            colour = placed.mark.colour or EMBROIDERED
            yield Thread(tuple(_point(p) for p in _laid(line, cloth)), EMBROIDERED_MM, colour)


def _patches(found: Assembled, hosts: Mapping[str, tuple[Placed, Cloth]]) -> Iterable[Sheet]:
    """Felt, satin stitch and brushed colour, on every piece's first."""
    for placed in marks_placed(found):
        host = hosts.get(placed.mark.place.on)
        for patch in placed.patches if host is not None else ():
            assert host is not None
            matrix = host[0].matrix
            colour = mark_colour(placed.mark)
            veil = BLUSH_COVERS if placed.mark.made_of is MadeOf.BLUSH else 1.0
            yield Sheet(_in_scene(patch.points, matrix), patch.out @ matrix[:3, :3].T, patch.triangles, colour, veil)


def _laid(line: list[Vector], cloth: Cloth) -> Vector:
    """A straight line laid onto the fabric: every point of it moved onto the nearest stitch's plane, a little above."""
    if len(line) > 1:
        many = max(3, int(np.linalg.norm(line[1] - line[0]) / STEP_MM) + 1)
        share = np.linspace(0, 1, many)[:, None]
        points = line[0] * (1 - share) + line[1] * share
    else:
        points = np.array(line)
    _, at = cKDTree(cloth.x).query(points)
    normal = cloth.facing[at]
    above = np.einsum("ij,ij->i", points - cloth.x[at], normal)[:, None]
    out: Vector = points - (above - EMBROIDERED_MM * 0.6) * normal
    return out


def _point(v: Vector) -> tuple[float, float, float]:
    return float(v[0]), float(v[1]), float(v[2])
