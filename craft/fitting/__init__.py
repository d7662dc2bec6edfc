"""Fitting: what a draft settles to, and how its target is changed so that the settled figure comes nearest."""

from craft.fitting.compensate import Compensated, Outcome, compensate, outcome

__all__ = ["Compensated", "Outcome", "compensate", "outcome"]
