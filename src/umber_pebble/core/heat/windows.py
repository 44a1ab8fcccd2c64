"""When a cast may be worked, touched, unmoulded: by viscosity for sugar glass, by what has set for fat."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from umber_pebble.core.constants import GRAVITY_M_S2, HOT_TO_HOLD_DEGC
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.piece import COARSE, FINE, Casting, PieceRun, base, run_all, varied
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, combine, exact, shares_of

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
# and of fat: a stick goes in until the first layer has set; the rest waits for the last
FAT_MARKS = {
    "comb_opens": ("set_thickens", "top_set"),
    "sprinkle_closes": ("set_sprinkle", "top_set"),
    "comb_closes": ("set_comb", "top_set"),
    "stick_closes": ("set_first_skin", "most_set"),
    "skin": ("set_first_skin", "top_set"),
    "still": ("set_still", "least_set"),
    "cutter_closes": ("set_cut", "top_set"),
    "groove_opens": ("set_cut", "least_set"),
    "touch": ("set_touch", "least_set"),
    "peel": ("set_peel", "least_set"),
    "groove_closes": ("set_peel", "most_set"),
    "unmould": ("set_release", "least_set"),
    "over_chilled": ("over_chilled_below", "coldest_degc"),
}
# what hands do with a piece: from which mark until which; None: from the pour, or without end
WORKS: dict[str, tuple[str | None, str]] = {
    "bend": ("bend_opens", "bend_closes"),
    "release": ("release_opens", "release_closes"),
    "stick": (None, "stick_closes"),
    "sprinkle": (None, "sprinkle_closes"),
}
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
        "groove": ("groove_opens", "groove_closes"),
        "walls off": ("touch", None),
        "next coat": ("touch", None),
        "let go": ("touch", None),
        "film off": ("peel", None),
    },
}
# what a wait ends with is decided by the thick places, what is lost by waiting by the thin ones
BY_THICK = (
    "holds", "bend_opens", "release_opens", "rigid", "still", "groove_opens", "touch", "peel", "unmould", "strain", "cool_to_hold",
)  # fmt: skip
BY_THIN = (
    "bend_closes", "release_closes", "pull_closes", "cut_closes", "groove_closes", "brittle", "over_chilled", "thread_closes",
)  # fmt: skip
AT_ONCE = 1e-3
"""Factor on the time to set half that stands for setting at once."""
SAG_S = 60.0
"""How long a piece must keep its shape on its own to be said to hold it."""

Deviations = dict[str, tuple[float, ...]]
Reached = Callable[[PieceRun], Array]
"""A time of every run [s, by case]."""


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


class _Runs:
    """A fine run, and what coarse ones say of each input: times of the fine run with the coarse ones' differences."""

    def __init__(self, casting: Casting) -> None:
        likely = base(casting)
        by_input = varied(likely)
        places = [replace(likely, depth_m=d) for d in (casting.thin_m, casting.thick_m) if d is not None]
        cases = [likely, *places, *(case for ends in by_input.values() for case in ends)]
        if casting.tg is None:  # what is left of a time when the fat sets at once is heat
            cases.append(replace(likely, half_factor=AT_ONCE))
        self.casting, self.likely = casting, likely
        self.fine = run_all([likely], FINE[casting.kind], kept=True)
        self.coarse = run_all(cases, COARSE[casting.kind])
        self.columns: dict[str, slice] = {}
        at = 1 + len(places)
        for name, ends in by_input.items():
            self.columns[name] = slice(at, at + len(ends))
            at += len(ends)

    def times(self, of: Reached) -> tuple[float, float, float, Deviations]:
        """A time of the likely run, of its thin and its thick places, and what it is with each input at its ends [s]."""
        first, rough = float(of(self.fine)[0]), of(self.coarse)
        moved = first + rough - rough[0]
        by_input = {name: tuple(float(v) for v in moved[columns]) for name, columns in self.columns.items()}
        if self.casting.thick_m is None:
            return first, first, first, by_input
        return first, max(float(moved[1]), 0.0), max(float(moved[2]), 0.0), by_input

    def until(self, series: str, limit: float) -> Reached:
        return lambda runs: runs.until(series, limit, self.casting.horizon_s)


@lru_cache(maxsize=256)
def windows_s(casting: Casting) -> PieceWindows:
    """The windows of a casting, in seconds from its pour, with spread.

    One fine run; one coarse run and one to each end of every uncertain input, for what they differ by. Sugar glass:
    bend opens when the hottest node is stiff enough, closes when the coldest is too stiff; brittle by the coldest;
    unmould when the hottest is at its glass transition, which moves the limits and not the run. Fat: a stick goes in
    until the first node has set; still, touch and unmould when the last one has, and when it is cold enough to have
    let go. Where thin and thick places cool apart, the thick ones end a wait and the thin ones close a window.
    Args:
        casting: the cast, its mould and its path of places
    Raises: OutOfRange: a size or temperature the model does not hold for.
    Source: williams-landel-ferry-1955, avrami-1939, patankar-1980, jcgm-100-2008
    """
    runs = _Runs(casting)
    return _sugar(runs, casting.tg) if casting.tg else _fat(runs)


def _not_before_the_pour(times: Spread) -> Spread:
    return Spread(max(times.low, 0.0), max(times.likely, 0.0), max(times.high, 0.0))


def _pace(runs: _Runs, limit_degc: float, without: str = "") -> Spread:
    times = np.maximum(runs.coarse.until("mean_degc", limit_degc, runs.casting.horizon_s), 1.0)
    return combine(1.0, [times[0] / times[c] for name, c in runs.columns.items() if name != without])


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


def _sugar(runs: _Runs, tg: Spread) -> PieceWindows:
    melt, depth = runs.casting.melt, runs.casting.slab.likely
    held = holds_log_pa_s(melt, depth)
    logs = {name: exact(held) if name == "holds" else melt.spread(prop) for name, (prop, _) in SUGAR_MARKS.items()}

    def crossing(name: str, glass: float, log: float) -> Reached:
        return runs.until(SUGAR_MARKS[name][1], temperature_at_log_viscosity_degc(log, glass))

    def fine(name: str, glass: float, log: float) -> float:
        return float(crossing(name, glass, log)(runs.fine)[0])

    def width(glass: float) -> Reached:
        opens, closes = (crossing(name, glass, logs[name].likely) for name in ("bend_opens", "bend_closes"))
        return lambda run: np.maximum(closes(run) - opens(run), 0.0)

    found = _Found(runs)
    for name, log in logs.items():
        found.add(
            name,
            crossing(name, tg.likely, log.likely),
            {
                "glass": (fine(name, tg.low, log.likely), fine(name, tg.high, log.likely)),
                "limit": (fine(name, tg.likely, log.low), fine(name, tg.likely, log.high)),
            },
        )
    first, _, _, wide = runs.times(width(tg.likely))
    wide["glass"] = tuple(float(width(glass)(runs.fine)[0]) for glass in (tg.low, tg.high))
    hold = found.cool_to_hold()
    return PieceWindows(
        **found.fields(),
        limits={n: temperature_at_log_viscosity_degc(log.likely, tg.likely) for n, log in logs.items()},
        limited_by=dict.fromkeys(SUGAR_MARKS, "heat"),
        work_width={
            "bend": _not_before_the_pour(combine(first, wide.values())),
            "stick": found.at["stick_closes"],
            "sprinkle": found.at["sprinkle_closes"],
        },
        cool_to_hold=hold,
        pace=_pace(runs, tg.likely),
        likely_run=runs.fine.one(),
        horizon_s=runs.casting.horizon_s,
    )


def _fat(runs: _Runs) -> PieceWindows:
    casting, melt = runs.casting, runs.casting.melt
    cold = max(melt.value("release_below"), casting.path[-1].place.air_degc + melt.value("release_above_air"))

    def reached(name: str) -> Reached:
        prop, series = FAT_MARKS[name]
        of = runs.until(series, melt.value(prop))
        if name != "unmould":
            return of
        chilled = runs.until("hottest_degc", cold)
        return lambda run: np.maximum(of(run), chilled(run))

    found = _Found(runs)
    for name in FAT_MARKS:
        found.add(name, reached(name), {}, ("half_factor",))
    limited = {n: "heat" if 2 * reached(n)(runs.coarse)[-1] > found.at[n].likely else "setting" for n in FAT_MARKS}
    hold = found.cool_to_hold()
    return PieceWindows(
        **found.fields(),
        limits={name: melt.value(p) for name, (p, _) in FAT_MARKS.items()} | {"unmould_degc": cold},
        limited_by=limited | {"over_chilled": "heat"},
        work_width={"stick": found.at["stick_closes"], "sprinkle": found.at["sprinkle_closes"]},
        cool_to_hold=hold,
        pace=_pace(runs, cold, "half_factor"),
        likely_run=runs.fine.one(),
        horizon_s=casting.horizon_s,
    )


class _Found:
    """Times gathered mark by mark, with what each is uncertain by."""

    def __init__(self, runs: _Runs) -> None:
        self.runs = runs
        self.at: dict[str, Spread] = {}
        self.by_material: dict[str, Spread] = {}
        self.thin: dict[str, float] = {}
        self.thick: dict[str, float] = {}
        self.shares: dict[str, dict[str, float]] = {}

    def add(self, name: str, of: Reached, of_material: Deviations, material_inputs: tuple[str, ...] = ()) -> None:
        first, thin, thick, moved = self.runs.times(of)
        moved |= of_material
        kept = {key: row for key, row in moved.items() if key in of_material or key in material_inputs}
        shift, horizon = 0.0, self.runs.casting.horizon_s
        if self.runs.casting.thick_m is not None:
            self.thin[name], self.thick[name] = thin, thick
            if name in BY_THICK:
                shift = max(thick - first, 0.0)
            elif name in BY_THIN:
                shift = min(thin - first, 0.0)

        def shifted(rows: Deviations) -> Spread:
            whole = _not_before_the_pour(combine(first, rows.values()).plus(shift))
            return Spread(*(min(v, horizon) for v in (whole.low, whole.likely, whole.high)))

        self.at[name], self.by_material[name] = shifted(moved), shifted(kept)
        self.shares[name] = shares_of(first, moved)

    def cool_to_hold(self) -> Spread:
        """When no place is hot to hold any more; kept apart from the other times."""
        self.add("cool_to_hold", self.runs.until("hottest_degc", HOT_TO_HOLD_DEGC), {})
        self.by_material.pop("cool_to_hold")
        return self.at.pop("cool_to_hold")

    def fields(self) -> dict[str, dict]:  # type: ignore[type-arg]
        return {name: getattr(self, name) for name in ("at", "by_material", "thin", "thick", "shares")}
