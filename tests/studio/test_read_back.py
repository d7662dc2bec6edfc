"""A law: the text edition of every demo design, read by our own reader, is the same fabric, stitch for stitch."""

from __future__ import annotations

import re
from dataclasses import replace

import numpy as np
import pytest
from django.contrib.auth.models import User

from craft.design.design import Design as DesignValue
from craft.design.running import run_parts
from craft.document.booklet import Imprint, compose, manuscript_of, prose_of
from craft.problems import Severity
from craft.rounds.fabric import ARRAYS, WorkedPart
from craft.rounds.stitches import Language, Terms
from craft.text.check import check
from studio.demo.studio import load
from studio.designs.models import Design
from studio.designs.reading import design_value


@pytest.fixture
def demos(user: User) -> list[DesignValue]:
    load(user)
    return [design_value(d) for d in Design.objects.filter(owner=user).order_by("id")]


def printed(design: DesignValue, terms: Terms, language: Language | None = None) -> str:
    """The parts of a booklet as text, with the yarns that its rounds name."""
    parts, plain = run_parts(design), Imprint("x", terms, "")
    told = {p.text: p.text for p in prose_of(design, parts, plain)}  # her own words are hers in any language
    document = compose(manuscript_of(design, parts, replace(plain, language=language, told=told)))
    lines: list[str] = []
    for section in document.sections:
        if section.key.startswith("part-"):
            told = [x.text for b in section.blocks if type(b).__name__ == "Rounds" for x in b.lines]  # type: ignore[union-attr]
            lines += [f"# {section.title}", *told, ""]
    return "\n".join(lines)


def fabric(worked: WorkedPart) -> list[bytes]:
    """Everything of a stitch graph but its colours' names."""
    arrays = [np.asarray(getattr(worked.graph, name)) for name in ARRAYS if name != "colour"]
    return [a.tobytes() for a in arrays]


def read(text: str, design: DesignValue, terms: Terms) -> dict[str, WorkedPart]:
    found = check(text, terms, design.yarn_names)
    return {re.sub(r"\s*\(.*", "", part.name or ""): part for part in found.parts if part.rounds}


@pytest.mark.parametrize("terms", list(Terms))
def test_what_is_printed_is_what_is_worked(demos: list[DesignValue], terms: Terms) -> None:
    compared = 0
    for design in demos:
        back = read(printed(design, terms), design, terms)
        for part in run_parts(design):
            if part.worked is None or not part.checked.sound:
                continue
            again = back.get(part.name)
            assert again is not None, (design.name, part.name, sorted(back))
            assert again.counts == part.worked.counts, (design.name, part.name)
            assert fabric(again) == fabric(part.worked), (design.name, part.name)
            compared += 1
    assert compared > 25


@pytest.mark.parametrize("language", list(Language))
def test_rounds_of_other_languages_are_read_as_the_same_fabric(demos: list[DesignValue], language: Language) -> None:
    """Read freehand, as patterns of the language are: bodies that divide, that are turned in short rows, and that are
    taken up again in loops left free, too."""
    same = 0
    for design in demos:
        text = printed(design, Terms.US, language)
        faults = [p for p in check(text, Terms.US, design.yarn_names).problems if p.severity is Severity.FAULT]
        assert len(faults) == sum(not p.checked.sound for p in run_parts(design)), (design.name, faults)
        back = read(text, design, Terms.US)
        for part in run_parts(design):
            if part.worked is None or not part.checked.sound:
                continue
            again = back.get(part.name)
            assert again is not None, (design.name, part.name, sorted(back))
            assert again.counts == part.worked.counts, (design.name, part.name)
            assert fabric(again) == fabric(part.worked), (design.name, part.name)
            same += 1
    assert same >= 30
