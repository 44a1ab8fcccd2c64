"""Ways to temper a bowl, each as steps with weights and temperatures; and what no temper costs."""

from dataclasses import dataclass
from typing import Literal

from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.temper.seed import Bowl, Seeding, plan_seed, seeded_degc

SCHOOLS = ("seed", "powder", "slab", "bowls", "keep", "none")


AtBowl = Literal["cool", "seed", "powder", "slab", "return", "cold bowl", "warm", "test"]
Planned = AtBowl | Literal["melt", "chill", "pour"]


@dataclass(frozen=True, slots=True)
class Step:
    """One step; how much of the bowl or of seed it is about [kg], to which temperature [degC], and that share of the bowl [frac]."""

    act: Planned
    kg: float
    to_degc: float
    share_frac: float = 0.0


@dataclass(frozen=True, slots=True)
class Tempering:
    """A bowl and how it is to be tempered: weight [kg], how warm it has been melted, how warm seed, slab or cold water is [degC]."""

    melt: Material
    school: str
    melt_kg: float
    melt_degc: float
    cold_degc: float
    bowl: Bowl

    def __post_init__(self) -> None:
        if self.school not in SCHOOLS:
            raise OutOfRange(
                "no such way to temper", path="school", got=self.school, limits={"one_of": list(SCHOOLS)}
            )

    @property
    def seeding(self) -> Seeding:
        """The bowl once it has cooled to where its seed goes in."""
        usual = material("kitchen", "usual", "seed")
        return Seeding(
            self.melt,
            self.melt_kg,
            seeded_degc(self.melt, self.melt_degc),
            self.cold_degc,
            self.melt.value("work_at"),
            self.bowl,
            usual.spread("melts"),
        )


def slab_share_frac(t: Tempering) -> float:
    """Share of a bowl that is put out on the slab, cooled until it thickens, so that all comes to the working temperature when it
    returns [frac].

    Heat balance of what stays in the bowl, the bowl, and what comes back partly set.
    Args:
        t: the bowl
    Raises: OutOfRange: the melt is no warmer than it is to be.
    Source: incropera-2007, beckett-2009
    """
    melt, work, back = t.melt, t.melt.value("work_at"), t.melt.value("cool_to")
    if t.melt_degc <= work:
        raise OutOfRange(
            f"the melt is at {t.melt_degc:g} degC, no warmer than it is to be",
            path="melt_degc",
            got=t.melt_degc,
            limits={"low": work},
        )
    cp = melt.value("cp_melt")
    # a little of it has set on the slab and melts again, but for what seeds the rest
    cold = cp * (work - back) + melt.value("latent_fat") * max(
        melt.value("set_stiff") - melt.value("set_at_start"), 0.0
    )
    hot = cp * (t.melt_degc - work)
    bowl = t.bowl.follows_frac * t.bowl.mass_kg * t.bowl.cp_j_kgk * (t.melt_degc - work) / t.melt_kg
    return min((hot + bowl) / (cold + hot), 0.95)


def steps(t: Tempering) -> tuple[Step, ...]:
    """The steps of a way to temper, from a bowl that has been melted.

    Args:
        t: the bowl and its school
    Raises: OutOfRange: as the school's own balance.
    Source: beckett-2009, common-practice
    """
    melt, kg = t.melt, t.melt_kg
    work, cool, warm = melt.value("work_at"), melt.value("cool_to"), melt.value("melt_to")
    test = Step("test", 0.0, work)
    melted = Step("melt", kg, warm)
    if t.school == "seed":
        plan = plan_seed(t.seeding)
        cooled = Step("cool", kg, t.seeding.melt_degc)
        return melted, cooled, Step("seed", plan.seed_kg.likely, work, plan.share_frac), test
    if t.school == "powder":
        powder = material("kitchen", "powder", "seed")
        at = melt.value("melts_at") + powder.value("above")
        share = powder.value("share")
        return melted, Step("cool", kg, at), Step("powder", share * kg, at, share), Step("cool", kg, work), test
    if t.school == "slab":
        share = slab_share_frac(t)
        return melted, Step("slab", share * kg, cool, share), Step("return", share * kg, work, share), test
    if t.school == "bowls":
        return melted, Step("cold bowl", kg, cool), Step("warm", kg, work), test
    if t.school == "keep":
        # it was bought in temper: what is never warmer than this keeps enough of it
        return Step("warm", kg, melt.spread("work_at").high), test
    return (
        melted,
        Step("cool", kg, melt.value("pour_below")),
        Step("pour", kg, melt.value("pour_below")),
        Step("chill", kg, cool),
    )
