"""A small fixed design of engine runs: every uncertain input of a casting drawn at once, for the spread of its times."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cache, lru_cache

import numpy as np
from numpy.typing import NDArray

from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.heat.casting import Casting, Place
from umber_pebble.core.heat.conduction import (
    AIR_M_S,
    AROUND,
    CP_HIGH,
    CP_LOW,
    DENSITY,
    EMISSIVITY,
    EXPONENT,
    FACTOR,
    JOIN,
    LATENT,
    MELT_K,
    MELTS,
    PEAK_RATE,
    SLOPE,
    SOLID_K,
    START,
    START_SET,
    TURN,
    WIDTH,
    Array,
    Prepared,
    march,
    prepare,
)
from umber_pebble.core.heat.piece import Case, Grid, PieceRun, stack_of, stay_times_s, watched_layer
from umber_pebble.core.materials.load import model_factors
from umber_pebble.core.spread import Z_95, Spread

SIZE, MANY = 64, 1024
FIRST_S, SHIFT = 0.1, 0.1
"""Logarithms are of times moved by a share of their median [s, 1]."""
LEAST = 1e-7
Draws = NDArray[np.float64]


def split_normal(of: Spread, z: Draws) -> Draws:
    """Values of a spread at standard normal draws, its two halves apart: 5, 50 and 95 % are low, likely and high [its unit].

    Source: jcgm-100-2008
    """
    return np.asarray(of.likely + z * np.where(z < 0, of.likely - of.low, of.high - of.likely) / Z_95)


@cache
def normal_design(inputs: int, size: int = SIZE) -> Draws:
    """Standard normal draws [run, input]: a Latin hypercube of the same ranks every time, each with its opposite.

    Source: mckay-1979
    """
    rng = np.random.default_rng(1979 + inputs)
    half = size // 2
    ranks = np.argsort(rng.random((half, inputs)), axis=0)
    # the upper half of each stratum pair; its opposite is in the other half of the design
    u = 0.5 + (ranks + 0.5) / size
    z = _probit(u) * np.where(rng.random((half, inputs)) < 0.5, -1.0, 1.0)
    return np.concatenate((z, -z))


def _probit(u: Draws) -> Draws:
    """Inverse of the normal distribution by Acklam's rational approximation, good to 1e-9 relative [1]."""
    from scipy.special import ndtri

    return np.asarray(ndtri(u))


@dataclass(frozen=True)
class Design:
    """Runs of a casting: the likely one, thin and thick places and an instant setting where asked, then the draws; what each input
    was in each [run], by name, as standard normal draws; what times are taken as linear in, at the draws and at many others."""

    runs: PieceRun
    z: dict[str, Draws]
    likely: int
    thin: int | None
    thick: int | None
    at_once: int | None
    draws: slice
    basis: Draws
    pinv: Draws
    many: Draws
    wide: Draws


def _inputs(casting: Casting) -> dict[str, Spread]:
    """Every input with a spread, by name [SI]."""
    melt, mould, factors = casting.melt, casting.mould, model_factors()
    fat = casting.tg is None
    names = {
        "cp_melt": "cp_melt",
        "cp_set": "cp_set" if fat else "cp_glass",
        "conductivity": "conductivity",
        "density": "density_melt",
        "emissivity": "emissivity",
    } | (
        {
            "conductivity_melt": "conductivity_melt",
            "melts_at": "melts_at",
            "latent": "latent_fat",
            "half_time": "half_time",
            "set_at_start": "set_at_start",
        }
        if fat
        else {}
    )
    out = {name: melt.spread(prop) for name, prop in names.items()}
    out |= {"pour_degc": casting.pour, "depth_m": casting.slab, "wall_conductivity": mould.spread("conductivity")}
    out["air_side"] = factors["air_side_factor"].spread
    last = casting.path[-1].place
    if casting.shape == "plate" and not all(stay.place.open for stay in casting.path):
        contact = last.surface.spread("contact")
        out["contact"] = contact.times(1 / contact.likely)
    if any(stay.place.air_m_s.high > 0 for stay in casting.path):
        out["stream"] = Spread(-1.0, 0.0, 1.0)
    if any(stay.place.air_unsure_k > 0 for stay in casting.path):
        out["air_off_share"] = Spread(-1.0, 0.0, 1.0)
    if casting.tg is not None:
        out["glass"] = casting.tg
    return {name: spread for name, spread in out.items() if spread.high > spread.low}


def run_design(likely: Case, grid: Grid, limits: int, draw: Callable[[int], Draws] | None = None) -> Design:
    """A casting's runs with every uncertain input drawn at once.

    Args:
        likely: the likely case
        grid: how finely
        limits: draws beside the engine's inputs, for limits that have a spread of their own, named "limit 0" on
        draw: standard normal draws [run, input] for so many inputs; the fixed design where none is given
    Raises: OutOfRange: a size the model does not hold for.
    Source: patankar-1980, mckay-1979
    """
    casting = likely.casting
    inputs = _inputs(casting)
    names = [*inputs, *(f"limit {i}" for i in range(limits))]
    extra = 1 + 2 * (casting.thick_m is not None) + (casting.tg is None)
    drawn = (draw or normal_design)(len(names))
    z = {name: np.concatenate((np.zeros(extra), drawn[:, i])) for i, name in enumerate(names)}
    value = {name: split_normal(spread, z[name]) for name, spread in inputs.items()}
    n = extra + drawn.shape[0]
    depth = value.get("depth_m", np.full(n, casting.slab.likely))
    depth = np.maximum(depth, 0.2 * casting.slab.likely)
    thin = thick = at_once = None
    if casting.thin_m is not None and casting.thick_m is not None:
        thin, thick = 1, 2
        depth = np.concatenate(([depth[0], casting.thin_m, casting.thick_m], depth[3:]))
    faster = np.ones(n)
    if casting.tg is None:
        at_once = extra - 1
        faster[at_once] = AT_ONCE
    runs = _march(likely, grid, n, value, depth, faster)
    return Design(
        runs, z, 0, thin, thick, at_once, slice(extra, n), *_linear(tuple(inputs.get(name) for name in names))
    )


@lru_cache(maxsize=128)
def _linear(sides: tuple[Spread | None, ...]) -> tuple[Draws, Draws, Draws, Draws]:
    """What times are taken as linear in: at the draws of the design, its pseudo-inverse, at many draws, and how wide each term is."""
    basis, many = (_sided(normal_design(len(sides), size), sides) for size in (SIZE, MANY))
    return basis, np.asarray(np.linalg.pinv(basis), dtype=np.float64), many, np.asarray(many[:, 1:].std(axis=0))


def _sided(z: Draws, of: tuple[Spread | None, ...]) -> Draws:
    """Draws as deviations of their inputs, each half as wide as it is, with a constant before them [run, term]."""
    out = np.ones((z.shape[0], z.shape[1] + 1))
    for i, spread in enumerate(of):
        wide = 1.0 if spread is None else (spread.high - spread.low) / 2
        out[:, i + 1] = z[:, i] if spread is None else (split_normal(spread, z[:, i]) - spread.likely) / wide
    return out


AT_ONCE = 1e-3
"""Factor on the time to set half that stands for setting at once."""


def _march(likely: Case, grid: Grid, n: int, value: dict[str, Draws], depth: Draws, faster: Draws) -> PieceRun:
    casting, piece = likely.casting, watched_layer(likely.casting)
    times, seen = list[Array](), list[Array]()
    carried: tuple[Array, Array] | None = None
    for i, stay in enumerate(casting.path):
        steps = stay_times_s(casting, i, grid.first_s, grid.growth)
        stack = stack_of(likely, stay.place, grid)
        ready = prepare([stack], piece, n)
        _vary(ready, casting, piece, stay.place, value, depth, faster)
        out, _, temps, shares = march(ready, steps, carried)
        moved = ready.moved
        carried = temps[:, :moved], shares[:, :moved]
        skip = 1 if times else 0
        times.append(steps[skip:] + stay.from_s)
        seen.append(np.array(out)[:, :, skip:])
    return PieceRun(np.concatenate(times), *np.concatenate(seen, axis=2))


def _vary(
    ready: Prepared,
    casting: Casting,
    piece: int,
    place: Place,
    value: dict[str, Draws],
    depth: Draws,
    faster: Draws,
) -> None:
    """Writes the drawn values into the rows of the layers and faces, in place."""
    of_piece, of_wall = ready.nodes == piece, ready.nodes == ready.wall
    rows, melt = ready.rows, casting.melt

    def put(name: str, column: int, at: NDArray[np.bool_], least: float = LEAST) -> None:
        if name in value:
            rows[:, at, column] = np.maximum(value[name], least)[:, None]

    put("conductivity", SOLID_K, of_piece)
    put("conductivity_melt" if casting.tg is None else "conductivity", MELT_K, of_piece)
    put("density", DENSITY, of_piece)
    put("cp_set", CP_LOW, of_piece)
    put("cp_melt", CP_HIGH, of_piece)
    put("pour_degc", START, of_piece, -50.0)
    put("wall_conductivity", SOLID_K, of_wall)
    put("wall_conductivity", MELT_K, of_wall)
    rows[:, of_piece, WIDTH] = depth[:, None] / of_piece.sum()
    if casting.tg is None:
        s = setting_of(melt)
        put("melts_at", MELTS, of_piece)
        put("latent", LATENT, of_piece)
        put("set_at_start", START_SET, of_piece)
        half = np.maximum(value.get("half_time", np.full(depth.size, s.half_s)), 0.1 * s.half_s) * faster
        melts = value.get("melts_at", np.full(depth.size, s.melts_degc))
        rate = math.log(2.0) ** (1.0 / s.exponent) / half
        # the half-time holds at its own temperature, however far under the melting point that is drawn
        rows[:, of_piece, PEAK_RATE] = (rate * np.exp(s.slope_k / np.maximum(melts - s.half_at_degc, 1.0)))[
            :, None
        ]
        rows[:, of_piece, EXPONENT], rows[:, of_piece, SLOPE] = s.exponent, s.slope_k
    elif "glass" in value:
        rows[:, of_piece, TURN] = value["glass"][:, None]
    if ready.place is not None and "contact" in value:
        first = np.flatnonzero(ready.nodes == ready.place)[0]
        rows[:, first, JOIN] = rows[:, first, JOIN] / np.maximum(value["contact"], 0.1)
    for faces in (ready.tops, ready.bottoms):
        if "air_off_share" in value:
            faces[:, AROUND] += value["air_off_share"] * place.air_unsure_k
        if "stream" in value:
            faces[:, AIR_M_S] = np.maximum(split_normal(place.air_m_s, value["stream"] * Z_95), 0.0)
        if "air_side" in value:
            faces[:, FACTOR] *= np.maximum(value["air_side"], 0.1)
    if "emissivity" in value:
        ready.tops[:, EMISSIVITY] = np.clip(value["emissivity"], 0.0, 1.0)


@dataclass(frozen=True, eq=False)
class Told:
    """What a design says of one time: 5, 50 and 95 % of it [s], where its end is open the nine tenths by where it begins; and its
    logarithm as linear in what was drawn."""

    design: Design
    spread: Spread
    slopes: Draws

    def _squares(self) -> Draws:
        return np.asarray((self.slopes[1:] * self.design.wide) ** 2)

    def shares(self, called: Callable[[str], str]) -> dict[str, float]:
        """Which share of its spread comes from which input, largest first [frac]. Source: jcgm-100-2008"""
        squares = self._squares()
        whole, out = float(squares.sum()), dict[str, float]()
        if whole <= 1e-12:
            return {}
        for name, square in zip(self.design.z, squares, strict=True):
            out[called(name)] = out.get(called(name), 0.0) + float(square) / whole
        return dict(sorted(out.items(), key=lambda row: -row[1]))

    def sd_of(self, takes: Callable[[str], bool]) -> float:
        """Standard deviation of its logarithm that some of the inputs leave [1]. Source: jcgm-100-2008"""
        taken = [takes(name) for name in self.design.z]
        return math.sqrt(float(self._squares()[taken].sum()))


def told(design: Design, rows: Sequence[Draws]) -> list[Told]:
    """Reads several times off a design at once [s by draw]; what never happens is infinite.

    So few runs do not settle the tails by themselves. Where all of them come to an end, the logarithm of the time is taken as
    linear in what was drawn, its residuals as they are, and both are read off at many draws; else the runs' own order counts.
    Source: jcgm-100-2008, mckay-1979
    """
    out: list[Told | None] = [None] * len(rows)
    ended = [i for i, row in enumerate(rows) if np.isfinite(row).all()]
    if ended:
        times = np.array([rows[i] for i in ended])
        # what comes at once in some draws is no outlier
        shift = np.maximum(SHIFT * np.median(times, axis=1), FIRST_S)[:, None]
        logs = np.log(times + shift)
        slopes = logs @ design.pinv.T
        residual = logs - slopes @ design.basis.T
        size, terms = times.shape[1], design.basis.shape[1]
        wider = math.sqrt(size / max(size - terms, size / 2))
        many = slopes @ design.many.T + wider * np.tile(residual, (1, MANY // SIZE))
        ranks = [round(p * (many.shape[1] - 1)) for p in (0.05, 0.5, 0.95)]
        read = np.maximum(np.exp(np.partition(many, ranks, axis=1)[:, ranks]) - shift, 0.0)
        for i, of, slope in zip(ended, read, slopes, strict=True):
            out[i] = Told(design, Spread(float(of[0]), float(of[1]), float(of[2])), slope)
    return [of or _told_open(design, row) for of, row in zip(out, rows, strict=True)]


def _told_open(design: Design, times: Draws) -> Told:
    """Of a time that some draws never come to."""
    ends = np.isfinite(times)
    slopes = np.zeros(design.basis.shape[1])
    if ends.sum() > design.basis.shape[1]:
        known = times[ends]
        logs = np.log(known + max(SHIFT * float(np.median(known)), FIRST_S))
        slopes = np.asarray(np.linalg.lstsq(design.basis[ends], logs, rcond=None)[0], dtype=np.float64)
    size = times.size
    ordered, at = np.sort(times), (np.arange(size) + 0.5) / size
    finite = np.where(np.isfinite(ordered), ordered, 0.0)

    def is_open(p: float) -> bool:
        return not math.isfinite(ordered[min(int(np.searchsorted(at, p)), size - 1)])

    sides = (0.1 if is_open(0.95) else 0.05, 0.5, 0.95)
    spread = Spread(*(math.inf if is_open(p) else float(np.interp(p, at, finite)) for p in sides))
    return Told(design, spread, slopes)
