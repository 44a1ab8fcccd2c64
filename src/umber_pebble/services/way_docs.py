"""How an order makes its melts: a way for each family of melts it has to do with."""

from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field, model_validator

from umber_pebble.services.doc_base import Doc, Id


class InVessel(Doc):
    """What is made in a vessel: where that stands off the heat, where it is kept warm, None: nowhere, and where moulds set."""

    vessel_id: Id
    stand_id: Id
    kept_id: Id | None
    place_id: Id

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: object) -> object:
        """One of an older version kept nothing warm."""
        return {"kept_id": None, **doc} if isinstance(doc, dict) else doc

    def for_portions(self, oven_id: str) -> Self:
        """The same of what is made already and divided off, warmed again in a microwave."""
        return self


class Divides(InVessel):
    """divided: its colours come out of one pot, in which it is melted as it comes, instead of each out of its own."""

    divided: bool

    @model_validator(mode="before")
    @classmethod
    def _each_by_itself(cls, doc: object) -> object:
        """One of an older version melted each colour by itself."""
        return {"divided": False, **doc} if isinstance(doc, dict) else doc


class CookedWay(Divides):
    """How a sugar is cooked."""

    kind: Literal["cooked"]
    ring_id: Id
    crystalline: bool
    water: Literal["auto", "dry", "wet"]
    cook_degc: float = Field(ge=130, le=200)

    def for_portions(self, oven_id: str) -> Self:
        return self.model_copy(update={"ring_id": oven_id, "crystalline": False, "water": "dry"})


class MeltedWay(Divides):
    """How a coating is melted (by a microwave or a bath of the kitchen), and poured where it stands."""

    kind: Literal["melted"]
    by_id: Id
    melt_to_degc: float = Field(ge=36, le=50)
    power: Literal["full", "half"] = Field(description="of a microwave")
    stop: Literal["lumps", "through"] = Field(
        description="with a few lumps left to be stirred out, or melted through"
    )


class TemperedWay(InVessel):
    """How couvertures are melted and tempered, and poured where they stand; seed_degc: how warm seed, slab or cold water is. What is in
    temper is not divided: it would be out of it in a cold vessel."""

    divided: ClassVar[bool] = False

    kind: Literal["tempered"]
    by_id: Id
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
