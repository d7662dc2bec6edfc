"""A log to which events are only added, whoever writes them on whichever device.

An event never changes. What was a slip is taken back by another event, so that logs of several devices are joined by
putting their events together, in whatever order they arrive.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass, fields
from typing import Any

from craft.errors import CraftError, require
from craft.formats import strict_converter, structured
from craft.making.happenings import KINDS, What, uuid_said

MOST_SEQ = 10**9
EARLIEST, LATEST = 946_684_800_000, 4_102_444_800_000
"""Between the years 2000 and 2100, in ms: a clock that says anything else is not set."""

_NAMES = {kind: name for name, kind in KINDS.items()}


@dataclass(frozen=True, slots=True)
class Event:
    """An event of a log. id: made by whoever wrote it. device, seq: where, and as which of that device's, so that its own
    order is known whatever its clock says. at: ms since 1970 by that clock."""

    id: str
    device: str
    seq: int
    at: int
    what: What

    def __post_init__(self) -> None:
        uuid_said(self.id, "id")
        require(0 < len(self.device) <= 40, "An event says on which device it was written.", field="device")
        require(0 <= self.seq <= MOST_SEQ, "Events of a device are counted from 0.", field="seq")
        require(
            EARLIEST <= self.at <= LATEST, "The clock of this device is not set: set its date and time.", field="at"
        )

    @property
    def kind(self) -> str:
        """Its kind by name."""
        return _NAMES[type(self.what)]


_CONVERTER = strict_converter()


def event_json(event: Event) -> dict[str, Any]:
    """An event as plain JSON: its id, device, number and time, its kind, and what it says."""
    return {
        "id": event.id,
        "device": event.device,
        "seq": event.seq,
        "at": event.at,
        "kind": event.kind,
        **asdict(event.what),
    }


def event_of(data: Mapping[str, Any]) -> Event:
    """An event from plain JSON. CraftError where it is none, or of a kind that a newer Spirrel writes."""
    kind = KINDS.get(str(data.get("kind", "")))
    if kind is None:
        raise CraftError(f"{str(data.get('kind'))[:40]!r} is no kind of event that is known here.", field="kind")
    common = {f.name for f in fields(Event)} - {"what"}
    said = {k: v for k, v in data.items() if k not in common and k != "kind"}
    what: What = structured(_CONVERTER, said, kind, "The event", placed=False)
    if missing := common - data.keys():
        raise CraftError(f"The event does not say its {', '.join(sorted(missing))}.", field=min(missing))
    head = (data["id"], data["device"], data["seq"], data["at"])
    if not (isinstance(head[0], str) and isinstance(head[1], str) and type(head[2]) is int and type(head[3]) is int):
        raise CraftError("The event is damaged: its id, device, number or time is of another kind.")
    return Event(head[0], head[1], head[2], head[3], what)


def in_order(events: Iterable[Event]) -> list[Event]:
    """All events, each once, in the order in which they happened: by time, yet never against a device's own order."""
    unique = {e.id: e for e in events}
    latest: dict[str, int] = {}
    timed: list[tuple[int, str, int, str, Event]] = []
    for device, seq, at, pk, event in sorted((e.device, e.seq, e.at, e.id, e) for e in unique.values()):
        latest[device] = max(at, latest.get(device, 0))
        timed.append((latest[device], device, seq, pk, event))
    timed.sort()
    return [row[4] for row in timed]
