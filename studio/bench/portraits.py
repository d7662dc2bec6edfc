"""Painted pictures of figures: asked for as jobs once all parts are settled, kept as PNG."""

from __future__ import annotations

import hashlib
import json
import math
import time
from base64 import b64decode, b64encode
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace

from django.contrib.auth.models import User

from craft.design.design import Brief, Printed
from craft.design.design import Design as DesignValue
from craft.design.on_the_way import on_the_way
from craft.design.portrait import FINISHED, Moment, subject_of, view_of
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


def moment_of(asked: LookIn) -> Moment:
    """When a picture is to be taken. CraftError for a part without a round."""
    return Moment(asked.step, asked.part, asked.after)


def pictured(user: User, value: DesignValue, title: str, look: Look = SHELF, moment: Moment = FINISHED) -> Pictured:
    """A figure as far as it is: painted, else drawn from its settled stitches, else by the estimate; nothing is asked for."""
    staging = staged_value(user, value, ask=False)
    job = _find(user, staging, look, moment) if staging.assembled.whole else None
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


def painting(user: User, value: DesignValue, look: Look = SHELF, moment: Moment = FINISHED) -> SettlingOut:
    """Have every part of a design settled and the figure painted, as it is at a moment; how far that is.

    What could not be painted before (this machine lacks the means) is not tried again.
    """
    staging = staged_value(user, value, ask=True)
    width, depth, height = staging.assembled.size_mm
    extent = max(height, math.hypot(width * ASIDE[0], depth * ASIDE[1]))
    if not staging.assembled.whole:
        return SettlingOut(whole=False, under_way=staging.under_way, extent_mm=extent)
    job = _find(user, staging, look, moment) or _ask(user, staging, look, moment)
    waits = job.state in (State.WAITING, State.RUNNING)
    return SettlingOut(whole=not waits, under_way=staging.under_way + waits, extent_mm=extent)


def painting_several(user: User, value: DesignValue, wanted: Sequence[tuple[Look, Moment]]) -> SettlingOut:
    """The same for several pictures of one figure."""
    staging = staged_value(user, value, ask=True)
    if not staging.assembled.whole:
        return SettlingOut(whole=False, under_way=staging.under_way + len(wanted), extent_mm=0.0)
    jobs = [_find(user, staging, *w) or _ask(user, staging, *w) for w in wanted]
    waits = sum(job.state in (State.WAITING, State.RUNNING) for job in jobs)
    return SettlingOut(whole=not waits, under_way=staging.under_way + waits, extent_mm=0.0)


def there_are(user: User, value: DesignValue, wanted: Sequence[tuple[Look, Moment]]) -> list[bool]:
    """Which of the pictures of one figure are painted already."""
    return [job is not None and job.state == State.DONE for job in _found(user, value, wanted)]


def _found(user: User, value: DesignValue, wanted: Sequence[tuple[Look, Moment]]) -> list[Job | None]:
    staging = staged_value(user, value, ask=False)
    return [_find(user, staging, *w) if staging.assembled.whole else None for w in wanted]


def painted_before(user: User, value: DesignValue, wanted: Sequence[tuple[Look, Moment]]) -> list[bytes | None]:
    """Those of the pictures of one figure that are painted already, as PNG; nothing is asked for."""
    found = _found(user, value, wanted)
    return [_png(job) if job is not None and job.state == State.DONE else None for job in found]


ASIDE = (0.92, 0.4)
"""How much of its width and of its depth a rounded figure shows from between front and side, 24° around."""


def on_scale(across_mm: float | None) -> Look:
    """How figures stand on the shelf: each with its margin, or all in one scale with so many mm across the picture."""
    return SHELF if across_mm is None else replace(SHELF, mm_across=across_mm)


def paint_ahead(user: User, value: DesignValue) -> None:
    """Put a figure in line to be settled and painted for the shelf, before anybody looks at it."""
    staging = staged_value(user, value, ask=True)
    if staging.jobs:
        _ask(user, staging, SHELF, FINISHED)


def _ask(user: User, staging: Staged, look: Look, moment: Moment) -> Job:
    return actions.ask(user, KIND, _question(user, staging, look, moment), _identity(staging, look, moment))


def _find(user: User, staging: Staged, look: Look, moment: Moment) -> Job | None:
    return actions.find(user, KIND, _identity(staging, look, moment))


def bare(value: DesignValue) -> DesignValue:
    """A design without what no picture shows; of its steps what they join is left."""
    parts = tuple(replace(p, recipe=None) for p in value.parts)
    steps = tuple(replace(s, text="", before_closing=False, picture=False, film="") for s in value.steps)
    return replace(value, parts=parts, sizes=(), steps=steps, sources=(), brief=Brief(), printed=Printed())


def _look_json(look: Look) -> dict[str, object]:
    return {name: getattr(look, name) for name in Look.__slots__}


def _question(user: User, staging: Staged, look: Look, moment: Moment) -> str:
    asked = {
        "user": user.pk,
        "design": to_json(bare(staging.value)),
        "look": _look_json(look),
        "moment": asdict(moment),
    }
    return json.dumps(asked, ensure_ascii=False, sort_keys=True)


def _identity(staging: Staged, look: Look, moment: Moment) -> str:
    """Equal for figures that look alike."""
    alike = replace(bare(staging.value), name="x")
    shown = alike if moment.step else replace(alike, steps=())
    said = json.dumps([to_json(shown), _look_json(look), asdict(moment)], sort_keys=True)
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
    png = painted(user, from_json(asked["design"]), look, Moment(**asked["moment"]), watch)
    return (
        PortraitAnswer(png=b64encode(png).decode("ascii"), width=look.width, height=look.height)
        .model_dump_json()
        .encode()
    )


def painted(user: User, value: DesignValue, look: Look, moment: Moment, watch: Watch) -> bytes:
    """A picture as PNG: the one that was painted before, else painted now, in a worker. CraftError where a part is not
    settled and nobody settles it, or this machine cannot paint."""
    staging = _at_rest(user, value, watch)
    job = _find(user, staging, look, moment)
    if job is not None and job.state == State.DONE:
        return _png(job)
    skins = {key: skin for key in staging.jobs if (skin := staging.skin(key)) is not None}
    if moment.step and look.side is Side.BETWEEN:
        look = view_of(staging.assembled, skins, moment.step, look)
    if moment.part and (begun := on_the_way(value, moment.part, moment.after)) is not None:
        skins[moment.part] = begun
    return render(subject_of(staging.assembled, skins, moment), look)


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
