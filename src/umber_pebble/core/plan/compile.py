"""An order compiled: its cooks, their rounds and windows, and when all of it is done."""

from dataclasses import dataclass
from functools import cached_property

from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import Material
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.day.compile import OrderDay
from umber_pebble.core.plan.day.order import Chosen, order_day
from umber_pebble.core.plan.day.problem import Timetable
from umber_pebble.core.plan.divided import castings
from umber_pebble.core.plan.fares import Fares, fares_of
from umber_pebble.core.plan.problem import MeltWay, PlanInput
from umber_pebble.core.plan.rounds import Size, check_rounds, round_sizes, rounds_of
from umber_pebble.core.plan.sheets import cut_to_size
from umber_pebble.core.plan.tasks import PlannedHeat, Task
from umber_pebble.core.plan.timetable import scheduled


@dataclass(frozen=True)
class Plan:
    """The compiled order: what it was made from; per line the castings to make and of a round at most; its day with that day's timetable,
    and how it fares; cooks; windows per round [s from its pour]; heats and tasks, and when all is ready [s from now]. What a screen
    shows of it is made from it when that is asked for."""

    problem: PlanInput
    casts: tuple[int, ...]
    sizes: tuple[Size, ...]
    chosen: Chosen
    fares: Fares
    cooks: tuple[PotCook, ...]
    windows: dict[int, PieceWindows]
    heats: tuple[PlannedHeat, ...]
    tasks: tuple[Task, ...]
    ends_s: float

    @property
    def day(self) -> OrderDay:
        """What is scheduled."""
        return self.chosen.of

    @property
    def table(self) -> Timetable:
        """How it is scheduled."""
        return self.chosen.table

    @cached_property
    def rounds(self) -> tuple[Round, ...]:
        """All rounds, by number: in the order in which they are poured."""
        return tuple(sorted((r for c in self.cooks for r in c.rounds), key=lambda r: r.number))

    @cached_property
    def start_s(self) -> float:
        """When the first task begins [s from now]."""
        return min(task.start_s for task in self.tasks)

    @cached_property
    def lasts_s(self) -> float:
        """From its beginning until all is ready [s]."""
        return self.ends_s - self.start_s

    def cooks_of(self, melt: str) -> list[PotCook]:
        """The cooks of a melt, in order."""
        return [c for c in self.cooks if c.way is self.problem.ways[melt]]

    def fresh_kg(self, melt: str) -> float:
        """What is weighed out of a melt over all its cooks [kg]."""
        return sum(c.fresh_kg for c in self.cooks_of(melt))

    def made_kg(self, melt: str) -> float:
        """The same, with what is divided off for it: what is coloured [kg]."""
        return sum(c.made_kg for c in self.cooks_of(melt))


def compile_plan(plan: PlanInput) -> Plan:
    """The whole plan of an order [SI].

    Args:
        plan: what it rests on
    Raises:
        Missing: nothing to be made.
        OutOfRange: a quantity, level, temperature, pace or power outside its limits.
        MouldTooWeak: a mould does not bear the pour.
    Source: definition
    """
    if not plan.lines and not plan.by_hand:
        raise Missing("add a line: a piece and how many", path="lines")
    _check(plan)
    sizes = round_sizes(plan)
    casts = castings(plan, [size.casts for size in sizes])
    check_rounds(casts, sizes)
    plan = cut_to_size(plan, [rounds_of(n, size.casts) for n, size in zip(casts, sizes, strict=True)])
    chosen = order_day(plan, casts, [size.casts for size in sizes])
    fares = fares_of(chosen)
    of = scheduled(chosen.of, chosen.table, fares.start_s)
    return Plan(plan, casts, tuple(sizes), chosen, fares, of.cooks, of.windows, of.heats, of.tasks, of.ends_s)


def _check(plan: PlanInput) -> None:
    require_range("reserve_frac", plan.reserve_frac, 0.0, 0.5)
    require_range("room_degc", plan.room_degc, 5.0, 45.0)
    require_range("humidity_frac", plan.humidity_frac, 0.0, 1.0)
    for key, way in plan.ways.items():
        if not any(line.melt == key for line in plan.lines):
            raise OutOfRange("no line is of this material", path=f"ways.{key}", got=key)
        _check_way(way)
    for name in (
        "weigh_s",
        "pour_each_s",
        "bend_each_s",
        "stick_each_s",
        "fill_each_s",
        "stir_s",
        "unmould_each_s",
    ):
        require_range(f"paces.{name}", getattr(plan.paces, name), 1.0, 3600.0)
    for i, line in enumerate(plan.lines):
        require_range(f"lines.{i}.mould.cavities", line.mould.cavities, 1, 500)
        require_range(f"lines.{i}.mould.owned", line.mould.owned, 1, 50)


def _check_way(way: MeltWay) -> None:
    by, path = way.by, f"ways.{family_of(way.melt).key}"
    by.check(way.melt, path)
    check_vessel(by.in_oven, by.on_ring, way.pot.metal, way.vessel_id, f"{path}.vessel_id", way.end_degc)


def check_vessel(in_oven: bool, on_ring: bool, wall: Material, vessel_id: str, path: str, degc: float) -> None:
    """A vessel that bears its heat: no metal in a microwave, nothing but metal on a ring, nothing hotter than it is made for.

    Args:
        in_oven, on_ring: in a microwave, on a ring, or neither
        wall: what the vessel is of
        vessel_id, path: for the error
        degc: of what is in it at its hottest
    Raises: OutOfRange.
    Source: common-practice, from-memory
    """
    bears = wall.value("bears")
    if not on_ring and degc > bears:
        raise OutOfRange(
            f"{wall.name.lower()} bears {bears:g} degC and this comes to {degc:.0f}: use a silicone cup or heat-proof glass",
            path=path,
            got=vessel_id,
            limits={"high": bears},
        )
    if in_oven and wall.flags["metal"]:
        said = "no metal in the microwave: use a bowl of silicone or heat-proof glass, or a ring or water bath"
        raise OutOfRange(said, path=path, got=vessel_id)
    if on_ring and not wall.flags["metal"]:
        raise OutOfRange(f"{wall.name} does not go on a ring: use a metal pot", path=path, got=vessel_id)
