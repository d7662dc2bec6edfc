"""A pattern as JSON text and back.

The library behind the stored form is loaded when a pattern in JSON is there: a text that is only checked does without.
"""

from __future__ import annotations

import importlib
import json
from typing import Any

from craft.errors import CraftError
from craft.rounds.pattern import Pattern


def _stored() -> Any:
    return importlib.import_module("craft.rounds.pattern.stored")


def written(pattern: Pattern) -> str:
    """The pattern as JSON text."""
    return json.dumps(_stored().to_json(pattern), ensure_ascii=False, indent=1) + "\n"


def read(name: str, text: str) -> Pattern:
    """The pattern in JSON text; name: what it is called in a CraftError."""
    try:
        data = json.loads(text)
    except (json.JSONDecodeError, RecursionError) as error:
        raise CraftError(f"{name}: not readable JSON: {error}.") from None
    pattern: Pattern = _stored().from_json(data)
    return pattern
