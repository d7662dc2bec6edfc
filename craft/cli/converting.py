"""`craft convert`: a pattern in another form."""

from __future__ import annotations

import argparse

from craft.cli.answers import Answer, refused
from craft.cli.designs import as_design
from craft.cli.files import TERMS, read_given
from craft.design.stored import written
from craft.document.export import FORMATS, export
from craft.rounds.stitches import Language, Terms
from craft.text.notation import Wording


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--to", required=True, choices=(*FORMATS, "design"))
    of.add_argument("--from-terms", choices=TERMS)
    of.add_argument("--to-terms", choices=TERMS)
    of.add_argument("--tidy", action="store_true", help="fold equal rounds")
    of.add_argument("--left-handed", action="store_true", help="exchange left and right, mirror charts")
    of.add_argument("--spelled", action="store_true", help="stitches by their full names")
    of.add_argument("--language", "--tongue", choices=tuple(Language), help="rounds in another language")
    of.add_argument("--force", action="store_true", help="go on with faults")


def run(args: argparse.Namespace) -> Answer:
    """Write a file in another form, in other terms, or for left-handed makers."""
    given = read_given(args.file, Terms(args.from_terms) if args.from_terms else None)
    found, typed = given.checked, given.text
    if not found.sound and not args.force:
        return refused(found)
    if args.to == "design":
        text = written(as_design(given))
        return Answer(0, text, {"format": 1, "to": args.to, "text": text})
    terms = Terms(args.to_terms) if args.to_terms else found.reading.pattern.terms
    wording = Wording(terms, args.spelled, Language(args.language) if args.language else None)
    text = export(found, typed, args.to, wording=wording, left=args.left_handed, tidy=args.tidy)
    return Answer(0, text, {"format": 1, "to": args.to, "text": text})
