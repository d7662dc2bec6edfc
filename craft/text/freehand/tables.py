"""Tables of a text as rounds: a label, the work, the count; tables of changes; parts in columns side by side."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterable, Sequence
from dataclasses import replace

from craft.text.freehand.corrections import Taken
from craft.text.freehand.labels import label_at
from craft.text.freehand.row import Row

_LABELS = re.compile(
    r"(?i)^(?:rnds?|rounds?|r|rows?|rd|runden?|tours?|vueltas?|vta|giro|toer|#|nr|no\.?|rang|reihe|hilera)\.?$"
)
_COUNTS = re.compile(
    r"(?i)^(?:sts?|stitches|(?:stitch|st)\s*count|count|totale?|puntos|pts|p|m|maschen|mailles|maglie|steken|anzahl|=|number)\.?$"
)
_COLOURS = re.compile(r"(?i)^(?:colou?rs?|yarn|farbe|couleur|color|colore|kleur)$")
_PARTS = re.compile(r"(?i)^(?:part|piece|pieza|teil|partie|pièce|pezzo|onderdeel|section|deel)$")
_WORKS = re.compile(
    r"(?i)^(?:work|instructions?|pattern|what\s+to\s+do|instrucci(?:ón|ones)|anleitung|consigne|istruzioni|instructie"
    r"|stitches\s+to\s+work|do|how)$"
)
_REPEATS = re.compile(
    r"(?i)^(?:rep(?:eat(?:s|ed)?)?|times|x|how\s+often|often|wdh|wiederhol\w*|fois|répét\w*|veces|repet\w*|ripet\w*|volte|keer|herhal\w*)\.?$"
)


_EMPHASIS = re.compile(r"^(\*\*|__|\*|_)([^*_]*)\1$")
"""'**R1**': a cell that is printed bold; a lone star begins a repeat."""


def _cells(text: str, *, framed: bool = True) -> list[str] | None:
    """The cells of a line, None where it has none. framed: a stroke at its start is the table's edge, and no empty cell."""
    stripped = text.strip()
    if stripped.startswith("|") or re.search(r"\S\s*\|\s*(?:\S|$)", stripped):
        inner = stripped.strip("|") if framed else stripped.rstrip("|")
        return [_EMPHASIS.sub(r"\2", c.strip()).strip() for c in inner.split("|")]
    if "\t" in stripped:
        return [c.strip() for c in text.split("\t")]
    return None


_SEPARATORS = (";", ",")


def _separated(found: list[Row]) -> list[Row]:
    """'Runde;Anleitung;Maschen': a table as spreadsheets write it, below a head that names its columns, with strokes."""
    out: list[Row] = []
    sign, columns = "", 0
    for row in found:
        if not sign:
            heads = ((s, [c.strip() for c in row.text.split(s)]) for s in _SEPARATORS)
            sign, columns = next(((s, len(head)) for s, head in heads if _is_head(head)), ("", 0))
        cells = next(csv.reader([row.text], delimiter=sign)) if sign and row.taken is None else []
        if len(cells) != columns:
            sign, columns = "", 0
        out.append(replace(row, text=" | ".join(c.strip() for c in cells)) if sign else row)
    return out


LEAST_COLUMNS = 3


def _is_head(cells: Sequence[str]) -> bool:
    """Whether the cells of a line name columns: rounds first, then their work or their counts."""
    if len(cells) < LEAST_COLUMNS or not _LABELS.match(cells[0]):
        return False
    known = (_COUNTS, _WORKS, _COLOURS, _PARTS, _REPEATS)
    return all(any(heads.match(c) for heads in known) for c in cells[1:])


def tabled(found: list[Row]) -> list[Row]:
    """Rows of tables as rounds: a label, the work, the count; columns that stand side by side one after another."""
    found = _separated(found)
    out: list[Row] = []
    explained = any(_LETTER_EXPLAINED.search(row.text) for row in found)
    at = 0
    while at < len(found):
        cells = None if found[at].taken is not None else _cells(found[at].text)
        if cells is None or len(cells) < 2:
            out.append(found[at])
            at += 1
            continue
        end = at
        while (
            end < len(found)
            and found[end].taken is None
            and (_cells(found[end].text) is not None or (found[end].quiet and end + 1 < len(found)))
        ):
            end += 1
        out += _table(found[at:end], explained=explained)
        at = end
    return out


def _kind(head: str) -> str:
    """What a column of a table holds, by its head."""
    known = {"label": _LABELS, "count": _COUNTS, "part": _PARTS, "colour": _COLOURS}
    return next((kind for kind, words in known.items() if words.match(head)), "work")


_NO_CHANGE = re.compile(r"(?i)=|0|[+-]*|same|even|plain|mr|mc|ring|magic (?:ring|circle)|start")
"""What a column of changes says of a round that does not change, or begins."""


def _is_change(column: int, lines: Sequence[tuple[Row, list[str]]]) -> bool:
    """Whether a column says by how much every round grew: '+6', '-2', '='."""
    cells = [c[column] for _, c in lines if column < len(c)]
    grown = [cell for cell in cells if re.fullmatch(r"[+-]\s*\d{1,3}", cell)]
    return bool(grown) and all(cell in grown or _NO_CHANGE.fullmatch(cell) for cell in cells)


def _is_count(column: int, lines: Sequence[tuple[Row, list[str]]]) -> bool:
    """Whether a column of whatever name holds numbers alone: what every round has."""
    cells = [c[column] for _, c in lines if column < len(c)]
    return bool(cells) and all(re.fullmatch(r"\d{1,4}", cell) for cell in cells)


def _change(cell: str) -> str:
    return cell if re.fullmatch(r"[+-]\s*\d{1,3}", cell) else "="


def _grown(number: str, count: str, change: str) -> str:
    """A row of a table of counts and changes; one whose count is told in words, '5 sc into ring', is its own work."""
    return f"R{number} {count} {_change(change)}" if count.isdigit() else f"R{number}: {count} {change}".strip()


def _table(block: list[Row], *, explained: bool) -> Iterable[Row]:
    framed = block[0].text.lstrip().startswith("|")
    lines = [(row, _cells(row.text, framed=framed) or []) for row in block]
    lines = [(r, c) for r, c in lines if not all(re.fullmatch(r":?-*:?", x) for x in c)]
    if not lines:
        return []
    head = lines[0][1]
    lines = [(r, [*c, *[""] * (len(head) - len(c))]) for r, c in lines]  # a row whose last cells are left empty
    named = any(_LABELS.match(c) for c in head)
    if not named and (apart := _parts_beside(lines)):
        return apart
    if not named and _is_numbered(head, lines[1:]):
        often = head[1] if _OFTEN.fullmatch(head[1]) else ""
        title = f"{head[0]} {often}".strip()
        below = [(block[0], ["#", "" if often else head[1], *head[2:]]), *lines[1:]]
        return [*([Row(f"## {title}", block[0].span, title)] if title else []), *_rounds(block, below, explained)]
    if not named:
        return [
            replace(r, text=_row_text(c[0], c[1:-1] if len(c) > 2 else c[1:], c[-1] if len(c) > 2 else ""))
            for r, c in lines
        ]
    return _rounds(block, lines, explained)


def _rounds(block: list[Row], lines: list[tuple[Row, list[str]]], explained: bool) -> list[Row]:
    """The rounds of a table whose head names its columns."""
    head = lines[0][1]
    kinds = [_kind(c) for c in head]
    kinds = ["change" if _is_change(k, lines[1:]) else kind for k, kind in enumerate(kinds)]
    if "count" not in kinds:
        kinds = ["count" if kind == "work" and _is_count(k, lines[1:]) else kind for k, kind in enumerate(kinds)]
    label = kinds.index("label")
    if "change" in kinds and "work" not in kinds and kinds.count("count") == 1:
        count_at, change = kinds.index("count"), kinds.index("change")
        return [
            replace(r, text=_grown(re.sub(r"^[A-Za-z.]+", "", c[label]), c[count_at], c[change])) for r, c in lines[1:]
        ]
    if "work" not in kinds and kinds.count("count") > 1:
        kinds[kinds.index("count")] = "work"
    works = [k for k, kind in enumerate(kinds) if kind == "work"]
    counts = [k for k, kind in enumerate(kinds) if kind == "count"]
    part = kinds.index("part") if "part" in kinds else None
    colour = kinds.index("colour") if "colour" in kinds else None
    side_by_side = (
        len(works) > 1 and not (counts and len(counts) == 1) and not any(_WORKS.match(head[k]) for k in works)
    )
    out: list[Row] = []
    for column in works if side_by_side else works[:1]:
        name = head[column] if side_by_side else ""
        count = next((k for k in counts if k > column), None)
        if name:
            out.append(Row(f"## {name}", block[0].span, name))
        before = ""
        for row, cells in lines[1:]:
            if len(cells) <= column or not re.search(r"\w", cells[column]):
                continue
            belongs = cells[part] if part is not None and part < len(cells) else name
            plain = re.sub(r"\s*[(\[].*", "", belongs)
            if part is not None and plain and plain != before:
                out.append(Row(f"## {belongs}", row.span, plain))
                before = plain
            tinted = _tinted(cells[colour], explained=explained) if colour is not None and colour < len(cells) else ""
            said = cells[count] if count is not None and count < len(cells) else ""
            beside = [] if side_by_side else [k for k in works[1:] if k < len(cells) and re.search(r"\w", cells[k])]
            often = [cells[k] for k in beside if _REPEATS.match(head[k])]
            work = f"({cells[column]}) {_times(often[0])}" if often else cells[column]
            out.append(Row(_row_text(cells[label], [f"{tinted}{work}"], said), row.span, plain))
            out += [Row(cells[k], row.span, cells[k], taken=Taken.NOTE) for k in beside if not _REPEATS.match(head[k])]
    return out


_OFTEN = re.compile(r"(?i)[x×]\s*\d{1,2}|\d{1,2}\s*[x×]|(?:make|noch)\s*\d{1,2}")
"""'x4' beside a part's name: how often it is made."""
_NUMBERS = re.compile(r"(\d{1,4})(?:\s*-\s*\d{1,4})?\.?")


def _is_numbered(head: Sequence[str], below: Sequence[tuple[Row, list[str]]]) -> bool:
    """Whether a table has its rounds' numbers in its first column, below the name of a part: 'Leg | x4 | stitches'."""
    numbers = [_NUMBERS.fullmatch(cells[0]) for _, cells in below]
    counted = any(_COUNTS.match(c) for c in head[1:])
    found = [int(m[1]) for m in numbers if m is not None]
    return counted and bool(found) and found[0] == 1 and len(found) == len(numbers) and found == sorted(set(found))


def _parts_beside(lines: Sequence[tuple[Row, list[str]]]) -> list[Row]:
    """'Shell | Belly' above 'R1: 6 sc | R1: 6 sc': a part in every column, with labels of its own; none where a cell below
    the names has no label."""
    (head, names), *below = lines
    columns = [[(row, cells[k]) for row, cells in below if cells[k]] for k in range(len(names))]
    if not below or not all(names) or any(label_at(name) is not None for name in names):
        return []
    if not all(column and all(label_at(cell) is not None for _, cell in column) for column in columns):
        return []
    return [
        made
        for name, column in zip(names, columns, strict=True)
        for made in (Row(f"## {name}", head.span, name), *(Row(cell, row.span, cell) for row, cell in column))
    ]


def _times(cell: str) -> str:
    """'x6', '6x', '6 times' or '6' in a column of repeats."""
    return f"x {cell}" if cell.isdigit() else cell


_LETTER_EXPLAINED = re.compile(r"(?<!\w)[A-Z]\s*[=:]\s*[^\W\d_]{3}")
"""'B = black'."""


def _tinted(cell: str, *, explained: bool) -> str:
    """The words before a round's work by what its column of colours says. explained: the text says what its letters
    stand for; where it does not, a letter in the column is a colour's, and no word."""
    if not explained and re.fullmatch(r"[A-Z]\d?", cell):
        return f"colour {cell}, "
    return f"{cell}, " if cell else ""


def _row_text(label: str, work: Sequence[str], count: str) -> str:
    digits = re.fullmatch(r"(\d{1,4})(?:\s*(?:-|to|bis|a|à|&|\+|/|and|und|et|y|e|en)\s*(\d{1,4}))?\.?", label)
    if digits:
        label = f"R{digits.group(1)}" + (f"-R{digits.group(2)}" if digits.group(2) else "")
    said = " ".join(w for w in work if w)
    alone = re.fullmatch(r"(\d{1,5})(?:\s*[^\W\d_]{1,9}\.?){0,2}", count)
    tail = f" [{alone.group(1)}]" if alone else f" {count}" if count else ""
    return f"{label}: {said}{tail}" if label else f"{said}{tail}"
