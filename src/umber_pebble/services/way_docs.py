"""How an order makes its melts: a way for each family of melts it has to do with."""

from typing import Annotated, Any, Literal

from pydantic import Field

from umber_pebble.services.doc_base import Doc, Id


class CookedWay(Doc):
    """How a sugar is cooked, and where its moulds lie."""

    kind: Literal["cooked"]
    vessel_id: Id
    stand_id: Id
    ring_id: Id
    place_id: Id
    crystalline: bool
    water: Literal["auto", "dry", "wet"]
    cook_degc: float = Field(ge=130, le=200)


class MeltedWay(Doc):
    """How a coating is melted (by a microwave or a bath of the kitchen), where it is poured and where it sets."""

    kind: Literal["melted"]
    vessel_id: Id
    stand_id: Id
    by_id: Id
    place_id: Id
    melt_to_degc: float = Field(ge=36, le=50)
    power: Literal["full", "half"] = Field(description="of a microwave")
    stop: Literal["lumps", "through"] = Field(
        description="with a few lumps left to be stirred out, or melted through"
    )


class TemperedWay(Doc):
    """How couvertures are melted and tempered, where they are poured and where they set; seed_degc: how warm seed, slab or cold
    water is."""

    kind: Literal["tempered"]
    vessel_id: Id
    stand_id: Id
    by_id: Id
    place_id: Id
    power: Literal["full", "half"]
    school: Literal["seed", "powder", "slab", "bowls", "keep", "none"]
    seed_degc: float = Field(ge=0, le=30)


WayDoc = Annotated[CookedWay | MeltedWay | TemperedWay, Field(discriminator="kind")]

SEED_DEGC = 20.0
# a field of its own for each, before orders had ways by family
OLDER = {"isomalt": "cooked", "coating": "melted", "couverture": "tempered"}
OLDER_MELTED = {"power": "full", "stop": "through"}


def older_ways(doc: dict[str, Any]) -> dict[str, Any]:
    """An order of an older version, with its ways by family; one that knew no couverture seeds it where coating is melted."""
    if "ways" in doc or not OLDER.keys() & doc.keys():
        return doc
    given = {family: doc[family] for family in OLDER if isinstance(doc.get(family), dict)}
    rest = {key: value for key, value in doc.items() if key not in OLDER}
    if "coating" in given:
        coating = given["coating"] = OLDER_MELTED | given["coating"]
        same = {key: coating.get(key) for key in ("vessel_id", "stand_id", "by_id", "place_id")}
        given.setdefault("couverture", same | {"power": "full", "school": "seed", "seed_degc": SEED_DEGC})
    return rest | {"ways": {family: {"kind": OLDER[family]} | way for family, way in given.items()}}
