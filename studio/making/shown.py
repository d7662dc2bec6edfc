"""Makings as they go over the wire."""

from __future__ import annotations

import datetime
from collections.abc import Collection, Iterator, Sequence
from dataclasses import asdict, dataclass, replace
from functools import lru_cache
from uuid import UUID

from django.contrib.auth.models import User
from django.db.models import Count, Max

from craft.design.design import Design as DesignValue
from craft.design.grading import figures_of, first_size
from craft.design.parts import colours_of
from craft.design.running import run_parts
from craft.figure.placement import stages_of
from craft.gauge import Estimate
from craft.making import (
    Deviation,
    Learned,
    Pair,
    Progress,
    Quantity,
    Told,
    Worksheet,
    as_made,
    counts_done,
    deviations,
    fold,
    learned,
    pairs_of,
    sample_of,
    worksheet_json,
)
from craft.making.happenings import Noted, Pictured
from craft.rounds.fabric import MAIN_COLOUR
from studio.bench.previews import estimate
from studio.bench.scenes import staged_value
from studio.designs.models import Design
from studio.designs.reading import design_value
from studio.jobs.models import State
from studio.making.actions import holds, log_of
from studio.making.editions import figure_value, predicted_size, sheet_of
from studio.making.models import LARGE, Kind, Making, Verdict
from studio.making.schemas import (
    BothFigures,
    DeviationOut,
    LearnedOut,
    MakingFigure,
    MakingOut,
    Makings,
    MakingSummary,
    NoteOut,
    PairOut,
    PartProgress,
    SampleOut,
    SheetOut,
    StagesOut,
)
from studio.making.stages import ask_stages, stages_answered


@dataclass(frozen=True, slots=True)
class Read:
    """A making read: its row, what is worked from, and what its log comes to."""

    making: Making
    sheet: Worksheet
    progress: Progress

    @property
    def deviations(self) -> tuple[Deviation, ...]:
        """What was done otherwise."""
        return deviations(self.sheet, self.progress)

    @property
    def pairs(self) -> tuple[Pair, ...]:
        """What it measured. Lengths of whoever told her own gauge are held against what that gauge would give."""
        told = self.progress.report
        by = (100 / told.across, 100 / told.up) if told and told.across and told.up else None
        return pairs_of(self.sheet, self.progress, self.making.title, measures_by=by)


def read(making: Making) -> Read:
    """A making with its log folded."""
    written = making.events.aggregate(many=Count("pk"), last=Max("pk"))
    return Read(making, sheet_of(making.edition), _folded(making.pk, written["many"], written["last"]))


@lru_cache(maxsize=128)
def _folded(making: UUID, many: int, last: int | None) -> Progress:
    """What a log comes to. many, last: how long it is and the number of its newest row, as rows are only added, or all go."""
    del many, last
    return fold(log_of(making))


def read_all(design: Design) -> list[Read]:
    """All makings of a design."""
    rows = design.makings.select_related("edition").defer(*LARGE).prefetch_related("decisions")
    return [read(m) for m in rows]


def sheet_shown(making: Making) -> SheetOut:
    """What is worked from."""
    data = worksheet_json(sheet_of(making.edition))
    del data["format"]
    sheet: SheetOut = SheetOut.model_validate(data)
    return sheet


def making_shown(making: Making, maker: str = "") -> MakingOut:
    """A making with what is worked from."""
    return MakingOut(
        id=making.pk,
        title=making.title,
        maker=maker,
        kind=Kind(making.kind),
        edition=making.edition.title,
        sheet=sheet_shown(making),
    )


def figure_shown(user: User, making: Making) -> MakingFigure:
    """The parts of a making's edition, those that have settled; once they all have, each is settled on its way, too."""
    value = figure_value(making.edition)
    figure = _drawn(user, value, ask=False)
    if figure.whole:
        jobs = {key: ask_stages(user, value, key) for key in figure.parts}
        figure.open = {key: stages_answered(job) for key, job in jobs.items() if job.state == State.DONE}
        figure.whole = not any(job.state in (State.WAITING, State.RUNNING) for job in jobs.values())
    return figure


def _drawn(user: User, value: DesignValue, *, ask: bool, only: Collection[str] | None = None) -> MakingFigure:
    """Parts by their rounds, those that have settled. ask: have the others settled. only: these parts, None for all."""
    staging = staged_value(user, value, ask=ask)
    palette = colours_of(value.yarns)
    wanted = [key for key in staging.jobs if only is None or key in only]
    skins = {key: skin for key in wanted if (skin := staging.skin(key)) is not None}
    parts = {key: StagesOut.model_validate(asdict(stages_of(skin, palette))) for key, skin in skins.items()}
    return MakingFigure(parts=parts, whole=not staging.under_way and len(parts) == len(wanted) > 0)


def both_figures(user: User, making: Making, *, ask: bool) -> BothFigures:
    """The parts in which something was done otherwise, as they are written and as they were made. ask: have them settled."""
    one = read(making)
    value = figure_value(making.edition)
    by_part = {p.key: [d for d in one.deviations if d.part == p.key] for p in value.parts}
    made = {
        p.key: as_made(p.text, value.terms, one.sheet, by_part[p.key], p.colour or MAIN_COLOUR)
        for p in value.parts
        if by_part[p.key]
    }
    parts = tuple(replace(p, text=made[p.key].text) if p.key in made else p for p in value.parts)
    return BothFigures(
        says=_drawn(user, value, ask=ask, only=made),
        did=_drawn(user, replace(value, parts=parts), ask=ask, only=made),
        left=[line for m in made.values() for line in m.left],
    )


def makings_shown(design: Design) -> Makings:
    """All makings of a design, and what they teach."""
    everyone = read_all(design)
    pairs = [p for r in everyone for p in r.pairs]
    estimates, printed = (_estimates(design), _printed(design)) if pairs else ({}, {})
    value_sizes = [(s.key, s.name) for s in design.manifest.sizes.sizes]
    return Makings(
        makings=[summary(design, r) for r in everyone if r.making.kind != Kind.TESTER],
        learned=[_learned(one, estimates.get(one.quantity), printed.get(one.quantity)) for one in learned(pairs)],
        samples=list(_samples(design, everyone)),
        sizes=value_sizes,
        releases=list(design.releases.values_list("number", flat=True)),
    )


def _estimates(design: Design) -> dict[Quantity, Estimate]:
    """What the design itself predicts of the whole figure, lengths in mm, time in minutes."""
    value = design_value(design)
    parts = run_parts(value)
    if not any(p.worked for p in parts):
        return {}
    found = figures_of(first_size(value, parts))
    return {Quantity.HEIGHT: found.height, Quantity.WIDTH: found.width, Quantity.HOURS: found.hours.times(60)}


def _printed(design: Design) -> dict[Quantity, int]:
    """From how many makings the booklet prints a length; 0 while it prints the estimate, as it does again once the figure is
    another."""
    kept = design_value(design).printed
    if kept.height_made is None and kept.width_made is None:
        return {Quantity.HEIGHT: 0, Quantity.WIDTH: 0}
    sizes = predicted_size(design.owner, design)
    lengths = zip((Quantity.HEIGHT, Quantity.WIDTH), (kept.height_made, kept.width_made), sizes, strict=True)
    return {quantity: made.makers if made is not None and made.holds_for(mm) else 0 for quantity, made, mm in lengths}


def _learned(one: Learned, before: Estimate | None, printed: int | None) -> LearnedOut:
    return LearnedOut(
        quantity=one.quantity,
        pairs=[_pair(p) for p in one.pairs],
        makers=one.makers,
        ratio=one.ratio,
        share=one.share,
        before=estimate(before) if before else None,
        now=estimate(one.narrowed(before)) if before else None,
        printed=printed,
    )


def _pair(pair: Pair) -> PairOut:
    return PairOut(**asdict(pair), ratio=pair.ratio, odd=pair.odd)


def _samples(design: Design, everyone: Sequence[Read]) -> Iterator[SampleOut]:
    """Her own figures of which a length was measured: a tester's hand is not hers."""
    page = design.manifest.gauge
    yarn = page.yarns[0].yarn_id if page.yarns else None
    for one in everyone:
        if one.making.kind == Kind.TESTER:
            continue
        sample = sample_of(one.sheet, one.pairs)
        if sample is not None:
            yield SampleOut(
                **asdict(sample),
                making=one.making.pk,
                title=one.making.title,
                yarn=yarn,
                hook_mm=one.progress.hook_mm or one.sheet.hook_mm,
                stitch_mm=sample.stitch_mm,
                round_mm=sample.round_mm,
            )


def summary(design: Design, one: Read) -> MakingSummary:
    """How a making goes."""
    making, sheet, progress = one.making, one.sheet, one.progress
    verdicts = {
        d.key: Verdict(d.verdict) for d in making.decisions.all() if d.verdict != Verdict.TEXT or holds(design, d)
    }
    parts = list(_parts(sheet, progress, one.deviations))
    at = progress.at
    where = sheet.part(at.part) if at else None
    rung = sheet.rung(at.part, at.done) if at else None
    return MakingSummary(
        id=making.pk,
        title=making.title,
        kind=Kind(making.kind),
        edition=making.edition.title,
        release=making.edition.release,
        begun=making.created,
        last=_moment(progress.last_at) if progress.last_at else None,
        stitches=sheet.stitches,
        done=_stitches_done(sheet, progress),
        finished=progress.finished,
        minutes=progress.minutes,
        pauses=progress.pauses,
        hook_mm=progress.hook_mm,
        skeins=[" ".join(filter(None, (y, t))) for y, t in progress.skeins.items()],
        at=f"{where.name}, after {rung.label}" if where and rung else where.name if where else "",
        parts=parts,
        deviations=[_deviation(sheet, d, verdicts.get(d.key)) for d in one.deviations],
        notes=[*(_note(sheet, t) for t in (*progress.notes, *progress.pictures))],
    )


def _moment(ms: int) -> datetime.datetime:
    return datetime.datetime.fromtimestamp(ms / 1000, datetime.UTC)


def _stitches_done(sheet: Worksheet, progress: Progress) -> int:
    total = 0
    for piece in progress.pieces:
        part = sheet.part(piece.part)
        if part is not None and piece.piece <= part.make:
            total += sum(r.made for r in part.rungs[: piece.done])
    return total


def _parts(sheet: Worksheet, progress: Progress, found: Sequence[Deviation]) -> Iterator[PartProgress]:
    for part in sheet.parts:
        for piece in range(1, part.make + 1):
            own = [d for d in found if piece in d.pieces]
            yield PartProgress(
                part=part.key,
                name=part.name if part.make == 1 else f"{part.name} {piece} of {part.make}",
                piece=piece,
                fill=part.fill,
                counts=[r.count for r in part.rungs],
                labels=[r.label for r in part.rungs],
                done=min(progress.done(part.key, piece), len(part.rungs)),
                did=list(counts_done(sheet, part.key, own)) if any(d.part == part.key for d in own) else [],
            )


def _deviation(sheet: Worksheet, one: Deviation, verdict: Verdict | None) -> DeviationOut:
    part = sheet.part(one.part)
    return DeviationOut(
        key=one.key,
        part=one.part,
        part_name=part.name if part else "",
        round=one.round,
        told=one.told,
        pieces=list(one.pieces),
        verdict=verdict,
    )


def _note(sheet: Worksheet, told: Told) -> NoteOut:
    what = told.event.what
    assert isinstance(what, Noted | Pictured)
    part, rung = sheet.part(told.part), sheet.rung(told.part, told.round)
    place = f"{part.name} {rung.label}" if part and rung else part.name if part else ""
    picture = UUID(what.picture) if isinstance(what, Pictured) else None
    return NoteOut(at=_moment(told.event.at), place=place, text=what.text, picture=picture)
