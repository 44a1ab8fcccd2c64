"""What a vessel off the heat is poured into, and when; or that it is read, or warmed again."""

import math

from umber_pebble.core.bench.act_kinds import Dab, DipFrom, Pour, Read, Turning, WarmAgain
from umber_pebble.core.bench.events import Heated, Poured
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act, bears_next_s, swirls_from_s
from umber_pebble.core.bench.state import Rest, RunState
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
from umber_pebble.core.plan.turns import turns_of
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


def pour_acts(run: RunNow, cook: PotCook, waiting: list[Round], heater_s: float) -> list[Act]:
    """What a resting vessel asks for: a reading, its pours, or to be warmed again [s since the run started].

    Args:
        run: at a moment
        cook, waiting: in that vessel, and its rounds that are still to be poured
        heater_s: when what heats it is free [s]
    Source: common-practice
    """
    plan, state, track, now = run.plan, run.state, run.pots[cook.number], run.now_s
    out, subject = list[Act](), Subject("pot", cook.number)
    to_pour = {r.number: state.rounds[r.number].to_pour for r in waiting}
    all_s = sum(to_pour[r.number] * plan.pour_each_s(plan.lines[r.line]) for r in waiting)
    opens, closes, sure = act_window(*track.windows["pour"], all_s)
    rest = state.cooks[cook.number].rests[-1]
    if not rest.readings and now < opens:
        half = rest.off_s + (track.windows["pour"][0].likely - rest.off_s) / 2
        out.append(Act(Read(), subject, None, half, opens))
    if now > track.windows["stiff"][0].likely:
        burst = burst_of(cook, cook.heating, again_s(cook.heating)) if isinstance(cook.heating, Bowl) else None
        warm = WarmAgain(cook.way.end_degc, burst.seconds if burst else None)
        return [*out, Act(warm, subject, burst or Heated(cook.number), max(now, heater_s))]
    left = _left_kg(plan, cook, state, waiting)
    for r in waiting:
        line, from_s = plan.lines[r.line], max(opens, bears_next_s(plan, state, run.rounds, r))
        if line.first and state.rounds[r.number].put_in_s is None:
            continue
        rests_to = None if r.on is None else rests_to_degc(plan, cook, r)
        if rests_to is not None:
            from_s = max(from_s, falls_to_s(track, rests_to))
        if line.kind == "swirl":
            from_s = max(from_s, swirls_from_s(state, r.number))
        what = Pour(
            line=r.line,
            casts=to_pour[r.number],
            laid=line.kind,
            filled=r.casts - to_pour[r.number],
            left_kg=left,
            each_kg=line.cast.poured.value.likely,
            stays_kg=line.cast.finished.value.likely,
            fill_m=line.fill_m,
            thick_m=line.cast.thickness.likely,
            pour_s=to_pour[r.number] * plan.pour_each_s(line),
            habits=tuple(habits_of(plan, r.line)),
            limited_by=track.limited_by,
            bubble_m=2 * cook.way.melt.value("bubble_radius") if track.limited_by == "bubbles" else None,
            readings=len(rest.readings),
            unswirled=_unswirled(rest),
            rests_to_degc=rests_to,
            turning=_turning(cook.way.melt, run.windows[r.number]) if line.whole_ball else None,
            dip=_dip_from(plan, cook, r),
            dab=Dab(line.softens_s, int(material("kitchen", "dab", "join").value("twists")))
            if line.softens_s
            else None,
        )
        late = from_s >= closes
        until = math.inf if late else closes
        out.append(Act(what, Subject("round", r.number), Poured(r.number), from_s, until, sure and not late))
    return out


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
