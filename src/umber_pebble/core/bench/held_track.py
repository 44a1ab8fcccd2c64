"""The track of a held batch, and what to do about it."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.bench.act_kinds import Keep, TooWarm
from umber_pebble.core.bench.batch_events import Rewarmed, SetDown
from umber_pebble.core.bench.events import Body
from umber_pebble.core.bench.marks import HeldMarks
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.bench.state import BatchState
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.track import Dot, Track, curve_of
from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.heat.bands import Band
from umber_pebble.core.heat.pot_law import prior_line
from umber_pebble.core.melts.hold import Held, Stood, Story, Warmed, flows_and_stiff_degc, rescue_s, spot_of
from umber_pebble.core.melts.keeps import Keeps, keeps
from umber_pebble.core.plan.cooks import PotCook
from umber_pebble.core.spread import Spread, exact

POINTS = 61
SHOWN_S = 5400.0


@dataclass(frozen=True, slots=True)
class HoldKitchen:
    """What holding rests on: room and what each spot stands over [degC], and the oven that warms a batch again [W], if any."""

    room_degc: float
    spots_degc: Mapping[str, float | None]
    oven_w: float | None


def held_of(cook: PotCook, state: BatchState, degc: Spread, kitchen: HoldKitchen) -> tuple[Held, Story]:
    """A batch as it was filled, and what became of it [times in s from then].

    Args:
        cook: what it was decanted from
        state: of the batch
        degc: of what it was decanted from, then
        kitchen: spots and oven
    Source: definition
    """
    at = state.at_s
    held = Held(cook.way.melt, state.kg, degc, state.holder, kitchen.room_degc, cook.flow.tg, state.tip_m)
    stood = tuple(
        Stood(t - at, spot_of(spot, kitchen.room_degc, kitchen.spots_degc.get(spot))) for t, spot in state.spots
    )
    story = Story(
        stood,
        tuple(Warmed(t - at, s, kitchen.oven_w or 0.0) for t, s in state.warmed if kitchen.oven_w),
        tuple((t - at, kg) for t, kg in state.used),
        tuple((r.at_s - at, r.degc) for r in state.readings),
    )
    return held, story


def held_track(cook: PotCook, state: BatchState, degc: Spread, kitchen: HoldKitchen, overheated: bool) -> Track:
    """A held batch: how long it flows where it stands [s since the run started].

    Source: incropera-2007, avrami-1939
    """
    held, story = held_of(cook, state, degc, kitchen)
    at = state.at_s
    last = max([0.0, *(s.at_s for s in story.stood), *(w.at_s for w in story.warmed), *(t for t, _ in story.used)])
    now = keeps(held, story, last)
    return _track(state, at, now, held, overheated)


def _track(state: BatchState, at: float, now: Keeps, held: Held, overheated: bool) -> Track:
    shown = float(now.times_s[-1])
    end = min(
        [shown, SHOWN_S + (state.gone_s or 0.0), *(1.3 * s.high for s in (now.stiff_s,) if math.isfinite(s.high))]
    )
    pick = np.linspace(0, np.searchsorted(now.times_s, end), POINTS).astype(int).clip(0, now.times_s.size - 1)
    temps = [
        Spread(*row) for row in zip(now.low_degc[pick], now.likely_degc[pick], now.high_degc[pick], strict=True)
    ]
    curve = curve_of(now.times_s[pick] + at, temps)
    flows, stiff = (_shown(s, shown).plus(at) for s in (now.flows_s, now.stiff_s))
    last = exact(at + max(end, 60.0))
    bands = [Band("flows", exact(at), flows), Band("thickening", flows, stiff), Band("stiff", stiff, last)]
    line = prior_line(0.0, 1.0, exact(1.0))
    hot = now.times_s[now.likely_degc >= HOT_TO_HOLD_DEGC]
    return Track(
        tuple(b for b in bands if b.start.likely < last.likely),
        curve,
        tuple(Dot(r.id, r.at_s, r.degc, r.degc, r.method, False) for r in state.readings),
        at + (float(hot[-1]) if hot.size else 0.0),
        {
            "flows": (now.flows_s.plus(at), now.stiff_s.plus(at)),
            "tip": (now.tip_s.plus(at), now.tip_s.plus(at)),
            "too_warm": (exact(at + now.too_warm_s), exact(at + now.too_warm_s)),
        },
        HeldMarks(*flows_and_stiff_degc(held)),
        line,
        line,
        curve,
        overheated=overheated or now.was_too_warm,
    )


def _shown(of: Spread, shown: float) -> Spread:
    return Spread(*(min(v, shown) for v in (of.low, of.likely, of.high)))


def hold_acts(
    cooks: list[PotCook], batches: list[BatchState], tracks: Mapping[int, Track], kitchen: HoldKitchen, now: float
) -> list[Act]:
    """What each held batch needs next, and when [s since the run started]: its tip turned in, taken off what is too warm, warmed
    before it thickens.

    Source: common-practice
    """
    out = []
    for b in batches:
        if b.gone_s is not None or b.number not in tracks:
            continue
        track, cook = tracks[b.number], cooks[b.cook]
        flows, stiff = track.windows["flows"]
        subject = Subject("batch", b.number)
        warm = track.windows["too_warm"][0].likely
        if math.isfinite(warm):
            at = max(warm - EARLY_S, b.at_s)
            out.append(Act(TooWarm(b.name), subject, SetDown(b.number, "air"), at, warm))
        elif math.isfinite(flows.low):
            degc = float(np.interp(max(now, b.at_s), track.curve.times_s, track.curve.likely_degc))
            melt = cook.way.melt
            seconds = None
            if kitchen.oven_w and melt.has("set_stiff"):
                share = melt.value("set_stiff" if now < stiff.likely else "sets_at_most")
                seconds = rescue_s(_like(b, cook, degc, kitchen), degc, share, kitchen.oven_w)
            tells: Body = Rewarmed(b.number, seconds) if seconds else SetDown(b.number, "bath")
            out.append(Act(Keep(b.name, seconds or None), subject, tells, flows.low, stiff.likely))
    return out


EARLY_S = 60.0


def _like(b: BatchState, cook: PotCook, degc: float, kitchen: HoldKitchen) -> Held:
    return Held(cook.way.melt, max(b.left_kg, 0.002), exact(degc), b.holder, kitchen.room_degc)
