"""A sheet that is poured or spread, and cut, as a document has it."""

from pydantic import Field

from umber_pebble.core.moulds.cutting import CutSheet
from umber_pebble.services.doc_base import Doc


class Sheet(Doc):
    """How large it is, how wide a web stays between two pieces and a margin at its edge, and whether pieces may be turned by a quarter, or
    only upside down, since its stripes run along it."""

    length_m: float = Field(ge=0.03, le=1.2)
    width_m: float = Field(ge=0.03, le=1.2)
    web_m: float = Field(ge=0.0005, le=0.05)
    margin_m: float = Field(ge=0, le=0.1)
    turned: bool

    def cut(self) -> CutSheet:
        """As the engine takes it."""
        return CutSheet(self.length_m, self.width_m, self.web_m, self.margin_m, self.turned)
