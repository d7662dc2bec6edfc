"""Composes the booklet: everything a maker needs, in the order in which she needs it."""

from __future__ import annotations

from collections.abc import Iterator

from craft.document.booklet.cautions import cautions
from craft.document.booklet.document import (
    Block,
    Bullets,
    Cautions,
    CountTable,
    Document,
    Drawing,
    Facts,
    Paragraph,
    Picture,
    Pictures,
    RoundLine,
    Rounds,
    Section,
    Steps,
)
from craft.document.booklet.manuscript import AssemblyLine, HookLine, Manuscript, PartLine, YarnLine
from craft.document.booklet.pictures import Kind, Shown, of_figure, of_part
from craft.document.booklet.terms import abbreviations, decreases, filled, ways_worked
from craft.document.chart import draw_chart
from craft.document.techniques import techniques_of
from craft.gauge import Estimate, Gauge, Substitute
from craft.rounds.fabric import MAIN_COLOUR, WorkedPart
from craft.rounds.pattern import Colour, Item, Round, Way
from craft.rounds.pattern import Section as Heading
from craft.rounds.stitches import Terms
from craft.text.catalogue import Words
from craft.text.notation import Wording, print_item, print_label, print_work
from craft.units import cm, inches
from craft.yarn import hook_name, weight_class

MEASURED = 0.05
"""Spread up to which a gauge was measured and not estimated."""


def _range(e: Estimate, unit: str, words: Words) -> str:
    told = {"value": f"{e.value:.0f}", "low": f"{e.low:.0f}", "high": f"{e.high:.0f}"}
    return words.say("about {value} {unit} ({low} to {high})", unit=unit, **told)


def _size(m: Manuscript) -> Iterator[tuple[str, str]]:
    if m.height is not None and m.width is not None:
        lengths = (m.made.height or m.height, m.made.width or m.width)
        height, width = (f"{cm(e.value)} / {inches(e.value)}" for e in lengths)
        told = {"height": height, "width": width, "basis": _size_basis(m)}
        if m.size_of:
            pose = m.words.say(m.size_of)
            size = m.words.say("about {height} tall {pose}, {width} wide; {basis}", pose=pose, **told)
        else:
            size = m.words.say("about {height} tall, {width} wide; {basis}", **told)
        yield m.words.say("Finished size"), size


def _size_basis(m: Manuscript) -> str:
    """Where the finished size comes from: makings that were measured, the gauge, or one of each."""
    made, say = m.made, m.words.say
    one = made.height or made.width
    if one is None:
        return _basis(m.gauge, m.words)
    told = {"n": made.makers, "share": f"{one.high / one.value - 1:.0%}"}
    if made.height is not None and made.width is not None:
        return say("as measured on {n} makings, give or take {share}", **told)
    which = "its height as measured" if made.height is not None else "its width as measured"
    return f"{_basis(m.gauge, m.words)}; {say(which + ' on {n} makings, give or take {share}', **told)}"


def _basis(gauge: Gauge, words: Words) -> str:
    """Where sizes come from, in words for a maker: how they were reckoned stays on the designer's desk."""
    if gauge.spread <= MEASURED:
        return words.say("as measured on the designer's own piece")
    return words.say("an estimate, give or take {share}", share=f"{gauge.spread:.0%}")


def _yarn(line: YarnLine, words: Words) -> str:
    told = [words.say("weight as you like")]
    if line.weight is not None:
        told = [f"{words.say(weight_class(line.weight).name)} ({line.weight})"]
    if line.strands > 1:
        told.append(words.say("{n} strands together", n=line.strands))
    told += [_range(e, unit, words) for e, unit in ((line.use and line.use.metres, "m"), (line.grams, "g")) if e]
    if line.skeins:
        told.append(words.many("{n} skein", "{n} skeins", line.skeins))
    return ", ".join(told) + (f" ({line.plan})" if line.plan else "")


def _materials(m: Manuscript) -> Section:
    say = m.words.say
    rows = [(say("Yarn {name}", name=y.name), _yarn(y, m.words)) for y in m.yarns]
    if m.hook_mm:
        rows.append((say("Hook"), hook_name(m.hook_mm)))
    rows += [(say("Hook for {parts}", parts=m.words.listed(own.parts)), _own_hook(own, m.words)) for own in m.hooks]
    if m.filling.value >= 0.5:
        rows.append((say("Filling"), _range(m.filling, "g", m.words)))
    if m.eyes:
        rows.append((say("Eyes"), m.eyes))
    rows += m.cut
    if m.wire:
        rows.append((say("Wire"), "; ".join(f"{part}: {length}" for part, length in m.wire)))
    if m.instead:
        others = "; ".join(_substitute(s, m.words) for s in m.instead)
        rows.append((say("Same size"), say("{yarns}. By an estimate: make a sample first.", yarns=others)))
    rows.append((say("Also"), ", ".join(m.notions or map(say, NOTIONS))))
    return Section("materials", say("Materials"), (Facts(tuple(rows)),))


def _own_hook(own: HookLine, words: Words) -> str:
    across, up = _to_5_cm(own.gauge)
    told = words.say("{across} stitches and {up} rounds measure 5 cm / 2 in", across=across, up=up)
    return f"{_hook_said(own.hook_mm, own.strands, words)}; {told}"


def _hook_said(hook_mm: float, strands: int, words: Words) -> str:
    name = hook_name(hook_mm)
    return name if strands == 1 else f"{name}, {words.say('{n} strands together', n=strands)}"


def _to_5_cm(gauge: Gauge) -> tuple[str, str]:
    """Stitches and rounds that measure 5 cm."""
    return f"{50 / gauge.stitch_mm:.0f}", f"{50 / gauge.round_mm:.0f}"


def _substitute(other: Substitute, words: Words) -> str:
    told = [f"{words.say(weight_class(other.weight).name)} ({other.weight})"]
    if other.strands > 1:
        told.append(words.say("{n} strands together", n=other.strands))
    return ", ".join([*told, hook_name(other.hook_mm)])


NOTIONS = ("yarn needle", "stitch marker", "scissors")


def _gauge(m: Manuscript) -> Section:
    across, up = _to_5_cm(m.gauge)
    word = "Tension" if m.terms is Terms.UK and m.words.language is None else "Gauge"
    text = m.words.say(
        "{across} stitches and {up} rounds measure 5 cm / 2 in on a stuffed piece ({basis}). Another yarn and hook give "
        "another size; what matters is fabric dense enough to hide the filling.",
        across=across,
        up=up,
        basis=_basis(m.gauge, m.words),
    )
    return Section("gauge", m.words.say(word), (Paragraph(text),))


IN_THIS_LANGUAGE = (
    "Rounds and set sentences are in English; what the designer wrote herself and is not translated is marked."
)
"""Stands in every booklet of another language, each catalogue naming its own."""


LEFT = (
    "For the left hand: work against the direction that right-handed patterns show. Pictures, charts and sides are mirrored "
    "already."
)


def _terms(m: Manuscript) -> Section:
    names = {Terms.US: "US terms", Terms.UK: "UK terms", Terms.LETTERS: "letter notation"}
    if m.words.language is None:
        written = f"Written in {names[m.terms]}."
    else:
        written = m.words.say(
            "Rounds and set sentences are in English; what the designer wrote herself and is not translated is marked."
        )
    rows = abbreviations(m.terms, [line.part for line in m.parts], m.words)
    run = [(line.part, line.worked) for line in m.parts]
    ways = (*ways_worked(run, m.words), *filled(run, m.words), *decreases([part for part, _ in run], m.words))
    notes = [*((m.words.say(LEFT),) if m.left else ()), *(m.prose(n) for n in m.notes)]
    return Section("terms", m.words.say("Terms and notes"), (Paragraph(written), Facts(rows), Bullets((*ways, *notes))))


def _starts_and_closes(m: Manuscript) -> Section | None:
    """How the ring, an oval, pieces that are joined and the last stitches look, where the figure has them."""
    found = techniques_of([(line.part, line.worked) for line in m.parts], m.terms, m.words, left=m.left)
    drawings = tuple(Drawing(t.svg, t.alt, t.caption) for t in found)
    return Section("techniques", m.words.say("How it begins and closes"), drawings) if drawings else None


def _work_said(line: PartLine, made: Round, how: Wording) -> str:
    """A round's work in her own words, where only the stitches' names need to change; else printed anew."""
    if how.language is not None or line.said is None or not line.said.possible:
        return print_work(made, how)
    return line.said.said(made.body_span).strip().rstrip(" ,;:")


def _line(m: Manuscript, line: PartLine, item: Item, live: int) -> RoundLine:
    how = Wording(m.terms, language=m.words.language)
    if isinstance(item, Heading):
        return RoundLine("heading", m.prose(item.name))
    if not isinstance(item, Round):
        kind = {"Step": "step", "Note": "note", "Colour": "colour"}[type(item).__name__]
        said = print_item(item, how)
        return RoundLine(kind, said if isinstance(item, Colour) else m.prose(said))
    if item.way is Way.LINE and item.count is None:
        return RoundLine("line", _work_said(line, item, how))
    count = f"({live})" if how.letters else f"[{live}]"
    fold = ""
    if item.repeats > 1:
        fold = m.words.say("{n} rows" if item.way is Way.ROW else "{n} rounds", n=item.repeats)
    label = print_label(item, how)
    work = _work_said(line, item, how)
    text = f"{label}{work} {count}{f' ({fold})' if fold else ''}"
    return RoundLine("round", text, label.rstrip(": "), work, count, item.repeats, fold)


def part_lines(m: Manuscript, line: PartLine) -> tuple[RoundLine, ...]:
    """All lines of a part as they print, in the manuscript's terms and language."""
    part, worked, say = line.part, line.worked, m.words.say
    live_after = {tally.source: tally.live for tally in worked.rounds}
    lines: list[RoundLine] = []
    first = worked.rounds[0].colours[0] if worked.rounds else MAIN_COLOUR
    if len(m.yarns) > 1 and not isinstance(part.items[0] if part.items else None, Colour):
        lines.append(
            RoundLine("colour", say("With {colour}", colour=m.yarns[0].name if first == MAIN_COLOUR else first))
        )
    source = -1
    for item in part.items:
        source += isinstance(item, Round)
        lines.append(_line(m, line, item, live_after.get(source, 0)))
    return tuple(lines)


def _part(m: Manuscript, line: PartLine) -> Section:
    part, worked, say = line.part, line.worked, m.words.say
    name = part.name or say("Part")
    inside = [a.text for a in m.assembly if a.before_closing and a.part == part.name]
    blocks: list[Block] = []
    if (own := next((h for h in m.hooks if part.name in h.parts), None)) is not None:
        blocks.append(Paragraph(say("Hook for this part: {hook}.", hook=_hook_said(own.hook_mm, own.strands, m.words))))
    if inside:
        blocks.append(Bullets(tuple(say("Before closing: {text}", text=text) for text in inside)))
    blocks.append(Rounds(part_lines(m, line)))
    if line.key and (stages := of_part(line.key, worked, m.words)) is not None:
        blocks.append(stages)
    if m.charts and worked.rounds:
        chart = draw_chart(worked, title=name, terms=m.terms, left_handed=m.left, words=m.words)
        alt = say("Chart of {name}: one sign a stitch, from the first round outwards", name=name)
        blocks.append(Drawing(chart, alt))
    if m.count_table:
        blocks.append(CountTable(tuple(_counts(worked, m.words))))
    title = say("{part} (make {n})", part=name, n=part.make)
    return Section(f"part-{part.name or 'part'}", title, tuple(blocks), 2)


def _counts(worked: WorkedPart, words: Words) -> Iterator[tuple[str, int, int]]:
    before = 0
    for tally in worked.rounds:
        yield words.label(tally.label), tally.live, tally.live - before
        before = tally.live


def _assembly(m: Manuscript) -> Section | None:
    if not m.assembly and m.face is None:
        return None
    blocks: list[Block] = []
    if m.assembly:
        lines = tuple(step_said(m, a) for a in m.assembly)
        pictures = tuple(_step_pictures(m, a, number) for number, a in enumerate(m.assembly, 1))
        blocks.append(Steps(lines, pictures if any(pictures) else ()))
    if m.face is not None:
        blocks.append(Drawing(m.face.svg, m.face.alt, m.face.caption))
    return Section("assembly", m.words.say("Assembly"), tuple(blocks))


def step_said(m: Manuscript, a: AssemblyLine) -> str:
    """A step of the assembly as it prints, with its part, its place and when it is done."""
    said = " ".join(filter(None, (f"{a.part}:" if a.part else "", a.text, f"({a.place})" if a.place else "")))
    if a.before_closing:
        said = f"{said} {m.words.say('Do this before the part is closed.')}"
    return f"{said} {m.words.say('Film: {address}', address=a.film)}" if a.film else said


def _step_pictures(m: Manuscript, a: AssemblyLine, number: int) -> tuple[Picture, ...]:
    """Her own photographs of a step, else the figure as it is then, with what is new lit."""
    if a.photos or not a.key:
        return a.photos
    new = a.part or m.words.say("the new part")
    alt = m.words.say("{title} at step {n}: {part} is new", title=m.title, n=number, part=new)
    return (Picture(Shown(Kind.STEP, a.key).key, alt),)


def _sides(m: Manuscript) -> Iterator[Pictures]:
    if m.height is not None and any(line.key for line in m.parts):
        yield of_figure(m.title, m.words)
    if m.photos:
        yield Pictures(m.photos)


_AUDIENCES = {"under-three": "for a child under three", "play": "to play with", "display": "for display"}


def compose(m: Manuscript) -> Document:
    """The whole booklet of a manuscript."""
    say = m.words.say
    about = [
        (say("Level"), say(m.level.capitalize())),
        (say("Made"), say(_AUDIENCES.get(m.audience, m.audience))),
        *_size(m),
    ]
    first: list[Block] = [Paragraph(m.prose(m.intro))] if m.intro else []
    sections: list[Section | None] = [
        Section("private", say("For your own use, not to be passed on"), (Cautions(m.private),)) if m.private else None,
        Section("about", say("About this figure"), (*first, Facts(tuple(r for r in about if r[1])), *_sides(m))),
        _materials(m),
        _gauge(m),
        _terms(m),
        _starts_and_closes(m),
        Section("cautions", say("Safety"), (Cautions(cautions(m)),)),
        *(_part(m, line) for line in m.parts),
        _assembly(m),
        Section("permissions", say("Permissions"), (Paragraph(m.prose(m.permissions)),)) if m.permissions else None,
        Section("credits", say("Credits"), (Paragraph(m.prose(m.credits)),)) if m.credits else None,
        Section("changes", say("Changes"), (Bullets(tuple(m.prose(c) for c in m.changes)),)) if m.changes else None,
    ]
    byline = say("A pattern by {designer}", designer=m.designer)
    return Document(m.title, byline, m.stamp, m.terms.value, tuple(s for s in sections if s), m.words.code)
