"""Routes of the yarn basket."""

from __future__ import annotations

from dataclasses import asdict

from django.http import HttpRequest
from ninja import Router, Status

from craft.yarn import HOOKS, WEIGHT_CLASSES, hook_name
from studio.guard import designer
from studio.yarns import actions
from studio.yarns.gauges import craft_yarn, sample_gauge
from studio.yarns.models import Sample, Yarn
from studio.yarns.policy import sample_of, visible_samples, visible_yarns, yarn_of
from studio.yarns.schemas import Basket, GaugeOut, SampleIn, SampleOut, YarnIn, YarnOut

router = Router(tags=["yarns"])


def _yarn(yarn: Yarn) -> YarnOut:
    names = ("id", "name", "colour", "weight", "wraps", "plush", "skein_m", "skein_g")
    return YarnOut(**{n: getattr(yarn, n) for n in names}, diameter_mm=craft_yarn(yarn).diameter_mm)


def _sample(sample: Sample) -> SampleOut:
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
    return SampleOut(
        **{n: getattr(sample, n) for n in names},
        yarn_name=sample.yarn.name,
        gauge=GaugeOut(**asdict(sample_gauge(sample))),
    )


@router.get("", response=Basket)
def read_basket(request: HttpRequest) -> Basket:
    """All yarns and samples, and what there is to choose from."""
    user = designer(request)
    classes = [{"number": c.number, "name": c.name, "wraps": c.wraps, "hook_mm": c.hook_mm} for c in WEIGHT_CLASSES]
    return Basket.model_validate(
        {
            "yarns": [_yarn(y) for y in visible_yarns(user)],
            "samples": [_sample(s) for s in visible_samples(user)],
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


@router.post("/samples", response={201: SampleOut})
def add_sample(request: HttpRequest, payload: SampleIn) -> Status[SampleOut]:
    """Note a sample."""
    user = designer(request)
    values = payload.dict(exclude={"yarn_id"})
    return Status(201, _sample(actions.add_sample(user, yarn_of(user, payload.yarn_id), values)))


@router.delete("/samples/{int:sample_id}", response={204: None})
def remove_sample(request: HttpRequest, sample_id: int) -> Status[None]:
    """Throw a sample away."""
    actions.remove_sample(sample_of(designer(request), sample_id))
    return Status(204, None)
