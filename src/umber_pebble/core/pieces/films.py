"""How much melt stays: on a drained wall, on a dipped piece, in a line, a dollop, a bead, and over the wall of a ball."""

import math
from dataclasses import dataclass

from umber_pebble.core.constants import GRAVITY_M_S2
from umber_pebble.core.errors import require_range
from umber_pebble.core.families.known import family_of
from umber_pebble.core.heat.skin import Skin
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread, combine


def drained_film_casson_m(
    yield_pa: float,
    viscosity_pa_s: float,
    density_kg_m3: float,
    down_m: float,
    seconds: float,
    steep_frac: float = 1.0,
) -> float:
    """Film of a Casson melt on a wall that drains, so far below its upper edge [m].

    z = (rho g / eta) h (sqrt h - sqrt h_y)^2 t, with h_y = tau0 / (rho g sin theta) that never runs off.
    Args:
        yield_pa, viscosity_pa_s: Casson's, zero or above and above zero [Pa, Pa s]
        density_kg_m3: of the melt [kg/m3]
        down_m: below the edge, above zero [m]
        seconds: of draining, above zero [s]
        steep_frac: sine of the wall's angle, above zero
    Raises: OutOfRange: a value outside.
    Source: casson-1959, jeffreys-1930
    """
    for name, value in (
        ("viscosity", viscosity_pa_s),
        ("down_m", down_m),
        ("seconds", seconds),
        ("steep_frac", steep_frac),
    ):
        require_range(name, value, 1e-9, 1e9)
    pull = density_kg_m3 * GRAVITY_M_S2 * steep_frac
    stays = require_range("yield", yield_pa, 0.0, 1e6) / pull
    wanted = down_m * viscosity_pa_s / (pull * seconds)
    low, high = stays, stays + 1.0
    for _ in range(80):
        mid = (low + high) / 2
        low, high = (mid, high) if mid * (math.sqrt(mid) - math.sqrt(stays)) ** 2 < wanted else (low, mid)
    return high


def wall_keeps_m(melt: Material, wall_m: float, seconds: float, degc: float | None = None) -> Spread:
    """What a wall keeps of a melt that is tipped out and drains, in its middle [m].

    Args:
        melt: a fat with its Casson values, or a sugar melt half way between its cook and the closing
        wall_m: height of the wall [m]
        seconds: upside down [s]
        degc: how warm a fat is, None: as its constants were measured [degC]
    Raises: OutOfRange: a value outside.
    Source: casson-1959
    """
    (stiff, runs), density = family_of(melt).runs_off(melt, degc), melt.value("density_melt")

    def film(tau: float, eta: float) -> float:
        return drained_film_casson_m(tau, eta, density, wall_m / 2, seconds)

    return combine(
        film(stiff.likely, runs.likely),
        [
            [film(stiff.low, runs.likely), film(stiff.high, runs.likely)],
            [film(stiff.likely, runs.low), film(stiff.likely, runs.high)],
        ],
    )


@dataclass(frozen=True, slots=True)
class TooThin:
    """A shell that is tipped out against what is wanted: the film that stays, the skin that has set under it, both together [m];
    coats until it is enough; how long the mould has to stand full for one to be enough, as it is and in the cold [s], None: longer
    than is followed."""

    film: Spread
    skin: Spread
    keeps: Spread
    coats: int
    stands_s: float | None
    stands_cold_s: float | None


def shell_against_film(
    melt: Material, wanted_m: float, wall_m: float, seconds: float, dwell_s: float, skin: Skin, cold: Skin
) -> TooThin:
    """Whether one coat comes to the thickness wanted, and what helps where it does not.

    Args:
        melt, wall_m, seconds: as wall_keeps_m
        wanted_m: of the shell [m]
        dwell_s: how long the mould stands full [s]
        skin, cold: that sets on its wall as it is, and in the cold
    Raises: OutOfRange.
    Source: casson-1959, avrami-1939
    """
    film, under = wall_keeps_m(melt, wall_m, seconds), skin.at(dwell_s)
    keeps = Spread(film.low + under.low, film.likely + under.likely, film.high + under.high)
    near = material("kitchen", "usual", "room").value("near")
    coats = max(1, math.ceil(wanted_m / max(keeps.likely, 1e-6) - near))
    short = wanted_m - film.likely
    return TooThin(
        film, under, keeps, coats, *((0.0, 0.0) if short <= 0 else (skin.until(short), cold.until(short)))
    )


def dip_film_m(
    melt: Material, high_m: float, seconds: float, withdrawn_m_s: float, degc: float | None = None
) -> Spread:
    """Coat on a dipped piece: what drains, capped by what its withdrawal drags along [m].

    Drag: 0.944 (eta U)^(2/3) / (gamma^(1/6) (rho g)^(1/2)).
    Args:
        melt: as for what a wall keeps
        high_m: of the piece under the melt [m]
        seconds: of draining and shaking [s]
        withdrawn_m_s: how fast it leaves the bath [m/s]
        degc: of a bath of fat; None: as warm as one may be [degC]
    Raises: OutOfRange.
    Source: landau-levich-1942, casson-1959
    """
    degc = family_of(melt).dipped_at(melt, degc)
    drains = wall_keeps_m(melt, high_m, seconds, degc)
    usual, density = material("kitchen", "usual", "film"), melt.value("density_melt")
    eta, gamma = family_of(melt).runs_off(melt, degc)[1].likely, usual.value("tension")
    drags = 0.944 * (eta * withdrawn_m_s) ** (2 / 3) / (gamma ** (1 / 6) * math.sqrt(density * GRAVITY_M_S2))
    return drains.map(lambda film: min(film, drags))


def ball_kg(wall_m: float, diameter_m: float, density_kg_m3: float) -> float:
    """Melt for a hollow ball with a wall [kg]. Source: geometry"""
    radius = diameter_m / 2
    require_range("wall_m", wall_m, 1e-6, radius)
    return density_kg_m3 * 4 / 3 * math.pi * (radius**3 - (radius - wall_m) ** 3)


def line_kg(length_m: float, bore_m: float, density_kg_m3: float) -> float:
    """Melt in a piped line, as round as its nozzle [kg].

    Args:
        length_m: of all lines [m]
        bore_m: of the nozzle [m]
        density_kg_m3: of the melt [kg/m3]
    Raises: OutOfRange.
    Source: geometry
    """
    require_range("length_m", length_m, 0.0, 1000.0)
    require_range("bore_m", bore_m, 0.0003, 0.03)
    return density_kg_m3 * length_m * math.pi * bore_m**2 / 4


def bead_kg(seam_m: float, bore_m: float, gap_m: float, deep_m: float, density_kg_m3: float) -> float:
    """Melt for a seam: a half-round bead along it, and the gap under it [kg].

    Args:
        seam_m: length of the seam [m]
        bore_m: width of the bead [m]
        gap_m, deep_m: of the gap under it, zero for none [m]
        density_kg_m3: of the melt [kg/m3]
    Raises: OutOfRange.
    Source: geometry
    """
    require_range("seam_m", seam_m, 0.0, 100.0)
    return density_kg_m3 * seam_m * (math.pi * bore_m**2 / 8 + gap_m * deep_m)


def cap_high_m(wide_m: float, contact_rad: float) -> float:
    """How high a cap stands on its contact angle [m].

    Args:
        wide_m: on what it lies [m]
        contact_rad: above zero and under 90 degrees [rad]
    Raises: OutOfRange.
    Source: geometry
    """
    return wide_m / 2 * math.tan(require_range("contact_rad", contact_rad, 0.05, math.pi / 2) / 2)


def _cap_m3(wide_m: float, contact_rad: float) -> float:
    high = cap_high_m(wide_m, contact_rad)
    return math.pi * high * (3 * (wide_m / 2) ** 2 + high**2) / 6


def cap_wide_m(volume_m3: float, contact_rad: float) -> float:
    """How wide a cap of a volume lies on its contact angle [m].

    Args:
        volume_m3: above zero [m3]
        contact_rad: as for its height [rad]
    Raises: OutOfRange.
    Source: geometry
    """
    return math.cbrt(require_range("volume_m3", volume_m3, 1e-12, 1.0) / _cap_m3(1.0, contact_rad))


@dataclass(frozen=True, slots=True)
class Dab:
    """A dollop or dot: its volume [m3], how high it stands in its middle [m]."""

    volume: Spread
    high: Spread


def dab(melt: Material, wide_m: float, tapped: bool) -> Dab:
    """A dollop of melt as it lies: as high as its yield value lets it stand, and no higher than its contact angle.

    Spread by its own weight: rho g h dh/dr = tau, so h = sqrt(2 tau R / (rho g)) in the middle and V = 8 pi / 15 h R^2. Tapping
    leaves a share of the yield value. A small one is a cap on its contact angle.
    Args:
        melt: a fat with its Casson yield value; a sugar lies on its contact angle
        wide_m: on the sheet, 1 mm to 0.2 m
        tapped: the sheet or mould is tapped
    Raises: OutOfRange: wide_m outside.
    Source: roussel-coussot-2005, geometry, assumption
    """
    require_range("diameter_m", wide_m, 0.001, 0.2)
    usual, radius = material("kitchen", "usual", "film"), wide_m / 2
    cap = usual.spread("contact").map(lambda angle: _cap_m3(wide_m, angle))
    tall = usual.spread("contact").map(lambda angle: cap_high_m(wide_m, angle))
    stands = family_of(melt).stands_pa(melt)
    if stands is None:
        return Dab(cap, tall)
    weight = melt.value("density_melt") * GRAVITY_M_S2
    left = usual.value("tapped") if tapped else 1.0
    high = stands.map(lambda tau: math.sqrt(2 * left * tau * radius / weight))
    volume = high.times(8 * math.pi / 15 * radius**2)
    return Dab(_lesser(cap, volume), _lesser(tall, high))


def _lesser(a: Spread, b: Spread) -> Spread:
    return Spread(min(a.low, b.low), min(a.likely, b.likely), min(a.high, b.high))
