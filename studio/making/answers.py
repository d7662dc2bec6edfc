"""What the jobs of makings answer."""

from __future__ import annotations

from typing import Literal

from ninja import Schema

from studio.making.schemas import OpenStage


class StagesAnswer(Schema):
    """A part after some of its rounds, fewest first."""

    job: Literal["stages"] = "stages"
    open: list[OpenStage]
