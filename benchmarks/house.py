"""The house itself: how long functions, components and files are, what is documented, how much of it is tests."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterator
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).resolve().parent.parent
PYTHON = ("craft", "studio", "launch", "benchmarks")
TOP = 5
"""How many of the longest are named."""

SCREEN = 60
"""Lines that are about a screen."""

LONG_FILE = 300

_TOP_LEVEL = re.compile(r"^(?:export )?(?:default )?(?:async )?function (\w+)", re.MULTILINE)


_BRACE = re.compile(r"^}$", re.MULTILINE)


class Stretch(NamedTuple):
    """A named stretch of lines: where, what, how many."""

    where: str
    name: str
    lines: int


def _files(folder: str, *endings: str) -> Iterator[Path]:
    for path in sorted((ROOT / folder).rglob("*")):
        kept = path.suffix in endings and "node_modules" not in path.parts and "migrations" not in path.parts
        if kept and path.name != "schema.ts":  # which is generated
            yield path


def _is_test(path: Path) -> bool:
    return "tests" in path.relative_to(ROOT).parts[:1] or ".test." in path.name


def _code_lines(path: Path) -> int:
    return sum(1 for line in path.read_text("utf-8").splitlines() if line.strip())


def python_functions(path: Path) -> Iterator[Stretch]:
    """Every function and method of a module."""
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef):
            yield Stretch(str(path.relative_to(ROOT)), node.name, (node.end_lineno or node.lineno) - node.lineno + 1)


def script_functions(text: str, where: str) -> Iterator[Stretch]:
    """Every function at the top of a module of the front end: the formatter closes them with a brace of their own."""
    for found in _TOP_LEVEL.finditer(text):
        end = _BRACE.search(text, found.start())
        if end is not None:
            yield Stretch(where, found[1], text.count("\n", found.start(), end.start()) + 1)


def documented(path: Path) -> tuple[int, int]:
    """Public classes and functions of a module with a docstring, and all of them."""
    with_one = every = 0
    for node in ast.parse(path.read_text("utf-8")).body:
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef | ast.ClassDef) and not node.name.startswith("_"):
            every += 1
            with_one += ast.get_docstring(node) is not None
    return with_one, every


def _lengths(title: str, found: list[Stretch], most: int = SCREEN) -> list[str]:
    found.sort(key=lambda s: -s.lines)
    sizes = sorted(s.lines for s in found)
    over = sum(n > most for n in sizes)
    head = (
        f"{title}: {len(sizes)}, half under {sizes[len(sizes) // 2]} lines, nine in ten under "
        f"{sizes[len(sizes) * 9 // 10]}, {over} over {most}"
    )
    return [head, *(f"    {s.lines:4}  {s.name}  {s.where}" for s in found[:TOP])]


def house_table() -> str:
    """Lengths, docstrings and the share of tests, as text."""
    python = [p for folder in PYTHON for p in _files(folder, ".py")]
    script = [p for p in _files("frontend/src", ".ts", ".tsx") if not _is_test(p)]
    functions = [s for p in python for s in python_functions(p)]
    made = [s for p in script for s in script_functions(p.read_text("utf-8"), str(p.relative_to(ROOT)))]
    components = [s for s in made if s.name[0].isupper()]
    files = [Stretch(str(p.relative_to(ROOT)), "", len(p.read_text("utf-8").splitlines())) for p in (*python, *script)]
    told = [documented(p) for p in python]
    tests = [*_files("tests", ".py"), *(p for p in _files("frontend/src", ".ts", ".tsx") if _is_test(p))]
    in_tests, in_code = (sum(_code_lines(p) for p in paths) for paths in (tests, (*python, *script)))
    every = sum(n for _, n in told)
    lines = [
        *_lengths("Python functions", functions),
        *_lengths("Components", components),
        *_lengths("Other functions of the front end", [s for s in made if not s.name[0].isupper()]),
        *_lengths("Files", files, LONG_FILE),
        f"Public classes and functions with a docstring: {sum(n for n, _ in told)} of {every}",
        f"Tests: {in_tests:,} of {in_tests + in_code:,} lines that are not empty, "
        f"{100 * in_tests / (in_tests + in_code):.1f} % of all, {100 * in_tests / in_code:.1f} % of the code",
    ]
    return "\n".join(lines)
