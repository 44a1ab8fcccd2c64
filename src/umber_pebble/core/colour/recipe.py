"""From a wanted colour to at most three colours: how much of each, and how near it comes."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

import numpy as np

from umber_pebble.core.colour.look import Medium, spectrum
from umber_pebble.core.colour.spaces import Array, delta_e_2000, delta_parts_2000, lab_of_spectrum
from umber_pebble.core.errors import Missing, OutOfRange, require_range
from umber_pebble.core.spread import Spread

MOST_COLOURS, MOST_AT_HAND = 3, 6
USUAL_MOST: Literal["the most that is usual"] = "the most that is usual"
ROUNDS, STEP_FRAC, DAMPING = 40, 1e-3, 1e-2
SIMPLER = 0.3
"""A recipe of fewer colours is taken when it is no further off than this [CIEDE2000]."""


HeldBy = Literal["", "the most that is usual", "what is in it already", "these colours"]


@dataclass(frozen=True, slots=True)
class Recipe:
    """Doses by colour [mg/kg], those already in it among them; Lab reached, how far off it is [CIEDE2000], and what holds it
    back, if anything."""

    doses_mg_kg: dict[str, float]
    lab: tuple[float, float, float]
    delta_e: float
    held_by: HeldBy


def recipe(
    medium: Medium,
    wanted_lab: Array,
    keys: Sequence[str],
    most_mg_kg: float,
    already_mg_kg: dict[str, float] | None = None,
) -> Recipe:
    """At most three of the colours at hand that come nearest to a wanted one; what is in it already stays in it.

    Every choice of colours at once by damped Gauss-Newton on the parts of CIEDE2000 within its bounds; four colours
    for three numbers would have many answers, three have one.
    Args:
        medium: what is coloured
        wanted_lab: under daylight
        keys: colours at hand, 1 to 6
        already_mg_kg: by colour, what is in it; colours outside keys count too
        most_mg_kg: of all together
    Raises: Missing: no colour. OutOfRange: too many, a negative dose, more in it already than is usual.
    Source: kubelka-munk-1931, beer-1852, sharma-2005
    """
    already = already_mg_kg or {}
    hand = list(dict.fromkeys(keys))
    if not hand:
        raise Missing("choose at least one colour", path="colours")
    if len(hand) > MOST_AT_HAND:
        raise OutOfRange(
            f"choose among at most {MOST_AT_HAND} colours",
            path="colours",
            got=len(hand),
            limits={"high": MOST_AT_HAND},
        )
    for key, dose in already.items():
        require_range(f"already.{key}", dose, 0.0, most_mg_kg)
    every = tuple(dict.fromkeys([*hand, *already]))
    floor = np.array([already.get(key, 0.0) for key in every])
    require_range("already", float(floor.sum()), 0.0, most_mg_kg)
    free = np.array(
        [
            [key in chosen for key in every]
            for count in range(1, MOST_COLOURS + 1)
            for chosen in combinations(hand, count)
        ]
    )
    doses = _solve(medium, wanted_lab, every, free, floor, most_mg_kg)
    lab = lab_of_spectrum(spectrum(medium, doses, every))
    off = delta_e_2000(lab, np.broadcast_to(wanted_lab, lab.shape))
    count = free.sum(axis=1)
    best = min(range(off.size), key=lambda i: off[i] + SIMPLER * count[i])
    found = {key: float(d) for key, d in zip(every, doses[best], strict=True) if d > 0.05}
    return Recipe(
        found,
        (float(lab[best, 0]), float(lab[best, 1]), float(lab[best, 2])),
        float(off[best]),
        _held_by(float(off[best]), doses[best], floor, most_mg_kg),
    )


FAR_OFF = 5.0
"""A colour this far off is another colour [CIEDE2000]: then more than is usual is worth its cost."""


def strong_recipe(
    medium: Medium,
    wanted_lab: Array,
    keys: Sequence[str],
    most_mg_kg: Spread,
    already_mg_kg: dict[str, float] | None = None,
) -> Recipe:
    """The same within what is usual, or where that stays far off a strong colour, with as much as one takes.

    Args:
        medium, wanted_lab, keys, already_mg_kg: as in recipe
        most_mg_kg: of all together, as is usual (likely), and for a strong red or black (high)
    Raises: as recipe.
    Source: common-practice
    """
    usual = recipe(medium, wanted_lab, keys, most_mg_kg.likely, already_mg_kg)
    if usual.delta_e <= FAR_OFF or usual.held_by != USUAL_MOST:
        return usual
    return recipe(medium, wanted_lab, keys, most_mg_kg.high, already_mg_kg)


def _held_by(off: float, doses: Array, floor: Array, most: float) -> HeldBy:
    if off <= 1.0:
        return ""
    if doses.sum() >= most * 0.999:
        return USUAL_MOST
    return "what is in it already" if floor.sum() > 0 and (doses <= floor + 1e-6).any() else "these colours"


def _bounded(doses: Array, free: Array, floor: Array, most: float) -> Array:
    """Doses of the free colours at their floor or above, all together no more than the most."""
    doses = np.where(free, np.maximum(doses, floor), floor)
    above = doses - floor
    room = most - floor.sum()
    total = above.sum(axis=1, keepdims=True)
    return np.asarray(floor + np.where(total > room, above * room / np.maximum(total, 1e-9), above))


def _solve(medium: Medium, wanted: Array, keys: tuple[str, ...], free: Array, floor: Array, most: float) -> Array:
    """Doses of every choice of colours [choice, colour]."""
    doses = _bounded(np.where(free, floor + most / 12, floor), free, floor, most)

    def miss(d: Array) -> Array:
        return delta_parts_2000(
            lab_of_spectrum(spectrum(medium, d, keys)), np.broadcast_to(wanted, (*d.shape[:-1], 3))
        )

    now = miss(doses)
    damping = np.full(free.shape[0], DAMPING)
    eye = np.eye(len(keys))
    for _ in range(ROUNDS):
        # Gauss-Newton in the doses, scaled by what is there
        scale = np.maximum(doses, 1.0)
        slope = np.stack(
            [(miss(doses + STEP_FRAC * scale * eye[j]) - now) / STEP_FRAC for j in range(len(keys))], axis=-1
        )
        slope = slope * free[:, None, :]
        normal = np.einsum("cik,cil->ckl", slope, slope)
        normal += (damping[:, None] * np.maximum(np.einsum("ckk->ck", normal), 1e-6))[:, :, None] * eye
        step = -np.linalg.solve(normal, np.einsum("cik,ci->ck", slope, now)[..., None])[..., 0]
        tried = _bounded(doses + np.clip(step, -0.7, 2.0) * scale, free, floor, most)
        after = miss(tried)
        better = (after**2).sum(axis=1) < (now**2).sum(axis=1)
        doses, now = np.where(better[:, None], tried, doses), np.where(better[:, None], after, now)
        damping = np.clip(np.where(better, damping / 3, damping * 4), 1e-9, 1e6)
    return doses
