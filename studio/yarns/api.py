"""Routes of the yarn basket."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router, Status

from craft.gauge import hook_for
from craft.yarn import HOOKS, WEIGHT_CLASSES, hook_name
from craft.yarn import Yarn as CraftYarn
from studio.guard import designer
from studio.yarns import actions
from studio.yarns.gauges import craft_yarn, doubts, swatch_gauge
from studio.yarns.models import Swatch, Yarn
from studio.yarns.policy import swatch_of, visible_swatches, visible_yarns, yarn_of
from studio.yarns.schemas import Basket, GaugeOut, SwatchIn, SwatchOut, YarnIn, YarnOut

router = Router(tags=["yarns"])


def _yarn(yarn: Yarn) -> YarnOut:
    names = ("id", "name", "colour", "weight", "wraps", "plush", "skein_m", "skein_g", "left_g")
    return YarnOut(**{n: getattr(yarn, n) for n in names}, diameter_mm=craft_yarn(yarn).diameter_mm)


def _swatch(swatch: Swatch, told: Mapping[int, str] | None = None) -> SwatchOut:
    names = (
        "id",
        "yarn_id",
        "hook_mm",
        "strands",
        "kind",
        "stitches",
        "across_mm",
        "rounds",
        "up_mm",
        "drift_stitches",
        "drift_rounds",
        "yarn_per_stitch_mm",
    )
    return SwatchOut(
        **{n: getattr(swatch, n) for n in names},
        yarn_name=swatch.yarn.name,
        gauge=GaugeOut(**asdict(swatch_gauge(swatch))),
        doubt=(told or {}).get(swatch.pk),
    )


@router.get("", response=Basket)
def read_basket(request: HttpRequest) -> Basket:
    """All yarns and swatches, and what there is to choose from."""
    user = designer(request)
    swatches = list(visible_swatches(user).select_related("yarn"))
    told = doubts(swatches)
    classes = [
        {
            "number": c.number,
            "name": c.name,
            "wraps": c.wraps,
            "hook_mm": c.hook_mm,
            "stuffed_hook_mm": hook_for(CraftYarn(c.name, c.number)),
        }
        for c in WEIGHT_CLASSES
    ]
    return Basket.model_validate(
        {
            "yarns": [_yarn(y) for y in visible_yarns(user)],
            "swatches": [_swatch(s, told) for s in swatches],
            "classes": classes,
            "hooks": [{"mm": mm, "name": hook_name(mm)} for mm, _ in HOOKS],
        }
    )


@router.post("", response={201: YarnOut})
def add_yarn(request: HttpRequest, payload: YarnIn) -> Status[YarnOut]:
    """Put a yarn in."""
    return Status(201, _yarn(actions.add_yarn(designer(request), payload.dict())))


@router.put("/{int:yarn_id}", response=YarnOut)
def change_yarn(request: HttpRequest, yarn_id: int, payload: YarnIn) -> YarnOut:
    """Change a yarn."""
    return _yarn(actions.change_yarn(yarn_of(designer(request), yarn_id), payload.dict()))


@router.delete("/{int:yarn_id}", response={204: None})
def remove_yarn(request: HttpRequest, yarn_id: int) -> Status[None]:
    """Take a yarn out."""
    actions.remove_yarn(yarn_of(designer(request), yarn_id))
    return Status(204, None)


@router.post("/swatches", response={201: SwatchOut})
def add_swatch(request: HttpRequest, payload: SwatchIn) -> Status[SwatchOut]:
    """Note a swatch."""
    user = designer(request)
    values = payload.dict(exclude={"yarn_id"})
    return Status(201, _swatch(actions.add_swatch(user, yarn_of(user, payload.yarn_id), values)))


@router.delete("/swatches/{int:swatch_id}", response={204: None})
def remove_swatch(request: HttpRequest, swatch_id: int) -> Status[None]:
    """Throw a swatch away."""
    actions.remove_swatch(swatch_of(designer(request), swatch_id))
    return Status(204, None)
