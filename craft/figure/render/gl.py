"""OpenGL in memory: one context a process, its programs, and triangles run through them. It serves one thread at a time."""

from __future__ import annotations

import threading
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from typing import Any

import moderngl
import numpy as np

from craft.errors import CraftError

SHADERS = Path(__file__).parent / "shaders"


class PaintingError(CraftError):
    """This machine cannot paint: OpenGL or its software driver is missing."""


@cache
def context() -> moderngl.Context:
    """The process's context; PaintingError where there is none to be had."""
    try:
        # The stubs take a dictionary only; the library takes the backend's name.
        return moderngl.create_standalone_context(backend="egl")  # type: ignore[arg-type]
    except Exception as error:  # what it raises depends on which library is missing
        raise PaintingError(
            "Pictures need Debian's libegl1 and libgl1-mesa-dri on this machine; the drawn figure is shown instead."
        ) from error


_IN_USE = threading.Lock()


@contextmanager
def painting() -> Iterator[moderngl.Context]:
    """The context, for this thread alone until it is left; PaintingError where there is none, or where it refuses."""
    here = context()
    with _IN_USE:
        try:
            with here:
                yield here
        except moderngl.Error as error:
            raise PaintingError("This picture could not be painted: the machine's OpenGL refused.") from error


def _source(*names: str) -> str:
    """Files of a shader as one: the first line of the first says the version."""
    parts = [(SHADERS / name).read_text() for name in names]
    head, rest = parts[0].split("\n", 1)
    return "\n".join([head, *parts[1:], rest])


@cache
def program(name: str) -> moderngl.Program:
    """A program of the shaders of that name, with the relief and the light that it asks for."""
    extra = ("relief.glsl",) if name == "stitch" else ()
    light = () if name in ("depth", "ground") else ("light.glsl",)
    return context().program(
        vertex_shader=_source(f"{name}.vert", *extra), fragment_shader=_source(f"{name}.frag", *extra, *light)
    )


def tell(made: moderngl.Program, **values: Any) -> None:
    """Uniforms, as far as the program uses them; matrices row by row."""
    for name, value in values.items():
        if name in made:
            given = np.asarray(value, "f4")
            member: Any = made[name]
            member.write(np.ascontiguousarray(given.T if given.ndim > 1 else given).tobytes())


def run(made: moderngl.Program, rows: Any, layout: str, names: list[str], triangles: Any) -> None:
    """Triangles of corners through a program. rows: (n, …) numbers of every corner, laid out as said."""
    run_instances(made, [(rows, layout, names)], triangles, 1)


def run_instances(
    made: moderngl.Program, corners: list[tuple[Any, str, list[str]]], triangles: Any, instances: int
) -> None:
    """The same triangles so many times. corners: numbers of every corner, and of every instance (layout ends in '/i')."""
    here = context()
    buffers = [here.buffer(np.ascontiguousarray(rows, "f4").tobytes()) for rows, _, _ in corners]
    places = here.buffer(np.ascontiguousarray(triangles, "i4").tobytes())
    told = [(b, layout, *names) for b, (_, layout, names) in zip(buffers, corners, strict=True)]
    array = here.vertex_array(made, told, places)
    array.render(moderngl.TRIANGLES, instances=instances)
    array.release()
    for buffer in (*buffers, places):
        buffer.release()
