"""Many sizes of a large figure: drafted by a worker, column by column, and answered as one table."""

from __future__ import annotations

import json
from dataclasses import replace

from django.contrib.auth.models import User

from craft.design.grading import Taught
from craft.design.running import run_parts
from craft.design.size import Size
from craft.design.stored import from_json, to_json
from studio.designs.reading import ReadDesign
from studio.jobs import actions
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.shown import job_shown
from studio.sizes.answers import SizesAnswer
from studio.sizes.left import Left
from studio.sizes.schemas import SizesTable
from studio.sizes.table import table
from studio.sizes.taught import taught_of

KIND = "sizes"

MOST_AT_ONCE = 800
"""Rounds, over all sizes, that are drafted while she waits: some half a second of work."""


def sizes_table(user: User, read: ReadDesign, sizes: tuple[Size, ...], left: Left) -> SizesTable:
    """The design beside the sizes asked for: at once where that is little work, else the job that drafts them."""
    taught = taught_of(user, read)
    rounds = sum(len(part.worked.rounds) for part in read.parts if part.worked is not None)
    if rounds * len(sizes) <= MOST_AT_ONCE:
        return table(read.value, read.parts, sizes, left, taught)
    kept = replace(read.value.printed, height_made=taught.height, width_made=taught.width)
    value = replace(read.value, sizes=sizes, printed=kept)
    question = json.dumps({"design": to_json(value), "left": dict(sorted(left.items()))})
    return SizesTable(columns=[], things=[], job=job_shown(actions.ask(user, KIND, question)))


def work(question: str, watch: Watch) -> bytes:
    """Draft the sizes of a question; the table as JSON."""
    asked = json.loads(question)
    value = from_json(asked["design"])
    many = len(value.sizes) + 1

    def told(done: int) -> None:
        if not watch(min(99, 100 * done // many)):
            raise Stopped

    taught = Taught(value.printed.height_made, value.printed.width_made)
    made = table(value, run_parts(value), value.sizes, asked["left"], taught, told)
    return SizesAnswer(table=made).model_dump_json().encode()
