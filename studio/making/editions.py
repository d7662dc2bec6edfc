"""Editions frozen to be worked from: a release's or a draft's, as a worksheet and as the booklet's page."""

from __future__ import annotations

from django.contrib.auth.models import User

from craft.design.design import Design as DesignValue
from craft.design.grading import figures_of, first_size
from craft.design.parts import colours_of
from craft.design.running import run_parts
from craft.design.stored import from_json, to_json
from craft.document.booklet import Kind, Shown, manuscript_of
from craft.errors import CraftError
from craft.making import Worksheet, worksheet_from, worksheet_json, worksheet_of
from studio.bench.scenes import staged_value
from studio.booklets import album
from studio.booklets.files import book_file
from studio.booklets.manuscripts import AS_IT_IS, Edition, Original, booklet_of, figure_of, observed, original
from studio.booklets.printing import Sheet
from studio.designs.models import Design
from studio.making.models import FrozenEdition
from studio.releases.actions import as_original
from studio.releases.policy import release_of


def source_of(user: User, design: Design, release: int | None) -> Original:
    """What an edition is made of: a release, or the design as it is now."""
    return original(user, design) if release is None else as_original(release_of(design, release))


def freeze(user: User, design: Design, release: int | None, size: str) -> FrozenEdition:
    """An edition as it is now, kept as it is; one that says the same to the letter is not kept twice. size: key of a size, ''
    for the first. CraftError where a part cannot be worked yet."""
    source = source_of(user, design, release)
    key = size or AS_IT_IS
    value = figure_of(source, key)
    sheet = _worksheet(user, source, key, value)
    for known in FrozenEdition.objects.filter(design=design, size=size, release=release).defer("page", "data"):
        if sheet_of(known) == sheet:
            return known
    name = next((s.name for s in source.value.sizes if s.key == size), "") if size else ""
    told = [f"Release {release}" if release is not None else "Draft", *([name] if name else [])]
    return FrozenEdition.objects.create(
        design=design,
        title=f"{', '.join(told)} ({sheet.stamp})"[:160],
        size=size,
        size_name=name,
        release=release,
        sheet=worksheet_json(sheet),
        data=to_json(value),
        page=_page(user, source, key),
    )


def sheet_of(edition: FrozenEdition) -> Worksheet:
    """The worksheet that an edition holds, whatever format it was frozen in."""
    return worksheet_from(edition.sheet)


def _worksheet(user: User, source: Original, key: str, value: DesignValue) -> Worksheet:
    parts = run_parts(value)
    if broken := [p.name for p in parts if p.worked is None or not p.checked.sound]:
        raise CraftError(
            f"{', '.join(broken)} cannot be worked as written: nobody should be the first to find a wrong sum. Mend it at "
            "Rounds, then begin."
        )
    if not any(p.worked and p.worked.rounds for p in parts):
        raise CraftError("There is no round to work yet: draft or write a part first.")
    written = manuscript_of(value, parts, source.imprint(Edition(key, value.terms)), observed(user, source, value))
    hours = figures_of(first_size(value, parts)).hours.value
    return worksheet_of(written, hours=hours, fills=colours_of(value.yarns))


def predicted_size(user: User, design: Design) -> tuple[float, float]:
    """Height and width in mm that a design's booklet predicts now, without what makings taught; 0 where nothing is known."""
    source = source_of(user, design, None)
    value = source.value
    written = manuscript_of(
        value, run_parts(value), source.imprint(Edition(AS_IT_IS, value.terms)), observed(user, source, value)
    )
    return (written.height.value if written.height else 0.0, written.width.value if written.width else 0.0)


def _page(user: User, source: Original, key: str) -> bytes:
    """The booklet to read beside, with those pictures that are there by now."""
    made = booklet_of(user, source, Edition(key, source.value.terms))
    wanted = [Shown.of(p.key) for p in made.document.pictures]
    painted = [s for s in wanted if s.kind is not Kind.PHOTO]
    pictures = album.photographs(source.design, made.photos, wanted)
    for name, png in album.painted_already(user, made.value, painted).items():
        pictures[name] = album.Taken(album.as_jpeg(png))
    return book_file(user, made, "html", pictures, Sheet()).content


def figure_value(edition: FrozenEdition) -> DesignValue:
    """The design that an edition's figure shows, at its size."""
    return from_json(edition.data)


def settle(user: User, edition: FrozenEdition) -> None:
    """Have the parts of an edition settled that are not yet, to be drawn while they are made."""
    staged_value(user, figure_value(edition), ask=True)
