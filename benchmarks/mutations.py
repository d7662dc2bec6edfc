"""Spoiling sound patterns, to see how many slips are found and whether the right round is named."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

from craft.problems import Severity
from craft.text.check import check

SOUND = {
    "ball": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: (3 sc, inc) x 6 [30]\n"
    "R6-R9: 30 sc [30]\nR10: (3 sc, dec) x 6 [24]\nR11: (2 sc, dec) x 6 [18]\nStuff.\nR12: (sc, dec) x 6 [12]\nR13: dec x 6 [6]\nClose.",
    "cone": "R1: 4 sc in ring [4]\nR2: (sc, inc) x 2 [6]\nR3: (2 sc, inc) x 2 [8]\nR4: (3 sc, inc) x 2 [10]\nR5: (4 sc, inc) x 2 [12]\n"
    "R6: (5 sc, inc) x 2 [14]\nLeave a long tail for sewing.",
    "arm": "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R10: 9 sc [9]\nR11: sc, dec, 6 sc [8]\nFasten off, leaving a tail.",
    "stars": "Rnd 1: MR, 6 sc (6)\nRnd 2: *2 sc in next st* 6 times (12)\nRnd 3: *sc, 2 sc in next st; rep from * 5 more times (18)\n"
    "Rnd 4: *sc in next 2 sts, 2 sc in next st; rep from * 5 more times (24)\nRnd 5: sc in each st around (24)\n"
    "Rnd 6: *2 sc, dec; rep from * 5 more times (18)",
    "uk": "Terms: UK\nR1: 6 dc in ring [6]\nR2: inc x 6 [12]\nR3: (dc, inc) x 6 [18]\nR4: 18 dc [18]\nR5: (dc, dc2tog) x 6 [12]\nR6: dec x 6 [6]",
    "letters": "R1: 6X in ring (6)\nR2: 6V (12)\nR3: (X, V) * 6 (18)\nR4: (2X, V) * 6 (24)\nR5: 24X (24)\nR6: (2X, A) * 6 (18)\nR7: (X, A) * 6 (12)",
    "joined": "R1: 8 sc in ring, join [8]\nR2: ch 1, inc x 8, join [16]\nR3: ch 1, (sc, inc) x 8, join [24]\nR4: ch 1, 24 sc, join [24]",
    "oval": "Ch 8\nR1: sc in 2nd ch from hook, 5 sc, 3 sc in last ch, along the other side 5 sc, 2 sc in last ch [16]\n"
    "R2: inc, 5 sc, 3 inc, 5 sc, 2 inc [22]\nR3: sc around [22]\nR4: BLO: 22 sc [22]\nR5: 5 sc, dec, 9 sc, dec, 4 sc [20]",
    "trousers": "R1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\nR4: (2 sc, inc) x 6 [24]\nR5: 24 sc [24]\n"
    "R6: 12 sc, skip 12, join [12]\nR7: 12 sc [12]\nR8: (2 sc, dec) x 3 [9]\nFasten off.\nSecond leg\nRejoin at the held stitches.\n"
    "R7: 12 sc [12]\nR8: (2 sc, dec) x 3 [9]",
    "merge": "Legs (make 2)\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: 12 sc [12]\nFasten off.\n\nBody\n"
    "R4: 12 sc around the first leg, ch 3, 12 sc around the second leg, 3 sc along the chain [30]\nR5: 30 sc [30]\nR6: (3 sc, dec) x 6 [24]",
    "limbs": "Arms (make 2)\nR1: 6 sc in ring [6]\nR2: (2 sc, inc) x 2 [8]\nR3: 8 sc [8]\nFold flat and work 4 sc through both layers [4]\n\n"
    "Body\nR1: 6 sc in ring [6]\nR2: inc x 6 [12]\nR3: (sc, inc) x 6 [18]\n"
    "R4: 3 sc, 4 sc through the first arm and body, 5 sc, 4 sc through the second arm and body, 2 sc [18]\nR5: (sc, dec) x 6 [12]",
    "panel": "Ch 11\nRow 1: sc in 2nd ch from hook and in each ch across [10]\nRow 2: ch 1, turn, 10 sc [10]\n"
    "Row 3: ch 1, turn, inc, 8 sc, inc [12]\nRow 4: ch 1, turn, 12 sc [12]\nRow 5: ch 1, turn, dec, 8 sc, dec [10]",
    "hem": "R1: 8 sc in ring [8]\nR2: inc x 8 [16]\nR3: BLO: 16 sc [16]\nR4: 16 sc [16]\nFasten off.\n"
    "R1: in the free front loops of R2, (sc, inc) x 8 [24]\nR2: 24 sc [24]",
    "dome": "1. 6 sc in ring = 6\n2. 6 inc = 12\n3. (sc, inc) x 6 = 18\n4. in BLO, 18 sc = 18\n5. 18 sc = 18\n6. (sc, inv dec) x 6 = 12",
}
"""Patterns of our own in everyday spellings, all of which add up."""


@dataclass(frozen=True, slots=True)
class Mutant:
    """A spoilt text: which 1-based line was touched, and how."""

    text: str
    line: int
    how: str


def _changed(lines: list[str], i: int, line: str, how: str) -> Mutant:
    return Mutant("\n".join([*lines[:i], line, *lines[i + 1 :]]), i + 1, how)


_NUMBER = re.compile(r"\d+")
_COUNT = re.compile(r"(?:[\[(]|= )(\d+)[\])]?\s*$")
_WORD = re.compile(r"\b(?:sc|dc|inc|dec|X|V|A)\b")
_LABEL = re.compile(r"^\s*(?:R|Rnd |Row )?\d+(?:-R?\d+)?[.:]\s*")


def mutants(text: str) -> Iterator[Mutant]:
    """Every single slip of a kind: a number, a bracket, a word, two rounds swapped, one left out."""
    lines = text.split("\n")
    for i, line in enumerate(lines):
        label = _LABEL.match(line)
        if label is None:
            continue
        count = _COUNT.search(line)
        for m in _NUMBER.finditer(line, label.end()):
            bracket = count is not None and m.start() == count.start(1)
            for by in (1, -1):
                value = int(m.group()) + by
                if value > 0:
                    how = "bracket" if bracket else "number"
                    yield _changed(lines, i, line[: m.start()] + str(value) + line[m.end() :], how)
        for m in _WORD.finditer(line, label.end()):
            other = {"inc": "dec", "dec": "inc", "V": "A", "A": "V"}.get(m.group())
            if other:
                yield _changed(lines, i, line[: m.start()] + other + line[m.end() :], "word")
        yield Mutant("\n".join(lines[:i] + lines[i + 1 :]), i + 1, "removed")
        if i + 1 < len(lines) and _LABEL.match(lines[i + 1]):
            yield Mutant("\n".join([*lines[:i], lines[i + 1], line, *lines[i + 2 :]]), i + 1, "swapped")


@dataclass(slots=True)
class Survey:
    """How many inconsistent mutants there were, were found, and had their round named."""

    inconsistent: int = 0
    found: int = 0
    knowable: int = 0
    named: int = 0
    missed: list[Mutant] = field(default_factory=list)
    misnamed: list[tuple[Mutant, list[int]]] = field(default_factory=list)


def _consistent(mutant: Mutant, original: str) -> bool:
    """A slip that leaves a pattern which adds up.

    The last round of a piece left out, or the first row along a chain; a turning chain of another
    length; free loops named by the round that left them instead of the one they stand on.
    """
    lines = original.split("\n")
    line = lines[mutant.line - 1]
    if mutant.how == "number":
        return "ch 2, " in mutant.text.split("\n")[mutant.line - 1] or "free front loops" in line
    if mutant.how != "removed":
        return False
    after = lines[mutant.line] if mutant.line < len(lines) else ""
    along_chain = mutant.line > 1 and lines[mutant.line - 2].startswith("Ch ")
    return not _LABEL.match(after) or along_chain


def survey() -> Survey:
    """Spoil every sound pattern in every way and look what is found."""
    result = Survey()
    for original in SOUND.values():
        for mutant in mutants(original):
            if not _consistent(mutant, original):
                _look(mutant, result)
    return result


WILD_EACH = 6
"""Slips of each pattern of the corpus: reading one takes some tenths of a second."""


def wild_survey(texts: Iterable[str]) -> Survey:
    """Spoil some printed counts and turn some increases round in patterns of the corpus, which all add up."""
    result = Survey()
    for original in texts:
        slips = [m for m in mutants(original) if m.how in ("bracket", "word")]
        for mutant in slips[:: max(1, len(slips) // WILD_EACH)][:WILD_EACH]:
            _look(mutant, result)
    return result


def _look(mutant: Mutant, result: Survey) -> None:
    """Whether a spoilt text is found out, and its round named."""
    result.inconsistent += 1
    told = [p for p in check(mutant.text).problems if p.severity is not Severity.HINT]
    if not told:
        result.missed.append(mutant)
        return
    result.found += 1
    if mutant.how in ("number", "bracket", "word"):
        result.knowable += 1
        lines = [p.place.line for p in told]
        if mutant.line in lines:
            result.named += 1
        else:
            result.misnamed.append((mutant, lines))
