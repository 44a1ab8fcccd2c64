"""The tables the engine reckons with, as they are shown: materials, moulds, places, and the workshop's own."""

from dataclasses import dataclass

from umber_pebble.core.families.family import Made, Rows, Solvent
from umber_pebble.core.families.known import family_of, is_melt
from umber_pebble.core.materials.load import Material, materials
from umber_pebble.core.plan.making import least_degc
from umber_pebble.core.spread import Spread
from umber_pebble.services import documents
from umber_pebble.services.materials_own import own_material
from umber_pebble.services.workshop import Workshop


@dataclass(frozen=True, slots=True)
class PropertyShown:
    """A value of a material with its range, unit and source."""

    name: str
    low: float
    likely: float
    high: float
    unit: str
    source: str


@dataclass(frozen=True, slots=True)
class FamilyShown:
    """A family of melts: its key, which words the screens have for it, what dissolves in it, whether it tempers, bends, leaves a skin on a wall."""

    key: str
    rows: Rows
    dissolves: Solvent
    tempers: bool
    bends: bool
    skins: bool
    nibs: bool
    wet: bool
    made: Made


@dataclass(frozen=True, slots=True)
class HeatedTo:
    """To what a melt is cooked or melted: as usual, and the least and most that is taken [degC]."""

    usual: Spread
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class MaterialShown:
    """A material of the tables with its values; family and heated_to None: it is no melt."""

    key: str
    name: str
    family: FamilyShown | None
    heated_to: HeatedTo | None
    properties: list[PropertyShown]


@dataclass(frozen=True, slots=True)
class Group:
    """Materials of one kind: melts, the workshop's own, fillings and films, moulds, places."""

    name: str
    rows: list[MaterialShown]


def tables(workshop: Workshop) -> list[Group]:
    """Every material the engine knows, with all its values."""
    own = [
        own_material(stored.id, doc)
        for stored in workshop.all("material")
        if isinstance(doc := stored.doc, documents.OwnMaterial)
    ]
    groups = {
        "melts": materials("melts").values(),
        "own": own,
        "fillings": materials("fillings").values(),
        "moulds": materials("moulds").values(),
        "surfaces": materials("surfaces").values(),
    }
    return [Group(name, [_shown(m) for m in rows]) for name, rows in groups.items()]


def _shown(m: Material) -> MaterialShown:
    of = family_of(m) if is_melt(m) else None
    family = (
        None
        if of is None
        else FamilyShown(of.key, of.rows, of.dissolves, of.tempers, of.bends, of.skins, of.nibs, of.wet, of.made)
    )
    rows = [
        PropertyShown(name, p.spread.low, p.value, p.spread.high, p.unit, p.source)
        for name, p in m.properties.items()
    ]
    heated = None if of is None else HeatedTo(m.spread(of.goes_to), least_degc(m), m.value("spoils_at"))
    return MaterialShown(m.key, m.name, family, heated, rows)
