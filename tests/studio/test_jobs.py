"""Jobs: asked for once, watched, cancelled, begun again after a crash; and the settling that they carry."""

from __future__ import annotations

import json
from base64 import b64decode
from datetime import timedelta
from typing import Any

import numpy as np
import pytest
from django.contrib.auth.models import User
from django.core.management import call_command
from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from craft.errors import CraftError
from studio.jobs import actions, kinds
from studio.jobs.models import Job, State
from studio.jobs.working import work_next
from tests.studio.conftest import BALL, GAUGE, Studio

# Work is put in line when a transaction ends, so these tests end theirs.
pytestmark = pytest.mark.django_db(transaction=True)

QUESTION: dict[str, Any] = {"text": BALL, "terms": "us", "gauge": GAUGE}
DATABASE = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "ENQUEUE_ON_COMMIT": True}}


@pytest.fixture(autouse=True)
def echo(monkeypatch: pytest.MonkeyPatch) -> None:
    """Kinds of jobs for these tests."""

    def breaks(question: str, watch: kinds.Watch) -> bytes:
        raise {"craft": CraftError("No wool."), "bug": ZeroDivisionError()}[question]

    def patient(question: str, watch: kinds.Watch) -> bytes:
        if not watch(50):
            raise kinds.Stopped
        return b"finished"

    monkeypatch.setattr(kinds, "_KINDS", dict(kinds._KINDS))
    for name, worker in (("echo", lambda q, w: q.encode()), ("breaks", breaks), ("patient", patient)):
        kinds.register(name, worker, version=1)
    monkeypatch.setattr("studio.jobs.working.BEAT_SECONDS", 0.0)


def array(text: str, kind: str) -> np.ndarray:
    return np.frombuffer(b64decode(text), kind)


def test_a_part_is_settled_and_found_again(studio: Studio) -> None:
    job = studio.ask("POST", "/bench/settle", QUESTION)
    assert job["state"] == "done"
    got = studio.ask("GET", f"/jobs/{job['id']}/answer")["settled"]
    assert got["converged"]
    assert got["labels"] == [f"R{n}" for n in range(1, 9)]
    assert got["measures"]["width_mm"] == pytest.approx(18 * GAUGE["stitch_mm"] / np.pi, rel=0.1)
    x = array(got["frames"][-1], "<i2").reshape(-1, 3) * got["scale"]
    assert len(x) == got["stitches"] + got["middles"] + got["closings"]
    assert np.ptp(x[:, 2]) == pytest.approx(got["measures"]["height_mm"], abs=0.05)
    assert array(got["triangles"], "<u4").max() < len(x)
    assert array(got["round"], "<i2").max() == 7
    assert array(got["place"], "<u2")[6:18].tolist() == list(range(1, 13))
    reworded = QUESTION | {"text": "Some prose first.\n\n" + BALL.replace("sc around", "18 sc")}
    assert studio.ask("POST", "/bench/settle", reworded)["id"] == job["id"], "the same stitches, the same answer"
    firmer = QUESTION | {"gauge": GAUGE | {"firmness": 1.0}}
    assert studio.ask("POST", "/bench/settle", firmer)["id"] != job["id"]


def test_nothing_to_settle_is_a_sentence(studio: Studio) -> None:
    got = studio.ask("POST", "/bench/settle", QUESTION | {"text": "Only prose."}, 422)
    assert "no round" in got["detail"]


def test_a_part_that_cannot_settle_says_why(studio: Studio) -> None:
    job = studio.ask("POST", "/bench/settle", QUESTION | {"text": "R1: 60 sc in ring [60]\nR2-R600: 60 sc [60]"})
    assert job["state"] == "failed"
    assert "30,000" in job["error"]
    assert studio.ask("GET", f"/jobs/{job['id']}/answer", status=409)["type"] == "/problems/not-done"


def test_others_jobs_are_not_there(user: User, other: Studio) -> None:
    job = actions.ask(user, "echo", "hers")
    for method, path in (("GET", ""), ("GET", "/answer"), ("POST", "/cancel")):
        other.ask(method, f"/jobs/{job.pk}{path}", status=404)


def test_a_job_waits_for_a_worker_and_can_be_cancelled_meanwhile(settings: Any, user: User) -> None:
    settings.TASKS = DATABASE
    job = actions.ask(user, "echo", "42")
    assert job.state == State.WAITING
    assert actions.ask(user, "echo", "42").pk == job.pk
    assert DBTaskResult.objects.count() == 1, "asking twice puts it in line once"
    other = actions.ask(user, "echo", "43")
    assert actions.cancel(user, other.pk).state == State.CANCELLED
    call_command("db_worker", batch=True, interval=0, startup_delay=False, verbosity=0)
    job.refresh_from_db()
    other.refresh_from_db()
    assert (job.state, actions.answer_of(job)) == (State.DONE, b"42")
    assert other.state == State.CANCELLED
    assert actions.cancel(user, job.pk).state == State.DONE, "what is done stays done"


def test_a_running_job_stops_when_asked(user: User) -> None:
    job = Job.objects.create(owner=user, key="k", kind="patient", question="", cancel_asked=True)
    work_next()
    job.refresh_from_db()
    assert (job.state, job.progress) == (State.CANCELLED, 50)


def test_a_running_job_that_was_called_off_goes_on_when_it_is_asked_for_again(user: User) -> None:
    key = actions.key_of("patient", "q")
    job = Job.objects.create(owner=user, key=key, kind="patient", question="q", state=State.RUNNING, cancel_asked=True)
    assert actions.ask(user, "patient", "q").pk == job.pk
    job.refresh_from_db()
    assert (job.state, job.cancel_asked) == (State.RUNNING, False)


@pytest.mark.parametrize(("question", "said"), [("craft", "No wool."), ("bug", "could not be worked out")])
def test_failures_become_sentences_and_may_be_asked_again(question: str, said: str, user: User) -> None:
    job = actions.ask(user, "breaks", question)
    assert job.state == State.FAILED
    assert said in job.error
    assert "Traceback" not in job.error
    again = actions.ask(user, "breaks", question)
    assert (again.pk, again.attempt) == (job.pk, 1)


def test_what_a_killed_worker_left_is_begun_again(user: User) -> None:
    jobs = [
        Job.objects.create(owner=user, key=str(n), kind="echo", question=str(n), state=State.RUNNING, attempt=n)
        for n in (1, 3)
    ]
    fresh = Job.objects.create(owner=user, key="f", kind="echo", question="f", state=State.RUNNING, attempt=1)
    Job.objects.exclude(pk=fresh.pk).update(heartbeat=timezone.now() - timedelta(minutes=5))
    assert actions.resume() == 1
    for job in (*jobs, fresh):
        job.refresh_from_db()
    assert [j.state for j in (*jobs, fresh)] == [State.DONE, State.FAILED, State.RUNNING]
    assert "interrupted" in jobs[1].error


def test_a_job_whose_worker_is_gone_can_be_cancelled_and_asked_for_again(user: User) -> None:
    key = actions.key_of("echo", "q")
    job = Job.objects.create(owner=user, key=key, kind="echo", question="q", state=State.RUNNING, attempt=1)
    assert actions.cancel(user, job.pk).state == State.RUNNING, "its worker was heard of just now: it is asked to stop"
    Job.objects.update(heartbeat=timezone.now() - actions.STALE - timedelta(seconds=1), cancel_asked=False)
    assert actions.cancel(user, job.pk).state == State.CANCELLED, "nobody is left to hear it"
    Job.objects.update(heartbeat=timezone.now() - actions.STALE - timedelta(seconds=1), state=State.RUNNING)
    assert actions.ask(user, "echo", "q").state == State.DONE


def test_what_was_called_off_before_its_worker_died_ends(user: User) -> None:
    old = timezone.now() - timedelta(minutes=5)
    job = Job.objects.create(owner=user, key="k", kind="echo", question="q", state=State.RUNNING, cancel_asked=True)
    Job.objects.update(heartbeat=old)
    assert actions.resume() == 0
    job.refresh_from_db()
    assert job.state == State.CANCELLED


def test_the_first_worker_takes_whatever_runs_as_left_behind(user: User) -> None:
    job = Job.objects.create(owner=user, key="k", kind="echo", question="q", state=State.RUNNING, attempt=1)
    assert actions.resume() == 0
    assert actions.resume(timezone.now()) == 1
    job.refresh_from_db()
    assert job.state == State.DONE


def test_answers_used_longest_ago_are_forgotten(monkeypatch: pytest.MonkeyPatch, user: User) -> None:
    monkeypatch.setattr(actions, "MOST_KEPT", 3)
    for question in ("0", "1", "2", "0", "3"):
        actions.ask(user, "echo", question)
    assert set(Job.objects.values_list("question", flat=True)) == {"0", "2", "3"}, "1 was used longest ago"


def test_answers_that_are_too_large_together_are_forgotten(monkeypatch: pytest.MonkeyPatch, user: User) -> None:
    one = actions.ask(user, "echo", "0" * 50).size
    monkeypatch.setattr(actions, "MOST_KEPT_BYTES", 2 * one + 1)
    for question in ("1" * 50, "2" * 50):
        actions.ask(user, "echo", question)
    assert {q[0] for q in Job.objects.values_list("question", flat=True)} == {"1", "2"}


def test_another_version_of_a_kind_is_asked_anew(user: User) -> None:
    first = actions.ask(user, "echo", "q")
    assert actions.ask(user, "echo", "q").pk == first.pk
    kinds.register("echo", lambda q, w: b"other", version=2)
    assert actions.ask(user, "echo", "q").pk != first.pk


def test_answers_are_json(studio: Studio) -> None:
    job = studio.ask("POST", "/bench/settle", QUESTION)
    raw = studio.raw("GET", f"/jobs/{job['id']}/answer")
    assert raw["Content-Type"] == "application/json"
    assert json.loads(raw.content)["settled"]["kinds"][0] == "sc"
