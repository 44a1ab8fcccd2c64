"""Coats on a body: dipped whole, to a line, at a slant, one on another; what each takes, and how it is drawn."""

import math
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache

import shapely
from shapely.geometry.base import BaseGeometry

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import explained, given
from umber_pebble.core.materials.load import material
from umber_pebble.core.pieces.body import Body, profile, revolved_m3
from umber_pebble.core.pieces.faults import BuildFault, Wrong, bearable
from umber_pebble.core.pieces.films import dip_film_m
from umber_pebble.core.pieces.heaps import heaped, plain, rod_m3
from umber_pebble.core.pieces.layers import Laid, melted
from umber_pebble.core.pieces.passes import Cluster, Dip, Dollop, Drizzle, Dust, Pass, Rod
from umber_pebble.core.spread import Spread, combine

PLANES = 12
FAR_M = 2.0


def lay_on(
    body: Body, passes: tuple[Pass, ...], bears_degc: float = math.inf
) -> tuple[list[Laid], list[BuildFault]]:
    """A build laid on a body, pass by pass; one that cannot be is left out and told.

    Args:
        body: what is coated
        passes: in their order
        bears_degc: what the body bears [degC]
    Raises: OutOfRange: a number that no pass may have.
    Source: geometry, landau-levich-1942
    """
    laid, faults = _lay_on_all(body, passes, bears_degc)
    return list(laid), list(faults)


@lru_cache(maxsize=256)
def _lay_on_all(
    body: Body, passes: tuple[Pass, ...], bears_degc: float
) -> tuple[tuple[Laid, ...], tuple[BuildFault, ...]]:
    laid, faults = list[Laid](), list[BuildFault]()
    angles = [math.pi * (i + 0.5) / PLANES for i in range(PLANES)]
    outer = [profile(body.shape, body.diameter_m, body.high_m)] * PLANES
    for i, one in enumerate(passes):
        try:
            bearable(one, bears_degc)
            if isinstance(one, Dip):
                made, outer = _dip(i, one, body, outer, angles)
            else:
                made = _other(i, one, body, laid)
        except Wrong as wrong:
            faults.append(wrong.at(i))
            continue
        laid.append(made)
    return tuple(laid), tuple(faults)


def _dip(
    i: int, one: Dip, body: Body, outer: list[BaseGeometry], angles: list[float]
) -> tuple[Laid, list[BaseGeometry]]:
    require_range(f"passes.{i}.slant_rad", one.slant_rad, 0.0, 1.2)
    require_range(f"passes.{i}.second_frac", one.second_frac, 0.0, 0.95)
    line = body.high_m if one.line_m is None else one.line_m
    if line > body.high_m:
        raise Wrong("too_deep", "it is dipped deeper than it is high", line, body.high_m)
    film = film_of(one, line)
    most = body.diameter_m / 4
    if film.likely > most:
        raise Wrong("too_thick", "the coat is thicker than half of what it covers", film.likely, most)
    thick = require_range(f"passes.{i}.thick_m", film.likely, 5e-5, 0.03)
    grown = [_grown(cut, one, thick, angle) for cut, angle in zip(outer, angles, strict=True)]
    volume = revolved_m3([new.difference(old) for new, old in zip(grown, outer, strict=True)])
    made = melted(
        i,
        one.melt.material,
        volume,
        thick,
        volume / thick,
        0.0,
        line,
        "body with its coat less the body, below the line",
    )
    density = one.melt.material.spread("density_melt")
    low, high = film.low / film.likely, film.high / film.likely
    kg = combine(
        volume * density.likely,
        [
            [volume * density.low, volume * density.high],
            [low * volume * density.likely, high * volume * density.likely],
        ],
    )
    finished = explained(
        kg, "kg", "volume of the coat x density of the melt", given("volume", volume, "m3"), given("coat", film, "m"),
        given("density", density, "kg/m3"), sources=("landau-levich-1942", "casson-1959", "geometry") if one.thick_m is None else ("geometry",),
    )  # fmt: skip
    assert made.cast is not None
    slab = film if one.thick_m is None else made.cast.slab
    cast = replace(made.cast, finished=finished, poured=finished, slab=slab, thickness=slab)
    under = ((body.material, body.behind_m, body.degc),)
    return replace(made, finished=finished, poured=finished, cast=cast, under=under), grown


def film_of(one: Dip, line_m: float) -> Spread:
    """The coat that stays on a dipped body [m]: as told, or by what drains and is dragged along.

    Args:
        one: the dip
        line_m: how high it is under the melt [m]
    Raises: OutOfRange: a size outside.
    Source: landau-levich-1942, casson-1959
    """
    if one.thick_m is not None:
        return Spread(one.thick_m, one.thick_m, one.thick_m)
    usual = material("kitchen", "usual", "film")
    return dip_film_m(one.melt.material, line_m, usual.value("drains"), usual.value("drawn"))


def _grown(cut: BaseGeometry, one: Dip, thick_m: float, angle: float) -> BaseGeometry:
    """A cut with a coat on it up to its line, in a plane turned by an angle against the slant."""
    coat = cut.buffer(thick_m)
    if one.line_m is not None:
        rise = math.tan(one.slant_rad) * math.cos(angle)
        below = shapely.Polygon(
            [
                (-FAR_M, -FAR_M),
                (FAR_M, -FAR_M),
                (FAR_M, one.line_m + rise * FAR_M),
                (-FAR_M, one.line_m - rise * FAR_M),
            ]
        )
        coat = coat.intersection(below)
    return cut.union(coat)


def _other(i: int, one: Pass, body: Body, laid: Sequence[Laid]) -> Laid:
    match one:
        case Dust():
            if not any(row.cast for row in laid):
                raise Wrong("nothing_wet", "there is no melt yet for it to stick to")
            return plain(i, one.kg, 0.0, 0.0, body.high_m)
        case Rod():
            return plain(i, 0.0, rod_m3(one), one.diameter_m, body.high_m)
        case Drizzle() | Dollop() | Cluster():
            made, _ = heaped(i, one, body.high_m)
            return replace(made, under=((body.material, body.behind_m, body.degc),))
        case _:
            raise Wrong("wants_mould", "this goes into a mould, not onto a body: dip or drizzle it")


def coat_cuts(
    body: Body, passes: tuple[Pass, ...], laid: list[Laid], angle: float
) -> list[tuple[int, BaseGeometry]]:
    """Each dip's coat in a plane through the axis, turned by an angle against the slant [rad].

    Args:
        body, passes, laid: the build
        angle: of the plane
    Source: geometry
    """
    outer, out = profile(body.shape, body.diameter_m, body.high_m), []
    for row in laid:
        one = passes[row.index]
        if isinstance(one, Dip):
            grown = _grown(outer, one, row.thick_m, angle)
            out.append((row.index, grown.difference(outer)))
            outer = grown
    return out
