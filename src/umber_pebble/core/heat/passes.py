"""A pass on a pass: does the new melt dissolve the first, tack to it, or stay apart; and how long it must rest."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from umber_pebble.core.glass.viscosity import temperature_at_log_viscosity_degc
from umber_pebble.core.heat.casting import Casting
from umber_pebble.core.heat.conduction import Array
from umber_pebble.core.heat.piece import FINE, Case, base, run_all
from umber_pebble.core.heat.times import falls_below_s

Verdict = Literal["dissolves", "tacks", "apart"]


@dataclass(frozen=True, slots=True)
class PassOnPass:
    """What a fresh melt does to what it is poured on: verdict; share of the earlier pass that melts again, and least set
    at its top [frac] (fat), or how hot its top gets [degC]; the hottest it may be poured without dissolving it [degC]."""

    verdict: Verdict
    melts_frac: float
    top_set_frac: float
    top_degc: float
    pour_below_degc: float


def _top_of_under(case: Case) -> tuple[float, float, float]:
    """Share of the earlier pass that melts at the worst moment, the least its top is set, the hottest it gets."""
    run = run_all([case], FINE[case.casting.kind], kept=True)
    sets = np.concatenate([h.set_of_layer(1) for h in run.fields])
    top_degc = max(float(h.of_layer(1)[:, 0].max()) for h in run.fields)
    if sets[0].mean() <= 0:
        return 0.0, 0.0, top_degc
    return float(1 - sets.mean(1).min() / sets[0].mean()), float(sets[:, 0].min() / sets[0, 0]), top_degc


def pass_on_pass(casting: Casting) -> PassOnPass:
    """What a casting's melt does to the pass right under it.

    Fat: it dissolves it when more than remelt_dissolves of its top melts again, tacks to it from remelt_tacks on, and
    lies apart below that. Sugar glass: by the viscosity the top of the earlier pass comes to: log_fuses, log_tacks.
    Args:
        casting: with an earlier pass of its own kind of material right under the melt
    Raises: OutOfRange: a size or temperature the model does not hold for.
    Source: avrami-1939, williams-landel-ferry-1955, assumption
    """
    case = base(casting)
    melts, top_set, top_degc = _top_of_under(case)

    def verdict(remains: float, hottest: float) -> Verdict:
        if casting.tg is not None:
            fuses, tacks = (
                temperature_at_log_viscosity_degc(casting.melt.value(name), casting.tg.likely)
                for name in ("log_fuses", "log_tacks")
            )
            return "dissolves" if hottest >= fuses else "tacks" if hottest >= tacks else "apart"
        under = casting.under[0].material
        gone = 1 - remains
        if not under.has("remelt_tacks") or gone < under.value("remelt_tacks"):
            return "apart"
        return "dissolves" if gone >= under.value("remelt_dissolves") else "tacks"

    def dissolves(degc: float) -> bool:
        _, remains, hottest = _top_of_under(replace(case, pour_degc=degc))
        return verdict(remains, hottest) == "dissolves"

    low, high = casting.under[0].degc, casting.pour.likely
    if dissolves(high):
        for _ in range(8):
            mid = (low + high) / 2
            low, high = (low, mid) if dissolves(mid) else (mid, high)
    return PassOnPass(
        verdict(top_set, top_degc), melts, top_set, top_degc, low if low > casting.under[0].degc else high
    )


def rest_s(times_s: Array, temps_degc: Array, pour_below_degc: float) -> float:
    """How long a bowl or pot must rest until its melt may be poured on an earlier pass; inf when it never cools so far [s].

    Args:
        times_s, temps_degc: how it cools off the heat
        pour_below_degc: of the pass
    Source: definition
    """
    return falls_below_s(times_s, temps_degc, pour_below_degc)
