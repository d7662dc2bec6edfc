"""Parts on a hook of their own, and colour roles of a size in yarns of their own, as they are kept and shown."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from craft.design.design import Design as DesignValue
from craft.gauge import estimate_gauge
from craft.yarn import Yarn
from studio.designs.entries import manifest_of
from studio.designs.manifest import Manifest
from studio.designs.rewriting import rewritten
from studio.designs.values import own_hook_value, value_of
from tests.craft.test_own_hooks import whole
from tests.studio.conftest import BALL, Studio

OAT = {"name": "Oat", "colour": "#ccbb99", "weight": 4, "skein_m": 100, "skein_g": 50}
GOLD = {"name": "Gold", "colour": "#ddaa33", "weight": 2, "skein_m": 180, "skein_g": 50}
HOOK = {"hook_mm": 2.5, "strands": 1}


def doll(studio: Studio) -> tuple[dict[str, Any], dict[str, int]]:
    """A body in Oat and an ear that begins in Gold; both yarns are in the basket."""
    ids = {y["name"]: studio.ask("POST", "/yarns", y, 201)["id"] for y in (OAT, GOLD)}
    made, _ = studio.with_part(BALL)
    page = {
        "yarns": [{**y, "yarn_id": ids[str(y["name"])]} for y in (OAT, GOLD)],
        "hook_mm": 4,
        "source": "own",
        "stitch_mm": 6.0,
        "round_mm": 5.5,
    }
    studio.ask("PUT", f"/designs/{made['id']}/pages", {"page": "gauge", "base": made["revision"], "data": page})
    ear = {"name": "Ear", "make": 2, "colour": "Gold", "text": BALL}
    return studio.ask("POST", f"/designs/{made['id']}/parts", ear, 201), ids


def give(studio: Studio, made: dict[str, Any], hook: dict[str, Any] | None, status: int = 200) -> dict[str, Any]:
    path = f"/designs/{made['id']}/parts/{made['parts'][1]['key']}/hook"
    return studio.ask("PUT", path, {"own_hook": hook}, status)  # type: ignore[no-any-return]


def sample(studio: Studio, yarn: int, across: float = 90) -> None:
    body = {"yarn_id": yarn, "hook_mm": 2.5, "kind": "stuffed", "stitches": 30, "across_mm": across}
    studio.ask("POST", "/yarns/swatches", {**body, "rounds": 10, "up_mm": 27}, 201)


def test_a_part_is_given_a_hook_and_takes_it_back(studio: Studio) -> None:
    made, _ = doll(studio)
    assert made["parts"][1]["gauge"] == made["gauge_now"]
    given = give(studio, made, HOOK)
    ear, body = given["parts"][1], given["parts"][0]
    assert ear["own_hook"] == {**HOOK, "stitch_mm": None, "round_mm": None}
    estimate = estimate_gauge(Yarn("Gold", 2), 2.5).stitch_mm * 6.0 / estimate_gauge(Yarn("Oat", 4), 4).stitch_mm
    assert ear["gauge"]["stitch_mm"] == pytest.approx(estimate)
    assert body["gauge"] == given["gauge_now"] == made["gauge_now"]
    assert given["undo"] == "Ear: on its own hook, 2.5 mm"
    back = studio.ask("POST", f"/designs/{made['id']}/undo")
    assert back["parts"][1]["own_hook"] is None
    assert give(studio, give(studio, back, HOOK), None)["parts"][1]["gauge"] == made["gauge_now"]


def test_her_swatch_of_that_yarn_on_that_hook_goes_before_the_estimate(studio: Studio) -> None:
    made, ids = doll(studio)
    sample(studio, ids["Gold"])
    given = give(studio, made, HOOK)
    assert given["parts"][1]["own_hook"]["stitch_mm"] == pytest.approx(3.0)
    assert given["parts"][1]["gauge"]["how"] == "measured on the part's own hook"
    key = given["parts"][1]["key"]
    other = studio.ask("PUT", f"/designs/{made['id']}/parts/{key}", {"name": "Ear", "make": 2, "colour": None})
    assert other["parts"][1]["own_hook"]["stitch_mm"] is None, "a swatch of Gold says nothing of Oat"
    typed = give(studio, made, {**HOOK, "stitch_mm": 3.3, "round_mm": 3.0})
    assert typed["parts"][1]["gauge"]["stitch_mm"] == 3.3


def test_what_cannot_be_is_said_at_its_field(studio: Studio, other: Studio) -> None:
    bare, _ = studio.with_part(BALL)
    path = f"/designs/{bare['id']}/parts/{bare['parts'][0]['key']}/hook"
    refused = studio.ask("PUT", path, {"own_hook": HOOK}, 422)
    assert (refused["field"], refused["detail"].split(":")[0]) == ("hook_mm", "Choose the figure's yarn first")
    other.ask("PUT", path, {"own_hook": HOOK}, 404)
    made, _ = doll(studio)
    assert give(studio, made, {**HOOK, "stitch_mm": 3.0}, 422)["field"] == "round_mm"
    assert "hook_mm" in give(studio, made, {"hook_mm": 0}, 422)["field"]


def test_the_figure_is_put_together_with_it(studio: Studio) -> None:
    made, _ = doll(studio)
    before = studio.ask("GET", f"/bench/figure/{made['id']}")["parts"]
    given = give(studio, made, {**HOOK, "stitch_mm": 3.0, "round_mm": 2.75})
    after = studio.ask("GET", f"/bench/figure/{given['id']}")["parts"]
    body, ear = (p["key"] for p in given["parts"])
    assert after[body] == before[body]
    assert after[ear] != before[ear]


def role(ids: dict[str, int], **more: Any) -> dict[str, Any]:
    yarn = {**GOLD, "yarn_id": ids["Gold"], "name": "Gold"}
    return {"role": "Gold", "yarn": yarn, "hook_mm": 2.5, "strands": 1, **more}


def size(ids: dict[str, int], *others: dict[str, Any]) -> dict[str, Any]:
    yarn = {**OAT, "yarn_id": ids["Oat"]}
    return {"key": "other001", "name": "other", "kind": "yarn", "yarn": yarn, "hook_mm": 5, "others": list(others)}


def test_a_size_has_a_yarn_for_a_colour_by_her_sample_and_becomes_a_design(studio: Studio) -> None:
    made, ids = doll(studio)
    sample(studio, ids["Gold"])
    asked = {"sizes": [size(ids), size(ids, role(ids))]}
    plain, ours = studio.ask("POST", f"/designs/{made['id']}/sizes", asked)["columns"][1:]
    widths = [[p["width"]["value"] for p in c["parts"]] for c in (plain, ours)]
    assert widths[0][0] == widths[1][0]
    assert widths[1][1] == pytest.approx(widths[0][1] * 3.0 / plain["gauge"]["stitch_mm"], rel=0.02)
    assert "Gold:" in ours["fabric"]
    page = {"page": "sizes", "base": made["revision"], "data": {"sizes": [size(ids, role(ids))]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/other001/make", status=201)
    assert copy["parts"][1]["own_hook"] == {"hook_mm": 2.5, "strands": 1, "stitch_mm": 3.0, "round_mm": 2.7}
    assert [y["weight"] for y in copy["gauge"]["yarns"]] == [4, 2]
    assert copy["gauge"]["hook_mm"] == 5


def test_two_strands_for_one_colour_become_a_design_with_their_own_figures(studio: Studio) -> None:
    made, ids = doll(studio)
    both = role(ids, second={**OAT, "yarn_id": ids["Oat"]})
    page = {"page": "sizes", "base": made["revision"], "data": {"sizes": [size(ids, both)]}}
    studio.ask("PUT", f"/designs/{made['id']}/pages", page)
    column = studio.ask("POST", f"/designs/{made['id']}/sizes", page["data"])["columns"][1]
    copy = studio.ask("POST", f"/designs/{made['id']}/sizes/other001/make", status=201)
    assert copy["parts"][1]["own_hook"]["stitch_mm"] is not None
    assert copy["gauge"]["yarns"][1]["skein_m"] is None, "what is held together with another has no skein of its own"
    again = studio.ask("POST", f"/designs/{copy['id']}/sizes", {"sizes": []})["columns"][0]
    assert again["parts"][1]["width"]["value"] == pytest.approx(column["parts"][1]["width"]["value"])


def test_a_size_is_settled_with_the_yarns_of_its_colours(studio: Studio) -> None:
    made, ids = doll(studio)
    for body in ({"sizes": [size(ids)]}, {"sizes": [size(ids, role(ids))]}):
        assert studio.ask("POST", f"/designs/{made['id']}/sizes/settle", body)["parts"] == 2


def _manifest(value: DesignValue) -> Manifest:
    return manifest_of(value, {p.key: n for n, p in enumerate(value.parts, 1)})


def lengthened(value: DesignValue) -> DesignValue:
    """With keys as the studio's pages have them."""
    return replace(
        value,
        parts=tuple(replace(p, key=p.key * 4) for p in value.parts),
        sizes=tuple(replace(s, key=s.key * 2) for s in value.sizes),
    )


def test_nothing_of_a_size_is_lost_on_the_way_through_the_pages() -> None:
    """Yarns held together, heights of a run, how it comes to settle: all went when a changed value was put back."""
    value = lengthened(whole())
    manifest = _manifest(value)
    kept = tuple(
        replace(p, own_hook=own_hook_value(e.own_hook)) for p, e in zip(value.parts, manifest.parts, strict=True)
    )
    assert value_of(manifest, kept) == value


def test_a_size_that_is_changed_keeps_what_only_the_studio_knows() -> None:
    value = lengthened(whole())
    manifest = _manifest(value)
    first, second = manifest.sizes.sizes
    other = first.others[0].model_copy(update={"yarn": first.others[0].yarn.model_copy(update={"yarn_id": 7})})
    hers = [first.model_copy(update={"others": [other]}), second.model_copy(update={"fits_design": 12})]
    manifest = manifest.model_copy(update={"sizes": manifest.sizes.model_copy(update={"sizes": hers})})
    after = replace(value, sizes=tuple(replace(s, name=s.name + "!") for s in value.sizes))
    made = rewritten(manifest, value, after, {p.key: n for n, p in enumerate(value.parts, 1)}).sizes.sizes
    assert [s.name for s in made] == ["Big!", "Tall!"]
    assert made[0].others[0].yarn.yarn_id == 7
    assert made[1].fits_design == 12
