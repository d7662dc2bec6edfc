"""A written pattern as a design: its parts, and what it says beside its rounds, each where it belongs."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from craft.design.design import MOST_STEPS, Brief, Design, EyeKind, Eyes, Printed, Step
from craft.design.parts import (
    MOST_MAKE,
    MOST_NAME,
    MOST_STRANDS_HELD,
    DesignYarn,
    GaugeFrom,
    GaugeInForce,
    OwnHook,
    Part,
)
from craft.design.written import UNTITLED, own_lines
from craft.errors import CraftError
from craft.rounds.fabric import MAIN_COLOUR
from craft.rounds.stitches import Terms
from craft.text.check import Checked
from craft.text.exchange import converted
from craft.text.freehand import Taken
from craft.text.sourced import SourceLine, source_lines

MOST_PROSE, MOST_LINE, MOST_TITLE = 5_000, 500, 60
"""Code points of a page of prose, of a step or a line of notions, and of a design's name."""

_LANDING = frozenset({
    Taken.TITLE, Taken.MATERIALS, Taken.GAUGE, Taken.ABBREVIATIONS, Taken.ASSEMBLY, Taken.SAFETY, Taken.PERMISSIONS,
    Taken.CREDITS, Taken.NOTHING,
})  # fmt: skip
"""What leaves its part for a stop of its own."""


def design_of(checked: Checked, text: str, name: str = "") -> Design:
    """What a written pattern says, as a design: its parts with their own lines, its terms, name, yarns, hook, gauge,
    eyes, steps, notions, safety, permissions and credits.

    name: what it is called where the text does not say. Places of parts come from nowhere but a design.
    """
    pattern = checked.reading.pattern
    lines = source_lines(text, checked)
    said = _Said(lines, _before_parts(lines))
    steps = said.steps()
    left = tuple(f"{s}" for s in said.words(Taken.ASSEMBLY)[MOST_STEPS:])
    return Design(
        _plain(pattern.entry("name") or said.title() or name or UNTITLED)[:MOST_TITLE].strip(),
        pattern.terms,
        gauge=said.gauge(),
        yarns=_yarns(pattern.entry("yarn") or "", checked),
        parts=parts_of(checked, text, lines),
        eyes=said.eyes(),
        steps=steps,
        brief=said.brief(left),
        printed=said.printed(),
    )


def parts_of(checked: Checked, text: str, lines: Sequence[SourceLine] = ()) -> tuple[Part, ...]:
    """The parts of a written pattern that have rounds, without the lines that belong to stops of their own."""
    elsewhere = [(s.span.start, s.span.end) for s in lines if s.taken in _LANDING]
    found = []
    for at, (part, worked) in enumerate(zip(checked.reading.pattern.parts, checked.parts, strict=True)):
        if worked.rounds:
            own, hook = _without_hook(own_lines(checked, text, part, elsewhere))
            name = _plain(part.name or f"Part {at + 1}")
            found.append(Part(_key(at, part.name or ""), name, own, min(part.make, MOST_MAKE), own_hook=hook))
    return tuple(found)


def _without_hook(text: str) -> tuple[str, OwnHook | None]:
    """A part's lines without the one that says a hook of its own, and that hook."""
    said = _OWN_HOOK.search(text)
    if said is None or not 0.5 <= _number(said["mm"]) <= 25:
        return text, None
    strands = min(int(said["strands"] or 1), MOST_STRANDS_HELD)
    return text.replace(said[0], "", 1), OwnHook(_number(said["mm"]), max(strands, 1))


def parts_in_terms(parts: Sequence[Part], used: Terms, wanted: Terms) -> tuple[Part, ...]:
    """Parts of a text written in `used` with the same meaning in `wanted`. CraftError names the part that is unclear."""
    turned = []
    for part in parts:
        try:
            turned.append(replace(part, text=converted(part.text, used, wanted)))
        except CraftError as error:
            raise CraftError(f"{part.name}: {error.message}") from None
    return tuple(turned)


def _key(at: int, name: str) -> str:
    return hashlib.sha256(f"{at} {name}".encode()).hexdigest()[:8]


def _plain(name: str) -> str:
    """A name as one printable line."""
    return "".join(c if c.isprintable() else " " for c in name).strip()[:MOST_NAME].strip() or UNTITLED


def _before_parts(lines: Sequence[SourceLine]) -> int:
    """How many lines stand before the first heading or round."""
    return next((at for at, s in enumerate(lines) if s.taken in (Taken.PART, Taken.ROUND)), len(lines))


# --- yarns -------------------------------------------------------------------------------------

_COLOURS = ("#a9744f", "#77834b", "#e3cda4", "#5b5470", "#b5453f", "#8a9aa0")


def _yarns(said: str, checked: Checked) -> tuple[DesignYarn, ...]:
    """The yarns of the head block, else the colours that the rounds name."""
    listed = [n for n in re.split(r"[,;]", said) if n.strip()]
    worked = [c for part in checked.parts for c in part.graph.colours if c != MAIN_COLOUR] if not listed else []
    names = list(dict.fromkeys(_plain(n) for n in [*listed, *worked]))
    return tuple(DesignYarn(name, _COLOURS[at % len(_COLOURS)], 3) for at, name in enumerate(names[:12]))


# --- what is said beside the rounds -----------------------------------------------------------------

_MM = r"(\d{1,2}(?:[.,]\d{1,2})?)\s*-?\s*mm"
_OWN_HOOK = re.compile(
    r"(?im)^\W*(?:hook\s+for\s+this\s+part|häkelnadel\s+für\s+dieses\s+teil|crochet\s+pour\s+cette\s+pièce|ganchillo\s+para\s+esta"
    r"\s+pieza|uncinetto\s+per\s+questa\s+parte|haaknaald\s+voor\s+dit\s+deel)\s*:\s*(?P<mm>\d{1,2}(?:[.,]\d{1,2})?)\s*mm[^\n,]*"
    r"(?:,\s*(?P<strands>\d)\b[^\n]*)?\n?"
)
"""What a booklet says in front of a part's rounds, in every language that one is printed in."""

_HOOKS = r"(?:hook|häkelnadel|nadel|crochet|aguja|ganchillo|gancho|uncinetto|haaknaald)"
_HOOK = re.compile(rf"(?i){_MM}[^.,;]{{0,20}}?\b{_HOOKS}|{_HOOKS}\b[^.,;]{{0,30}}?{_MM}")
_EYE_WORDS = r"(?:eyes?|augen|sicherheitsaugen|yeux|ojos|occhi|ogen)"
_EYES = re.compile(rf"(?i){_MM}(?:\s+[^\W\d_]+){{0,3}}?\s+{_EYE_WORDS}\b|\b{_EYE_WORDS}\b[^.;\d]{{0,25}}?{_MM}")
_STITCHES = r"(?:sts?|stitches|sc|dc|maschen|fm|mailles|ms|puntos|maglie|steken|v)"
_ROWS = r"(?:rounds?|rows?|rnds?|runden|reihen|tours?|rangs?|vueltas|giri|righe|toeren|rijen)"
_GAUGE = re.compile(
    rf"(?i)(\d{{1,3}})\s*{_STITCHES}\b\.?\s*(?:x|×|and|und|et|y|e|en|by|,|&|\+|-|–)\s*(\d{{1,3}})\s*{_ROWS}\b.{{0,25}}?"
    r"(\d{1,2}(?:[.,]\d{1,2})?)\s*(?:x\s*(\d{1,2}(?:[.,]\d{1,2})?)\s*)?(cm|mm|in\b|inch|\")"
)
_MM_IN = {"cm": 10.0, "mm": 1.0}
_LEAD = re.compile(r"^\s*[#*_>•·\-–—\s]*")


def _number(said: str) -> float:
    return float(said.replace(",", "."))


@dataclass(frozen=True, slots=True)
class _Said:
    """The lines of a text, and how many of them stand before its parts."""

    lines: Sequence[SourceLine]
    before: int

    def words(self, taken: Taken) -> list[str]:
        """The lines of a section without its heading's marks; one that is nothing but a heading is left out."""
        return [t for s in self.lines if s.taken is taken and (t := _LEAD.sub("", s.text).strip())]

    def title(self) -> str:
        found = self.words(Taken.TITLE)
        return re.sub(r"(?i)^(?:name|title)\s*:\s*|[*_#=~]+$", "", found[0]).strip() if found else ""

    def gauge(self) -> GaugeInForce:
        """Hook and gauge, where the text says them in numbers: so many stitches and rounds on so many centimetres."""
        hook = _first(_HOOK, self.words(Taken.MATERIALS) + self.words(Taken.GAUGE))
        found = GaugeInForce(hook_mm=_number(hook) if hook and 0.5 <= _number(hook) <= 25 else None)
        for line in self.words(Taken.GAUGE):
            if m := _GAUGE.search(line):
                unit = _MM_IN.get(m.group(5).lower(), 25.4)
                wide, high = _number(m.group(3)) * unit, _number(m.group(4) or m.group(3)) * unit
                stitch, row = round(wide / int(m.group(1)), 2), round(high / int(m.group(2)), 2)
                if 0.5 <= stitch <= 60 and 0.5 <= row <= 60:
                    return replace(found, source=GaugeFrom.OWN, stitch_mm=stitch, round_mm=row)
        return found

    def eyes(self) -> Eyes:
        """What eyes are listed: safety eyes of a size, or none said."""
        mm = _first(_EYES, self.words(Taken.MATERIALS))
        return Eyes(EyeKind.SAFETY, _number(mm)) if mm and 0 < _number(mm) <= 60 else Eyes()

    def steps(self) -> tuple[Step, ...]:
        """The steps of putting together, a line each; a long one is told in several."""
        found: list[str] = []
        for line in self.words(Taken.ASSEMBLY)[:MOST_STEPS]:
            found += _pieces(re.sub(r"^\d{1,2}[.)]\s+", "", line), MOST_LINE)
        only_heading = found[:1] and not re.search(r"[\s.]", found[0].strip(" :"))
        told = found[1:] if only_heading else found
        return tuple(Step(_key(at, text), text) for at, text in enumerate(told[:MOST_STEPS]))

    def brief(self, left: Sequence[str]) -> Brief:
        """The words before the parts, and for her own desk what no page has a place for."""
        told = (Taken.NOTE, Taken.DIRECTION)
        before = [
            s.text
            for s in self.lines[: self.before]
            if s.taken in told or (s.taken is Taken.MATERIALS and _is_prose(s.text))
        ]
        later = [s.text for s in self.lines[self.before :] if s.taken is Taken.MATERIALS and _is_prose(s.text)]
        notes = [*later, *self.words(Taken.ABBREVIATIONS), *self.words(Taken.GAUGE), *self.words(Taken.TITLE)[1:]]
        intro, over = _page(before)
        desk, _ = _page([*notes, *self._materials()[1], *over, *left])
        return Brief(intro=intro, notes=desk)

    def printed(self) -> Printed:
        """What the booklet says beside the rounds, in the text's own words."""
        return Printed(
            notions=tuple(self._materials()[0]),
            permissions=_page(self.words(Taken.PERMISSIONS))[0],
            credits=_page(self.words(Taken.CREDITS))[0],
            notes=_page(self.words(Taken.SAFETY))[0],
        )

    def _materials(self) -> tuple[list[str], list[str]]:
        """The materials that the booklet's list has room for, and the others."""
        lists = [w for w in self.words(Taken.MATERIALS) if not _is_heading(w) and not _is_prose(w)]
        items = [i.strip() for w in lists for i in w.split(",") if i.strip()]
        kept: list[str] = []
        while items and sum(len(k) + 2 for k in kept) + len(items[0]) <= MOST_LINE:
            kept.append(items.pop(0))
        return kept, [", ".join(items)] if items else []


def _is_heading(line: str) -> bool:
    """A section's heading and nothing else."""
    return re.fullmatch(r"[^\W\d_][\w' ]{0,25}:?", line) is not None and (line.isupper() or line.endswith(":"))


def _is_prose(line: str) -> bool:
    """Several sentences, which are no list."""
    return re.search(r"[.!?]\s+[A-ZÀ-Ý]", line) is not None


def _first(words: re.Pattern[str], lines: Iterable[str]) -> str | None:
    for line in lines:
        if m := words.search(line):
            return m.group(1) or m.group(2)
    return None


def _pieces(text: str, most: int) -> list[str]:
    """A text in pieces of at most `most` code points, parted between words."""
    out: list[str] = []
    while len(text) > most:
        at = text.rfind(". ", 0, most) + 1 or text.rfind(" ", 0, most) or most
        out.append(text[:at].strip())
        text = text[at:].strip()
    return [*out, text] if text else out


def _page(lines: Sequence[str]) -> tuple[str, list[str]]:
    """Lines as a page of prose, and those that found no room on it."""
    for many in range(len(lines), -1, -1):
        page = "\n".join(lines[:many])
        if len(page) <= MOST_PROSE:
            return page, list(lines[many:])
    return "", list(lines)
