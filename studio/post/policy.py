"""Whose letters: hers who wrote them."""

from __future__ import annotations

from studio.policy import Rule, register
from studio.post.models import Letter

register(Letter, Rule("owner", "design_id"))
