"""What is left of a run's day, as a day to be scheduled again: what was done when it was done, the rest from now on. What was wished of
the plan is not asked again: at the bench hands decide."""

import math
from collections import defaultdict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.soiled import last_in
from umber_pebble.core.bench.state import CookState, RoundState
from umber_pebble.core.plan.day.compile import Named, OrderDay
from umber_pebble.core.plan.day.held import EVER_S
from umber_pebble.core.plan.day.problem import Bound, Day, InVessel, Lag, Soiled, Stay


@dataclass(frozen=True, slots=True)
class Rest:
    """The rest of a day, times from when the run started; of: the day it is the rest of, number: the round of each of its fillings;
    done: which of its things are over, or can no longer be done; left_out: the rounds that are not cast."""

    of: OrderDay
    number: Mapping[int, int]
    day: Day
    done: frozenset[int]
    left_out: frozenset[int]


def rest_of_day(of: OrderDay, number: Mapping[int, int], run: RunNow, begins_s: float) -> Rest:
    """What is left of a day.

    Args:
        of: the day that was planned
        number: by filling of it, the round of the run
        run: at a moment
        begins_s: when the day was planned to begin [s since the run started]
    Source: definition
    """
    return _Rest(of, number, run, begins_s).rest()


class _Rest:
    def __init__(self, of: OrderDay, number: Mapping[int, int], run: RunNow, begins_s: float) -> None:
        self.of, self.number, self.run, self.state = of, number, run, run.state
        self.begins, self.now = round(begins_s), round(run.now_s)
        self.closes = {lag.then: lag.most_s for lag in of.day.lags if lag.most_s is not None}
        self.turn = defaultdict[int, int](int)
        self.began = {i: at for i, name in enumerate(of.names) if (at := self._began_s(i, name)) is not None}

    def rest(self) -> Rest:
        day, bounds = self.of.day, dict[int, Bound]()
        lags = [lag for lag in day.lags if not self._kept(lag, bounds)]
        for i, task in enumerate(day.tasks):
            if i in self.began:
                at = max(round(self.began[i]), 0)
                bounds[i] = Bound(i, at, at + task.lasts_s)
            else:
                bounds.setdefault(i, Bound(i, self.now))
        tasks = tuple(replace(t, hands=False) if i in self.began else t for i, t in enumerate(day.tasks))
        draws, begun = tuple(draw for draw in day.draws if draw.task not in self.began), tuple(self._begun())
        rest = replace(
            day,
            melts=tuple(
                m if m.portion is None or m.portion.task not in self.began else replace(m, portion=None)
                for m in day.melts
            ),
            tasks=tasks,
            lags=tuple(lags),
            stays=tuple(stay for stay in self._stays() if not self._free_again(stay)),
            draws=draws,
            closed=self._away(),
            bounds=tuple(bounds.values()),
            begun=begun,
            from_s=max(self.now, 0),
            soiled=tuple(self._soiled({day.melts[b.melt].vessel for b in begun})),
        )
        left_out = frozenset(r.number for r in self.state.rounds if r.left_out)
        return Rest(self.of, self.number, rest, frozenset(self.began), left_out)

    def _stays(self) -> Iterator[Stay]:
        """What is still taken, from the first of what is cast there."""
        for stay in self.of.day.stays:
            name = self.of.names[stay.first]
            if not self._is_left_out(name):
                yield stay
            elif stay.of not in self.of.plan.shelves and (kept := self._together(name)):
                own = {n.kind: i for i, n in enumerate(self.of.names) if n.filling == kept[0]}
                yield replace(stay, first=own["put_in" if "put_in" in own else "pour"])

    def _together(self, name: Named) -> list[int]:
        """What stands in one mould with something, but what is left out."""
        group = next((of for of in self.of.together if name.filling in of), ())
        return [filling for filling in group if not self.state.rounds[self.number[filling]].left_out]

    def _cleaned_s(self, name: Named, lasts_s: float) -> float | None:
        """When a mould was cleaned: once all that stood in it was off."""
        fillings, rounds = self.of.fillings, self.state.rounds
        kept = [f for f in self._together(name) if self.of.plan.lines[fillings[f].line].last]
        offs = [at for f in kept if (at := rounds[self.number[f]].unmoulded_s) is not None]
        return None if len(offs) < len(kept) else max(offs, default=-lasts_s) + lasts_s

    def _free_again(self, stay: Stay) -> bool:
        """Whether what was taken is free: it is over, or something else has been put there since, dry or not."""
        if stay.first not in self.began or stay.then not in self.began:
            return False
        ended = self.began[stay.then]
        since = any(
            o.of == stay.of and self.began.get(o.first, -1.0) >= ended for o in self.of.day.stays if o is not stay
        )
        return since or ended + self.of.day.tasks[stay.then].lasts_s + stay.after_s <= self.now

    def _away(self) -> tuple[tuple[int, int, int], ...]:
        """Whoever was away, and whoever has left."""
        gone = [p for p, name in enumerate(self.of.plan.people) if name in self.state.gone]
        left = tuple((p, self.now, self.now + EVER_S) for p in gone)
        planned = (
            (p, max(leaves + self.begins, 0), comes + self.begins)
            for p, leaves, comes in self.of.day.closed
            if p not in gone and comes + self.begins > 0
        )
        return (*planned, *left)

    def _is_left_out(self, name: Named) -> bool:
        seen = self._round(name)
        return seen is not None and seen.left_out

    def _round(self, name: Named) -> RoundState | None:
        return None if name.filling is None else self.state.rounds[self.number[name.filling]]

    def _began_s(self, i: int, name: Named) -> float | None:
        """When a thing was begun; None: it is to come."""
        seen, lasts = self._round(name), self.of.day.tasks[i].lasts_s
        if seen is None:
            made = name.by_hand is not None and name.by_hand in self.state.made
            return 0.0 if made and name.kind != "rest" else None
        if name.kind == "clean":
            return self._cleaned_s(name, lasts)
        if seen.left_out:
            return 0.0
        poured = seen.poured_s
        match name.kind:
            case "pour" | "swirl" | "divide":
                return poured
            case "put_in":
                return seen.put_in_s if seen.put_in_s is not None or poured is None else poured - lasts
            case "turn":
                nth = self.turn[seen.number]
                self.turn[seen.number] += 1
                if nth == 0:
                    return None if poured is None else poured + self._pour_lasts_s(name)
                return seen.turned_s[nth - 1] if len(seen.turned_s) >= nth else None
            case "unmould":
                return seen.unmoulded_s
            case "bend" | "stick" | "sprinkle" | "film" | "drag" | "comb" | "groove" | "cut" | "shape":
                missed = poured is not None and self.now > poured + self.closes[i]
                return seen.worked.get(name.kind, self.now - lasts if missed else None)
            case _:
                return None

    def _pour_lasts_s(self, name: Named) -> int:
        pour = next(j for j, n in enumerate(self.of.names) if n.kind == "pour" and n.filling == name.filling)
        return self.of.day.tasks[pour].lasts_s

    def _kept(self, lag: Lag, bounds: dict[int, Bound]) -> bool:
        """Whether a wait needs no looking after any more: what it waits for is over, and so it is a bound of what comes, or past."""
        if lag.first not in self.began:
            return lag.then in self.began
        if lag.then in self.began:
            return True
        day = self.of.day
        edge = self.began[lag.first] + (day.tasks[lag.first].lasts_s if lag.first_edge == "end" else 0)
        shift = day.tasks[lag.then].lasts_s if lag.then_edge == "end" else 0
        soonest, known = (
            math.ceil(self._out_s(lag, edge + lag.least_s)) - shift,
            bounds.get(lag.then, Bound(lag.then, self.now)),
        )
        by = known.over_by_s
        if lag.most_s is not None:
            latest = round(edge) + lag.most_s + (0 if lag.then_edge == "end" else day.tasks[lag.then].lasts_s)
            if latest - day.tasks[lag.then].lasts_s >= max(self.now, soonest):
                by = latest if by is None else min(by, latest)
        bounds[lag.then] = Bound(lag.then, max(known.not_before_s or 0, soonest, self.now), by)
        return True

    def _out_s(self, lag: Lag, planned_s: float) -> float:
        """When a wait is over: where it is until something may be turned out, as that cools, not as it was planned."""
        first, then = self.of.names[lag.first], self.of.names[lag.then]
        if first.kind != "pour" or then.kind != "unmould" or first.filling is None:
            return planned_s
        track = self.run.rounds.get(self.number[first.filling])
        return planned_s if track is None else track.windows["unmould"][0].high

    def _begun(self) -> list[InVessel]:
        """What is in its vessel, with something still to be poured of it."""
        day, out = self.of.day, dict[int, InVessel]()
        melt_of = {self.of.names[draw.task].filling: draw for draw in day.draws}
        by_round = {number: filling for filling, number in self.number.items()}
        for cook in self.run.cooks:
            seen = self.state.cooks[cook.number]
            if seen.phase == "waiting" or not any(self.state.rounds[r.number].waits for r in cook.rounds):
                continue
            drawn = [melt_of[by_round[r.number]] for r in cook.rounds]
            m = drawn[0].melt
            first, ready = self._ready_s(seen, m)
            poured = [d for d in drawn if d.task in self.began]
            used = max((round(self.began[d.task]) + day.tasks[d.task].lasts_s for d in poured), default=ready)
            warmings = max(len(seen.rests) - 1, 0)
            how = day.melts[m].first
            heater = 0 if seen.heated_s is None else max(ready - how.lasts_s + how.on_s, 0)
            out[m] = InVessel(m, ready, first, max(used, self.now), warmings, sum(d.mg for d in poured), heater)
        return list(out.values())

    def _soiled(self, in_use: set[str]) -> Iterator[Soiled]:
        """Vessels that something was in, and that nothing more is poured out of."""
        by_round = {number: filling for filling, number in self.number.items()}
        melt_of = {self.of.names[draw.task].filling: draw.melt for draw in self.of.day.draws}
        for vessel, last in last_in(self.run).items():
            if vessel not in in_use:
                melt = melt_of[by_round[last.cook.rounds[0].number]]
                yield Soiled(vessel, melt, round(last.since_s))

    def _ready_s(self, seen: CookState, melt: int) -> tuple[int, int]:
        """When a melt was ready first, since it was made anew, and last."""
        of = self.of.day.melts[melt]
        fresh = [n for n, rest in enumerate(seen.rests) if rest.anew]
        rests = seen.rests[fresh[-1] if fresh else 0 :]
        offs = [round(rest.tempered_s if rest.tempered_s is not None else rest.off_s) for rest in rests]
        if seen.heated_s is not None:
            lasts = (of.warm if offs and not seen.anew else of.first).lasts_s
            offs.append(max(round(seen.heated_s) + lasts, self.now))
        # what came out of another vessel is as if it had stood for a while
        stood = of.portion.stood_s if of.portion and len(offs) == 1 and rests and rests[0].portion else 0
        return offs[0], offs[-1] - stood
