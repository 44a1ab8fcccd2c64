"""Melting wafers by bursts: what each burst does, what is seen says of oven and wafers, what the next burst is to be."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numba import njit

from umber_pebble.core.errors import require_range
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.vessel import PotCase, losses_w
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.oven import Microwave, coupled_w
from umber_pebble.core.spread import Z_95, Spread

STEP_S, EVERY = 0.5, 2
OVEN_POINTS, WAFER_POINTS = 7, 5
UNSURE_FRAC = 0.06
"""How far the eye may be off in the share that has melted."""
SIGHTS = {
    "solid": (0.0, 0.2),
    "half": (0.35, 0.65),
    "few_lumps": (0.8, 0.97),
    "smooth": (0.97, 1.0),
    "thick": (0.9, 1.0),
    "grainy": (0.9, 1.0),
    "seized": (0.3, 1.0),
}
"""What is seen in the bowl, as the share that has melted: thick is all melted and still does not run, grainy has been too hot, seized has had water."""
GENTLE_FRAC = 0.5
"""Of the oven's power for what is to stay in temper. Source: common-practice"""
SHORTER_S = (15.0, 10.0, 5.0, 3.0)
LAST_S, MOST_BURSTS = 60.0, 30
SMOOTH_FRAC = 0.98
CLEAR_K = 0.5
"""How far above its melting point a bowl stirred out must come, so that no lump stays."""


@dataclass(frozen=True, slots=True)
class School:
    """How a bowl is melted: the oven's power as a share of full, and when to stop: "lumps" (a few, stirred out by the heat that
    is there) or "through" (until all has melted and it is as warm as wanted)."""

    power_frac: float = 1.0
    stop: str = "lumps"

    def __post_init__(self) -> None:
        require_range("power_frac", self.power_frac, 0.1, 1.0)


THROUGH = School(1.0, "through")


@dataclass(frozen=True, slots=True)
class Bowl:
    """Wafers in a vessel, to be melted in an oven: how warm they start and are to end [degC], how thick they are [m], by which
    school; how much of it is melted as it goes in, in what was melted before [frac]; whether it is in temper, and is to stay so."""

    case: PotCase
    oven: Microwave
    start_degc: float
    melt_to_degc: float
    wafer_m: Spread
    school: School
    melted_frac: float = 0.0
    in_temper: bool = False

    def __post_init__(self) -> None:
        require_range("microwave.power_w", self.oven.power_w, 200.0, 2000.0)
        require_range("melt_kg", self.case.melt_kg, 0.005, 20.0)
        require_range("wafer_m", self.wafer_m.low, 0.001, 0.05)
        require_range("wafer_m", self.wafer_m.high, 0.001, 0.05)
        require_range("melt_to_degc", self.melt_to_degc, self.start_degc, self.melt.value("spoils_at"))

    @property
    def melt(self) -> Material:
        return self.case.melt


@dataclass(frozen=True, slots=True)
class Burst:
    """From when, for how long the oven ran [s], at which share of its power [frac]."""

    at_s: float
    seconds: float
    power_frac: float


@dataclass(frozen=True, slots=True)
class Look:
    """What was seen (one of SIGHTS) or read [degC] in the bowl, stirred, and when [s]."""

    at_s: float
    seen: str | None = None
    degc: float | None = None
    sd_k: float = 1.0


@dataclass(frozen=True, slots=True)
class After:
    """A bowl at a moment: its temperature [degC], share melted [frac], the hottest any of it has been [degC], and what it comes
    to when stirred out [degC] (the melting point while lumps would stay)."""

    at_s: float
    degc: Spread
    melted_frac: Spread
    hottest_degc: Spread
    stirred_degc: Spread


@dataclass(frozen=True, slots=True)
class Next:
    """What to do at the bowl: "burst" for so long at which share of the oven's power, "stir" (wait, the heat has to spread), or "stop";
    and how it stands after it."""

    act: str
    seconds: float
    after: After
    power_frac: float = 1.0


@njit(cache=True)
def _melt(
    bursts: Array, until_s: float, oven: float, wafer: float, n: tuple[float, ...]
) -> tuple[Array, Array, Array, Array]:
    mass, cp_l, cp_s, heat, melts, start, air, loss, bowl_c, bowl_g, prefers, melted = n
    count = int(until_s / STEP_S) + 1
    out = np.empty((count // EVERY + 2, 4))
    solid = mass * (1.0 - melted) if start < melts else 0.0
    t_s, t_l, t_b = start, start, start
    hottest, row = start, 0
    for i in range(count):
        at = i * STEP_S
        if i % EVERY == 0:
            spare = (mass - solid) * cp_l * (t_l - melts) + bowl_c * (t_b - melts)
            spare -= solid * (heat + cp_s * (melts - t_s))
            out[row, 0], out[row, 1], out[row, 2] = (t_l if solid < mass else t_s), 1.0 - solid / mass, hottest
            out[row, 3] = melts + max(spare, 0.0) / (mass * cp_l + bowl_c)
            row += 1
        power = 0.0
        for b in range(bursts.shape[0]):
            if bursts[b, 0] <= at < bursts[b, 0] + bursts[b, 1]:
                power = bursts[b, 2] * oven
        melt = mass - solid
        into_melt = power * prefers * melt / (prefers * melt + solid)
        across = min(wafer * mass ** (1 / 3) * solid ** (2 / 3), 0.5 * melt * cp_l / STEP_S) * (t_l - t_s)
        to_bowl = bowl_g * melt / mass * (t_l - t_b)
        to_solid = (power - into_melt + across) * STEP_S
        if solid > 0.0:
            warms = min(to_solid, solid * cp_s * (melts - t_s))
            t_s += warms / (solid * cp_s)
            gone = min((to_solid - warms) / heat, solid)
        else:
            gone = 0.0
        left = to_solid - gone * heat - (warms if solid > 0.0 else 0.0)
        given = (into_melt - across - to_bowl - loss * melt / mass * (t_l - air)) * STEP_S + left
        if melt + gone > 1e-9:
            t_l = (melt * t_l + gone * melts) / (melt + gone) + given / ((melt + gone) * cp_l)
        solid = max(solid - gone, 0.0)
        if solid < 1e-6 * mass:
            solid = 0.0
        t_b += to_bowl * STEP_S / bowl_c
        hottest = max(hottest, t_l if solid < mass else t_s)
    return out[:row, 0], out[:row, 1], out[:row, 2], out[:row, 3]


class Belief:
    """What is held of this oven and these wafers: how much of its power couples, and how fast wafers take heat from the melt;
    a grid of both with weights that looks change."""

    def __init__(self, bowl: Bowl, bursts: Sequence[Burst] = (), looks: Sequence[Look] = ()) -> None:
        self.bowl = bowl
        share, load = bowl.oven.share_frac, bowl.case.melt_kg
        stirred = material("kitchen", "coupling", "microwave").spread("stirring")
        melt, d = bowl.melt, bowl.wafer_m
        # two faces of a disc, Nu k / d on each, per kilogram not yet melted
        takes = [
            2 * nu * melt.value("conductivity_melt") / (melt.value("density_set") * thick**2)
            for nu, thick in ((stirred.low, d.high), (stirred.likely, d.likely), (stirred.high, d.low))
        ]
        self.oven, w_oven = _points(share, OVEN_POINTS)
        self.wafer, w_wafer = _points(Spread(*takes), WAFER_POINTS)
        self.weights = np.outer(w_oven, w_wafer)
        self.watts = coupled_w(bowl.oven.power_w, load, 1.0)
        self.numbers = _numbers(bowl)
        self.last_seen = next((look for look in reversed(looks) if look.seen), None)
        self.before_frac = self.oven_frac
        self.looked(bursts, looks)

    def run(self, bursts: Sequence[Burst], until_s: float) -> tuple[Array, Array, Array, Array]:
        """Temperature, share melted, hottest so far and what stirring out comes to, second by second [oven, wafer, second]."""
        rows = np.array([[b.at_s, b.seconds, b.power_frac * self.watts] for b in bursts] or [[-1.0, 0.0, 0.0]])
        runs = [[_melt(rows, until_s, o, w, self.numbers) for w in self.wafer] for o in self.oven]
        temps, melted, hottest, stirred = (np.array([[r[k] for r in row] for row in runs]) for k in range(4))
        return temps, melted, hottest, stirred

    def looked(self, bursts: Sequence[Burst], looks: Sequence[Look]) -> None:
        """Weigh the grid by what was seen and read."""
        if not looks:
            return
        temps, melted, *_ = self.run(bursts, max(look.at_s for look in looks) + 1.0)
        for look in looks:
            i = min(max(int(look.at_s), 0), temps.shape[2] - 1)
            if look.degc is not None:
                off = (temps[:, :, i] - look.degc) / look.sd_k
            else:
                low, high = SIGHTS[look.seen or ""]
                share = melted[:, :, i]
                off = np.maximum(np.maximum(low - share, share - high), 0.0) / UNSURE_FRAC
            # no look is trusted beyond what the grid can tell apart
            self.weights = self.weights * np.maximum(np.exp(-0.5 * off**2), 1e-6)
        self.weights = self.weights / self.weights.sum()

    def spread(self, values: Array) -> Spread:
        """5, 50 and 95 % of a figure over the grid."""
        order = np.argsort(values, axis=None)
        total = np.cumsum(self.weights.ravel()[order]) - self.weights.ravel()[order] / 2
        low, likely, high = np.interp((0.05, 0.5, 0.95), total, values.ravel()[order])
        return Spread(float(low), float(likely), float(high))

    def after(self, bursts: Sequence[Burst], at_s: float) -> After:
        """How the bowl stands at a moment."""
        rows = [a[:, :, -1] for a in self.run(bursts, at_s)]
        degc, melted, hottest, stirred = (self.spread(a) for a in rows)
        return After(at_s, degc, melted, hottest, stirred)

    @property
    def oven_frac(self) -> Spread:
        """Share of the oven's power that couples."""
        return self.spread(np.repeat(self.oven[:, None], WAFER_POINTS, axis=1))


def _points(of: Spread, count: int) -> tuple[Array, Array]:
    """Points of a log-normal belief and their weights."""
    z = np.linspace(-2.2, 2.2, count)
    low, high = np.log(of.likely / of.low) / Z_95, np.log(of.high / of.likely) / Z_95
    weights = np.exp(-0.5 * z**2)
    return of.likely * np.exp(np.where(z < 0, z * low, z * high)), weights / weights.sum()


def _numbers(bowl: Bowl) -> tuple[float, ...]:
    case, melt = bowl.case, bowl.melt
    kitchen = material("kitchen", "coupling", "microwave")
    warm = melt.value("melt_to")
    loss = float(losses_w(case, np.array([warm]))[0]) / max(warm - case.pot.air_degc, 1.0)
    wetted = case.base_m2 + np.pi * case.pot.diameter_m * min(case.depth_m, case.pot.height_m)
    return (
        case.melt_kg,
        case.cp_melt_j_kgk,
        melt.value("cp_set"),
        melt.value("latent_fat") * melt.value("sets_at_most"),
        melt.value("melts_at"),
        bowl.start_degc,
        case.pot.air_degc,
        loss,
        case.pot.mass_kg * case.pot.metal.value("cp"),
        material("kitchen", "transfer", "bath").value("conductance") * wetted,
        kitchen.value("melt_prefers"),
        bowl.melted_frac,
    )


def _usual_s(school: School, first: bool) -> float:
    practice = material("kitchen", "bursts", "microwave")
    return (practice.value("first") if first else practice.value("next")) / school.power_frac


def again_s(bowl: Bowl) -> float:
    """A burst that warms a bowl again, by its school [s]. Source: common-practice"""
    return _usual_s(bowl.school, first=False)


def next_burst(belief: Belief, bursts: Sequence[Burst], now_s: float) -> Next:
    """What to do with the bowl now.

    Bursts go on by the school's length, shorter where the usual one might take any of the melt past what it bears; then only
    stirring is left. Lumps: stop as soon as the heat in the bowl melts the rest. Through: until none is left and it is as warm
    as wanted.
    Args:
        belief: of this oven and these wafers, after all looks
        bursts: so far
        now_s: after the last of them was stirred, from the first [s]
    Source: common-practice, incropera-2007 (energy balance)
    """
    bowl, school, limit = belief.bowl, belief.bowl.school, belief.bowl.melt.spread("spoils_at")
    now = belief.after(bursts, now_s)
    if _enough(now, bowl) or _seen_done(belief, bursts, now):
        return Next("stop", 0.0, now)
    usual = _usual_s(school, not bursts)
    for seconds in (usual, *(s / school.power_frac for s in SHORTER_S if s < usual * school.power_frac)):
        then = belief.after(
            [*bursts, Burst(now_s, seconds, school.power_frac)], now_s + seconds + bowl.oven.stir_s
        )
        kept = not bowl.in_temper or then.degc.likely <= bowl.melt_to_degc
        if kept and then.hottest_degc.likely <= limit.low and then.hottest_degc.high <= limit.high:
            return Next("burst", seconds, then, school.power_frac)
    if bowl.in_temper:
        # warmer than this the shortest burst may not make it
        return Next("stop", 0.0, now)
    return Next("stir", bowl.oven.stir_s, belief.after(bursts, now_s + bowl.oven.stir_s))


def clear_degc(bowl: Bowl) -> float:
    """From where it is to be taken out: with a few lumps, the stirred-out temperature at which none stays; melted through, what
    was wanted, less what its material leaves room for [degC].

    Source: common-practice
    """
    if bowl.in_temper:
        return bowl.melt.spread("work_at").low
    goal = bowl.melt.spread("melt_to")
    return (
        bowl.melt.value("melts_at") + CLEAR_K
        if bowl.school.stop == "lumps"
        else bowl.melt_to_degc - (goal.likely - goal.low)
    )


def _seen_done(belief: Belief, bursts: Sequence[Burst], now: After) -> bool:
    """The eye decides: smooth is enough where lumps would have been or when it is warm, and grains are not heated on."""
    seen = belief.last_seen
    if seen is None or (bursts and seen.at_s < bursts[-1].at_s):
        return False
    warm = belief.bowl.school.stop == "lumps" or now.degc.likely >= clear_degc(belief.bowl)
    return seen.seen in ("grainy", "seized") or (seen.seen in ("smooth", "thick") and warm)


def _enough(now: After, bowl: Bowl) -> bool:
    if bowl.school.stop == "lumps":
        return now.stirred_degc.likely >= clear_degc(bowl)
    melted = bowl.in_temper or now.melted_frac.likely >= SMOOTH_FRAC
    return melted and now.degc.likely >= clear_degc(bowl)


def ahead(belief: Belief, done: Sequence[Burst], now_s: float) -> tuple[list[Next], float]:
    """What is likely still to come, at most MOST_BURSTS, each with how it stands after it; and when it is to be taken out [s].

    Args:
        belief: of oven and wafers
        done: bursts so far
        now_s: when the last of them was stirred
    Source: common-practice, incropera-2007
    """
    bursts, steps, now = list(done), list[Next](), now_s
    while len(steps) < MOST_BURSTS:
        step = next_burst(belief, bursts, now)
        if step.act == "stop":
            break
        if step.act == "burst":
            bursts.append(Burst(now, step.seconds, belief.bowl.school.power_frac))
        steps.append(step)
        now = step.after.at_s
    return steps, now


@dataclass(frozen=True, slots=True)
class BurstPlan:
    """The bursts a bowl is likely to need, how long they take with their stirring [s], and how it stands, stirred out."""

    steps: tuple[Next, ...]
    time_s: Spread
    end: After


@lru_cache(maxsize=256)
def plan_bursts(bowl: Bowl) -> BurstPlan:
    """The bursts a bowl is likely to need.

    Raises: OutOfRange: a power, mass or size outside the model.
    Source: common-practice, incropera-2007
    """
    belief = Belief(bowl)
    steps, now = ahead(belief, (), 0.0)
    bursts = bursts_of(steps, bowl.school)
    # an oven that couples less or more takes as much longer or shorter
    share = belief.oven_frac
    time = Spread(now * share.likely / share.high, now, now * share.likely / share.low)
    return BurstPlan(tuple(steps), time, belief.after(bursts, now + LAST_S))


def bursts_of(steps: Sequence[Next], school: School, from_s: float = 0.0) -> list[Burst]:
    """Steps as bursts, the first at a time [s]. Source: definition"""
    starts = [from_s, *(step.after.at_s for step in steps)]
    return [
        Burst(at, step.seconds, school.power_frac)
        for at, step in zip(starts, steps, strict=False)
        if step.act == "burst"
    ]
