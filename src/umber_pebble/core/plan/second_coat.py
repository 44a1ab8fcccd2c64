"""A melt poured on another of its kind: how far it must have cooled so as not to melt the one under it."""

from dataclasses import replace
from functools import lru_cache

from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Casting, LayerUnder
from umber_pebble.core.heat.passes import PassOnPass, pass_on_pass
from umber_pebble.core.plan.cooks import PotCook, Round, casting_of, path_of
from umber_pebble.core.plan.problem import PlanInput


@lru_cache(maxsize=256)
def _does(casting: Casting) -> PassOnPass:
    return pass_on_pass(casting)


def rests_to_degc(plan: PlanInput, cook: PotCook, r: Round) -> float | None:
    """How far a melt rests before it is poured on the pass under it [degC]; None where it may be poured as it is.

    Args:
        plan, cook: of the round
        r: poured on another pass
    Raises: OutOfRange: a size the model does not hold for.
    Source: avrami-1939, assumption
    """
    line = plan.lines[r.line]
    before = plan.lines[line.after] if line.after is not None else None
    if before is None or before.with_next:
        return None
    way = plan.way(before)
    if None in (family_of(of).softens_degc(of) for of in (cook.way.melt, way.melt)):
        return None
    flow, window = cook.pours[r.line]
    casting = casting_of(plan, line, window.open_degc, flow, path_of(plan, line, r.casts))
    under = LayerUnder(way.melt, before.cast.thickness.likely, way.sets_in.air_degc)
    does = _does(replace(casting, under=(under, *casting.under)))
    return does.pour_below_degc if does.verdict == "dissolves" else None
