"""Lines as a graph, against another library's graph of the same grid; what hangs, and what reaches too far."""

import math
import random
import re

import networkx as nx
import numpy as np
import pytest

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.filigree.bending import (
    HALF_ROUND_FAR,
    HALF_ROUND_I,
    Lifted,
    held_both_pa,
    held_once_pa,
    lifted,
    section_m3,
    span_held_m,
    tip_held_m,
    weighs_n_m,
)
from umber_pebble.core.filigree.check import checked
from umber_pebble.core.filigree.hanging import held
from umber_pebble.core.filigree.joined import joined
from umber_pebble.core.filigree.mend import mends
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.traced import Bead, Line, Traced, bead, covered

BORE_M, STEP_M = 0.002, 0.015
DARK = lifted(material("melts", "dark"))


def line(*points: tuple[float, float], twice: bool = False) -> Line:
    return Line(tuple((x / 1000, y / 1000) for x, y in points), twice)


def hoop(x: float, y: float, r: float) -> Line:
    turns = [2 * math.pi * i / 48 for i in range(49)]
    return line(*((x + r * math.cos(t), y + r * math.sin(t)) for t in turns))


def drawn(*lines: Line) -> Traced:
    return Traced(lines, BORE_M)


def grid(seed: int) -> "tuple[nx.Graph[tuple[int, int]], Traced]":
    """Some of the edges of a grid as lines, from joint to joint."""
    rng = random.Random(seed)
    whole = nx.grid_2d_graph(5, 5)
    some = nx.Graph([edge for edge in whole.edges if rng.random() < 0.6])
    lines = [Line(tuple((x * STEP_M, y * STEP_M) for x, y in edge)) for edge in some.edges]
    rng.shuffle(lines)
    return some, Traced(tuple(lines), BORE_M)


@pytest.mark.parametrize("seed", range(12))
def test_parts_and_single_joins_are_those_of_the_graph(seed: int) -> None:
    """networkx, connected_components and articulation_points of the graph the lines were drawn from."""
    graph, drawing = grid(seed)
    of = joined(drawing)
    components = [graph.subgraph(nodes) for nodes in nx.connected_components(graph)]
    lengths = sorted((len(part.edges) for part in components), reverse=True)
    assert [len(part) for part in of.parts] == lengths
    assert sorted(i for part in of.parts for i in part) == list(range(len(drawing.lines)))
    assert sum(span.length_m for span in of.spans) == pytest.approx(len(graph.edges) * STEP_M)

    def at(node: tuple[int, int]) -> tuple[float, float]:
        return round(node[0] * STEP_M, 6), round(node[1] * STEP_M, 6)

    # where a line only goes on in the next there is no join, and of one chain the rest hangs on an end
    chains = {at(node) for part in components if nx.is_isomorphic(part, nx.path_graph(len(part))) for node in part}
    single = {at(node) for node in nx.articulation_points(graph) if graph.degree[node] > 2}
    hangs = held(of).hanging
    assert {one.at for one in hangs} - chains == single
    for one in hangs:
        if one.at in chains:
            continue
        node = next(node for node in graph if at(node) == one.at)
        rest = graph.copy()
        rest.remove_node(node)
        falls = [
            len(rest.subgraph(c).edges) + sum(n in graph[node] for n in c) for c in nx.connected_components(rest)
        ]
        assert any(one.length_m == pytest.approx(n * STEP_M) for n in falls)


def test_lines_join_where_their_beads_lap_and_not_where_they_only_come_near() -> None:
    wide = bead(BORE_M).wide_m * 1000
    base = line((0, 0), (30, 0))
    # an end that lies in the other by more than a quarter of its width holds; by less, so as hands wander, it does not
    for gap, parts in ((0.7, 1), (0.8, 2)):
        assert len(joined(drawn(base, line((10, gap * wide), (10, 20)))).parts) == parts
    # side by side, two hoops
    for apart, parts in ((20 + 0.7 * wide, 1), (20 + 0.8 * wide, 2)):
        assert len(joined(drawn(hoop(0, 0, 10), hoop(apart, 0, 10))).parts) == parts
    # an end that comes back on its own line closes it: a hook with a gap is two ends, without one it is a hoop
    arc = [(10 * math.cos(t), 10 * math.sin(t)) for t in np.linspace(0.3, 2 * math.pi, 60)]
    open_ = joined(drawn(line(*arc)))
    assert len(open_.spans) == 1 and open_.spans[0].ends[0] != open_.spans[0].ends[1]
    closed = joined(
        drawn(line(*[(10 * math.cos(t), 10 * math.sin(t)) for t in np.linspace(0.1, 2 * math.pi, 60)]))
    )
    assert nx.cycle_basis(nx.Graph(closed.graph)) or any(a == b for a, b in (s.ends for s in closed.spans))


def test_what_hangs_and_what_is_held_at_both_ends() -> None:
    """A hoop with a bar across, a tail on it, and a small hoop hung on the tail's end."""
    of = joined(drawn(hoop(0, 0, 20), line((-20, 0), (20, 0)), line((20, 0), (40, 0)), hoop(45, 0, 5)))
    found = held(of)
    assert len(found.both) == 4
    tail, small = sorted(found.hanging, key=lambda one: one.at)
    assert (tail.at, small.at) == ((0.02, 0.0), (0.04, 0.0)) and not tail.loose_end
    assert tail.length_m == pytest.approx(0.02 + 2 * math.pi * 0.005, rel=0.01)
    assert tail.reach_m == pytest.approx(0.03, rel=0.01) and small.reach_m == pytest.approx(0.01, rel=0.01)
    volume = tail.length_m * math.pi * BORE_M**2 / 4
    assert tail.volume_m3 == pytest.approx(volume, rel=1e-6)
    # the middle of a bar of 20 and a hoop of 31 mm of line whose middle is 25 mm away
    ring = 2 * math.pi * 5
    assert tail.middle_m == pytest.approx((20 * 10 + ring * 25) / (20 + ring) / 1000, rel=0.01)


def test_a_half_round_bends_as_the_handbook_says() -> None:
    """Gere, Goodno: Mechanics of Materials, appendix on plane areas: a half circle has I = 0.1098 r^4 about its middle, which lies
    0.4244 r over its flat side (from memory)."""
    assert pytest.approx(0.1098, abs=5e-5) == HALF_ROUND_I
    assert pytest.approx(1 - 0.4244, abs=5e-5) == HALF_ROUND_FAR
    assert bead(BORE_M).cut_m2 == pytest.approx(math.pi * BORE_M**2 / 4)
    assert bead(BORE_M, twice=True).cut_m2 == pytest.approx(math.pi * BORE_M**2 / 2)


def bar(of: Bead, melt: Lifted, length_m: float, ends: str) -> float:
    """The largest stress in a bar by its deflection, in cubic pieces: its weight, and a touch in its middle or at its end [Pa]."""
    n = 200
    h, stiff, force = length_m / n, np.zeros((2 * n + 2, 2 * n + 2)), np.zeros(2 * n + 2)
    piece = np.array([[12, 6 * h, -12, 6 * h], [6 * h, 4 * h**2, -6 * h, 2 * h**2]] * 2, dtype=float)
    piece[2:] = [[-12, -6 * h, 12, -6 * h], [6 * h, 2 * h**2, -6 * h, 4 * h**2]]
    q = weighs_n_m(of, melt)
    for i in range(n):
        at = slice(2 * i, 2 * i + 4)
        stiff[at, at] += piece / h**3
        force[at] += q * np.array([h / 2, h**2 / 12, h / 2, -(h**2) / 12])
    force[n if ends == "both" else 2 * n] += melt.touch_n
    free = np.arange(2, 2 * n) if ends == "both" else np.arange(2, 2 * n + 2)
    bent = np.zeros(2 * n + 2)
    bent[free] = np.linalg.solve(stiff[np.ix_(free, free)], force[free])
    # what its end takes up is the moment there
    moment = abs((stiff @ bent - force)[1])
    return float(moment / section_m3(of))


@pytest.mark.parametrize("length_m", [0.01, 0.05, 0.2])
def test_stresses_are_those_of_a_bar_that_is_bent(length_m: float) -> None:
    of, melt = bead(0.003), DARK
    assert held_both_pa(of, melt, length_m) == pytest.approx(bar(of, melt, length_m, "both"), rel=1e-3)
    kg = of.cut_m2 * length_m * melt.density_kg_m3
    once = held_once_pa(of, melt, kg, length_m / 2, length_m)
    assert once == pytest.approx(bar(of, melt, length_m, "once"), rel=1e-3)
    # what is safe reaches just so far
    assert held_both_pa(of, melt, span_held_m(of, melt)) == pytest.approx(melt.safe_pa)
    tip = tip_held_m(of, melt)
    assert held_once_pa(of, melt, of.cut_m2 * tip * melt.density_kg_m3, tip / 2, tip) == pytest.approx(
        melt.safe_pa
    )


def test_beads_break_as_brittle_things_do() -> None:
    """Weibull 1951: half of them at the strength in the middle, and in a chain of n as if it were n times the exponent."""
    assert DARK.breaks_frac(DARK.breaks_pa) == pytest.approx(0.5)
    assert DARK.breaks_frac(DARK.safe_pa) == pytest.approx(DARK.safe_frac)
    cross = [line((0, 0), (20, 0)), line((0, 0), (-20, 0)), line((0, 0), (0, 20)), line((0, 0), (0, -20))]
    of = checked(drawn(*cross), DARK)
    [each] = {round(one.breaks_frac, 6) for one in of.hangs}
    assert of.breaks_frac == pytest.approx(1 - (1 - each) ** len(of.hangs), abs=1e-5)
    assert not of.holds and all(one.far for one in of.hangs)


@pytest.mark.parametrize("seed", range(6))
def test_joins_that_are_proposed_join_all_and_reach_no_further_than_is_safe(seed: int) -> None:
    rng = random.Random(seed)
    lines = []
    for _ in range(12):
        x, y, a = rng.uniform(-60, 60), rng.uniform(-60, 60), rng.uniform(0, math.pi)
        lines.append(line((x, y), (x + 25 * math.cos(a), y + 25 * math.sin(a))))
    before = checked(drawn(*lines), DARK)
    assert before.apart > 1
    way = next(one for one in mends(before, DARK) if one.kind == "joins")
    assert way.after.apart == 1 and way.drawing.lines[:12] == tuple(lines)
    # the ways that join the parts are as short as they can be: those of the smallest tree of their distances
    paths = [one.path for one in lines]
    parts = [[paths[i] for i in part] for part in before.joined.parts]
    tree = nx.minimum_spanning_tree(
        nx.Graph(
            [
                (i, k, {"weight": min(a.distance(b) for a in one for b in other)})
                for i, one in enumerate(parts)
                for k, other in enumerate(parts)
                if i < k
            ]
        )
    )
    least = sorted(w for *_, w in tree.edges.data("weight"))
    added = [one.length_m for one in way.drawing.lines[12:]]
    assert sorted(added[: len(least)]) == pytest.approx(least)
    assert all(long <= span_held_m(bead(BORE_M), DARK) * (1 + 1e-9) for long in added[len(least) :])


def test_each_way_to_mend_does_what_it_says() -> None:
    tail = drawn(hoop(0, 0, 12), line((12, 0), (30, 0)), line((30, 0), (30, 14)))
    before = checked(tail, DARK)
    ways = {one.kind: one for one in mends(before, DARK)}
    assert all(one.after.breaks_frac < before.breaks_frac for one in ways.values())
    assert [one.after.breaks_frac for one in ways.values()] == sorted(
        one.after.breaks_frac for one in ways.values()
    )
    # only what reaches too far gets a second line, and a frame lies round all of it
    doubled = ways["twice"].drawing.lines
    assert any(one.twice for one in doubled) and [one.points for one in doubled] == [o.points for o in tail.lines]
    frame = ways["frame"].drawing.lines[-1].path
    assert frame.is_ring and covered(tail).within(frame.convex_hull.buffer(bead(BORE_M).radius_m * 1.01))
    # what holds is left as it is
    assert mends(ways["frame"].after, DARK) == [] or not ways["frame"].after.holds


def test_what_is_no_line_is_refused() -> None:
    for bad, wrong in (
        (lambda: drawn(line((0, 0), (0, 0))), r"lines\.0"),
        (lambda: drawn(), "lines"),
        (lambda: drawn(line((0, 0), (700, 0))), "wide_m"),
        (lambda: Traced((line((0, 0), (10, 0)),), 0.02), "bore_m"),
    ):
        with pytest.raises(OutOfRange) as refused:
            bad()
        assert re.search(wrong, refused.value.path)
