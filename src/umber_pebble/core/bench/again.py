"""Cooking again within a run: a batch thrown away, castings that are still missing."""

from dataclasses import replace

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.pieces.cast import CastAmounts
from umber_pebble.core.plan.cooks import PotCook, make_cook
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.spares import BreakRate, casts_needed


def cooks_now(plan: PlanInput, cooks: list[PotCook], amounts: list[CastAmounts], state: RunState) -> list[PotCook]:
    """The cooks as they are: one thrown away is made anew for the rounds that it still owes [SI].

    Args:
        plan, cooks, amounts: frozen
        state: of the run
    Source: definition
    """
    out = []
    for cook, seen in zip(cooks, state.cooks, strict=True):
        owed = tuple(r for r in cook.rounds if r.number not in (seen.lost or ()))
        if seen.lost is None or not owed:
            out.append(cook)
        else:
            out.append(replace(make_cook(plan, cook.number, owed, amounts, 0.0), rounds=cook.rounds))
    return out


def missing(plan: PlanInput, state: RunState) -> dict[int, int]:
    """Per line, how many usable ones are still wanted, as far as outcomes are recorded [count].

    Args:
        plan: frozen
        state: of the run
    Source: definition
    """
    good = dict.fromkeys(range(len(plan.lines)), 0)
    for r in state.rounds:
        good[r.line] += sum(usable for usable, _ in r.outcomes.values())
    return {i: line.quantity - good[i] for i, line in enumerate(plan.lines) if line.quantity > good[i]}


def rounds_again(plan: PlanInput, state: RunState) -> list[list[int]]:
    """What to cook again for the first material that is short: rounds as [line, castings], spares with them [count].

    Args:
        plan: frozen
        state: of the run
    Source: beta-binomial
    """
    rows: list[list[int]] = []
    for i, count in missing(plan, state).items():
        line = plan.lines[i]
        if rows and line.melt != plan.lines[rows[0][0]].melt:
            continue
        seen = [o for r in state.rounds if r.line == i for o in r.outcomes.values()]
        broken = sum(not usable for usable, _ in seen)
        rate = BreakRate(line.break_rate.broken + broken, line.break_rate.good + len(seen) - broken)
        casts = casts_needed(count, plan.confidence_frac, rate)
        rows.append([i, min(casts, line.mould.cavities * line.mould.owned)])
    return rows
