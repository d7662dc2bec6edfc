"""What others made, read in processes of their own with limits; refusals in the studio's shape."""

from __future__ import annotations

from typing import Any

from craft.errors import CraftError
from craft.limited import answer_of as limited_answer
from studio.errors import Refusal

_INTAKE = "craft.shape.intake.__main__"


def answer_of(
    script: str, raw: bytes, *words: str, memory_mb: int, refused: str, kind: str = "invalid"
) -> dict[str, Any]:
    """The JSON object that a script beside this file prints, or the craft's reader called `mesh` or `drawing`.

    Refusal with its `error`, or `refused` when it fails.
    """
    own = script.endswith(".py")
    module = f"{__package__}.{script.removesuffix('.py')}" if own else _INTAKE
    try:
        return limited_answer(module, raw, words if own else (script, *words), memory_mb=memory_mb, refused=refused)
    except CraftError as error:
        raise Refusal(422, kind, error.message, field="file") from None
