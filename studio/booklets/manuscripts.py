"""A stored design as the document of its booklet, in the edition that is asked for."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import date

from django.contrib.auth.models import User
from django.utils import timezone

from craft.design.design import Design as DesignValue
from craft.design.grading import Sized, at_size, first_size, names_of, sized_design
from craft.design.mirrored import mirrored
from craft.design.running import RunPart, run_parts
from craft.design.size import Size, SizeKind
from craft.document.booklet import (
    Document,
    Explained,
    Imprint,
    Level,
    Observed,
    TheBase,
    at_level,
    compose,
    edition_as_difference,
    edition_for_all,
    edition_of,
    explained_less,
    manuscript_of,
)
from craft.document.templates import SHEETS, sheets_of, svg_of, templates_of
from craft.errors import CraftError
from craft.rounds.stitches import Language, Terms
from craft.text.catalogue import Words
from studio.accounts.policy import own_profile
from studio.bases.reading import published_base
from studio.bench.portraits import drawn, pictured
from studio.bench.scenes import staged_value
from studio.booklets.album import photos_of
from studio.designs.manifest import Photo, Translation
from studio.designs.models import Design
from studio.designs.reading import design_value
from studio.errors import Refusal
from studio.sizes.swatches import size_for

AS_IT_IS, FOR_ALL, DIFFERENCE = "as-it-is", "all", "difference"
"""Editions beside those of one size, which are asked for by the size's key."""


@dataclass(frozen=True)
class Original:
    """All that a design's booklets are made of. value: with its sizes by the samples she has. base: what a difference is
    printed from, with how a maker finds it; None for a design without one. release, digest, on: of a release; a draft has
    none and the day of today."""

    design: Design
    value: DesignValue
    designer: str
    photos: tuple[Photo, ...]
    translations: tuple[Translation, ...]
    base: tuple[DesignValue, TheBase] | None
    on: date
    release: int | None = None
    digest: str = ""

    def imprint(self, edition: Edition) -> Imprint:
        """What stands on the pages of an edition beside the pattern."""
        told = {
            t.source: t.text for t in self.translations if edition.language and t.language == edition.language.value
        }
        day = self.on.isoformat()
        return Imprint(
            self.designer, edition.terms, day, self.release, self.digest, edition.language, told, edition.left
        )


@dataclass(frozen=True)
class Booklet:
    """A booklet with the figure that its pictures show. date: the one that stands in it. photos: that stand in it. left: its
    pictures are mirrored."""

    document: Document
    value: DesignValue
    date: date
    photos: tuple[Photo, ...]
    left: bool = False

    def templates(self, user: User, paper: str) -> list[str]:
        """Its templates on pages in true size, as SVG; none for a paper that they do not fit."""
        if paper not in SHEETS:
            return []
        value = mirrored(self.value) if self.left else self.value
        surfaces = staged_value(user, self.value, ask=False).assembled.lying
        found = templates_of(value, run_parts(value), surfaces)
        words = self.document.words
        return [svg_of(s, self.document.title, self.document.stamp, words) for s in sheets_of(found, paper, words)]


@dataclass(frozen=True, slots=True)
class Edition:
    """What of a design is printed, and how: which size, in whose terms, with how many pictures, in which language (None for
    English), explaining how much, for the left hand or not."""

    key: str = AS_IT_IS
    terms: Terms = Terms.US
    level: Level = Level.ALL
    language: Language | None = None
    explained: Explained = Explained.FULL
    left: bool = False


def original(user: User, design: Design) -> Original:
    """A design as it is now, as what its booklets are made of."""
    manifest = design.manifest
    sizes = tuple(size_for(user, e) for e in manifest.sizes.sizes)
    value = replace(design_value(design), sizes=sizes)
    page, designer = manifest.booklet, own_profile(user).studio
    return Original(
        design, value, designer, tuple(page.photos), tuple(page.translations), _base(user, design), timezone.localdate()
    )


def _base(user: User, design: Design) -> tuple[DesignValue, TheBase] | None:
    if design.manifest.base is None:
        return None
    try:
        return published_base(user, design)
    except Refusal:
        return None


def booklet(user: User, design: Design, edition: Edition) -> Booklet:
    """The booklet of a design as it is now. CraftError when there is no such size, or when it cannot be made."""
    return booklet_of(user, original(user, design), edition)


def booklet_of(user: User, source: Original, edition: Edition) -> Booklet:
    """A booklet of an original. CraftError when there is no such size, or when it cannot be made."""
    parts = run_parts(source.value)
    document, value = _composed(user, source, parts, edition)
    document = explained_less(document, edition.explained, Words(edition.language))
    return Booklet(at_level(document, edition.level), value, source.on, source.photos, edition.left)


def figure_of(source: Original, key: str) -> DesignValue:
    """The figure that the pictures of an edition show, without its booklet. CraftError when there is no such size."""
    if key in (AS_IT_IS, FOR_ALL, DIFFERENCE):
        return source.value
    return sized_design(_at(first_size(source.value, run_parts(source.value)), key))


def _composed(
    user: User, source: Original, parts: tuple[RunPart, ...], edition: Edition
) -> tuple[Document, DesignValue]:
    imprint, value = source.imprint(edition), source.value
    if edition.explained is Explained.COUNTS:
        value = replace(value, printed=replace(value.printed, count_table=True))
    if edition.key == AS_IT_IS:
        return compose(manuscript_of(value, parts, imprint, observed(user, source, value))), value
    if edition.key == DIFFERENCE:
        base, named = source.base or published_base(user, source.design)  # which says why there is none
        return edition_as_difference(base, value, named, imprint), value
    first = first_size(value, parts)
    if edition.key != FOR_ALL:
        sized = _at(first, edition.key)
        graded = sized_design(sized)
        return edition_of(sized, imprint, observed(user, source, graded)), graded
    sizes = tuple(s for s in value.sizes if s.kind is not SizeKind.YARN)
    if not sizes:
        raise CraftError("There is no other size in the design's own yarn: add one at Sizes.", field="edition")
    return edition_for_all([first, *(at_size(first, s) for s in sizes)], names_of(sizes), imprint), value


def _at(first: Sized, key: str) -> Sized:
    size: Size | None = next((s for s in first.design.sizes if s.key == key), None)
    if size is None:
        raise CraftError("This size is gone: choose another edition.", field="edition")
    return at_size(first, size)


def observed(user: User, source: Original, value: DesignValue) -> Observed:
    """What is known of a figure beside its design: its size once all of it is settled and put together, her photographs,
    what she says still blocks a release."""
    found = staged_value(user, value, ask=False).assembled
    size = found.size_mm if found.whole and found.joined else None
    blockers = source.design.manifest.proving.blockers.splitlines()
    photos = photos_of(source.design, source.photos)
    return Observed(size, photos, tuple(b.strip() for b in blockers if b.strip()), found.lying)


def cover(user: User, made: Booklet, *, low_ink: bool = False) -> str:
    """The figure on the cover, as a data URL: painted, or for little ink drawn in lines."""
    return (drawn if low_ink else pictured)(user, made.value, made.document.title).url
