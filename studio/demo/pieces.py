"""The demo studio's shelf of pieces: by three made-up designers on different terms, and its own."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User

from craft.design.anchors import Place
from craft.design.design import Design, EyeKind, Eyes, MadeOf, Mark
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.permissions import Permissions, Selling
from craft.design.remix import ShelfPiece, Slot
from craft.design.running import run_parts, worked_parts
from studio.designs.actions import add_part, copy_design, create_design
from studio.designs.assembly_page import AssemblyStep
from studio.designs.manifest import GaugePage
from studio.designs.models import Design as StoredDesign
from studio.designs.pages import set_page
from studio.designs.reading import read_design, stored_texts
from studio.designs.recording import new_key
from studio.designs.texts import set_text
from studio.pieces.actions import keep, use
from studio.pieces.models import Piece
from studio.pieces.schemas import UsePiece

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
            tilt=j.get("tilt", 0.0),
        )
        for k, j in enumerate(tree["joins"])
    )
    eyes = tree["eyes"]
    seen = Eyes()
    if eyes:
        seen = Eyes(EyeKind.SAFETY, eyes["mm"], _place(bare, keys[eyes["part"]], eyes), eyes["between"])
    marks = tuple(
        Mark(
            f"mark{k:02d}",
            m["name"],
            _place(bare, keys[m["part"]], m),
            made_of=MadeOf(m["made_of"]),
            wide_mm=m["wide_mm"],
            tall_mm=m["tall_mm"],
            colour=m["colour"],
        )
        for k, m in enumerate(tree.get("marks", []))
    )
    allowed = tree["permissions"]
    return ShelfPiece(
        tree["title"],
        Design(tree["title"], yarns=yarns, parts=parts, gauge=gauge, joins=joins, eyes=seen, marks=marks),
        parts[0].key,
        Slot(tree["slot"]),
        tree["designer"] or "",
        tree["version"],
        tuple(tree["tags"]),
        Permissions(**{**allowed, "selling": Selling(allowed["selling"])}),
        own=not tree["designer"],
    )


def load_pieces_alone(user: User) -> dict[str, Piece]:
    """Fill a designer's shelf of pieces; the pieces by title."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    return {tree["title"]: keep(user, piece_of_tree(tree, data["colours"])) for tree in data["pieces"]}


def load_pieces(user: User) -> int:
    """Fill a designer's shelf of pieces, and make the designs that are made of pieces and of other designs; how many."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    pieces = load_pieces_alone(user)
    for tree in data["figures"]:
        build_from_pieces(user, tree, pieces)
    for tree in data["differences"]:
        build_difference(user, tree)
    return len(data["figures"]) + len(data["differences"])


def _round_of(design: StoredDesign, key: str, share: float) -> int:
    """The round at that share of a part's length."""
    worked = next(p.worked for p in read_design(design).parts if p.key == key)
    return max(1, round(share * len(worked.counts))) if worked is not None else 1


def build_from_pieces(user: User, tree: Tree, pieces: dict[str, Piece]) -> None:
    """A figure of pieces, each joined to a part that stands already, as the demo's file tells it."""
    design = create_design(user, tree["name"], "us")
    yarns = [{"name": name, "colour": colour, "weight": 3} for name, colour in tree["yarns"].items()]
    page = GaugePage.model_validate({"yarns": yarns, "hook_mm": 3.0, "source": "estimate"})
    design = set_page(user, design.pk, "gauge", design.revision.number, page)
    for entry in tree["uses"]:
        keys = {p.name: p.key for p in design.manifest.parts}
        on = keys.get(entry.get("on", ""))
        at = None if on is None else _round_of(design, on, entry["at"])
        asked = UsePiece(
            piece=pieces[entry["piece"]].pk,
            colours=entry.get("colours", {}),
            on=on,
            round=at,
            stitch=entry.get("stitch", 0),
        )
        design = use(user, design.pk, asked)


def build_difference(user: User, tree: Tree) -> None:
    """A copy of a design with other rounds and a part more, to be published as a difference."""
    base = StoredDesign.objects.get(owner=user, name=tree["of"])
    design = copy_design(user, base.pk, tree["name"])
    for name, changes in tree["rounds"].items():
        stored = next(t for t in stored_texts(design) if t.entry.name == name)
        text = stored.text
        for before, after in changes:
            if before not in text:
                raise ValueError(f"{name} of {tree['of']} has no {before!r}.")
            text = text.replace(before, after)
        design = set_text(user, design.pk, stored.entry.key, text, None, f"Changed {name}")
    for part in tree["parts"]:
        values = {"name": part["name"], "make": part["make"], "colour": None, "recipe": None}
        design, key = add_part(user, design.pk, {**values, "text": "\n".join(part["text"]) + "\n"})
        design = _slipped_on(user, design, key, **part["slipped_on"])


def _slipped_on(user: User, design: StoredDesign, part: str, on: str, at: int) -> StoredDesign:
    """A part put on another one's round, to come off again."""
    host = next(p.key for p in design.manifest.parts if p.name == on)
    page = design.manifest.assembly
    step = AssemblyStep(key=new_key(), part=part, on=host, round=at, fixing="slipped-on")
    changed = page.model_copy(update={"steps": [*page.steps, step]})
    return set_page(user, design.pk, "assembly", design.revision.number, changed)
