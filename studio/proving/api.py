"""Routes of the making log and of testers; ids are made by whoever writes, so that a retry is no second row."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from studio.designs.models import Design
from studio.designs.policy import design_of
from studio.guard import designer
from studio.proving import actions
from studio.proving.schemas import LogEntryIn, LogEntryOut, Proving, TesterIn, TesterOut

router = Router(tags=["proving"])


def _proving(design: Design) -> Proving:
    return Proving(
        log=[LogEntryOut.model_validate(e, from_attributes=True) for e in design.log_entries.all()],
        testers=[TesterOut.model_validate(t, from_attributes=True) for t in design.testers.all()],
    )


@router.get("/{int:design_id}/proving", response=Proving)
def read_proving(request: HttpRequest, design_id: int) -> Proving:
    """The making log and the testers of a design."""
    return _proving(design_of(designer(request), design_id))


@router.put("/{int:design_id}/proving/log/{uuid:entry_id}", response=Proving)
def put_log_entry(request: HttpRequest, design_id: int, entry_id: UUID, payload: LogEntryIn) -> Proving:
    """Write a line of the log, or change it."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.put_log_entry(user, design, entry_id, payload.dict())
    return _proving(design)


@router.delete("/{int:design_id}/proving/log/{uuid:entry_id}", response=Proving)
def remove_log_entry(request: HttpRequest, design_id: int, entry_id: UUID) -> Proving:
    """Take a line out of the log."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove_log_entry(user, design, entry_id)
    return _proving(design)


@router.put("/{int:design_id}/proving/testers/{uuid:tester_id}", response=Proving)
def put_tester(request: HttpRequest, design_id: int, tester_id: UUID, payload: TesterIn) -> Proving:
    """Write a tester, or change her."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.put_tester(user, design, tester_id, payload.dict())
    return _proving(design)


@router.delete("/{int:design_id}/proving/testers/{uuid:tester_id}", response=Proving)
def remove_tester(request: HttpRequest, design_id: int, tester_id: UUID) -> Proving:
    """Take a tester out."""
    user = designer(request)
    design = design_of(user, design_id)
    actions.remove_tester(user, design, tester_id)
    return _proving(design)
