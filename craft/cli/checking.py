"""`craft check`: every count of a written pattern."""

from __future__ import annotations

import argparse
from collections.abc import Iterator, Sequence
from typing import Any

from craft.cli.answers import Answer, problem_row
from craft.cli.files import TERMS, read_checked
from craft.errors import CraftError
from craft.problems import CODES
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.text.several_sizes import names_in, of_size


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file", nargs="?")
    of.add_argument("--from-terms", choices=TERMS)
    of.add_argument("--codes", action="store_true", help="list every problem code")


def run(args: argparse.Namespace) -> Answer:
    """Check a file, or list every code."""
    if args.codes:
        rows = [{"code": c, "severity": s.value, "meaning": m} for c, (s, m) in CODES.items()]
        lines = "".join(f"{r['code']:<18}{r['severity']:<9}{r['meaning']}\n" for r in rows)
        return Answer(0, lines, {"format": 1, "codes": rows})
    if args.file is None:
        raise CraftError("check needs a FILE, or --codes.")
    terms = Terms(args.from_terms) if args.from_terms else None
    found, text = read_checked(args.file, terms)
    if names := names_in(text):
        return _every_size(text, names, terms)
    return Answer(0 if _is_sound(found) else 1, "".join(_check_lines(found)), _checked(found))


def _is_sound(found: Checked) -> bool:
    return found.sound and any(part.rounds for part in found.parts)


def _every_size(text: str, names: Sequence[str], terms: Terms | None) -> Answer:
    """A pattern for several sizes: each of them checked; the first one's rounds stand for the whole."""
    found = {name: check(of_size(text, name, keep_lines=True), terms) for name in names}
    sound = all(map(_is_sound, found.values()))
    lines = [f"{name}: {line}" for name, checked in found.items() for line in _check_lines(checked)]
    rows = [
        {"name": name, "sound": _is_sound(checked), "problems": [problem_row(p) for p in checked.problems]}
        for name, checked in found.items()
    ]
    data = {**_checked(found[names[0]]), "sound": sound, "sizes": rows}
    return Answer(0 if sound else 1, "".join(lines), data)


def _check_lines(found: Checked) -> Iterator[str]:
    for p in found.problems:
        yield f"line {p.place.line}, column {p.place.column}: {p.severity.value}: {p.message} [{p.code}]\n"
    for part in found.parts:
        yield f"{part.name or 'Part'} (make {part.make}): {len(part.rounds)} rounds, {sum(part.counts)} stitches\n"
    yield "sound\n" if found.sound else "not sound\n"


def _checked(found: Checked) -> dict[str, Any]:
    terms = found.reading.found
    return {
        "format": 1,
        "sound": found.sound,
        "terms": {"used": terms.used.value, "how": terms.how, "evidence": terms.evidence},
        "parts": [
            {
                "name": part.name,
                "make": part.make,
                "rounds": [
                    {
                        "label": t.label,
                        "line": _line_of(found, t.span.start),
                        "taken": t.taken,
                        "made": t.made,
                        "counted": t.live,
                        "stated": t.stated,
                    }
                    for t in part.rounds
                ],
            }
            for part in found.parts
        ],
        "problems": [problem_row(p) for p in found.problems],
    }


def _line_of(found: Checked, start: int) -> int:
    return next((line.number for line in reversed(found.reading.lines) if line.span.start <= start), 1)
