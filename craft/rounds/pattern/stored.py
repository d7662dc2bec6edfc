"""The stored form: a pattern as plain JSON values and back; see docs/file-format.md.

Schema 1, which knew fewer instructions, is still read: what it left out has one meaning.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from craft.errors import CraftError
from craft.rounds.pattern.instructions import (
    Again,
    Chain,
    Cluster,
    Colour,
    Edge,
    FromHook,
    Instruction,
    Join,
    Leave,
    Onto,
    Repeat,
    Same,
    Shift,
    Skip,
    Spur,
    Start,
    StartKind,
    Turn,
    Unread,
    Work,
)
from craft.rounds.pattern.parts import HeadEntry, Item, Note, Part, Pattern, Round, Section, Step, StepKind, Way
from craft.rounds.pattern.threads import SewnThread
from craft.rounds.stitches import Loops, Terms

SCHEMA_VERSION = 2
"""Version of the JSON form."""

_OLDER = (1,)


def _instruction_json(i: Instruction) -> dict[str, Any]:
    match i:
        case Start():
            return {"do": "start", "start": i.start.value, "count": i.count, "stitch": i.stitch}
        case Work():
            loops = i.loops and i.loops.value
            return {"do": "work", "stitch": i.stitch, "count": i.count, "loops": loops, "through": i.through}
        case Repeat():
            return {"do": "repeat", "times": i.times, "leave": i.leave, "body": [_instruction_json(b) for b in i.body]}
        case Cluster():
            return {"do": "cluster", "body": [_instruction_json(b) for b in i.body]}
        case Same():
            return {"do": "same", "stitch": i.stitch, "count": i.count}
        case Skip():
            return {"do": "skip", "count": i.count}
        case Chain():
            return {"do": "chain", "count": i.count, "counts": i.counts}
        case FromHook():
            return {"do": "from-hook", "nth": i.nth}
        case Spur():
            return {"do": "spur", "chain": i.chain, "nth": i.nth, "body": [_instruction_json(b) for b in i.body]}
        case Join():
            return {"do": "join"}
        case Turn():
            return {"do": "turn"}
        case Leave():
            return {"do": "leave", "count": i.count}
        case Shift():
            return {"do": "shift", "count": i.count}
        case Onto():
            loops = i.loops and i.loops.value
            return {
                "do": "onto",
                "edge": i.edge.value,
                "name": i.name,
                "loops": loops,
                "round": i.round,
                "rejoin": i.rejoin,
            }
        case Again():
            return {"do": "again", "first": i.first, "last": i.last}
        case Colour():
            return {"do": "colour", "name": i.name}
        case Unread():
            return {"do": "unread", "text": i.text}


def _body(j: Mapping[str, Any]) -> tuple[Instruction, ...]:
    return tuple(_instruction(b) for b in j["body"])


def _loops(value: str | None) -> Loops | None:
    return None if value is None else Loops(value)


def _cluster(j: Mapping[str, Any]) -> Cluster:
    body = tuple(i for i in _body(j) if isinstance(i, Work))
    if len(body) != len(j["body"]):
        raise CraftError("A cluster holds stitches only.")
    return Cluster(body)


def _instruction(j: Mapping[str, Any]) -> Instruction:
    match j["do"]:
        case "start":
            return Start(StartKind(j["start"]), j["count"], j.get("stitch", "sc"))
        case "work":
            return Work(j["stitch"], j["count"], _loops(j.get("loops")), j.get("through"))
        case "repeat":
            return Repeat(_body(j), j["times"], j.get("leave"))
        case "cluster":
            return _cluster(j)
        case "same":
            return Same(j["stitch"], j["count"])
        case "skip":
            return Skip(j["count"])
        case "chain":
            return Chain(j["count"], j.get("counts"))
        case "from-hook":
            return FromHook(j["nth"])
        case "spur":
            return Spur(j["chain"], j["nth"], _body(j))
        case "join":
            return Join()
        case "turn":
            return Turn()
        case "leave":
            return Leave(j["count"])
        case "shift":
            return Shift(j["count"])
        case "onto":
            return Onto(Edge(j["edge"]), str(j["name"]), _loops(j["loops"]), j["round"], bool(j["rejoin"]))
        case "again":
            return Again(j["first"], j["last"])
        case "colour":
            return Colour(j["name"])
        case "unread":
            return Unread(str(j["text"]))
        case other:
            raise CraftError(f"No instruction is called {other!r}.")


def _thread_json(thread: SewnThread) -> list[float]:
    return [thread.from_round, thread.from_stitch, thread.to_round, thread.to_stitch, thread.length_mm]


def _item_json(item: Item) -> dict[str, Any]:
    match item:
        case Round():
            return {
                "item": "round",
                "way": item.way.value,
                "first": item.first,
                "last": item.last,
                "or_to": item.or_to,
                "count": item.count,
                "loops": item.loops.value,
                "body": [_instruction_json(i) for i in item.body],
            }
        case Step():
            threads = {"threads": [_thread_json(t) for t in item.threads]} if item.threads else {}
            return {"item": "step", "kind": item.kind.value, "text": item.text, **threads}
        case Note():
            return {"item": "note", "text": item.text}
        case Colour():
            return {"item": "colour", "name": item.name}
        case Section():
            return {"item": "section", "name": item.name}


def _item(j: Mapping[str, Any]) -> Item:
    match j["item"]:
        case "round":
            way = Way(j.get("way", "round"))
            return Round(j["first"], j["last"], _body(j), j["count"], Loops(j["loops"]), way, j.get("or_to"))
        case "step":
            return Step(StepKind(j["kind"]), j["text"], threads=tuple(SewnThread(*t) for t in j.get("threads", ())))
        case "note":
            return Note(j["text"])
        case "colour":
            return Colour(j["name"])
        case "section":
            return Section(j["name"])
        case other:
            raise CraftError(f"A part holds no {other!r}.")


def to_json(pattern: Pattern) -> dict[str, Any]:
    """The pattern as plain JSON values, with `schema`."""
    return {
        "schema": SCHEMA_VERSION,
        "terms": pattern.terms.value,
        "head": [{"key": e.key, "value": e.value} for e in pattern.head],
        "parts": [{"name": p.name, "make": p.make, "items": [_item_json(i) for i in p.items]} for p in pattern.parts],
    }


def from_json(data: object) -> Pattern:
    """The pattern of plain JSON values; CraftError names what is wrong with them."""
    if not isinstance(data, Mapping) or data.get("schema") not in (SCHEMA_VERSION, *_OLDER):
        raise CraftError(f"This is no Spirrel pattern of schema {SCHEMA_VERSION}.")
    if not isinstance(data.get("parts"), list) or not isinstance(data.get("head"), list):
        raise CraftError("The pattern file is damaged: parts and head are lists.")
    try:
        return Pattern(
            tuple(Part(p["name"], tuple(_item(i) for i in p["items"]), p["make"]) for p in data["parts"]),
            tuple(HeadEntry(str(e["key"]), str(e["value"])) for e in data["head"]),
            Terms(data["terms"]),
        )
    except CraftError:
        raise
    except (KeyError, TypeError, ValueError, AttributeError, RecursionError) as error:
        raise CraftError(f"The pattern file is damaged: {type(error).__name__} at {error}.") from None
