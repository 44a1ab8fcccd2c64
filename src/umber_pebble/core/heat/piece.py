"""A cast in its mould, laid in a row of places: how it cools and sets."""

from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.errors import require_range
from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.heat.conduction import Array, Face, Layer, conduct, growing_times_s
from umber_pebble.core.materials.load import Material, model_factors
from umber_pebble.core.spread import Spread, exact

# fat costs more a node, since each sets in its own heat, and is as well served by fewer (docs/heat.md)
NODES = {
    "sugar": {"piece": 15, "wall": 8, "place": 12},
    "fat": {"piece": 10, "wall": 5, "place": 8},
}
HORIZON_S = {"sugar": 6 * 3600.0, "fat": 3 * 3600.0}
# the error of a time is about half a step: under 1 % (docs/heat.md)
STEP_GROWTH = {"sugar": 1.015, "fat": 1.025}
UNDERSIDE_M = 0.06
STILL_M_S = exact(0.0)


@dataclass(frozen=True, slots=True)
class Place:
    """Where a mould lies: a surface of a thickness at a temperature, in air of a temperature and speed [m/s].

    air_unsure_k is how far that air may be from what its owner says.
    """

    surface: Material
    thickness_m: float
    surface_degc: float
    air_degc: float
    air_m_s: Spread = STILL_M_S
    air_unsure_k: float = 0.0


@dataclass(frozen=True, slots=True)
class Stay:
    """From this moment after the pour the mould lies in this place [s]."""

    from_s: float
    place: Place


@dataclass(frozen=True, slots=True)
class Casting:
    """A cast of melt in a mould wall, poured at a temperature and laid in a row of places.

    slab is the plate that cools like it, plate_m the length of its open surface (area over edge) [m];
    tg: the glass transition of a sugar glass; None for a fat.
    """

    melt: Material
    mould: Material
    slab: Spread
    plate_m: float
    wall_m: float
    pour: Spread
    tg: Spread | None
    path: tuple[Stay, ...]

    def __post_init__(self) -> None:
        require_range("slab_m", self.slab.low, 5e-5, 0.1)
        require_range("wall_m", self.wall_m, 1e-4, 0.05)

    @property
    def kind(self) -> str:
        return "sugar" if self.tg else "fat"

    @property
    def horizon_s(self) -> float:
        return HORIZON_S[self.kind]


@dataclass(frozen=True, slots=True)
class PieceRun:
    """One engine run: times from the pour [s], the piece's mean, hottest and coldest node [degC], the share set of the
    node that has set least and most [frac]."""

    times_s: Array
    mean_degc: Array
    hottest_degc: Array
    coldest_degc: Array
    least_set: Array
    most_set: Array


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


def _piece(case: Case) -> Layer:
    melt, density = case.casting.melt, case.casting.melt.value("density_melt")
    nodes = NODES[case.casting.kind]["piece"]
    if case.casting.tg is not None:
        return Layer(
            "piece", case.depth_m, nodes, case.conductivity, density, melt.value("cp_glass"), case.cp_melt,
            case.casting.tg.likely, case.pour_degc,
        )  # fmt: skip
    melted = melt.value("conductivity_melt") * case.conductivity / melt.value("conductivity")
    return Layer(
        "piece", case.depth_m, nodes, case.conductivity, density, melt.value("cp_set"), case.cp_melt, 0.0,
        case.pour_degc, melt_conductivity_w_mk=melted, setting=setting_of(melt, case.half_factor),
    )  # fmt: skip


def _layers(case: Case, place: Place) -> list[Layer]:
    casting, mould, surface = case.casting, case.casting.mould, place.surface
    nodes = NODES[casting.kind]
    wall = Layer(
        "wall", casting.wall_m, nodes["wall"], case.wall_conductivity, mould.value("density"),
        mould.value("cp"), mould.value("cp"), 0.0, casting.path[0].place.air_degc,
    )  # fmt: skip
    if surface.flags.get("open", False):
        return [_piece(case), wall]
    under = Layer(
        "place", place.thickness_m, nodes["place"], surface.value("conductivity"), surface.value("density"),
        surface.value("cp"), surface.value("cp"), 0.0, place.surface_degc, case.contact * surface.value("contact"),
    )  # fmt: skip
    return [_piece(case), wall, under]


def _faces(case: Case, place: Place) -> tuple[Face, Face]:
    length, air = case.casting.plate_m, case.air_degc(place)
    stream = getattr(place.air_m_s, case.stream)
    top = Face(air, 1, length, case.casting.melt.value("emissivity"), case.air_side, air_m_s=stream)
    return top, Face(air, 2, UNDERSIDE_M, 0.9, case.air_side, air_m_s=stream)


def run(case: Case) -> PieceRun:
    """The engine once, with one value of each input.

    Args:
        case: a casting with those values
    Raises: OutOfRange: a size the model does not hold for.
    Source: patankar-1980
    """
    path, nodes = case.casting.path, NODES[case.casting.kind]
    moved = nodes["piece"] + nodes["wall"]
    kept: tuple[Array, Array] | None = None
    times, temps, shares = list[Array](), list[Array](), list[Array]()
    for stay, after in zip(path, [*path[1:], None], strict=True):
        layers = _layers(case, stay.place)
        end = case.casting.horizon_s if after is None else after.from_s
        start = np.repeat([float(layer.start_degc) for layer in layers], [layer.nodes for layer in layers])
        start_set = np.zeros(start.size)
        start_set[: nodes["piece"]] = layers[0].setting.start_frac if layers[0].setting else 0.0
        if kept is not None:
            start[:moved], start_set[:moved] = kept[0][:moved], kept[1][:moved]
        steps = growing_times_s(max(end - stay.from_s, 1.0), growth=STEP_GROWTH[case.casting.kind])
        history = conduct(layers, *_faces(case, stay.place), steps, start, start_set)
        kept = history.temps_degc[-1], history.set_frac[-1]
        skip = 0 if not times else 1
        times.append(history.times_s[skip:] + stay.from_s)
        temps.append(history.of_layer(0)[skip:])
        shares.append(history.set_of_layer(0)[skip:])
    piece, share = np.concatenate(temps), np.concatenate(shares)
    return PieceRun(np.concatenate(times), piece.mean(1), piece.max(1), piece.min(1), share.min(1), share.max(1))


def base(casting: Casting) -> Case:
    """The likely case of a casting [SI fields]. Source: definition"""
    m = casting.melt
    return Case(
        casting, casting.pour.likely, casting.slab.likely, m.value("cp_melt"), m.value("conductivity"),
        casting.mould.value("conductivity"),
    )  # fmt: skip


def varied(likely: Case) -> list[list[Case]]:
    """Per uncertain input, the cases at its low and high end [SI fields].

    Source: jcgm-100-2008
    """
    casting, melt = likely.casting, likely.casting.melt
    contact = casting.path[-1].place.surface.spread("contact")
    air, wall = model_factors()["air_side_factor"].spread, casting.mould.spread("conductivity")
    ends: dict[str, tuple[float | str, ...]] = {
        "pour_degc": (casting.pour.low, casting.pour.high),
        "depth_m": (casting.slab.low, casting.slab.high),
        "cp_melt": (melt.spread("cp_melt").low, melt.spread("cp_melt").high),
        "conductivity": (melt.spread("conductivity").low, melt.spread("conductivity").high),
        "wall_conductivity": (wall.low, wall.high),
        "air_side": (air.low, air.high),
    }
    if not all(stay.place.surface.flags.get("open", False) for stay in casting.path):
        ends["contact"] = (contact.low / contact.likely, contact.high / contact.likely)
    if any(stay.place.air_m_s.high > 0 for stay in casting.path):
        ends["stream"] = ("low", "high")
    if any(stay.place.air_unsure_k > 0 for stay in casting.path):
        ends["air_off_share"] = (-1.0, 1.0)
    if casting.tg is None:
        half = melt.spread("half_time")
        ends["half_factor"] = (half.low / half.likely, half.high / half.likely)

    def at(name: str, value: float | str) -> Case:
        return replace(likely, **{name: value})  # type: ignore[arg-type]

    return [[at(name, value) for value in values] for name, values in ends.items()]
