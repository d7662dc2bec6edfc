"""A piece as plain JSON values and back: docs/schemas/piece.schema.json."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from cattrs import Converter

from craft.design.design import Design
from craft.design.permissions import Permissions
from craft.design.remix.pieces import ShelfPiece
from craft.design.stored import KIND as DESIGN
from craft.design.stored import MOST_JSON, from_json, to_json
from craft.errors import CraftError, require
from craft.formats import strict_converter, structured, upgraded

KIND = "piece"


def _converter() -> Converter:
    made = strict_converter()
    made.register_structure_hook(Design, lambda data, _: from_json(data))
    made.register_unstructure_hook(Design, to_json)
    return made


_CONVERTER = _converter()


def piece_json(piece: ShelfPiece) -> dict[str, Any]:
    """The piece as plain JSON values, with `format` and `kind`; its design is a design's file."""
    return {"format": 1, "kind": KIND, **_CONVERTER.unstructure(piece)}


def piece_of_json(data: object) -> ShelfPiece:
    """The piece of plain JSON values; CraftError names what is wrong."""
    if not isinstance(data, Mapping) or data.get("kind") != KIND:
        raise CraftError("This is no Spirrel piece.")
    values = upgraded(data, (), "This piece")
    values = {k: v for k, v in values.items() if k not in ("format", "kind")}
    return structured(_CONVERTER, values, ShelfPiece, "The piece's file", placed=False)


def piece_written(piece: ShelfPiece) -> str:
    """The piece as the text of its file."""
    return json.dumps(piece_json(piece), ensure_ascii=False, indent=1) + "\n"


def read_piece(text: str) -> ShelfPiece:
    """The piece of a file: of a piece's own, or of a design, which is one with all its parts and not the studio's own.
    CraftError when it is neither."""
    require(len(text) <= MOST_JSON, "That file is larger than any piece.")
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise CraftError("This is no readable JSON.") from None
    if isinstance(data, Mapping) and data.get("kind") == DESIGN:
        return whole_piece(from_json(data))
    return piece_of_json(data)


def whole_piece(design: Design) -> ShelfPiece:
    """A design with all its parts as a piece of somebody else's, used by its first part."""
    require(bool(design.parts), "There is no part in it.")
    return ShelfPiece(design.name, design, design.parts[0].key, permissions=Permissions(), own=False)
