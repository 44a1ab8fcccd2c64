"""What to do at the bowl now, from how warm it is and what has been stirred in."""

from dataclasses import dataclass, replace
from typing import Literal

from umber_pebble.core.materials.load import Material
from umber_pebble.core.temper.seed import Seeding, loses_temper_degc, melted_frac, seed_kg

MOST_UNMELTED = 0.15
"""Seed of which less than this is unmelted need not be fished out."""


Guided = Literal["melt", "cool", "seed", "stir", "read", "more", "take out", "test", "warm"]


@dataclass(frozen=True, slots=True)
class Now:
    """The one act; how much seed it is about [kg], to which temperature [degC], and the share of the seed that has melted [frac]."""

    act: Guided
    kg: float
    to_degc: float
    melted_frac: float


def before_seed(melt: Material, melt_degc: float, plan_kg: float, through: bool) -> Now:
    """What to do with a bowl that has no seed yet.

    Old crystals are gone once it has been at its melting temperature; then it cools, stirred, to where its seed does not all
    melt away. What has been through is never melted on; where it has cooled too far it is warmed only to where seed goes in.
    Args:
        melt: a couverture
        melt_degc: of the bowl
        plan_kg: of seed, as planned
        through: it has been melted right through
    Source: beckett-2009, common-practice
    """
    at = melt.spread("seed_at")
    if not through and melt_degc < melt.spread("melt_to").low:
        return Now("melt", 0.0, melt.value("melt_to"), 0.0)
    if melt_degc > at.high:
        return Now("cool", 0.0, at.likely, 0.0)
    if melt_degc <= melt.spread("work_at").high:
        return Now("warm", 0.0, at.likely, 0.0)
    return Now("seed", plan_kg, melt.value("work_at"), 0.0)


def after_seed(s: Seeding, added_kg: float, read_degc: float) -> Now:
    """What to do after seed has been stirred in and the bowl was read.

    Args:
        s: the bowl before the seed
        added_kg: of seed so far, above zero
        read_degc: now
    Raises: OutOfRange: nothing was added.
    Source: beckett-2009, common-practice
    """
    window, melted = s.melt.spread("work_at"), melted_frac(s, added_kg, read_degc)
    left = (1 - melted) * added_kg
    if read_degc > window.high:
        if melted < 1 - MOST_UNMELTED:
            return Now("stir", left, window.likely, melted)
        rest = replace(s, melt_kg=s.melt_kg + added_kg, melt_degc=read_degc)
        # nearer its window less of the seed melts; where no temper is left it is seeded anew
        lost = read_degc > loses_temper_degc(s.melt)
        share = s.melts_frac.likely if lost else s.melts_frac.low
        return Now("more", seed_kg(rest, share), window.likely, melted)
    if read_degc < window.low:
        return Now("warm", 0.0, window.likely, melted)
    return Now("take out" if left > MOST_UNMELTED * added_kg else "test", left, window.likely, melted)
