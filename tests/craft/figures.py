"""Whole figures to test on: one with every field used, and any at all."""

from __future__ import annotations

from hypothesis import strategies as st

from craft.design.anchors import Anchor, Place
from craft.design.design import Brief, Design, EyeKind, Eyes, Mark, Printed, Source, Step
from craft.design.joins import Join, Manner
from craft.design.parts import DesignYarn, GaugeFrom, GaugeInForce, Part
from craft.design.running import run_parts, worked_parts
from craft.design.size import Size, SizeKind
from craft.rounds.stitches import Terms
from craft.shape.drafting import Recipe
from craft.shape.target import Form, Solid

BALL = """R1: 6 sc in ring [6]
R2: inc x 6 [12]
R3: (sc, inc) x 6 [18]
R4: (2 sc, inc) x 6 [24]
R5: (3 sc, inc) x 6 [30]
R6: (4 sc, inc) x 6 [36]
R7-R12: sc around [36]
R13: (4 sc, dec) x 6 [30]
R14: (3 sc, dec) x 6 [24]
R15: (2 sc, dec) x 6 [18]
Stuff firmly.
R16: (sc, dec) x 6 [12]
R17: dec x 6 [6]
Close.
"""
"""A stuffed ball of 36 stitches."""

HEAD = "R1: 6 sc in ring [6]\nR2: 6 inc [12]\nR3: (sc, inc) x 6 [18]\nR4-R8: 18 sc [18]\nR9: (sc, dec) x 6 [12]\n"
LEG = "R1: 6 sc in ring [6]\nR2: (sc, inc) x 3 [9]\nR3-R6: 9 sc [9]\n"


def figure() -> Design:
    """A head with two legs sewn on, eyes, a mark, a size and every other field used."""
    worked = worked_parts(run_parts(Design("x", parts=(Part("head", "Head", HEAD),))))
    ball = Recipe(Form(Solid("sphere", 60, 60)))
    place = Place("head", 8, 3).anchored(None, worked)
    wool = DesignYarn("Peat", "#5a4634", 3, wraps=9, skein_m=105, skein_g=50)
    return Design(
        "Gloomcap",
        gauge=GaugeInForce(GaugeFrom.OWN, 3.0, 1, 5.0, 4.6, 0.3, 60, 0.5),
        yarns=(wool, DesignYarn("Moss", "#77834b", 3)),
        parts=(Part("head", "Head", HEAD, recipe=ball), Part("leg", "Leg (left)", LEG, 2, "Moss")),
        joins=(Join("j1", "leg", "head", place, manner=Manner.OPEN, paired=True, tilt=-20),),
        eyes=Eyes(EyeKind.SAFETY, 8, Place("head", 6).anchored(None, worked), 4),
        marks=(Mark("m1", "Cheek", Place("head", 7, 4), Place("head", 8, 5), paired=True),),
        steps=(Step("s1", "", "leg", "j1"), Step("s2", "Brush it.", picture=True)),
        brief=Brief(height_mm=120, intro="A small mushroom."),
        sizes=(Size("z1", "Big", SizeKind.YARN, wool, 6, 2), Size("z2", "Tall", SizeKind.HEIGHT, height_mm=200)),
        printed=Printed("1.1", count_table=True, notions=("stitch marker",)),
        sources=(Source("Cap base", "Lanternwick", "1.0", "May be changed."),),
    )


name_st = st.text(st.characters(exclude_categories=["C", "Z"]), min_size=1, max_size=60)
place_st = st.builds(
    Place,
    st.just("a"),
    st.integers(1, 90),
    st.integers(-40, 40).map(lambda half: half / 2),
    st.none() | st.builds(Anchor, st.floats(0, 1), st.floats(-180, 180)),
)
design_st = st.builds(
    Design,
    name_st,
    st.sampled_from(Terms),
    yarns=st.lists(st.builds(DesignYarn, name_st, st.just("#a0b0c0"), st.integers(0, 7)), max_size=3).map(tuple),
    parts=st.lists(st.builds(Part, st.text("abcdef", min_size=1, max_size=8), name_st, st.text(max_size=40)),
                   max_size=4, unique_by=lambda p: p.key).map(tuple),
    joins=st.lists(st.builds(Join, st.sampled_from("jkl"), st.just("b"), st.just("a"), st.none() | place_st,
                             manner=st.none() | st.sampled_from(Manner), paired=st.booleans(), tilt=st.floats(-90, 90)),
                   max_size=3, unique_by=lambda j: j.key).map(tuple),
    eyes=st.builds(Eyes, st.sampled_from(EyeKind), st.none() | st.floats(1, 60), st.none() | place_st),
    marks=st.lists(st.builds(Mark, st.sampled_from("mno"), name_st, place_st, st.none() | place_st),
                   max_size=3, unique_by=lambda m: m.key).map(tuple),
)  # fmt: skip
