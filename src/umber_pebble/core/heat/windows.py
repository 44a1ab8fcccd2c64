"""When a cast may be worked, touched, unmoulded: by viscosity for sugar glass, by what has set for fat."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache, partial

from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array, falls_below_s
from umber_pebble.core.heat.piece import Case, Casting, PieceRun, base, run, varied
from umber_pebble.core.spread import Spread, combine

# which node decides a window of sugar glass: the hottest must be stiff enough, the coldest not yet too stiff
SUGAR_SERIES = {
    "stick_closes": ("log_stick_close", "coldest_degc"),
    "bend_opens": ("log_bend_open", "hottest_degc"),
    "bend_closes": ("log_bend_close", "coldest_degc"),
    "brittle": ("log_brittle", "coldest_degc"),
    "unmould": ("log_unmould", "hottest_degc"),
}
# and of fat: a stick goes in until the first layer has set; the rest waits for the last
FAT_SERIES = {
    "stick_closes": ("set_first_skin", "most_set"),
    "still": ("set_still", "least_set"),
    "touch": ("set_touch", "least_set"),
    "unmould": ("set_release", "least_set"),
}
# the hands' work while a piece is soft: from which window until which; None: from the pour
WORKS = {"bend": ("bend_opens", "bend_closes"), "stick": (None, "stick_closes")}


@dataclass(frozen=True, slots=True)
class PieceWindows:
    """Times from the pour by name, with spread [s]; the horizon where one is not reached.

    by_material: the windows again with only the spread that no temperature reading narrows; pace: the spread of
    speed that heat alone leaves (1 = likely); limits: what each is reached at [degC, or frac set];
    limited_by: "heat" or "setting"; work_width: how long the hands' work may last.
    """

    at: dict[str, Spread]
    by_material: dict[str, Spread]
    limits: dict[str, float]
    limited_by: dict[str, str]
    work_width: dict[str, Spread]
    cool_to_hold: Spread
    pace: Spread
    likely_run: PieceRun
    horizon_s: float

    def never(self, name: str) -> bool:
        """Whether a window is not reached within the horizon, in the likely run."""
        return self.at[name].likely >= self.horizon_s


@lru_cache(maxsize=256)
def windows_s(casting: Casting) -> PieceWindows:
    """The windows of a casting, in seconds from its pour, with spread.

    One base run and one run to each end of every uncertain input. Sugar glass: bend opens when the hottest node is
    stiff enough, closes when the coldest is too stiff; brittle by the coldest; unmould when the hottest is at its
    glass transition, which moves the limits and not the run. Fat: a stick goes in until the first node has set;
    still, touch and unmould when the last one has, and when it is cold enough to have let go.
    Args:
        casting: the cast, its mould and its path of places
    Raises: OutOfRange: a size or temperature the model does not hold for.
    Source: williams-landel-ferry-1955, avrami-1939, patankar-1980, jcgm-100-2008
    """
    likely = base(casting)
    first, rows = run(likely), [[run(case) for case in row] for row in varied(likely)]
    return _sugar(casting, casting.tg, first, rows) if casting.tg else _fat(casting, likely, first, rows)


def _spread(of: Callable[[PieceRun], float], first: PieceRun, rows: list[list[PieceRun]]) -> Spread:
    return _not_before_the_pour(combine(of(first), [[of(r) for r in row] for row in rows]))


def _not_before_the_pour(times: Spread) -> Spread:
    return Spread(max(times.low, 0.0), times.likely, times.high)


def _until(casting: Casting, series: str, limit: float, r: PieceRun) -> float:
    values: Array = getattr(r, series)
    rising = series in ("least_set", "most_set")
    crossed = falls_below_s(r.times_s, -values if rising else values, -limit if rising else limit)
    return min(crossed, casting.horizon_s)


def _pace(first: PieceRun, rows: list[list[PieceRun]], limit_degc: float) -> Spread:
    def time(r: PieceRun) -> float:
        return max(falls_below_s(r.times_s, r.mean_degc, limit_degc), 1.0)

    return combine(1.0, [[time(first) / time(r) for r in row] for row in rows])


def _sugar(casting: Casting, tg: Spread, first: PieceRun, rows: list[list[PieceRun]]) -> PieceWindows:
    melt, until = casting.melt, partial(_until, casting)

    def crossing(series: str, glass: float, log: float, r: PieceRun) -> float:
        return until(series, temperature_at_log_viscosity_degc(log, glass), r)

    def window(prop: str, series: str, by_heat: list[list[PieceRun]]) -> Spread:
        log = melt.spread(prop)
        rows = [
            *([crossing(series, tg.likely, log.likely, r) for r in row] for row in by_heat),
            [crossing(series, tg.low, log.likely, first), crossing(series, tg.high, log.likely, first)],
            [crossing(series, tg.likely, log.low, first), crossing(series, tg.likely, log.high, first)],
        ]
        return _not_before_the_pour(combine(crossing(series, tg.likely, log.likely, first), rows))

    def width(glass: float, r: PieceRun) -> float:
        opens = crossing("hottest_degc", glass, melt.value("log_bend_open"), r)
        return max(crossing("coldest_degc", glass, melt.value("log_bend_close"), r) - opens, 0.0)

    at = {name: window(*how, rows) for name, how in SUGAR_SERIES.items()}
    glass_only = {name: window(*how, []) for name, how in SUGAR_SERIES.items()}
    widths = [[width(tg.likely, r) for r in row] for row in rows] + [[width(tg.low, first), width(tg.high, first)]]
    return PieceWindows(
        at=at,
        by_material=glass_only,
        limits={
            name: temperature_at_log_viscosity_degc(melt.value(p), tg.likely)
            for name, (p, _) in SUGAR_SERIES.items()
        },
        limited_by=dict.fromkeys(at, "heat"),
        work_width={"bend": combine(width(tg.likely, first), widths), "stick": at["stick_closes"]},
        cool_to_hold=_spread(partial(until, "hottest_degc", HOT_TO_HOLD_DEGC), first, rows),
        pace=_pace(first, rows, tg.likely),
        likely_run=first,
        horizon_s=casting.horizon_s,
    )


def _fat(casting: Casting, likely: Case, first: PieceRun, rows: list[list[PieceRun]]) -> PieceWindows:
    melt, until = casting.melt, partial(_until, casting)
    cold = max(melt.value("release_below"), casting.path[-1].place.air_degc + melt.value("release_above_air"))

    def reached(name: str, r: PieceRun) -> float:
        prop, series = FAT_SERIES[name]
        at = until(series, melt.value(prop), r)
        return max(at, until("hottest_degc", cold, r)) if name == "unmould" else at

    at = {name: _spread(partial(reached, name), first, rows) for name in FAT_SERIES}
    at["over_chilled"] = _spread(partial(until, "coldest_degc", melt.value("over_chilled_below")), first, rows)
    # half-times apart: no reading of a temperature narrows them
    kinds = [cases[0].half_factor != 1.0 for cases in varied(likely)]
    setting = [row for row, of_setting in zip(rows, kinds, strict=True) if of_setting]
    by_heat = [row for row, of_setting in zip(rows, kinds, strict=True) if not of_setting]
    at_once = run(_at_once(likely))
    return PieceWindows(
        at=at,
        by_material={name: _spread(partial(reached, name), first, setting) for name in FAT_SERIES}
        | {"over_chilled": at["over_chilled"]},
        limits={name: melt.value(p) for name, (p, _) in FAT_SERIES.items()}
        | {"unmould_degc": cold, "over_chilled": melt.value("over_chilled_below")},
        limited_by={
            name: "heat" if 2 * reached(name, at_once) > at[name].likely else "setting" for name in FAT_SERIES
        }
        | {"over_chilled": "heat"},
        work_width={"stick": at["stick_closes"]},
        cool_to_hold=_spread(partial(until, "hottest_degc", HOT_TO_HOLD_DEGC), first, rows),
        pace=_pace(first, by_heat, cold),
        likely_run=first,
        horizon_s=casting.horizon_s,
    )


def _at_once(likely: Case) -> Case:
    return Case(
        likely.casting, likely.pour_degc, likely.depth_m, likely.cp_melt, likely.conductivity,
        likely.wall_conductivity, half_factor=1e-3,
    )  # fmt: skip
