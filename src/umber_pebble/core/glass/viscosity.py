"""Viscosity of sugar glass from temperature and water, and the temperatures of its windows."""

from umber_pebble.core.errors import require_range
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, combine

WLF_C1 = 17.44
WLF_C2_K = 51.6
LOG_VISC_AT_TG = 12.0


def log_viscosity_wlf_1955(temp_degc: float, tg_degc: float) -> float:
    """log10 of the viscosity in Pa s, with the universal constants [log10 Pa s].

    Above Tg; taken down to the strain point, 4 K below it.
    Args:
        temp_degc: temperature, above tg - 51.6 [degC]
        tg_degc: glass transition [degC]
    Raises: OutOfRange: temp_degc is so far below Tg that the law has no value.
    Source: williams-landel-ferry-1955
    """
    require_range("temp_degc", temp_degc, tg_degc - WLF_C2_K + 1.0, 400.0)
    above = temp_degc - tg_degc
    return LOG_VISC_AT_TG - WLF_C1 * above / (WLF_C2_K + above)


def temperature_at_log_viscosity_degc(log_visc: float, tg_degc: float) -> float:
    """Temperature at which the melt has this viscosity: the law above, solved for T [degC].

    Args:
        log_visc: log10 of the viscosity in Pa s, from -4 to 14
        tg_degc: glass transition [degC]
    Raises: OutOfRange: log_visc outside -4..14.
    Source: williams-landel-ferry-1955
    """
    require_range("log_visc", log_visc, -4.0, 14.0)
    drop = LOG_VISC_AT_TG - log_visc
    return tg_degc + WLF_C2_K * drop / (WLF_C1 - drop)


def tg_gordon_taylor_1952_degc(water_frac: float, tg_dry_degc: float, tg_water_degc: float, k: float) -> float:
    """Glass transition of a mixture of sugar and water [degC].

    Args:
        water_frac: water by mass, 0 to 0.3
        tg_dry_degc, tg_water_degc: glass transitions of the parts [degC]
        k: Gordon-Taylor constant, above zero
    Raises: OutOfRange: water_frac outside 0..0.3.
    Source: gordon-taylor-1952
    """
    require_range("water_frac", water_frac, 0.0, 0.3)
    sugar = 1.0 - water_frac
    return (sugar * tg_dry_degc + k * water_frac * tg_water_degc) / (sugar + k * water_frac)


def tg_spread_degc(material: Material, water: Spread) -> Spread:
    """Glass transition of a material at its water left, with spread [degC].

    Source: gordon-taylor-1952
    """
    dry, tw, k = (material.spread(n) for n in ("tg_dry", "tg_water", "gordon_taylor_k"))

    def tg(w: float, d: float, kk: float) -> float:
        return tg_gordon_taylor_1952_degc(w, d, tw.likely, kk)

    return combine(
        tg(water.likely, dry.likely, k.likely),
        [
            [tg(w, dry.likely, k.likely) for w in (water.low, water.high)],
            [tg(water.likely, d, k.likely) for d in (dry.low, dry.high)],
            [tg(water.likely, dry.likely, kk) for kk in (k.low, k.high)],
        ],
    )
