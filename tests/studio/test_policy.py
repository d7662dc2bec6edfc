"""Who may do what: one policy, and every route held to it, whoever asks and however."""

from __future__ import annotations

import json
import uuid
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import models
from django.test import Client
from django.utils import timezone

from studio.designs.models import Design, Picture, Revision
from studio.errors import Refusal
from studio.jobs import actions as jobs
from studio.jobs.models import Job
from studio.links import actions as links
from studio.links.models import Link
from studio.policy import LinkHolder, Owner, Purpose, Verb, demand, may, rules, visible
from studio.proving.models import LogEntry
from studio.yarns.models import Swatch, Yarn
from tests.studio.conftest import BALL, Studio
from tests.studio.test_pictures import picture, upload

DESCRIPTION = json.loads((Path(__file__).parents[2] / "docs/openapi.json").read_text())

OPEN = {("get", "/api/session"), ("post", "/api/session"), ("post", "/api/accounts")}
"""Routes that somebody who is not signed in may ask."""

OWN = {
    "/api/session", "/api/session/password", "/api/session/preferences", "/api/accounts", "/api/yarns",
    "/api/yarns/swatches", "/api/designs", "/api/designs/from-file", "/api/bench/preview", "/api/bench/picture",
    "/api/bench/fabric",
    "/api/bench/tidy", "/api/bench/reshape", "/api/bench/chart", "/api/bench/settle", "/api/bench/dry-run",
    "/api/bench/text", "/api/bench/board", "/api/designs/brought", "/api/pieces", "/api/pieces/from-file", "/api/pieces/draw",
    "/api/pieces/draw/make", "/api/pieces/draw/settle",
    "/api/shapes/draft", "/api/shapes/fit", "/api/shapes/compensate", "/api/shapes/compare",
    "/api/shapes/flat", "/api/shapes/propose", "/api/shapes/panels", "/api/shapes/sewn", "/api/shapes/solids",
    "/api/shapes/modifiers",
    "/api/shapes/mesh", "/api/shapes/begin", "/api/shapes/cut", "/api/shapes/drawing", "/api/shapes/target.obj",
    "/api/shapes/target.svg",
}  # fmt: skip
"""Routes that name no row: they answer only what is the asker's own, or keep nothing."""

NAMED_IN_BODY = {"/api/shapes/outline": "picture", "/api/designs/together": "design"}
"""Routes whose row is named in the body."""

ROUTES = [
    (method, path) for path, methods in DESCRIPTION["paths"].items() for method in methods if method != "parameters"
]


@pytest.fixture
def rows(studio: Studio, user: User) -> dict[str, Any]:
    """One row of everything that an address can name, all hers."""
    made, key = studio.with_part()
    got = upload(studio, made["id"], picture()).json()
    yarn = Yarn.objects.create(owner=user, name="Moss", weight=3)
    swatch = Swatch.objects.create(
        owner=user, yarn=yarn, hook_mm=3, kind="flat", stitches=20, across_mm=100, rounds=20, up_mm=100
    )
    entry = LogEntry.objects.create(design_id=made["id"], date="2026-10-02", text="First sample.")
    piece = studio.ask("POST", "/pieces", {"design": made["id"], "parts": [key], "main": key, "title": "Ball"}, 201)
    return {
        "design_id": made["id"],
        "piece_id": piece["id"],
        "key": key,
        "page": "brief",
        "number": 1,
        "picture_id": got["id"],
        "yarn_id": yarn.pk,
        "swatch_id": swatch.pk,
        "job_id": jobs.ask(user, "settle", "{}", "nothing").pk,
        "entry_id": entry.pk,
        "tester_id": uuid.uuid4(),
        "to": "text",
        "ending": "txt",
    }


def asked(client: Client, method: str, path: str, rows: dict[str, Any]) -> Any:
    """A request to a route with an example of its body."""
    address = path.format(**rows | ({"ending": "obj"} if "/model/" in path else {}))
    content = DESCRIPTION["paths"][path][method].get("requestBody", {}).get("content", {})
    if "multipart/form-data" in content:
        return client.post(address, {"file": SimpleUploadedFile("a.txt", BALL.encode())})
    body = json.dumps({"picture": rows["picture_id"]} if path in NAMED_IN_BODY else {})
    got = client.generic(method.upper(), address, body, content_type="application/json")
    if got.streaming:  # read to its end, so that the file is closed
        b"".join(got.streaming_content)
    return got


def test_every_route_names_rows_that_a_rule_covers(rows: dict[str, Any]) -> None:
    """A new route has to say what it is about: a row of the fixture above, or a line of OWN."""
    for method, path in ROUTES:
        named = [p["name"] for p in DESCRIPTION["paths"][path][method].get("parameters", []) if p["in"] == "path"]
        assert set(named) <= set(rows), f"{method} {path}: nobody says whose {named} are"
        assert named or path in OWN or path in NAMED_IN_BODY, f"{method} {path} names no row and stands in no list"


@pytest.mark.parametrize(("method", "path"), ROUTES, ids=[f"{m} {p}" for m, p in ROUTES])
def test_every_route_for_every_actor(
    method: str, path: str, rows: dict[str, Any], studio: Studio, other: Studio, user: User
) -> None:
    nobody = Client(raise_request_exception=False)
    status = asked(nobody, method, path, rows).status_code
    assert (status != 401) if (method, path) in OPEN else (status == 401), "nobody is let in"
    _, token = links.make_link(user, Design.objects.get(pk=rows["design_id"]), Purpose.TEST, days=3)
    holder = Client(raise_request_exception=False, headers={"Authorization": f"Link {token}", "X-Link": token})
    assert asked(holder, method, path, rows).status_code == status, "a link opens no route of a designer"
    if "{" in path or path in NAMED_IN_BODY:
        stranger = asked(other.client, method, path, rows).status_code
        assert stranger in (404, 422), "others' rows are not there; a body may be refused before anybody looks"
        if method == "get":
            assert stranger == 404
    own = asked(studio.client, method, path, rows)
    assert own.status_code not in (401, 403, 405)
    assert own.status_code < 500


def test_a_strangers_whole_request_changes_nothing(rows: dict[str, Any], other: Studio) -> None:
    """Bodies that would be right, sent by somebody else."""
    i, key = rows["design_id"], rows["key"]
    before = list(Revision.objects.values_list("pk", flat=True)), Yarn.objects.count(), LogEntry.objects.count()
    tries = [
        ("PUT", f"/designs/{i}", {"name": "Mine", "terms": "us"}),
        ("POST", f"/designs/{i}/parts", {"name": "Mine", "text": BALL}),
        ("PUT", f"/designs/{i}/parts/{key}/typed", {"text": "mine", "etag": "v1"}),
        ("PUT", f"/designs/{i}/parts/{key}/text", {"text": "mine"}),
        ("PUT", f"/designs/{i}/pages", {"page": "brief", "base": 1, "data": {}}),
        ("PUT", f"/designs/{i}/proving/log/{rows['entry_id']}", {"date": "2026-10-03", "text": "mine"}),
        ("PUT", f"/designs/{i}/proving/testers/{uuid.uuid4()}", {"name": "me"}),
        ("PUT", f"/yarns/{rows['yarn_id']}", {"name": "Mine", "colour": "#ffffff", "weight": 1}),
        ("POST", f"/bench/no-sew/{i}", {"step": "abcd"}),
        ("POST", f"/designs/{i}/sizes", {"sizes": []}),
        ("POST", f"/designs/{i}/pieces", {"piece": rows["piece_id"]}),
        ("POST", f"/designs/{i}/comparison/shapes", {"other": i}),
        ("POST", f"/pieces/{rows['piece_id']}/settle", None),
        ("POST", f"/bench/picture/{i}", {"side": "front"}),
        ("POST", f"/bench/sew/{i}", {"step": "arms1"}),
        ("POST", f"/designs/{i}/base/take", {"take": ["abc"], "now": 1}),
        ("POST", f"/designs/{i}/graft", {"part": key, "upto": 2, "taken": {"design": i, "part": key, "first": 4}}),
        ("POST", "/designs/together", {"figures": [{"design": i, "times": 2}]}),
        ("POST", "/pieces", {"design": i, "parts": [key], "main": key, "title": "Mine"}),
    ]
    for method, path, body in tries:
        other.ask(method, path, body, 404)
    after = list(Revision.objects.values_list("pk", flat=True)), Yarn.objects.count(), LogEntry.objects.count()
    assert after == before
    assert LogEntry.objects.get().text == "First sample."


def test_a_row_of_another_design_cannot_be_taken_over_by_its_id(rows: dict[str, Any], other: Studio) -> None:
    """She has a design of her own, and knows the id of somebody else's note."""
    mine = other.design()
    path = f"/designs/{mine['id']}/proving/log/{rows['entry_id']}"
    other.ask("PUT", path, {"date": "2026-10-03", "text": "mine"}, 404)
    other.ask("DELETE", path)
    entry = LogEntry.objects.get()
    assert (entry.text, entry.design_id) == ("First sample.", rows["design_id"])


# --- the policy itself ----------------------------------------------------------------------


def holder(design: int, purpose: Purpose = Purpose.TEST, days: float = 1, *, revoked: bool = False) -> LinkHolder:
    return LinkHolder(1, purpose, design, timezone.now() + timedelta(days=days), revoked)


def test_every_model_with_an_owner_has_a_rule() -> None:
    """Rows that belong to somebody are covered; a new model without a rule fails here."""
    from django.apps import apps  # noqa: PLC0415

    inner = {"designs.PartVersion", "designs.TypedText"}  # reached only through their design
    for model in apps.get_models():
        if model._meta.app_config.name.startswith("studio.") and model._meta.label not in inner:
            assert model in rules(), f"{model._meta.label}: who may see it?"


def test_owners_see_their_own_and_nothing_else(rows: dict[str, Any], user: User, other: Studio) -> None:
    nettle = User.objects.get(username="nettle")
    for model in rules():
        row: models.Model | None = model._default_manager.first()
        if row is None:
            continue
        theirs = visible(Owner(nettle), Verb.SEE, model)
        assert not theirs.filter(pk=row.pk).exists() or may(Owner(nettle), Verb.SEE, row)
        if may(Owner(user), Verb.CHANGE, row):
            assert visible(Owner(user), Verb.SEE, model).filter(pk=row.pk).exists()
            assert not may(Owner(nettle), Verb.SEE, row)


@pytest.mark.parametrize(
    ("purpose", "verb", "allowed"),
    [
        (Purpose.READ, Verb.READ_BOOKLET, True),
        (Purpose.READ, Verb.REPORT, False),
        (Purpose.READ, Verb.SEE, False),
        (Purpose.TEST, Verb.READ_BOOKLET, True),
        (Purpose.TEST, Verb.REPORT, True),
        (Purpose.TEST, Verb.CHANGE, False),
        (Purpose.CLIENT, Verb.READ_BOOKLET, False),
    ],
)
def test_a_link_is_for_one_thing(rows: dict[str, Any], purpose: Purpose, verb: Verb, allowed: bool) -> None:
    design = Design.objects.get(pk=rows["design_id"])
    assert bool(may(holder(design.pk, purpose), verb, design)) is allowed
    assert visible(holder(design.pk, purpose), verb, Design).exists() is allowed


def test_a_link_opens_one_design_until_a_day_unless_it_is_withdrawn(rows: dict[str, Any], studio: Studio) -> None:
    design = Design.objects.get(pk=rows["design_id"])
    elsewhere = Design.objects.get(pk=studio.design("Other")["id"])
    assert not may(holder(design.pk), Verb.READ_BOOKLET, elsewhere)
    for spent, words in ((holder(design.pk, days=-1), "run out"), (holder(design.pk, revoked=True), "withdrawn")):
        with pytest.raises(Refusal, match=words) as refused:
            demand(spent, Verb.READ_BOOKLET, design)
        assert refused.value.status == 403
        assert not visible(spent, Verb.READ_BOOKLET, Design).exists()
    with pytest.raises(Refusal) as hidden:
        demand(holder(design.pk), Verb.SEE, Picture.objects.get(pk=rows["picture_id"]))
    assert hidden.value.status == 403
    with pytest.raises(Refusal) as foreign:
        demand(holder(elsewhere.pk), Verb.SEE, design)
    assert foreign.value.status == 404
    assert not may(holder(design.pk), Verb.SEE, Job.objects.get(pk=rows["job_id"])), "jobs belong to no design"


def test_tokens_are_kept_nowhere_and_used_with_measure(
    rows: dict[str, Any], user: User, other: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    design = Design.objects.get(pk=rows["design_id"])
    link, token = links.make_link(user, design, Purpose.TEST, days=30, note="for Wren")
    assert token not in json.dumps([str(v) for v in Link.objects.values_list()[0]])
    found = links.holder_of(token)
    assert (found.link, found.purpose, found.design) == (link.pk, Purpose.TEST, design.pk)
    assert may(found, Verb.READ_BOOKLET, design)
    for wrong in ("", token[:-1], token + "x", "x" * 10_000):
        with pytest.raises(Refusal):
            links.holder_of(wrong)
    monkeypatch.setattr(links, "MOST_IN_WINDOW", 3)
    links.holder_of(token)
    links.holder_of(token)
    with pytest.raises(Refusal, match="very often"):
        links.holder_of(token)
    Link.objects.update(window=timezone.now() - links.WINDOW)
    links.revoke_link(user, link)
    assert not may(links.holder_of(token), Verb.READ_BOOKLET, design)
    nettle = User.objects.get(username="nettle")
    with pytest.raises(Refusal):
        links.revoke_link(nettle, link)
    with pytest.raises(Refusal):
        links.make_link(nettle, design, Purpose.READ, days=3)
    with pytest.raises(Refusal, match="days"):
        links.make_link(user, design, Purpose.READ, days=4_000)
