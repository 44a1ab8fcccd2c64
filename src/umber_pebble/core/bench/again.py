"""Cooking again within a run: a batch thrown away, castings that are still missing."""

from collections.abc import Sequence
from dataclasses import replace

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.plan.cooks import PotCook, Round, as_portion, make_cook
from umber_pebble.core.plan.problem import PlanInput, PlanLine
from umber_pebble.core.plan.spares import casts_needed


def cooks_now(plan: PlanInput, cooks: list[PotCook], state: RunState) -> list[PotCook]:
    """The cooks as they are: one thrown away, or that ran short, is made anew for the castings that it still owes; what is left out of one
    that is not made yet is not melted [SI].

    Args:
        plan, cooks: frozen
        state: of the run
    Source: definition
    """
    out = []
    for cook, seen in zip(cooks, state.cooks, strict=True):
        kept = [r for r in cook.rounds if not state.rounds[r.number].left_out]
        owed = tuple(r for r in kept if r.number not in (seen.lost or ()))
        fewer = len(kept) < len(cook.rounds) and seen.phase == "waiting"
        if not owed or (seen.lost is None and not fewer):
            out.append(cook)
        else:
            owed = tuple(replace(r, casts=state.rounds[r.number].to_pour) for r in owed)
            anew = replace(make_cook(plan, cook.number, owed, 0.0), rounds=cook.rounds)
            # what comes out of another vessel does so however much is poured of it, and is made by itself once that is thrown away
            divided = cook.portion_degc is not None and seen.lost is None
            out.append(as_portion(anew, cook.portion_degc) if divided else anew)
    return out


def missing(plan: PlanInput, state: RunState) -> dict[int, int]:
    """Per line that ends a part, how many usable ones are still wanted, as far as outcomes are recorded, and counted [count].

    Args:
        plan: frozen
        state: of the run
    Source: definition
    """
    short = {i: line.quantity - state.good(i) for i, line in enumerate(plan.lines) if line.last}
    return {i: count for i, count in short.items() if count > 0}


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
        rate = line.break_rate.counted(broken, len(seen) - broken)
        wanted = count if line.joins else casts_needed(count, plan.confidence_frac, rate)
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


def numbered(
    lines: Sequence[PlanLine], groups: Sequence[list[tuple[int, int]]], known: Sequence[Round], cooks: int
) -> list[list[Round]]:
    """Rounds that are only told as (line, castings), cook by cook: numbered on from those that are known, each poured on the next of
    the line under it that nothing is poured on yet; what one cook pours into one mould stands there together.

    Args:
        lines: of the plan
        groups: the rounds of each cook
        known, cooks: rounds and number of the cooks before them
    Source: definition
    """
    stay = {r.number: r.stay for r in known}
    first = max(stay.values(), default=-1) + 1
    stays: dict[tuple[str, int], int] = {}
    free: dict[int, list[int]] = {}
    number = len(known)
    for r in sorted(known, key=lambda r: r.number):
        free.setdefault(r.line, []).append(r.number)
    for r in known:
        if r.on is not None:
            for under in free.values():
                if r.on in under:
                    under.remove(r.on)
    out: list[list[Round]] = []
    for cook, group in enumerate(groups, cooks):
        rounds = []
        for line, casts in group:
            after = lines[line].after
            under = [] if after is None else free.get(after, [])
            on = under.pop(0) if under else None
            if on is None:
                stay[number] = stays.setdefault((lines[line].mould.mould_id, cook), first + len(stays))
            else:
                stay[number] = stay[on]
            rounds.append(Round(number, line, cook, casts, on, stay[number]))
            free.setdefault(line, []).append(number)
            number += 1
        out.append(rounds)
    return out
