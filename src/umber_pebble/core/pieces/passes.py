"""The passes of a build: each one act that puts something into a cavity, or on what is in it."""

from dataclasses import dataclass

from umber_pebble.core.materials.load import Material


@dataclass(frozen=True, slots=True)
class Melt:
    """A material in one colour; key is what a plan knows it by."""

    key: str
    material: Material


@dataclass(frozen=True, slots=True)
class Dust:
    """Dust or glitter laid into the empty mould, or sprinkles and pieces on the wet melt: grams a casting [kg]."""

    kg: float
    on_wet: bool


@dataclass(frozen=True, slots=True)
class Detail:
    """A detail, cap, accent or brushed coat: a share of the cavity's surface, so thick [frac, m]; outline: its own, seen from above,
    corners about the middle of the cavity [m], which then says its share."""

    melt: Melt
    share_frac: float
    thick_m: float
    outline: tuple[tuple[float, float], ...] | None = None


@dataclass(frozen=True, slots=True)
class Shell:
    """An even layer on wall and floor [m]; emptied: the cavity is filled and tipped out, otherwise it is spread by spoon or brush.

    A second shell goes on the first; sides: only on the wall, from a third of the depth up; dwell_s: how long the mould stands full
    before it is tipped out [s].
    """

    melt: Melt
    thick_m: float
    emptied: bool
    sides: bool
    dwell_s: float = 0.0


@dataclass(frozen=True, slots=True)
class Rod:
    """A stick or skewer: its diameter and how much of it is inside [m]; taken_out: it only makes the hole."""

    diameter_m: float
    inside_m: float
    taken_out: bool


@dataclass(frozen=True, slots=True)
class Centre:
    """A solid centre: a nut, a fruit, a ball of paste; grams and what it displaces [kg, m3]."""

    kg: float
    volume_m3: float


@dataclass(frozen=True, slots=True)
class Filling:
    """A filling: by the gap it leaves to the rim [m], or by weight [kg]; how warm it goes in [degC]; share that stays in bag or
    spoon [frac]."""

    of: Material
    gap_m: float | None
    kg: float | None
    degc: float
    loss_frac: float


@dataclass(frozen=True, slots=True)
class Close:
    """Melt from what is in the cavity to the rim, levelled."""

    melt: Melt


@dataclass(frozen=True, slots=True)
class Fill:
    """A solid fill to a level [m]; marbled with a second melt, a share of it, the good side first."""

    melt: Melt
    level_m: float
    second: Melt | None = None
    second_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class Turned:
    """A hollow ball: all its melt poured into one half of its mould and turned over the wall of both [kg]."""

    melt: Melt
    ball_kg: float


@dataclass(frozen=True, slots=True)
class Paste:
    """A paste pressed in by hand, by weight [kg]: fondant, gum paste, modelling chocolate."""

    of: Material
    kg: float


@dataclass(frozen=True, slots=True)
class Drizzle:
    """Lines let fall or piped: all their length, and how thick [m]."""

    melt: Melt
    length_m: float
    bore_m: float


@dataclass(frozen=True, slots=True)
class Dollop:
    """Dollops of a diameter [m]: how many."""

    melt: Melt
    count: int
    diameter_m: float


@dataclass(frozen=True, slots=True)
class Cluster:
    """A heap of nuts or the like bound by melt: the nuts [kg], and the melt's share of the heap [frac]."""

    melt: Melt
    inside_kg: float
    melt_frac: float


@dataclass(frozen=True, slots=True)
class Dip:
    """A body dipped whole (line_m None) or to a line over its lowest point [m], which stands at a slant [rad]; thick_m: of the coat,
    None: what stays on it [m]; marbled: a share of a second melt, floated on the bath and used up with it."""

    melt: Melt
    line_m: float | None
    slant_rad: float
    thick_m: float | None
    second: Melt | None = None
    second_frac: float = 0.0


Pass = (
    Dust
    | Detail
    | Shell
    | Rod
    | Centre
    | Filling
    | Close
    | Fill
    | Turned
    | Paste
    | Drizzle
    | Dollop
    | Cluster
    | Dip
)


def melts_of(one: Pass) -> tuple[tuple[Melt, float], ...]:
    """The melts of a pass with their shares [frac]; none of one that has none. Source: definition"""
    if isinstance(one, (Fill, Dip)) and one.second is not None and one.second_frac > 0:
        return (one.melt, 1 - one.second_frac), (one.second, one.second_frac)
    melt = getattr(one, "melt", None)
    return ((melt, 1.0),) if melt is not None else ()
