"""A cast in its mould as a body of revolution on its places: the likely run in two dimensions."""

from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.cells import COLUMNS, UNDER, Cells, Open, cells_of
from umber_pebble.core.heat.conduction import Array, Face, History, Layer
from umber_pebble.core.heat.convection import air_properties, h_radiation_w_m2k
from umber_pebble.core.heat.piece import FINE, Case, Grid, PieceRun, faces_of, stack_of, stay_times_s
from umber_pebble.core.heat.revolved_march import Bounds, Filled, march_revolved

FIRST_S, GROWTH, IN_PLACE = 0.5, 1.02, 5
TOUCHES_M = 2e-4
"""What of a mould is nearer to its place than this lies on it; elsewhere air and radiation join them."""
MIXED = 0.5
"""A cell of which less is cast counts as wall where the cast's hottest and coldest place are asked for."""
LIGHT = 1e-6
"""Of cells that hold nothing: resistance [m2K/W] and heat capacity [J/K]."""


@dataclass(frozen=True, eq=False)
class Stood:
    """A grid on its place: joins with what goes straight down under each column [2, cell, (area, four ways, resistance)]; what
    loses heat to the air; the last cells of the place, with area and half way [m2, m2K/W]."""

    joins: Array
    open: Open
    below: Array


def _stood(cells: Cells, place: Layer | None, emissivity: float) -> Stood:
    """The grid on its place, to which what hangs over it radiates."""
    count, inside = place.nodes if place else 0, cells.rows * COLUMNS
    joins = np.zeros((2, inside + count * COLUMNS, 6))
    joins[:, :inside, :5] = cells.joins
    if place is None:
        return Stood(joins, cells.open, np.zeros((0, 3)))
    down, half = joins[1], place.thickness_m / count / 2 / place.conductivity_w_mk
    under, shown = _of(cells.open, cells.open.kind == UNDER), _of(cells.open, cells.open.kind != UNDER)
    _, air_w_mk, _ = air_properties(place.start_degc)
    radiation = h_radiation_w_m2k(place.start_degc, place.start_degc, emissivity)
    gap = air_w_mk / np.maximum(under.above_m, TOUCHES_M) + radiation
    u = np.where(under.above_m < TOUCHES_M, place.contact_w_m2k, gap)
    area, through, way = (
        np.bincount(under.cell % COLUMNS, under.area_m2 * of, COLUMNS) for of in (1.0, u, under.half_m)
    )
    lowest = cells.lowest
    for c in np.flatnonzero(area > 0):
        for row in range(lowest[c], cells.rows):
            resistance = area[c] / through[c] if row == lowest[c] else LIGHT
            into = half if row == cells.rows - 1 else 0.0
            wall = way[c] / area[c] if row == lowest[c] else 0.0
            down[row * COLUMNS + c] = area[c], 0.0, wall, 0.0, 0.0, resistance + into
    down[inside:-COLUMNS, 0], down[inside:-COLUMNS, 5] = np.tile(cells.column_m2, count - 1), 2 * half
    last = inside + (count - 1) * COLUMNS + np.arange(COLUMNS)
    return Stood(joins, shown, np.stack((last, cells.column_m2, np.full(COLUMNS, half)), axis=1))


def _of(shown: Open, at: Array) -> Open:
    return Open(shown.cell[at], shown.kind[at], shown.area_m2[at], shown.half_m[at], shown.above_m[at])


def _faces(top: Face, under: Face, height_m: float, beside: int) -> Array:
    """Rows of what surrounds TOP, RING, SIDE and UNDER, and the place's own underside. Of casts beside each other only those at the
    mould's edge show their sides."""
    side = replace(under, facing=0, length_m=height_m, factor=under.factor / beside**0.5)
    faces: tuple[Face, ...] = (top, replace(top, emissivity=under.emissivity), side, under, under)
    return np.array([face.row() for face in faces])


def run_revolved(case: Case) -> PieceRun:
    """A casting poured into a bare cavity, in two dimensions; its fields are those of its axis.

    Args:
        case: of a casting that has a body and nothing under it
    Raises: OutOfRange: a size the model does not hold for.
    Source: patankar-1980, chapter 4
    """
    casting, body = case.casting, case.casting.body
    assert body is not None
    cells, grid = cells_of(body, casting.wall_m), FINE[casting.kind]
    inside = cells.rows * COLUMNS
    share = np.divide(cells.cast_m3, cells.cast_m3 + cells.wall_m3, out=np.zeros(inside), where=cells.made)
    times, seen, fields = list[Array](), list[Array](), list[History]()
    t = x = np.empty(0)
    for i, stay in enumerate(casting.path):
        layers = {layer.name: layer for layer in stack_of(case, stay.place, grid).layers}
        piece, wall = layers["piece"], layers["wall"]
        place = replace(layers["place"], nodes=IN_PLACE) if "place" in layers else None
        top, under = faces_of(case, stay.place)
        stood = _stood(cells, place, under.emissivity)
        cast, other = _heats(cells, piece, wall, place)
        if not times:
            warm = cast[:inside] * piece.cp_high_j_kgk
            t = (warm * piece.start_degc + other[:inside] * wall.start_degc) / (warm + other[:inside])
            x = np.where(warm > 0, piece.starts_set_frac, 0.0)
        extra = cast.size - inside
        temps, shares = (
            np.concatenate((of[:inside], np.full(extra, at)))
            for of, at in ((t, place.start_degc if place else 0.0), (x, 0.0))
        )
        steps = stay_times_s(casting, i, FIRST_S, GROWTH)
        axis = np.arange(0, cast.size, COLUMNS)
        out, warmth, sets = march_revolved(
            temps,
            shares,
            steps,
            Filled(
                cast, other, np.array(piece.row()), wall.conductivity_w_mk, np.flatnonzero(share > MIXED), axis
            ),
            Bounds(
                stood.joins,
                stood.open.cell,
                stood.open.kind,
                stood.open.area_m2,
                stood.open.half_m,
                _faces(top, under, body.depth_m + casting.wall_m, casting.beside),
                stood.below,
            ),
        )
        t, x = temps, shares
        skip = 1 if times else 0
        times.append(steps[skip:] + stay.from_s)
        seen.append(out[:, skip:])
        fields.append(_on_axis(casting, grid, cells, share, steps, warmth, sets))
    runs = PieceRun(np.concatenate(times), *np.concatenate(seen, axis=1)[:, None, :])
    return replace(runs, fields=tuple(fields))


def _heats(cells: Cells, piece: Layer, wall: Layer, place: Layer | None) -> tuple[Array, Array]:
    """Cast in each cell [kg], and heat capacity of all else [J/K]."""
    cast, other = (
        cells.cast_m3 * piece.density_kg_m3,
        cells.wall_m3 * wall.density_kg_m3 * wall.cp_low_j_kgk + LIGHT,
    )
    if place is None:
        return cast, other
    deep = place.thickness_m / place.nodes * place.density_kg_m3 * place.cp_low_j_kgk
    below = np.tile(cells.column_m2, place.nodes) * deep
    return np.concatenate((cast, np.zeros(below.size))), np.concatenate((other, below))


def _on_axis(
    casting: Casting, grid: Grid, cells: Cells, share: Array, times: Array, warmth: Array, sets: Array
) -> History:
    """Temperatures and shares set down the axis, at places evenly apart in cast, wall and place, as a stack has them."""
    body, wall_m = casting.body, casting.wall_m
    assert body is not None
    down = body.depth_m - cells.middle_m
    cast = share[::COLUMNS] > MIXED
    parts = [
        (grid.piece, 0.0, body.depth_m, np.flatnonzero(cast)),
        (grid.wall, body.depth_m, body.depth_m + wall_m, np.flatnonzero(~cast)),
    ]
    if warmth.shape[1] > cells.rows:
        down = np.concatenate((down, (np.arange(IN_PLACE) + 0.5) / IN_PLACE + 1.0))
        parts.append((grid.place, 1.0, 2.0, np.arange(cells.rows, cells.rows + IN_PLACE)))
    history, layer = [list[Array](), list[Array]()], list[int]()
    for index, (count, start, end, at) in enumerate(parts):
        wanted = start + (end - start) * (np.arange(count) + 0.5) / count
        i = np.clip(np.searchsorted(down[at], wanted) - 1, 0, max(at.size - 2, 0))
        a, b = at[i], at[np.minimum(i + 1, at.size - 1)]
        part = np.clip((wanted - down[a]) / np.where(a == b, 1.0, down[b] - down[a]), 0.0, 1.0)
        for rows, of in zip(history, (warmth, sets), strict=True):
            rows.append(of[:, a] * (1 - part) + of[:, b] * part)
        layer += [index] * count
    temps, shares = (np.concatenate(rows, axis=1) for rows in history)
    return History(times, temps, shares, np.array(layer))
