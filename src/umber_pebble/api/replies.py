"""Replies made of several services' answers."""

from typing import Any

from umber_pebble.core.families.known import family_of
from umber_pebble.core.temper.schools import steps
from umber_pebble.services import colouring
from umber_pebble.services.workshop import Workshop

COOK_NUMBERS = (
    "poured", "reserve", "residue", "bags", "charge", "fresh", "water", "water_left", "hob", "opens", "closes", "capacity",
)  # fmt: skip
PLAN_PARTS = (
    "lines", "melts", "rounds", "tasks", "casts", "cook_count", "start", "warnings", "cards", "steps", "by_hand",
)  # fmt: skip


def plan_reply(plan: Any, workshop: Workshop) -> dict[str, Any]:
    """A plan without the engine's own objects."""
    cooks = [
        {
            "number": c.cook.number,
            "rounds": [r.number for r in c.cook.rounds],
            "casts": c.cook.casts,
            "wet": c.cook.wet,
            "melt": c.cook.way.melt.key,
            "vessel_id": c.cook.way.vessel_id,
            "bursts": c.bursts,
            "nib_bursts": c.nib_bursts,
            "melt_name": c.cook.way.melt.name,
            "wording": family_of(c.cook.way.melt).rows,
            "sets_in_id": c.cook.way.sets_in_id,
            "end_degc": c.cook.way.end_degc,
            "colour": c.cook.way.colour,
            "melt_key": c.melt_key,
            "seed_kg": c.cook.seed_kg,
            "temper": [] if c.cook.tempering is None else list(steps(c.cook.tempering)),
            "depth_m": c.cook.window.depth_m,
            **{name: getattr(c, name) for name in COOK_NUMBERS},
        }
        for c in plan.cooks
    ]
    return {
        "planned_at": workshop.clock.now(),
        "cooks": cooks,
        "doses": colouring.doses_of(workshop, plan),
        **{name: getattr(plan, name) for name in PLAN_PARTS},
    }
