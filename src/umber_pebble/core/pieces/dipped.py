"""What is dipped or made outside, as a piece tells of it."""

from dataclasses import dataclass
from typing import Annotated, Literal

from umber_pebble.core.pieces.fields import Number, Shape
from umber_pebble.core.texts import Name


@dataclass(frozen=True, slots=True)
class Dipped(Shape):
    """A fruit, a centre, or a former that is taken out again: its shape, how wide and high, how warm it is dipped; tray: how many lie
    side by side."""

    name: Name
    made_of: Literal["fruit", "cake", "biscuit", "ganache", "balloon", "steel", "glass"]
    shape: Literal["ball", "cone", "rod"]
    diameter_m: Annotated[float, Number("m", 0.003, 0.3, 1.0)]
    high_m: Annotated[float, Number("m", 0.003, 0.3, 1.0)]
    degc: Annotated[float, Number("degC", -30.0, 40.0, 1.0)]
    tray: Annotated[int, Number("count", 1, 500, 1.0)]
