"""How a plan fares on days that are not as planned: how much time to leave before it is due, and which windows are easily lost."""

from dataclasses import dataclass

from umber_pebble.core.plan.day.chances import SAFE_FRAC, chances, each_slip, slipped, spare_s, uncertain, windows
from umber_pebble.core.plan.day.order import Chosen
from umber_pebble.core.plan.day.paces import OFF_FRAC, off_pace
from umber_pebble.core.plan.problem import Named
from umber_pebble.core.plan.remarks import EasilyLost
from umber_pebble.core.plan.tasks import TaskKind


@dataclass(frozen=True, slots=True)
class Fares:
    """A plan over many days: when it begins [s from now], how much it ends before it is due, below nothing where it is late [s], and on
    how many days it is then ready in time [frac]; what is easily lost."""

    start_s: float
    spare_s: float
    in_time_frac: float
    lost: tuple[EasilyLost, ...]


def fares_of(chosen: Chosen) -> Fares:
    """How an order's day fares on many days, begun so that it is ready in time on most of them, as far as it may begin so soon.

    Source: definition, assumption
    """
    of, table = chosen.of, chosen.table
    day, end = of.day, table.end_s(of.day)
    found = chances(day, table, off_pace(uncertain(day, table)), OFF_FRAC)
    start = max(chosen.earliest_s, min(chosen.latest_s, of.plan.due_s - end - spare_s(found, end)))
    spare = of.plan.due_s - end - start
    lost: dict[tuple[TaskKind, Named], EasilyLost] = {}
    slid = slipped(day, table, each_slip(day))
    for window in sorted(windows(day, found, slid), key=lambda window: window.kept_frac):
        name = of.names[window.task]
        if window.costly and not window.safe and name.filling is not None:
            named = of.plan.lines[of.fillings[name.filling].line].named
            by_slip = window.kept_frac >= SAFE_FRAC
            found_so = EasilyLost(name.kind, named, window.kept_frac, float(window.room_s), by_slip)
            lost.setdefault((name.kind, named), found_so)
    return Fares(start, spare, found.by_frac(end + spare), tuple(lost.values()))
