"""What the fields of a manifest are made of: keys, names, lines of text, and the value that all of them are."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from craft.design.parts import MOST_NAME, one_line

Key = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{4,16}$")]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]


def _name(text: str) -> str:
    """A name in any script with everyday punctuation: one printable line."""
    one_line(text, "A name", MOST_NAME)
    return text


PartName = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=MOST_NAME), AfterValidator(_name)
]
Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=500)]
Prose = Annotated[str, StringConstraints(max_length=5_000)]
TermsName = Literal["us", "uk", "letters"]
LanguageName = Literal["en", "de", "fr", "es", "it", "nl"]
Share = Annotated[float, Field(ge=0, le=1)]
Degrees = Annotated[float, Field(ge=-3_600, le=3_600)]


class Frozen(BaseModel):
    """A value that is replaced, never changed."""

    model_config = ConfigDict(frozen=True, extra="forbid")
