"""Values and plain JSON: numbered, upgraded step by step, and nothing taken for something else."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

import pytest

from craft.errors import CraftError, require
from craft.formats import strict_converter, structured, upgraded


class Hue(StrEnum):
    MOSS = "moss"
    DUSK = "dusk"


@dataclass(frozen=True, slots=True)
class Leaf:
    long_mm: float
    veins: int
    name: str
    hue: Hue = Hue.MOSS
    open: bool = False

    def __post_init__(self) -> None:
        require(self.long_mm > 0, "A leaf has a length.", field="long_mm")


@dataclass(frozen=True, slots=True)
class Twig:
    leaves: tuple[Leaf, ...]
    tip: Leaf | None = None


CONVERTER = strict_converter()
LEAF: dict[str, Any] = {"long_mm": 12.5, "veins": 6, "name": "Oak", "hue": "dusk", "open": True}


def test_a_value_is_written_and_read_field_by_field() -> None:
    twig = Twig((Leaf(12.5, 6, "Oak", Hue.DUSK, open=True),), Leaf(3, 2, "Bud"))
    plain = CONVERTER.unstructure(twig)
    assert plain["leaves"] == [LEAF] or plain["leaves"] == (LEAF,)
    assert structured(CONVERTER, plain, Twig, "The twig") == twig


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"long_mm": True}, "long_mm: is no number"),
        ({"long_mm": "12"}, "long_mm: is no number"),
        ({"long_mm": float("nan")}, "long_mm: is no number"),
        ({"long_mm": 1e12}, "long_mm: is no number"),
        ({"veins": 6.0}, "veins: is no whole number"),
        ({"veins": True}, "veins: is no whole number"),
        ({"veins": 10**12}, "veins: is no whole number"),
        ({"name": 5}, "name: is no text"),
        ({"open": 1}, "open: is neither true nor false"),
        ({"hue": "red"}, "hue: is none of moss, dusk"),
        ({"colour": "red"}, "unknown: colour"),
    ],
)
def test_nothing_is_taken_for_something_else(change: dict[str, Any], says: str) -> None:
    with pytest.raises(CraftError, match=says):
        structured(CONVERTER, {**LEAF, **change}, Leaf, "The leaf")


def test_a_place_deep_inside_is_named() -> None:
    with pytest.raises(CraftError, match=r"The twig is damaged: leaves\[1\].veins: is missing"):
        structured(CONVERTER, {"leaves": [LEAF, {"long_mm": 1, "name": "x"}]}, Twig, "The twig")


def test_a_rule_of_a_value_is_told_with_its_place_or_in_its_own_words() -> None:
    short = {"leaves": [{**LEAF, "long_mm": -1}]}
    with pytest.raises(CraftError, match=r"leaves\[0\]: A leaf has a length") as placed:
        structured(CONVERTER, short, Twig, "The twig")
    assert placed.value.field is None
    with pytest.raises(CraftError) as plain:
        structured(CONVERTER, short, Twig, "The twig", placed=False)
    assert (plain.value.message, plain.value.field) == ("A leaf has a length.", "long_mm")


@pytest.mark.parametrize(
    "damaged", [None, 5, "x", [], [LEAF], {"leaves": 5}, {"leaves": [5]}, {"leaves": {}}, {"leaves": ""}]
)
def test_what_is_no_value_at_all_is_refused(damaged: object) -> None:
    with pytest.raises(CraftError, match="The twig"):
        structured(CONVERTER, damaged, Twig, "The twig")


def _counted(old: dict[str, Any]) -> dict[str, Any]:
    return {**old, "leaves": len(old["leaves"])}


def _doubled(old: dict[str, Any]) -> dict[str, Any]:
    return {**old, "leaves": 2 * old["leaves"]}


STEPS = (_counted, _doubled)


def test_every_earlier_format_goes_through_the_steps_after_it() -> None:
    assert upgraded({"leaves": ["a", "b"]}, STEPS, "It") == {"format": 3, "leaves": 4}
    assert upgraded({"format": 2, "leaves": 2}, STEPS, "It") == {"format": 3, "leaves": 4}
    newest = {"format": 3, "leaves": 4}
    assert upgraded(newest, STEPS, "It") == newest


@pytest.mark.parametrize("number", ["3", 0, -1, True, 2.0, None])
def test_what_is_no_format_is_refused(number: object) -> None:
    with pytest.raises(CraftError, match="no format that can be read"):
        upgraded({"format": number}, STEPS, "It")


def test_a_newer_format_is_told() -> None:
    with pytest.raises(CraftError, match=r"newer Spirrel \(format 4; this one reads up to 3\)"):
        upgraded({"format": 4}, STEPS, "It")
