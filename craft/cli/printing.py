"""`craft booklet`: the written pattern as it is published, as it is, at one of its sizes, or for all of them."""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable, Mapping
from types import MappingProxyType

from craft.cli.answers import Answer, gauge_arguments, number
from craft.cli.designs import as_design
from craft.cli.files import TERMS, read_given
from craft.cli.grading import first_given
from craft.design.grading import Sized, at_size, names_of
from craft.design.size import Size, SizeKind
from craft.document.booklet import (
    Document,
    Imprint,
    TheBase,
    as_html,
    as_markdown,
    as_text,
    edition_as_difference,
    edition_for_all,
    edition_of,
)
from craft.errors import CraftError
from craft.rounds.stitches import Language, Terms

FOR_ALL = "all"
"""What `--size` says for one booklet of all sizes."""


def arguments(of: argparse.ArgumentParser) -> None:
    """Its words on the command line."""
    of.add_argument("file")
    of.add_argument("--to", choices=tuple(FORMS), default="text")
    of.add_argument("--terms", choices=TERMS, help="else those of the file")
    of.add_argument(
        "--language", choices=("en", *(x.value for x in Language)), default="en", help="of rounds and sentences"
    )
    of.add_argument("--size", metavar="NAME", help="one of the design's sizes, or 'all' for one booklet of all of them")
    of.add_argument("--against", metavar="BASE", help="print only what differs from that design or pattern")
    of.add_argument("--designer", default="", metavar="NAME")
    of.add_argument("--date", default="", metavar="YYYY-MM-DD", help="printed beside the version")
    of.add_argument("--firmness", type=number, default=0.5, metavar="0…1")
    of.add_argument("--force", action="store_true", help="go on with faults")
    gauge_arguments(of)


def run(args: argparse.Namespace) -> Answer:
    """Print the booklet of a file."""
    first = first_given(args)
    if isinstance(first, Answer):
        return first
    terms = Terms(args.terms) if args.terms else first.design.terms
    language = None if args.language == "en" else Language(args.language)
    imprint = Imprint(args.designer or "its designer", terms, args.date, language=language)
    if args.against is None:
        document = _edition(first, args.size, imprint)
    elif args.size is None:
        base = as_design(read_given(args.against))
        document = edition_as_difference(base, first.design, TheBase(base.name, base.printed.version), imprint)
    else:
        raise CraftError("--against and --size do not go together.")
    return Answer(0, FORMS[args.to](document), document.to_json())


def _edition(first: Sized, size: str | None, imprint: Imprint) -> Document:
    if size is None:
        return edition_of(first, imprint)
    if size != FOR_ALL:
        return edition_of(at_size(first, _named(first, size)), imprint)
    sizes = [s for s in first.design.sizes if s.kind is not SizeKind.YARN]
    if not sizes:
        raise CraftError("The design has no other size in its own yarn.")
    made = [first, *(at_size(first, s) for s in sizes)]
    return edition_for_all(made, names_of(sizes), imprint)


def _named(first: Sized, name: str) -> Size:
    found = next((s for s in first.design.sizes if s.name.lower() == name.lower()), None)
    if found is None:
        known = ", ".join(s.name for s in first.design.sizes) or "none"
        raise CraftError(f"The design has no size {name!r}; its sizes are: {known}.")
    return found


def _as_json(document: Document) -> str:
    return json.dumps(document.to_json(), ensure_ascii=False, indent=1) + "\n"


FORMS: Mapping[str, Callable[[Document], str]] = MappingProxyType(
    {"text": as_text, "md": as_markdown, "html": as_html, "json": _as_json}
)
"""What a booklet is written as."""
