"""Composes the booklet: everything a maker needs, in the order in which she needs it."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from craft.document.booklet.document import (
    Block,
    Bullets,
    Cautions,
    CountTable,
    Document,
    Facts,
    Paragraph,
    RoundLine,
    Rounds,
    Section,
    Steps,
)
from craft.figure.materials import ColourUse
from craft.gauge import Estimate, Gauge
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import (
    Chain,
    Cluster,
    Colour,
    Instruction,
    Item,
    Note,
    Part,
    Repeat,
    Round,
    Same,
    Spur,
    Start,
    StartKind,
    Step,
    Way,
    Work,
)
from craft.rounds.pattern import Section as Heading
from craft.rounds.stitches import STITCHES, Loops, Terms
from craft.text.exchange import InTerms
from craft.text.notation import print_item, print_label, print_work
from craft.units import cm, inches
from craft.yarn import hook_name, weight_class


@dataclass(frozen=True, slots=True)
class YarnLine:
    """A yarn of the list: colour name, weight class, strands, what is needed and how many skeins."""

    name: str
    weight: int | None
    strands: int
    use: ColourUse | None
    skeins: int | None


@dataclass(frozen=True, slots=True)
class PartLine:
    """A part as the booklet prints it: written, run, and its own words where it was typed.

    said: None where there is nothing but the written value.
    """

    part: Part
    worked: WorkedPart
    said: InTerms | None = None


@dataclass(frozen=True, slots=True)
class AssemblyLine:
    """A step of putting together. before_closing: of the part it names, must come before it is closed."""

    text: str
    part: str = ""
    place: str = ""
    before_closing: bool = False


@dataclass(frozen=True, slots=True)
class Manuscript:
    """Everything the booklet is composed of.

    audience: 'under-three', 'play' or 'display'. size: height and width as estimates in mm, with
    the pose in `size_of`. count_table: print it. ticks belong to the page, not to the text. private: why it is for the
    maker's own use alone.
    """

    title: str
    designer: str
    version: str
    date: str
    terms: Terms
    level: str
    audience: str
    intro: str
    parts: tuple[PartLine, ...]
    gauge: Gauge
    hook_mm: float | None
    yarns: tuple[YarnLine, ...]
    filling: Estimate
    height: Estimate | None
    width: Estimate | None
    size_of: str
    eyes: str
    notions: tuple[str, ...]
    assembly: tuple[AssemblyLine, ...]
    permissions: str
    credits: str
    changes: tuple[str, ...] = ()
    count_table: bool = False
    notes: tuple[str, ...] = field(default=())
    private: tuple[str, ...] = field(default=())


MEASURED = 0.05
"""Spread up to which a gauge was measured and not estimated."""


def _range(e: Estimate, unit: str, per: float = 1.0) -> str:
    return f"about {e.value / per:.0f} {unit} ({e.low / per:.0f} to {e.high / per:.0f})"


def _size(m: Manuscript) -> Iterator[tuple[str, str]]:
    if m.height is not None and m.width is not None:
        pose = f" {m.size_of}" if m.size_of else ""
        yield (
            "Finished size",
            f"about {cm(m.height.value)} / {inches(m.height.value)} tall{pose}, "
            f"{cm(m.width.value)} / {inches(m.width.value)} wide; {_basis(m.gauge)}",
        )


def _basis(gauge: Gauge) -> str:
    """Where sizes come from, in words for a maker: how they were reckoned stays on the designer's desk."""
    if gauge.spread <= MEASURED:
        return "as measured on the designer's own piece"
    return f"an estimate, give or take {gauge.spread:.0%}"


def _yarn(line: YarnLine) -> str:
    weight = f"{weight_class(line.weight).name} ({line.weight})" if line.weight is not None else "weight as you like"
    strands = f", {line.strands} strands together" if line.strands > 1 else ""
    use = f", {_range(line.use.metres, 'm')}" if line.use else ""
    skeins = f", {line.skeins} skein{'s' if line.skeins != 1 else ''}" if line.skeins else ""
    return f"{weight}{strands}{use}{skeins}"


def _materials(m: Manuscript) -> Section:
    rows = [(f"Yarn {y.name}", _yarn(y)) for y in m.yarns]
    if m.hook_mm:
        rows.append(("Hook", hook_name(m.hook_mm)))
    if m.filling.value >= 0.5:
        rows.append(("Filling", _range(m.filling, "g")))
    if m.eyes:
        rows.append(("Eyes", m.eyes))
    rows.append(("Also", ", ".join(m.notions or ("yarn needle", "stitch marker", "scissors"))))
    return Section("materials", "Materials", (Facts(tuple(rows)),))


def _gauge(m: Manuscript) -> Section:
    across, up = 50 / m.gauge.stitch_mm, 50 / m.gauge.round_mm
    word = "Tension" if m.terms is Terms.UK else "Gauge"
    text = (
        f"{across:.0f} stitches and {up:.0f} rounds measure 5 cm / 2 in on a stuffed piece "
        f"({_basis(m.gauge)}). Another yarn and hook give another size; what matters is fabric dense enough to "
        "hide the filling."
    )
    return Section("gauge", word, (Paragraph(text),))


def _used(items: Sequence[Instruction], found: set[str]) -> None:
    for item in items:
        match item:
            case Work():
                found.add(item.stitch)
            case Start():
                found |= {item.stitch, "ring" if item.start is StartKind.RING else "ch"}
            case Same():
                found.add(item.stitch)
            case Chain():
                found.add("ch")
            case Spur():
                found.add("ch")
                _used(item.body, found)
            case Repeat() | Cluster():
                _used(item.body, found)
            case _:
                pass


def _abbreviations(m: Manuscript) -> Section:
    found: set[str] = set()
    loops: set[Loops] = set()
    for line in m.parts:
        for made in line.part.rounds:
            _used(made.body, found)
            loops.add(made.loops)
    found |= {entry.base for key in found if (entry := STITCHES.get(key)) is not None and entry.base}
    rows = [
        (e.name(m.terms), f"{e.called(m.terms)}. {e.explained(m.terms)}") for e in STITCHES.values() if e.key in found
    ]
    rows += [("R", "round"), ("[n]" if m.terms is not Terms.LETTERS else "(n)", "stitches after the round")]
    if "ring" in found:
        rows.append(("ring", "an adjustable loop that is drawn shut once the first round is worked into it"))
    if Loops.BACK in loops:
        rows.append(("BLO", "through the back loops only"))
    if Loops.FRONT in loops:
        rows.append(("FLO", "through the front loops only"))
    names = {Terms.US: "US terms", Terms.UK: "UK terms", Terms.LETTERS: "letter notation"}
    return Section(
        "terms",
        "Terms and notes",
        (Paragraph(f"Written in {names[m.terms]}."), Facts(tuple(rows)), Bullets((*_ways_worked(m.parts), *m.notes))),
    )


_SPIRAL = "in a spiral without joining: mark the first stitch and move the marker up every round"
_JOINED = "in rounds that end in 'join': close each with a slip stitch"
_ROWS = "in rows: turn at the end of each"


def _ways_worked(parts: Sequence[PartLine]) -> tuple[str, ...]:
    """How the parts are worked, by what their rounds do: one sentence where all are alike, else one for each way."""
    by_way: dict[str, list[str]] = {}
    for line in parts:
        for way in _ways_of(line):
            by_way.setdefault(way, []).append(line.part.name or "Part")
    if len(by_way) == 1:
        return tuple(f"{'All parts are' if len(parts) > 1 else 'It is'} worked {way}." for way in by_way)
    return tuple(f"{_listed(names)}: worked {way}." for way, names in by_way.items())


def _ways_of(line: PartLine) -> tuple[str, ...]:
    rows = any(r.way is Way.ROW for r in line.part.rounds)
    joined = any(r.joined for r in line.part.rounds if r.way is Way.ROUND)
    first = next((t.label for t in line.worked.rounds), "")
    spiral = any(r.way is Way.ROUND and not r.joined and r.label != first for r in line.part.rounds) and not rows
    return tuple(way for way, holds in ((_SPIRAL, spiral), (_JOINED, joined), (_ROWS, rows)) if holds)


def _listed(names: Sequence[str]) -> str:
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"


def _work_said(line: PartLine, made: Round, terms: Terms) -> str:
    """A round's work in her own words, where only the stitches' names need to change; else printed anew."""
    if line.said is None or not line.said.possible:
        return print_work(made, terms)
    return line.said.said(made.body_span).strip().rstrip(" ,;:")


def _line(line: PartLine, item: Item, terms: Terms, live: int) -> RoundLine:
    if isinstance(item, Heading):
        return RoundLine("heading", item.name)
    if not isinstance(item, Round):
        kind = {"Step": "step", "Note": "note", "Colour": "colour"}[type(item).__name__]
        return RoundLine(kind, print_item(item, terms))
    if item.way is Way.LINE and item.count is None:
        return RoundLine("line", _work_said(line, item, terms))
    count = f"({live})" if terms is Terms.LETTERS else f"[{live}]"
    word = "rows" if item.way is Way.ROW else "rounds"
    fold = f" ({item.repeats} {word})" if item.repeats > 1 else ""
    label = print_label(item, terms)
    work = _work_said(line, item, terms)
    return RoundLine("round", f"{label}{work} {count}{fold}", label.rstrip(": "), work, count, item.repeats)


def _part(m: Manuscript, line: PartLine) -> Section:
    part, worked = line.part, line.worked
    live_after: dict[int, int] = {}
    for tally in worked.rounds:
        live_after[tally.source] = tally.live
    lines: list[RoundLine] = []
    first = worked.rounds[0].colours[0] if worked.rounds else MAIN_COLOUR
    if len(m.yarns) > 1 and not isinstance(part.items[0] if part.items else None, Colour):
        lines.append(RoundLine("colour", f"With {m.yarns[0].name if first == MAIN_COLOUR else first}"))
    source = -1
    for item in part.items:
        source += isinstance(item, Round)
        lines.append(_line(line, item, m.terms, live_after.get(source, 0)))
    title = f"{part.name or 'Part'} (make {part.make})"
    inside = [a.text for a in m.assembly if a.before_closing and a.part == part.name]
    blocks: list[Block] = []
    if inside:
        blocks.append(Bullets(tuple(f"Before closing: {text}" for text in inside)))
    blocks.append(Rounds(tuple(lines)))
    if m.count_table:
        rows, before = [], 0
        for tally in worked.rounds:
            rows.append((tally.label, tally.live, tally.live - before))
            before = tally.live
        blocks.append(CountTable(tuple(rows)))
    return Section(f"part-{part.name or 'part'}", title, tuple(blocks), 2)


def _assembly(m: Manuscript) -> Section | None:
    if not m.assembly:
        return None
    lines = [
        " ".join(filter(None, (f"{a.part}:" if a.part else "", a.text, f"({a.place})" if a.place else "")))
        + (" Do this before the part is closed." if a.before_closing else "")
        for a in m.assembly
    ]
    return Section("assembly", "Assembly", (Steps(tuple(lines)),))


_HARD = ("eye", "bead", "button", "pellet", "magnet", "snap fastener")


def cautions(m: Manuscript) -> tuple[str, ...]:
    """The cautions that belong to the figure; some are always there."""
    words = " ".join(
        (
            m.eyes,
            *m.notions,
            *(a.text for a in m.assembly),
            *(i.text for line in m.parts for i in line.part.items if isinstance(i, Step | Note)),
        )
    ).lower()
    lines = []
    if any(word in words for word in _HARD) and "embroider" not in m.eyes.lower():
        lines.append(
            "Safety eyes, beads, buttons, snaps, pellets and magnets are small parts and can choke: not for children "
            "under three. Embroider the face instead."
        )
    if m.audience == "under-three":
        lines.append(
            "Made for a child under three: embroider all details, sew every part on firmly, and use nothing "
            "that can come off."
        )
    if "wire" in words or "pipe cleaner" in words:
        lines.append("Wire belongs in display pieces only, never in a child's toy; wrap its ends.")
    if "glue" in words:
        lines.append("Hot glue burns, and glued parts come off: what a child gets is sewn.")
    lines += [
        "Long cords and loops can strangle: keep them short.",
        "Repeated handwork strains wrists and hands: rest and stretch often.",
        "Whoever sells or gives away toys must check the rules that hold there with qualified people, such as EN 71, "
        "ASTM F963, ISO 8124 or 16 CFR 1501. This pattern certifies nothing.",
    ]
    return tuple(lines)


def compose(m: Manuscript) -> Document:
    """The whole booklet of a manuscript."""
    audience = {"under-three": "for a child under three", "play": "to play with", "display": "for display"}
    about = [("Level", m.level.capitalize()), ("Made", audience.get(m.audience, m.audience)), *_size(m)]
    first: list[Block] = [Paragraph(m.intro)] if m.intro else []
    sections: list[Section | None] = [
        Section("private", "For your own use, not to be passed on", (Cautions(m.private),)) if m.private else None,
        Section("about", "About this figure", (*first, Facts(tuple(r for r in about if r[1])))),
        _materials(m),
        _gauge(m),
        _abbreviations(m),
        Section("cautions", "Safety", (Cautions(cautions(m)),)),
        *(_part(m, line) for line in m.parts),
        _assembly(m),
        Section("permissions", "Permissions", (Paragraph(m.permissions),)) if m.permissions else None,
        Section("credits", "Credits", (Paragraph(m.credits),)) if m.credits else None,
        Section("changes", "Changes", (Bullets(m.changes),)) if m.changes else None,
    ]
    stamp = ", ".join(filter(None, (f"Version {m.version}", m.date)))
    return Document(m.title, f"A pattern by {m.designer}", stamp, m.terms.value, tuple(s for s in sections if s))
