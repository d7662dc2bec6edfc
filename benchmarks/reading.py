"""How well patterns are read that were written in styles of their own: `tests/craft/wild`."""

from __future__ import annotations

import re
from collections import Counter, defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path

from craft.problems import Problem, Severity
from craft.rounds.pattern import Way
from craft.text.check import Checked, check

CORPUS = Path(__file__).parents[1] / "tests" / "craft" / "wild"


@dataclass(frozen=True, slots=True)
class Sound:
    """A sound pattern of the corpus. parts: counts of every part's rounds, in the order of the text."""

    name: str
    text: str
    parts: tuple[tuple[int, ...], ...]

    @property
    def style(self) -> str:
        """The designer's manner: the words of the name between its number and its figure."""
        return "-".join(self.name.split("-")[1:3])


@dataclass(frozen=True, slots=True)
class Slipped:
    """A pattern with one slip. kind: of the slip; labels: where a reader may fairly report it."""

    name: str
    text: str
    kind: str
    labels: tuple[str, ...]


def is_aside(name: str) -> bool:
    """Whether a pattern was kept aside while the reader was built: a third of all, by chance of its name."""
    return int(sha256(name.encode()).hexdigest(), 16) % 3 == 0


def text_of(data: bytes) -> str:
    """The text of a file: in UTF-8, else in the encoding of old Windows files."""
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", "replace")


def sound_patterns(folder: str = "right") -> list[Sound]:
    """The sound patterns of a folder of the corpus."""
    found = []
    for path in sorted((CORPUS / folder).glob("*.txt")):
        rows = [row.split("\t") for row in path.with_suffix(".rounds").read_text("utf-8").splitlines() if row.strip()]
        parts = tuple(tuple(int(n) for n in row[-1].split()) for row in rows)
        found.append(Sound(path.stem, text_of(path.read_bytes()), parts))
    return found


def slipped_patterns(folder: str = "wrong") -> list[Slipped]:
    """The patterns with a slip of a folder of the corpus."""
    found = []
    for path in sorted((CORPUS / folder).glob("*.txt")):
        kind, *labels = path.with_suffix(".expect").read_text("utf-8").split()
        found.append(Slipped(path.stem, text_of(path.read_bytes()), kind, tuple(labels)))
    return found


def counts_of(checked: Checked) -> tuple[tuple[int, ...], ...]:
    """Counts of every part's rounds; starting chains and what stands in no round are left out."""
    found: list[tuple[int, ...]] = []
    for part in checked.parts:
        by_heading: dict[str, list[int]] = {}
        for worked in part.rounds:
            if worked.way is not Way.LINE:
                by_heading.setdefault(worked.section, []).append(worked.live)
        found += [tuple(counts) for counts in by_heading.values()]
    return tuple(found)


def is_right(pattern: Sound, checked: Checked) -> bool:
    """Whether a sound pattern was read right: sound, and every count of every part as its designer counted."""
    return checked.sound and counts_of(checked) == pattern.parts


def _label_of(problem: Problem) -> str:
    label = problem.place.round or problem.place.part or ""
    found = re.search(r"\d+", label)
    return f"R{found.group(0)}" if found else label


def slip_found(checked: Checked) -> bool:
    """Whether anything is said against the pattern."""
    return any(p.severity is not Severity.HINT for p in checked.problems)


def slip_placed(pattern: Slipped, checked: Checked) -> bool:
    """Whether the first thing said against the pattern stands at a label where its slip may fairly be told."""
    firsts = {re.sub(r"-.*", "", label) for label in pattern.labels} | set(pattern.labels)
    return any(_label_of(p) in firsts for p in checked.problems if p.severity is not Severity.HINT)


def _rows(patterns: Iterable[Sound]) -> list[str]:
    by_style: dict[str, Counter[str]] = defaultdict(Counter)
    for pattern in patterns:
        checked = check(pattern.text)
        right = is_right(pattern, checked)
        verdict = "right" if right else "false sound" if checked.sound else "refused"
        by_style[pattern.style][verdict] += 1
    total: Counter[str] = sum(by_style.values(), Counter())
    head = f"{'style':<32}{'right':>7}{'refused':>9}{'false sound':>13}"
    rows = [f"{s:<32}{c['right']:>7}{c['refused']:>9}{c['false sound']:>13}" for s, c in sorted(by_style.items())]
    return [head, *rows, f"{'all':<32}{total['right']:>7}{total['refused']:>9}{total['false sound']:>13}"]


def reading_table() -> str:
    """Read right, refused and falsely sound by style; slips found and told at their round."""
    out = ["Reading patterns of the corpus", ""]
    sound, slipped = sound_patterns(), slipped_patterns()
    for aside in (False, True):
        out += ["kept aside" if aside else "worked with", *_rows(p for p in sound if is_aside(p.name) is aside)]
        mine = [(p, check(p.text)) for p in slipped if is_aside(p.name) is aside]
        found, placed = sum(slip_found(c) for _, c in mine), sum(slip_placed(p, c) for p, c in mine)
        out += [f"{len(mine)} slips: {found} found, {placed} at their round", ""]
    return "\n".join(out)
