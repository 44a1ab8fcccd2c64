"""Times that practice knows, against what the app says. Common practice, no source."""

from dataclasses import replace

import pytest

from tests.conftest import BEND, WOOD, cooks_of, make_disc, make_lollipops, make_plan, make_pot
from tests.told import from_log
from umber_pebble.core.bench.acts import next_acts
from umber_pebble.core.bench.cast_track import round_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.replay import accept as replay
from umber_pebble.core.bench.state import Layout
from umber_pebble.core.families.glass import ISOMALT as ISOMALT_FAMILY
from umber_pebble.core.glass.viscosity import tg_spread_degc
from umber_pebble.core.heat.casting import Casting, Place, PlaceStay
from umber_pebble.core.heat.vessel import base_case
from umber_pebble.core.heat.windows import TAKES, windows_s
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Bowl, School, plan_bursts
from umber_pebble.core.melts.oven import Microwave, coupled_w
from umber_pebble.core.pieces.cast import amounts
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.cooks import round_windows
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.second_coat import rests_to_degc
from umber_pebble.core.spread import Spread, exact

COATING, CARAMEL, ISOMALT = (material("melts", key) for key in ("coating", "caramel", "isomalt"))


@pytest.mark.parametrize(
    ("kg", "first", "others"), [(0.06, 30.0, {10.0}), (0.1, 30.0, {10.0}), (0.2, 30.0, {10.0})]
)
def test_wafers_thirty_seconds_first_then_tens(kg: float, first: float, others: set[float]) -> None:
    bowl = replace(make_pot(0.12, 0.12), metal=material("kitchen", "glass", "pot"))
    wafers = Spread(0.003, 0.004, 0.005)
    steps = plan_bursts(
        Bowl(base_case(bowl, COATING, kg), Microwave(900.0, 15.0), 21.0, 43.0, wafers, School())
    ).steps
    assert steps[0].seconds == first
    assert {s.seconds for s in steps[1:]} == others
    assert 30.0 <= sum(s.seconds for s in steps) <= 50.0


def test_a_litre_of_water_takes_nearly_the_rated_power() -> None:
    """An oven is rated by a litre of water (IEC 60705, recalled); small loads take less a kilogram."""
    assert coupled_w(900.0, 1.0, 1.0) == pytest.approx(900.0, rel=0.1)
    assert coupled_w(900.0, 0.05, 1.0) < 0.15 * 900.0


def disc(melt: str, thick_m: float, mould: str, wall_m: float, degc: float, tg: Spread | None) -> Casting:
    of = material("melts", melt)
    return Casting(
        of, material("moulds", mould), exact(thick_m), 0.02, wall_m, exact(degc), tg, (PlaceStay(0.0, WOOD),)
    )


def test_lollipops_on_film_peel_after_20_to_30_minutes_though_they_are_not_cold() -> None:
    """Tempered dark, 3 mm, piped on film on a board in a room of 20 degC."""
    board = Place(material("surfaces", "wood"), 0.015, 20.0, 20.0)
    w = windows_s(replace(disc("dark", 0.003, "acetate", 0.0001, 31.5, None), path=(PlaceStay(0.0, board),)))
    peel, out = w.leaving_at("peel").at["unmould"], w.at["unmould"]
    assert 18 * 60 < peel.likely < 32 * 60
    assert out.likely > peel.likely + 5 * 60
    assert w.leaving_at("peel").limits["unmould"] == material("melts", "dark").value("set_peel")


def test_a_caramel_cage_comes_off_its_bowl_after_one_to_two_minutes() -> None:
    tg = tg_spread_degc(CARAMEL, CARAMEL.spread("water_dry_melt"))
    w = windows_s(disc("caramel", 0.0015, "steel", 0.001, 130.0, tg))
    assert 0.3 * 60 < w.leaving_at("rigid").at["unmould"].likely < 2.6 * 60
    assert w.at["unmould"].likely > 2 * w.at["rigid"].likely


def test_gum_paste_leaves_its_mould_at_once_and_dries_for_an_hour_and_more() -> None:
    paste = material("pastes", "gum_paste")
    assert paste.spread("leaves").high <= 60.0
    assert paste.spread("dries").low >= 3600.0


def test_comb_and_cutter_go_in_wet_and_grooving_comes_later() -> None:
    w = windows_s(disc("coating", 0.004, "acetate", 0.0001, 36.0, None))
    takes = {
        what: tuple(None if m is None else w.at[m].likely for m in marks) for what, marks in TAKES["fat"].items()
    }
    drag, comb, cutter, groove = (takes[k] for k in ("drag", "comb", "cutter", "groove"))
    assert drag[0] is None and drag[1] is not None
    assert comb[0] < comb[1] <= groove[0] < groove[1]
    assert cutter[0] == comb[0] and comb[1] < cutter[1] < groove[1]


def leaf(released: bool) -> PlanInput:
    """Six leaves of 2 mm, bent in their mould or released warm and bent on a form."""
    flat = make_plan()
    [line] = flat.lines
    cavity = make_disc(0.05, 0.004)
    mould = replace(line.mould, cavity=cavity, cavities=2)
    cast = amounts(cavity, 0.0025, ISOMALT)
    bent = replace(
        line, quantity=2, mould=mould, cast=cast, works=BEND, leaves="release_opens" if released else "unmould"
    )
    return replace(
        flat, lines=(bent,), paces=replace(flat.paces, bend_each_s=8.0, unmould_each_s=4.0, pour_each_s=3.0)
    )


def test_a_wing_is_released_warm_then_bent_then_left_on_its_form() -> None:
    """Window by window, and act by act at the bench."""
    plan = leaf(True)
    cooks = cooks_of(plan, [[(0, 2)]])
    w = round_windows(plan, cooks)[0]
    marks = [w.at[m].likely for m in ("bend_opens", "release_opens", "release_closes", "bend_closes", "brittle")]
    assert marks == sorted(marks)
    assert 30.0 < w.at["release_opens"].likely < 150.0
    layout = Layout(
        tuple(cooks[0].rounds),
        ("pot",),
        (("bend",),),
        ("bench",),
        ("bench",),
        (False,),
        (ISOMALT_FAMILY,),
        ("isomalt",),
        (None,),
        (True,),
    )
    steps = [
        ("started", 0.0, {}),
        ("acknowledged", 1.0, {}),
        ("heated", 5.0, {"cook": 0}),
        ("rested", 300.0, {"cook": 0, "degc": 160.0}),
        ("poured", 600.0, {"round": 0}),
    ]

    def acts(now: float) -> list[tuple[str, bool]]:
        state = replay(layout, [from_log(f"e{i}", k, at, "Wren", p) for i, (k, at, p) in enumerate(steps)])
        places = {"bench": plan.ways["isomalt"].poured_on}
        tracks = {0: round_track(plan, cooks[0], 0, state.rounds[0], exact(135.0), places)}
        return [
            (a.what.kind, a.closes_s < 1e6)
            for a in next_acts(RunNow(plan, cooks, state, {}, tracks, {0: w}, now), "Wren")
        ]

    assert acts(610.0)[0] == ("unmould", True)
    steps.append(("unmoulded", 690.0, {"round": 0}))
    assert acts(691.0)[0] == ("bend", True)
    steps.append(("bent", 700.0, {"round": 0}))
    assert acts(701.0)[0][0] == "outcomes"


def test_the_timetable_releases_and_bends_in_one_go_and_the_form_holds_it() -> None:
    tasks = compile_plan(leaf(True)).tasks
    kinds = [t.kind for t in tasks if t.round == 0 and t.kind in ("pour", "bend", "unmould", "firm")]
    assert kinds == ["pour", "bend", "firm"]
    bend, firm = (next(t for t in tasks if t.kind == kind) for kind in ("bend", "firm"))
    assert bend.hands and not firm.hands and firm.start_s == bend.end_s
    assert [t.kind for t in compile_plan(leaf(False)).tasks if t.kind in ("bend", "unmould", "firm")] == [
        "bend",
        "unmould",
    ]


def test_an_own_transfer_sheet_sets_in_20_to_30_minutes() -> None:
    """Coloured cocoa butter, brushed thin on film, in a room of 20 degC: until chocolate may go over it."""
    board = Place(material("surfaces", "wood"), 0.015, 20.0, 20.0)
    for thick_m in (0.0001, 0.0003):
        w = windows_s(
            replace(disc("cocoa_butter", thick_m, "acetate", 0.0001, 31.0, None), path=(PlaceStay(0.0, board),))
        )
        assert 18 * 60 < w.at["touch"].likely < 32 * 60


def test_a_second_coat_rests_until_it_no_longer_melts_the_first() -> None:
    """A first coat at room temperature: about a minute's rest and more (physics); from the fridge next to nothing is called."""
    base = make_lollipops(8)
    [line] = base.lines
    first = replace(line, works=(), last=False, kind="shell", cast=replace(line.cast, thickness=exact(0.0015)))
    second = replace(line, works=(), after=0, kind="shell")
    warm = replace(base.ways["coating"], sets_in=WOOD, sets_in_id="bench")
    plan = replace(base, lines=(first, second), ways={"coating": warm})
    cooks = cooks_of(plan, [[(0, 8)], [(1, 8)]])
    flow, window = cooks[1].pours[1]
    hot, mild = (
        replace(cooks[1], pours={1: (flow, replace(window, open_degc=exact(degc)))}) for degc in (50.0, 36.0)
    )
    [r] = hot.rounds
    rests_to = rests_to_degc(plan, hot, replace(r, on=0))
    assert rests_to is not None and 40.0 < rests_to < 50.0
    assert rests_to_degc(plan, mild, replace(r, on=0)) is None
    assert rests_to_degc(plan, hot, cooks[0].rounds[0]) is None
