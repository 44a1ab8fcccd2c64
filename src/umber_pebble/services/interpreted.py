"""A run's engine objects, made from its frozen documents, and what its events make of them."""

import logging
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import partial

from umber_pebble.core.bench.again import as_cooks, cooks_now, numbered
from umber_pebble.core.bench.bowl import Again, again_at, belief_of
from umber_pebble.core.bench.cast_track import round_track
from umber_pebble.core.bench.held_track import HoldKitchen, held_track
from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.predict import heating_track, resting_track
from umber_pebble.core.bench.state import UNFILLED, BatchState, Layout, Reading, Rest, RoundState, RunState
from umber_pebble.core.bench.tempering import tempering_track
from umber_pebble.core.bench.track import Dot, Track, temperature_at_degc
from umber_pebble.core.bench.whose import Whose
from umber_pebble.core.errors import OutOfRange
from umber_pebble.core.families.known import family_of
from umber_pebble.core.glass.viscosity import log_viscosity_wlf_1955
from umber_pebble.core.heat.casting import Place
from umber_pebble.core.heat.pour import SugarFlow
from umber_pebble.core.heat.windows import PieceWindows
from umber_pebble.core.log.learn import (
    Factor,
    counted,
    coupling_factor,
    fills_off,
    loss_factor,
    pooled,
    residue_factor,
)
from umber_pebble.core.melts.bursts import Bowl
from umber_pebble.core.plan.cooks import PotCook, Round, make_cooks, round_windows
from umber_pebble.core.plan.problem import PlanInput, PlanLine
from umber_pebble.core.plan.sheets import cut_to_size
from umber_pebble.core.spread import Spread
from umber_pebble.services.doc_base import STORED
from umber_pebble.services.places import place_degc
from umber_pebble.services.snapshot import Snapshot, break_key_of, places, plan_input
from umber_pebble.store.models import Calibration, Run

LOG = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class KeptDose:
    """How much of a colour goes into a kilogram of a melt [kg, drops]; None: its strength is not known."""

    name: str
    kg: float | None
    drops: float | None


@dataclass(frozen=True, slots=True)
class FrozenPlan:
    """What a run was started with, as engine objects: made from its stored documents, never from today's."""

    snapshot: Snapshot
    plan: PlanInput
    cooks: list[PotCook]
    finished_kg: dict[int, float]
    layout: Layout
    windows: dict[int, PieceWindows]
    places: dict[str, Place]
    hold: HoldKitchen
    doses: dict[str, list[KeptDose]]
    planned_s: dict[int, float]
    whose: Whose
    kept: dict[tuple[str, int, int], tuple[object, Track]] = field(default_factory=dict)

    def track(
        self,
        name: tuple[str, int, int],
        made_from: object,
        make: Callable[[], Track],
        bare: Callable[[], Track],
        readings: Sequence[Reading],
    ) -> Track:
        """A track as it was made before, unless what it is made from has changed. Where no model follows what was read and seen, it
        is made without that, and every reading is drawn as left out."""
        known = self.kept.get(name)
        if known is None or known[0] != made_from:
            try:
                track = make()
            except Exception:
                LOG.exception("no curve fits %s: told without its readings", name)
                track = replace(
                    bare(), dots=tuple(Dot(r.id, r.at_s, r.degc, r.degc, r.method, True) for r in readings)
                )
            known = self.kept[name] = (made_from, track)
        return known[1]


@dataclass(slots=True)
class Interpreted:
    """A run as its events tell it: its cooks as they are now, and the curves of every pot, round and held batch."""

    seq: int
    state: RunState
    cooks: list[PotCook]
    rests: dict[tuple[int, int], Track] = field(default_factory=dict)
    pots: dict[int, Track] = field(default_factory=dict)
    rounds: dict[int, Track] = field(default_factory=dict)
    batches: dict[int, Track] = field(default_factory=dict)


def frozen_plan_of(run: Run, more: list[list[tuple[int, int]]]) -> FrozenPlan:
    """Engine objects from a run's frozen documents, and the cooks added since."""
    snapshot = Snapshot.model_validate(run.frozen["snapshot"], strict=False, context=STORED)
    plan = plan_input(snapshot, datetime.fromisoformat(run.frozen["planned_at"]))
    planned = [row for group in run.frozen["groups"] for row in group]
    plan = cut_to_size(plan, [[row[1] for row in planned if row[0] == i] for i in range(len(plan.lines))])
    cooks = make_cooks(plan, _rounds_of(plan, run.frozen["groups"], more))
    finished = {r.number: _gone_kg(plan.lines[r.line]) * r.casts for c in cooks for r in c.rounds}
    rounds = tuple(sorted((r for c in cooks for r in c.rounds), key=lambda r: r.number))
    ways = [plan.way(line) for line in plan.lines]
    spots = places(snapshot)
    layout = Layout(
        rounds,
        tuple(way.vessel_id for way in ways),
        tuple(tuple(of.kind for of in line.works) for line in plan.lines),
        tuple(line.lies[0][1] if line.lies else plan.way(line).poured_on_id for line in plan.lines),
        tuple(spots),
        tuple(way.by.by_bursts for way in ways),
        tuple(family_of(way.melt) for way in ways),
        tuple(line.melt for line in plan.lines),
        tuple(line.after for line in plan.lines),
        tuple(line.last for line in plan.lines),
        len(plan.by_hand),
        tuple(line.mould.shares for line in plan.lines),
    )
    return FrozenPlan(
        snapshot,
        plan,
        cooks,
        finished,
        layout,
        round_windows(plan, cooks),
        spots,
        _hold(snapshot),
        {melt: [KeptDose(**row) for row in rows] for melt, rows in run.frozen.get("doses", {}).items()},
        dict(enumerate(run.frozen.get("pours_s", []))),
        {(row["kind"], row["number"]): row["who"] for row in run.frozen.get("whose", [])},
    )


def _gone_kg(line: PlanLine) -> float:
    """What of a casting is gone from the vessel: what stays in it; of a sheet its webs too, until it is broken up, and what comes off mixed
    with others [kg]."""
    of = line.cast.finished if line.mould.cutting is None and not line.mixed else line.cast.poured
    return of.value.likely


def _rounds_of(
    plan: PlanInput, groups: Sequence[Sequence[Sequence[int]]], more: Sequence[list[tuple[int, int]]]
) -> list[list[Round]]:
    """The rounds of each cook of a run, with those that were added to it. A row is a line and its castings, then its number, what it
    is poured on (-1: an empty mould), its stay, and the cook that it is divided off for (-1: none); an older one does not know that; without
    those, rounds are numbered cook by cook."""

    def known(number: int = -1) -> int | None:
        return None if number < 0 else number

    rows = [row for group in [*groups, *more] for row in group]
    if not all(groups) or any(
        row[0] >= len(plan.lines) or row[1] < 1 or len(row) not in (2, 5, 6) for row in rows
    ):
        raise OutOfRange("a round is of a line that is not there", path="frozen.groups", got=str(groups))
    out = [
        [Round(row[2], row[0], cook, row[1], known(row[3]), row[4], known(*row[5:])) for row in group]
        for cook, group in enumerate(groups)
        if len(group[0]) > 2
    ]
    plain = [] if out else [[(row[0], row[1]) for row in group] for group in groups]
    for added in more:
        plain += as_cooks(added, [line.after for line in plan.lines], [line.melt for line in plan.lines])
    out += numbered(plan.lines, plain, [r for rounds in out for r in rounds], len(out))
    if sorted(r.number for rounds in out for r in rounds) != list(range(sum(map(len, out)))):
        raise OutOfRange("rounds are not numbered from 0 on", path="frozen.groups", got=str(groups))
    return out


def interpret(frozen: FrozenPlan, state: RunState, seq: int) -> Interpreted:
    """All tracks of a run: every rest, the pots as they are now, every poured round."""
    seen = Interpreted(seq, state, cooks_now(frozen.plan, frozen.cooks, state))
    for cook, cooked in zip(seen.cooks, state.cooks, strict=True):
        number = cook.number
        for i, rest in enumerate(cooked.rests):
            name, alone = ("rest", number, i), replace(rest, readings=[], melted=None)
            _, before = frozen.kept.get(name, (None, None))
            last = seen.rests[(number, i - 1)] if i else None
            again = again_at(last, rest.on_s) if last and not rest.anew else None
            make = partial(_rested, cook, rest, frozen.finished_kg, before, again)
            bare = partial(_rested, cook, alone, frozen.finished_kg, None, again)
            seen.rests[(number, i)] = frozen.track(name, (cooked.lost, rest, again), make, bare, rest.readings)
        if cooked.phase == "heating" and cooked.heated_s is not None:
            last = seen.rests[(number, len(cooked.rests) - 1)] if cooked.rests and not cooked.anew else None
            again = again_at(last, cooked.heated_s) if last else None
            heated = (
                again,
                cooked.lost,
                cooked.heated_s,
                cooked.from_degc,
                cooked.heatings,
                cooked.readings,
                cooked.bursts,
                cooked.sights,
            )
            make, bare = (
                partial(heating_track, cook, of, again) for of in (cooked, replace(cooked, readings=[], sights=[]))
            )
            seen.pots[number] = frozen.track(("heating", number, 0), heated, make, bare, cooked.readings)
        elif cooked.phase == "resting":
            seen.pots[number] = seen.rests[(number, len(cooked.rests) - 1)]
    for cook in seen.cooks:
        for r in cook.rounds:
            target = state.rounds[r.number]
            if target.poured_s is not None:
                pour, temper = _poured_as(seen, target)
                lies = replace(target, outcomes={})
                make, bare = (
                    partial(round_track, frozen.plan, cook, r.line, of, pour, frozen.places, temper)
                    for of in (lies, replace(lies, readings=[], sights=[]))
                )
                seen.rounds[r.number] = frozen.track(
                    ("round", r.number, 0), (pour, lies, temper), make, bare, lies.readings
                )
    for b in state.batches:
        if b.gone_s is None:
            seen.batches[b.number] = _held(frozen, seen, b)
    return seen


def _poured_as(seen: Interpreted, target: RoundState) -> tuple[Spread, str]:
    """How warm a round was poured [degC], and in which temper."""
    assert target.poured_s is not None
    rest = seen.rests[(target.cook, target.rest)]
    return temperature_at_degc(rest, target.poured_s), rest.temper or "unseeded"


def track_of_round(frozen: FrozenPlan, seen: Interpreted, number: int, moved: tuple[float, str]) -> Track:
    """How a poured round cools if it is moved at a moment [s since the run started] to a place."""
    target = seen.state.rounds[number]
    lies = replace(target, outcomes={}, places=[*target.places, moved])
    pour, temper = _poured_as(seen, target)
    return round_track(frozen.plan, seen.cooks[target.cook], target.line, lies, pour, frozen.places, temper)


def run_now(frozen: FrozenPlan, seen: Interpreted, now: float) -> RunNow:
    """A run so many seconds after its start."""
    return RunNow(
        frozen.plan,
        seen.cooks,
        seen.state,
        seen.pots,
        seen.rounds,
        frozen.windows,
        now,
        frozen.planned_s,
        frozen.whose,
    )


def _rested(
    cook: PotCook, rest: Rest, finished_kg: dict[int, float], before: Track | None, again: Again | None
) -> Track:
    if cook.tempering:
        in_temper = again is not None and again.in_temper
        return tempering_track(
            cook.tempering, rest, lambda of: resting_track(cook, of, finished_kg, again=again), in_temper
        )
    return resting_track(cook, rest, finished_kg, before, again)


def _held(frozen: FrozenPlan, seen: Interpreted, b: BatchState) -> Track:
    """Of the cook it came from, as warm as that was when it was filled, or as the batch it was parted from."""
    if b.parent is not None:
        parent = seen.state.batches[b.parent]
        source = seen.batches.get(b.parent) or _held(frozen, seen, parent)
    else:
        rests = seen.state.cooks[b.cook].rests
        source = seen.rests[(b.cook, max(i for i, rest in enumerate(rests) if i == 0 or rest.off_s <= b.at_s))]
    degc = temperature_at_degc(source, b.at_s)
    make, bare = (
        partial(held_track, seen.cooks[b.cook], of, degc, frozen.hold, source.overheated)
        for of in (b, replace(b, readings=[]))
    )
    return frozen.track(("batch", b.number, 0), (degc, b), make, bare, b.readings)


def _hold(snapshot: Snapshot) -> HoldKitchen:
    kitchen = snapshot.kitchen
    bath = kitchen.baths[0].water_degc if kitchen.baths else None
    counter = place_degc(kitchen.places[0], kitchen)
    oven = kitchen.microwaves[0].power_w if kitchen.microwaves else None
    return HoldKitchen(kitchen.room_degc, {"bath": bath, "counter": counter}, oven)


def _coupling(seen: Interpreted, cooks: list[PotCook]) -> Factor | None:
    """What the bowls of these cooks say of their oven."""
    melted = [
        (cook.heating, rest.melted)
        for cook in cooks
        for rest in seen.state.cooks[cook.number].rests
        if rest.melted is not None
    ]
    return coupling_factor(
        [belief_of(bowl, m.bursts, m.readings, m.sights)[0] for bowl, m in melted if isinstance(bowl, Bowl)]
    )


def _pours(seen: Interpreted, cooks: list[PotCook]) -> list[tuple[float, bool]]:
    """How much thicker than reckoned each pour of these cooks was that came to an outcome, and whether it filled."""
    out = []
    for cook in cooks:
        for i, rest in enumerate(seen.state.cooks[cook.number].rests):
            for at, number in rest.poured:
                outcomes = seen.state.rounds[number].outcomes.values()
                if outcomes and (cook.number, i) in seen.rests:
                    degc = temperature_at_degc(seen.rests[(cook.number, i)], at).likely
                    flow, _ = cook.pours[seen.state.rounds[number].line]
                    assert isinstance(flow, SugarFlow)
                    log = log_viscosity_wlf_1955(degc, flow.tg.likely)
                    off = log - flow.closes.likely + cook.way.fills_off.likely
                    out.append((off, not any(UNFILLED in kinds for _, kinds in outcomes)))
    return out


def calibrations_of(run: Run, frozen: FrozenPlan, seen: Interpreted) -> list[Calibration]:
    """Evidence of a run on its vessels, heaters and moulds, each of them once."""
    found: dict[tuple[str, str], list[Factor]] = {}
    for way in frozen.plan.ways.values():
        cooks = [c for c in frozen.cooks if c.way is way]
        tracks = [t for (number, _), t in seen.rests.items() if frozen.cooks[number].way is way]
        # what is kept warm tells nothing of how the vessel cools by itself
        loss = None if way.kept else loss_factor(tracks, way.pot.loss_factor.likely)
        last = cooks[-1]
        # what was weighed in a vessel is what was made there last
        later = any(c.way.vessel_id == way.vessel_id for c in frozen.cooks[last.number + 1 :])
        residue = residue_factor(
            None if later else seen.state.left_kg.get(way.vessel_id),
            last.left_kg,
            last.residue_kg.likely,
            way.residue_factor.likely,
        )
        said = [("loss", way.vessel_id, loss), ("residue", way.vessel_id, residue)]
        if last.flow.tg is not None:
            said.append(("fills", way.vessel_id, fills_off(_pours(seen, cooks))))
        if way.by.by_bursts:
            said.append(("coupling", way.by.heater_id, _coupling(seen, cooks)))
        for kind, subject, factor in said:
            if factor is not None:
                found.setdefault((kind, subject), []).append(factor)
    out = []
    for (kind, subject), factors in found.items():
        of = pooled(factors)
        evidence = {"value": of.value, "sd": of.sd}
        out.append(Calibration(run_id=run.id, kind=kind, subject=subject, evidence=evidence))
    totals: dict[str, list[int]] = {}
    counts = counted(seen.state)
    for r in seen.state.rounds:
        line = frozen.plan.lines[r.line]
        if not line.last:
            continue
        row = totals.setdefault(break_key_of(line), [0, 0])
        row[0] += counts[r.number][0]
        row[1] += counts[r.number][1]
    for key, (broken, good) in totals.items():
        if broken + good:
            evidence = {"broken": broken, "good": good}
            out.append(Calibration(run_id=run.id, kind="break", subject=key, evidence=evidence))
    return out
