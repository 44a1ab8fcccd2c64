"""The shapes of a piece: its parts, and the passes each is built of. SI, names with their unit."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from umber_pebble.services.doc_base import Doc, Id, Name, Whole

Hex = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]
Share = Annotated[float, Field(ge=0, le=1)]
Thick = Annotated[float, Field(ge=0.00002, le=0.03)]
Weight = Annotated[float, Field(ge=0, le=5)]


class MeltRef(Doc):
    """A melt: a material in one colour; colour None: as it comes."""

    material: Id = Field(description="isomalt, a fat of the tables, or a fat of the workshop's own")
    colour: Hex | None

    @property
    def key(self) -> str:
        """What a plan knows it by."""
        return f"{self.material}{self.colour or ''}"


class DustPass(Doc):
    """Dust or glitter in the empty mould, or sprinkles and pieces on the wet melt."""

    kind: Literal["dust"]
    name: Name
    kg: Weight
    on_wet: bool


class DetailPass(Doc):
    """A detail, cap, accent or brushed coat on a share of the wall."""

    kind: Literal["detail"]
    name: Name
    melt: MeltRef
    share_frac: Share
    thick_m: Thick


class ShellPass(Doc):
    """An even layer on the wall; emptied: filled and tipped out; sides: only up the sides."""

    kind: Literal["shell"]
    melt: MeltRef
    thick_m: Thick
    emptied: bool
    sides: bool


class StickPass(Doc):
    """A stick or skewer; taken_out: it only makes a hole."""

    kind: Literal["stick"]
    diameter_m: float = Field(ge=0.001, le=0.02)
    inside_m: float = Field(ge=0.002, le=0.3)
    taken_out: bool


class CentrePass(Doc):
    """A solid centre that displaces melt."""

    kind: Literal["centre"]
    name: Name
    kg: Weight
    volume_m3: float = Field(ge=0, le=0.005)


class FillingPass(Doc):
    """A filling by the gap it leaves, or by weight."""

    kind: Literal["filling"]
    filling: Literal["cake", "ganache", "fruit"]
    gap_m: float | None = Field(ge=0, le=0.1)
    kg: float | None = Field(ge=0, le=5)
    degc: float = Field(ge=-20, le=100)
    loss_frac: float = Field(ge=0, le=0.5)


class ClosePass(Doc):
    """Melt to the rim, levelled."""

    kind: Literal["close"]
    melt: MeltRef


class FillPass(Doc):
    """A solid fill to a level; marbled with a share of a second melt."""

    kind: Literal["fill"]
    melt: MeltRef
    level_m: float = Field(ge=0.0002, le=0.1)
    second: MeltRef | None
    second_frac: float = Field(ge=0, le=0.95)


class TurnedPass(Doc):
    """The half of a hollow ball: its whole weight, turned over the wall."""

    kind: Literal["turned"]
    melt: MeltRef
    ball_kg: float = Field(ge=0.001, le=5)


Pass = Annotated[
    DustPass | DetailPass | ShellPass | StickPass | CentrePass | FillingPass | ClosePass | FillPass | TurnedPass,
    Field(discriminator="kind"),
]


class Stay(Doc):
    """From when a cast lies where, after its pour, and how it is kept there."""

    from_s: float = Field(ge=0, le=86_400)
    place_id: Id
    care: Literal["none", "wrapped", "hand"]


class Part(Doc):
    """Something cast on its own: how many of it a piece takes, its mould, its passes in order; bent: while it is soft; stays: the
    way it goes from its last pour, empty: as the order has it."""

    name: Name
    count: Whole = Field(ge=1, le=200)
    mould_id: Id
    cavity: Whole = Field(ge=0, le=11, description="which kind of the mould's cavities")
    passes: list[Pass] = Field(min_length=1, max_length=16)
    bent: bool
    stays: list[Stay] = Field(max_length=6)

    @property
    def melts(self) -> list[MeltRef]:
        """The melts of its passes, in order."""
        out = []
        for one in self.passes:
            for name in ("melt", "second"):
                melt = getattr(one, name, None)
                if isinstance(melt, MeltRef):
                    out.append(melt)
        return out


class Piece(Doc):
    name: Name
    parts: list[Part] = Field(min_length=1, max_length=12)

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: Any) -> Any:
        """A piece of an older version was one solid cast, with a stick put in or not."""
        if not isinstance(doc, dict) or "parts" in doc or "fill_m" not in doc:
            return doc
        old = {"stays": [], **doc}
        known = {"name", "material", "mould_id", "cavity", "fill_m", "work", "stick", "stays"}
        if set(old) - known:
            return doc
        melt = {"material": old["material"], "colour": None}
        passes = [{"kind": "fill", "melt": melt, "level_m": old["fill_m"], "second": None, "second_frac": 0.0}]
        if old.get("stick"):
            passes.append({"kind": "stick", **old["stick"], "taken_out": False})
        part = {
            "name": old["name"], "count": 1, "mould_id": old["mould_id"], "cavity": old["cavity"], "passes": passes,
            "bent": old["work"] == "bend", "stays": old["stays"],
        }  # fmt: skip
        return {"name": old["name"], "parts": [part]}
