"""What logs come to, written down: the phone's own reading of a log is held to the same answers (`frontend/src/making`)."""

from __future__ import annotations

import json
import os
import random
from pathlib import Path
from typing import Any

import pytest

from craft.making import event_json, event_of, fold
from craft.making.events import Event
from craft.making.happenings import (
    Done,
    Finished,
    HookTaken,
    Noted,
    Ripped,
    SkeinTaken,
    StepDone,
    Stitched,
    What,
    Withdrawn,
)
from tests.craft.test_making import NOON, log, named

FILE = Path(__file__).parents[1] / "golden" / "makings.json"


def logs() -> dict[str, list[Event]]:
    """Logs of every sort: plain, ripped back, slips taken back, two devices, clocks that jump."""
    plain: list[What] = [
        Done("ball", 1, 1),
        Done("ball", 1, 2),
        Stitched("ball", 1, 3, 4),
        HookTaken(3.5),
        Noted("Soft.", "ball", 3),
    ]
    slip = log(Done("ball", 1, 1), Done("ball", 1, 2))
    rng = random.Random(17)
    parts = [("ball", 1), ("foot", 1), ("foot", 2)]
    wild = [
        Event(
            named(1000 + 40 * d + i),
            f"device-{d}",
            i,
            NOON + rng.randint(-4_000_000, 4_000_000),
            rng.choice(
                [
                    Done(*rng.choice(parts), rng.randint(1, 9)),
                    Ripped(*rng.choice(parts), rng.randint(0, 9)),
                    Stitched(*rng.choice(parts), rng.randint(1, 9), rng.randint(0, 30)),
                    StepDone(rng.randint(1, 5), rng.random() < 0.3),
                    SkeinTaken("Moss", f"ball {i}"),
                ]
            ),
        )
        for d in range(3)
        for i in range(40)
    ]
    return {
        "nothing": [],
        "plain": log(*plain),
        "ripped": log(Done("ball", 1, 1), Done("ball", 1, 2), Ripped("ball", 1, 0)),
        "slip": [*slip, Event(named(99), "phone", 2, NOON + 200_000, Withdrawn(slip[1].id))],
        "finished": log(Done("ball", 1, 8), StepDone(1), Finished()),
        "begun again": log(Done("ball", 1, 8), Finished(), Ripped("ball", 1, 7)),
        "a stitch of another round": log(Done("ball", 1, 2), Stitched("ball", 1, 7, 4)),
        "three devices whose clocks jump": wild,
    }


def answer(events: list[Event]) -> dict[str, Any]:
    """What the phone shows of a log."""
    found = fold(events)

    def place(p: Any) -> Any:
        return p and {"part": p.part, "piece": p.piece, "done": p.done, "stitches": p.stitches}

    return {
        "pieces": sorted((place(p) for p in found.pieces), key=lambda p: (p["part"], p["piece"])),
        "at": place(found.at),
        "steps": sorted(found.steps),
        "hook": found.hook_mm,
        "skeins": dict(found.skeins),
        "note": getattr(found.notes[-1].event.what, "text", "") if found.notes else "",
        "finished": found.finished,
    }


def test_answers_are_as_written_down() -> None:
    now = {
        name: {"events": [event_json(e) for e in events], "answer": answer(events)} for name, events in logs().items()
    }
    if os.environ.get("SPIRREL_GOLDEN") == "write":
        FILE.write_text(json.dumps(now, indent=1, ensure_ascii=False) + "\n")
    assert json.loads(FILE.read_text()) == json.loads(json.dumps(now))


@pytest.mark.parametrize("name", list(logs()))
def test_events_written_down_are_still_read(name: str) -> None:
    """Logs that lie on devices since this format was made are read for ever."""
    kept = json.loads(FILE.read_text())[name]
    assert answer([event_of(e) for e in kept["events"]]) == kept["answer"]
