"""A design put together as its screens show it: parts settled by jobs, the rest by the craft's own assembly."""

from __future__ import annotations

import json
from base64 import b64decode, b64encode
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import numpy as np
from django.contrib.auth.models import User

from craft.design.assembly import (
    Assembled,
    MarkPlaced,
    centre_of,
    eyes_placed,
    marks_placed,
    proposed_eyes,
    put_together,
)
from craft.design.design import Design as DesignValue
from craft.design.design import EyeKind, MadeOf, Posture
from craft.design.parts import Part, colours_of
from craft.design.portrait import BLUSH_COVERS, mark_colour
from craft.design.running import others_of, run_parts
from craft.design.seating import estimated_figure, seats_of
from craft.design.steps import loose_parts, order_of_work, steps_now
from craft.errors import CraftError
from craft.figure.body import Placed
from craft.figure.picture import Faces, draw, draw_faces
from craft.figure.placement import Foot, Skin, Surface, balance, eye_faces
from craft.figure.settling import Flap, Limb, Mesh, mesh_file
from craft.rounds.fabric import MAIN_COLOUR
from studio.bench import figures, previews
from studio.bench.scene_schemas import (
    BalanceOut,
    CentreOut,
    EyesGuess,
    EyesOut,
    GivesWay,
    LoosePart,
    MarkOut,
    PatchOut,
    PlacedOut,
    SceneOut,
    SettledPart,
    StepPlace,
)
from studio.designs.models import Design
from studio.designs.policy import revision_of
from studio.designs.reading import design_value, revision_value
from studio.errors import Refusal
from studio.jobs.actions import answer_of
from studio.jobs.models import Job, State
from studio.jobs.shown import job_shown


def settling_of(design: DesignValue, part: Part) -> figures.Settling:
    """What settles a part of a design."""
    return figures.Settling(
        part.text,
        design.terms.value,
        design.yarn_names,
        part.colour or MAIN_COLOUR,
        others_of(design.parts, part.key),
        design.gauge_of(part.key),
        design.gauge.firmness,
    )


def settle_version(user: User, design: Design, key: str, number: int) -> Job:
    """The job that settles a part as it was in an earlier revision of its design."""
    value = revision_value(revision_of(design, number))
    part = value.part(key)
    if part is None:
        raise Refusal(404, "not-found", "That part was not there yet.")
    job = figures.ask(user, settling_of(value, part))
    if job is None:
        raise CraftError("There was no round to settle yet.")
    return job


def _array(text: str, kind: str) -> np.ndarray[Any, np.dtype[Any]]:
    return np.frombuffer(b64decode(text), kind)


def _settled(job: Job) -> dict[str, Any]:
    """The settled part that a job answered."""
    settled: dict[str, Any] = json.loads(answer_of(job))["settled"]
    return settled


@lru_cache(maxsize=128)
def _surface(job: int, used: str, foot: Foot) -> Surface | None:
    """The surface of a job's answer. used: tells one answer of a job from a later one."""
    del used
    found = Job.objects.filter(pk=job, state=State.DONE).first()
    return None if found is None else surface_of(_settled(found), foot=foot)


@lru_cache(maxsize=64)
def _skin(job: int, used: str, name: str) -> Skin | None:
    """What a job's answer is drawn and written from."""
    del used
    found = Job.objects.filter(pk=job, state=State.DONE).first()
    if found is None:
        return None
    answer = _settled(found)
    return Skin(
        name,
        _array(answer["frames"][-1], "<i2").reshape(-1, 3) * answer["scale"],
        _array(answer["below"], "<i4").reshape(-1, 2).astype(np.int64),
        _array(answer["beside"], "<i4").reshape(-1, 2).astype(np.int64),
        _array(answer["colour"], "<u2").astype(np.int64),
        tuple(answer["colours"]),
        _array(answer["triangles"], "<u4").reshape(-1, 3).astype(np.int64),
        _array(answer["round"], "<i2")[: answer["stitches"]].astype(np.int64),
    )


def surface_of(answer: dict[str, Any], *, foot: Foot) -> Surface:
    """A settled part's answer as a surface to place things on."""
    x = _array(answer["frames"][-1], "<i2").reshape(-1, 3) * answer["scale"]
    at, place_in = _array(answer["round"], "<i2"), _array(answer["place"], "<u2")
    rows = []
    for row in range(len(answer["labels"])):
        nodes = np.flatnonzero(at == row)
        rows.append(nodes[np.argsort(place_in[nodes], kind="stable")])
    triangles = _array(answer["triangles"], "<u4").reshape(-1, 3).astype(np.int64)
    kind, stretch = _array(answer["kind"], "<u1"), _array(answer["stretch"], "<i2") / 1000
    flaps = [Flap(tuple(flap["rounds"]), flap["name"]) for flap in answer["flaps"]]
    labels, filled = answer["labels"], answer["stuffed"]
    surface = Surface.laid(x, rows, triangles, kind, stretch, labels, foot=foot, filled=filled, flaps=flaps)
    limbs = tuple(Limb(limb["name"], empty=limb["empty"]) for limb in answer["limbs"])
    return replace(surface, limbs=limbs, limb=_array(answer["limb"], "<u1").astype(np.int64)) if limbs else surface


@dataclass(frozen=True)
class Staged:
    """A design put together, and the jobs that settle its parts, by key."""

    assembled: Assembled
    jobs: dict[str, Job]

    @property
    def value(self) -> DesignValue:
        """The design."""
        return self.assembled.design

    @property
    def under_way(self) -> int:
        """How many parts are still being settled, or wait for it."""
        return sum(job.state in (State.WAITING, State.RUNNING) for job in self.jobs.values())

    def height_mm(self, key: str) -> float | None:
        """How high a part settled, None while it is not settled."""
        found = self._measures(key)
        return None if found is None else float(found["height_mm"])

    def girth_mm(self, key: str) -> float | None:
        """How far around a part settled where it is widest, None while it is not settled."""
        found = self._measures(key)
        return None if found is None else max((float(r["girth_mm"]) for r in found["rounds"]), default=None)

    def _measures(self, key: str) -> dict[str, Any] | None:
        job = self.jobs.get(key)
        return None if job is None or job.state != State.DONE else _settled(job)["measures"]

    def drawn(self, title: str) -> str:
        """The figure as SVG: settled when all of it is, else by the estimate."""
        found = self.assembled
        if not found.whole:
            bodies, placed = estimated_figure(found.design, found.parts)
            return draw(bodies, placed, colours_of(self.value.yarns), title=title)
        palette = colours_of(self.value.yarns)
        faces = [skin.faces(p.matrix, palette) for skin, p in self.skins()]
        return draw_faces([*faces, *_drawn_eyes(self.assembled)], title=title)

    def skins(self) -> list[tuple[Skin, Placed]]:
        """Every placed piece that is settled, ready to be drawn."""
        own = {key: self.skin(key) for key in self.jobs}
        return [(skin.given_way(p), p) for p in self.assembled.placed if (skin := own.get(p.part)) is not None]

    def skin(self, key: str) -> Skin | None:
        """A settled part ready to be drawn, None while it is not settled."""
        job, part = self.jobs.get(key), self.value.part(key)
        return _skin(job.pk, job.key + str(job.attempt), part.name) if job and part else None


def staged(user: User, design: Design, *, ask: bool) -> Staged:
    """A design put together as far as its parts are settled. ask: put those in line that are not."""
    return staged_value(user, design_value(design), ask=ask)


def staged_value(user: User, value: DesignValue, *, ask: bool) -> Staged:
    """Any design put together as far as its parts are settled for this designer, one that is not kept as well."""
    parts = run_parts(value)
    jobs: dict[str, Job] = {}
    surfaces: dict[str, Surface] = {}
    for part in parts:
        worked = part.worked
        if worked is None or not part.checked.sound:
            continue
        wanted = settling_of(value, part.part)
        job = figures.ask(user, wanted) if ask else figures.find(user, wanted)
        if job is None:
            continue
        jobs[part.key] = job
        if job.state == State.DONE:
            surface = _surface(job.pk, job.key + str(job.attempt), Foot.of(worked))
            if surface is not None and surface.rounds > 1:
                surfaces[part.key] = surface
    return Staged(put_together(value, parts, surfaces), jobs)


def scene(user: User, design: Design) -> SceneOut:
    """The whole figure of a design as its assembly stop shows it; nothing is asked for (see `settle_all`)."""
    staging = staged(user, design, ask=False)
    return _shown(staging)


def settle_all(user: User, design: Design) -> SceneOut:
    """Have every part of a design settled that is not, and show the figure as far as it is."""
    return _shown(staged(user, design, ask=True))


def _shown(staging: Staged) -> SceneOut:
    found, value = staging.assembled, staging.value
    palette = colours_of(value.yarns)
    width, depth, height = found.size_mm
    stands = found.joined and value.posture is not Posture.HANGING
    weighed = balance(found.surfaces, found.placed, found.weighted) if stands else None
    eyes, guess = eyes_placed(found), proposed_eyes(found)
    seats = seats_of(value.joins, found.worked, value.posture)
    hosts = {j.key: j.host for j in value.joins}
    return SceneOut(
        parts={key: previews.figure_part(found.worked[key], body, palette, {}) for key, body in found.bodies.items()},
        placed=[_placed(p, hosts) for p in found.placed],
        joined=found.joined,
        width_mm=width,
        depth_mm=depth,
        height_mm=height,
        settled=[SettledPart(part=key, job=job_shown(job)) for key, job in staging.jobs.items()],
        whole=found.whole,
        swung=sum(s.swings for s in seats),
        eyes=None if eyes is None else EyesOut.model_validate(eyes, from_attributes=True),
        guess=guess
        and EyesGuess(part=guess[0], round=guess[1].round, between=guess[1].between, eye_mm=guess[1].eye_mm),
        marks=[_mark(m) for m in marks_placed(found)],
        steps=[StepPlace.model_validate(row, from_attributes=True) for row in steps_now(found)],
        loose=[LoosePart.model_validate(row, from_attributes=True) for row in loose_parts(found)],
        order=list(order_of_work(value)),
        balance=None if weighed is None else BalanceOut.model_validate(weighed, from_attributes=True),
        centre={
            key: CentreOut.model_validate(centre_of(surface, value.gauge_of(key).lean), from_attributes=True)
            for key, surface in found.surfaces.items()
            if surface.foot is not Foot.EDGE  # rows have no front middle, and start at either side
        },
    )


def _mark(placed: MarkPlaced) -> MarkOut:
    mark = placed.mark
    return MarkOut(
        key=mark.key,
        part=mark.place.on,
        name=mark.name,
        points=list(placed.points),
        ends=list(placed.ends),
        patches=[
            PatchOut(points=p.points.round(2).tolist(), out=p.out.round(3).tolist(), triangles=p.triangles.tolist())
            for p in placed.patches
        ],
        colour=mark_colour(mark),
        covers=BLUSH_COVERS if mark.made_of is MadeOf.BLUSH else 1.0,
    )


def _placed(piece: Placed, hosts: Mapping[str, str]) -> PlacedOut:
    matrix = [round(float(v), 5) for v in piece.matrix.ravel()]
    step = piece.join or None
    seam = None if piece.seam is None else [round(float(v), 5) for v in np.concatenate(piece.seam)]
    gives_way = None
    if piece.x is not None:
        scale, x = figures.packed_positions(piece.x)
        turned = None if piece.turned is None else b64encode(piece.turned.astype("u1").tobytes()).decode()
        gives_way = GivesWay(scale=scale, x=x, turned=turned)
    host = hosts.get(piece.join)
    return PlacedOut(part=piece.part, matrix=matrix, step=step, host=host, seam=seam, gives_way=gives_way)


def _drawn_eyes(found: Assembled) -> list[Faces]:
    eyes = eyes_placed(found) if found.design.eyes.kind is not EyeKind.NONE else None
    host = next((p for p in found.placed if eyes and p.part == eyes.part), None)
    if eyes is None or host is None or not eyes.points:
        return []
    return [eye_faces(np.array(eyes.points), np.array(eyes.out), eyes.eye_mm, host.matrix)]


def model(user: User, design: Design, ending: str) -> bytes:
    """The whole settled figure as a mesh file. Refused while it is not settled."""
    staging = staged(user, design, ask=False)
    if not staging.assembled.whole:
        raise Refusal(409, "not-done", "The figure is still settling: try again in a moment.")
    palette = colours_of(staging.value.yarns)
    return mesh_file(Mesh.together(design.name, [skin.mesh(p.matrix, palette) for skin, p in staging.skins()]), ending)
