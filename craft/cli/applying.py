"""`craft apply`: the changes that `craft diff --json` found, put into a base."""

from __future__ import annotations

import argparse

from craft.cli.answers import Answer
from craft.cli.designs import as_design
from craft.cli.files import read_bytes, read_given
from craft.design.remix import applied, read_difference
from craft.design.remix.stored import MOST_JSON
from craft.design.stored import to_json
from craft.design.written import pattern_text


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("base", metavar="A", help="the design or pattern that the difference starts from")
    of.add_argument("difference", metavar="DIFF", help="what 'diff --json' printed")


def run(args: argparse.Namespace) -> Answer:
    """Put a difference into a file."""
    base = as_design(read_given(args.base))
    made = applied(read_difference(read_bytes(args.difference, MOST_JSON).decode("utf-8", "replace")), base)
    text = pattern_text(made)
    return Answer(0, text, {"format": 1, "text": text, "design": to_json(made)})
