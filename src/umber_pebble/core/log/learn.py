"""What a run taught: the pot's loss, the melt it keeps, and how often castings break."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Belief
from umber_pebble.core.spread import Z_95, Spread

BETWEEN_RUNS_SD = 0.05
LEARNT = 1.05
EDGE = 0.05
"""How sharp the limit of a pour is [log10 Pa s]."""
"""Looks that leave an oven's coupling no surer than this have said nothing of it."""


@dataclass(frozen=True, slots=True)
class Factor:
    """One run's word on a factor: its value and standard deviation [1]."""

    value: float
    sd: float


def loss_factor(tracks: Sequence[Track], frozen: float) -> Factor | None:
    """How a pot's loss compares with the model, from its fitted cooks; None without readings used [1].

    Args:
        tracks: resting tracks of the run
        frozen: the likely loss factor the run was planned with
    Source: gelman-2013
    """
    weight = total = 0.0
    for t in (t for t in tracks if any(not d.odd for d in t.dots)):
        # what the readings alone said: what is held after them less what was held before, so that a prior counts once over many runs
        before, after = 1 / t.prior.var_rate, 1 / t.line.var_rate
        alone = after - before
        if alone < (LEARNT - 1) * before:
            continue
        ratio = (t.line.rate * after - t.prior.rate * before) / alone / t.prior.rate
        weight, total = weight + alone * t.prior.rate**2, total + alone * t.prior.rate**2 * ratio
    return Factor(frozen * total / weight, frozen / math.sqrt(weight)) if weight else None


def coupling_factor(beliefs: Sequence[Belief]) -> Factor | None:
    """How much of an oven's power couples against the usual share, from bowls that were looked at; None without any [1].

    Args:
        beliefs: one per bowl
    Source: gelman-2013
    """
    usual = material("kitchen", "coupling", "microwave").value("share")
    weight, total = 0.0, 0.0
    for belief in beliefs:
        # what the looks alone said: what is held after them less what was held before, by their precisions
        before, after = belief.before_frac, belief.oven_frac
        w0, w1 = (1 / max((s.high - s.low) / (2 * Z_95), 1e-3) ** 2 for s in (before, after))
        if w1 > w0 * LEARNT:
            weight, total = weight + w1 - w0, total + w1 * after.likely - w0 * before.likely
    return Factor(total / weight / usual, 1 / (usual * math.sqrt(weight))) if weight else None


def residue_factor(
    left_kg: float | None, predicted_left_kg: float, predicted_residue_kg: float, frozen: float
) -> Factor | None:
    """How much melt a pot keeps against the film model; None when nobody weighed it [1].

    Args:
        left_kg: as weighed at the end, None when nobody did
        predicted_left_kg, predicted_residue_kg: of the last cook
        frozen: factor the run was planned with
    Source: jeffreys-1930
    """
    if left_kg is None or predicted_residue_kg <= 0:
        return None
    kept = max(left_kg - (predicted_left_kg - predicted_residue_kg), 0.1 * predicted_residue_kg)
    return Factor(frozen * kept / predicted_residue_kg, 0.25 * frozen * kept / predicted_residue_kg)


def fills_off(pours: Sequence[tuple[float, bool]]) -> Factor | None:
    """How much thicker than reckoned a melt was seen to fill, from pours and whether they did; None where they say nothing
    [log10 Pa s].

    A pour that filled says the limit lies above it, one that did not that it lies below, each as sharp as EDGE.
    Args:
        pours: how much thicker than the reckoned limit each was [log10 Pa s], and whether it filled
    Source: gelman-2013
    """
    prior = material("kitchen", "usual", "fills").spread("off")
    sd = (prior.high - prior.low) / (2 * Z_95)
    grid = np.linspace(-4 * sd, 4 * sd, 161)
    weight = np.exp(-0.5 * ((grid - prior.likely) / sd) ** 2)
    for x, filled in pours:
        above = 1.0 / (1.0 + np.exp(-(grid - x) / EDGE))
        weight *= above if filled else 1.0 - above
    total = weight.sum()
    mean = float((grid * weight).sum() / total)
    after = float(((grid - mean) ** 2 * weight).sum() / total)
    more = 1 / after - 1 / sd**2
    if more < LEARNT - 1:
        return None
    return Factor((mean / after - prior.likely / sd**2) / more, 1 / math.sqrt(more))


def pooled(said: Sequence[Factor]) -> Factor:
    """What several melts of one run say of the same vessel or heater, by their precisions; not none.

    Source: gelman-2013
    """
    weights = [1 / of.sd**2 for of in said]
    mean = sum(w * of.value for w, of in zip(weights, said, strict=True)) / sum(weights)
    return Factor(mean, 1 / math.sqrt(sum(weights)))


def learned(prior: Spread, evidence: Sequence[Factor], at_least: float = 0.05) -> Spread:
    """A factor after what all runs say: weighted by precision, runs differing by 5 % among themselves [1].

    Args:
        prior: before any run
        evidence: one per run
        at_least: what it cannot be below
    Source: gelman-2013
    """
    sd = (prior.high - prior.low) / (2 * Z_95)
    weight, total = 1 / sd**2, prior.likely / sd**2
    for f in evidence:
        w = 1 / (f.sd**2 + BETWEEN_RUNS_SD**2)
        weight, total = weight + w, total + w * f.value
    if not evidence:
        return prior
    mean, half = total / weight, Z_95 / math.sqrt(weight)
    return Spread(max(mean - half, at_least), mean, mean + half)


def counted(state: RunState) -> dict[int, tuple[int, int]]:
    """Per round, castings unusable and usable as recorded [count]. Source: definition"""
    out = {}
    for r in state.rounds:
        good = sum(usable for usable, _ in r.outcomes.values())
        out[r.number] = (len(r.outcomes) - good, good)
    return out
