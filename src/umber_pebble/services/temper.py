"""At the bowl: seed for a temper, what to do now, and a cooling curve read."""

from dataclasses import dataclass

from pydantic import Field

from umber_pebble.core.errors import CoreError, Missing, OutOfRange
from umber_pebble.core.explained import Explained, explained, given
from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.spread import Spread
from umber_pebble.core.temper.curve import Bands, TemperTest, read_curve
from umber_pebble.core.temper.guide import Now, after_seed, before_seed
from umber_pebble.core.temper.seed import Bowl, Seeding, after_degc, loses_temper_degc, plan_seed, seeded_degc
from umber_pebble.formats.apart import apart
from umber_pebble.formats.curves import read_curve_csv
from umber_pebble.services.doc_base import Doc, Id
from umber_pebble.services.documents import Kitchen, Probe
from umber_pebble.services.explorer import melt_of
from umber_pebble.services.places import pick
from umber_pebble.services.probes import Probes
from umber_pebble.services.workshop import KITCHEN_ID, Workshop

MOST_POINTS = 600
LEAST_COOLING_K = 0.1
"""A balance needs a bowl a little warmer than it is to be."""


class SeedRequest(Doc):
    """A bowl to be tempered by seed, and what was stirred in and read since."""

    material: Id
    vessel_id: Id
    melt_kg: float
    melt_degc: float = Field(ge=0, le=80)
    seed_degc: float = Field(ge=0, le=40)
    through: bool = Field(description="it has been melted right through")
    seeded_degc: float | None = Field(description="at which the seed goes in; None: as practised")
    added_kg: float | None = Field(description="of seed so far; None: nothing yet")
    read_degc: float | None


class CurveRequest(Doc):
    """A cooling curve as CSV, or what a probe in a sample says (csv None); read by the probe's bands, or the usual ones."""

    csv: str | None
    probe_id: str | None


@dataclass(frozen=True, slots=True)
class Seeded:
    """Seed for a bowl, the one thing to do now, and the temperatures that matter [degC]; expected: what the bowl comes to
    with the seed that is planned, or that was added, by how much of it melts; smear_s: until a smear in temper has set;
    at which the seed goes in, and the share of the whole that practice stirs in there [frac]."""

    seed: Explained
    share_frac: float
    whole_kg: float
    now: Now
    melt_to: Spread
    work_at: Spread
    spoils_degc: float
    loses_temper_degc: float
    expected: Spread
    smear_s: Spread
    seeded_degc: float
    seed_at: Spread
    practised: Spread


@dataclass(frozen=True, slots=True)
class CurveRead:
    """A curve's class, its points [s, degC] and the bands it was read by; waits: what a live one still lacks, in words."""

    test: TemperTest | None
    points: list[list[float]]
    bands: Bands
    waits: str | None


def check_tempers(melt: Material) -> None:
    """Raises: OutOfRange: it needs no temper."""
    if not family_of(melt).tempers:
        raise OutOfRange(f"{melt.name} needs no temper", path="material", got=melt.key)


def seed_bowl(workshop: Workshop, asked: SeedRequest) -> Seeded:
    """Seed for a bowl and what to do now.

    Raises: OutOfRange: a material that needs no temper, seed too warm, a weight or temperature that cannot be.
    """
    melt = melt_of(workshop, asked.material)
    check_tempers(melt)
    kitchen = workshop.get("kitchen", KITCHEN_ID).doc
    assert isinstance(kitchen, Kitchen)
    vessel, usual = pick(kitchen.vessels, asked.vessel_id, "vessel_id"), material("kitchen", "usual", "seed")
    wall = material("kitchen", vessel.made_of, "pot")
    bowl = Bowl(vessel.mass_kg, wall.value("cp"), usual.value("bowl_follows"))
    goes_in = seeded_degc(melt, asked.melt_degc) if asked.seeded_degc is None else asked.seeded_degc
    at = asked.melt_degc if asked.added_kg else min(goes_in, asked.melt_degc)
    s = Seeding(
        melt,
        asked.melt_kg,
        max(at, melt.value("work_at") + LEAST_COOLING_K),
        asked.seed_degc,
        melt.value("work_at"),
        bowl,
        usual.spread("melts"),
    )
    plan, added = plan_seed(s), asked.added_kg or 0.0
    if added < 0:
        raise OutOfRange("seed is only added", path="added_kg", got=added, limits={"low": 0.0})
    if added and asked.read_degc is not None:
        now = after_seed(s, added, asked.read_degc)
    else:
        now = before_seed(melt, asked.melt_degc, plan.seed_kg.likely, asked.through)
        if now.act == "cool" and asked.melt_degc <= goes_in:
            now = Now("seed", plan.seed_kg.likely, melt.value("work_at"), 0.0)
    kg = added or plan.seed_kg.likely
    expected = s.melts_frac.map(lambda share: after_degc(s, kg, share))
    seed = explained(
        plan.seed_kg,
        "kg",
        "heat given up by melt and bowl down to the working temperature, over what a kilogram of seed takes up and melts with",
        given("melt", s.melt_kg, "kg"),
        given("at", s.melt_degc, "degC"),
        given("seed at", s.seed_degc, "degC"),
        given("down to", s.work_degc, "degC"),
        given("bowl", vessel.mass_kg, "kg"),
        given("seed that melts", s.melts_frac, "frac"),
        sources=("incropera-2007", melt["latent_fat"].source, "common-practice"),
        limited_by="how much of the seed melts: read the bowl, then it is known",
    )
    return Seeded(
        seed,
        plan.share_frac,
        plan.whole_kg,
        now,
        melt.spread("melt_to"),
        melt.spread("work_at"),
        melt.value("spoils_at"),
        loses_temper_degc(melt),
        expected,
        material("kitchen", "usual", "smear").spread("sets"),
        s.melt_degc,
        melt.spread("seed_at"),
        usual.spread("practised"),
    )


def curve_test(probes: Probes, asked: CurveRequest) -> CurveRead:
    """A cooling curve's class; of a live one that is not long enough yet, its points so far.

    Raises: NotFound: the probe. OutOfRange, Missing: a cell that cannot be, gaps, too short, Fahrenheit taken for Celsius.
    """
    if asked.csv is None and asked.probe_id is None:
        raise Missing("bring in a CSV file, or choose a probe", path="csv")
    known = probes.curve(asked.probe_id) if asked.probe_id is not None else None
    bands = bands_of(known[0] if known else None)
    if asked.csv is not None:
        times, temps = apart("csv", read_curve_csv, asked.csv)
        return CurveRead(read_curve(times, temps, bands), _points(times, temps), bands, None)
    assert known is not None
    _, times, temps = known
    try:
        test, waits = read_curve(times, temps, bands), None
    except CoreError as error:
        test, waits = None, str(error)
    return CurveRead(test, _points(times, temps), bands, waits)


def bands_of(probe: Probe | None) -> Bands:
    """A probe's own bands, or the usual ones where it has none."""
    usual = material("kitchen", "usual", "temper_bands")
    over, under = (probe.over_below_k_min, probe.under_above_k_min) if probe else (None, None)
    return Bands(
        usual.value("over_below") if over is None else over, usual.value("under_above") if under is None else under
    )


def _points(times: list[float], temps: list[float]) -> list[list[float]]:
    first = min(times, default=0.0)
    points = sorted([round(t - first, 2), round(y, 2)] for t, y in zip(times, temps, strict=True))
    return points[:: max(1, len(points) // MOST_POINTS)]
