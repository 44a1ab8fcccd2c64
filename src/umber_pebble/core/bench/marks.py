"""Temperatures that a ribbon's scale is marked with, by what lies in it [degC]."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.heat.windows import PieceWindows

Spoilt = Literal["browns", "overheats"]


@dataclass(frozen=True, slots=True)
class HeatingMarks:
    """On the heat: from where it is ready, and what becomes of it from where."""

    ready: float
    spoils: float
    spoilt: Spoilt
    of: Literal["heating"] = "heating"


@dataclass(frozen=True, slots=True)
class PotMarks:
    """Off the heat: it may be poured below pour_opens and above pour_closes, and is stiff below stiff."""

    pour_opens: float
    pour_closes: float
    stiff: float
    of: Literal["pot"] = "pot"


@dataclass(frozen=True, slots=True)
class TemperMarks:
    """A bowl that is tempered: where it works, where its temper is lost, from where to melt it and where it spoils."""

    pot: PotMarks
    work_low: float
    work_high: float
    loses: float
    melt_low: float
    spoils: float
    of: Literal["temper"] = "temper"


@dataclass(frozen=True, slots=True)
class HeldMarks:
    """A batch held: it flows above flows and is stiff below stiff; what sets in time has both where it melts."""

    flows: float
    stiff: float
    of: Literal["held"] = "held"


@dataclass(frozen=True, slots=True)
class GlassMarks:
    """A cast of sugar: it bends below bend_opens and above bend_closes, and is glass below glass."""

    bend_opens: float
    bend_closes: float
    glass: float
    of: Literal["glass"] = "glass"


@dataclass(frozen=True, slots=True)
class SettingMarks:
    """A cast of fat: it lets go below unmould, once it has set, and may crack below over_chilled."""

    unmould: float
    over_chilled: float
    of: Literal["setting"] = "setting"


Marks = HeatingMarks | PotMarks | TemperMarks | HeldMarks | GlassMarks | SettingMarks


def marks_of(w: PieceWindows) -> GlassMarks | SettingMarks:
    """What a cast's scale is marked with [degC]. Source: definition"""
    at = w.limits
    if "bend_opens" in at:
        return GlassMarks(at["bend_opens"], at["bend_closes"], at["glass"])
    return SettingMarks(at["unmould_degc"], at["over_chilled"])
