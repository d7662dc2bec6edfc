"""What a log comes to: how far every piece is, what was done otherwise, what was measured, how long it took."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field

from craft.making.events import Event, in_order
from craft.making.happenings import (
    DidOtherwise,
    Done,
    Finished,
    HookTaken,
    Measured,
    Noted,
    Paused,
    Pictured,
    Remarked,
    Reported,
    Ripped,
    SkeinTaken,
    StepDone,
    Stitched,
    TimeCorrected,
    Weighed,
    Withdrawn,
)

PAUSE_MS = 20 * 60_000
"""Between two events that far apart she did something else: that time does not count."""


@dataclass(frozen=True, slots=True)
class PieceAt:
    """How far a piece of a part is: rounds done, and stitches of the one in hand."""

    part: str
    piece: int
    done: int
    stitches: int = 0


@dataclass(frozen=True, slots=True)
class Told:
    """An event of some kind with when and where it was told."""

    event: Event
    part: str
    round: int


@dataclass(frozen=True, slots=True)
class Used:
    """Grams of a yarn that went into a making: the ball before less the ball after, of each time that both were weighed."""

    yarn: str
    grams: float


@dataclass(frozen=True, slots=True)
class Progress:
    """What a log comes to. at: the piece she worked on last. skeins: in use, by yarn. minutes: at work, as the log and its
    corrections have it; pauses: how often a longer time was left out. weighing: yarns whose ball was weighed only before.
    withdrawn: events that no longer count."""

    pieces: tuple[PieceAt, ...]
    steps: frozenset[int]
    at: PieceAt | None
    hook_mm: float | None
    skeins: Mapping[str, str]
    minutes: float
    pauses: int
    otherwise: tuple[Told, ...]
    notes: tuple[Told, ...]
    pictures: tuple[Told, ...]
    measured: tuple[Told, ...]
    remarks: tuple[Told, ...]
    used: tuple[Used, ...]
    weighing: tuple[str, ...]
    report: Reported | None
    finished: bool
    events: int
    last_at: int | None
    withdrawn: int

    def done(self, part: str, piece: int = 1) -> int:
        """Rounds of a piece that are done."""
        return next((p.done for p in self.pieces if p.part == part and p.piece == piece), 0)


@dataclass
class _Fold:
    """A log on the way of being read, event after event."""

    pieces: dict[tuple[str, int], tuple[int, int]] = field(default_factory=dict)
    steps: set[int] = field(default_factory=set)
    at: tuple[str, int] | None = None
    hook: float | None = None
    skeins: dict[str, str] = field(default_factory=dict)
    corrected: float = 0.0
    told: dict[type, list[Told]] = field(default_factory=dict)
    balls: dict[str, float] = field(default_factory=dict)
    grams: dict[str, float] = field(default_factory=dict)
    report: Reported | None = None
    finished: bool = False

    def take(self, event: Event) -> None:
        """One event more."""
        match event.what:
            case Done(part, piece, round_):
                self._move(part, piece, max(round_, self._done(part, piece)), 0)
            case Ripped(part, piece, round_):
                self._move(part, piece, round_, 0)
            case Stitched(part, piece, round_, stitches):
                done = self._done(part, piece)
                self._move(part, piece, done, stitches if round_ == done + 1 else 0)
            case StepDone(step, undone):
                (self.steps.discard if undone else self.steps.add)(step)
            case HookTaken(mm):
                self.hook = mm
            case SkeinTaken(yarn, text):
                self.skeins[yarn] = text
            case TimeCorrected(minutes):
                self.corrected += minutes
            case Weighed():
                self._weigh(event.what)
            case Reported():
                self.report = event.what
            case Finished():
                self.finished = True
            case DidOtherwise() | Noted() | Pictured() | Measured() | Remarked():
                self.told.setdefault(type(event.what), []).append(Told(event, event.what.part, event.what.round))
            case _:
                pass

    def _done(self, part: str, piece: int) -> int:
        return self.pieces.get((part, piece), (0, 0))[0]

    def _move(self, part: str, piece: int, done: int, stitches: int) -> None:
        self.at = (part, piece)
        self.pieces[self.at] = (done, stitches)
        self.finished = False

    def placed(self) -> dict[tuple[str, int], PieceAt]:
        """How far every piece is."""
        return {(part, piece): PieceAt(part, piece, *at) for (part, piece), at in self.pieces.items()}

    def _weigh(self, ball: Weighed) -> None:
        if not ball.after:
            self.balls[ball.yarn] = ball.grams
        elif (before := self.balls.pop(ball.yarn, None)) is not None:
            self.grams[ball.yarn] = self.grams.get(ball.yarn, 0.0) + max(before - ball.grams, 0.0)


def fold(events: Iterable[Event]) -> Progress:
    """What a log comes to; its events may come in any order, and more than once."""
    ordered = in_order(events)
    gone = {e.what.event for e in ordered if isinstance(e.what, Withdrawn)}
    counting = [e for e in ordered if e.id not in gone and not isinstance(e.what, Withdrawn)]
    folded = _Fold()
    for event in counting:
        folded.take(event)
    minutes, pauses = _time(counting)
    told, pieces = folded.told, folded.placed()
    return Progress(
        pieces=tuple(pieces.values()),
        steps=frozenset(folded.steps),
        at=pieces[folded.at] if folded.at else None,
        hook_mm=folded.hook,
        skeins=folded.skeins,
        minutes=max(minutes + folded.corrected, 0.0),
        pauses=pauses,
        otherwise=tuple(told.get(DidOtherwise, ())),
        notes=tuple(told.get(Noted, ())),
        pictures=tuple(told.get(Pictured, ())),
        measured=tuple(told.get(Measured, ())),
        remarks=tuple(told.get(Remarked, ())),
        used=tuple(Used(y, g) for y, g in folded.grams.items()),
        weighing=tuple(folded.balls),
        report=folded.report,
        finished=folded.finished,
        events=len(ordered),
        last_at=ordered[-1].at if ordered else None,
        withdrawn=len(ordered) - len(counting),
    )


def _time(ordered: list[Event]) -> tuple[float, int]:
    """Minutes at work, and how many longer times were left out. On two devices at once time runs once."""
    total, pauses = 0, 0
    latest: int | None = None
    down = False
    for event in ordered:
        if latest is not None and event.at > latest:
            gap = event.at - latest
            if gap <= PAUSE_MS and not down:
                total += gap
            else:
                pauses += 1
        latest = max(latest or 0, event.at)
        down = isinstance(event.what, Paused)
    return total / 60_000, pauses
