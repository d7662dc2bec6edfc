"""Filters that the printed booklet needs."""

from __future__ import annotations

import re
from base64 import b64encode
from collections.abc import Mapping
from typing import Any

from django import template
from django.utils.safestring import mark_safe

from studio.booklets.scripts import in_any_script

register = template.Library()


@register.filter
def css(text: str) -> str:
    """Text inside a CSS string: everything but plain letters and digits escaped, each escape ended by its own blank."""
    return mark_safe("".join(c if (c.isascii() and c.isalnum()) or c == " " else f"\\{ord(c):x} " for c in text))  # noqa: S308


@register.filter
def signed(change: int) -> str:
    """A change with its sign, '=' for none."""
    return f"{change:+d}".replace("-", "\N{MINUS SIGN}") if change else "="


@register.filter
def anchor(key: str) -> str:
    """A section's key as the id of an element: letters, digits and hyphens, whatever script a part's name is in."""
    return "s-" + re.sub(r"[^a-zA-Z0-9]", lambda m: f"-{ord(m[0]):x}-", key)


@register.filter
def at(values: Mapping[str, str], key: str) -> str:
    """The address of a picture, empty while it is not there."""
    return values.get(key, "")


@register.filter
def steps(block: Mapping[str, Any]) -> list[tuple[str, list[Any]]]:
    """The lines of a block of steps, each with its pictures."""
    shown = list(block["pictures"]) + [[]] * len(block["lines"])
    return list(zip(block["lines"], shown, strict=False))


@register.filter
def drawn(svg: str) -> str:
    """A drawing as a data URL."""
    return f"data:image/svg+xml;base64,{b64encode(in_any_script(svg).encode()).decode('ascii')}"


@register.filter
def kept(line: str) -> str:
    """A sentence whose rounds stay with the word before them: no line begins with 'R17', as if it were that round."""
    return re.sub(r" (?=(?:R|Rd |T|V)\d)", "\N{NO-BREAK SPACE}", line)
