"""Reports that testers sent on paper or in a table: CSV with one line a remark, read into events."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from uuid import NAMESPACE_URL, uuid5

from craft.errors import CraftError
from craft.making.events import Event
from craft.making.happenings import DidOtherwise, Otherwise, Remark, Remarked, What
from craft.making.worksheet import PartSheet, Rung, Worksheet

COLUMNS = ("tester", "part", "round", "kind", "text")
"""Of the table; the first line names them, in any order. kind: unclear, wrong count, did otherwise, liked."""

_KINDS: Mapping[str, Remark | None] = {
    "unclear": Remark.UNCLEAR,
    "wrong count": Remark.WRONG_COUNT,
    "wrong-count": Remark.WRONG_COUNT,
    "liked": Remark.LIKED,
    "did otherwise": None,
    "otherwise": None,
}
MOST_LINES = 5_000
_PAPER = "paper"


@dataclass(frozen=True, slots=True)
class Unread:
    """A line that could not be taken, from 1 as the file counts them, and why."""

    line: int
    why: str


@dataclass(frozen=True, slots=True)
class Papers:
    """What a table holds: events by tester, and the lines that could not be read."""

    by_tester: Mapping[str, tuple[Event, ...]]
    unread: tuple[Unread, ...]


def read_reports(text: str, sheet: Worksheet, at: int) -> Papers:
    """Remarks of a CSV table, separated by commas, semicolons or tabs. at: ms since 1970 that they are dated.

    The same line read again gives the same event, so that reading a file twice adds nothing. CraftError where it is no such
    table at all.
    """
    rows = list(csv.reader(io.StringIO(text.lstrip("\ufeff")), delimiter=_delimiter(text)))
    if len(rows) > MOST_LINES:
        raise CraftError(f"A table of reports has up to {MOST_LINES:,} lines.", field="file")
    head = [cell.strip().lower() for cell in rows[0]] if rows else []
    if missing := [c for c in ("tester", "kind") if c not in head]:
        raise CraftError(
            f"The first line has to name the columns {', '.join(COLUMNS)}; here {' and '.join(missing)} is missing.",
            field="file",
        )
    events: dict[str, list[Event]] = {}
    unread: list[Unread] = []
    for line, row in enumerate(rows[1:], 2):
        cells = {name: row[i].strip() if i < len(row) else "" for i, name in enumerate(head)}
        if not any(cells.values()):
            continue
        try:
            tester = _tester(cells)
            what = _what(cells, sheet)
            own = uuid5(NAMESPACE_URL, "\n".join((tester, *(cells.get(c, "") for c in COLUMNS[1:]))))
            events.setdefault(tester, []).append(Event(str(own), _PAPER, line, at, what))
        except CraftError as error:
            unread.append(Unread(line, error.message))
    return Papers({name: tuple(found) for name, found in events.items()}, tuple(unread))


def _delimiter(text: str) -> str:
    first = text.partition("\n")[0]
    return max(",;\t", key=first.count)


def _tester(cells: Mapping[str, str]) -> str:
    name = cells["tester"]
    if not name:
        raise CraftError("It does not say which tester it is of.")
    return name[:120]


def _what(cells: Mapping[str, str], sheet: Worksheet) -> What:
    kind, text = cells["kind"].lower(), cells.get("text", "")
    if kind not in _KINDS:
        raise CraftError(f"“{cells['kind']}” is no kind of remark: unclear, wrong count, did otherwise or liked.")
    part, round_ = _place(cells, sheet)
    remark = _KINDS[kind]
    if remark is not None:
        return Remarked(remark, part, round_, text)
    if not part or not round_:
        raise CraftError("What was done otherwise needs its part and its round.")
    return DidOtherwise(part, 1, round_, Otherwise.OTHER, text=text)


def _place(cells: Mapping[str, str], sheet: Worksheet) -> tuple[str, int]:
    name, said = cells.get("part", ""), cells.get("round", "")
    if not name:
        return "", _step(said, sheet.steps)
    part = next((p for p in sheet.parts if p.name.lower() == name.lower()), None)
    if part is None:
        raise CraftError(f"There is no part “{name}”: {', '.join(p.name for p in sheet.parts)}.")
    return part.key, _round(said, part) if said else 0


def _step(said: str, steps: Sequence[str]) -> int:
    if not said:
        return 0
    digits = said.lower().removeprefix("step").strip()
    if not digits.isdecimal() or not 1 <= int(digits) <= len(steps):
        raise CraftError(f"There is no step “{said}”: without a part, a number names a step of the assembly.")
    return int(digits)


def _round(said: str, part: PartSheet) -> int:
    for at, rung in _rungs(part):
        if said.lower() in (
            rung.label.lower(),
            rung.label.lower().removeprefix("r"),
            rung.label.lower().removeprefix("row "),
        ):
            return at
    raise CraftError(f"{part.name} has no round “{said}”.")


def _rungs(part: PartSheet) -> Iterator[tuple[int, Rung]]:
    yield from enumerate(part.rungs, 1)
