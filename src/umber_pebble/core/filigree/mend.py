"""What would make a filigree hold: joins, a second line on the weak ones, a frame."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import shapely
from scipy.spatial.distance import cdist

from umber_pebble.core.filigree.bending import Lifted, span_held_m
from umber_pebble.core.filigree.check import Checked, checked
from umber_pebble.core.filigree.joined import Numbers
from umber_pebble.core.moulds.traced import MOST_LINES, Line, Traced

MendKind = Literal["joins", "twice", "frame"]
MOST_JOINS = 60
"""So many joins are proposed at once."""
MOST_PLACES = 60
"""At so many places of what hangs a join is tried [count]."""
AWAY_FRAC = 0.5
"""A join that holds a far end ends no nearer to where that hangs than so much of its reach [frac]."""
BETTER_FRAC = 0.005
"""What breaks less by so little is no help [frac]."""


@dataclass(frozen=True, slots=True)
class Mend:
    """One way to mend a drawing: its lines then, and how they hold."""

    kind: MendKind
    drawing: Traced
    after: Checked


def mends(of: Checked, melt: Lifted) -> list[Mend]:
    """The ways that help, each by itself, the one that helps most first; none where it holds.

    Args:
        of: the drawing as it was checked
        melt: as there
    Source: geometry, assumption
    """
    if of.holds:
        return []
    drawing = of.joined.drawing
    ways: dict[MendKind, Traced | None] = {
        "joins": _with(drawing, list(_joins(of, melt))),
        "twice": _twice(of),
        "frame": _with(drawing, [_frame(drawing)]),
    }
    made = [Mend(kind, to, checked(to, melt)) for kind, to in ways.items() if to is not None]
    helps = [one for one in made if _helps(of, one.after)]
    return sorted(helps, key=lambda one: (one.after.apart, one.after.breaks_frac))


def _helps(before: Checked, after: Checked) -> bool:
    return after.apart < before.apart or after.breaks_frac < before.breaks_frac - BETTER_FRAC


def _with(drawing: Traced, lines: list[Line]) -> Traced | None:
    if not lines or len(drawing.lines) + len(lines) > MOST_LINES:
        return None
    return replace(drawing, lines=(*drawing.lines, *lines))


def _twice(of: Checked) -> Traced | None:
    """With a second line on all that reaches too far, if any of it has but one."""
    hung = (i for hangs in of.hangs if hangs.far for i in hangs.hanging.some)
    weak = [one.span for one in of.far] + [of.joined.spans[i] for i in hung]
    some, lines = frozenset[int]().union(*(span.lines for span in weak)), of.joined.drawing.lines
    if not any(not lines[i].twice for i in some):
        return None
    return replace(
        of.joined.drawing,
        lines=tuple(replace(line, twice=line.twice or i in some) for i, line in enumerate(lines)),
    )


def _frame(drawing: Traced) -> Line:
    """Round all of them, through those that stand out most."""
    hull = shapely.MultiLineString([line.path for line in drawing.lines]).convex_hull
    ring = hull.exterior if hull.geom_type == "Polygon" else hull
    return Line(tuple((float(x), float(y)) for x, y in ring.coords))


def _joins(of: Checked, melt: Lifted) -> Iterator[Line]:
    """Those between parts, then those that hold what reaches too far, the longest first: one holds all that hangs further in."""
    made = list(_between(of))[:MOST_JOINS]
    for way in _held(of, melt):
        if len(made) == MOST_JOINS:
            break
        if not any(way.distance(other) < of.joined.drawing.bore_m for other in made):
            made.append(way)
    for way in made:
        yield Line(tuple((float(x), float(y)) for x, y in way.coords))


def _held(of: Checked, melt: Lifted) -> Iterator[shapely.LineString]:
    """From far ends, and the middle of far spans, to what is nearest, where that is near enough."""
    places = of.joined.places
    far = sorted((one.hanging for one in of.hangs if one.far), key=lambda one: -one.length_m)[:MOST_JOINS]
    for one in far:
        tips = places[one.some].reshape(-1, 2)
        reaches = np.hypot(*(tips - one.at).T)
        tips = tips[reaches > AWAY_FRAC * one.reach_m][:: 1 + len(tips) // MOST_PLACES]
        yield from _way(
            of, tips, one.some, np.array([one.at]), AWAY_FRAC * one.reach_m, span_held_m(one.bead, melt)
        )
    for span in of.far[:MOST_JOINS]:
        i = of.joined.spans.index(span.span)
        middle, ends = places[i, places.shape[1] // 2, None], np.array(span.span.ends)
        yield from _way(of, middle, [i], ends, AWAY_FRAC * span.reach_m / 2, span.holds_m)


def _way(
    of: Checked, places: Numbers, spans: list[int], ends: Numbers, away_m: float, most_m: float
) -> Iterator[shapely.LineString]:
    """The shortest way from some places to the rest of a drawing, away from where they hang; none where that reaches too far itself."""
    rest = np.delete(np.arange(len(of.joined.spans)), spans)
    there = of.joined.places[rest].reshape(-1, 2)
    there = there[(cdist(there, ends) > away_m).all(axis=1)]
    if not there.size:
        return
    distances = cdist(places, there)
    one, other = np.unravel_index(distances.argmin(), distances.shape)
    if of.joined.drawing.bore_m < distances[one, other] <= most_m:
        yield shapely.LineString([places[one], there[other]])


def _between(of: Checked) -> Iterator[shapely.LineString]:
    """The shortest ways that join all parts, part by part the nearest to those that are joined already. Source: prim-1957"""
    lines = of.joined.drawing.lines
    parts = np.array([shapely.MultiLineString([lines[i].path for i in sorted(part)]) for part in of.joined.parts])
    near_m, near_to = np.full(len(parts), np.inf), np.zeros(len(parts), dtype=int)
    left, now = np.arange(1, len(parts)), 0
    while left.size:
        distances = shapely.distance(parts[now], parts[left])
        near_to[left[distances < near_m[left]]] = now
        near_m[left] = np.minimum(near_m[left], distances)
        now = int(left[near_m[left].argmin()])
        yield shapely.shortest_line(parts[near_to[now]], parts[now])
        left = left[left != now]
