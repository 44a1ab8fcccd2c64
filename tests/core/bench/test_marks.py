"""What a scale at the bench is marked with."""

from tests.conftest import cooks_of, make_lollipops, make_plan
from umber_pebble.core.bench.marks import GlassMarks, SettingMarks, marks_of
from umber_pebble.core.heat.windows import PieceWindows, windows_s
from umber_pebble.core.plan.cooks import casting_of, path_of
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.spread import exact


def windows(plan: PlanInput, degc: float) -> PieceWindows:
    [cook] = cooks_of(plan, [[(0, 8)]])
    return windows_s(casting_of(plan, plan.lines[0], exact(degc), cook.flow, path_of(plan, plan.lines[0], 8)))


def test_a_cast_of_sugar_is_glass_where_its_stress_is_kept_however_warm_it_is_released() -> None:
    w = windows(make_plan(), 135.0)
    marks = marks_of(w.leaving_at("release_opens"))
    assert isinstance(marks, GlassMarks)
    assert marks == marks_of(w)
    # isomalt's glass transition as cooked, some 55 to 60 C dry: common practice, no source; water takes it lower
    assert 45.0 < marks.glass < 62.0
    assert marks.glass < marks.bend_closes < marks.bend_opens < w.limits["pour_closes"]


def test_a_cast_of_fat_lets_go_over_where_it_cracks() -> None:
    marks = marks_of(windows(make_lollipops(), 36.0))
    assert isinstance(marks, SettingMarks)
    assert marks.over_chilled < marks.unmould < 21.0
