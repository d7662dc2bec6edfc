"""Settled figures: asked for as jobs, worked out in a worker's process, answered as arrays to draw from."""

from __future__ import annotations

import hashlib
import json
from base64 import b64encode
from dataclasses import asdict, dataclass
from typing import Any

import numpy as np
from django.contrib.auth.models import User
from numpy.typing import NDArray

from craft.design.running import OtherText, checked_text, first_worked
from craft.figure.placement import shown_flaps
from craft.figure.settling import Settled, limbs_of, measure, relief_of, settle
from craft.gauge import Gauge
from craft.rounds.fabric import ARRAYS, KIND_KEYS, WorkedPart
from studio.bench import answers
from studio.bench.answers import MeasuresOut, SettleAnswer
from studio.jobs import actions
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.models import Job

KIND = "settle"

FRAMES = 6
REACH = 32_000
"""Positions travel as whole numbers up to this."""

USUAL_STEPS = 160
"""Steps that most parts come to rest in, to show how far one is."""


@dataclass(frozen=True, slots=True)
class Settling:
    """A part to settle: what `checked_text` takes, and how the fabric is."""

    text: str
    terms: str
    yarns: tuple[str, ...]
    colour: str
    others: tuple[OtherText, ...]
    gauge: Gauge
    firmness: float

    @property
    def worked(self) -> WorkedPart | None:
        """The part as run, None while it has no rounds."""
        return first_worked(checked_text(self.text, self.terms, self.yarns, self.colour, self.others))

    def question(self) -> str:
        """As JSON, for a worker."""
        return json.dumps(asdict(self), ensure_ascii=False, sort_keys=True)

    @classmethod
    def of(cls, question: str) -> Settling:
        """Back from JSON."""
        data = json.loads(question)
        others = tuple(OtherText(**o) for o in data.pop("others"))
        return cls(yarns=tuple(data.pop("yarns")), gauge=Gauge(**data.pop("gauge")), others=others, **data)

    def identity(self, worked: WorkedPart) -> str:
        """The same for all texts that make the same stitches under the same labels at the same gauge."""
        seal = hashlib.sha256()
        for name in ARRAYS:
            seal.update(np.ascontiguousarray(getattr(worked.graph, name)).tobytes())
        steps = [(s.kind.value, s.after) for s in worked.steps]
        said = (
            [t.label for t in worked.rounds],
            steps,
            worked.pressed,
            worked.inside_out,
            worked.graph.colours,
            worked.threads,
            worked.rolled,
        )
        fabric = self.gauge.stitch_mm, self.gauge.round_mm, self.gauge.lean, self.firmness
        seal.update(repr((said, fabric)).encode())
        return seal.hexdigest()


def ask(user: User, wanted: Settling) -> Job | None:
    """The job that settles a part, None while it has no rounds."""
    worked = wanted.worked
    if worked is None:
        return None
    return actions.ask(user, KIND, wanted.question(), wanted.identity(worked))


def find(user: User, wanted: Settling) -> Job | None:
    """The job that settles a part where it was asked for before, None else; nothing is put in line."""
    worked = wanted.worked
    return None if worked is None else actions.find(user, KIND, wanted.identity(worked))


def work(question: str, watch: Watch) -> bytes:
    """Settle the part of a question; the answer as JSON."""
    wanted = Settling.of(question)
    worked = wanted.worked
    assert worked is not None
    going = True

    def seen(step: int) -> bool:
        nonlocal going
        going = watch(int(95 * min(step / USUAL_STEPS, 1.0)))
        return going

    settled = settle(worked, wanted.gauge, firmness=wanted.firmness, watch=seen, frames=FRAMES)
    if not going:
        raise Stopped
    return SettleAnswer(settled=shown(settled)).model_dump_json().encode()


def shown(settled: Settled) -> answers.Settled:
    """A settled part to draw from.

    Rounds are numbered as the ladder shows them: those after which no stitch is live are left out.
    """
    relief, found = relief_of(settled), measure(settled)
    limbs, limb = limbs_of(settled)
    frames = [*settled.frames, settled.x]
    tallies = settled.part.rounds
    rows = np.cumsum([t.live > 0 for t in tallies]) - 1
    shown = [t for t in tallies if t.live > 0]
    scale = max(float(np.abs(f).max()) for f in frames) / REACH or 1.0
    return answers.Settled(
        labels=[t.label for t in shown],
        counts=[t.end - t.first for t in shown],
        kinds=list(KIND_KEYS),
        colours=list(settled.graph.colours),
        scale=scale,
        frames=[_packed(np.round(f / scale), "<i2") for f in frames],
        stitches=len(settled.net.stitch),
        middles=settled.net.middles,
        closings=settled.net.closings,
        below=_packed(relief.below, "<i4"),
        beside=_packed(relief.beside, "<i4"),
        triangles=_packed(settled.triangles, "<u4"),
        round=_packed(np.where(relief.round < 0, -1, rows[relief.round]), "<i2"),
        place=_packed(relief.place, "<u2"),
        kind=_packed(relief.kind, "<u1"),
        colour=_packed(relief.colour, "<u2"),
        stretch=_packed(np.clip(np.round(relief.stretch * 1000), -REACH, REACH), "<i2"),
        measures=MeasuresOut(**asdict(found)),
        passes=[(thing, label) for thing, label in found.passing(len([t for t in settled.part.trunk if t.live]))],
        stuffed=bool(settled.stuffed.any()),
        flaps=[answers.FlapOut(rounds=list(f.rounds), name=f.name) for f in shown_flaps(settled)],
        limbs=[answers.LimbOut(name=one.name, empty=one.empty) for one in limbs],
        limb=_packed(np.minimum(limb, 255), "<u1"),
        converged=settled.converged,
        steps=settled.steps,
    )


def packed_positions(x: NDArray[np.float64]) -> tuple[float, str]:
    """Positions in mm as whole numbers: mm of one unit, and the numbers."""
    scale = float(np.abs(x).max()) / REACH or 1.0
    return scale, _packed(np.round(x / scale), "<i2")


def _packed(values: NDArray[Any], kind: str) -> str:
    return b64encode(np.ascontiguousarray(values).astype(kind).tobytes()).decode("ascii")
