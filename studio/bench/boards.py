"""Texts that are brought in: taken out of files, and shown line by line with what was understood of them."""

from __future__ import annotations

import base64
import hashlib
import json
import re
from collections import Counter

from django.contrib.auth.models import User

from craft.design.brought import parts_in_terms, parts_of
from craft.design.parts import Part
from craft.errors import CraftError
from craft.problems import Problem, Severity
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.exchange import imported_text
from craft.text.freehand import Taken
from craft.text.intake import document_kind, document_text
from craft.text.sourced import SourceLine, source_lines
from studio.bench.answers import DocumentAnswer
from studio.bench.schemas import BoardIn, BoardLineOut, BoardOut, DoubtOut, FileTextOut, FoundPartOut
from studio.designs.bringing import read_written
from studio.jobs import actions
from studio.jobs.kinds import Stopped, Watch
from studio.jobs.shown import job_shown

KIND = "document"
MOST_LINES, MOST_DOUBTS = 2_000, 200
"""Lines of a text that are shown one by one, and doubts that are listed."""

_BREAK = re.compile(r"\r\n|\n|\r")
_RANK = {Severity.FAULT: 0, Severity.WARNING: 1, Severity.HINT: 2}


# --- files --------------------------------------------------------------------------------------


def text_of_file(user: User, name: str, raw: bytes) -> FileTextOut:
    """The text of a file; that of a document is a job's answer. CraftError says why a file has none."""
    kind = document_kind(name, raw)
    if kind is None:
        return FileTextOut(name=name, text=imported_text(name, raw).text, job=None)
    question = json.dumps({"name": name, "kind": kind, "raw": base64.b64encode(raw).decode("ascii")})
    job = actions.ask(user, KIND, question, f"{kind} {hashlib.sha256(raw).hexdigest()}")
    return FileTextOut(name=name, text=None, job=job_shown(job))


def work(question: str, watch: Watch) -> bytes:
    """Read a document; the answer as JSON."""
    asked = json.loads(question)

    def told(progress: int) -> None:
        if not watch(progress):
            raise Stopped

    found = document_text(asked["name"], base64.b64decode(asked["raw"]), asked["kind"], told)
    return DocumentAnswer(text=found.text, notes=list(found.notes)).model_dump_json().encode()


# --- the board ------------------------------------------------------------------------------------


def board(asked: BoardIn) -> BoardOut:
    """What a text holds, line by line and part by part, doubts first; nothing is kept."""
    checked = read_written(asked)
    reading = checked.reading
    lines = source_lines(asked.text, checked)
    parts = parts_of(checked, asked.text, lines)
    used = reading.pattern.terms
    wanted = Terms(asked.into) if asked.into else used
    unconverted = None
    try:
        turned = parts_in_terms(parts, used, wanted)
    except CraftError as error:
        turned, unconverted = parts, error.message
    return BoardOut(
        title=next((s.text.strip("# *_") for s in lines if s.taken is Taken.TITLE), ""),
        terms=used.value,
        terms_how=reading.found.evidence,
        into=used.value if unconverted else wanted.value,
        unconverted=unconverted,
        parts=_parts(checked, turned),
        lines=[_line(asked.text, s) for s in lines[:MOST_LINES]],
        more_lines=max(0, len(lines) - MOST_LINES),
        doubts=_doubts(checked, lines),
        beside=_beside(lines),
        sound=checked.sound,
    )


def _parts(checked: Checked, parts: tuple[Part, ...]) -> list[FoundPartOut]:
    worked = [w for w in checked.parts if w.rounds]
    faults = Counter(p.place.part for p in checked.problems if p.severity is Severity.FAULT)
    return [
        FoundPartOut(
            name=part.name,
            make=part.make,
            text=part.text,
            counts=[t.live for t in own.rounds],
            stitches=len(own.graph),
            faults=faults[own.name],
        )
        for part, own in zip(parts, worked, strict=True)
    ]


def _line(text: str, line: SourceLine) -> BoardLineOut:
    problem = line.problem
    return BoardLineOut(
        line=line.line,
        last_line=line.line + len(_BREAK.findall(text, line.span.start, line.span.end)),
        column=line.column,
        text=line.text[:2_000],
        taken=line.taken,
        understood=line.understood,
        severity=problem.severity.value if problem else None,
        message=problem.message if problem else "",
        corrected=line.corrected,
        joined=line.joined,
    )


def _doubts(checked: Checked, lines: tuple[SourceLine, ...]) -> list[DoubtOut]:
    """All problems, the gravest first, each with the row that it is about."""
    found = sorted(checked.problems, key=lambda p: (_RANK[p.severity], p.place.span.start))
    return [_doubt(p, lines) for p in found[:MOST_DOUBTS]]


def _doubt(problem: Problem, lines: tuple[SourceLine, ...]) -> DoubtOut:
    at = problem.place.span.start
    row = next((s for s in reversed(lines) if s.span.start <= at), None)
    return DoubtOut(
        severity=problem.severity.value,
        message=problem.message,
        part=problem.place.part or "",
        line=row.line if row else 1,
        column=row.column if row else 0,
    )


def _beside(lines: tuple[SourceLine, ...]) -> list[Taken]:
    """The sections that a text has beside its rounds."""
    found = {s.taken for s in lines}
    return [taken for taken in Taken if taken in found and taken not in _NO_SECTIONS]


_NO_SECTIONS = (Taken.PART, Taken.ROUND, Taken.COLOUR, Taken.DIRECTION, Taken.NOTE, Taken.NOTHING)
