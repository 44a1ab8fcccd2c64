"""1-D implicit finite volumes through a stack of layers, with two surroundings."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import Setting, set_in_own_heat
from umber_pebble.core.heat.convection import (
    STREAM_LENGTH_M,
    h_convection_w_m2k,
    h_radiation_w_m2k,
    h_stream_w_m2k,
)

FIRST_STEP_S = 0.25
STEP_GROWTH = 1.015

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Layer:
    """One layer, top to bottom in a stack; `contact_w_m2k` is its join to the layer above (inf = perfect).

    The heat capacity may pass from cp_low to cp_high around turn_degc (a glass transition). A layer with
    a `setting` crystallises: it passes from cp_high to cp_low, and from melt_conductivity to conductivity,
    with the share that has set, and is warmed by it.
    """

    name: str
    thickness_m: float
    nodes: int
    conductivity_w_mk: float
    density_kg_m3: float
    cp_low_j_kgk: float
    cp_high_j_kgk: float
    turn_degc: float
    start_degc: float
    contact_w_m2k: float = math.inf
    melt_conductivity_w_mk: float | None = None
    setting: Setting | None = None

    def __post_init__(self) -> None:
        require_range(f"{self.name}.thickness_m", self.thickness_m, 1e-5, 1.0)


@dataclass(frozen=True, slots=True)
class Face:
    """Surroundings of one face: a fixed coefficient, or (h_fixed None) convection and radiation.

    Convection is natural, with a stream of air at air_m_s on top of it.
    """

    around_degc: float
    facing: int
    length_m: float
    emissivity: float
    factor: float = 1.0
    h_fixed_w_m2k: float | None = None
    air_m_s: float = 0.0

    def row(self) -> tuple[float, ...]:
        fixed = -1.0 if self.h_fixed_w_m2k is None else self.h_fixed_w_m2k
        return (
            self.around_degc,
            float(self.facing),
            self.length_m,
            self.emissivity,
            self.factor,
            fixed,
            self.air_m_s,
        )


@dataclass(frozen=True, slots=True)
class History:
    """Temperatures and shares set of every node at every time: times [s], temps [time, node] in degC, set [time, node],
    and each node's layer."""

    times_s: Array
    temps_degc: Array
    set_frac: Array
    layer_of_node: NDArray[np.int64]

    def of_layer(self, index: int) -> Array:
        return self.temps_degc[:, self.layer_of_node == index]

    def set_of_layer(self, index: int) -> Array:
        return self.set_frac[:, self.layer_of_node == index]


@njit(cache=True)
def _h(surface: float, face: tuple[float, ...]) -> float:
    around, facing, length, emissivity, factor, fixed, air = face
    if fixed >= 0.0:
        return fixed
    natural = h_convection_w_m2k(surface, around, length, int(facing))
    forced = h_stream_w_m2k(surface, around, STREAM_LENGTH_M, air)
    both: float = (natural**3 + forced**3) ** (1.0 / 3.0)
    return factor * both + h_radiation_w_m2k(surface, around, emissivity)


@njit(cache=True)
def _cp(t: float, low: float, high: float, turn: float) -> float:
    if t >= turn + 5.0:
        return high
    if t <= turn - 5.0:
        return low
    return low + (high - low) * (t - turn + 5.0) / 10.0


@njit(cache=True)
def _march(  # type: ignore[no-untyped-def]
    temps, shares, times, dx, k_low, k_high, rho, cp_low, cp_high, turn, latent, kinetics, r_join, top, bottom
):
    n, steps = temps.size, times.size - 1
    out, out_set = np.empty((steps + 1, n)), np.zeros((steps + 1, n))
    out[0], out_set[0] = temps, shares
    t, x = temps.copy(), shares.copy()
    g, k, cp = np.empty(n - 1), np.empty(n), np.empty(n)
    upper, rhs = np.empty(n), np.empty(n)
    s_top, s_bottom = t[0], t[n - 1]
    # only the layers that set change while they do; they lie on top
    sets = int((latent > 0.0).sum())
    k[:] = k_low
    for i in range(steps):
        dt = times[i + 1] - times[i]
        for j in range(n):
            if j < sets:
                done = x[j] / kinetics[j, 2]
                k[j] = k_high[j] + (k_low[j] - k_high[j]) * done
                cp[j] = cp_high[j] + (cp_low[j] - cp_high[j]) * done
            else:
                cp[j] = _cp(t[j], cp_low[j], cp_high[j], turn[j])
        # conductance between neighbours: two half cells and the join between them
        for j in range(n - 1 if i == 0 else min(sets, n - 1)):
            g[j] = 1.0 / (0.5 * dx[j] / k[j] + r_join[j + 1] + 0.5 * dx[j + 1] / k[j + 1])
        half_top, half_bottom = 2.0 * k[0] / dx[0], 2.0 * k[n - 1] / dx[n - 1]
        h_top, h_bottom = _h(s_top, top), _h(s_bottom, bottom)
        u_top = 1.0 / (1.0 / half_top + 1.0 / h_top) if h_top > 0.0 else 0.0
        u_bottom = 1.0 / (1.0 / half_bottom + 1.0 / h_bottom) if h_bottom > 0.0 else 0.0
        for j in range(n):
            c = rho[j] * cp[j] * dx[j] / dt
            above = g[j - 1] if j > 0 else 0.0
            below = g[j] if j < n - 1 else 0.0
            diagonal, r = c + above + below, c * t[j]
            if j == 0:
                diagonal += u_top
                r += u_top * top[0]
            if j == n - 1:
                diagonal += u_bottom
                r += u_bottom * bottom[0]
            if j > 0:
                diagonal -= above * upper[j - 1]
                r += above * rhs[j - 1]
            upper[j] = below / diagonal
            rhs[j] = r / diagonal
        t[n - 1] = rhs[n - 1]
        for j in range(n - 2, -1, -1):
            t[j] = rhs[j] + upper[j] * t[j + 1]
        for j in range(sets):
            row = kinetics[j]
            kin = (row[0], row[1], row[2], row[3], row[4], row[5])
            x[j], t[j] = set_in_own_heat(x[j], t[j], dt, latent[j] / cp[j], kin)
        s_top = (half_top * t[0] + h_top * top[0]) / (half_top + h_top)
        s_bottom = (half_bottom * t[n - 1] + h_bottom * bottom[0]) / (half_bottom + h_bottom)
        out[i + 1], out_set[i + 1] = t, x
    return out, out_set


def growing_times_s(end_s: float, first_s: float = FIRST_STEP_S, growth: float = STEP_GROWTH) -> Array:
    """Times from zero to end_s with steps that grow by a constant factor [s].

    Args:
        end_s: above first_s, at most 10 days
        first_s, growth: first step above zero, factor above 1
    Raises: OutOfRange: end_s outside.
    Source: definition
    """
    require_range("end_s", end_s, first_s, 864_000.0)
    count = math.ceil(math.log1p(end_s * (growth - 1) / first_s) / math.log(growth))
    times: Array = first_s * (growth ** np.arange(count + 1, dtype=np.float64) - 1) / (growth - 1)
    times[-1] = end_s
    return times


def conduct(
    layers: Sequence[Layer], top: Face, bottom: Face, times_s: Array, start: Array | None = None,
    start_set: Array | None = None,
) -> History:  # fmt: skip
    """Temperatures and shares set through a stack of layers over time [degC, frac].

    Backward Euler in time, cell-centred volumes in space; surface coefficients and properties from the
    step before, and setting after conduction in each step, so the error is first order in the step.
    Args:
        layers: top to bottom
        top, bottom: surroundings of the two faces
        times_s: rising, from the start [s]
        start, start_set: node temperatures [degC] and shares set [frac] to go on from; else each layer's own
    Raises: OutOfRange: a thickness outside its limits.
    Source: patankar-1980, chapter 4
    """
    counts = [layer.nodes for layer in layers]
    rows = {
        name: np.repeat([float(getattr(layer, name)) for layer in layers], counts)
        for name in (
            "conductivity_w_mk",
            "density_kg_m3",
            "cp_low_j_kgk",
            "cp_high_j_kgk",
            "turn_degc",
            "start_degc",
        )
    }
    dx = np.repeat([layer.thickness_m / layer.nodes for layer in layers], counts)
    settings = [layer.setting for layer in layers]
    if any(later and not earlier for earlier, later in itertools.pairwise(settings)):
        raise OutOfRange("layers that set lie above those that do not", path="layers", got=None)
    k_melt = [layer.melt_conductivity_w_mk or layer.conductivity_w_mk for layer in layers]
    none = (0.0, 1.0, 1.0, 1.0, 0.0, 0.0)
    shares = np.repeat([s.start_frac if s else 0.0 for s in settings], counts)
    r_join = np.zeros(dx.size)
    r_join[np.cumsum([0, *counts[:-1]])] = [1.0 / layer.contact_w_m2k for layer in layers]
    temps, set_frac = _march(
        (rows["start_degc"] if start is None else start).astype(np.float64),
        shares if start_set is None else start_set.astype(np.float64),
        times_s,
        dx,
        rows["conductivity_w_mk"],
        np.repeat(k_melt, counts).astype(np.float64),
        rows["density_kg_m3"],
        rows["cp_low_j_kgk"],
        rows["cp_high_j_kgk"],
        rows["turn_degc"],
        np.repeat([s.latent_j_kg if s else 0.0 for s in settings], counts),
        np.repeat(np.array([s.kinetics() if s else none for s in settings]), counts, axis=0),
        r_join,
        top.row(),
        bottom.row(),
    )
    return History(times_s, temps, set_frac, np.repeat(np.arange(len(layers)), counts))


def falls_below_s(times_s: Array, temps_degc: Array, limit_degc: float) -> float:
    """When a falling series first is at or below a limit, linear between points [s]; inf when it never is.

    Args:
        times_s, temps_degc: the series
        limit_degc: the limit [degC]
    Source: definition
    """
    below = np.flatnonzero(temps_degc <= limit_degc)
    if below.size == 0:
        return math.inf
    i = int(below[0])
    if i == 0:
        return float(times_s[0])
    t0, t1, a, b = times_s[i - 1], times_s[i], temps_degc[i - 1], temps_degc[i]
    return float(t0 + (t1 - t0) * (a - limit_degc) / (a - b))
