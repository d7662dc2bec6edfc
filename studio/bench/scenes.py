"""A design put together: settled parts in their places, eyes, balance, order of work, and what is in the way."""

from __future__ import annotations

import json
from base64 import b64decode
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from django.contrib.auth.models import User

from craft.errors import CraftError
from craft.figure.body import Body, Placed
from craft.figure.materials import tail_mm
from craft.figure.picture import Faces, draw, draw_faces
from craft.figure.placement import (
    EyePlace,
    Posable,
    Skin,
    Surface,
    arranged,
    balance,
    centre_line,
    drift,
    extent,
    eye_faces,
    misplaced,
    necks,
    place,
    place_eyes,
    propose,
    propose_seat,
    room,
)
from craft.figure.placement import Job as Task
from craft.figure.settling import Mesh, mesh_file
from craft.gauge import Gauge
from craft.rounds.fabric import KIND_KEYS, MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import StepKind
from craft.rounds.stitches import STITCHES
from craft.text.eye_directions import find_direction
from studio.bench import figures, previews
from studio.bench.schemas import (
    BalanceOut,
    CentreOut,
    EyesGuess,
    EyesOut,
    MarkOut,
    PlacedOut,
    Point,
    SceneOut,
    SeatGuess,
    SettledPart,
    StepPlace,
    WarningOut,
)
from studio.designs.manifest import AssemblyPage, AssemblyStep, Manifest
from studio.designs.models import Design, PartVersion
from studio.designs.places import eyes_now, step_now
from studio.designs.policy import revision_of
from studio.designs.reading import (
    OtherText,
    ReadPart,
    figure_of,
    gauge_of,
    made_alone,
    palette_of,
    read_parts,
    seats_of,
    shows_above,
    worked_parts,
    yarn_names,
)
from studio.errors import Refusal
from studio.jobs.actions import answer_of
from studio.jobs.models import Job, State
from studio.jobs.schemas import JobOut

_CHANGE = np.array([STITCHES[k].change for k in KIND_KEYS])


def settling_of(part: ReadPart, parts: list[ReadPart], manifest: Manifest, gauge: Gauge) -> figures.Settling:
    """What settles a part of a design."""
    others = tuple(OtherText(p.name, p.make, p.text) for p in parts if p.key != part.key)
    return figures.Settling(
        part.text,
        manifest.terms,
        yarn_names(manifest),
        part.colour or MAIN_COLOUR,
        others,
        gauge,
        manifest.gauge.firmness,
    )


def settle_version(user: User, design: Design, key: str, number: int) -> Job:
    """The job that settles a part as it was in an earlier revision of its design."""
    manifest = revision_of(design, number).manifest
    entries = {p.key: p for p in manifest.parts}
    if key not in entries:
        raise Refusal(404, "not-found", "That part was not there yet.")
    versions = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    others = tuple(OtherText(p.name, p.make, versions[p.version].text) for p in manifest.parts if p.key != key)
    entry = entries[key]
    wanted = figures.Settling(
        versions[entry.version].text,
        manifest.terms,
        yarn_names(manifest),
        entry.colour or MAIN_COLOUR,
        others,
        gauge_of(manifest.gauge),
        manifest.gauge.firmness,
    )
    job = figures.ask(user, wanted)
    if job is None:
        raise CraftError("There was no round to settle yet.")
    return job


def _array(text: str, kind: str) -> np.ndarray[Any, np.dtype[Any]]:
    return np.frombuffer(b64decode(text), kind)


@lru_cache(maxsize=128)
def _surface(job: int, used: str, shut: bool) -> Surface | None:
    """The surface of a job's answer. used: tells one answer of a job from a later one."""
    del used
    found = Job.objects.filter(pk=job, state=State.DONE).first()
    return None if found is None else surface_of(json.loads(answer_of(found)), shut=shut)


@lru_cache(maxsize=64)
def _skin(job: int, used: str, name: str) -> Skin | None:
    """What a job's answer is drawn and written from."""
    del used
    found = Job.objects.filter(pk=job, state=State.DONE).first()
    if found is None:
        return None
    answer = json.loads(answer_of(found))
    return Skin(
        name,
        _array(answer["frames"][-1], "<i2").reshape(-1, 3) * answer["scale"],
        _array(answer["below"], "<i4").reshape(-1, 2).astype(np.int64),
        _array(answer["beside"], "<i4").reshape(-1, 2).astype(np.int64),
        _array(answer["colour"], "<u2").astype(np.int64),
        tuple(answer["colours"]),
        _array(answer["triangles"], "<u4").reshape(-1, 3).astype(np.int64),
    )


def surface_of(answer: dict[str, Any], *, shut: bool) -> Surface:
    """A settled part's answer as a surface to place things on."""
    x = _array(answer["frames"][-1], "<i2").reshape(-1, 3) * answer["scale"]
    at, place_in = _array(answer["round"], "<i2"), _array(answer["place"], "<u2")
    rings = []
    for row in range(len(answer["labels"])):
        nodes = np.flatnonzero(at == row)
        rings.append(nodes[np.argsort(place_in[nodes], kind="stable")])
    triangles = _array(answer["triangles"], "<u4").reshape(-1, 3).astype(np.int64)
    change = _CHANGE[_array(answer["kind"], "<u1")]
    stretch = _array(answer["stretch"], "<i2") / 1000
    keep = [i for i, r in enumerate(rings) if len(r) > 1]
    labels = tuple(answer["labels"][i] for i in keep)
    return Surface(x, tuple(rings[i] for i in keep), triangles, change, stretch, shut, labels)


@dataclass(frozen=True)
class Assembled:
    """Everything of a design that putting together goes by."""

    design: Design
    manifest: Manifest
    parts: list[ReadPart]
    worked: dict[str, WorkedPart]
    gauge: Gauge
    jobs: dict[str, Job]
    surfaces: dict[str, Surface]
    bodies: Mapping[str, Body]
    placed: tuple[Placed, ...]

    @property
    def page(self) -> AssemblyPage:
        """The assembly stop's page."""
        return self.manifest.assembly

    @property
    def whole(self) -> bool:
        """Whether every part that is placed is settled."""
        return bool(self.surfaces) and set(self.bodies) <= set(self.surfaces)

    def skins(self) -> list[tuple[Skin, Placed]]:
        """Every placed piece that is settled, ready to be drawn."""
        found: list[tuple[Skin, Placed]] = []
        names = {p.key: p.name for p in self.parts}
        for piece in self.placed:
            job = self.jobs.get(piece.part)
            skin = job and _skin(job.pk, job.key + str(job.attempt), names[piece.part])
            if skin:
                found.append((skin, piece))
        return found

    @property
    def posed(self) -> dict[str, Posable]:
        """What pieces are placed by: settled where that is done, else estimated."""
        return {key: self.surfaces.get(key, body) for key, body in self.bodies.items()}


def assembled(user: User, design: Design) -> Assembled:
    """Read a design, have its parts settled, and put it together as far as they are."""
    parts, manifest = read_parts(design), design.manifest
    gauge = gauge_of(manifest.gauge)
    worked = worked_parts(parts)
    bodies, placed = figure_of(parts, manifest)
    jobs: dict[str, Job] = {}
    surfaces: dict[str, Surface] = {}
    for part in parts:
        if part.key not in worked or not part.checked.sound:
            continue
        job = figures.ask(user, settling_of(part, parts, manifest, gauge))
        if job is None:
            continue
        jobs[part.key] = job
        if job.state == State.DONE:
            surface = _surface(job.pk, job.key + str(job.attempt), worked[part.key].closed)
            if surface is not None and surface.rounds > 1:
                surfaces[part.key] = surface
    if surfaces:
        bodies = {key: body for key, body in bodies.items() if key in made_alone(worked)}
        posed = {key: surfaces.get(key, body) for key, body in bodies.items()}
        placed = place(posed, {p.key: p.make for p in parts}, seats_of(manifest.assembly, worked))
    return Assembled(design, manifest, parts, worked, gauge, jobs, surfaces, bodies, placed)


def scene(user: User, design: Design) -> SceneOut:
    """The whole figure of a design as its assembly stop shows it."""
    found = assembled(user, design)
    palette = palette_of(found.manifest)
    width, depth, height = extent(found.posed, found.placed)
    weighed = balance(found.surfaces, found.placed)
    return SceneOut(
        parts={key: previews.figure_part(found.worked[key], body, palette, {}) for key, body in found.bodies.items()},
        placed=[PlacedOut(part=p.part, matrix=[round(float(v), 5) for v in p.matrix.ravel()]) for p in found.placed],
        width_mm=width,
        depth_mm=depth,
        height_mm=height,
        settled=[
            SettledPart(part=key, job=JobOut.model_validate(job, from_attributes=True))
            for key, job in found.jobs.items()
        ],
        whole=found.whole,
        swung=sum(s.swings for s in seats_of(found.page, found.worked)),
        eyes=_eyes(found),
        guess=_guess(found),
        marks=_marks(found),
        steps=_steps(found),
        order=_order(found),
        balance=None if weighed is None else BalanceOut.model_validate(weighed, from_attributes=True),
        centre={key: _centre(found, key, surface) for key, surface in found.surfaces.items()},
    )


def picture(user: User, design: Design, title: str) -> tuple[str, bool]:
    """The figure as SVG: settled when all of it is, else by the estimate; and which of the two."""
    found = assembled(user, design)
    palette = palette_of(found.manifest)
    if found.whole:
        faces = [skin.faces(p.matrix, palette) for skin, p in found.skins()]
        return draw_faces([*faces, *_drawn_eyes(found)], title=title), True
    bodies, placed = figure_of(found.parts, found.manifest)
    return draw(bodies, placed, palette, title=title), False


def _drawn_eyes(found: Assembled) -> list[Faces]:
    eyes = _eyes(found) if found.page.eye_kind != "none" else None
    host = next((p for p in found.placed if eyes and p.part == eyes.part), None)
    if eyes is None or host is None or not eyes.points:
        return []
    return [eye_faces(np.array(eyes.points), np.array(eyes.out), eyes.eye_mm, host.matrix)]


def model(user: User, design: Design, ending: str) -> bytes:
    """The whole settled figure as a mesh file. Refused while it settles."""
    found = assembled(user, design)
    if not found.whole:
        raise Refusal(409, "not-done", "The figure is still settling: try again in a moment.")
    palette = palette_of(found.manifest)
    return mesh_file(Mesh.together(design.name, [skin.mesh(p.matrix, palette) for skin, p in found.skins()]), ending)


def _point(at: np.ndarray[Any, np.dtype[Any]]) -> Point:
    return round(float(at[0]), 2), round(float(at[1]), 2), round(float(at[2]), 2)


# --- eyes and face ------------------------------------------------------------------------


def _eyes(found: Assembled) -> EyesOut | None:
    entry = found.page.eyes
    if entry is None or entry.part not in found.surfaces:
        return None
    surface, worked = found.surfaces[entry.part], found.worked[entry.part]
    now = eyes_now(entry, found.worked)
    step = next((s for s in worked.steps if s.kind is StepKind.EYES), None)
    opening = None if step is None else step.live * found.gauge.stitch_mm / np.pi
    size = found.page.eye_mm or 8.0
    told = any(find_direction(p.text) is not None for p in found.parts if p.key == entry.part)
    try:
        eyes = place_eyes(
            surface,
            EyePlace(now.round, entry.between, size),
            opening_mm=opening,
            stitch_mm=found.gauge.stitch_mm,
            embroidered=found.page.eye_kind == "embroidered",
            shows_above=shows_above(found.manifest.gauge),
        )
    except CraftError as error:
        return EyesOut(
            part=entry.part, round=now.round, between=entry.between, eye_mm=size, points=[], out=[], after=(0, 0),
            off_centre=0.0, words="", told=told, moved=now.moved, warnings=[WarningOut(code="no-room", message=error.message)],
        )  # fmt: skip
    return EyesOut(
        part=entry.part,
        round=now.round,
        between=entry.between,
        eye_mm=size,
        points=[_point(p) for p in eyes.points],
        out=[_point(p) for p in eyes.out],
        after=eyes.after,
        off_centre=round(eyes.off_centre, 2),
        words=eyes.words,
        told=told,
        moved=now.moved,
        warnings=[WarningOut(code=w.code, message=w.message) for w in eyes.warnings],
    )


def _guess(found: Assembled) -> EyesGuess | None:
    """Where eyes go on the part that is most likely a head."""
    alone = [p for p in found.parts if p.key in found.surfaces and p.make == 1]
    if not alone:
        return None
    named = [p for p in alone if any(word in p.name.lower() for word in ("head", "face"))]
    part = named[0] if named else max(alone, key=lambda p: found.surfaces[p.key].half_width)
    eyes = propose(found.surfaces[part.key])
    return EyesGuess(part=part.key, round=eyes.round, between=eyes.between, eye_mm=eyes.eye_mm)


def _marks(found: Assembled) -> list[MarkOut]:
    marks: list[MarkOut] = []
    for mark in found.page.marks:
        surface = found.surfaces.get(mark.part)
        if surface is None:
            continue
        sides = (1, -1) if mark.paired else (1,)
        ends = [] if mark.to_round is None else [_on(surface, mark.to_round, mark.to_stitch * s) for s in sides]
        points = [_on(surface, mark.round, mark.stitch * s) for s in sides]
        marks.append(MarkOut(key=mark.key, part=mark.part, name=mark.name, points=points, ends=ends))
    return marks


def _on(surface: Surface, round_at: int, stitch: float) -> Point:
    at = min(round_at, surface.rounds) - 1
    return _point(surface.spot(at, 2 * np.pi * stitch / max(surface.count_of(at), 1))[0])


def _centre(found: Assembled, key: str, surface: Surface) -> CentreOut:
    line = centre_line(surface)
    moved = drift([len(r) for r in surface.rings], found.gauge.lean)
    return CentreOut(
        place=[round(surface.front_place(at), 3) for at in range(surface.rounds)],
        front=list(line.front),
        starts=list(line.starts),
        degrees=[round(d.degrees, 1) for d in moved],
        shift=[d.stitches for d in moved],
    )


# --- steps --------------------------------------------------------------------------------


def _tasks(page: AssemblyPage) -> list[Task]:
    return [Task(s.text, s.part, s.on, s.before_closing) for s in page.steps]


def _order(found: Assembled) -> list[str]:
    names = {p.key: p.name for p in found.parts}
    steps = found.page.steps
    wanted = arranged(_tasks(found.page), [names.get(s.part or "", "") for s in steps])
    return [steps[i].key for i in wanted]


def _steps(found: Assembled) -> list[StepPlace]:
    tasks = _tasks(found.page)
    late = {m.step: m for m in misplaced(tasks)}
    narrow = necks(found.surfaces, seats_of(found.page, found.worked))
    rows: list[StepPlace] = []
    for i, step in enumerate(found.page.steps):
        now = step_now(step, found.worked)
        first, last = room(tasks, i)
        seam = _seam(found, step)
        fault = None
        if i in late:
            fault = f"This must come before step {late[i].before + 1}: {late[i].why}."
        notes = [narrow[step.part]] if step.part in narrow and step.on else []
        rows.append(
            StepPlace(
                key=step.key,
                round=now.round if now else None,
                stitch=now.stitch if now else 0.0,
                moved=now.moved if now else False,
                seam_mm=seam,
                tail_mm=None if seam is None else tail_mm(seam),
                first=first,
                last=last,
                fault=fault,
                notes=[*notes, *_joins(found, step)],
                guess=_seat_guess(found, step),
            )
        )
    return rows


def _seat_guess(found: Assembled, step: AssemblyStep) -> SeatGuess | None:
    host, part = found.worked.get(step.on or ""), found.worked.get(step.part or "")
    if host is None or part is None or step.no_sew:
        return None
    shown = [t.live for t in host.trunk if t.live > 0]
    guess = propose_seat(part.name or "", shown, sitting=found.page.posture == "sitting")
    return SeatGuess.model_validate(guess, from_attributes=True)


def _seam(found: Assembled, step: AssemblyStep) -> float | None:
    """Length in mm of the seam of a step that joins a part, None for others."""
    worked = found.worked.get(step.part or "")
    if worked is None or not step.on or step.no_sew:
        return None
    widest, edge = max(worked.counts), 0 if worked.closed else worked.rounds[-1].live
    around = {"pinched": edge / 2, "open": float(edge), "laid": float(step.wide or widest / 2)}
    kind = step.seat or ("open" if edge else "laid")
    return (around[kind] or widest / 3) * found.gauge.stitch_mm


def _joins(found: Assembled, step: AssemblyStep) -> list[str]:
    """What to know about the edges that a step joins."""
    part, host = found.worked.get(step.part or ""), found.worked.get(step.on or "")
    if part is None or host is None or part.closed or step.no_sew:
        return []
    edge = part.rounds[-1].live
    notes: list[str] = []
    now = step_now(step, found.worked)
    at_end = now is not None and now.round >= len(host.counts)
    if at_end and not host.closed:
        own = host.rounds[-1].live
        notes.append(
            f"Both openings have {edge} stitches: join them stitch to stitch."
            if own == edge
            else f"The openings differ, {edge} on {own} stitches: make them equal to join them stitch to stitch."
        )
    if step.seat == "pinched" and edge % 2:
        notes.append(f"{edge} stitches do not pinch evenly: an even number closes flat.")
    return notes
