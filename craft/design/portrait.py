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
        settled = settle(worked, design.gauge_of(part.key), firmness=design.gauge.firmness)
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


_HALF = 0.5
"""The share of a round piece that anybody sees at once."""

_AS_GOOD = 0.7
"""A view that is liked better is taken where it shows as large a share of what the best one shows."""

_CELL_MM = 2.5
"""Width of the squares in which it is asked what lies in front; every stitch is asked at more places than it has squares."""

_ASKED = 4
"""Places across a stitch, and up it, at which it is asked."""

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
    pieces = [(p.join == new, _fabric(skins[p.part].given_way(p), p.matrix)) for p in there]
    if not new or not any(mine for mine, _ in pieces):
        return look

    def seen(view: tuple[Side, int]) -> float:
        shares = _shares_seen(pieces, replace(look, side=view[0], above=look.above + view[1]))
        return float(np.mean([min(share, _HALF) for share in shares]))

    shown = {view: seen(view) for view in VIEWS}
    side, above = next(view for view in VIEWS if shown[view] >= _AS_GOOD * max(shown.values()))
    return replace(look, side=side, above=look.above + above, shadow=look.shadow and above >= 0)


Fabric = tuple[Vector, Vector]
"""Places on the stitches of a piece, (n, 3) in mm, and the directions in which its fabric looks out there."""


def _fabric(skin: Skin, matrix: Vector) -> Fabric:
    faces = skin.faces(matrix, {})
    at = (np.arange(_ASKED) + 0.5) / _ASKED
    across, up = (grid.ravel()[None, :, None] for grid in np.meshgrid(at, at))
    low_left, low_right, high_right, high_left = (faces.corners[:, None, k] for k in range(4))
    low, high = (a + (b - a) * across for a, b in ((low_left, low_right), (high_left, high_right)))
    places = (low + (high - low) * up).reshape(-1, 3)
    return places, np.repeat(faces.outward, _ASKED * _ASKED, axis=0)


def _shares_seen(pieces: Sequence[tuple[bool, Fabric]], look: Look) -> list[float]:
    """How much of each piece marked lies open to the viewer: the share of its fabric that looks at her with nothing
    before it."""
    right, up, towards = look.axes()
    every = np.concatenate([x for _, (x, _) in pieces])
    squares = np.floor(np.stack([every @ right, every @ up], axis=1) / _CELL_MM).astype(np.int64)
    squares -= squares.min(0)
    square = squares[:, 0] * (squares[:, 1].max() + 1) + squares[:, 1]
    depth = every @ towards
    nearest = np.full(int(square.max()) + 1, -np.inf)
    np.maximum.at(nearest, square, depth)
    facing = np.concatenate([out for _, (_, out) in pieces]) @ towards > 0
    seen = facing & (depth > nearest[square] - _CELL_MM)
    ends = np.cumsum([len(x) for _, (x, _) in pieces])
    return [float(part.mean()) for (mine, _), part in zip(pieces, np.split(seen, ends[:-1]), strict=True) if mine]


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
