"""What helps: thick and stale coating, tests of how fluid it is, small acts, words, thin panes. Common practice, no source, unless named."""

import math
import tomllib
from dataclasses import replace
from importlib.resources import files

import pytest
from scipy.integrate import quad
from scipy.optimize import brentq

from tests.conftest import FRIDGE, cooks_of, make_lollipops, make_plan, make_pot, refilled
from tests.core.plan.test_builds import pops
from umber_pebble.core.bench.bowl import bowl_track
from umber_pebble.core.bench.state import BurstDone, CookState, Sight
from umber_pebble.core.bench.vessel_acts import bowl_act
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.heat.melting import Bath, Melting, melting_curve
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.materials.load import like, material
from umber_pebble.core.materials.words import glossary, word_for
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.melts.fluid import fluidity, yield_of_spoon_pa, yield_of_spread_pa
from umber_pebble.core.pieces.films import dab, dip_film_m, wall_keeps_m
from umber_pebble.core.pieces.leaving import PLATE, least_thickness_m
from umber_pebble.core.plan.checks import remarks_of
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.habits import habits_of

COATING, ISOMALT = material("melts", "coating"), material("melts", "isomalt")


def test_a_spoonful_on_a_plate_is_the_slope_of_its_own_weight() -> None:
    """The profile h(r) = sqrt(2 tau (R - r) / (rho g)) integrated (scipy), solved for the yield value."""
    kg, radius, rho = 0.015, 0.035, 1245.0

    def volume(tau: float) -> float:
        return quad(lambda r: 2 * math.pi * r * math.sqrt(2 * tau * (radius - r) / (rho * 9.80665)), 0, radius)[0]

    tau = brentq(lambda t: volume(t) - kg / rho, 0.01, 200.0)
    found = yield_of_spread_pa(kg, 2 * radius, rho)
    assert found.likely == pytest.approx(tau, rel=1e-5)
    assert found.low < tau < found.high
    # and the dollop that is laid is the same profile
    laid = dab(like(COATING, "w", "w", (("casson_yield", found),)), 2 * radius, tapped=False)
    assert laid.volume.likely == pytest.approx(kg / rho, rel=1e-6)


def test_a_stiff_wafer_makes_thicker_coats_and_shells() -> None:
    stiff = yield_of_spread_pa(0.015, 0.055, 1245.0)
    fluid = yield_of_spread_pa(0.015, 0.12, 1245.0)
    assert (fluidity(COATING, stiff).feels, fluidity(COATING, fluid).feels) == ("stiff", "fluid")
    thick, thin = (like(COATING, name, name, (("casson_yield", y),)) for name, y in (("a", stiff), ("b", fluid)))
    assert dip_film_m(thick, 0.03, 30.0, 0.03).likely > 1.3 * dip_film_m(thin, 0.03, 30.0, 0.03).likely
    assert wall_keeps_m(thick, 0.03, 30.0).likely > 1.3 * wall_keeps_m(thin, 0.03, 30.0).likely
    assert 1.0 < yield_of_spoon_pa(0.003, 0.003).likely < 20.0
    with pytest.raises(OutOfRange, match="wide_m"):
        yield_of_spread_pa(0.015, 0.9, 1245.0)


@pytest.mark.parametrize(
    ("seen", "says"), [("thick", "water never"), ("grainy", "No more heat"), ("seized", "filling")]
)
def test_the_remedy_reaches_the_person_at_the_bowl(seen: str, says: str) -> None:
    plan = make_lollipops(8)
    [cook] = cooks_of(plan, [[(0, 8)]])
    assert isinstance(cook.heating, Bowl)
    state = CookState(0, heated_s=10.0, bursts=[BurstDone(10.0, 30.0, 1.0)], sights=[Sight(60.0, seen)])
    act = bowl_act(cook, cook.heating, state, bowl_track(cook.heating, state))
    assert says in act.what.bowl.remedy.do


def test_small_acts_come_where_they_belong() -> None:
    plan = pops()
    of = {line.name: [h.key for h in habits_of(plan, i)] for i, line in enumerate(plan.lines)}
    assert of["Shell"] == ["tap", "rim"]
    assert of["Close"] == ["tap", "tap_all", "rim"]
    assert [h.key for h in habits_of(plan, 2, put_in=True)] == ["tip_under"]
    # an accent under a shell that is tipped stays unchilled; a stiff mould is wiped, a new silicone one may be oiled
    tipped = replace(plan, lines=(plan.lines[0], replace(plan.lines[1], kind="tipped"), *plan.lines[2:]))
    assert "unchilled" in [h.key for h in habits_of(tipped, 0)]
    assert "unchilled" not in of["Cap"]
    stiff = replace(
        plan.lines[3], mould=replace(plan.lines[3].mould, material=material("moulds", "polycarbonate"))
    )
    assert "wipe" in [h.key for h in habits_of(replace(plan, lines=(*plan.lines[:3], stiff)), 3)]
    disc = make_plan()
    oiled = replace(disc.lines[0], mould=replace(disc.lines[0].mould, oiled=True))
    assert [h.key for h in habits_of(replace(disc, lines=(oiled,)), 0)] == ["oil", "tap", "rim"]
    assert all(h.seconds > 0 for h in habits_of(plan, 1))


def test_a_thin_pane_is_warned_of_with_the_figure() -> None:
    """The plate formula by hand; a pane of 0.8 mm over 60 mm in silicone."""
    silicone = material("moulds", "silicone")
    least = least_thickness_m(ISOMALT, 0.06, silicone)
    assert least.likely == pytest.approx(0.06 * math.sqrt(PLATE * 5000.0 * 2.0 / 1e7), rel=1e-9)
    assert 0.0008 < least.likely < 0.002
    plan = make_plan()
    pane = refilled(plan.lines[0], 0.0008)
    [said] = [w for w in remarks_of(compile_plan(replace(plan, lines=(pane,)))) if w.code == "thin_to_leave"]
    assert said.least_m > 0.0008
    assert not [w for w in remarks_of(compile_plan(plan)) if w.code == "thin_to_leave"]
    assert least_thickness_m(ISOMALT, 0.03, silicone).likely < least.likely
    assert least_thickness_m(ISOMALT, 0.06, material("moulds", "thermoformed")).likely < least.likely


def test_words_of_the_trade_lead_to_what_the_screens_call_them() -> None:
    called = {
        "candy melts": "coating wafers",
        "luster dust": "dust",
        "petal dust": "dust",
        "Transfer  sheet": "transfer sheet",
        "nibs": "ready-cooked nibs",
        "bloom": "bloomed",
        "feet": "foot",
        "demold": "unmould",
    }
    assert {said: getattr(word_for(said), "called", None) for said in called} == called
    assert word_for("flux capacitor") is None
    said = [s for w in glossary() for s in w.said]
    assert len(said) == len(set(said)), "a word that people say leads to one thing"
    assert {w.page for w in glossary()} <= {
        "work-out/melt",
        "work-out/temper",
        "pieces",
        "work-out/colour",
        "work-out/heat",
        "orders",
    }
    rows = tomllib.loads(files("umber_pebble.core.materials").joinpath("words.toml").read_text("utf-8"))
    assert len(rows["word"]) == len(glossary()) >= 30


def test_a_bath_that_loses_as_much_to_its_stand_says_so() -> None:
    """Hot enough water over which a bowl stands on cold stone is not told to be hotter."""
    glass = replace(
        make_pot(0.2, 0.3, stand="granite"),
        metal=material("kitchen", "glass", "pot"),
        below_degc=5.0,
        air_degc=5.0,
    )
    case = base_case(glass, COATING, 0.05)
    with pytest.raises(OutOfRange) as cold:
        melting_curve(Melting(case, 5.0, 43.0, Bath(60.0)), 10.0)
    assert "stand" in cold.value.message and "hotter water" not in cold.value.message
    with pytest.raises(OutOfRange, match="hotter water"):
        melting_curve(Melting(case, 5.0, 43.0, Bath(46.0)), 80.0)
    assert FRIDGE.air_degc == 4.0
