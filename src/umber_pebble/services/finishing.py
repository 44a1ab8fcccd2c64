"""The finishes of a part as steps of a plan: each coat once the one before it is dry, the first once the piece is out and no longer cold."""

from collections.abc import Iterator
from dataclasses import dataclass

from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.finishes import coat_of
from umber_pebble.core.plan.finishing import rests_s
from umber_pebble.core.plan.handwork import FinishCoat, Inclusion
from umber_pebble.core.plan.problem import HandStep, Named
from umber_pebble.core.spread import exact
from umber_pebble.services.builds import Wanted
from umber_pebble.services.built import Built
from umber_pebble.services.documents import Kitchen
from umber_pebble.services.places import air_degc, pick


@dataclass(frozen=True, slots=True)
class MadeBy:
    """By which a part is made before it is finished: the number of its last line, None where nothing is melted, and the id of the place it then
    lies in; the number of the step by which hands made it, None where they did not."""

    line: int | None
    place_id: str
    step: int | None


def finishes_of(built: Built, wanted: Wanted, kitchen: Kitchen, made: MadeBy, first: int) -> Iterator[HandStep]:
    """Its coats in order; first: the number of the first of these steps.

    Raises: OutOfRange: a finish that cannot be.
    """
    if not any(one.AFTER for one in built.passes):
        return
    out = exact(0.0)
    if made.line is not None:
        cast = next(row for row in reversed(built.laid) if row.cast)
        melt = built.passes[cast.index].material(built.own)
        cold = air_degc(pick(kitchen.places, made.place_id, "finish"), kitchen)
        out = rests_s(melt, max(cast.thick_m, 1e-3), cold, kitchen.room_degc, kitchen.humidity_frac)
    number, before = first, made.step
    for row in built.laid:
        one = built.passes[row.index]
        of = one.finish(row.area_m2) if one.AFTER else None
        if of is None:
            continue
        times = material("kitchen", "dries", "finish").spread("times")
        coat = coat_of(of, kitchen.room_degc, kitchen.humidity_frac)
        for nth in range(of.coats):
            step = f"{one.step()}, {nth + 1}" if of.coats > 1 else one.step()
            put = Inclusion(
                "finish", _name(built, row.index), coat.stays_kg, coat.hands_s, finish=FinishCoat(of, coat, nth)
            )
            yield HandStep(
                "finish",
                Named(wanted.named.piece, wanted.named.part, step),
                wanted.item,
                wanted.quantity,
                coat.stays_kg,
                kitchen.paces.fill_each_s + coat.hands_s,
                times.times(coat.dries_s),
                () if made.line is None else (made.line,),
                after_steps=() if before is None else (before,),
                items=(put,),
                out_s=out,
            )
            before, number = number, number + 1


def _name(built: Built, index: int) -> str:
    put = built.passes[index].put()
    assert put is not None
    return put.name
