"""Whose links: those of her designs. A link never shows links."""

from __future__ import annotations

from studio.links.models import Link
from studio.policy import Rule, register

register(Link, Rule("design__owner"))
