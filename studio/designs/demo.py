"""The demo studio "Lanternwick": made up, and made by the same actions a designer's clicks use."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from django.contrib.auth.models import User

from craft.drafting import Recipe, Solid, draft, suggested_start
from craft.gauge import Gauge
from studio.designs import actions
from studio.designs.models import Design
from studio.designs.reading import gauge_of
from studio.yarns.actions import add_sample, add_yarn
from studio.yarns.gauges import sample_gauge
from studio.yarns.models import Yarn

COLOURS = {
    "Bark": "#7a5238",
    "Oat": "#e3cda4",
    "Madder": "#b5453f",
    "Cream": "#f2e6cf",
    "Moss": "#77834b",
    "Acorn": "#b07b3e",
}


@dataclass(frozen=True)
class Shape:
    """A part of the demo: a solid, its colour, and colours from a round on."""

    name: str
    solid: Solid
    colour: str
    make: int = 1
    eyes_before: bool = False
    from_round: tuple[int, str] | None = None
    ease: float = 0.85


def fill_basket(user: User) -> dict[str, Yarn]:
    """Yarns and two samples."""
    yarns = {
        name: add_yarn(
            user,
            {
                "name": name,
                "colour": colour,
                "weight": 3,
                "wraps": 12.0,
                "plush": False,
                "skein_m": 125.0,
                "skein_g": 50.0,
            },
        )
        for name, colour in COLOURS.items()
    }
    add_yarn(
        user,
        {
            "name": "Fennel Fog",
            "colour": "#9aa6a8",
            "weight": 5,
            "wraps": None,
            "plush": True,
            "skein_m": 80.0,
            "skein_g": 100.0,
        },
    )
    add_sample(
        user,
        yarns["Bark"],
        {
            "hook_mm": 3.0,
            "strands": 1,
            "kind": "stuffed",
            "stitches": 36.0,
            "across_mm": 168.0,
            "rounds": 10.0,
            "up_mm": 43.0,
            "drift_stitches": 4.0,
            "drift_rounds": 10,
            "yarn_per_stitch_mm": 34.0,
        },
    )
    return yarns


def _gauge_page(yarns: dict[str, Yarn], names: list[str], sample: bool) -> dict[str, Any]:
    listed = [
        {
            "yarn_id": yarns[n].pk,
            "name": n,
            "colour": yarns[n].colour,
            "weight": 3,
            "wraps": 12.0,
            "skein_m": 125.0,
            "skein_g": 50.0,
        }
        for n in names
    ]
    page: dict[str, Any] = {"yarns": listed, "hook_mm": 3.0, "source": "estimate"}
    if sample:
        measured = yarns["Bark"].samples.get()
        found = sample_gauge(measured)
        page |= {
            "source": "sample",
            "sample_id": measured.pk,
            "stitch_mm": found.stitch_mm,
            "round_mm": found.round_mm,
            "lean": found.lean,
            "yarn_per_stitch_mm": measured.yarn_per_stitch_mm,
        }
    return page


def _text(shape: Shape, gauge: Gauge) -> tuple[str, dict[str, Any], bool]:
    """Text of a part, its recipe, and whether the text is the drafted one unchanged."""
    recipe = Recipe(shape.solid, suggested_start(shape.solid, gauge), shape.ease)
    made = draft(recipe, gauge)
    lines = made.text().splitlines()
    drafted = list(lines)
    if shape.from_round is not None:
        number, colour = shape.from_round
        at = next(i for i, line in enumerate(lines) if line.startswith("R") and _last(line) >= number)
        lines.insert(at + 1, f"Change to {colour}")
    if shape.eyes_before:
        widest = max(i for i, item in enumerate(lines) if "[" in item and f"[{max(made.counts)}]" in item)
        lines.insert(widest + 1, "Insert the eyes now, before the decreases: see Assembly for the place.")
    return "\n".join(lines) + "\n", recipe.to_json(), lines == drafted


def _last(line: str) -> int:
    label = line.split(":", maxsplit=1)[0].removeprefix("R")
    return int(label.split("-R")[-1])


def _build(user: User, name: str, page: dict[str, Any], shapes: list[Shape]) -> tuple[Design, dict[str, str]]:
    design = actions.create_design(user, name, "us")
    design = actions.set_page(user, design.pk, "gauge", design.revision.number, page)
    gauge = gauge_of(design.manifest.gauge)
    keys: dict[str, str] = {}
    for shape in shapes:
        text, recipe, unchanged = _text(shape, gauge)
        values = {"name": shape.name, "make": shape.make, "colour": shape.colour, "recipe": recipe}
        design, key = actions.add_part(user, design.pk, {**values, "text": text if unchanged else ""})
        if not unchanged:
            design = actions.set_text(user, design.pk, key, text, None, f"Coloured {shape.name}")
        keys[shape.name] = key
    return design, keys


def _page(user: User, design: Design, page: str, data: dict[str, Any]) -> Design:
    design.refresh_from_db()
    return actions.set_page(user, design.pk, page, design.revision.number, data)


def _steps(keys: dict[str, str], rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    return [
        {**row, "key": f"step{i:02d}", "part": keys.get(row.get("part", "")), "on": keys.get(row.get("on", ""))}
        for i, row in enumerate(rows, 1)
    ]


def hedgehog(user: User, yarns: dict[str, Yarn]) -> Design:
    """Finished and in proving: every stop has been visited."""
    design, keys = _build(
        user,
        "Dusk Hedgehog",
        _gauge_page(yarns, ["Bark", "Oat", "Cream"], sample=True),
        [
            Shape("Body", Solid("ellipsoid", 78, 88), "Bark"),
            Shape("Face", Solid("drop", 62, 52, open=True, opening_mm=48), "Oat", eyes_before=True),
            Shape("Ear", Solid("dome", 11, 17, open=True), "Oat", make=2),
            Shape("Foot", Solid("capsule", 17, 19, open=True), "Oat", make=4),
        ],
    )
    design = _page(
        user,
        design,
        "brief",
        {
            "audience": "play",
            "level": "easy",
            "height_mm": 90,
            "intro": "A hedgehog that comes out when the lanterns are lit: a round body, a pointed face, four small feet.",
            "notes": "Spines can be added later as loop stitches; this version stays smooth.",
        },
    )
    design = _page(
        user,
        design,
        "assembly",
        {
            "eye_kind": "safety",
            "eye_mm": 8,
            "steps": _steps(
                keys,
                [
                    {
                        "part": "Face",
                        "text": "Insert the eyes between R7 and R8, with 6 stitches visible between.",
                        "before_closing": True,
                    },
                    {
                        "part": "Face",
                        "on": "Body",
                        "round": 15,
                        "stitch": 0,
                        "tilt": 6,
                        "text": "Stuff the face and sew it on.",
                    },
                    {
                        "part": "Ear",
                        "on": "Face",
                        "round": 11,
                        "stitch": 13,
                        "paired": True,
                        "tilt": 10,
                        "text": "Sew both ears to the upper half of the face.",
                    },
                    {
                        "part": "Foot",
                        "on": "Body",
                        "round": 4,
                        "stitch": 3,
                        "paired": True,
                        "tilt": -20,
                        "text": "Sew on the front feet.",
                    },
                    {
                        "part": "Foot",
                        "on": "Body",
                        "round": 4,
                        "stitch": 9,
                        "paired": True,
                        "tilt": -20,
                        "text": "Sew on the hind feet.",
                    },
                    {"text": "Embroider a nose over the tip of the face."},
                ],
            ),
        },
    )
    design = _page(
        user,
        design,
        "sizes",
        {
            "sizes": [
                {
                    "key": "size01",
                    "name": "in plush",
                    "kind": "yarn",
                    "hook_mm": 6.0,
                    "strands": 1,
                    "yarn": {"name": "Fennel Fog", "colour": "#9aa6a8", "weight": 5, "plush": True, "skein_m": 80},
                },
                {"key": "size02", "name": "keyring", "kind": "height", "height_mm": 60},
            ]
        },
    )
    design = _page(
        user,
        design,
        "booklet",
        {
            "version": "1.2",
            "count_table": True,
            "credits": "Designed by Lanternwick.",
            "changes": "1.2: the ears sit two rounds higher.\n1.1: first version for testers.",
            "notes": "All parts but the body are left open and sewn on by their last round.",
        },
    )
    return _page(
        user,
        design,
        "proving",
        {
            "log": [
                {
                    "key": "log001",
                    "date": "2026-10-02",
                    "text": "First sample: face too blunt, started on fewer stitches.",
                },
                {"key": "log002", "date": "2026-10-19", "text": "Second sample: 9 cm long, eyes 8 mm."},
            ],
            "testers": [
                {
                    "key": "test01",
                    "name": "Wren Applegarth",
                    "yarn": "own light yarn, 2.5 mm",
                    "state": "done",
                    "remarks": "Clear; the ears took two tries.",
                },
                {"key": "test02", "name": "Tansy Moorcroft", "state": "making", "remarks": ""},
            ],
            "blockers": "A picture for sewing on the feet.",
        },
    )


def toadstool(user: User, yarns: dict[str, Yarn]) -> Design:
    """Shaped and assembled, not yet written up."""
    design, keys = _build(
        user,
        "Toadstool House",
        _gauge_page(yarns, ["Cream", "Madder", "Bark"], sample=False),
        [
            Shape("Stem", Solid("cylinder", 66, 56), "Cream"),
            Shape("Cap", Solid("dome", 48, 104, open=True), "Madder"),
            Shape("Spot", Solid("dome", 5, 17, open=True), "Cream", make=6),
            Shape("Door", Solid("dome", 5, 22, open=True), "Bark"),
        ],
    )
    design = _page(
        user,
        design,
        "brief",
        {
            "audience": "display",
            "level": "basic",
            "height_mm": 110,
            "intro": "A house for somebody small. The cap lifts off, so a wish can be kept inside.",
        },
    )
    spots = [(5, 0), (10, 7), (12, -6), (9, 20), (13, -22), (6, 16)]
    return _page(
        user,
        design,
        "assembly",
        {
            "steps": _steps(
                keys,
                [
                    {
                        "part": "Cap",
                        "on": "Stem",
                        "round": 99,
                        "text": "Set the cap on the stem; sew it down or leave it loose.",
                    },
                    *(
                        {"part": "Spot", "on": "Cap", "round": r, "stitch": s, "text": "Sew a spot on the cap."}
                        for r, s in spots
                    ),
                    {"part": "Door", "on": "Stem", "round": 11, "text": "Sew the door to the front of the stem."},
                ],
            )
        },
    )


def acorn(user: User, yarns: dict[str, Yarn]) -> Design:
    """Just begun: the cap's rounds were written by hand and do not add up yet."""
    design, keys = _build(
        user,
        "Acorn",
        _gauge_page(yarns, ["Acorn", "Bark"], sample=False),
        [Shape("Nut", Solid("egg", 62, 46, point=0.3), "Acorn")],
    )
    cap = (
        "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\n"
        "R5: (3 sc, inc) x 6 [30]\nR6: (4 sc, inc) x 7 [36]\nR7-R9: sc around [36]\nR10: in BLO, sc around [36]\n"
        "Leave a long tail for sewing.\n"
    )
    design, keys["Cap"] = actions.add_part(
        user, design.pk, {"name": "Cap", "make": 1, "colour": "Bark", "text": cap, "recipe": None}
    )
    return _page(
        user,
        design,
        "assembly",
        {"steps": _steps(keys, [{"part": "Cap", "on": "Nut", "round": 99, "text": "Set the cap on the blunt end."}])},
    )


def load(user: User) -> int:
    """Everything; how many designs were made."""
    yarns = fill_basket(user)
    return len([acorn(user, yarns), toadstool(user, yarns), hedgehog(user, yarns)])
