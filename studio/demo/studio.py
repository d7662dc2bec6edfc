"""The demo studio "Lanternwick": made up, and made by the same actions a designer's clicks use.

What is made stands in lanternwick.json; parts with a solid are drafted at the design's own gauge.
"""

from __future__ import annotations

import json
import uuid
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User

from craft.gauge import Gauge
from craft.shape.drafting import Recipe, draft, suggested_start
from craft.shape.stored import form_of, rounds_json
from craft.text.notation import print_rounds
from studio.demo.pieces import load_pieces
from studio.designs import actions, pages, texts
from studio.designs.manifest import PAGES, GaugePage
from studio.designs.models import Design
from studio.designs.reading import read_design
from studio.designs.values import gauge_value, yarn_value
from studio.proving.actions import put_log_entry, put_tester
from studio.proving.schemas import LogEntryIn, TesterIn
from studio.releases.actions import make_release
from studio.releases.schemas import PrintIn
from studio.yarns.actions import add_swatch, add_yarn
from studio.yarns.gauges import swatch_gauge
from studio.yarns.models import Yarn

DATA = Path(__file__).with_name("lanternwick.json")
Tree = dict[str, Any]


def _fill_basket(user: User, data: Tree) -> dict[str, Yarn]:
    """Yarns by name, some of them weighed, and the swatch."""
    left = data["left_g"]
    listed = [
        {"name": name, "colour": colour, **data["light"], "left_g": left.get(name)}
        for name, colour in data["colours"].items()
    ]
    yarns = {values["name"]: add_yarn(user, values) for values in [*listed, *data["more_yarns"]]}
    swatch = dict(data["swatch"])
    add_swatch(user, yarns[swatch.pop("yarn")], swatch)
    return yarns


def _gauge_page(user: User, yarns: dict[str, Yarn], design: Tree) -> Tree:
    fields = ("name", "colour", "weight", "wraps", "plush", "skein_m", "skein_g")
    listed = [{"yarn_id": yarns[n].pk, **{f: getattr(yarns[n], f) for f in fields}} for n in design["yarns"]]
    page: Tree = {"yarns": listed, "hook_mm": 3.0, "source": "estimate"}
    if design["measured"]:
        swatch = user.swatches.get()
        gauge = swatch_gauge(swatch)
        page |= {
            "source": "swatch",
            "swatch_id": swatch.pk,
            "stitch_mm": gauge.stitch_mm,
            "round_mm": gauge.round_mm,
            "lean": gauge.lean,
            "yarn_per_stitch_mm": swatch.yarn_per_stitch_mm,
        }
    return page


def _drafted(part: Tree, gauge: Gauge) -> tuple[str, Tree]:
    """A part's drafted text and its recipe."""
    form = form_of(part.get("form") or {"base": "solid", **part["solid"]})
    recipe = Recipe(form, suggested_start(form, gauge))
    return print_rounds(draft(recipe, gauge).part), rounds_json(recipe)


def _after_widest(text: str, direction: str) -> str:
    """The text with a stage direction behind its widest round."""
    lines = text.splitlines()
    counts = [int(line.rsplit("[", 1)[1].rstrip("]")) if line.endswith("]") else 0 for line in lines]
    at = len(lines) - counts[::-1].index(max(counts))
    return "\n".join([*lines[:at], direction, *lines[at:]]) + "\n"


def _gauge(design: Design) -> Gauge:
    page = design.manifest.gauge
    return gauge_value(page).gauge(yarn_value(page.yarns[0]) if page.yarns else None)


def _add_part(user: User, design: Design, part: Tree) -> tuple[Design, str]:
    text, recipe = "\n".join(part.get("text", [])) + "\n", None
    if "solid" in part or "form" in part:
        text, recipe = _drafted(part, _gauge(design))
    values = {"name": part["name"], "make": part.get("make", 1), "colour": part["colour"]}
    design, key = actions.add_part(user, design.pk, {**values, "text": text, "recipe": recipe})
    if direction := part.get("after_widest"):
        design = texts.set_text(user, design.pk, key, _after_widest(text, direction), None, "Marked the eyes")
    return design, key


def _step(step: Tree, key: str, keys: dict[str, str], ends: Mapping[str, int]) -> Tree:
    """A step with part names turned into keys; the round "last" is its host's last one."""
    on = keys.get(step.get("on", ""))
    last = {"round": ends[on]} if on and step.get("round") == "last" else {}
    return {**step, **last, "key": key, "part": keys.get(step.get("part", "")), "on": on}


def _page(design: Design, name: str, page: Tree, keys: dict[str, str]) -> Tree:
    """A page with part names turned into keys."""
    if name != "assembly":
        return page
    ends = {p.key: len(p.worked.counts) for p in read_design(design).parts if p.worked is not None}
    steps = [_step(step, f"step{i:02d}", keys, ends) for i, step in enumerate(page["steps"], 1)]
    marks = [{**m, "key": f"mark{i:02d}", "part": keys[m["part"]]} for i, m in enumerate(page.get("marks", []), 1)]
    eyes = page.get("eyes")
    return {**page, "steps": steps, "marks": marks, "eyes": eyes and {**eyes, "part": keys[eyes["part"]]}}


def _build(user: User, yarns: dict[str, Yarn], tree: Tree) -> None:
    design = actions.create_design(user, tree["name"], "us")
    design = pages.set_page(
        user, design.pk, "gauge", design.revision.number, GaugePage(**_gauge_page(user, yarns, tree))
    )
    keys: dict[str, str] = {}
    for part in tree["parts"]:
        design, keys[part["name"]] = _add_part(user, design, part)
    for name, page in tree["pages"].items():
        value = PAGES[name].model_validate(_page(design, name, page, keys))
        design = pages.set_page(user, design.pk, name, design.revision.number, value)
    _prove(user, design, tree)


def _release(user: User, design: Design, tree: Tree) -> None:
    """The releases of a design, each with its version and the words that steps had then, by their numbers."""
    for number, told in enumerate(tree.get("releases", []), 1):
        last = number == len(tree["releases"])
        manifest = design.manifest
        booklet = manifest.booklet.model_copy(update={"version": told["version"]})
        design = pages.set_page(user, design.pk, "booklet", design.revision.number, booklet)
        words = {f"step{int(n):02d}": text for n, text in told.get("steps", {}).items()}
        steps = [s.model_copy(update={"text": words.get(s.key, s.text)}) for s in manifest.assembly.steps]
        then = manifest.assembly.model_copy(update={"steps": steps})
        design = pages.set_page(user, design.pk, "assembly", design.revision.number, then)
        make_release(user, design, [PrintIn(files=["pdf", "html", "epub", "txt"])], "", None)
        if not last:
            design = pages.set_page(user, design.pk, "assembly", design.revision.number, manifest.assembly)


def _prove(user: User, design: Design, tree: Tree) -> None:
    """The making log and the testers of a design."""
    for entry in tree.get("log", []):
        put_log_entry(user, design, uuid.uuid4(), LogEntryIn.model_validate(entry).dict())
    for tester in tree.get("testers", []):
        put_tester(user, design, uuid.uuid4(), TesterIn.model_validate(tester).dict())


def load(user: User) -> int:
    """Fill a designer's studio with everything but its releases; how many designs were made."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    yarns = _fill_basket(user, data)
    for tree in data["designs"]:
        _build(user, yarns, tree)
    return len(data["designs"]) + load_pieces(user)


def release_all(user: User) -> None:
    """Make the demo's releases. Their pictures and files take a while, so this comes when all else is in line."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    for tree in data["designs"]:
        if "releases" in tree:
            _release(user, Design.objects.get(owner=user, name=tree["name"]), tree)
