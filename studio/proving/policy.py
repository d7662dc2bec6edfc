"""Whose log and testers: those of her designs."""

from __future__ import annotations

from studio.policy import Rule, register
from studio.proving.models import LogEntry, Tester

register(LogEntry, Rule("design__owner", "design_id"))
register(Tester, Rule("design__owner", "design_id"))
