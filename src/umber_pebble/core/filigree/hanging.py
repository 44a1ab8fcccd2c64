"""What of a filigree hangs on one join alone: which falls when that breaks."""

import math
from collections import Counter, defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import cast

import networkx as nx
import numpy as np

from umber_pebble.core.filigree.joined import Joined, Node, Numbers
from umber_pebble.core.moulds.traced import Bead


@dataclass(frozen=True)
class Hanging:
    """What falls when it breaks at a join: where that is, and its spans by number."""

    at: Node
    spans: frozenset[int]
    of: Joined

    @property
    def loose_end(self) -> bool:
        """Whether it is one line with nothing at its end."""
        return len(self.spans) == 1

    @cached_property
    def some(self) -> list[int]:
        """Its spans as rows of all."""
        return sorted(self.spans)

    @property
    def length_m(self) -> float:
        return float(self.of.lengths[self.some].sum())

    @property
    def volume_m3(self) -> float:
        return float(self.of.volumes[self.some].sum())

    @property
    def bead(self) -> Bead:
        """By which it is held, the thinnest."""
        held_by = (span.bead for i in self.some if self.at in (span := self.of.spans[i]).ends)
        return min(held_by, key=lambda bead: bead.radius_m)

    @property
    def middle_m(self) -> float:
        """How far the middle of its weight is from its join."""
        return math.dist(self.at, _middle(self.of.middles[self.some], self.of.volumes[self.some]))

    @cached_property
    def tip(self) -> Node:
        """Its furthest place."""
        places = self.of.places[self.some].reshape(-1, 2)
        x, y = places[np.hypot(*(places - self.at).T).argmax()]
        return float(x), float(y)

    @property
    def reach_m(self) -> float:
        """How far its furthest place is from its join."""
        return math.dist(self.at, self.tip)


@dataclass(frozen=True, slots=True)
class Held:
    """How a filigree holds together: the spans that are held at both their ends, by number, and all that hangs on one join."""

    both: frozenset[int]
    hanging: tuple[Hanging, ...]


def held(of: Joined) -> Held:
    """What would fall where one join or span breaks, seen from what of each part holds together by itself, or from its middle where nothing
    does.

    The spans are parted into blocks, which no one join parts; they and the joins between them are a tree.
    Source: hopcroft-tarjan-1973
    """
    both, found, parts = set[int](), list[Hanging](), defaultdict[int, list[_Block]](list)
    for block in _blocks(of):
        parts[next(of.part_of[place] for place in block.places if place in of.part_of)].append(block)
    for blocks in parts.values():
        firm = [i for i, block in enumerate(blocks) if len(block.places) > 2]
        both.update(*(blocks[i].spans for i in firm))
        root = max(firm, key=lambda i: of.lengths[list(blocks[i].spans)].sum(), default=None)
        found += _hanging(of, blocks, _nearest_its_middle(of, blocks) if root is None else root)
    return Held(frozenset(both), tuple(found))


@dataclass(frozen=True, slots=True)
class _Block:
    """What no one place parts: its spans by number, its places: joins, loose ends, and the insides of spans."""

    spans: frozenset[int]
    places: frozenset[object]


def _blocks(of: Joined) -> list[_Block]:
    edges, span_at = list[tuple[object, object]](), dict[tuple[object, object], int]()
    between = Counter(frozenset(span.ends) for span in of.spans)
    for i, span in enumerate(of.spans):
        a, b = span.ends
        last: tuple[object, object] = (a, b)
        if a == b or between[frozenset(span.ends)] > 1:
            # of several spans between the same joins, and of one that comes back, each goes a way of its own
            last = ((i, "to"), b)
            edges += [(a, (i, "from")), ((i, "from"), (i, "to"))]
        edges.append(last)
        span_at[last] = span_at[last[::-1]] = i
    return [
        _Block(
            frozenset(span_at[edge] for edge in found if edge in span_at),
            frozenset(place for edge in found for place in edge),
        )
        for found in nx.biconnected_component_edges(nx.Graph(edges))
    ]


def _hanging(of: Joined, blocks: Sequence[_Block], root: int | Node) -> Iterator[Hanging]:
    """What hangs on each join on the side away from the root, which is a block or a join."""
    tree: nx.Graph[object] = nx.Graph()
    for i, block in enumerate(blocks):
        tree.add_edges_from((i, place) for place in block.places)
    above = nx.dfs_predecessors(tree, root)
    falls = defaultdict[object, frozenset[int]](frozenset)
    for at in nx.dfs_postorder_nodes(tree, root):
        up = above.get(at)
        if isinstance(at, int):
            falls[at] |= blocks[at].spans
            if up in of.graph:
                yield Hanging(cast("Node", up), falls[at], of)
        falls[up] |= falls[at]


def _nearest_its_middle(of: Joined, blocks: Sequence[_Block]) -> Node:
    """The join or end that is nearest to the middle of all."""
    spans = sorted(frozenset[int]().union(*(block.spans for block in blocks)))
    middle = _middle(of.middles[spans], of.lengths[spans])
    return min((end for i in spans for end in of.spans[i].ends), key=lambda end: math.dist(end, middle))


def _middle(places: Numbers, weights: Numbers) -> Node:
    x, y = weights @ places / weights.sum()
    return float(x), float(y)
