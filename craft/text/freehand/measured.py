"""How many rounds there are, where a length or a wish says so: 'until it measures 5 cm', 'as long as you like'."""

from __future__ import annotations

import re

MEASURED = re.compile(
    r"(?i),?\s*(?:until|till|bis|jusqu'à|hasta|fino|tot)\b[^.;()\[\]]*?\d\s*(?:cm|mm|in(?:ch(?:es)?)?\b|\")[^.;()\[\]]*"
)
"""'… until it measures about 5 cm.'"""


_AS_WISHED = re.compile(
    r"(?i)\bas\s+(?:long|tall|wide|big)\s+as\s+(?:you|needed|desired|necessary)|\blong\s+enough\b|\bdesired\s+(?:length|size)|\blength\s+you\b"
    r"|\bto\s+(?:your\s+liking|the\s+length)|\bso\s+lang\s+wie\b|\bgewünschte[nr]?\s+(?:länge|größe)|\blongueur\s+(?:désirée|souhaitée|voulue)"
    r"|\b(?:largo|longitud)\s+(?:desead[oa]|que\s+(?:quieras|desees))|\blunghezza\s+(?:desiderata|voluta)|\bgewenste\s+lengte"
)
"""'Repeat round 4 until your snake is as long as you like.'"""


def is_measured(text: str) -> bool:
    """Whether a length says how many rounds there are, 'until the scarf is 20 cm long', or a wish does: that is left to
    the maker."""
    return MEASURED.search(text) is not None or _AS_WISHED.search(text) is not None
