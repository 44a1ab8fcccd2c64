"""Tempering by seed: how much, from a heat balance of melt, seed and bowl; what a reading afterwards says."""

from collections.abc import Callable
from dataclasses import dataclass

from umber_pebble.core.errors import OutOfRange, require_range
from umber_pebble.core.fat.crystallise import setting_of
from umber_pebble.core.materials.load import Material
from umber_pebble.core.spread import Spread, combine


@dataclass(frozen=True, slots=True)
class Bowl:
    """What the melt is in: its weight [kg] and heat capacity [J/kgK], and the share of it that follows the melt [frac]."""

    mass_kg: float
    cp_j_kgk: float
    follows_frac: float = 0.7


@dataclass(frozen=True, slots=True)
class Seeding:
    """A bowl to be seeded: the melt and how much of it, how warm melt and seed are, where it is to end, the share of the seed
    that melts on the way."""

    melt: Material
    melt_kg: float
    melt_degc: float
    seed_degc: float
    work_degc: float
    bowl: Bowl
    melts_frac: Spread

    def __post_init__(self) -> None:
        require_range("melt_kg", self.melt_kg, 0.01, 20.0)
        require_range("melt_degc", self.melt_degc, 25.0, 60.0)
        require_range("seed_degc", self.seed_degc, 0.0, 40.0)
        if self.seed_degc >= self.work_degc - 1.0:
            raise OutOfRange(
                f"seed at {self.seed_degc:g} degC does not cool a melt to {self.work_degc:g} degC and loses its temper: "
                "let it lie in a cooler place",
                path="seed_degc",
                got=self.seed_degc,
                limits={"high": self.work_degc - 1.0},
            )
        if self.melt_degc <= self.work_degc:
            raise OutOfRange(
                f"the melt is at {self.melt_degc:g} degC, no warmer than it is to be: warm it until nothing old is left in it",
                path="melt_degc",
                got=self.melt_degc,
                limits={"low": self.work_degc},
            )


@dataclass(frozen=True, slots=True)
class SeedPlan:
    """Seed to stir in, with what its melted share makes uncertain [kg]; its share of the whole [frac]; what it weighs in all;
    how much of the seed is not melted when it is there and must come out or melt on [kg]."""

    seed_kg: Spread
    share_frac: float
    whole_kg: float
    unmelted_kg: float


def seeded_degc(melt: Material, melt_degc: float) -> float:
    """How warm a bowl is when its seed goes in: cooled with stirring to where it is practised, or as it is where that is cooler [degC].

    Args:
        melt: a couverture
        melt_degc: of the bowl
    Source: common-practice, assumption
    """
    return min(melt_degc, melt.value("seed_at"))


def seed_kg(s: Seeding, melts_frac: float, cp_factor: float = 1.0) -> float:
    """Seed that brings melt and bowl to the working temperature, its melted share taking its heat of melting [kg].

    Args:
        s: the bowl
        melts_frac: of the seed that melts, 0 to 1
        cp_factor: on the melt's heat capacity
    Raises: OutOfRange: melts_frac outside.
    Source: incropera-2007 (energy balance), beckett-2009
    """
    require_range("melts_frac", melts_frac, 0.0, 1.0)
    melt = s.melt
    gives = (
        s.melt_kg * melt.value("cp_melt") * cp_factor + s.bowl.follows_frac * s.bowl.mass_kg * s.bowl.cp_j_kgk
    ) * (s.melt_degc - s.work_degc)
    takes = melt.value("cp_set") * (s.work_degc - s.seed_degc) + melts_frac * melt.value("latent_fat")
    return gives / takes


def plan_seed(s: Seeding) -> SeedPlan:
    """How much seed to stir in, with its spread [kg]. Source: incropera-2007, jcgm-100-2008"""
    cp = s.melt.spread("cp_melt")
    likely = seed_kg(s, s.melts_frac.likely)
    seed = combine(
        likely,
        [
            [seed_kg(s, s.melts_frac.low), seed_kg(s, s.melts_frac.high)],
            [seed_kg(s, s.melts_frac.likely, value / cp.likely) for value in (cp.low, cp.high)],
        ],
    )
    whole = s.melt_kg + likely
    return SeedPlan(seed, likely / whole, whole, (1 - s.melts_frac.likely) * likely)


def after_degc(s: Seeding, added_kg: float, melts_frac: float) -> float:
    """Temperature after some seed has been stirred in [degC].

    Args:
        s: the bowl before
        added_kg: of seed, at least zero
        melts_frac: of it that has melted
    Source: incropera-2007
    """
    return _solve(lambda t: _excess(s, added_kg, melts_frac, t), s.seed_degc, s.melt_degc)


def _excess(s: Seeding, added_kg: float, melts_frac: float, degc: float) -> float:
    """Heat given less heat taken, were it at this temperature [J]."""
    bowl = s.bowl.follows_frac * s.bowl.mass_kg * s.bowl.cp_j_kgk
    gives = (s.melt_kg * s.melt.value("cp_melt") + bowl) * (s.melt_degc - degc)
    takes = added_kg * (s.melt.value("cp_set") * (degc - s.seed_degc) + melts_frac * s.melt.value("latent_fat"))
    return gives - takes


def melted_frac(s: Seeding, added_kg: float, read_degc: float) -> float:
    """Share of the seed that has melted, from a reading after it was stirred in [frac]; 0 to 1.

    Args:
        s: the bowl before
        added_kg: of seed, above zero
        read_degc: now
    Raises: OutOfRange: nothing was added.
    Source: incropera-2007
    """
    require_range("added_kg", added_kg, 1e-4, 20.0)
    none = _excess(s, added_kg, 0.0, read_degc)
    return min(max(none / (added_kg * s.melt.value("latent_fat")), 0.0), 1.0)


def _solve(fn: Callable[[float], float], low: float, high: float) -> float:
    for _ in range(80):
        mid = (low + high) / 2
        low, high = (mid, high) if fn(mid) > 0 else (low, mid)
    return (low + high) / 2


def window_degc(melt: Material) -> Spread:
    """Where a couverture is in temper and works [degC].

    Raises: Missing: the material needs no temper.
    Source: beckett-2009
    """
    return melt.spread("work_at")


def loses_temper_degc(melt: Material) -> float:
    """Above this next to no seed is left at rest [degC]: where it sets to a thousandth.

    Source: assumption
    """
    setting = setting_of(melt)
    return _solve(lambda t: setting.rest_frac(t) - 1e-3, melt.value("melts_at"), melt.value("melts_at") + 30.0)
