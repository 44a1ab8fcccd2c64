"""Passes as tests write them: what is usual left out."""

from umber_pebble.core.pieces.melt_ref import MeltRef
from umber_pebble.core.pieces.passes.centre import Centre
from umber_pebble.core.pieces.passes.cluster import Cluster
from umber_pebble.core.pieces.passes.detail import Detail
from umber_pebble.core.pieces.passes.dip import Dip
from umber_pebble.core.pieces.passes.dust import Dust
from umber_pebble.core.pieces.passes.fill import Fill
from umber_pebble.core.pieces.passes.filling import Filling
from umber_pebble.core.pieces.passes.shell import Shell
from umber_pebble.core.pieces.passes.stick import Stick

COATING, DARK, ISOMALT = (MeltRef(key, None) for key in ("coating", "dark", "isomalt"))


def detail(
    melt: MeltRef, share_frac: float, thick_m: float, outline: tuple[tuple[float, float], ...] | None = None
) -> Detail:
    return Detail("Cap", melt, outline, share_frac, thick_m, "piped")


def shell(melt: MeltRef, thick_m: float, emptied: bool = False, sides: bool = False) -> Shell:
    return Shell(melt, thick_m, emptied, sides, 0.0, ())


def fill(melt: MeltRef, level_m: float) -> Fill:
    return Fill(melt, level_m, (), None)


def dip(melt: MeltRef, line_m: float | None = None, slant_rad: float = 0.0, thick_m: float | None = None) -> Dip:
    return Dip(melt, line_m, slant_rad, thick_m, ())


def filling(of: str, gap_m: float | None, kg: float | None, degc: float, loss_frac: float = 0.0) -> Filling:
    return Filling(of, gap_m, kg, degc, loss_frac)  # type: ignore[arg-type]


def stick(diameter_m: float = 0.004, inside_m: float = 0.03, hole: bool = False) -> Stick:
    return Stick(diameter_m, inside_m, "hole" if hole else "stays")


def dust(kg: float, on_wet: bool) -> Dust:
    return Dust("Salt", kg, on_wet, "food")


def centre(kg: float, volume_m3: float) -> Centre:
    return Centre("Nut", kg, volume_m3)


def cluster(melt: MeltRef, inside_kg: float, melt_frac: float) -> Cluster:
    return Cluster("Nuts", melt, inside_kg, melt_frac)
