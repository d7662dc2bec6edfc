"""Carries the log and the testers that stood in manifests of format 1 over into rows of their own."""

from __future__ import annotations

import uuid
from collections.abc import Iterable
from datetime import date, timedelta
from typing import Any

from django.utils import timezone

_NAMESPACE = uuid.UUID("6f1f8c5e-3a54-4c0e-9a83-5b1f2f1d8e77")


def row_id(design: int, key: str) -> uuid.UUID:
    """The id of a row that had a key in a manifest: the same each time, so that carrying twice makes no second row."""
    return uuid.uuid5(_NAMESPACE, f"{design}:{key}")


def carried(design: int, data: dict[str, Any]) -> tuple[list[dict[str, Any]], list[dict[str, Any]]]:
    """Values of log rows and of testers' rows that a manifest of format 1 holds."""
    page = data.get("proving") or {}
    log = [
        {
            "id": row_id(design, entry["key"]),
            "design_id": design,
            "date": date.fromisoformat(entry["date"]),
            "text": entry["text"],
        }
        for entry in page.get("log") or []
    ]
    testers = [
        {
            "id": row_id(design, tester["key"]),
            "design_id": design,
            "name": tester["name"],
            "yarn": tester.get("yarn", ""),
            "state": tester.get("state", "asked"),
            "remarks": tester.get("remarks", ""),
        }
        for tester in page.get("testers") or []
    ]
    return log, testers


def carry_over(heads: Iterable[tuple[int, dict[str, Any]]], log_model: Any, tester_model: Any) -> None:
    """Make the rows of every design's shown revision. heads: (design, stored manifest). Once for a row."""
    for design, data in heads:
        log, testers = carried(design, data)
        for model, rows in ((log_model, log), (tester_model, testers)):
            begun = timezone.now()
            for at, row in enumerate(rows):
                found, fresh = model.objects.get_or_create(id=row["id"], defaults=row)
                if fresh:  # kept in the order in which they stood
                    model.objects.filter(pk=found.pk).update(created=begun + timedelta(milliseconds=at))
