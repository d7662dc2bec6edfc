"""The same counts in other yarns: one for the figure, and one for each colour role that is worked in another."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from craft.design.grading.report import Feature, State
from craft.design.grading.sized import PartAtSize, Sized
from craft.design.grading.words import lengths_resaid
from craft.design.joins import Manner, meeting
from craft.design.parts import OwnHook
from craft.design.size import RoleYarn, Size
from craft.errors import CraftError
from craft.gauge import Gauge, estimate_together, fabric_outlook
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.pattern import Item, Note, Step
from craft.yarn import HOOKS, held_together

OTHER_FABRIC = 0.05
"""By how large a share stitches of two yarns may differ before that is said where they meet."""


@dataclass(frozen=True, slots=True)
class _Fabric:
    """What a yarn makes on its hook. words: what fabric that is."""

    gauge: Gauge
    hook: OwnHook
    words: str


def in_yarn(first: Sized, size: Size) -> Sized:
    """The same counts in another yarn, parts that begin in a colour role with a yarn of its own in that one; lengths and
    eyes follow the stitch. CraftError while yarn or hook are missing, or where a role has two."""
    if size.yarn is None or size.hook_mm is None:
        raise CraftError("Choose a yarn and a hook for this size.", field="yarn")
    main = RoleYarn("", size.yarn, size.hook_mm, size.strands, size.gauge, size.second)
    found = _fabric(first, main)
    roles = {r.role: r for r in size.others}
    if len(roles) < len(size.others):
        raise CraftError("A colour is worked in one yarn: choose one for each.", field="others")
    fabrics = {name: _fabric(first, role) for name, role in roles.items()}
    bought = (
        {MAIN_COLOUR: size.yarn}
        | {y.name: size.yarn for y in first.design.yarns}
        | {r.role: r.yarn for r in size.others}
    )
    words = [found.words, *(f"{name}: {fabric.words}" for name, fabric in fabrics.items())]
    sized = by_gauge(first, found.gauge, " ".join(words), fabrics)
    rows = (*_roles_gone(first, roles), *_thick_and_thin(sized, fabrics))
    return replace(sized, bought=bought, joined=(*sized.joined, *rows))


def _fabric(first: Sized, role: RoleYarn) -> _Fabric:
    """What a role's yarn makes: by her own sample of it where she has one, else by the estimate."""
    yarn = role.yarn.strands(role.strands)
    other = None if role.second is None else role.second.strands(1)
    found = role.gauge or estimate_together(yarn, other, role.hook_mm)
    yarn = yarn if other is None else held_together(yarn, other)
    lean = first.gauge.lean if role.gauge is None else found.lean
    words = fabric_outlook(yarn, role.hook_mm).words
    if role.second is not None:
        words = f"{words} As many metres of {role.second.name} as of {role.yarn.name}, worked together."
    return _Fabric(replace(found, lean=lean), OwnHook(role.hook_mm, role.strands), words)


def by_gauge(
    first: Sized, gauge: Gauge, fabric: str | None = None, roles: Mapping[str, _Fabric] | None = None
) -> Sized:
    """The same counts at another gauge: lengths in her sentences and eyes follow the stitch.

    roles: fabrics of the parts that begin in a colour role. A part on a hook of its own keeps its proportion to the rest.
    """
    wider = gauge.stitch_mm / first.gauge.stitch_mm, gauge.round_mm / first.gauge.round_mm
    parts = tuple(_in_its_yarn(first, p, gauge, wider, roles or {}) for p in first.parts)
    sized = replace(first, gauge=gauge, scale=wider[0], parts=parts, fabric=fabric)
    return replace(sized, joined=tuple(_edges_that_differ(first, sized)))


def _in_its_yarn(
    first: Sized, part: PartAtSize, gauge: Gauge, wider: tuple[float, float], roles: Mapping[str, _Fabric]
) -> PartAtSize:
    role = roles.get(_role_of(first, part))
    if role is not None:
        now, hook = role.gauge, role.hook
    elif part.hook is not None:
        own = part.gauge
        now = replace(gauge, stitch_mm=own.stitch_mm * wider[0], round_mm=own.round_mm * wider[1])
        hook = replace(part.hook, hook_mm=_hook_sold(part.hook.hook_mm * wider[0]), stitch_mm=None, round_mm=None)
    else:
        now, hook = gauge, None
    made = _reworded(part, now.stitch_mm / part.gauge.stitch_mm)
    if role is None and hook is not None and part.hook is not None and hook.hook_mm != part.hook.hook_mm:
        before, after = (f"{h.hook_mm:g} mm hook" for h in (part.hook, hook))
        why = "Its hook keeps its proportion to the figure's."
        row = Feature(part.source.name, "hook", State.MOVED, before, after, why)
        made = replace(made, features=(*made.features, row))
    return replace(made, gauge=now, hook=hook)


def _role_of(first: Sized, part: PartAtSize) -> str:
    """The name of the yarn that a part begins with."""
    yarn = first.design.yarn_of(part.source.key)
    return yarn.name if yarn is not None else MAIN_COLOUR


def _hook_sold(mm: float) -> float:
    return min((sold for sold, _ in HOOKS), key=lambda sold: abs(sold - mm))


def _reworded(part: PartAtSize, scale: float) -> PartAtSize:
    items: list[Item] = []
    rows: list[Feature] = []
    for item in part.written.items:
        if isinstance(item, Step | Note) and (text := lengths_resaid(item.text, scale)) != item.text:
            rows.append(Feature(part.source.name, "words", State.MOVED, item.text, text))
            items.append(replace(item, text=text))
        else:
            items.append(item)
    return replace(part, written=replace(part.written, items=tuple(items)), features=tuple(rows))


def _edges_that_differ(first: Sized, sized: Sized) -> Iterator[Feature]:
    """Edges that are sewn to each other stitch by stitch and are no longer as wide as each other."""
    names = {p.key: p.name for p in first.design.parts}
    for join in first.joins:
        met = meeting(join, first.worked) if join.sewn else None
        if met is None or met.manner is not Manner.EDGE or not met.host:
            continue
        was, now = (_wider(s, join.part, join.host, met.part / met.host) for s in (first, sized))
        if abs(now / was - 1) <= OTHER_FABRIC:
            continue
        name = f"{names.get(join.part, 'Part')} on {names.get(join.host, 'part')}"
        said = [
            f"{abs(x - 1):.0%} {'wider' if x > 1 else 'narrower'}" if abs(x - 1) >= 0.005 else "as wide"
            for x in (was, now)
        ]
        why = "The two edges are of different yarns now: ease one in, or choose hooks that bring them nearer."
        yield Feature(name, "join", State.CHANGED, said[0], said[1], why)


def _wider(sized: Sized, part: str, host: str, counts: float) -> float:
    """How wide a part's edge is over that of its host."""
    return counts * sized.gauge_of(part).stitch_mm / sized.gauge_of(host).stitch_mm


def _roles_gone(first: Sized, roles: Mapping[str, RoleYarn]) -> Iterator[Feature]:
    known = {y.name for y in first.design.yarns}
    for name in roles:
        if name not in known:
            why = "No yarn of the figure is called so any more."
            yield Feature(name, "yarn", State.LOST, name, "", why)


def _thick_and_thin(sized: Sized, fabrics: Mapping[str, _Fabric]) -> Iterator[Feature]:
    """Yarns of another thickness that are worked into a part which begins with another: the part's fabric stays reckoned by
    the yarn that it begins with."""
    for part in sized.parts:
        own = _role_of(sized, part)
        for colour in dict.fromkeys(c for t in part.worked.rounds for c in t.colours):
            name = sized.design.yarns[0].name if colour == MAIN_COLOUR and sized.design.yarns else colour
            other = fabrics.get(name)
            gauge = other.gauge if other is not None else sized.gauge
            off = gauge.stitch_mm / part.gauge.stitch_mm - 1
            if name == own or not {name, own} & set(fabrics) or abs(off) <= OTHER_FABRIC:
                continue
            why = (
                f"Its stitches would be {abs(off):.0%} {'wider' if off > 0 else 'narrower'} on their own; in one fabric "
                "with others that pulls the rounds out of line. The part is reckoned by the yarn that it begins with."
            )
            yield Feature(part.source.name, "yarn", State.CHANGED, f"{name} beside {own}", "two thicknesses", why)
