"""What a run taught: the pot's loss, the melt it keeps, and how often castings break."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from umber_pebble.core.bench.state import RunState
from umber_pebble.core.bench.track import Track
from umber_pebble.core.heat.pot_law import Z_95
from umber_pebble.core.materials.load import material
from umber_pebble.core.melts.bursts import Belief
from umber_pebble.core.spread import Spread

BETWEEN_RUNS_SD = 0.05
LEARNT = 1.05
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
    rows = [t for t in tracks if any(not d.odd for d in t.dots)]
    if not rows:
        return None
    weights = [t.line.rate**2 / t.line.var_rate for t in rows]
    ratio = sum(w * t.line.rate / t.prior.rate for w, t in zip(weights, rows, strict=True)) / sum(weights)
    return Factor(frozen * ratio, frozen * ratio / math.sqrt(sum(weights)))


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


def learned(prior: Spread, evidence: Sequence[Factor]) -> Spread:
    """A factor after what all runs say: weighted by precision, runs differing by 5 % among themselves [1].

    Args:
        prior: before any run
        evidence: one per run
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
    return Spread(max(mean - half, 0.05), mean, mean + half)


def counted(state: RunState) -> dict[int, tuple[int, int]]:
    """Per round, castings unusable and usable as recorded [count]. Source: definition"""
    out = {}
    for r in state.rounds:
        good = sum(usable for usable, _ in r.outcomes.values())
        out[r.number] = (len(r.outcomes) - good, good)
    return out
