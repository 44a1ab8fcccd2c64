"""A cast disc in its mould: how it cools through a path of places, and its windows by viscosity."""

from dataclasses import dataclass, replace
from functools import lru_cache, partial

import numpy as np

from umber_pebble.core.constants import HOT_TO_HOLD_DEGC
from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.conduction import Array, Face, Layer, conduct, falls_below_s, growing_times_s
from umber_pebble.core.materials.load import Material, model_factors
from umber_pebble.core.spread import Spread, combine

HORIZON_S = 6 * 3600.0
# which node decides a window: the hottest must be stiff enough, the coldest not yet too stiff
WINDOW_SERIES = {
    "log_bend_open": "hottest_degc",
    "log_bend_close": "coldest_degc",
    "log_brittle": "coldest_degc",
    "log_unmould": "hottest_degc",
}
NODES = {"piece": 15, "wall": 8, "place": 12}


@dataclass(frozen=True, slots=True)
class Place:
    """Where a mould lies: a surface of a thickness at a temperature, in air of a temperature."""

    surface: Material
    thickness_m: float
    surface_degc: float
    air_degc: float


@dataclass(frozen=True, slots=True)
class Stay:
    """From this moment after the pour the mould lies in this place [s]."""

    from_s: float
    place: Place


@dataclass(frozen=True, slots=True)
class Casting:
    """A disc of melt in a mould wall, poured at a temperature and laid in a row of places."""

    melt: Material
    mould: Material
    depth_m: float
    volume_over_area_m: float
    diameter_m: float
    wall_m: float
    pour: Spread
    tg: Spread
    path: tuple[Stay, ...]

    def __post_init__(self) -> None:
        require_range("depth_m", self.depth_m, 2e-4, 0.1)
        require_range("wall_m", self.wall_m, 1e-4, 0.05)


@dataclass(frozen=True, slots=True)
class PieceRun:
    """One engine run: times from the pour and the piece's mean, hottest and coldest node [degC]."""

    times_s: Array
    mean_degc: Array
    hottest_degc: Array
    coldest_degc: Array


@dataclass(frozen=True, slots=True)
class PieceWindows:
    """Times from the pour with spread [s]; the horizon where it is not reached.

    by_glass: the windows again with only the glass transition's spread; pace: the spread of speed that
    heat alone leaves (1 = likely). Readings narrow the second, not the first.
    """

    bend_opens: Spread
    bend_closes: Spread
    bend_width: Spread
    brittle: Spread
    unmould: Spread
    cool_to_hold: Spread
    by_glass: dict[str, Spread]
    pace: Spread
    likely_run: PieceRun
    limits_degc: dict[str, float]


@dataclass(frozen=True, slots=True)
class _Case:
    casting: Casting
    pour_degc: float
    depth_m: float
    cp_melt: float
    cp_glass: float
    conductivity: float
    wall_conductivity: float
    contact: float
    air_side: float


def _layers(case: _Case, place: Place) -> list[Layer]:
    casting, melt, mould, surface = case.casting, case.casting.melt, case.casting.mould, place.surface
    piece = Layer(
        "piece", case.depth_m, NODES["piece"], case.conductivity, melt.value("density_melt"),
        case.cp_glass, case.cp_melt, casting.tg.likely, case.pour_degc,
    )  # fmt: skip
    wall = Layer(
        "wall", casting.wall_m, NODES["wall"], case.wall_conductivity, mould.value("density"),
        mould.value("cp"), mould.value("cp"), 0.0, casting.path[0].place.air_degc,
    )  # fmt: skip
    under = Layer(
        "place", place.thickness_m, NODES["place"], surface.value("conductivity"), surface.value("density"),
        surface.value("cp"), surface.value("cp"), 0.0, place.surface_degc, case.contact * surface.value("contact"),
    )  # fmt: skip
    return [piece, wall, under]


def _faces(case: _Case, place: Place) -> tuple[Face, Face]:
    length = case.casting.diameter_m / 4
    top = Face(place.air_degc, 1, length, case.casting.melt.value("emissivity"), case.air_side)
    bottom = Face(place.air_degc, 2, 0.06, 0.9, case.air_side)
    return top, bottom


def _run(case: _Case) -> PieceRun:
    path = case.casting.path
    kept: Array | None = None
    times: list[Array] = []
    temps: list[Array] = []
    for stay, after in zip(path, [*path[1:], None], strict=True):
        layers = _layers(case, stay.place)
        end = HORIZON_S if after is None else after.from_s
        start = np.repeat([float(layer.start_degc) for layer in layers], [layer.nodes for layer in layers])
        moved = NODES["piece"] + NODES["wall"]
        if kept is not None:
            start[:moved] = kept[:moved]
        history = conduct(layers, *_faces(case, stay.place), growing_times_s(max(end - stay.from_s, 1.0)), start)
        kept = history.temps_degc[-1]
        skip = 0 if not times else 1
        times.append(history.times_s[skip:] + stay.from_s)
        temps.append(history.of_layer(0)[skip:])
    piece = np.concatenate(temps)
    return PieceRun(np.concatenate(times), piece.mean(1), piece.max(1), piece.min(1))


def _base(casting: Casting) -> _Case:
    m = casting.melt
    return _Case(
        casting, casting.pour.likely, casting.depth_m, m.value("cp_melt"), m.value("cp_glass"),
        m.value("conductivity"), casting.mould.value("conductivity"), 1.0, 1.0,
    )  # fmt: skip


def _varied(base: _Case) -> list[list[_Case]]:
    casting, melt = base.casting, base.casting.melt
    contact = casting.path[0].place.surface.spread("contact")
    ends: dict[str, tuple[float, ...]] = {
        "pour_degc": (casting.pour.low, casting.pour.high),
        # a disc's free edge cools it too: 2 V/A is the fast end, its full depth the slow one
        "depth_m": (2 * casting.volume_over_area_m,),
        "cp_melt": (melt.spread("cp_melt").low, melt.spread("cp_melt").high),
        "conductivity": (melt.spread("conductivity").low, melt.spread("conductivity").high),
        "wall_conductivity": (
            casting.mould.spread("conductivity").low,
            casting.mould.spread("conductivity").high,
        ),
        "contact": (contact.low / contact.likely, contact.high / contact.likely),
        "air_side": (
            model_factors()["air_side_factor"].spread.low,
            model_factors()["air_side_factor"].spread.high,
        ),
    }

    def at(name: str, value: float) -> _Case:
        return replace(base, **{name: value})  # type: ignore[arg-type]

    return [[at(name, value) for value in values] for name, values in ends.items()]


def _reaches(run: PieceRun, series: str, limit_degc: float) -> float:
    return falls_below_s(run.times_s, getattr(run, series), limit_degc)


@lru_cache(maxsize=256)
def windows_s(casting: Casting) -> PieceWindows:
    """The windows of a casting, in seconds from its pour, with spread.

    Bend opens when the hottest node is stiff enough, closes when the coldest is too stiff; brittle
    by the coldest; unmould when the hottest is at its glass transition. One base run and one run to
    each end of every uncertain input; the glass transition moves the limits, not the run.
    Args:
        casting: the disc, its mould and its path of places
    Raises: OutOfRange: a size or temperature the model does not hold for.
    Source: williams-landel-ferry-1955, patankar-1980, jcgm-100-2008
    """
    base_case = _base(casting)
    base = _run(base_case)
    runs = [[_run(case) for case in row] for row in _varied(base_case)]
    melt = casting.melt

    def crossing(series: str, tg: float, log: float, run: PieceRun) -> float:
        return min(_reaches(run, series, temperature_at_log_viscosity_degc(log, tg)), HORIZON_S)

    def window(prop: str, *, heat: bool = True) -> Spread:
        log, tg = melt.spread(prop), casting.tg
        at = partial(crossing, WINDOW_SERIES[prop])
        by_heat = [[at(tg.likely, log.likely, run) for run in row] for row in runs] if heat else []
        return combine(
            at(tg.likely, log.likely, base),
            [
                *by_heat,
                [at(tg.low, log.likely, base), at(tg.high, log.likely, base)],
                [at(tg.likely, log.low, base), at(tg.likely, log.high, base)],
            ],
        )

    def width(run: PieceRun, tg: float) -> float:
        opens = crossing("hottest_degc", tg, melt.value("log_bend_open"), run)
        return max(crossing("coldest_degc", tg, melt.value("log_bend_close"), run) - opens, 0.0)

    hold = HOT_TO_HOLD_DEGC
    return PieceWindows(
        bend_opens=window("log_bend_open"),
        bend_closes=window("log_bend_close"),
        bend_width=combine(
            width(base, casting.tg.likely),
            [[width(r, casting.tg.likely) for r in row] for row in runs]
            + [[width(base, casting.tg.low), width(base, casting.tg.high)]],
        ),
        brittle=window("log_brittle"),
        unmould=window("log_unmould"),
        cool_to_hold=combine(
            min(_reaches(base, "hottest_degc", hold), HORIZON_S),
            [[min(_reaches(r, "hottest_degc", hold), HORIZON_S) for r in row] for row in runs],
        ),
        by_glass={prop: window(prop, heat=False) for prop in WINDOW_SERIES},
        pace=_pace(base, runs, casting.tg.likely),
        likely_run=base,
        limits_degc={
            p: temperature_at_log_viscosity_degc(melt.value(p), casting.tg.likely) for p in WINDOW_SERIES
        },
    )


def _pace(base: PieceRun, runs: list[list[PieceRun]], limit_degc: float) -> Spread:
    likely = falls_below_s(base.times_s, base.mean_degc, limit_degc)
    return combine(
        1.0,
        [[likely / max(falls_below_s(r.times_s, r.mean_degc, limit_degc), 1.0) for r in row] for row in runs],
    )


def never(value: Spread) -> bool:
    """Whether a window is not reached within the horizon, in the likely run. Source: definition"""
    return value.likely >= HORIZON_S
