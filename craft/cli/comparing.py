"""`craft diff`: what has to be changed in one pattern to have another."""

from __future__ import annotations

import argparse

from craft.cli.answers import Answer
from craft.cli.designs import as_design
from craft.cli.files import read_given
from craft.design.remix import compared, difference
from craft.design.remix.stored import to_json


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("base", metavar="A", help="a design or a pattern")
    of.add_argument("other", metavar="B", help="what it became, or another one")


def run(args: argparse.Namespace) -> Answer:
    """Compare two files."""
    a, b = (as_design(read_given(name)) for name in (args.base, args.other))
    found = compared(a, b)
    lines = [f"{p.name}: {words}\n" for p in found.parts for words in p.words]
    lines += [f"{words}\n" for words in (*found.words, *found.sums)]
    text = "".join(lines) or "Nothing differs.\n"
    return Answer(0, text, {**to_json(difference(a, b)), "text": text})
