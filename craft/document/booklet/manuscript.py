"""Everything a booklet is composed of, as values."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field

from craft.document.booklet.document import Picture
from craft.document.face_diagram import FaceDiagram
from craft.document.stamp import stamp_of
from craft.figure.materials import ColourUse
from craft.figure.placement import Surface
from craft.gauge import Estimate, Gauge, Substitute
from craft.rounds.fabric import WorkedPart
from craft.rounds.pattern import Part
from craft.rounds.stitches import Language, Terms
from craft.text.catalogue import ENGLISH, Words
from craft.text.exchange import InTerms
from craft.text.notation import other_side


@dataclass(frozen=True, slots=True)
class YarnLine:
    """A yarn of the list: colour name, weight class, strands, what is needed and how many skeins. grams: of it, None where
    the skein's weight is not known. plan: which skein serves which piece, in words, '' where one does."""

    name: str
    weight: int | None
    strands: int
    use: ColourUse | None
    skeins: int | None
    grams: Estimate | None = None
    plan: str = ""


@dataclass(frozen=True, slots=True)
class PartLine:
    """A part as the booklet prints it: written, run, and its own words where it was typed.

    said: None where there is nothing but the written value. key: of the part in its design, '' where it has none.
    """

    part: Part
    worked: WorkedPart
    said: InTerms | None = None
    key: str = ""


@dataclass(frozen=True, slots=True)
class HookLine:
    """A hook that parts have of their own, with the strands and the gauge of their fabric."""

    parts: tuple[str, ...]
    hook_mm: float
    strands: int
    gauge: Gauge


@dataclass(frozen=True, slots=True)
class AssemblyLine:
    """A step of putting together. before_closing: of the part it names, must come before it is closed. key: of the step whose
    picture shows it, '' for none. photos: that she took of it. film: address of a clip of it, '' for none."""

    text: str
    part: str = ""
    place: str = ""
    before_closing: bool = False
    key: str = ""
    photos: tuple[Picture, ...] = ()
    film: str = ""


@dataclass(frozen=True, slots=True)
class Imprint:
    """What stands on the pages beside the pattern: who designed it, in whose terms it is written, and which state of it
    this is. date: '' where none is told. release, digest: number of the release and digest of what it freezes; None and
    '' for a draft. language: None for English. told: her own prose in that language, by how it is written in the design.
    left: for whoever works with the left hand.
    """

    designer: str
    terms: Terms
    date: str
    release: int | None = None
    digest: str = ""
    language: Language | None = None
    told: Mapping[str, str] = field(default_factory=dict)
    left: bool = False

    @property
    def words(self) -> Words:
        """Our own sentences in its language."""
        return Words(self.language)

    def prose(self, text: str) -> str:
        """Her own prose in the language; what is not translated says so, and is never left out."""
        if self.language is None or not text.strip():
            return self._handed(text)
        if text in self.told:
            return self._handed(self.told[text], self.language)
        if self.words.knows(text):
            return self._handed(self.words.say(text), self.language)
        return self.words.say("{text} [not translated]", text=self._handed(text))

    def _handed(self, text: str, language: Language | None = None) -> str:
        """Words in a language for the hand that they are printed for: sides are exchanged for the left one."""
        return other_side(text, language) if self.left else text

    def stamp(self, version: str) -> str:
        """What stands at the foot of every page of a version."""
        return stamp_of(version, self.date, self.release, self.digest, self.words)


@dataclass(frozen=True, slots=True)
class Observed:
    """What is known of a figure beside its design. size_mm: width, depth and height of the settled figure. photos: that she
    took, by the key of the step they show, '' for those of the finished figure. blockers: what she says still stands in the
    way of a release. surfaces: of the parts that are settled, as they lie in the figure, by key."""

    size_mm: tuple[float, float, float] | None = None
    photos: Mapping[str, tuple[Picture, ...]] = field(default_factory=dict)
    blockers: tuple[str, ...] = ()
    surfaces: Mapping[str, Surface] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class SizeMade:
    """The finished size in mm as far as so many makings measured it; None for a length that is an estimate."""

    height: Estimate | None = None
    width: Estimate | None = None
    makers: int = 0


NOBODY = SizeMade()
"""Nobody has measured it."""


@dataclass(frozen=True, slots=True)
class Manuscript:
    """Everything the booklet is composed of.

    audience: 'under-three', 'play' or 'display'. size: height and width as estimates in mm, with
    the pose in `size_of`. count_table: print it. ticks belong to the page, not to the text. private: why it is for the
    maker's own use alone. face: the face on its stitches. charts: print a chart of every part's rounds.
    cut: what is cut out, with its sizes. wire: how long by part, as it is said there. instead: other yarns of the same
    size.
    photos: of the finished figure. words: our own sentences in the booklet's language; prose: hers.
    made: the size as far as makings measured it.
    plain: what is said beside the rounds, in English and as she wrote it, by which cautions are found.
    left: it is for whoever works with the left hand.
    """

    title: str
    designer: str
    stamp: str
    terms: Terms
    level: str
    audience: str
    intro: str
    parts: tuple[PartLine, ...]
    gauge: Gauge
    hook_mm: float | None
    yarns: tuple[YarnLine, ...]
    filling: Estimate
    height: Estimate | None
    width: Estimate | None
    size_of: str
    eyes: str
    notions: tuple[str, ...]
    assembly: tuple[AssemblyLine, ...]
    permissions: str
    credits: str
    changes: tuple[str, ...] = ()
    count_table: bool = False
    notes: tuple[str, ...] = field(default=())
    private: tuple[str, ...] = field(default=())
    face: FaceDiagram | None = None
    charts: bool = False
    cut: tuple[tuple[str, str], ...] = ()
    photos: tuple[Picture, ...] = ()
    wire: tuple[tuple[str, str], ...] = ()
    instead: tuple[Substitute, ...] = ()
    words: Words = ENGLISH
    prose: Callable[[str], str] = str
    plain: tuple[str, ...] = ()
    left: bool = False
    made: SizeMade = NOBODY
    hooks: tuple[HookLine, ...] = ()
