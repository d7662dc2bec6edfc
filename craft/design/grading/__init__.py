"""Sizes: predicted measures, the same counts in another yarn, and the figure made anew at another size in the same yarn.

A size is a recompilation: `asked` finds the scale, `sized` makes every part (those taken in first) so that edges meet,
`regrade` cuts a part into segments, each made by its own rule; `report` says what became of everything.
"""

from craft.design.grading.as_design import sized_design
from craft.design.grading.asked import (
    Wish,
    asked_for,
    at_size,
    girth_around,
    girth_of,
    grams_per_metre,
    share_that_meets,
    weight_of_use,
    wish_of,
)
from craft.design.grading.edges import Around
from craft.design.grading.figures import SizeFigures, Taught, figures_of, lengths_of, report_of
from craft.design.grading.for_all import names_of, pattern_for_all
from craft.design.grading.in_yarns import by_gauge
from craft.design.grading.measure import EYES_SOLD, PartSize, part_size, profile_of, sizes, sold_eye
from craft.design.grading.phases import Phases, Reported, phases_of
from craft.design.grading.regrade import Regraded, regrade
from craft.design.grading.report import Feature, State, notes_of
from craft.design.grading.settled import SettledShape, proportions_settled
from craft.design.grading.sized import (
    PartAtSize,
    Sized,
    design_at,
    figure_picture,
    figure_size,
    first_size,
    part_yarn,
    scaled,
    yarn_at,
)
from craft.design.grading.things import THINGS, Thing
from craft.design.grading.together import Together, YarnTogether, together

__all__ = [
    "EYES_SOLD",
    "THINGS",
    "Around",
    "Feature",
    "PartAtSize",
    "PartSize",
    "Phases",
    "Regraded",
    "Reported",
    "SettledShape",
    "SizeFigures",
    "Sized",
    "State",
    "Taught",
    "Thing",
    "Together",
    "Wish",
    "YarnTogether",
    "asked_for",
    "at_size",
    "by_gauge",
    "design_at",
    "figure_picture",
    "figure_size",
    "figures_of",
    "first_size",
    "girth_around",
    "girth_of",
    "grams_per_metre",
    "lengths_of",
    "names_of",
    "notes_of",
    "part_size",
    "part_yarn",
    "pattern_for_all",
    "phases_of",
    "profile_of",
    "proportions_settled",
    "regrade",
    "report_of",
    "scaled",
    "share_that_meets",
    "sized_design",
    "sizes",
    "sold_eye",
    "together",
    "weight_of_use",
    "wish_of",
    "yarn_at",
]
