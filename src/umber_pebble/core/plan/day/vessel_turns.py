"""What goes into one vessel after what, as a solver sees it: what is washed out of it in between, and what is not."""

import itertools
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from ortools.sat.python import cp_model

from umber_pebble.core.plan.day.melt_slots import AtIt, MeltSlots, Slot
from umber_pebble.core.plan.day.problem import Day

Var = cp_model.IntVar
EMPTY = 0
"""The node that comes before the first and after the last in a vessel."""


@dataclass(frozen=True, slots=True)
class Node:
    """A heat that may be in the vessel: which of which melt."""

    melt: MeltSlots
    nth: int

    @property
    def slot(self) -> Slot:
        return self.melt.slots[self.nth]

    @property
    def is_there(self) -> bool:
        """Whether it is in its vessel already."""
        return self.nth == 0 and self.melt.there is not None


@dataclass
class VesselTurns:
    """One vessel of a day that several melts go into: each heat follows one other, or is the first."""

    m: cp_model.CpModel
    day: Day
    vessel: str
    melts: Sequence[MeltSlots]
    follows: dict[tuple[int, int], Var] = field(default_factory=dict)
    """Whether one node comes right after another."""
    washed: dict[int, dict[int, list[Var]]] = field(default_factory=lambda: defaultdict(lambda: defaultdict(list)))
    """What makes a wash of so long [s] come before a node."""

    def __post_init__(self) -> None:
        self.nodes = [Node(melt, n) for melt in self.melts for n in range(len(melt.slots))]
        arcs: list[tuple[int, int, cp_model.LiteralT]] = [(EMPTY, EMPTY, self.m.new_bool_var("never used"))]
        for j, node in enumerate(self.nodes, start=1):
            arcs.append((j, j, ~node.slot.here))
            arcs += [(EMPTY, j, self._first(j)), (j, EMPTY, self.m.new_bool_var("last in it"))]
            for i, before in enumerate(self.nodes, start=1):
                if (then := self._after(i, before, j, node)) is not None:
                    arcs.append((i, j, then))
        self.m.add_circuit(arcs)

    def _first(self, j: int) -> Var:
        """Nothing was in it before, or what is still to be washed out of it."""
        first = self.follows[EMPTY, j] = self.m.new_bool_var("first in it")
        node = self.nodes[j - 1]
        if node.is_there:
            return first
        self.m.add_implication(first, node.slot.new)
        for soiled in self.day.soiled:
            if soiled.vessel == self.vessel:
                self._cleaned(first, soiled.melt, soiled.since_s, j)
        return first

    def _after(self, i: int, before: Node, j: int, node: Node) -> Var | None:
        """Of the same melt only the next one; of another only what is made new."""
        same = before.melt is node.melt
        if node.is_there or (same and node.nth != before.nth + 1):
            return None
        then = self.follows[i, j] = self.m.new_bool_var("right after")
        if same:
            self.m.add_implication(node.slot.warm, then)
            self.m.add_implication(node.slot.again, then)
        else:
            self.m.add_implication(then, node.slot.new)
            self._cleaned(then, before.melt.number, before.slot.last, j)
        return then

    def _cleaned(self, then: Var, before: int, over_s: cp_model.LinearExprT, j: int) -> None:
        """Whatever is washed out of it is out before the next is weighed."""
        node = self.nodes[j - 1]
        was = self.day.cleaned_of(before, node.melt.number)
        wash, soaks = (was.wash_s, was.soaks_s) if was else (0, 0)
        self.m.add(node.slot.start >= over_s + soaks + wash).only_enforce_if(then)
        self.m.add(node.slot.start >= self.day.from_s + wash).only_enforce_if(then)
        if wash:
            self.washed[j][wash].append(then)

    def at_it(self) -> Iterator[tuple[MeltSlots, AtIt]]:
        """When hands wash it. Source: definition"""
        for j, by in self.washed.items():
            node = self.nodes[j - 1]
            for wash, after in by.items():
                is_so = self.m.new_bool_var("washed")
                self.m.add(sum(after) == is_so)
                yield node.melt, AtIt(node.nth, -1, node.slot.start - wash, wash, is_so)

    def hint(self, order: Sequence[tuple[int, int]]) -> None:
        """Begins from what is known; order: of each heat in it, which of which melt. Source: definition"""
        numbers = {(node.melt.number, node.nth): j for j, node in enumerate(self.nodes, start=1)}
        known = [EMPTY, *(numbers[of] for of in order)]
        right = set(itertools.pairwise(known))
        for arc, then in self.follows.items():
            self.m.add_hint(then, int(arc in right))
