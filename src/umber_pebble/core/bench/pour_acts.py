"""What a vessel off the heat is poured into, and when; or that it is read, or warmed again."""

import math

from umber_pebble.core.bench.act_kinds import Pour, Read, WarmAgain
from umber_pebble.core.bench.bowl import again_at, warms_by
from umber_pebble.core.bench.events import Burst, Heated, Poured
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act, bears_next_s
from umber_pebble.core.bench.pour_figures import Dab, DipFrom, Turning
from umber_pebble.core.bench.state import Rest, RunState
from umber_pebble.core.bench.stays import moulds_free_s
from umber_pebble.core.bench.subject import Subject
from umber_pebble.core.bench.vessel_acts import burst_of, falls_to_s
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.materials.load import Material, material
from umber_pebble.core.melts.bursts import Bowl, again_s
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.dips import bath_of
from umber_pebble.core.plan.habits import habits_of
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.second_coat import rests_to_degc
from umber_pebble.core.plan.sheets import SheetOf, sheet_of
from umber_pebble.core.plan.turns import turns_of
from umber_pebble.core.plan.warming import warms_s
from umber_pebble.core.spread import Spread


def act_window(opens: Spread, closes: Spread, lasts_s: float = 0.0) -> tuple[float, float, bool]:
    """From the high opening to the low closing; where the act does not fit in that, the likely one, not sure [s].

    Args:
        opens, closes: of the window
        lasts_s: how long the act takes
    Source: definition
    """
    if opens.high + lasts_s <= closes.low:
        return opens.high, closes.low, True
    return opens.likely, max(closes.likely, opens.likely), False


def pour_acts(
    run: RunNow, cook: PotCook, waiting: list[Round], heater_s: float, ready_s: dict[int, float]
) -> list[Act]:
    """What a resting vessel asks for: a reading, the pours that its windows allow, or to be warmed again in time for the next one [s since
    the run started].

    Args:
        run: at a moment
        cook, waiting: in that vessel, and its rounds that are still to be poured
        heater_s: when what heats it is free [s]
        ready_s: when each of these may be poured, as far as is known [s]
    Source: common-practice
    """
    plan, state, track, now = run.plan, run.state, run.pots[cook.number], run.now_s
    subject = Subject("pot", cook.number)
    rest = state.cooks[cook.number].rests[-1]
    stiff = track.windows["stiff"][0].likely
    free = moulds_free_s(run, out=True)
    pours, fills = list[Act](), False
    left = _left_kg(plan, cook, state, waiting)
    for r in waiting:
        line = plan.lines[r.line]
        if line.mould.shares and any(other.stay == r.stay and other.number < r.number for other in waiting):
            # it is poured with the rest of its sheet
            continue
        if line.first and state.rounds[r.number].put_in_s is None:
            # it is filled by hand first, and poured out of this bowl if that is soon enough
            fills |= max(now, ready_s[r.number]) < stiff
            continue
        opens, closes, sure = act_window(
            *track.pours[r.line][:2], state.rounds[r.number].to_pour * plan.pour_each_s(line)
        )
        from_s = max(opens, bears_next_s(plan, state, run.rounds, r), 0.0 if r.on is not None else free[r.stay])
        rests_to = None if r.on is None else rests_to_degc(plan, cook, r)
        if rests_to is not None:
            from_s = max(from_s, falls_to_s(track, rests_to))
        if line.with_next:
            from_s = max(from_s, _goes_with_from_s(run, r))
        # what is poured with the melt above it waits for that, however long that takes; others as long as they still are in time
        waits = math.isinf(from_s) and (line.with_next or ready_s[r.number] < stiff)
        if now >= stiff or (from_s >= stiff and not waits):
            continue
        late = from_s >= closes
        what = _pour(run, cook, r, left, rests_to)
        until = math.inf if late else closes
        pours.append(Act(what, Subject("round", r.number), Poured(r.number), from_s, until, sure and not late))
    if pours or fills:
        # it is read on the way to its window, not while it waits for a mould
        opens = track.windows["pour"][0].likely
        reads = [Act(Read(), subject, None, rest.off_s + (opens - rest.off_s) / 2, opens)]
        return (reads if not rest.readings and now < opens else []) + pours
    first_s = min(max(ready_s[r.number], run.expected_s(r.number)) for r in waiting)
    at = max(now, heater_s, first_s - warms_s(plan, cook, first_s - rest.off_s))
    # what is still fluid and in temper is warmed within it, meanwhile too where that lasts until its next pour
    kept_s = max(now, heater_s, stiff - plan.paces.call_before_s)
    if track.tempered_s is not None and kept_s <= stiff < at and first_s - kept_s <= stiff - rest.off_s:
        at = kept_s
    keeps = track.tempered_s is not None and at <= stiff
    to_degc = cook.way.melt.spread("work_at").high if keeps else cook.way.end_degc
    if not isinstance(cook.heating, Bowl):
        return [Act(WarmAgain(to_degc, None, None, keeps), subject, Heated(cook.number), at)]
    if not keeps:
        burst = Burst(cook.number, again_s(cook.heating), cook.heating.school.power_frac)
    elif step := warms_by(cook.heating, again_at(track, at)):
        burst = burst_of(cook, step)
    else:
        return [Act(WarmAgain(to_degc, None, None, keeps), subject, Heated(cook.number), at)]
    return [Act(WarmAgain(to_degc, burst.seconds, burst.power_frac, keeps), subject, burst, at)]


def _goes_with_from_s(run: RunNow, r: Round) -> float:
    """When a melt may be poured into or beside those above it, so that they follow at once: inf while one of them is not off the heat
    [s]."""
    above = next((of for of in run.all_rounds if of.on == r.number), None)
    if above is None or run.state.cooks[above.cook].phase != "resting":
        return math.inf
    line, to_pour = run.plan.lines[above.line], run.state.rounds[above.number].to_pour
    opens, _, _ = act_window(*run.pots[above.cook].pours[above.line][:2], run.plan.pour_lasts_s(line, to_pour))
    opens = max(opens, _goes_with_from_s(run, above) if line.with_next else 0.0)
    mine = run.plan.lines[r.line]
    return opens - run.plan.pour_lasts_s(mine, run.state.rounds[r.number].to_pour)


def _pour(run: RunNow, cook: PotCook, r: Round, left_kg: float, rests_to_degc: float | None) -> Pour:
    plan, track = run.plan, run.pots[cook.number]
    line, limited_by = plan.lines[r.line], track.pours[r.line][2]
    here = [run.state.rounds[number] for number in run.state.layout.with_it(r.number)]
    to_pour = sum(of.to_pour for of in here)
    kg = sum(of.to_pour * plan.lines[of.line].cast.poured.value.likely for of in here)
    rest = run.state.cooks[cook.number].rests[-1]
    return Pour(
        line=r.line,
        casts=to_pour,
        laid=line.kind,
        filled=run.state.rounds[r.number].filled,
        left_kg=left_kg,
        each_kg=kg / max(to_pour, 1),
        stays_kg=line.cast.finished.value.likely,
        fill_m=line.fill_m,
        thick_m=line.cast.thickness.likely,
        pour_s=to_pour * plan.pour_each_s(line),
        habits=tuple(habits_of(plan, r.line)),
        limited_by=limited_by,
        bubble_m=2 * cook.way.melt.value("bubble_radius") if limited_by == "bubbles" else None,
        readings=len(rest.readings),
        unswirled=_unswirled(rest),
        rests_to_degc=rests_to_degc,
        turning=_turning(cook.way.melt, run.windows[r.number]) if line.whole_ball else None,
        dip=_dip_from(plan, cook, r),
        dab=Dab(line.softens_s, int(material("kitchen", "dab", "join").value("twists")))
        if line.softens_s
        else None,
        sheet=sheet_in(run, r),
        piped=line.piped,
        laid_by=line.laid_by,
    )


def sheet_in(run: RunNow, r: Round) -> SheetOf | None:
    """The sheets that a round is cut out of, with what shares them. Source: definition"""
    here = [run.state.rounds[number] for number in run.state.layout.with_it(r.number)]
    return sheet_of(
        [(run.plan.lines[of.line].mould, of.casts) for of in here if of.number == r.number or not of.left_out]
    )


def _left_kg(plan: PlanInput, cook: PotCook, state: RunState, waiting: list[Round]) -> float:
    """What is still in the vessel to be poured."""
    seen = state.cooks[cook.number]
    gone = [r for r in cook.rounds if r not in waiting and r.number not in (seen.lost or ())]
    poured = sum(plan.lines[r.line].cast.poured.value.likely * r.casts for r in gone)
    return max(cook.charge_kg - cook.residue_kg.likely - cook.bags_kg - poured - seen.taken_kg, 0.0)


def _unswirled(rest: Rest) -> bool:
    last = max(rest.readings, key=lambda r: r.at_s, default=None)
    return last is not None and last.method != "immersed_swirled"


def _turning(melt: Material, windows: PieceWindows) -> Turning:
    turns = turns_of(melt, windows)
    return Turning(turns.by_hand_s, turns.every_s, turns.count, turns.practised)


def _dip_from(plan: PlanInput, cook: PotCook, r: Round) -> DipFrom | None:
    if not plan.lines[r.line].dip or cook.flow.tg is not None:
        return None
    bath = bath_of(plan, cook, r)
    return DipFrom(bath.floor_degc.likely, bath.most_degc, tuple(bath.warm_after))
