"""Making from an edition, and what is learned from it: worksheets, logs, deviations, measures, testers' remarks."""

from craft.making.deviations import AsMade, Deviation, as_made, as_text, counts_done, deviations
from craft.making.events import Event, event_json, event_of, in_order
from craft.making.folding import PAUSE_MS, PieceAt, Progress, Told, Used, fold
from craft.making.happenings import KINDS, Otherwise, Reported
from craft.making.learned import LEAST_MAKINGS, Learned, Pair, Quantity, Sample, learned, pairs_of, sample_of
from craft.making.papers import COLUMNS, Papers, Unread, read_reports
from craft.making.readiness import Open, left_open
from craft.making.remarks import OTHERWISE, Group, Said, grouped, heat
from craft.making.worksheet import (
    PartSheet,
    Rung,
    Tick,
    Worksheet,
    YarnToUse,
    worksheet_from,
    worksheet_json,
    worksheet_of,
)

__all__ = [
    "COLUMNS",
    "KINDS",
    "LEAST_MAKINGS",
    "OTHERWISE",
    "PAUSE_MS",
    "AsMade",
    "Deviation",
    "Event",
    "Group",
    "Learned",
    "Open",
    "Otherwise",
    "Pair",
    "Papers",
    "PartSheet",
    "PieceAt",
    "Progress",
    "Quantity",
    "Reported",
    "Rung",
    "Said",
    "Sample",
    "Tick",
    "Told",
    "Unread",
    "Used",
    "Worksheet",
    "YarnToUse",
    "as_made",
    "as_text",
    "counts_done",
    "deviations",
    "event_json",
    "event_of",
    "fold",
    "grouped",
    "heat",
    "in_order",
    "learned",
    "left_open",
    "pairs_of",
    "read_reports",
    "sample_of",
    "worksheet_from",
    "worksheet_json",
    "worksheet_of",
]
