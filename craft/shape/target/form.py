"""A form: a base shape and what is done to it."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from craft.errors import require
from craft.remembered import by_bytes
from craft.shape.target.box import Box
from craft.shape.target.mesh import TriangleMesh, revolved
from craft.shape.target.modifiers import Modifier
from craft.shape.target.solids import SOLIDS, Outline, Solid
from craft.shape.target.stack import Stack
from craft.shape.target.traced import Traced

MOST_MODIFIERS = 8

BASES = MappingProxyType({"solid": Solid, "traced": Traced, "stack": Stack, "box": Box, "mesh": TriangleMesh})
"""Every kind of base by its tag."""


@dataclass(frozen=True)
class Form:
    """A solid, a traced silhouette, a stack, a box or a mesh, with modifiers in their order."""

    base: Solid | Traced | Stack | Box | TriangleMesh
    modifiers: tuple[Modifier, ...] = ()

    def __post_init__(self) -> None:
        require(
            len(self.modifiers) <= MOST_MODIFIERS, f"A shape takes up to {MOST_MODIFIERS} modifiers.", field="modifiers"
        )

    @property
    def open(self) -> bool:
        """Whether its end is left open."""
        return self.base.open

    @property
    def name(self) -> str:
        """What it is called in sentences."""
        if isinstance(self.base, Solid):
            return SOLIDS[self.base.kind].title.lower()
        return {Traced: "traced shape", Stack: "stack", Box: "box", TriangleMesh: "mesh"}[type(self.base)]

    @property
    def size_mm(self) -> tuple[float, float, float]:
        """Width, depth and height in mm."""
        if self.outline is not None:
            o = self.outline
            return 2 * float(o.r.max()), 2 * float(o.r.max()), float(o.z.max() - o.z.min())
        return self.mesh.size_mm

    @property
    def outline(self) -> Outline | None:
        """The half outline of a body of revolution, None for any other shape."""
        round_base = isinstance(self.base, Solid | Stack) or (isinstance(self.base, Traced) and self.base.is_round)
        if self.modifiers or not round_base:
            return None
        assert not isinstance(self.base, TriangleMesh | Box)
        return self.base.outline()

    @property
    def mirrored_ends(self) -> bool:
        """Whether it is the same both ways up."""
        return isinstance(self.base, Solid) and SOLIDS[self.base.kind].mirrored and not self.modifiers

    @property
    def mesh(self) -> TriangleMesh:
        """Its surface as triangles, modifiers done."""
        return _mesh(self)

    def scaled(self, factor: float) -> Form:
        """The same form at another size."""
        return Form(self.base.scaled(factor), tuple(m.scaled(factor) for m in self.modifiers))


def as_form(shape: Form | Solid) -> Form:
    """A plain solid as a form; a form as it is."""
    return Form(shape) if isinstance(shape, Solid) else shape


@by_bytes(48 * 2**20, lambda mesh: mesh.nbytes)
def _mesh(form: Form) -> TriangleMesh:
    base = form.base
    made = (
        base if isinstance(base, TriangleMesh) else base.mesh() if isinstance(base, Traced | Box) else _revolved(base)
    )
    x = made.x
    for modifier in form.modifiers:
        x = modifier.moved(x)
    return made if x is made.x else made.with_corners(x)


def _revolved(base: Solid | Stack) -> TriangleMesh:
    return revolved(base.outline(), closed=not base.open)
