"""What stands and sets, moved to where it is colder: how much sooner that may be turned out, and when it has to be."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.track import Track
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.plan.alternatives import sooner_s
from umber_pebble.core.plan.cooks import Round


@dataclass(frozen=True, slots=True)
class Chilled:
    """A round that is moved: to where, from when it may be turned out there, how much sooner that is, and from when it may crack; inf: it
    does not [s since the run started]."""

    round: int
    place: str
    out_s: float
    sooner_s: float
    cracks_s: float


def chilled(run: RunNow, places: Mapping[str, Place], moved: Callable[[int, str], Track]) -> list[Chilled]:
    """What of it is noticeably sooner off where it is coldest, as far as there is room, that which gains most first.

    Args:
        run: at a moment
        places: by id
        moved: how a round that is poured cools when it is moved to a place now
    Source: common-practice
    """
    coldest = min(places, key=lambda p: places[p].air_degc)
    room = run.plan.shelves.get(coldest, math.inf)
    for r in run.all_rounds:
        if run.state.rounds[r.number].in_mould and _lies_in(run, r) == coldest:
            room -= _moulds(run, r)
    found = [
        c
        for r in run.all_rounds
        if _may_be_moved(run, r)
        and places[_lies_in(run, r)].air_degc > places[coldest].air_degc
        and (c := _chilled(run, r, coldest, moved(r.number, coldest))) is not None
    ]
    out = []
    for c in sorted(found, key=lambda c: -c.sooner_s):
        takes = _moulds(run, next(r for r in run.all_rounds if r.number == c.round))
        if takes <= room:
            room -= takes
            out.append(c)
    return sorted(out, key=lambda c: c.round)


def _may_be_moved(run: RunNow, r: Round) -> bool:
    """What sets in the cold, has had its last pass and the work of hands, and is still in its mould."""
    line, seen = run.plan.lines[r.line], run.state.rounds[r.number]
    soft = line.work is not None and seen.worked_s is None
    sets = family_of(run.plan.way(line).melt).sets_in_the_cold
    return sets and line.last and seen.in_mould and not line.mould.hands and not line.released and not soft


def _chilled(run: RunNow, r: Round, place: str, there: Track) -> Chilled | None:
    out = there.windows["unmould"][0].high
    cracks = there.windows["over_chilled"][0].low if "over_chilled" in there.windows else math.inf
    sooner = run.rounds[r.number].windows["unmould"][0].high - max(out, run.now_s)
    lasts = r.casts * run.plan.paces.unmould_each_s
    return (
        Chilled(r.number, place, out, sooner, cracks)
        if sooner >= sooner_s() and out + lasts + run.plan.paces.call_before_s < cracks
        else None
    )


def _lies_in(run: RunNow, r: Round) -> str:
    return run.state.rounds[r.number].places[-1][1]


def _moulds(run: RunNow, r: Round) -> int:
    mould = run.plan.lines[r.line].mould
    return min(math.ceil(r.casts / mould.cavities), mould.owned)
