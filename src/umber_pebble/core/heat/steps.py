"""What a face and a node do within one step of time, for the compiled loops."""

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from umber_pebble.core.fat.crystallise import rest_share_frac
from umber_pebble.core.heat.convection import (
    STREAM_LENGTH_M,
    h_convection_w_m2k,
    h_radiation_w_m2k,
    h_stream_w_m2k,
)

TURN_HALF_K = 5.0
REST_K, REST_SHARE = 1e-3, 1e-3


@njit(cache=True)
def h_face_w_m2k(surface: float, face: NDArray[np.float64]) -> float:
    """Coefficient of a face: as told, or convection in still or streaming air and radiation [W/m2K].

    Args:
        surface: its temperature [degC]
        face: its row
    Source: mcadams-1954, churchill-chu-1975, pohlhausen-1921
    """
    fixed: float = face[5]
    if fixed >= 0.0:
        return fixed
    natural = h_convection_w_m2k(surface, face[0], face[2], int(face[1]))
    both: float = natural
    if face[6] > 0.0:
        both = np.cbrt(natural**3 + h_stream_w_m2k(surface, face[0], STREAM_LENGTH_M, face[6]) ** 3)
    whole: float = face[4] * both + h_radiation_w_m2k(surface, face[0], face[3])
    return whole


@njit(cache=True)
def cp_j_kgk(t: float, low: float, high: float, turn: float) -> float:
    """Heat capacity at a temperature t [degC], passing from low to high round a turn [J/kgK]. Source: definition"""
    if t >= turn + TURN_HALF_K:
        return high
    if t <= turn - TURN_HALF_K:
        return low
    return low + (high - low) * (t - turn + TURN_HALF_K) / (2.0 * TURN_HALF_K)


@njit(cache=True)
def after_heat_degc(t: float, heat: float, low: float, high: float, turn: float) -> float:
    """Temperature after heat [J/kg] from t [degC], the heat capacity turning on the way: none is lost at the turn [degC].

    Source: definition
    """
    a, width = turn - TURN_HALF_K, 2.0 * TURN_HALF_K
    bend, top = (high - low) / (2.0 * width), 0.5 * (low + high) * width
    x = t - a
    h = low * x if x <= 0.0 else top + high * (x - width) if x >= width else low * x + bend * x * x
    h += heat
    if h <= 0.0:
        return a + h / low
    if h >= top:
        return a + width + (h - top) / high
    if abs(bend) < 1e-9:
        return a + h / low
    return a + (math.sqrt(low * low + 4.0 * bend * h) - low) / (2.0 * bend)


@njit(cache=True)
def at_rest(t, x, row, top, bottom):  # type: ignore[no-untyped-def]
    """Whether all nodes are as warm as what is round them, and have set as far as they do then.

    Args:
        t, x: temperatures [degC] and shares set [frac] of the nodes
        row: of every node
        top, bottom: rows of the two faces
    Source: definition
    """
    if top[0] != bottom[0] or top[7] != 0.0 or bottom[7] != 0.0:
        return False
    for j in range(t.size):
        if abs(t[j] - top[0]) > REST_K or row[j, 7] != 0.0:
            return False
    for j in range(t.size):
        if row[j, 6] > 0.0 and abs(rest_share_frac(t[j], row[j, 9], row[j, 10], row[j, 11]) - x[j]) > REST_SHARE:
            return False
    return True
