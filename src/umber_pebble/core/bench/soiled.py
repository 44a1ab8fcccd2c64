"""What is in the vessels of a run that nothing more is poured out of, and what has to be out of one before it is used again."""

from dataclasses import dataclass

from umber_pebble.core.bench.act_kinds import Wash
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.plan.colour_order import is_same_material, swallows
from umber_pebble.core.plan.cooks import PotCook


@dataclass(frozen=True, slots=True)
class LastIn:
    """The cook that was in a vessel last, and since when nothing has been poured of it [s since the run started]."""

    cook: PotCook
    since_s: float


def last_in(run: RunNow) -> dict[str, LastIn]:
    """What was in each vessel last, by vessel, where nothing more is poured of it. Source: definition"""
    out: dict[str, LastIn] = {}
    for cook in run.cooks:
        seen = run.state.cooks[cook.number]
        over = seen.phase == "resting" and not any(run.state.rounds[r.number].waits for r in cook.rounds)
        if not (over or seen.thrown) or not seen.rests:
            continue
        since = max([seen.rests[-1].off_s, *(at for rest in seen.rests for at, _ in rest.poured)])
        was = out.get(cook.way.vessel_id)
        if was is None or was.since_s <= since:
            out[cook.way.vessel_id] = LastIn(cook, since)
    return out


def to_wash(run: RunNow, cook: PotCook) -> Wash | None:
    """What has to be out of a vessel before a cook is weighed into it; None where it is clean, or swallowed unseen.

    Source: common-practice
    """
    was = last_in(run).get(cook.way.vessel_id)
    if was is None or was.cook.number == cook.number or swallows(cook.way, was.cook.way):
        return None
    melt = was.cook.way.melt
    kept = material("kitchen", family_of(melt).rows, "batch")
    return Wash(
        melt.called or melt.name.lower(),
        is_same_material(cook.way, was.cook.way),
        kept.value("soaks"),
        kept.value("washed"),
    )
