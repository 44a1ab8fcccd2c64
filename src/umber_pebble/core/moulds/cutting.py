"""A cutting plan: outlines nested on a sheet, with webs between them, as many as one finds room for."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.ndimage import binary_dilation
from scipy.signal import fftconvolve
from shapely.affinity import rotate, translate

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.moulds.outline import Points

Cells = NDArray[np.bool_]

FINEST_M, PARTS, MOST_CELLS = 1.5e-4, 10, 1000
"""So fine is a sheet looked at: [m], a share of the web [1 / PARTS], and of its longer side [1 / MOST_CELLS]; so much coarser for each
kind of outline more [frac]."""
COARSER = 0.15
MOST_CUT = 500
"""So many pieces of one kind are cut out of a sheet at most [count]."""
EDGE = 1
"""So many cells beyond those that two share may still be nearer than the web [count]."""
ALIKE = 0.01
"""Turned, an outline is the same where it differs by so little of its area [frac]."""
QUARTER = math.pi / 2


@dataclass(frozen=True, slots=True)
class CutSheet:
    """A sheet that is cut: how long and wide, the web that stays between two pieces, the margin at its edge [m], and whether pieces may
    be turned by a quarter, or only upside down since its stripes run along it."""

    length_m: float
    width_m: float
    web_m: float
    margin_m: float
    turned: bool = True

    def __post_init__(self) -> None:
        require_range("sheet.length_m", self.length_m, 0.03, 1.2)
        require_range("sheet.width_m", self.width_m, 0.03, 1.2)
        require_range("sheet.web_m", self.web_m, 0.0005, 0.05)
        require_range("sheet.margin_m", self.margin_m, 0.0, 0.1)

    @property
    def area_m2(self) -> float:
        return self.length_m * self.width_m


@dataclass(frozen=True, slots=True)
class Cut:
    """One piece on a sheet: which of its outlines, where its middle is from the corner [m], by how much it is turned [rad], and how
    far along the sheet it reaches [m]."""

    kind: int
    x_m: float
    y_m: float
    turn_rad: float
    end_m: float


@dataclass(frozen=True, slots=True)
class CuttingPlan:
    """What is cut out of a sheet, which share of it all of each outline is [frac], and the outlines, about their middle [m]."""

    sheet: CutSheet
    cuts: tuple[Cut, ...]
    kinds_frac: tuple[float, ...]
    rims: tuple[Points, ...]

    @property
    def used_frac(self) -> float:
        """Which share of the sheet is in pieces."""
        return sum(self.kinds_frac)

    def count(self, kind: int) -> int:
        """How many of one of its outlines."""
        return sum(cut.kind == kind for cut in self.cuts)

    def first_cuts(self, counts: Mapping[int, int]) -> list[Cut]:
        """So many of its outlines, those that lie first along the sheet."""
        by_end = sorted(self.cuts, key=lambda cut: cut.end_m)
        return [cut for kind, count in counts.items() for cut in [of for of in by_end if of.kind == kind][:count]]

    def length_for_m(self, counts: Mapping[int, int]) -> float:
        """How long a piece of the sheet so many of its outlines take, with its margin [m]: the rest need not be poured."""
        ends = max((cut.end_m for cut in self.first_cuts(counts)), default=0.0)
        return min(ends + self.sheet.margin_m, self.sheet.length_m)


def cut_out(rim: Points, cut: Cut) -> shapely.Polygon:
    """A piece where it lies on its sheet [m]. Source: geometry"""
    return translate(_turned(shapely.Polygon(rim), cut.turn_rad), cut.x_m, cut.y_m)


@lru_cache(maxsize=64)
def cutting_plan(sheet: CutSheet, rims: tuple[Points, ...], most: tuple[int, ...]) -> CuttingPlan:
    """The fullest of all plans that are looked at.

    Args:
        sheet: what is cut
        rims: the outlines, about their middle [m]; what lies first takes its room first, what comes after it what is left
        most: of each outline [count]
    Raises: OutOfRange: an outline that is larger than its sheet.
    Source: geometry
    """
    *_, best = cutting_plans(sheet, rims, most)
    return best


@lru_cache(maxsize=512)
def shortest_plan(whole: CuttingPlan, counts: tuple[int, ...]) -> CuttingPlan:
    """So many of each outline on as short a piece of a sheet as any plan that is looked at; where none has room for all, as the sheet is cut
    whole.

    Args:
        whole: of the whole sheet
        counts: of each of its outlines, none more than it gives
    Source: geometry
    """
    wanted = dict(enumerate(counts))
    nest, best = _nest(whole.sheet, whole.rims), whole
    for way in nest.ways():
        # what is laid along the sheet, row after row, is long at once
        if way.along:
            continue
        plan = nest.plan(way, counts)
        if all(plan.count(kind) == n for kind, n in wanted.items()):
            best = min(best, plan, key=lambda of: of.length_for_m(wanted))
    return best


def cutting_plans(
    sheet: CutSheet, rims: Sequence[Points], most: Sequence[int], goes_on: Callable[[], bool] = lambda: True
) -> Iterator[CuttingPlan]:
    """Plans, each fuller than the one before: every piece in the first place where it fits, row after row or column after column, as it
    lies, or turned in some of the ways in which it may be.

    Args:
        sheet, rims, most: as for one
        goes_on: asked before each plan; false stops
    Raises: OutOfRange: an outline that is larger than its sheet.
    Source: geometry
    """
    nest, best = _Nest(sheet, tuple(rims)), 0.0
    for way in nest.ways():
        if best and not goes_on():
            return
        plan = nest.plan(way, most)
        if plan.used_frac > best:
            best = plan.used_frac
            yield plan
        if all(plan.count(kind) == n for kind, n in enumerate(most)):
            return


@dataclass(frozen=True, slots=True)
class _Way:
    """Which turns are tried, and whether rows go along the sheet."""

    turns: tuple[float, ...]
    along: bool


@dataclass(frozen=True, slots=True)
class _Lain:
    """An outline in one of its turns: how far it reaches, and which cells it covers, with half of the web round it, from its lowest."""

    turn_rad: float
    shape: shapely.Polygon
    cells: Cells
    low: tuple[int, int]


@lru_cache(maxsize=8)
def _nest(sheet: CutSheet, rims: tuple[Points, ...]) -> "_Nest":
    return _Nest(sheet, rims)


class _Nest:
    def __init__(self, sheet: CutSheet, rims: tuple[Points, ...]) -> None:
        self.sheet, self.rims = sheet, rims
        finest = max(FINEST_M, sheet.web_m / PARTS, max(sheet.length_m, sheet.width_m) / MOST_CELLS)
        self.cell = finest * (1 + COARSER * (len(rims) - 1))
        self.areas = [shapely.Polygon(rim).area for rim in rims]
        turns = (0.0, 2 * QUARTER, QUARTER, 3 * QUARTER) if sheet.turned else (0.0, 2 * QUARTER)
        self.lain = [self._turns(shapely.Polygon(rim), turns) for rim in rims]
        self.apart: dict[tuple[int, float, int, float], tuple[Cells, tuple[int, int]]] = {}
        for kind, lain in enumerate(self.lain):
            if not any(self._room(of) for of in lain):
                raise OutOfRange(
                    "a cutter is larger than the sheet inside its margin: take a larger sheet, or a smaller cutter",
                    path=f"cavities.{kind}",
                )

    def _turns(self, shape: shapely.Polygon, turns: Sequence[float]) -> list[_Lain]:
        out: list[_Lain] = []
        for turn in turns:
            turned = _turned(shape, turn)
            if any(of.shape.symmetric_difference(turned).area < ALIKE * shape.area for of in out):
                continue
            out.append(_Lain(turn, turned, *self._covered(turned)))
        return out

    def _covered(self, shape: shapely.Polygon) -> tuple[Cells, tuple[int, int]]:
        """Any two that share a cell are nearer than the web."""
        wide = shape.buffer(self.sheet.web_m / 2)
        x0, y0, x1, y1 = (math.floor(v / self.cell) for v in wide.bounds)
        xs, ys = np.arange(x0, x1 + 1) * self.cell, np.arange(y0, y1 + 1) * self.cell
        return shapely.contains_xy(wide, *np.meshgrid(xs, ys, indexing="ij")), (x0, y0)

    def _room(self, of: _Lain) -> tuple[int, int, int, int] | None:
        """Between which cells its middle may lie."""
        x0, y0, x1, y1 = of.shape.bounds
        m = self.sheet.margin_m
        low = math.ceil((m - x0) / self.cell - 1e-9), math.ceil((m - y0) / self.cell - 1e-9)
        high = (
            math.floor((self.sheet.length_m - m - x1) / self.cell + 1e-9),
            math.floor((self.sheet.width_m - m - y1) / self.cell + 1e-9),
        )
        return None if high[0] < low[0] or high[1] < low[1] else (*low, *high)

    def _apart(self, kind: int, one: _Lain, other_kind: int, other: _Lain) -> tuple[Cells, tuple[int, int]]:
        """Where the middle of one may not lie, seen from the middle of the other that lies there."""
        key, mirrored = (
            (kind, one.turn_rad, other_kind, other.turn_rad),
            (other_kind, other.turn_rad, kind, one.turn_rad),
        )
        if key not in self.apart and mirrored in self.apart:
            meet, low = self.apart[mirrored]
            self.apart[key] = meet[::-1, ::-1], (-low[0] - meet.shape[0] + 1, -low[1] - meet.shape[1] + 1)
        if key not in self.apart:
            meet = fftconvolve(other.cells.astype(np.float32), one.cells[::-1, ::-1].astype(np.float32)) > 0.5
            x, y = (b - a - n + 1 for a, b, n in zip(one.low, other.low, one.cells.shape, strict=True))
            self.apart[key] = self._exactly(one, other, np.pad(meet, EDGE), (x - EDGE, y - EDGE))
        return self.apart[key]

    def _exactly(
        self, one: _Lain, other: _Lain, meet: Cells, low: tuple[int, int]
    ) -> tuple[Cells, tuple[int, int]]:
        """With what the cells leave open: at the edge of where two meet, by how far they are from each other."""
        edge = np.argwhere(binary_dilation(meet, iterations=EDGE, structure=np.ones((3, 3))) & ~meet)
        moved = translated(one.shape, np.asarray((edge + low) * self.cell, dtype=np.float64))
        near = shapely.distance(moved, other.shape) < self.sheet.web_m * (1 - 1e-9)
        meet[tuple(edge[near].T)] = True
        return meet, low

    def ways(self) -> Iterator[_Way]:
        """Ways of filling a sheet."""
        every = tuple(of.turn_rad for of in max(self.lain, key=len))
        some = dict.fromkeys([every, every[:2], every[2:], *((turn,) for turn in every)])
        for turns in filter(None, some):
            yield from (_Way(turns, along) for along in (True, False))

    def plan(self, way: _Way, most: Sequence[int]) -> CuttingPlan:
        cuts, lying = list[Cut](), list[tuple[int, _Lain, int, int]]()
        for kind, lain in enumerate(self.lain):
            tried = [of for of in lain if of.turn_rad in way.turns] or lain[:1]
            free = {of.turn_rad: _Free(room, way.along) for of in tried if (room := self._room(of))}
            tried = [of for of in tried if of.turn_rad in free]
            for other_kind, other, x, y in lying:
                for of in tried:
                    free[of.turn_rad].take(*self._apart(kind, of, other_kind, other), x, y)
            for _ in range(min(most[kind], MOST_CUT)):
                found = [(at, of) for of in tried if (at := free[of.turn_rad].first()) is not None]
                if not found:
                    break
                (x, y), put = min(found, key=lambda row: self._reaches(row[1], row[0], way.along))
                lying.append((kind, put, x, y))
                at_m = x * self.cell
                cuts.append(Cut(kind, at_m, y * self.cell, put.turn_rad, at_m + put.shape.bounds[2]))
                for of in tried:
                    free[of.turn_rad].take(*self._apart(kind, of, kind, put), x, y)
        shares = [sum(cut.kind == kind for cut in cuts) * area for kind, area in enumerate(self.areas)]
        return CuttingPlan(
            self.sheet, tuple(cuts), tuple(share / self.sheet.area_m2 for share in shares), self.rims
        )

    def _reaches(self, of: _Lain, at: tuple[int, int], along: bool) -> tuple[float, float]:
        """How far a piece reaches there: what takes least of the sheet comes first."""
        _, _, x1, y1 = of.shape.bounds
        ends = at[0] * self.cell + x1, at[1] * self.cell + y1
        return (ends[1], ends[0]) if along else ends


class _Free:
    """Where the middle of a piece may lie, row after row."""

    def __init__(self, room: tuple[int, int, int, int], along: bool) -> None:
        x0, y0, x1, y1 = room
        self.x0, self.y0, self.along = x0, y0, along
        wide, high = x1 - x0 + 1, y1 - y0 + 1
        self.cells = np.ones((high, wide) if along else (wide, high), dtype=bool)
        self.from_cell = 0

    def first(self) -> tuple[int, int] | None:
        left = self.cells.reshape(-1)[self.from_cell :]
        at = int(left.argmax()) if left.size else 0
        if not left.size or not left[at]:
            self.from_cell = self.cells.size
            return None
        self.from_cell += at
        row, column = divmod(self.from_cell, self.cells.shape[1])
        return (self.x0 + column, self.y0 + row) if self.along else (self.x0 + row, self.y0 + column)

    def take(self, meet: Cells, low: tuple[int, int], x: int, y: int) -> None:
        """Nothing lies any more where it would meet what lies at a place."""
        left, down = x + low[0] - self.x0, y + low[1] - self.y0
        where, taken = (down, left) if self.along else (left, down), meet.T if self.along else meet
        at = [
            slice(max(w, 0), min(w + n, m)) for w, n, m in zip(where, taken.shape, self.cells.shape, strict=True)
        ]
        if all(s.start < s.stop for s in at):
            part = taken[tuple(slice(s.start - w, s.stop - w) for s, w in zip(at, where, strict=True))]
            self.cells[tuple(at)] &= ~part


def translated(shape: shapely.Polygon, by_m: NDArray[np.float64]) -> NDArray[np.object_]:
    """A shape in many places [m]. Source: geometry"""
    ring = shapely.get_coordinates(shape)
    rings = shapely.linearrings(ring[None, :, :] + by_m[:, None, :])
    made: NDArray[np.object_] = shapely.polygons(rings)
    return made


def _turned(shape: shapely.Polygon, turn_rad: float) -> shapely.Polygon:
    return rotate(shape, turn_rad, origin=(0, 0), use_radians=True)
