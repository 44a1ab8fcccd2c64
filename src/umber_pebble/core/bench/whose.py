"""Whose hands an act of a run is for, where its day was planned for several people."""

from collections.abc import Iterable

from umber_pebble.core.bench.now import RunNow
from umber_pebble.core.bench.passes import Act
from umber_pebble.core.plan.tasks import POURS, Task

Whose = dict[tuple[str, int], str]
"""By what is done and to what number: a cook, a round, what is made by hand; whose hands."""


def whose_of(tasks: Iterable[Task], people: tuple[str, ...]) -> Whose:
    """Whose hands each thing of a plan is for; of a melt, whose it is to weigh out first.

    Args:
        tasks, people: of the plan
    Source: definition
    """
    out: Whose = {}
    for task in tasks:
        if task.who is None or not people[task.who]:
            continue
        if task.of == "by_hand":
            key = ("by_hand", task.number)
        elif task.round is not None:
            key = ("pour" if task.kind in POURS else task.kind, task.round)
        else:
            key = ("cook", task.number)
        out.setdefault(key, people[task.who])
    return out


def hands_for(run: RunNow, act: Act) -> str:
    """Whose hands an act is for, "" where it is anybody's. Source: definition"""
    number = act.subject.number
    match act.subject.of:
        case "pot":
            return run.hands_for("cook", number) or ""
        case "hand":
            return run.hands_for("by_hand", number) or ""
        case "round":
            done = "unmould" if act.what.kind == "outcomes" else act.what.kind
            return run.hands_for(done, number) or run.hands_for("pour", number) or ""
    return ""
