"""How parts begin that have no label for it: a ring told in a sentence, a chain on a line of its own."""

from __future__ import annotations

import re

from craft.text.freehand.carried_on import tells_shaping
from craft.text.freehand.corrections import Taken
from craft.text.freehand.counts import sentences, tails
from craft.text.freehand.headings import heading_of
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort
from craft.text.freehand.retold import Retold
from craft.text.freehand.row import Row

_THEN = re.compile(r"[,;]?\s+(?:and\s+)?then\s+(?=(?:work|crochet|make|do|spiral|continue|go)\b)")
"""'6 sc into a ring, then work 3 rounds straight': where the first round ends."""
PULLED = re.compile(r"[,;]\s+(?:and\s+)?(?=(?:pull|draw)\b)")
"""'make a ring with 5 sc in it, pull closed': what is drawn shut there is the ring."""

MOST_RING = 30
"""Code points of a line that is a first round as a whole: 'MR. 6 SC. (6)'."""

_FOUNDATION = re.compile(r"(?:with [\w ]+, )?(\d+) fsc(?:, join)?")
"""'30 fsc, join': a part's first edge that is made of stitches."""


_CHAINED = re.compile(
    r"(?:with [\w ]+, |from 2nd ch, )?ch (\d+)(?:, with [\w ]+)?(, join)?(?:, turn)?(, skip 1|, in 2nd ch from hook)?"
)
"""'ch 6, starting from the second chain:': a chain, and where it is worked into."""

_RINGED = re.compile(
    r"(?:ch [1-4], )?(?!1 )\d+ \S+(?: \S+)? in ring(?:, (?:join|sl st))?"
    r"|ch 2, \d+ \S+(?: \S+)? in 2nd ch from hook(?:, (?:join|sl st))?"
)
"""A ring of more than one stitch ('con un anello magico' makes none), or the two chains that take its place; 'ch 2, 8 sc in
2nd ch from hook, join' is all of a small part."""


_TWO_CHAINS = re.compile(
    r"(?i)\W*(?:(?:make|work|begin\s+with|start\s+with)\s+)?(?:an?\s+slip\s*knot,?\s+(?:and\s+|then\s+)?)?(?:ch(?:ain)?s?\s*2\b|2\s*ch(?:ain)?s?\b)"
)
_INTO_HOOKED = re.compile(
    r"(?i)\b(?:ch|chain|lm|luftmasche|ml|cad|cat|l)\b.*\b(?:hook|nadel|crochet|ganchillo|uncinetto|haaknaald)\b"
)
"""'Work 6 sc into the second chain from your hook.'"""

_HOOK_AHEAD = re.compile(
    r"(?i)\s*(?:(?:with|using|mit|avec|con|met)\s+)?(?:an?\s+|the\s+|le\s+|der\s+|el\s+|l')?"
    r"(?:\d(?:[.,]\d{1,2})?\s*mm\s+hook|(?:hook|nadel|häkelnadel|crochet|ganchillo|uncinetto|haaknaald)\s+(?:nr?\.?\s*|n[º°]\s*)?"
    r"\d(?:[.,]\d{1,2})?(?:\s*mm)?)\s*[,:.]?\s+(?=\S)"
)
"""'With 3.5 mm hook make 2 ch.': the tool, before what is made."""


_LOOP_AHEAD = re.compile(
    r"(?i)(?:^|(?<=[:.]))\W*(?:make|begin\s+with|start\s+with|form)\s+(?:an?\s+)?(?:slip\s*)?(?:loop|knot)\s*[,.;]?\s*(?:and\s+|then\s+)?"
    r"(?=(?:ch(?:ain)?s?\s*2\b|(?:2|two)\s*ch(?:ain)?s?\b))"
)
"""'Make a loop, 2 ch, …': the knot on the hook, and no ring."""


_STRAND = re.compile(r"(?:with [\w ]+, )?ch (\d+),? (?=.*\bch from hook\b)")
LEAST_STRAND = 5
"""Chains of a strand; fewer are a picot, or the start of a row."""

LAST_ABOVE = 2
"""Lines above a strand in which its heading is looked for."""


def _hooked(pieces: list[str]) -> list[str]:
    """The sentences with the chain and the row along it as one: 'Ch 16. 2 sc in 2nd ch from hook …'."""
    return [". ".join(p.strip(" .") for p in pieces[:2]), *pieces[2:]] if len(pieces) > 1 else pieces


_TOOLS_AHEAD = re.compile(r"(?i)\W*(?:using|with|mit|avec|con|met)\b[^,;:]*[,;:]\s*(?=\S)")
"""'Using blue and 3mm hook, make 21 ch.'"""


def _without_tools(said: str) -> tuple[str, ...]:
    """A sentence, and what of it stands behind the yarn and the hook."""
    tools = _TOOLS_AHEAD.match(said)
    return (said,) if tools is None else (said, said[tools.end() :])


def with_its_chain(pieces: list[str]) -> list[str]:
    """The sentences of a line, two chains and what is worked in the first of them as one: 'Chain 2. Work 6 sc into the
    second chain from your hook. This is round 1.'"""
    begins = len(pieces) > 1 and _TWO_CHAINS.match(pieces[0]) and _INTO_HOOKED.search(pieces[1])
    return _hooked(pieces) if begins else pieces


class Starts(Retold):
    """Readers of a part's first line."""

    def first_round(self, text: str) -> tuple[str, str, str] | None:
        """'For the pincushion begin with 6 sc in a ring.': a first round that has no label."""
        hook, knot = _HOOK_AHEAD.match(text), _LOOP_AHEAD.search(text)
        if hook is not None and (begun := self.first_round(text[hook.end() :])) is not None:
            return f"{hook.group(0)}{begun[0]}", *begun[1:]
        if knot is not None and (begun := self.first_round(text[knot.end() :])) is not None:
            return f"{text[: knot.start()]}{begun[0]}", begun[1], f"{begun[2]} {knot.group(0).strip()}".strip()
        ringed = _TWO_CHAINS.match(text) or any(t.sort is Sort.RING for t in tokens(text, self.vocabulary()))
        if heading_of(text) is not None and not ringed and ":" not in text:
            return None
        whole = [text] if len(text) < MOST_RING else []
        pieces = [piece for said in sentences(text) for piece in _THEN.split(said)]
        pieces = [*_hooked(pieces)[:1], *pieces] if _TWO_CHAINS.match(text) else pieces
        begins = [PULLED.split(piece)[0] for piece in pieces] + [b for piece in pieces if (b := self._begun(piece))]
        for piece in (*whole, *pieces, *begins):
            for part in (piece.rsplit(":", 1)[-1].strip(), piece):
                if len(part) >= 120 or label_at(part) or not self.rings(part):
                    continue
                at = max(text.find(part), 0)
                if re.search(r"=|\b(?:MR|means|is)\b.*=", part):
                    return None
                before = re.sub(r"(?i)^(?:for|begin|start|pour|für|para|per|voor)\s+(?:the\s+)?", "", text[:at])
                lead = re.match(r"(?i)(?:for|begin|start)\s+the\s+([\w -]+?)\s+(?:begin\s+|start\s+)?with\b", part)
                if lead:
                    before = lead.group(1)
                return before, part, text[at + len(part) :].strip(" .,")
        return None

    def _begun(self, piece: str) -> str:
        """'6 sc in a ring, increase to 12, 18 and 24': the words before the comma, where shaping is told behind it."""
        begun, _, onward = piece.partition(", ")
        return begun if onward and tells_shaping(onward, self.vocabulary()) else ""

    def rings(self, part: str) -> bool:
        """Whether words start a ring and do nothing else: 'begin with 6 sc in a ring', 'Magic circle with 6 sc. 6 sc'."""
        counted = [t for t in tails(part, self.language) if t.count is not None]
        works = [part, *(t.work for t in counted if t.sure or t.work.endswith(str(t.count)))]
        ways = (way for work in works if work for way in self.candidates(work))
        return any(_RINGED.fullmatch(way.work) for way in ways)

    def chain_line(self, row: Row, text: str) -> str | None:
        """'Ch 6.', 'Chain 24, close with a slip stitch.' before a part's first round."""
        for piece in (part for said in sentences(text) for part in _without_tools(said)):
            for way in self.candidates(piece):
                if (m := _FOUNDATION.fullmatch(way.work)) and self.next_label() == 1:
                    self.begin(row)
                    self.part.live = int(m.group(1))
                    return way.work
                if m := _CHAINED.fullmatch(way.work):
                    if len(way.noise) > 12 or int(m.group(1)) < 2:
                        continue
                    follows = self.next_label()
                    if follows != 1:
                        continue
                    self.begin(row)
                    self.part.live = int(m.group(1)) if m.group(2) else 0
                    self.part.chained = not m.group(2)
                    if m.group(3) or way.work.startswith("from 2nd ch"):
                        self.part.lead = "from 2nd ch, "  # 'Chain 6, miss first chain.'
                    return f"Ch {m.group(1)}{', join' if m.group(2) else ''}"
        return None

    def strand(self, text: str) -> tuple[str, str] | None:
        """A part that is one row along its chain, 'Ch 16. 2 sc in 2nd ch from hook and in each ch across (30).': the name
        that stands before it, if there is one, and its row; None for any other line."""
        if self.section not in (None, Taken.NOTE) or self.next_label() == 1:
            return None
        name, colon, rest = text.partition(":")
        named = bool(colon) and heading_of(name) is not None and self._is_strand(rest)
        headed = any(heading_of(above.text) is not None for above in self.waiting[-LAST_ABOVE:])
        if named:
            return name, rest.strip()
        return ("", text) if headed and self._is_strand(text) else None

    def _is_strand(self, text: str) -> bool:
        works = (tail.work for tail in tails(next(iter(_hooked(sentences(text))), ""), self.language) if tail.work)
        found = (m for work in works for way in self.candidates(work) if (m := _STRAND.match(way.work)) is not None)
        return any(
            int(m[1]) >= (LEAST_STRAND if self.next_label() != 2 else 2) for m in found
        )  # row 2 is told behind it

    def next_label(self) -> int | None:
        if self.follows is not None:
            return self.follows
        for row in self.rows[self.at + 1 : self.at + 4]:
            label = label_at(row.text)
            if label is not None:
                return label.first
        return None
