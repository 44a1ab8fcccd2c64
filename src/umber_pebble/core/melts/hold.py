"""Melt held ready in bags, bowls and jugs: how long it flows, when it goes back to the heat, what dipping takes out of it."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numba import njit

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import set_along_frac, set_in_own_heat, setting_of
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.materials.load import Material, material, materials, model_factors
from umber_pebble.core.melts.oven import coupled_w
from umber_pebble.core.spread import Spread, combine, exact

STEP_S = 5.0
AHEAD_S = 2 * 3600.0
LEAST_KG = 0.002
REMELTS_S = 15.0
NO_KINETICS = (0.0, 1.0, 1.0, 1.0, 0.0, 0.0)
SLENDER = 3.0
"""A bag of melt is this many times as long as thick."""


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a vessel is kept: a coefficient to the room's air over its whole surface, and one to something else under or around
    it (bath, counter, hand), over a share of the surface [W/m2K, frac, degC]."""

    to_air_w_m2k: Spread
    to_place_w_m2k: Spread
    share_frac: float
    place_degc: float


@dataclass(frozen=True, slots=True)
class Held:
    """A batch in a vessel: what and how much, how warm when it came there; the room; its sugar's glass transition, None for fat;
    the tip it is piped through [m], None where there is none."""

    melt: Material
    kg: float
    degc: Spread
    holder: str
    room_degc: float
    tg: Spread | None = None
    tip_m: float | None = None

    def __post_init__(self) -> None:
        require_range("kg", self.kg, LEAST_KG, 20.0)
        known = materials("kitchen", "holder")
        if self.holder not in known:
            raise OutOfRange(
                "held in a bag, a bowl or a jug", path="holder", got=self.holder, limits={"one_of": list(known)}
            )

    @property
    def vessel(self) -> Material:
        return material("kitchen", self.holder, "holder")


@dataclass(frozen=True, slots=True)
class Stood:
    """From this moment it stood in this spot [s]."""

    at_s: float
    spot: Spot


@dataclass(frozen=True, slots=True)
class Warmed:
    """Seconds in a microwave of a power [W], at a moment [s]."""

    at_s: float
    seconds: float
    power_w: float


@dataclass(frozen=True, slots=True)
class Story:
    """What became of a held batch since it was filled, all times from then [s]: where it stood, when it was warmed, used (with
    what was taken, or put in [kg, below zero]), read [degC], and looked at."""

    stood: tuple[Stood, ...]
    warmed: tuple[Warmed, ...] = ()
    used: tuple[tuple[float, float], ...] = ()
    read: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True, slots=True)
class Keeps:
    """A held batch now and ahead, all times from its filling [s]: its temperature [degC], until when it flows freely and until
    when at all (inf: as long as it stands so), when its tip closes, from when it is warmer than it
    bears as it stands now (inf: never), and whether it has been so before."""

    times_s: Array
    likely_degc: Array
    low_degc: Array
    high_degc: Array
    flows_s: Spread
    stiff_s: Spread
    tip_s: Spread
    too_warm_s: float
    was_too_warm: bool
    kg: float


def spot_of(kind: str, room_degc: float, place_degc: float | None = None) -> Spot:
    """A spot by its kind: "bath", "towel", "glass", "counter", "hand" or "air" [SI fields].

    Args:
        kind: of the tables
        room_degc: of the room
        place_degc: of the bath's water, the counter or the hand; the room's where there is none
    Raises: OutOfRange: no such kind.
    Source: assumption
    """
    row = material("kitchen", kind, "hold")
    own = row.value("degc") if "degc" in row.properties else room_degc
    return Spot(
        row.spread("to_air"), row.spread("to_place"), row.value("share"), own if place_degc is None else place_degc
    )


def surface_m2(held: Held, kg: float) -> float:
    """Surface of a batch as its vessel shapes it: a slender bag, half a ball, a jug as high as wide [m2].

    Source: geometry
    """
    volume = kg / held.melt.value("density_melt")
    if held.holder == "bag":
        d = math.cbrt(4 * volume / (SLENDER * math.pi))
        return math.pi * d * (SLENDER + 0.5) * d
    if held.holder == "jug":
        d = math.cbrt(4 * volume / math.pi)
        return 1.5 * math.pi * d**2
    r = math.cbrt(3 * volume / (2 * math.pi))
    return 3 * math.pi * r**2


def capacity_j_k(held: Held, kg: float) -> float:
    """Heat a batch and its vessel hold a kelvin [J/K]. Source: incropera-2007"""
    return kg * held.melt.value("cp_melt") + held.vessel.value("mass") * held.vessel.value("cp")


@dataclass(frozen=True, slots=True)
class _Case:
    """One value of each uncertain input: a factor on what it loses, one on how slowly its fat sets, the share that thickens or
    the glass transition."""

    loss: float
    half: float
    thick: float
    tg: float
    off_k: float = 0.0


@njit(cache=True)
def _stand(times, at, until, state, rate, rest, warms_k, kin, temps, shares):  # type: ignore[no-untyped-def]
    """Fills temperatures and shares set at the times from `at` to `until`, and gives both at `until`: each step it loses heat to where
    it stands, and is warmed by what sets of it."""
    degc, share = state
    now = at
    for i in range(times.size + 1):
        to = until if i == times.size else times[i]
        if to < at:
            continue
        if to > until:
            to = until
        if to > now:
            degc = rest + (degc - rest) * math.exp(-rate * (to - now))
            if warms_k > 0.0:
                share, degc = set_in_own_heat(share, degc, to - now, warms_k, kin)
            now = to
        if i == times.size or times[i] >= until:
            break
        temps[i], shares[i] = degc, share
    return degc, share


def _temps(held: Held, story: Story, until_s: float, case: _Case) -> tuple[Array, Array, Array]:
    """Times, temperatures and shares set, a fat warmed by its own setting and cooled by what melts again."""
    times = np.arange(0.0, until_s + STEP_S, STEP_S)
    temps, shares = np.empty_like(times), np.zeros_like(times)
    fat = held.tg is None
    setting = setting_of(held.melt, case.half) if fat else None
    kinetics = setting.kinetics() if setting else NO_KINETICS
    kg, spot, at = held.kg, story.stood[0].spot, 0.0
    state = (held.degc.likely + case.off_k, setting.start_frac if setting else 0.0)
    happened: list[tuple[float, str, float, Spot | Warmed | None]] = sorted(
        [
            *((s.at_s, "stood", 0.0, s.spot) for s in story.stood[1:]),
            *((w.at_s, "warmed", 0.0, w) for w in story.warmed),
            *((t, "used", taken, None) for t, taken in story.used),
            *((t, "read", read, None) for t, read in story.read),
        ],
        key=lambda row: row[0],
    )
    end = float(times[-1]) + STEP_S
    for t, kind, value, what in [*happened, (end, "end", 0.0, None)]:
        rate, rest = loses(held, kg, spot, case.loss)
        warms_k = kg * held.melt.value("latent_fat") / capacity_j_k(held, kg) if fat else 0.0
        degc, share = state = _stand(times, at, t, state, rate, rest, warms_k, kinetics, temps, shares)
        at = t
        if isinstance(what, Warmed):
            # what is left of it takes the heat
            state = (degc + _warmth_j(what, kg) / capacity_j_k(held, kg), share)
        elif kind == "used":
            kg = max(kg - value, LEAST_KG)
        elif kind == "read":
            state = (value + case.off_k, share)
        elif isinstance(what, Spot):
            spot = what
    return times, temps, shares


def _warmth_j(w: Warmed, kg: float) -> float:
    return coupled_w(w.power_w, kg, material("kitchen", "coupling", "microwave").value("share")) * w.seconds


def loses(held: Held, kg: float, spot: Spot, factor: float) -> tuple[float, float]:
    """How fast a batch comes to rest where it stands, and at what [1/s, degC].

    Args:
        held, kg: the batch, as much as is left of it
        spot: where it stands
        factor: on what it loses
    Source: incropera-2007, section 5.1
    """
    surface = surface_m2(held, kg)
    air = factor * spot.to_air_w_m2k.likely * surface * (1 - spot.share_frac)
    place = factor * spot.to_place_w_m2k.likely * surface * spot.share_frac
    total = max(air + place, 1e-9)
    return total / capacity_j_k(held, kg), (air * held.room_degc + place * spot.place_degc) / total


def _after(times: Array, rising: Array, limit: float, from_s: float) -> float:
    """When a rising series passes a limit, from a moment on, leaving time to melt what was warmed [s]; inf when never."""
    later = np.flatnonzero((rising >= limit) & (times >= from_s + (REMELTS_S if from_s > 0 else 0.0) - 1e-9))
    return float(times[later[0]]) if later.size else math.inf


def _marks(
    held: Held, times: Array, temps: Array, share: Array, case: _Case, from_s: float
) -> tuple[float, float]:
    """When it thickens and when it is stiff [s]."""
    if held.tg is not None:
        limits = [
            -temperature_at_log_viscosity_degc(held.melt.value(p), case.tg)
            for p in ("log_pour_close", "log_stiff")
        ]
        return _after(times, -temps, limits[0], from_s), _after(times, -temps, limits[1], from_s)
    stiff = held.melt.value("set_stiff")
    return _after(times, share, case.thick, from_s), _after(times, share, stiff, from_s)


def _tip(held: Held, temps: Array, times: Array, case: _Case, from_s: float) -> float:
    """When the melt in an idle tip is stiff: a thin rod in the room's air [s]."""
    if held.tip_m is None:
        return math.inf
    melt, idle = held.melt, times >= from_s
    h = material("kitchen", "air", "hold").value("to_air") * case.loss
    rate = 4 * h / (melt.value("density_melt") * melt.value("cp_melt") * held.tip_m)
    start = float(temps[idle][0])
    rod = held.room_degc + (start - held.room_degc) * np.exp(-rate * (times[idle] - from_s))
    own = times[idle] - from_s
    share = set_along_frac(own, rod, setting_of(melt, case.half)) if held.tg is None else np.zeros_like(rod)
    return from_s + _marks(held, own, rod, share, case, 0.0)[1]


def keeps(held: Held, story: Story, now_s: float) -> Keeps:
    """How a held batch stands and how long it lasts as it stands, with spread.

    Args:
        held: as it was filled
        story: since then
        now_s: since it was filled [s]
    Raises: OutOfRange: a time before the filling.
    Source: incropera-2007 (section 5.1), avrami-1939, williams-landel-ferry-1955, jcgm-100-2008
    """
    require_range("now_s", now_s, 0.0, 1e7)
    last = max([0.0, *(s.at_s for s in story.stood), *(w.at_s for w in story.warmed), *(t for t, _ in story.read)])
    idle = max([0.0, *(w.at_s for w in story.warmed), *(t for t, _ in story.used)])
    loss = model_factors()["loss_factor"].spread
    half = held.melt.spread("half_time") if held.tg is None else exact(1.0)
    thick = held.melt.spread("set_thickens") if held.tg is None else exact(0.0)
    tg = held.tg or exact(0.0)
    base = _Case(1.0, 1.0, thick.likely, tg.likely)
    off = (held.degc.low - held.degc.likely, held.degc.high - held.degc.likely)
    varied = [
        [replace(base, loss=loss.low), replace(base, loss=loss.high)],
        [replace(base, off_k=off[0]), replace(base, off_k=off[1])],
    ]
    if held.tg is None:
        varied += [
            [replace(base, half=half.low / half.likely), replace(base, half=half.high / half.likely)],
            [replace(base, thick=thick.low), replace(base, thick=thick.high)],
        ]
    else:
        varied.append([replace(base, tg=tg.low), replace(base, tg=tg.high)])
    until = now_s + AHEAD_S

    def one(case: _Case) -> tuple[Array, float, float, float]:
        times, temps, share = _temps(held, story, until, case)
        flows, stiff = _marks(held, times, temps, share, case, last)
        return temps, min(flows, until), min(stiff, until), min(_tip(held, temps, times, case, idle), until)

    temps, *likely = one(base)
    rows = [[one(case) for case in pair] for pair in varied]
    flows = combine(likely[0], [[r[1] for r in pair] for pair in rows])
    stiff = combine(likely[1], [[r[2] for r in pair] for pair in rows])
    tip = combine(likely[2], [[r[3] for r in pair] for pair in rows])
    times = np.arange(0.0, until + STEP_S, STEP_S)
    bands = [np.array([r[0] - temps for r in pair]) for pair in rows[:2]]
    down = np.sqrt(sum(np.minimum(b.min(axis=0), 0.0) ** 2 for b in bands))
    up = np.sqrt(sum(np.maximum(b.max(axis=0), 0.0) ** 2 for b in bands))
    above = (temps > held.melt.value("spoils_at")) if held.tg is None else np.zeros(times.size, dtype=bool)
    hot = np.flatnonzero(above & (times >= last))
    taken = sum(kg for t, kg in story.used)
    return Keeps(
        times, temps, temps - down, temps + up, _within(flows, until), _within(stiff, until), _within(tip, until),
        float(times[hot[0]]) if hot.size else math.inf, bool(above[times < last].any()), max(held.kg - taken, 0.0),
    )  # fmt: skip


def _within(of: Spread, until: float) -> Spread:
    """What is not reached within the time looked at is not said to be reached."""
    low, likely, high = (v if v < until - 2 * STEP_S else math.inf for v in (of.low, of.likely, of.high))
    return Spread(low, likely, high)


def rescue_s(held: Held, degc: float, set_frac: float, power_w: float) -> float:
    """Seconds in the microwave that bring a stiff batch of fat back to where it flows, in the steps of practice [s].

    Args:
        held: the batch
        degc: as it is
        set_frac: how far it has set
        power_w: of the oven
    Source: common-practice, incropera-2007 (energy balance)
    """
    step, melt = material("kitchen", "bursts", "microwave").value("rescue"), held.melt
    # where half of what thickens it is left at rest
    left = melt.value("sets_at_most") / (0.5 * melt.value("set_thickens")) - 1
    goal = melt.value("melts_at") + melt.value("melting_width") * math.log(left)
    needs = capacity_j_k(held, held.kg) * max(goal - degc, 0.0) + held.kg * melt.value("latent_fat") * melt.value(
        "set_stiff"
    )
    watts = coupled_w(power_w, held.kg, material("kitchen", "coupling", "microwave").value("share"))
    return step * max(math.ceil(needs / watts / step), 1)
