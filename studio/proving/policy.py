"""Whose notes, tests and testers: those of her designs."""

from __future__ import annotations

from studio.policy import Rule, register
from studio.proving.models import LogEntry, RemarkAnswer, TestCall, Tester

register(LogEntry, Rule("design__owner", "design_id"))
register(TestCall, Rule("design__owner", "design_id"))
register(Tester, Rule("design__owner", "design_id"))
register(RemarkAnswer, Rule("event__making__design__owner", "event__making__design_id"))
