"""A run at a moment: all that its next acts are found from."""

from dataclasses import dataclass

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class RunNow:
    """A run so many seconds after its start: its plan, cooks and windows, which stay; its state; the tracks of its vessels by cook, and
    of its rounds."""

    plan: PlanInput
    cooks: list[PotCook]
    state: RunState
    pots: dict[int, Track]
    rounds: dict[int, Track]
    windows: dict[int, PieceWindows]
    now_s: float
