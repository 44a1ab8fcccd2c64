"""What goes in by hand over a whole order, and what it is mixed of."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.measures import Measured, measured, measured_m3
from umber_pebble.core.pieces.ratios import Feel, Mixed, feel_of, mixed_of, mixtures
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class ByHand:
    """Something that is put in or pressed by hand: its name, how many times, all of it [kg], and one of them by the spoon, where that is
    measured so; what it is mixed of, and what is added by feel, if that is known."""

    name: str
    count: int
    kg: float
    each: Measured | None
    of: Mixed
    feel: Feel | None


def by_hand_amounts(plan: PlanInput, cooks: Sequence[PotCook]) -> list[ByHand]:
    """Fillings, centres, sprinkles and pastes of an order, spares with them, each once [kg].

    Args:
        plan, cooks: of the order
    Source: common-practice
    """
    totals: dict[tuple[str, str], tuple[int, float]] = {}

    def add(name: str, key: str, count: int, each: float) -> None:
        known = totals.get((name, key), (0, 0.0))
        totals[(name, key)] = known[0] + count, known[1] + count * each

    for r in (r for cook in cooks for r in cook.rounds):
        line = plan.lines[r.line]
        for hand in line.inclusions:
            if hand.kg > 0 and hand.bought is None:
                add(hand.name, hand.key, r.casts, hand.kg)
    for step in plan.by_hand:
        if step.kg > 0 and step.what not in ("fit", "finish"):
            add(step.name, "", step.count, step.kg)
    return [
        ByHand(
            name,
            count,
            kg,
            _each(name, key, kg / count),
            mixed_of(key, kg) if key in mixtures() else (),
            feel_of(key, kg) if key in mixtures() else None,
        )
        for (name, key), (count, kg) in totals.items()
    ]


def _each(name: str, key: str, kg: float) -> Measured | None:
    """A filling by its volume, what is strewn as people measure it."""
    return measured_m3(kg / material("fillings", key).value("density")) if key else measured(name, kg)
