"""`./spirrel bench [NAME…]`: prints tables of what was measured here, now."""

from __future__ import annotations

import sys

from benchmarks.booklets import booklets_table
from benchmarks.grading import grading_speed_table, grading_truth_table
from benchmarks.house import house_table
from benchmarks.making import making_table
from benchmarks.pictures import pictures_table
from benchmarks.reading import reading_table
from benchmarks.remix import remix_table
from benchmarks.settling import settling_speed_table, settling_table, settling_touching_table
from benchmarks.shapes import shapes_speed_table, shapes_table
from benchmarks.speed import speed_table
from benchmarks.truth import mutation_table, solid_table
from studio.garbage import look_seldom

TABLES = {
    "house": house_table,
    "speed": speed_table,
    "truth": solid_table,
    "mutations": mutation_table,
    "reading": reading_table,
    "settling": settling_table,
    "settling-speed": settling_speed_table,
    "settling-touching": settling_touching_table,
    "grading-truth": grading_truth_table,
    "grading-speed": grading_speed_table,
    "remix": remix_table,
    "pictures": pictures_table,
    "booklets": booklets_table,
    "making": making_table,
    "shapes": shapes_table,
    "shapes-speed": shapes_speed_table,
}


def main(names: list[str]) -> int:
    """Print the named tables, or all."""
    unknown = [n for n in names if n not in TABLES]
    if unknown:
        print(f"bench: there is no table {unknown[0]!r}; there are {', '.join(TABLES)}.", file=sys.stderr)
        return 2
    look_seldom()  # as the web process and the workers do
    for name in names or TABLES:
        print(TABLES[name](), end="\n\n")
    return 0


sys.exit(main(sys.argv[1:]))
