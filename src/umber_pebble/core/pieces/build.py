"""A build laid pass by pass into its cavity: what each takes, how thick it is, and what cannot be."""

import math
from dataclasses import dataclass, replace
from functools import lru_cache

import shapely

from umber_pebble.core.errors import require_range
from umber_pebble.core.explained import explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import material
from umber_pebble.core.moulds.cavity import Cavity, level_m, open_m2, volume_m3, wetted_m2
from umber_pebble.core.moulds.inset import inset, thickest_m
from umber_pebble.core.pieces.cast import amounts
from umber_pebble.core.pieces.faults import BuildFault, Wrong, bearable
from umber_pebble.core.pieces.heaps import heaped, plain, rod_m3
from umber_pebble.core.pieces.in_the_round import body_of
from umber_pebble.core.pieces.layers import Laid, melted
from umber_pebble.core.pieces.passes import (
    Centre,
    Close,
    Cluster,
    Detail,
    Dip,
    Dollop,
    Drizzle,
    Dust,
    Fill,
    Filling,
    Pass,
    Paste,
    Rod,
    Shell,
    Turned,
)
from umber_pebble.core.spread import Spread

SIDES_FROM_FRAC = 1 / 3
LEAST_SHARE_FRAC = 0.001
THINNEST_M, THICKEST_M = 2e-4, 0.03


@dataclass(frozen=True, slots=True)
class Hollow:
    """What is left of a cavity between two passes: its shape and how high its floor lies [m], what lies in it unseen [m3], the
    level it is filled to, over the cavity's floor [m]."""

    cavity: Cavity
    lift_m: float = 0.0
    taken_m3: float = 0.0
    level_m: float = 0.0
    in_shell: bool = False
    closed: bool = False

    @property
    def rim_m(self) -> float:
        return self.cavity.depth_m + self.lift_m

    def below_m3(self, level_m: float) -> float:
        """Volume of the hollow under a level over the cavity's floor."""
        return volume_m3(self.cavity, min(max(level_m - self.lift_m, 0.0), self.cavity.depth_m))

    def free_m3(self, level_m: float) -> float:
        """What still goes in up to a level."""
        return max(self.below_m3(level_m) - self.below_m3(self.level_m) - self.taken_m3, 0.0)

    def level_of(self, more_m3: float) -> float:
        """The level that so much more comes to."""
        return self.lift_m + level_m(self.cavity, self.below_m3(self.level_m) + self.taken_m3 + more_m3)


def lay(
    cavity: Cavity, passes: tuple[Pass, ...], bears_degc: float = math.inf
) -> tuple[list[Laid], list[BuildFault]]:
    """A build laid into its cavity, pass by pass; one that cannot be is left out and told.

    Args:
        cavity: the cavity
        passes: in their order
        bears_degc: what the mould bears [degC]
    Raises: OutOfRange: a number that no pass may have.
    Source: geometry, common-practice
    """
    laid, faults = _lay_all(cavity, passes, bears_degc)
    return list(laid), list(faults)


@lru_cache(maxsize=256)
def _lay_all(
    cavity: Cavity, passes: tuple[Pass, ...], bears_degc: float
) -> tuple[tuple[Laid, ...], tuple[BuildFault, ...]]:
    hollow, laid, faults = Hollow(cavity), list[Laid](), list[BuildFault]()
    for i, one in enumerate(passes):
        try:
            bearable(one, bears_degc)
            made, hollow = _lay(i, one, hollow, laid, passes)
        except Wrong as wrong:
            faults.append(wrong.at(i))
            continue
        laid.append(made)
    return tuple(laid), tuple(faults)


def _lay(i: int, one: Pass, hollow: Hollow, laid: list[Laid], passes: tuple[Pass, ...]) -> tuple[Laid, Hollow]:
    if hollow.closed and not (
        isinstance(one, (Dust, Drizzle, Dollop, Cluster))
        or (isinstance(one, Rod) and isinstance(passes[i - 1], Fill))
    ):
        raise Wrong("closed", "the casting is full and level: nothing more goes in")
    match one:
        case Dust():
            return _dust(i, one, hollow, laid), hollow
        case Detail():
            return _detail(i, one, hollow)
        case Shell():
            return _shell(i, one, hollow)
        case Turned():
            return _turned(i, one, hollow)
        case Rod():
            inside = rod_m3(one)
            made = plain(i, 0.0, inside, one.diameter_m, hollow.level_m)
            # one pushed into a solid fill has its room there already
            there = one.taken_out or isinstance(passes[i - 1] if i else None, Fill)
            return made, hollow if there else _takes(hollow, inside, "stick")
        case Centre():
            return plain(i, one.kg, one.volume_m3, 0.0, hollow.level_m), _takes(hollow, one.volume_m3, "centre")
        case Filling():
            return _filling(i, one, hollow, laid, passes)
        case Close():
            return _close(i, one, hollow, laid, passes)
        case Fill():
            return _fill(i, one, hollow, _rod_in(passes, i + 1))
        case Paste():
            return _paste(i, one, hollow)
        case Drizzle() | Dollop() | Cluster():
            made, wide = heaped(i, one, hollow.level_m)
            across, along = hollow.cavity.bounds_m()
            if wide > min(across, along):
                raise Wrong("too_wide", "it is wider than what it lies on", wide, min(across, along))
            return made, hollow
        case Dip():
            raise Wrong("wants_body", "only a body is dipped: what is cast goes into the mould")


def _rod_in(passes: tuple[Pass, ...], i: int) -> float:
    """What a stick pushed into the pass before it displaces there."""
    rod = passes[i] if i < len(passes) else None
    return rod_m3(rod) if isinstance(rod, Rod) and not rod.taken_out else 0.0


def _fits(volume_m3: float, hollow: Hollow) -> float:
    """A layer's volume, where what lies on the wall already leaves so much room."""
    room = hollow.free_m3(hollow.rim_m)
    if volume_m3 > room:
        raise Wrong("too_large", "what is on the wall already leaves no room for it", volume_m3, room, "m3")
    return volume_m3


def _room(name: str) -> float:
    return material("kitchen", "usual", "room").value(name)


def _takes(hollow: Hollow, volume_m3: float, what: str) -> Hollow:
    room = hollow.free_m3(hollow.rim_m)
    most = _room("put_in") * room
    if volume_m3 > most:
        raise Wrong("too_large", f"the {what} takes more room than there is", volume_m3, most, "m3")
    return replace(hollow, taken_m3=hollow.taken_m3 + volume_m3)


def _dust(i: int, one: Dust, hollow: Hollow, laid: list[Laid]) -> Laid:
    if not one.on_wet and any(row.cast for row in laid):
        raise Wrong("not_empty", "dust goes into the empty mould: move it before the first melt")
    if one.on_wet and not any(row.cast for row in laid):
        raise Wrong("nothing_wet", "there is no melt yet for it to stick to")
    return plain(i, one.kg, 0.0, 0.0, hollow.level_m)


def _detail(i: int, one: Detail, hollow: Hollow) -> tuple[Laid, Hollow]:
    require_range(f"passes.{i}.share_frac", one.share_frac, LEAST_SHARE_FRAC, 1.0)
    require_range(f"passes.{i}.thick_m", one.thick_m, 2e-5, THICKEST_M)
    if hollow.level_m > hollow.lift_m:
        raise Wrong("not_empty", "details go onto the bare wall: move it before the filling")
    cavity = hollow.cavity
    most = thickest_m(cavity.shape)
    if one.thick_m >= most:
        raise Wrong("too_thick", "it is thicker than the narrow place", one.thick_m, most)
    share = one.share_frac if one.outline is None else _own_share_frac(one.outline, cavity)
    area = share * wetted_m2(cavity, cavity.depth_m)
    volume = _fits(share * _band_m3(cavity, one.thick_m), hollow)
    made = melted(
        i,
        one.melt.material,
        volume,
        one.thick_m,
        area,
        hollow.lift_m,
        hollow.lift_m + one.thick_m,
        "share of the layer",
    )
    return made, replace(hollow, taken_m3=hollow.taken_m3 + volume)


def _own_share_frac(outline: tuple[tuple[float, float], ...], cavity: Cavity) -> float:
    """What an outline covers of the cavity, both seen from above."""
    rim = shapely.Polygon(cavity.shape.rim())
    share = float(shapely.make_valid(shapely.Polygon(outline)).intersection(rim).area / rim.area)
    if share < LEAST_SHARE_FRAC:
        raise Wrong("outside", "its outline lies outside the cavity", share, LEAST_SHARE_FRAC, "frac")
    return share


def _band_m3(cavity: Cavity, thick_m: float) -> float:
    inner = _inside(cavity, thick_m)
    return volume_m3(cavity, cavity.depth_m) - volume_m3(inner, inner.depth_m)


def _inside(cavity: Cavity, thick_m: float) -> Cavity:
    return Cavity(inset(cavity.shape, thick_m), cavity.volume_factor)


def _shell(i: int, one: Shell, hollow: Hollow) -> tuple[Laid, Hollow]:
    require_range(f"passes.{i}.thick_m", one.thick_m, THINNEST_M, THICKEST_M)
    if hollow.level_m > hollow.lift_m:
        raise Wrong("not_empty", "a shell goes on the wall: move it before the filling")
    cavity = hollow.cavity
    most = thickest_m(cavity.shape)
    if one.thick_m >= most:
        raise Wrong("too_thick", "the shell is thicker than the narrow place", one.thick_m, most)
    whole, melt = hollow.free_m3(hollow.rim_m), one.melt.material
    if one.sides:
        foot = SIDES_FROM_FRAC * cavity.depth_m
        wall = wetted_m2(cavity, cavity.depth_m) - wetted_m2(cavity, foot)
        volume = min(wall * one.thick_m, _room("put_in") * whole)
        after = replace(hollow, taken_m3=hollow.taken_m3 + volume)
        low = hollow.lift_m + foot
        return melted(i, melt, volume, one.thick_m, wall, low, hollow.rim_m, "wall x thickness"), after
    inner = _inside(cavity, one.thick_m)
    band = volume_m3(cavity, cavity.depth_m) - volume_m3(inner, inner.depth_m)
    # details lie in the layer: it covers them, and what stands out of it stays in the hollow
    volume = _fits(max(band - hollow.taken_m3, _room("covers") * band), hollow)
    left = max(hollow.taken_m3 - (band - volume), 0.0)
    after = Hollow(inner, hollow.lift_m + one.thick_m, left, hollow.lift_m + one.thick_m, True)
    area = wetted_m2(cavity, cavity.depth_m)
    made = melted(i, melt, volume, one.thick_m, area, hollow.lift_m, hollow.rim_m, "cavity less the hollow inside it, less what lies in the layer",
                   poured_m3=whole if one.emptied else None)  # fmt: skip
    return made, after


def _turned(i: int, one: Turned, hollow: Hollow) -> tuple[Laid, Hollow]:
    require_range(f"passes.{i}.ball_kg", one.ball_kg, 0.001, 5.0)
    cavity, density = hollow.cavity, one.melt.material.value("density_melt")
    volume = one.ball_kg / 2 / density
    whole = hollow.free_m3(hollow.rim_m)
    most = _room("ball") * whole
    if volume >= most:
        words = "so much fills the ball: it would not be hollow"
        raise Wrong("too_much", words, one.ball_kg, 2 * most * density, "kg")
    low, high = 0.0, thickest_m(cavity.shape) * (1 - 1e-6)
    for _ in range(50):
        mid = (low + high) / 2
        low, high = (mid, high) if _band_m3(cavity, max(mid, 1e-7)) < volume else (low, mid)
    thick = high
    if thick < THINNEST_M:
        raise Wrong(
            "too_thin",
            "so little does not cover the wall",
            one.ball_kg,
            2 * _band_m3(cavity, THINNEST_M) * density,
            "kg",
        )
    inner = _inside(cavity, thick)
    after = Hollow(inner, hollow.lift_m + thick, 0.0, hollow.lift_m + thick, True, True)
    area = wetted_m2(cavity, cavity.depth_m)
    made = melted(
        i,
        one.melt.material,
        volume,
        thick,
        area,
        0.0,
        hollow.rim_m,
        "half of the ball's melt, turned over the wall",
    )
    return made, after


def _filling(
    i: int, one: Filling, hollow: Hollow, laid: list[Laid], passes: tuple[Pass, ...]
) -> tuple[Laid, Hollow]:
    if not hollow.in_shell:
        raise Wrong("no_shell", "nothing holds the filling: put a shell before it")
    shell = next((p.melt.material for p in reversed(passes[:i]) if isinstance(p, Shell)), None)
    softens = None if shell is None else family_of(shell).softens_degc(shell)
    if softens is not None and one.degc >= softens:
        words = "so warm, it melts the shell: let it cool"
        raise Wrong("melts_shell", words, one.degc, softens, "degC")
    density, room = one.of.spread("density"), hollow.free_m3(hollow.rim_m)
    if one.kg is not None:
        volume = require_range(f"passes.{i}.kg", one.kg, 1e-5, 5.0) / density.likely
        if volume > room:
            raise Wrong("no_room", "more filling than there is room", one.kg, room * density.likely, "kg")
        kg = Spread(one.kg, one.kg, one.kg)
    else:
        gap = require_range(f"passes.{i}.gap_m", one.gap_m or 0.0, 0.0, 0.1)
        top = hollow.rim_m - gap
        volume = hollow.free_m3(top)
        if top <= hollow.level_m or volume <= 0:
            deep = hollow.rim_m - hollow.level_m
            raise Wrong("no_room", "with this gap nothing of it fits", gap, deep)
        kg = density.times(volume)
    level = hollow.level_of(volume)
    finished = explained(
        kg, "kg", "room in the shell up to its level x density" if one.kg is None else "as given",
        given("room", volume, "m3"), given("density", density, "kg/m3"), sources=("geometry", one.of["density"].source),
    )  # fmt: skip
    poured = explained(
        kg.times(1 / (1 - require_range(f"passes.{i}.loss_frac", one.loss_frac, 0.0, 0.5))), "kg",
        "finished and what stays in bag or spoon", given("finished", kg, "kg"), given("stays", one.loss_frac, "frac"),
    )  # fmt: skip
    area = open_m2(hollow.cavity, max(level - hollow.lift_m, 1e-6))
    made = Laid(i, finished, poured, volume, volume / area, hollow.level_m, level, None, ())
    return made, replace(hollow, level_m=level, taken_m3=0.0)


def _paste(i: int, one: Paste, hollow: Hollow) -> tuple[Laid, Hollow]:
    density = one.of.spread("density")
    volume = require_range(f"passes.{i}.kg", one.kg, 1e-5, 5.0) / density.likely
    room = hollow.free_m3(hollow.rim_m)
    if volume > room * (1 + 1e-9):
        raise Wrong("no_room", "more paste than there is room", one.kg, room * density.likely, "kg")
    level = hollow.level_of(min(volume, room))
    made = plain(i, one.kg, volume, level - hollow.level_m, hollow.level_m)
    after = replace(hollow, level_m=level, taken_m3=0.0, closed=level >= hollow.rim_m - 1e-6)
    return replace(made, to_m=level), after


def _close(i: int, one: Close, hollow: Hollow, laid: list[Laid], passes: tuple[Pass, ...]) -> tuple[Laid, Hollow]:
    if not hollow.in_shell or hollow.level_m >= hollow.rim_m - 1e-6:
        raise Wrong("nothing_to_close", "there is no gap to the rim: leave one under it")
    volume, melt = hollow.free_m3(hollow.rim_m), one.melt.material
    area = open_m2(hollow.cavity, hollow.cavity.depth_m)
    thick = volume / area
    if thick < THINNEST_M:
        raise Wrong("too_thin", "the gap is too small for a close", thick, THINNEST_M)
    fillings = [(p.of, row.thick_m, p.degc) for row in laid if isinstance(p := passes[row.index], Filling)]
    for of, _, degc in fillings[-1:]:
        firm = of.value("firm_below") if "firm_below" in of.properties else math.inf
        if degc > firm:
            words = "the filling is still soft: it sinks in, let it firm first"
            raise Wrong("unset_filling", words, degc, firm, "degC")
    made = melted(
        i,
        melt,
        volume,
        thick,
        area,
        hollow.level_m,
        hollow.rim_m,
        "hollow from the filling to the rim",
        heap_m2=area,
    )
    return replace(made, under=tuple(fillings[-1:])), replace(hollow, level_m=hollow.rim_m, closed=True)


def _fill(i: int, one: Fill, hollow: Hollow, rod_m3: float) -> tuple[Laid, Hollow]:
    rim, melt = hollow.rim_m, one.melt.material
    require_range(f"passes.{i}.second_frac", one.second_frac, 0.0, 0.95)
    if one.level_m > rim * (1 + 1e-9):
        raise Wrong("above_rim", "the fill stands above the rim", one.level_m, rim)
    if one.level_m <= hollow.level_m or one.level_m - hollow.lift_m < THINNEST_M:
        raise Wrong("no_room", "it ends below what is there already", one.level_m, hollow.level_m)
    level, hollow = min(one.level_m, rim), replace(hollow, taken_m3=hollow.taken_m3 + rod_m3)
    if not hollow.in_shell and hollow.level_m == 0.0:
        whole = volume_m3(hollow.cavity, level)
        most = _room("put_in") * whole
        if hollow.taken_m3 > most:
            raise Wrong("too_large", "what is in it leaves no room", hollow.taken_m3, most, "m3")
        cast = amounts(hollow.cavity, level, melt, hollow.taken_m3)
        made = Laid(
            i, cast.finished, cast.poured, cast.volume.value.likely, cast.thickness.likely, 0.0, level, cast, (),
            body=body_of(hollow.cavity, level),
        )  # fmt: skip
    else:
        area = open_m2(hollow.cavity, level - hollow.lift_m)
        volume = hollow.free_m3(level)
        if volume < THINNEST_M * area:
            raise Wrong(
                "too_thin", "what is in it already leaves no room below this level", volume / area, THINNEST_M
            )
        made = melted(i, melt, volume, volume / area, area, hollow.level_m, level, "hollow up to the level",
                       heap_m2=area if level >= rim - 1e-9 else 0.0)  # fmt: skip
    return made, replace(hollow, level_m=level, taken_m3=0.0, closed=level >= rim - 1e-9)
