"""Small acts that prevent the commonest losses: which belong to a pour, and how long they take."""

from dataclasses import dataclass
from functools import cache

from umber_pebble.core.materials.load import table
from umber_pebble.core.plan.problem import Line, PlanInput, SugarCook


@dataclass(frozen=True, slots=True)
class Habit:
    """A small act: when it is done ("before", "while" or "after" the pour), how long it takes, once or for each cavity [s]."""

    key: str
    when: str
    seconds: float
    once: bool


@cache
def _rows() -> list[dict]:  # type: ignore[type-arg]
    rows: list[dict] = table("habits")["habit"]  # type: ignore[type-arg]
    return rows


def _mould(line: Line, kind: str) -> bool:
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
    family = "sugar" if isinstance(plan.way(line).by, SugarCook) else "fat"
    then = next((after.kind for after in plan.lines if after.after == index), None)
    kinds = {h.what for h in line.first} if put_in else {line.kind}
    out = [
        Habit(row["key"], row["when"], float(row["seconds"]["value"]), row["once"])
        for row in _rows()
        if kinds & set(row["passes"])
        and family in row["of"]
        and any(_mould(line, kind) for kind in row["moulds"])
        and row.get("before", then) == then
        and (line.after is None or row["when"] != "before")
    ]
    order = ("before", "while", "after")
    return sorted(out, key=lambda h: order.index(h.when))
