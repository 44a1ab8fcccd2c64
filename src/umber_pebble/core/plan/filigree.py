"""What a plan makes of lines piped over a drawing: how many break, whether they hang together, whether their bag lasts."""

import math
from collections.abc import Iterator
from functools import lru_cache

from umber_pebble.core.filigree.bending import lifted
from umber_pebble.core.filigree.check import Checked, checked
from umber_pebble.core.materials.load import Material
from umber_pebble.core.melts.bag import bag_flows_s
from umber_pebble.core.moulds.traced import Traced, traced_of
from umber_pebble.core.plan.compile import Plan
from umber_pebble.core.plan.cooks import PotCook, Round
from umber_pebble.core.plan.problem import PlanInput
from umber_pebble.core.plan.remarks import BagStiffens, BreaksEasily, FallsApart
from umber_pebble.core.plan.spares import USUAL_FRAC

MOST_PLANNED_FRAC = 0.5
"""No more than so many are planned to break: what breaks more often is drawn anew [frac]."""


@lru_cache(maxsize=64)
def checked_of(drawing: Traced, melt: Material) -> Checked:
    """A drawing as a filigree of a melt. Source: gere-goodno-2012, weibull-1951, assumption"""
    return checked(drawing, lifted(melt))


def expected_frac(drawing: Traced, melt: Material) -> float:
    """How many of its castings are taken to break before any was seen [frac]. Source: assumption"""
    return min(max(checked_of(drawing, melt).breaks_frac, USUAL_FRAC), MOST_PLANNED_FRAC)


def filigree_remarks(plan: Plan) -> Iterator[FallsApart | BreaksEasily | BagStiffens]:
    """What is to be known of each drawing before it is piped. Source: definition"""
    for c in plan.cooks:
        for r in c.rounds:
            line = plan.problem.lines[r.line]
            drawing = traced_of(line.mould.cavity.shape)
            if drawing is None or line.kind != "lines":
                continue
            of = checked_of(drawing, c.way.melt)
            if of.apart > 1:
                yield FallsApart(line.named, of.apart)
            elif not of.holds:
                yield BreaksEasily(line.named, of.breaks_frac)
            takes_s, flows_s = r.casts * plan.problem.pour_each_s(line), _bag_flows_s(plan.problem, c, r)
            if takes_s > flows_s:
                yield BagStiffens(line.named, takes_s, flows_s, math.ceil(takes_s / flows_s))


def _bag_flows_s(plan: PlanInput, c: PotCook, r: Round) -> float:
    """How long what a round takes of a melt flows in a bag [s]."""
    line, (flow, window) = plan.lines[r.line], c.pours[r.line]
    kg = r.casts * line.cast.poured.value.likely
    return bag_flows_s(c.way.melt, kg, window.open_degc, flow.tg, plan.room_degc).likely
