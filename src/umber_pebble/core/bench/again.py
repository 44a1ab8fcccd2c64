"""Cooking again within a run: a batch thrown away, castings that are still missing."""

from collections.abc import Sequence
from dataclasses import replace

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.plan.cooks import PotCook, make_cook
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.spares import BreakRate, casts_needed


def cooks_now(plan: PlanInput, cooks: list[PotCook], state: RunState) -> list[PotCook]:
    """The cooks as they are: one thrown away, or that ran short, is made anew for the castings that it still owes [SI].

    Args:
        plan, cooks: frozen
        state: of the run
    Source: definition
    """
    out = []
    for cook, seen in zip(cooks, state.cooks, strict=True):
        owed = tuple(r for r in cook.rounds if r.number not in (seen.lost or ()))
        if seen.lost is None or not owed:
            out.append(cook)
        else:
            owed = tuple(replace(r, casts=state.rounds[r.number].to_pour) for r in owed)
            out.append(replace(make_cook(plan, cook.number, owed, 0.0), rounds=cook.rounds))
    return out


def missing(plan: PlanInput, state: RunState) -> dict[int, int]:
    """Per line that ends a part, how many usable ones are still wanted, as far as outcomes are recorded [count].

    Args:
        plan: frozen
        state: of the run
    Source: definition
    """
    good = dict.fromkeys(range(len(plan.lines)), 0)
    for r in state.rounds:
        good[r.line] += sum(usable for usable, _ in r.outcomes.values())
    rows = enumerate(plan.lines)
    return {i: line.quantity - good[i] for i, line in rows if line.last and line.quantity > good[i]}


def rounds_again(plan: PlanInput, state: RunState) -> list[tuple[int, int]]:
    """What to cook again for the first material that is short: rounds as (line, castings), spares with them [count]; of a part
    of several passes all of them.

    Args:
        plan: frozen
        state: of the run
    Source: beta-binomial
    """
    rows: list[tuple[int, int]] = []
    for i, count in missing(plan, state).items():
        line = plan.lines[i]
        if rows and (plan.built(i) or line.melt != plan.lines[rows[0][0]].melt):
            continue
        seen = [o for r in state.rounds if r.line == i for o in r.outcomes.values()]
        broken = sum(not usable for usable, _ in seen)
        rate = BreakRate(line.break_rate.broken + broken, line.break_rate.good + len(seen) - broken)
        wanted = count if line.needs else casts_needed(count, plan.confidence_frac, rate)
        casts = min(wanted, line.mould.at_once)
        rows += [(j, casts) for j in plan.chains[i]]
        if plan.built(i):
            break
    return rows


def as_cooks(
    rows: Sequence[tuple[int, int]], follows: Sequence[int | None], melts: Sequence[str]
) -> list[list[tuple[int, int]]]:
    """Rounds that were added to a run as cooks: one for each melt, and for each pass that goes on another.

    Args:
        rows: (line, castings)
        follows, melts: per line, the one it is poured on and its melt
    Source: definition
    """
    cooks: list[list[tuple[int, int]]] = []
    for line, casts in rows:
        if cooks and follows[line] is None and melts[line] == melts[cooks[-1][0][0]]:
            cooks[-1].append((line, casts))
        else:
            cooks.append([(line, casts)])
    return cooks
