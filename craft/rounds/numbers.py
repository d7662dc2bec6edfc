"""Numbers as words: how many, how often, and the how-manieth. The one place that knows them."""

from __future__ import annotations

from types import MappingProxyType

_CARDINALS = [
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
    "twenty",
]
_ORDINALS = [
    "first",
    "second",
    "third",
    "fourth",
    "fifth",
    "sixth",
    "seventh",
    "eighth",
    "ninth",
    "tenth",
    "eleventh",
    "twelfth",
    "thirteenth",
    "fourteenth",
    "fifteenth",
    "sixteenth",
    "seventeenth",
    "eighteenth",
    "nineteenth",
    "twentieth",
]
_TIMES = ("once", "twice", "thrice")

MOST_IN_WORDS = 12
"""The greatest number that is written in words; more are read."""

CARDINALS = MappingProxyType({word: n for n, word in enumerate(_CARDINALS, 1)})
"""'one' to 'twenty'."""

ORDINALS = MappingProxyType({word: n for n, word in enumerate(_ORDINALS, 1)})
"""'first' to 'twentieth'."""

TIMES = MappingProxyType({word: n for n, word in enumerate(_TIMES, 1)})
"""'once', 'twice', 'thrice'."""

CARDINAL = "|".join(_CARDINALS)
"""Any cardinal, as a pattern."""


def place_of_word(word: str) -> int | None:
    """Which one a word means, from 1: 'first', '2nd', 'three', '4', 'a'; None for any other word."""
    plain = word.lower()
    if plain in ("a", "an"):
        return 1
    digits = plain.removesuffix("st").removesuffix("nd").removesuffix("rd").removesuffix("th")
    if digits.isascii() and digits.isdigit():
        return int(digits)
    return ORDINALS.get(plain) or CARDINALS.get(plain)


def often(times: int) -> str:
    """How often, in words as far as they are short: 'once', 'twice', 'three times', '13 times'."""
    if 1 <= times <= 2:
        return _TIMES[times - 1]
    return f"{_CARDINALS[times - 1] if 0 < times <= MOST_IN_WORDS else times} times"
