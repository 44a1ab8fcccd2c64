"""Laid with its film over a curved form, or folded with it to a V."""

from dataclasses import dataclass
from typing import Annotated, Literal

from umber_pebble.core.pieces.fields import Number
from umber_pebble.core.pieces.passes.base import First, LayStyle, PassKind
from umber_pebble.core.pieces.passes.shaped import Shaped
from umber_pebble.core.pieces.transfers import ShapedAs


@dataclass(frozen=True, slots=True)
class Curved(Shaped):
    """Over a form so wide across, or folded to a V that opens so wide; its ends held by the form itself, or by magnets."""

    how: Literal["curve", "v"]
    form_m: Annotated[float, Number("m", 0.005, 1.0, 1.0, large=True)]
    held: Literal["form", "magnets"]
    forms_count: Annotated[int, Number("count", 1, 200, 1.0)]
    kind: Literal["curved"] = "curved"

    @classmethod
    def firsts(cls, first: First) -> dict[LayStyle | None, PassKind]:
        return {None: cls("curve", 0.08, "form", 2)}

    def shaped(self) -> ShapedAs:
        return ShapedAs(self.how, self.form_m, 0.0, self.held == "magnets")
