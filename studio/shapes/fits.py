"""What a drafted shape settles to, and shapes redrawn to settle nearest, ways to work one: worked out as jobs."""

from __future__ import annotations

import json
from base64 import b64encode
from dataclasses import asdict
from typing import Any

import numpy as np
from django.contrib.auth.models import User

from craft.figure.settling import Settled, ShapeError, fit
from craft.fitting.alternatives import alternatives
from craft.fitting.compensation import compensate
from craft.fitting.outcome import aim_of, outcome
from craft.fitting.threads import remedies
from craft.gauge import Gauge
from craft.shape.drafting import Recipe
from craft.shape.stored import rounds_json, rounds_of
from studio.bench.figures import REACH, USUAL_STEPS, shown
from studio.bench.previews import craft_gauge
from studio.bench.schemas import EstimateOut
from studio.designs.recipes import RoundsRecipe, form_out
from studio.jobs import actions
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.models import Job
from studio.shapes.answers import (
    Aim,
    CompareAnswer,
    CompensateAnswer,
    FitAnswer,
    Fitted,
    FlatAnswer,
    Remedy,
    ShapeErrorOut,
    Way,
)
from studio.shapes.drafts import recipe_of
from studio.shapes.schemas import ShapeIn

FIT, COMPENSATE, COMPARE, FLAT = "fit", "compensate", "compare", "flat"


def question_of(question: ShapeIn) -> str:
    """What a job is asked about a shape, as JSON."""
    gauge = craft_gauge(question.gauge)
    asked = {
        "recipe": rounds_json(recipe_of(question.recipe, gauge)),
        "gauge": asdict(gauge),
        "firmness": question.gauge.firmness,
    }
    return json.dumps(asked, sort_keys=True)


def ask_fit(user: User, question: ShapeIn) -> Job:
    """The job that drafts and settles a shape, and lays it on its target."""
    return actions.ask(user, FIT, question_of(question))


def ask_compensation(user: User, question: ShapeIn) -> Job:
    """The job that redraws a shape until what it settles to comes nearest."""
    return actions.ask(user, COMPENSATE, question_of(question))


def ask_comparison(user: User, question: ShapeIn) -> Job:
    """The job that works a shape in every way there is, to compare them."""
    return actions.ask(user, COMPARE, question_of(question))


def ask_flat(user: User, question: ShapeIn) -> Job:
    """The job that tries what keeps a stuffed shape flat."""
    return actions.ask(user, FLAT, question_of(question))


def asked(question: str) -> tuple[Recipe, Gauge, float]:
    """The recipe, the gauge and the firmness of a question."""
    data = json.loads(question)
    return rounds_of(data["recipe"]), Gauge(**data["gauge"]), float(data["firmness"])


def _error(error: ShapeError) -> ShapeErrorOut:
    return ShapeErrorOut(**{name: round(value, 3) for name, value in asdict(error).items()})


class Follow:
    """Tells a job's watch the share that is done, and remembers when it said to stop."""

    def __init__(self, watch: Watch) -> None:
        self.watch, self.going = watch, True

    def __call__(self, share: float) -> bool:
        self.going = self.going and self.watch(int(99 * share))
        return self.going

    def on(self) -> None:
        """Raise Stopped when it was told to stop."""
        if not self.going:
            raise Stopped


def work_fit(question: str, watch: Watch) -> bytes:
    """Draft and settle the shape of a question; the answer as JSON."""
    recipe, gauge, firmness = asked(question)
    follow = Follow(watch)
    found = outcome(recipe, gauge, firmness=firmness, watch=lambda step: follow(min(step / USUAL_STEPS, 0.95)))
    follow.on()
    return FitAnswer(fitted=fitted(found.settled, recipe)).model_dump_json().encode()


def fitted(settled: Settled, recipe: Recipe) -> Fitted:
    """A settled shape with its target laid onto it, and how far each stitch lies off."""
    mesh = aim_of(recipe, settled.gauge)
    laid = fit(settled, mesh)
    aim = (mesh.x - laid.shift) @ laid.turn
    reach = float(np.abs(aim).max()) or 1.0
    return Fitted(
        settled=shown(settled),
        error=_error(laid.error),
        off=_packed(np.clip(laid.off * 100, -REACH, REACH), "<i2"),
        aim=Aim(scale=reach / REACH, x=_packed(aim / reach * REACH, "<i2"), triangles=_packed(mesh.faces, "<u4")),
    )


def work_compensation(question: str, watch: Watch) -> bytes:
    """Redraw the shape of a question; the recipe found, and how near it comes, as JSON."""
    recipe, gauge, firmness = asked(question)
    follow = Follow(watch)
    found = compensate(recipe, gauge, firmness=firmness, watch=follow)
    follow.on()
    answer = CompensateAnswer(
        recipe=RoundsRecipe.model_validate(rounds_json(found.recipe)),
        before=_error(found.before.error),
        after=_error(found.after.error),
        turns=found.turns,
    )
    return answer.model_dump_json().encode()


def work_comparison(question: str, watch: Watch) -> bytes:
    """Work the shape of a question in every way; what each costs, nearest first, as JSON."""
    recipe, gauge, firmness = asked(question)
    follow = Follow(watch)
    found = alternatives(recipe, gauge, firmness=firmness, watch=follow)
    follow.on()
    top = next((a.recipe.form for a in found if a.end == "top"), None)
    ways = [
        Way(
            end=a.end,
            cut_mm=None if a.cut_mm is None else round(a.cut_mm, 1),
            start=a.recipe.start,
            simplicity=a.recipe.simplicity,
            name=a.simplicity_name,
            rounds=a.rounds,
            stitches=a.stitches,
            different=a.different,
            error=_error(a.error),
            metres=EstimateOut(**asdict(a.metres)),
            hours=EstimateOut(**asdict(a.hours)),
        )
        for a in found
    ]
    return CompareAnswer(top=None if top is None else form_out(top), ways=ways).model_dump_json().encode()


def work_flat(question: str, watch: Watch) -> bytes:
    """Try threads and less filling on the shape of a question; what each brings, as JSON."""
    recipe, gauge, firmness = asked(question)
    follow = Follow(watch)
    found = remedies(recipe, gauge, firmness=firmness, watch=follow)
    follow.on()
    ways = [
        Remedy(threads=[t.numbers() for t in r.recipe.threads], firmness=r.firmness, error=_error(r.outcome.error))
        for r in found
    ]
    return FlatAnswer(ways=ways).model_dump_json().encode()


def _packed(values: np.ndarray[Any, np.dtype[Any]], kind: str) -> str:
    return b64encode(np.ascontiguousarray(np.round(values)).astype(kind).tobytes()).decode("ascii")
