"""The grammar's tables are kept beside the bytecode, and are made anew where they cannot be."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

import craft

ROUND = "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\n"


@pytest.fixture
def house(tmp_path: Path) -> Path:
    """A copy of the craft of its own, so that nothing is written beside the tree that is tested."""
    shutil.copytree(Path(craft.__file__).parent, tmp_path / "craft", ignore=shutil.ignore_patterns("__pycache__"))
    return tmp_path


def _checked(house: Path, **more: str) -> str:
    env = {k: v for k, v in os.environ.items() if not k.startswith("PYTHON")} | {"PYTHONPATH": str(house)} | more
    line = [sys.executable, "-m", "craft", "check", "-"]
    return subprocess.run(line, input=ROUND, capture_output=True, text=True, env=env, cwd=house, check=True).stdout


def _tables(house: Path) -> list[Path]:
    return sorted(house.rglob("rounds-*.lark"))


def test_tables_are_kept_and_say_the_same(house: Path) -> None:
    first = _checked(house)
    assert "sound" in first
    assert [t.name.split(".")[0] for t in _tables(house)] == ["rounds-us"]
    assert _checked(house) == first


@pytest.mark.parametrize("spoilt", [b"", b"not a table", b"0" * 64 + b"\nnonsense"])
def test_spoilt_tables_are_made_anew(house: Path, spoilt: bytes) -> None:
    first = _checked(house)
    (kept,) = _tables(house)
    kept.write_bytes(spoilt)
    assert _checked(house) == first
    assert len(kept.read_bytes()) > len(spoilt)


def test_where_no_bytecode_is_kept_no_tables_are(house: Path) -> None:
    assert "sound" in _checked(house, PYTHONDONTWRITEBYTECODE="1")
    assert not _tables(house)
