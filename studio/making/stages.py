"""Parts of an edition as they lie after some of their rounds, settled by a worker for whoever works them."""

from __future__ import annotations

import json
from dataclasses import asdict, replace

from django.contrib.auth.models import User

from craft.design.design import Design as DesignValue
from craft.design.on_the_way import stages_of_making
from craft.design.parts import colours_of
from craft.design.stored import from_json, to_json
from craft.figure.placement import stages_of
from studio.bench.portraits import bare
from studio.jobs import actions
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.models import Job
from studio.making.answers import StagesAnswer
from studio.making.schemas import OpenStage, StagesOut

KIND = "stages"


def ask_stages(user: User, value: DesignValue, key: str) -> Job:
    """The job that settles a part after some of its rounds."""
    question = {"design": to_json(replace(bare(value), name="x", steps=())), "part": key}
    return actions.ask(user, KIND, json.dumps(question, ensure_ascii=False, sort_keys=True))


def stages_answered(job: Job) -> list[OpenStage]:
    """What a job that is done has settled, fewest rounds first."""
    return StagesAnswer.model_validate_json(actions.answer_of(job)).open


def work(question: str, watch: Watch) -> bytes:
    """Settle the part of a question after some of its rounds; the answer as JSON."""
    asked = json.loads(question)
    value = from_json(asked["design"])
    palette = colours_of(value.yarns)

    def told(share: float) -> None:
        if not watch(int(100 * share)):
            raise Stopped

    found = stages_of_making(value, asked["part"], told)
    looks = [
        OpenStage(after=after, look=StagesOut.model_validate(asdict(stages_of(skin, palette)))) for after, skin in found
    ]
    return StagesAnswer(open=looks).model_dump_json().encode()
