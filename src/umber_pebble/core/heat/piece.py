"""A cast in its mould, laid in a row of places: how it cools and sets."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.heat.casting import Casting, LayerUnder, Place
from umber_pebble.core.heat.conduction import Array, Face, History, Layer, Stack, Watched, conduct_all
from umber_pebble.core.heat.times import first_past_s, growing_times_s
from umber_pebble.core.materials.load import Material


@dataclass(frozen=True, slots=True)
class Grid:
    """How finely a cast is reckoned: nodes of piece, of a layer under it, of wall and place; first step [s] and growth
    of the steps."""

    piece: int
    under: int
    wall: int
    place: int
    first_s: float
    growth: float


# fat costs more a node, since each sets in its own heat, and is as well served by fewer; what an input moves is a
# difference of two runs, which needs less than the run itself (docs/heat.md)
FINE = {"sugar": Grid(15, 8, 8, 12, 0.25, 1.015), "fat": Grid(10, 8, 5, 8, 0.25, 1.025)}
COARSE = {"sugar": Grid(8, 4, 4, 6, 0.5, 1.06), "fat": Grid(6, 4, 3, 5, 1.0, 1.08)}
UNDERSIDE_M = 0.06
NO_FACE = Face(0.0, 2, 0.05, 0.9, h_fixed_w_m2k=0.0)


@dataclass(frozen=True, slots=True)
class PieceRun:
    """Engine runs of a casting, arrays [case, time] (one run: [time]): times from the pour [s], the piece's mean, hottest
    and coldest node and its top [degC], the share set of the node that has set least and most and of its top [frac]; the
    whole field of the first, stay by stay, where it was kept.
    """

    times_s: Array
    mean_degc: Array
    hottest_degc: Array
    coldest_degc: Array
    least_set: Array
    most_set: Array
    top_degc: Array
    top_set: Array
    fields: tuple[History, ...] = field(default=(), compare=False)

    def until(self, series: str, limit: float | Array) -> Array:
        """When a series first passes a limit, a falling temperature or a rising share [s, by case]; inf if never."""
        return self.until_all((series, limit))

    def until_all(self, *conditions: tuple[str, float | Array]) -> Array:
        """When several are past their limits at once and stay so for a while [s, by case]; inf if never: a skin chilled by its mould
        is warmed again from within, and what sets late warms all of it."""
        values = tuple(np.atleast_2d(getattr(self, series)) for series, _ in conditions)
        limits = tuple(
            limit if isinstance(limit, np.ndarray) else np.full(values[0].shape[0], limit)
            for _, limit in conditions
        )
        rises = tuple(series.endswith("_set") for series, _ in conditions)
        out: Array = first_past_s(self.times_s, values, limits, rises)
        return out

    def one(self) -> "PieceRun":
        """The first run alone."""
        first = {name: getattr(self, name)[0] for name in Watched._fields}
        return replace(self, **first)


@dataclass(frozen=True, slots=True)
class Case:
    """One value of each uncertain input of a casting; contact and air_side are factors, stream picks a place's air speed
    and air_off_share how much of a place's unsure_k its air is off."""

    casting: Casting
    pour_degc: float
    depth_m: float
    cp_melt: float
    conductivity: float
    wall_conductivity: float
    contact: float = 1.0
    air_side: float = 1.0
    stream: str = "likely"
    air_off_share: float = 0.0
    half_factor: float = 1.0

    def air_degc(self, place: Place) -> float:
        return place.air_degc + self.air_off_share * place.air_unsure_k


def fat_layer(
    name: str,
    melt: Material,
    thickness_m: float,
    nodes: int,
    degc: float,
    set_frac: float | None = None,
    **given: float,
) -> Layer:
    """A layer of fat that sets [SI fields].

    Args:
        name, thickness_m, nodes, degc, set_frac: of the layer; set_frac None for a fresh melt
        melt: the material
        given: conductivity, cp_melt and half_factor, where they are not the material's likely ones
    Source: beckett-2009
    """
    conductivity = given.get("conductivity", melt.value("conductivity"))
    melted = melt.value("conductivity_melt") * conductivity / melt.value("conductivity")
    return Layer(
        name,
        thickness_m,
        nodes,
        conductivity,
        melt.value("density_melt"),
        melt.value("cp_set"),
        given.get("cp_melt", melt.value("cp_melt")),
        0.0,
        degc,
        melt_conductivity_w_mk=melted,
        setting=setting_of(melt, given.get("half_factor", 1.0)),
        start_frac=set_frac,
    )


def _piece(case: Case, nodes: int) -> Layer:
    melt, tg = case.casting.melt, case.casting.tg
    if tg is None:
        return fat_layer(
            "piece",
            melt,
            case.depth_m,
            nodes,
            case.pour_degc,
            conductivity=case.conductivity,
            cp_melt=case.cp_melt,
            half_factor=case.half_factor,
        )
    return Layer(
        "piece",
        case.depth_m,
        nodes,
        case.conductivity,
        melt.value("density_melt"),
        melt.value("cp_glass"),
        case.cp_melt,
        tg.likely,
        case.pour_degc,
    )


def _under(under: LayerUnder, nodes: int) -> Layer:
    """An earlier pass has set as far as it does at rest; a filling or a film takes no part but by its heat."""
    m = under.material
    if m.has("half_time"):
        rest = setting_of(m).rest_frac(under.degc)
        return fat_layer("under", m, under.thickness_m, nodes, under.degc, rest)
    density, cp = ("density_melt", "cp_glass") if m.has("cp_glass") else ("density", "cp")
    c = m.value(cp)
    return Layer(
        "under", under.thickness_m, nodes, m.value("conductivity"), m.value(density), c, c, 0.0, under.degc
    )


def _solid(name: str, m: Material, thickness_m: float, nodes: int, degc: float, **given: float) -> Layer:
    c = m.value("cp")
    k = given.get("conductivity", m.value("conductivity"))
    contact = given.get("contact", np.inf)
    return Layer(name, thickness_m, nodes, k, m.value("density"), c, c, 0.0, degc, contact)


def _layers(case: Case, grid: Grid) -> tuple[Layer, ...]:
    """What moves from place to place: a plate and what is under it down to its mould, a rod or ball in its mould."""
    casting = case.casting
    cold = casting.path[0].place.air_degc
    wall = _solid("wall", casting.mould, casting.wall_m, grid.wall, cold, conductivity=case.wall_conductivity)
    piece = _piece(case, grid.piece)
    if casting.shape != "plate":
        return wall, piece
    return piece, *(_under(u, grid.under) for u in casting.under), wall


def stack_of(case: Case, place: Place, grid: Grid) -> Stack:
    """A case as the engine takes it, laid in a place [SI fields]. Source: definition"""
    return _stack(case, _layers(case, grid), place, grid)


def _stack(case: Case, layers: tuple[Layer, ...], place: Place, grid: Grid) -> Stack:
    top, bottom = faces_of(case, place)
    if case.casting.shape != "plate":
        return Stack(layers, top, NO_FACE, case.casting.shape, case.casting.inner_m)
    if not place.open:
        contact = case.contact * place.surface.value("contact")
        under = _solid("place", place.surface, place.thickness_m, grid.place, place.surface_degc, contact=contact)
        layers = (*layers, under)
    return Stack(layers, top, bottom)


def faces_of(case: Case, place: Place) -> tuple[Face, Face]:
    """What surrounds a case's open surface, and the underside of all, in a place [SI fields]. Source: definition"""
    air, stream = case.air_degc(place), getattr(place.air_m_s, case.stream)
    side = case.air_side * place.shelter * place.thin_air
    shown = Face(
        air, 1, case.casting.air_m, case.casting.melt.value("emissivity"), side, place.touch_w_m2k, stream
    )
    return shown, Face(air, 2, UNDERSIDE_M, 0.9, side, place.touch_w_m2k, stream)


def watched_layer(casting: Casting) -> int:
    """Which layer of the stack is the piece [index]. Source: definition"""
    return 0 if casting.shape == "plate" else 1


def stay_times_s(casting: Casting, i: int, first_s: float, growth: float) -> Array:
    """Times of a casting's stay in its i-th place, until it moves on or is followed no more [s]. Source: definition"""
    ends = [*(stay.from_s for stay in casting.path[1:]), casting.horizon_s]
    lasts = max(ends[i] - casting.path[i].from_s, 1.0)
    return growing_times_s(lasts, min(first_s, lasts), growth)


def run_all(cases: Sequence[Case], grid: Grid, kept: bool = False) -> PieceRun:
    """The engine for several cases, each with one value of every input.

    Args:
        cases: at least one; they may differ in all but shape, the number of layers and when they move
        grid: how finely
        kept: whether the whole field of the first is kept
    Raises: OutOfRange: a size the model does not hold for.
    Source: patankar-1980
    """
    casting = cases[0].casting
    times, seen, fields = list[Array](), list[Array](), list[History]()
    carried: tuple[Array, Array] | None = None
    moving = [_layers(case, grid) for case in cases]
    for i, stay in enumerate(casting.path):
        stacks = [
            _stack(case, layers, case.casting.path[i].place, grid)
            for case, layers in zip(cases, moving, strict=True)
        ]
        steps = stay_times_s(casting, i, grid.first_s, grid.growth)
        out, histories, temps, shares = conduct_all(stacks, watched_layer(casting), steps, carried, int(kept))
        # a place is new to what is laid on it; all else goes on as it was
        moved = sum(layer.nodes for layer in moving[0])
        carried = temps[:, :moved], shares[:, :moved]
        skip = 1 if times else 0
        times.append(steps[skip:] + stay.from_s)
        seen.append(np.array(out)[:, :, skip:])
        fields += histories
    runs = PieceRun(np.concatenate(times), *np.concatenate(seen, axis=2))
    return replace(runs, fields=tuple(fields))


def base(casting: Casting) -> Case:
    """The likely case of a casting [SI fields]. Source: definition"""
    m = casting.melt
    return Case(
        casting,
        casting.pour.likely,
        casting.slab.likely,
        m.value("cp_melt"),
        m.value("conductivity"),
        casting.mould.value("conductivity"),
    )
