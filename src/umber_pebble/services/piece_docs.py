"""The shapes of a piece: its parts, and the passes each is built of. SI, names with their unit."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from umber_pebble.services.doc_base import Doc, Id, Name, Whole

Hex = Annotated[str, Field(pattern=r"^#[0-9a-f]{6}$")]
Share = Annotated[float, Field(ge=0, le=1)]
Thick = Annotated[float, Field(ge=0.00002, le=0.03)]
Point = Annotated[list[Annotated[float, Field(ge=-1, le=1)]], Field(min_length=2, max_length=2)]
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
    outline: list[Point] | None = Field(
        min_length=3,
        max_length=400,
        description="its own outline from above, about the middle; then the share follows from it",
    )


class ShellPass(Doc):
    """An even layer on the wall; emptied: filled, tipped out after a while [s]; sides: only up the sides."""

    kind: Literal["shell"]
    melt: MeltRef
    thick_m: Thick
    emptied: bool
    sides: bool
    dwell_s: float = Field(ge=0, le=1800)


class StickPass(Doc):
    """A stick or skewer; taken_out: it only makes a hole; reseated: drawn back for the filling and pushed in again."""

    kind: Literal["stick"]
    diameter_m: float = Field(ge=0.001, le=0.02)
    inside_m: float = Field(ge=0.002, le=0.3)
    taken_out: bool
    reseated: bool


class CentrePass(Doc):
    """A solid centre that displaces melt."""

    kind: Literal["centre"]
    name: Name
    kg: Weight
    volume_m3: float = Field(ge=0, le=0.005)


class FillingPass(Doc):
    """A filling by the gap it leaves, or by weight."""

    kind: Literal["filling"]
    filling: Literal["cake", "ganache", "cream", "fruit"]
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
    """A hollow ball, cast whole in a mould of two halves: its whole weight, turned over the wall. Older ones were
    counted by halves, which were joined: they have no `whole`."""

    kind: Literal["turned"]
    melt: MeltRef
    ball_kg: float = Field(ge=0.001, le=5)
    whole: Literal[True]


class PastePass(Doc):
    """A paste pressed in by hand, by weight."""

    kind: Literal["paste"]
    paste: Literal["fondant", "gum_paste", "modelling_chocolate"]
    kg: Weight


class PrintPass(Doc):
    """A printed sheet or a texture: laid into the empty mould, or on the wet melt."""

    kind: Literal["print"]
    name: Name
    on_wet: bool


class DrizzlePass(Doc):
    """Lines over what is there: all their length, and how thick."""

    kind: Literal["drizzle"]
    melt: MeltRef
    length_m: float = Field(ge=0.005, le=100)
    bore_m: float = Field(ge=0.0005, le=0.02)


class DollopPass(Doc):
    """Dollops: how many, and how wide."""

    kind: Literal["dollop"]
    melt: MeltRef
    count: Whole = Field(ge=1, le=500)
    diameter_m: float = Field(ge=0.002, le=0.1)


class ClusterPass(Doc):
    """A heap of nuts or the like, bound by a share of melt."""

    kind: Literal["cluster"]
    name: Name
    melt: MeltRef
    inside_kg: float = Field(ge=0.0005, le=2)
    melt_frac: float = Field(ge=0.05, le=0.95)


class DipPass(Doc):
    """A dip: whole (line None) or to a line, at a slant; thickness None: what stays on it; marbled with a share of a second melt,
    floated on the bath and used up."""

    kind: Literal["dip"]
    melt: MeltRef
    line_m: float | None = Field(ge=0.001, le=0.4)
    slant_rad: float = Field(ge=0, le=1.2)
    thick_m: Thick | None
    second: MeltRef | None
    second_frac: float = Field(ge=0, le=0.95)


Pass = Annotated[
    DustPass | DetailPass | ShellPass | StickPass | CentrePass | FillingPass | ClosePass | FillPass | TurnedPass | PastePass | PrintPass
    | DrizzlePass | DollopPass | ClusterPass | DipPass,
    Field(discriminator="kind"),
]  # fmt: skip


class Body(Doc):
    """What is dipped: a fruit, a centre, or a former that is taken out again; tray: how many lie side by side."""

    name: Name
    made_of: Literal["fruit", "cake", "biscuit", "ganache", "balloon", "steel", "glass"]
    shape: Literal["ball", "cone", "rod"]
    diameter_m: float = Field(ge=0.003, le=0.3)
    high_m: float = Field(ge=0.003, le=0.3)
    degc: float = Field(ge=-30, le=40)
    tray: Whole = Field(ge=1, le=500)


NEW: dict[str, dict[str, Any]] = {
    "detail": {"outline": None}, "shell": {"dwell_s": 0.0}, "stick": {"reseated": False},
}  # fmt: skip
"""What passes of older versions did not have."""


class Stay(Doc):
    """From when a cast lies where, after its pour, and how it is kept there."""

    from_s: float = Field(ge=0, le=86_400)
    place_id: Id
    care: Literal["none", "wrapped", "hand"]


class Part(Doc):
    """Something cast on its own: how many of it a piece takes, its mould or the body that is dipped, its passes in order; bent:
    while it is soft, in its mould or released from it warm; seen: which of its faces; stays: the way it goes from its last pour, empty: as the order has it."""

    name: Name
    count: Whole = Field(ge=1, le=200)
    mould_id: Id | None
    body: Body | None
    seen: Literal["mould", "open"]
    cavity: Whole = Field(ge=0, le=11, description="which kind of the mould's cavities")
    passes: list[Pass] = Field(min_length=1, max_length=16)
    bent: bool
    released: bool = Field(description="bent after it was taken out warm, on a form")
    stays: list[Stay] = Field(max_length=6)

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: Any) -> Any:
        """A part of an older version had a mould, its mould side was seen, and its passes knew less."""
        if not isinstance(doc, dict):
            return doc
        passes = doc.get("passes")
        if isinstance(passes, list):
            passes = [NEW.get(str(p.get("kind")), {}) | p if isinstance(p, dict) else p for p in passes]
        return {"body": None, "seen": "mould", "released": False, **doc} | (
            {"passes": passes} if passes is not None else {}
        )

    @model_validator(mode="after")
    def _cast_or_dipped(self) -> "Part":
        if (self.mould_id is None) == (self.body is None):
            raise ValueError("a part is cast in a mould or made on a body: give one of them")
        return self

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


class Join(Doc):
    """Two parts put together, so many times in a piece: by a bead or dots of melt, by warming both faces, or by edible glue; the
    seam [m] or dots of one; gap and depth under a bead [m]; props: pieces they hold at once, 0: by hand."""

    part: Whole = Field(ge=0, le=11)
    to: Whole = Field(ge=0, le=11)
    by: Literal["melt", "soften", "glue"]
    melt: MeltRef
    count: Whole = Field(ge=1, le=200)
    seam_m: float = Field(ge=0, le=2)
    dots: Whole = Field(ge=0, le=50)
    bead_m: float = Field(ge=0.0005, le=0.03)
    gap_m: float = Field(ge=0, le=0.02)
    deep_m: float = Field(ge=0, le=0.05)
    props: Whole = Field(ge=0, le=500)


class Spot(Doc):
    """Where the middle of a part is in the piece that stands: beside the middle of its base, and over the board."""

    x_m: float = Field(ge=-1, le=1)
    z_m: float = Field(ge=0, le=2)


class Stand(Doc):
    """How a piece stands: where its parts are, the rectangle it stands on, the foot that carries it, and a wire to hang it from."""

    spots: list[Spot] = Field(min_length=1, max_length=12)
    base_m: float = Field(ge=0.005, le=1)
    base_deep_m: float = Field(ge=0.005, le=1)
    foot_wide_m: float = Field(ge=0.001, le=0.5)
    foot_thick_m: float = Field(ge=0.001, le=0.2)
    wire_m: float = Field(ge=0.0002, le=0.01)
    wire_in_m: float = Field(ge=0.001, le=0.3)


class Piece(Doc):
    """A finished item: its parts, how they are joined, in order, and how it stands, if that was asked."""

    name: Name
    parts: list[Part] = Field(min_length=1, max_length=12)
    joins: list[Join] = Field(max_length=12)
    stand: Stand | None

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: Any) -> Any:
        """A piece of an older version was one solid cast, with a stick put in or not."""
        if not isinstance(doc, dict):
            return doc
        if "parts" in doc or "fill_m" not in doc:
            return _whole_balls({"joins": [], "stand": None, **doc})
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
        return {"name": old["name"], "parts": [part], "joins": [], "stand": None}


def _whole_balls(doc: dict[str, Any]) -> dict[str, Any]:
    """Balls that were counted by halves and joined, counted whole: half as many, and no join of a part to itself."""
    parts, joins = doc.get("parts"), doc.get("joins")
    if not isinstance(parts, list) or not isinstance(joins, list):
        return doc
    whole = {i: one for i, part in enumerate(parts) if (one := _of_halves(part)) is not None}
    kept = [
        j for j in joins if not (isinstance(j, dict) and j.get("part") == j.get("to") and j.get("part") in whole)
    ]
    return doc | {"parts": [whole.get(i, part) for i, part in enumerate(parts)], "joins": kept}


def _of_halves(part: Any) -> dict[str, Any] | None:
    """A part of an older version that was half a ball, as a whole one; None of any other."""
    passes, count = (part.get("passes"), part.get("count")) if isinstance(part, dict) else (None, None)
    if not isinstance(passes, list) or not isinstance(count, int):
        return None
    halves = [isinstance(p, dict) and p.get("kind") == "turned" and "whole" not in p for p in passes]
    if not any(halves):
        return None
    made = [p | {"whole": True} if half else p for p, half in zip(passes, halves, strict=True)]
    return {**part, "count": max(1, count // 2), "passes": made}
