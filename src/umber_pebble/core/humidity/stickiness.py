"""From which room humidity a sugar piece stays sticky."""

from umber_pebble.core.errors import require_range
from umber_pebble.core.glass.viscosity import tg_gordon_taylor_1952_degc
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread

GAB_M0, GAB_C, GAB_K = 0.033, 8.0, 1.05
STICKY_ABOVE_TG_K = Spread(10.0, 15.0, 20.0)


def water_gab_frac(humidity_frac: float) -> float:
    """Water that a sugar glass takes up from air of this humidity, by mass of the whole [frac].

    Args:
        humidity_frac: 0 to 0.9
    Raises: OutOfRange: humidity_frac outside.
    Source: gab-isotherm
    """
    require_range("humidity_frac", humidity_frac, 0.0, 0.9)
    ka = GAB_K * humidity_frac
    dry_basis = GAB_M0 * GAB_C * ka / ((1 - ka) * (1 - ka + GAB_C * ka))
    return dry_basis / (1 + dry_basis)


def sticky_from_frac(material: Material, room_degc: float) -> Spread:
    """Relative humidity from which the surface is sticky: 10 to 20 K above its own Tg [frac].

    Args:
        material: the sugar
        room_degc: room temperature, 0 to 45 [degC]
    Raises: OutOfRange: room_degc outside.
    Source: gab-isotherm, gordon-taylor-1952, assumption
    """
    require_range("room_degc", room_degc, 0.0, 45.0)
    dry, water, k = (material.value(n) for n in ("tg_dry", "tg_water", "gordon_taylor_k"))

    def humidity_at(above_k: float) -> float:
        low, high = 0.0, 0.9
        for _ in range(50):
            mid = (low + high) / 2
            tg = tg_gordon_taylor_1952_degc(min(water_gab_frac(mid), 0.3), dry, water, k)
            low, high = (mid, high) if room_degc - tg < above_k else (low, mid)
        return low

    return STICKY_ABOVE_TG_K.map(humidity_at)
