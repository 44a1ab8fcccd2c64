"""A run at a moment: all that its next acts are found from."""

from dataclasses import dataclass, field

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class RunNow:
    """A run so many seconds after its start: its plan, cooks and windows, which stay; its state; the tracks of its vessels by cook, and
    of its rounds; when each round was planned to be poured [s from the first of the plan], and whose hands what is done was planned
    for, by what it is and to what number."""

    plan: PlanInput
    cooks: list[PotCook]
    state: RunState
    pots: dict[int, Track]
    rounds: dict[int, Track]
    windows: dict[int, PieceWindows]
    now_s: float
    planned_s: dict[int, float] = field(default_factory=dict)
    whose: dict[tuple[str, int], str] = field(default_factory=dict)

    @property
    def all_rounds(self) -> list[Round]:
        """The rounds of all cooks, but those that are left out."""
        return [r for cook in self.cooks for r in cook.rounds if not self.state.rounds[r.number].left_out]

    @property
    def plan_s(self) -> dict[int, float]:
        """When each round is planned to be poured: as rearranged, else as planned first."""
        return self.state.planned or self.planned_s

    def hands_for(self, done: str, number: int) -> str | None:
        """Whose hands something is for, by what is done and to what number; None where nobody is named, or who is named is away.
        Source: definition"""
        who = self.state.whose.get((done, number), self.whose.get((done, number)))
        return None if who in self.state.gone else who

    def expected_s(self, number: int) -> float:
        """When a round is to be poured if all goes on as planned, as far behind or ahead of the plan as the last pour was [s since the run
        started]; 0 where it was not planned. Source: definition"""
        if number not in self.plan_s:
            return 0.0
        poured = [(r.poured_s, r.number) for r in self.state.rounds if r.poured_s is not None]
        known = [(at, n) for at, n in poured if n in self.plan_s]
        if known:
            at, last = max(known)
            return self.plan_s[number] + at - self.plan_s[last]
        return self.plan_s[number] + max(self.now_s - min(self.plan_s.values()), 0.0)
