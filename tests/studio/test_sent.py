"""What is sent is kept by nobody, and its name is right in every script."""

from __future__ import annotations

from urllib.parse import quote

import pytest

from studio.sent import sent, stem_of
from tests.studio.conftest import BALL, Studio


@pytest.mark.parametrize(
    "name", ["Moth", "Ömür's Güve", "蛾", "פרפר", 'a"; x=y', "../../etc/passwd", "...", "\r\nSet-Cookie: a=b"]
)
def test_names_of_files_in_every_script(studio: Studio, name: str) -> None:
    made = studio.design("Moth")
    studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Body", "text": BALL}, 201)
    stem = stem_of(name, "design")
    assert "/" not in stem
    assert not set(stem) & set('"\\;:\r\n.')
    said = sent(b"x", "text/plain", f"{stem}.txt")["Content-Disposition"]
    assert said.startswith("attachment")
    assert quote(stem) in said if not stem.isascii() else f'filename="{stem}.txt"' in said


def test_a_design_named_in_another_script_is_saved_under_its_name(studio: Studio) -> None:
    made = studio.design("Güve 蛾")
    studio.ask("POST", f"/designs/{made['id']}/parts", {"name": "Body", "text": BALL}, 201)
    for path in (f"/bench/file/{made['id']}/text", f"/designs/{made['id']}/booklet.txt"):
        said = studio.raw("GET", path)["Content-Disposition"]
        assert "filename*=utf-8''" + quote("güve-蛾") in said, path


def test_answers_are_kept_by_nobody(studio: Studio) -> None:
    made = studio.design("Moth")
    for path in ("/designs", f"/designs/{made['id']}", "/session", "/yarns", "/studio"):
        assert studio.raw("GET", path)["Cache-Control"] == "private, no-store", path
    assert studio.raw("GET", "/designs/0")["Cache-Control"] == "private, no-store", "refusals, too"
