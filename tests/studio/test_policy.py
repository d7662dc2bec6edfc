"""Who may do what: one policy, and every route held to it, whoever asks and however."""

from __future__ import annotations

import json
import uuid
from collections import ChainMap
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import models
from django.test import Client
from django.utils import timezone

from craft.design.stored import to_json
from studio.designs.models import Design, Picture, Revision
from studio.designs.reading import design_value
from studio.errors import Refusal
from studio.jobs import actions as jobs
from studio.jobs.models import Job
from studio.links import actions as links
from studio.links.models import Link
from studio.making.models import MakingPicture
from studio.policy import LinkHolder, Owner, Purpose, Verb, demand, may, rules, visible
from studio.post.models import Letter
from studio.proving.models import LogEntry
from studio.releases.models import Release
from studio.yarns.models import Swatch, Yarn
from tests.studio.conftest import BALL, Studio
from tests.studio.test_pictures import picture, upload

DESCRIPTION = json.loads((Path(__file__).parents[2] / "docs/openapi.json").read_text())

OPEN = {
    ("get", "/api/session"), ("post", "/api/session"), ("post", "/api/accounts"), ("post", "/api/session/forgotten"),
    ("post", "/api/session/new-password"),
}  # fmt: skip
"""Routes that somebody who is not signed in may ask."""

OWN = {
    "/api/session", "/api/session/password", "/api/session/preferences", "/api/session/address",
    "/api/session/forgotten", "/api/session/new-password",
    "/api/accounts", "/api/yarns",
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
    "/api/studio", "/api/studio/sessions", "/api/studio/everything.zip", "/api/studio/leave",
}  # fmt: skip
"""Routes that name no row: they answer only what is the asker's own, or keep nothing."""

FOR_HOLDERS = ("/api/makings/", "/api/test")
"""Routes that whoever holds a link of her own may ask: with another's they are not there."""

ONLY_FOR_HOLDERS = {"/api/test"}

NAMED_IN_BODY = {"/api/shapes/outline": "picture", "/api/designs/together": "design"}
"""Routes whose row is named in the body."""

ENDINGS = {"/model/": {"ending": "obj"}, "/templates.": {"ending": "svg"}}
"""Files of their own kinds, by a part of their routes' paths."""

ROUTES = [
    (method, path) for path, methods in DESCRIPTION["paths"].items() for method in methods if method != "parameters"
]


class Rows(dict[str, Any]):
    """One row of everything that an address can name, all hers, each made when it is first asked for."""

    def __init__(self, studio: Studio, user: User) -> None:
        super().__init__()
        self.studio, self.user = studio, user
        made, key = studio.with_part()
        self.i: int = made["id"]
        self.update(design_id=self.i, key=key, page="brief", number=1, later=1, to="text", ending="txt")
        self.update(deviation="body-1-count-7")

    def __missing__(self, name: str) -> Any:
        self[name] = getattr(self, name)()
        return self[name]

    def knows(self, name: str) -> bool:
        """Whether it says whose that is."""
        return name in self or hasattr(self, name)

    def all(self) -> None:
        """Make every one of them."""
        for name in dir(self):
            if name.endswith("_id"):
                self[name]

    def design(self) -> Design:
        """The design that all of it belongs to."""
        return Design.objects.get(pk=self.i)

    def of_design(self, path: str, body: Any) -> Any:
        """Made by a request under her design."""
        return self.studio.ask("POST", f"/designs/{self.i}{path}", body, 201)

    def picture_id(self) -> int:
        return upload(self.studio, self.i, picture()).json()["id"]  # type: ignore[no-any-return]

    def yarn_id(self) -> int:
        return Yarn.objects.create(owner=self.user, name="Moss", weight=3).pk

    def swatch_id(self) -> int:
        sizes = {"stitches": 20, "across_mm": 100, "rounds": 20, "up_mm": 100}
        return Swatch.objects.create(owner=self.user, yarn_id=self["yarn_id"], hook_mm=3, kind="flat", **sizes).pk

    def entry_id(self) -> uuid.UUID:
        return LogEntry.objects.create(design_id=self.i, date="2026-10-02", text="First sample.").pk

    def piece_id(self) -> int:
        body = {"design": self.i, "parts": [self["key"]], "main": self["key"], "title": "Ball"}
        return self.studio.ask("POST", "/pieces", body, 201)["id"]  # type: ignore[no-any-return]

    def file_id(self) -> int:
        value = to_json(design_value(self.design()))
        released = Release.objects.create(
            design_id=self.i, number=1, version="1.0", date="2026-10-02", digest="x", data=value, prints=[]
        )
        return released.files.create(title="x", ending="txt", name="x.txt", content=b"x", size=1, digest="x").pk

    def job_id(self) -> int:
        return jobs.ask(self.user, "settle", "{}", "nothing").pk

    def session_id(self) -> str:
        Client().force_login(self.user)
        return next(one["id"] for one in self.studio.ask("GET", "/studio")["sessions"] if not one["here"])

    def link_id(self) -> int:
        return links.make_link(self.user, self.design(), Purpose.READ, days=3)[0].pk

    def making_id(self) -> str:
        return self.of_design("/makings", {"title": "First"})["id"]  # type: ignore[no-any-return]

    def photo_id(self) -> uuid.UUID:
        flat = {"content": b"x", "kind": "png", "width": 1, "height": 1, "size": 1}
        return MakingPicture.objects.create(making_id=self["making_id"], **flat).pk

    def call_id(self) -> int:
        return self.of_design("/tests", {"title": "Test", "opens": "2026-11-30"})["calls"][0]["id"]  # type: ignore[no-any-return]

    def tester_id(self) -> str:
        return self.of_design(f"/tests/{self['call_id']}/testers", {"name": "Rowan"})["tester"]  # type: ignore[no-any-return]

    def letter_id(self) -> int:
        return Letter.objects.create(owner=self.user, design_id=self.i, to="a@example.org", subject="x", body="y").pk

    def commission_id(self) -> int:
        return self.of_design("/commissions", {"client": "Juniper"})["commissions"][0]["id"]  # type: ignore[no-any-return]

    def translator_id(self) -> int:
        return self.of_design("/translators", {"language": "de", "name": "Ulla"})["id"]  # type: ignore[no-any-return]

    def agreement_id(self) -> str:
        made = self.of_design(f"/commissions/{self['commission_id']}/agreements", {"text": "Longer ears"})
        return made["commissions"][0]["agreements"][0]["id"]  # type: ignore[no-any-return]


@pytest.fixture
def rows(studio: Studio, user: User) -> Rows:
    """Rows of hers."""
    return Rows(studio, user)


def asked(client: Client, method: str, path: str, rows: Rows) -> Any:
    """A request to a route with an example of its body."""
    if "/releases/" in path:
        assert rows["file_id"], "the release that it is of"
    own = next((more for part, more in ENDINGS.items() if part in path), {})
    address = path.format_map(ChainMap(own, rows))
    content = DESCRIPTION["paths"][path][method].get("requestBody", {}).get("content", {})
    if "multipart/form-data" in content:
        return client.post(address, {"file": SimpleUploadedFile("a.txt", BALL.encode())})
    body = json.dumps({"picture": rows["picture_id"]} if path in NAMED_IN_BODY else {})
    got = client.generic(method.upper(), address, body, content_type="application/json")
    if got.streaming:  # read to its end, so that the file is closed
        b"".join(got.streaming_content)
    return got


def test_every_route_names_rows_that_a_rule_covers(rows: Rows) -> None:
    """A new route has to say what it is about: a row of the fixture above, or a line of OWN."""
    for method, path in ROUTES:
        named = [p["name"] for p in DESCRIPTION["paths"][path][method].get("parameters", []) if p["in"] == "path"]
        assert all(rows.knows(n) for n in named), f"{method} {path}: nobody says whose {named} are"
        assert named or path in OWN or path in NAMED_IN_BODY or path in ONLY_FOR_HOLDERS, (
            f"{method} {path} names no row and stands in no list"
        )


@pytest.mark.parametrize(("method", "path"), ROUTES, ids=[f"{m} {p}" for m, p in ROUTES])
def test_every_route_for_every_actor(
    method: str, path: str, rows: Rows, studio: Studio, other: Studio, user: User
) -> None:
    nobody = Client(raise_request_exception=False)
    status = asked(nobody, method, path, rows).status_code
    assert (status != 401) if (method, path) in OPEN else (status == 401), "nobody is let in"
    _, token = links.make_link(user, Design.objects.get(pk=rows["design_id"]), Purpose.TEST, days=3)
    holder = Client(raise_request_exception=False, headers={"Authorization": f"Link {token}", "X-Link": token})
    by_link = asked(holder, method, path, rows).status_code
    if path.startswith(FOR_HOLDERS):
        assert by_link in (404, 422), "a link opens one making, and no other"
        if path in ONLY_FOR_HOLDERS:
            return
    else:
        assert by_link == status, "a link opens no route of a designer"
    if "{" in path or path in NAMED_IN_BODY:
        stranger = asked(other.client, method, path, rows).status_code
        assert stranger in (404, 422), "others' rows are not there; a body may be refused before anybody looks"
        if method == "get":
            assert stranger == 404
    own = asked(studio.client, method, path, rows)
    assert own.status_code not in (401, 403, 405)
    assert own.status_code < 500


def test_a_strangers_whole_request_changes_nothing(rows: Rows, other: Studio) -> None:
    """Bodies that would be right, sent by somebody else."""
    rows.all()
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
        ("POST", f"/makings/{rows['making_id']}/sync", {"events": [], "known": 0}),
        ("PUT", f"/designs/{i}/makings/{rows['making_id']}", {"title": "Mine"}),
        ("POST", f"/designs/{i}/tests", {"title": "Mine", "opens": "2026-11-30"}),
        ("POST", f"/designs/{i}/tests/{rows['call_id']}/testers", {"name": "Me"}),
        ("POST", f"/designs/{i}/letters", {"to": "a@example.org", "subject": "x", "body": "y"}),
        ("POST", f"/designs/{i}/commissions/{rows['commission_id']}/agreements", {"text": "mine"}),
    ]
    for method, path, body in tries:
        other.ask(method, path, body, 404)
    after = list(Revision.objects.values_list("pk", flat=True)), Yarn.objects.count(), LogEntry.objects.count()
    assert after == before
    assert LogEntry.objects.get().text == "First sample."


def test_a_row_of_another_design_cannot_be_taken_over_by_its_id(rows: Rows, other: Studio) -> None:
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

    # Reached only through their design, and what holds nothing at all.
    inner = {"designs.PartVersion", "designs.TypedText", "jobs.Line", "accounts.Tries"}
    for model in apps.get_models():
        if model._meta.app_config.name.startswith("studio.") and model._meta.label not in inner:
            assert model in rules(), f"{model._meta.label}: who may see it?"


def test_owners_see_their_own_and_nothing_else(rows: Rows, user: User, other: Studio) -> None:
    rows.all()
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
def test_a_link_is_for_one_thing(rows: Rows, purpose: Purpose, verb: Verb, allowed: bool) -> None:
    design = Design.objects.get(pk=rows["design_id"])
    assert bool(may(holder(design.pk, purpose), verb, design)) is allowed
    assert visible(holder(design.pk, purpose), verb, Design).exists() is allowed


def test_a_link_opens_one_design_until_a_day_unless_it_is_withdrawn(rows: Rows, studio: Studio) -> None:
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
    rows: Rows, user: User, other: Studio, monkeypatch: pytest.MonkeyPatch
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
