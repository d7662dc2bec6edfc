"""Shapes worked as flat panels: their rows, how they are joined, and what they make sewn together."""

from __future__ import annotations

from collections.abc import Callable

from django.contrib.auth.models import User

from craft.fitting.panels import PanelRecipe, draft_panels, laid_out, recipe_json, settle_sewn
from craft.rounds.stitches import Terms
from craft.shape.target import patches_of
from craft.text.check import check
from craft.text.notation import print_part
from studio.bench.figures import USUAL_STEPS
from studio.bench.previews import craft_gauge
from studio.designs.recipes import FlatRecipe
from studio.jobs import actions
from studio.jobs.kinds import Watch
from studio.jobs.models import Job
from studio.shapes.answers import SewnAnswer
from studio.shapes.drafts import recipe_of
from studio.shapes.fits import Follow, asked, fitted, question_of
from studio.shapes.schemas import PanelOut, PanelPartOut, PanelsOut, SeamOut, ShapeIn, SideOfPanelOut

SEWN = "sewn"

ROUND = 0.1
"""Share of its area by which a panel must be round before it is told that rounds would suit it better."""


def _name_of(names: list[str]) -> str:
    """What panels that are worked alike are called together."""
    if len(names) <= 2:
        return " and ".join([names[0], *(n.lower() for n in names[1:])])
    return "Panel" if {"Top", "Base"} & set(names) else "Side panel"


def panels_out(question: ShapeIn) -> PanelsOut:
    """The panels of a shape; CraftError says why there are none."""
    gauge = craft_gauge(question.gauge)
    form = recipe_of(question.recipe).form
    panels = draft_panels(patches_of(form.mesh), gauge)
    terms = Terms(question.terms)
    groups = panels.alike
    part_of = {k: at for at, group in enumerate(groups) for k in group}
    parts = []
    for at, group in enumerate(groups):
        panel = panels.panels[group[0]]
        recipe = PanelRecipe(form, panel.name, seams=at == len(groups) - 1)
        text = print_part(recipe.part(gauge), terms, heading=False)
        worked = check(text, terms).parts[0]
        parts.append(
            PanelPartOut(
                name=_name_of([panels.panels[k].name for k in group]),
                make=len(group),
                text=text,
                rows=len(panel.counts),
                stitches=len(worked.graph),
                recipe=FlatRecipe.model_validate(recipe_json(recipe)),
            )
        )
    pieces = [
        PanelOut(
            name=panel.name,
            part=part_of[k],
            outline=[(round(float(x), 1), round(float(y), 1)) for x, y in laid.outline],
            sides=[
                SideOfPanelOut(
                    letter=edge.letter,
                    stitches=edge.stitches,
                    line=[(round(float(x), 1), round(float(y), 1)) for x, y in line],
                )
                for edge, line in zip(panel.edges, laid.lines, strict=True)
            ],
        )
        for k, (panel, laid) in enumerate(zip(panels.panels, laid_out(panels), strict=True))
    ]
    too_round = [p.name for p in panels.panels if p.patch.roundness > ROUND]
    seams = [SeamOut(letter=s, one=a, other=b, stitches=n) for s, a, b, n in panels.seams]
    return PanelsOut(parts=parts, panels=pieces, seams=seams, too_round=too_round)


def ask_sewn(user: User, question: ShapeIn) -> Job:
    """The job that sews the panels of a shape together and settles the whole."""
    return actions.ask(user, SEWN, question_of(question))


def _at(follow: Follow, share: float) -> Callable[[int], bool]:
    """What is told at every step while half of the work is done at `share`."""
    return lambda step: follow(share + 0.5 * min(step / USUAL_STEPS, 0.9))


def work_sewn(question: str, watch: Watch) -> bytes:
    """The panels of a question sewn together, stuffed and over stiff inlays, each with its target; as JSON."""
    recipe, gauge, firmness = asked(question)
    follow = Follow(watch)
    panels = draft_panels(patches_of(recipe.form.mesh), gauge)
    sides = []
    for filled, done in ((firmness, 0.0), (None, 0.5)):
        settled = settle_sewn(panels, firmness=filled, watch=_at(follow, done))
        follow.on()
        sides.append(fitted(settled, recipe))
    return SewnAnswer(stuffed=sides[0], inlaid=sides[1]).model_dump_json().encode()
