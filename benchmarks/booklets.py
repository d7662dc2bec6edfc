"""The booklet, measured: composing its tree, and printing twelve pages with ten pictures that are there already."""

from __future__ import annotations

import io
import os
import statistics
import time
from collections.abc import Callable
from datetime import date

os.environ.setdefault("SPIRREL_SECRET_KEY", "only-for-benchmarks")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "studio.settings")

import django

django.setup()

import numpy as np  # noqa: E402 - Django's settings come first
from PIL import Image  # noqa: E402
from pypdf import PdfReader  # noqa: E402

from benchmarks.grading import typed_designs  # noqa: E402
from craft.design.design import Design  # noqa: E402
from craft.design.parts import Part  # noqa: E402
from craft.design.running import run_parts  # noqa: E402
from craft.document.booklet import Document, Imprint, compose, manuscript_of  # noqa: E402
from craft.document.proof import proof_of  # noqa: E402
from craft.rounds.stitches import Terms  # noqa: E402
from studio.booklets.album import WIDE, Taken, as_jpeg  # noqa: E402
from studio.booklets.epub import as_epub  # noqa: E402
from studio.booklets.printing import Sheet, as_page, as_pdf, as_url  # noqa: E402

GOES = 5
PICTURES = 10
ASKED_MS = 3_000


def _design() -> Design:
    """Parts enough for about twelve pages."""
    parts = [p for _, design in typed_designs() for p in design.parts]
    many = tuple(Part(f"k{k}", f"{p.name} {k}", p.text, p.make) for k, p in enumerate(parts * 3))
    return Design("Figure", parts=many[:18])


def _picture(seed: int) -> Taken:
    """A picture as large as a painted one, and as hard to pack: noise in the middle of white."""
    rng = np.random.default_rng(seed)
    rgb = np.full((WIDE, WIDE, 3), 255, np.uint8)
    rgb[100:540, 100:540] = rng.normal(150, 30, (440, 440, 3)).clip(0, 255)
    out = io.BytesIO()
    Image.fromarray(rgb).save(out, "PNG")
    return Taken(as_jpeg(out.getvalue()))


def _spent(work: Callable[[], object]) -> str:
    spent = []
    for _ in range(GOES):
        begun = time.perf_counter()
        work()
        spent.append(1_000 * (time.perf_counter() - begun))
    return f"{statistics.median(spent):6.0f} ms  (at most {max(spent):.0f})"


def booklets_table() -> str:
    """Medians of five goes; texts that were read before are remembered, as in the studio."""
    design = _design()
    parts = run_parts(design)

    def composed() -> Document:
        return compose(manuscript_of(design, parts, Imprint("Lanternwick", Terms.US, "2026-11-30")))

    document = composed()
    keys = [p.key for p in document.pictures][:PICTURES]
    pictures = {key: _picture(n) for n, key in enumerate(keys)}
    front = as_url(_picture(99))
    sheet = Sheet()
    pdf = as_pdf(document, front, pictures, sheet)
    pages = len(PdfReader(io.BytesIO(pdf)).pages)
    rows = [
        ("tree", _spent(composed), ""),
        ("proof-reading", _spent(lambda: proof_of(design, parts)), ""),
        (f"PDF, {pages} pages, {len(pictures)} pictures", _spent(lambda: as_pdf(document, front, pictures, sheet)), ASKED_MS),
        ("web page", _spent(lambda: as_page(document, front, pictures)), ""),
        ("EPUB", _spent(lambda: as_epub(document, pictures[keys[0]], pictures, date(2026, 11, 30))), ""),
    ]  # fmt: skip
    return "Booklets\n" + "\n".join(f"{name:32} {spent:28} {asked}" for name, spent, asked in rows)
