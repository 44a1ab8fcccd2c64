"""Every family there is, by its key."""

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.family import Family
from umber_pebble.core.families.fats import COATING, COUVERTURE
from umber_pebble.core.families.glass import CARAMEL, COOKED_SUGAR, ISOMALT
from umber_pebble.core.materials.load import Material

FAMILIES: dict[str, Family] = {of.key: of for of in (ISOMALT, COOKED_SUGAR, CARAMEL, COATING, COUVERTURE)}


def family_of(melt: Material) -> Family:
    """The family of a melt [1].

    Raises: OutOfRange: it is none, as a filling, a mould or a film.
    Source: definition
    """
    if melt.family not in FAMILIES:
        raise OutOfRange(
            f"{melt.name} is no melt", path="material", got=melt.key, limits={"one_of": list(FAMILIES)}
        )
    return FAMILIES[melt.family]


def is_melt(of: Material) -> bool:
    """Whether something belongs to a family of melts [1]. Source: definition"""
    return of.family in FAMILIES
