"""Upgrades of a backup's rows: one pure step from each format to the next, tested on a frozen backup of each."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from studio.backups.tables import Record
from studio.proving.carry import carried

RowsUpgrade = Callable[[list[Record]], list[Record]]


def _plain(values: dict[str, Any]) -> dict[str, Any]:
    named = {("design" if k == "design_id" else k): v for k, v in values.items() if k != "id"}
    return {k: v.isoformat() if hasattr(v, "isoformat") else v for k, v in named.items()}


def _to_2(records: list[Record]) -> list[Record]:
    """Versions lost their canonical form, which nothing read; log and testers of shown revisions became rows."""
    out: list[Record] = []
    revisions = {r["pk"]: r for r in records if r["model"] == "designs.revision"}
    for record in records:
        if record["model"] == "designs.partversion":
            fields = {k: v for k, v in record["fields"].items() if k != "canonical"}
            out.append({**record, "fields": fields})
        else:
            out.append(record)
    for record in records:
        head = revisions.get(record["fields"].get("head")) if record["model"] == "designs.design" else None
        if head is None:
            continue
        log, testers = carried(record["pk"], head["fields"]["data"])
        made = record["fields"]["changed"]
        for model, rows in (("proving.logentry", log), ("proving.tester", testers)):
            out += [{"model": model, "pk": str(r["id"]), "fields": {**_plain(r), "created": made}} for r in rows]
    return out


_RENAMED = {"designs.draft": "designs.typedtext", "yarns.sample": "yarns.swatch"}


def _to_3(records: list[Record]) -> list[Record]:
    """Drafts are typed texts, samples are swatches."""
    return [{**r, "model": _RENAMED.get(r["model"], r["model"])} for r in records]


STEPS: Sequence[RowsUpgrade] = (_to_2, _to_3)
"""STEPS[k] turns format k + 1 into k + 2."""

FORMAT = len(STEPS) + 1
