"""Makings: frozen editions, logs synced from several devices by hers and by links, deviations written into the rounds."""

from __future__ import annotations

import uuid
from collections.abc import Sequence
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from craft.units import cm
from studio.designs.models import Design
from studio.jobs.models import Job
from studio.making import actions
from studio.making.models import FrozenEdition, Making, MakingEvent
from studio.yarns.models import Swatch, Yarn
from tests.studio.conftest import BALL, Studio
from tests.studio.test_pictures import picture

Json = dict[str, Any]


def begun(studio: Studio, **more: Any) -> tuple[int, str, str]:
    """A design with a making: numbers of both, and the part's key."""
    made, key = studio.with_part()
    making = studio.ask("POST", f"/designs/{made['id']}/makings", {"title": "First sample", **more}, 201)
    return made["id"], making["id"], key


def now() -> int:
    return int(timezone.now().timestamp() * 1000) - 3_600_000


def events(key: str, *said: Json, device: str = "phone", begin: int | None = None) -> list[Json]:
    """Events of one device a minute apart."""
    at = begin if begin is not None else now()
    placed = ("done", "ripped", "stitched", "otherwise")
    return [
        {"id": str(uuid.uuid4()), "device": device, "seq": i, "at": at + i * 60_000}
        | ({"part": key, "piece": 1} if e["kind"] in placed else {})
        | e
        for i, e in enumerate(said)
    ]


def rounds(*numbers: int) -> list[Json]:
    return [{"kind": "done", "round": n} for n in numbers]


def sync(studio: Studio, making: str, brought: Sequence[Json] = (), known: int = 0, status: int = 200) -> Any:
    return studio.ask("POST", f"/makings/{making}/sync", {"events": list(brought), "known": known}, status)


def summary(studio: Studio, design: int) -> Json:
    return studio.ask("GET", f"/designs/{design}/makings")["makings"][0]  # type: ignore[no-any-return]


def test_a_making_holds_its_edition_whatever_becomes_of_the_design(studio: Studio) -> None:
    design, making, key = begun(studio)
    studio.ask("PUT", f"/designs/{design}/parts/{key}/text", {"text": "R1: 6 sc in ring [6]\n"})
    got = studio.ask("GET", f"/makings/{making}")
    assert [r["label"] for r in got["sheet"]["parts"][0]["rungs"]] == [f"R{n}" for n in range(1, 9)]
    page = studio.client.get(f"/api/makings/{making}/edition")
    assert page.status_code == 200
    assert "R7" in page.content.decode()
    assert "<script" not in page.content.decode()
    assert page.headers["Cache-Control"] == "private, no-store"


def test_two_makings_of_the_same_share_one_edition(studio: Studio) -> None:
    design, first, _ = begun(studio)
    studio.ask("POST", f"/designs/{design}/makings", {"title": "Second"}, 201)
    assert FrozenEdition.objects.count() == 1
    studio.ask("DELETE", f"/designs/{design}/makings/{first}")
    assert FrozenEdition.objects.count() == 1
    assert Making.objects.count() == 1


def test_what_does_not_add_up_is_not_made(studio: Studio) -> None:
    made, _ = studio.with_part(BALL.replace("[18]", "[19]", 1))
    got = studio.ask("POST", f"/designs/{made['id']}/makings", {"title": "x"}, 422)
    assert "nobody should be the first to find a wrong sum" in got["detail"]
    assert not FrozenEdition.objects.exists()


def test_what_a_device_brings_is_there_once_and_others_get_it(studio: Studio) -> None:
    design, making, key = begun(studio)
    log = events(key, *rounds(1, 2, 3))
    first = sync(studio, making, log)
    again = sync(studio, making, log, first["known"])
    assert (len(first["events"]), again["events"], again["known"]) == (3, [], first["known"])
    other = sync(studio, making, events(key, *rounds(4), device="tablet", begin=now() + 600_000))
    assert [e["round"] for e in other["events"]] == [1, 2, 3, 4], "a device that knows nothing gets all"
    assert MakingEvent.objects.count() == 4
    told = summary(studio, design)
    assert (told["parts"][0]["done"], told["at"], told["done"]) == (4, "Body, after R4", 6 + 12 + 18 + 18)


def test_many_events_are_handed_out_in_pieces(studio: Studio, monkeypatch: pytest.MonkeyPatch) -> None:
    _, making, key = begun(studio)
    monkeypatch.setattr(actions, "HANDED_OUT", 4)
    sync(studio, making, events(key, *rounds(*range(1, 8))))
    first = sync(studio, making)
    rest = sync(studio, making, known=first["known"])
    assert (len(first["events"]), first["more"], len(rest["events"]), rest["more"]) == (4, True, 3, False)


def test_what_cannot_be_taken_is_refused_by_itself_and_the_rest_is_kept(
    studio: Studio, monkeypatch: pytest.MonkeyPatch
) -> None:
    _, making, key = begun(studio)
    log = events(key, *rounds(1, 2), {"kind": "otherwise", "round": 2, "what": "count", "many": 0})
    got = sync(studio, making, log)
    assert [r["id"] for r in got["refused"]] == [log[2]["id"]]
    assert "how many" in got["refused"][0]["why"]
    assert len(got["events"]) == 2
    monkeypatch.setattr(actions, "MOST_EVENTS", 3)
    full = sync(studio, making, events(key, *rounds(3, 4), device="b"), got["known"])
    assert (len(full["events"]), len(full["refused"])) == (1, 1)
    assert "holds 3 events" in full["refused"][0]["why"]


def test_a_clock_that_runs_ahead_is_set_right_and_one_that_is_not_set_is_said(studio: Studio) -> None:
    _, making, key = begun(studio)
    ahead = now() + 10 * 86_400_000
    got = sync(studio, making, events(key, *rounds(1), begin=ahead))
    assert got["events"][0]["at"] <= got["now"]
    unset = sync(studio, making, events(key, *rounds(2), begin=1000, device="b"), got["known"])
    assert "clock of this device is not set" in unset["refused"][0]["why"]


def test_others_do_not_see_it_and_cannot_write_to_it(studio: Studio, other: Studio) -> None:
    design, making, key = begun(studio)
    for method, path in (("GET", ""), ("GET", "/edition"), ("POST", "/figure"), ("POST", "/sync"), ("DELETE", "/log")):
        other.ask(method, f"/makings/{making}{path}", {} if method == "POST" else None, 404)
    own, _, _ = begun(other)
    other.ask("DELETE", f"/designs/{own}/makings/{making}", status=404)
    assert Making.objects.filter(design_id=design).exists()
    assert Client().get(f"/api/makings/{making}").status_code == 401
    sync(studio, making, events(key, *rounds(1)))


def test_photographs_come_without_metadata_and_under_their_own_id(studio: Studio, other: Studio) -> None:
    _, making, _ = begun(studio)
    pk = uuid.uuid4()
    path = f"/api/makings/{making}/pictures/{pk}"

    def send(client: Client) -> Any:
        return client.post(path, {"file": SimpleUploadedFile("a.png", picture())})

    assert send(studio.client).status_code == 200
    assert send(studio.client).status_code == 200, "sent again it is the same one"
    assert send(other.client).status_code == 404
    got = studio.client.get(path)
    assert (got.status_code, got.headers["Content-Type"]) in ((200, "image/png"), (200, "image/jpeg"))
    assert other.client.get(path).status_code == 404
    bad = studio.client.post(
        f"/api/makings/{making}/pictures/{uuid.uuid4()}", {"file": SimpleUploadedFile("a.png", b"nothing")}
    )
    assert bad.status_code == 422
    assert studio.client.delete(path).status_code == 204
    assert studio.client.get(path).status_code == 404


def deviate(studio: Studio, *said: Json) -> tuple[int, str, str]:
    design, making, key = begun(studio)
    sync(studio, making, events(key, *rounds(1, 2), *said))
    return design, making, key


def decide(studio: Studio, design: int, making: str, verdict: str | None, status: int = 200) -> Any:
    (one,) = summary(studio, design)["deviations"]
    return studio.ask(
        "PUT", f"/designs/{design}/makings/{making}/deviations/{one['key']}", {"verdict": verdict}, status
    )


MORE = {"kind": "otherwise", "round": 5, "what": "more", "many": 1}


def test_what_was_done_otherwise_becomes_the_text_by_one_action_and_undo_takes_it_back(studio: Studio) -> None:
    design, making, key = deviate(studio, MORE)
    told = decide(studio, design, making, "text")["makings"][0]
    assert told["deviations"][0]["verdict"] == "text"
    part = studio.ask("GET", f"/designs/{design}")["parts"][0]
    assert part["counts"][:8] == [6, 12, 18, 18, 18, 18, 18, 12]
    label = Design.objects.get(pk=design).revision.label
    assert label.startswith("First sample: After R5 1 more round")
    assert "says so already" in decide(studio, design, making, "dropped", 409)["detail"]
    studio.ask("POST", f"/designs/{design}/undo")
    assert summary(studio, design)["deviations"][0]["verdict"] is None
    decide(studio, design, making, "text")
    assert key == part["key"]


def test_it_stays_a_remark_or_is_dropped_and_that_can_be_taken_back(studio: Studio) -> None:
    design, making, _ = deviate(studio, MORE)
    before = Design.objects.get(pk=design).head_id
    for verdict in ("remark", "dropped", None):
        told = decide(studio, design, making, verdict)["makings"][0]
        assert told["deviations"][0]["verdict"] == verdict
    assert Design.objects.get(pk=design).head_id == before
    studio.ask("PUT", f"/designs/{design}/makings/{making}/deviations/nothing-1", {"verdict": "text"}, 404)


def test_rounds_that_were_changed_since_are_not_written_over(studio: Studio) -> None:
    design, making, key = deviate(studio, MORE)
    studio.ask("PUT", f"/designs/{design}/parts/{key}/text", {"text": "R1: 5 sc in ring [5]\n"})
    got = decide(studio, design, making, "text", 422)
    assert "no longer there" in got["detail"]


def test_her_typed_rounds_are_kept_before_a_deviation_is_written(studio: Studio) -> None:
    design, making, key = deviate(studio, MORE)
    tag = studio.ask("GET", f"/designs/{design}")["parts"][0]["etag"]
    text = BALL + "Brush it.\n"
    studio.ask("PUT", f"/designs/{design}/parts/{key}/typed", {"text": text, "etag": tag})
    decide(studio, design, making, "text")
    assert "Brush it." in studio.ask("GET", f"/designs/{design}")["parts"][0]["text"]


def test_what_was_measured_becomes_a_sample_of_her_yarn(studio: Studio, user: Any) -> None:
    design, making, key = begun(studio)
    path = f"/designs/{design}/makings/{making}/sample"
    assert "measured yet" in studio.ask("POST", path, status=422)["detail"]
    sheet = studio.ask("GET", f"/makings/{making}")["sheet"]
    around = 18 * sheet["stitch_mm"] * 1.2
    sync(studio, making, events(key, {"kind": "measured", "what": "girth", "mm": around, "part": key, "round": 4}))
    assert "not in your basket" in studio.ask("POST", path, status=422)["detail"]
    yarn = Yarn.objects.create(owner=user, name="Moss", weight=3)
    page = studio.ask("GET", f"/designs/{design}")
    gauge = {"yarns": [{"yarn_id": yarn.pk, "name": "Moss", "colour": "#77834b", "weight": 3}], "hook_mm": 3.0}
    studio.ask("PUT", f"/designs/{design}/pages", {"page": "gauge", "base": page["revision"], "data": gauge})
    studio.ask("POST", path, status=201)
    swatch = Swatch.objects.get()
    assert swatch.kind == "stuffed"
    assert swatch.across_mm / swatch.stitches == pytest.approx(sheet["stitch_mm"] * 1.2, rel=0.01)
    (sample,) = studio.ask("GET", f"/designs/{design}/makings")["samples"]
    assert sample["stitch_mm"] == pytest.approx(sheet["stitch_mm"] * 1.2)


def test_three_finished_figures_are_told_from_and_two_are_not(studio: Studio) -> None:
    design, first, key = begun(studio)
    height = studio.ask("GET", f"/makings/{first}")["sheet"]["height_mm"]
    makings = [first] + [
        studio.ask("POST", f"/designs/{design}/makings", {"title": f"No. {n}"}, 201)["id"] for n in (2, 3)
    ]
    for at, making in enumerate(makings):
        sync(
            studio,
            making,
            events(key, {"kind": "measured", "what": "height", "mm": height * (1.1 + at / 50)}, {"kind": "finished"}),
        )
        (found,) = [q for q in studio.ask("GET", f"/designs/{design}/makings")["learned"] if q["quantity"] == "height"]
        assert (found["ratio"] is None) == (at < 2)
    assert found["ratio"] == pytest.approx(1.12)
    before, narrowed = found["before"], found["now"]
    assert narrowed["value"] == pytest.approx(1.12 * before["value"])
    assert narrowed["high"] - narrowed["low"] < before["high"] - before["low"]
    assert "3 makings" in narrowed["how"]
    _printed_as_measured(studio, design, height)


def _printed_as_measured(studio: Studio, design: int, height: float) -> None:
    """The booklet prints what they measured once she takes it over, as one change that can be undone."""
    book = f"/designs/{design}/booklet.txt"
    assert "3 makings" not in studio.ask("GET", book).content.decode()
    before = studio.ask("GET", f"/designs/{design}")["revision"]
    shown = studio.ask("POST", f"/designs/{design}/makings/size", {"quantity": "height"})
    (found,) = [q for q in shown["learned"] if q["quantity"] == "height"]
    assert found["printed"] == 3
    text = " ".join(studio.ask("GET", book).content.decode().split())
    assert "; its height as measured on 3 makings, give or take 5%" in text, "its width is an estimate still"
    assert cm(1.12 * height) in text
    asked = {"sizes": [{"key": "taller", "name": "taller", "kind": "height", "height_mm": 90}]}
    base, taller_size = studio.ask("POST", f"/designs/{design}/sizes", asked)["columns"]
    assert base["height"]["value"] == pytest.approx(1.12 * height, rel=0.01)
    assert (base["height_makers"], base["width_makers"], taller_size["height_makers"]) == (3, 0, 3)
    assert "3 makings" in base["height"]["how"]
    assert "3 makings" not in base["width"]["how"]
    assert studio.ask("GET", f"/designs/{design}")["revision"] == before + 1
    key = studio.ask("GET", f"/designs/{design}")["parts"][0]["key"]
    taller = BALL.replace("R4-R6", "R4-R16").replace("R7:", "R17:").replace("R8:", "R18:")
    studio.ask("PUT", f"/designs/{design}/parts/{key}/text", {"text": taller})
    (found,) = [q for q in studio.ask("GET", f"/designs/{design}/makings")["learned"] if q["quantity"] == "height"]
    assert found["printed"] == 0, "the figure is another by now"
    (base,) = studio.ask("POST", f"/designs/{design}/sizes", {"sizes": []})["columns"]
    assert base["height_makers"] == 0
    assert "3 makings" not in studio.ask("GET", book).content.decode()
    studio.ask("POST", f"/designs/{design}/undo")
    studio.ask("POST", f"/designs/{design}/makings/size", {"quantity": "width"}, 422)
    studio.ask("POST", f"/designs/{design}/makings/size", {"quantity": "yarn"}, 422)
    studio.ask("POST", f"/designs/{design}/undo")
    assert "3 makings" not in studio.ask("GET", book).content.decode()


@pytest.mark.django_db(transaction=True)
def test_the_figure_is_drawn_round_by_round_once_it_has_settled(studio: Studio) -> None:
    _, making, key = begun(studio)
    got = studio.ask("POST", f"/makings/{making}/figure")
    assert got["whole"]
    faces = got["parts"][key]
    assert len(faces["corners"]) == len(faces["rounds"]) == len(faces["shades"]) > 90
    assert set(range(2, 9)) <= set(faces["rounds"])
    afters = [stage["after"] for stage in got["open"][key]]
    assert afters == sorted(set(afters))
    assert 3 <= len(afters) <= 8
    for stage in got["open"][key]:
        assert {n for n in stage["look"]["rounds"] if n <= stage["after"]} >= set(range(2, stage["after"] + 1))
        assert max(stage["look"]["rounds"]) <= stage["after"] + 1
    assert Job.objects.filter(kind="stages").count() == 1
    assert studio.ask("POST", f"/makings/{making}/figure") == got
    assert Job.objects.filter(kind="stages").count() == 1


@pytest.mark.django_db(transaction=True)
def test_what_was_made_is_drawn_beside_what_is_written(studio: Studio) -> None:
    design, making, key = deviate(studio, MORE, {"kind": "otherwise", "round": 3, "what": "left-out"})
    path = f"/designs/{design}/makings/{making}/as-made"
    studio.ask("POST", path)
    both = studio.ask("GET", path)
    assert both["says"]["whole"]
    assert both["did"]["whole"]
    says, did = both["says"]["parts"][key], both["did"]["parts"][key]
    assert max(did["rounds"]) == max(says["rounds"]) + 1
    (left,) = both["left"]
    assert left.startswith("R3 was left out.")
    assert "would no longer fit" in left


def test_a_copy_of_a_design_starts_without_makings(studio: Studio) -> None:
    design, _, _ = begun(studio)
    copy = studio.ask("POST", f"/designs/{design}/copy", status=201)
    assert studio.ask("GET", f"/designs/{copy['id']}/makings")["makings"] == []


def test_all_that_was_given_can_be_deleted(studio: Studio) -> None:
    _, making, key = begun(studio)
    sync(studio, making, events(key, *rounds(1, 2)))
    studio.client.post(
        f"/api/makings/{making}/pictures/{uuid.uuid4()}", {"file": SimpleUploadedFile("a.png", picture())}
    )
    assert studio.client.delete(f"/api/makings/{making}/log").status_code == 204
    row = Making.objects.get(pk=making)
    assert (row.events.count(), row.pictures.count()) == (0, 0)
