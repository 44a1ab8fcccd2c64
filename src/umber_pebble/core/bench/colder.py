"""What stands and sets, moved to where it is colder: how much sooner that may be turned out, and when it has to be."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.track import Track
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.plan.alternatives import sooner_s
from umber_pebble.core.plan.cooks import Round, lies_in


@dataclass(frozen=True, slots=True)
class Chilled:
    """A round that is moved: to where, how it cools there, and how much sooner it may then be turned out [s]."""

    round: int
    place: str
    there: Track
    sooner_s: float

    @property
    def out_s(self) -> float:
        """From when it may be turned out there [s since the run started]."""
        return self.there.windows["unmould"][0].high

    @property
    def cracks_s(self) -> float:
        """From when it may crack there; inf: it does not [s since the run started]."""
        return self.there.windows["over_chilled"][0].low if "over_chilled" in self.there.windows else math.inf


def chilled(run: RunNow, places: Mapping[str, Place], moved: Callable[[int, str], Track]) -> list[Chilled]:
    """What of it is noticeably sooner off where it is coldest, as far as there is room, that which gains most first.

    Args:
        run: at a moment
        places: by id
        moved: how a round that is poured cools when it is moved to a place now
    Source: common-practice
    """
    coldest = min(places, key=lambda p: places[p].air_degc)
    stands = [r for r in run.all_rounds if run.state.rounds[r.number].in_mould]
    room = run.plan.shelves.get(coldest, math.inf) - sum(
        _moulds(run, r) for r in stands if _lies(run, r) == coldest
    )
    moves = [
        (r, _chilled(run, r, coldest, moved(r.number, coldest)))
        for r in stands
        if _may_be_moved(run, r) and places[_lies(run, r)].air_degc > places[coldest].air_degc
    ]
    out = []
    for r, one in sorted(moves, key=lambda move: -move[1].sooner_s):
        if _is_worth_it(run, r, one) and _moulds(run, r) <= room:
            room -= _moulds(run, r)
            out.append(one)
    return sorted(out, key=lambda one: one.round)


def _may_be_moved(run: RunNow, r: Round) -> bool:
    """What sets in the cold, and has had its last pass and the work of hands."""
    line, seen = run.plan.lines[r.line], run.state.rounds[r.number]
    sets = family_of(run.plan.way(line).melt).sets_in_the_cold
    return sets and line.last and not line.mould.hands and not line.released and not line.works_left(seen.worked)


def _chilled(run: RunNow, r: Round, place: str, there: Track) -> Chilled:
    out_s = max(there.windows["unmould"][0].high, run.now_s)
    return Chilled(r.number, place, there, run.rounds[r.number].windows["unmould"][0].high - out_s)


def _is_worth_it(run: RunNow, r: Round, one: Chilled) -> bool:
    """Whether it is noticeably sooner off, and that before it may crack."""
    paces = run.plan.paces
    lasts = r.casts * paces.unmould_each_s + paces.call_before_s
    return one.sooner_s >= sooner_s() and one.out_s + lasts < one.cracks_s


def _lies(run: RunNow, r: Round) -> str:
    return run.state.rounds[r.number].places[-1][1]


def _moulds(run: RunNow, r: Round) -> int:
    return lies_in(run.plan, run.plan.lines[r.line], r.casts)[1]
