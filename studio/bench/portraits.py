"""Painted pictures of figures: asked for as jobs once all parts are settled, kept as PNG."""

from __future__ import annotations

import hashlib
import json
import math
import time
from base64 import b64decode, b64encode
from dataclasses import dataclass, replace

from django.contrib.auth.models import User

from craft.design.design import Brief, Printed
from craft.design.design import Design as DesignValue
from craft.design.portrait import portrait_of
from craft.design.stored import from_json, to_json
from craft.errors import CraftError
from craft.figure.render import Look, Side, render
from studio.bench.answers import PortraitAnswer
from studio.bench.scene_schemas import LookIn, SettlingOut
from studio.bench.scenes import Staged, staged_value
from studio.jobs import actions
from studio.jobs.actions import answer_of
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.models import Job, State

KIND = "portrait"

SHELF = Look(Side.BETWEEN, width=640, height=640)
"""How figures stand on the shelf and on covers."""


LONGEST_WAIT_S = 120.0
"""How long a painting waits for parts that are being settled."""


@dataclass(frozen=True, slots=True)
class Pictured:
    """A figure as a file: its bytes and media type; whether it is as good as it gets, and how many works are under way."""

    content: bytes
    kind: str
    whole: bool
    under_way: int

    @property
    def url(self) -> str:
        """As a data URL."""
        return f"data:{self.kind};base64,{b64encode(self.content).decode('ascii')}"


def look_of(asked: LookIn) -> Look:
    """How a picture is to be taken."""
    return Look(
        Side(asked.side), asked.around, asked.above, asked.width, asked.width, ground=asked.ground, shadow=asked.shadow
    )


def pictured(user: User, value: DesignValue, title: str, look: Look = SHELF, step: str | None = None) -> Pictured:
    """A figure as far as it is: painted, else drawn from its settled stitches, else by the estimate; nothing is asked for."""
    staging = staged_value(user, value, ask=False)
    job = _find(user, staging, look, step) if staging.assembled.whole else None
    if job is not None and job.state == State.DONE:
        return Pictured(_png(job), "image/png", True, 0)
    waits = staging.under_way + (job is not None and job.state in (State.WAITING, State.RUNNING))
    given_up = job is not None and job.state == State.FAILED
    return Pictured(staging.drawn(title).encode(), "image/svg+xml", given_up, waits)


def drawn(user: User, value: DesignValue, title: str) -> Pictured:
    """A figure drawn stitch by stitch, for little ink: settled when it is, else by the estimate."""
    staging = staged_value(user, value, ask=False)
    whole = staging.assembled.whole
    return Pictured(staging.drawn(title).encode(), "image/svg+xml", whole, staging.under_way)


def painting(user: User, value: DesignValue, look: Look = SHELF, step: str | None = None) -> SettlingOut:
    """Have every part of a design settled and the figure painted, as it is at a step where one is named; how far that is.

    What could not be painted before (this machine lacks the means) is not tried again.
    """
    staging = staged_value(user, value, ask=True)
    width, depth, height = staging.assembled.size_mm
    extent = max(height, math.hypot(width * ASIDE[0], depth * ASIDE[1]))
    if not staging.assembled.whole:
        return SettlingOut(whole=False, under_way=staging.under_way, extent_mm=extent)
    job = _find(user, staging, look, step) or _ask(user, staging, look, step)
    waits = job.state in (State.WAITING, State.RUNNING)
    return SettlingOut(whole=not waits, under_way=staging.under_way + waits, extent_mm=extent)


ASIDE = (0.92, 0.4)
"""How much of its width and of its depth a rounded figure shows from between front and side, 24° around."""


def on_scale(across_mm: float | None) -> Look:
    """How figures stand on the shelf: each with its margin, or all in one scale with so many mm across the picture."""
    return SHELF if across_mm is None else replace(SHELF, mm_across=across_mm)


def paint_ahead(user: User, value: DesignValue) -> None:
    """Put a figure in line to be settled and painted for the shelf, before anybody looks at it."""
    staging = staged_value(user, value, ask=True)
    if staging.jobs:
        _ask(user, staging, SHELF, None)


def _ask(user: User, staging: Staged, look: Look, step: str | None) -> Job:
    return actions.ask(user, KIND, _question(user, staging, look, step), _identity(staging, look, step))


def _find(user: User, staging: Staged, look: Look, step: str | None) -> Job | None:
    return actions.find(user, KIND, _identity(staging, look, step))


def _bare(value: DesignValue) -> DesignValue:
    """A design without what no picture shows; of its steps what they join is left."""
    parts = tuple(replace(p, recipe=None) for p in value.parts)
    steps = tuple(replace(s, text="", before_closing=False, picture=False) for s in value.steps)
    return replace(value, parts=parts, sizes=(), steps=steps, sources=(), brief=Brief(), printed=Printed())


def _look_json(look: Look) -> dict[str, object]:
    return {name: getattr(look, name) for name in Look.__slots__}


def _question(user: User, staging: Staged, look: Look, step: str | None) -> str:
    asked = {"user": user.pk, "design": to_json(_bare(staging.value)), "look": _look_json(look), "step": step}
    return json.dumps(asked, ensure_ascii=False, sort_keys=True)


def _identity(staging: Staged, look: Look, step: str | None) -> str:
    """Equal for figures that look alike."""
    bare = replace(_bare(staging.value), name="x")
    shown = bare if step else replace(bare, steps=())
    said = json.dumps([to_json(shown), _look_json(look), step], sort_keys=True)
    settled = sorted((key, job.key) for key, job in staging.jobs.items())
    return hashlib.sha256(f"{said}{settled}".encode()).hexdigest()


def _png(job: Job) -> bytes:
    return b64decode(json.loads(answer_of(job))["png"])


def work(question: str, watch: Watch) -> bytes:
    """Paint the figure of a question; the answer as JSON. CraftError where its parts are not settled, or this machine
    cannot paint."""
    asked = json.loads(question)
    user = User.objects.get(pk=asked["user"])
    look = Look(**{**asked["look"], "side": Side(asked["look"]["side"])})
    staging = _at_rest(user, from_json(asked["design"]), watch)
    skins = {key: skin for key in staging.jobs if (skin := staging.skin(key)) is not None}
    png = render(portrait_of(staging.assembled, skins, step=asked["step"]), look)
    return (
        PortraitAnswer(png=b64encode(png).decode("ascii"), width=look.width, height=look.height)
        .model_dump_json()
        .encode()
    )


def _at_rest(user: User, value: DesignValue, watch: Watch) -> Staged:
    """The figure once all its parts are settled; those that another worker settles are waited for."""
    until = time.monotonic() + LONGEST_WAIT_S
    while True:
        staging = staged_value(user, value, ask=False)
        if staging.assembled.whole:
            return staging
        if not staging.under_way or time.monotonic() > until:
            raise CraftError("Not every part of the figure settles, so it cannot be painted.")
        if not watch(5):
            raise Stopped
        time.sleep(0.3)
