"""Whose leaving it is: only her own."""

from __future__ import annotations

from studio.leaving.models import Departure
from studio.policy import Rule, register

register(Departure, Rule("user"))
