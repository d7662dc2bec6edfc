"""A design from a file: its own JSON, or a pattern written in any manner."""

from __future__ import annotations

from craft.design.brought import design_of
from craft.design.design import Design
from craft.design.stored import is_design, read_design
from craft.errors import require
from craft.text.check import check
from craft.text.exchange import imported_text


def design_in_file(name: str, raw: bytes) -> Design:
    """The design of a file; CraftError says why it holds none. name: the file's, which names a text without a title."""
    if name.lower().endswith(".json") or raw.lstrip()[:1] == b"{":
        text = raw.decode("utf-8", "replace")
        if is_design(text) or '"schema"' not in text[:4000]:  # the JSON of a pattern is told by its schema
            return read_design(text)
    text = imported_text(name, raw).text
    checked = check(text)
    require(any(part.rounds for part in checked.parts), f"{name}: no round was found in it.")
    return design_of(checked, text, name.rsplit("/", 1)[-1].rsplit(".", 1)[0])
