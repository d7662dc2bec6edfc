"""Credits that add up: every source of a figure, and what of their terms does not go together."""

from __future__ import annotations

from dataclasses import dataclass

from craft.design.design import Design, Source
from craft.design.permissions import Permissions, Selling


@dataclass(frozen=True, slots=True)
class Credits:
    """What a figure was made from. conflicts: terms that do not go together. blocked: why it may not be published with
    its rounds; private: why not even as a difference."""

    sources: tuple[Source, ...]
    conflicts: tuple[str, ...]
    blocked: tuple[str, ...]
    private: tuple[str, ...]

    @property
    def lines(self) -> tuple[str, ...]:
        """A line of credit for each source that is somebody else's, and for earlier work of her own."""
        return tuple(credit_line(s) for s in self.sources)


def credit_line(source: Source) -> str:
    """How a source is credited: in its designer's words, else by what it is called."""
    if source.permissions is not None and source.permissions.credit:
        return source.permissions.credit
    what = f"{' and '.join(source.parts)} worked from" if source.parts else "Worked from"
    return f"{what} {source.called}."


def credits_of(design: Design) -> Credits:
    """All sources of a design, each once, and what their terms come to together."""
    sources = _once(design.sources)
    others = [s for s in sources if not s.own]
    known = [(s, s.permissions) for s in others if s.permissions is not None]
    return Credits(sources, tuple(_conflicts(known, design)), tuple(_blocked(others)), tuple(_private(others)))


def _once(sources: tuple[Source, ...]) -> tuple[Source, ...]:
    """Sources of one piece as one, with all that came of it."""
    found: dict[tuple[str, str, str], Source] = {}
    for s in sources:
        key = s.title, s.designer, s.version
        if key not in found:
            found[key] = s
            continue
        old = found[key]
        parts = tuple(dict.fromkeys((*old.parts, *s.parts))) if old.parts and s.parts else ()
        found[key] = Source(
            s.title, s.designer, s.version, s.terms or old.terms, s.permissions or old.permissions, parts, s.own
        )
    return tuple(found.values())


def _conflicts(known: list[tuple[Source, Permissions]], design: Design) -> list[str]:
    said = []
    forbids = [s for s, p in known if p.selling is Selling.NO]
    allows = [s for s, p in known if p.selling in (Selling.YES, Selling.CREDITED) and p.alike]
    said += [
        f"{a.called} is passed on under terms that let makes be sold; {b.called} forbids it."
        for a in allows
        for b in forbids
    ]
    alike = [(s, p) for s, p in known if p.alike]
    said += [
        f"{a.called} and {b.called} both ask to be passed on under their own terms, which differ."
        for n, (a, p) in enumerate(alike)
        for b, q in alike[n + 1 :]
        if _terms(p) != _terms(q)
    ]
    sells = "sell" in design.printed.permissions.lower() and "not sell" not in design.printed.permissions.lower()
    if sells:
        said += [f"Your booklet speaks of selling what is made; {s.called} forbids it." for s in forbids]
        asks = [s for s, p in known if p.selling is Selling.ASK]
        said += [f"Your booklet speaks of selling what is made; {s.called} wants to be asked first." for s in asks]
    return said


def _terms(p: Permissions) -> tuple[object, ...]:
    return p.change, p.selling, p.rounds, p.difference


def _blocked(others: list[Source]) -> list[str]:
    """Why the rounds may not be published."""
    said = []
    for s in others:
        if s.permissions is None:
            said.append(f"{s.called}: its terms are not known; ask its designer, or note them.")
        elif not s.permissions.change:
            said.append(f"{s.called} may not be changed.")
        elif not s.permissions.rounds:
            said.append(f"{s.called}: its rounds may not be published again{_hint(s)}.")
    return said


def _hint(source: Source) -> str:
    return "; publish yours as a difference" if source.permissions and source.permissions.difference else ""


def _private(others: list[Source]) -> list[str]:
    """Why not even the difference may be published."""
    said = []
    for s in others:
        if s.permissions is not None and not s.permissions.change:
            said.append(f"{s.called} may not be changed.")
        elif s.permissions is not None and not s.permissions.difference:
            said.append(f"{s.called}: changes to it may not be published.")
    return said
