"""Implicit finite volumes through a body of revolution on its place: one case, marched in time."""

from typing import Any, NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.fat.crystallise import set_in_own_heat
from umber_pebble.core.heat.cells import COLUMNS, TOP
from umber_pebble.core.heat.steps import after_heat_degc, at_rest, cp_j_kgk, h_face_w_m2k

Array = NDArray[Any]


@njit(cache=True, fastmath=True)
def _solve(band, rhs, n):  # type: ignore[no-untyped-def]
    """Solves a symmetric positive definite band in place: band[j, d] is the entry of row j + d in column j. As many rows as it is wide
    are left empty at the end, so that every step is alike."""
    for j in range(n):
        pivot, known = 1.0 / band[j, 0], rhs[j]
        for d in range(1, COLUMNS + 1):
            f = band[j, d] * pivot
            for e in range(COLUMNS + 1 - d):
                band[j + d, e] -= f * band[j, d + e]
            rhs[j + d] -= f * known
    for j in range(n - 1, -1, -1):
        v = rhs[j]
        for d in range(1, COLUMNS + 1):
            v -= band[j, d] * rhs[j + d]
        rhs[j] = v / band[j, 0]


class Filled(NamedTuple):
    """What is in the cells: cast in each [kg] and heat capacity of all else [J/K]; the cast as a layer's row, conductivity of the wall
    [W/mK]; which cells count as cast, and those of the axis."""

    cast_kg: Array
    other_j_k: Array
    row: Array
    wall_k: float
    watched: Array
    axis: Array


class Bounds(NamedTuple):
    """How heat goes from cell to cell and out: joins to the next cell and to the one below [2, cell, (area, cast, wall, cast, wall,
    resistance)] [m2, m, m2K/W]; what lies open: its cell, which face surrounds it, its size [m2], half way to it [m]; rows of faces,
    the last under the place; its lowest cells, area and half way [m2, m2K/W]."""

    joins: Array
    cell: Array
    kind: Array
    area: Array
    half: Array
    faces: Array
    below: Array


@njit(cache=True, nogil=True)
def march_revolved(t, x, times, filled, bounds):  # type: ignore[no-untyped-def]
    """What the cast does: its series as in Watched [7, time], and down the axis temperatures [degC] and shares set [frac]
    [time, cell].

    Backward Euler in time, cell-centred volumes solved at once; surface coefficients and properties from the step before, setting
    after conduction, as in a stack.
    Args:
        t, x: temperatures [degC] and shares set [frac] of the cells, at the start; left as they are at the end
        times: rising [s]
        filled, bounds: the cells
    Source: patankar-1980, chapter 4; avrami-1939
    """
    cast_kg, other_j_k, row, wall_k, watched, axis = filled
    joins, cell, kind, area, half, faces, below = bounds
    n, steps = t.size, times.size - 1
    seen = np.empty((7, steps + 1))
    temps, shares = np.empty((steps + 1, axis.size)), np.empty((steps + 1, axis.size))
    band, rhs = np.empty((n + COLUMNS, COLUMNS + 1)), np.zeros(n + COLUMNS)
    k, heat = np.empty(n), np.empty(n)
    surface, inside, h = t[cell], np.empty(cell.size), np.empty(cell.size)
    kin = (row[9], row[10], row[11], row[12], row[13], row[14])
    sets = row[6] > 0.0
    whole = cast_kg.sum()
    rows = np.zeros((n, row.size))
    rows[cast_kg > 0.0] = row
    for i in range(steps + 1):
        if i > 0:
            dt = times[i] - times[i - 1]
            band[:], rhs[n:] = 0.0, 0.0
            for j in range(n):
                k[j], cp = row[0], 0.0
                if cast_kg[j] > 0.0:
                    if sets:
                        done = x[j] / row[11]
                        k[j] = row[1] + (row[0] - row[1]) * done
                        cp = row[4] + (row[3] - row[4]) * done
                    else:
                        cp = cp_j_kgk(t[j], row[3], row[4], row[5])
                heat[j] = cast_kg[j] * cp + other_j_k[j]
                band[j, 0] = heat[j] / dt
                rhs[j] = heat[j] / dt * t[j]
            for way in range(2):
                far = 1 if way == 0 else COLUMNS
                for j in range(n - far):
                    if joins[way, j, 0] > 0.0:
                        f = joins[way, j]
                        g = f[0] / (f[1] / k[j] + f[3] / k[j + far] + (f[2] + f[4]) / wall_k + f[5])
                        band[j, 0] += g
                        band[j + far, 0] += g
                        band[j, far] -= g
            for s in range(cell.size):
                j, face = cell[s], faces[kind[s]]
                inside[s], h[s] = (k[j] if kind[s] == TOP else wall_k) / half[s], h_face_w_m2k(surface[s], face)
                u = area[s] * inside[s] * h[s] / (inside[s] + h[s])
                band[j, 0] += u
                rhs[j] += u * face[0]
            for s in range(below.shape[0]):
                j = int(below[s, 0])
                h_below = h_face_w_m2k(t[j], faces[4])
                u = below[s, 1] * h_below / (1.0 + h_below * below[s, 2])
                band[j, 0] += u
                rhs[j] += u * faces[4, 0]
            _solve(band, rhs, n)
            for s in range(cell.size):
                surface[s] = (inside[s] * rhs[cell[s]] + h[s] * faces[kind[s], 0]) / (inside[s] + h[s])
            for j in range(n):
                m = cast_kg[j]
                if m <= 0.0:
                    t[j] = rhs[j]
                elif sets:
                    x[j], t[j] = set_in_own_heat(x[j], rhs[j], dt, row[6] * m / heat[j], kin)
                else:
                    extra = other_j_k[j] / m
                    t[j] = after_heat_degc(
                        t[j], heat[j] / m * (rhs[j] - t[j]), row[3] + extra, row[4] + extra, row[5]
                    )
        total, hot, cold, least, most = 0.0, -1e9, 1e9, 1e9, -1e9
        top, top_set, top_area = 0.0, 0.0, 0.0
        for j in range(n):
            total += cast_kg[j] * t[j]
        for j in watched:
            hot, cold = max(hot, t[j]), min(cold, t[j])
            least, most = min(least, x[j]), max(most, x[j])
        for s in range(cell.size):
            if kind[s] == TOP:
                j = cell[s]
                hot, cold = max(hot, surface[s]), min(cold, surface[s])
                top += area[s] * surface[s]
                top_set += area[s] * x[j]
                top_area += area[s]
        seen[0, i], seen[1, i], seen[2, i] = total / whole, hot, cold
        seen[3, i], seen[4, i] = least, most
        seen[5, i], seen[6, i] = top / top_area, top_set / top_area
        for a in range(axis.size):
            temps[i, a], shares[i, a] = t[axis[a]], x[axis[a]]
        if at_rest(t, x, rows, faces[0], faces[4]):
            for q in range(7):
                seen[q, i + 1 :] = seen[q, i]
            temps[i + 1 :], shares[i + 1 :] = temps[i], shares[i]
            break
    return seen, temps, shares
