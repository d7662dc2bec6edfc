"""Making, measured: what folds a log of 10,000 events, reads a worksheet, and draws a part by its rounds."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from uuid import NAMESPACE_URL, uuid5

from craft.design.design import Design
from craft.design.parts import Part
from craft.design.running import run_parts
from craft.document.booklet import Imprint, manuscript_of
from craft.figure.placement import Skin, stages_of
from craft.figure.settling import settle
from craft.making import Event, Worksheet, event_json, event_of, fold, grouped, worksheet_of
from craft.making.happenings import Done, Noted, Remark, Remarked, Stitched, What
from craft.rounds.stitches import Terms

GOES = 7
EVENTS = 10_000
ASKED_MS = 100

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6-R40: sc around [30]
Stuff.
R41: (3 sc, dec) x 6 [24]
R42: (2 sc, dec) x 6 [18]
R43: (sc, dec) x 6 [12]
R44: dec x 6 [6]
Close: draw the tail through the front loops of the last 6 stitches and pull tight.
"""


def _design() -> Design:
    return Design("Ball", parts=(Part("ball", "Ball", BALL, make=4),))


def _sheet() -> Worksheet:
    design = _design()
    written = manuscript_of(design, run_parts(design), Imprint("Lanternwick", Terms.US, "2026-11-30"))
    return worksheet_of(written, hours=4, fills={})


def _log(many: int) -> list[Event]:
    """A long making on three devices: rounds, stitches, notes and remarks by turns."""
    found = []
    for i in range(many):
        round_, piece = i // 4 % 44 + 1, i // 176 % 4 + 1
        what: What = (
            Done("ball", piece, round_),
            Stitched("ball", piece, round_, i % 30),
            Noted("Soft.", "ball", round_),
            Remarked(Remark.UNCLEAR, "ball", round_, "Which of the two?"),
        )[i % 4]
        device = f"device-{i % 3}"
        found.append(Event(str(uuid5(NAMESPACE_URL, str(i))), device, i // 3, 1_790_000_000_000 + i * 4_000, what))
    return found


def _median(work: Callable[[], object]) -> float:
    """Milliseconds."""
    took = []
    for _ in range(GOES):
        begun = time.perf_counter()
        work()
        took.append(time.perf_counter() - begun)
    return 1000 * statistics.median(took)


def making_table() -> str:
    """Medians of seven goes."""
    log, sheet = _log(EVENTS), _sheet()
    data = [event_json(e) for e in log]
    progress = fold(log)
    worked = run_parts(_design())[0].worked
    assert worked is not None
    skin = Skin.of("Ball", settle(worked, _design().gauge_now))
    many = len(stages_of(skin, {}).corners)
    rows = [
        (f"{EVENTS:,} events folded (asked: {ASKED_MS})", _median(lambda: fold(log))),
        (f"{EVENTS:,} events read from JSON", _median(lambda: [event_of(e) for e in data])),
        (
            "remarks of 20 such testers grouped",
            _median(lambda: grouped(sheet, [(str(i), progress) for i in range(20)])),
        ),
        (f"a worksheet of {sheet.stitches:,} stitches", _median(_sheet)),
        (f"a part drawn by its rounds, {many:,} faces", _median(lambda: stages_of(skin, {}))),
    ]
    return "\n".join(["Making, in ms", *(f"  {name:45} {spent:7.1f}" for name, spent in rows)])
