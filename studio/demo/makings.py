"""The demo's makings, its test with five testers and its commission: made by the same actions that clicks use."""

from __future__ import annotations

import json
import uuid
from collections.abc import Iterator
from datetime import timedelta
from decimal import Decimal
from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.utils import timezone

from craft.making import Worksheet, fold, grouped
from studio.commissions import actions as commissions
from studio.commissions.models import AgreementState
from studio.designs.models import Design
from studio.making.actions import begin, events_of, sync
from studio.making.editions import sheet_of
from studio.making.models import Making
from studio.policy import Owner
from studio.proving import testing
from studio.proving.models import TestCall

DATA = Path(__file__).with_name("makings.json")
Tree = dict[str, Any]
DAY = 86_400_000
A_STITCH = 3_400
"""Milliseconds that a stitch takes in the demo."""


class _Log:
    """A log being written, its times running on as the work does."""

    def __init__(self, sheet: Worksheet, days_ago: float) -> None:
        self.sheet, self.events = sheet, list[Tree]()
        self.at = int(timezone.now().timestamp() * 1000 - days_ago * DAY)
        self.device = f"demo-{uuid.uuid4().hex[:8]}"

    def say(self, kind: str, after_ms: int = 20_000, **said: Any) -> None:
        """An event more, so much later."""
        self.at += after_ms
        head = {"id": str(uuid.uuid4()), "device": self.device, "seq": len(self.events), "at": self.at}
        self.events.append({**head, "kind": kind, **said})

    def key(self, name: str) -> str:
        """A part's key by its name, '' for none."""
        return next((p.key for p in self.sheet.parts if p.name == name), "")

    def work(self, part: str, piece: int, rounds: int) -> None:
        """The first rounds of a piece, one after the other."""
        own = self.sheet.part(part)
        for at, rung in enumerate(own.rungs[:rounds] if own else (), 1):
            self.say("done", rung.made * A_STITCH, part=part, piece=piece, round=at)

    def work_share(self, share: float) -> None:
        """The first rounds of everything, up to a share of all of them."""
        pieces = [(p.key, piece, len(p.rungs)) for p in self.sheet.parts for piece in range(1, p.make + 1)]
        left = round(share * sum(n for _, _, n in pieces))
        for key, piece, many in pieces:
            self.work(key, piece, min(many, left))
            left -= min(many, left)

    def placed(self, row: Tree) -> Tree:
        """A row of the data with its part's key in the place of its name."""
        return {**row, "part": self.key(row.get("part", ""))}

    def write(self, user: User, making: Making) -> None:
        """Bring it all to the studio."""
        sync(Owner(user), making, self.events, 0)


def prove_all(user: User) -> None:
    """All of it. Comes after releases, so that the edition is theirs where there is one."""
    data: Tree = json.loads(DATA.read_text("utf-8"))
    for told in data["finished"]:
        _finished(user, told)
    _half_done(user, data["making"])
    _test(user, data["test"])
    _commission(user, data["commission"])


def _design(user: User, name: str) -> Design:
    return Design.objects.select_related("head").get(owner=user, name=name)


def _finished(user: User, told: Tree) -> None:
    making = begin(user, _design(user, told["design"]), told["title"], "own", None, "")
    log = _Log(sheet_of(making.edition), 40)
    log.work_share(1)
    _measured(log, told)
    log.write(user, making)


def _measured(log: _Log, told: Tree) -> None:
    log.say("measured", what="height", mm=log.sheet.height_mm * told["height"], part="", round=0)
    log.say("finished")


def _half_done(user: User, told: Tree) -> None:
    making = begin(user, _design(user, told["design"]), told["title"], "own", None, "")
    log = _Log(sheet_of(making.edition), 3)
    log.say("hook", mm=told["hook_mm"])
    log.say("skein", yarn=told["skein"][0], text=told["skein"][1])
    for yarn, (before, _) in told["weighed"].items():
        log.say("weighed", yarn=yarn, grams=before, after=False)
    for name, rounds in told["done"].items():
        log.work(log.key(name), 1, rounds)
    for row in told["otherwise"]:
        log.say("otherwise", piece=1, **log.placed(row))
    for row in told["notes"]:
        log.say("note", **log.placed(row))
    for row in told["measured"]:
        rung = log.sheet.rung(log.key(row["part"]), row["round"])
        assert rung is not None
        mm = rung.count * log.sheet.stitch_mm * row["share"]
        log.say("measured", what=row["what"], mm=mm, part=log.key(row["part"]), round=row["round"])
    for yarn, (_, after) in told["weighed"].items():
        log.say("weighed", yarn=yarn, grams=after, after=True)
    log.say("paused")
    log.write(user, making)


def _test(user: User, told: Tree) -> None:
    design = _design(user, told["design"])
    today = timezone.localdate()
    values = {
        "title": told["title"],
        "look_at": told["look_at"],
        "wanted": told["wanted"],
        "opens": today - timedelta(days=20),
        "closes": today + timedelta(days=10),
    }
    call = testing.call_test(user, design, values, None, "")
    for row in told["testers"]:
        _tester(user, call, row)
    for row in told["answers"]:
        _answer(user, call, row)


def _tester(user: User, call: TestCall, told: Tree) -> None:
    tester, _ = testing.invite(user, call, told["name"], told["mail"])
    assert tester.making is not None
    log = _Log(sheet_of(call.edition), 15)
    log.work_share(told["share"])
    for row in told.get("remarks", []):
        log.say("remark", **log.placed(row))
    for row in told.get("otherwise", []):
        log.say("otherwise", piece=1, **log.placed(row))
    if "report" in told:
        report = told["report"]
        minutes = log.sheet.hours * 60 * told["minutes"]
        log.say("report", **report, minutes=minutes)
        by = 100 / report["up"] / log.sheet.round_mm
        _measured(log, {"height": told["height"] * by})
    log.write(user, tester.making)


def _said(call: TestCall) -> Iterator[tuple[str, Any]]:
    rows = [(t.name, fold(events_of(t.making))) for t in call.testers.select_related("making") if t.making]
    for group in grouped(sheet_of(call.edition), rows):
        yield group.place, group


def _answer(user: User, call: TestCall, told: Tree) -> None:
    group = dict(_said(call))[told["place"]]
    testing.answer(user, call.design, [uuid.UUID(s.event) for s in group.said], told["state"], told["text"], "")


def _commission(user: User, told: Tree) -> None:
    design = _design(user, told["design"])
    values = {
        "client": told["client"],
        "about": told["about"],
        "price": Decimal(told["price"]),
        "paid": Decimal(told["paid"]),
        "currency": "EUR",
        "due": timezone.localdate() + timedelta(days=told["days"]),
    }
    order = commissions.take(user, design, values)
    commissions.give_link(user, order)
    for row in told["changes"]:
        asked = commissions.ask(user, order, row["text"], Decimal(row["price"]))
        if "say" in row:
            commissions.answer(Owner(user), asked, AgreementState(row["say"]), row["said"])
