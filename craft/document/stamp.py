"""What tells one release from another on every page of it."""

from __future__ import annotations

import hashlib
import json

from craft.design.design import Design
from craft.design.stored import to_json
from craft.text.catalogue import ENGLISH, Words

DIGEST_SHOWN = 10
"""Hexadecimal digits of a digest that are printed: two releases of a design share them once in a million million."""


def digest_of(design: Design) -> str:
    """SHA-256 of a design's file as hexadecimal digits: the same for the same content, whenever it is made."""
    text = json.dumps(to_json(design), ensure_ascii=False, sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(text.encode()).hexdigest()


def stamp_of(version: str, date: str, number: int | None = None, digest: str = "", words: Words = ENGLISH) -> str:
    """What stands at the foot of every page: 'Version 1.2, release 3 of 2026-03-01, 3f2a9c01d4'; a draft says so.

    date: '' where none is told. number: of the release, None for a draft.
    """
    if number is not None:
        told = {"version": version, "number": number, "date": date, "digest": digest[:DIGEST_SHOWN]}
        return words.say("Version {version}, release {number} of {date}, {digest}", **told)
    if date:
        return words.say("Version {version}, draft of {date}", version=version, date=date)
    return words.say("Version {version}", version=version)
