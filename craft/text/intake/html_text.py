"""The text of an HTML page: headings marked, list items and cells in rows, nothing of its scripts and styles."""

from __future__ import annotations

import re
from collections.abc import Callable

from bs4 import BeautifulSoup
from bs4.element import NavigableString, PreformattedString, Tag

from craft.errors import require
from craft.text.intake.rows import cleaned, table_row

_QUIET = ("script", "style", "template", "noscript", "svg", "head", "select", "button", "textarea")
_BLOCKS = frozenset((
    "p", "div", "section", "article", "main", "header", "footer", "aside", "nav", "ul", "ol", "dl", "dt", "dd", "pre",
    "blockquote", "figure", "figcaption", "table", "tbody", "thead", "tfoot", "body", "form", "fieldset", "address",
    "details", "summary", "hr", "caption",
))  # fmt: skip


class _Writer:
    """Goes through a page once. lines: those that are finished; the last is under way."""

    def __init__(self) -> None:
        self.lines: list[str] = [""]

    def close(self) -> None:
        if self.lines[-1].strip():
            self.lines.append("")

    def children(self, tag: Tag) -> None:
        beside = False
        for child in tag.children:
            if isinstance(child, Tag):
                # Two runs side by side are set apart by the page's style: a label and its round.
                if beside and self.lines[-1][-1:].strip():
                    self.lines[-1] += " "
                self.tag(child)
                beside = True
            elif isinstance(child, NavigableString) and not isinstance(child, PreformattedString):
                self.lines[-1] += re.sub(r"\s+", " ", str(child))
                beside = False

    def block(self, tag: Tag, lead: str = "") -> None:
        self.close()
        self.lines[-1] = lead
        self.children(tag)
        if self.lines[-1] == lead:
            self.lines[-1] = ""
        self.close()

    def tag(self, tag: Tag) -> None:
        name = tag.name.lower()
        if name in _QUIET:
            return
        if name == "br":
            self.lines.append("")
        elif re.fullmatch(r"h[1-6]", name):
            self.close()
            self.lines.append("")
            self.block(tag, f"{'#' * int(name[1])} ")
        elif name == "li":
            self.block(tag, self._bullet(tag))
        elif name == "tr":
            self.row(tag)
        elif name == "pre":
            self.close()
            self.lines += [*tag.get_text().splitlines(), ""]
        elif name in _BLOCKS:
            self.block(tag)
            if name in ("p", "table", "ul", "ol", "section"):
                self.lines.append("")
        else:
            self.children(tag)

    def _bullet(self, tag: Tag) -> str:
        """'3. ' for the third item of a numbered list, '- ' for an item of any other."""
        above = tag.parent
        if above is None or above.name != "ol":
            return "- "
        before = sum(1 for s in tag.previous_siblings if isinstance(s, Tag) and s.name == "li")
        start = str(above.get("start", "1"))
        return f"{before + (int(start) if start.isdigit() else 1)}. "

    def row(self, tag: Tag) -> None:
        cells = [c for c in tag.find_all(("td", "th")) if c.find_parent("tr") is tag]
        inner = []
        for cell in cells:
            own = _Writer()
            own.children(cell)
            inner.append(" ".join(x.strip() for x in own.lines if x.strip()))
        self.close()
        self.lines += [table_row(inner), ""] if len(inner) > 1 else [*inner, ""]


def read_text(raw: bytes, _tell: Callable[[int], None] = lambda _: None) -> tuple[str, list[str]]:
    """The text of a page, in whatever encoding it says; and what was left out."""
    soup = BeautifulSoup(raw, "html.parser")
    writer = _Writer()
    title = soup.title.get_text(" ", strip=True) if soup.title else ""
    body = soup.body or soup
    writer.children(body)
    text = cleaned(writer.lines)
    if title and title not in text:
        text = f"{title}\n\n{text}"
    require(bool(text.strip()), "this page has no text.")
    pictures = len(body.find_all("img"))
    return text, [f"{pictures} picture{'s' if pictures > 1 else ''} left out."] if pictures else []
