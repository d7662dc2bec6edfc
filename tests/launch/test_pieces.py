"""Pieces of the launcher: remembered processes, the lock, packages, stamps, checks."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

from launch import checks, database, lock, main, packages, paths, processes, stamps, tools
from launch.say import Stop


@pytest.fixture
def var(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setattr(processes, "RUN", tmp_path / "run")
    for module in (lock, database):
        monkeypatch.setattr(module, "VAR", tmp_path)
    monkeypatch.setattr(database, "DATA", tmp_path / "mariadb")
    return tmp_path


@pytest.fixture
def sleeper() -> Iterator[subprocess.Popen[bytes]]:
    process = subprocess.Popen([sys.executable, "-c", "import time; time.sleep(60)"])
    yield process
    process.kill()
    process.wait()


def test_a_remembered_process_is_stopped(var: Path, sleeper: subprocess.Popen[bytes]) -> None:
    processes.remember("web", sleeper.pid)
    assert processes.remembered("web") == sleeper.pid
    assert processes.stop("web", patience=5)
    assert processes.remembered("web") is None
    assert not processes.stop("web")


def test_a_reused_pid_is_left_alone(var: Path, sleeper: subprocess.Popen[bytes]) -> None:
    processes.remember("web", sleeper.pid)
    note = var / "run" / "web.json"
    note.write_text(json.dumps({**json.loads(note.read_text()), "started": "1"}))
    assert not processes.stop("web")
    assert sleeper.poll() is None


def test_who_ignores_sigterm_is_killed(var: Path) -> None:
    stubborn = subprocess.Popen(
        [
            sys.executable,
            "-c",
            "import signal, time; signal.signal(15, signal.SIG_IGN); print(1, flush=True); time.sleep(60)",
        ],
        stdout=subprocess.PIPE,
    )
    assert stubborn.stdout is not None
    stubborn.stdout.readline()
    processes.remember("web", stubborn.pid)
    assert processes.stop("web", patience=0.3)
    stubborn.stdout.close()
    assert stubborn.wait() == -signal.SIGKILL


@pytest.mark.parametrize("note", ["", "{", "[]", '{"pid": "x", "started": "1"}', '{"pid": 1}'])
def test_damaged_notes_are_thrown_away(var: Path, note: str) -> None:
    (var / "run").mkdir()
    (var / "run" / "web.json").write_text(note)
    assert processes.remembered("web") is None
    assert not (var / "run" / "web.json").exists()


def test_only_one_at_a_time(var: Path) -> None:
    with lock.alone("up"), pytest.raises(Stop, match="another spirrel"), lock.alone("down"):
        pass
    with lock.alone("up"):
        pass
    (var / "lock").unlink()
    (var / "lock").mkdir()
    with pytest.raises(Stop, match="cannot be opened"), lock.alone("up"):
        pass


def test_keys_are_made_once_and_private(var: Path) -> None:
    made = database.keys()
    assert database.keys() == made
    assert (var / "keys.json").stat().st_mode & 0o077 == 0
    assert len(made.secret_key) >= 50
    assert made.db_port < 32_768
    (var / "keys.json").write_text('{"half": 1}')
    with pytest.raises(Stop, match="cannot be read"):
        database.keys()
    (var / "keys.json").unlink()
    database.DATA.mkdir()
    (database.DATA / "ready").touch()
    with pytest.raises(Stop, match="is missing"):
        database.keys()


def test_a_full_disk_is_told_before_anything_is_made(var: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    class Usage:
        free = 10 * 2**20

    monkeypatch.setattr(database.shutil, "disk_usage", lambda _: Usage)
    with pytest.raises(Stop, match="300 MB"):
        database._initialise("nobody")
    assert not database.DATA.exists()


def test_packages_without_sudo_print_the_one_line(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(packages, "_has", lambda package: package != "mariadb-server-core")
    monkeypatch.setattr(packages.os, "geteuid", lambda: 1000)
    monkeypatch.setattr(packages.shutil, "which", lambda name: None if name == "sudo" else f"/usr/bin/{name}")
    with pytest.raises(Stop) as stop:
        packages.install(packages.SERVE)
    assert "sudo apt-get install -y -q --no-install-recommends mariadb-server-core" in stop.value.sentence


def test_no_service_is_ever_installed() -> None:
    assert "mariadb-server" not in packages.SERVE + packages.BROWSER
    assert packages.missing(()) == []


def test_systems_without_dpkg_are_told(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(packages.shutil, "which", lambda _: None)
    with pytest.raises(Stop, match="Debian 12"):
        packages.install(packages.SERVE)


def test_stamps_follow_what_they_stand_for(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(stamps, "ROOT", tmp_path)
    file = tmp_path / "lock"
    file.write_text("a")
    first = stamps.digest([file])
    stamp = tmp_path / "stamp"
    assert not stamps.current(stamp, first)
    stamp.write_text(first)
    assert stamps.current(stamp, first)
    file.write_text("b")
    assert not stamps.current(stamp, stamps.digest([file]))


def test_servers_are_found_without_their_folder_in_the_path(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("PATH", "/usr/bin:/bin")
    assert paths.program("mariadbd") == "/usr/sbin/mariadbd"
    assert paths.program("no-such-program") == "no-such-program"


def test_node_versions() -> None:
    assert tools._node_version("/nowhere/node") == (0,)
    assert tools._node_version(sys.executable) == (0,)


def test_every_group_of_checks_is_there() -> None:
    groups = {c.group for c in checks._checks([])}
    assert groups == set(checks.GROUPS)
    assert all("-k" in c.line for c in checks._checks(["-k", "undo"]) if "pytest" in c.line)


@pytest.mark.parametrize(
    ("argv", "code", "words"),
    [
        (["down", "--now"], 2, "not understood"),
        (["test", "moths"], 2, "no group"),
        (["up", "--nonsense"], 2, "not understood"),
    ],
)
def test_wrong_use(
    argv: list[str], code: int, words: str, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("SPIRREL_VAR", os.environ.get("SPIRREL_VAR", "/tmp/spirrel-none"))
    assert main.main(argv) == code
    assert words in capsys.readouterr().err


def test_a_child_keeps_out_of_the_way_of_ctrl_c(var: Path) -> None:
    log = var / "log" / "child.log"
    child = processes.spawn(
        "child", [sys.executable, "-c", "print('last words')"], env=dict(os.environ), log=log, cwd=var
    )
    child.wait()
    assert processes.last_lines(log) == "last words"
    assert processes.last_lines(var / "nothing") == ""
    assert processes.remembered("child") is None


def _saying(name: str, group: str, code: str, *, light: bool = True) -> checks.Check:
    return checks.Check(name, group, [sys.executable, "-c", code], light=light)


_MEET = """
import pathlib, sys, time
me, other = map(pathlib.Path, sys.argv[1:])
print(me.name, "begins", flush=True)
me.touch()
end = time.monotonic() + 30
while not other.exists():
    assert time.monotonic() < end, "the other never began"
    time.sleep(0.01)
print(me.name, "ends")
"""


def test_light_checks_of_two_groups_run_at_once_and_are_shown_whole(
    tmp_path: Path, capfd: pytest.CaptureFixture[str]
) -> None:
    def meeting(name: str, group: str, other: str) -> checks.Check:
        line = [sys.executable, "-c", _MEET, str(tmp_path / name), str(tmp_path / other)]
        return checks.Check(name, group, line, light=True)

    failing = "import sys; print('told', file=sys.stderr); sys.exit(3)"
    done = checks._run_all(
        [
            meeting("one", "craft", "two"),
            meeting("two", "frontend", "one"),
            _saying("three", "frontend", failing),
            _saying("four", "studio", "print('after')", light=False),
        ],
        os.environ,
    )
    assert done == 1, "one that fails fails the whole"
    said = capfd.readouterr().out
    for name in ("one", "two"):
        assert f"{name} begins\n{name} ends\n" in said, "what one says is not torn by another"
    assert "told" in said
    assert said.index("after") > said.index("two ends"), "what takes all cores comes after"
    assert "FAILED  three" in said
    assert "3 passed, 1 failed" in said
