"""What words mean in a text under way: its own words, the parts so far by all the names that they go by."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import replace

from craft.problems import Place, Problem
from craft.rounds.stitches import Terms
from craft.text.freehand.corrections import Taken
from craft.text.freehand.cursor import ORDINALS
from craft.text.freehand.guessed import plain_stitch_of, shaping_letters
from craft.text.freehand.legend import explained, legend, piece_phrases, terms_of
from craft.text.freehand.lexer import Vocabulary
from craft.text.freehand.lexicon import Meaning, Sort, language_of, table_of
from craft.text.freehand.phrases import Said
from craft.text.freehand.plain_lines import plain
from craft.text.freehand.ring_apart import ring_apart
from craft.text.freehand.row import Row
from craft.text.freehand.so_far import Line, PartSoFar
from craft.text.notation.names import Names

_NTH_PIECE = re.compile(rf"around the (?P<nth>{'|'.join(ORDINALS)}) (?P<noun>[^\W\d_]+)(?=,|$)")

_AROUND_PIECE = re.compile(r" around the (?P<name>[^,;()]+)(?=,|;|\)|$)")

_PARTS_AND = re.compile(r"\s*(?:\+|&|/|,)\s*|\s+(?:and|und|et|y|e|en)\s+")
"""'LEG 2 + BODY', 'Second bump and rest of heart': a piece that goes on as another is called by either name."""


class NamedPieces:
    """A text under way and what its words mean. out: the lines so far; part: the part under way; own: words that the text
    explains itself."""

    def __init__(self, text: str, found: list[Row], terms: Terms | None, pieces: tuple[str, ...]) -> None:
        self.rows = found
        words = re.findall(r"[^\W\d_]+(?:'[^\W\d_]+)?", text.lower())
        self.language = language_of(words)
        self.terms = terms_of(text, terms) if self.language == "en" else Terms.US
        self.own = legend(found, self.language, self.terms)
        self.pieces = pieces
        self.parts: list[PartSoFar] = []
        self.part = PartSoFar()
        self.out: list[Line] = []
        self.waiting: list[Row] = []
        self.closed = False
        self.section: Taken | None = None
        self.told: list[Problem] = []
        self._guess()
        self._count_rings()
        self.at = 0
        self.follows: int | None = None
        self.behind: list[Row] = []
        self._known: tuple[tuple[tuple[str, int], ...], Vocabulary] | None = None

    def explain(self, words: Mapping[str, str]) -> None:
        """Words that she explains: what they mean in the whole text. CraftError for what is not understood."""
        vocabulary = Vocabulary(self.language, self.terms, dict(self.own))
        for word, what in words.items():
            self.own[plain(word).strip().lower()] = explained(word, plain(what), vocabulary)
        self._known = None

    def _guess(self) -> None:
        """Take words that nothing explains for what their places tell, and say so: the one that the rings are worked in for
        the plain stitch, letters for shaping."""
        vocabulary = Vocabulary(self.language, self.terms, self.own)
        guessed = plain_stitch_of(self.rows, vocabulary)
        for letter, (meaning, row) in shaping_letters(self.rows, vocabulary).items():
            self.own[letter] = meaning
            shaped = "an increase" if meaning.value == "inc" else "a decrease"
            why = f"'{letter.upper()}' is taken for {shaped}, as rounds are shaped with it and nothing here says what it is."
            self.told.append(Problem("guessed-stitch", Place(None, None, 1, 1, row.span), why))
        if guessed is None:
            return
        word, row = guessed
        self.own[word] = Meaning(Sort.STITCH, "sc")
        why = f"'{word}' is taken for a single crochet, as the rings are worked in it and nothing here says what it is."
        self.told.append(Problem("guessed-stitch", Place(None, "R1", 1, 1, row.span), why))

    def _count_rings(self) -> None:
        """Count the rings of parts that are numbered without them, and say so."""
        self.rows, begun = ring_apart(self.rows, Vocabulary(self.language, self.terms, self.own))
        for row in begun:
            why = "The ring is R1 here, so what the text calls its first round is R2, and so on."
            self.told.append(Problem("freehand", Place(None, "R2", 1, 1, row.span), why))

    def vocabulary(self) -> Vocabulary:
        """What words mean here, with the names of the parts so far."""
        key = tuple((p.name, p.make) for p in self.parts)  # the part under way is the last of them
        if self._known is None or self._known[0] != key:
            own = dict(self.own)
            own_names = [(name, 1) for name in _PARTS_AND.split(self.part.name) if name and name != self.part.name]
            for name, make in (*key, *((p, 1) for p in self.pieces), *own_names):
                for phrase, value in piece_phrases(name, self.language, make) if name else ():
                    known = table_of(self.language, self.terms).get(phrase)
                    if known is None or known.sort is Sort.NOISE:
                        own.setdefault(phrase, Meaning(Sort.PIECE, value))
            self._known = key, Vocabulary(self.language, self.terms, own)
        return self._known[1]

    @property
    def names(self) -> Names:
        return Names(tuple(dict.fromkeys(p.name for p in self.parts if p.name)) + self.pieces)

    def _called(self, way: Said) -> Said:
        """'around the second lobe', where 'Lobe two' has a heading of its own: by its name."""

        def name(m: re.Match[str]) -> str:
            alike = [p.name for p in self.parts if p.make == 1 and m["noun"].lower() in p.name.lower().split()]
            nth = ORDINALS.index(m["nth"])
            return f"around the {alike[nth]}" if nth < len(alike) else m.group(0)

        return replace(way, work=_NTH_PIECE.sub(name, way.work)) if "around the " in way.work else way

    def _on_own_edge(self, way: Said) -> Said:
        """'12 sc around leg two', said in leg two: on its own edge again, where other pieces were worked along before."""
        if not self.part.rounds or not self.part.name or " around the " not in way.work:
            return way
        names = [self.part.name, *_PARTS_AND.split(self.part.name)]
        called = next((m for m in _AROUND_PIECE.finditer(way.work) if m["name"].lower() in map(str.lower, names)), None)
        if called is None:
            return way
        around = called.group(0)
        elsewhere = way.work.replace(around, "")
        again = " on the main edge" if " around the " in elsewhere else ""
        return replace(way, work=way.work.replace(around, again))
