"""Vocabularies: reading a word as a stitch, and finding out in which terms a text is written."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache

from craft.rounds.stitches import STITCHES, Loops, Stitch, Terms


@dataclass(frozen=True, slots=True)
class Word:
    """What a word means: a registry key, and where the hook goes in when the word says it."""

    key: str
    loops: Loops | None = None


def _raised(entry: Stitch, terms: Terms) -> tuple[tuple[str, Loops], ...]:
    """Words for a stitch around the front or back post."""
    words: list[tuple[str, Loops]] = []
    for loops, short, side in ((Loops.FRONT_POST, "fp", "front"), (Loops.BACK_POST, "bp", "back")):
        for word in entry.spellings(Terms.US if terms is Terms.LETTERS else terms):
            words += [(f"{short}{word}", loops), (f"{short} {word}", loops), (f"{side} post {word}", loops)]
            if terms is Terms.UK:
                words += [(f"raised {side} {word}", loops), (f"r{word}{side[0]}", loops), (f"{word}/r{side[0]}", loops)]
    return tuple(words)


@cache
def _readings(terms: Terms) -> dict[str, Word]:
    table: dict[str, Word] = {}
    for entry in STITCHES.values():
        if entry.key == "ch":
            continue
        for word in entry.spellings(terms):
            table.setdefault(_plain(word), Word(entry.key))
    for entry in STITCHES.values():
        if entry.postable:
            for word, loops in _raised(entry, terms):
                table.setdefault(_plain(word), Word(entry.key, loops))
    return table


def _plain(word: str) -> str:
    return re.sub(r"\s+", "", word.lower())


def stitch_word(word: str, terms: Terms) -> Word | None:
    """What `word` means in `terms`; blanks and case do not matter; None when unknown."""
    return _readings(terms).get(_plain(word))


def stitch_key(word: str, terms: Terms) -> str | None:
    """The registry key of `word` in `terms`; None when unknown."""
    found = stitch_word(word, terms)
    return found.key if found else None


def _longest_of(words: frozenset[str]) -> str:
    """One of `words`, the longest that fits, a blank standing for any or none.

    What several begin with is written once, and signs that the same ends follow are one class: the table of spellings
    is compiled for every state of the grammar, and takes as long to compile as it is long.
    """
    beginnings: dict[str, set[str]] = {}
    for word in words:
        beginnings.setdefault(word[:1], set()).add(word[1:])
    ends = beginnings.pop("", None) is not None
    signs: dict[frozenset[str], str] = {}
    for first, rest in sorted(beginnings.items()):
        alike = frozenset(rest)
        signs[alike] = signs.get(alike, "") + first
    branches = [_one_of(firsts) + _longest_of(rest) for rest, firsts in signs.items()]
    if len(branches) == 1 and (not ends or len(branches[0]) == 1):
        return branches[0] + ("?" if ends else "")
    return f"(?:{'|'.join(branches)}){'?' if ends else ''}" if branches else ""


def _one_of(signs: str) -> str:
    if len(signs) == 1:
        return r"\s*" if signs == " " else re.escape(signs)
    return "[" + "".join(re.escape(sign) for sign in signs) + "]"


def _blanks(word: str) -> frozenset[int]:
    """After how many other signs the blanks of a word stand."""
    return frozenset(len(_plain(word[:at])) for at, sign in enumerate(word) if sign == " ")


@cache
def stitch_regex(terms: Terms) -> str:
    """A regular expression for every spelling in `terms`, the longest that fits, case left to the caller."""
    words = {w for e in STITCHES.values() if e.key != "ch" for w in e.spellings(terms)}
    words |= {w for e in STITCHES.values() if e.postable for w, _ in _raised(e, terms)}
    spelt: dict[str, list[str]] = {}
    for word in sorted(words, key=lambda w: (-w.count(" "), w)):
        same = spelt.setdefault(_plain(word), [])
        if not any(_blanks(word) <= _blanks(other) for other in same):
            same.append(word)
    return _longest_of(frozenset(word for same in spelt.values() for word in same)) + r"(?![A-Za-z](?!lo\b))"


def words(terms: Terms) -> tuple[str, ...]:
    """Every spelling in `terms`, for completion and for the nearest right word."""
    return tuple(dict.fromkeys(w for e in STITCHES.values() for w in e.spellings(terms)))


@dataclass(frozen=True, slots=True)
class TermsFound:
    """Which terms a text uses: `how` is declared, inferred, assumed or chosen; `evidence` says why."""

    used: Terms
    how: str
    evidence: str
    mixed: bool = False


_DECLARED = re.compile(r"(?im)^\W*terms?(?:inology)?\W*:\s*(us|u\.s\.|american|uk|u\.k\.|british|letters?)\b")
_SAID = re.compile(
    r"(?i)(?<![a-z])(us|u\.s\.|american|uk|u\.k\.|british)\s+(?:crochet\s+)?(?:terms?|terminology|notation|abbreviations)(?![a-z])"
)
_ONLY_US = re.compile(r"(?i)(?<![a-z])(?:sc2tog|sc3tog|sc|scs|hdc|single\s+crochets?)(?![a-z])")
_ONLY_UK = re.compile(r"(?i)(?<![a-z])(?:dc2tog|dc3tog|dc2inc|dc3inc|htr|dtr|tension|miss)(?![a-z])")
_ONLY_UK_STITCH = re.compile(r"(?i)(?<![a-z])(?:htr|htr2tog)(?![a-z])")
_DC = re.compile(r"(?i)(?<![a-z])dc(?![a-z])")
_LETTER_WORK = re.compile(r"(?<![A-Za-z])\d*\s?[XVAWM](?![A-Za-z])(?!\s*\d+\s*(?:\[|$))")
_SIX_START = re.compile(r"(?im)\b([4-9]|10)\s*dc\b.*?[\[(]\s*\1\s*(?:sts?|dc)?\s*[\])]")


def odd_words(text: str, used: Terms) -> list[str]:
    """Words of a round that only the other terms use, as they are written."""
    return [m.group(0) for m in (_ONLY_UK_STITCH if used is Terms.US else _ONLY_US).finditer(text)]


def find_terms(text: str, chosen: Terms | None = None) -> TermsFound:
    """Which terms `text` is written in: chosen, else declared, else from words and counts, else US.

    Counts matter because "dc" is a word of both: a ring of four to ten "dc" is single crochet in
    UK terms, since US double crochets start on eleven to fourteen (common practice, no source).
    """
    if chosen is not None:
        return TermsFound(chosen, "chosen", "asked for")
    if declared := _DECLARED.search(text):
        word = declared.group(1).lower().replace(".", "")
        terms = {"us": Terms.US, "american": Terms.US, "uk": Terms.UK, "british": Terms.UK}.get(word, Terms.LETTERS)
        return TermsFound(terms, "declared", declared.group(0).strip())
    said = {m.group(1).lower().replace(".", "") in ("uk", "british"): m.group(0) for m in _SAID.finditer(text)}
    if len(said) == 1:
        british, words_said = next(iter(said.items()))
        return TermsFound(Terms.UK if british else Terms.US, "declared", words_said)
    us, uk = _ONLY_US.search(text), _ONLY_UK.search(text)
    if us and uk:
        return TermsFound(Terms.US, "inferred", f"'{us.group(0)}' is US, '{uk.group(0)}' is UK", mixed=True)
    if us:
        return TermsFound(Terms.US, "inferred", f"'{us.group(0)}' is a word of US terms only")
    if uk:
        return TermsFound(Terms.UK, "inferred", f"'{uk.group(0)}' is a word of UK terms only")
    if _DC.search(text):
        if start := _SIX_START.search(text):
            return TermsFound(Terms.UK, "inferred", f"a start of {start.group(1)} dc is UK terms")
        return TermsFound(Terms.US, "assumed", "'dc' alone is a word of US and of UK terms")
    if letter := _LETTER_WORK.search(text):
        return TermsFound(Terms.LETTERS, "inferred", f"'{letter.group(0).strip()}' is letter notation")
    return TermsFound(Terms.US, "assumed", "no word tells US from UK terms")
