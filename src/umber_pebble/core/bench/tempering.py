"""A couverture tempered at the bench: its events, how its temperature goes with them, and the one act now."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from umber_pebble.core.bench.events import Seeded, Smeared, Stepped, Tested
from umber_pebble.core.bench.marks import PotMarks, TemperMarks
from umber_pebble.core.bench.payload import one_of, refuse
from umber_pebble.core.bench.state import Event, Rest, RunState
from umber_pebble.core.bench.track import Curve, Track, temperature_at_degc
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.materials.load import material
from umber_pebble.core.spread import exact
from umber_pebble.core.temper.guide import Guided, Now, after_seed, before_seed
from umber_pebble.core.temper.schools import AtBowl, Tempering, steps
from umber_pebble.core.temper.seed import after_degc, loses_temper_degc, seed_kg


def _bowl(state: RunState, number: int) -> Rest:
    cook = one_of(state.cooks, number, "cook")
    if cook.phase != "resting":
        raise refuse("only what is off the heat is tempered", "not_resting", cook=cook.number)
    return cook.rests[-1]


def seeded(state: RunState, event: Event, said: Seeded) -> None:
    """Seed stirred in [kg]. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    _bowl(state, said.cook).seeded.append((event.at_s, said.added_kg))


def stepped(state: RunState, event: Event, said: Stepped) -> None:
    """Another step done. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    _bowl(state, said.cook).steps.append((event.at_s, said.step))


def smeared(state: RunState, event: Event, said: Smeared) -> None:
    """A smear laid. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    _bowl(state, said.cook).smears.append(event.at_s)


def tested(state: RunState, event: Event, said: Tested) -> None:
    """What a smear said. Raises: OutOfRange, NotInSequence. Source: common-practice"""
    _bowl(state, said.cook).tests.append((event.at_s, said.test))


def tempering_track(
    tempering: Tempering, rest: Rest, make: Callable[[Rest], Track], in_temper: bool = False
) -> Track:
    """A bowl that is tempered: each seed and step takes it to where its heat balance says, then it cools on.

    What was in temper and has only been warmed to below where its crystals melt still is.
    Args:
        tempering: its plan
        rest: of its cook
        make: the track of a resting vessel
        in_temper: when it was last put on the heat, for this rest
    Source: incropera-2007, common-practice
    """
    track = make(replace(rest, readings=[r for r in rest.readings if r.at_s < _first(rest)]))
    added = 0.0
    done = sorted([*((t, "seed", kg) for t, kg in rest.seeded), *((t, step, 0.0) for t, step in rest.steps)])
    planned: dict[str, float] = {step.act: step.to_degc for step in steps(tempering)}
    for i, (at, what, kg) in enumerate(done):
        until = done[i + 1][0] if i + 1 < len(done) else math.inf
        here = temperature_at_degc(track, at).likely
        if what == "seed":
            s = replace(
                tempering.seeding,
                melt_kg=tempering.melt_kg + added,
                melt_degc=_warm(tempering, here),
            )
            to, added = after_degc(s, kg, s.melts_frac.likely), added + kg
        else:
            to = here if what == "through" else planned.get(what, here)
        since = replace(
            rest, off_s=at, off_degc=to, melted=None, readings=[r for r in rest.readings if at <= r.at_s < until]
        )
        track = _joined(track, make(since), at)
    work, melt = tempering.melt.spread("work_at"), tempering.melt
    assert isinstance(track.marks, PotMarks)
    marks = TemperMarks(
        pot=track.marks,
        work_low=work.low,
        work_high=work.high,
        loses=loses_temper_degc(melt),
        melt_low=melt.spread("melt_to").low,
        spoils=melt.value("spoils_at"),
    )
    temper, found = rest.temper, rest.tempered_s
    untouched = not (rest.seeded or rest.steps or rest.tests)
    if in_temper and untouched and temperature_at_degc(track, rest.off_s).likely < loses_temper_degc(melt):
        temper, found = "tempered", rest.off_s
    return replace(
        track, marks=marks, bands=_bands(tempering, rest, track, found), temper=temper, tempered_s=found
    )


def _bands(tempering: Tempering, rest: Rest, track: Track, found: float | None) -> tuple[Band, ...]:
    """Not to be poured until it was found to be in temper."""
    if tempering.school == "none":
        return track.bands
    opens, closes = track.windows["pour"][0], track.windows["pour"][1]
    off = exact(rest.off_s)
    rows = [b for b in track.bands if b.state in ("thickening", "stiff")]
    if found is None:
        return Band("tempering", off, closes), *rows
    start = exact(max(found, min(opens.likely, closes.likely)))
    return Band("tempering", off, start), Band("pour", start, closes), *rows


def _first(rest: Rest) -> float:
    return min([math.inf, *(t for t, _ in rest.seeded), *(t for t, _ in rest.steps)])


def _joined(before: Track, after: Track, at: float) -> Track:
    """One curve out of two, the second from a moment on."""

    def whole(a: Curve, b: Curve) -> Curve:
        n, just = sum(t < at for t in a.times_s), at - 0.1
        out = [(*a.times_s[:n], just, *b.times_s)]
        for k in ("low_degc", "likely_degc", "high_degc"):
            last = round(float(np.interp(just, a.times_s, getattr(a, k))), 2)
            out.append((*getattr(a, k)[:n], last, *getattr(b, k)))
        return Curve(*out)

    return replace(
        after,
        curve=whole(before.curve, after.curve),
        predicted=whole(before.predicted, after.predicted),
        dots=before.dots + after.dots,
        overheated=before.overheated,
    )


TemperAct = AtBowl | Guided | Literal["look"]


@dataclass(frozen=True, slots=True)
class TemperNow:
    """What a bowl asks for now: with how much [kg], to which temperature [degC], that share of the bowl [frac]."""

    act: TemperAct
    kg: float
    to_degc: float
    share_frac: float = 0.0


def temper_now(tempering: Tempering, rest: Rest, track: Track, now: float) -> tuple[TemperNow, float, float]:
    """The one act at a bowl that is not yet in temper; from when it may be done [s]; the share of its seed that has melted [frac].

    Args:
        tempering: its plan
        rest, track: of the bowl
        now: seconds since the run started
    Source: beckett-2009, common-practice
    """
    if rest.smears and not any(t >= rest.smears[-1] for t, _ in rest.tests):
        clock = material("kitchen", "usual", "smear").spread("sets")
        return TemperNow("look", 0.0, tempering.melt.value("work_at")), rest.smears[-1] + clock.low, 0.0
    if tempering.school == "seed":
        found, opens = _seeded_now(tempering, rest, track, now)
        share = found.kg / (tempering.melt_kg + found.kg)
        return TemperNow(found.act, found.kg, found.to_degc, share), opens, found.melted_frac
    planned = [
        TemperNow(step.act, step.kg, step.to_degc, step.share_frac)
        for step in steps(tempering)
        if step.act != "melt" and step.act != "pour" and step.act != "chill"
    ]
    done = len(rest.steps)
    step = planned[min(done, len(planned) - 1)]
    if rest.tests and rest.tests[-1][1] != "well":
        step = TemperNow("warm" if rest.tests[-1][1] == "over" else "cool", 0.0, tempering.melt.value("work_at"))
        if len(rest.steps) and rest.steps[-1][0] > rest.tests[-1][0]:
            step = planned[-1]
    return step, rest.off_s, 0.0


def _seeded_now(t: Tempering, rest: Rest, track: Track, now: float) -> tuple[Now, float]:
    reading = max(rest.readings, key=lambda r: r.at_s, default=None)
    here = temperature_at_degc(track, now).likely
    if reading and reading.at_s > max([0.0, *(time for time, _ in rest.steps)]):
        # what was read last holds, and it has cooled since as its curve does
        here += reading.degc - temperature_at_degc(track, reading.at_s).likely
    if not rest.seeded:
        been = max([track.curve.likely_degc[0], *(r.degc for r in rest.readings)])
        # warm enough once that nothing old was left, or somebody saw it, it may have cooled since
        through = been >= loses_temper_degc(t.melt) or any(step == "through" for _, step in rest.steps)
        return before_seed(t.melt, here, _planned_kg(t, here), through), rest.off_s
    at = max([rest.seeded[-1][0], *(time for time, _ in rest.steps)])
    if reading is None or reading.at_s <= at:
        return Now("read", 0.0, t.melt.value("work_at"), 0.0), at + _stirred_s()
    added = sum(kg for _, kg in rest.seeded)
    before = temperature_at_degc(track, rest.seeded[0][0] - 1.0).likely
    s = replace(t.seeding, melt_degc=_warm(t, before))
    if rest.tests and rest.tests[-1][1] == "over" and reading.at_s <= rest.tests[-1][0]:
        return Now("warm", 0.0, t.melt.spread("work_at").high, 1.0), rest.tests[-1][0]
    found = after_seed(s, added, reading.degc)
    if rest.tests and rest.tests[-1][1] == "under" and found.act in ("test", "take out"):
        # it read well and was not: a little more seed, and colder within its window
        return Now("more", 0.1 * added, t.melt.spread("work_at").low, found.melted_frac), rest.tests[-1][0]
    if found.act == "stir":
        return found, reading.at_s + _stirred_s()
    return found, reading.at_s


def _stirred_s() -> float:
    """How long after its seed a bowl is stirred before it is read."""
    return material("kitchen", "stirring", "seed").value("read_after")


def _warm(t: Tempering, degc: float) -> float:
    """Within what the balance of seeding holds for."""
    return min(max(degc, t.melt.value("work_at") + 0.1), 60.0)


def _planned_kg(t: Tempering, here: float) -> float:
    s = replace(t.seeding, melt_degc=_warm(t, here))
    return seed_kg(s, s.melts_frac.likely)
