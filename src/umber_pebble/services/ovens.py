"""A kitchen's microwaves and rings as the engine takes them, with what runs taught of them."""

from collections.abc import Mapping

from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.oven import Microwave, nib_duty_frac
from umber_pebble.core.plan.sugar_cook import Ring
from umber_pebble.core.spread import Spread
from umber_pebble.services.doc_base import Doc
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.documents import Microwave as MicrowaveDoc
from umber_pebble.services.documents import Ring as RingDoc


class FactorSpread(Doc):
    low: float
    likely: float
    high: float

    def spread(self) -> Spread:
        return Spread(self.low, self.likely, self.high)


def oven_case(oven: MicrowaveDoc, kitchen: Kitchen, ovens: Mapping[str, FactorSpread]) -> Microwave:
    """A microwave as the engine takes it, with what runs taught of it."""
    known = ovens.get(oven.id)
    return Microwave(oven.power_w, kitchen.paces.stir_s, known.spread() if known else None)


def ring_case(heater: RingDoc | MicrowaveDoc, kitchen: Kitchen, ovens: Mapping[str, FactorSpread]) -> Ring:
    """A ring, or a microwave that heats in bursts, as the engine takes it."""
    if isinstance(heater, MicrowaveDoc):
        oven = oven_case(heater, kitchen, ovens)
        return Ring(oven.power_w, oven.share_frac.times(nib_duty_frac(oven.stir_s)), bursts=True)
    return Ring(heater.power_w, material("kitchen", heater.kind, "ring").spread("efficiency"))
