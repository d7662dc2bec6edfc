"""A stored design as the craft's one value, with what the screens need to know of each part's text."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from craft.design.design import Design as DesignValue
from craft.design.design import Source
from craft.design.parts import Part
from craft.design.running import RunPart, checked_text, first_worked, run_parts
from craft.fitting.panels import recipe_of
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from studio.designs.manifest import Manifest, PartEntry
from studio.designs.models import Design, PartVersion, Revision
from studio.designs.values import own_hook_value, value_of, yarn_value


@dataclass(frozen=True, slots=True)
class StoredText:
    """A part's text as last saved. tag: to name when it is typed over. recipe: as stored."""

    entry: PartEntry
    text: str
    tag: str
    recipe: dict[str, Any] | None
    drafted: bool

    @property
    def part(self) -> Part:
        """The part as the craft's value."""
        e, recipe = self.entry, None if self.recipe is None else recipe_of(self.recipe)
        own = own_hook_value(e.own_hook)
        return Part(e.key, e.name, self.text, e.make, e.colour, recipe, self.drafted, own)


Versions = Mapping[int, PartVersion]


def versions_of(designs: Iterable[Design]) -> Versions:
    """The versions that the shown revisions of designs name, looked up at once."""
    return PartVersion.objects.in_bulk([part.version for design in designs for part in design.manifest.parts])


def stored_texts(design: Design, versions: Versions | None = None) -> tuple[StoredText, ...]:
    """Every part of the shown revision, with what was typed since its last version. versions: where they are known."""
    entries = design.manifest.parts
    versions = versions_of([design]) if versions is None else versions
    texts = {d.part_key: d for d in design.typed_texts.all()}
    found = []
    for entry in entries:
        version, typed = versions[entry.version], texts.get(entry.key)
        text = typed.text if typed else version.text
        drafted = version.recipe is not None and not version.hand_edited and text == version.text
        tag = typed.etag if typed else version_tag(entry.version)
        found.append(StoredText(entry, text, tag, version.recipe, drafted))
    return tuple(found)


def _sources(design: Design) -> tuple[Source, ...]:
    base = design.manifest.base
    if not design.origin_name or (base is not None and base.worn is not None):
        return ()  # what was made alone notes its figure itself, with the version and the parts
    return (Source(design.origin_name, own=True),)


def design_value(design: Design) -> DesignValue:
    """The shown revision as one value, with what was typed since."""
    return value_of(design.manifest, (t.part for t in stored_texts(design)), _sources(design))


def noted_value(design: Design) -> DesignValue:
    """The same with the sources that were noted alone, without the design that it was copied from."""
    return value_of(design.manifest, (t.part for t in stored_texts(design)))


def revision_value(revision: Revision) -> DesignValue:
    """A revision as one value, as it was recorded."""
    manifest = revision.manifest
    versions = PartVersion.objects.in_bulk([p.version for p in manifest.parts])
    parts = (
        StoredText(e, v.text, version_tag(e.version), v.recipe, v.recipe is not None and not v.hand_edited).part
        for e in manifest.parts
        if (v := versions[e.version])
    )
    return value_of(manifest, parts)


@dataclass(frozen=True)
class ReadDesign:
    """A stored design read and run."""

    value: DesignValue
    texts: tuple[StoredText, ...]
    parts: tuple[RunPart, ...]

    @property
    def faults(self) -> int:
        """How many faults its parts have together."""
        return sum(p.faults for p in self.parts)


def read_design(design: Design, versions: Versions | None = None) -> ReadDesign:
    """The shown revision as a value, read and run. versions: where they are known."""
    texts = stored_texts(design, versions)
    value = value_of(design.manifest, (t.part for t in texts), _sources(design))
    return ReadDesign(value, texts, run_parts(value))


def yarn_names(manifest: Manifest) -> tuple[str, ...]:
    """Colours that rounds may name."""
    names = tuple(yarn_value(y).name for y in manifest.gauge.yarns)
    return (*names, MAIN_COLOUR) if names else ()


def read_text(manifest: Manifest, entry: PartEntry, text: str) -> WorkedPart | None:
    """A part's text run by itself, None while it has no stitches. Pieces of other parts count for nothing."""
    return first_worked(checked_text(text, manifest.terms, yarn_names(manifest), entry.colour or MAIN_COLOUR))


def worked_of(parts: Mapping[str, RunPart]) -> dict[str, WorkedPart]:
    """Parts that have rounds, as run, by key."""
    return {key: w for key, p in parts.items() if (w := p.worked) is not None}


def version_tag(version: int) -> str:
    """The tag of a text that nothing was typed over."""
    return f"v{version}"
