"""Cooking sugar on a ring: stages, water boiled off, foam, browning, dry caramel and its drizzle."""

import math
from dataclasses import dataclass, replace

import numpy as np

from umber_pebble.core.constants import GAS_J_MOLK
from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc, tg_spread_degc
from umber_pebble.core.glass.water import (
    boils_at_degc,
    boils_from_degc,
    boils_here_degc,
    water_left_frac,
    water_of_cook,
)
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.hob import Heating, heating_curve
from umber_pebble.core.heat.vessel import PotCase
from umber_pebble.core.materials.load import material, table
from umber_pebble.core.spread import Spread

KELVIN = 273.15
DRY_MELTS_DEGC = 186.0
WATER_KG_M3 = 1000.0


@dataclass(frozen=True, slots=True)
class Stage:
    """A stage of a boiling syrup or of a dry caramel: its name, from which temperature on here [degC], when it gets there [s],
    and the water left in it [frac]."""

    name: str
    from_degc: float
    at_s: float | None
    water_frac: float


@dataclass(frozen=True, slots=True)
class Cooking:
    """A pot of sugar with its water: what it takes and gives. depth_m as it stands and foam_m as it boils, against the pot's
    height; browned: minutes at 160 degC that this and all cooks before come to, against spent_at."""

    stages: tuple[Stage, ...]
    time_s: Spread
    water_kg: float
    boiled_off_kg: float
    water_left: Spread
    boils_degc: float
    glass_degc: Spread
    pours_to_degc: float
    depth_m: float
    foam_m: float
    height_m: float
    browned_min: float
    spent_at_min: float
    cooks_left: int


def stages_here(altitude_m: float, group: str = "syrup") -> list[tuple[str, float]]:
    """Names of the stages and from where each begins at this altitude [degC].

    Args:
        altitude_m: -500 to 5000 [m]
        group: "syrup" or "caramel", which holds no water and knows no altitude
    Source: common-practice, iapws-if97
    """
    wet = group == "syrup"
    return [
        (row["name"], boils_here_degc(row["from_degc"], altitude_m) if wet else row["from_degc"])
        for row in table("stages")[group]
    ]


def browning_min(times_s: Array, temps_degc: Array) -> float:
    """Browning along a temperature history, as minutes at 160 degC: Arrhenius, doubling about every eight kelvins there [min].

    Args:
        times_s, temps_degc: the history
    Source: from-memory
    """
    energy = material("kitchen", "usual", "browning").value("energy")
    rate = np.exp(-energy / GAS_J_MOLK * (1 / (temps_degc + KELVIN) - 1 / (160.0 + KELVIN)))
    return float(np.trapezoid(rate, times_s) / 60.0)


def cooking(heating: Heating, time_s: Spread, before: int) -> Cooking:
    """A cook of isomalt or sugar on its ring.

    Args:
        heating: the pot, its charge and water
        time_s: until it is there
        before: how often the same sugar has been cooked already, 0 to 50
    Raises: OutOfRange: before outside; the ring too weak.
    Source: sugar-boiling-table, incropera-2007, assumption
    """
    require_range("before", before, 0, 50)
    case, melt, wet = heating.case, heating.case.melt, heating.water_kg > 0
    times, temps = heating_curve(heating, heating.efficiency.likely, melt.value("latent_crystal"))
    altitude, end = heating.altitude_m, heating.cook_degc
    water = water_of_cook(melt, wet=wet, cook_degc=end, altitude_m=altitude)
    rows = [
        Stage(
            name,
            degc,
            float(np.interp(degc, temps, times)),
            water_left_frac(max(degc, boils_from_degc(altitude)), altitude),
        )
        for name, degc in stages_here(altitude)
        if wet and degc <= end
    ]
    left = case.melt_kg * water.likely / (1 - water.likely)
    tg = tg_spread_degc(melt, water)
    usual = material("kitchen", "usual", "browning")
    once = browning_min(times, temps) + usual.value("held")
    spent = usual.value("spent")
    foam = material("kitchen", "usual", "foam").value("wet" if wet else "dry")
    depth = case.depth_m + heating.water_kg / WATER_KG_M3 / case.base_m2
    return Cooking(
        tuple(rows),
        time_s,
        heating.water_kg,
        max(heating.water_kg - left, 0.0),
        water,
        boils_at_degc(water.likely, altitude),
        tg,
        temperature_at_log_viscosity_degc(melt.value("log_pour_close"), tg.likely),
        depth,
        foam * depth,
        case.pot.height_m,
        once * (before + 1),
        spent,
        max(int(spent / once) - before - 1, 0),
    )


@dataclass(frozen=True, slots=True)
class Caramel:
    """Dry sugar in a shallow pan: its stages, until it is amber [s]; how long a lifted spoonful must fall and cool until it holds a
    thread, and until it is too stiff to [s]."""

    stages: tuple[Stage, ...]
    amber_s: Spread
    lift_from_s: float
    lift_until_s: float
    off_degc: float


def dry_caramel(case: PotCase, ring_w: float, efficiency: Spread, off_degc: float, room_degc: float) -> Caramel:
    """Dry caramel by stages, and its drizzle window.

    On a ring turned to medium-low. The sugar warms, melts at its melting point and goes on; a lifted spoonful cools as a film that falls for part of the time.
    Args:
        case: pan and sugar
        ring_w, efficiency: of the ring at full [W, frac]
        off_degc: how warm it is taken off, 160 to 200 [degC]
        room_degc: of the room
    Raises: OutOfRange: off_degc outside, or the ring too weak.
    Source: incropera-2007, williams-landel-ferry-1955, common-practice
    """
    require_range("off_degc", off_degc, 160.0, 200.0)
    melt, stages = case.melt, stages_here(0.0, "caramel")
    latent = melt.value("latent_crystal")
    turned_down = material("kitchen", "medium_low", "ring_setting").value("gives")

    def reaches(degc: float, share: float) -> float:
        # stirred by shaking only: as it comes to a temperature, what is melted grows with it
        melted = float(np.clip((degc - 150.0) / (DRY_MELTS_DEGC - 150.0), 0.0, 1.0)) ** 0.5
        heat = case.melt_kg * (melt.value("cp_glass") * (degc - room_degc) + latent * melted)
        heat += case.pot.mass_kg * case.pot.metal.value("cp") * (degc - room_degc)
        return float(heat / (turned_down * ring_w * share))

    rows = tuple(Stage(name, degc, reaches(degc, efficiency.likely), 0.0) for name, degc in stages)
    amber = dict(stages)["amber"]
    time = Spread(*(reaches(amber, e) for e in (efficiency.high, efficiency.likely, efficiency.low)))
    falls = material("kitchen", "usual", "drizzle")
    film = melt.value("density_melt") * melt.value("cp_melt") * falls.value("film")
    tau = film / (2 * falls.value("falling") * falls.value("air"))
    tg = tg_spread_degc(melt, melt.spread("water_dry_melt")).likely

    def until(pa_s: float) -> float:
        degc = temperature_at_log_viscosity_degc(math.log10(pa_s), tg)
        return (
            max(-tau * math.log((degc - room_degc) / (off_degc - room_degc)), 0.0)
            if degc > room_degc
            else math.inf
        )

    return Caramel(rows, time, until(falls.value("opens")), until(falls.value("closes")), off_degc)


@dataclass(frozen=True, slots=True)
class Clearer:
    """The same cook taken to another temperature [degC]: the water it leaves [frac] and how brown it is, of what is given up [frac]."""

    degc: float
    water_frac: float
    browned_frac: float


STEPS_K = (-5.0, 0.0, 5.0, 10.0, 15.0)


def clearer(heating: Heating, before: int) -> list[Clearer]:
    """What a hotter or cooler cook comes to: hotter is clearer, with less water and so fewer bubbles, and only past a point browner.

    Args:
        heating: the pot, its charge and water
        before: how often the same sugar has been cooked already
    Raises: OutOfRange: the ring too weak.
    Source: sugar-boiling-table, from-memory
    """
    melt, usual, wet = heating.case.melt, material("kitchen", "usual", "browning"), heating.water_kg > 0
    rows = []
    for off in STEPS_K:
        degc = heating.cook_degc + off
        if not melt.spread("cook_to").low - 5.0 <= degc <= melt.value("spoils_at"):
            continue
        water = water_of_cook(melt, wet=wet, cook_degc=degc, altitude_m=heating.altitude_m).likely
        times, temps = heating_curve(
            replace(heating, cook_degc=degc), heating.efficiency.likely, melt.value("latent_crystal")
        )
        # it is worked as long, as much hotter
        worked = usual.value("held") * browning_min(np.array([0.0, 60.0]), np.array([degc, degc]))
        rows.append(
            Clearer(degc, water, (browning_min(times, temps) + worked) * (before + 1) / usual.value("spent"))
        )
    return rows


def white_passes_frac(share_frac: float, thickness_m: float) -> float:
    """Light that gets through a pane with opaque white nibs among the clear [frac]: exp(-s c d).

    Args:
        share_frac: of white nibs, 0 to 1
        thickness_m: of the pane [m]
    Raises: OutOfRange: outside.
    Source: beer-1852, assumption
    """
    require_range("share_frac", share_frac, 0.0, 1.0)
    require_range("thickness_m", thickness_m, 2e-4, 0.1)
    scatters = material("kitchen", "usual", "white_nibs").value("scatters")
    return math.exp(-scatters * share_frac * thickness_m)


@dataclass(frozen=True, slots=True)
class Fault:
    """What is seen in a pot, what it means, and what may be done."""

    seen: str
    means: str
    do: str


def faults(rows: str) -> list[Fault]:
    """What may be seen in a pot of sugar or a bowl of fat, what it means and what may be done [words].

    Args:
        rows: of the practice's tables: a family's
    Source: common-practice
    """
    return [Fault(**row) for row in table("faults")[rows]]
