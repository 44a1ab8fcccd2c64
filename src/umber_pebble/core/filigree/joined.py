"""Lines as a graph: where they meet, the spans between, and which hang together."""

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import networkx as nx
import numpy as np
import shapely
from numpy.typing import NDArray
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.traced import Bead, Traced

FINE_M = 1e-6
"""Nearer than this two places are one [m]."""
PLACES = np.linspace(0.0, 1.0, 9)
OUTWARDS = np.array([-1.0, -1.0, 1.0, 1.0])
Geometries = NDArray[np.object_]
Numbers = NDArray[np.float64]
Node = tuple[float, float]


def meets_frac() -> float:
    """How much of its width a bead must lie in another to be sure to join it, so as hands wander [frac]. Source: assumption"""
    return material("kitchen", "usual", "traced").value("laps")


@dataclass(frozen=True, slots=True)
class Span:
    """A line between two joins, or a join and a loose end: its ends, its path [m], which lines of the drawing it is of, the thinnest of
    their beads."""

    ends: tuple[Node, Node]
    path: shapely.LineString
    length_m: float
    lines: frozenset[int]
    bead: Bead


@dataclass(frozen=True)
class Joined:
    """A drawing's spans as a graph: its nodes are joins and loose ends, its edges what has a span."""

    drawing: Traced
    spans: tuple[Span, ...]

    @cached_property
    def graph(self) -> "nx.Graph[Node]":
        return nx.Graph(span.ends for span in self.spans)

    @cached_property
    def part_of(self) -> dict[Node, int]:
        """Of which of the parts that come off by themselves a join or end is."""
        return {node: i for i, nodes in enumerate(nx.connected_components(self.graph)) for node in nodes}

    @cached_property
    def parts(self) -> tuple[frozenset[int], ...]:
        """What hangs together: the lines of each part, that with the longest first."""
        found = defaultdict[int, set[int]](set)
        for span in self.spans:
            found[self.part_of[span.ends[0]]] |= span.lines
        lengths = [line.length_m for line in self.drawing.lines]
        parts = sorted(found.values(), key=lambda lines: -sum(lengths[i] for i in lines))
        return tuple(frozenset(lines) for lines in parts)

    @cached_property
    def places(self) -> Numbers:
        """Places along each span, as far from each other, its ends with them [span, place, 2]."""
        points, of = shapely.get_coordinates([span.path for span in self.spans], return_index=True)
        # all spans one after the other, a metre apart
        steps = np.where(np.diff(of) > 0, 1.0, np.hypot(*np.diff(points, axis=0).T))
        along = np.cumsum(np.append(0.0, steps))
        first = along[np.searchsorted(of, np.arange(len(self.spans)))]
        at = first[:, None] + PLACES * self.lengths[:, None]
        return np.stack([np.interp(at, along, points[:, axis]) for axis in (0, 1)], axis=2)

    @cached_property
    def middles(self) -> Numbers:
        """The middle of each span [span, 2]."""
        ends = (self.places[:, 0] + self.places[:, -1]) / 2
        middles: Numbers = (self.places[:, 1:-1].sum(axis=1) + ends) / (PLACES.size - 1)
        return middles

    @cached_property
    def lengths(self) -> Numbers:
        """How long each span is [span]."""
        return np.array([span.length_m for span in self.spans])

    @cached_property
    def volumes(self) -> Numbers:
        """What is in each span [span, m3]."""
        return np.array([span.length_m * span.bead.cut_m2 for span in self.spans])


def joined(drawing: Traced) -> Joined:
    """The graph of a drawing: cut where its lines cross or touch; what only comes near enough is joined where it is nearest.

    Args:
        drawing: the lines, and their opening
    Source: geometry, assumption
    """
    of = np.repeat(np.arange(len(drawing.lines)), [len(line.points) for line in drawing.lines])
    paths: Geometries = shapely.linestrings([point for line in drawing.lines for point in line.points], indices=of)
    beads = [drawing.bead_of(line) for line in drawing.lines]
    touching = np.array([*_touching(paths, np.array([bead.radius_m for bead in beads]))], dtype=object)
    cut = shapely.union_all(np.concatenate([paths, touching]), grid_size=FINE_M)
    pieces: Geometries = shapely.get_parts(shapely.line_merge(cut))
    lengths: list[float] = shapely.length(pieces).tolist()
    rows = zip(_ends(pieces, 0), _ends(pieces, -1), pieces, lengths, _of_lines(paths, pieces), strict=True)
    return Joined(
        drawing, tuple(Span((a, b), path, long, on, _thinnest(beads, on)) for a, b, path, long, on in rows)
    )


def _thinnest(beads: list[Bead], on: frozenset[int]) -> Bead:
    return min((beads[i] for i in on), key=lambda bead: bead.radius_m)


def _of_lines(paths: Geometries, pieces: Geometries) -> list[frozenset[int]]:
    """Which lines each piece is of: a piece of a line, or of several that go on in each other."""
    of: list[set[int]] = [set() for _ in pieces]
    lines, near = shapely.STRtree(paths), 3 * FINE_M
    for piece, line in lines.query(_middles(pieces), predicate="dwithin", distance=near).T.tolist():
        of[piece].add(line)
    for line, piece in (
        shapely.STRtree(pieces).query(_middles(paths), predicate="dwithin", distance=near).T.tolist()
    ):
        of[piece].add(line)
    between = [i for i, on in enumerate(of) if not on]
    for i, line in zip(between, lines.nearest(_middles(pieces[between])).tolist(), strict=True):
        of[i].add(line)
    return [frozenset(on) for on in of]


def _middles(paths: Geometries) -> Geometries:
    middles: Geometries = shapely.line_interpolate_point(paths, 0.5, normalized=True)
    return middles


def _ends(paths: Geometries, at: int) -> list[Node]:
    return [(x, y) for x, y in np.round(shapely.get_coordinates(shapely.get_point(paths, at)), 6).tolist()]


def _touching(paths: Geometries, radii: Numbers) -> Iterator[BaseGeometry]:
    """From a line to what it only touches with its side or an end, the shortest way."""
    tree, laps = shapely.STRtree(paths), 1 - meets_frac()
    reach = laps * radii.max()
    near, far = tree.query(shapely.box(*(shapely.bounds(paths) + reach * OUTWARDS).T))
    yield from _ways(paths, paths, near[near < far], far[near < far], laps * radii)
    for end in (0, -1):
        ends = shapely.get_point(paths, end)
        near, far = tree.query(ends, predicate="dwithin", distance=2 * reach)
        yield from _ways(ends, paths, near[near != far], far[near != far], laps * radii)
        looped, rests = _further_on(paths, radii, end)
        yield from _ways(ends[looped], rests, *2 * (np.arange(len(looped)),), laps * radii[looped])


def _ways(
    ones: Geometries, others: Geometries, one: NDArray[np.int64], other: NDArray[np.int64], reach_m: Numbers
) -> Iterator[BaseGeometry]:
    """The shortest ways between those that are so near to each other."""
    meets = shapely.dwithin(ones[one], others[other], reach_m[one] + reach_m[other])
    ways = shapely.shortest_line(ones[one[meets]], others[other[meets]])
    yield from ways[shapely.length(ways) > FINE_M]


def _further_on(paths: Geometries, radii: Numbers, end: int) -> tuple[NDArray[np.int64], Geometries]:
    """Lines that are long enough to come back on themselves, and what of each is further from its end than a loop of its bead is long."""
    points, of = shapely.get_coordinates(paths, return_index=True)
    if end == -1:
        points, of = points[::-1], len(paths) - 1 - of[::-1]
        radii = radii[::-1]
    new = np.append(True, np.diff(of) > 0)
    along = np.cumsum(np.append(0.0, np.hypot(*np.diff(points, axis=0).T)))
    beyond = along - along[new][of] > 2 * math.pi * radii[of]
    looped, counts = np.unique(of[beyond], return_counts=True)
    some = beyond & np.isin(of, looped[counts > 1])
    looped, rows = np.unique(of[some], return_inverse=True)
    rests: Geometries = (
        shapely.linestrings(points[some], indices=rows) if looped.size else np.array([], dtype=object)
    )
    return looped if end == 0 else len(paths) - 1 - looped, rests
