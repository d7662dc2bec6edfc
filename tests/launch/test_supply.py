"""What the application is made of is written down whole, and every licence in it is one that somebody has looked at."""

from __future__ import annotations

import json
import re
from pathlib import Path

from cyclonedx.schema import SchemaVersion
from cyclonedx.validation.json import JsonStrictValidator

from launch.paths import FRONTEND
from launch.supply import TABLE, bill, locked, plain_name

LOOKED_AT = frozenset({
    "MIT", "MIT License", "MIT-0", "MIT-CMU", "BSD License", "BSD-2-Clause", "BSD-3-Clause", "PSF-2.0", "Apache Software License",
    "Apache-2.0 OR BSD-3-Clause", "Apache-2.0 OR BSD-2-Clause", "Apache-2.0 AND BSD-2-Clause", "Zope Public License",
    "BSD-3-Clause AND 0BSD AND MIT AND Zlib AND CC0-1.0", "GPL-2.0-or-later",
    "GNU General Public License v2 or later (GPLv2+); GNU Lesser General Public License v2 or later (LGPLv2+); "
    "Mozilla Public License 1.1 (MPL 1.1)",
})  # fmt: skip
"""As packages write them; of those that ask for more than their notice the head of the table speaks."""

ROW = re.compile(r"(?m)^\|\s*(?P<name>[^|\s]+)\s*\|\s*(?P<version>[^|\s]+)\s*\|\s*(?P<licence>[^|]+?)\s*\|$")


def rows() -> list[re.Match[str]]:
    return [m for m in ROW.finditer(TABLE.read_text("utf-8")) if m["name"] != "Name" and set(m["name"]) != {"-"}]


def test_every_locked_package_stands_in_the_table_of_licences_and_nothing_else() -> None:
    assert {plain_name(row["name"]): row["version"] for row in rows()} == locked()


def test_every_licence_was_looked_at() -> None:
    assert {row["licence"] for row in rows()} <= LOOKED_AT
    strict = [row["name"] for row in rows() if "GPL" in row["licence"]]
    assert all(f"`{name}`" in TABLE.read_text("utf-8") for name in strict), strict


def test_the_bills_name_every_locked_package(tmp_path: Path) -> None:
    own, web = (json.loads(file.read_text("utf-8")) for file in bill(tmp_path))
    assert {plain_name(c["name"]): c["version"] for c in own["components"]} == locked()
    lock = json.loads((FRONTEND / "package-lock.json").read_text("utf-8"))["packages"]
    locked_web = {
        (at.rpartition("node_modules/")[2], one["version"]) for at, one in lock.items() if at and not one.get("dev")
    }
    named = {(f"{c['group']}/{c['name']}" if c.get("group") else c["name"], c["version"]) for c in web["components"]}
    assert named == locked_web
    assert {"react", "react-dom", "three"} <= {name for name, _ in named}
    assert all(c["hashes"] for c in web["components"])


def test_the_bill_of_the_pages_is_valid(tmp_path: Path) -> None:
    _, web = bill(tmp_path)
    assert JsonStrictValidator(SchemaVersion.V1_6).validate_str(web.read_text("utf-8")) is None
