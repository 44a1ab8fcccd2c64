"""When a cast may be worked, touched, unmoulded: by viscosity for sugar glass, by what has set for fat."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.constants import GRAVITY_M_S2, HOT_TO_HOLD_DEGC
from umber_pebble.core.glass.viscosity import WLF_C1, WLF_C2_K, temperature_at_log_viscosity_degc
from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.design import Told, run_design, split_normal, told
from umber_pebble.core.heat.piece import COARSE, FINE, PieceRun, base, run_all
from umber_pebble.core.heat.revolved import run_revolved
from umber_pebble.core.heat.works import WORKS
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Z_95, Spread, exact

# which place decides: the hottest must be stiff enough, the coldest not yet too stiff
SUGAR_MARKS = {
    "pour_closes": ("log_pour_close", "mean_degc"),
    "thread_opens": ("log_thread_open", "coldest_degc"),
    "thread_closes": ("log_thread_close", "coldest_degc"),
    "sprinkle_closes": ("log_sprinkle_close", "top_degc"),
    "stick_closes": ("log_stick_close", "coldest_degc"),
    "holds": ("log_holds", "hottest_degc"),
    "bend_opens": ("log_bend_open", "hottest_degc"),
    "release_opens": ("log_release_open", "hottest_degc"),
    "softening": ("log_softening", "mean_degc"),
    "pull_closes": ("log_pull_close", "coldest_degc"),
    "release_closes": ("log_release_close", "coldest_degc"),
    "cut_closes": ("log_cut_close", "coldest_degc"),
    "rigid": ("log_rigid", "hottest_degc"),
    "bend_closes": ("log_bend_close", "coldest_degc"),
    "brittle": ("log_brittle", "coldest_degc"),
    "unmould": ("log_unmould", "hottest_degc"),
    "strain": ("log_strain", "hottest_degc"),
}
# and of fat: a stick goes in until the first layer has set; what is drawn into the back goes by the top; the rest waits for the last
FAT_MARKS = {
    "comb_opens": ("set_thickens", "top_set"),
    "sprinkle_closes": ("set_sprinkle", "top_set"),
    "comb_closes": ("set_comb", "top_set"),
    "stick_closes": ("set_first_skin", "most_set"),
    "skin": ("set_first_skin", "top_set"),
    "still": ("set_still", "least_set"),
    "cutter_closes": ("set_cut", "top_set"),
    "groove_opens": ("set_cut", "top_set"),
    "touch": ("set_touch", "least_set"),
    "peel": ("set_peel", "least_set"),
    "groove_closes": ("set_peel", "top_set"),
    "unmould": ("set_release", "least_set"),
    "over_chilled": ("over_chilled_below", "coldest_degc"),
}
# what may be done with a cast, from which mark until which; None: from the pour, or without end
TAKES: dict[str, dict[str, tuple[str | None, str | None]]] = {
    "sugar": {
        "sprinkles": (None, "sprinkle_closes"),
        "stick": (None, "stick_closes"),
        "thread": ("thread_opens", "thread_closes"),
        "walls off": ("holds", None),
        "release": ("release_opens", "release_closes"),
        "off its bowl": ("rigid", None),
        "bend": ("bend_opens", "bend_closes"),
        "pull": ("bend_opens", "pull_closes"),
        "scissors": ("holds", "cut_closes"),
        "let go": ("bend_closes", None),
    },
    "fat": {
        "sprinkles": (None, "sprinkle_closes"),
        "stick": (None, "stick_closes"),
        "drag": (None, "comb_closes"),
        "comb": ("comb_opens", "comb_closes"),
        "cutter": ("comb_opens", "cutter_closes"),
        "bend, on film": ("comb_opens", "cutter_closes"),
        "groove": ("groove_opens", "groove_closes"),
        "walls off": ("touch", None),
        "next coat": ("touch", None),
        "let go": ("touch", None),
        "film off": ("peel", None),
    },
}
# what a wait ends with is decided by the thick places, what is lost by waiting by the thin ones
BY_THICK = (
    "holds",
    "bend_opens",
    "release_opens",
    "rigid",
    "still",
    "groove_opens",
    "touch",
    "peel",
    "unmould",
    "strain",
    "cool_to_hold",
)
BY_THIN = (
    "bend_closes",
    "release_closes",
    "pull_closes",
    "cut_closes",
    "groove_closes",
    "brittle",
    "over_chilled",
    "thread_closes",
)
SAG_S = 60.0
"""How long a piece must keep its shape on its own to be said to hold it."""


@dataclass(frozen=True, slots=True)
class PieceWindows:
    """Times from the pour by name, with spread [s]; the horizon where one is not reached.

    by_material: the windows again with only the spread that no temperature reading narrows; thin, thick: the likely
    times of thin and thick places, where they have their own; shares: which share of a time's spread comes from which
    input; pace: the spread of speed that heat alone leaves (1 = likely); limits: what each is reached at [degC, or frac
    set]; limited_by: "heat" or "setting"; work_width: how long the hands' work may last.
    """

    at: dict[str, Spread]
    by_material: dict[str, Spread]
    thin: dict[str, float]
    thick: dict[str, float]
    shares: dict[str, dict[str, float]]
    limits: dict[str, float]
    limited_by: dict[str, str]
    work_width: dict[str, Spread]
    cool_to_hold: Spread
    pace: Spread
    likely_run: PieceRun
    horizon_s: float

    def leaving_at(self, mark: str) -> "PieceWindows":
        """The same where a casting leaves its mould or film at another mark than the last: "unmould" is then that one."""
        at, own = (rows | {"unmould": rows[mark]} for rows in (self.at, self.by_material))
        shares, limits = self.shares | {"unmould": self.shares[mark]}, self.limits | {"unmould": self.limits[mark]}
        limited = self.limited_by | {"unmould": self.limited_by[mark]}
        return replace(self, at=at, by_material=own, limited_by=limited, shares=shares, limits=limits)

    def never(self, name: str) -> bool:
        """Whether a window is not reached within the horizon, in the likely run."""
        return self.at[name].likely >= self.horizon_s


Condition = tuple[str, float | Array]
SOON, SOON_S = 0.1, 0.5
BY_PLATE = ("coldest_degc", "most_set")


class _Runs:
    """A fine run, and a design of coarse ones that says what its times are uncertain by. What ends a wait is read off a run in two
    dimensions where the cast has a body; what closes is a matter of its thin places, not of the skin of its edge: off the plate."""

    def __init__(self, casting: Casting, limits: int) -> None:
        self.casting, likely = casting, base(casting)
        self.plate = run_all([likely], FINE[casting.kind], kept=not casting.in_the_round)
        self.fine = run_revolved(likely) if casting.in_the_round else self.plate
        self.design = run_design(likely, COARSE[casting.kind], limits)

    def times(self, fine: Sequence[Condition], coarse: Sequence[Condition]) -> tuple[float, Array]:
        """When conditions hold at once, in the fine run, and in every run of the design, moved by what its grid is off [s]."""
        run = self.plate if any(series in BY_PLATE for series, _ in fine) else self.fine
        first = float(run.until_all(*fine)[0])
        rough = self.design.runs.until_all(*coarse)
        return first, self.moved(first, rough)

    def moved(self, first: float, rough: Array) -> Array:
        if not (math.isfinite(first) and math.isfinite(rough[0])):
            return rough
        if not self.casting.in_the_round:
            return np.maximum(rough + first - float(rough[0]), 0.0)
        # two dimensions are quicker or slower than a plate by a factor, save for what comes at once
        soon = SOON * max(first, float(rough[0])) + SOON_S
        factor = (first + soon) / (float(rough[0]) + soon)
        return np.maximum((rough + soon) * factor - soon, 0.0)

    def draws(self, times: Array) -> Array:
        return times[self.design.draws]


@lru_cache(maxsize=256)
def windows_s(casting: Casting) -> PieceWindows:
    """The windows of a casting, in seconds from its pour, with spread.

    One fine run, and a small fixed design of coarse ones in which every uncertain input is drawn at once, limits with them. Sugar glass:
    bend opens when the hottest node is stiff enough, closes when the coldest is too stiff; brittle by the coldest;
    unmould when the hottest is at its glass transition, which moves the limits and not the run. Fat: a stick goes in
    until the first node has set; still, touch and unmould when the last one has, and when it is cold enough to have
    let go. Where thin and thick places cool apart, the thick ones end a wait and the thin ones close a window.
    Args:
        casting: the cast, its mould and its path of places
    Raises: OutOfRange: a size or temperature the model does not hold for.
    Source: williams-landel-ferry-1955, avrami-1939, patankar-1980, mckay-1979, jcgm-100-2008
    """
    return _sugar(_Runs(casting, 2), casting.tg) if casting.tg else _fat(_Runs(casting, 1))


MOST_PACE_SD = math.log(3.0) / Z_95
"""Nothing that heat leaves open makes a cast three times as slow or quick."""


def _of_material(name: str) -> bool:
    """Whether no temperature reading narrows an input."""
    return name in ("glass", "half_time", "melts_at", "latent", "set_at_start") or name.startswith("limit")


def _pace(of: Told) -> Spread:
    sd = min(of.sd_of(lambda name: not _of_material(name)), MOST_PACE_SD)
    return Spread(math.exp(-Z_95 * sd), 1.0, math.exp(Z_95 * sd))


def holds_log_pa_s(melt: Material, depth_m: float) -> float:
    """Viscosity from which a piece keeps its shape under its own weight: it sags less than it may in SAG_S [log10 Pa s].

    A slab on its edge or over a form is stretched by rho g d / (3 eta) (Trouton).
    Args:
        melt: its density_melt and its sag [frac] in that time
        depth_m: thickness
    Source: reiner-1969, assumption
    """
    stress = melt.value("density_melt") * GRAVITY_M_S2 * depth_m
    return math.log10(stress * SAG_S / (3 * melt.value("sag")))


def _at_log(log: Array | float, tg: Array | float) -> Array:
    """Temperatures of a viscosity, run by run [degC]."""
    drop = 12.0 - np.asarray(log, dtype=np.float64)
    return np.asarray(tg + WLF_C2_K * drop / (WLF_C1 - drop))


def _sugar(runs: _Runs, tg: Spread) -> PieceWindows:
    melt, depth = runs.casting.melt, runs.casting.slab.likely
    held, z = holds_log_pa_s(melt, depth), runs.design.z
    logs = {name: exact(held) if name == "holds" else melt.spread(prop) for name, (prop, _) in SUGAR_MARKS.items()}
    glass = split_normal(tg, z["glass"]) if "glass" in z else np.full(z["limit 0"].size, tg.likely)

    def conditions(name: str) -> tuple[list[Condition], list[Condition]]:
        series, log = SUGAR_MARKS[name][1], logs[name]
        drawn = split_normal(log, z["limit 1" if name == "bend_closes" else "limit 0"])
        fine = float(temperature_at_log_viscosity_degc(log.likely, tg.likely))
        return [(series, fine)], [(series, _at_log(drawn, glass))]

    limits = {n: temperature_at_log_viscosity_degc(log.likely, tg.likely) for n, log in logs.items()}
    return _windows(
        runs,
        {name: runs.times(*conditions(name)) for name in logs},
        [("mean_degc", tg.likely)],
        # where it is glass, however warm it leaves its mould
        limits | {"glass": limits["unmould"]},
    )


def _fat(runs: _Runs) -> PieceWindows:
    casting, melt, z = runs.casting, runs.casting.melt, runs.design.z
    cold = max(melt.value("release_below"), casting.path[-1].place.air_degc + melt.value("release_above_air"))

    def conditions(name: str) -> tuple[list[Condition], list[Condition]]:
        prop, series = FAT_MARKS[name]
        chilled: list[Condition] = [("hottest_degc", cold)] if name == "unmould" else []
        limit = melt.spread(prop)
        drawn = split_normal(limit, z["limit 0"])
        return [(series, limit.likely), *chilled], [
            (series, np.maximum(drawn, 1e-4) if series.endswith("_set") else drawn),
            *chilled,
        ]

    return _windows(
        runs,
        {name: runs.times(*conditions(name)) for name in FAT_MARKS},
        # cold and set at once: what sets warms it again on the way
        [("mean_degc", cold), ("least_set", melt.value("set_touch"))],
        {name: melt.value(p) for name, (p, _) in FAT_MARKS.items()} | {"unmould_degc": cold},
    )


Times = tuple[float, Array]


def _windows(
    runs: _Runs, times: dict[str, Times], pace: Sequence[Condition], limits: dict[str, float]
) -> PieceWindows:
    """What its marks' times in the fine run and in every run of the design say of a casting."""
    found, widths, hot = _Found(runs), _work_widths(runs, times), [("hottest_degc", HOT_TO_HOLD_DEGC)]
    for name, of in times.items():
        found.add(name, *of)
    found.add("cool_to_hold", *runs.times(hot, hot))
    *wide, paced = found.settle(
        [*(draws for _, draws in widths.values()), runs.draws(runs.design.runs.until_all(*pace))]
    )
    between = dict(zip(widths, wide, strict=True))
    found.by_material.pop("cool_to_hold")
    hold, once = found.at.pop("cool_to_hold"), runs.design.at_once

    def by_setting(name: str) -> bool:
        return once is not None and name != "over_chilled" and 2 * times[name][1][once] <= found.at[name].likely

    return PieceWindows(
        **found.fields(),
        limits=limits,
        limited_by={name: "setting" if by_setting(name) else "heat" for name in times},
        work_width={
            name: found.within(widths[name][0], between[name]) if name in between else found.at[work.closes]
            for name, work in WORKS.items()
            if work.closes in times
        },
        cool_to_hold=hold,
        pace=_pace(paced),
        likely_run=runs.fine.one(),
        horizon_s=runs.casting.horizon_s,
    )


# what an input's share of a spread is told as
TOLD_AS = {
    "cp_set": "cp_melt",
    "conductivity_melt": "conductivity",
    "half_time": "half_factor",
    "limit 0": "limit",
    "limit 1": "limit",
}


class _Found:
    """Times gathered mark by mark, with what each is uncertain by."""

    def __init__(self, runs: _Runs) -> None:
        self.runs = runs
        self.at: dict[str, Spread] = {}
        self.by_material: dict[str, Spread] = {}
        self.thin: dict[str, float] = {}
        self.thick: dict[str, float] = {}
        self.shares: dict[str, dict[str, float]] = {}
        self._waiting: list[tuple[str, float, Array]] = []

    def within(self, likely: float, told: Told) -> Spread:
        """A time with its spread, the horizon where it is not reached [s]."""
        horizon = self.runs.casting.horizon_s
        of, middle = told.spread, min(likely, horizon)
        return Spread(min(of.low, middle), middle, max(min(of.high, horizon), middle))

    def add(self, name: str, first: float, times: Array) -> None:
        design, horizon = self.runs.design, self.runs.casting.horizon_s
        shift, solid = 0.0, self.runs.casting.in_the_round and name in BY_THICK
        if solid:
            self.thick[name] = min(first, horizon)
            self.thin[name] = min(self.thick[name], float(times[design.thin or 0]))
        elif design.thin is not None and design.thick is not None:
            self.thin[name], self.thick[name] = (
                min(float(times[i]), horizon) for i in (design.thin, design.thick)
            )
            if name in BY_THICK:
                shift = max(self.thick[name] - min(first, horizon), 0.0)
            elif name in BY_THIN:
                shift = min(self.thin[name] - min(first, horizon), 0.0)
        else:
            self.thin[name] = self.thick[name] = min(first, horizon)
        self._waiting.append((name, max(first + shift, 0.0), np.maximum(self.runs.draws(times) + shift, 0.0)))

    def settle(self, more: Sequence[Array]) -> list[Told]:
        """All that waits, read off the design at once, and more beside it."""
        horizon = self.runs.casting.horizon_s
        rows = told(self.runs.design, [*(times for *_, times in self._waiting), *more])
        for (name, likely, _), of in zip(self._waiting, rows, strict=False):
            whole = self.within(likely, of)
            wider = math.exp(Z_95 * of.sd_of(_of_material))
            self.at[name] = whole
            self.by_material[name] = Spread(whole.likely / wider, whole.likely, min(whole.likely * wider, horizon))
            self.shares[name] = of.shares(lambda name: TOLD_AS.get(name, name))
        return rows[len(self._waiting) :]

    def fields(self) -> dict[str, dict]:  # type: ignore[type-arg]
        return {name: getattr(self, name) for name in ("at", "by_material", "thin", "thick", "shares")}


def _work_widths(runs: _Runs, times: Mapping[str, Times]) -> dict[str, Times]:
    """How long each kind of hands' work between two marks may last that this cast has them for [s], likely and in each draw."""
    out = dict[str, Times]()
    for name, work in WORKS.items():
        if work.closes not in times or work.opens is None:
            continue
        first, closes = times[work.opens], times[work.closes]
        opened = np.isfinite(first[1])
        width = np.maximum(np.subtract(closes[1], first[1], out=np.zeros_like(first[1]), where=opened), 0.0)
        out[name] = max(closes[0] - first[0], 0.0) if math.isfinite(first[0]) else 0.0, runs.draws(width)
    return out
