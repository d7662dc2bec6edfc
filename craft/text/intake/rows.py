"""Lines of a document as lines of text."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence

_LIGATURES = str.maketrans({
    "\ufb00": "ff", "\ufb01": "fi", "\ufb02": "fl", "\ufb03": "ffi", "\ufb04": "ffl", "\ufb05": "ft", "\ufb06": "st",
    "\u00ad": "", "\u00a0": " ",
})  # fmt: skip


def table_row(cells: Sequence[str]) -> str:
    """A table's row as a line, its cells between bars."""
    return f"| {' | '.join(c.replace('|', '/') for c in cells)} |"


def cleaned(lines: Iterable[str]) -> str:
    """Lines without joined letters and hidden hyphens, never more than one empty line between two."""
    text = "\n".join(re.sub(r"[ \t]+$", "", line.translate(_LIGATURES)) for line in lines)
    return re.sub(r"\n{3,}", "\n\n", text).strip("\n") + "\n"
