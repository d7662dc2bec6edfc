"""A design as values of the craft: its gauge, its parts read and run, its figure."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from craft.figure.body import Body, Placed, body_of
from craft.figure.placement import Seat, place, swings_when_sitting
from craft.figure.settling import shows_filling_above
from craft.gauge import ASSUMED, DEFAULT_LEAN, Gauge, estimate_gauge, fabric_outlook
from craft.problems import Severity
from craft.rounds.fabric import MAIN_COLOUR, Piece, WorkedPart
from craft.rounds.pattern import Part
from craft.rounds.stitches import Terms
from craft.text.check import Checked, check
from craft.yarn import Yarn
from studio.designs.manifest import AssemblyPage, DesignYarn, GaugePage, Manifest, PartEntry
from studio.designs.models import Design, PartVersion
from studio.designs.places import shown_rounds, step_now


def yarn_value(yarn: DesignYarn, strands: int) -> Yarn:
    """A yarn of the design as the craft's."""
    return Yarn(yarn.name, yarn.weight, yarn.wraps, strands, yarn.plush, yarn.skein_m, yarn.skein_g)


def gauge_of(page: GaugePage) -> Gauge:
    """The gauge in force; assumed until a hook and a yarn are given."""
    lean = DEFAULT_LEAN if page.lean is None else page.lean
    if page.source in ("sample", "own") and page.stitch_mm and page.round_mm:
        how = "measured on your sample" if page.source == "sample" else "as you typed it"
        return Gauge(page.stitch_mm, page.round_mm, lean, 0.03 if page.source == "sample" else 0.05, how)
    if page.source != "assumed" and page.yarns and page.hook_mm:
        found = estimate_gauge(yarn_value(page.yarns[0], page.strands), page.hook_mm)
        return Gauge(found.stitch_mm, found.round_mm, lean, found.spread, found.how)
    return ASSUMED


def shows_above(page: GaugePage) -> float:
    """Strain from which filling shows, by yarn and hook; a middling one while they are not known."""
    if not (page.yarns and page.hook_mm):
        return shows_filling_above(None)
    return shows_filling_above(fabric_outlook(yarn_value(page.yarns[0], page.strands), page.hook_mm).ratio)


def palette_of(manifest: Manifest) -> dict[str, str]:
    """Colours by yarn name; the first yarn is also the main one."""
    colours = {y.name: y.colour for y in manifest.gauge.yarns}
    if manifest.gauge.yarns:
        colours.setdefault(MAIN_COLOUR, manifest.gauge.yarns[0].colour)
    return colours


@dataclass(frozen=True)
class ReadPart:
    """A part of a design with its text, read and run."""

    key: str
    name: str
    make: int
    colour: str | None
    version: int
    text: str
    etag: str
    recipe: dict[str, object] | None
    authoritative: bool
    checked: Checked

    @property
    def faults(self) -> int:
        """How many faults it has."""
        return sum(p.severity is Severity.FAULT for p in self.checked.problems)

    @property
    def written(self) -> Part:
        """All that is written as one part, under the design's name for it."""
        parts = self.checked.reading.pattern.parts
        items = tuple(item for part in parts for item in part.items)
        return Part(self.name, items, self.make)

    @property
    def worked(self) -> WorkedPart | None:
        """The part as run, None while it has no stitches."""
        found = first_worked(self.checked)
        if found is None:
            return None
        return replace(found, name=self.name, make=self.make)


@dataclass(frozen=True, slots=True)
class OtherText:
    """Another part of the design, which a text may work in: its name, how often it is made, its text."""

    name: str
    make: int
    text: str


@lru_cache(maxsize=2_048)
def checked_text(
    text: str, terms: str, yarns: tuple[str, ...], colour: str = MAIN_COLOUR, others: tuple[OtherText, ...] = ()
) -> Checked:
    """A part's text read and run with `colour` on the hook at first, remembered.

    others: the design's other parts. They are run by themselves, so that parts may stand in any order.
    """
    return check(text, Terms(terms), yarns, colour, _pieces(others, terms, yarns))


def _pieces(others: tuple[OtherText, ...], terms: str, yarns: tuple[str, ...]) -> dict[str, Piece]:
    pieces: dict[str, Piece] = {}
    for other in others:
        worked = first_worked(checked_text(other.text, terms, yarns))
        if worked is not None:
            pieces[other.name] = replace(worked, name=other.name, make=other.make).piece
    return pieces


def first_worked(checked: Checked) -> WorkedPart | None:
    """The first part of a text that has rounds, None while there is none."""
    return next((p for p in checked.parts if any(t.live for t in p.rounds)), None)


def yarn_names(manifest: Manifest) -> tuple[str, ...]:
    """Colours that rounds may name."""
    names = tuple(y.name for y in manifest.gauge.yarns)
    return (*names, MAIN_COLOUR) if names else ()


def read_parts(design: Design) -> list[ReadPart]:
    """Every part of the shown revision, with its draft where there is one."""
    manifest = design.manifest
    versions = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    drafts = {d.part_key: d for d in design.drafts.all()}
    texts = {p.key: drafts[p.key].text if p.key in drafts else versions[p.version].text for p in manifest.parts}
    parts: list[ReadPart] = []
    for entry in manifest.parts:
        version = versions[entry.version]
        draft = drafts.get(entry.key)
        text = texts[entry.key]
        others = tuple(OtherText(p.name, p.make, texts[p.key]) for p in manifest.parts if p.key != entry.key)
        own = version.recipe is not None and not version.hand_edited and text == version.text
        parts.append(
            ReadPart(
                entry.key,
                entry.name,
                entry.make,
                entry.colour,
                entry.version,
                text,
                draft.etag if draft else version_etag(entry.version),
                version.recipe,
                own,
                checked_text(text, manifest.terms, yarn_names(manifest), entry.colour or MAIN_COLOUR, others),
            )
        )
    return parts


def read_text(manifest: Manifest, entry: PartEntry, text: str) -> WorkedPart | None:
    """A part's text run by itself, None while it has no stitches. Pieces of other parts count for nothing."""
    return first_worked(checked_text(text, manifest.terms, yarn_names(manifest), entry.colour or MAIN_COLOUR))


def version_etag(version: int) -> str:
    """The tag of a text that has no draft."""
    return f"v{version}"


def seats_of(page: AssemblyPage, worked: Mapping[str, WorkedPart]) -> tuple[Seat, ...]:
    """Places of parts on parts as the rounds are now, from the steps that give them."""
    found: list[Seat] = []
    for step in page.steps:
        now = step_now(step, worked)
        if step.part and step.on and now is not None and step.part != step.on:
            host = len(shown_rounds(worked[step.on])[0]) if step.on in worked else 1
            leg = step.part in worked and swings_when_sitting(
                worked[step.part].name or "", step.seat, now.round / max(host, 1)
            )
            found.append(
                Seat(
                    step.part,
                    step.on,
                    now.round,
                    now.stitch,
                    step.paired,
                    step.tilt,
                    step.turn,
                    laid=step.seat == "laid",
                    swings=leg and page.posture == "sitting",
                )
            )
    return tuple(found)


def _piece_names(worked: WorkedPart) -> set[str | None]:
    """Names of the parts that a part works in; copies are numbered behind the name."""
    names = worked.graph.pieces
    return {*names, *(re.sub(r" \d+$", "", name) for name in names)}


def made_alone(worked: Mapping[str, WorkedPart]) -> dict[str, WorkedPart]:
    """Parts that are pieces of their own, not worked into another."""
    inside = {name for w in worked.values() for name in _piece_names(w)}
    return {key: w for key, w in worked.items() if w.name not in inside}


def figure_of(parts: list[ReadPart], manifest: Manifest) -> tuple[Mapping[str, Body], tuple[Placed, ...]]:
    """Bodies of all parts that have rounds, and every piece in its place, by the estimate.

    An estimated body shows no limbs that are worked in, so they are placed like sewn ones.
    """
    gauge = gauge_of(manifest.gauge)
    worked = worked_parts(parts)
    bodies = {key: body_of(w, gauge, firmness=manifest.gauge.firmness) for key, w in worked.items()}
    makes = {p.key: p.make for p in parts}
    return bodies, place(bodies, makes, seats_of(manifest.assembly, worked))


def worked_parts(parts: list[ReadPart]) -> dict[str, WorkedPart]:
    """Parts that have rounds, as run, by key."""
    return {p.key: w for p in parts if (w := p.worked) is not None}
