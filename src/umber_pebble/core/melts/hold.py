"""Melt held ready in bags, bowls and jugs: how long it flows, when it goes back to the heat, what dipping takes out of it."""

import math
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numba import njit

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import Setting, set_along_frac, set_in_own_heat, setting_of
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.materials.load import Material, material, materials
from umber_pebble.core.melts.oven import coupled_w
from umber_pebble.core.spread import Spread

STEP_S = 5.0
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
class HeldCase:
    """One value of each uncertain input: factors on what it loses, to air and to its place, on how slowly its fat sets and on its heat
    capacity; by how much its melting point is off; the share that thickens, the glass transition; how far the reading is off [K]."""

    thick: float
    tg: float
    loss: float = 1.0
    to_air: float = 1.0
    to_place: float = 1.0
    half: float = 1.0
    cp: float = 1.0
    melts_k: float = 0.0
    off_k: float = 0.0


class _Losing(NamedTuple):
    """How fast it comes to rest [1/s] and where [degC]; by how much setting whole warms it [K], and how it sets."""

    rate: float
    rest: float
    warms_k: float
    kin: tuple[float, ...]


@njit(cache=True)
def _stand(times, between, state, losing, temps, shares):  # type: ignore[no-untyped-def]
    """Fills temperatures and shares set at the times from `at` to `until`, and gives both at `until`: each step it loses heat to where
    it stands, and is warmed by what sets of it."""
    (at, until), (rate, rest, warms_k, kin) = between, losing
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


def temps_of(
    held: Held, story: Story, until_s: float, case: HeldCase, step_s: float = STEP_S
) -> tuple[Array, Array, Array]:
    """Times [s], temperatures [degC] and shares set [frac], a fat warmed by its own setting and cooled by what melts again.

    Source: incropera-2007 (section 5.1), avrami-1939
    """
    times = np.arange(0.0, until_s + step_s, step_s)
    temps, shares = np.empty_like(times), np.zeros_like(times)
    fat = held.tg is None
    setting = _setting(held.melt, case) if fat else None
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
    end = float(times[-1]) + step_s
    for t, kind, value, what in [*happened, (end, "end", 0.0, None)]:
        rate, rest = loses(held, kg, spot, case.loss * case.to_air, case.loss * case.to_place)
        rate /= case.cp
        warms_k = kg * held.melt.value("latent_fat") / capacity_j_k(held, kg) / case.cp if fat else 0.0
        degc, share = state = _stand(times, (at, t), state, _Losing(rate, rest, warms_k, kinetics), temps, shares)
        at = t
        if isinstance(what, Warmed):
            # what is left of it takes the heat
            state = (degc + _warmth_j(what, kg) / capacity_j_k(held, kg) / case.cp, share)
        elif kind == "used":
            kg = max(kg - value, LEAST_KG)
        elif kind == "read":
            state = (value + case.off_k, share)
        elif isinstance(what, Spot):
            spot = what
    return times, temps, shares


def _warmth_j(w: Warmed, kg: float) -> float:
    return coupled_w(w.power_w, kg, material("kitchen", "coupling", "microwave").value("share")) * w.seconds


def _setting(melt: Material, case: HeldCase) -> Setting:
    usual = setting_of(melt, case.half)
    return replace(usual, melts_degc=usual.melts_degc + case.melts_k)


def loses(held: Held, kg: float, spot: Spot, factor: float, to_place: float | None = None) -> tuple[float, float]:
    """How fast a batch comes to rest where it stands, and at what [1/s, degC].

    Args:
        held, kg: the batch, as much as is left of it
        spot: where it stands
        factor: on what it loses to the air
        to_place: on what it loses to its place; None: the same
    Source: incropera-2007, section 5.1
    """
    surface = surface_m2(held, kg)
    air = factor * spot.to_air_w_m2k.likely * surface * (1 - spot.share_frac)
    place = (factor if to_place is None else to_place) * spot.to_place_w_m2k.likely * surface * spot.share_frac
    total = max(air + place, 1e-9)
    return total / capacity_j_k(held, kg), (air * held.room_degc + place * spot.place_degc) / total


def _after(times: Array, rising: Array, limit: float, from_s: float) -> float:
    """When a rising series passes a limit, from a moment on, leaving time to melt what was warmed [s]; inf when never."""
    later = np.flatnonzero((rising >= limit) & (times >= from_s + (REMELTS_S if from_s > 0 else 0.0) - 1e-9))
    if not later.size:
        return math.inf
    i = int(later[0])
    if i == 0 or rising[i - 1] >= limit:
        return float(times[i])
    return float(np.interp(limit, rising[i - 1 : i + 1], times[i - 1 : i + 1]))


def marks_of(
    held: Held, times: Array, temps: Array, share: Array, case: HeldCase, from_s: float
) -> tuple[float, float]:
    """When it thickens and when it is stiff [s]. Source: avrami-1939, williams-landel-ferry-1955"""
    if held.tg is not None:
        limits = [
            -temperature_at_log_viscosity_degc(held.melt.value(p), case.tg)
            for p in ("log_pour_close", "log_stiff")
        ]
        return _after(times, -temps, limits[0], from_s), _after(times, -temps, limits[1], from_s)
    stiff = held.melt.value("set_stiff")
    return _after(times, share, case.thick, from_s), _after(times, share, stiff, from_s)


def flows_and_stiff_degc(held: Held) -> tuple[float, float]:
    """Above what it flows and below what it is stiff; what sets in time has both where it melts [degC].

    Source: williams-landel-ferry-1955, assumption
    """
    if held.tg is None:
        return held.melt.value("melts_at"), held.melt.value("melts_at")
    closes, stiff = (
        temperature_at_log_viscosity_degc(held.melt.value(p), held.tg.likely)
        for p in ("log_pour_close", "log_stiff")
    )
    return closes, stiff


def tip_of(held: Held, temps: Array, times: Array, case: HeldCase, from_s: float) -> float:
    """When the melt in an idle tip is stiff: a thin rod in the room's air [s]. Source: incropera-2007, section 5.1"""
    if held.tip_m is None:
        return math.inf
    melt, idle = held.melt, times >= from_s
    h = material("kitchen", "air", "hold").value("to_air") * case.loss
    rate = 4 * h / (melt.value("density_melt") * melt.value("cp_melt") * held.tip_m)
    start = float(temps[idle][0])
    rod = held.room_degc + (start - held.room_degc) * np.exp(-rate * (times[idle] - from_s))
    own = times[idle] - from_s
    share = set_along_frac(own, rod, _setting(melt, case)) if held.tg is None else np.zeros_like(rod)
    return from_s + marks_of(held, own, rod, share, case, 0.0)[1]


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
