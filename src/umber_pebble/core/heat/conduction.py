"""Implicit finite volumes through a stack of layers: plate, rod or ball, two surroundings, many cases at once."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.errors import require_range
from umber_pebble.core.fat.crystallise import Setting, set_in_own_heat
from umber_pebble.core.heat.steps import REST_K, TURN_HALF_K, after_heat_degc, at_rest, h_face_w_m2k

SHAPES = {"plate": 0, "rod": 1, "ball": 2}
# columns of a layer's row that are looked up by name
SOLID_K, MELT_K, DENSITY, CP_LOW, CP_HIGH, TURN, LATENT = 0, 1, 2, 3, 4, 5, 6
JOIN, MELTS, EXPONENT, PEAK_RATE, SLOPE, WIDTH, START, START_SET = 8, 9, 12, 13, 14, 15, 16, 17
# and of a face's
AROUND, EMISSIVITY, FACTOR, AIR_M_S = 0, 3, 4, 6
NO_SETTING = (0.0, 1.0, 1.0, 1.0, 0.0, 0.0)

Array = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Layer:
    """One layer, top (or outside) to bottom in a stack; `contact_w_m2k` is its join to the layer above (inf = perfect).

    The heat capacity may pass from cp_low to cp_high around turn_degc (a glass transition). A layer with
    a `setting` crystallises: it passes from cp_high to cp_low, and from melt_conductivity to conductivity,
    with the share that has set, and is warmed by it. source_w_m3: heat made within it, as by a microwave.
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
    start_frac: float | None = None
    source_w_m3: float = 0.0

    def __post_init__(self) -> None:
        require_range(f"{self.name}.thickness_m", self.thickness_m, 1e-5, 1.0)

    @property
    def starts_set_frac(self) -> float:
        """Share set at the start: as told, else that of a fresh melt."""
        if self.start_frac is not None:
            return self.start_frac
        return self.setting.start_frac if self.setting else 0.0

    def row(self) -> tuple[float, ...]:
        return (
            self.conductivity_w_mk,
            self.melt_conductivity_w_mk or self.conductivity_w_mk,
            self.density_kg_m3,
            self.cp_low_j_kgk,
            self.cp_high_j_kgk,
            self.turn_degc,
            self.setting.latent_j_kg if self.setting else 0.0,
            self.source_w_m3,
            1.0 / self.contact_w_m2k,
            *(self.setting.kinetics() if self.setting else NO_SETTING),
            self.thickness_m / self.nodes,
            self.start_degc,
            self.starts_set_frac,
        )


@dataclass(frozen=True, slots=True)
class Face:
    """Surroundings of one face: a fixed coefficient, or (h_fixed None) convection and radiation.

    Convection is natural, with a stream of air at air_m_s on top of it. flux_w_m2 falls on the face besides.
    """

    around_degc: float
    facing: int
    length_m: float
    emissivity: float
    factor: float = 1.0
    h_fixed_w_m2k: float | None = None
    air_m_s: float = 0.0
    flux_w_m2: float = 0.0

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
            self.flux_w_m2,
        )


@dataclass(frozen=True, slots=True)
class Stack:
    """Layers top to bottom with what surrounds both faces; a rod's or ball's layers go from outside to inner_m."""

    layers: tuple[Layer, ...]
    top: Face
    bottom: Face
    shape: str = "plate"
    inner_m: float = 0.0


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


class Watched(NamedTuple):
    """One layer over time, every case: arrays [case, time]; degC, frac. top_set is the node at the layer's top."""

    mean_degc: Array
    hottest_degc: Array
    coldest_degc: Array
    least_set: Array
    most_set: Array
    top_degc: Array
    top_set: Array


class _Nodes(NamedTuple):
    """Every node of every case: its width, its faces and its volume [case, node], its layer's row; the rows of the two faces."""

    widths: Array
    areas: Array
    volumes: Array
    rows: Array
    top: Array
    bottom: Array


@njit(cache=True, error_model="numpy")
def _solve(g, heat, t, inverse):  # type: ignore[no-untyped-def]
    """Temperatures t of nodes in a row, in place of what each starts with: heat[j] stays in a node by kelvin, g[j] and g[j + 1]
    lead to what is beside it. Nodes are taken out from both ends to the middle, since two sums side by side are done as soon as one.
    """
    n = t.size
    for j in range(n):
        inverse[j] = heat[j] + g[j] + g[j + 1]
    middle, k = (n - 1) // 2, n
    up = down = r = q = 0.0
    for j in range(middle):
        k -= 1
        r, q = t[j] + g[j] * up * r, t[k] + g[k + 1] * down * q
        up, down = 1.0 / (inverse[j] - g[j] * g[j] * up), 1.0 / (inverse[k] - g[k + 1] * g[k + 1] * down)
        t[j], t[k], inverse[j], inverse[k] = r, q, up, down
    if k > middle + 1:
        k -= 1
        q = t[k] + g[k + 1] * down * q
        down = 1.0 / (inverse[k] - g[k + 1] * g[k + 1] * down)
        t[k], inverse[k] = q, down
    above, below = g[middle], g[middle + 1]
    d = inverse[middle] - above * above * up - below * below * down
    r = q = (t[middle] + above * up * r + below * down * q) / d
    t[middle] = r
    for k in range(middle + 1, n):
        q = (t[k] + g[k] * q) * inverse[k]
        t[k] = q
        j = 2 * middle - k
        if j >= 0:
            r = (t[j] + g[j + 1] * r) * inverse[j]
            t[j] = r


@njit(cache=True, nogil=True, error_model="numpy")
def _march(start, start_set, times, nodes, first, last, kept):  # type: ignore[no-untyped-def]
    widths, areas, volumes, rows, top, bottom = nodes
    cases, n = start.shape
    steps = times.size - 1
    seen = np.empty((7, cases, steps + 1))
    fields, shares = np.empty((kept, steps + 1, n)), np.empty((kept, steps + 1, n))
    end, end_set = start.copy(), start_set.copy()
    # conductance above each node and below the last, half a cell's resistance, heat that stays in a node by kelvin
    g, half, heat = np.empty(n + 1), np.empty(n), np.empty(n)
    hot, cp, after, inverse = np.empty(n), np.empty(n), np.empty(n), np.empty(n)
    for case in range(cases):
        t, x, row = end[case], end_set[case], rows[case]
        sets = row[:, 6] > 0.0
        turns = (row[:, 3] != row[:, 4]) & ~sets
        area, volume, join = areas[case], volumes[case], row[:, 8].copy()
        half_dx, solid, span_k = 0.5 * widths[case], row[:, 0].copy(), row[:, 1] - row[:, 0]
        low, span_cp, mass, made = row[:, 3].copy(), row[:, 4] - row[:, 3], row[:, 2] * volume, row[:, 7] * volume
        hot[:] = 0.0
        above, below = top[case], bottom[case]
        s_top, s_bottom = t[0], t[n - 1]
        for i in range(steps + 1):
            if i > 0:
                dt = times[i] - times[i - 1]
                for j in range(n):
                    # how far a node is what it is when hot: above its turn, or molten
                    if sets[j]:
                        hot[j] = 1.0 - x[j] / row[j, 11]
                    elif turns[j]:
                        hot[j] = min(max((t[j] - row[j, 5] + TURN_HALF_K) / (2.0 * TURN_HALF_K), 0.0), 1.0)
                for j in range(n):
                    cp[j] = low[j] + span_cp[j] * hot[j]
                    half[j] = half_dx[j] / (solid[j] + span_k[j] * hot[j])
                    heat[j] = mass[j] * cp[j] / dt
                    after[j] = heat[j] * t[j] + made[j]
                # conductance between neighbours: two half cells and the join between them
                for j in range(1, n):
                    g[j] = area[j] / (half[j - 1] + join[j] + half[j])
                h_top, h_bottom = h_face_w_m2k(s_top, above), h_face_w_m2k(s_bottom, below)
                # a surface, from what comes to it from within and from without
                share_top, share_bottom = 1.0 / (1.0 + half[0] * h_top), 1.0 / (1.0 + half[n - 1] * h_bottom)
                from_top = h_top * above[0] + above[7]
                from_bottom = h_bottom * below[0] + below[7]
                g[0], g[n] = h_top * share_top, area[n] * h_bottom * share_bottom
                after[0] += share_top * from_top
                after[n - 1] += area[n] * share_bottom * from_bottom
                _solve(g, heat, after, inverse)
                s_top = share_top * (after[0] + half[0] * from_top)
                s_bottom = share_bottom * (after[n - 1] + half[n - 1] * from_bottom)
                for j in range(n):
                    if sets[j]:
                        kin = (row[j, 9], row[j, 10], row[j, 11], row[j, 12], row[j, 13], row[j, 14])
                        x[j], t[j] = set_in_own_heat(x[j], after[j], dt, row[j, 6] / cp[j], kin)
                    elif turns[j]:
                        t[j] = after_heat_degc(t[j], cp[j] * (after[j] - t[j]), row[j, 3], row[j, 4], row[j, 5])
                    else:
                        t[j] = after[j]
            total, whole = 0.0, 0.0
            # the hottest and coldest places are at faces, not in the middle of cells
            over, under = s_top, s_bottom
            if i == 0:
                over, under = t[first], t[last - 1]
            else:
                if first > 0:
                    over = t[first] + (t[first - 1] - t[first]) * g[first] / area[first] * half[first]
                if last < n:
                    under = t[last - 1] + (t[last] - t[last - 1]) * g[last] / area[last] * half[last - 1]
            most_hot, most_cold, least, most = max(over, under), min(over, under), x[first], x[first]
            for j in range(first, last):
                total += volume[j] * t[j]
                whole += volume[j]
                most_hot, most_cold = max(most_hot, t[j]), min(most_cold, t[j])
                least, most = min(least, x[j]), max(most, x[j])
            seen[0, case, i], seen[1, case, i], seen[2, case, i] = total / whole, most_hot, most_cold
            seen[3, case, i], seen[4, case, i] = least, most
            seen[5, case, i], seen[6, case, i] = over, x[first]
            if case < kept:
                fields[case, i], shares[case, i] = t, x
            if abs(t[0] - above[0]) <= REST_K and at_rest(t, x, row, above, below):
                # nothing happens any more
                for q in range(7):
                    seen[q, case, i + 1 :] = seen[q, case, i]
                if case < kept:
                    fields[case, i + 1 :], shares[case, i + 1 :] = t, x
                break
    return seen, fields, shares, end, end_set


def _cells(dx: Array, shape: str, inner_m: float) -> tuple[Array, Array]:
    """Faces and volumes of cells of these thicknesses [case, node], for each square metre of the outer face [1, m]."""
    power = SHAPES[shape]
    if power == 0:
        return np.ones((dx.shape[0], dx.shape[1] + 1)), dx
    inward = np.cumsum(dx, axis=1)
    outer = inner_m + inward[:, -1:]
    radius = np.concatenate((outer, outer - inward), axis=1)
    radius[:, -1] = inner_m
    grown = radius ** (power + 1)
    return (radius / outer) ** power, (grown[:, :-1] - grown[:, 1:]) / ((power + 1) * outer**power)


@dataclass(frozen=True)
class Prepared:
    """Cases ready to be marched: the row of every node of each [case, node, column], both faces [case, column], the layer of each
    node; which layer is watched, which is the mould's wall and which the place under it, and how many nodes move along with it."""

    rows: Array
    tops: Array
    bottoms: Array
    nodes: NDArray[np.int64]
    shape: str
    inner_m: float
    watch: int
    wall: int
    place: int | None
    moved: int


def prepare(stacks: Sequence[Stack], watch: int, copies: int = 1) -> Prepared:
    """Stacks of the same nodes as rows that may be varied.

    Args:
        stacks: the cases, of one shape
        watch: index of the layer to watch
        copies: of each stack
    Source: patankar-1980, chapter 4
    """
    first = stacks[0]
    counts = [layer.nodes for layer in first.layers]
    of_layers = np.array([[layer.row() for layer in s.layers] for s in stacks])
    rows = np.repeat(np.repeat(of_layers, copies, axis=0), counts, axis=1)
    inside = np.ones(sum(counts), dtype=bool)
    inside[np.cumsum([0, *counts[:-1]])] = False
    rows[:, inside, JOIN] = 0.0
    tops, bottoms = (
        np.repeat(np.array([face.row() for face in faces]), copies, axis=0)
        for faces in ([s.top for s in stacks], [s.bottom for s in stacks])
    )
    names = [layer.name for layer in first.layers]
    place = names.index("place") if "place" in names else None
    moved = sum(layer.nodes for layer in first.layers if layer.name != "place")
    nodes = np.repeat(np.arange(len(counts)), counts)
    wall = names.index("wall") if "wall" in names else -1
    return Prepared(rows, tops, bottoms, nodes, first.shape, first.inner_m, watch, wall, place, moved)


def march(
    ready: Prepared, times_s: Array, carried: tuple[Array, Array] | None = None, kept: int = 0
) -> tuple[Watched, list[History], Array, Array]:
    """What one layer does in each prepared case; the whole field of the first few; how each ends.

    Backward Euler in time, cell-centred volumes in space; surface coefficients and properties from the
    step before, and setting after conduction in each step, so the error is first order in the step. The heat
    that crosses the faces is what the cells gain, to rounding.
    Args:
        ready: the cases
        times_s: rising, from the start [s]
        carried: temperatures [degC] and shares set [frac] [case, node] of the first nodes, to go on from
        kept: of how many of the first the whole field is given
    Source: patankar-1980, chapter 4
    """
    rows = ready.rows
    dx, start, start_set = (np.ascontiguousarray(rows[:, :, column]) for column in (WIDTH, START, START_SET))
    if carried is not None:
        start[:, : carried[0].shape[1]], start_set[:, : carried[1].shape[1]] = carried
    area, volume = _cells(dx, ready.shape, ready.inner_m)
    at = np.flatnonzero(ready.nodes == ready.watch)
    seen, fields, shares, end, end_set = _march(
        start,
        start_set,
        times_s,
        _Nodes(dx, area, volume, rows, ready.tops, ready.bottoms),
        int(at[0]),
        int(at[-1]) + 1,
        kept,
    )
    kept_fields = [History(times_s, f, x, ready.nodes) for f, x in zip(fields, shares, strict=True)]
    return Watched(*seen), kept_fields, end, end_set


def conduct_all(
    stacks: Sequence[Stack], watch: int, times_s: Array, carried: tuple[Array, Array] | None = None, kept: int = 0
) -> tuple[Watched, list[History], Array, Array]:
    """Many stacks of the same nodes at once: what one layer does in each [degC, frac]; the whole of the first few; how each ends.

    Args:
        stacks, watch: as in prepare
        times_s, carried, kept: as in march
    Source: patankar-1980, chapter 4
    """
    return march(prepare(stacks, watch), times_s, carried, kept)


def conduct(
    layers: Sequence[Layer], top: Face, bottom: Face, times_s: Array, shape: str = "plate", inner_m: float = 0.0
) -> History:
    """Temperatures and shares set through one stack of layers over time [degC, frac].

    Args:
        layers: top to bottom, or from the outside of a rod or ball inwards
        top, bottom: surroundings of the two faces
        times_s: rising, from the start [s]
        shape, inner_m: plate, rod or ball, and the radius its layers end at [m]
    Raises: OutOfRange: a thickness outside its limits.
    Source: patankar-1980, chapter 4
    """
    return conduct_all([Stack(tuple(layers), top, bottom, shape, inner_m)], 0, times_s, kept=1)[1][0]
