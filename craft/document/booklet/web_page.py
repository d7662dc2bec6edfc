"""The booklet as one plain page of HTML, for wherever neither the studio nor a printer is at hand."""

from __future__ import annotations

import html

from craft.document.booklet.document import Block, Document, Facts, Paragraph, Section, block_lines


def as_html(document: Document) -> str:
    """The booklet as one plain page of HTML, without styles or pictures."""
    body = [
        f"<h1>{html.escape(document.title)}</h1>",
        f"<p>{html.escape(document.byline)} · {html.escape(document.stamp)}</p>",
        *(line for section in document.sections for line in _section(section)),
    ]
    head = f'<meta charset="utf-8"><title>{html.escape(document.title)}</title>'
    return f"<!doctype html>\n<html><head>{head}</head><body>\n" + "\n".join(body) + "\n</body></html>\n"


def _section(section: Section) -> list[str]:
    level = section.level + 1
    return [
        f"<h{level}>{html.escape(section.title)}</h{level}>",
        *(line for block in section.blocks for line in _block(block)),
    ]


def _block(block: Block) -> list[str]:
    if isinstance(block, Paragraph):
        return [f"<p>{html.escape(block.text)}</p>"]
    if isinstance(block, Facts):
        rows = (f"<dt>{html.escape(name)}</dt><dd>{html.escape(value)}</dd>" for name, value in block.rows)
        return ["<dl>", *rows, "</dl>"]
    return ["<ul>", *(f"<li>{html.escape(line)}</li>" for line in block_lines(block)), "</ul>"]
