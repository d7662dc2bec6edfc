"""Fitting: what a draft settles to, ways to work a shape side by side, and targets redrawn to settle nearest."""

from craft.fitting.alternatives import Alternative, alternatives, neck_of, turned
from craft.fitting.compensate import Compensated, Outcome, compensate, outcome
from craft.fitting.sew import Remedy, remedies

__all__ = [
    "Alternative",
    "Compensated",
    "Outcome",
    "Remedy",
    "alternatives",
    "compensate",
    "neck_of",
    "outcome",
    "remedies",
    "turned",
]
