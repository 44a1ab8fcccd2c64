"""The workshop's own materials: a maker's sheet over a relative of the tables; and what may be cast."""

from collections.abc import Mapping

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.families.known import is_melt
from umber_pebble.core.materials.load import Material, like, material, materials
from umber_pebble.core.spread import Spread
from umber_pebble.services.documents import OwnMaterial

LARGEST_CHANGE, FARTHEST_K = 5.0, 40.0


def check_sheet(doc: OwnMaterial) -> None:
    """Whether a sheet can be one of a relative of the tables.

    Raises: OutOfRange: it speaks of something the relative does not have, says it twice, or is far from it.
    """
    relative = material("melts", doc.like)
    for i, row in enumerate(doc.sheet):
        at, path = relative.properties.get(row.name), f"sheet.{i}.likely"
        if at is not None and at.unit == "degC":
            require_range(path, row.likely, at.value - FARTHEST_K, at.value + FARTHEST_K)
        elif at is not None:
            low, high = sorted((at.value / LARGEST_CHANGE, at.value * LARGEST_CHANGE))
            require_range(path, row.likely, low, high)
        if not row.low <= row.likely <= row.high:
            raise OutOfRange("low, likely and high must rise", path=path, got=row.likely)
    names = [row.name for row in doc.sheet]
    if len(set(names)) != len(names):
        raise OutOfRange("a value stands twice in the sheet", path="sheet", got=str(names))
    own_material("", doc)


def own_material(key: str, doc: OwnMaterial) -> Material:
    """A material of the workshop's own: its relative with what the maker's sheet says.

    Raises: OutOfRange: the sheet speaks of something the relative does not have.
    """
    sheet = tuple((row.name, Spread(row.low, row.likely, row.high)) for row in doc.sheet)
    return like(material("melts", doc.like), key, doc.name, sheet)


def castable(key: str, own: Mapping[str, OwnMaterial], path: str) -> Material:
    """A melt that a piece may be cast of, of any family.

    Raises: OutOfRange: there is none of that name.
    """
    tables = materials("melts")
    melt = own_material(key, own[key]) if key in own else tables.get(key)
    if melt is None or not is_melt(melt):
        raise OutOfRange(
            "there is no such melt: choose another", path=path, got=key, limits={"one_of": [*tables, *own]}
        )
    return melt
