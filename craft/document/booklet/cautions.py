"""The safety sentences of a booklet. The usual cautions of the trade; they certify nothing."""

from __future__ import annotations

from craft.document.booklet.manuscript import Manuscript
from craft.rounds.pattern import Note, Step

_SMALL = (
    ("safety eye", "safety eyes"),
    ("bead", "beads"),
    ("button", "buttons"),
    ("snap", "snap fasteners"),
    ("pellet", "pellets"),
    ("magnet", "magnets"),
)
"""Words of small parts, and how the caution names them."""


def cautions(m: Manuscript) -> tuple[str, ...]:
    """The cautions that belong to the figure; some are always there."""
    words = " ".join(
        (*m.plain, *(i.text for line in m.parts for i in line.part.items if isinstance(i, Step | Note)))
    ).lower()
    say = m.words.say
    lines = []
    if m.audience == "under-three":
        lines.append(say(UNDER_THREE))
    else:
        small = [say(many) for word, many in _SMALL if word in words]
        if small:
            named = m.words.listed(small)
            lines.append(say(SMALL_PARTS, parts=named[:1].upper() + named[1:]))
        if "wire" in words or "pipe cleaner" in words:
            lines.append(say(WIRE))
    if "glue" in words:
        lines.append(say(GLUE))
    return (*lines, *(say(always) for always in ALWAYS))


UNDER_THREE = (
    "Made for a child under three: small parts can choke. Embroider all details, sew every part on firmly, and use nothing "
    "that can come off."
)
SMALL_PARTS = "{parts} are small parts and can choke: not for children under three. Embroider instead what is for one."
WIRE = "Wire belongs in display pieces only, never in a child's toy; wrap its ends."
GLUE = "Hot glue burns, and glued parts come off: what a child gets is sewn."
ALWAYS = (
    "Long cords and loops can strangle: keep them short.",
    "Repeated handwork strains wrists and hands: rest and stretch often.",
    "Whoever sells or gives away toys must check the rules that hold there with qualified people, such as EN 71, ASTM F963, "
    "ISO 8124 or 16 CFR 1501. This pattern certifies nothing.",
)
"""Said in every booklet."""
