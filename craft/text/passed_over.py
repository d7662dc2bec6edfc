"""Lines that look like rounds and that no reading took for any: told, so that no text is sound of which rounds were left out."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterator
from dataclasses import replace

from craft.problems import Place, Problem
from craft.rounds.numbers import CARDINALS
from craft.text import freehand
from craft.text.checked import Checked, ordered
from craft.text.notation import Line, LineKind, stitch_regex

_RINGED = re.compile(r"(?i)\b\d{1,2}\s+\w+\s+(?:in|into)\s+(?:an?\s+|the\s+)?(?:magic|adjustable|ring|loop|circle)")
"""'6 sc into a magic loop, then work 3 rounds straight.'"""

_TELLS_ROUNDS = re.compile(
    rf"(?i)\bfor\s+(?:the\s+next\s+|another\s+)?(?:\d{{1,3}}|{'|'.join(CARDINALS)})\s+(?:more\s+)?(?:rounds|rnds|rows)\b"
)
"""'sc in each st for six more rounds'."""

_SAYS_COUNT = re.compile(
    r"(?i)\b(?:so|that|now|then|should|will|you'll)\s+(?:that\s+)?(?:you\s+|we\s+)?(?:now\s+)?(?:have|get|end\s+up\s+with)\s+\d{1,3}\b"
    r"|\b(?:so|until)\s+(?:that\s+)?(?:only\s+)?\d{1,3}\s+(?:sts\s+|stitches\s+)?(?:remain|are\s+left)\b"
    r"|\bfor\s+(?:a\s+total\s+of\s+)?\d{1,3}\s+(?:sts?|stitches)\s*[.!]?\s*$"
)
"""'so you have 12', 'so that 10 remain', 'for 24 stitches': said of a round, and of nothing else."""

_COUNTED = re.compile(r"(?i)[\[(=]\s*\d{1,4}\s*(?:sts?|sc|stitches)?\s*[\])]?\s*\.?\s*$")


def looks_passed_over(checked: Checked) -> bool:
    """Whether a line that the notation takes for prose has stitches, and ends in a count or begins with a label, as
    rounds do, or starts a ring."""
    signs = (_COUNTED, _TELLS_ROUNDS, _RINGED)
    return any(True for _ in _even_rounds(checked)) or any(
        any(sign.search(line.text) for sign in signs) or freehand.label_at(line.text) is not None
        for line in worded(checked)
    )


_ENDS = "This line tells stitches as a round does, and is not read as a round: begin it as 'R4: …' does."
_GAP = "A round's number is left out here, and this line tells stitches: if it is that round, begin it as 'R4: …' does."
_ASTRAY = (
    "Reading this line needed judgement, and the numbers of the rounds do not go on behind it: begin it as 'R4: …' does, or "
    "make it a note."
)

LEAST_PASSED_OVER = 2
"""Lines of prose that end in a count, as rounds do, before they are taken for rounds that were not read."""

_ENDS_IN_COUNT = re.compile(r"[.,;:–-]\s*\d{1,3}\s*\.?\s*$")


def with_passed_over(checked: Checked) -> Checked:
    """The reading with a fault for every line that looks like a round and is none, when there are several: no text is
    sound of which rounds were left out."""
    signs = (_COUNTED, _ENDS_IN_COUNT, _TELLS_ROUNDS)
    lines = [ln for ln in worded(checked) if any(sign.search(ln.text) for sign in signs)]
    said = checked.corrections.of_line if checked.corrections else None
    lines = [ln for ln in lines if said is None or not said(ln.number)]
    if len(lines) < LEAST_PASSED_OVER:
        lines = [ln for ln in worded(checked) if _TELLS_ROUNDS.search(ln.text) or _SAYS_COUNT.search(ln.text)]
        lines = [ln for ln in lines if said is None or not said(ln.number)]
    ways = (_several_rounds, _even_rounds, _repeated_rounds, _told_work, _bare_work, _unworked, _numbered_work)
    plainly = [line for way in ways for line in way(checked)]
    lines += [ln for ln in plainly if ln not in lines and not (said and said(ln.number))]
    told = [Problem("passed-over", Place(None, None, ln.number, 1, ln.span), _ENDS) for ln in lines]
    for sentence, found in ((_GAP, _in_gaps(checked)), (_ASTRAY, _amiss(checked))):
        more = [ln for ln in dict.fromkeys(found) if ln not in lines and not (said and said(ln.number))]
        told += [Problem("passed-over", Place(None, None, ln.number, 1, ln.span), sentence) for ln in more]
        lines += more
    if not told:
        return checked
    return replace(checked, problems=ordered((*checked.problems, *told)))


_BEGINS_NUMBERED = re.compile(r"[>\s]*(?P<n>\d{1,3})(?!\d|\s*(?:mm|cm))")
"""'5-8 recto, 24', where the rounds 5 to 8 are left out."""


def _in_gaps(checked: Checked) -> Iterator[Line]:
    """Lines of prose with stitches that stand where a round's number is left out: the round is told in them."""
    skipped = [p for p in checked.problems if p.code == "skipped-number"]
    gaps = [p.place.line for p in skipped]
    lacking = {int(n) for p in skipped for n in re.findall(r"\d+", p.message.partition(" is missing")[0])}
    rounds = [ln.number for ln in checked.reading.lines if ln.kind is LineKind.ROUND]
    for below in gaps:
        above = max((n for n in rounds if n < below), default=below)
        for line in checked.reading.lines:
            words = set(re.findall(r"[^\W\d_]+", line.text.lower()))
            label = freehand.label_at(line.text.lstrip("> "))
            missing = label is not None and label.first is not None and (not label.bare or label.first in lacking)
            begun = _BEGINS_NUMBERED.match(line.text)
            missing = missing or (begun is not None and bool(lacking) and int(begun["n"]) == min(lacking))
            tells = bool(words & freehand.stitch_words()) or missing
            if above < line.number < below and tells:
                yield line


def _amiss(checked: Checked) -> Iterator[Line]:
    """Rounds that needed judgement, and behind which the numbers do not go on: what was passed over may be a number,
    'IV ~ V.', and what was taken for rounds may be none."""
    astray = {p.place.line for p in checked.problems if p.code in ("skipped-number", "double-number")}
    judged = {p.place.line for p in checked.problems if p.code == "freehand"}
    rounds = [line for line in checked.reading.lines if line.kind is LineKind.ROUND]
    return (above for above, line in itertools.pairwise(rounds) if line.number in astray and above.number in judged)


_EVEN_ROUNDS = re.compile(
    rf"(?i)^\W*(?:then\s+|now\s+)?(?:work\s+|crochet\s+)?(?:\d{{1,3}}|{'|'.join(CARDINALS)})\s+(?:more\s+)?(?:rounds|rnds)\s+"
    r"(?:(?:even|plain|straight|without\s+(?:shaping|increas\w+|changes?))\b|of\s+\d)"
    rf"|\b(?:until|till)\b[^.]{{0,30}}\b(?:\d{{1,3}}|{'|'.join(CARDINALS)})\s+(?:rounds|rnds|rows)\b"
    rf"|^\W*(?:\w+\s+){{0,2}}(?:\d{{1,3}}|an?|{'|'.join(CARDINALS)})\s+(?:more\s+)?(?:plain|even|straight)\s+(?:rounds?|rnds?)\b"
    r"|\b(?:\d{1,2}|ein|eine|zwei|drei|vier|fünf|un|une|deux|trois|quatre|cinq|una|dos|tres|cuatro|cinco|due|tre|quattro|een|twee"
    r"|drie|vier|vijf)\s+(?:giri|giro|tours?|vueltas?|runden?|rdn?\.?|toeren|toer)\s+(?:a|à|auf|zu|de|di|op|van|mit|con|avec|met"
    r"|sans|senza|sin|ohne|zonder|gerade|drit\w+|lisc\w+|recht\w*|simples?)\b"
    r"|(?:^|[.!;]\s+)(?:next|last|final)\s+(?:rnd|round|row)\.?\s*[:-]?\s*\d{1,4}\s*(?:[.,;(]|$)"
)
"""'3 rounds even', '2 rnds of 24', 'Next rnd 12.': rounds in which no stitch is named."""


_COUNT_FOR = re.compile(r"(?i)^\W*\d{1,3}\s+(?:for|over|über|in|auf|pendant|sur|durante|en|per|su|gedurende|voor|op)\s")
"""'24 for 4 more rounds', where there are not as many."""


def _even_rounds(checked: Checked) -> Iterator[Line]:
    """Lines of prose that tell plain rounds and name no stitch."""
    prose = (LineKind.NOTE, LineKind.STEP, LineKind.WORK)
    lines = (line for line in checked.reading.lines if line.kind in prose)
    return (
        line
        for line in lines
        if _EVEN_ROUNDS.search(line.text)
        or freehand.tells_plain_rounds(line.text)
        or (_COUNT_FOR.match(line.text) and freehand.tells_rounds(line.text))
    )


_BRACKETED = re.compile(r"[\[(]\s*\d{1,4}\s*[\])]")
LEAST_BRACKETS = 3
"""Counts in brackets of a line of prose with stitches: it tells rounds, one behind the other."""


def _several_rounds(checked: Checked) -> Iterator[Line]:
    """'Body: MR 6 [6] // *1 sc, inc* 3x [9] // …': rounds on one line that nothing took apart, in any language."""
    prose = (LineKind.NOTE, LineKind.STEP, LineKind.HEADING)
    for line in checked.reading.lines:
        words = set(re.findall(r"[^\W\d_]+", line.text.lower()))
        if (
            line.kind in prose
            and len(_BRACKETED.findall(line.text)) >= LEAST_BRACKETS
            and words & freehand.stitch_words()
        ):
            yield line


def _told_work(checked: Checked) -> Iterator[Line]:
    """Lines of words in which a sentence tells work, behind the first round: 'Then two sc and a decrease, six times.'"""
    rounds = [line.number for line in checked.reading.lines if line.kind is LineKind.ROUND]
    translation = checked.translation
    language, terms = (
        (translation.language, translation.terms) if translation is not None else ("en", checked.reading.pattern.terms)
    )
    for line in checked.reading.lines:
        if not rounds or line.kind not in (LineKind.NOTE, LineKind.STEP) or line.number < rounds[0]:
            continue
        between = line.number < rounds[-1]
        if freehand.tells_work(line.text.lstrip("> "), language, terms, between=between) and not freehand.explains(
            line.text, language, terms
        ):
            yield line


_SHAPES = {"increase", "increases", "inc", "decrease", "decreases", "dec", "double"}
_AROUND_SHAPES = {
    "in", "into", "each", "every", "all", "around", "round", "the", "stitch", "stitches", "st", "sts", "then", "and", "next",
    "now", "of", "to", "end", "across", "one", "other", "second", "third", "evenly", "times", "a",
}  # fmt: skip
"""Words of a line that tells an increase or a decrease and nothing else: 'Then increase in each stitch.'"""


def _bare_work(checked: Checked) -> Iterator[Line]:
    """Lines between rounds that are nothing but stitches and their numbers, in any language: 'V-VII giro: 24 mb'."""
    rounds = [ln.number for ln in checked.reading.lines if ln.kind is LineKind.ROUND]
    for line in checked.reading.lines:
        if line.kind not in (LineKind.NOTE, LineKind.STEP) or not rounds or not rounds[0] < line.number < rounds[-1]:
            continue
        lead, colon, behind = line.text.rpartition(":")
        words = re.findall(r"[^\W\d_]+", behind.lower())
        explains = colon and set(re.findall(r"[^\W\d_]+", lead.lower())) & freehand.stitch_words()
        alone = (
            re.search(r"\d", behind)
            and {*words} - {"x"}
            and {*words} <= freehand.stitch_words() | {"around", "all", "x"}
        )
        shaped = set(words) & _SHAPES and set(words) <= freehand.stitch_words() | _SHAPES | _AROUND_SHAPES
        if words and (alone or shaped) and not explains:
            yield line


_COUNT_ALONE = re.compile(r"\W*(?P<n>\d{1,4})\W*(?:sts?\W*)?")
_NUMBER_AND_COUNT = re.compile(r"[>\s]*(?P<at>\d{1,3})\s*[:.)]\s*(?P<n>\d{1,4})(?:\s*\(?[+-]\s*\d{1,3}\)?)?\s*$")
"""'5: 24', '2: 12 (+6)': several of such lines are a list of rounds and their counts."""

_BEGINS = re.compile(r"[\s(\[*]*(?:\d{1,3}\s*[x×*]?\s*)?[(\[*]*(?:\d{1,3}\s*)?(?P<word>[^\W\d_]+)")


def _numbered_work(checked: Checked) -> Iterator[Line]:
    """Lines of prose that a number and then stitches begin, '11: (2 sc, dec) around. 18 sc.', or that a round's own name
    and number begin, 'Runde zwei', in any language: a round whose number nothing led up to."""
    rounds = [line.number for line in checked.reading.lines if line.kind is LineKind.ROUND]
    worked = {(t.number, t.live) for part in checked.parts for t in part.rounds}
    matched = ((ln, _NUMBER_AND_COUNT.match(ln.text)) for ln in checked.reading.lines if ln.kind is LineKind.NOTE)
    listed = [ln for ln, m in matched if m is not None and (int(m["at"]), int(m["n"])) not in worked]
    if rounds and len(listed) >= LEAST_PASSED_OVER:
        yield from (ln for ln in listed if ln.number > rounds[0])
    for line in checked.reading.lines:
        text = line.text.lstrip("> ")
        label = freehand.label_at(text) if line.kind in (LineKind.NOTE, LineKind.STEP) else None
        if label is None or label.first is None or (label.bare and not re.search(r"\d", text[label.end :])):
            continue
        begins = _BEGINS.match(text, label.end)
        words = set(re.findall(r"[^\W\d_]+", text[label.end :].lower()))
        alone = _COUNT_ALONE.fullmatch(text, label.end) if rounds and line.number > rounds[0] else None
        told_again = alone is not None and (label.first, int(alone["n"])) in worked
        if alone is not None and not told_again and (not label.bare or label.first != label.last):
            yield line  # '2-4: 9'
        begun = begins is not None and begins["word"].lower() in freehand.stitch_words()
        if begun or (not label.bare and words & freehand.stitch_words()):
            yield line


def _unworked(checked: Checked) -> Iterator[Line]:
    """Rounds that tell stitches and make none of them."""
    empty = {p.place.line for p in checked.problems if p.code == "no-work"}
    for line in checked.reading.lines:
        if line.number in empty and set(re.findall(r"[^\W\d_]+", line.text.lower())) & freehand.stitch_words():
            yield line


_REPEATS_ROUNDS = re.compile(
    r"(?i)^\W*(?:repeat|rep)\b[^.]*\b(?:rows?|rounds?|rnds?)\b[^.]*\b(?:times?|once|twice|more)\b"
)
"""'Repeat 2nd row 4 more times.': how often is said, where 'until it is 20 cm long' leaves it to the maker."""


def _repeated_rounds(checked: Checked) -> Iterator[Line]:
    """Lines of prose that have rounds repeated: what nothing reads of them is work left out."""
    prose = (LineKind.NOTE, LineKind.STEP, LineKind.WORK)
    return (line for line in checked.reading.lines if line.kind in prose and _REPEATS_ROUNDS.match(line.text))


def worded(checked: Checked) -> Iterator[Line]:
    """Lines that the notation takes for prose, in which stitches stand."""
    stitches = re.compile(rf"(?i)(?<![a-z]){stitch_regex(checked.reading.pattern.terms)}")
    prose = (LineKind.NOTE, LineKind.STEP)
    return (line for line in checked.reading.lines if line.kind in prose and stitches.search(line.text))
