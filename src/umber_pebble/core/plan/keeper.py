"""What keeps melts warm between their pours."""

from dataclasses import dataclass

from umber_pebble.core.heat.vessel import Pot


@dataclass(frozen=True, slots=True)
class Keeper:
    """What keeps so many vessels warm, a water bath, warming plate or oven; pot: a melt's vessel in it as the engine takes it."""

    id: str
    pot: Pot
    takes: int
