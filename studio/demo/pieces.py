"""The demo studio's shelf of pieces: by three made-up designers on different terms, and its own."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.permissions import Permissions, Selling
from craft.design.remix import ShelfPiece, Slot
from craft.design.running import run_parts, worked_parts
from studio.pieces.actions import keep
from studio.pieces.models import Piece

DATA = Path(__file__).with_name("pieces.json")
Tree = dict[str, Any]


def _place(design: Design, on: str, entry: Tree) -> Place:
    worked = worked_parts(run_parts(design))
    return Place(on, entry["round"], entry.get("stitch", 0)).anchored(None, worked)


def piece_of_tree(tree: Tree, colours: dict[str, str]) -> ShelfPiece:
    """A piece as the demo's file tells it."""
    keys = {p["name"]: f"part{k:02d}" for k, p in enumerate(tree["parts"])}
    parts = tuple(
        Part(keys[p["name"]], p["name"], "\n".join(p["text"]) + "\n", p["make"], p["colour"]) for p in tree["parts"]
    )
    yarns = tuple(DesignYarn(name, colours[name], 3) for name in tree["yarns"])
    gauge = GaugeInForce(GaugeFrom.ESTIMATE, 3.0)
    bare = Design(tree["title"], yarns=yarns, parts=parts, gauge=gauge)
    joins = tuple(
        Join(
            f"join{k:02d}",
            keys[j["part"]],
            keys[j["host"]],
            _place(bare, keys[j["host"]], j),
            manner=Manner(j["manner"]),
            paired=j["paired"],
        )
        for k, j in enumerate(tree["joins"])
    )
    eyes = tree["eyes"]
    seen = Eyes()
    if eyes:
        seen = Eyes(EyeKind.SAFETY, eyes["mm"], _place(bare, keys[eyes["part"]], eyes), eyes["between"])
    allowed = tree["permissions"]
    return ShelfPiece(
        tree["title"],
        Design(tree["title"], yarns=yarns, parts=parts, gauge=gauge, joins=joins, eyes=seen),
        parts[0].key,
        Slot(tree["slot"]),
        tree["designer"] or "",
        tree["version"],
        tuple(tree["tags"]),
        Permissions(**{**allowed, "selling": Selling(allowed["selling"])}),
        own=not tree["designer"],
    )


def load_pieces(user: User) -> list[Piece]:
    """Fill a designer's shelf of pieces."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    return [keep(user, piece_of_tree(tree, data["colours"])) for tree in data["pieces"]]
