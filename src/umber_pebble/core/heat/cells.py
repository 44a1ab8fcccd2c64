"""The grid of a cast and its mould's wall as a body of revolution: what its cells hold, how they are joined, what lies open."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray

from umber_pebble.core.heat.body import Revolved
from umber_pebble.core.heat.conduction import Array

ACROSS, DOWN, IN_WALL = 8, 8, 2
COLUMNS = ACROSS + IN_WALL
SAMPLES = 6
"""Points along each side of a cell at which it is asked what it is made of."""
EDGE_SHARE = 0.5
"""How much narrower the outermost cell is than the innermost."""
TOP, RING, SIDE, UNDER = range(4)
KINDS = 4
LEAST_SHARE = 0.02
"""A cell that holds a smaller share than this is left to its neighbours."""
NEAR_M = 1e-7
Ints = NDArray[np.int64]


@dataclass(frozen=True, eq=False)
class Open:
    """Parts of a surface: the cell each belongs to, its kind (TOP, RING, SIDE, UNDER), area [m2], half way to it from the middle
    of its cell [m], height over what the mould stands on [m]."""

    cell: Ints
    kind: Ints
    area_m2: Array
    half_m: Array
    above_m: Array


@dataclass(frozen=True, eq=False)
class Cells:
    """Rows from the top down, columns from the axis out, numbered row by row: volume of cast and wall in each [m3]; heights of the
    rows' middles [m]; the join of each to its neighbour outwards and below: open area [m2], ways through cast and wall on the near
    and on the far side [m]; what lies open; area of each column [m2]."""

    rows: int
    cast_m3: Array
    wall_m3: Array
    middle_m: Array
    joins: Array
    open: Open
    column_m2: Array

    @property
    def made(self) -> NDArray[np.bool_]:
        """Which cells hold anything."""
        return np.asarray(self.cast_m3 + self.wall_m3 > 0)

    @property
    def lowest(self) -> Ints:
        """The last row of each column that holds anything."""
        made = self.made.reshape(self.rows, COLUMNS)
        return np.asarray(self.rows - 1 - made[::-1].argmax(axis=0))


def _lines(end: float, count: int) -> Array:
    """Lines from 0 to end, closer together at the end [m]."""
    widths = np.linspace(1.0, EDGE_SHARE, count)
    return np.asarray(np.concatenate(([0.0], np.cumsum(widths))) * end / widths.sum())


def _both_ends(end: float, count: int) -> Array:
    half = _lines(end / 2, count // 2)
    return np.concatenate((end / 2 - half[::-1], end / 2 + half[1:]))


@lru_cache(maxsize=256)
def cells_of(body: Revolved, wall_m: float) -> Cells:
    """The grid of a cast and its wall.

    Args:
        body: the cast
        wall_m: thickness of the wall [m]
    Source: patankar-1980, chapter 4
    """
    inner, whole = body.section(), body.with_wall(wall_m)
    for section in (inner, whole):
        shapely.prepare(section)
    walls = np.arange(1, IN_WALL + 1) * wall_m / IN_WALL
    r = np.concatenate((_lines(body.radius_m, ACROSS), body.radius_m + walls))
    z = np.concatenate((body.depth_m - _both_ends(body.depth_m, DOWN), -walls))
    dr, dz = np.diff(r), -np.diff(z)
    rows = dz.size
    steps = (np.arange(SAMPLES) + 0.5) / SAMPLES
    # where each cell is asked what it is made of [row, column, down, across]
    rs, zs = r[:-1, None] + dr[:, None] * steps, z[:-1, None] - dz[:, None] * steps
    at_r, at_z = np.broadcast_arrays(rs[None, :, None, :], zs[:, None, :, None])
    rings = 2 * math.pi * at_r * dr[None, :, None, None] * dz[:, None, None, None] / SAMPLES**2
    full, held, cast = (
        (rings * within).sum(axis=(2, 3))
        for within in (True, shapely.contains_xy(whole, at_r, at_z), shapely.contains_xy(inner, at_r, at_z))
    )
    made = held > LEAST_SHARE * full
    cast = np.where(made & (cast > LEAST_SHARE * full), cast, 0.0)
    wall = np.where(made, held - cast, 0.0)
    cast *= _turned_m3(inner) / cast.sum()
    wall *= (_turned_m3(whole) - _turned_m3(inner)) / wall.sum()
    share = np.divide(cast, cast + wall, out=np.zeros_like(cast), where=made)
    column = math.pi * np.diff(r**2)
    upright = shapely.contains_xy(whole, *np.broadcast_arrays(r[None, 1:-1, None], zs[:, None, :])).mean(axis=2)
    level = (
        shapely.contains_xy(whole, *np.broadcast_arrays(rs[None], z[1:-1, None, None]))
        * rs
        / rs.sum(axis=1, keepdims=True)
    )
    joins = np.zeros((2, rows, COLUMNS, 5))
    joins[0, :, :-1] = _join(
        2 * math.pi * r[1:-1] * dz[:, None] * upright * (made[:, :-1] & made[:, 1:]),
        dr[:-1] / 2,
        dr[1:] / 2,
        share[:, :-1],
        share[:, 1:],
    )
    joins[1, :-1] = _join(
        column * level.sum(axis=2) * (made[:-1] & made[1:]),
        dz[:-1, None] / 2,
        dz[1:, None] / 2,
        share[:-1],
        share[1:],
    )
    shown = _open(
        body, shapely.get_coordinates(shapely.orient_polygons(whole).exterior), r, z, cast + wall, wall_m
    )
    middle = (z[:-1] + z[1:]) / 2
    return Cells(rows, cast.ravel(), wall.ravel(), middle, joins.reshape(2, rows * COLUMNS, 5), shown, column)


def _join(area: Array, near: Array, far: Array, near_share: Array, far_share: Array) -> Array:
    """Area of faces and the ways through cast and wall on either side [m2, m]; shares are those of the cast [frac]."""
    ways = (near * near_share, near * (1 - near_share), far * far_share, far * (1 - far_share))
    return np.stack(np.broadcast_arrays(area, *ways), axis=-1)


def _turned_m3(half: shapely.Geometry) -> float:
    """Volume of a half section turned round the axis, by Pappus' rule [m3]."""
    return float(2 * math.pi * half.centroid.x * half.area)


def _open(body: Revolved, ring: Array, r: Array, z: Array, held: Array, wall_m: float) -> Open:
    """What of the surface lies in which cell; the ring of the section runs anticlockwise."""
    made = held > 0
    rows_made, columns_made = np.nonzero(made)
    along = np.diff(ring, axis=0)
    length = np.hypot(*along.T)
    # neither the open surface nor the axis
    keep = (
        (length > 0)
        & (np.minimum(ring[:-1, 1], ring[1:, 1]) <= body.depth_m - NEAR_M)
        & (np.maximum(ring[:-1, 0], ring[1:, 0]) >= NEAR_M)
    )
    start, along, length = ring[:-1][keep], along[keep], length[keep]
    finest = min(float(np.diff(r).min()), float(-np.diff(z).max())) / 3
    counts = np.maximum((length / finest).astype(np.int64), 1)
    of = np.repeat(np.arange(length.size), counts)
    first = np.repeat(np.cumsum(counts) - counts, counts)
    t = (np.arange(of.size) - first + 0.5) / counts[of]
    at = start[of] + t[:, None] * along[of]
    out = np.stack((along[:, 1], -along[:, 0]), axis=1)[of] / length[of, None]
    within = at - NEAR_M * out
    c = np.clip(np.searchsorted(r, within[:, 0]) - 1, 0, COLUMNS - 1)
    row = np.clip(np.searchsorted(-z, -within[:, 1]) - 1, 0, made.shape[0] - 1)
    for i in np.flatnonzero(~made[row, c]):
        nearest = int(np.argmin((rows_made - row[i]) ** 2 + (columns_made - c[i]) ** 2))
        row[i], c[i] = rows_made[nearest], columns_made[nearest]
    area = 2 * math.pi * at[:, 0] * (length / counts)[of]
    half = np.abs(out[:, 0]) * np.diff(r)[c] / 2 - np.abs(out[:, 1]) * np.diff(z)[row] / 2
    kind = np.where(out[:, 1] < -math.sqrt(0.5), UNDER, SIDE)
    # the open surface: cast, and the wall's ring round it
    level = np.arange(COLUMNS)
    top = math.pi * np.diff(r**2)
    keys = np.concatenate(
        (level * KINDS + np.where(r[1:] <= body.radius_m + NEAR_M, TOP, RING), (row * COLUMNS + c) * KINDS + kind)
    )
    area = np.concatenate((top, area))
    half = np.concatenate((np.full(COLUMNS, (z[0] - z[1]) / 2), half)) * area
    above = np.concatenate((np.full(COLUMNS, body.depth_m + wall_m), np.maximum(at[:, 1] + wall_m, 0.0))) * area
    found, where = np.unique(keys, return_inverse=True)
    area, half, above = (np.bincount(where, weights) for weights in (area, half, above))
    cell, kinds = (np.asarray(of, dtype=np.int64) for of in (found // KINDS, found % KINDS))
    # a cell that is cut is not as deep as a whole one
    return Open(
        cell,
        kinds,
        np.asarray(area, dtype=np.float64),
        np.minimum(half, held.ravel()[cell] / 2) / area,
        above / area,
    )
