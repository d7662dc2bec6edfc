"""What the jobs of sizes answer."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from studio.sizes.schemas import SizesTable


class SizesAnswer(Schema):
    """The design beside the sizes that were asked for."""

    job: Literal["sizes"] = "sizes"
    table: SizesTable
