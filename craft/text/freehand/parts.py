"""Parts of a text as they begin and go on: their headings, and the words between their rounds."""

from __future__ import annotations

import itertools
import re
from dataclasses import replace

from craft.problems import Span
from craft.rounds.pattern import Way
from craft.rounds.stitches import Terms
from craft.text.freehand.corrections import Taken
from craft.text.freehand.counts import tails
from craft.text.freehand.cursor import FIRSTS
from craft.text.freehand.headings import Heading, heading_of, made_in
from craft.text.freehand.labels import label_at
from craft.text.freehand.lexer import tokens
from craft.text.freehand.lexicon import Sort, table_of, words_file
from craft.text.freehand.rounds import Rounds
from craft.text.freehand.row import Row
from craft.text.freehand.so_far import Line, PartSoFar
from craft.text.notation import print_body, read

SURE_HEADING = 4
"""The weight of a heading that nothing else looks like: marked, or with a number to make."""

NEAR = 3
"""Rows above a round among which its heading is looked for, where it works along pieces made before."""

_COLOUR_FIRST = re.compile(r"(?i)^\W*(?:with|mit|avec|con|met)\s+[^\W\d]+(?:\s+[^\W\d]+)?\W*$")
MOST_LEAD = 6
"""'Mit Gold' right above the rounds says their colour: it is a heading only where nothing else is."""

_REJOINED = re.compile(r"(?i)^[-•*\s]*(?:re-?join|re-?attach)\b")

_JOINED = re.compile(
    r"(?i)\b(?:join(?:ing)?|connect(?:ing)?|verbind\w*|zusammen\w*|unir\w*|unisci|joindre|réunir|réunissez|assembler"
    r"|samen\w*|aan\s+elkaar)\b"
)
_AROUND_NTH = re.compile(r"around the (first|second|third|fourth) ([^,;()]+?)(?=,|;|\)|$)")
"""'12 sc around the first lobe, 12 sc around the second lobe'."""

MOST_JOINING = 2
"""Words of a heading that says that pieces are joined."""

_MADE_AGAIN = re.compile(
    r"(?i)(?:^|[.!;,]|\b(?:and|y|und|et|e|en)\s)\W*(?:(?:now\s+)?(?:make|work|crochet)\s+(?:a\s+second\b|another\b|two\s+of\s+th|one\s+more\b)(?:\s+(?:one|piece))?"
    r"|(?:ein|noch\s+ein)e?[ns]?\s+(?:zweite[sn]?\s+)?(?:genauso|ebenso|gleiche[sn]?|häkeln|arbeiten)"
    r"|en\s+faire\s+(?:un|une)\s+(?:deuxième|second|autre)|hacer?\s+(?:otr[oa]|un[oa]?\s+segund[oa])"
    r"|farne\s+un(?:'altr|\s+second)|maak\s+(?:er\s+)?nog\s+een"
    r"|(?:make|work|crochet|repeat\s+for)\s+the\s+(?:second|other)\s+\w+(?:\s+(?:in\s+)?the\s+same|\s+exactly|\s*[.!]?$)"
    r"|(?:das|die|den)\s+(?:zweite|andere)n?\s+[^\W\d_]+\s+(?:genauso|ebenso|gleich)"
    r"|l[ae']\s*(?:deuxième|seconde?|autre)\s+[^\W\d_]+\s+de\s+la\s+même"
    r"|l[ao]\s+(?:segund|otr)[ao]\s+[^\W\d_]+\s+(?:igual|de\s+la\s+misma)"
    r"|(?:la\s+second|il\s+second|l'altr)[ao]\s+[^\W\d_]+\s+(?:allo\s+stesso|nello\s+stesso|ugual)"
    r"|(?:(?:make|work|crochet|faire|faites|häkle|häkeln?|hacer|haz|tejer|fare|fai|lavora\w*|haak|maak)\s+(?:(?:the|l[aeo]|das|die|den|el|il|het|de)\s+)?)?"
    r"[^\W\d_]+\s+(?:2|two|zwei|deux|dos|due|twee)\s+(?:in\s+)?(?:the\s+same|exactly|genauso|ebenso|de\s+la\s+même|igual"
    r"|de\s+la\s+misma|allo\s+stesso|ugual\w*|net\s+zo|hetzelfde|op\s+dezelfde)"
    r"|(?:het|de)\s+(?:tweede|andere)\s+[^\W\d_]+\s+(?:net\s+zo|hetzelfde|op\s+dezelfde))\b"
)
"""'Make a second one.': the part above, twice."""

_OF_MANY = re.compile(rf"(?i)^(?:{'|'.join(sorted(FIRSTS))})\s+|\s+(?:1|one|eins|une?|uno|een|I)$")
"""What tells a name as that of the first of several."""

_IN_BRACKETS = re.compile(r"(?i)[(\[]\s*((?:change|changing|switch|switching)\s+to\b[^()\[\]]*?)\s*[)\]]\W*")
"""'(change to orange)' between two rounds."""

_FREE_LOOPS = re.compile(
    r"(?i)free\s+(?P<side>front|back)?\s*loops?\b(?:.*?(?:round|rnd|rd|r|row|of|by)\.?\s*(?P<round>\d{1,3}))?"
)
_LOOPS_OF_ROUND = re.compile(
    r"(?i)\b(?P<side>front|back)\s+loops?\s+(?:(?:left|over|free|unworked|unused|remaining|that\s+(?:are|were)|exposed)\s+)*(?:of|from|on|at|in|by)\s+(?:the\s+)?(?:round|rnd|rd|r|row)\.?\s*"
    r"(?P<round>\d{1,3})"
)
"""'in the free loops of 5b', 'to any front loop of Rnd 5': where a skirt begins."""

_SECTION = re.compile(r"###\s+\S")

_AT_HELD = "Rejoin at the held stitches."

_LOOPS = {Sort.FRONT, Sort.BACK, Sort.FREE, Sort.FREE_BACK}

_HELD, _SKIP = re.compile(r"\b(?:leave|held)\b"), re.compile(r"\bskip (\d+)\b")

_NAMED_LINE = re.compile(r"^\W*(?P<name>[^\W\d_]+(?: [^\W\d_]+)?)\s*:\s+(?P<rest>\S.*)$")

_IN_COLOUR = re.compile(
    r"(?i)^(?:(?:in|with|using|colou?r|yarn|farbe|mit|en|avec|con|in|met|couleur|color|colore|kleur|fil|hilo|filo|garen)\b\s*:?\s*)+"
)

MOST_LINE = 160
"""Code points of a line that says where the yarn is joined again."""


def _is_line(text: str, terms: Terms) -> bool:
    """Whether the notation itself reads a line of words as work."""
    return any(r.way is Way.LINE for p in read(text.strip(), terms).pattern.parts for r in p.rounds)


_DENIED = re.compile(r"(?i)\b(?:not|\w+n't|nicht|keine?n?|pas|non|niet|geen)\b|\bno\s+\w+r\b")
"""'Knip de draad niet af': said of the work under way, and no name."""


def _is_joining(text: str) -> bool:
    """Whether a line tells that pieces are joined, 'Nun beide Teile verbinden:', and is no heading, as 'JOINING' is."""
    return len(text.split()) > MOST_JOINING and _JOINED.search(text) is not None


class Parts(Rounds):
    """Begins parts, and writes the words that wait for what follows them."""

    def begin(self, row: Row) -> None:
        """A part begins: its heading is the nearest line above that looks like one."""
        best: tuple[int, Heading] | None = None
        for back, above in enumerate(reversed(self.waiting[-8:])):
            heading = heading_of(above.text) if above.taken is None else None
            # A line of a list is a heading only right above the rounds, and when it lists nothing.
            if heading is not None and above.listed and (back or "," in above.text) and heading.weight < SURE_HEADING:
                continue
            if heading is None or _MADE_AGAIN.search(above.text) is not None:
                continue
            known = table_of(self.language, self.terms).get(heading.name.lower()) is not None
            if known and heading.weight < SURE_HEADING:
                continue  # 'Door' is a word of work in Dutch, and a part where it is marked as one
            weight = heading.weight * 2 - back - (MOST_LEAD if _COLOUR_FIRST.match(above.text) else 0)
            if heading.weight > 0 and (best is None or weight > best[0] + 2):
                best = (weight, heading)
                at = len(self.waiting) - 1 - back
        if best is None:
            above_rows, below_rows = self.waiting, []
            name, make, span, colour = "", 1, row.span, ""
        else:
            above_rows, below_rows = self.waiting[:at], self.waiting[at + 1 :]
            heading = best[1]
            name, make, span = heading.name, heading.make, self.waiting[at].span
            colour = self._colour_said(heading.rest)
            if heading.rest.strip(" .,;:()[]") and not colour:
                below_rows = [replace(self.waiting[at], text=heading.rest), *below_rows]
        for waiting in above_rows:
            self.prose(waiting)
        self.waiting = []
        told = [made_in(waiting.text) for waiting in below_rows]
        self.begin_called(Heading(name, max([make, *told]), "", 0), span)
        if colour:
            self.out.append(Line(f"With {colour}", span))
        for waiting in below_rows:
            self._lead_in(waiting)
            self.prose(waiting)

    def _colour_said(self, rest: str) -> str:
        """The colour that is all that a heading says beside its name and number, 'EAR (make 2, cream)'; '' for anything
        else."""
        said = _IN_COLOUR.sub("", rest.strip(" .,;:()[]")).strip()
        tints = {*words_file("en")["colours"], *words_file(self.language)["colours"]}
        listed = {str(m.value).lower() for m in self.own.values() if m.sort is Sort.COLOUR}
        return said.title() if said.lower() in tints | listed else ""

    def begin_called(self, heading: Heading, span: Span) -> None:
        """A part with this heading begins."""
        self.part = PartSoFar(heading.name, heading.make)
        self.parts.append(self.part)
        self.closed = False
        if heading.name or len(self.parts) > 1:
            shown = heading.name or f"Part {len(self.parts)}"
            self.out.append(Line(f"## {shown}{f' (make {heading.make})' if heading.make > 1 else ''}", span))

    def _lead_in(self, row: Row) -> None:
        """'in the free loops of 5b': where the part's first round is worked."""
        found = _FREE_LOOPS.search(row.text) or _LOOPS_OF_ROUND.search(row.text)
        said = tokens(row.text, self.vocabulary())
        sorts = {t.sort for t in said}
        if found:
            side = f"{found['side'].lower()} " if found["side"] else ""
            of_round = f" of R{found['round']}" if found["round"] else ""
            self.part.lead = f"in the free {side}loops{of_round}, "
        elif self.language != "en" and sorts & {Sort.FREE, Sort.FREE_BACK, Sort.UNWORKED} and sorts & _LOOPS:
            side = "back" if sorts & {Sort.BACK, Sort.FREE_BACK} else "front"
            number = next((t.value for t in reversed(said) if t.sort is Sort.NUMBER), None)
            self.part.lead = f"in the free {side} loops{f' of R{number}' if number else ''}, "
        elif Sort.RING in sorts and not sorts & {Sort.NUMBER, Sort.STITCH}:
            self.part.ringed = True  # 'Foundation ring: magic loop.'

    def prose(self, row: Row) -> None:
        text = row.text.strip()
        if not text:
            return
        if row.taken is not None:
            self.out.append(Line(f"> {text}", row.span))
            return
        if _SECTION.match(text) and self.part.rounds:
            self.out.append(Line(text, row.span))  # '### Skirt', a section of the part under way
            return
        if (said := _IN_BRACKETS.fullmatch(text)) is not None:
            text = said.group(1)
        alone = read(text, self.terms).pattern
        worked = next((r for p in alone.parts for r in p.rounds if r.way is Way.LINE), None)
        if worked is not None and self.parts:
            bracket = f" [{worked.count}]" if worked.count is not None else ""
            self.out.append(Line(f"{print_body(worked.body, Terms.US)}{bracket}", row.span))
            return
        before_a_round = read(f"{text}\nR1: 6 sc in ring\n").pattern
        if (
            any(p.name for p in before_a_round.parts)
            or any(p.rounds for p in alone.parts)
            or label_at(text) is not None
            or (text.lower().startswith("with ") and self._names_piece(text))
        ):
            text = f"> {text}"
        self.out.append(Line(text, row.span))

    def _names_piece(self, text: str) -> bool:
        """'With the second bump still on the hook': a piece, which is no colour."""
        return any(t.sort is Sort.PIECE for t in tokens(text, self.vocabulary()))

    def made_again(self, text: str) -> None:
        """'Make a second one': the part under way is made twice, which its heading says."""
        if self.part.make != 1 or not self.part.rounds or _MADE_AGAIN.search(text) is None:
            return
        at = next((k for k in range(len(self.out) - 1, -1, -1) if self.out[k].text.startswith("## ")), None)
        if at is not None and self.out[at].text == f"## {self.part.name}":
            self.part.make = 2
            one = _OF_MANY.sub("", self.part.name)  # 'Leg 1', 'First leg': both of them are legs now
            if one and all(other.name.lower() != one.lower() for other in self.parts):
                self.part.name = one[0].upper() + one[1:]
            self.out[at] = replace(self.out[at], text=f"## {self.part.name} (make 2)")

    def flush(self) -> None:
        for waiting in self.waiting:
            self.prose(waiting)
        self.waiting = []

    def _bridge(self) -> int:
        """The chains of a line that is no round, 'Ch 3 and continue to the body'; 0 where none is made."""
        for row in reversed(self.waiting[-NEAR:]):
            said = [t for t in tokens(row.text, self.vocabulary()) if t.sort is not Sort.QUIET]
            for a, b in itertools.pairwise(said):
                if {a.sort, b.sort} == {Sort.CHAIN, Sort.NUMBER}:
                    return int(a.value if a.sort is Sort.NUMBER else b.value)
        return 0

    def _joins_pieces(self, rest: str) -> bool:
        """Whether a round below a heading works along parts that were made before: 'Body', 'R6 - sc in 12 of leg two'; or
        along several of the part under way, 'Join the two lobes:', which is done then."""
        if self.part.rounds and self.part.make > 1 and self._takes_several(rest):
            return True
        above = self.waiting[-NEAR:] if self.part.rounds else []
        telling = (_is_joining, _DENIED.search)
        named_above = (row.text for row in above if row.taken is None and not any(way(row.text) for way in telling))
        if not any(heading_of(text) is not None for text in named_above):
            return False
        named = {t.value for t in tokens(rest, self.vocabulary()) if t.sort is Sort.PIECE}
        return len(named) > 1

    def _takes_several(self, rest: str) -> bool:
        """Whether a round works around the first and the second of the part under way."""
        own = self.part.name.lower().rstrip("s")
        ways = (way for tail in tails(rest, self.language) if tail.work for way in self.candidates(tail.work))
        around = [found for way in ways for found in _AROUND_NTH.findall(way.work.lower())]
        return len({nth for nth, name in around if name.rstrip("s") == own}) > 1

    def _rejoins(self, text: str) -> bool:
        """Whether a line takes up stitches that were left: 'Rejoin at the next unworked stitch', 'Den Faden an den
        stillgelegten Maschen anschlingen'; loops left free are worked into, and not taken up."""
        sorts = {t.sort for t in tokens(text, self.vocabulary())}
        if sorts & {Sort.FREE, Sort.FREE_BACK, Sort.LEAVE, Sort.FRONT, Sort.BACK} or len(text) > MOST_LINE:
            return False
        if _REJOINED.match(text):
            return True
        left = bool(sorts & {Sort.UNWORKED, Sort.SKIP})
        return (Sort.REJOIN in sorts and (left or Sort.REST in sorts)) or (
            Sort.UNWORKED in sorts and Sort.PLACE in sorts and Sort.IN in sorts
        )

    def _hold_skipped(self) -> None:
        """'ch 3, skip 3' of this part, whose stitches are worked later: they wait there, and are not passed over."""
        begun = next((k for k in range(len(self.out) - 1, -1, -1) if self.out[k].text.startswith("## ")), 0)
        own = self.out[begun:]
        if any(_HELD.search(line.text) for line in own):
            return
        for at, line in enumerate(own, begun):
            if "ch " in line.text and (skipped := _SKIP.search(line.text)) is not None:
                held = f"leave {skipped[1]} sts"
                self.out[at] = replace(line, text=f"{line.text[: skipped.start()]}{held}{line.text[skipped.end() :]}")

    def _taken_up_again(self) -> bool:
        """Whether the part goes on at stitches that were left: 'Back', 'Rejoin at the held stitches.'; its name then
        heads a section of the same part."""
        at = next((k for k, w in enumerate(self.waiting) if w.taken is None and self._rejoins(w.text)), None)
        if at is None:
            return False
        if (named := _NAMED_LINE.match(self.waiting[at].text)) is not None:
            row = self.waiting[at]  # 'Thumb: join yarn at the gap'
            self.waiting[at : at + 1] = [replace(row, text=named["name"]), replace(row, text=named["rest"])]
            at += 1
        self._hold_skipped()
        if not _is_line(self.waiting[at].text, self.terms):
            row = self.waiting[at]
            self.waiting[at : at + 1] = [replace(row, taken=Taken.NOTE), replace(row, text=_AT_HELD)]
        heading = heading_of(self.waiting[at - 1].text) if at else None
        if heading is not None and self.waiting[at - 1].taken is None:
            for row in self.waiting[: at - 1]:
                self.prose(row)
            self.out.append(Line(f"## {heading.name}", self.waiting[at - 1].span))
            self.waiting = self.waiting[at:]
        return True
