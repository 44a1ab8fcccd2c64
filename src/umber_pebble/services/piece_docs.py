"""The shapes of a piece: its parts, the passes each is built of (core/pieces/passes), its joins. SI, names with their unit."""

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationInfo, model_validator

from umber_pebble.core.pieces.dipped import Dipped
from umber_pebble.core.pieces.joining.base import Join
from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.known import Pass as AnyPass
from umber_pebble.services.doc_base import Doc, Id, Name, Whole, is_stored, one_line

MOST_PASSES = 16
Pass = Annotated[AnyPass, Field(discriminator="kind")]


def _newer(told: Any, stored: bool) -> Any:
    """A pass of an older version, which knew less, with what it did not have."""
    if not isinstance(told, dict):
        return told
    told = {**NEW.get(str(told.get("kind")), {}), **told}
    if "taken_out" in told:
        out, again = told.pop("taken_out"), told.pop("reseated", False)
        told["use"] = "hole" if out is True else "reseated" if again is True else "stays"
    if "second_frac" in told:
        second, frac = told.pop("second", None), told.pop("second_frac")
        shared = second is not None and isinstance(frac, float) and frac >= LEAST_FRAC
        told["others"] = [{"melt": second, "share_frac": frac}] if shared else []
    if isinstance(told.get("others"), list):
        told["others"] = [_named_share(of) for of in told["others"]]
    if "name" in told:
        told["name"] = one_line(told["name"], stored)
    return {name: _fixed(value) for name, value in told.items()}


def _named_share(of: Any) -> Any:
    """A melt's share, which an older version called otherwise."""
    if not isinstance(of, dict) or "frac" not in of:
        return of
    return {("share_frac" if name == "frac" else name): value for name, value in of.items()}


def _fixed(value: Any) -> Any:
    """What JSON can only say as a list, as the tuple that a pass holds."""
    return tuple(_fixed(of) for of in value) if isinstance(value, list) else value


NEW: dict[str, dict[str, Any]] = {
    "dust": {"status": "food"},
    "detail": {"outline": None, "by": "piped"},
    "shell": {"dwell_s": 0.0, "others": []},
    "fill": {"stripes_m": None},
    **{kind: {"colour": None} for kind in ("paste", "ball", "rope", "rolled", "ribbon", "rose")},
    "print": {"of": "transfer", "made_for": "food", "in_row": 1, "laid": "flat"},
}
"""What passes of older versions did not have."""
LEAST_FRAC = 0.01
"""Of a second melt of an older version so much is one of the others [frac]."""


class StayDoc(Doc):
    """From when a cast lies where, after its pour, and how it is kept there."""

    from_s: float = Field(ge=0, le=86_400)
    place_id: Id
    care: Literal["none", "wrapped", "hand"]


class Part(Doc):
    """Something made on its own: how many of it a piece takes, its mould or the body that is dipped, none of them where it is modelled by
    hand, its passes in order; bent:
    while it is soft, in its mould or released from it warm; seen: which of its faces; stays: the way it goes from its last pour, empty: as the order has it."""

    name: Name
    count: Whole = Field(ge=1, le=200)
    mould_id: Id | None
    body: Dipped | None
    seen: Literal["mould", "open"]
    cavity: Whole = Field(ge=0, le=11, description="which kind of the mould's cavities")
    passes: list[Pass] = Field(min_length=1, max_length=MOST_PASSES)
    bent: bool
    released: bool = Field(description="bent after it was taken out warm, on a form")
    stays: list[StayDoc] = Field(max_length=6)

    @model_validator(mode="before")
    @classmethod
    def _older(cls, doc: Any, info: ValidationInfo) -> Any:
        """A part of an older version had a mould, its mould side was seen, and its passes knew less."""
        if not isinstance(doc, dict):
            return doc
        passes = doc.get("passes")
        if isinstance(passes, list):
            passes = [_newer(one, is_stored(info)) for one in passes]
        return {"body": None, "seen": "mould", "released": False, **doc} | (
            {"passes": passes} if passes is not None else {}
        )

    @model_validator(mode="after")
    def _cast_or_dipped(self) -> "Part":
        if self.mould_id is not None and self.body is not None:
            raise ValueError(
                "a part is cast in a mould or made on a body, not both: give one of them, or none if it is modelled"
            )
        return self

    @property
    def by_hand(self) -> bool:
        """Whether it is modelled of paste, in no mould and on no body."""
        return self.mould_id is None and self.body is None

    @property
    def melts(self) -> list[MeltRef]:
        """The melts of its passes, in order."""
        return [melt for one in self.passes for melt in one.refs().values()]


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
        passes = [{"kind": "fill", "melt": melt, "level_m": old["fill_m"], "others": [], "stripes_m": None}]
        if old.get("stick"):
            passes.append({"kind": "stick", **old["stick"], "taken_out": False})
        part = {
            "name": old["name"],
            "count": 1,
            "mould_id": old["mould_id"],
            "cavity": old["cavity"],
            "passes": passes,
            "bent": old["work"] == "bend",
            "stays": old["stays"],
        }
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
