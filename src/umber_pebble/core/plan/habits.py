"""Small acts that prevent the commonest losses: which belong to a pour, and how long they take."""

from dataclasses import dataclass
from functools import cache
from typing import Literal

from umber_pebble.core.families.known import family_of
from umber_pebble.core.materials.load import table
from umber_pebble.core.plan.problem import PlanInput, PlanLine

HabitKey = Literal["wipe", "oil", "tap", "tap_all", "rim", "unchilled", "tip_under"]


@dataclass(frozen=True, slots=True)
class Habit:
    """A small act: when it is done, against the pour, how long it takes, once or for each cavity [s]."""

    key: HabitKey
    when: Literal["before", "while", "after"]
    seconds: float
    once: bool


@cache
def _rows() -> list[dict]:  # type: ignore[type-arg]
    rows: list[dict] = table("habits")["habit"]  # type: ignore[type-arg]
    return rows


def _mould(line: PlanLine, kind: str) -> bool:
    of = line.mould.material.flags
    return {
        "any": True,
        "oiled": line.mould.oiled,
        "stiff": not of.get("bends", False) and not of.get("peels", False),
    }[kind]


def habits_of(plan: PlanInput, index: int, put_in: bool = False) -> list[Habit]:
    """The small acts of a line's pour, or of what hands put in before it, in the order they are done [s].

    Args:
        plan: the plan
        index: of the line
        put_in: of what hands put in
    Source: common-practice
    """
    line = plan.lines[index]
    rows = family_of(plan.way(line).melt).rows
    then = next((after.kind for after in plan.lines if after.after == index), None)
    kinds = {h.what for h in line.first} if put_in else {line.kind}
    out = [
        Habit(row["key"], row["when"], float(row["seconds"]["value"]), row["once"])
        for row in _rows()
        if kinds & set(row["passes"])
        and rows in row["of"]
        and any(_mould(line, kind) for kind in row["moulds"])
        and row.get("before", then) == then
        and (line.after is None or row["when"] != "before")
    ]
    order = ("before", "while", "after")
    return sorted(out, key=lambda h: order.index(h.when))
