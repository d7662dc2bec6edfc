"""A changed value put back into a design's pages: only what the value says otherwise is written anew."""

from __future__ import annotations

from collections.abc import Mapping

from craft.design.design import Design as DesignValue
from craft.design.parts import Part
from craft.fitting.panels import recipe_json
from studio.designs.entries import manifest_of
from studio.designs.manifest import DesignYarn, Manifest, SizeEntry
from studio.designs.models import Design
from studio.designs.recording import new_version

_PAGES: Mapping[str, tuple[str, ...]] = {
    "gauge": ("gauge", "yarns"),
    "brief": ("brief",),
    "assembly": ("joins", "steps", "marks", "eyes", "posture"),
    "sizes": ("sizes",),
    "booklet": ("printed",),
    "sources": ("sources",),
}
"""Pages of a manifest, and the fields of a value that say the same."""


_HERS = ("pictures", "plan", "commission")
"""Fields of the brief that stay in the studio: no design's file carries them."""


def version_of(design: Design, part: Part) -> int:
    """A fresh version of a part's text in a design; its number."""
    recipe = None if part.recipe is None else recipe_json(part.recipe)
    return new_version(design, part.key, part.text, recipe, hand_edited=not part.drafted).pk


def versions_of(design: Design, before: DesignValue, after: DesignValue) -> dict[str, int]:
    """Versions of all texts of `after`, by part: those that the design has where they are the same, else fresh ones."""
    kept = {p.key: p.version for p in design.manifest.parts}
    found = {}
    for part in after.parts:
        old = before.part(part.key)
        same = old is not None and (old.text, old.recipe, old.drafted) == (part.text, part.recipe, part.drafted)
        found[part.key] = kept[part.key] if same and part.key in kept else version_of(design, part)
    return found


def rewritten(manifest: Manifest, before: DesignValue, after: DesignValue, versions: Mapping[str, int]) -> Manifest:
    """The manifest saying what `after` says where that is not what `before` said; all else of its pages stays.

    versions: of the parts' texts, by key. ValidationError for what no page can say.
    """
    fresh = manifest_of(after, versions)
    changes: dict[str, object] = {"name": fresh.name, "terms": fresh.terms, "parts": fresh.parts}
    for page, fields in _PAGES.items():
        if any(getattr(before, f) != getattr(after, f) for f in fields):
            changes[page] = getattr(fresh, page)
    if "sources" in changes:
        # The design that it was copied from stands before those that are noted, where the value names it at all.
        copied = len(before.sources) - len(manifest.sources)
        named = before.sources[:copied] == after.sources[:copied]
        changes["sources"] = fresh.sources[copied if named else 0 :]
    if "gauge" in changes:
        changes["gauge"] = fresh.gauge.model_copy(
            update={
                "yarns": [_known(y, manifest.gauge.yarns) for y in fresh.gauge.yarns],
                "swatch_id": manifest.gauge.swatch_id if before.gauge == after.gauge else None,
            }
        )
    if "brief" in changes:
        changes["brief"] = fresh.brief.model_copy(update={f: getattr(manifest.brief, f) for f in _HERS})
    if "sizes" in changes:
        old = {s.key: s for s in manifest.sizes.sizes}
        sizes = [_size_known(s, old[s.key]) if s.key in old else s for s in fresh.sizes.sizes]
        changes["sizes"] = fresh.sizes.model_copy(update={"sizes": sizes})
    return Manifest.model_validate(manifest.model_copy(update=changes).model_dump())


def _size_known(size: SizeEntry, had: SizeEntry) -> SizeEntry:
    """A size with what only the studio knows of it: its yarns' places in the basket, and another design that it fits."""
    held = (had.yarn, had.second, *(y for r in had.others for y in (r.yarn, r.second)))
    yarns = [y for y in held if y is not None and y.yarn_id is not None]
    others = [
        r.model_copy(update={"yarn": _known(r.yarn, yarns), "second": r.second and _known(r.second, yarns)})
        for r in size.others
    ]
    update = {
        "yarn": size.yarn and _known(size.yarn, yarns),
        "second": size.second and _known(size.second, yarns),
        "others": others,
        "fits_design": had.fits_design if size.fits == had.fits else None,
    }
    return size.model_copy(update=update)


def _known(yarn: DesignYarn, yarns: list[DesignYarn]) -> DesignYarn:
    """A yarn with its place in the basket, where the design had it before."""
    found = next((y for y in yarns if y.model_copy(update={"yarn_id": None}) == yarn), None)
    return found or yarn
