"""The written pattern as a tree of plain values, before it becomes a page, a print or a text."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from craft.rounds.stitches import Language
from craft.text.catalogue import Words
from craft.text.exchange import inert_markdown


@dataclass(frozen=True, slots=True)
class Paragraph:
    """A paragraph of prose."""

    text: str


@dataclass(frozen=True, slots=True)
class Facts:
    """Names with their values, in order."""

    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class Bullets:
    """Short sentences, one each."""

    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class RoundLine:
    """A line of a part as it prints. kind: 'round', 'step', 'note' or 'colour'.

    label, work, count: the pieces of a round; `text` is the whole line. fold: the number of rounds
    a label stands for; fold_said: the same in words, '' for one.
    """

    kind: str
    text: str
    label: str = ""
    work: str = ""
    count: str = ""
    fold: int = 1
    fold_said: str = ""


@dataclass(frozen=True, slots=True)
class Rounds:
    """All lines of a part."""

    lines: tuple[RoundLine, ...]


@dataclass(frozen=True, slots=True)
class Picture:
    """A picture that is taken of the figure, or that she took. key: what it shows, see `pictures.Shown`. alt: the same in
    words, for whoever does not see it. caption: printed below it."""

    key: str
    alt: str
    caption: str = ""


@dataclass(frozen=True, slots=True)
class Pictures:
    """Pictures beside each other."""

    items: tuple[Picture, ...]


@dataclass(frozen=True, slots=True)
class Drawing:
    """A diagram as SVG, with what it shows in words."""

    svg: str
    alt: str
    caption: str = ""


@dataclass(frozen=True, slots=True)
class Steps:
    """Numbered steps. pictures: of each of them, in their order; empty where no step has any."""

    lines: tuple[str, ...]
    pictures: tuple[tuple[Picture, ...], ...] = ()

    def shown(self, at: int) -> tuple[Picture, ...]:
        """The pictures of a step, counted from 0."""
        return self.pictures[at] if at < len(self.pictures) else ()


@dataclass(frozen=True, slots=True)
class CountTable:
    """Round, stitches and change of every worked round: reads in any language."""

    rows: tuple[tuple[str, int, int], ...]


@dataclass(frozen=True, slots=True)
class Cautions:
    """Safety sentences, always shown and set apart."""

    lines: tuple[str, ...]


Block = Paragraph | Facts | Bullets | Rounds | Steps | CountTable | Cautions | Pictures | Drawing


@dataclass(frozen=True, slots=True)
class Section:
    """A titled run of blocks. level: 1 for the booklet's chapters, 2 for parts."""

    key: str
    title: str
    blocks: tuple[Block, ...]
    level: int = 1


@dataclass(frozen=True, slots=True)
class Document:
    """A whole booklet. stamp: version and date, printed on every page. language: code of the one it is written in."""

    title: str
    byline: str
    stamp: str
    terms: str
    sections: tuple[Section, ...]
    language: str = "en"

    @property
    def words(self) -> Words:
        """Our own sentences in its language."""
        return Words(None if self.language == "en" else Language(self.language))

    def to_json(self) -> dict[str, Any]:
        """Plain JSON values; every block tells its type in `block`. Whoever reads it passes over types that are new."""
        return {
            "format": 1,
            "title": self.title,
            "byline": self.byline,
            "stamp": self.stamp,
            "terms": self.terms,
            "language": self.language,
            "sections": [
                {
                    "key": s.key,
                    "title": s.title,
                    "level": s.level,
                    "blocks": [{"block": type(b).__name__, **asdict(b)} for b in s.blocks],
                }
                for s in self.sections
            ],
        }

    @property
    def pictures(self) -> tuple[Picture, ...]:
        """Every picture in it, in its order, each once."""
        found: dict[str, Picture] = {}
        for block in (b for s in self.sections for b in s.blocks):
            if isinstance(block, Pictures):
                found |= {p.key: p for p in block.items}
            if isinstance(block, Steps):
                found |= {p.key: p for shown in block.pictures for p in shown}
        return tuple(found.values())


def _block_lines(block: Block, mark: bool) -> list[str]:
    match block:
        case Paragraph():
            return [block.text]
        case Facts():
            return [f"- **{name}:** {value}" if mark else f"{name}: {value}" for name, value in block.rows]
        case Bullets() | Cautions():
            return [f"- {line}" for line in block.lines]
        case Rounds():
            return [
                (f"- [ ] {line.text}" if line.kind == "round" else f"- {line.text}") if mark else line.text
                for line in block.lines
            ]
        case Steps():
            return [f"{number}. {line}" for number, line in enumerate(block.lines, 1)]
        case Pictures() | Drawing():
            return []  # a text has no pictures; what they show is said in words beside them
        case CountTable():
            rows = [(label, str(live), f"{change:+d}" if change else "=") for label, live, change in block.rows]
            if mark:
                return [
                    "| Round | Stitches | ± |",
                    "| --- | ---: | ---: |",
                    *(f"| {a} | {b} | {c} |" for a, b, c in rows),
                ]
            return [f"{a:<8}{b:>6}{c:>6}" for a, b, c in rows]


def block_lines(block: Block) -> list[str]:
    """A block's lines as plain text."""
    return _block_lines(block, mark=False)


def as_text(document: Document) -> str:
    """The booklet as plain text."""
    lines = [document.title.upper(), document.byline, document.stamp, ""]
    for section in document.sections:
        lines += [section.title.upper() if section.level == 1 else section.title, ""]
        for block in section.blocks:
            if printed := block_lines(block):
                lines += [*printed, ""]
    return "\n".join(lines).rstrip() + "\n"


def as_markdown(document: Document) -> str:
    """The booklet as Markdown, with tick boxes for rounds."""
    lines = [f"# {document.title}", "", f"*{document.byline}*  ", f"*{document.stamp}*", ""]
    for section in document.sections:
        lines += [f"{'#' * (section.level + 1)} {section.title}", ""]
        for block in section.blocks:
            if printed := _block_lines(block, mark=True):
                lines += [*printed, ""]
    return inert_markdown("\n".join(lines).rstrip() + "\n")
