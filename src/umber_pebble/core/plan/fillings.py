"""What goes in by hand over a whole order, and what it is mixed of."""

from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.ratios import Mixed, mixed_of, mixtures
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.plan.problem import PlanInput


@dataclass(frozen=True, slots=True)
class ByHand:
    """Something that is put in or pressed by hand: its name, how many times, all of it [kg]; what it is mixed of, if that is known."""

    name: str
    count: int
    kg: float
    of: Mixed


@dataclass(frozen=True, slots=True)
class PasteNeed:
    """A paste to have ready: all that is pressed or modelled of it, and what stays on pin, board and hands [kg]; what it is mixed of, if that is
    known."""

    name: str
    kg: float
    of: Mixed


def pastes_of(plan: PlanInput) -> list[PasteNeed]:
    """What pastes an order takes, each once; off-cuts are kneaded in again [kg].

    Args:
        plan: the order
    Source: common-practice
    """
    stays = 1 + material("kitchen", "usual", "paste").value("stays")
    totals: dict[str, float] = {}
    for step in plan.by_hand:
        if step.key:
            totals[step.key] = totals.get(step.key, 0.0) + step.count * step.kg * stays
    known = mixtures()
    return [
        PasteNeed(material("pastes", key).name, kg, mixed_of(key, kg) if key in known else ())
        for key, kg in totals.items()
    ]


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
        if step.kg > 0 and step.what != "fit":
            add(step.name, "", step.count, step.kg)
    return [
        ByHand(name, count, kg, mixed_of(key, kg) if key in mixtures() else ())
        for (name, key), (count, kg) in totals.items()
    ]
