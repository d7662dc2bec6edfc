"""The panels sewn together and stuffed: what they make, to be compared with the shape aimed at."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from craft.errors import CraftError
from craft.figure.settling import Edge, Fabric, Held, Net, Settled, Sheets, Threads, settle, settle_net
from craft.fitting.panels.draft import Panel, Panels
from craft.problems import faulty
from craft.rounds.fabric import StitchGraph, WorkedPart, run_part
from craft.rounds.pattern import Item
from craft.shape.profile import REFERENCE_FIRMNESS
from craft.shape.target import Patch

Vector = NDArray[np.float64]
Numbers = NDArray[np.int64]

SEAM = 0.3
"""Distance in stitch widths that sewing leaves between two edgings."""


def settle_sewn(
    panels: Panels, *, firmness: float | None = REFERENCE_FIRMNESS, watch: Callable[[int], bool] | None = None
) -> Settled:
    """Settle every panel by itself, lay it on its place, sew the edges stitch to stitch, and stuff the whole.

    firmness: None for panels that stiff inlays keep flat. The answer's frame is the shape's own. watch(step): as
    for `settle`. CraftError when a panel is not sound.
    """
    gauge = panels.gauge
    flat: dict[tuple[Item, ...], Settled] = {}
    for panel in panels.panels:
        rows = panel.part.items
        if rows not in flat:
            worked, problems = run_part(panel.part)
            if faulty(problems):
                raise CraftError(f"The rows of '{panel.name}' do not add up; please report this shape.")
            flat[rows] = settle(worked, gauge, watch=watch)
    own = [flat[p.part.items] for p in panels.panels]
    edging = [_edging_nodes(s) for s in own]
    laid = [_laid(s.x, e, p) for s, e, p in zip(own, edging, panels.panels, strict=True)]
    first = np.concatenate([[0], np.cumsum([s.net.size for s in own])])
    net = _together([s.net for s in own])
    at = _order_of([s.net for s in own])
    pairs = [at[p] for p in _seams(panels, edging, first)]
    sheets = _one_skin(own, panels, edging, first, at, laid, pairs)
    ends = np.concatenate(pairs)
    seams = Threads(ends, np.full(len(ends), SEAM * gauge.stitch_mm))
    x = np.empty((net.size, 3))
    x[at] = np.concatenate(laid)
    stuffed = np.array([firmness is not None])
    filled = firmness or 0.0

    def seen(step: int, _: Vector) -> bool:
        return watch is None or watch(step)

    rest = settle_net(Fabric(net, sheets, gauge, stuffed, filled, Held(seams)), x, seen)
    part = _whole_part(own, panels)
    settled = rest.x + x.mean(0) - rest.x.mean(0)
    return Settled(
        part=part,
        gauge=gauge,
        firmness=filled,
        net=net,
        sheets=sheets,
        x=settled,
        frames=(),
        stuffed=stuffed,
        steps=rest.steps,
        converged=rest.converged,
    )


def _edging_nodes(settled: Settled) -> Numbers:
    """Nodes of the last round, in working order."""
    last = settled.part.rounds[-1]
    made = np.arange(last.first, last.end)
    node = np.full(len(settled.graph), -1)
    node[settled.net.stitch] = np.arange(len(settled.net.stitch))
    return node[made]


def _laid(x: Vector, edging: Numbers, panel: Panel) -> Vector:
    """Positions of a flat panel turned and shifted onto its patch, its edging along the patch's outline.

    The rotation is that of least squares (Kabsch, 1976).
    """
    goal, nodes = _goals(panel.patch, panel, edging)
    own = x[nodes]
    a, b = own - own.mean(0), goal - goal.mean(0)
    u, _, vt = np.linalg.svd(a.T @ b)
    flip = np.sign(np.linalg.det(u @ vt))
    turn = u @ np.diag([1.0, 1.0, flip]) @ vt
    out: Vector = (x - own.mean(0)) @ turn + goal.mean(0)
    return out


def _goals(patch: Patch, panel: Panel, edging: Numbers) -> tuple[Vector, Numbers]:
    """Where every stitch of the edging goes on the patch's outline, and its node."""
    goals, nodes = [], []
    many = len(edging)
    for i, edge in enumerate(panel.edges):
        line = patch.edges[(panel.begun + i) % len(panel.edges)].points
        steps = np.concatenate([[0.0], np.cumsum(np.linalg.norm(np.diff(line, axis=0), axis=1))])
        at = (np.arange(edge.stitches + 1)) / (edge.stitches + 1) * steps[-1]
        goals.append(np.column_stack([np.interp(at, steps, line[:, k]) for k in range(3)]))
        nodes.append(edging[(edge.first - 1 + np.arange(edge.stitches + 1)) % many])
    return np.concatenate(goals), np.concatenate(nodes)


def _order_of(nets: list[Net]) -> Numbers:
    """Where each node of the nets, one behind the other, goes: stitches first, then middles, then closings."""
    kinds = np.concatenate([np.repeat([0, 1, 2], [len(n.stitch), n.middles, n.closings]) for n in nets])
    at = np.empty(len(kinds), np.int64)
    at[np.argsort(kinds, kind="stable")] = np.arange(len(kinds))
    return at


def _together(nets: list[Net]) -> Net:
    """One net of several that do not touch."""
    at = _order_of(nets)
    first = np.concatenate([[0], np.cumsum([n.size for n in nets])])
    graph_first = np.concatenate([[0], np.cumsum([_stitches(n) for n in nets])])

    def nodes(name: str) -> Numbers:
        found: Numbers = at[np.concatenate([getattr(n, name) + f for n, f in zip(nets, first[:-1], strict=True)])]
        return found

    def values(name: str) -> Any:
        return np.concatenate([getattr(n, name) for n in nets])

    # Links along rounds come first: measuring stretch counts on it.
    along = np.concatenate([np.arange(len(n.links)) < len(n.along) for n in nets])
    order = np.argsort(~along, kind="stable")
    level = np.empty(len(at))
    level[at] = values("level")
    return Net(
        stitch=np.concatenate([n.stitch + g for n, g in zip(nets, graph_first[:-1], strict=True)]),
        middles=sum(n.middles for n in nets),
        closings=sum(n.closings for n in nets),
        links=nodes("links")[order],
        link_rest=values("link_rest")[order],
        link_weight=values("link_weight")[order],
        posts=nodes("posts"),
        post_rest=values("post_rest"),
        post_slant=values("post_slant"),
        post_weight=values("post_weight"),
        triples=nodes("triples"),
        bend_rest=values("bend_rest"),
        bend_weight=values("bend_weight"),
        edges=tuple(Edge(at[e.nodes + f], e.closed) for n, f in zip(nets, first[:-1], strict=True) for e in n.edges),
        level=level,
        along=nodes("along"),
        second=values("second"),
    )


def _stitches(net: Net) -> int:
    return int(net.stitch.max()) + 1


def _one_skin(
    own: list[Settled],
    panels: Panels,
    edging: list[Numbers],
    first: Numbers,
    at: Numbers,
    laid: list[Vector],
    pairs: list[Numbers],
) -> Sheets:
    """The panels' triangles, strips along the seams and the corners between them as one skin, wound outward."""
    rows = []
    for settled, panel, begin, x in zip(own, panels.panels, first[:-1], laid, strict=True):
        t = settled.sheets.triangles
        facing = np.cross(x[t[:, 1]] - x[t[:, 0]], x[t[:, 2]] - x[t[:, 0]]).sum(0) @ panel.patch.out
        rows.append(at[(t if facing > 0 else t[:, ::-1]) + begin])
    for pair in pairs:
        here, there = pair.T
        rows.append(np.column_stack([here[1:], here[:-1], there[:-1]]))
        rows.append(np.column_stack([here[1:], there[:-1], there[1:]]))
    for corner in _corners(panels, edging, first):
        a = at[corner]
        rows.append(np.column_stack([np.full(len(a) - 2, a[0]), a[1:-1], a[2:]]))
    triangles = np.concatenate(rows)
    none = np.zeros((0, 3), np.int64)
    return Sheets(triangles, np.zeros(len(triangles), np.int64), none, none[:, 0], (), none[:, 0])


def _seams(panels: Panels, edging: list[Numbers], first: Numbers) -> list[Numbers]:
    """Of every seam the pairs of stitches that are sewn together, corners among them; numbered panel behind panel."""
    pairs = []
    for k, panel in enumerate(panels.panels):
        for i, edge in enumerate(panel.edges):
            if (k, i) > (edge.other, edge.mate):
                continue
            mate = panels.panels[edge.other].edges[edge.mate]
            steps = np.arange(-1, edge.stitches + 1)
            here = edging[k][(edge.first + steps) % len(edging[k])]
            there = edging[edge.other][(mate.first + mate.stitches - 1 - steps) % len(edging[edge.other])]
            pairs.append(np.column_stack([here + first[k], there + first[edge.other]]))
    return pairs


def _corners(panels: Panels, edging: list[Numbers], first: Numbers) -> list[Numbers]:
    """The corner stitches that meet at each corner of the skin, clockwise from outside and so wound with it."""
    found: list[Numbers] = []
    seen: set[tuple[int, int]] = set()
    for k, panel in enumerate(panels.panels):
        for i in range(len(panel.edges)):
            ring: list[int] = []
            at = (k, i)
            while at not in seen:
                seen.add(at)
                number, side = at
                edge = panels.panels[number].edges[side]
                nodes = edging[number]
                ring.append(int(nodes[(edge.first - 1) % len(nodes)] + first[number]))
                # Over the side that begins here lies the next panel, whose own side ends here.
                at = (edge.other, (edge.mate + 1) % len(panels.panels[edge.other].edges))
            if len(ring) > 2:
                found.append(np.array(ring[::-1]))
    return found


def _whole_part(own: list[Settled], panels: Panels) -> WorkedPart:
    """The panels as one part, so that they are drawn and measured as others are."""
    rounds, graphs = [], []
    begin = number = 0
    for settled, panel in zip(own, panels.panels, strict=True):
        for tally in settled.part.rounds:
            label = f"{panel.name}, {tally.label}"
            rounds.append(replace(tally, label=label, first=tally.first + begin, end=tally.end + begin))
        graphs.append((settled.graph, begin, number))
        begin += len(settled.graph)
        number += len(settled.part.rounds)
    graph = _one_graph(graphs)
    return replace(own[0].part, name=None, rounds=tuple(rounds), steps=(), graph=graph, closed=True, threads=())


def _one_graph(graphs: list[tuple[StitchGraph, int, int]]) -> StitchGraph:
    """The graphs of parts side by side. Each comes with how many stitches and how many rounds lie before it."""
    plain = ("kind", "colour", "loops", "piece", "front", "live", "second", "edge_kind")
    shifted = ("parents", "joins", "edges")
    made: dict[str, Any] = {name: np.concatenate([getattr(g, name) for g, _, _ in graphs]) for name in plain}
    made |= {name: np.concatenate([getattr(g, name) + first for g, first, _ in graphs]) for name in shifted}
    made["round"] = np.concatenate([np.where(g.round >= 0, g.round + more, -1) for g, _, more in graphs]).astype(
        np.int32
    )
    for name, of in (("first_parent", "parents"), ("first_edge", "edges")):
        before = np.concatenate([[0], np.cumsum([len(getattr(g, of)) for g, _, _ in graphs])])
        starts = [getattr(g, name)[:-1] + b for (g, _, _), b in zip(graphs, before[:-1], strict=True)]
        made[name] = np.concatenate([*starts, before[-1:]])
    return StitchGraph(**made, colours=graphs[0][0].colours, pieces=())
