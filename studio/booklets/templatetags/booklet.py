"""Filters that the printed booklet needs."""

from __future__ import annotations

from django import template
from django.utils.safestring import mark_safe

register = template.Library()


@register.filter
def css(text: str) -> str:
    """Text inside a CSS string: everything but plain letters and digits escaped, each escape ended by its own blank."""
    return mark_safe("".join(c if (c.isascii() and c.isalnum()) or c == " " else f"\\{ord(c):x} " for c in text))  # noqa: S308


@register.filter
def signed(change: int) -> str:
    """A change with its sign, '=' for none."""
    return f"{change:+d}".replace("-", "\N{MINUS SIGN}") if change else "="
