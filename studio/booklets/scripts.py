"""Which of the bundled fonts a page needs beside its own, by the alphabets that are written on it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Script:
    """Alphabets that one font holds. ranges: of code points, first and last. weights: of which there is a file. kind: of
    the files: what has thousands of signs is not packed, as unpacking it would take seconds."""

    name: str
    ranges: tuple[tuple[int, int], ...]
    weights: tuple[int, ...] = (400, 700)
    kind: str = "woff2"

    @property
    def family(self) -> str:
        """What the pages call the font."""
        return f"Script {self.name}"

    def files(self) -> Iterator[tuple[int, str]]:
        """Weights with their files."""
        return ((weight, f"script-{self.name}-{weight}.{self.kind}") for weight in self.weights)

    def holds(self, code: int) -> bool:
        """Whether a code point is of its alphabets."""
        return any(first <= code <= last for first, last in self.ranges)


_HAN = ((0x2E80, 0x2FDF), (0x3000, 0x303F), (0x3400, 0x4DBF), (0x4E00, 0x9FFF), (0xF900, 0xFAFF), (0xFF00, 0xFFEF))
JAPANESE = Script("japanese", ((0x3040, 0x30FF), (0x31F0, 0x31FF)), (400,), "ttf")
CHINESE = Script("chinese", _HAN, (400,), "ttf")

SCRIPTS = (
    Script("latin-greek-cyrillic", ((0x100, 0x24F), (0x259, 0x259), (0x2B0, 0x52F), (0x1E00, 0x1FFF))),
    Script("hebrew", ((0x590, 0x5FF), (0xFB1D, 0xFB4F))),
    Script("arabic", ((0x600, 0x6FF), (0x750, 0x77F), (0xFB50, 0xFDFF), (0xFE70, 0xFEFC))),
    Script("devanagari", ((0x900, 0x97F),)),
    Script("thai", ((0xE00, 0xE7F),)),
    Script("georgian", ((0x10A0, 0x10FF), (0x1C90, 0x1CBF))),
    Script("armenian", ((0x530, 0x58F),)),
    Script("korean", ((0x1100, 0x11FF), (0x3130, 0x318F), (0xAC00, 0xD7AF)), (400,), "ttf"),
    JAPANESE,
    CHINESE,
)
"""In the order in which the pages look for a sign."""

FAMILIES = ", ".join(s.family for s in SCRIPTS)
"""What stands behind a page's own font, so that every sign is found in one of them. Without quotes: drawings want none."""


def in_any_script(svg: str) -> str:
    """A drawing of the craft's, whose words look for their signs in the fonts of other scripts as well."""
    return svg.replace('font-family="Work, sans-serif"', f'font-family="Work, {FAMILIES}, sans-serif"')


def scripts_in(text: str) -> tuple[Script, ...]:
    """The scripts that a text needs a font for. Chinese characters beside kana are taken as Japanese writes them."""
    codes = {ord(sign) for sign in set(text) if ord(sign) > 0xFF}
    found = {s for s in SCRIPTS if s is not CHINESE and any(map(s.holds, codes))}
    han = [chr(c) for c in codes if CHINESE.holds(c)]
    if han:
        main, other, codec = (JAPANESE, CHINESE, "shift_jis") if JAPANESE in found else (CHINESE, JAPANESE, "gb2312")
        found |= {main} if _all_in(han, codec) else {main, other}
    return tuple(s for s in SCRIPTS if s in found)


def _all_in(signs: Iterable[str], codec: str) -> bool:
    try:
        "".join(signs).encode(codec)
    except UnicodeEncodeError:
        return False
    return True


def faces(text: str) -> str:
    """The font faces that a page with this text needs, as CSS."""
    return "\n".join(
        f"@font-face {{ font-family: '{script.family}'; src: url(font:{file}); font-weight: {weight}; }}"
        for script in scripts_in(text)
        for weight, file in script.files()
    )
