"""What else an order could do: spares against rounds, more moulds, each with its price."""

from dataclasses import replace
from math import ceil

import pytest
from scipy.stats import betabinom

from tests.conftest import make_plan
from umber_pebble.core.plan.alternatives import MouldChange, SparesChange, alternatives_of, as_planned
from umber_pebble.core.plan.compile import compile_plan
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.spares import BreakRate, Spares, casts_made

AT_ONCE = 14


def asked(quantity: int, spares: Spares = "as_sure", owned: int = 1) -> PlanInput:
    """So many discs from moulds of 14."""
    plan = make_plan()
    [line] = plan.lines
    named = replace(line.mould, name="Discs", owned=owned)
    return replace(plan, lines=(replace(line, quantity=quantity, spares=spares, mould=named),))


@pytest.mark.parametrize("needed", [1, 12, 13, 14, 27, 28, 40])
def test_spares_make_no_round_of_their_own_or_fill_all_of_them(needed: int) -> None:
    rate = BreakRate()
    sure, rounds, full = (
        casts_made(needed, of, AT_ONCE, 0.9, rate) for of in ("as_sure", "in_rounds", "full_rounds")
    )
    assert needed <= rounds <= sure <= full
    assert ceil(rounds / AT_ONCE) == ceil(needed / AT_ONCE)
    assert full % AT_ONCE == 0 and full - sure < AT_ONCE
    # against the library's distribution: enough at nine in ten, and one fewer would not be
    enough = [1 - betabinom.cdf(needed - 1, n, rate.beta, rate.alpha) for n in (sure - 1, sure)]
    assert enough[1] >= 0.9 > enough[0]


def test_a_round_for_spares_alone_is_offered_to_be_left_out_at_its_price() -> None:
    # 14 fit in one round; nine in ten sure are 16, in two
    planned, *others = alternatives_of(compile_plan(asked(14)))
    assert (planned.changes, planned.casts, planned.rounds) == ((), 16, 2)
    without = next(of for of in others if of.changes == (SparesChange((0,), None, "in_rounds"),))
    assert (without.casts, without.rounds, without.melts) == (14, 1, 1)
    assert without.sure_frac == pytest.approx(1 - betabinom.cdf(13, 14, 19.0, 1.0))
    assert without.lasts_s < planned.lasts_s and without.fresh_kg < planned.fresh_kg
    # what is offered is what comes of it when it is taken
    taken = as_planned(compile_plan(asked(14, "in_rounds")))
    assert replace(without, changes=()) == taken


def test_what_was_taken_can_be_put_back() -> None:
    planned, *others = alternatives_of(compile_plan(asked(14, "in_rounds")))
    back = next(of for of in others if of.changes == (SparesChange((0,), None, "as_sure"),))
    assert back.casts == 16 and back.sure_frac > planned.sure_frac


def test_one_more_of_the_mould_is_offered_where_it_shortens_the_day() -> None:
    planned, *others = alternatives_of(compile_plan(asked(24)))
    more = next(of for of in others if of.changes == (MouldChange("mould", "Discs", 2),))
    assert more.rounds < planned.rounds and more.lasts_s < planned.lasts_s
    assert replace(more, changes=()) == as_planned(compile_plan(asked(24, owned=2)))
    # a mould that takes all of it at once is not wanted twice
    assert not any(
        isinstance(c, MouldChange) for of in alternatives_of(compile_plan(asked(6))) for c in of.changes
    )
