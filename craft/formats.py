"""Formats of stored and exported JSON: numbered, and upgraded from each to the next by pure steps."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from enum import Enum, StrEnum
from typing import Any, TypeVar, get_args, get_origin

from cattrs import Converter, transform_error
from cattrs.cols import homogenous_tuple_structure_factory
from cattrs.errors import ClassValidationError, ForbiddenExtraKeysError, IterableValidationError

from craft.errors import CraftError

T = TypeVar("T")

Upgrade = Callable[[dict[str, Any]], dict[str, Any]]


def upgraded(data: Mapping[str, Any], steps: Sequence[Upgrade], what: str) -> dict[str, Any]:
    """`data` of any earlier format in the newest one: a file without a number is of format 1.

    steps: steps[k] turns format k + 1 into k + 2. CraftError for a format that is newer, or no number.
    """
    newest = len(steps) + 1
    given = data.get("format", 1)
    if not isinstance(given, int) or isinstance(given, bool) or given < 1:
        raise CraftError(f"{what} carries no format that can be read.", field="format")
    if given > newest:
        raise CraftError(
            f"{what} was written by a newer Spirrel (format {given}; this one reads up to {newest}).", field="format"
        )
    out = dict(data)
    for step in steps[given - 1 :]:
        out = step(out)
    return {**out, "format": newest}


class _UnfitError(CraftError):
    """What stands there is of another kind: half a sentence, told with its place."""


def strict_converter() -> Converter:
    """Between values and plain JSON, field by field: a new field of a value has one place. Nothing is taken for
    something else: true is no number, "8" is no 8, and what no field is called is refused."""
    made = Converter(forbid_extra_keys=True)
    # An enumeration is a kind of text, and true a kind of number: the nearest of these is the one that is used.
    for kind, hook in ((float, _number), (int, _whole), (bool, _truth), (str, _words), (StrEnum, _one_of)):
        made.register_structure_hook(kind, hook)
    made.register_structure_hook_factory(_is_row, _row)
    return made


def _is_row(kind: Any) -> bool:
    return get_origin(kind) is tuple and get_args(kind)[1:] == (...,)


def _row(kind: Any, made: Converter) -> Callable[[Any, Any], Any]:
    """A tuple of any length is read from a list; an object or a text, which have members too, is none."""
    read = homogenous_tuple_structure_factory(kind, made)

    def hook(data: Any, wanted: Any) -> Any:
        if not isinstance(data, list | tuple):
            raise _UnfitError("is no list")
        return read(data, wanted)

    return hook


def _number(data: Any, _: Any) -> float:
    if isinstance(data, bool) or not isinstance(data, int | float) or not abs(data) < 1e9:
        raise _UnfitError("is no number")
    return float(data)


def _whole(data: Any, _: Any) -> int:
    if isinstance(data, bool) or not isinstance(data, int) or abs(data) > 10**9:
        raise _UnfitError("is no whole number")
    return data


def _truth(data: Any, _: Any) -> bool:
    if not isinstance(data, bool):
        raise _UnfitError("is neither true nor false")
    return data


def _words(data: Any, _: Any) -> str:
    if not isinstance(data, str):
        raise _UnfitError("is no text")
    return data


def _one_of(data: Any, kind: type[StrEnum]) -> StrEnum:
    return kind(data)


def structured(converter: Converter, data: object, kind: type[T], what: str, *, placed: bool = True) -> T:
    """The value of plain JSON values; CraftError says what is wrong and where. what: such as "The design's file".

    placed: a rule of a value that is broken is told with its place; else in its own sentence, with its field.
    """
    try:
        return converter.structure(data, kind)
    except CraftError as error:
        if not isinstance(error, _UnfitError):
            raise
        raise CraftError(f"{what} is damaged: it {error.message}.") from None
    except (ClassValidationError, IterableValidationError) as error:
        broken = _rule(error)
        if broken is not None and not placed:
            raise broken from None
        raise CraftError(f"{what} is damaged: {_first(error)}") from None
    except (TypeError, ValueError, KeyError, AttributeError):
        raise CraftError(f"{what} is damaged: it cannot be read.") from None


def _first(error: BaseException) -> str:
    """The first thing that is wrong, as one sentence with its place."""
    said = transform_error(error, format_exception=_said)
    first = str(said[0]) if said else "it cannot be read"
    words, _, place = first.partition(" @ $")
    return f"{place.lstrip('.') or 'the file'}: {words.rstrip('.')}."


def _rule(error: BaseException) -> CraftError | None:
    """The first thing that is wrong, where it is a rule that a value itself keeps."""
    while isinstance(error, BaseExceptionGroup):
        error = error.exceptions[0]
    return error if isinstance(error, CraftError) and not isinstance(error, _UnfitError) else None


def _said(error: BaseException, wanted: Any) -> str:
    if isinstance(wanted, type) and issubclass(wanted, Enum):
        return f"is none of {', '.join(str(v.value) for v in wanted)}"
    if isinstance(error, KeyError):
        return "is missing"
    if isinstance(error, ForbiddenExtraKeysError):
        return f"unknown: {', '.join(sorted(error.extra_fields))}"
    if isinstance(error, CraftError):
        return error.message
    return "is not what stands there"
